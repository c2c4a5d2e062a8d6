// SPDX-License-Identifier: GPL-3.0-or-later
//
// Rules of thumb are plans like any other: sized by their own arithmetic, run over the same nights, priced as the list has it.
#include "core/sizing/thumb_rules.h"

#include "core/plan/measure_table.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/frost.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

TEST(ThumbRules, AHeaterIsAreaTimesUTimesTheDifferenceToTheColdestHour) {
  const Plan p = testing::filmTunnel();
  const auto weather = testing::frost(p.site);
  double coldest_C = 100.0;
  for (const double outside_C : weather->winters.at(0).outside_C) coldest_C = std::min(coldest_C, outside_C);
  const auto rules = thumbRules(p, *weather);
  ASSERT_EQ(rules.size(), 3U);
  const double exact_W = p.house.shape.cover_m2() * kThumbSingle_W_m2K * (p.setpoints.hold_C - coldest_C);
  const double built_W = rules[0].plan.measures.at(0).levels.at(0);
  EXPECT_GE(built_W, exact_W);
  EXPECT_LT(built_W, exact_W + 500.0) << "to the next half kilowatt";
  EXPECT_LT(rules[1].plan.measures.at(1).levels.at(0), built_W) << "less under two skins";
  EXPECT_EQ(english(rules[2].says).find("water 0.1 m deep over the floor"), 0U) << english(rules[2].says);
  Plan lined = p;
  for (Skin* skin : {&lined.house.roof, &lined.house.sides, &lined.house.ends}) skin->layers.push_back({"pe-film", 0.05});
  EXPECT_EQ(thumbRules(lined, *weather).size(), 2U) << "it has its second skin";
}

TEST(ThumbRules, EachIsRunAndPricedLikeThePlanThatItBuilds) {
  for (unsigned seed = 1; seed <= 12; ++seed) {
    Plan p = testing::randomPlan(seed);
    p.warmUp_days = 2;
    p.measures = {usualMeasure(MeasureKind::heater)};
    p.measures[0].price = 123.0;
    const auto weather = testing::randomWeather(seed, p, 4);
    PackageScenes scenes(weather);
    const auto all = runThumbRules(p, scenes);
    ASSERT_TRUE(all) << seed;
    for (const ByThumb& rule : *all) {
      const Package package = buildPackage(rule.plan, rule.package.choice);
      EXPECT_TRUE(isSound(package.plan)) << seed;
      const auto run = simulate(package.plan, makeScene(weather, package.plan));
      ASSERT_TRUE(run) << seed;
      EXPECT_EQ(run->summary.held, rule.package.held) << seed;
      EXPECT_NEAR(rule.package.cost.total(), run->summary.cost.total(), 1e-9 * run->summary.cost.total()) << seed;
      for (const Measure& m : rule.plan.measures) {
        if (m.kind == MeasureKind::heater) { EXPECT_EQ(m.price, 123.0) << "as the list has it"; }
      }
    }
  }
}

} // namespace
} // namespace muffle
