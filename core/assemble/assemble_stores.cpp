// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores in the network. docs/model.md, "Stores", has the coefficients with their sources.
#include "core/assemble/assembler.h"

#include "core/assemble/openings.h"
#include "core/assemble/pipe_soil.h"
#include "core/assemble/sun_on_house.h"
#include "core/house/resistance.h"
#include "core/network/vapour.h"
#include "core/store/heat_exchanger.h"
#include "core/store/mass.h"
#include "core/store/pile.h"
#include "core/sun/irradiance.h"

#include <fmt/format.h>

#include <cmath>

namespace muffle {
namespace {

const std::vector<double> kUnderPipes_m{0.10, 0.20, 0.20, 0.30, 0.50, 0.80};
constexpr std::size_t kBoardAfter = 3;    // of those layers, half a metre down
constexpr double kInner_m2K_W = 0.125;    // film and radiation on a face in the house
constexpr double kOuterFace_m2K_W = 0.05; // on one that faces the weather
constexpr double kBedLongwave = 0.9;      // of soil: its exchange with all it sees, of much larger area
constexpr double kChamberWallBeyondPile = 1.2;
constexpr double kOpeningDischarge = 0.6, kBetweenOpenings_m = 1.5;
constexpr double kAirHeat_J_m3K = 1250.0;
constexpr double kCoilInPile_W_mK = 0.9; // of half-inch pipe: 2 pi 0.4/ln(0.15/0.0125), and its wall
constexpr double kLitreMinute_W_K = kWaterHeat_J_kgK / 60.0;
constexpr double kTankFreezing_K = 0.1;
constexpr int kMassCells = 4;

} // namespace

std::string cableId(std::size_t index) { return fmt::format("cable {}", index + 1); }

int Assembler::constantSignal(double value) {
  const auto known = m_constants.find(value);
  if (known != m_constants.end()) return known->second;
  Signal s;
  s.value = {value};
  s.t_s = {0.0};
  s.hold = true;
  return m_constants[value] = m_net.addSignal(std::move(s));
}

int Assembler::runsBy(const std::string& id, const StoreRule& rule, bool charges) {
  const int on = constantSignal(1.0), off = constantSignal(0.0);
  int otherwise = off;
  if (charges) {
    m_net.relays.push_back({id + " rests", SwitchedByTemperature{m_a.air, rule.chargeAbove_C - kRuleBand_K, rule.chargeAbove_C}});
    otherwise = m_net.addSwitch(static_cast<int>(m_net.relays.size()) - 1, off, on);
  }
  m_net.relays.push_back({id + " gives", SwitchedByTemperature{m_a.air, rule.giveBelow_C, rule.giveBelow_C + kRuleBand_K}});
  return onMains(m_net.addSwitch(static_cast<int>(m_net.relays.size()) - 1, on, otherwise), id);
}

double Assembler::pipeBeds_m2() const {
  double area = 0.0;
  for (const GroundPipes& p : m_plan.groundPipes)
    if (p.place == PipePlace::underFloor) area += p.bed_m2();
  return area;
}

void Assembler::pipeBeds(int floor, double start_C) {
  const SoilHeat heat = soilHeat(*findSoilMaterial(m_house.floor.soil), m_house.floor.moisture_kg_kg);
  for (std::size_t i = 0; i < m_plan.groundPipes.size(); ++i) {
    const GroundPipes& p = m_plan.groundPipes[i];
    const bool under = p.place == PipePlace::underFloor;
    const double depth_m = p.depth_m + (under ? m_house.shape.sunk_m : 0.0);
    const double there_C = far().temperature_C(depth_m, m_winter.startDay);
    const PipeSoil cut = pipeSoil(p, m_fitted.ground * heat.conductivity_W_mK);
    const std::string id = fmt::format("pipes {}", i + 1);
    const int plane = m_net.addNode(id + " soil", 0.0, there_C);
    m_pipePlane.push_back(plane);
    const double area_m2 = under ? p.bed_m2() : cut.area_m2;
    Solid below{.id = id + " below", .area_m2 = area_m2, .from = plane, .initial_C = there_C};
    below.layers = soilLayers(m_house.floor, kUnderPipes_m, m_fitted.ground);
    double down_m = 0.0;
    for (const double layer : kUnderPipes_m) down_m += layer;
    if (under) {
      if (p.board_m2K_W > 0.0) {
        constexpr double kBoard_m = 0.05;
        below.layers.insert(below.layers.begin() + kBoardAfter, {kBoard_m, kBoard_m / p.board_m2K_W, 30.0, 1400.0, 1});
      }
      addSoilOver(m_net, id + " above", m_house.floor, floor, plane, area_m2, cut.above_m, start_C, there_C, m_fitted.ground);
      below.to = m_net.addBoundary(id + " deep", Driver::table(undisturbed(depth_m + down_m)));
      below.initialFar_C = far().temperature_C(depth_m + down_m, m_winter.startDay);
      // what the pipes add to the undisturbed ground goes off sideways to where that lies open
      const int beside = m_net.addBoundary(id + " beside", Driver::table(undisturbed(depth_m)));
      m_net.addConductance(plane, beside, pipeBedSides_W_K(p, m_house.shape, depth_m, m_fitted.ground * heat.conductivity_W_mK),
                           lossPathId(LossPath::deepGround));
    } else {
      // by superposition: what the pipes add to the undisturbed ground vanishes at the surface and far below, so that both lie at
      // what the ground would be at the pipes
      const int wave = m_net.addBoundary(id + " ground", Driver::table(undisturbed(depth_m)));
      Solid above{.id = id + " above", .area_m2 = area_m2, .from = plane, .to = wave, .initial_C = there_C};
      std::vector<double> layers = layersDownTo(cut.above_m); // thin ones next to the pipes
      above.layers = soilLayers(m_house.floor, layers, m_fitted.ground);
      m_net.addSolid(above);
      m_net.links.back().part = lossPathId(LossPath::deepGround);
      below.to = wave;
    }
    m_net.addSolid(below);
    m_net.links.back().part = lossPathId(LossPath::deepGround);
    for (int n = plane; n < static_cast<int>(m_net.nodes.size()); ++n)
      if (!m_net.nodes[static_cast<std::size_t>(n)].boundary) m_a.below.push_back(n);
  }
}

void Assembler::pipes(std::size_t index) {
  const GroundPipes& p = m_plan.groundPipes[index];
  const std::string id = fmt::format("pipes {}", index + 1);
  const FanDuty duty = pipeDuty(p, m_net.pressure_Pa);
  const PipeRunShape shape = pipeShape(p, m_house.floor, m_fitted.ground, m_net.pressure_Pa);
  StoreNodes store{StoreKind::pipes, index};
  store.runs = runsBy(id, p.rule, true);
  store.power_W = duty.power_W;
  const RoomAir house = m_rooms.front().air;
  RoomAir to = house;
  if (p.serves == PipeOutlet::bay) to = room(RoomKind::bay)->air;
  if (p.serves == PipeOutlet::bed) to = {bedRoom(static_cast<std::size_t>(p.bed)).air, bedRoom(static_cast<std::size_t>(p.bed)).vapour};
  const auto firstLink = m_net.links.size();
  const int plane = m_pipePlane[index];
  const PipeRun run =
      addPipeRun(m_net, id, shape, {house.air, house.vapour}, {to.air, to.vapour}, m_net.nodes[static_cast<std::size_t>(plane)].initial_C, {plane}, store.runs);
  if (to.air != house.air) { // what a room is given pushes as much out of it into the house
    m_net.addAdvective(to.air, house.air, duty.flow_m3_s * shape.air.density_kg_m3 * shape.air.heat_J_kgK).modulator = store.runs;
    m_net.addAdvective(to.vapour, house.vapour, duty.flow_m3_s * shape.air.density_kg_m3 * shape.air.heat_J_kgK * kLatentPerExchange).modulator = store.runs;
  }
  // what comes out warms the room it is let into, and what that pushes out the house
  for (std::size_t l = firstLink; l < m_net.links.size(); ++l)
    if (const int at = m_net.links[l].to; at == to.air || at == to.vapour || at == house.air || at == house.vapour) store.giving.push_back(static_cast<int>(l));
  store.node = {run.air.back(), run.soil.front().face(), run.soil.back().face(), plane};
  if (p.collector_m2 > 0.0) {
    constexpr double kWaterAboveSoil_K = 8.0; // of a coil along the pipes at a collector's 300 W/m2
    constexpr double kSoilTooHot_C = 45.0;    // it dries out, and plastic pipe softens
    collector(store, plane, p.collector_m2, p.collectorTilt_deg);
    store.collector->above_K = kWaterAboveSoil_K;
    store.collector->stops_C = kSoilTooHot_C;
  }
  for (const RadialSoil& soil : run.soil)
    for (const int node : soil.node) {
      m_a.below.push_back(node);
      if (node != plane) store.holds.push_back(heldBy(node)); // what lies beyond the rings hardly moves by a night
    }
  m_a.stores.push_back(std::move(store));
}

void Assembler::hotBedFloors(double start_C) {
  for (std::size_t i = 0; i < m_plan.compost.size(); ++i) {
    m_hotBeds.push_back({});
    const CompostPile& pile = m_plan.compost[i];
    if (pile.place != PilePlace::hotBed) continue;
    m_hotBeds.back().foot_m2 = pile.width_m * pile.length_m;
    m_hotBeds.back().floor = m_net.addNode(fmt::format("hot bed {} floor", i + 1), 0.0, start_C);
  }
}

void Assembler::hotBed(std::size_t index, StoreNodes& store, PileHandles& handles) {
  const CompostPile& pile = m_plan.compost[index];
  const Blend blend = blendOf(pile);
  const PileSize size = pileSize(pile, blend);
  const Room& house = m_rooms.front();
  const HotBed& bed = m_hotBeds[index];
  Floor earth = m_house.floor;
  earth.cover.clear();
  Solid soil{.id = fmt::format("hot bed {} soil", index + 1), .area_m2 = bed.foot_m2, .from = bed.floor, .to = handles.core, .initial_C = start()};
  soil.hTo_W_m2K = 1.0 / size.core_m2K_W;
  // root depth, a tenth of a metre, is a node; thinner soil has its own half
  const double root_m = std::min(0.10, 0.5 * pile.soil_m);
  std::vector<double> layers{0.3 * root_m, 0.7 * root_m};
  for (double left = pile.soil_m - root_m; left > 1e-9;) {
    const double next = left > 0.15 ? 0.10 : left;
    layers.push_back(next);
    left -= next;
  }
  soil.layers = soilLayers(earth, layers, m_fitted.ground);
  m_net.addSolid(soil);
  const auto at = [&](std::size_t layer) { return m_net.find(fmt::format("hot bed {} soil:{}", index + 1, layer)); };
  overFloor(house.air, bed.floor, bed.foot_m2, earth);
  m_net.addRadiative(bed.floor, house.covers->radiation(), kBedLongwave * bed.foot_m2);
  const double sides = (1.0 - pile.buried) * size.sides_m2 / (size.core_m2K_W + pile.jacket_m2K_W + kInner_m2K_W);
  m_net.addConductance(handles.core, m_a.air, sides);
  store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
  store.node = {at(2), bed.floor};
  handles.air = house.air.air;
  handles.vapour = house.air.vapour;
  const auto breath = static_cast<int>(m_net.sources.size());
  handles.breath = PileHandles::Breath{breath, breath + 1};
  m_net.sources.push_back({house.air.air, Driver::set(0.0), "warmth of the pile's air"});
  m_net.sources.push_back({house.air.vapour, Driver::set(0.0), "vapour of the pile's air"});
}

void Assembler::chamber(std::size_t index, StoreNodes& store, PileHandles& handles) {
  const CompostPile& pile = m_plan.compost[index];
  const PileSize size = pileSize(pile, blendOf(pile));
  const double faces = size.top_m2 + (1.0 - pile.buried) * size.sides_m2;
  const double walls = kChamberWallBeyondPile * faces;
  constexpr double kWallCapacity_J_m2K = 8000.0; // a centimetre of timber
  const int air = m_net.addNode(fmt::format("chamber {} air", index + 1), kWallCapacity_J_m2K * walls + kAirHeat_J_m3K * size.foot_m2, start());
  m_net.addConductance(handles.core, air, faces / (size.core_m2K_W + pile.jacket_m2K_W + kInner_m2K_W)); // boards lie against it
  m_net.addConductance(air, m_a.outside, walls / (kInner_m2K_W + pile.jacket_m2K_W + kOuterFace_m2K_W));
  const auto gives = [&] { store.giving.push_back(static_cast<int>(m_net.links.size()) - 1); };
  if (pile.opening_m2 > 0.0) { // a low and a high opening, in line: ASHRAE Fundamentals, stack flow
    const double k = kAirHeat_J_m3K * kOpeningDischarge * pile.opening_m2 / std::sqrt(2.0) * std::sqrt(2.0 * kGravity_m_s2 * kBetweenOpenings_m / kelvin(10.0));
    m_net.addNatural(air, m_a.air, 1.0, k, 0.5);
    gives();
  }
  if (pile.fan_m3_h > 0.0) {
    store.runs = runsBy(fmt::format("chamber {}", index + 1), {60.0, pile.giveBelow_C}, false);
    m_net.addConductance(air, m_a.air, kAirHeat_J_m3K * pile.fan_m3_h / 3600.0).modulator = store.runs;
    gives();
    constexpr double kFan_W_m3_h = 0.08; // of a fan that moves air through a duct of a few metres
    store.power_W = kFan_W_m3_h * pile.fan_m3_h;
  }
  store.node = {air};
  handles.air = air;
}

void Assembler::mound(std::size_t index, StoreNodes& store, PileHandles& handles) {
  const CompostPile& pile = m_plan.compost[index];
  constexpr double kPump_W = 25.0; // the smallest circulators with a wet rotor
  store.power_W = kPump_W;
  handles.hasCoil = true;
  store.node = {};
  if (pile.coilInto == CoilInto::tank) return; // when there is one
  store.runs = runsBy(fmt::format("mound {}", index + 1), {60.0, pile.giveBelow_C}, false);
  const double flow = pile.coilFlow_l_min * kLitreMinute_W_K;
  const double coil = exchangerEffectiveness(FlowArrangement::counterflow, pile.coil_m * kCoilInPile_W_mK / flow);
  const double radiator = exchangerEffectiveness(FlowArrangement::counterflow, pile.radiator_W_K / flow);
  m_net.addConductance(handles.core, m_a.air, flow * coil * radiator / (coil + radiator - coil * radiator)).modulator = store.runs;
  store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
}

/// Of mounds whose coil warms the tank of this loop.
void Assembler::coilsInto(int tank, std::size_t loop) {
  for (StoreNodes& store : m_a.stores) {
    if (store.kind != StoreKind::compost) continue;
    const CompostPile& pile = m_plan.compost[store.index];
    if (pile.place != PilePlace::mound || pile.coilInto != CoilInto::tank || pile.tank != static_cast<int>(loop)) continue;
    auto& handles = std::get<PileHandles>(store.own);
    const double flow = pile.coilFlow_l_min * kLitreMinute_W_K;
    m_net.addConductance(handles.core, tank, flow * exchangerEffectiveness(FlowArrangement::counterflow, pile.coil_m * kCoilInPile_W_mK / flow));
    store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
    handles.coilWarms = tank;
  }
}

void Assembler::compost(std::size_t index) {
  StoreNodes store{StoreKind::compost, index};
  auto& handles = store.own.emplace<PileHandles>();
  handles.core = m_net.addBoundary(fmt::format("compost {}", index + 1), Driver::set(start()));
  switch (m_plan.compost[index].place) {
  case PilePlace::hotBed: hotBed(index, store, handles); break;
  case PilePlace::chamber: chamber(index, store, handles); break;
  case PilePlace::mound: mound(index, store, handles); break;
  }
  m_a.stores.push_back(std::move(store));
}

void Assembler::loop(std::size_t index) {
  const WaterLoop& w = m_plan.waterLoops[index];
  const std::string id = fmt::format("loop {}", index + 1);
  const auto water = [&](const char* name, double litres) {
    const double kg = litres / 1000.0 * kWaterDensity_kg_m3;
    const int node = m_net.addNode(id + name, kg * kWaterHeat_J_kgK, start());
    m_net.nodes.back().water = FreezingWater{kg * kFusion_J_kg, kTankFreezing_K, kg * kIceHeat_J_kgK};
    return node;
  };
  const int tank = water(" tank", w.litres);
  coilsInto(tank, index);
  StoreNodes store{StoreKind::loop, index, {tank}};
  store.holds.push_back(heldBy(tank));
  store.runs = runsBy(id, w.rule, true);
  store.power_W = w.pump_W;
  const auto gives = [&] { store.giving.push_back(static_cast<int>(m_net.links.size()) - 1); };
  m_net.addConductance(tank, m_a.air, w.tankLoss_W_K);
  gives();
  const double flow_W_K = w.flow_l_min * kLitreMinute_W_K;
  if (w.radiator_l > 0.0) { // its water is mixed by what the pump brings, and gives on while it rests
    store.node.push_back(water(" radiator", w.radiator_l));
    store.holds.push_back(heldBy(store.node.back()));
    m_net.addConductance(tank, store.node.back(), flow_W_K).modulator = store.runs;
    m_net.addConductance(store.node.back(), m_a.air, w.radiator_W_K);
  } else {
    m_net.addConductance(tank, m_a.air, loopConductance_W_K(flow_W_K, w.radiator_W_K)).modulator = store.runs;
  }
  gives();
  if (w.collector_m2 > 0.0) collector(store, tank, w.collector_m2, w.collectorTilt_deg);
  m_tanks.push_back(tank);
  m_a.stores.push_back(std::move(store));
}

/// A flat solar collector out of doors; the store runner works out what it gives.
void Assembler::collector(StoreNodes& store, int warms, double area_m2, double tilt_deg) {
  CollectorHandles& collector = store.collector.emplace();
  collector.source = static_cast<int>(m_net.sources.size());
  collector.warms = warms;
  collector.area_m2 = area_m2;
  m_net.sources.push_back({warms, Driver::set(0.0), "solar collector"});
  collector.tilt_deg = tilt_deg;
  const auto alike = std::find_if(m_a.stores.begin(), m_a.stores.end(), [&](const StoreNodes& s) { return s.collector && s.collector->tilt_deg == tilt_deg; });
  if (alike != m_a.stores.end()) {
    collector.W_m2 = alike->collector->W_m2;
    return;
  }
  const double towardsEquator = m_plan.site.place.latitude_deg >= 0.0 ? -1.0 : 1.0; // azimuths count from north
  const double cosTilt = std::cos(radians(tilt_deg)), sinTilt = std::sin(radians(tilt_deg));
  collector.W_m2.resize(m_winter.size());
  for (std::size_t i = 0; i < m_winter.size(); ++i) {
    const double zenith_deg = static_cast<double>(m_winter.zenith_deg[i]);
    if (m_winter.sun_W_m2[i] <= 0.0 || zenith_deg >= 89.0) continue;
    const double cosZenith = std::cos(radians(zenith_deg)), sinZenith = std::sqrt(1.0 - cosZenith * cosZenith);
    const double cosIncidence = cosZenith * cosTilt + sinZenith * sinTilt * towardsEquator * std::cos(radians(static_cast<double>(m_winter.azimuth_deg[i])));
    collector.W_m2[i] = tiltedIrradiance(m_winter.sun_W_m2[i], m_winter.diffuse_W_m2[i], static_cast<double>(m_winter.extraterrestrial_W_m2[i]),
                                         {cosZenith, cosIncidence, cosTilt}, 0.2, SkyModel::hayDavies)
                            .total();
  }
}

/// Before the floor's own column, which has what they leave of it, and before the sun.
void Assembler::massFloors(double start_C, double below_m) {
  for (std::size_t i = 0; i < m_plan.mass.size(); ++i) {
    m_massFloors.push_back({});
    const MassBlock& m = m_plan.mass[i];
    const MassHeat heat = massHeat(m.material);
    OwnFloor& own = m_massFloors.back();
    const std::string id = fmt::format("mass {}", i + 1);
    const bool wall = m.kind == MassKind::wall;
    own.node = m_net.addNode(id + " surface", 0.0, start_C);
    Solid solid{.id = id, .area_m2 = wall ? 2.0 * m.area_m2 : m.area_m2, .from = own.node, .initial_C = start_C};
    solid.to = m_net.addNode(id + (wall ? " middle" : " foot"), 0.0, start_C);
    // of a wall from each face to the middle, which is the same for both
    solid.layers.push_back({wall ? m.thickness_m / 2.0 : m.thickness_m, heat.conductivity_W_mK, 1000.0, heat.heat_J_m3K / 1000.0, kMassCells});
    const int foot = solid.to;
    m_net.addSolid(std::move(solid));
    for (int node = own.node; node < static_cast<int>(m_net.nodes.size()); ++node) own.holds.push_back(heldBy(node));
    if (wall) continue;
    own.area_m2 = m.area_m2;
    own.grows = m.kind == MassKind::raisedBed;
    Floor bare = m_house.floor;
    bare.cover.clear();
    column(id + " soil", bare, foot, m.area_m2, below_m, start_C);
  }
}

void Assembler::mass(std::size_t index) {
  const MassBlock& m = m_plan.mass[index];
  const Room& house = m_rooms.front();
  const OwnFloor& own = m_massFloors[index];
  const std::string id = fmt::format("mass {}", index + 1);
  StoreNodes store{StoreKind::mass, index};
  store.holds = own.holds;
  if (m.kind == MassKind::wall) {
    const double faces_m2 = 2.0 * m.area_m2;
    constexpr double kUprightFilm = 1.5; // W/(m2 K^(4/3)), as of the house's own walls
    m_net.addNatural(own.node, m_a.air, faces_m2, kUprightFilm, kFilmExponent);
    store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
    constexpr double kSeesCover = 0.5; // the rest of its view is the floor, near its own temperature
    m_net.addRadiative(own.node, house.covers->radiation(), kBedLongwave * kSeesCover * faces_m2);
    store.node = {m_net.find(id + " middle"), own.node};
  } else {
    Floor bare = m_house.floor;
    bare.cover.clear();
    overFloor(house.air, own.node, own.area_m2, bare, own.grows);
    store.taking.push_back(static_cast<int>(m_net.links.size()) - 1);
    m_net.addRadiative(own.node, house.covers->radiation(), kBedLongwave * own.area_m2);
    if (m.kind != MassKind::path) {
      const auto side = [&](int node, double share) {
        m_net.addConductance(node, m_a.air, share * raisedBedSides_W_K(m));
        store.giving.push_back(static_cast<int>(m_net.links.size()) - 1);
      };
      for (int cell = 1; cell < kMassCells; ++cell) side(m_net.find(fmt::format("{}:0.{}", id, cell)), 1.0 / kMassCells);
      side(own.node, 0.5 / kMassCells);
      side(m_net.find(id + " foot"), 0.5 / kMassCells);
    }
    store.node = {m_net.find(id + ":0.2"), own.node};
  }
  m_a.stores.push_back(std::move(store));
}

void Assembler::cable(std::size_t index) {
  const SoilCable& c = m_plan.soilCables[index];
  const SoilColumn& soil = m_bedSoil[static_cast<std::size_t>(c.bed)];
  const auto nearest = [&](double depth_m) {
    std::size_t best = 0;
    for (std::size_t k = 1; k < soil.depth_m.size(); ++k)
      if (std::abs(soil.depth_m[k] - depth_m) < std::abs(soil.depth_m[best] - depth_m)) best = k;
    return soil.node[best];
  };
  constexpr double kRoot_m = 0.06;
  const int at = nearest(c.depth_m);
  Thermostat t;
  t.id = cableId(index);
  t.sensor = t.heats = at;
  t.power_W = c.watts_per_m * c.length_m;
  t.setpoint_C = c.setpoint_C;
  const bool feelsAir = c.sensor == CableSensor::air;
  if (feelsAir) t.sensor = bedRoom(static_cast<std::size_t>(c.bed)).air;
  if (feelsAir || c.off_C) { // the soil's own warmth comes hours later: no power would hold the air exactly
    t.mode = Thermostat::Mode::hysteresis;
    t.on_C = c.setpoint_C;
    t.off_C = c.off_C.value_or(c.setpoint_C + kCableBand_K);
  }
  StoreNodes store{StoreKind::cable, index, {at, nearest(kRoot_m), bedRoom(static_cast<std::size_t>(c.bed)).air}};
  const CableHandles handles{static_cast<int>(m_net.thermostats.size())};
  store.own = handles;
  m_a.electric.push_back(handles.thermostat);
  m_net.thermostats.push_back(std::move(t));
  m_a.stores.push_back(std::move(store));
}

void Assembler::stores() {
  for (std::size_t i = 0; i < m_plan.groundPipes.size(); ++i) pipes(i);
  for (std::size_t i = 0; i < m_plan.compost.size(); ++i) compost(i);
  for (std::size_t i = 0; i < m_plan.waterLoops.size(); ++i) loop(i);
  for (std::size_t i = 0; i < m_plan.soilCables.size(); ++i) cable(i);
  for (std::size_t i = 0; i < m_plan.mass.size(); ++i) mass(i);
  // barrels whose halves turn over
  for (StoreNodes& store : m_a.stores) {
    if (store.kind != StoreKind::barrels || store.node.size() < 2) continue;
    const auto first = static_cast<int>(m_net.sources.size());
    store.own = LayeredHandles{.upper = first + 1, .lower = first};
    m_net.sources.push_back({store.node[0], Driver::set(0.0), "water that turns over"});
    m_net.sources.push_back({store.node[1], Driver::set(0.0), "water that turns over"});
  }
}

} // namespace muffle
