// SPDX-License-Identifier: GPL-3.0-or-later
//
// What compost is built of: one row each, with the range that is published and where from.
#pragma once

#include "core/message.h"

#include <span>
#include <string_view>

namespace muffle {

struct CompostIngredient {
  const char* id;
  double moisture, moistureLow, moistureHigh; ///< water of the wet mass
  double nitrogen;                            ///< of the dry mass
  double carbonNitrogen, ratioLow, ratioHigh; ///< C:N by mass
  double bulk_kg_m3;                          ///< as it is tipped
  double volatileSolids;                      ///< of the dry mass
  double degradable;                          ///< of the volatile solids, within a season
  double quick;                               ///< of those, 0..1: sugars, starch, protein
  double k20_per_day;                         ///< of the rest
  bool isManure;                              ///< raw manure: keep from crops that are eaten raw
  double litresPerMeasure;                    ///< of the grower's measure
  const char* measure;                        ///< "barrow", "bale", "bag"
  const char* source;
};

std::span<const CompostIngredient> compostIngredients();
const CompostIngredient* findIngredient(std::string_view id);

Message nameOf(const CompostIngredient& ingredient);

} // namespace muffle
