// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/assemble.h"

#include "core/air/moist_air.h"
#include "core/ground/slab.h"
#include "core/ground/soil.h"
#include "core/house/infiltration.h"
#include "core/house/longwave.h"
#include "core/house/resistance.h"
#include "core/material/materials.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

// Film coefficients. Inside, free convection from plates: h = k dT^(1/3), k 1.7 under a roof and 1.5 at walls and over a
// warm floor (Churchill and Chu, with the turbulent limit of air near 5 degC). Outside, ISO 6946: h_c = 4 + 4 v.
constexpr double kRoofFilm = 1.7;
constexpr double kWallFilm = 1.5;
// Over moist soil and crop the night air is near saturation and its vapour condenses on the cover. By the analogy of heat
// and mass transfer q_latent/q_sensible = (L/cp) (W_air - W_s(T_cover))/(T_air - T_cover), which at 85 to 95 % humidity is
// 0.4 to 0.9 between 0 and 15 degC. Moisture is not modelled yet: 0.6 is taken, so the film carries 1.6 times as much.
constexpr double kCondensation = 1.6;
constexpr double kFloorFilm = 1.5;
constexpr double kThird = 1.0 / 3.0;
constexpr double kFloorEmissivity = 0.95;
constexpr double kCropCapacity_J_m2K = 20000.0; // trays, crop and benches per m2 of floor: about 5 kg of water
constexpr double kThinSheet_m2K_W = 0.02;       // below this a layer is one node
constexpr double kBlanketGap_m = 0.15;
constexpr double kBlanketOpenTie_W_m2K = 20.0; // a gathered blanket follows the air
constexpr double kDirtAndFrame = 0.82;         // share of light left by dirt and bars
constexpr double kFloorShare = 0.60;           // of the light that reaches the floor; the rest warms leaves and air
constexpr double kAirShare = 0.22;             // or leaves again
constexpr double kSoilDepth_m = 1.2;
constexpr double kSoilLayers_m[] = {0.02, 0.04, 0.08, 0.14, 0.22, 0.30, 0.40};
constexpr int kEdgeLayer = 3; // the edge draws on the soil at 0.14 m

double skyView(FaceGroup group, const HouseShape& shape) {
  double view = 0.0, area = 0.0;
  for (const Face& f : shape.faces()) {
    if (f.group != group) continue;
    view += f.area_m2 * (1.0 + std::cos(radians(f.slope_deg))) / 2.0;
    area += f.area_m2;
  }
  return area > 0.0 ? view / area : 0.5;
}

struct Sheet {
  int outerNode, innerNode; ///< equal for thin sheets
  LongwaveSheet longwave;
  bool opaquePair = false; ///< outer and inner are the two faces of one body
};

class Assembler {
public:
  Assembler(const Plan& plan, const Winter& winter, const SunOnHouse& sun)
      : m_plan(plan), m_house(plan.house), m_winter(winter), m_sun(sun), m_net(m_a.network) {}

  Assembly run() {
    boundaries();
    m_a.air = m_net.addNode("air", airCapacity(), start());
    ground();
    covers();
    if (m_house.shape.kind == ShapeKind::leanTo) backWall();
    draughts();
    barrels();
    sun();
    heater();
    tagLosses();
    m_net.step_s = m_winter.step_s;
    m_net.end_s = m_winter.step_s * static_cast<double>(m_winter.size() - 1);
    m_a.sunSources = static_cast<int>(m_net.sources.size());
    return std::move(m_a);
  }

private:
  double start() const { return std::max(m_winter.outside_C.front() + 2.0, m_plan.setpoints.night_C); }
  double airCapacity() const { return airDensity_kg_m3(5.0) * kAirHeat_J_kgK * m_house.shape.volume_m3() + kCropCapacity_J_m2K * m_house.shape.floor_m2(); }

