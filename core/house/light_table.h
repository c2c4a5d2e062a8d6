// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the light goes that comes into one house with one filling, by where the sun stands: shell_light.h laid out over the sky once, then
// read off between directions. What enters is by the cover's transmittance at each incidence over its diffuse one, as of a clean sheet of glass
// or film, so that one table serves every skin: multiply what came by a group of faces with that group's diffuse transmittance.
// All values are W for 1 W/m2: of a beam across it, of the sky's diffuse light on the level, of the light the ground sends up.
#pragma once

#include "core/house/shell_light.h"

#include <array>
#include <memory>
#include <mutex>
#include <span>
#include <vector>

namespace muffle {

/// What stands in a house and takes light up besides its floor.
struct LightFilling {
  /// Things from the floor up to a height, spread over the floor.
  struct Standing {
    double height_m = 1.0;   ///< > 0
    double level_m2 = 0.0;   ///< silhouette from above
    double upright_m2 = 0.0; ///< from any side
    double across_m2 = 0.0;  ///< from the house's long sides alone, as of a wall along it
    bool operator==(const Standing&) const = default;
  };
  double leafArea = 0.0;     ///< m2 of leaf for each of floor
  double cropHeight_m = 0.6; ///< with its benches, > 0
  std::vector<Standing> standing = {};
  bool operator==(const LightFilling&) const = default;
};

/// Groups of faces that light enters by.
constexpr int kLightEntries = 3; // roof, sides, ends, as FaceGroup numbers them

/// One direction's values, by entry; see LightTable::at().
class LightShares {
public:
  LightShares() = default;
  LightShares(std::span<const double> values, std::size_t standing) : m_values(values), m_stride(kFixed + standing) {}
  [[nodiscard]] double entering(int by) const { return of(by, 0); }
  [[nodiscard]] double floor(int by) const { return of(by, 1); }
  [[nodiscard]] double backWall(int by) const { return of(by, 2); }
  [[nodiscard]] double leaves(int by) const { return of(by, 3); }
  /// At the far side, by its group; and weighted with its transmittance over its diffuse one.
  [[nodiscard]] double far(int by, int group) const { return of(by, 4 + static_cast<std::size_t>(group)); }
  [[nodiscard]] double leaving(int by, int group) const { return of(by, 7 + static_cast<std::size_t>(group)); }
  [[nodiscard]] double standing(int by, std::size_t k) const { return of(by, kFixed + k); }

  [[nodiscard]] std::span<const double> values() const { return m_values; }

  static constexpr std::size_t kFixed = 10;

private:
  [[nodiscard]] double of(int by, std::size_t what) const { return m_values[static_cast<std::size_t>(by) * m_stride + what]; }
  std::span<const double> m_values;
  std::size_t m_stride = kFixed;
};

class LightTable {
public:
  LightTable(const HouseShape& shape, const LightFilling& filling);

  [[nodiscard]] std::size_t size() const { return m_size; }
  [[nodiscard]] std::size_t standing() const { return m_standing; }
  /// Of a beam from there; `values` has size() and must outlive the answer. altitude > 0; azimuth clockwise from north.
  [[nodiscard]] LightShares at(double altitude_deg, double azimuth_deg, std::span<double> values) const;
  [[nodiscard]] LightShares sky() const { return {m_sky, m_standing}; }
  [[nodiscard]] LightShares ground() const { return {m_ground, m_standing}; }

private:
  [[nodiscard]] std::vector<double> follow(const LightDirection& s) const;
  void lay();
  void diffuse();

  HouseShape m_shape;
  LightFilling m_filling;
  std::vector<ShellSection> m_sections;
  std::size_t m_standing, m_size;
  std::vector<double> m_azimuths; ///< off the side that looks along y, 0..180
  std::vector<double> m_values;   ///< by altitude, azimuth, then as in LightShares
  std::vector<double> m_sky, m_ground;
};

/// The tables of one shape, each made once however many plans and threads ask for it.
class LightTables {
public:
  explicit LightTables(const HouseShape& shape) : m_shape(shape) {}
  std::shared_ptr<const LightTable> of(const LightFilling& filling);

private:
  HouseShape m_shape;
  std::mutex m_mutex;
  std::vector<std::pair<LightFilling, std::shared_ptr<const LightTable>>> m_made;
};

/// Transmittance of a typical sheet (n 1.5, KL 0.02) at a cosine of incidence over its diffuse one.
double transmittanceByIncidence(double cosine);

} // namespace muffle
