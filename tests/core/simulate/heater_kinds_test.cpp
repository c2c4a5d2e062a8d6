// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters of every kind over nights: energy closes, what is taken goes by the kind, stages wait their turn, stoves burn what is put on.
#include "core/network/solver.h"
#include "core/plan/heaters.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <random>

namespace muffle {
namespace {

using testing::filmTunnel;
using testing::frost;

Simulation runOf(const Plan& plan, SimulateOptions options = {}) {
  EXPECT_TRUE(check(plan).empty()) << english(check(plan).front());
  auto run = simulate(plan, makeScene(frost(plan.site), plan), options);
  EXPECT_TRUE(run) << (run ? "" : english(run.problem()));
  return std::move(*run);
}

Plan tunnelWith(std::vector<Heater> heaters) {
  Plan p = filmTunnel();
  p.setpoints = {1.0, 3.0, 3.0};
  for (Heater& h : heaters) addHeater(p, std::move(h));
  return p;
}

TEST(HeaterKindsInAHouse, EachGivesAndTakesByItsKindAndEnergyCloses) {
  for (const HeaterKindFacts& facts : heaterKinds()) {
    if (!facts.inRooms) continue;
    const Simulation run = runOf(tunnelWith({{.kind = facts.kind, .power_W = 4000.0}}));
    const Ledger& ledger = run.summary.ledger;
    EXPECT_LT(run.summary.closure, 1e-9) << facts.id;
    const double given_kWh = ledger.heat_kWh(MeterUse::heater, 0);
    EXPECT_GT(given_kWh, 10.0) << facts.id;
    const bool isElectric = facts.carrier == Carrier::electricity;
    const double taken_kWh = ledger.sum(isElectric ? Metered::electricity : Metered::fuel, MeterUse::heater, 0);
    if (facts.kind == HeaterKind::heatPump) {
      EXPECT_GT(given_kWh / taken_kWh, 1.8);
      EXPECT_LT(given_kWh / taken_kWh, 3.0) << "it is below 2 degC";
    } else {
      EXPECT_CLOSE(given_kWh / taken_kWh, facts.efficiency, 1e-9, "one efficiency");
    }
    EXPECT_CLOSE(ledger.sum(Metered::electricity, MeterUse::heaterOwn, 0), facts.ownPower * given_kWh, 1e-9, "a share");
  }
}

TEST(HeaterKindsInAHouse, AnUnventedFlameWetsTheAirByTheWaterOfItsFuel) {
  const Simulation dry = runOf(tunnelWith({{.kind = HeaterKind::electric, .power_W = 6000.0}}), {.series = true});
  const Simulation wet = runOf(tunnelWith({{.kind = HeaterKind::propaneUnvented, .power_W = 6000.0}}), {.series = true});
  double more = 0.0;
  for (std::size_t i = 144; i < dry.series[0].vapour_g_kg.size(); ++i) more += static_cast<double>(wet.series[0].vapour_g_kg[i] - dry.series[0].vapour_g_kg[i]);
  EXPECT_GT(more / static_cast<double>(dry.series[0].vapour_g_kg.size()), 0.1) << "g/kg: film and draughts take most of it";
}

TEST(HeaterKindsInAHouse, APanelThatGlowsKeepsLeavesNearerTheAirThanABurnerThatWarmsTheAirAlone) {
  const auto leafBelowAir_K = [](HeaterKind kind) {
    const Simulation run = runOf(tunnelWith({{.kind = kind, .power_W = 6000.0}}), {.series = true});
    double sum = 0.0;
    for (std::size_t i = 144; i < run.series[0].air_C.size(); ++i) sum += static_cast<double>(run.series[0].air_C[i] - run.series[0].leaf_C[i]);
    return sum;
  };
  EXPECT_LT(leafBelowAir_K(HeaterKind::propaneRadiant), leafBelowAir_K(HeaterKind::propaneUnvented));
}

TEST(HeaterKindsInAHouse, AHeatPumpThatIsLockedOutLeavesItToTheNext) {
  Plan p =
      tunnelWith({{.id = "pump", .kind = HeaterKind::heatPump, .power_W = 9000.0, .onlyAbove_C = -4.0}, {.id = "back", .power_W = 9000.0, .stage_K = 0.5}});
  const Simulation locked = runOf(p);
  p.heaters[0].onlyAbove_C.reset();
  const Simulation free = runOf(p);
  EXPECT_GT(locked.summary.ledger.heat_kWh(MeterUse::heater, 1), free.summary.ledger.heat_kWh(MeterUse::heater, 1) + 10.0);
  EXPECT_EQ(locked.summary.held, free.summary.held);
}

Heater stove() {
  Heater h{.id = "stove", .kind = HeaterKind::woodStove, .power_W = 6000.0, .boughtBy = "stere", .from_h = 18.0};
  h.stoking = {.load_kg = 7.0, .moisture = 0.18, .loads = 3, .every_h = 3.0, .hoursPerLoad = 0.2};
  return h;
}

TEST(WoodStove, BurnsItsLoadsWhateverTheRoomWantsAndCountsWhoGetsUp) {
  Plan p = tunnelWith({stove()});
  p.site.timeZone = "UTC";
  const Simulation run = runOf(p);
  const Winter winter = frost(p.site)->winters[0];
  EXPECT_EQ(run.summary.heaters[0].loads, 6 * 3 - 1) << "at 18, 21 and 0 o'clock; the log ends before the last";
  EXPECT_EQ(run.summary.heaters[0].atNight, 5) << "those at midnight";
  EXPECT_CLOSE(run.summary.ledger.sum(Metered::work, MeterUse::stoking, 0), 17 * 0.2, 1e-9, "rounding");
  const BurnCurve curve = burnCurve(p.heaters[0]);
  const double end_s = winter.step_s * static_cast<double>(winter.size() - 1);
  double given_J = 0.0;
  for (int day = 0; day < 6; ++day)
    for (int load = 0; load < 3; ++load) given_J += curve.given_J(end_s - 3600.0 * (24.0 * day + 18.0 + 3.0 * load));
  EXPECT_CLOSE(run.summary.ledger.heat_kWh(MeterUse::heater, 0) * 3.6e6 / given_J, 1.0, 1e-7, "embers of sixteen decay times are ash: a ten-millionth");
  EXPECT_CLOSE(run.summary.ledger.sum(Metered::fuel, MeterUse::heater, 0) * 0.7 / run.summary.ledger.heat_kWh(MeterUse::heater, 0), 1.0, 1e-12,
               "the flue's share");
}

TEST(WoodStove, IsLitOnlyBeforeNightsThatAreForecastCold) {
  Plan p = tunnelWith({stove()});
  p.heaters[0].beforeNightsBelow_C = -20.0;
  EXPECT_EQ(runOf(p).summary.heaters[0].loads, 0);
  p.heaters[0].beforeNightsBelow_C = 5.0;
  EXPECT_GT(runOf(p).summary.heaters[0].loads, 0);
}

TEST(WoodStove, NobodyStokesWhileNobodyIsThereAndTheFireOutlivesThem) {
  const Plan p = tunnelWith({stove()});
  const auto weather = frost(p.site);
  const UtcSeconds from = weather->winters[0].start + 2 * 86400, to = from + 2 * 86400;
  const Simulation all = runOf(p), away = runOf(p, {.scenario = {.nobodyThere = {{from, to}}}});
  EXPECT_EQ(all.summary.heaters[0].loads - away.summary.heaters[0].loads, 6) << "two evenings";
  EXPECT_LT(away.summary.coldest_C, all.summary.coldest_C);
}

TEST(Ladders, ALaterStageNeverGivesWhileAnEarlierOneHasPowerToSpare) {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> uniform(0.0, 1.0);
  const HeaterKind kinds[] = {HeaterKind::electric, HeaterKind::propane, HeaterKind::paraffinUnvented, HeaterKind::oil, HeaterKind::tube, HeaterKind::district};
  for (unsigned n = 0; n < 40; ++n) {
    Plan p = testing::randomPlan(n);
    p.heaters.clear();
    const int count = 2 + static_cast<int>(n % 3);
    for (int k = 0; k < count; ++k)
      addHeater(p, {.kind = kinds[static_cast<std::size_t>(uniform(random) * 6.0)], .power_W = 500.0 + 5000.0 * uniform(random), .stage_K = 0.7 * k});
    if (!check(p).empty()) continue;
    const auto weather = frost(p.site);
    auto scene = makeScene(weather, p);
    const Winter& winter = weather->winters.front();
    Assembly assembly = assemble(p, winter, scene.sun.front());
    const auto heaters = assembly.heaters;
    auto solver =
        Solver::prepare(std::move(assembly.network)); // step by step: a method that goes by the step before shares a heater's last watts out over the next
    ASSERT_TRUE(solver);
    for (std::size_t i = 1; i < winter.size(); ++i) {
      ASSERT_TRUE(solver->advance(winter.step_s));
      for (std::size_t k = 1; k < heaters.size(); ++k) {
        const auto before = heaters[k - 1].thermostat, later = heaters[k].thermostat;
        const double most_W = solver->network().thermostats[static_cast<std::size_t>(before)].power_W;
        if (solver->lastPower_W(later) <= 0.1) continue;
        EXPECT_CLOSE(solver->lastPower_W(before), most_W, 1e-6 * most_W, "full before the next begins");
      }
    }
    EXPECT_LT(solver->balance().closure(), 1e-9) << "house " << n;
  }
}

TEST(Ladders, TheBillIsWhatTheMetersSay) {
  Plan p = tunnelWith(
      {stove(), {.id = "oil", .kind = HeaterKind::oil, .power_W = 8000.0, .stage_K = 1.0, .fuelPrice_kWh = 0.11, .boughtBy = "litre", .hoursPerUnit = 0.01}});
  p.heaters[0].fuelPrice_kWh = 0.05;
  p.prices.electricity_per_kWh = 0.4;
  p.prices.hour = 10.0;
  const Simulation run = runOf(p);
  double money = 0.0, hours = 0.0;
  for (const Meter& m : run.summary.ledger.meters()) {
    if (m.of == Metered::electricity) money += 0.4 * m.amount;
    if (m.of == Metered::fuel) money += p.heaters[m.index].fuelPrice_kWh * m.amount;
    if (m.of == Metered::work) hours += m.amount;
  }
  EXPECT_GT(money, 0.0);
  EXPECT_CLOSE(run.summary.cost.energy * run.summary.winters, money, 1e-9 * money, "rounding");
  EXPECT_CLOSE(run.summary.cost.hours * run.summary.winters, hours, 1e-9, "rounding");
}

} // namespace
} // namespace muffle