  int signal(std::vector<double> values, bool hold = false) {
    Signal s;
    s.value = std::move(values);
    s.step_s = m_winter.step_s;
    s.hold = hold;
    return m_net.addSignal(std::move(s));
  }
  template <class F> int signalOf(F f, bool hold = false) {
    std::vector<double> v(m_winter.size());
    for (std::size_t i = 0; i < v.size(); ++i) v[i] = f(i);
    return signal(std::move(v), hold);
  }

  void boundaries() {
    m_a.outside = m_net.addBoundary("outside", Driver::table(signal(m_winter.outside_C)));
    m_a.sky = m_net.addBoundary("sky", Driver::table(signal(m_winter.sky_C)));
    std::vector<double> night(m_winter.size(), 0.0);
    for (const NightSpan& span : m_winter.nights)
      for (std::size_t i = span.from; i < span.to; ++i) night[i] = 1.0; // the step from i to i+1 lies in the night
    m_night = night;
    m_windFilm = signalOf([&](std::size_t i) { return 4.0 + 4.0 * m_winter.wind_m_s[i]; });
  }

  void ground() {
    const SoilMaterial& soil = *findSoilMaterial(m_house.floor.soil);
    UndisturbedGround far{m_plan.site.groundMean_C, m_plan.site.groundAmplitude_K, m_plan.site.coldestDay, soil.conductivity_W_mK,
                          soil.density_kg_m3 * soil.heat_J_kgK};
    Signal below; // day by day: between two days its wave is straight to 1e-4 of its amplitude
    below.step_s = 86400.0;
    const auto days = static_cast<std::size_t>(m_winter.step_s * static_cast<double>(m_winter.size()) / below.step_s) + 2;
    for (std::size_t d = 0; d < days; ++d) below.value.push_back(far.temperature_C(kSoilDepth_m, m_winter.startDay + static_cast<double>(d)));
    m_a.deep = m_net.addBoundary("deep ground", Driver::table(m_net.addSignal(std::move(below))));
    m_a.floor = m_net.addNode("floor", 0.0, start());
    Solid solid;
    solid.id = "soil";
    solid.area_m2 = m_house.shape.floor_m2();
    solid.from = m_a.floor;
    solid.to = m_a.deep;
    solid.initial_C = start();
    solid.initialFar_C = far.temperature_C(kSoilDepth_m, m_winter.startDay);
    for (const double d : kSoilLayers_m) solid.layers.push_back({d, soil.conductivity_W_mK, soil.density_kg_m3, soil.heat_J_kgK, 1});
    m_net.addSolid(solid);
    m_a.soil.push_back(m_a.floor);
    m_a.soilDepth_m.push_back(0.0);
    double depth = 0.0;
    for (std::size_t l = 0; l + 1 < std::size(kSoilLayers_m); ++l) {
      depth += kSoilLayers_m[l];
      m_a.soil.push_back(m_net.find(fmt::format("soil:{}", l + 1)));
      m_a.soilDepth_m.push_back(depth);
    }
    m_net.links.back().part = partId(Part::deepGround);
    m_net.addNatural(m_a.floor, m_a.air, m_house.shape.floor_m2(), kFloorFilm, kThird);

    SlabOnGround slab{m_house.shape.floor_m2(), m_house.shape.perimeter_m(), 0.05, soil.conductivity_W_mK, 0.0};
    double edge = slabPeriodic(slab, far.heat_J_m3K).outside_W_K;
    if (m_house.floor.edgeDepth_m > 0.0 && m_house.floor.edgeInsulation_m2K_W > 0.0) {
      constexpr double kBoard_W_mK = 0.035;
      const double psi = edgeInsulationPsi_W_mK(soil.conductivity_W_mK, slab.equivalentThickness_m(), m_house.floor.edgeDepth_m,
                                                m_house.floor.edgeInsulation_m2K_W * kBoard_W_mK, kBoard_W_mK, EdgeInsulation::vertical);
      edge = std::max(edge + psi * slab.perimeter_m, 0.1 * edge);
    }
    m_net.addConductance(m_net.find(fmt::format("soil:{}", kEdgeLayer)), m_a.outside, edge, partId(Part::floorEdge));
  }

