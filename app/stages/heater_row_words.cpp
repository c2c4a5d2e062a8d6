// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/heater_row_words.h"

#include "app/model/said.h"
#include "app/stages/dates.h"
#include "app/stages/heater_words.h"
#include "core/constants.h"
#include "core/cost/fuel_orders.h"
#include "core/plan/names.h"
#include "core/plan/unvented.h"

#include <QLocale>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

/// Below a kilogram or a pound, by the gram or ounce.
QString littleMass(const Units& units, double kg) {
  constexpr double kPound_kg = 0.45359237;
  if (kg >= (units.feet ? kPound_kg : 1.0)) return units.text(Quantity::mass, kg);
  return units.feet ? HeaterList::tr("%1 oz").arg(QLocale().toString(16.0 * kg / kPound_kg, 'f', 1)) : HeaterList::tr("%1 g").arg(std::lround(1000.0 * kg));
}

} // namespace

HeaterRowWords::HeaterRowWords(const Document& document) : m_document(document) {
  const Plan& plan = m_document.plan();
  const bool isAsked = std::any_of(plan.heaters.begin(), plan.heaters.end(), [](const Heater& h) { return h.beforeNightsBelow_C.has_value(); });
  const Weather* weather = isAsked ? m_document.readings().weather() : nullptr;
  const auto zone = TimeZone::named(plan.site.timeZone);
  m_nights = weather && zone ? askedNights(plan.setpoints, *weather, *zone) : std::vector<AskedSetpoint>();
  const Simulation* const run = m_document.results().simulation();
  const Weather* const logged = m_document.readings().weather();
  m_cycles = run && logged && m_document.results().isCurrent() ? heaterCycles(plan, *logged, *run) : std::vector<HeaterCycles>();
}

/// How often it is delivered, and when the stock is gone.
QString HeaterRowWords::fuel(std::size_t heater) const {
  const Plan& plan = m_document.plan();
  const Delivery& delivery = plan.heaters[heater].delivery;
  const Simulation& run = *m_document.results().simulation();
  QString words;
  for (const FuelWinter& taken : fuelOfWinter(plan, run.summary.ledger, run.summary.winters)) {
    if (taken.heater != heater || delivery.units <= 0.0) continue;
    words += tr("; delivered %Ln time(s) a winter", nullptr, static_cast<int>(taken.deliveries));
    if (taken.deliveryCost > 0.0)
      words += tr(" for %1 %2 in all").arg(m_document.view().units().number(Quantity::money, taken.deliveryCost), QString::fromStdString(plan.prices.currency));
  }
  if (delivery.stock_units <= 0.0 || run.ledgers.empty()) return words;
  std::optional<UtcSeconds> gone; // of the winter in which it lasts least
  std::size_t least_h = 0;
  for (std::size_t w = 0; w < run.ledgers.size() && w < m_document.readings().weather()->winters.size(); ++w)
    if (const auto hour = stockGone_h(plan, heater, run.ledgers[w]); hour && (!gone || *hour < least_h)) {
      least_h = *hour;
      gone = m_document.readings().weather()->winters[w].start + static_cast<UtcSeconds>(static_cast<double>(*hour) * kHour_s);
    }
  return words + (gone ? tr("; what is in stock is gone on %1").arg(dayText(m_document.planInHand().zone().localDate(*gone), QStringLiteral("d MMM yyyy")))
                       : tr("; what is in stock lasts every logged winter"));
}

/// How often it goes on and off, and whether that does it good.
QString HeaterRowWords::cycles(std::size_t heater) const {
  const auto mine = std::find_if(m_cycles.begin(), m_cycles.end(), [&](const HeaterCycles& c) { return c.heater == heater; });
  if (mine == m_cycles.end()) return {};
  const Units& u = m_document.view().units();
  const auto minutes = [](double s) { return QLocale().toString(s / 60.0, 'f', s < 600.0 ? 1 : 0); };
  const double least_s = factsOf(m_document.plan().heaters[heater].kind).leastRun_s;
  QString words =
      tr("; it goes on about %1 times a winter, for %2 min at a time").arg(u.number(Quantity::count, std::round(mine->starts)), minutes(mine->mean_run_s));
  if (mine->isShort())
    words += tr(": too short, a start is worth %1 min. A smaller one, a wider band or heavier things in the house make it longer").arg(minutes(least_s));
  const QString below = u.text(Quantity::difference, mine->below_K);
  if (m_document.plan().heaters[heater].band_K) return words + tr("; the air falls up to %1 below its setpoint").arg(below);
  return words + tr("; by a usual thermostat the air would fall up to %1 below its setpoint").arg(below);
}

