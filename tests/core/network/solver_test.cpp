// SPDX-License-Identifier: GPL-3.0-or-later
//
// The solver against laws and closed forms.
//   one node:   T(t) = To + (T0 - To) exp(-K t / C)
//   closure:    inputs - storage change = 0
#include "core/network/solver.h"

#include "core/constants.h"
#include "tests/support/near.h"
#include "tests/support/smooth_house.h"
#include "words/words.h"

namespace muffle {
namespace {

TEST(Solver, HalvingTheStepQuartersTheErrorOnASmoothNetwork) {
  const auto worst = [exact = secondDay(15.0, {.newtonTolerance_K = 1e-11})](double step_s) {
    return furthestApart(secondDay(step_s, {.newtonTolerance_K = 1e-11}), exact);
  };
  const double coarse = worst(1200.0), fine = worst(600.0), finer = worst(300.0);
  // second order: 4, within the band that the next term of the error leaves at these steps
  EXPECT_GT(coarse / fine, 3.8);
  EXPECT_LT(coarse / fine, 4.3);
  EXPECT_GT(fine / finer, 3.8);
  EXPECT_LT(fine / finer, 4.2);
  EXPECT_LT(fine, 0.05) << "a ten-minute step is good to a sensor's resolution";
}

TEST(Solver, AStiffFilmDoesNotRing) {
  Network net;
  const int out = net.addBoundary("out", Driver::constant(0.0));
  const int film = net.addNode("film", 10.0, 20.0); // a time constant of 0.01 s under a step of 600 s
  net.addConductance(film, out, 1000.0);
  Solver s = *Solver::prepare(net);
  s.advance(600.0);
  EXPECT_CLOSE(s.temperature_C(film), 0.0, 0.01, "L-stable: a mode 60 000 times faster than the step is gone after one step, to 20 K x 1/z");
  s.advance(600.0);
  EXPECT_CLOSE(s.temperature_C(film), 0.0, 1e-5, "and its trace again by the same factor");
}

TEST(Solver, EnergyCloses) {
  Network net = smoothHouse(true);
  const int air = net.find("air");
  net.vents.push_back({air, net.find("out"), air, 14.0, 18.0, 500.0, ""});
  Thermostat t{.id = "heater", .sensor = air, .heats = air};
  t.setpoint_C = 12.0;
  t.power_W = 3000.0;
  net.thermostats.push_back(t);
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 144 * 10; ++i) ASSERT_TRUE(s.advance(600.0));
  EXPECT_LE(s.balance().closure(), 1e-6);
  EXPECT_GT(s.balance().thermostat_J[0], 0.0);
}

TEST(Solver, AlgebraicNodesCloseToo) {
  Network net;
  const int air = net.addNode("air", 200e3, 10.0);
  const int film = net.addNode("film", 0.0, 5.0);
  net.addConductance(air, film, 300.0);
  net.addConductance(film, net.addBoundary("out", Driver::constant(-5.0)), 200.0);
  net.addRadiative(film, net.addBoundary("sky", Driver::constant(-25.0)), 50.0);
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 200; ++i) ASSERT_TRUE(s.advance(600.0));
  EXPECT_LE(s.balance().closure(), 1e-6);
  // the film's balance itself
  const double a = s.temperature_C(air), f = s.temperature_C(film);
  const double net_W = 300.0 * (a - f) + 200.0 * (-5.0 - f) + kStefanBoltzmann_W_m2K4 * 50.0 * (std::pow(kelvin(-25.0), 4) - std::pow(kelvin(f), 4));
  EXPECT_CLOSE(net_W, 0.0, 0.2, "500 W/K x the Newton tolerance of 5e-4 K");
}

TEST(Solver, AnIdealThermostatHoldsItsSetpointOrRunsFlatOut) {
  Network net;
  const int air = net.addNode("air", 300e3, 5.0);
  net.addConductance(air, net.addBoundary("out", Driver::constant(-10.0)), 100.0);
  Thermostat t{.id = "h", .sensor = air, .heats = air};
  t.setpoint_C = 5.0;
  t.power_W = 2000.0;
  net.thermostats.push_back(t);
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 50; ++i) s.advance(600.0);
  EXPECT_CLOSE(s.temperature_C(air), 5.0, 1e-3, "twice the Newton tolerance");
  EXPECT_CLOSE(s.lastPower_W(0), 1500.0, 0.5, "100 W/K over 15 K, to the tolerance of the temperature");

  net.thermostats[0].power_W = 1000.0;
  Solver weak = *Solver::prepare(net);
  for (int i = 0; i < 300; ++i) weak.advance(600.0);
  EXPECT_CLOSE(weak.temperature_C(air), 0.0, 1e-3, "1000 W over 100 W/K lift it 10 K, no more");
  EXPECT_DOUBLE_EQ(weak.lastPower_W(0), 1000.0);
}

