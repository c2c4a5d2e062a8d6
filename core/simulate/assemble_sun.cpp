// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/assembler.h"

#include <cmath>

namespace muffle {
namespace {

constexpr double kFloorTakesUp = 0.85; // of the light on it: dark moist soil
constexpr double kLeavesTakeUp = 0.80; // of the light that they meet
constexpr double kCanopy = 0.6;        // per unit of leaf area: Monsi and Saeki (1953), 0.5 to 0.8

} // namespace

Assembler::Light Assembler::lightInside() const {
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

void Assembler::sun() {
  const Light light = lightInside();
  const double transmittance = m_fitted.sun * light.shut; // of what a roof that draws back adds, walls and barrels get nothing
  // a blanket that is closed by day takes its share of the light; what it stops is taken as sent back out
  const double cloth = m_house.blanket ? m_materials.find(m_house.blanket->material)->solarTransmittance : 1.0;
  const auto pastBlanket = [&](std::size_t i) { return m_a.blanketClosed.empty() || m_a.blanketClosed[i] == 0.0 ? 1.0 : cloth; };
  const int inside = signalOf([&](std::size_t i) {
    const bool isOpen = !m_a.roofOpen.empty() && m_a.roofOpen[i] > 0.0;
    return m_fitted.sun * pastBlanket(i) * (isOpen ? light.open : light.shut) * (m_sun.beamInside_W_m2[i] + m_sun.diffuse_W_m2[i]);
  });
  // what the leaves meet of the light warms them and the air; the floor has the rest
  const double betweenLeaves = std::exp(-kCanopy * m_house.crop.leafArea);
  const auto floorShare = [&](bool grows) { return kFloorTakesUp * (grows ? betweenLeaves : 1.0); };
  const auto leafShare = [&](bool grows) { return grows ? kLeavesTakeUp * (1.0 - betweenLeaves) : 0.0; };
  const auto underCeiling = [&](const Room& room) { return room.space.kind == RoomKind::house ? m_ceilingTransmittance : 1.0; };
  for (const Room& room : m_rooms) {
    if (room.floor < 0) continue;
    const double lit = room.bare_m2 * underCeiling(room);
    m_net.sources.push_back({room.floor, Driver::table(inside, lit * floorShare(room.grows())), "sun on the floor"});
    m_net.sources.push_back({room.air.air, Driver::table(inside, lit * leafShare(room.grows())), "sun on leaves"});
  }
  for (const HotBed& bed : m_hotBeds)
    if (bed.floor >= 0)
      m_net.sources.push_back({bed.floor, Driver::table(inside, bed.foot_m2 * m_ceilingTransmittance * floorShare(true)), "sun on a hot bed"});
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
  if (!m_plan.barrels.empty() || !m_massWalls.empty()) {
    const int upright = signalOf([&](std::size_t i) { return pastBlanket(i) * m_sun.upright_W_m2[i]; });
    for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
      const Barrels& group = m_plan.barrels[b];
      const std::vector<int>& parts = m_a.stores[b].node; // barrels come first
      const double factor = group.count * barrelSize(group.litres).silhouette_m2 * group.sunShare * barrelAbsorptance(group.colour) * transmittance *
                            m_ceilingTransmittance / static_cast<double>(parts.size());
      for (const int part : parts) m_net.sources.push_back({part, Driver::table(upright, factor), "sun on barrels"});
    }
    for (const auto& [node, area_m2] : m_massWalls)
      m_net.sources.push_back({node, Driver::table(upright, area_m2 * transmittance * m_ceilingTransmittance), "sun on a wall inside"});
  }
  for (const OwnFloor& own : m_massFloors)
    if (own.area_m2 > 0.0)
      m_net.sources.push_back({own.node, Driver::table(inside, own.area_m2 * m_ceilingTransmittance * floorShare(own.grows)), "sun on a path or bed"});
  if (!m_innerWalls.empty()) {
    const int wall = signalOf([&](std::size_t i) { return pastBlanket(i) * m_sun.wallInside_W_m2[i]; });
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
