// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which of the light that comes in meets what: floor, leaves, barrels, a heavy wall.
#include "core/simulate/assemble.h"

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
  const Assembly a = assemble(plan, winter, sunOnHouse(plan.house.shape, winter, plan.site.place.latitude_deg));
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

TEST(SunInside, TwiceTheLeavesLeaveTheSquareOfTheLightBetweenThem) {
  const auto floor = [](double leafArea) {
    Plan p = wallHouse();
    p.house.crop.leafArea = leafArea;
    return sunOf(p, "sun on the floor");
  };
  const double bare = floor(0.0), one = floor(1.0) / bare, two = floor(2.0) / bare;
  EXPECT_LT(one, 0.7);
  EXPECT_CLOSE(two, one * one, 1e-12, "Monsi and Saeki: each layer takes its share of what it meets");
}

TEST(SunInside, BarrelsTakeItUpByNumberColourAndPlace) {
  const auto barrels = [](const Barrels& group) {
    Plan p = wallHouse();
    p.barrels = {group};
    return sunOf(p, "sun on barrels");
  };
  const double four = barrels({.count = 4});
  EXPECT_CLOSE(barrels({.count = 8}) / four, 2.0, 1e-12, "linear");
  EXPECT_CLOSE(barrels({.count = 4, .sunShare = 0.3}) / four, 0.5, 1e-12, "half of the usual 0.6");
  EXPECT_CLOSE(barrels({.count = 4, .colour = BarrelColour::white}) / four, 0.30 / 0.93, 1e-12, "painted white, against black");
  EXPECT_LT(barrels({.count = 4, .colour = BarrelColour::blue}), four);
}

TEST(SunInside, WhatFloorAndLeavesTakeUpIsNoMoreThanComesIn) {
  Plan p = wallHouse();
  p.barrels.clear();
  const auto weather = testing::frost(p.site);
  const Winter& winter = weather->winters.front();
  const SunOnHouse sun = sunOnHouse(p.house.shape, winter, p.site.place.latitude_deg);
  double level = 0.0;
  for (std::size_t i = 0; i < winter.size(); ++i) level += p.house.shape.floor_m2() * (sun.beamInside_W_m2[i] + sun.diffuse_W_m2[i]);
  for (const double leafArea : {0.0, 0.5, 1.0, 3.0}) {
    p.house.crop.leafArea = leafArea;
    const double taken = sunOf(p, "sun on the floor") + sunOf(p, "sun on leaves");
    EXPECT_LT(taken, level) << leafArea;
    EXPECT_GT(taken, 0.4 * level) << leafArea << ": one clean film lets most of it in";
  }
}

} // namespace
} // namespace muffle
