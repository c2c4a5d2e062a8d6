// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/document.h"

#include "app/model/background.h"
#include "app/model/beside.h"
#include "app/model/engine.h"
#include "app/model/outbox.h"
#include "book/files.h"
#include "book/lock.h"
#include "core/fit/design_night.h"
#include "core/log/merge.h"
#include "core/log/recipe.h"
#include "core/plan/plan_json.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QElapsedTimer>
#include <QLocale>
#include <QThread>
#include <QTimeZone>
#include <QUndoCommand>

#include <algorithm>
#include <filesystem>

namespace muffle {

namespace {
constexpr int kReadingPatience_ms = 100; // the window waits no longer for what is just being written
constexpr int kReadAfter_ms = 1500;      // what is still being written is waited for so long

bool sameFlags(const Log& a, const Log& b) {
  return std::equal(a.channels.begin(), a.channels.end(), b.channels.begin(), b.channels.end(),
                    [](const Channel& x, const Channel& y) { return x.flag == y.flag; }) &&
         recordToJson(a) == recordToJson(b);
}

bool sameButPrices(Plan a, const Plan& b) {
  a.prices = b.prices;
  return planToJson(a) == planToJson(b);
}
} // namespace

class EditCommand : public QUndoCommand {
public:
  EditCommand(Document& document, const QString& name, Plan before, Plan after, int mergeId, int epoch)
      : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)), m_mergeId(mergeId), m_epoch(epoch) {}
  void redo() override { m_document.applyPlan(m_after); }
  void undo() override { m_document.applyPlan(m_before); }
  int id() const override { return m_mergeId; }
  bool mergeWith(const QUndoCommand* later) override {
    const auto* other = static_cast<const EditCommand*>(later);
    if (other->m_mergeId != m_mergeId || other->m_epoch != m_epoch) return false;
    m_after = other->m_after;
    return true;
  }

private:
  Document& m_document;
  Plan m_before, m_after;
  int m_mergeId, m_epoch;
};

class LogCommand : public QUndoCommand {
public:
  LogCommand(Document& document, const QString& name, std::shared_ptr<const Log> before, std::shared_ptr<const Log> after)
      : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)) {}
  void redo() override { m_document.applyLog(m_after); }
  void undo() override { m_document.applyLog(m_before); }

private:
  Document& m_document;
  std::shared_ptr<const Log> m_before, m_after;
};

class DecisionCommand : public QUndoCommand {
public:
  DecisionCommand(Document& document, const QString& name, std::vector<Decision> before, std::vector<Decision> after)
      : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)) {}
  void redo() override { m_document.applyDecisions(m_after); }
  void undo() override { m_document.applyDecisions(m_before); }

private:
  Document& m_document;
  std::vector<Decision> m_before, m_after;
};

