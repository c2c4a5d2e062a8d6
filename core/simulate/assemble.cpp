// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/assemble.h"

#include "core/air/moist_air.h"
#include "core/ground/slab.h"
#include "core/ground/soil.h"
#include "core/house/infiltration.h"
#include "core/house/resistance.h"
#include "core/material/materials.h"
#include "core/simulate/blanket.h"
#include "core/simulate/covers.h"
#include "core/simulate/openings.h"
#include "core/simulate/room_air.h"
#include "core/simulate/soil_under.h"
#include "core/simulate/spaces.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kCropCapacity_J_m2K = 20000.0;  // trays, crop and benches per m2 of floor: about 5 kg of water
constexpr double kFloorTakesUp = 0.85;           // of the light on it: dark moist soil
constexpr double kLeavesTakeUp = 0.80;           // of the light that they meet
constexpr double kCanopy = 0.6;                  // per unit of leaf area: Monsi and Saeki (1953), 0.5 to 0.8
constexpr double kFanBand_K = 1.0;               // from starting to running fully
constexpr double kLiftedAirChanges_per_h = 40.0; // a low tunnel with open ends

class Assembler {
public:
  Assembler(const Plan& plan, const Winter& winter, const SunOnHouse& sun)
      : m_plan(plan), m_house(plan.house), m_winter(winter), m_sun(sun), m_materials(plan.materials), m_net(m_a.network) {}

  Assembly run() {
    m_net.pressure_Pa = pressureAtElevation_Pa(m_plan.site.place.elevation_m);
    boundaries();
    rooms();
    ground();
    covers();
    sunkWalls();
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
  /// A space with its place in the network.
  struct Room {
    Space space;
    std::string prefix; ///< of its nodes' names
    double start_C;
    RoomAir air;
    int floor;
    double bare_m2; ///< floor that no bed cover stands on
    std::optional<Covers> covers;
    [[nodiscard]] bool grows() const { return space.kind == RoomKind::house || space.kind == RoomKind::bay; }
  };

  Room* room(RoomKind kind) {
    const auto it = std::find_if(m_rooms.begin(), m_rooms.end(), [kind](const Room& r) { return r.space.kind == kind; });
    return it == m_rooms.end() ? nullptr : &*it;
  }
  Room& roomOf(const BedCover& bed) { return bed.inBay ? *room(RoomKind::bay) : m_rooms.front(); }
  /// Of the whole house's air.
  [[nodiscard]] double volumeShare(const Room& room) const { return room.space.volume_m3 / m_house.shape.volume_m3(); }

  void rooms() {
    for (Space& space : spacesOf(m_house)) {
      const bool isMain = space.kind == RoomKind::house;
      const bool isBay = space.kind == RoomKind::bay;
      const std::string prefix = isMain ? "" : isBay ? "bay " : space.kind == RoomKind::lobby ? "lobby " : "void ";
      m_rooms.push_back({std::move(space), prefix, isBay ? std::max(start(), m_house.bay->setpoints.night_C) : start(), {}, -1, 0.0, {}});
      Room& room = m_rooms.back();
      const double crop = room.grows() ? kCropCapacity_J_m2K * room.space.floor_m2 : 0.0;
      room.air = addRoomAir(m_net, prefix, room.space.volume_m3, crop, room.start_C, m_winter.outside_g_kg.front());
    }
    m_a.air = m_rooms.front().air.air;
    m_a.vapour = m_rooms.front().air.vapour;
    m_a.rooms.resize(otherRooms(m_plan).size());
    for (const Room& r : m_rooms)
      if (const auto place = otherRoom(m_plan, r.space.kind)) m_a.rooms[*place] = {r.air.air, r.air.vapour};
  }

  Assembly::Room& bedRoom(std::size_t k) { return m_a.rooms[*otherRoom(m_plan, RoomKind::bed, k)]; }

  double start() const { return std::max(m_winter.outside_C.front() + 2.0, m_plan.setpoints.night_C); }

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
    m_outdoors = {m_a.outside, m_net.addBoundary("outside vapour", Driver::table(signal(m_winter.outside_g_kg)))};
    m_a.sky = m_net.addBoundary("sky", Driver::table(signal(m_winter.sky_C)));
    m_night = nightOf(m_winter);
    m_windFilm = signalOf([&](std::size_t i) { return 4.0 + 4.0 * m_winter.wind_m_s[i]; });
  }

