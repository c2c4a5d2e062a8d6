// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crop/crops.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <set>

namespace muffle {
namespace {

TEST(Crops, EveryRowIsHarmedBySomethingAndSaysWhereItsFiguresAreFrom) {
  std::set<std::string> names;
  for (const CropFacts& crop : cropTable()) {
    std::size_t exposures = 0;
    for (int p = 0; p < kCropPartCount; ++p) {
      const auto& harmed = crop.harmed[static_cast<std::size_t>(p)];
      exposures += harmed.size();
      for (std::size_t k = 0; k < harmed.size(); ++k) {
        EXPECT_GT(harmed[k].for_h, 0.0) << crop.id;
        if (k > 0) {
          EXPECT_TRUE((harmed[k].at_C > harmed[k - 1].at_C) == (harmed[k].for_h > harmed[k - 1].for_h)) << crop.id << ": the milder for the longer";
        }
      }
    }
    EXPECT_GT(exposures, 0U) << crop.id;
    EXPECT_FALSE(crop.range.empty() || crop.source.empty()) << crop.id;
    if (const auto& g = crop.growth) { EXPECT_TRUE(g->base_C < g->best_C && g->best_C < g->tooWarm_C && g->enoughLight_mol_m2 > 0.0) << crop.id; }
    const std::string name = english(nameOf(crop));
    EXPECT_NE(name, "crop." + std::string(crop.id)) << "it has a name";
    EXPECT_TRUE(names.insert(name).second) << name << " stands twice";
  }
}

TEST(Crops, OnesOwnStandBesideTheTableAndSurviveACopy) {
  Crops copy;
  {
    const Crops own({OwnCrop{.id = "own-1", .name = "Bench stock", .leaf_C = -3.0, .heat_C = 30.0, .for_h = 2.0, .note = {}}});
    copy = own;
  }
  const CropFacts* const mine = copy.find("own-1");
  ASSERT_NE(mine, nullptr);
  EXPECT_EQ(english(nameOf(*mine)), "Bench stock");
  ASSERT_EQ(mine->of(CropPart::leaf).size(), 1U);
  EXPECT_EQ(mine->of(CropPart::leaf).front(), (Exposure{-3.0, 2.0}));
  EXPECT_TRUE(mine->of(CropPart::root).empty());
  EXPECT_NE(copy.find("tomato"), nullptr);
  EXPECT_EQ(copy.find("own-2"), nullptr);
}

TEST(Crops, ABiggerPotFollowsTheAirMoreSlowly) {
  // 2.5 MJ/m3K in a pot as high as wide under 10 W/m2K: tau = rho c V/(h A), which is in proportion to the cube root of V
  EXPECT_CLOSE(potLag_h(8.0) / potLag_h(1.0), 2.0, 1e-12, "eight times the volume, twice the time");
  EXPECT_CLOSE(potLag_h(10.0), 2.5e6 * 0.010 / (10.0 * 5.5 * std::pow(0.010, 2.0 / 3.0)) / 3600.0, 1e-12, "by hand");
}

} // namespace
} // namespace muffle
