// SPDX-License-Identifier: GPL-3.0-or-later
//
// Piles as they are usually built, for tests and for the table and curves of docs/model.md.
#pragma once

#include "core/store/stores.h"

#include <vector>

namespace muffle::testing {

/// Open to the air all round.
inline CompostPile pileOf(std::vector<PileIngredient> recipe, double width_m, double length_m, double water_kg = 0.0) {
  CompostPile p;
  p.place = PilePlace::chamber;
  p.recipe = std::move(recipe);
  p.width_m = width_m;
  p.length_m = length_m;
  p.water_kg = water_kg;
  return p;
}

struct UsualPile {
  const char* name;
  CompostPile pile;
};

inline std::vector<UsualPile> usualPiles() {
  return {{"manure and straw, a mound", pileOf({{"horse-manure", 6000.0, {}}, {"straw", 300.0, {}}}, 3.0, 4.0)},
          {"cattle manure and straw", pileOf({{"cattle-manure", 3200.0, {}}, {"straw", 700.0, {}}}, 2.5, 3.0)},
          {"grass and leaves", pileOf({{"grass", 1200.0, {}}, {"leaves", 800.0, {}}}, 2.0, 2.0, 200.0)},
          {"straw and poultry litter", pileOf({{"straw", 600.0, {}}, {"poultry-litter", 700.0, {}}}, 2.0, 2.0, 1500.0)},
          {"wood chips", pileOf({{"wood-chips", 20000.0, {}}}, 5.0, 6.0, 4000.0)},
          {"chips with manure", pileOf({{"wood-chips", 8000.0, {}}, {"horse-manure", 4000.0, {}}}, 4.0, 5.0, 500.0)},
          {"leaves", pileOf({{"leaves", 2000.0, {}}}, 2.0, 3.0, 900.0)}};
}

/// Too small to light in frost; forty of it together do.
inline CompostPile smallPile() { return pileOf({{"kitchen-waste", 100.0, {}}, {"leaves", 60.0, {}}}, 0.8, 0.8); }
inline CompostPile fortySmallPiles() {
  CompostPile large = smallPile();
  for (PileIngredient& part : large.recipe) part.wet_kg *= 40.0;
  large.width_m = large.length_m = 3.0;
  return large;
}

} // namespace muffle::testing
