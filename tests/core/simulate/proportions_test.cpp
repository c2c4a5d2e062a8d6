// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/proportions.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace muffle {
namespace {

const HouseShape kArch{ShapeKind::arch, 7.0, 14.0, 0.9, 3.3, 80.0};

TEST(Proportions, KeepTheFloorAndHoldThePresentHouseAmongThem) {
  for (const HouseShape& shape : {kArch, HouseShape{ShapeKind::gable, 8, 20, 2, 4, 30}, HouseShape{ShapeKind::singleSlope, 4, 12, 0.6, 2.8, 90}})
    for (const Proportion of : {Proportion::height, Proportion::width}) {
      const auto shapes = proportionShapes(shape, of);
      ASSERT_GE(shapes.size(), 5U);
      EXPECT_NE(std::find(shapes.begin(), shapes.end(), shape), shapes.end());
      for (const HouseShape& s : shapes) {
        EXPECT_CLOSE(s.floor_m2(), shape.floor_m2(), 1e-9, "rounding");
        EXPECT_TRUE(s.check().empty());
      }
    }
  EXPECT_TRUE(proportionShapes({ShapeKind::dome, 6, 1, 0.4, 3.4, 0}, Proportion::width).empty()) << "a dome's floor is its width";
}

TEST(Proportions, ATallerHouseOfTheSameFloorNeedsMoreHeat) {
  Plan plan;
  plan.site.place = {48.0, 0.0, 100.0};
  plan.house.shape = kArch;
  plan.heaters = {{.id = "heater", .name = "heater", .power_W = 30000.0, .price = 0.0, .life_years = 10.0}};
  const auto weather = testing::frost(plan.site);
  const auto one = sweepProportions(plan, weather, Proportion::height, {1, {}}), two = sweepProportions(plan, weather, Proportion::height, {2, {}});
  ASSERT_TRUE(one);
  ASSERT_TRUE(two);
  for (std::size_t i = 1; i < one->points.size(); ++i) {
    EXPECT_GT(one->points[i].value_m, one->points[i - 1].value_m);
    EXPECT_GT(one->points[i].cover_m2, one->points[i - 1].cover_m2);
    EXPECT_GT(one->points[i].heater_kWh, one->points[i - 1].heater_kWh) << "more cover over the same floor";
    EXPECT_EQ(one->points[i].heater_kWh, two->points[i].heater_kWh) << "threads change nothing";
  }
  EXPECT_CLOSE(one->rules.at(0).value_m, 3.5, 1e-9, "half of seven metres");
}

} // namespace
} // namespace muffle
