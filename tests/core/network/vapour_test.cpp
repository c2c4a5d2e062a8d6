// SPDX-License-Identifier: GPL-3.0-or-later
//
// Vapour in a network against what moist air does.
#include "core/network/vapour.h"

#include "core/air/moist_air.h"
#include "core/network/network_json.h"
#include "core/network/solver.h"
#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

double saturated_g_kg(double t_C, double pressure_Pa = kStandardPressure_Pa) { return 1000.0 * humidityRatio(saturationPressure_Pa(t_C), pressure_Pa); }

TEST(SaturationCurve, FollowsTheFormulaWithinAMillionth) {
  for (const double pressure : {kStandardPressure_Pa, 80e3}) {
    const SaturationCurve curve(pressure);
    for (double t = -60.0; t <= 60.0; t += 0.13) EXPECT_CLOSE(curve.at(t).g_kg / saturated_g_kg(t, pressure), 1.0, 1e-6, "cubic pieces of one kelvin");
  }
}

TEST(SaturationCurve, ItsSlopeIsThatOfTheFormulaOnEitherSideOfFreezing) {
  const SaturationCurve curve;
  for (const double t : {-25.0, -0.4, 0.4, 12.3, 40.0})
    EXPECT_CLOSE(curve.at(t).slope_1_K / ((saturated_g_kg(t + 1e-3) - saturated_g_kg(t - 1e-3)) / 2e-3), 1.0, 1e-4,
                 "the slope is one order less exact than the value");
}

TEST(SaturationCurve, KeepsItsEndsOutsideItsRange) {
  const SaturationCurve curve;
  EXPECT_DOUBLE_EQ(curve.at(500.0).g_kg, curve.at(90.0).g_kg);
  EXPECT_EQ(curve.at(-200.0).slope_1_K, 0.0);
}

/// A closed box of damp air with one pane held cold.
struct Box {
  Box(double air_C, double humidity_g_kg, double pane_C, double wetShare) {
    const int room = net.addNode("room", 2e5, air_C);
    const int vapour = net.addNode("vapour", 2e5, humidity_g_kg);
    const int pane = net.addBoundary("pane", Driver::constant(pane_C));
    Link& film = net.addNatural(room, pane, 20.0, 1.7, 1.0 / 3.0);
    film.vapour = vapour;
    film.wetShare = wetShare;
    net.addConductance(room, net.addBoundary("stove", Driver::constant(air_C)), 1e7);
  }
  double humidityAfter_g_kg(double hours) const {
    Solver s = *Solver::prepare(net);
    for (double t = 0.0; t < hours * 3600.0; t += 600.0) s.advance(600.0);
    EXPECT_LT(s.balance().closure(), 1e-9);
    return s.temperature_C(net.find("vapour"));
  }
  Network net;
};

TEST(Vapour, OfAClosedBoxCondensesUntilThePaneIsAtItsDewPoint) {
  EXPECT_CLOSE(Box(15.0, 9.0, 5.0, 0.0).humidityAfter_g_kg(24.0), saturated_g_kg(5.0), 1e-3, "a day is a hundred times as long as the air takes");
}

TEST(Vapour, DoesNotComeOffADryPane) { EXPECT_CLOSE(Box(15.0, 3.0, 5.0, 0.0).humidityAfter_g_kg(24.0), 3.0, 1e-12, "nothing to evaporate"); }

TEST(Vapour, ComesOffAWetPaneUntilTheAirIsAtItsSaturation) {
  EXPECT_CLOSE(Box(15.0, 3.0, 5.0, 0.3).humidityAfter_g_kg(96.0), saturated_g_kg(5.0), 1e-3, "at a third of the pace");
}

