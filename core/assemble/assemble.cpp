// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/assembler.h"
#include "core/plan/heaters.h"

#include "core/air/moist_air.h"
#include "core/assemble/openings.h"
#include "core/ground/slab.h"
#include "core/house/infiltration.h"
#include "core/house/resistance.h"

#include <fmt/format.h>

#include <cmath>

namespace muffle {
namespace {

constexpr double kLeastPlainFloor = 0.05;       // of the floor, that has no pipes under it
constexpr double kCropCapacity_J_m2K = 20000.0; // trays, crop and benches per m2 of floor: about 5 kg of water

} // namespace

Assembly Assembler::run() {
  m_net.pressure_Pa = pressureAtElevation_Pa(m_plan.site.place.elevation_m);
  boundaries();
  rooms();
  ground();
  covers();
  sunkWalls();
  draughts();
  barrels();
  sun();
  m_a.sunSources = static_cast<int>(m_net.sources.size());
  stores();
  heaters();
  tagLosses();
  m_net.step_s = m_winter.step_s;
  m_net.end_s = m_winter.step_s * static_cast<double>(m_winter.size() - 1);
  return std::move(m_a);
}

double Assembler::start() const {
  constexpr double kLift_K = 2.0;
  const std::size_t steps = std::clamp<std::size_t>(static_cast<std::size_t>(kDay_s / m_winter.step_s), 1, m_winter.size());
  double mean = 0.0;
  for (std::size_t i = 0; i < steps; ++i) mean += m_winter.outside_C[i] / static_cast<double>(steps);
  return mean + kLift_K; // heaters bring it to what it then has in the time before the log: a setpoint is no state
}

Assembler::Room* Assembler::room(RoomKind kind) {
  const auto it = std::find_if(m_rooms.begin(), m_rooms.end(), [kind](const Room& r) { return r.space.kind == kind; });
  return it == m_rooms.end() ? nullptr : &*it;
}

void Assembler::rooms() {
  for (const Space& space : spacesOf(m_house)) {
    const bool isMain = space.kind == RoomKind::house;
    const bool isBay = space.kind == RoomKind::bay;
    const std::string prefix = isMain ? "" : isBay ? "bay " : space.kind == RoomKind::lobby ? "lobby " : "void ";
    m_rooms.push_back({space, prefix, start(), {}, -1, 0.0, {}});
    Room& room = m_rooms.back();
    const double crop = room.grows() ? m_fitted.mass * kCropCapacity_J_m2K * room.space.floor_m2 : 0.0;
    room.air = addRoomAir(m_net, prefix, room.space.volume_m3, crop, room.start_C, m_winter.outside_g_kg.front());
  }
  m_a.air = m_rooms.front().air.air;
  m_a.vapour = m_rooms.front().air.vapour;
  m_a.rooms.resize(otherRooms(m_plan).size());
  for (const Room& r : m_rooms)
    if (const auto place = otherRoom(m_plan, r.space.kind)) m_a.rooms[*place] = {r.air.air, r.air.vapour};
}

int Assembler::commandedRelay(const std::string& id, bool on) {
  m_net.relays.push_back({id, SwitchedByCommand{on}});
  return static_cast<int>(m_net.relays.size()) - 1;
}

int Assembler::onMains(int signal, const std::string& what) {
  if (m_failable == Failable::yes) {
    const int fed = commandedRelay("fan:" + what, true);
    m_a.fed.push_back({"fan:" + what, fed});
    return m_net.addSwitch(fed, signal < 0 ? constantSignal(1.0) : signal, constantSignal(0.0));
  }
  if (m_a.mains < 0) {
    m_a.mains = static_cast<int>(m_net.relays.size());
    m_net.relays.push_back({"mains", SwitchedByCommand{}});
  }
  if (signal < 0) signal = constantSignal(1.0);
  return m_net.addSwitch(m_a.mains, signal, constantSignal(0.0));
}

int Assembler::signal(std::vector<double> values, bool hold) {
  Signal s;
  s.value = std::move(values);
  s.step_s = m_winter.step_s;
  s.hold = hold;
  return m_net.addSignal(std::move(s));
}

void Assembler::boundaries() {
  m_a.outside = m_net.addBoundary("outside", Driver::table(signal(m_winter.outside_C)));
  m_outdoors = {m_a.outside, m_net.addBoundary("outside vapour", Driver::table(signal(m_winter.outside_g_kg)))};
  m_a.sky = m_net.addBoundary("sky", Driver::table(signal(m_winter.sky_C)));
  m_night = nightOf(m_winter);
  const double wind = windFactor(m_plan.site, m_house.shape.ridge_m);
  m_windFilm = signalOf([&](std::size_t i) { return 4.0 + 4.0 * wind * m_winter.wind_m_s[i]; });
}

int Assembler::undisturbed(double depth_m) {
  Signal wave;
  wave.step_s = 86400.0;
  const auto days = static_cast<std::size_t>(m_winter.step_s * static_cast<double>(m_winter.size()) / wave.step_s) + 2;
  const UndisturbedGround ground = far();
  for (std::size_t d = 0; d < days; ++d) wave.value.push_back(ground.temperature_C(depth_m, m_winter.startDay + static_cast<double>(d)));
  return m_net.addSignal(std::move(wave));
}

SoilColumn Assembler::column(const std::string& id, const Floor& floor, int surface, double area_m2, double below_m, double start_C) {
  SoilColumn c = addSoilColumn(m_net, id, floor, surface, m_a.deep, area_m2, start_C, far().temperature_C(below_m, m_winter.startDay), m_fitted.ground);
  m_net.links.back().part = lossPathId(LossPath::deepGround);
  m_a.below.insert(m_a.below.end(), c.below.begin(), c.below.end());
  // the soil begins as the ground about lies, not on a line from a setpoint
  const double over_m = below_m - soilColumnDepth_m();
  for (std::size_t k = 0; k < c.node.size(); ++k)
    m_net.nodes[static_cast<std::size_t>(c.node[k])].initial_C = far().temperature_C(over_m + c.depth_m[k], m_winter.startDay);
  return c;
}

void Assembler::overFloor(RoomAir air, int surface, double area_m2, const Floor& floor, bool isMoist) {
  Link& film = m_net.addNatural(air.air, surface, m_fitted.ground * area_m2, kFloorFilm, kFilmExponent);
  film.vapour = air.vapour;
  film.wetShare = isMoist ? m_house.crop.wetFloor * floorEvaporation(floor) : 0.0;
}

void Assembler::ground() {
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
    if (isMain) {
      hotBedFloors(room.start_C);
      for (const HotBed& bed : m_hotBeds) room.bare_m2 -= bed.foot_m2;
      massFloors(room.start_C, below);
      for (const OwnFloor& own : m_massFloors) room.bare_m2 = std::max(room.bare_m2 - own.area_m2, kLeastPlainFloor * room.space.floor_m2);
    }
    const double plain_m2 = isMain ? std::max(room.bare_m2 - pipeBeds_m2(), kLeastPlainFloor * room.bare_m2) : room.bare_m2;
    const SoilColumn soil = column(room.prefix + "soil", floor, room.floor, plain_m2, below, room.start_C);
    if (isMain) pipeBeds(room.floor, room.start_C);
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
    m_bedSoil.push_back(column(fmt::format("bed {} soil", k + 1), bare, floor, bed.bed_m2(), below, start_C));
    const RoomAir air = addRoomAir(m_net, fmt::format("bed {} ", k + 1), bed.volume_m3(), m_fitted.mass * kCropCapacity_J_m2K * bed.bed_m2(), start_C,
                                   m_winter.outside_g_kg.front());
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
  for (const auto& [node, share] : edges) m_net.addConductance(node, m_a.outside, edge * share, lossPathId(LossPath::floorEdge));
}

void Assembler::sunkWalls() {
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
    wall.layers = soilLayers(m_house.floor, {0.05, 0.15, 0.30}, m_fitted.ground);
    m_net.addSolid(wall);
    m_net.links.back().part = lossPathId(LossPath::deepGround);
  }
}