  UndisturbedGround far() const {
    const SoilHeat soil = soilHeat(*findSoilMaterial(m_house.floor.soil)); // in the open its moisture is its own
    return {m_plan.site.groundMean_C, m_plan.site.groundAmplitude_K, m_plan.site.coldestDay, soil.conductivity_W_mK, soil.heat_J_m3K};
  }

  /// The ground's own temperature at a depth, day by day: between two days its wave is straight to 1e-4 of its amplitude.
  int undisturbed(double depth_m) {
    Signal wave;
    wave.step_s = 86400.0;
    const auto days = static_cast<std::size_t>(m_winter.step_s * static_cast<double>(m_winter.size()) / wave.step_s) + 2;
    for (std::size_t d = 0; d < days; ++d) wave.value.push_back(far().temperature_C(depth_m, m_winter.startDay + static_cast<double>(d)));
    return m_net.addSignal(std::move(wave));
  }

  /// Soil under an area of floor, down to the ground's own wave.
  SoilColumn column(const std::string& id, const Floor& floor, int surface, double area_m2, double below_m, double start_C) {
    SoilColumn c = addSoilColumn(m_net, id, floor, surface, m_a.deep, area_m2, start_C, far().temperature_C(below_m, m_winter.startDay));
    m_net.links.back().part = partId(Part::deepGround);
    m_a.below.insert(m_a.below.end(), c.below.begin(), c.below.end());
    return c;
  }

  /// The film over a floor, moist in part.
  void overFloor(RoomAir air, int surface, double area_m2, const Floor& floor, bool isMoist = true) {
    Link& film = m_net.addNatural(air.air, surface, area_m2, kFloorFilm, kFilmExponent);
    film.vapour = air.vapour;
    film.wetShare = isMoist ? m_house.crop.wetFloor * floorEvaporation(floor) : 0.0;
  }

