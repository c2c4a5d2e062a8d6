// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/covers.h"

#include "core/air/moist_air.h"
#include "core/house/resistance.h"
#include "core/material/materials.h"
#include "core/network/solver.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kRoofFilm = 1.7;
constexpr double kSmallDifference_K = 5.0; // up to which ISO 6946 takes a layer's convection as constant
constexpr double kWallFilm = 1.5;
constexpr double kFloorEmissivity = 0.95;
constexpr double kRadiationCapacity_J_m2K = 1.0; // none to speak of: the room's radiation follows within a second
constexpr double kThinSheet_m2K_W = 0.02;        // below this a layer is one node
constexpr double kBodyPiece_s = 3600.0;          // resistance x capacity of a piece: a day's wave runs through 24 of them
constexpr int kMostBodyPieces = 8;
constexpr double kBlanketGap_m = 0.15;
constexpr double kBlanketOpenTie_W_m2K = 20.0; // a gathered blanket follows the air

constexpr double kDropsCover = 0.55;
constexpr double kWaterEmissivity = 0.96;
constexpr double kWets_g_m2 = 1.0;   // a first mist
constexpr double kHolds_g_m2 = 60.0; // drops of a sixteenth of a millimetre on the whole: more runs off

/// A sheet with drops on it.
LongwaveSheet wetted(const LongwaveSheet& dry) {
  const double covered = kDropsCover * dry.transmittance;
  return {dry.emissivity + kWaterEmissivity * covered, dry.transmittance - covered, dry.inner() + kWaterEmissivity * covered};
}

HeatFlow throughGap(FaceGroup group) { return group == FaceGroup::roof ? HeatFlow::up : HeatFlow::horizontal; }

double gapConvection(FaceGroup group, double gap_m) { return airLayerConvection_W_m2K(gap_m, throughGap(group)); }

/// Between two faces: by the difference where the air turns over, else as of still air.
void linkGap(Network& net, int outer, int inner, double area_m2, FaceGroup group, double gap_m) {
  const double turning = airLayerTurning_W_m2K43(throughGap(group));
  if (airLayerConvection_W_m2K(gap_m, throughGap(group)) > turning * std::cbrt(kSmallDifference_K) + 1e-6)
    net.addConductance(outer, inner, area_m2 * gapConvection(group, gap_m)); // too narrow to turn over
  else
    net.addNatural(outer, inner, area_m2, turning, kFilmExponent);
}

} // namespace

double insideFilm_W_m2K43(FaceGroup group) { return group == FaceGroup::roof ? kRoofFilm : kWallFilm; }

double skyView(FaceGroup group, const HouseShape& shape) {
  double view = 0.0, area = 0.0;
  for (const Face& f : shape.faces()) {
    if (f.group != group) continue;
    view += f.area_m2 * (1.0 + std::cos(radians(f.slope_deg))) / 2.0;
    area += f.area_m2;
  }
  return area > 0.0 ? view / area : 0.5;
}

CoverSheet Covers::sheet(const std::string& id, const Layer& layer, double area) {
  const CoverMaterial& m = *m_materials.find(layer.material);
  CoverSheet sheet{-1, -1, m.longwave, m.resistance_m2K_W >= kThinSheet_m2K_W};
  if (sheet.body)
    body(sheet, id, m.resistance_m2K_W, m.capacity_J_m2K, area);
  else
    sheet.outerNode = sheet.innerNode = m_net.addNode(id, m.capacity_J_m2K * area, m_outside);
  return sheet;
}

/// A heavy body is cut so that no piece's own time is longer than kBodyPiece_s.
void Covers::body(CoverSheet& sheet, const std::string& id, double resistance, double capacityByArea, double area) {
  const int pieces = std::clamp(static_cast<int>(std::ceil(std::sqrt(resistance * capacityByArea / kBodyPiece_s))), 1, kMostBodyPieces);
  const double capacity = capacityByArea * area / pieces;
  const double conductance = area / resistance * pieces;
  int before = sheet.outerNode = m_net.addNode(id + " outer", capacity / 2.0, m_outside);
  for (int k = 1; k < pieces; ++k) {
    const int node = m_net.addNode(fmt::format("{} within {}", id, k), capacity, m_outside + (m_inside - m_outside) * k / pieces);
    m_net.addConductance(before, node, conductance);
    before = node;
  }
  sheet.innerNode = m_net.addNode(id + " inner", capacity / 2.0, pieces > 1 ? m_inside : m_outside);
  m_net.addConductance(before, sheet.innerNode, conductance);
}