Document::Document(QObject* parent) : QObject(parent), m_engine(std::make_unique<Engine>()), m_background(std::make_unique<Background>()) {
  m_followTimer.setInterval(1000);
  connect(&m_followTimer, &QTimer::timeout, this, &Document::followWindow);
  connect(m_engine.get(), &Engine::simulated, this,
          [this](quint64 generation, const std::shared_ptr<const Weather>& weather, std::shared_ptr<Simulation> result, std::shared_ptr<const Simulation> other,
                 const QString& problem) {
            if (!problem.isEmpty()) emit trouble(problem);
            if (!result || generation < m_resultOf || weather != m_log.weather) return; // of an older plan or another log
            m_result = std::move(result);
            m_otherResult = std::move(other);
            m_resultOf = generation;
            if (m_night >= static_cast<int>(m_result->nights.size())) m_night = -1;
            if (m_night < 0) { // open on the coldest judged night
              double coldest = 1e9;
              for (std::size_t i = 0; i < m_result->nights.size(); ++i)
                if (m_result->nights[i].judged && m_result->nights[i].coldest_C < coldest)
                  coldest = m_result->nights[i].coldest_C, m_night = static_cast<int>(i);
              m_spanStart = m_night;
            }
            emit resultChanged();
            emit selectionChanged();
          });
  connect(m_engine.get(), &Engine::winterSimulated, this,
          [this](quint64 generation, const std::shared_ptr<const Weather>& weather, std::size_t winter, const std::shared_ptr<const WinterResult>& result,
                 std::size_t step) {
            if (generation != m_generation || weather != m_log.weather || !m_result || winter >= m_result->series.size()) return;
            takeFirst(m_result->series[winter], result->series, step);
            m_result->soilDepth_m = result->soilDepth_m;
            auto night = result->nights.begin();
            for (NightResult& n : m_result->nights)
              if (n.winter == winter && night != result->nights.end()) n = *night++;
            m_freshOf = generation;
            m_freshWinter = winter;
            m_freshTo = step;
            emit winterChanged();
          });
  connect(m_engine.get(), &Engine::sized, this, [this](quint64 generation, std::shared_ptr<Sizing> sizing, const QString& problem) {
    if (generation != m_sizingAsked) return; // of a book that is no longer open
    m_isSizing = false;
    if (sizing) {
      m_sizing = std::move(sizing);
      m_sizingOf = generation;
    } else if (!problem.isEmpty()) {
      emit trouble(problem);
    }
    emit sizingChanged();
  });
  connect(m_engine.get(), &Engine::progress, this, &Document::sizingProgress);
}

Document::~Document() { m_undo.clear(); }

/// What is read of a book when it is opened.
struct Document::Opened {
  Book book, writer;
  std::vector<StoredPlan> plans;
  std::vector<StoredLog> logs;
  std::map<std::string, std::string> settings;

  static Result<Opened> read(const std::string& path, bool create) {
    auto book = Book::open(path, create ? Book::Mode::create : Book::Mode::existing);
    if (!book) return book.problems();
    auto plans = book->plans();
    if (!plans) return plans.problems();
    auto logs = book->logs();
    if (!logs) return logs.problems();
    auto settings = book->settings();
    if (!settings) return settings.problems();
    auto writer = Book::open(path, Book::Mode::existing, Book::Check::opened);
    if (!writer) return writer.problems();
    return Opened{std::move(*book), std::move(*writer), std::move(*plans), std::move(*logs), std::move(*settings)};
  }
};