void Assembler::draughts() {
  const double pressure = m_net.pressure_Pa;
  const RoomAir house = m_rooms.front().air;
  const int conductance = signal(draughts_W_K(m_plan, m_winter, pressure, m_inside_C));
  for (const Room& room : m_rooms) exchangeAir(m_net, room.air, m_outdoors, m_fitted.draughts * volumeShare(room), conductance, lossPathId(LossPath::draughts));
  if (m_house.door.opened > 0.0) {
    const Room* const lobby = room(RoomKind::lobby);
    const int opening = signal(door_W_K(m_plan, m_winter, lobby ? 2 : 1, pressure, m_inside_C), true);
    if (lobby) exchangeAir(m_net, house, lobby->air, 1.0, opening, "");
    exchangeAir(m_net, lobby ? lobby->air : house, m_outdoors, 1.0, opening, lossPathId(LossPath::draughts));
  }
  vents(mayVent(m_house.ventLock, m_winter));
}

void Assembler::vents(const std::vector<double>& may) {
  const double pressure = m_net.pressure_Pa;
  const std::string part = lossPathId(LossPath::vents);
  const Room& house = m_rooms.front();
  const bool locks = std::find(may.begin(), may.end(), 0.0) != may.end();
  const int lock = locks ? signal(may, true) : -1;
  if (locks) m_a.mayVent = may;
  for (const Room& room : m_rooms)
    if (room.space.kind != RoomKind::lobby)
      ventAir(m_net, room.air, m_outdoors, m_house.ventOpens_C, m_house.ventFull_C,
              airChangeConductance_W_K(m_house.ventAirChanges_per_h, room.space.volume_m3, 10.0, pressure), lock, part);
  if (const auto& sides = m_house.rollUp) {
    auto rolled = rolledUp_W_K(*sides, house.space.length_m, m_winter, pressure, windFactor(m_plan.site, sides->height_m));
    for (std::size_t i = 0; i < rolled.size(); ++i) rolled[i] *= may[i];
    ventAir(m_net, house.air, m_outdoors, sides->opens_C, sides->full_C, 1.0, signal(std::move(rolled)), part);
  }
  if (const auto& fan = m_house.extractFan) {
    ventAir(m_net, house.air, m_outdoors, fan->above_C, fan->above_C + kFanBand_K, airChangeConductance_W_K(fan->flow_m3_h, 1.0, 10.0, pressure),
            onMains(lock, "extract"), part);
    m_a.fans.push_back({fan->power_W, house.air.air, fan->above_C, fan->above_C + kFanBand_K, locks ? may : std::vector<double>{}});
  }
  if (m_roof)
    for (const Room& room : m_rooms)
      exchangeAir(m_net, room.air, m_outdoors, airChangeConductance_W_K(m_house.retractable->airChanges_per_h, room.space.volume_m3, 10.0, pressure),
                  m_roof->open, part);
}

