// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sun/position.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

double wrap(double value, double period) {
  const double w = std::fmod(value, period);
  return w < 0.0 ? w + period : w;
}

double clampedAcos_deg(double x) { return degrees(std::acos(std::clamp(x, -1.0, 1.0))); }

constexpr double kRiseElevation_deg = -0.8333; // 34' of refraction and 16' of radius
constexpr double kParallax_deg = 8.794 / 3600.0;

} // namespace

SunPosition sunAtHourAngle(double latitude_deg, double declination_deg, double hourAngle_deg) {
  const double phi = radians(latitude_deg);
  const double delta = radians(declination_deg);
  const double omega = radians(hourAngle_deg);
  SunPosition sun;
  sun.declination_deg = declination_deg;
  sun.hourAngle_deg = hourAngle_deg;
  sun.zenith_deg = clampedAcos_deg(std::sin(phi) * std::sin(delta) + std::cos(phi) * std::cos(delta) * std::cos(omega));
  // atan2 form: no loss near the zenith or due east and west
  sun.azimuth_deg = wrap(degrees(std::atan2(std::sin(omega), std::cos(omega) * std::sin(phi) - std::tan(delta) * std::cos(phi))) + 180.0, 360.0);
  return sun;
}

SunPosition sunPosition(double utcSeconds, const Place& place, std::optional<Refraction> refraction) {
  const double n = utcSeconds / 86400.0 - 10957.5; // days from J2000.0, the almanac's epoch
  const double hour = wrap(utcSeconds, 86400.0) / 3600.0;
  const double meanLongitude = wrap(280.460 + 0.9856474 * n, 360.0);
  const double g = radians(wrap(357.528 + 0.9856003 * n, 360.0));
  const double eclipticLongitude = radians(meanLongitude + 1.915 * std::sin(g) + 0.020 * std::sin(2.0 * g));
  const double obliquity = radians(23.439 - 0.0000004 * n);
  const double rightAscension = wrap(degrees(std::atan2(std::cos(obliquity) * std::sin(eclipticLongitude), std::cos(eclipticLongitude))), 360.0);
  const double declination = degrees(std::asin(std::sin(obliquity) * std::sin(eclipticLongitude)));
  const double siderealHours = wrap(6.697375 + 0.0657098242 * n + hour, 24.0);
  double hourAngle = wrap(siderealHours * 15.0 + place.longitude_deg - rightAscension, 360.0);
  if (hourAngle > 180.0) hourAngle -= 360.0;

  SunPosition sun = sunAtHourAngle(place.latitude_deg, declination, hourAngle);
  sun.distance_au = 1.00014 - 0.01671 * std::cos(g) - 0.00014 * std::cos(2.0 * g);
  sun.zenith_deg += kParallax_deg * std::sin(radians(sun.zenith_deg));
  if (refraction) {
    const double elevation = 90.0 - sun.zenith_deg;
    if (elevation > kRiseElevation_deg) {
      sun.zenith_deg -= refraction->pressure_Pa / 101000.0 * 283.0 / kelvin(refraction->temperature_C) * 1.02 /
                        (60.0 * std::tan(radians(elevation + 10.3 / (elevation + 5.11))));
    }
  }
  return sun;
}

double solarHour(double utcSeconds, const Place& place) { return wrap(sunPosition(utcSeconds, place).hourAngle_deg / 15.0 + 12.0, 24.0); }

SunDay sunDay(const Date& date, const Place& place) {
  SunDay day;
  double noon = static_cast<double>(daysSinceEpoch(date)) * 86400.0 + 43200.0 - place.longitude_deg * 240.0;
  for (int i = 0; i < 3; ++i) noon -= sunPosition(noon, place).hourAngle_deg * 240.0;
  day.noon_utc = noon;
  const double phi = radians(place.latitude_deg);
  auto crossing = [&](double sign) -> std::optional<double> {
    double at = noon;
    for (int i = 0; i < 6; ++i) { // the declination moves at most 0.4 deg a day: converges by a factor 300 a round
      const SunPosition sun = sunPosition(at, place);
      const double delta = radians(sun.declination_deg);
      const double cosine = (std::sin(radians(kRiseElevation_deg)) - std::sin(phi) * std::sin(delta)) / (std::cos(phi) * std::cos(delta));
      if (cosine > 1.0) return std::nullopt;
      if (cosine < -1.0) {
        day.alwaysUp = true;
        return std::nullopt;
      }
      at += (sign * degrees(std::acos(cosine)) - sun.hourAngle_deg) * 240.0;
    }
    return at;
  };
  day.rise_utc = crossing(-1.0);
  day.set_utc = crossing(1.0);
  return day;
}

double incidence_deg(double zenith_deg, double azimuth_deg, double slope_deg, double surfaceAzimuth_deg) {
  const double z = radians(zenith_deg);
  const double b = radians(slope_deg);
  return clampedAcos_deg(std::cos(z) * std::cos(b) + std::sin(z) * std::sin(b) * std::cos(radians(azimuth_deg - surfaceAzimuth_deg)));
}

double declinationCooper_deg(int dayOfYear) { return 23.45 * std::sin(radians(360.0 * (284.0 + dayOfYear) / 365.0)); }

} // namespace muffle
