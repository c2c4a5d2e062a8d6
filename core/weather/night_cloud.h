// SPDX-License-Identifier: GPL-3.0-or-later
//
// How cloudy a night was, from how far its air fell. Still air over ground that radiates R into a clear sky falls by
//   dT = (2 / sqrt(pi)) R sqrt(t) / mu
// t after sunset, mu the ground's admittance (Brunt, QJRMS 58 (1932) 389). mu is taken from the place itself, from those of the
// nights up to this one that fell furthest for their R, within what soils have; what a night fell short of them is put down to cloud. Wind and fronts look
// like cloud or clear sky here, so the caller weighs this against the day before.
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// One night's fall. All of the same place, in order, about a day apart.
struct NightFall {
  double fall_K = 0.0;         ///< from sunset to the night's low
  double hours = 0.0;          ///< from sunset to the low
  double clearLoss_W_m2 = 0.0; ///< net long-wave loss at sunset under a clear sky, > 0
  bool isKnown = false;        ///< measured throughout, and at least four hours long
};

/// Cloud of each night, 0..1; nothing where it is not known. `cloudEffect` is what full cloud does to the loss, as a fraction.
std::vector<std::optional<double>> cloudFromCooling(std::span<const NightFall> nights, double cloudEffect);

} // namespace muffle
