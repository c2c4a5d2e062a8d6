// SPDX-License-Identifier: GPL-3.0-or-later
//
// Equal steps by two-step BDF against the single-step method and against laws.
#include "core/network/solver.h"

#include "tests/support/mixed_house.h"
#include "tests/support/near.h"
#include "tests/support/smooth_house.h"

namespace muffle {
namespace {

const SolverOptions kMultistep{.multistep = true};
const SolverOptions kEqualSteps{.multistep = true, .doubleSteps = false};

/// A smooth house with a heater whose setpoint falls from 12 to 5 degC in the middle of every day.
Network heatedHouse() {
  Network net = smoothHouse(true);
  const int air = net.find("air");
  net.sources.pop_back(); // the stove
  net.vents.push_back({air, net.find("out"), air, 14.0, 18.0, 500.0, ""});
  Signal setpoint;
  setpoint.step_s = 600.0;
  setpoint.hold = true;
  for (int i = 0; i < 144 * 10; ++i) setpoint.value.push_back(i % 144 < 72 ? 12.0 : 5.0);
  Thermostat t{.id = "heater", .sensor = air, .heats = air};
  t.setpointSignal = net.addSignal(std::move(setpoint));
  t.power_W = 9000.0;
  net.thermostats.push_back(t);
  return net;
}

TEST(Multistep, IsOfSecondOrder) {
  const auto worst = [exact = secondDay(15.0, {.newtonTolerance_K = 1e-11})](double step_s) { return furthestApart(secondDay(step_s, kEqualSteps), exact); };
  const double coarse = worst(1200.0), fine = worst(600.0), finer = worst(300.0);
  // 4, within the band that the next term of the error and matrices kept for a few steps leave
  EXPECT_GT(coarse / fine, 3.2);
  EXPECT_LT(coarse / fine, 4.8);
  EXPECT_GT(fine / finer, 3.2);
  EXPECT_LT(fine / finer, 4.8);
  EXPECT_LT(fine, 0.1) << "ten minutes' air within a sensor's resolution";
}

TEST(Multistep, ClosesItsEnergyAndCountsTheHeatersPowerOnce) {
  Solver s = *Solver::prepare(heatedHouse(), kMultistep);
  double heat_J = 0.0;
  for (int i = 0; i < 144 * 10; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    heat_J += 600.0 * s.lastPower_W(0);
    EXPECT_LE(s.lastPower_W(0), 9000.0 * (1 + 1e-12));
    EXPECT_GE(s.lastPower_W(0), 0.0);
  }
  const EnergyBalance balance = s.balance();
  EXPECT_LE(balance.closure(), 1e-12);
  EXPECT_GT(heat_J, 0.0);
  EXPECT_CLOSE(heat_J / balance.thermostat_J[0], 1.0, 1e-12, "rounding of the sum");
}

TEST(Multistep, AHeaterThatIsShutOffHeatsNoMore) {
  Solver s = *Solver::prepare(heatedHouse(), kMultistep);
  int falls = 0;
  double before = 0.0;
  for (int i = 0; i < 144 * 10; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    if (i % 144 == 72 && before > 500.0) {
      ++falls;
      EXPECT_EQ(s.lastPower_W(0), 0.0) << "7 K below what it held: nothing of the step before is left in the step after";
    }
    before = s.lastPower_W(0);
  }
  EXPECT_GE(falls, 5);
}

TEST(Multistep, ComesToTheSameAsSingleSteps) {
  const Network net = heatedHouse();
  const int air = net.find("air");
  Solver single = *Solver::prepare(net);
  Solver multistep = *Solver::prepare(net, kMultistep);
  double square = 0.0;
  constexpr int kSteps = 144 * 10;
  for (int i = 0; i < kSteps; ++i) {
    ASSERT_TRUE(single.advance(600.0) && multistep.advance(600.0));
    square += std::pow(single.temperature_C(air) - multistep.temperature_C(air), 2);
  }
  EXPECT_LE(std::sqrt(square / kSteps), 0.05) << "the two-step method's own error at ten minutes, most of it in the hour after a fall of 7 K";
  EXPECT_CLOSE(multistep.balance().thermostat_J[0] / single.balance().thermostat_J[0], 1.0, 0.003, "the same");
}

TEST(Multistep, KeepsTheBalanceOverEveryKindOfLinkAndEveryGroup) {
  const Network net = mixedHouse();
  SolverOptions options = kMultistep;
  options.groupOfLink.assign(net.links.size() + net.vents.size(), -1);
  for (std::size_t l = 0; l < net.links.size(); ++l) // what leaves for the weather
    if (net.links[l].to == net.find("out") || net.links[l].to == net.find("sky")) options.groupOfLink[l] = 0;
  Solver multistep = *Solver::prepare(net, options);
  options.multistep = false;
  Solver single = *Solver::prepare(net, options);
  double byCruise = 0.0, bySingle = 0.0;
  for (int i = 0; i < 144 * 3; ++i) {
    ASSERT_TRUE(multistep.advance(600.0) && single.advance(600.0));
    byCruise += multistep.groupEnergy_J(0);
    bySingle += single.groupEnergy_J(0);
  }
  EXPECT_LE(multistep.balance().closure(), 1e-12);
  EXPECT_CLOSE(byCruise / bySingle, 1.0, 2e-3, "both methods' errors over three days");
  for (const char* node : {"air", "film", "water", "floor"})
    EXPECT_CLOSE(multistep.temperature_C(net.find(node)), single.temperature_C(net.find(node)), 0.05, "the same");
}

TEST(Multistep, AVentThatOpensAndShutsIsFollowedByShortStepsToo) {
  Network net = smoothHouse(true);
  const int air = net.find("air");
  net.vents.push_back({air, net.find("out"), air, 9.0, 11.0, 900.0, ""});
  Solver multistep = *Solver::prepare(net, kMultistep);
  Solver exact = *Solver::prepare(net, {.newtonTolerance_K = 1e-6});
  double square = 0.0, low = 100.0, high = -100.0;
  constexpr int kSteps = 144 * 2;
  for (int i = 0; i < kSteps; ++i) {
    ASSERT_TRUE(multistep.advance(600.0));
    for (int k = 0; k < 16; ++k) ASSERT_TRUE(exact.advance(37.5));
    square += std::pow(multistep.temperature_C(air) - exact.temperature_C(air), 2);
    low = std::min(low, exact.temperature_C(air));
    high = std::max(high, exact.temperature_C(air));
  }
  EXPECT_LT(low, 9.0) << "it shuts";
  EXPECT_GT(high, 9.2) << "and opens";
  EXPECT_LE(std::sqrt(square / kSteps), 0.03) << "ten-minute steps round the vent's corners, twenty minutes where it stays shut";
}

TEST(Multistep, IceHandsTheStepBackAndNothingIsLost) {
  Network net;
  const int out = net.addBoundary("out", Driver::sine(-1.0, 6.0, 86400.0, 0.0));
  const int air = net.addNode("air", 200e3, 2.0);
  const int soil = net.addNode("soil", 3e6, 1.0);
  net.nodes[static_cast<std::size_t>(soil)].water = FreezingWater{.latent_J = 30e6, .interval_K = 0.5, .frozenCapacity_J_K = 2e6};
  net.addConductance(air, out, 120.0);
  net.addNatural(air, soil, 60.0, 1.7, 1.0 / 3.0);
  Solver multistep = *Solver::prepare(net, kMultistep);
  Solver single = *Solver::prepare(net);
  bool froze = false;
  for (int i = 0; i < 144 * 6; ++i) {
    ASSERT_TRUE(multistep.advance(600.0) && single.advance(600.0));
    froze = froze || multistep.temperature_C(soil) < -0.05;
    EXPECT_CLOSE(multistep.temperature_C(air), single.temperature_C(air), 0.15, "both methods' errors where the air turns");
  }
  EXPECT_TRUE(froze);
  EXPECT_LE(multistep.balance().closure(), 1e-12);
}

TEST(Multistep, TwoHeatersOfRoomsThatWarmEachOtherHoldTheirOwnSetpoints) {
  Network net;
  const int out = net.addBoundary("out", Driver::sine(-5.0, 3.0, 86400.0, 50400.0));
  const int house = net.addNode("house", 400e3, 4.0);
  const int bay = net.addNode("bay", 150e3, 12.0);
  net.addConductance(house, out, 200.0);
  net.addConductance(bay, out, 60.0);
  net.addConductance(house, bay, 150.0);
  for (const auto& [room, setpoint] : {std::pair{house, 4.0}, {bay, 12.0}}) {
    Thermostat t{.id = "heater", .sensor = room, .heats = room};
    t.setpoint_C = setpoint;
    t.power_W = 6000.0;
    net.thermostats.push_back(t);
  }
  Solver s = *Solver::prepare(net, kMultistep);
  for (int i = 0; i < 144 * 2; ++i) {
    ASSERT_TRUE(s.advance(600.0));
    if (i < 6) continue;
    EXPECT_CLOSE(s.temperature_C(house), 4.0, 1e-3, "ten of the sweeps' tolerance");
    EXPECT_CLOSE(s.temperature_C(bay), 12.0, 1e-3, "the same");
  }
  EXPECT_LE(s.balance().closure(), 1e-12);
}

TEST(Multistep, LeavesThermostatsThatSwitchAndNodesWithoutHeatToTheSingleStepMethod) {
  Network net = smoothHouse(false);
  const int air = net.find("air");
  Thermostat t{.id = "stove", .sensor = air, .heats = air, .mode = Thermostat::Mode::hysteresis};
  t.on_C = 9.0;
  t.off_C = 10.0;
  t.power_W = 3000.0;
  net.thermostats.push_back(t);
  Network bare = smoothHouse(false);
  bare.addConductance(bare.addNode("pane", 0.0, 2.0), bare.find("air"), 50.0);
  for (const Network& n : {net, bare}) {
    Solver asked = *Solver::prepare(n, kMultistep);
    Solver single = *Solver::prepare(n);
    for (int i = 0; i < 100; ++i) ASSERT_TRUE(asked.advance(600.0) && single.advance(600.0));
    EXPECT_EQ(asked.temperature_C(n.find("air")), single.temperature_C(n.find("air")));
  }
}

TEST(Multistep, StepsOfOtherLengthsAskNothingOfThoseBefore) {
  const Network net = heatedHouse();
  Solver exact = *Solver::prepare(net, {.newtonTolerance_K = 1e-6});
  Solver multistep = *Solver::prepare(net, kMultistep);
  for (int i = 0; i < 200; ++i) {
    const double h = i % 2 == 0 ? 600.0 : 300.0;
    ASSERT_TRUE(multistep.advance(h));
    for (int k = 0; k < 16; ++k) ASSERT_TRUE(exact.advance(h / 16.0));
    EXPECT_CLOSE(exact.temperature_C(net.find("air")), multistep.temperature_C(net.find("air")), 0.2, "a step's own error from a start far off balance");
  }
  EXPECT_EQ(multistep.doubleSteps(), 0);
  EXPECT_LE(multistep.balance().closure(), 1e-12);
}

TEST(Multistep, AStiffFilmDoesNotRing) {
  Network net;
  const int out = net.addBoundary("out", Driver::constant(0.0));
  const int film = net.addNode("film", 10.0, 20.0);
  net.addConductance(film, out, 1000.0);
  Solver s = *Solver::prepare(net, kMultistep);
  for (int i = 0; i < 4; ++i) s.advance(600.0);
  EXPECT_CLOSE(s.temperature_C(film), 0.0, 1e-6, "the method's roots vanish for a mode 60 000 times faster than the step");
}

} // namespace
} // namespace muffle
