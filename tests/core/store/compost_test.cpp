// SPDX-License-Identifier: GPL-3.0-or-later
//
// Piles of compost against what is published of them, and against what any heater must obey.
#include "core/store/ingredients.h"
#include "core/store/pile.h"
#include "tests/support/near.h"
#include "tests/support/usual_piles.h"

#include <gtest/gtest.h>

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <string>

namespace muffle {
namespace {

using testing::pileOf;
using testing::usualPiles;

TEST(Compost, PilesOfAllKindsStayInThePublishedRange) {
  for (const testing::UsualPile& known : usualPiles()) {
    const PileCourse c = pileCourse(known.pile);
    // 150 to 400 W a wet tonne, sustained for weeks; core 40 to 70 degC, and coarse ones a little hotter for days (Haug 1993: no
    // rate above 79)
    EXPECT_GT(c.sustained_W_per_t, 150.0) << known.name;
    EXPECT_LT(c.sustained_W_per_t, 1.2 * 400.0) << known.name << ": the hottest month; the range is of whole seasons";
    EXPECT_GT(c.peak_C, 40.0) << known.name;
    EXPECT_LT(c.peak_C, 79.0) << known.name;
    EXPECT_GT(c.daysAbove40_d, 14.0) << known.name;
  }
}

/// The day from which on it is hot, 1e9 for never.
double hotOnDay(const PileCourse& c) {
  const auto hot = std::find_if(c.core_C.begin(), c.core_C.end(), [](double core_C) { return core_C >= 55.0; });
  return hot == c.core_C.end() ? 1e9 : c.day[static_cast<std::size_t>(hot - c.core_C.begin())];
}

void expectHotForWeeks(const CompostPile& pile) {
  const PileCourse c = pileCourse(pile); // 5 degC outside
  const std::string name = fmt::format("{}, {:.0f} kg", pile.recipe.front().ingredient, blendOf(pile).wet_kg);
  EXPECT_LE(hotOnDay(c), 6.0) << name;
  EXPECT_GE(hotOnDay(c), 2.0) << name;
  EXPECT_LE(c.peak_C, 72.0) << name << ": 55 to 70, and coarse ones a little hotter for days";
  EXPECT_GE(c.daysAbove40_d, 14.0) << name;
  EXPECT_LE(c.daysAbove40_d, 35.0) << name;
  EXPECT_GE(c.sustained_W_per_t, 150.0) << name;
}

TEST(Compost, SmallInsulatedPilesHeatWithinDaysAndStayHotForWeeks) {
  // leaves as they lie in wet autumns; so much of them is trodden down a little
  const auto grassAndLeaves = [](double grass_kg, double leaves_kg, double side_m) {
    CompostPile pile = pileOf({{"grass", grass_kg, {}}, {"leaves", leaves_kg, 0.78}}, side_m, side_m);
    pile.airiness = 0.7;
    pile.jacket_m2K_W = 1.2;
    return pile;
  };
  CompostPile smallest = pileOf({{"horse-manure", 380.0, {}}, {"straw", 20.0, {}}}, 0.8, 0.9);
  smallest.jacket_m2K_W = 1.0; // the smaller, the more is put round it
  for (const CompostPile& pile :
       {smallest, pileOf({{"horse-manure", 650.0, {}}, {"straw", 50.0, {}}}, 1.0, 1.1), pileOf({{"horse-manure", 1100.0, {}}, {"straw", 80.0, {}}}, 1.2, 1.3),
        pileOf({{"wood-chips", 250.0, {}}, {"horse-manure", 350.0, {}}}, 1.0, 1.1), pileOf({{"wood-chips", 450.0, {}}, {"horse-manure", 700.0, {}}}, 1.3, 1.3),
        grassAndLeaves(250.0, 300.0, 1.1), grassAndLeaves(250.0, 350.0, 1.2), grassAndLeaves(300.0, 300.0, 1.2)}) {
    expectHotForWeeks(pile);
    EXPECT_LE(pileCourse(pile).sustained_W_per_t, 400.0) << pile.recipe.front().ingredient << ", " << blendOf(pile).wet_kg << " kg";
  }
}

TEST(Compost, ALightPileGivesMoreForATonneAndNoMoreForACubicMetre) {
  // of dry leaves, 330 kg/m3: to be hot at all it must make what goes through faces that are large for what it weighs
  for (const CompostPile& pile :
       {pileOf({{"grass", 250.0, {}}, {"leaves", 120.0, {}}}, 1.0, 1.1), pileOf({{"grass", 380.0, {}}, {"leaves", 180.0, {}}}, 1.2, 1.2)}) {
    expectHotForWeeks(pile);
    constexpr double kUsual_t_m3 = 0.65;
    EXPECT_LE(pileCourse(pile).sustained_W_per_t * blendOf(pile).bulk_kg_m3 / 1000.0, 400.0 * kUsual_t_m3);
  }
}

TEST(Compost, TippedInHotItIsHotAtOnceAndBuriedOrWrappedItKeepsLonger) {
  CompostPile pile = pileOf({{"horse-manure", 650.0, {}}, {"straw", 50.0, {}}}, 1.0, 1.1);
  const double plain_d = pileCourse(pile).daysAbove40_d;
  pile.tipped_C = 55.0;
  EXPECT_CLOSE(pileCourse(pile).core_C.front(), 55.0, 1e-9, "as it is tipped");
  pile.tipped_C.reset();
  CompostPile buried = pile, wrapped = pile;
  buried.buried = 1.0;
  wrapped.jacket_m2K_W = 2.5;
  EXPECT_GT(pileCourse(buried).daysAbove40_d, plain_d);
  EXPECT_GT(pileCourse(wrapped).peak_C, pileCourse(pile).peak_C);
}

TEST(Compost, TheLowerAPileTheMoreItBreathesForItsMass) {
  const auto breathes = [](double kg, double side_m) {
    const CompostPile pile = pileOf({{"horse-manure", kg, {}}}, side_m, side_m);
    const Blend blend = blendOf(pile);
    CompostState state = freshCompost(blend.mix, 55.0);
    const CompostRates r = compostRates(blend.mix, state, pileAir(pile, pileSize(pile, blend)), {});
    return (r.air_kg_s + r.diffused_kg_s) / kg;
  };
  EXPECT_GT(breathes(500.0, 1.0), 1.3 * breathes(4000.0, 2.0)) << "half as high and half as wide";
}

TEST(Compost, ASmallPileInFrostNeverLights) {
  const PileTrial frost{.air_C = -5.0, .start_C = 2.0};
  EXPECT_LT(pileCourse(testing::smallPile(), frost).peak_C, 20.0);
  EXPECT_GT(pileCourse(testing::fortySmallPiles(), frost).peak_C, 40.0);
}

TEST(Compost, DrawnTooHardItCoolsAndWithNothingTakenItRecovers) {
  const CompostPile pile = usualPiles().front().pile;
  PileTrial hard;
  hard.takenFrom_d = 20.0;
  hard.takenTo_d = 26.0;
  hard.taken_W = 6000.0; // four times what it makes
  const PileCourse c = pileCourse(pile, hard);
  const auto on = [&](double day) { return c.core_C[static_cast<std::size_t>(day * 4.0)]; };
  EXPECT_LT(on(26.0), on(20.0) - 10.0);
  EXPECT_GT(on(45.0), on(26.0) + 5.0);
}

TEST(Compost, WhatDecayGivesIsWhatLeavesAndWhatIsStored) {
  const Blend blend = blendOf(usualPiles().front().pile);
  CompostState state = freshCompost(blend.mix, 12.0);
  const CompostAir air = pileAir(usualPiles().front().pile, pileSize(usualPiles().front().pile, blend));
  double stored_J = 0.0, heat_J = 0.0, left_J = 0.0;
  for (int i = 0; i < 30 * 144; ++i) {
    const double before_C = state.temperature_C;
    const double capacity = compostCapacity_J_K(blend.mix, state);
    const CompostWeather weather{5.0, 0.0043, kStandardPressure_Pa, 30.0 * (state.temperature_C - 5.0), 30.0};
    const CompostStep step = advanceCompost(blend.mix, state, air, weather, 600.0);
    stored_J += 0.5 * (capacity + compostCapacity_J_K(blend.mix, state)) * (state.temperature_C - before_C);
    heat_J += step.heat_J;
    left_J += step.taken_J + step.sensible_J + step.latent_J;
  }
  EXPECT_NEAR(stored_J + left_J, heat_J, 1e-4 * heat_J); // the capacity is taken at the middle of a step
}

TEST(Compost, HalfTheStepChangesLittleAndFourTimesLess) {
  const Blend blend = blendOf(usualPiles()[3].pile);
  const CompostAir air = pileAir(usualPiles()[3].pile, pileSize(usualPiles()[3].pile, blend));
  const auto after = [&](double h) {
    CompostState state = freshCompost(blend.mix, 12.0);
    while (state.age_s < 10.0 * 86400.0 - 1.0)
      advanceCompost(blend.mix, state, air, {5.0, 0.0043, kStandardPressure_Pa, 12.0 * (state.temperature_C - 5.0), 12.0}, h);
    return state.temperature_C;
  };
  const double coarse = after(7200.0), middle = after(3600.0), fine = after(1800.0);
  EXPECT_LT(std::abs(middle - fine), 0.05);
  EXPECT_NEAR((coarse - middle) / (middle - fine), 4.0, 1.2); // second order, near enough at these steps
}

TEST(Compost, WithOxygenTakenAsGivenAPileEitherRunsAwayOrStaysCold) {
  const Blend blend = blendOf(usualPiles().front().pile);
  const auto end = [&](double oxygen, double loss_W_K) {
    CompostState state = freshCompost(blend.mix, 12.0);
    const CompostAir air{.blown_kg_s = 0.001, .oxygen_percent = oxygen};
    double peak = 0.0;
    for (int i = 0; i < 20 * 144; ++i) {
      advanceCompost(blend.mix, state, air, {5.0, 0.0043, kStandardPressure_Pa, loss_W_K * (state.temperature_C - 5.0), loss_W_K}, 600.0);
      peak = std::max(peak, state.temperature_C);
    }
    return peak;
  };
  EXPECT_GT(end(15.0, 30.0), 72.0);
  EXPECT_LT(end(15.0, 1500.0), 20.0);
}

TEST(Compost, ToppedUpAndWateredItKeepsItsHeatAndItsMass) {
  CompostMix mix = blendOf(usualPiles().front().pile).mix;
  CompostState state = freshCompost(mix, 50.0);
  const double before_J = compostCapacity_J_K(mix, state) * 50.0, solids_kg = state.degradable_kg + mix.inert_kg();
  const double added_J = 0.2 * compostCapacity_J_K(mix, freshCompost(mix, 5.0)) * 5.0;
  topUpCompost(mix, state, 0.2, 5.0);
  EXPECT_NEAR(compostCapacity_J_K(mix, state) * state.temperature_C, before_J + added_J, 1e-9 * before_J);
  EXPECT_NEAR(state.degradable_kg + mix.inert_kg(), 1.2 * solids_kg, 1e-9 * solids_kg);
  EXPECT_NEAR(compostVolume_m3(mix, state), 1.2 * 9.75, 0.01); // as built
  state.water_kg *= 0.5;
  const double poured_kg = waterCompost(mix, state, 0.6, 10.0);
  EXPECT_GT(poured_kg, 0.0);
  EXPECT_NEAR(state.water_kg / (state.water_kg + state.degradable_kg + mix.inert_kg()), 0.6, 1e-12);
  EXPECT_EQ(waterCompost(mix, state, 0.5, 10.0), 0.0);
}

TEST(Blend, MixesByMassAndLiesBetweenItsParts) {
  CompostPile pile;
  pile.recipe = {{"straw", 100.0, {}}, {"grass", 400.0, {}}};
  const Blend b = blendOf(pile);
  // by hand: 88 kg and 80 kg dry, nitrogen 0.616 and 2.72 kg, carbon 49.3 and 46.2 kg
  EXPECT_NEAR(b.carbonNitrogen, (88.0 * 0.007 * 80.0 + 80.0 * 0.034 * 17.0) / (88.0 * 0.007 + 80.0 * 0.034), 0.01);
  EXPECT_NEAR(b.moisture, (12.0 + 320.0) / 500.0, 1e-9);
  pile.water_kg = 100.0;
  EXPECT_NEAR(blendOf(pile).moisture, 432.0 / 600.0, 1e-9);
  EXPECT_GT(b.freeAirSpace, blendOf(pile).freeAirSpace);
}

TEST(Blend, SaysWhatIsAmiss) {
  const auto says = [](const CompostPile& pile, BlendRemark remark) {
    const auto all = remarks(blendOf(pile));
    return std::find(all.begin(), all.end(), remark) != all.end();
  };
  EXPECT_TRUE(says(pileOf({{"cattle-manure", 2000.0, {}}}, 2, 2), BlendRemark::tooWet));
  EXPECT_TRUE(says(pileOf({{"straw", 500.0, {}}}, 2, 2), BlendRemark::tooDry));
  EXPECT_TRUE(says(pileOf({{"sawdust", 1000.0, {}}}, 2, 2), BlendRemark::littleNitrogen));
  EXPECT_TRUE(says(pileOf({{"poultry-litter", 1000.0, {}}}, 2, 2), BlendRemark::muchNitrogen));
  EXPECT_TRUE(says(pileOf({{"horse-manure", 200.0, {}}}, 1, 1), BlendRemark::small));
  EXPECT_TRUE(remarks(Blend{}).empty());
}

TEST(Ingredients, EveryRowIsInOrderAndHasItsSource) {
  std::set<std::string> seen;
  for (const CompostIngredient& i : compostIngredients()) {
    EXPECT_TRUE(seen.insert(i.id).second) << i.id;
    EXPECT_EQ(findIngredient(i.id), &i);
    EXPECT_LE(i.moistureLow, i.moisture) << i.id;
    EXPECT_LE(i.moisture, i.moistureHigh) << i.id;
    EXPECT_LE(i.ratioLow, i.carbonNitrogen) << i.id;
    EXPECT_LE(i.carbonNitrogen, i.ratioHigh) << i.id;
    for (const double share : {i.volatileSolids, i.degradable, i.quick, i.nitrogen}) EXPECT_TRUE(share > 0.0 && share < 1.0) << i.id;
    EXPECT_GT(i.k20_per_day, 0.0);
    EXPECT_GT(std::string(i.source).size(), 10u) << i.id;
  }
  EXPECT_EQ(findIngredient("gold"), nullptr);
}

} // namespace
} // namespace muffle
