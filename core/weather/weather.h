// SPDX-License-Identifier: GPL-3.0-or-later
//
// Weather on a regular grid, from a log. What the log lacks is estimated, and the result says which:
//   sun      a column, or the day-night swing (Bristow and Campbell) shaped by the sun's real path (sun_and_sky.h)
//   outside  a column, or hours rebuilt between a max/min thermometer's readings (daily_curve.h)
//   cloud    from each day's clearness (Kasten and Czeplak), carried through the night that follows it; by night half of it from
//            how far the air fell (night_cloud.h)
//   humidity a column, or a dew point at the night's low: air that radiates to dew point stops falling there
//   sky      Berdahl and Martin from dew point, hour, cloud and height
//   wind     a column, or the site's stated constant
// A hole of more than a week starts a new winter; shorter holes are bridged with the shape of the days beside them so
// that stores keep their memory, but nights that touch one are not judged.
#pragma once

#include "core/log/nights.h"
#include "core/plan/plan.h"

#include <cstdint>
#include <vector>

namespace muffle {

enum class InputKind : std::uint8_t { measured, estimated, assumed };
const char* inputKindText(InputKind kind);

struct NightSpan {
  Date date;
  std::size_t from = 0;    ///< first grid step at or after sunset
  std::size_t to = 0;      ///< last grid step at or before sunrise, >= from
  bool assessable = false; ///< outside was measured throughout
};

/// One unbroken winter. All series have `size` values, step_s apart from start.
struct Winter {
  UtcSeconds start = 0;
  double step_s = 600.0;
  std::vector<double> outside_C, wind_m_s, sun_W_m2, diffuse_W_m2, sky_C, cloud;
  std::vector<double> rain_mm;      ///< in the reading at each step; empty if not measured
  std::vector<double> outside_g_kg; ///< water in the air outside, per kg of dry air
  std::vector<float> zenith_deg, azimuth_deg, extraterrestrial_W_m2;
  std::vector<std::uint8_t> bridged; ///< 1 where outside was not measured
  std::vector<NightSpan> nights;
  double startDay = 1.0; ///< day of year at start, local

  [[nodiscard]] std::size_t size() const { return outside_C.size(); }
  [[nodiscard]] UtcSeconds time(std::size_t i) const { return start + static_cast<UtcSeconds>(step_s * static_cast<double>(i)); }
};

/// For each step (from i to i + 1): 1 from sunset to sunrise, else 0.
std::vector<double> nightOf(const Winter& winter);

struct Weather {
  std::vector<Winter> winters;
  InputKind outside = InputKind::measured;
  InputKind wind = InputKind::assumed;
  InputKind sun = InputKind::estimated; ///< measured only if every winter has it
  InputKind sky = InputKind::estimated;
  InputKind humidity = InputKind::estimated; ///< measured if there is a column; its holes are estimated
  std::size_t sunEstimatedDays = 0;
  std::size_t days = 0;
  std::size_t carriedDays = 0; ///< whose afternoon was not logged: their sky is that of the day before
  [[nodiscard]] std::size_t steps() const;
};

/// Problem if the log has no outside temperature or less than a day of it.
Result<Weather> weatherFromLog(const Log& log, const Site& site);

/// A channel's clean readings at a winter's steps, straight between readings; NaN in holes longer than an hour and a half.
std::vector<double> readingsOn(const Winter& winter, const Log& log, const Channel& channel);

/// Steady weather for a heat-loss question: two samples of the same night hour. skyClear 0..1, 1 is cloudless.
Winter steadyWinter(const Site& site, double outside_C, double wind_m_s, double skyClear);

} // namespace muffle