QString HeaterRowWords::of(std::size_t heater) const {
  const Plan& plan = m_document.plan();
  const Heater& heating = plan.heaters[heater];
  const Units& u = m_document.view().units();
  const Simulation* const run = m_document.results().simulation();
  if (!run || heating.power_W <= 0.0) return said(nameOf(m_document.plan(), heating));
  const double winters = run->summary.winters;
  const Ledger& ledger = run->summary.ledger;
  const bool isElectric = carrierOf(heating) == Carrier::electricity;
  const double given_kWh = ledger.heat_kWh(MeterUse::heater, heater) / winters;
  const double taken_kWh = ledger.sum(isElectric ? Metered::electricity : Metered::fuel, MeterUse::heater, heater) / winters;
  const double money = (ledger.money(plan, plan.prices, MeterUse::heater, heater) + ledger.money(plan, plan.prices, MeterUse::heaterOwn, heater)) / winters;
  QString words = tr("%1: %2 and %3 %4 a winter, as much as %5 h at full stretch")
                      .arg(said(nameOf(m_document.plan(), heating)), u.text(Quantity::energy, given_kWh), u.number(Quantity::money, money),
                           QString::fromStdString(plan.prices.currency), QLocale().toString(1000.0 * given_kWh / heating.power_W, 'f', 0));
  const double unit_kWh = kWhPerUnit(carrierOf(heating), heating.boughtBy, heating.stoking.moisture);
  if (!isElectric && unit_kWh > 0.0 && heating.boughtBy != "kWh")
    words += tr("; %1 of %2, by the %3")
                 .arg(QLocale().toString(taken_kWh / unit_kWh, 'f', taken_kWh < 20.0 * unit_kWh ? 1 : 0), HeaterWords::carrier(carrierOf(heating)),
                      HeaterWords::unit(heating.boughtBy.c_str()));
  words += fuel(heater);
  if (heating.kind == HeaterKind::heatPump && taken_kWh > 0.0)
    words += tr("; %1 of heat for one of electricity").arg(QLocale().toString(given_kWh / taken_kWh, 'f', 1));
  if (factsOf(heating.kind).control == HeatControl::batches && heater < run->summary.heaters.size()) {
    const HeaterCount& count = run->summary.heaters[heater];
    words += tr("; %1 loads, %2 of them between 23 and 6")
                 .arg(QLocale().toString(std::lround(count.loads / winters)), QLocale().toString(std::lround(count.atNight / winters)));
  }
  if (const double tended_h = (ledger.sum(Metered::work, MeterUse::stoking, heater) + ledger.sum(Metered::work, MeterUse::refuelling, heater)) / winters;
      tended_h >= 0.05) {
    const QString hours = u.text(Quantity::hours, tended_h < 10.0 ? std::round(10.0 * tended_h) / 10.0 : std::round(tended_h));
    words += heating.tendedBy.empty() ? tr("; %1 of tending").arg(hours) : tr("; %1 of tending by %2").arg(hours, QString::fromStdString(heating.tendedBy));
  }
  if (heating.beforeNightsBelow_C) {
    const auto lit =
        std::count_if(m_nights.begin(), m_nights.end(), [&](const AskedSetpoint& night) { return night.outside_C < *heating.beforeNightsBelow_C; });
    if (!m_nights.empty())
      words +=
          tr("; before %1 of %Ln logged night(s) it may give", nullptr, static_cast<int>(m_nights.size())).arg(QLocale().toString(static_cast<qlonglong>(lit)));
  }
  words += cycles(heater);
  if (!factsOf(heating.kind).hasFlue) {
    const UnventedAir air = unventedAir(heating, plan);
    words += tr("; at full stretch the shut house comes to %1 ppm of carbon dioxide and %2 more water an hour")
                 .arg(QLocale().toString(std::lround(air.carbonDioxide_ppm / 100.0) * 100), littleMass(u, air.water_kg_h));
  }
  return words;
}

} // namespace muffle