std::optional<QString> Document::openBook(const QString& path, bool create) {
  const std::string file = path.toStdString();
  std::error_code error;
  if (bookPath() == path) m_outbox.reset(), m_lock.reset(); // opened again: all is written first
  const bool fresh = !std::filesystem::exists(file, error);
  auto lock = BookLock::take(file); // before SQLite opens it; see lock.h
  auto opened = beside([&] { return Opened::read(file, create); });
  if (fresh && opened) { // it is there now: whoever made it at the same moment has it
    lock.reset();
    if (auto now = BookLock::take(file)) lock.emplace(std::move(*now));
  }
  m_openingProblems = opened ? Problems() : opened.problems();
  if (!opened) {
    if (bookPath() == path)
      if (auto writer = Book::open(file, Book::Mode::existing, Book::Check::opened)) own(std::move(*writer));
    return QString::fromStdString(opened.problem().text());
  }
  Plan plan;
  plan.site.place = {50.0, 5.0, 50.0};
  plan.site.placeAssumed = true; // until the grower says where
  // clock and money are those that this machine goes by, where it says
  if (const std::string zone = QTimeZone::systemTimeZoneId().toStdString(); TimeZone::named(zone)) plan.site.timeZone = zone;
  if (const QString money = QLocale().currencySymbol(QLocale::CurrencyIsoCode); !money.isEmpty()) plan.prices.currency = money.toStdString();
  RowId planId = 0;
  if (opened->plans.empty()) {
    auto id = opened->book.addPlan(plan);
    if (!id) return QString::fromStdString(id.problem().text());
    planId = *id;
  } else {
    plan = opened->plans.front().plan;
    planId = opened->plans.front().id;
    // books begun before a place could be given stand at the old usual one
    if (const Place& at = plan.site.place; plan.site.name.empty() && at.latitude_deg == 50.0 && at.longitude_deg == 5.0) plan.site.placeAssumed = true;
  }
  m_outbox.reset(); // the book before is written and let go
  m_lock.reset();
  m_book = std::move(opened->book);
  m_book->setPatience(kReadingPatience_ms);
  m_undo.clear();
  m_planId = planId;
  m_plan = plan;
  m_log = {};
  m_other.reset();
  m_result.reset();
  m_otherResult.reset();
  m_sizing.reset();
  if (m_isSizing) cancelSizing();
  m_isSizing = false;
  m_sizingAsked = 0;
  m_night = -1;
  if (!opened->logs.empty()) m_log.log = std::make_shared<const Log>(std::move(opened->logs.back().log));
  auto& settings = opened->settings;
  m_units.fahrenheit = settings["units.temperature"] == "F";
  m_units.feet = settings["units.length"] == "ft";
  m_dark = settings["theme"] == "lamp";
  m_followed = QString::fromStdString(settings["log.followed"]);
  m_station = QString::fromStdString(settings["log.station"]);
  if (!lock) {
    m_seenVersion = m_book->version() ? *m_book->version() : 0;
    m_seenLog = m_book->logDigest() ? *m_book->logDigest() : 0;
    m_followTimer.start();
  } else {
    m_lock = std::make_shared<BookLock>(std::move(*lock));
    own(std::move(opened->writer));
    keepState(tr("when the book was opened"));
  }
  prepareNow(m_log.log, Save::flags);
  emit bookOpened();
  emit viewChanged();
  emit planChanged();
  emit logChanged();
  emit sizingChanged();
  emit resultChanged();
  emit savingChanged();
  simulateNow();
  return std::nullopt;
}

/// The open book is this window's to write, from here on.
void Document::own(Book writer) {
  m_followTimer.stop();
  m_stateKept_s = 0;
  if (!m_lock)
    if (auto lock = BookLock::take(writer.path())) m_lock = std::make_shared<BookLock>(std::move(*lock));
  m_outbox = std::make_unique<Outbox>(std::move(writer), [this] { QMetaObject::invokeMethod(this, &Document::outboxChanged, Qt::QueuedConnection); });
}

void Document::outboxChanged() {
  if (!m_outbox) return;
  if (const auto refused = m_outbox->takeRefused()) emit trouble(QString::fromStdString(refused->text()));
  emit savingChanged();
}

std::optional<QString> Document::whyNotSaved() const {
  if (!m_outbox) return m_book && !isFollowingWindow() ? std::optional(tr("the book cannot be opened for writing")) : std::nullopt;
  const auto stopped = m_outbox->state().stopped;
  if (!stopped) return std::nullopt;
  return QString::fromStdString(stopped->what + "; " + stopped->allowed);
}

void Document::trySavingAgain() {
  if (m_outbox) m_outbox->tryAgain();
}

bool Document::waitUntilSaved(int timeout_ms) { return !m_outbox || m_outbox->waitUntilWritten(timeout_ms); }