TEST(Solver, HysteresisSwitchesInsideTheStep) {
  // C 600 kJ/K, K 150 W/K, 5 kW between 7.5 and 8.5 degC at -8: a cycle of 481 s is resolved with steps of 600 s
  Network net;
  const int air = net.addNode("air", 600e3, 8.0);
  net.addConductance(air, net.addBoundary("out", Driver::constant(-8.0)), 150.0);
  Thermostat t{.id = "h", .sensor = air, .heats = air, .mode = Thermostat::Mode::hysteresis};
  t.on_C = 7.5;
  t.off_C = 8.5;
  t.power_W = 5000.0;
  net.thermostats.push_back(t);
  Solver s = *Solver::prepare(net);
  double energy = 0.0;
  for (int i = 0; i < 144; ++i) {
    s.advance(600.0);
    energy += s.lastPower_W(0) * 600.0;
  }
  EXPECT_CLOSE(energy / 86400.0, 2400.0, 12.0, "duty 0.48 of 5 kW; one cycle more or less in 180");
  EXPECT_NEAR(s.starts(0), 86400 / 481, 2);
  EXPECT_LE(s.balance().closure(), 1e-6);
}

TEST(Solver, RefusesWhatItCannotSolveByNameAndLimit) {
  Network net;
  const int a = net.addNode("a", 0.0, 0.0);
  (void)a;
  const auto lonely = Solver::prepare(net);
  ASSERT_FALSE(lonely);
  EXPECT_NE(english(lonely.problem()).find("\"a\" has no capacity and no link"), std::string::npos);
}

TEST(SparseLu, SolvesWhatItFactored) {
  // a ring with a chord, unsymmetric: multiply back instead of comparing with another solver
  const std::vector<std::pair<int, int>> pairs{{0, 1}, {1, 2}, {2, 3}, {3, 4}, {4, 0}, {1, 3}};
  SparseLu lu(5, pairs, {true, false, false, true, false});
  double dense[5][5] = {};
  const auto put = [&](int i, int j, double v) {
    dense[i][j] += v;
    lu.values()[static_cast<std::size_t>(lu.entry(lu.position(i), lu.position(j)))] += v;
  };
  for (int i = 0; i < 5; ++i) put(i, i, 5.0 + i);
  for (const auto& [i, j] : pairs) put(i, j, -1.0 - 0.1 * i), put(j, i, -0.7);
  lu.factor();
  std::vector<double> b(5);
  for (int i = 0; i < 5; ++i) b[static_cast<std::size_t>(lu.position(i))] = i + 1.0;
  lu.solve(b.data());
  for (int i = 0; i < 5; ++i) {
    double sum = 0.0;
    for (int j = 0; j < 5; ++j) sum += dense[i][j] * b[static_cast<std::size_t>(lu.position(j))];
    EXPECT_CLOSE(sum, i + 1.0, 1e-13, "rounding of five eliminations");
  }
}

TEST(SparseLu, KeepsACrowdThatCouplesWithEverythingAsOneBlock) {
  // a chain of fixed rows hanging from the first of seven that all see each other
  constexpr int n = 12;
  std::vector<std::pair<int, int>> pairs;
  for (int i = 0; i < 5; ++i) pairs.emplace_back(i, i + 1);
  for (int i = 5; i < n; ++i)
    for (int j = i + 1; j < n; ++j) pairs.emplace_back(i, j);
  std::vector<bool> fixed(n, false);
  for (std::size_t i = 0; i < 5; ++i) fixed[i] = true;
  SparseLu lu(n, pairs, fixed);
  EXPECT_EQ(lu.fixedCount(), 5);
  double dense[n][n] = {};
  const auto put = [&](int i, int j, double v) {
    dense[i][j] += v;
    lu.values()[static_cast<std::size_t>(lu.entry(lu.position(i), lu.position(j)))] += v;
  };
  for (int i = 0; i < n; ++i) put(i, i, 9.0 + 0.3 * i);
  for (const auto& [i, j] : pairs) put(i, j, -0.9 - 0.01 * i), put(j, i, -0.8 - 0.02 * j);
  lu.factor(0, lu.fixedCount()); // in two parts, as a solver that keeps the first does
  lu.factor(lu.fixedCount(), n);
  std::vector<double> b(n), c(n), alone(n);
  for (int i = 0; i < n; ++i) {
    b[static_cast<std::size_t>(lu.position(i))] = alone[static_cast<std::size_t>(lu.position(i))] = i - 4.0;
    c[static_cast<std::size_t>(lu.position(i))] = 1.0 / (i + 1.0);
  }
  lu.solve(b.data(), c.data());
  lu.solve(alone.data());
  for (int i = 0; i < n; ++i) {
    double sumB = 0.0, sumC = 0.0;
    for (int j = 0; j < n; ++j) {
      sumB += dense[i][j] * b[static_cast<std::size_t>(lu.position(j))];
      sumC += dense[i][j] * c[static_cast<std::size_t>(lu.position(j))];
    }
    EXPECT_CLOSE(sumB, i - 4.0, 1e-12, "rounding of twelve eliminations");
    EXPECT_CLOSE(sumC, 1.0 / (i + 1.0), 1e-12, "rounding of twelve eliminations");
    EXPECT_DOUBLE_EQ(b[static_cast<std::size_t>(i)], alone[static_cast<std::size_t>(i)]) << "two at once are the same as one by one";
  }
}

} // namespace
} // namespace muffle
