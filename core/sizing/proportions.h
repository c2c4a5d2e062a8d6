// SPDX-License-Identifier: GPL-3.0-or-later
//
// How tall, how wide: the same floor under other proportions, each simulated over the logged nights, beside the rules of
// thumb that growers go by.
//   height   the sides grow or shrink under the same roof; below the roof's own rise the roof is flattened
//   width    length = floor / width; the roof keeps its slope, the sides their height
#pragma once

#include "core/sizing/sizing.h"

#include <string>
#include <vector>

namespace muffle {

enum class Proportion { height, width };

struct ProportionPoint {
  HouseShape shape;
  double value_m = 0.0; ///< ridge or width
  double cover_m2 = 0.0;
  int held = 0, nights = 0;
  double coldest_C = 0.0;
  double heater_kWh = 0.0;   ///< a winter
  double swing_K = 0.0;      ///< warmest less coldest of a day inside, mean over the days
  double light_kWh_m2 = 0.0; ///< sun taken up inside and in the cover, a winter, by floor
};

struct ProportionRule {
  Message name; ///< who says so
  double value_m;
};

struct Proportions {
  Proportion of = Proportion::height;
  std::vector<ProportionPoint> points; ///< by rising value; only shapes that can stand
  std::vector<ProportionRule> rules;
};

/// The shapes that a sweep tries, the present one among them; empty for a dome's width.
std::vector<HouseShape> proportionShapes(const HouseShape& shape, Proportion of);
Result<Proportions> sweepProportions(const Plan& plan, std::shared_ptr<const Weather> weather, Proportion of, const SizingOptions& options = {});

} // namespace muffle
