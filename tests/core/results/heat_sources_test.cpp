// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/heat_sources.h"

#include "core/plan/store_list.h"
#include "core/simulate/simulate.h"
#include "tests/support/every_store.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <numeric>

#include <gtest/gtest.h>

namespace muffle {
namespace {

/// A tunnel with a stove, an oil heater and an electric one, and every store.
Plan mixed() {
  Plan p = testing::yardWithEveryStore();
  p.setpoints = {4.0, 6.0, 8.0};
  p.house.blanket = NightBlanket{};
  p.house.blanket->material = "woven-blanket";
  p.house.blanket->hoursPerDraw = 0.2;
  std::erase_if(p.heaters, [](const Heater& h) { return h.place.of == HeaterPlace::Of::house; });
  addHeater(p, {.id = "stove", .kind = HeaterKind::woodStove, .power_W = 5000.0});
  addHeater(p, {.id = "oil", .kind = HeaterKind::oil, .power_W = 3000.0, .stage_K = 1.0, .fuelPrice_kWh = 0.1, .boughtBy = "can-20l", .hoursPerUnit = 0.25});
  addHeater(p, {.id = "fan", .power_W = 2000.0, .stage_K = 2.0});
  EXPECT_TRUE(check(p).empty()) << english(check(p).front());
  return p;
}

struct Ran {
  Plan plan;
  WinterResult result;
  double step_s;
};

Ran ran(Plan p) {
  const Scene scene = makeScene(testing::frost(p.site), p);
  auto run = simulateWinter(p, scene, 0, {.series = true});
  EXPECT_TRUE(run) << english(run.problem());
  return {std::move(p), std::move(*run), scene.weather->winters[0].step_s};
}

double energy_kWh(const std::vector<float>& power_W, double step_s) {
  return std::accumulate(power_W.begin() + 1, power_W.end(), 0.0, [&](double sum, float w) { return sum + static_cast<double>(w) * step_s / 3.6e6; });
}

TEST(HeatSources, TheirHeatersGaveWhatHeatersGaveInWhateverPieces) {
  const Ran r = ran(mixed());
  const std::size_t end = r.result.series.sun_W.size() - 1;
  for (const std::size_t piece_h : {1U, 5U, 24U, 168U}) {
    const auto sources = heatBySource(r.plan, r.result.series, r.result.ledger, r.step_s, 0, end, piece_h);
    double heaters = 0.0, sun = 0.0;
    int kinds = 0;
    for (const HeatSource& s : sources) {
      if (s.of == HeatSource::Of::heater) heaters += s.sum_kWh(), ++kinds;
      if (s.of == HeatSource::Of::sun) sun += s.sum_kWh();
      for (const double kWh : s.kWh) EXPECT_GE(kWh, 0.0);
    }
    EXPECT_EQ(kinds, 3);
    EXPECT_CLOSE(heaters, energy_kWh(r.result.series.heater_W, r.step_s), 1e-6, "the same floats added in another order");
    EXPECT_CLOSE(sun, r.result.sun_J / 3.6e6, 3e-3 * sun, "two-step formulas weigh the points of a curve otherwise than its chords");
    EXPECT_GT(sun, 0.0);
  }
}

TEST(HeatSources, EachHeaterHasWhatItsMeterSays) {
  const Ran r = ran(mixed());
  const auto sources = heatBySource(r.plan, r.result.series, r.result.ledger, r.step_s, 0, r.result.series.sun_W.size() - 1, 24);
  for (const HeatSource& s : sources) {
    if (s.of != HeatSource::Of::heater) continue;
    EXPECT_CLOSE(s.sum_kWh(), r.result.ledger.heat_kWh(MeterUse::heater, s.index), 0.02 * r.result.ledger.heat_kWh(MeterUse::heater) + 1e-9,
                 "an hour in which several ran is shared by what each took in all of it");
  }
}

TEST(HeatSources, WhatACoilGivesATankIsCountedOnceWhereTheTankGivesIt) {
  Plan p = mixed();
  const auto mound = std::find_if(p.compost.begin(), p.compost.end(), [](const CompostPile& c) { return c.place == PilePlace::mound; });
  ASSERT_NE(mound, p.compost.end());
  ASSERT_FALSE(p.waterLoops.empty());
  for (const CoilInto into : {CoilInto::tank, CoilInto::house}) {
    mound->coilInto = into;
    const Ran r = ran(p);
    const auto stores = storesOf(r.plan);
    const auto sources = heatBySource(r.plan, r.result.series, r.result.ledger, r.step_s, 0, r.result.series.sun_W.size() - 1, 24);
    const bool isSource = std::any_of(sources.begin(), sources.end(), [&](const HeatSource& s) {
      return s.of == HeatSource::Of::store && stores[s.index].kind == StoreKind::compost &&
             stores[s.index].index == static_cast<std::size_t>(mound - p.compost.begin());
    });
    EXPECT_EQ(isSource, into == CoilInto::house);
  }
}

TEST(HeatSources, OfANightAreThoseOfItsHours) {
  const Ran r = ran(mixed());
  ASSERT_FALSE(r.result.nights.empty());
  const NightResult& n = r.result.nights.front();
  const auto sources = heatBySource(r.plan, r.result.series, r.result.ledger, r.step_s, n.from, n.to, 1);
  double heaters = 0.0;
  for (const HeatSource& s : sources)
    if (s.of == HeatSource::Of::heater) heaters += s.sum_kWh();
  double power = 0.0;
  for (std::size_t i = n.from + 1; i <= n.to; ++i) power += static_cast<double>(r.result.series.heater_W[i]) * r.step_s / 3.6e6;
  EXPECT_CLOSE(heaters, power, 1e-6, "the same floats added in another order");
}

TEST(HeatSources, HoursOfWorkFallWhenTheyAreDoneAndNoneIsLost) {
  const Ran r = ran(mixed());
  const auto days = workByPiece_h(r.result.ledger, 24);
  EXPECT_CLOSE(std::accumulate(days.begin(), days.end(), 0.0), r.result.ledger.sum(Metered::work), 1e-4, "hours are kept as floats");
  std::set<MeterUse> uses;
  for (const Meter& m : r.result.ledger.meters()) {
    if (m.of != Metered::work) continue;
    uses.insert(m.use);
    EXPECT_CLOSE(std::accumulate(m.hour.begin(), m.hour.end(), 0.0), m.amount, 1e-4, "hours are kept as floats");
  }
  EXPECT_TRUE(uses.contains(MeterUse::stoking) && uses.contains(MeterUse::blanket) && uses.contains(MeterUse::refuelling));
}

TEST(HeatSources, WithoutAHeaterThereIsTheSunAndWhatStoresGive) {
  Plan p = testing::yardWithEveryStore();
  p.heaters.clear();
  const Ran r = ran(p);
  for (const HeatSource& s : heatBySource(r.plan, r.result.series, r.result.ledger, r.step_s, 0, r.result.series.sun_W.size() - 1, 24))
    EXPECT_NE(s.of, HeatSource::Of::heater);
}

} // namespace
} // namespace muffle
