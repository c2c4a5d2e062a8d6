// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a search found is written down and is the same when it is read; one that was stopped goes on to where it would have come unstopped.
#include "core/sizing/kept_sizing.h"

#include "core/plan/measure_table.h"
#include "core/sizing/search_memory.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/frost.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <atomic>

namespace muffle {
namespace {

Plan tunnelWithAList() {
  Plan p = testing::filmTunnel();
  p.prices.electricity_per_kWh = 0.3;
  p.prices.electricityWindows = {{.from_h = 22, .to_h = 6, .price_per_kWh = 0.2}};
  p.measures = {usualMeasure(MeasureKind::secondSkin), usualMeasure(MeasureKind::nightBlanket), usualMeasure(MeasureKind::sealing),
                usualMeasure(MeasureKind::barrels),    usualMeasure(MeasureKind::skirt),        usualMeasure(MeasureKind::heater),
                usualMeasure(MeasureKind::hardier)};
  p.measures[0].faces = CoveredFaces::sidesAndEnds;
  p.measures[2].levels = {0.6, 0.3};
  p.measures[5].levels = {3000, 6000, 12000};
  return p;
}

void expectSame(const Sizing& a, const Sizing& b) {
  EXPECT_EQ(a.winner, b.winner);
  EXPECT_EQ(a.frontier, b.frontier);
  EXPECT_EQ(a.covered, b.covered);
  EXPECT_EQ(a.runs, b.runs);
  EXPECT_EQ(a.provedLeast, b.provedLeast);
  EXPECT_EQ(a.bound, b.bound);
  ASSERT_EQ(a.packages.size(), b.packages.size());
  for (std::size_t i = 0; i < a.packages.size(); ++i) {
    const SizedPackage &one = a.packages[i], &other = b.packages[i];
    EXPECT_EQ(one.choice, other.choice);
    EXPECT_EQ(english(one.label), english(other.label));
    EXPECT_EQ(one.cost.total(), other.cost.total());
    EXPECT_EQ(one.cost.carbon_kg, other.cost.carbon_kg);
    EXPECT_EQ(one.cost.hours, other.cost.hours);
    EXPECT_EQ(one.held, other.held);
    EXPECT_EQ(one.degreeHours_K_h, other.degreeHours_K_h);
    EXPECT_EQ(one.heater_kWh, other.heater_kWh);
    EXPECT_EQ(one.capital, other.capital);
    EXPECT_EQ(one.spread, other.spread);
    EXPECT_EQ(one.electric_W, other.electric_W);
    EXPECT_EQ(one.damp_h, other.damp_h);
    EXPECT_EQ(one.growth_d, other.growth_d);
    EXPECT_EQ(one.holds, other.holds);
    EXPECT_EQ(one.fails, other.fails);
    EXPECT_EQ(one.isTried, other.isTried);
    EXPECT_EQ(one.onFrontier, other.onFrontier);
  }
}

TEST(KeptSizing, KeepsWhatTheWinnerDoesInColderWintersAndInHousesTheReadingsAllow) {
  Plan p = tunnelWithAList();
  p.measures.resize(1);
  Sizing found = *size(p, testing::frost(p.site));
  ASSERT_FALSE(found.packages.empty());
  Calibration leaky;
  leaky.skin = 1.2, leaky.sun = 0.9;
  found.colder = {{.by_K = 2.0, .misses = 3, .holds = false, .cheapest = 0, .extra = 12.5}};
  found.likely = {{.factors = leaky, .misses = 1, .holds = false, .cheapest = -1, .extra = -3.25}};
  const auto kept = keptFromJson(*parseJson(keptToJson(found, p).dump()));
  ASSERT_TRUE(kept);
  ASSERT_EQ(kept->sizing.colder.size(), 1U);
  EXPECT_EQ(kept->sizing.colder[0].by_K, 2.0);
  EXPECT_EQ(kept->sizing.colder[0].extra, 12.5);
  ASSERT_EQ(kept->sizing.likely.size(), 1U);
  EXPECT_EQ(kept->sizing.likely[0].factors, leaky);
  EXPECT_EQ(kept->sizing.likely[0].misses, 1);
  EXPECT_EQ(kept->sizing.likely[0].extra, -3.25);
}

TEST(KeptSizing, IsTheSameToTheLastBitAfterItWasWrittenAndRead) {
  Plan p = tunnelWithAList();
  p.measures.erase(p.measures.begin() + 2, p.measures.begin() + 5);
  p.ask.anyHeaterOut = true; // so that some are tried and fail
  const auto weather = testing::frost(p.site);
  const auto found = size(p, weather);
  ASSERT_TRUE(found);
  const auto text = parseJson(keptToJson(*found, p).dump());
  ASSERT_TRUE(text);
  const auto kept = keptFromJson(*text);
  ASSERT_TRUE(kept) << english(kept.problem().what);
  EXPECT_EQ(kept->plan, p);
  expectSame(kept->sizing, *found);
  PackageScenes scenes(weather);
  const auto isSo = isStillSo(*kept, scenes);
  ASSERT_TRUE(isSo);
  EXPECT_TRUE(*isSo);
}

TEST(KeptSizing, IsNotShownOverAnotherLog) {
  const Plan p = tunnelWithAList();
  const auto found = size(p, testing::frost(p.site));
  ASSERT_TRUE(found);
  const auto kept = keptFromJson(keptToJson(*found, p));
  ASSERT_TRUE(kept);
  auto other = std::make_shared<Weather>(*testing::frost(p.site));
  for (Winter& winter : other->winters)
    for (double& t : winter.outside_C) t -= 0.05;
  PackageScenes scenes(other);
  const auto isSo = isStillSo(*kept, scenes);
  ASSERT_TRUE(isSo);
  EXPECT_FALSE(*isSo);
}

TEST(KeptSizing, WhatWasWrittenOtherwiseIsRefusedWithWhatIsAllowed) {
  const Plan p = tunnelWithAList();
  const auto found = size(p, testing::frost(p.site), {.time_s = 0.0});
  ASSERT_TRUE(found);
  const Json sound = keptToJson(*found, p);
  for (const char* text : {R"([])", R"({})", R"({"form":"muffle-found-0","plan":{}})"}) EXPECT_FALSE(keptFromJson(*parseJson(text))) << text;
  Json bad = sound;
  bad["packages"][0]["choice"][0] = 7;
  const auto tooLarge = keptFromJson(bad);
  ASSERT_FALSE(tooLarge);
  EXPECT_EQ(tooLarge.problem().where, "/packages/0/choice");
  bad = sound;
  bad["packages"][0]["meters"][0]["of"] = 99;
  EXPECT_FALSE(keptFromJson(bad));
  bad = sound;
  bad["plan"]["house"]["air_changes_per_h"] = -1;
  EXPECT_FALSE(keptFromJson(bad));
}

TEST(Search, WhereItWasStoppedItGoesOnAndEndsWhereItWouldHave) {
  const Plan p = tunnelWithAList();
  const auto weather = testing::frost(p.site);
  const auto unbroken = size(p, weather);
  ASSERT_TRUE(unbroken);
  ASSERT_GT(packageCount(p), kFewPackages);
  std::size_t runsInAll = 0;
  std::shared_ptr<const SearchMemory> memory;
  for (int stops = 1;; ++stops) {
    ASSERT_LT(stops, 1000);
    int told = 0;
    SizingOptions options;
    options.goOn = memory;
    const std::size_t known = memory ? memory->packages.size() + memory->traces.size() + memory->tests.size() : 0;
    options.progress = [&](const SizingProgress& so) { return so.done < known + 12 || ++told < 2; };
    const auto part = size(p, weather, options);
    ASSERT_TRUE(part);
    runsInAll = std::max(runsInAll, part->runs);
    if (!part->isStopped) {
      EXPECT_GT(stops, 2) << "it was stopped indeed";
      expectSame(*part, *unbroken);
      EXPECT_EQ(part->memory, nullptr);
      break;
    }
    ASSERT_TRUE(part->memory);
    EXPECT_FALSE(part->provedLeast);
    memory = part->memory;
  }
  Plan dearer = p;
  dearer.prices.electricity_per_kWh = 0.9;
  EXPECT_EQ(memoryOf({.goOn = memory}, dearer, weather), nullptr) << "what a relaxed house costs at least is at its prices";
  EXPECT_NE(memoryOf({.goOn = memory}, p, weather), nullptr);
}

TEST(Kit, ASecondSkinOnSomeFacesIsPaidByThoseAndPutThereAlone) {
  for (const CoveredFaces faces : {CoveredFaces::roof, CoveredFaces::sides, CoveredFaces::ends, CoveredFaces::roofAndSides, CoveredFaces::roofAndEnds,
                                   CoveredFaces::sidesAndEnds, CoveredFaces::all}) {
    Plan p;
    p.measures = {usualMeasure(MeasureKind::secondSkin)};
    p.measures[0].faces = faces;
    const Package package = buildPackage(p, {0});
    double area_m2 = 0.0;
    const auto isOn = [&](FaceGroup group, const Skin& before, const Skin& after) {
      EXPECT_EQ(after.layers.size(), before.layers.size() + (covers(faces, group) ? 1 : 0));
      if (covers(faces, group)) area_m2 += p.house.shape.area_m2(group);
    };
    isOn(FaceGroup::roof, p.house.roof, package.plan.house.roof);
    isOn(FaceGroup::sides, p.house.sides, package.plan.house.sides);
    isOn(FaceGroup::ends, p.house.ends, package.plan.house.ends);
    EXPECT_DOUBLE_EQ(package.kit.at(0).capital, p.measures[0].price * area_m2);
    EXPECT_EQ(english(package.kit.at(0).name).find("second skin") == 0 || english(package.kit.at(0).name).find("second film") == 0, true)
        << english(package.kit.at(0).name);
  }
  Plan p;
  p.measures = {usualMeasure(MeasureKind::sealing)};
  p.measures[0].faces = CoveredFaces::roof;
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p).front().where, "/measures/0/faces");
}

} // namespace
} // namespace muffle
