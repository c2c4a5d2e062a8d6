// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/growth.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {

double growthRate(const GrowthResponse& crop, double temperature_C) {
  if (!(temperature_C > crop.base_C && temperature_C < crop.tooWarm_C)) return 0.0;
  const double warm = (crop.tooWarm_C - temperature_C) / (crop.tooWarm_C - crop.best_C);
  const double cold = (temperature_C - crop.base_C) / (crop.best_C - crop.base_C);
  return warm * std::pow(cold, (crop.best_C - crop.base_C) / (crop.tooWarm_C - crop.best_C));
}

namespace {
constexpr double kPerKelvin = 16.0;
}

double dailyLight_mol_m2(double sunlight_J_m2) {
  constexpr double kUsed = 0.45, kPhotons_mol_J = 4.57e-6;
  return sunlight_J_m2 * kUsed * kPhotons_mol_J;
}

Growth& Growth::operator+=(const Growth& other) {
  days += other.days;
  warmthDays += other.warmthDays;
  lightShort_d += other.lightShort_d;
  degreeHours_K_h += other.degreeHours_K_h;
  all_d += other.all_d;
  return *this;
}

GrowthSum::GrowthSum(double step_s, const GrowthResponse& crop)
    : m_crop(crop), m_step_s(step_s), m_perDay(static_cast<std::size_t>(std::lround(kDay_s / step_s))) {
  for (double at = crop.base_C; at < crop.tooWarm_C + 2.0 / kPerKelvin; at += 1.0 / kPerKelvin) m_rate.push_back(growthRate(crop, at));
}

/// A power at every step of every package is a twentieth of a search.
double GrowthSum::rateAt(double temperature_C) const {
  if (!(temperature_C > m_crop.base_C && temperature_C < m_crop.tooWarm_C)) return 0.0;
  const double along = (temperature_C - m_crop.base_C) * kPerKelvin;
  constexpr double kSteep = 16.0; // where it sets out from the base
  if (along < kSteep) return growthRate(m_crop, temperature_C);
  const auto below = static_cast<std::size_t>(along);
  return m_rate[below] + (along - static_cast<double>(below)) * (m_rate[below + 1] - m_rate[below]);
}

void GrowthSum::add(double air_C, double light_W_m2) {
  if (m_perDay == 0) return;
  m_warmth += rateAt(air_C);
  if (air_C > m_crop.base_C) m_degreeHours_K_h += (std::min(air_C, m_crop.best_C) - m_crop.base_C) * m_step_s / 3600.0;
  if (light_W_m2 > 0.0) m_light_J_m2 += light_W_m2 * m_step_s;
  if (++m_steps < m_perDay) return;
  const double warmth = m_warmth / static_cast<double>(m_perDay);
  const double light = std::min(1.0, dailyLight_mol_m2(m_light_J_m2) / m_crop.enoughLight_mol_m2);
  m_sum += Growth{std::min(warmth, light), warmth, light < warmth ? 1.0 : 0.0, m_degreeHours_K_h, 1.0};
  m_steps = 0;
  m_warmth = m_light_J_m2 = m_degreeHours_K_h = 0.0;
}

Growth growthOver(std::span<const float> air_C, std::span<const float> light_W_m2, double step_s, const GrowthResponse& crop) {
  GrowthSum sum(step_s, crop);
  for (std::size_t i = 0; i < std::min(air_C.size(), light_W_m2.size()); ++i) sum.add(static_cast<double>(air_C[i]), static_cast<double>(light_W_m2[i]));
  return sum.ofWholeDays();
}

} // namespace muffle
