// SPDX-License-Identifier: GPL-3.0-or-later
//
// How a document keeps its book: opened, written beside the window, followed while another window holds it, saved elsewhere, and brought back to
// earlier states.
#include "app/model/background.h"
#include "app/model/beside.h"
#include "app/model/document_commands.h"
#include "app/model/engine.h"
#include "app/model/outbox.h"
#include "book/files.h"
#include "book/lock.h"
#include "core/log/recipe.h"
#include "core/plan/plan_json.h"

#include <QDateTime>
#include <QLocale>
#include <QTimeZone>

#include <algorithm>
#include <filesystem>

namespace muffle {
namespace {
constexpr int kReadingPatience_ms = 100; // the window waits no longer for what is just being written
constexpr int kReadAfter_ms = 1500;      // what is still being written is waited for so long

template <class T> Status doneIf(const Result<T>& result) {
  if (!result) return result.problems();
  return Done{};
}
} // namespace

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
  if (const auto plans = m_book->plans(); plans && !plans->empty() && !(plans->front().plan == m_plan)) applyPlan(plans->front().plan);
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
  m_outbox->putToStay([why = why.toStdString(), now, plan = m_plan](Book& book) -> Status { return doneIf(book.keepState(why, now, plan)); });
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
  m_outbox->putToStay([name = name.toStdString(), now, plan = m_plan](Book& book) -> Status { return doneIf(book.addSnapshot(name, now, plan)); });
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

void Document::saveSetting(const char* key, const QString& value) {
  if (m_outbox)
    m_outbox->put(std::string("setting ") + key, [key = std::string(key), value = value.toStdString()](Book& book) { return book.setSetting(key, value); });
}

} // namespace muffle
