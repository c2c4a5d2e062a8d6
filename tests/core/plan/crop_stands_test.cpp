// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/crop_stands.h"

#include "core/plan/heaters.h"
#include "core/plan/ladder.h"
#include "core/plan/plan_json.h"
#include "core/plan/store_list.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

Plan withRooms() {
  Plan p = testing::filmTunnel();
  p.house.bay = WarmBay{};
  for (int i = 0; i < 3; ++i) p.house.bedCovers.push_back({.length_m = 3.0});
  p.mass = {MassBlock{.kind = MassKind::path, .area_m2 = 4.0, .thickness_m = 0.08, .width_m = 0.6},
            MassBlock{.kind = MassKind::bench, .material = MassMaterial::earth, .area_m2 = 3.0, .thickness_m = 0.5, .width_m = 0.7}};
  return p;
}

TEST(CropStands, GoWithTheirRoomAndThoseBehindMoveUp) {
  Plan p = withRooms();
  p.crops = {{.crop = "tomato", .in = CropStand::In::bay},
             {.crop = "pea", .in = CropStand::In::bed, .bedCover = 1},
             {.crop = "basil", .in = CropStand::In::bed, .bedCover = 3},
             {}};
  addHeater(p, {.kind = HeaterKind::tube, .place = {HeaterPlace::Of::bed, 2}, .power_W = 300.0, .holds_C = 5.0});
  addHeater(p, {.kind = HeaterKind::tube, .place = {HeaterPlace::Of::bed, 0}, .power_W = 300.0, .holds_C = 5.0});
  ASSERT_TRUE(check(p).empty()) << english(check(p).front());
  removeBedCover(p, 0);
  ASSERT_EQ(p.crops.size(), 3U);
  EXPECT_EQ(p.crops[1].bedCover, 2);
  ASSERT_EQ(p.heaters.size(), 1U);
  EXPECT_EQ(p.heaters[0].place, (HeaterPlace{HeaterPlace::Of::bed, 1}));
  removeBay(p);
  ASSERT_EQ(p.crops.size(), 2U);
  EXPECT_TRUE(check(p).empty());
}

TEST(CropStands, AMassThatIsTakenAwayLeavesNoFlueOrMatBehind) {
  Plan p = withRooms();
  addHeater(p, {.id = "stove", .kind = HeaterKind::massStove, .power_W = 9000.0, .through = 2});
  addHeater(p, {.id = "mat", .kind = HeaterKind::electric, .place = {HeaterPlace::Of::mass, 1}, .power_W = 300.0, .holds_C = 18.0});
  addHeater(p, {.id = "other", .kind = HeaterKind::electric, .place = {HeaterPlace::Of::mass, 0}, .power_W = 300.0, .holds_C = 18.0});
  ASSERT_TRUE(check(p).empty()) << english(check(p).front());
  removeStore(p, StoreKind::mass, 0);
  EXPECT_EQ(p.heaters.size(), 2U) << "the mat in the path went with it";
  EXPECT_EQ(p.heaters[0].through, 1);
  EXPECT_EQ(p.heaters[1].place.index, 0U);
  removeStore(p, StoreKind::mass, 0);
  ASSERT_EQ(p.heaters.size(), 1U);
  EXPECT_EQ(p.heaters[0].through, 0);
  EXPECT_TRUE(check(p).empty());
}

TEST(CropStands, WhatDoesNotFitIsSaidWithWhatIsAllowed) {
  const auto says = [](const std::function<void(Plan&)>& change, const std::string& part) {
    Plan p = withRooms();
    change(p);
    const Problems problems = check(p);
    ASSERT_FALSE(problems.empty()) << part;
    EXPECT_NE(english(problems.front()).find(part), std::string::npos) << english(problems.front());
  };
  says([](Plan& p) { p.crops.push_back({.crop = "moonflower"}); }, "no known crop");
  says([](Plan& p) { p.crops.push_back({.in = CropStand::In::bed, .bedCover = 4}); }, "a room that the plan does not have");
  says([](Plan& p) { p.ownCrops.push_back({.id = "tomato", .name = "mine", .note = {}}); }, "choose another");
  says([](Plan& p) { p.ownCrops.push_back({.id = "own-1", .name = "mine", .growth = {10.0, 5.0, 30.0, 12.0}, .note = {}}); }, "best below too warm");
  says([](Plan& p) { p.ownCrops.push_back({.id = "own-1", .name = "mine", .leaf_C = 5.0, .heat_C = 5.0, .note = {}}); }, "whose cold harms it");
  says([](Plan& p) { p.house.bay->setpoints.felt = HeldTemperature::leaf; }, "felt in the house only");
  says([](Plan& p) { addHeater(p, {.kind = HeaterKind::oil, .power_W = 3000.0, .through = 1}); }, "only that of a stove in the house");
  says([](Plan& p) { addHeater(p, {.kind = HeaterKind::woodStove, .power_W = 3000.0, .through = 3}); }, "the plan has 2");
  says([](Plan& p) { addHeater(p, {.kind = HeaterKind::propane, .place = {HeaterPlace::Of::bed, 0}, .power_W = 300.0, .holds_C = 5.0}); }, "what is electric");
  says([](Plan& p) { addHeater(p, {.kind = HeaterKind::electric, .place = {HeaterPlace::Of::mass, 1}, .power_W = 300.0}); }, "at most 40");
  says([](Plan& p) { addHeater(p, {.power_W = 300.0, .partLoad = {{1.0, 1.0}, {0.3, 0.9}}}); }, "rising load");
}

TEST(CropStands, ComeBackFromAFileAsTheyWere) {
  Plan p = withRooms();
  p.name = "beds";
  p.ownCrops = {{.id = "own-1", .name = "Stock", .bud_C = -2.5, .for_h = 3.0, .growth = {3.0, 15.0, 28.0, 9.0}, .note = "seen on the bench"}};
  p.crops = {{.crop = "own-1"}, {.crop = "roots-tender", .in = CropStand::In::bed, .bedCover = 2, .inPots = true, .pot_litres = 7.5}};
  p.setpoints.felt = HeldTemperature::leaf;
  addHeater(p, {.id = "stove", .kind = HeaterKind::massStove, .power_W = 9000.0, .through = 2, .massShare = 0.8});
  addHeater(p, {.id = "oil",
                .kind = HeaterKind::oil,
                .power_W = 9000.0,
                .boughtBy = "litre",
                .band_K = 2.0,
                .least = 0.4,
                .startUp_min = 3.0,
                .standby_W = 40.0,
                .partLoad = {{0.3, 0.9}, {1.0, 1.0}}});
  const auto back = planFromJson(planToJson(p));
  ASSERT_TRUE(back) << english(back.problem());
  EXPECT_EQ(*back, p);
}

TEST(CropStands, TheLadderSaysWhereTheLineLiesBelowWhatACropBears) {
  Plan p = withRooms();
  p.setpoints.hold_C = -2.0;
  p.crops = {{.crop = "tomato"}, {.crop = "roots-hardy"}, {.crop = "cabbage", .in = CropStand::In::bay}};
  const auto odd = ladderConflicts(p, HeaterPlace::Of::house);
  ASSERT_EQ(odd.size(), 1U) << "with no heater, too; the roots bear it";
  EXPECT_EQ(odd[0].kind, LadderConflictKind::lineHarmsCrop);
  EXPECT_CLOSE(odd[0].by_K, 1.5, 1e-12, "-0.5 over -2");
  EXPECT_EQ(coldLine_C(*Crops().find("tomato")), -0.5) << "days at 10 are no night's low";
}

} // namespace
} // namespace muffle