void Assembler::barrels() {
  constexpr double kRadiant_W_m2K = 4.6;         // linear, near 5 degC, of paint
  constexpr double kUprightFilm = 1.4;           // of free convection from upright cylinders, Churchill and Chu, turbulent limit
  constexpr double kStillWater_W_mK = 0.6 + 1.0; // between the halves: water, and the steel or plastic beside it
  for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
    const Barrels& group = m_plan.barrels[b];
    const BarrelSize size = barrelSize(group.litres);
    const bool layered = group.layered && group.filling == BarrelFilling::water;
    const double halves = layered ? 2.0 : 1.0;
    const double volume_m3 = group.count * group.litres / 1000.0 / halves;
    StoreNodes store{StoreKind::barrels, b};
    const auto part = [&](const std::string& name) {
      const int node = m_net.addNode(name, volume_m3 * fillingHeat_J_m3K(group.filling), start());
      if (group.filling == BarrelFilling::water) {
        const double water_kg = volume_m3 * kWaterDensity_kg_m3;
        m_net.nodes.back().water = FreezingWater{water_kg * kFusion_J_kg, 0.1, water_kg * kIceHeat_J_kgK};
      }
      const double skin_m2 = group.count * size.surface_m2 / halves;
      m_net.addConductance(node, m_a.air, skin_m2 * (group.film_W_m2K > 0.0 ? group.film_W_m2K : kRadiant_W_m2K));
      store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
      if (group.film_W_m2K <= 0.0) {
        m_net.addNatural(node, m_a.air, skin_m2, kUprightFilm, kFilmExponent);
        store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
      }
      store.node.push_back(node);
      store.holds.push_back(heldBy(node));
      return node;
    };
    const int node = part(fmt::format("barrels {}", b + 1));
    if (layered) {
      const int upper = part(fmt::format("barrels {} upper", b + 1));
      const double section_m2 = group.count * kPi / 4.0 * size.diameter_m * size.diameter_m;
      m_net.addConductance(node, upper, kStillWater_W_mK * section_m2 / (size.height_m / 2.0));
    }
    m_a.stores.push_back(std::move(store));
  }
}

void Assembler::tagLosses() {
  for (std::size_t l = 0; l < m_net.links.size(); ++l)
    for (int p = 0; p < kLossPathCount; ++p)
      if (m_net.links[l].part == lossPathId(static_cast<LossPath>(p))) m_a.losses.emplace_back(static_cast<int>(l), static_cast<LossPath>(p));
  for (std::size_t v = 0; v < m_net.vents.size(); ++v) m_a.losses.emplace_back(static_cast<int>(m_net.links.size() + v), LossPath::vents);
}

const char* lossPathId(LossPath part) {
  static const char* const kIds[] = {"roof", "sides", "ends", "back wall", "draughts", "vents", "floor edge", "deep ground"};
  return kIds[static_cast<int>(part)];
}

BarrelSize barrelSize(double litres) {
  constexpr double kSlender = 1.5;
  const double diameter = std::cbrt(litres / 1000.0 / (kPi / 4.0 * kSlender));
  const double height = kSlender * diameter;
  return {diameter, height, kPi * diameter * height + kPi / 4.0 * diameter * diameter, diameter * height};
}

double fillingHeat_J_m3K(BarrelFilling filling) {
  switch (filling) { // ISO 10456; stone with a third of it air between
  case BarrelFilling::water: return kWaterDensity_kg_m3 * kWaterHeat_J_kgK;
  case BarrelFilling::sand: return 1.5e6;
  case BarrelFilling::stone: return 1.6e6;
  }
  return 0.0;
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

Assembly assemble(const Plan& plan, const Winter& winter, const SunOnHouse& sun, std::optional<double> inside_C, Failable failable) {
  return Assembler(plan, winter, sun, inside_C, failable).run();
}

} // namespace muffle