  void ground() {
    const double below = soilColumnDepth_m() + m_house.shape.sunk_m;
    m_a.deep = m_net.addBoundary("deep ground", Driver::table(undisturbed(below)));
    std::vector<std::pair<int, double>> edges; // node, share
    for (const BedCover& bed : m_house.bedCovers) roomOf(bed).bare_m2 -= bed.bed_m2();
    for (Room& room : m_rooms) {
      if (room.space.floor_m2 <= 0.0) continue;
      room.bare_m2 += room.space.floor_m2;
      const bool isMain = &room == &m_rooms.front();
      const Floor& floor = room.space.kind == RoomKind::bay && m_house.bay->floor ? *m_house.bay->floor : m_house.floor;
      room.floor = m_net.addNode(room.prefix + "floor", 0.0, room.start_C);
      const SoilColumn soil = column(room.prefix + "soil", floor, room.floor, room.bare_m2, below, room.start_C);
      overFloor(room.air, room.floor, room.bare_m2, floor, room.grows());
      edges.emplace_back(soil.edge, room.space.edgeShare);
      if (const auto place = otherRoom(m_plan, room.space.kind)) m_a.rooms[*place].floor = room.floor;
      if (!isMain) continue;
      m_a.soil = soil.node;
      m_a.soilDepth_m = soil.depth_m;
    }
    m_a.floor = m_rooms.front().floor;
    for (std::size_t k = 0; k < m_house.bedCovers.size(); ++k) {
      const BedCover& bed = m_house.bedCovers[k];
      Floor bare = bed.inBay && m_house.bay->floor ? *m_house.bay->floor : m_house.floor; // mulch and paving lie on the paths
      bare.cover.clear();
      const double start_C = roomOf(bed).start_C;
      const int floor = m_net.addNode(fmt::format("bed {} floor", k + 1), 0.0, start_C);
      column(fmt::format("bed {} soil", k + 1), bare, floor, bed.bed_m2(), below, start_C);
      const RoomAir air =
          addRoomAir(m_net, fmt::format("bed {} ", k + 1), bed.volume_m3(), kCropCapacity_J_m2K * bed.bed_m2(), start_C, m_winter.outside_g_kg.front());
      overFloor(air, floor, bed.bed_m2(), bare);
      bedRoom(k) = {air.air, air.vapour, floor};
    }

    const SoilHeat soil = soilHeat(*findSoilMaterial(m_house.floor.soil), m_house.floor.moisture_kg_kg);
    // a sunk floor's path to the open is longer by half its depth (ISO 13370, floors of basements)
    const SlabOnGround slab{m_house.shape.floor_m2(), m_house.shape.perimeter_m(), 0.05, soil.conductivity_W_mK,
                            m_house.shape.sunk_m / 2.0 / soil.conductivity_W_mK};
    double edge = slabPeriodic(slab, far().heat_J_m3K).outside_W_K;
    if (m_house.floor.edgeDepth_m > 0.0 && m_house.floor.edgeInsulation_m2K_W > 0.0) {
      constexpr double kBoard_W_mK = 0.035;
      const double psi = edgeInsulationPsi_W_mK(soil.conductivity_W_mK, slab.equivalentThickness_m(), m_house.floor.edgeDepth_m,
                                                m_house.floor.edgeInsulation_m2K_W * kBoard_W_mK, kBoard_W_mK, EdgeInsulation::vertical);
      edge = std::max(edge + psi * slab.perimeter_m, 0.1 * edge);
    }
    for (const auto& [node, share] : edges) m_net.addConductance(node, m_a.outside, edge * share, partId(Part::floorEdge));
  }

  void covers() {
    const auto times = [](std::vector<double> a, const std::vector<double>& b) {
      for (std::size_t i = 0; i < a.size(); ++i) a[i] *= b[i];
      return a;
    };
    const auto not_ = [](std::vector<double> a) {
      for (double& x : a) x = 1.0 - x;
      return a;
    };
    if (m_house.retractable) {
      m_a.roofOpen = roofOpen(*m_house.retractable, m_house.ventLock, m_winter);
      m_roof = RoofSignals{signal(not_(m_a.roofOpen), true), signal(m_a.roofOpen, true)};
    }
    if (m_house.blanket) {
      const double leak = m_house.blanket->leak;
      m_a.blanketClosed = blanketClosed(*m_house.blanket, m_winter, *TimeZone::named(m_plan.site.timeZone));
      const std::vector<double>& closed = m_a.blanketClosed;
      std::vector<double> film = closed;
      for (double& x : film) x = 1.0 - x * (1.0 - leak);
      const std::vector<double> always(closed.size(), 1.0), never(closed.size(), 0.0);
      if (m_house.blanket->rule == BlanketRule::inside) {
        constexpr double kBand_K = 1.5; // hung, it warms what it is drawn by
        m_a.blanketRelay = static_cast<int>(m_net.relays.size());
        m_net.relays.push_back({"blanket", m_a.air, m_house.blanket->insideBelow_C, m_house.blanket->insideBelow_C + kBand_K});
      }
      const auto hung = [&](const std::vector<double>& shut) {
        const auto by = [&](const std::vector<double>& drawn, const std::vector<double>& gathered) {
          const int then = signal(times(drawn, shut), true);
          return m_a.blanketRelay < 0 ? then : m_net.addSwitch(m_a.blanketRelay, then, signal(times(gathered, shut), true));
        };
        return BlanketSignals{by(closed, never), by(not_(closed), always), by(film, always)};
      };
      m_blanket = hung(always);
      m_blanketUnderRoof = m_roof ? hung(not_(m_a.roofOpen)) : m_blanket;
    }
    m_a.inner.assign(kFaceGroupCount, -1);
    m_a.outer.assign(kFaceGroupCount, -1);
    for (Room& room : m_rooms) skins(room);
  }