  std::vector<Sheet> buildSheets(const Skin& skin, FaceGroup group, double area, const std::string& name) {
    std::vector<Sheet> sheets;
    const SkinOptics optics = skinOptics(skin);
    for (std::size_t l = 0; l < skin.layers.size(); ++l) {
      const CoverMaterial& m = *findCoverMaterial(skin.layers[l].material);
      const double capacity = m.capacity_J_m2K * area;
      const std::string id = fmt::format("{} {}", name, l + 1);
      Sheet sheet{0, 0, m.longwave};
      if (m.resistance_m2K_W < kThinSheet_m2K_W) {
        sheet.outerNode = sheet.innerNode = m_net.addNode(id, capacity, m_winter.outside_C.front());
      } else {
        sheet.opaquePair = true;
        sheet.outerNode = m_net.addNode(id + " outer", capacity / 2.0, m_winter.outside_C.front());
        sheet.innerNode = m_net.addNode(id + " inner", capacity / 2.0, m_winter.outside_C.front());
        m_net.addConductance(sheet.outerNode, sheet.innerNode, area / m.resistance_m2K_W);
      }
      m_absorbing.push_back({sheet.outerNode, static_cast<int>(group), area * optics.absorptance[l] * kDirtAndFrame});
      if (l > 0) m_net.addConductance(sheets.back().innerNode, sheet.outerNode, area * gapConvection(group, skin.layers[l - 1].gap_m));
      sheets.push_back(sheet);
    }
    return sheets;
  }

  static double gapConvection(FaceGroup group, double gap_m) {
    return airLayerConvection_W_m2K(gap_m, group == FaceGroup::roof ? HeatFlow::up : HeatFlow::horizontal);
  }

  struct Group {
    FaceGroup group;
    double area;
    Part part;
    std::vector<Sheet> sheets;
    std::optional<Sheet> blanket;
  };

  void covers() {
    int closed = -1, open = -1, film = -1;
    if (m_house.blanket) {
      closed = signal(m_night, true);
      open = signalOf([&](std::size_t i) { return 1.0 - m_night[i]; }, true);
      const double leak = m_house.blanket->leak;
      film = signalOf([&](std::size_t i) { return 1.0 - m_night[i] * (1.0 - leak); }, true);
    }
    const Skin* const skins[] = {&m_house.roof, &m_house.sides, &m_house.ends};
    for (const auto& [group, part] : {std::pair{FaceGroup::roof, Part::roof}, {FaceGroup::sides, Part::sides}, {FaceGroup::ends, Part::ends}}) {
      const double area = m_house.shape.area_m2(group);
      m_a.inner.push_back(-1);
      m_a.outer.push_back(-1);
      if (area <= 0.0) continue;
      Group g{group, area, part, buildSheets(*skins[static_cast<int>(group)], group, area, partId(part)), std::nullopt};
      m_a.outer.back() = g.sheets.front().outerNode;
      m_a.inner.back() = g.sheets.back().innerNode;
      m_net.addConductance(g.sheets.front().outerNode, m_a.outside, area, partId(part)).modulator = m_windFilm;
      const double k = kCondensation * (group == FaceGroup::roof ? kRoofFilm : kWallFilm);
      auto& toAir = m_net.addNatural(m_a.air, g.sheets.back().innerNode, area, k, kThird);
      if (m_house.blanket) {
        toAir.modulator = film;
        const CoverMaterial& m = *findCoverMaterial(m_house.blanket->material);
        const int node = m_net.addNode(fmt::format("{} blanket", partId(part)), m.capacity_J_m2K * area, start());
        g.blanket = Sheet{node, node, m.longwave};
        m_net.addNatural(m_a.air, node, area, k, kThird).modulator = closed;
        const double gap = 1.0 / (1.0 / gapConvection(group, kBlanketGap_m) + m.resistance_m2K_W);
        m_net.addConductance(node, g.sheets.back().innerNode, area * gap).modulator = closed;
        m_net.addConductance(node, m_a.air, area * kBlanketOpenTie_W_m2K).modulator = open;
      }
      m_groups.push_back(std::move(g));
    }
    longwave(false, m_house.blanket ? open : -1);
    if (m_house.blanket) longwave(true, closed);
  }