std::optional<QString> Document::saveElsewhere(const QString& path) {
  if (!m_book) return std::nullopt;
  const std::string file = path.toStdString();
  std::error_code error;
  if (std::filesystem::equivalent(file, m_book->path(), error)) return tr("%1 is the book that cannot be written: choose another name").arg(path);
  auto lock = BookLock::take(file);
  if (!lock) return tr("%1 is open in another window: choose another name").arg(path);
  auto folder = TemporaryFolder::beside(file);
  if (!folder) return QString::fromStdString(folder.problem().text());
  const std::vector<Outbox::Entry> waiting = m_outbox ? m_outbox->takeAll() : std::vector<Outbox::Entry>();
  const auto keepWaiting = [&] {
    if (m_outbox)
      for (const Outbox::Entry& e : waiting) m_outbox->put(e.key, e.job);
  };
  const std::string part = folder->path() + "/book.muffle";
  const Status made = beside([&, plan = m_plan, log = m_log.log]() -> Status {
    const bool copied = static_cast<bool>(m_book->copyTo(part)); // the old one may be out of reach altogether
    if (!copied) std::filesystem::remove(part, error);
    auto book = Book::open(part, Book::Mode::create, Book::Check::opened);
    if (!book) return book.problems();
    if (!copied) {
      if (auto id = book->addPlan(plan); !id) return id.problems();
      if (log)
        if (auto id = book->addLog(*log); !id) return id.problems();
    }
    for (const Outbox::Entry& e : waiting)
      if (auto ok = e.job(*book); !ok && ok.problem().kind == ProblemKind::storage) return ok;
    if (const auto plans = book->plans(); !plans || plans->empty()) return Problem{ProblemKind::storage, file, "cannot be written", "choose another place"};
    return Done{};
  });
  if (!made) {
    keepWaiting();
    return QString::fromStdString(made.problem().text());
  }
  std::filesystem::rename(part, file, error);
  if (error) {
    keepWaiting();
    return tr("%1 cannot be written: %2").arg(path, QString::fromStdString(error.message()));
  }
  auto book = Book::open(file, Book::Mode::existing, Book::Check::opened);
  auto writer = book ? Book::open(file, Book::Mode::existing, Book::Check::opened) : Result<Book>(book.problems());
  if (!writer) {
    book = writer.problems();
    keepWaiting();
    return QString::fromStdString(book.problem().text());
  }
  m_planId = book->plans()->front().id;
  m_outbox.reset();
  m_book = std::move(*book);
  m_book->setPatience(kReadingPatience_ms);
  m_lock.reset();
  own(std::move(*writer));
  emit bookMoved();
  emit savingChanged();
  emit planChanged();
  return std::nullopt;
}

/// While another window holds the book: what it has done since, and whether it has gone.
void Document::followWindow() {
  if (!m_book) return m_followTimer.stop();
  if (BookLock::take(m_book->path())) { // it is ours now, as it stands
    const QString path = bookPath();
    const auto night = selectedDate();
    if (const auto why = openBook(path, false)) emit trouble(*why);
    if (night) selectNightOf(*night);
    return;
  }
  const auto version = m_book->version();
  if (!version || *version == m_seenVersion) return;
  m_seenVersion = *version;
  if (const auto plans = m_book->plans(); plans && !plans->empty() && planToJson(plans->front().plan) != planToJson(m_plan)) applyPlan(plans->front().plan);
  const auto digest = m_book->logDigest();
  if (!digest || *digest == m_seenLog) return;
  m_seenLog = *digest;
  auto logs = beside([this] { return m_book->logs(); });
  if (!logs) return;
  applyLog(logs->empty() ? nullptr : std::make_shared<const Log>(std::move(logs->back().log)));
}

bool Document::mayChange() {
  if (!isFollowingWindow()) return true;
  emit trouble(heldElsewhere());
  return false;
}

QString Document::heldElsewhere() { return tr("This book is open in another window, and is changed there. Close that window, or work on a copy."); }

QString Document::bookPath() const { return m_book ? QString::fromStdString(m_book->path()) : QString(); }

TimeZone Document::zone() const {
  auto zone = TimeZone::named(m_plan.site.timeZone);
  return zone ? *zone : TimeZone::utc();
}

