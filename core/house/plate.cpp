// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/plate.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double plateTemperature_C(const Plate& plate, const PlateWeather& w) {
  const auto radiated = [](double t_C) { return kStefanBoltzmann_W_m2K4 * std::pow(t_C + kZeroCelsius_K, 4.0); };
  const double tilt = plate.tilt_deg * kPi / 180.0, altitude = w.sunAltitude_deg * kPi / 180.0;
  const double sky = 0.5 * (1.0 + std::cos(tilt)), ground = 0.5 * (1.0 - std::cos(tilt));
  const double incidence = std::sin(altitude) * std::cos(tilt) + std::cos(altitude) * std::sin(tilt);
  const double beam = altitude > 0.0 ? (w.global_W_m2 - w.diffuse_W_m2) / std::sin(altitude) * std::max(0.0, incidence) : 0.0;
  double sun = beam + w.diffuse_W_m2 * sky + w.albedo * w.global_W_m2 * ground, longwave = w.skyDownward_W_m2 * sky + radiated(w.air_C) * ground;
  double sides = 1.0;
  if (plate.backFree) {
    sun += w.diffuse_W_m2 * ground + w.albedo * w.global_W_m2 * sky;
    longwave += w.skyDownward_W_m2 * ground + radiated(w.air_C) * sky;
    sides = 2.0;
  }
  const double film_W_m2K = 2.8 + 3.0 * w.wind_m_s, gained = plate.absorptance * sun + plate.emissivity * longwave;
  double low = w.air_C - 100.0, high = w.air_C + 300.0;
  for (int i = 0; i < 80; ++i) {
    const double t_C = 0.5 * (low + high);
    (sides * (plate.emissivity * radiated(t_C) + film_W_m2K * (t_C - w.air_C)) > gained ? high : low) = t_C;
  }
  return 0.5 * (low + high);
}

} // namespace muffle