  void longwave(bool withBlanket, int modulator) {
    std::vector<LongwaveCover> covers;
    std::vector<std::vector<std::pair<int, int>>> faces; // per cover and sheet: outward and inward node
    for (const Group& g : m_groups) {
      LongwaveCover cover{g.area, {}};
      std::vector<std::pair<int, int>> nodes;
      const auto add = [&](const Sheet& s) {
        if (s.opaquePair) { // two opaque faces: what passes between them is in the body's resistance
          cover.sheets.push_back({s.longwave.emissivity, 0.0});
          cover.sheets.push_back({s.longwave.emissivity, 0.0});
          nodes.emplace_back(s.outerNode, -1);
          nodes.emplace_back(s.innerNode, -1);
        } else {
          cover.sheets.push_back(s.longwave);
          nodes.emplace_back(s.outerNode, s.innerNode);
        }
      };
      for (const Sheet& s : g.sheets) add(s);
      if (withBlanket && g.blanket) add(*g.blanket);
      covers.push_back(std::move(cover));
      faces.push_back(std::move(nodes));
    }
    const LongwaveAreas areas = longwaveAreas(m_house.shape.floor_m2(), kFloorEmissivity, covers);
    struct Surface {
      int node;
      int cover;
      int sheet;
    };
    std::vector<Surface> surfaces(areas.between.size(), {m_a.floor, -1, -1});
    std::vector<bool> isOutside(areas.between.size(), false);
    for (std::size_t c = 0; c < covers.size(); ++c) {
      isOutside[static_cast<std::size_t>(areas.outside[c])] = true;
      surfaces[static_cast<std::size_t>(areas.outside[c])] = {-1, static_cast<int>(c), -1};
      for (std::size_t s = 0; s < covers[c].sheets.size(); ++s)
        surfaces[static_cast<std::size_t>(areas.sheets[c][s])] = {faces[c][s].first, static_cast<int>(c), static_cast<int>(s)};
    }
    const auto link = [&](int a, int b, double area, const char* part) {
      if (a == b || area < 1e-9) return;
      m_net.addRadiative(a, b, area, part).modulator = modulator;
    };
    for (std::size_t i = 0; i < surfaces.size(); ++i) {
      for (std::size_t j = i + 1; j < surfaces.size(); ++j) {
        const double area = areas.between[i][j];
        if (isOutside[i] && isOutside[j]) continue; // sky through the house to sky: both at the same temperatures
        if (isOutside[i] || isOutside[j]) {
          const auto out = isOutside[i] ? i : j;
          const auto in = isOutside[i] ? j : i;
          const Group& g = m_groups[static_cast<std::size_t>(surfaces[out].cover)];
          const double view = skyView(g.group, m_house.shape);
          link(surfaces[in].node, m_a.sky, area * view, partId(g.part));
          link(surfaces[in].node, m_a.outside, area * (1.0 - view), partId(g.part));
          continue;
        }
        const bool samePair = surfaces[i].cover == surfaces[j].cover && surfaces[i].cover >= 0 &&
                              faces[static_cast<std::size_t>(surfaces[i].cover)][static_cast<std::size_t>(surfaces[i].sheet)].second < 0 &&
                              surfaces[j].sheet == surfaces[i].sheet + 1 &&
                              faces[static_cast<std::size_t>(surfaces[j].cover)][static_cast<std::size_t>(surfaces[j].sheet)].second < 0 &&
                              bodyPair(surfaces[i].cover, surfaces[i].sheet);
        if (!samePair) link(surfaces[i].node, surfaces[j].node, area, "");
      }
    }
  }