/// Works out what hangs on the log on the background thread; its flags are then saved where asked.
void Document::prepareNow(std::shared_ptr<const Log> raw, Save save) {
  const quint64 generation = ++m_logGeneration;
  m_preparing = raw != nullptr;
  if (save == Save::log) saveLog(raw, Save::log); // at once, and its flags when they are known
  if (!raw) return;
  m_background->post([this, generation, raw = std::move(raw), save, site = m_plan.site, hold = m_plan.setpoints.hold_C](const std::stop_token& stop) {
    auto prepared = prepareLog(*raw, site, hold, stop);
    if (!prepared) return; // the window is closing
    QMetaObject::invokeMethod(
        this, [this, generation, prepared = std::move(*prepared), save] { logPrepared(generation, prepared, save); }, Qt::QueuedConnection);
  });
}

void Document::logPrepared(quint64 generation, PreparedLog prepared, Save save) {
  if (generation != m_logGeneration) return; // another log or site has taken its place
  m_preparing = false;
  // a window that was closed too soon leaves a log without its flags: they are made good when it is opened again
  if (save != Save::nothing && !sameFlags(*m_log.log, *prepared.log)) saveLog(prepared.log, Save::flags);
  m_log = std::move(prepared);
  m_result.reset(); // its steps are those of the weather before
  m_otherResult.reset();
  if (!m_log.whyNoWeather.empty()) emit trouble(QString::fromStdString(m_log.whyNoWeather));
  emit logChanged();
  simulateNow();
}

void Document::saveLog(std::shared_ptr<const Log> log, Save save) {
  if (!m_outbox) return;
  if (save == Save::log)
    m_outbox->put("log", [log = std::move(log)](Book& book) { return book.replaceLogs(log.get()); }, {"flags"});
  else
    m_outbox->put("flags", [log = std::move(log)](Book& book) -> Status {
      const auto id = book.newestLog();
      if (!id) return id.problems();
      return book.saveFlags(*id, *log);
    });
}

void Document::savePlan() {
  if (m_outbox) m_outbox->put("plan", [id = m_planId, plan = m_plan](Book& book) { return book.savePlan(id, plan); });
}

void Document::keepState(const QString& why, bool onlyIfLongAgo) {
  constexpr qint64 kLongAgo_s = 15 * 60;
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  if (!m_outbox || (onlyIfLongAgo && now - m_stateKept_s < kLongAgo_s)) return;
  m_stateKept_s = now;
  m_outbox->putToStay([why = why.toStdString(), now, plan = m_plan](Book& book) -> Status {
    auto id = book.keepState(why, now, plan);
    if (!id) return id.problems();
    return Done{};
  });
}

void Document::applyPlan(const Plan& plan) {
  const Site& a = m_plan.site;
  const Site& b = plan.site;
  const bool siteMoved = a.place.latitude_deg != b.place.latitude_deg || a.place.longitude_deg != b.place.longitude_deg ||
                         a.place.elevation_m != b.place.elevation_m || a.timeZone != b.timeZone || a.wind_m_s != b.wind_m_s;
  const bool onlyPrices = sizingIsCurrent() && sameButPrices(m_plan, plan);
  const bool lineMoved = m_plan.setpoints.hold_C != plan.setpoints.hold_C;
  m_plan = plan;
  if (lineMoved && !siteMoved && m_log.log && !m_preparing) {
    if (const auto zone = TimeZone::named(plan.site.timeZone)) m_log.nights = cutNights(*m_log.log, plan.site.place, *zone, plan.setpoints.hold_C);
    emit logChanged(); // what is owed below the line
  }
  if (siteMoved && m_log.log) prepareNow(m_log.log, Save::nothing);
  simulateNow();
  savePlan();
  if (onlyPrices) { // what was searched is ranked again, not searched again
    m_sizingOf = m_generation;
    repriceSizing(m_plan.prices);
  }
  emit planChanged();
}

void Document::applyLog(std::shared_ptr<const Log> log) {
  m_log = {};
  m_log.log = log;
  m_night = -1;
  m_result.reset();
  m_otherResult.reset();
  ++m_generation; // whatever runs now belongs to the log before
  prepareNow(std::move(log), Save::log);
  emit logChanged();
  emit resultChanged();
}

