// SPDX-License-Identifier: GPL-3.0-or-later
//
// Whatever in a plan can hurt someone has its caution.
#include "core/plan/cautions.h"
#include "core/plan/heaters.h"
#include "core/plan/measure_table.h"

#include "core/sizing/usual_measures.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <set>

namespace muffle {
namespace {

std::set<std::string> idsFor(const Plan& plan) {
  std::set<std::string> ids;
  for (const StatedCaution& s : cautionsOf(plan)) ids.insert(s.caution.id);
  return ids;
}

bool has(const Plan& plan, const char* id) { return idsFor(plan).contains(id); }

TEST(Cautions, ABareHouseCarriesItsLoadAndNoFire) {
  const Plan bare;
  EXPECT_TRUE(has(bare, "structure"));
  for (const char* id : {"carbon-monoxide", "flue", "fuel-store", "electric-heat", "manure", "pit-gas", "trench"}) EXPECT_FALSE(has(bare, id)) << id;
}

TEST(Cautions, WhereverFuelIsBurntGasFlueStoreAndSleepAreNamed) {
  Plan p;
  p.waterLoops.push_back({});
  EXPECT_FALSE(has(p, "carbon-monoxide")) << "a tank alone burns nothing";
  EXPECT_TRUE(has(p, "water-pressure"));
  EXPECT_TRUE(has(p, "freezing-water"));
  firstHeater(p, {HeaterPlace::Of::tank}).power_W = 8000.0;
  for (const char* id : {"carbon-monoxide", "flue", "fuel-store", "sleeping", "water-pressure"}) EXPECT_TRUE(has(p, id)) << id;
}

TEST(Cautions, AHeaterCarriesWhatItsKindCanDo) {
  const auto of = [](HeaterKind kind) {
    Plan p;
    addHeater(p, {.kind = kind});
    return idsFor(p);
  };
  for (const HeaterKindFacts& facts : heaterKinds()) {
    if (!facts.inRooms) continue;
    const auto ids = of(facts.kind);
    EXPECT_EQ(ids.contains("carbon-monoxide"), isBurnt(facts.carrier)) << facts.id;
    EXPECT_EQ(ids.contains("unvented-flame"), !facts.hasFlue) << facts.id;
    EXPECT_EQ(ids.contains("flue"), facts.hasFlue && isBurnt(facts.carrier)) << facts.id;
    EXPECT_EQ(ids.contains("electric-heat"), facts.needsMains) << facts.id;
    EXPECT_TRUE(ids.contains("sleeping")) << facts.id;
  }
  EXPECT_TRUE(of(HeaterKind::propane).contains("fuel-store"));
  EXPECT_TRUE(of(HeaterKind::candles).contains("bare-heat"));
}

TEST(Cautions, EveryPlaceOfAPileHasDustAndWhatIsItsOwn) {
  for (const PilePlace place : {PilePlace::hotBed, PilePlace::chamber, PilePlace::mound}) {
    Plan p;
    p.compost.push_back({.name = "pile", .place = place, .recipe = {{"horse-manure", 500.0, {}}}});
    EXPECT_TRUE(has(p, "spores"));
    EXPECT_TRUE(has(p, "manure")) << "raw manure has a harvest interval wherever it lies";
    EXPECT_EQ(has(p, "pit-gas"), place == PilePlace::chamber);
    EXPECT_EQ(has(p, "roots"), place == PilePlace::hotBed);
    EXPECT_EQ(has(p, "water-pressure"), place == PilePlace::mound);
    p.compost[0].recipe = {{"leaves", 300.0, {}}};
    EXPECT_FALSE(has(p, "manure")) << "leaves are no manure";
    p.compost[0].buried = 0.5;
    EXPECT_TRUE(has(p, "pit-gas")) << "a pit is one whatever lies in it";
  }
}

TEST(Cautions, PitsTrenchesAndSunkFloors) {
  Plan p;
  p.house.shape.sunk_m = 0.8;
  EXPECT_TRUE(has(p, "pit-gas"));
  EXPECT_TRUE(has(p, "trench"));
  Plan skirted;
  skirted.house.floor.edgeDepth_m = 0.6;
  EXPECT_TRUE(has(skirted, "trench"));
  EXPECT_FALSE(has(skirted, "pit-gas"));
  Plan piped;
  piped.groundPipes.push_back({});
  EXPECT_TRUE(has(piped, "trench"));
  EXPECT_TRUE(has(piped, "standing-water"));
}

/// A plan with one of everything that plans can hold.
Plan ofEverything() {
  Plan p;
  p.house.shape.sunk_m = 0.5;
  p.house.blanket.emplace();
  p.house.floor.cover = "straw";
  p.house.rollUp.emplace();
  p.house.extractFan.emplace();
  p.house.bay.emplace();
  p.house.lobby.emplace();
  p.house.roofVoid.emplace();
  p.house.bedCovers.emplace_back();
  for (const HeaterKindFacts& facts : heaterKinds())
    if (facts.inRooms) addHeater(p, {.kind = facts.kind});
  p.barrels.emplace_back();
  p.groundPipes.emplace_back();
  for (const PilePlace place : {PilePlace::hotBed, PilePlace::chamber, PilePlace::mound})
    p.compost.push_back({.name = "pile", .place = place, .recipe = {{"horse-manure", 500.0, {}}}});
  p.waterLoops.emplace_back();
  firstHeater(p, {HeaterPlace::Of::tank}).power_W = 5000.0;
  p.soilCables.emplace_back();
  for (const MassKind kind : {MassKind::wall, MassKind::path, MassKind::raisedBed, MassKind::bench}) p.mass.push_back({.name = "heavy", .kind = kind});
  return p;
}

TEST(Cautions, EveryKindOfThingHasOneAndEveryOneGoesWithSomething) {
  Plan p = ofEverything();
  std::set<std::string> met;
  for (const Thing& thing : thingsOf(p)) {
    const auto cautions = cautionsFor(p, thing);
    EXPECT_FALSE(cautions.empty()) << english(thingName(p, thing));
    EXPECT_FALSE(cautionsAbout(thing.kind).empty()) << english(thingName(p, thing));
    for (const Caution& c : cautions) met.insert(c.id);
  }
  for (const MeasureRow& row : measureTable()) {
    Measure measure;
    measure.kind = row.kind;
    if (row.kind == MeasureKind::own) measure.sets = {{"/heaters/-", R"({"kind": "oil"})"}};
    const auto cautions = cautionsFor(p, std::vector<Measure>{measure});
    EXPECT_FALSE(cautions.empty()) << row.id;
    for (const Caution& c : cautions) met.insert(c.id);
  }
  std::set<std::string> ids;
  for (const Caution& c : allCautions()) {
    EXPECT_TRUE(ids.insert(c.id).second) << c.id << " stands twice";
    EXPECT_TRUE(met.contains(c.id)) << c.id << " goes with nothing";
    EXPECT_LT(english(textOf(c)).size(), 190U) << c.id << ": short";
  }
}

TEST(Cautions, AMeasureOfOnesOwnHasThoseOfWhatItMakesAndNoOthers) {
  Plan p;
  const auto idsFor = [&p](std::vector<Setting> sets) {
    Measure own;
    own.kind = MeasureKind::own;
    own.sets = std::move(sets);
    std::set<std::string> ids;
    for (const Caution& c : cautionsFor(p, std::vector<Measure>{own})) ids.insert(c.id);
    return ids;
  };
  const Setting bay{"/house/warm_bay", R"({"length_m": 3})"};
  const auto unheated = idsFor({bay});
  for (const char* id : {"carbon-monoxide", "unvented-flame", "flue", "fuel-store", "bare-heat", "electric-heat"}) EXPECT_FALSE(unheated.contains(id)) << id;
  const auto wired = idsFor({bay, {"/heaters/-", R"({"kind": "electric", "in": "bay", "power_W": 2000})"}});
  EXPECT_TRUE(wired.contains("electric-heat"));
  EXPECT_FALSE(wired.contains("carbon-monoxide"));
  const auto burning = idsFor({bay, {"/heaters/-", R"({"kind": "propane-unvented", "in": "bay", "power_W": 2000})"}});
  EXPECT_TRUE(burning.contains("carbon-monoxide")) << "in the bay as in the house";
  EXPECT_TRUE(burning.contains("unvented-flame"));
  EXPECT_TRUE(idsFor({{"/heaters/-", R"({"kind": "wood-stove", "power_W": 6000})"}}).contains("flue"));
  EXPECT_FALSE(idsFor({{"/no/such/field", "1"}, {"/heaters/-", R"({"kind": "no such"})"}}).empty()) << "what cannot be made has them all";
}

TEST(Cautions, APlanStatesEachOnceWithAllThatItGoesWith) {
  Plan p;
  p.heaters = {{.id = "heater"}};
  p.heaters.front().name = "fan heater";
  p.house.bay.emplace();
  firstHeater(p, {HeaterPlace::Of::bay}).power_W = 2000.0;
  for (const StatedCaution& s : cautionsOf(p)) {
    if (std::string(s.caution.id) == "electric-heat") { EXPECT_EQ(s.of, (std::vector<Message>{Message{"name.rooms"}, Message::verbatim("fan heater")})); }
  }
  std::set<std::string> once;
  for (const StatedCaution& s : cautionsOf(ofEverything())) EXPECT_TRUE(once.insert(s.caution.id).second);
}

} // namespace
} // namespace muffle