  /// True if sheet s and s+1 of the expanded stack are the two faces of one body.
  bool bodyPair(int cover, int s) const {
    int at = 0;
    for (const Sheet& sheet : m_groups[static_cast<std::size_t>(cover)].sheets) {
      if (sheet.opaquePair && at == s) return true;
      at += sheet.opaquePair ? 2 : 1;
    }
    return false;
  }

  void backWall() { // the wall of the building behind: 0.3 m of masonry, U near 1.5, at its given temperature or outside's
    const double area = m_house.shape.area_m2(FaceGroup::backWall);
    const int behind = m_house.backWall_C ? m_net.addBoundary("building", Driver::constant(*m_house.backWall_C)) : m_a.outside;
    Solid wall;
    wall.id = "back wall";
    wall.area_m2 = area;
    wall.from = m_a.air;
    wall.hFrom_W_m2K = 1.0 / insideSurface_m2K_W(HeatFlow::horizontal);
    wall.to = behind;
    wall.hTo_W_m2K = m_house.backWall_C ? 1.0 / insideSurface_m2K_W(HeatFlow::horizontal) : 1.0 / kOutsideSurface_m2K_W;
    wall.initial_C = start();
    wall.initialFar_C = m_house.backWall_C.value_or(m_winter.outside_C.front());
    wall.layers.push_back({0.3, 0.8, 1800.0, 900.0, 4});
    m_net.addSolid(wall);
    m_net.links.back().part = partId(Part::backWall);
  }

  void draughts() {
    const double volume = m_house.shape.volume_m3();
    const double pressure = pressureAtElevation_Pa(m_plan.site.place.elevation_m);
    const int conductance = signalOf([&](std::size_t i) {
      return airChangeConductance_W_K(m_house.airChanges_per_h + m_house.windAirChanges * m_winter.wind_m_s[i], volume, m_winter.outside_C[i], pressure);
    });
    m_net.addConductance(m_a.air, m_a.outside, 1.0, partId(Part::draughts)).modulator = conductance;
    m_net.vents.push_back({m_a.air, m_a.outside, m_a.air, m_house.ventOpens_C, m_house.ventFull_C,
                           airChangeConductance_W_K(m_house.ventAirChanges_per_h, volume, 10.0, pressure), partId(Part::vents)});
  }

