// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/light_inside.h"

#include <algorithm>

namespace muffle {
namespace {

/// Light of one step in all its kinds, laid out as LightShares has it.
class StepLight {
public:
  StepLight(const LightTable& table, const SunOnHouse& sun, const Winter& winter)
      : m_table(table), m_sun(sun), m_winter(winter), m_beam(table.size()), m_sum(table.size()) {}

  [[nodiscard]] bool isDark(std::size_t i) const { return m_sun.beam_W_m2[i] + m_sun.sky_W_m2[i] <= 0.0; }

  const LightShares& at(std::size_t i) {
    const double beam = m_sun.beam_W_m2[i];
    if (beam > 0.0) (void)m_table.at(90.0 - static_cast<double>(m_winter.zenith_deg[i]), static_cast<double>(m_winter.azimuth_deg[i]), m_beam);
    const auto sky = m_table.sky().values(), ground = m_table.ground().values();
    for (std::size_t k = 0; k < m_sum.size(); ++k)
      m_sum[k] = (beam > 0.0 ? beam * m_beam[k] : 0.0) + m_sun.sky_W_m2[i] * sky[k] + m_sun.ground_W_m2[i] * ground[k];
    m_shares = LightShares(m_sum, m_table.standing());
    return m_shares;
  }

private:
  const LightTable& m_table;
  const SunOnHouse& m_sun;
  const Winter& m_winter;
  std::vector<double> m_beam, m_sum;
  LightShares m_shares;
};

} // namespace

LightInside lightInside(const LightTaking& taking, const SunOnHouse& sun, const Winter& winter) {
  const std::size_t n = winter.size();
  const std::size_t things = taking.filling.standing.size();
  LightInside in;
  for (auto* series : {&in.floor_W_m2, &in.leaves_W_m2, &in.meets_W_m2}) series->assign(n, 0.0);
  for (auto& far : in.far_W_m2) far.assign(n, 0.0);
  in.standing_W.assign(things, std::vector<double>(n, 0.0));
  if (taking.backWall_m2 > 0.0) in.backWall_W_m2.assign(n, 0.0);
  const auto table = sun.light->of(taking.filling);
  StepLight light(*table, sun, winter);
  // the sphere of what is reflected
  const double ofFloor = taking.floor_m2 * kFloorTakesUp, ofWall = taking.backWall_m2 * taking.backWallAbsorptance;
  double takers = ofFloor + ofWall;
  for (const auto& cover : taking.covers) takers += cover.area_m2 * (cover.transmittance + cover.absorptance);
  for (std::size_t i = 0; i < n; ++i) {
    if (light.isDark(i)) continue;
    const LightShares& share = light.at(i);
    double floor = 0.0, leaves = 0.0, wall = 0.0, again = 0.0;
    std::array<double, kLightEntries> far{}, leaving{};
    for (int by = 0; by < kLightEntries; ++by) {
      const auto& cover = taking.covers[static_cast<std::size_t>(by)];
      if (cover.area_m2 <= 0.0) continue;
      const double lets = cover.lets[i] * cover.passes;
      floor += lets * share.floor(by);
      leaves += lets * share.leaves(by);
      wall += lets * share.backWall(by);
      for (int group = 0; group < kLightEntries; ++group) {
        far[static_cast<std::size_t>(group)] += lets * share.far(by, group);
        leaving[static_cast<std::size_t>(group)] += lets * share.leaving(by, group);
      }
      for (std::size_t k = 0; k < things; ++k) in.standing_W[k][i] += lets * share.standing(by, k);
    }
    for (std::size_t k = 0; k < things; ++k) {
      again += (1.0 - taking.standingAbsorptance[k]) * in.standing_W[k][i];
      in.standing_W[k][i] *= taking.standingAbsorptance[k];
    }
    for (std::size_t g = 0; g < kLightEntries; ++g) {
      const auto& cover = taking.covers[g];
      if (cover.area_m2 <= 0.0) continue;
      in.far_W_m2[g][i] = far[g] / cover.area_m2;
      // what dirt and frame stop on the way out warms little inside: it counts as gone
      again += std::max(far[g] - cover.transmittance * leaving[g] - cover.absorptance * far[g], 0.0);
    }
    again += (1.0 - kFloorTakesUp) * floor + (1.0 - kLeavesTakeUp) * leaves + (1.0 - taking.backWallAbsorptance) * wall;
    const double met = floor + leaves;
    const double taken = kFloorTakesUp * floor + kLeavesTakeUp * leaves;
    const double more = taken > 0.0 ? 1.0 + again * ofFloor / takers / taken : 1.0; // shared as they share what they meet first
    in.meets_W_m2[i] = met * more / taking.floor_m2;
    in.floor_W_m2[i] = kFloorTakesUp * floor * more / taking.floor_m2;
    in.leaves_W_m2[i] = kLeavesTakeUp * leaves * more / taking.floor_m2;
    if (taking.backWall_m2 > 0.0) in.backWall_W_m2[i] = (taking.backWallAbsorptance * wall + again * ofWall / takers) / taking.backWall_m2;
  }
  return in;
}

std::vector<double> lightEntering_W(const LightTaking& taking, const SunOnHouse& sun, const Winter& winter, FaceGroup by) {
  std::vector<double> W(winter.size(), 0.0);
  const auto table = sun.light->of(taking.filling);
  StepLight light(*table, sun, winter);
  const auto& cover = taking.covers[static_cast<std::size_t>(by)];
  if (cover.area_m2 <= 0.0) return W;
  for (std::size_t i = 0; i < W.size(); ++i)
    if (!light.isDark(i)) W[i] = cover.lets[i] * light.at(i).entering(static_cast<int>(by));
  return W;
}

} // namespace muffle