std::optional<QString> Document::edit(const QString& name, const std::function<void(Plan&)>& change, int mergeId) {
  Plan after = m_plan;
  change(after);
  const auto refused = [](const Problem& p) { return QString::fromStdString(p.what + ": " + p.allowed); };
  if (const Problems problems = check(after); !problems.empty()) return refused(problems.front());
  if (const auto readable = planFromJson(planToJson(after)); !readable) return refused(readable.problem()); // what is saved can be opened again
  if (!m_book) return tr("No book is open: open one, or begin a new one.");
  if (isFollowingWindow()) return heldElsewhere();
  keepState(tr("before \"%1\"").arg(name), true);
  m_undo.push(new EditCommand(*this, name, m_plan, after, mergeId, m_mergeEpoch));
  return std::nullopt;
}

std::optional<QString> Document::setLog(Log log) {
  if (log.time.empty()) return tr("the log has no readings");
  if (isFollowingWindow()) return heldElsewhere();
  keepState(tr("before a log was imported"));
  m_undo.push(new LogCommand(*this, tr("import a log"), m_log.log, std::make_shared<const Log>(std::move(log))));
  return std::nullopt;
}

std::optional<QString> Document::addToLog(const QString& what, const Log& more) {
  if (more.time.empty()) return tr("there are no readings in it");
  if (isFollowingWindow()) return heldElsewhere();
  if (!m_log.log) {
    m_undo.push(new LogCommand(*this, what, nullptr, std::make_shared<const Log>(more)));
    return std::nullopt;
  }
  Merged merged = mergeLogs(*m_log.log, more);
  const QLocale locale;
  const QString said =
      tr("%1 new readings; %2 were there already")
          .arg(locale.toString(static_cast<qlonglong>(merged.added)), locale.toString(static_cast<qlonglong>(merged.same))) +
      (merged.different > 0 ? tr("; %1 differ from those, which stay").arg(locale.toString(static_cast<qlonglong>(merged.different))) : QString());
  if (merged.added > 0) m_undo.push(new LogCommand(*this, what, m_log.log, std::make_shared<const Log>(std::move(merged.log))));
  emit told(said);
  return std::nullopt;
}

void Document::followed(const Log& more) {
  if (more.time.empty() || isFollowingWindow()) return;
  if (!m_log.log) return applyLog(std::make_shared<const Log>(more));
  Merged merged = mergeLogs(*m_log.log, more);
  if (merged.added == 0) return;
  m_log.log = std::make_shared<const Log>(std::move(merged.log)); // at once, so that what is decided next is decided of it; the flags follow
  ++m_generation;
  prepareNow(m_log.log, Save::log);
}

void Document::decide(const QString& name, const std::vector<Decision>& decisions) {
  if (!m_log.log || decisions.empty() || !mayChange()) return;
  std::vector<Decision> all = m_log.log->decisions;
  all.insert(all.end(), decisions.begin(), decisions.end());
  m_undo.push(new DecisionCommand(*this, name, m_log.log->decisions, std::move(all)));
}

void Document::applyDecisions(const std::vector<Decision>& decisions) {
  if (!m_log.log) return;
  auto log = std::make_shared<Log>(*m_log.log);
  log->decisions = decisions;
  m_log.log = log;           // at once, so that the next decision builds on this one; the flags follow
  ++m_generation;            // whatever runs now goes by the readings as they were
  saveLog(log, Save::flags); // the grower's word at once, the flags that follow from it when they are known
  prepareNow(std::move(log), Save::flags);
}

void Document::setFollowedFile(const QString& path) {
  m_followed = path;
  saveSetting("log.followed", path);
}

void Document::setStation(const QString& address) {
  m_station = address;
  saveSetting("log.station", address);
}

std::vector<Recipe> Document::recipes() const {
  if (!m_book) return {};
  if (m_outbox) m_outbox->waitUntilWritten(kReadAfter_ms);
  auto all = m_book->recipes();
  return all ? std::move(*all) : std::vector<Recipe>();
}

