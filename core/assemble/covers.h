// SPDX-License-Identifier: GPL-3.0-or-later
//
// The skins of a house in a Network: each face's layers from outside in with what lies between them, the films of air on
// both sides, a night blanket, and the long-wave exchange of floor, sheets, sky and surroundings through all of them.
//   outside  ISO 6946, h_c = 4 + 4 v, as a modulator; long-wave to sky and surroundings by the face's view of each
//   inside   free convection from plates, h = k dT^(1/3), k 1.7 under a roof and 1.5 at walls (Churchill and Chu, turbulent
//            limit of air near 5 degC); vapour condenses through the same film (core/network/vapour.h)
//   gaps     ISO 6946 for convection, wide ones by the difference, 1.14 dT^(1/3) upwards and 0.73 across; radiation by the net-radiation method, whatever the
//   sheets let through water    what condenses on the inside stays up to 60 g/m2 and dries off again; drops that grow cover 0.55 of a surface
//            (Beysens and Knobler, Phys. Rev. Lett. 57 (1986) 1433), and what they cover lets no long-wave through
//   bodies   boards, walls, blankets and quilts between two opaque faces, with their resistance between them for all that passes; cut into
//            pieces where they are heavy
//
//   Covers covers(network, {air, vapour, floor, outside, sky, windFilm}, inside_C, outside_C);
//   covers.add(plan.house.roof, FaceGroup::roof, area_m2, skyView, "roof");
//   covers.exchange(floor_m2);
#pragma once

#include "core/house/longwave.h"
#include "core/network/network.h"
#include "core/plan/plan.h"

#include <optional>
#include <string>
#include <vector>

namespace muffle {

/// One layer in the network; both nodes are the same for a thin sheet, the two faces of a body otherwise.
struct CoverSheet {
  int outerNode = -1, innerNode = -1;
  LongwaveSheet longwave;
  bool body = false;
};

/// A room that a skin has on its far side instead of the weather. Without its vapour and radiation it is a building, met by a
/// surface resistance that holds both.
struct Behind {
  int air = -1, vapour = -1, radiation = -1;
};

/// Signals of a blanket: 1 while it is closed, 1 while it is open, and the share of the cover's inner film left to the air.
struct BlanketSignals {
  int closed = -1, open = -1, film = -1;
};

/// Signals of a roof that draws back: 1 while it covers the house, 1 while it is open. Blankets under it have these in theirs.
struct RoofSignals {
  int shut = -1, open = -1;
};

/// Faces that share a skin.
struct CoverPart {
  FaceGroup group = FaceGroup::roof;
  std::string id;
  double area_m2 = 0.0;
  double skyView = 0.5;
  std::vector<CoverSheet> sheets; ///< outermost first
  std::optional<CoverSheet> blanket;
  Behind behind;
  bool overBed = false; ///< the soil of a bed and the sheet over it: nothing of it sees the weather
  std::size_t toAir = 0;
  std::string prefix = {};    ///< of its nodes' names
  BlanketSignals hung = {};   ///< of the blanket
  RoofSignals drawnBack = {}; ///< of a roof that draws back
  int wet = -1;               ///< relay: water stands on the innermost sheet
};

struct CoverSurroundings {
  int air = -1, vapour = -1, floor = -1, outside = -1, sky = -1; ///< floor -1: there is none, as over a ceiling
  int windFilm = -1;                                             ///< signal: the outside film, W/(m2 K)
};

class Covers {
public:
  Covers(Network& network, const CoverSurroundings& at, double inside_C, double outside_C, Materials materials = {})
      : m_net(network), m_at(at), m_inside(inside_C), m_outside(outside_C), m_materials(std::move(materials)) {}

  /// `id` names the part in the links, with `prefix` before it the nodes.
  CoverPart& add(const Skin& skin, FaceGroup group, double area_m2, double skyView, const std::string& id, const Behind& behind = {},
                 const std::string& prefix = "");
  /// A sheet over a bed inside the house: between bed air and house air by its own area, for radiation by the bed's, which is
  /// what soil and sheet see of each other. The bed's floor node must be there.
  CoverPart& tuck(const BedCover& cover, int bedAir, int bedVapour, int bedFloor, const std::string& id);
  void hang(CoverPart& part, const NightBlanket& blanket, const BlanketSignals& when);
  /// Gathered while it is open: its sheets see nothing of the room then, and the room sees the sky.
  void drawBack(CoverPart& part, const RoofSignals& when);
  /// Long-wave links between all parts and the floor, once all have been added. Skins that other rooms have towards this one
  /// are of its enclosure too.
  void exchange(double floor_m2, double othersSkins_m2 = 0.0);
  /// After exchange(): the node whose temperature is that of the radiation all covers send down.
  [[nodiscard]] int radiation() const { return m_radiation; }
  [[nodiscard]] const std::vector<CoverPart>& parts() const { return m_parts; }

private:
  CoverSheet sheet(const std::string& id, const Layer& layer, double area_m2);
  void body(CoverSheet& sheet, const std::string& id, double resistance_m2K_W, double capacity_J_m2K, double area_m2);
  void exchange(const CoverPart& part, bool withBlanket, int modulator);
  void wets(CoverPart& part, std::size_t film, double area_m2);

  Network& m_net;
  CoverSurroundings m_at;
  double m_inside, m_outside;
  Materials m_materials;
  std::vector<CoverPart> m_parts;
  int m_radiation = -1;
};

/// Free convection from plates h = k dT^(1/3), W/(m2 K^(4/3)): over a warm floor, and inside a cover; and the exponent.
constexpr double kFloorFilm = 1.5;
/// Inside a cover.
double insideFilm_W_m2K43(FaceGroup group);
constexpr double kFilmExponent = 1.0 / 3.0;

/// The mean view of the sky of a group of faces, 0..1.
double skyView(FaceGroup group, const HouseShape& shape);

/// Solar transmittance of a skin (diffuse, clean) and the absorptance of its sheets, outermost first.
struct SkinOptics {
  double transmittance;
  std::vector<double> absorptance;
};
SkinOptics skinOptics(const Skin& skin, const Materials& materials = {});

/// Under what a skin's U-value is stated.
struct SkinNight {
  double inside_C = 10.0;
  double outside_C = -5.0;
  double wind_m_s = 3.0;
  double humidity = 0.85;  ///< relative, inside: over moist soil and leaves
  double skyBelow_K = 0.0; ///< the sky is this much colder than the air: 0 overcast, 20 and more clear
};
/// Heat through a level metre of a skin over a floor at the air's temperature, by the difference of the airs; everything
/// counts, long-wave through films included. W/(m2 K); nothing if no balance is found.
std::optional<double> skinU_W_m2K(const Skin& skin, FaceGroup group = FaceGroup::roof, const SkinNight& night = {}, const Materials& materials = {});

} // namespace muffle
