// SPDX-License-Identifier: GPL-3.0-or-later
//
// How much a crop may grow in what a house gives it: by the hours' warmth, and by the day's light where that is the shorter. Warmth by the beta
// function of three cardinal temperatures (Yin et al. 1995; Wang and Engel 1998), 1 at the best; light in proportion up to what is enough
// (daily light integral; 0.45 of sunlight is of use to plants, 4.57 umol/J: McCree 1972). Each day counts the lesser of the two.
#pragma once

#include "core/crop/crops.h"

#include <cstddef>
#include <span>
#include <vector>

namespace muffle {

/// By temperature alone, 0..1.
double growthRate(const GrowthResponse& crop, double temperature_C);
/// Of sunlight over a day, J/m2, in what plants use of it.
double dailyLight_mol_m2(double sunlight_J_m2);

struct Growth {
  double days = 0.0;            ///< as many days of the best growth
  double warmthDays = 0.0;      ///< as many, were there always light enough
  double lightShort_d = 0.0;    ///< days on which light is the shorter
  double degreeHours_K_h = 0.0; ///< above the base, up to the best
  double all_d = 0.0;           ///< that were looked at
  Growth& operator+=(const Growth& other);
};

/// Step by step, from the first of whole days. By temperature between points of the curve a sixteenth of a kelvin apart, which is within 2e-4 of it.
class GrowthSum {
public:
  GrowthSum(double step_s, const GrowthResponse& crop);
  /// NaN counts as no growth, and as no light.
  void add(double air_C, double light_W_m2);
  [[nodiscard]] const Growth& ofWholeDays() const { return m_sum; }

private:
  [[nodiscard]] double rateAt(double temperature_C) const;
  GrowthResponse m_crop;
  std::vector<double> m_rate; ///< from the base on
  double m_step_s;
  std::size_t m_perDay, m_steps = 0;
  double m_warmth = 0.0, m_light_J_m2 = 0.0, m_degreeHours_K_h = 0.0; ///< of the day that has begun
  Growth m_sum;
};

/// Air and light at steps of `step_s`, whole days of them from the first; NaN counts as no growth.
Growth growthOver(std::span<const float> air_C, std::span<const float> light_W_m2, double step_s, const GrowthResponse& crop = {});

} // namespace muffle
