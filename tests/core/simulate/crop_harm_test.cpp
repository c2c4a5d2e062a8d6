// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/crop_harm.h"

#include "core/plan/heaters.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"
#include "words/words.h"

#include <cmath>
#include <limits>

namespace muffle {
namespace {

TEST(Exposed, FindsWhatAPlainSearchFinds) {
  for (unsigned seed = 0; seed < 200; ++seed) {
    testing::Chance chance(seed);
    const double step_s = chance.oneOf({300.0, 600.0, 3600.0});
    const Exposure to{chance.between(-4.0, 4.0), chance.between(0.2, 9.0)};
    const bool isHeat = chance.happens(0.5);
    std::vector<float> T(static_cast<std::size_t>(chance.whole(5, 300)));
    double now = 0.0;
    for (float& t : T) {
      now = 0.9 * now + chance.normal();
      t = chance.happens(0.02) ? std::numeric_limits<float>::quiet_NaN() : static_cast<float>(now);
    }
    const auto steps = static_cast<std::size_t>(to.for_h * 3600.0 / step_s + 1e-9);
    double worst = isHeat ? -1e9 : 1e9;
    bool any = false;
    int times = 0;
    std::size_t spell = 0;
    for (std::size_t i = 0; i < T.size(); ++i) {
      const auto t = static_cast<double>(T[i]);
      spell = !std::isnan(t) && (isHeat ? t >= to.at_C : t <= to.at_C) ? spell + 1 : 0;
      times += spell == steps + 1 ? 1 : 0;
      if (i < steps) continue;
      double mildest = isHeat ? 1e9 : -1e9;
      bool isWhole = true;
      for (std::size_t k = i - steps; k <= i; ++k) {
        const auto at = static_cast<double>(T[k]);
        isWhole = isWhole && !std::isnan(at);
        mildest = isHeat ? std::min(mildest, at) : std::max(mildest, at);
      }
      if (!isWhole) continue;
      any = true;
      worst = isHeat ? std::max(worst, mildest) : std::min(worst, mildest);
    }
    const auto found = exposed(T, step_s, to, isHeat);
    ASSERT_EQ(found.has_value(), any) << seed;
    if (!any) continue;
    EXPECT_CLOSE(found->reached_C, worst, 1e-12, "the same numbers");
    EXPECT_EQ(found->times, times) << seed;
    EXPECT_EQ(found->times > 0, isHeat ? worst >= to.at_C : worst <= to.at_C) << "harmed just where it came to that";
  }
}

Simulation cropRun(const Plan& plan) {
  EXPECT_TRUE(check(plan).empty()) << english(check(plan).front());
  return std::move(*simulate(plan, makeScene(testing::frost(plan.site), plan), {.series = true}));
}
std::vector<CropFate> fatesOf(const Plan& plan) { return cropFates(plan, *testing::frost(plan.site), cropRun(plan)); }

TEST(CropFates, AColdTunnelKillsTomatoesSparesPeasAndKeepsPottedRootsBehindTheAir) {
  Plan p = testing::filmTunnel();
  p.crops = {{.crop = "tomato"},
             {.crop = "spinach-hardened"},
             {.crop = "roots-tender", .inPots = true, .pot_litres = 20.0},
             {.crop = "roots-tender", .inPots = true, .pot_litres = 0.5},
             {.crop = "roots-tender"}};
  const auto fates = fatesOf(p);
  ASSERT_EQ(fates.size(), 5U);
  EXPECT_GT(fates[0].times(), 3) << "night after night";
  EXPECT_EQ(fates[1].times(), 0);
  const auto root_C = [&](std::size_t c) { return fates[c].parts.front().reached_C; };
  EXPECT_GT(root_C(2), root_C(3)) << "a big pot follows less far";
  EXPECT_GT(root_C(4), root_C(2)) << "and the floor's soil least";
  ASSERT_TRUE(fates[0].growth);
  EXPECT_FALSE(fates[2].growth);
}

TEST(CropFates, ALeafInAHeatedHouseIsColderThanItsAirAndInTheBayTheAirStandsForIt) {
  Plan p = testing::filmTunnel();
  p.setpoints = {0.0, 3.0, 3.0};
  p.house.bay = WarmBay{.length_m = 4.0, .setpoints = {0.0, 3.0, 3.0}};
  addHeater(p, {.power_W = 30000.0});
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 15000.0});
  p.crops = {{.crop = "lettuce"}, {.crop = "lettuce", .in = CropStand::In::bay}};
  const auto fates = fatesOf(p);
  ASSERT_EQ(fates.size(), 2U);
  EXPECT_CLOSE(fates[1].parts.front().reached_C, 3.0, 0.05, "its setpoint, to what the solver's steps are off by");
  EXPECT_LT(fates[0].parts.front().reached_C, 2.9) << "it sees a cold cover";
  EXPECT_GT(fates[0].parts.front().margin_K(), 0.0);
}

TEST(CropFates, HoldingMoreNeverHarmsMore) {
  unsigned tried = 0;
  for (unsigned seed = 700; tried < 30; ++seed) {
    Plan p = testing::randomPlan(seed);
    p.setpoints.night_C = p.setpoints.day_C = 1.0;
    p.house.ventOpens_C = 20.0;
    p.house.ventFull_C = 26.0;
    addHeater(p, {.power_W = 40.0 * p.house.shape.floor_m2()});
    p.crops = {{.crop = "tomato"}, {.crop = "cabbage"}, {.crop = "roots-middling", .inPots = true}};
    if (!check(p).empty()) continue;
    ++tried;
    const auto weather = testing::randomWeather(seed, p);
    const Scene scene = makeScene(weather, p);
    const auto cool = simulate(p, scene, {.series = true});
    p.setpoints.night_C = p.setpoints.day_C = 4.0;
    const auto warm = simulate(p, scene, {.series = true});
    ASSERT_TRUE(cool && warm) << seed;
    const auto a = cropFates(p, *weather, *cool), b = cropFates(p, *weather, *warm);
    for (std::size_t c = 0; c < a.size(); ++c)
      for (std::size_t k = 0; k < a[c].parts.size(); ++k)
        if (a[c].parts[k].part != CropPart::heat) {
          EXPECT_GT(b[c].parts[k].reached_C, a[c].parts[k].reached_C - 0.05) << seed << ": what the solver's steps may be off by";
        }
  }
}

} // namespace
} // namespace muffle
