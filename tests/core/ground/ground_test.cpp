// SPDX-License-Identifier: GPL-3.0-or-later
//
// Undisturbed ground, slabs and soil.
#include "core/ground/slab.h"
#include "core/ground/soil.h"
#include "core/house/infiltration.h"
#include "core/house/resistance.h"
#include "tests/support/near.h"

#include <array>
#include <cmath>

namespace muffle {
namespace {

constexpr double kPi_ = 3.14159265358979323846;

TEST(Ground, TheYearsWaveFadesByTheDampingDepthAndLags) {
  const UndisturbedGround g{11.0, 9.0, 25.0, 1.3, 2.1e6};
  const double d = g.dampingDepth_m();
  const auto swing = [&](double depth) {
    double low = 1e9, high = -1e9;
    for (double day = 0; day < 365; day += 0.25) low = std::min(low, g.temperature_C(depth, day)), high = std::max(high, g.temperature_C(depth, day));
    return (high - low) / 2.0;
  };
  EXPECT_CLOSE(swing(0.0), 9.0, 1e-3, "a quarter day's sampling");
  EXPECT_CLOSE(swing(d) / swing(0.0), std::exp(-1.0), 1e-3, "a quarter day's sampling");
  EXPECT_CLOSE(g.temperature_C(0.0, 25.0), 2.0, 1e-9, "its coldest day");
  EXPECT_CLOSE(g.temperature_C(d, 25.0 + 365.0 / (2.0 * kPi_)), 11.0 - 9.0 * std::exp(-1.0), 1e-9, "one radian of the year later at one damping depth");
}

TEST(Ground, DeepSoilIsNotConstantACoupleOfMetresDown) {
  const UndisturbedGround wet{11.0, 9.0, 25.0, 1.8, 2.5e6};
  double low = 1e9, high = -1e9;
  for (double day = 0; day < 365; ++day) low = std::min(low, wet.temperature_C(2.0, day)), high = std::max(high, wet.temperature_C(2.0, day));
  EXPECT_GT(high - low, 6.0) << "moist soil still swings by several kelvin at 2 m";
  EXPECT_CLOSE(wet.temperature_C(15.0, 100.0), 11.0, 0.1, "a sensor's resolution at 15 m");
}

TEST(Slab, ALargerFloorLosesLessASquareMetre) {
  double before = 1e9;
  for (const double side : {4.0, 8.0, 16.0, 32.0}) {
    const SlabOnGround slab{side * side, 4.0 * side, 0.05, 1.5, 0.0};
    EXPECT_LT(slab.u_W_m2K(), before);
    before = slab.u_W_m2K();
  }
}

TEST(Slab, EdgeInsulationNeverCosts) {
  const SlabOnGround slab{60.0, 34.0, 0.05, 1.5, 0.0};
  double before = 0.0;
  for (const double depth : {0.2, 0.4, 0.8, 1.2}) {
    const double psi = edgeInsulationPsi_W_mK(1.5, slab.equivalentThickness_m(), depth, 0.05, 0.035, EdgeInsulation::vertical);
    EXPECT_LT(psi, before) << "deeper saves more";
    before = psi;
  }
}

TEST(Soil, ConductsBetterWetAndStillBetterFrozen) {
  double before = 0.0;
  for (const double moisture : {0.05, 0.10, 0.15, 0.20}) {
    const double k = soilConductivityJohansen(1500.0, moisture, 0.4, false, false).conductivity_W_mK;
    EXPECT_GT(k, before);
    before = k;
  }
  EXPECT_GT(soilConductivityJohansen(1500.0, 0.2, 0.4, false, true).conductivity_W_mK, before);
}

TEST(Resistance, ASlabOfTwoHalvesIsTheWhole) {
  const std::array<double, 1> whole{0.8};
  const std::array<double, 2> halves{0.4, 0.4};
  EXPECT_CLOSE(uValue_W_m2K(whole, HeatFlow::up), uValue_W_m2K(halves, HeatFlow::up), 1e-12, "rounding");
  EXPECT_GT(uValue_W_m2K(whole, HeatFlow::up), uValue_W_m2K(whole, HeatFlow::down)) << "still air under a ceiling insulates a floor";
}

TEST(Resistance, UpperAndLowerLimitsAgreeForOneSection) {
  const std::array<Section, 1> plain{Section{1.0, {{0.05, 0.035}, {0.1, 0.8}}}};
  const auto r = combinedResistance(plain, HeatFlow::horizontal);
  EXPECT_CLOSE(r.upper_m2K_W, r.lower_m2K_W, 1e-12, "rounding: there is nothing to average");
  const std::array<Section, 2> studs{Section{0.9, {{0.1, 0.035}}}, Section{0.1, {{0.1, 0.13}}}};
  const auto s = combinedResistance(studs, HeatFlow::horizontal);
  EXPECT_GT(s.upper_m2K_W, s.lower_m2K_W);
}

TEST(AirLayer, IsBetterWithAShinyFaceAndNoBetterPastItsWidth) {
  EXPECT_GT(airLayer_m2K_W(0.025, HeatFlow::horizontal, 0.05, 0.9, 5.0), airLayer_m2K_W(0.025, HeatFlow::horizontal, 0.9, 0.9, 5.0));
  EXPECT_CLOSE(airLayerConvection_W_m2K(0.10, HeatFlow::horizontal), airLayerConvection_W_m2K(0.30, HeatFlow::horizontal), 1e-9,
               "ISO 6946: a constant past a few centimetres");
  EXPECT_GT(airLayerConvection_W_m2K(0.005, HeatFlow::horizontal), airLayerConvection_W_m2K(0.02, HeatFlow::horizontal)) << "a thin layer conducts";
}

TEST(Draughts, GrowWithVolumeRateAndColdAir) {
  EXPECT_CLOSE(airChangeConductance_W_K(1.0, 200.0, 5.0) * 2.0, airChangeConductance_W_K(2.0, 200.0, 5.0), 1e-9, "rounding");
  EXPECT_GT(airChangeConductance_W_K(1.0, 200.0, -15.0), airChangeConductance_W_K(1.0, 200.0, 15.0)) << "cold air is denser";
  const LeakageSite site;
  EXPECT_GT(leakageFlow(0.1, site, 270.0, 15.0, 4.0).flow_m3_s, leakageFlow(0.1, site, 270.0, 15.0, 1.0).flow_m3_s);
  EXPECT_GT(leakageFlow(0.1, site, 270.0, 15.0, 1.0).flow_m3_s, leakageFlow(0.1, site, 270.0, 5.0, 1.0).flow_m3_s);
}

TEST(BuriedSide, IsTheCellarWallOfTheHandbook) {
  // W/m2K of bare concrete walls, a foot at a time down from the first, in soil of 1.38 W/mK; wall and film are 0.29 m2K/W
  const std::array<double, 6> published{1.26, 0.88, 0.67, 0.54, 0.45, 0.39};
  constexpr double kFoot_m = 0.3048;
  for (std::size_t i = 0; i < published.size(); ++i) {
    const double top = (static_cast<double>(i) + 1.0) * kFoot_m;
    EXPECT_CLOSE(buriedSide_W_mK(top, top + kFoot_m, 0.0, 0.29, 1.38) / kFoot_m, published[i], 0.03, "the table takes a slice's middle, and feet for 0.3 m");
  }
}

TEST(BuriedSide, ABoardOrAWiderHouseKeepsItsHeat) {
  const double bare = buriedSide_W_mK(0.3, 1.1, 0.0, 0.0, 1.2);
  const double board = buriedSide_W_mK(0.3, 1.1, 0.0, 2.0, 1.2);
  EXPECT_LT(board, 0.4 * bare) << "two of resistance on what is about one of soil";
  EXPECT_LT(buriedSide_W_mK(0.3, 1.1, 3.0, 0.0, 1.2), 0.4 * bare);
  EXPECT_CLOSE(buriedSide_W_mK(0.3, 1.1, 0.0, 100.0, 1.2), 0.8 / 100.0, 1e-4, "nothing but the board, less 1 % of soil");
}

} // namespace
} // namespace muffle