  void skins(Room& room) {
    const bool isMain = &room == &m_rooms.front();
    room.covers.emplace(m_net, CoverSurroundings{room.air.air, room.air.vapour, room.floor, m_a.outside, m_a.sky, m_windFilm}, room.start_C,
                        m_winter.outside_C.front(), m_materials);
    const Skin* const skins[] = {&m_house.roof, &m_house.sides, &m_house.ends, &m_house.backWall};
    for (const auto& [group, which] :
         {std::pair{FaceGroup::roof, Part::roof}, {FaceGroup::sides, Part::sides}, {FaceGroup::ends, Part::ends}, {FaceGroup::backWall, Part::backWall}}) {
      const auto g = static_cast<std::size_t>(group);
      const double area = room.space.cover_m2[g];
      if (area <= 0.0) continue;
      const bool shared = group == FaceGroup::backWall && m_house.backWall_C;
      const Behind behind{shared ? m_net.addBoundary(room.prefix + "building", Driver::constant(*m_house.backWall_C)) : -1};
      const Skin& skin = *skins[g];
      CoverPart& part = room.covers->add(skin, group, area, skyView(group, m_house.shape), partId(which), behind, room.prefix);
      if (m_a.inner[g] < 0) { // the house's own, or that of its roof void
        m_a.outer[g] = part.sheets.front().outerNode;
        m_a.inner[g] = part.sheets.back().innerNode;
      }
      const bool isRoof = group == FaceGroup::roof;
      if (m_blanket && group != FaceGroup::backWall) room.covers->hang(part, *m_house.blanket, isRoof ? *m_blanketUnderRoof : *m_blanket);
      if (m_roof && isRoof) room.covers->drawBack(part, *m_roof);
      if (group == FaceGroup::backWall) m_innerWalls.emplace_back(part.sheets.back().innerNode, area);
      if (shared) continue; // no sun on it from outside
      const SkinOptics optics = skinOptics(skin, m_materials);
      for (std::size_t l = 0; l < part.sheets.size(); ++l)
        m_absorbing.push_back({part.sheets[l].outerNode, static_cast<int>(group), area * optics.absorptance[l] * m_house.light.left()});
    }
    for (std::size_t k = 0; k < m_house.bedCovers.size(); ++k)
      if (&roomOf(m_house.bedCovers[k]) == &room) bedCover(room, m_house.bedCovers[k], bedRoom(k), fmt::format("bed {} cover", k + 1));
    double others = 0.0; // skins that other rooms have towards this one
    switch (room.space.kind) {
    case RoomKind::house:
      others = crossingOf(m_house).below_m2 * ((m_house.bay ? 1.0 : 0.0) + (m_house.lobby ? 1.0 : 0.0)) + (m_house.roofVoid ? room.space.floor_m2 : 0.0);
      break;
    case RoomKind::roofVoid:
      others = crossingOf(m_house).above_m2 * ((m_house.bay ? 1.0 : 0.0) + (m_house.lobby ? 1.0 : 0.0));
      ceiling(room);
      break;
    case RoomKind::bay: partition(room, m_house.bay->partition, m_house.bay->airChanges_per_h, m_house.bay->fan, false); break;
    case RoomKind::lobby: partition(room, m_house.lobby->partition, m_house.lobby->airChanges_per_h, std::nullopt, false); break;
    case RoomKind::bed: break;
    }
    room.covers->exchange(room.bare_m2, others);
    if (isMain) m_a.above = room.covers->radiation();
  }

  [[nodiscard]] Behind behind(const Room& room) const { return {room.air.air, room.air.vapour, room.covers->radiation()}; }

