// SPDX-License-Identifier: GPL-3.0-or-later
//
// Every row of the tables is physically possible, sourced, and does what the plan format says of it.
#include "core/material/materials.h"

#include "core/constants.h"
#include "core/plan/plan_json.h"
#include "core/simulate/covers.h"

#include <gtest/gtest.h>

#include <set>

namespace muffle {
namespace {

TEST(Materials, AreKnownByOneNameEachAndSayWhereTheyComeFrom) {
  std::set<std::string_view> ids;
  for (const CoverMaterial& m : coverMaterials()) {
    EXPECT_TRUE(ids.insert(m.id).second) << m.id;
    EXPECT_EQ(findCoverMaterial(m.id), &m);
    EXPECT_FALSE(m.name.empty() || m.range.empty() || m.source.empty()) << m.id;
  }
  for (const SoilMaterial& m : soilMaterials()) {
    EXPECT_TRUE(ids.insert(m.id).second) << m.id;
    EXPECT_EQ(findSoilMaterial(m.id), &m);
    EXPECT_FALSE(m.name.empty() || m.range.empty() || m.source.empty()) << m.id;
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

} // namespace
} // namespace muffle
