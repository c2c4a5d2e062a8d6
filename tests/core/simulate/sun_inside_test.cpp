// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which of the light that comes in meets what: floor, leaves, barrels, a heavy wall.
#include "core/assemble/assemble.h"

#include "core/assemble/covers.h"
#include "core/assemble/light_inside.h"

#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace muffle {
namespace {

/// A single slope with a wall to the north, so that all that takes up light is there.
Plan wallHouse() {
  Plan p = testing::filmTunnel();
  p.house.shape = {ShapeKind::singleSlope, 5, 12, 0.6, 2.8, 90};
  p.barrels = {Barrels{.count = 4}};
  return p;
}

/// What the sources of that name give over the winter, by its steps added up, W.
double sunOf(const Plan& plan, const std::string& name) {
  static const auto weather = testing::frost(Site{.name = "", .place = {48.0, 0.0, 100.0}});
  const Winter& winter = weather->winters.front();
  const Assembly a = assemble(plan, winter, sunOnHouse(plan.house.shape, winter));
  double sum = 0.0;
  for (const Source& s : a.network.sources)
    if (s.id == name)
      for (std::size_t i = 0; i < winter.size(); ++i) sum += s.power.at(winter.step_s * static_cast<double>(i), a.network.tables);
  return sum;
}

constexpr const char* kInside[] = {"sun on the floor", "sun on leaves", "sun on barrels", "sun on the wall"};

TEST(SunInside, AShadeDrawnByDayDimsEverythingBehindItAlike) {
  Plan shaded = wallHouse();
  shaded.house.blanket = NightBlanket{.material = "clear-screen", .rule = BlanketRule::clock, .closesAt_h = 0.0, .opensAt_h = 24.0};
  const double through = findCoverMaterial("clear-screen")->solarTransmittance;
  for (const char* name : kInside) {
    const double bright = sunOf(wallHouse(), name);
    ASSERT_GT(bright, 0.0) << name;
    EXPECT_CLOSE(sunOf(shaded, name) / bright, through, 1e-9, "the cloth's own transmittance") << name;
  }
}

TEST(SunInside, AClothDrawnAtNightTakesNothing) {
  Plan p = wallHouse();
  p.house.blanket = NightBlanket{.material = "tarp", .rule = BlanketRule::night};
  for (const char* name : kInside) EXPECT_CLOSE(sunOf(p, name) / sunOf(wallHouse(), name), 1.0, 0.002, "the step in which the sun rises or sets") << name;
}

TEST(SunInside, TheFittedFactorScalesAllThatIsTakenUp) {
  Plan p = wallHouse();
  p.calibration = Calibration{.sun = 0.8, .date = ""};
  for (const char* name : kInside) EXPECT_CLOSE(sunOf(p, name) / sunOf(wallHouse(), name), 0.8, 1e-12, "linear") << name;
  EXPECT_CLOSE(sunOf(p, "sun on the cover") / sunOf(wallHouse(), "sun on the cover"), 0.8, 1e-12, "linear");
}

TEST(SunInside, MoreLeavesLeaveLessToTheFloorAndTakeInMoreThemselves) {
  const auto taken = [](double leafArea, const char* what) {
    Plan p = wallHouse();
    p.house.crop.leafArea = leafArea;
    return sunOf(p, what);
  };
  EXPECT_EQ(taken(0.0, "sun on leaves"), 0.0);
  double floor = 1e300, leaves = -1.0;
  for (const double leafArea : {0.0, 0.5, 1.0, 2.0, 4.0}) {
    EXPECT_LT(taken(leafArea, "sun on the floor"), floor);
    EXPECT_GT(taken(leafArea, "sun on leaves"), leaves);
    floor = taken(leafArea, "sun on the floor");
    leaves = taken(leafArea, "sun on leaves");
  }
}

TEST(SunInside, BarrelsTakeItUpByNumberColourAndPlace) {
  const auto barrels = [](const Barrels& group) {
    Plan p = wallHouse();
    p.barrels = {group};
    return sunOf(p, "sun on barrels");
  };
  const double four = barrels({.count = 4});
  EXPECT_LT(barrels({.count = 8}), 2.0 * four) << "they shade each other";
  EXPECT_GT(barrels({.count = 8}), 1.7 * four);
  EXPECT_GT(barrels({.count = 4, .sunShare = 0.3}), 0.5 * four) << "half of the usual 0.6, less shaded";
  EXPECT_LT(barrels({.count = 4, .sunShare = 0.3}), 0.6 * four);
  EXPECT_CLOSE(barrels({.count = 4, .colour = BarrelColour::white}) / four, 0.30 / 0.93, 1e-9, "painted white, against black");
  EXPECT_LT(barrels({.count = 4, .colour = BarrelColour::blue}), four);
}

/// All that is taken up within, and all that comes in, over the winter's steps, W.
std::pair<double, double> takenAndEntering(const Plan& p) {
  double taken = 0.0;
  for (const char* name : kInside) taken += sunOf(p, name);
  const auto weather = testing::frost(p.site);
  const Winter& winter = weather->winters.front();
  const SunOnHouse sun = sunOnHouse(p.house.shape, winter);
  double entering = 0.0;
  LightTaking taking;
  for (std::size_t g = 0; g < kLightEntries; ++g) {
    const Skin* const skins[] = {&p.house.roof, &p.house.sides, &p.house.ends};
    taking.covers[g].area_m2 = 1.0;
    taking.covers[g].lets.assign(winter.size(), skinOptics(*skins[g]).transmittance * p.house.light.left());
    for (const double W : lightEntering_W(taking, sun, winter, static_cast<FaceGroup>(g))) entering += W;
  }
  return {taken, entering};
}

TEST(SunInside, LightIsTakenUpOnceWhateverStandsInIt) {
  double before = 0.0;
  for (const int count : {0, 20, 200}) {
    Plan p = wallHouse();
    p.barrels.clear();
    if (count > 0) p.barrels = {Barrels{.count = count, .litres = 60.0, .sunShare = 1.0}};
    const auto [taken, entering] = takenAndEntering(p);
    EXPECT_LT(taken, entering) << count << " barrels";
    EXPECT_GT(taken, 0.5 * entering) << count << " barrels: one clean film lets little out again";
    EXPECT_LT(std::abs(taken - before), before > 0.0 ? 0.15 * before : 1e300) << "what stands in it shades what is behind it";
    before = taken;
  }
}

TEST(SunInside, AnOpaqueCeilingDarkensOnlyWhatComesByTheRoof) {
  Plan p = testing::filmTunnel();
  p.house.shape = {ShapeKind::gable, 6, 12, 2.4, 4.2, 90};
  p.barrels = {Barrels{.count = 4}};
  const double open = sunOf(p, "sun on barrels");
  p.house.roofVoid = RoofVoid{};
  p.house.roofVoid->ceiling.layers = {{"tarp", 0.05}};
  ASSERT_TRUE(check(p).empty());
  const double under = sunOf(p, "sun on barrels");
  EXPECT_GT(under, 0.3 * open) << "the sides still light them";
  EXPECT_LT(under, 0.95 * open);
}

} // namespace
} // namespace muffle
