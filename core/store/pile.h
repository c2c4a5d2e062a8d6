// SPDX-License-Identifier: GPL-3.0-or-later
//
// A pile as a recipe builds it: what is in the blend, how large it lies, what it loses to each side.
//   blend    moisture, nitrogen, carbon, degradable solids by mass; rate by degradable mass; volume by the sum of the parts'
//            volumes, less a quarter: fine things fill the gaps of coarse ones, and straw is trodden down
//   faces    U = 1/(R_core + R_jacket + 1/h), R_core = (V/A)/(2 k), k 0.4 W/(m K): what lies between the middle and a face
//   settling of the lost solids' share 0.6, and a quarter of the height within weeks (Haug 1993, ch. 8; NRAES-54 ch. 3)
#pragma once

#include "core/status.h"
#include "core/store/compost.h"
#include "core/store/stores.h"

#include <optional>

namespace muffle {

struct Blend {
  double wet_kg = 0.0;
  double moisture = 0.0;       ///< of the wet mass, water poured on included
  double carbonNitrogen = 0.0; ///< 0 where there is no nitrogen
  double bulk_kg_m3 = 0.0;
  double freeAirSpace = 0.0;
  double degradable_kg = 0.0;
  double volume_m3 = 0.0;
  bool hasManure = false;
  CompostMix mix;
};
/// Ingredients must be known; an empty recipe gives an empty blend.
Blend blendOf(const CompostPile& pile);

/// What is amiss with a blend, in the order of how much it costs.
enum class BlendRemark { tooWet, tooDry, tooDense, littleNitrogen, muchNitrogen, littleToBurn, small };
std::vector<BlendRemark> remarks(const Blend& blend);

struct PileSize {
  double height_m = 0.0;
  double foot_m2 = 0.0, top_m2 = 0.0, sides_m2 = 0.0;
  double core_m2K_W = 0.0; ///< from the middle to a face
};
PileSize pileSize(const CompostPile& pile, const Blend& blend);
/// How air comes to it: half of what lies under soil is open.
CompostAir pileAir(const CompostPile& pile, const PileSize& size);

/// A pile by itself in steady weather: what it would do with nothing taken from it.
struct PileCourse {
  std::vector<double> day, core_C, moisture, settled_m; ///< every six hours
  double peak_C = 0.0;
  double sustained_W_per_t = 0.0; ///< of the wet mass as built, days 3 to 30
  double daysAbove40_d = 0.0;
};
struct PileTrial {
  double air_C = 5.0;
  double humidity = 0.8;
  double start_C = 12.0;
  double taken_W = 0.0; ///< by a coil, from a day on
  double takenFrom_d = 0.0, takenTo_d = 1e9;
  double days = 90.0;
  double k20Factor = 1.0; ///< beside the pile's own
};
PileCourse pileCourse(const CompostPile& pile, const PileTrial& trial = {});

} // namespace muffle