  /// Air that a room exchanges with the house, and a fan between them.
  void joinHouse(const Room& room, double airChanges_per_h, const std::optional<RoomFan>& fan, bool drawsFromRoom) {
    const RoomAir house = m_rooms.front().air;
    const double pressure = m_net.pressure_Pa;
    exchangeAir(m_net, room.air, house, airChangeConductance_W_K(airChanges_per_h, room.space.volume_m3, 5.0, pressure), -1, "");
    if (!fan || fan->flow_m3_h <= 0.0) return;
    const double conductance = airChangeConductance_W_K(fan->flow_m3_h, 1.0, 5.0, pressure);
    const RoomAir from = drawsFromRoom ? room.air : house, to = drawsFromRoom ? house : room.air;
    if (fan->rule == FanRule::warm) {
      ventAir(m_net, from, to, fan->warmAbove_C, fan->warmAbove_C + kFanBand_K, conductance, -1, "");
      m_a.fans.push_back({fan->power_W, from.air, fan->warmAbove_C, fan->warmAbove_C + kFanBand_K});
      return;
    }
    Assembly::Fan runs{fan->power_W};
    if (fan->rule != FanRule::always) {
      const bool byNight = fan->rule == FanRule::night;
      for (const double night : m_night) runs.runs.push_back((night > 0.0) == byNight ? 1.0 : 0.0);
    }
    exchangeAir(m_net, from, to, conductance, runs.runs.empty() ? -1 : signal(runs.runs, true), "");
    m_a.fans.push_back(std::move(runs));
  }

  /// Between a bay or lobby and the house, up to its roof.
  void partition(Room& room, const Skin& skin, double airChanges_per_h, const std::optional<RoomFan>& fan, bool drawsFromRoom) {
    const Crossing crossing = crossingOf(m_house);
    room.covers->add(skin, FaceGroup::ends, crossing.below_m2, 0.5, "partition", behind(m_rooms.front()), room.prefix);
    if (const Room* above = this->room(RoomKind::roofVoid))
      room.covers->add(skin, FaceGroup::ends, crossing.above_m2, 0.5, "partition above", behind(*above), room.prefix);
    joinHouse(room, airChanges_per_h, fan, drawsFromRoom);
  }

  void ceiling(Room& room) {
    const Skin& skin = m_house.roofVoid->ceiling;
    const double area = m_rooms.front().space.floor_m2;
    const CoverPart& part = room.covers->add(skin, FaceGroup::roof, area, 0.5, "ceiling", behind(m_rooms.front()), room.prefix);
    Skin fromAbove = skin;
    std::reverse(fromAbove.layers.begin(), fromAbove.layers.end());
    const SkinOptics optics = skinOptics(fromAbove, m_materials);
    for (std::size_t l = 0; l < part.sheets.size(); ++l)
      m_ceilingSun.emplace_back(part.sheets[part.sheets.size() - 1 - l].innerNode, area * optics.absorptance[l]);
    m_ceilingTransmittance = optics.transmittance;
    joinHouse(room, m_house.roofVoid->airChanges_per_h, m_house.roofVoid->fan, true);
  }

  void bedCover(Room& room, const BedCover& cover, const Assembly::Room& bed, const std::string& id) {
    const CoverPart& part = room.covers->tuck(cover, bed.air, bed.vapour, bed.floor, id);
    m_bedSheets.push_back(part.sheets.back().innerNode);
    const double byDay = cover.liftedByDay ? std::max(cover.airChanges_per_h, kLiftedAirChanges_per_h) : cover.airChanges_per_h;
    const int changes = signalOf([&](std::size_t i) { return m_night[i] > 0.0 ? cover.airChanges_per_h : byDay; }, true);
    exchangeAir(m_net, {bed.air, bed.vapour}, room.air, airChangeConductance_W_K(1.0, cover.volume_m3(), 5.0, m_net.pressure_Pa), changes, "");
  }

