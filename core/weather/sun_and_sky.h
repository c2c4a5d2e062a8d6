// SPDX-License-Identifier: GPL-3.0-or-later
//
// Sun, cloud, humidity and sky of a winter whose outside temperatures are on its grid.
// Days run by the sun, whatever the clock says: their number is that of the solar noon in their middle, and what a day was like holds from its
// noon on, through the night, to the next sunrise; from there it passes to the next day's by noon.
// What a night was must not change by what comes after it: nothing before a sunrise depends on readings later than that sunrise.
//   sun       measured, or the day's total H0 tau, tau by the swing (Bristow and Campbell), shaped by the clear sky's course (Haurwitz)
//   clearness of a day, for its cloud: measured or H0 tau over the clear sky's total. Where the sun hardly rises, that total says little: the clear sky
//             then counts as letting kClearTransmittance through, and a column of zeros weighs as much as none
//   swing     high between two solar midnights less the mean of the nights' lows on either side
#pragma once

#include "core/weather/weather.h"

namespace muffle {

/// By step; NaN where not measured, empty without a column.
struct MeasuredSky {
  std::vector<double> sun_W_m2;
  std::vector<double> humidity_percent; ///< relative, outside
};

struct SkySources {
  std::size_t days = 0, sunEstimatedDays = 0, carriedDays = 0;
};

/// The mid of the low and middle clouds that matter at night.
inline constexpr double kCloudBase_m = 2000.0;

/// outside_C and nights must be there.
SkySources addSunAndSky(Winter& winter, const Place& place, const MeasuredSky& measured);

} // namespace muffle
