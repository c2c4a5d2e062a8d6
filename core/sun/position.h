// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the sun stands. Michalsky, Solar Energy 40 (1988) 227 (Astronomical Almanac), 0.01 degrees between 1950 and
// 2050, with parallax (8.794 arcsec) and, if asked, refraction in the Bennett/Saemundsson form used by NREL's SPA.
// Azimuth runs clockwise from north; east longitude is positive.
//
//   const SunPosition sun = sunPosition(at, {52.0, 5.0});
//   const bool isDay = sun.zenith_deg < 90.0;
#pragma once

#include "core/calendar.h"
#include "core/constants.h"

#include <optional>

namespace muffle {

struct Place {
  double latitude_deg = 0.0;  ///< -90..90, north positive
  double longitude_deg = 0.0; ///< -180..180, east positive
  double elevation_m = 0.0;   ///< -430..8850
  bool operator==(const Place&) const = default;
};

struct SunPosition {
  double zenith_deg = 180.0;
  double azimuth_deg = 0.0;
  double declination_deg = 0.0;
  double hourAngle_deg = 0.0; ///< 0 at solar noon, positive after it
  double distance_au = 1.0;
};

/// Air for refraction; without it the zenith is geometric.
struct Refraction {
  double pressure_Pa = kStandardPressure_Pa;
  double temperature_C = 10.0;
};

SunPosition sunPosition(double utcSeconds, const Place& place, std::optional<Refraction> refraction = std::nullopt);

/// Hours from local solar midnight, 0..24.
double solarHour(double utcSeconds, const Place& place);

/// Sunrise and sunset around the solar noon nearest to 12 h local mean time on `date`: the sun's centre 0.8333 degrees
/// below the horizon. Both empty in polar day or night.
struct SunDay {
  std::optional<double> rise_utc;
  std::optional<double> set_utc;
  double noon_utc = 0.0;
  bool alwaysUp = false;
};
SunDay sunDay(const Date& date, const Place& place);

/// Incidence angle on a plane, degrees; slope 0 is level, azimuth clockwise from north.
double incidence_deg(double zenith_deg, double azimuth_deg, double slope_deg, double surfaceAzimuth_deg);

/// Cooper's declination for day of year n: 23.45 sin(360 (284 + n)/365).
double declinationCooper_deg(int dayOfYear);

/// Zenith and azimuth from declination and hour angle.
SunPosition sunAtHourAngle(double latitude_deg, double declination_deg, double hourAngle_deg);

} // namespace muffle
