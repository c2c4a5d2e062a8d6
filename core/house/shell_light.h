// SPDX-License-Identifier: GPL-3.0-or-later
//
// Light through a shell, and where it goes: floor, crop and what stands in the house, opaque faces, or out by the far side.
// A convex house is a prism: its cross-section (y across, towards the axis + 90 degrees; z up from the floor) carried along x, the ridge, and
// closed by flat ends. For one direction of light everything that goes through the section lies on parallel chords, so that what enters and
// where it ends are integrals over the chords alone (Gauss-Legendre between the section's corners, where all is smooth):
//   enters a face     B L cos g dp tau(n.s)       g the angle of the light to the section's plane, p across the chords
//   enters an end     B |s_x| du dp tau(|s_x|)    u along the chord
//   meets the far end once it has gone L along x
//   on its way        exp(-integral of k) of it is left; k sums what stands there as turbid layers from the floor to a height (Beer-Lambert along
//                     the path: of leaves that lie every way k = 0.5 x leaf area index/height, Ross 1981)
// A dome is a pile of thin slices along the sun's own plane, with the sphere's normals. Bays joined side by side are one hall under pleats.
// One pass: what is reflected is left to the caller.
//
//   const auto sections = sectionsOf(shape);
//   LightPaths paths = lightPaths(sections, {sx, sy, sz}, layers, optics); // of a beam of 1 W/m2 on a plane across it
//   paths.arriving(surface, kShellFloor)
#pragma once

#include "core/house/shape.h"

#include <functional>
#include <span>
#include <vector>

namespace muffle {

/// Surfaces of a shell as sectionsOf() numbers them.
enum ShellSurface { kShellFloor, kShellRoof, kShellSides, kShellEnds, kShellBackWall };
constexpr int kShellSurfaces = 5;

/// Unit vector towards the light, in the house's own coordinates.
struct LightDirection {
  double x = 0.0, y = 0.0, z = 1.0;
};
/// Azimuths clockwise from north.
LightDirection lightDirection(double altitude_deg, double azimuth_deg, double axis_deg);

struct ShellSection {
  /// One straight piece of the outline, counter-clockwise seen against x; normals point outwards and turn evenly along a piece of an arc.
  struct Edge {
    double y0, z0, y1, z1;
    double ny0, nz0, ny1, nz1; ///< in the section's plane, of a unit vector
    int surface;               ///< the floor lets nothing in
    bool pleated = false;      ///< stands for the slopes between the outer ridges of joined bays
  };
  struct Slope {
    double length_m, ny, nz;
  };
  std::vector<Edge> edges;
  std::vector<Slope> pleats;
  double length_m = 1.0; ///< along x; of a slice its thickness
  bool hasEnds = true;
  int ends[2] = {kShellEnds, kShellEnds}; ///< that which looks along x, and the other
};

/// The sections that make up a house: one for a prism. A dome's are slices along the light, whose x must then be 0.
/// arcPieces for a whole arc.
std::vector<ShellSection> sectionsOf(const HouseShape& shape, int arcPieces = 24);

/// A turbid layer from the floor up.
struct LightLayer {
  double height_m = 1.0;         ///< > 0
  double extinction_per_m = 0.0; ///< along the path, >= 0
};

/// Of light that meets a surface at that cosine of incidence.
struct FaceOptics {
  double transmitted = 0.0, absorbed = 0.0; ///< nothing comes in or leaves by a face that transmits nothing
};
using OpticsOf = std::function<FaceOptics(int surface, double cosine)>;

/// By entry surface and by where the light ends, W for a beam of 1 W/m2.
class LightPaths {
public:
  LightPaths(int surfaces, std::size_t layers)
      : m_surfaces(surfaces), m_layers(layers), m_entering(static_cast<std::size_t>(surfaces)), m_arriving(square()), m_out(square()), m_absorbed(square()),
        m_met(static_cast<std::size_t>(surfaces) * layers) {}
  [[nodiscard]] double entering(int by) const { return m_entering[static_cast<std::size_t>(by)]; }
  /// At the end of the path; transmitted() and absorbed() are that surface's shares of it.
  [[nodiscard]] double arriving(int by, int at) const { return m_arriving[place(by, at)]; }
  [[nodiscard]] double transmitted(int by, int at) const { return m_out[place(by, at)]; }
  [[nodiscard]] double absorbed(int by, int at) const { return m_absorbed[place(by, at)]; }
  /// Intercepted by a layer.
  [[nodiscard]] double met(int by, std::size_t layer) const { return m_met[static_cast<std::size_t>(by) * m_layers + layer]; }

  void enter(int by, double W) { m_entering[static_cast<std::size_t>(by)] += W; }
  void arrive(int by, int at, double W, const FaceOptics& there) {
    m_arriving[place(by, at)] += W;
    m_out[place(by, at)] += W * there.transmitted;
    m_absorbed[place(by, at)] += W * there.absorbed;
  }
  void meet(int by, std::size_t layer, double W) { m_met[static_cast<std::size_t>(by) * m_layers + layer] += W; }
  void add(const LightPaths& other, double weight);

private:
  [[nodiscard]] std::size_t square() const { return static_cast<std::size_t>(m_surfaces) * static_cast<std::size_t>(m_surfaces); }
  [[nodiscard]] std::size_t place(int by, int at) const { return static_cast<std::size_t>(by) * static_cast<std::size_t>(m_surfaces) + static_cast<std::size_t>(at); }
  int m_surfaces;
  std::size_t m_layers;
  std::vector<double> m_entering, m_arriving, m_out, m_absorbed, m_met;
};

/// `surfaces` that the edges and ends name. Layers may overlap; what they meet is shared by their extinctions.
LightPaths lightPaths(std::span<const ShellSection> sections, const LightDirection& towardsLight, std::span<const LightLayer> layers, const OpticsOf& optics,
                      int surfaces = kShellSurfaces);

} // namespace muffle