void Document::keepRecipe(const Recipe& recipe) {
  if (m_outbox) m_outbox->put("recipe " + recipe.name, [recipe](Book& book) { return book.saveRecipe(recipe); });
}

void Document::keepSnapshot(const QString& name) {
  if (!m_outbox) return void(mayChange());
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  m_outbox->putToStay([name = name.toStdString(), now, plan = m_plan](Book& book) -> Status {
    auto id = book.addSnapshot(name, now, plan);
    if (!id) return id.problems();
    return Done{};
  });
}

std::vector<Snapshot> Document::earlierStates() const {
  if (!m_book) return {};
  if (m_outbox) m_outbox->waitUntilWritten(kReadAfter_ms);
  auto all = m_book->snapshots();
  if (!all) return {};
  std::reverse(all->begin(), all->end());
  return std::move(*all);
}

std::optional<QString> Document::bringBack(const Snapshot& state) {
  if (isFollowingWindow()) return heldElsewhere();
  const auto json = parseJson(state.planJson);
  const auto plan = json ? planFromJson(*json) : Result<Plan>(json.problems());
  if (!plan) return QString::fromStdString(plan.problem().text());
  std::shared_ptr<const Log> log = m_log.log;
  if (state.log != 0) {
    auto read = beside([&] { return m_book->logOf(state); });
    if (!read) return QString::fromStdString(read.problem().text());
    const bool same = m_log.log && m_log.log->time == read->time && recordToJson(*m_log.log) == recordToJson(*read);
    if (!same) log = std::make_shared<const Log>(std::move(*read));
  } else if (state.logRows == 0) {
    log = nullptr;
  }
  const QString name = tr("bring back \"%1\"").arg(QString::fromStdString(state.name));
  keepState(tr("before \"%1\"").arg(name));
  m_undo.beginMacro(name);
  m_undo.push(new EditCommand(*this, name, m_plan, *plan, -1, m_mergeEpoch));
  if (log != m_log.log) m_undo.push(new LogCommand(*this, name, m_log.log, log));
  m_undo.endMacro();
  return std::nullopt;
}

std::size_t Document::winterInSight() const {
  return m_result && m_night >= 0 && m_night < static_cast<int>(m_result->nights.size()) ? m_result->nights[static_cast<std::size_t>(m_night)].winter : 0;
}

std::size_t Document::stepInSight() const {
  constexpr double kDaysAfter = 3.3; // the charts of a night show the days beside it
  if (!m_result || !m_log.weather || m_night < 0 || m_night >= static_cast<int>(m_result->nights.size())) return 0;
  const NightResult& night = m_result->nights[static_cast<std::size_t>(m_night)];
  const Winter& winter = m_log.weather->winters[night.winter];
  return std::min(night.to + static_cast<std::size_t>(kDaysAfter * 86400.0 / winter.step_s), winter.size() - 1);
}

bool Document::isCurrentInSight() const {
  return isCurrent() || (m_result && m_freshOf == m_generation && m_freshWinter == winterInSight() && stepInSight() <= m_freshTo);
}

void Document::simulateNow() {
  ++m_generation;
  if (m_log.weather && !m_preparing) m_engine->simulate(m_generation, m_plan, m_other, m_log.weather, {winterInSight(), stepInSight()});
}

void Document::compareWith(std::optional<Plan> other, const QString& name) {
  m_other = std::move(other);
  m_otherName = name;
  if (!m_other) m_otherResult.reset();
  const bool sizingWasCurrent = sizingIsCurrent();
  simulateNow();
  if (sizingWasCurrent) m_sizingOf = m_generation; // the plan in hand did not change
  emit planChanged();
}

void Document::takeOther() {
  if (!m_other) return;
  const Plan taken = *m_other;
  keepState(tr("before \"%1\" was taken").arg(m_otherName));
  edit(tr("take \"%1\"").arg(m_otherName), [&](Plan& p) { p = taken; });
  compareWith(std::nullopt, {});
}

