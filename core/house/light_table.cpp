// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/light_table.h"

#include "core/constants.h"
#include "core/sun/glazing.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr std::array kAltitudes{0.5, 2.0, 4.0, 7.0, 10.0, 13.0, 17.0, 21.0, 26.0, 32.0, 39.0, 48.0, 60.0, 75.0, 90.0}; // closest where a winter sun stands
constexpr int kAzimuthSteps = 18;
constexpr int kArcPieces = 16;
constexpr int kRings = 4, kRound = 8; // of the sky's half that is enough: the house is alike along its ridge
constexpr std::size_t kMostKept = 64;
constexpr double kLeafExtinction = 0.5; // of leaves that lie every way: Ross (1981)

/// On a grid of the cosine: steps of 1/512 are a fifth of a degree where the curve is steep.
class AngleFactor {
public:
  AngleFactor() {
    constexpr double kIndex = 1.5, kPath = 0.02;
    const double diffuse = glazingDiffuseTransmittance(kIndex, kPath, 1);
    for (int i = 0; i <= kSteps; ++i)
      m_factor[static_cast<std::size_t>(i)] = glazingOptics(kIndex, kPath, degrees(std::acos(static_cast<double>(i) / kSteps)), 1).transmittance / diffuse;
    m_factor[0] = 0.0;
  }
  [[nodiscard]] double at(double cosine) const {
    const double place = std::clamp(cosine, 0.0, 1.0) * kSteps;
    const auto i = std::min(static_cast<std::size_t>(place), static_cast<std::size_t>(kSteps - 1));
    return m_factor[i] + (m_factor[i + 1] - m_factor[i]) * (place - static_cast<double>(i));
  }

private:
  static constexpr int kSteps = 512;
  std::array<double, kSteps + 1> m_factor{};
};

const AngleFactor& angleFactor() {
  static const AngleFactor factor;
  return factor;
}

int surfaceOf(int entry) { return entry == 0 ? kShellRoof : entry == 1 ? kShellSides : kShellEnds; }

} // namespace

double transmittanceByIncidence(double cosine) { return angleFactor().at(cosine); }

LightTable::LightTable(const HouseShape& shape, const LightFilling& filling)
    : m_shape(shape), m_filling(filling), m_sections(sectionsOf(shape, kArcPieces)), m_standing(filling.standing.size()),
      m_size(kLightEntries * (LightShares::kFixed + m_standing)) {
  const int steps = shape.kind == ShapeKind::dome ? 0 : kAzimuthSteps; // a dome is alike all round
  for (int a = 0; a <= steps; ++a) m_azimuths.push_back(180.0 * a / kAzimuthSteps);
  lay();
  diffuse();
}

std::vector<double> LightTable::follow(const LightDirection& s) const {
  std::vector<LightLayer> layers{{m_filling.cropHeight_m, kLeafExtinction * m_filling.leafArea / m_filling.cropHeight_m}};
  const double level = std::hypot(s.x, s.y);
  for (const auto& thing : m_filling.standing)
    layers.push_back({thing.height_m,
                      (thing.level_m2 * std::abs(s.z) + thing.upright_m2 * level + thing.across_m2 * std::abs(s.y)) / (m_shape.floor_m2() * thing.height_m)});
  const AngleFactor& factor = angleFactor();
  const OpticsOf optics = [&factor](int surface, double cosine) -> FaceOptics {
    if (surface == kShellFloor || surface == kShellBackWall) return {};
    return {factor.at(cosine), 0.0};
  };
  const LightPaths paths = lightPaths(m_sections, s, layers, optics);
  std::vector<double> values;
  values.reserve(m_size);
  for (int entry = 0; entry < kLightEntries; ++entry) {
    const int by = surfaceOf(entry);
    values.insert(values.end(), {paths.entering(by), paths.arriving(by, kShellFloor), paths.arriving(by, kShellBackWall), paths.met(by, 0)});
    for (int group = 0; group < kLightEntries; ++group) values.push_back(paths.arriving(by, surfaceOf(group)));
    for (int group = 0; group < kLightEntries; ++group) values.push_back(paths.transmitted(by, surfaceOf(group)));
    for (std::size_t k = 0; k < m_standing; ++k) values.push_back(paths.met(by, 1 + k));
  }
  return values;
}

