// SPDX-License-Identifier: GPL-3.0-or-later
//
// What winters come to together, and a winter's series as far as they are known.
#include "core/simulate/simulate.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kWinter_s = kWinterDays * 86400.0;

void addWinter(Simulation& all, const Plan& plan, WinterResult&& run) {
  Summary& s = all.summary;
  const auto rooms = otherRooms(plan);
  s.rooms.resize(rooms.size());
  for (const NightResult& night : run.nights) {
    all.nights.push_back(night);
    if (!night.assessable) {
      ++s.leftOut;
      continue;
    }
    if (s.nights++ == 0 || night.coldest_C < s.coldest_C) {
      s.coldest_C = night.coldest_C;
      s.coldestAt = night.coldestAt;
    }
    if (night.held) ++s.held;
    for (std::size_t r = 0; r < rooms.size(); ++r) {
      const double coldest_C = night.roomColdest_C[r];
      s.rooms[r].coldest_C = s.nights == 1 ? coldest_C : std::min(s.rooms[r].coldest_C, coldest_C);
      if (!rooms[r].hold_C || coldest_C >= *rooms[r].hold_C - kHoldTolerance_K) ++s.rooms[r].held;
    }
    s.degreeHours_K_h += night.degreeHours_K_h;
  }
  const auto join = [](Dampness& sum, const Dampness& winter) {
    sum.above90_h += winter.above90_h;
    sum.leafWet_h += winter.leafWet_h;
    sum.longest_h = std::max(sum.longest_h, winter.longest_h);
  };
  join(s.damp, run.damp);
  for (std::size_t r = 0; r < rooms.size(); ++r) { join(s.rooms[r].damp, run.roomDamp[r]); }
  s.stores.resize(run.stores.size());
  for (std::size_t k = 0; k < run.stores.size(); ++k) {
    StoreSummary& sum = s.stores[k];
    const StoreSummary& of = run.stores[k];
    for (const auto part : {&StoreSummary::given_kWh, &StoreSummary::taken_kWh, &StoreSummary::electricity_kWh, &StoreSummary::made_kWh,
                            &StoreSummary::running_h, &StoreSummary::stagnant_h})
      sum.*part += of.*part;
    sum.coldest_C = std::min(sum.coldest_C, of.coldest_C);
    sum.warmest_C = std::max(sum.warmest_C, of.warmest_C);
  }
  s.heaters.resize(run.heaters.size());
  for (std::size_t h = 0; h < run.heaters.size(); ++h) {
    s.heaters[h].starts += run.heaters[h].starts;
    s.heaters[h].loads += run.heaters[h].loads;
    s.heaters[h].atNight += run.heaters[h].atNight;
  }
  if (run.growth) s.growth = s.growth.value_or(Growth{}) += *run.growth;
  s.tooWarm_h += run.tooWarm_h;
  s.warmest_C = std::max(s.warmest_C, run.warmest_C);
  s.draws += run.draws;
  s.ledger.add(run.ledger);
  all.ledgers.push_back(std::move(run.ledger));
  s.sky_kWh += run.sky_J / 3.6e6;
  s.sun_kWh += run.sun_J / 3.6e6;
  for (int p = 0; p < kLossPathCount; ++p) s.loss_kWh[static_cast<std::size_t>(p)] += run.loss_J[static_cast<std::size_t>(p)] / 3.6e6;
  s.closure = std::max(s.closure, run.closure);
  s.heaterPeak_W = std::max(s.heaterPeak_W, run.peak_W);
  if (!run.series.air_C.empty()) all.series.push_back(std::move(run.series));
}

