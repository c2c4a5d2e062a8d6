// SPDX-License-Identifier: GPL-3.0-or-later
//
// What counts as held, what is billed, and that a house stands right on either half of the earth.
#include "core/plan/heaters.h"
#include "core/simulate/simulate.h"

#include "core/assemble/openings.h"
#include "core/run/store_runner.h"
#include "core/sizing/sizing.h"
#include "tests/support/every_store.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

namespace muffle {
namespace {

Summary run(const Plan& p) { return simulate(p, makeScene(testing::frost(p.site), p), {.series = true})->summary; }

Plan withFrozenBay() {
  Plan p = testing::filmTunnel();
  p.setpoints.hold_C = -30.0;
  p.house.bay = WarmBay{};
  removeHeaters(p, {HeaterPlace::Of::bay});
  p.house.bay->setpoints = {5.0, 6.0, 7.0};
  return p;
}

TEST(JudgedRooms, ABayThatFreezesIsAMissedNightForTheHouseToo) {
  const Summary s = run(withFrozenBay());
  ASSERT_GT(s.nights, 0);
  EXPECT_EQ(s.held, 0);
  EXPECT_GT(s.degreeHours_K_h, 0.0) << "what the bay is short of is owed";
}

TEST(JudgedRooms, SizingDoesNotTakeItForHeld) {
  Plan p = withFrozenBay();
  p.measures.push_back({.kind = MeasureKind::sealing,
                        .name = "sealed",
                        .levels = {0.3},
                        .material = "",
                        .gap_m = 0.05,
                        .price = 90.0,
                        .life_years = 3.0,
                        .hoursPerWinter = 1.0});
  const auto sizing = size(p, testing::frost(p.site));
  ASSERT_TRUE(sizing);
  EXPECT_EQ(sizing->winner, -1);
}

TEST(JudgedRooms, APorchOrALoftHasNoLineAndHoldsNothing) {
  Plan p = testing::filmTunnel();
  p.house.shape = {ShapeKind::gable, 6, 12, 2.2, 4.0, 90};
  p.setpoints.hold_C = -4.0;
  p.house.lobby = Lobby{};
  p.house.roofVoid = RoofVoid{};
  for (const OtherRoom& room : otherRooms(p)) EXPECT_FALSE(room.hold_C) << room.id;
  Plan plain = p;
  for (double line = -20.0; line < 5.0; line += 1.0) {
    p.setpoints.hold_C = line;
    const Simulation r = *simulate(p, makeScene(testing::frost(p.site), p), {});
    for (const NightResult& n : r.nights) EXPECT_EQ(n.held, n.coldest_C >= line - kHoldTolerance_K);
  }
}

TEST(Bills, ACablesElectricityIsCountedOnceAndIsWhatItGives) {
  Plan p = testing::filmTunnel();
  p.house.bedCovers.push_back({});
  p.soilCables.push_back({});
  const Summary s = run(p);
  EXPECT_GT(s.cable_kWh, 1.0);
  EXPECT_EQ(s.heater_kWh, 0.0);
  EXPECT_EQ(s.fan_kWh, 0.0);
  EXPECT_CLOSE(s.stores.front().given_kWh, s.cable_kWh, 1e-6, "all of it goes into the soil");
  EXPECT_CLOSE(s.cost.energy * s.winters, s.cable_kWh * p.prices.electricity_per_kWh, 0.01, "and is paid once; rounding of money");
}

TEST(Bills, AirFromPipesThatServesABedGivesWhatTheSameAirGivesTheHouse) {
  const auto given = [](PipeOutlet serves) {
    Plan p = testing::filmTunnel();
    p.house.bedCovers.push_back({.length_m = 8.0});
    p.groundPipes.push_back({.rule = {40.0, 20.0}, .serves = serves});
    const Summary s = run(p);
    return s.stores.front().given_kWh - s.stores.front().taken_kWh;
  };
  EXPECT_GT(given(PipeOutlet::house), 3.0);
  EXPECT_CLOSE(given(PipeOutlet::bed) / given(PipeOutlet::house), 1.0, 0.15, "the same air through the same ground, into air a little warmer");
}

TEST(SouthernHalf, ALeanToMayLookNorth) {
  HouseShape s{ShapeKind::leanTo, 3, 8, 1.6, 2.8, 270.0};
  EXPECT_TRUE(s.check().empty());
  for (const Face& f : s.faces())
    if (f.id == "front") { EXPECT_CLOSE(f.azimuth_deg, 0.0, 1e-9, "the low wall looks to axis + 90"); }
}

TEST(SouthernHalf, TheGroundIsColdestInJuly) {
  Site site;
  site.place = {-41.0, 172.0, 50.0};
  EXPECT_CLOSE(site.coldestDay(), 207.0, 1.0, "half a year after late January");
  site.groundColdestDay = 190.0;
  EXPECT_EQ(site.coldestDay(), 190.0);
}

TEST(SouthernHalf, APileBuiltInMarchWarmsTheJulyThatFollows) {
  CompostPile pile = testing::hotBed();
  pile.built = "03-15";
  const UtcSeconds july = daysSinceEpoch({2031, 7, 10}) * 86400;
  EXPECT_EQ(dateFromDays(firstBuilt(pile, july, -41.0) / 86400), (Date{2031, 3, 15}));
  pile.built = "11-01"; // of a winter in the north
  EXPECT_EQ(dateFromDays(firstBuilt(pile, daysSinceEpoch({2032, 1, 10}) * 86400, 48.0) / 86400), (Date{2031, 11, 1}));
}

/// A house in the north in January and its mirror image in the south in July, under the same readings.
TEST(SouthernHalf, AHouseIsWhatItsMirrorImageIsInTheNorth) {
  for (unsigned seed = 0; seed < testing::kManyHouses / 10; ++seed) {
    Plan north = testing::randomPlan(seed);
    north.site.place.latitude_deg = std::abs(north.site.place.latitude_deg);
    Plan south = north;
    south.site.place.latitude_deg *= -1.0;
    south.house.shape.axis_deg = std::fmod(180.0 - north.house.shape.axis_deg + 360.0 + (north.house.shape.hasBackWall() ? 180.0 : 0.0), 360.0);
    if (!check(south).empty()) continue;
    const auto shifted = [&](const Plan& p) {
      Log log = testing::randomLog(seed, north.site, 8);
      const auto first = log.time.front();
      for (UtcSeconds& t : log.time)
        t += daysSinceEpoch({2031, p.site.place.latitude_deg > 0 ? 1U : 7U, p.site.place.latitude_deg > 0 ? 10U : 12U}) * 86400 + first % 86400 - first;
      return std::make_shared<const Weather>(*weatherFromLog(log, p.site));
    };
    const auto a = simulate(north, makeScene(shifted(north), north)), b = simulate(south, makeScene(shifted(south), south));
    ASSERT_TRUE(a && b);
    ASSERT_EQ(a->nights.size(), b->nights.size()) << seed;
    double mean_K = 0.0;
    for (std::size_t k = 0; k < a->nights.size(); ++k) {
      const double off_K = a->nights[k].coldest_C - b->nights[k].coldest_C;
      mean_K += off_K / static_cast<double>(a->nights.size());
      EXPECT_CLOSE(off_K, 0.0, 1.0, "water may begin to freeze a night earlier") << "seed " << seed;
    }
    EXPECT_CLOSE(mean_K, 0.0, 0.4, "the sun is a fifteenth farther away in July, its clock some minutes off") << "seed " << seed;
  }
}

TEST(Leakage, IsDrivenByTheLiftThatIsAskedNotByASetpoint) {
  Plan p = testing::filmTunnel();
  p.house.leakage = Leakage{600.0, Shelter::scattered};
  const auto draughts = [&](double inside_C) {
    const auto loss = steadyLoss(p, inside_C, -5.0, 0.0, 0.5);
    for (const LossPart& part : loss->parts)
      if (part.part == LossPath::draughts) return part.loss_W;
    return 0.0;
  };
  const double by10 = draughts(5.0);
  EXPECT_GT(draughts(15.0), 2.5 * by10) << "20 K drive sqrt(2) times the air that 10 K do, at twice the heat";
  p.setpoints.night_C = 15.0;
  EXPECT_CLOSE(draughts(5.0) / by10, 1.0, 1e-9, "a setpoint is nothing to it");
}

TEST(Leakage, WindThatIsAtTheHouseIsNotCutDownAgain) {
  Plan p = testing::filmTunnel();
  p.house.leakage = Leakage{600.0, Shelter::open};
  const Winter winter = steadyWinter(p.site, 0.0, 4.0, 0.5);
  const double atHouse = draughts_W_K(p, winter, 101325.0, 0.1).front();
  p.site.windHeight_m = p.house.shape.ridge_m; // the same wind, said in words of a gauge
  EXPECT_GT(atHouse, 1.15 * draughts_W_K(p, winter, 101325.0, 0.1).front()) << "a gauge's wind is brought down by the terrain's factor, 0.85";
}

} // namespace
} // namespace muffle