  void barrels() {
    for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
      const Barrels& group = m_plan.barrels[b];
      const BarrelSize size = barrelSize(group.litres);
      const int node = m_net.addNode(fmt::format("barrels {}", b + 1), group.count * group.litres / 1000.0 * kWaterDensity_kg_m3 * kWaterHeat_J_kgK, start());
      m_net.addConductance(node, m_a.air, group.count * size.surface_m2 * group.film_W_m2K);
      m_a.barrels.push_back(node);
    }
  }

  void sun() {
    double transmittance = 0.0;
    const Skin* const skins[] = {&m_house.roof, &m_house.sides, &m_house.ends};
    for (const FaceGroup g : {FaceGroup::roof, FaceGroup::sides, FaceGroup::ends})
      transmittance += m_house.shape.area_m2(g) / m_house.shape.cover_m2() * skinOptics(*skins[static_cast<int>(g)]).transmittance;
    transmittance *= kDirtAndFrame;
    const double floor = m_house.shape.floor_m2();
    const int inside = signalOf([&](std::size_t i) { return transmittance * floor * (m_sun.beamInside_W_m2[i] + m_sun.diffuse_W_m2[i]); });
    m_net.sources.push_back({m_a.floor, Driver::table(inside, kFloorShare), "sun on the floor"});
    m_net.sources.push_back({m_a.air, Driver::table(inside, kAirShare), "sun on leaves"});
    if (!m_plan.barrels.empty()) {
      const int upright = signal(m_sun.upright_W_m2);
      for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
        const Barrels& group = m_plan.barrels[b];
        const double factor = group.count * barrelSize(group.litres).silhouette_m2 * group.sunShare * barrelAbsorptance(group.colour) * transmittance;
        m_net.sources.push_back({m_a.barrels[b], Driver::table(upright, factor), "sun on barrels"});
      }
    }
    int groupSignal[3] = {-1, -1, -1};
    for (const auto& absorbing : m_absorbing) {
      int& s = groupSignal[absorbing.group];
      if (s < 0) s = signal(m_sun.group_W_m2[static_cast<std::size_t>(absorbing.group)]);
      m_net.sources.push_back({absorbing.node, Driver::table(s, absorbing.factor), "sun on the cover"});
    }
  }

  void heater() {
    if (!m_plan.heater || m_plan.heater->power_W <= 0.0) return;
    Thermostat t;
    t.id = m_plan.heater->name;
    t.sensor = t.heats = m_a.air;
    t.power_W = m_plan.heater->power_W;
    t.setpointSignal = signalOf([&](std::size_t i) { return m_night[i] > 0.0 ? m_plan.setpoints.night_C : m_plan.setpoints.day_C; }, true);
    m_a.heater = static_cast<int>(m_net.thermostats.size());
    m_net.thermostats.push_back(t);
  }

  void tagLosses() {
    for (std::size_t l = 0; l < m_net.links.size(); ++l)
      for (int p = 0; p < kPartCount; ++p)
        if (m_net.links[l].part == partId(static_cast<Part>(p))) m_a.losses.emplace_back(static_cast<int>(l), static_cast<Part>(p));
    for (std::size_t v = 0; v < m_net.vents.size(); ++v) m_a.losses.emplace_back(static_cast<int>(m_net.links.size() + v), Part::vents);
  }

  struct Absorbing {
    int node;
    int group;
    double factor;
  };
  const Plan& m_plan;
  const House& m_house;
  const Winter& m_winter;
  const SunOnHouse& m_sun;
  Assembly m_a;
  Network& m_net;
  std::vector<double> m_night;
  int m_windFilm = -1;
  std::vector<Group> m_groups;
  std::vector<Absorbing> m_absorbing;
};

} // namespace

const char* partId(Part part) {
  static const char* const kIds[] = {"roof", "sides", "ends", "back wall", "draughts", "vents", "floor edge", "deep ground"};
  return kIds[static_cast<int>(part)];
}

BarrelSize barrelSize(double litres) {
  constexpr double kSlender = 1.5;
  const double diameter = std::cbrt(litres / 1000.0 / (kPi / 4.0 * kSlender));
  const double height = kSlender * diameter;
  return {diameter, height, kPi * diameter * height + kPi / 4.0 * diameter * diameter, diameter * height};
}

double barrelAbsorptance(BarrelColour colour) {
  switch (colour) { // paint tables, Duffie and Beckman ch. 4; bare is galvanised steel
  case BarrelColour::black: return 0.93;
  case BarrelColour::blue: return 0.75;
  case BarrelColour::white: return 0.30;
  case BarrelColour::bare: return 0.45;
  }
  return 0.0;
}

SkinOptics skinOptics(const Skin& skin) {
  SkinOptics o{1.0, {}};
  double reflectance = 0.0;
  for (const Layer& layer : skin.layers) {
    const CoverMaterial& m = *findCoverMaterial(layer.material);
    const double between = 1.0 - reflectance * m.solarReflectance; // light caught between this sheet and those outside it
    o.absorptance.push_back(o.transmittance * (1.0 - m.solarTransmittance - m.solarReflectance) / between);
    reflectance += o.transmittance * o.transmittance * m.solarReflectance / between;
    o.transmittance *= m.solarTransmittance / between;
  }
  return o;
}

Assembly assemble(const Plan& plan, const Winter& winter, const SunOnHouse& sun) { return Assembler(plan, winter, sun).run(); }

} // namespace muffle