void LightTable::lay() {
  m_values.reserve(kAltitudes.size() * m_azimuths.size() * m_size);
  std::vector<double> overhead;
  for (const double altitude : kAltitudes)
    for (const double azimuth : m_azimuths) {
      const double level = std::cos(radians(altitude)), off = radians(azimuth);
      const LightDirection s{m_azimuths.size() > 1 ? level * std::sin(off) : 0.0, level * std::cos(off), std::sin(radians(altitude))};
      if (altitude < 90.0) {
        const auto values = follow(s);
        m_values.insert(m_values.end(), values.begin(), values.end());
        continue;
      }
      if (overhead.empty()) overhead = follow({0.0, 1e-6, 1.0});
      m_values.insert(m_values.end(), overhead.begin(), overhead.end());
    }
}

/// Isotropic light from above and from below. Gauss in the root of the height's sine: close to the horizon, where the far side opens.
void LightTable::diffuse() {
  constexpr std::array<double, 2> kPlaces{0.21132486540518712, 0.78867513459481288};
  m_sky.assign(m_size, 0.0);
  m_ground.assign(m_size, 0.0);
  const int round = m_azimuths.size() > 1 ? kRound : 1;
  for (int ring = 0; ring < kRings; ++ring)
    for (const double place : kPlaces) {
      const double u = (ring + place) / kRings, sine = u * u, level = std::sqrt(1.0 - sine * sine);
      const double weight = u / kRings * 2.0 / round; // of radiance 1/pi: solid angle 2 pi x 2u du/2
      for (int a = 0; a < round; ++a) {
        const double off = kPi * (a + 0.5) / round;
        const double x = round > 1 ? level * std::sin(off) : 0.0, y = round > 1 ? level * std::cos(off) : level;
        const auto above = follow({x, y, sine}), below = follow({x, y, -sine});
        for (std::size_t i = 0; i < m_size; ++i) m_sky[i] += weight * above[i], m_ground[i] += weight * below[i];
      }
    }
}

LightShares LightTable::at(double altitude_deg, double azimuth_deg, std::span<double> values) const {
  const double altitude = std::clamp(altitude_deg, kAltitudes.front(), kAltitudes.back());
  const auto upper =
      std::min(static_cast<std::size_t>(std::upper_bound(kAltitudes.begin(), kAltitudes.end(), altitude) - kAltitudes.begin()), kAltitudes.size() - 1);
  const double up = (altitude - kAltitudes[upper - 1]) / (kAltitudes[upper] - kAltitudes[upper - 1]);
  const std::size_t columns = m_azimuths.size();
  std::size_t column = 0;
  double along = 0.0;
  if (columns > 1) {
    const double off = std::abs(std::remainder(azimuth_deg - m_shape.axis_deg - 90.0, 360.0));
    const double place = off / 180.0 * static_cast<double>(columns - 1);
    column = std::min(static_cast<std::size_t>(place), columns - 2);
    along = place - static_cast<double>(column);
  }
  const std::size_t next = columns > 1 ? m_size : 0;
  const double* const low = m_values.data() + ((upper - 1) * columns + column) * m_size;
  const double* const high = low + columns * m_size;
  for (std::size_t i = 0; i < m_size; ++i)
    values[i] = (1.0 - up) * ((1.0 - along) * low[i] + along * low[i + next]) + up * ((1.0 - along) * high[i] + along * high[i + next]);
  return {values, m_standing};
}

std::shared_ptr<const LightTable> LightTables::of(const LightFilling& filling) {
  const std::scoped_lock lock(m_mutex);
  for (const auto& [of, table] : m_made)
    if (of == filling) return table;
  auto table = std::make_shared<const LightTable>(m_shape, filling);
  if (m_made.size() >= kMostKept) m_made.erase(m_made.begin());
  m_made.emplace_back(filling, table);
  return table;
}

} // namespace muffle
