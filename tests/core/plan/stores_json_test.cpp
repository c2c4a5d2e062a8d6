// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores as JSON: what is written is read back, and what is out of range is named.
#include "core/plan/plan_json.h"
#include "core/plan/store_list.h"
#include "tests/support/every_store.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <set>

namespace muffle {
namespace {

using testing::yardWithEveryStore;

TEST(StoresJson, ComeBackAsTheyWere) {
  const Json written = planToJson(yardWithEveryStore());
  const auto read = planFromJson(written);
  ASSERT_TRUE(read) << english(read.problem());
  EXPECT_EQ(planToJson(*read), written);
  EXPECT_EQ(storesOf(*read).size(), storesOf(yardWithEveryStore()).size());
}

TEST(StoresJson, NameTheFieldAndItsRange) {
  const auto refused = [](const char* pointer, Json value) {
    Json plan = planToJson(yardWithEveryStore());
    plan[Json::json_pointer(pointer)] = std::move(value);
    const auto read = planFromJson(plan);
    return read ? std::string() : read.problem().where;
  };
  EXPECT_EQ(refused("/compost/0/recipe/0/moisture", -0.1), "/compost/0/recipe/0/moisture"); // negative moisture
  EXPECT_EQ(refused("/ground_pipes/0/depth_m", 9.0), "/ground_pipes/0/depth_m");
  EXPECT_EQ(refused("/ground_pipes/0/place", "in the air"), "/ground_pipes/0/place");
  EXPECT_EQ(refused("/water_loops/0/collector_tilt_deg", 120.0), "/water_loops/0/collector_tilt_deg");
  EXPECT_EQ(refused("/soil_cables/0/watts_per_m", 900.0), "/soil_cables/0/watts_per_m");
  EXPECT_EQ(refused("/mass/0/material", "gold"), "/mass/0/material");
  EXPECT_EQ(refused("/warm_up_days", -3), "/warm_up_days");
}

TEST(StoreList, GivesEveryStoreAnIdOfItsOwnAndANameForEachTrace) {
  const Plan p = yardWithEveryStore();
  std::set<std::string> ids;
  for (const StoreRef& s : storesOf(p)) {
    EXPECT_TRUE(ids.insert(s.id).second) << s.id;
    std::set<std::string> traces;
    for (const StoreTrace t : storeTraces(p, s)) EXPECT_TRUE(traces.insert(storeTraceName(t)).second) << s.id;
    EXPECT_FALSE(traces.empty());
  }
}

TEST(MonthDay, ReadsDaysThatEveryYearHas) {
  EXPECT_EQ(parseMonthDay("11-01")->month, 11u);
  EXPECT_EQ(parseMonthDay("03-31")->day, 31u);
  for (const char* bad : {"", "11-1", "13-01", "02-29", "04-31", "1101", "aa-bb", "11-01-2031"}) EXPECT_FALSE(parseMonthDay(bad)) << bad;
}

} // namespace
} // namespace muffle
