// SPDX-License-Identifier: GPL-3.0-or-later
//
// Every row of the tables is physically possible, sourced, and does what the plan format says of it.
#include "core/material/materials.h"

#include "core/assemble/covers.h"
#include "core/constants.h"
#include "core/plan/plan_json.h"

#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <set>

namespace muffle {
namespace {

TEST(Materials, AreKnownByOneNameEachAndSayWhereTheyComeFrom) {
  std::set<std::string_view> ids;
  for (const CoverMaterial& m : coverMaterials()) {
    EXPECT_TRUE(ids.insert(m.id).second) << m.id;
    EXPECT_EQ(findCoverMaterial(m.id), &m);
    EXPECT_FALSE(english(nameOf(m)).empty() || m.range.empty() || m.source.empty()) << m.id;
  }
  for (const SoilMaterial& m : soilMaterials()) {
    EXPECT_TRUE(ids.insert(m.id).second) << m.id;
    EXPECT_EQ(findSoilMaterial(m.id), &m);
    EXPECT_FALSE(english(nameOf(m)).empty() || m.range.empty() || m.source.empty()) << m.id;
  }
  EXPECT_EQ(findCoverMaterial("cardboard"), nullptr);
}

TEST(Materials, ConserveLightAndHeat) {
  for (const CoverMaterial& m : coverMaterials()) {
    SCOPED_TRACE(std::string(m.id));
    EXPECT_GE(m.solarTransmittance, 0.0);
    EXPECT_GE(m.solarReflectance, 0.0);
    EXPECT_LE(m.solarTransmittance + m.solarReflectance, 1.0);
    EXPECT_GT(m.longwave.emissivity, 0.0);
    EXPECT_GE(m.longwave.transmittance, 0.0);
    EXPECT_LE(m.longwave.emissivity + m.longwave.transmittance, 1.0);
    EXPECT_GE(m.resistance_m2K_W, 0.0);
    EXPECT_GT(m.capacity_J_m2K, 0.0);
  }
  for (const SoilMaterial& m : soilMaterials()) {
    SCOPED_TRACE(std::string(m.id));
    EXPECT_GT(m.conductivity_W_mK, 0.1);
    EXPECT_LT(m.conductivity_W_mK, 4.0);
    EXPECT_GT(m.density_kg_m3 * m.heat_J_kgK, 2e5) << "dry peat is the lightest";
    EXPECT_LT(m.density_kg_m3 * m.heat_J_kgK, 4.3e6) << "nothing holds more than water";
  }
}

TEST(Materials, EachMakesAPlanAndAHouseThatCanBeHeld) {
  for (const CoverMaterial& m : coverMaterials()) {
    Plan plan;
    plan.house.roof.layers.front().material = m.id;
    EXPECT_TRUE(planFromJson(planToJson(plan))) << m.id;
  }
}

TEST(Skins, PassLessLightWithEveryLayerAndLoseNone) {
  Skin skin;
  skin.layers.clear();
  double before = 1.0;
  for (const char* layer : {"pe-film", "bubble-wrap", "twin-wall-8"}) {
    skin.layers.push_back({layer, 0.05});
    const SkinOptics o = skinOptics(skin);
    EXPECT_LT(o.transmittance, before);
    before = o.transmittance;
    double taken = o.transmittance;
    for (const double a : o.absorptance) {
      EXPECT_GE(a, 0.0);
      taken += a;
    }
    EXPECT_LE(taken, 1.0 + 1e-12) << "what is neither passed nor taken up is reflected";
  }
}

TEST(Constants, AreSourcedAndPositive) {
  std::set<std::string_view> symbols;
  for (const Constant& c : kConstants) {
    EXPECT_TRUE(symbols.insert(c.symbol).second) << c.symbol;
    EXPECT_GT(c.value, 0.0);
    EXPECT_FALSE(c.unit.empty() || c.source.empty()) << c.symbol;
  }
}

TEST(Materials, OfYourOwnStandBesideTheTablesAndOutliveTheirList) {
  std::vector<OwnMaterial> own(1);
  own[0].id = "yard-film";
  own[0].name = "yard film";
  own[0].emissivity = 0.4;
  Materials copy;
  {
    const Materials made(own);
    copy = made;
  }
  own.clear();
  const CoverMaterial* film = copy.find("yard-film");
  ASSERT_NE(film, nullptr);
  EXPECT_EQ(english(nameOf(*film)), "yard film");
  EXPECT_DOUBLE_EQ(film->longwave.emissivity, 0.4);
  EXPECT_EQ(copy.find("glass-4mm"), findCoverMaterial("glass-4mm"));
  EXPECT_EQ(copy.all().size(), coverMaterials().size() + 1);
  EXPECT_EQ(Materials().find("yard-film"), nullptr);
}

TEST(Materials, ACopyOfATablesRowMakesTheSameHouse) {
  Plan table = testing::filmTunnel();
  Plan own = table;
  const CoverMaterial& film = *findCoverMaterial("pe-film");
  own.materials.push_back({"own-1", "copy", film.longwave.emissivity, film.longwave.transmittance, film.solarTransmittance, film.solarReflectance,
                           film.resistance_m2K_W, film.capacity_J_m2K, ""});
  for (Skin* s : {&own.house.roof, &own.house.sides, &own.house.ends}) s->layers = {{"own-1", 0.05}};
  ASSERT_TRUE(check(own).empty());
  const auto weather = testing::frost(table.site);
  EXPECT_EQ(simulate(own, makeScene(weather, own))->summary.coldest_C, simulate(table, makeScene(weather, table))->summary.coldest_C);
  const auto again = planFromJson(planToJson(own));
  ASSERT_TRUE(again);
  EXPECT_EQ(again->materials, own.materials);
}

TEST(Materials, ThatCannotBeAreRefusedByTheirPlace) {
  const auto refused = [](const OwnMaterial& m, const char* where) {
    Plan p = testing::filmTunnel();
    p.materials = {m};
    for (const Problem& problem : check(p))
      if (problem.where == std::string("/materials/0/") + where) return true;
    return false;
  };
  OwnMaterial m;
  m.id = "Yard film";
  EXPECT_TRUE(refused(m, "id"));
  m.id = "pe-film";
  EXPECT_TRUE(refused(m, "id")) << "the table's";
  m.id = "own-1";
  m.longwaveTransmittance = 0.2;
  EXPECT_TRUE(refused(m, "longwave_transmittance"));
  m.longwaveTransmittance = 0.0;
  m.solarReflectance = 0.4;
  EXPECT_TRUE(refused(m, "solar_reflectance"));
  m.solarReflectance = 0.1;
  m.emissivity = 0.0;
  EXPECT_TRUE(refused(m, "emissivity"));
  Plan p = testing::filmTunnel();
  p.house.roof.layers = {{"own-1", 0.05}};
  EXPECT_FALSE(check(p).empty()) << "a layer of a material that is not there";
}

} // namespace
} // namespace muffle
