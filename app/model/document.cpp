// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/document_commands.h"

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
bool sameFlags(const Log& a, const Log& b) {
  return std::equal(a.channels.begin(), a.channels.end(), b.channels.begin(), b.channels.end(),
                    [](const Channel& x, const Channel& y) { return x.flag == y.flag; }) &&
         recordToJson(a) == recordToJson(b);
}

bool sameButPrices(Plan a, const Plan& b) {
  a.prices = b.prices;
  return a == b;
}
} // namespace

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
                if (m_result->nights[i].assessable && m_result->nights[i].coldest_C < coldest)
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
  if (after == m_plan) return std::nullopt; // nothing to undo
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
