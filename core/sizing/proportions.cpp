// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/proportions.h"

#include "core/results/day_swings.h"
#include "core/sizing/try_each.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace muffle {
namespace {

constexpr double kTriedShares[] = {0.6, 0.7, 0.8, 0.9, 1.0, 1.15, 1.3, 1.5, 1.75}; // of the present value

HouseShape withHeight(HouseShape s, double ridge_m) {
  const double rise = s.rise_m();
  const double leastEave = s.kind == ShapeKind::gable || s.hasBackWall() ? std::min(s.eave_m, 0.3) : 0.0;
  s.eave_m = std::max(ridge_m - rise, leastEave);
  s.ridge_m = ridge_m;
  return s;
}

HouseShape withWidth(HouseShape s, double width_m) {
  const double slope = s.rise_m() / s.width_m;
  s.length_m *= s.width_m / width_m;
  s.width_m = width_m;
  s.ridge_m = s.eave_m + slope * width_m;
  return s;
}

std::vector<ProportionRule> rulesFor(const HouseShape& s, Proportion of) {
  if (of == Proportion::width) return {};
  if (s.kind == ShapeKind::arch || s.kind == ShapeKind::pointedArch || s.kind == ShapeKind::dome) return {ProportionRule{Message{"sizing.half-the-width"}, s.width_m / 2.0}};
  return {ProportionRule{Message{"sizing.six-tenths-of-the-width"}, 0.6 * s.width_m}};
}

double meanSwing_K(const Simulation& run, const Weather& weather) {
  DaySwings swings;
  for (std::size_t w = 0; w < run.series.size(); ++w) swings.add(run.series[w].air_C, weather.winters[w].step_s);
  return swings.mean_K();
}

} // namespace

std::vector<HouseShape> proportionShapes(const HouseShape& shape, Proportion of) {
  std::vector<HouseShape> shapes;
  if (of == Proportion::width && shape.kind == ShapeKind::dome) return shapes;
  for (const double share : kTriedShares) {
    HouseShape s = share == 1.0 ? shape : of == Proportion::height ? withHeight(shape, shape.ridge_m * share) : withWidth(shape, shape.width_m * share);
    if (s.check().empty()) shapes.push_back(s);
  }
  return shapes;
}

Result<Proportions> sweepProportions(const Plan& plan, std::shared_ptr<const Weather> weather, Proportion of, const SizingOptions& options) {
  Proportions sweep;
  sweep.of = of;
  sweep.rules = rulesFor(plan.house.shape, of);
  const auto shapes = proportionShapes(plan.house.shape, of);
  sweep.points.resize(shapes.size());
  std::vector<Plan> plans(shapes.size(), plan); // beds or barrels may not fit such a house: it is then left out
  for (std::size_t i = 0; i < shapes.size(); ++i) plans[i].house.shape = shapes[i];
  const auto problem = tryEach(plans, weather, options, [&](std::size_t i, const Simulation& run) {
    const Summary& s = run.summary;
    sweep.points[i] = {shapes[i],
                       of == Proportion::height ? shapes[i].ridge_m : shapes[i].width_m,
                       shapes[i].cover_m2(),
                       s.held,
                       s.nights,
                       s.coldest_C,
                       s.heater_kWh / s.winters,
                       meanSwing_K(run, *weather),
                       s.sun_kWh / s.winters / shapes[i].floor_m2()};
  });
  if (problem) return *problem;
  std::erase_if(sweep.points, [](const ProportionPoint& p) { return p.nights == 0; });
  return sweep;
}

} // namespace muffle