  /// What stands in the ground beside a sunk floor: the wall's surface, then half a metre of soil to the ground's own wave at
  /// half the depth.
  void sunkWalls() {
    const double depth = m_house.shape.sunk_m;
    if (depth <= 0.0) return;
    const int beside = m_net.addBoundary("ground beside", Driver::table(undisturbed(depth / 2.0)));
    for (const Room& room : m_rooms) {
      if (room.space.sunk_m2 <= 0.0) continue;
      Solid wall;
      wall.id = room.prefix + "sunk wall";
      wall.area_m2 = room.space.sunk_m2;
      wall.from = room.air.air;
      wall.hFrom_W_m2K = 1.0 / insideSurface_m2K_W(HeatFlow::horizontal);
      wall.to = beside;
      wall.initial_C = far().temperature_C(depth / 2.0, m_winter.startDay);
      wall.initialFar_C = wall.initial_C;
      wall.layers = soilLayers(m_house.floor, {0.05, 0.15, 0.30});
      m_net.addSolid(wall);
      m_net.links.back().part = partId(Part::deepGround);
    }
  }

  void draughts() {
    const double pressure = m_net.pressure_Pa;
    const RoomAir house = m_rooms.front().air;
    const int conductance = signal(draughts_W_K(m_plan, m_winter, pressure));
    for (const Room& room : m_rooms) exchangeAir(m_net, room.air, m_outdoors, volumeShare(room), conductance, partId(Part::draughts));
    if (m_house.door.opened > 0.0) {
      const Room* const lobby = room(RoomKind::lobby);
      const int opening = signal(door_W_K(m_plan, m_winter, lobby ? 2 : 1, pressure), true);
      if (lobby) exchangeAir(m_net, house, lobby->air, 1.0, opening, "");
      exchangeAir(m_net, lobby ? lobby->air : house, m_outdoors, 1.0, opening, partId(Part::draughts));
    }
    vents(mayVent(m_house.ventLock, m_winter));
  }

  void vents(const std::vector<double>& may) {
    const double pressure = m_net.pressure_Pa;
    const std::string part = partId(Part::vents);
    const Room& house = m_rooms.front();
    const bool locks = std::find(may.begin(), may.end(), 0.0) != may.end();
    const int lock = locks ? signal(may, true) : -1;
    if (locks) m_a.mayVent = may;
    for (const Room& room : m_rooms)
      if (room.space.kind != RoomKind::lobby)
        ventAir(m_net, room.air, m_outdoors, m_house.ventOpens_C, m_house.ventFull_C,
                airChangeConductance_W_K(m_house.ventAirChanges_per_h, room.space.volume_m3, 10.0, pressure), lock, part);
    if (const auto& sides = m_house.rollUp) {
      auto rolled = rolledUp_W_K(*sides, house.space.length_m, m_winter, pressure);
      for (std::size_t i = 0; i < rolled.size(); ++i) rolled[i] *= may[i];
      ventAir(m_net, house.air, m_outdoors, sides->opens_C, sides->full_C, 1.0, signal(std::move(rolled)), part);
    }
    if (const auto& fan = m_house.extractFan) {
      ventAir(m_net, house.air, m_outdoors, fan->above_C, fan->above_C + kFanBand_K, airChangeConductance_W_K(fan->flow_m3_h, 1.0, 10.0, pressure), lock, part);
      m_a.fans.push_back({fan->power_W, house.air.air, fan->above_C, fan->above_C + kFanBand_K, locks ? may : std::vector<double>{}});
    }
    if (m_roof)
      for (const Room& room : m_rooms)
        exchangeAir(m_net, room.air, m_outdoors, airChangeConductance_W_K(m_house.retractable->airChanges_per_h, room.space.volume_m3, 10.0, pressure),
                    m_roof->open, part);
  }

