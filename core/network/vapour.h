// SPDX-License-Identifier: GPL-3.0-or-later
//
// Water vapour in a network. A node may stand for the humidity of a body of air: its number is then grams of water per kg of
// dry air and its capacity the heat that evaporates a gram for each kg of that air, J per g/kg. Vapour that moves between two
// such nodes goes by plain conductances; where it condenses or evaporates it becomes heat of a node, so that the network's
// one balance closes over both.
//   film   a natural link whose surface may be wet: q = w h L/(cp Le^(2/3)) (x - x_s(T_surface)) into the surface, h the film
//          of that link (heat and mass transfer are alike; Le^(2/3) = 0.905 for vapour in air: Incropera and DeWitt, ch. 6);
//          w is 1 while vapour condenses and the surface's wet share while it dries
//   leaf   q = g (x_s(T) - x) out of the node at T, through stomata and the air at the leaf
// One heat of evaporation, that at 0 degC, serves all; frost forms by it too (its heat of fusion, 13 % more, is left out).
#pragma once

#include "core/air/saturation_curve.h"
#include "core/network/reported_rows.h"
#include "core/network/sparse_lu.h"

#include <vector>

namespace muffle {

/// Latent heat that a film of 1 W/K carries for a difference of 1 g/kg, W.
inline constexpr double kLatentPerFilm = kEvaporation_J_kg / 1000.0 / (kAirHeat_J_kgK * 0.905);
/// Latent heat that air exchange of 1 W/K (mass flow x specific heat) carries for a difference of 1 g/kg, W.
inline constexpr double kLatentPerExchange = kEvaporation_J_kg / 1000.0 / kAirHeat_J_kgK;

/// The film of a natural link at present: h A in W/K and its change with the temperature difference.
struct FilmNow {
  double h = 0.0;
  double slope = 0.0;
};

/// What the Jacobian is made of.
struct VapourSlopes {
  struct Film {
    double vapour = 0.0, surface = 0.0, difference = 0.0; ///< of the flow into the surface, by x, T_surface, T_air - T_surface
  };
  std::vector<Film> film;
  struct Leaf {
    double saturated = 0.0; ///< of x_s, by temperature
    double g = 0.0;         ///< W per g/kg, as in the matrix
  };
  std::vector<Leaf> leaf;
};

/// The vapour links of a network on its slots. Films keep the order they were added in; their h is handed in.
class VapourFlows {
public:
  explicit VapourFlows(double pressure_Pa = kStandardPressure_Pa) : m_saturated(pressure_Pa) {}

  /// group: the row that counts what flows into the surface, or -1.
  int addFilm(int air, int surface, int vapour, double wetShare, int group, int freeSlots, const SparseLu& lu);
  /// Of a film's surface, what gives water up while it dries.
  void setWetShare(int film, double share) { m_films[static_cast<std::size_t>(film)].wetShare = share; }
  /// Heat of condensation into a film's surface at the temperatures T, W; negative while it dries.
  [[nodiscard]] double condensing_W(int film, const double* T, double h_W_K) const { return filmFlow(m_films[static_cast<std::size_t>(film)], T, h_W_K); }
  void addLeaf(int leaf, int vapour, double g_W_g_kg, int modulator, int freeSlots, const SparseLu& lu);
  [[nodiscard]] bool empty() const { return m_films.empty() && m_leaves.empty(); }
  [[nodiscard]] std::size_t filmCount() const { return m_films.size(); }
  [[nodiscard]] VapourSlopes makeSlopes() const { return {std::vector<VapourSlopes::Film>(m_films.size()), std::vector<VapourSlopes::Leaf>(m_leaves.size())}; }

  /// Takes the leaves' modulators and brings the flows f at T up to date.
  void modulate(const std::vector<double>& modulator, const double* T, double* f);
  void modulate(const std::vector<double>& modulator);
  /// Adds the flows at T to f.
  void evaluate(const double* T, const std::vector<FilmNow>& film, double* f, VapourSlopes* slopes) const;
  /// Adds the flows' change for moves along the slopes; only links that touch a boundary or a group.
  void addAlong(const VapourSlopes& slopes, const double* delta, double* f) const;
  void mark(ReportedRows& rows) const;
  /// The slopes to where they count.
  void collectReported(const VapourSlopes& slopes, const ReportedRows& rows, std::vector<double>& values) const;
  /// Adds -s J to the matrix, by the leaves' present strength.
  void fill(VapourSlopes& slopes, double s, double* matrix) const;
  /// The largest, in K or g/kg, that the links' curves leave over between two states, by each node's pivot.
  [[nodiscard]] double curvature(const VapourSlopes& slopes, const double* from, const double* to, const std::vector<FilmNow>& filmFrom,
                                 const std::vector<FilmNow>& filmTo, const std::vector<double>& inversePivots) const;

private:
  struct Film {
    int air, surface, vapour;
    double wetShare;
    int group;
    bool reported;
    int ss, sv, sa, vs, vv, va; ///< of the matrix: rows surface and vapour by columns surface, vapour, air
  };
  struct Leaf {
    int leaf, vapour;
    double full, g;
    int modulator;
    bool reported;
    int ll, lv, vl, vv;
  };
  template <bool kSlopes> void evaluateAs(const double* T, const FilmNow* film, double* f, VapourSlopes* slopes) const;
  [[nodiscard]] double filmFlow(const Film& film, const double* T, double h) const;

  SaturationCurve m_saturated;
  std::vector<Film> m_films;
  std::vector<Leaf> m_leaves;
};

} // namespace muffle