CoverPart& Covers::add(const Skin& skin, FaceGroup group, double area, double view, const std::string& id, const Behind& behind, const std::string& prefix) {
  CoverPart part{group, id, area, view, {}, std::nullopt, behind, false, 0, prefix, {}, {}, -1};
  for (std::size_t l = 0; l < skin.layers.size(); ++l) {
    CoverSheet next = sheet(fmt::format("{}{} {}", prefix, id, l + 1), skin.layers[l], area);
    if (l > 0) linkGap(m_net, part.sheets.back().innerNode, next.outerNode, area, group, skin.layers[l - 1].gap_m);
    part.sheets.push_back(next);
  }
  if (behind.radiation >= 0)
    m_net.addNatural(behind.air, part.sheets.front().outerNode, area, kWallFilm, kFilmExponent).vapour = behind.vapour;
  else if (behind.air >= 0)
    m_net.addConductance(part.sheets.front().outerNode, behind.air, area / insideSurface_m2K_W(HeatFlow::horizontal), id);
  else
    m_net.addConductance(part.sheets.front().outerNode, m_at.outside, area, id).modulator = m_at.windFilm;
  part.toAir = m_net.links.size();
  m_net.addNatural(m_at.air, part.sheets.back().innerNode, area, insideFilm_W_m2K43(group), kFilmExponent).vapour = m_at.vapour;
  wets(part, part.toAir, area);
  m_parts.push_back(std::move(part));
  return m_parts.back();
}

CoverPart& Covers::tuck(const BedCover& cover, int bedAir, int bedVapour, int bedFloor, const std::string& id) {
  const double area = cover.cover_m2();
  CoverPart part{FaceGroup::roof, id, cover.bed_m2(), 0.0, {}, std::nullopt, {}, true, 0, {}, {}, {}, -1};
  part.sheets.push_back({bedFloor, bedFloor, {kFloorEmissivity, 0.0}, false});
  CoverSheet over = sheet(id, {cover.material, 0.05}, area);
  part.toAir = m_net.links.size();
  // from the soil's side outwards: the sheet's first face looks at the bed, its last at the house
  if (over.longwave.innerEmissivity >= 0.0) std::swap(over.longwave.emissivity, over.longwave.innerEmissivity);
  m_net.addNatural(m_at.air, over.innerNode, area, kRoofFilm, kFilmExponent).vapour = m_at.vapour;
  m_net.addNatural(bedAir, over.outerNode, area, kRoofFilm, kFilmExponent).vapour = bedVapour;
  part.sheets.push_back(over);
  wets(part, part.toAir + 1, area);
  m_parts.push_back(std::move(part));
  return m_parts.back();
}

/// Counts the water on the inside of a part, which dries off by the same film.
void Covers::wets(CoverPart& part, std::size_t film, double area) {
  if (m_net.links[film].vapour < 0) return;
  part.wet = static_cast<int>(m_net.relays.size());
  m_net.relays.push_back({part.prefix + part.id + " wet", SurfaceWater{static_cast<int>(film), kWets_g_m2 * area, kHolds_g_m2 * area}});
  m_net.links[film].relay = part.wet;
}

void Covers::hang(CoverPart& part, const NightBlanket& blanket, const BlanketSignals& when) {
  m_net.links[part.toAir].modulator = when.film;
  const CoverMaterial& m = *m_materials.find(blanket.material);
  part.blanket = sheet(part.prefix + part.id + " blanket", {blanket.material, kBlanketGap_m}, part.area_m2);
  part.hung = when;
  Link& film = m_net.addNatural(m_at.air, part.blanket->innerNode, part.area_m2, insideFilm_W_m2K43(part.group), kFilmExponent);
  film.modulator = when.closed;
  film.vapour = m_at.vapour;
  // a body has its resistance between its faces, for all that passes; a thin cloth's stands with the air
  const double own_m2K_W = part.blanket->body ? 0.0 : m.resistance_m2K_W;
  const double gap = 1.0 / (1.0 / gapConvection(part.group, kBlanketGap_m) + own_m2K_W);
  m_net.addConductance(part.blanket->outerNode, part.sheets.back().innerNode, part.area_m2 * gap).modulator = when.closed;
  m_net.addConductance(part.blanket->innerNode, m_at.air, part.area_m2 * kBlanketOpenTie_W_m2K).modulator = when.open;
  if (part.blanket->body) m_net.addConductance(part.blanket->outerNode, m_at.air, part.area_m2 * kBlanketOpenTie_W_m2K).modulator = when.open;
}

void Covers::drawBack(CoverPart& part, const RoofSignals& when) {
  part.drawnBack = when;
  if (!part.blanket) m_net.links[part.toAir].modulator = when.shut;
}

void Covers::exchange(double floor_m2, double othersSkins_m2) {
  double area = othersSkins_m2;
  for (const CoverPart& part : m_parts) area += part.area_m2;
  m_radiation = m_net.addNode(m_parts.front().prefix + "radiation", kRadiationCapacity_J_m2K * area, m_inside);
  if (m_at.floor >= 0) m_net.addRadiative(m_at.floor, m_radiation, floorToRoom_m2(floor_m2, kFloorEmissivity, area));
  for (const CoverPart& part : m_parts) {
    exchange(part, false, part.blanket ? part.hung.open : part.drawnBack.shut);
    if (part.blanket) exchange(part, true, part.hung.closed);
    if (part.drawnBack.open < 0) continue;
    m_net.addRadiative(m_radiation, m_at.sky, part.area_m2 * part.skyView, part.id).modulator = part.drawnBack.open;
    m_net.addRadiative(m_radiation, m_at.outside, part.area_m2 * (1.0 - part.skyView), part.id).modulator = part.drawnBack.open;
  }
}