TEST(Vapour, AWetThinLeafComesToItsWetBulb) {
  // heat through the film pays for what evaporates: Ta - Ts = L/(cp Le^(2/3)) (x_s(Ts) - x)
  Network net;
  const double air_C = 20.0, x = 6.0;
  const int air = net.addBoundary("air", Driver::constant(air_C));
  const int vapour = net.addBoundary("vapour", Driver::constant(x));
  const int wick = net.addNode("wick", 50.0, 20.0);
  Link& film = net.addNatural(air, wick, 1.0, 1.7, 1.0 / 3.0);
  film.vapour = vapour;
  film.wetShare = 1.0;
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 20; ++i) s.advance(600.0);
  double low = 0.0, high = air_C;
  for (int i = 0; i < 60; ++i) {
    const double t = 0.5 * (low + high);
    const double heat = kAirHeat_J_kgK * 0.905 * (air_C - t) - kEvaporation_J_kg / 1000.0 * (saturated_g_kg(t) - x);
    (heat > 0.0 ? low : high) = t;
  }
  EXPECT_CLOSE(s.temperature_C(wick), low, 2e-3, "the solver's tolerance");
  EXPECT_CLOSE(s.temperature_C(wick), wetBulb_C(air_C, x / 1000.0), 0.6, "a thermometer's wet bulb takes heat and mass to be alike, Le = 1");
}

TEST(Vapour, TakesTheHeatOfWhatALeafGivesOff) {
  Network net;
  const int leaf = net.addNode("leaf", 4e5, 18.0);
  const int vapour = net.addNode("vapour", 3e5, 4.0);
  net.addEvaporative(leaf, vapour, 25.0);
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 6; ++i) s.advance(600.0);
  const double lost_J = 4e5 * (18.0 - s.temperature_C(leaf));
  const double gained_J = 3e5 * (s.temperature_C(vapour) - 4.0);
  EXPECT_GT(gained_J, 1e5);
  EXPECT_CLOSE(lost_J / gained_J, 1.0, 1e-9, "the heat of the vapour comes from the leaf");
}

TEST(Vapour, HalvingTheStepQuartersTheErrorWhileItCondenses) {
  const auto after = [](double step_s) {
    Network net;
    const int air = net.addNode("air", 3e5, 12.0);
    const int vapour = net.addNode("vapour", 3e5, 7.5);
    const int pane = net.addNode("pane", 2e5, 4.0);
    const int out = net.addBoundary("out", Driver::sine(-4.0, 3.0, 86400.0, 50400.0));
    net.addNatural(air, pane, 60.0, 1.7, 1.0 / 3.0).vapour = vapour;
    net.addConductance(pane, out, 500.0);
    net.addEvaporative(air, vapour, 150.0);
    net.sources.push_back({air, Driver::constant(6000.0), "stove"});
    Solver s = *Solver::prepare(net, {.newtonTolerance_K = 1e-11});
    for (int i = 0; i < static_cast<int>(6 * 3600.0 / step_s + 0.5); ++i) s.advance(step_s);
    return s.temperature_C(vapour);
  };
  const double exact = after(15.0);
  const double coarse = std::abs(after(600.0) - exact), fine = std::abs(after(300.0) - exact);
  EXPECT_GT(coarse / fine, 3.5) << "second order while the film keeps condensing";
  EXPECT_LT(coarse / fine, 4.6);
}

TEST(Vapour, OfANetworkIsWrittenAndReadBack) {
  Box box(15.0, 9.0, 5.0, 0.2);
  box.net.addEvaporative(box.net.find("room"), box.net.find("vapour"), 12.0);
  box.net.pressure_Pa = 90e3;
  const Json written = networkToJson(box.net);
  const auto again = networkFromJson(written);
  ASSERT_TRUE(again) << english(again.problem());
  EXPECT_EQ(networkToJson(*again), written);
}

TEST(Vapour, OnALinkWithoutAFilmIsRefused) {
  Box box(15.0, 9.0, 5.0, 0.2);
  box.net.links.back().vapour = box.net.find("vapour");
  EXPECT_FALSE(Solver::prepare(box.net));
}

} // namespace
} // namespace muffle