double Document::designLow_C() const {
  constexpr double kAssumed_C = -10.0;
  if (const auto logged = loggedLows(logNights())) return logged->coldest_C;
  const auto& listed = m_plan.site.annualLows_C;
  return listed.empty() ? kAssumed_C : *std::min_element(listed.begin(), listed.end());
}

void Document::startSizing() {
  if (!m_log.weather || m_isSizing) return;
  m_isSizing = true;
  m_sizedPlan = m_plan;
  emit sizingChanged();
  m_sizingAsked = m_generation;
  m_engine->size(m_generation, m_plan, m_log.weather);
}

void Document::cancelSizing() { m_engine->cancelSizing(); }

void Document::repriceSizing(const Prices& prices) {
  if (!m_sizing) return;
  m_sizedPlan.prices = prices;
  reprice(*m_sizing, m_sizedPlan, prices);
  emit sizingChanged();
}

void Document::saveSetting(const char* key, const QString& value) {
  if (m_outbox)
    m_outbox->put(std::string("setting ") + key, [key = std::string(key), value = value.toStdString()](Book& book) { return book.setSetting(key, value); });
}

void Document::setUnits(const Units& units) {
  m_units = units;
  saveSetting("units.temperature", units.fahrenheit ? QStringLiteral("F") : QStringLiteral("C"));
  saveSetting("units.length", units.feet ? QStringLiteral("ft") : QStringLiteral("m"));
  emit viewChanged();
}

void Document::setDark(bool dark) {
  m_dark = dark;
  saveSetting("theme", dark ? QStringLiteral("lamp") : QStringLiteral("wool"));
  emit viewChanged();
}

void Document::selectNight(int night, bool extend) {
  if (!m_result || m_result->nights.empty()) return;
  m_night = std::clamp(night, 0, static_cast<int>(m_result->nights.size()) - 1);
  if (!extend) m_spanStart = m_night;
  emit selectionChanged();
}

std::optional<Date> Document::selectedDate() const {
  if (!m_result || m_night < 0 || m_night >= static_cast<int>(m_result->nights.size())) return std::nullopt;
  return m_result->nights[static_cast<std::size_t>(m_night)].date;
}

void Document::selectNightOf(const Date& date) {
  for (std::size_t i = 0; m_result && i < m_result->nights.size(); ++i)
    if (m_result->nights[i].date == date) return selectNight(static_cast<int>(i));
}

void Document::setClock(double clock) {
  m_clock = std::clamp(clock, 0.0, 1.0);
  emit selectionChanged();
}

std::optional<Document::Moment> Document::moment() const {
  if (!m_result || !m_log.weather || m_night < 0 || m_night >= static_cast<int>(m_result->nights.size())) return std::nullopt;
  const NightResult& night = m_result->nights[static_cast<std::size_t>(m_night)];
  const Winter& winter = m_log.weather->winters[night.winter];
  const auto middle = static_cast<double>(night.from + night.to) / 2.0; // about midnight by the sun
  const double step = middle + (m_clock - 0.5) * 86400.0 / winter.step_s;
  return Moment{night.winter, static_cast<std::size_t>(std::clamp(step, 0.0, static_cast<double>(winter.size() - 1)))};
}

bool Document::waitForResult(int timeout_ms) {
  QElapsedTimer timer;
  timer.start();
  while ((m_preparing || m_log.weather) && !isCurrent() && timer.elapsed() < timeout_ms) {
    QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    QThread::msleep(2);
  }
  return isCurrent();
}

bool Document::waitForSizing(int timeout_ms) {
  QElapsedTimer timer;
  timer.start();
  while (m_isSizing && timer.elapsed() < timeout_ms) {
    QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    QThread::msleep(5);
  }
  return !m_isSizing;
}

} // namespace muffle
