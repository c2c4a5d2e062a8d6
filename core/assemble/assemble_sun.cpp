// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/assembler.h"

#include "core/store/mass.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr double kTallest = 0.7;      // of the house, that crop and things reach
constexpr double kWallHeight_m = 1.2; // of a wall that stands free

} // namespace

LightTaking Assembler::lightTaking() const {
  LightTaking taking;
  const double tallest_m = kTallest * m_house.shape.ridge_m;
  taking.floor_m2 = m_house.shape.floor_m2();
  // a blanket that is closed by day takes its share of the light; what it stops is taken as sent back out
  const double cloth = m_house.blanket ? m_materials.find(m_house.blanket->material)->solarTransmittance : 1.0;
  const Skin* const skins[] = {&m_house.roof, &m_house.sides, &m_house.ends};
  for (const FaceGroup group : {FaceGroup::roof, FaceGroup::sides, FaceGroup::ends}) {
    auto& cover = taking.covers[static_cast<std::size_t>(group)];
    const SkinOptics optics = skinOptics(*skins[static_cast<int>(group)], m_materials);
    cover.area_m2 = m_house.shape.area_m2(group);
    cover.transmittance = optics.transmittance;
    for (const double a : optics.absorptance) cover.absorptance += a;
    cover.lets.assign(m_winter.size(), m_fitted.sun * optics.transmittance * m_house.light.left());
    for (std::size_t i = 0; i < cover.lets.size(); ++i) {
      if (group == FaceGroup::roof && !m_a.roofOpen.empty() && m_a.roofOpen[i] > 0.0) cover.lets[i] = m_fitted.sun * (1.0 - m_house.light.frame);
      if (!m_a.blanketClosed.empty() && m_a.blanketClosed[i] > 0.0) cover.lets[i] *= cloth;
    }
  }
  taking.filling.leafArea = m_house.crop.leafArea;
  taking.filling.cropHeight_m = std::min(m_house.crop.height_m, tallest_m);
  for (const Barrels& group : m_plan.barrels) {
    const BarrelSize size = barrelSize(group.litres);
    const double lit = group.count * group.sunShare;
    taking.filling.standing.push_back({std::min(size.height_m, tallest_m), lit * kPi / 4.0 * size.diameter_m * size.diameter_m, lit * size.silhouette_m2, 0.0});
    taking.standingAbsorptance.push_back(barrelAbsorptance(group.colour));
  }
  for (const MassBlock& m : m_plan.mass) {
    if (m.kind != MassKind::wall) continue;
    taking.filling.standing.push_back({std::min(kWallHeight_m, tallest_m), 0.0, 0.0, m.area_m2 * m.sunShare});
    taking.standingAbsorptance.push_back(massHeat(m.material).absorptance);
  }
  if (!m_innerWalls.empty()) {
    taking.backWall_m2 = m_house.shape.area_m2(FaceGroup::backWall);
    taking.backWallAbsorptance = 1.0 - m_materials.find(m_house.backWall.layers.back().material)->solarReflectance;
  }
  return taking;
}