/// What of the ledger is told by name.
void readLedger(const Plan& plan, Summary& s) {
  s.heater_kWh = s.ledger.heat_kWh(MeterUse::heater);
  s.cable_kWh = s.ledger.sum(Metered::electricity, MeterUse::cable);
  for (const MeterUse use : {MeterUse::roomFan, MeterUse::storeFan, MeterUse::storePump, MeterUse::collectorPump})
    s.fan_kWh += s.ledger.sum(Metered::electricity, use);
  for (std::size_t i = 0; i < plan.heaters.size(); ++i)
    if (plan.heaters[i].place.of == HeaterPlace::Of::bay)
      if (const auto room = otherRoom(plan, RoomKind::bay)) s.rooms[*room].heater_kWh += s.ledger.heat_kWh(MeterUse::heater, i);
  s.fuel = s.ledger.money(plan, plan.prices, Metered::fuel) / s.winters;
  s.cost = winterCost(plan, plan.prices, s.ledger, s.winters, kitOf(plan));
}

} // namespace

void takeFirst(WinterSeries& into, const WinterSeries& from, std::size_t last) {
  const auto take = [last](std::vector<float>& to, const std::vector<float>& of) {
    if (to.size() != of.size())
      to = of;
    else if (!of.empty())
      std::copy_n(of.begin(), std::min(last + 1, of.size()), to.begin());
  };
  const auto takeAll = [&](auto& to, const auto& of) {
    for (std::size_t i = 0; i < of.size(); ++i) take(to[i], of[i]);
  };
  for (auto member : {&WinterSeries::vapour_g_kg, &WinterSeries::leaf_C, &WinterSeries::sky_W, &WinterSeries::air_C, &WinterSeries::blanket,
                      &WinterSeries::floor_C, &WinterSeries::heater_W, &WinterSeries::sun_W})
    take(into.*member, from.*member);
  into.soil_C.resize(from.soil_C.size());
  into.stores.resize(from.stores.size());
  for (std::size_t k = 0; k < from.stores.size(); ++k) {
    StoreSeries& to = into.stores[k];
    const StoreSeries& of = from.stores[k];
    for (const auto series : {&StoreSeries::given_W, &StoreSeries::made_W, &StoreSeries::charge_kWh, &StoreSeries::oxygen_percent, &StoreSeries::moisture})
      take(to.*series, of.*series);
    to.temperature_C.resize(of.temperature_C.size());
    for (std::size_t t = 0; t < of.temperature_C.size(); ++t) take(to.temperature_C[t], of.temperature_C[t]);
  }
  into.rooms.resize(from.rooms.size());
  for (std::size_t r = 0; r < from.rooms.size(); ++r) {
    take(into.rooms[r].air_C, from.rooms[r].air_C);
    take(into.rooms[r].vapour_g_kg, from.rooms[r].vapour_g_kg);
  }
  takeAll(into.soil_C, from.soil_C);
  takeAll(into.inner_C, from.inner_C);
  takeAll(into.outer_C, from.outer_C);
  takeAll(into.loss_W, from.loss_W);
}

Result<Simulation> summarise(const Plan& plan, const Scene& scene, std::vector<std::optional<Result<WinterResult>>>&& runs) {
  for (const auto& run : runs)
    if (!*run) return run->problems();
  const auto& winters = scene.weather->winters;
  Simulation all;
  all.summary.closure = 0.0;
  all.summary.winters = 0.0;
  all.summary.warmest_C = -1e9;
  for (std::size_t i = 0; i < winters.size(); ++i) {
    WinterResult& winter = **runs[i];
    all.soilDepth_m = winter.soilDepth_m;
    addWinter(all, plan, std::move(winter));
    all.warmUp_days.push_back(i < scene.before.size() && scene.before[i].winter ? scene.before[i].days : 0);
    all.summary.steps += winters[i].size() - 1;
    all.summary.winters += static_cast<double>(winters[i].size() - 1) * winters[i].step_s / kWinter_s;
  }
  all.summary.draws /= all.summary.winters;
  all.summary.tooWarm_h /= all.summary.winters;
  const auto aWinter = [&](Dampness& damp) {
    damp.above90_h /= all.summary.winters;
    damp.leafWet_h /= all.summary.winters;
  };
  aWinter(all.summary.damp);
  for (RoomSummary& room : all.summary.rooms) aWinter(room.damp);
  readLedger(plan, all.summary);
  return all;
}

} // namespace muffle
