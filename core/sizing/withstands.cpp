// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/withstands.h"

#include "core/failure/failure.h"
#include "core/fit/design_night.h"
#include "core/plan/names.h"
#include "core/sizing/sizing.h"

#include <algorithm>

namespace muffle {
namespace {

using Fails = std::optional<Message>;

double logColdest_C(const Weather& weather) {
  double coldest = 1e9;
  for (const Winter& winter : weather.winters) coldest = std::min(coldest, *std::min_element(winter.outside_C.begin(), winter.outside_C.end()));
  return coldest;
}

/// The night of the lowest outside air: the rest of a winter so much colder is colder than ever asked for.
Result<Fails> rareNight(const Plan& package, PackageScenes& scenes, const std::atomic<bool>* stop) {
  const double years = *package.ask.rareNight_years;
  const auto by_K = rareNightColderBy_K(package, *scenes.weather(), years);
  if (!by_K) return by_K.problems();
  const Scene colder = colderBy(scenes.of(package), *by_K);
  const auto run = simulate(package, colder, {.stop = stop});
  if (!run) return run.problems();
  const NightResult* coldest = nullptr;
  for (const NightResult& night : run->nights)
    if (night.assessable && (!coldest || night.outsideLow_C < coldest->outsideLow_C)) coldest = &night;
  if (!coldest || coldest->held) return Fails();
  return Fails(Message{"sizing.rare-night-not-held", Amount{coldest->outsideLow_C, Unit::celsius}, Amount{coldest->coldest_C, Unit::celsius}});
}

Result<Fails> heaterOut(const Plan& package, PackageScenes& scenes, const std::atomic<bool>* stop) {
  for (std::size_t h = 0; h < package.heaters.size(); ++h) {
    if (package.heaters[h].power_W <= 0.0) continue;
    Plan without = package;
    without.heaters[h].power_W = 0.0;
    const auto run = simulate(without, scenes.of(without), {.stop = stop});
    if (!run) return run.problems();
    const int misses = run->summary.nights - run->summary.held;
    if (isTooCold(package.ask, misses, run->summary.degreeHours_K_h / run->summary.winters))
      return Fails(Message{"sizing.not-held-without-heater", nameOf(package, package.heaters[h]), misses});
  }
  return Fails();
}

Result<Fails> mainsOff(const Plan& package, PackageScenes& scenes, const std::atomic<bool>* stop) {
  const double line_C = package.setpoints.hold_C;
  const auto failures = Failures::prepare(package, scenes.of(package), {.what = {}, .for_h = *package.ask.mainsOff_h, .lines_C = {line_C}}, 1, stop);
  if (!failures) return failures.problems();
  const auto worst = failures->worst();
  if (!worst) return worst.problems();
  if (worst->lowest_C >= line_C) return Fails();
  return Fails(Message{"sizing.power-cut-not-held", Amount{worst->lowest_C, Unit::celsius}});
}

} // namespace

bool asksMore(const Ask& ask) { return ask.rareNight_years || ask.anyHeaterOut || ask.mainsOff_h; }

Result<double> rareNightColderBy_K(const Plan& plan, const Weather& weather, double years) {
  const auto lows = gumbelByLikelihood(plan.site.annualLows_C);
  if (!lows) return lows.problems();
  return std::max(0.0, logColdest_C(weather) - lows->returnLow_C(years));
}

Result<Fails> whatFails(const Plan& package, PackageScenes& scenes, const std::atomic<bool>* stop) {
  const Ask& ask = package.ask;
  if (ask.anyHeaterOut)
    if (auto fails = heaterOut(package, scenes, stop); !fails || *fails) return fails;
  if (ask.rareNight_years)
    if (auto fails = rareNight(package, scenes, stop); !fails || *fails) return fails;
  if (ask.mainsOff_h) return mainsOff(package, scenes, stop);
  return Fails();
}

} // namespace muffle