void Assembler::sun() {
  LightTaking taking = lightTaking();
  const auto table = [&](std::vector<double>& series) { return signal(std::move(series)); };
  struct Signals {
    int floor, leaves;
  };
  // rooms that no ceiling hangs over, where another does
  std::optional<Signals> open;
  if (m_ceilingTransmittance < 1.0) {
    const Crossing crossing = crossingOf(m_house);
    const double above = crossing.above_m2 / (crossing.above_m2 + crossing.below_m2);
    std::vector<double> onCeiling = lightEntering_W(taking, m_sun, m_winter, FaceGroup::roof);
    const std::vector<double> gables = lightEntering_W(taking, m_sun, m_winter, FaceGroup::ends);
    for (std::size_t i = 0; i < onCeiling.size(); ++i) onCeiling[i] = (onCeiling[i] + above * gables[i]) / taking.floor_m2;
    const int light = table(onCeiling);
    for (const auto& [node, area] : m_ceilingSun) m_net.sources.push_back({node, Driver::table(light, area), "sun on the ceiling"});
    if (m_rooms.size() > 2) {
      LightInside in = lightInside(taking, m_sun, m_winter);
      open = Signals{table(in.floor_W_m2), table(in.leaves_W_m2)};
    }
    taking.covers[static_cast<std::size_t>(FaceGroup::roof)].passes = m_ceilingTransmittance;
    taking.covers[static_cast<std::size_t>(FaceGroup::ends)].passes = 1.0 - above * (1.0 - m_ceilingTransmittance);
  }
  LightInside in = lightInside(taking, m_sun, m_winter);
  const Signals under{table(in.floor_W_m2), table(in.leaves_W_m2)};
  const int meets = table(in.meets_W_m2);
  m_a.light = meets;
  const auto lightOf = [&](const Room& room) { return open && room.space.kind != RoomKind::house ? *open : under; };
  for (const Room& room : m_rooms) {
    if (room.floor < 0) continue;
    const Signals light = lightOf(room);
    m_net.sources.push_back({room.floor, Driver::table(light.floor, room.bare_m2), "sun on the floor"});
    // where nothing grows the floor has it all
    m_net.sources.push_back(
        {room.grows() ? room.air.air : room.floor, Driver::table(light.leaves, room.bare_m2), room.grows() ? "sun on leaves" : "sun on the floor"});
  }
  const auto onFloor = [&](int floor, int leaves, double area_m2, const Signals& light, const char* what) {
    m_net.sources.push_back({floor, Driver::table(light.floor, area_m2), what});
    m_net.sources.push_back({leaves, Driver::table(light.leaves, area_m2), floor == leaves ? what : "sun on leaves"});
  };
  for (const HotBed& bed : m_hotBeds)
    if (bed.floor >= 0) onFloor(bed.floor, m_a.air, bed.foot_m2, under, "sun on a hot bed");
  for (const OwnFloor& own : m_massFloors)
    if (own.area_m2 > 0.0) onFloor(own.node, own.grows ? m_a.air : own.node, own.area_m2, under, "sun on a path or bed");
  for (std::size_t k = 0; k < m_house.bedCovers.size(); ++k) {
    const BedCover& bed = m_house.bedCovers[k];
    const CoverMaterial& m = *m_materials.find(bed.material);
    onFloor(bedRoom(k).floor, bedRoom(k).air, bed.bed_m2() * m.solarTransmittance, lightOf(roomOf(bed)), "sun on a bed");
    m_net.sources.push_back({m_bedSheets[k], Driver::table(meets, bed.bed_m2() * (1.0 - m.solarTransmittance - m.solarReflectance)), "sun on a bed cover"});
  }
  leaves(meets);
  std::size_t thing = 0;
  for (std::size_t b = 0; b < m_plan.barrels.size(); ++b, ++thing) {
    const int light = table(in.standing_W[thing]);
    const std::vector<int>& parts = m_a.stores[b].node; // barrels come first
    for (const int part : parts) m_net.sources.push_back({part, Driver::table(light, 1.0 / static_cast<double>(parts.size())), "sun on barrels"});
  }
  for (std::size_t k = 0; k < m_plan.mass.size(); ++k)
    if (m_plan.mass[k].kind == MassKind::wall)
      m_net.sources.push_back({m_massFloors[k].node, Driver::table(table(in.standing_W[thing++]), 1.0), "sun on a wall inside"});
  if (!m_innerWalls.empty()) {
    const int wall = table(in.backWall_W_m2);
    for (const auto& [node, area] : m_innerWalls) m_net.sources.push_back({node, Driver::table(wall, area), "sun on the wall"});
  }
  int groupSignal[kFaceGroupCount] = {-1, -1, -1, -1};
  for (const auto& absorbing : m_absorbing) {
    int& s = groupSignal[absorbing.group];
    if (s < 0) {
      std::vector<double> on = m_sun.group_W_m2[static_cast<std::size_t>(absorbing.group)];
      if (absorbing.group == static_cast<int>(FaceGroup::roof) && !m_a.roofOpen.empty())
        for (std::size_t i = 0; i < on.size(); ++i) on[i] *= 1.0 - m_a.roofOpen[i];
      if (absorbing.group < kLightEntries && m_fitted.sun > 0.0) // and what meets it from within
        for (std::size_t i = 0; i < on.size(); ++i) on[i] += in.far_W_m2[static_cast<std::size_t>(absorbing.group)][i] / (m_fitted.sun * m_house.light.left());
      s = signal(std::move(on));
    }
    m_net.sources.push_back({absorbing.node, Driver::table(s, absorbing.factor), "sun on the cover"});
  }
}

void Assembler::leaves(int light) {
  if (m_house.crop.leafArea <= 0.0) return;
  const std::vector<double>& W_m2 = m_net.tables[static_cast<std::size_t>(light)].value;
  const int stomata = signalOf([&](std::size_t i) { return transpiration_W_g_kg(W_m2[i]); });
  for (const Room& room : m_rooms)
    if (room.grows()) m_net.addEvaporative(room.air.air, room.air.vapour, m_house.crop.leafArea * room.bare_m2).modulator = stomata;
  for (std::size_t k = 0; k < m_house.bedCovers.size(); ++k)
    m_net.addEvaporative(bedRoom(k).air, bedRoom(k).vapour, m_house.crop.leafArea * m_house.bedCovers[k].bed_m2()).modulator = stomata;
}

} // namespace muffle
