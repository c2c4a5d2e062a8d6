// SPDX-License-Identifier: GPL-3.0-or-later
//
// What became of the crops of a plan: how near cold, or warmth, came to harming each part of them, how often it did, and how they grew. A part is
// harmed once it has been at an exposure's temperature or beyond for its hours on end.
#pragma once

#include "core/plan/plan.h"
#include "core/results/growth.h"
#include "core/simulate/simulate.h"

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// One exposure of one part over all winters.
struct PartHarm {
  CropPart part = CropPart::leaf;
  Exposure exposure;
  double reached_C = 0.0; ///< at or beyond which it was, for the exposure's hours on end, at the worst
  UtcSeconds at = 0;      ///< when that ended
  int times = 0;          ///< it was harmed
  /// By how much it stayed short of harm; below 0 it was harmed.
  [[nodiscard]] double margin_K() const { return part == CropPart::heat ? exposure.at_C - reached_C : reached_C - exposure.at_C; }
};

struct CropFate {
  std::size_t stand = 0; ///< among the plan's crops
  std::vector<PartHarm> parts;
  std::optional<Growth> growth;    ///< over all winters; of the house's light, and none of what rests
  [[nodiscard]] int times() const; ///< that any part was harmed
};

/// The worst that `temperature_C` did, at steps of `step_s` from `from` on; nothing where none of it is long enough. NaN ends a spell.
struct Exposed {
  double reached_C = 0.0;
  std::size_t step = 0; ///< at which that ended
  int times = 0;
};
std::optional<Exposed> exposed(std::span<const float> temperature_C, double step_s, const Exposure& to, bool isHeat);

/// Of every crop that stands in a room of the plan; needs series. Leaf and bud by the leaf's temperature in the house, by the air's elsewhere; roots by
/// the soil a hand below the floor, or by a pot that follows the air.
std::vector<CropFate> cropFates(const Plan& plan, const Weather& weather, const Simulation& run);

/// That the house's air is to be held at so that no leaf or bud of its crops is harmed within a night: what harms them, and over it as much as the air's low
/// stood above theirs on any judged night near it. Needs series; nothing where cold harms none of them.
std::optional<double> lineOfCrops_C(const Plan& plan, const Simulation& run, const Weather& weather);

} // namespace muffle