  void barrels() {
    for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
      const Barrels& group = m_plan.barrels[b];
      const BarrelSize size = barrelSize(group.litres);
      const double water_kg = group.count * group.litres / 1000.0 * kWaterDensity_kg_m3;
      const int node = m_net.addNode(fmt::format("barrels {}", b + 1), water_kg * kWaterHeat_J_kgK, start());
      m_net.nodes.back().water = FreezingWater{water_kg * kFusion_J_kg, 0.1, water_kg * kIceHeat_J_kgK};
      m_net.addConductance(node, m_a.air, group.count * size.surface_m2 * group.film_W_m2K);
      m_a.barrels.push_back(node);
    }
  }

  /// Of the light outside, what comes through the whole cover, and with the roof drawn back.
  struct Light {
    double shut = 0.0, open = 0.0;
  };
  [[nodiscard]] Light lightInside() const {
    Light light;
    const Skin* const skins[] = {&m_house.roof, &m_house.sides, &m_house.ends};
    for (const FaceGroup g : {FaceGroup::roof, FaceGroup::sides, FaceGroup::ends}) {
      const double share = m_house.shape.area_m2(g) / m_house.shape.cover_m2();
      const double through = skinOptics(*skins[static_cast<int>(g)], m_materials).transmittance * m_house.light.left();
      light.shut += share * through;
      light.open += share * (g == FaceGroup::roof ? 1.0 - m_house.light.frame : through);
    }
    return light;
  }

  void sun() {
    const Light light = lightInside();
    const double transmittance = light.shut; // of what a roof that draws back adds, walls and barrels get nothing
    // a blanket that is closed by day takes its share of the light; what it stops is taken as sent back out
    const double cloth = m_house.blanket ? m_materials.find(m_house.blanket->material)->solarTransmittance : 1.0;
    const int inside = signalOf([&](std::size_t i) {
      const double drawn = m_a.blanketClosed.empty() || m_a.blanketClosed[i] == 0.0 ? 1.0 : cloth;
      const bool isOpen = !m_a.roofOpen.empty() && m_a.roofOpen[i] > 0.0;
      return drawn * (isOpen ? light.open : light.shut) * (m_sun.beamInside_W_m2[i] + m_sun.diffuse_W_m2[i]);
    });
    // what the leaves meet of the light warms them and the air; the floor has the rest
    const double past = std::exp(-kCanopy * m_house.crop.leafArea);
    const auto floorShare = [&](bool grows) { return kFloorTakesUp * (grows ? past : 1.0); };
    const auto leafShare = [&](bool grows) { return grows ? kLeavesTakeUp * (1.0 - past) : 0.0; };
    const auto underCeiling = [&](const Room& room) { return room.space.kind == RoomKind::house ? m_ceilingTransmittance : 1.0; };
    for (const Room& room : m_rooms) {
      if (room.floor < 0) continue;
      const double lit = room.bare_m2 * underCeiling(room);
      m_net.sources.push_back({room.floor, Driver::table(inside, lit * floorShare(room.grows())), "sun on the floor"});
      m_net.sources.push_back({room.air.air, Driver::table(inside, lit * leafShare(room.grows())), "sun on leaves"});
    }
    for (const auto& [node, area] : m_ceilingSun) m_net.sources.push_back({node, Driver::table(inside, area), "sun on the ceiling"});
    for (std::size_t k = 0; k < m_house.bedCovers.size(); ++k) {
      const BedCover& bed = m_house.bedCovers[k];
      const CoverMaterial& m = *m_materials.find(bed.material);
      const double lit = bed.bed_m2() * underCeiling(roomOf(bed));
      const double under = lit * m.solarTransmittance;
      m_net.sources.push_back({bedRoom(k).floor, Driver::table(inside, under * floorShare(true)), "sun on a bed"});
      m_net.sources.push_back({bedRoom(k).air, Driver::table(inside, under * leafShare(true)), "sun on leaves"});
      m_net.sources.push_back({m_bedSheets[k], Driver::table(inside, lit * (1.0 - m.solarTransmittance - m.solarReflectance)), "sun on a bed cover"});
    }
    leaves(inside);
    if (!m_plan.barrels.empty()) {
      const int upright = signal(m_sun.upright_W_m2);
      for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
        const Barrels& group = m_plan.barrels[b];
        const double factor =
            group.count * barrelSize(group.litres).silhouette_m2 * group.sunShare * barrelAbsorptance(group.colour) * transmittance * m_ceilingTransmittance;
        m_net.sources.push_back({m_a.barrels[b], Driver::table(upright, factor), "sun on barrels"});
      }
    }
    if (!m_innerWalls.empty()) {
      const int wall = signal(m_sun.wallInside_W_m2);
      const double absorbed = 1.0 - m_materials.find(m_house.backWall.layers.back().material)->solarReflectance;
      for (const auto& [node, area] : m_innerWalls) m_net.sources.push_back({node, Driver::table(wall, area * transmittance * absorbed), "sun on the wall"});
    }
    int groupSignal[kFaceGroupCount] = {-1, -1, -1, -1};
    for (const auto& absorbing : m_absorbing) {
      int& s = groupSignal[absorbing.group];
      if (s < 0) {
        std::vector<double> on = m_sun.group_W_m2[static_cast<std::size_t>(absorbing.group)];
        if (absorbing.group == static_cast<int>(FaceGroup::roof) && !m_a.roofOpen.empty())
          for (std::size_t i = 0; i < on.size(); ++i) on[i] *= 1.0 - m_a.roofOpen[i];
        s = signal(std::move(on));
      }
      m_net.sources.push_back({absorbing.node, Driver::table(s, absorbing.factor), "sun on the cover"});
    }
  }

  /// Transpiration by the light inside; the heat comes from the air, for leaves are near its temperature.
  void leaves(int light) {
    if (m_house.crop.leafArea <= 0.0) return;
    const std::vector<double>& W_m2 = m_net.tables[static_cast<std::size_t>(light)].value;
    const int stomata = signalOf([&](std::size_t i) { return transpiration_W_g_kg(W_m2[i]); });
    for (const Room& room : m_rooms)
      if (room.grows()) m_net.addEvaporative(room.air.air, room.air.vapour, m_house.crop.leafArea * room.bare_m2).modulator = stomata;
    for (std::size_t k = 0; k < m_house.bedCovers.size(); ++k)
      m_net.addEvaporative(bedRoom(k).air, bedRoom(k).vapour, m_house.crop.leafArea * m_house.bedCovers[k].bed_m2()).modulator = stomata;
  }

  int thermostat(const std::string& name, int air, double power_W, const Setpoints& setpoints) {
    if (power_W <= 0.0) return -1;
    Thermostat t;
    t.id = name;
    t.sensor = t.heats = air;
    t.power_W = power_W;
    t.setpointSignal = signalOf([&](std::size_t i) { return m_night[i] > 0.0 ? setpoints.night_C : setpoints.day_C; }, true);
    m_net.thermostats.push_back(t);
    return static_cast<int>(m_net.thermostats.size()) - 1;
  }

  void heater() {
    if (m_plan.heater) m_a.heater = thermostat(m_plan.heater->name, m_a.air, m_plan.heater->power_W, m_plan.setpoints);
    if (!m_house.bay) return;
    Assembly::Room& bay = m_a.rooms[*otherRoom(m_plan, RoomKind::bay)];
    bay.heater = thermostat(m_house.bay->name + " heater", bay.air, m_house.bay->heater_W, m_house.bay->setpoints);
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
  Materials m_materials;
  Assembly m_a;
  Network& m_net;
  std::vector<double> m_night;
  int m_windFilm = -1;
  std::optional<BlanketSignals> m_blanket, m_blanketUnderRoof;
  std::optional<RoofSignals> m_roof;
  RoomAir m_outdoors;
  std::vector<Room> m_rooms;                        ///< as spacesOf() lists them
  std::vector<int> m_bedSheets;                     ///< the bed covers' own nodes, by kind
  std::vector<std::pair<int, double>> m_ceilingSun; ///< node, and the area that takes the light in the void up
  double m_ceilingTransmittance = 1.0;
  std::vector<std::pair<int, double>> m_innerWalls; ///< inner face of a back wall, and its area
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

Assembly assemble(const Plan& plan, const Winter& winter, const SunOnHouse& sun) { return Assembler(plan, winter, sun).run(); }

} // namespace muffle