/// The links of one part's stack: among its sheets, to the room's radiation and to what lies outside.
void Covers::exchange(const CoverPart& part, bool withBlanket, int modulator) {
  struct Surface {
    int node;
    int firstOfBody; ///< the sheet whose other face follows it, or -1
  };
  LongwaveCover cover{part.area_m2, {}};
  std::vector<Surface> surfaces{{-1, -1}, {m_radiation, -1}}; // as numbered by longwaveStack()
  const auto add = [&](const CoverSheet& s) {
    if (!s.body) {
      cover.sheets.push_back(s.longwave);
      surfaces.push_back({s.outerNode, -1});
      return;
    }
    const int index = static_cast<int>(surfaces.size());
    for (const int node : {s.outerNode, s.innerNode}) { // two opaque faces: what passes between them is in the body's resistance
      cover.sheets.push_back({node == s.outerNode ? s.longwave.emissivity : s.longwave.inner(), 0.0});
      surfaces.push_back({node, index});
    }
  };
  for (const CoverSheet& s : part.sheets) add(s);
  const std::size_t innermost = cover.sheets.size() - 1; // of the cover itself, on which water condenses
  if (withBlanket) add(*part.blanket);
  const LongwaveStack areas = longwaveStack(cover);
  LongwaveCover wet = cover;
  LongwaveSheet& inner = wet.sheets[innermost];
  inner = wetted(inner);
  const LongwaveStack wetAreas = longwaveStack(wet);
  const auto link = [&](int a, int b, std::size_t i, std::size_t j, double share, const std::string& id) {
    constexpr double kNone_m2 = 1e-9;
    const double area = areas[i][j] * share, wetArea = wetAreas[i][j] * share;
    if (area < kNone_m2) return;
    Link& radiative = m_net.addRadiative(a, b, area, id);
    radiative.modulator = modulator;
    if (std::abs(wetArea - area) < kNone_m2) return;
    radiative.relay = part.wet;
    radiative.relayFactor = std::max(wetArea, kNone_m2) / area;
  };
  for (std::size_t i = kStackRoom; i < surfaces.size(); ++i) {
    if (part.behind.radiation >= 0) {
      link(surfaces[i].node, part.behind.radiation, i, kStackOutside, 1.0, "");
    } else if (part.behind.air < 0 && !part.overBed) {
      link(surfaces[i].node, m_at.sky, i, kStackOutside, part.skyView, part.id);
      link(surfaces[i].node, m_at.outside, i, kStackOutside, 1.0 - part.skyView, part.id);
    }
    for (std::size_t j = i + 1; j < surfaces.size(); ++j)
      if (surfaces[i].firstOfBody < 0 || surfaces[i].firstOfBody != surfaces[j].firstOfBody) link(surfaces[i].node, surfaces[j].node, i, j, 1.0, "");
  }
}

SkinOptics skinOptics(const Skin& skin, const Materials& materials) {
  SkinOptics o{1.0, {}};
  double reflectance = 0.0;
  for (const Layer& layer : skin.layers) {
    const CoverMaterial& m = *materials.find(layer.material);
    const double between = 1.0 - reflectance * m.solarReflectance; // light caught between this sheet and those outside it
    o.absorptance.push_back(o.transmittance * (1.0 - m.solarTransmittance - m.solarReflectance) / between);
    reflectance += o.transmittance * o.transmittance * m.solarReflectance / between;
    o.transmittance *= m.solarTransmittance / between;
  }
  return o;
}

std::optional<double> skinU_W_m2K(const Skin& skin, FaceGroup group, const SkinNight& night, const Materials& materials) {
  Network net;
  CoverSurroundings at;
  at.air = net.addBoundary("air", Driver::constant(night.inside_C));
  at.vapour = net.addBoundary("vapour", Driver::constant(1000.0 * humidityRatio(night.humidity * saturationPressure_Pa(night.inside_C))));
  at.floor = net.addBoundary("floor", Driver::constant(night.inside_C));
  at.outside = net.addBoundary("outside", Driver::constant(night.outside_C));
  at.sky = net.addBoundary("sky", Driver::constant(night.outside_C - night.skyBelow_K));
  Signal film;
  film.value = {4.0 + 4.0 * night.wind_m_s};
  film.step_s = 600.0;
  at.windFilm = net.addSignal(std::move(film));
  Covers covers(net, at, night.inside_C, night.outside_C, materials);
  const bool level = group == FaceGroup::roof;
  covers.add(skin, group, 1.0, level ? 1.0 : 0.5, "skin");
  covers.exchange(1.0);
  auto solver = Solver::prepare(net);
  if (!solver || !solver->solveSteady()) return std::nullopt;
  double q = 0.0;
  for (std::size_t l = 0; l < net.links.size(); ++l) {
    const auto outdoors = [&](int node) { return node == at.outside || node == at.sky; };
    const bool out = outdoors(net.links[l].to);
    if (out != outdoors(net.links[l].from)) q += (out ? 1.0 : -1.0) * solver->linkFlow_W(static_cast<int>(l));
  }
  return q / (night.inside_C - night.outside_C);
}

} // namespace muffle
