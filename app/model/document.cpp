// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/document.h"
#include "app/model/said.h"

#include "core/fit/design_night.h"
#include "core/log/recipe.h"
#include "core/plan/plan_json.h"

#include <QLocale>
#include <QTimeZone>

#include <algorithm>

namespace muffle {
namespace {
/// What a new book begins with.
Plan firstPlan() {
  Plan plan;
  plan.site.place = {50.0, 5.0, 50.0};
  plan.site.placeAssumed = true; // until the grower says where
  // clock and money are those that this machine goes by, where it says
  if (const std::string zone = QTimeZone::systemTimeZoneId().toStdString(); TimeZone::named(zone)) plan.site.timeZone = zone;
  if (const QString money = QLocale().currencySymbol(QLocale::CurrencyIsoCode); !money.isEmpty()) plan.prices.currency = money.toStdString();
  return plan;
}
} // namespace

Document::Document(QObject* parent)
    : QObject(parent), m_planInHand(m_book, [this] { return m_view.units(); }), m_readings(m_book, m_planInHand), m_view(m_book, m_readings, m_results) {
  // the book
  connect(&m_book, &BookKeeping::savingChanged, this, &Document::savingChanged);
  connect(&m_book, &BookKeeping::trouble, this, &Document::trouble);
  connect(&m_book, &BookKeeping::moved, this, [this] {
    emit bookMoved();
    emit planChanged();
  });
  connect(&m_book, &BookKeeping::letGo, this, [this](const QString& path) {
    const auto night = m_view.selectedDate();
    if (const auto why = openBook(path, false)) emit trouble(*why);
    if (night) m_view.selectNightOf(*night);
  });
  connect(&m_book, &BookKeeping::planChangedElsewhere, &m_planInHand, &PlanInHand::follow);
  connect(&m_book, &BookKeeping::logChangedElsewhere, &m_readings, &LogInHand::follow);
  // the plan
  connect(&m_planInHand, &PlanInHand::changed, this, &Document::planMoved);
  // the log
  connect(&m_readings, &LogInHand::replaced, this, [this] {
    m_view.forgetNight();
    m_results.forgetWinters();
    emit logChanged();
    emit resultChanged();
  });
  connect(&m_readings, &LogInHand::revised, this, [this] { m_results.outdate(); }); // whatever runs now goes by the readings as they were
  connect(&m_readings, &LogInHand::prepared, this, [this] {
    m_results.forgetWinters(); // their steps are those of the weather before
    emit logChanged();
    runAgain();
  });
  connect(&m_readings, &LogInHand::nightsCut, this, &Document::logChanged);
  connect(&m_readings, &LogInHand::told, this, &Document::told);
  connect(&m_readings, &LogInHand::trouble, this, &Document::trouble);
  // the results
  connect(&m_results, &Results::arrived, this, [this] {
    m_view.openOnColdest();
    emit resultChanged();
    emit selectionChanged();
  });
  connect(&m_results, &Results::winterArrived, this, &Document::winterChanged);
  connect(&m_results, &Results::sizingChanged, this, &Document::sizingChanged);
  connect(&m_results, &Results::sizingProgress, this, &Document::sizingProgress);
  connect(&m_results, &Results::trouble, this, &Document::trouble);
  connect(&m_results, &Results::sizingFound, this, [this](const QString& kept) { m_book.saveSetting("found", kept); });
  // the view
  connect(&m_view, &ViewState::viewChanged, this, &Document::viewChanged);
  connect(&m_view, &ViewState::selectionChanged, this, &Document::selectionChanged);
  connect(&m_view, &ViewState::pointedPlanChanged, this, &Document::pointedPlanChanged);
}

std::optional<QString> Document::openBook(const QString& path, bool create) {
  auto contents = m_book.open(path, create, firstPlan());
  m_openingProblems = contents ? Problems() : contents.problems();
  if (!contents) return said(contents.problem());
  Plan& plan = contents->plan;
  // books begun before a place could be given stand at the old usual one
  if (const Place& at = plan.site.place; plan.site.name.empty() && at.latitude_deg == 50.0 && at.longitude_deg == 5.0) plan.site.placeAssumed = true;
  m_results.forgetAll();
  m_planInHand.start(plan);
  m_view.restore(contents->settings);
  m_readings.restoreSources(QString::fromStdString(contents->settings["log.followed"]), QString::fromStdString(contents->settings["log.station"]));
  m_controllerAddress = QString::fromStdString(contents->settings["controller.address"]);
  m_controller.connectTo(m_book.isFollowingWindow() ? QString() : m_controllerAddress); // else the other window speaks with it
  m_keptSizing = contents->settings["found"];
  m_book.keepState(tr("when the book was opened"), plan);
  m_readings.start(std::move(contents->log));
  emit bookOpened();
  emit viewChanged();
  emit planChanged();
  emit logChanged();
  emit sizingChanged();
  emit resultChanged();
  emit savingChanged();
  runAgain();
  return std::nullopt;
}

std::optional<QString> Document::setController(const QString& address) {
  if (auto why = m_controller.connectTo(address)) return why;
  m_controllerAddress = address;
  m_book.saveSetting("controller.address", address);
  return std::nullopt;
}

void Document::planMoved(const Plan& before) {
  const Site& a = before.site;
  const Site& b = plan().site;
  const bool siteMoved = a.place.latitude_deg != b.place.latitude_deg || a.place.longitude_deg != b.place.longitude_deg ||
                         a.place.elevation_m != b.place.elevation_m || a.timeZone != b.timeZone || a.wind_m_s != b.wind_m_s;
  const bool onlyPrices = m_results.sizingIsCurrent() && sameButPrices(before, plan());
  if (siteMoved)
    m_readings.prepareAgain();
  else if (before.setpoints.hold_C != plan().setpoints.hold_C)
    m_readings.cutNightsAgain(); // what is owed below the line
  runAgain();
  if (onlyPrices) { // what was searched is ranked again, not searched again
    m_results.keepSizing();
    m_results.repriceSizing(plan().prices);
  }
  emit planChanged();
}

void Document::runAgain() {
  m_results.outdate();
  if (!m_readings.weather() || m_readings.isPreparing()) return;
  m_results.run(plan(), m_readings.sharedWeather(), m_view.inSight());
  if (!m_keptSizing.empty()) m_results.restoreSizing(plan(), m_readings.sharedWeather(), std::exchange(m_keptSizing, {}));
}

std::optional<QString> Document::bringBack(const Snapshot& state) {
  if (m_book.isFollowingWindow()) return BookKeeping::heldElsewhere();
  const auto json = parseJson(state.planJson);
  const auto before = json ? planFromJson(*json) : Result<Plan>(json.problems());
  if (!before) return said(before.problem());
  const std::shared_ptr<const Log> now = m_readings.shared();
  std::shared_ptr<const Log> log = now;
  if (state.log != 0) {
    auto read = m_book.logOf(state);
    if (!read) return said(read.problem());
    const bool same = now && now->time == read->time && recordToJson(*now) == recordToJson(*read);
    if (!same) log = std::make_shared<const Log>(std::move(*read));
  } else if (state.logRows == 0) {
    log = nullptr;
  }
  const QString name = tr("bring back \"%1\"").arg(QString::fromStdString(state.name));
  m_book.keepState(tr("before \"%1\"").arg(name), plan());
  m_planInHand.undoStack()->beginMacro(name);
  m_planInHand.replace(name, *before);
  if (log != now) m_readings.replace(name, log);
  m_planInHand.undoStack()->endMacro();
  return std::nullopt;
}

void Document::compareWith(std::optional<Plan> other, const QString& name, std::optional<std::size_t> package) {
  m_results.compareWith(std::move(other), name, package);
  const bool sizingWasCurrent = m_results.sizingIsCurrent();
  runAgain();
  if (sizingWasCurrent) m_results.keepSizing(); // the plan in hand did not change
  emit planChanged();
}

void Document::takeOther() {
  if (!m_results.otherPlan()) return;
  const Plan taken = *m_results.otherPlan();
  const QString name = m_results.otherName();
  m_book.keepState(tr("before \"%1\" was taken").arg(name), plan());
  edit(tr("take \"%1\"").arg(name), [&](Plan& p) { p = taken; });
  compareWith(std::nullopt, {});
}

double Document::designLow_C() const {
  constexpr double kAssumed_C = -10.0;
  if (const auto logged = loggedLows(m_readings.nights())) return logged->coldest_C;
  const auto& listed = plan().site.annualLows_C;
  return listed.empty() ? kAssumed_C : *std::min_element(listed.begin(), listed.end());
}

} // namespace muffle
