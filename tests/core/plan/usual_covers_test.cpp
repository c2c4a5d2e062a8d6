// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/usual_covers.h"

#include "core/assemble/covers.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <map>
#include <string>

namespace muffle {
namespace {

TEST(UsualCovers, EachStandsInAPlanAndIsKnownAgain) {
  for (const UsualCover& cover : usualCovers()) {
    Plan plan;
    plan.house.shape = plan.house.shape.as(ShapeKind::singleSlope);
    const Skin wall = plan.house.backWall;
    coverWith(plan.house, cover.skin);
    EXPECT_TRUE(check(plan).empty()) << cover.id << ": " << english(check(plan)[0]);
    EXPECT_EQ(usualCoverOf(plan.house), &cover) << cover.id;
    EXPECT_EQ(plan.house.backWall, wall) << "a back wall stays as it is";
    plan.house.ends = Skin{{{"timber-25", 0.05}}};
    EXPECT_EQ(usualCoverOf(plan.house), nullptr) << "ends of their own make it none of them";
  }
}

TEST(UsualCovers, StandInTheOrderThatHeatingTablesGiveThem) {
  std::map<std::string, double> u;
  for (const UsualCover& cover : usualCovers()) u[english(nameOf(cover))] = *skinU_W_m2K(cover.skin);
  EXPECT_LT(u["one heat-holding film"], u["one film"]);
  EXPECT_LT(u["two films blown apart"], 0.7 * u["one film"]) << "a second film saves about a third and more";
  EXPECT_LT(u["one film, bubble wrap within"], u["two films blown apart"]);
  EXPECT_LT(u["sealed double glass"], 0.6 * u["single glass"]);
  EXPECT_LT(u["twin-wall sheet 16 mm"], u["twin-wall sheet 8 mm"]);
  EXPECT_LT(u["multi-wall sheet 32 mm"], u["twin-wall sheet 16 mm"]);
}

} // namespace
} // namespace muffle
