// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/assembler.h"

#include "core/assemble/blanket.h"
#include "core/assemble/openings.h"
#include "core/calendar.h"
#include "core/house/infiltration.h"

#include <fmt/format.h>

namespace muffle {
namespace {

constexpr double kLiftedAirChanges_per_h = 40.0; // a low tunnel with open ends

} // namespace

void Assembler::covers() {
  const auto times = [](std::vector<double> a, const std::vector<double>& b) {
    for (std::size_t i = 0; i < a.size(); ++i) a[i] *= b[i];
    return a;
  };
  const auto opposite = [](std::vector<double> a) {
    for (double& x : a) x = 1.0 - x;
    return a;
  };
  if (m_house.retractable) {
    m_a.roofOpen = roofOpen(*m_house.retractable, m_house.ventLock, m_winter);
    m_roof = RoofSignals{signal(opposite(m_a.roofOpen), true), signal(m_a.roofOpen, true)};
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
      m_net.relays.push_back({"blanket", SwitchedByTemperature{m_a.air, m_house.blanket->insideBelow_C, m_house.blanket->insideBelow_C + kBand_K}});
    }
    const std::vector<double> leaking(closed.size(), leak);
    if (m_failable == Failable::yes) {
      m_a.blanketStuckOpen = commandedRelay("blanket:open", false);
      m_a.blanketStuckShut = commandedRelay("blanket:shut", false);
    }
    const auto hung = [&](const std::vector<double>& shut) {
      const auto by = [&](const std::vector<double>& drawn, const std::vector<double>& gathered, const std::vector<double>& stuckShut) {
        const int then = signal(times(drawn, shut), true);
        if (m_a.blanketRelay < 0 && m_failable == Failable::no) return then;
        const int open = signal(times(gathered, shut), true);
        const int ruled = m_a.blanketRelay < 0 ? then : m_net.addSwitch(m_a.blanketRelay, then, open);
        if (m_failable == Failable::no) return ruled;
        return m_net.addSwitch(m_a.blanketStuckOpen, open, m_net.addSwitch(m_a.blanketStuckShut, signal(times(stuckShut, shut), true), ruled));
      };
      return BlanketSignals{by(closed, never, always), by(opposite(closed), always, never), by(film, always, leaking)};
    };
    m_blanket = hung(always);
    m_blanketUnderRoof = m_roof ? hung(opposite(m_a.roofOpen)) : m_blanket;
  }
  m_a.inner.assign(kFaceGroupCount, -1);
  m_a.outer.assign(kFaceGroupCount, -1);
  for (Room& room : m_rooms) skins(room);
}

void Assembler::skins(Room& room) {
  const bool isMain = &room == &m_rooms.front();
  room.covers.emplace(m_net, CoverSurroundings{room.air.air, room.air.vapour, room.floor, m_a.outside, m_a.sky, m_windFilm}, room.start_C,
                      m_winter.outside_C.front(), m_materials);
  const Skin* const skins[] = {&m_house.roof, &m_house.sides, &m_house.ends, &m_house.backWall};
  for (const auto& [group, which] : {std::pair{FaceGroup::roof, LossPath::roof},
                                     {FaceGroup::sides, LossPath::sides},
                                     {FaceGroup::ends, LossPath::ends},
                                     {FaceGroup::backWall, LossPath::backWall}}) {
    const auto g = static_cast<std::size_t>(group);
    const double area = room.space.cover_m2[g];
    if (area <= 0.0) continue;
    const bool shared = group == FaceGroup::backWall && m_house.backWall_C;
    const Behind behind{shared ? m_net.addBoundary(room.prefix + "building", Driver::constant(*m_house.backWall_C)) : -1};
    const Skin& skin = *skins[g];
    const double usual = group == FaceGroup::backWall ? 0.0 : usualFrameAllowance(*m_materials.find(skin.layers.front().material));
    const double frames = 1.0 + (group == FaceGroup::backWall ? 0.0 : m_house.frameAllowance.value_or(usual));
    CoverPart& part = room.covers->add(skin, group, m_fitted.skin * frames * area, skyView(group, m_house.shape), lossPathId(which), behind, room.prefix);
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
      m_absorbing.push_back({part.sheets[l].outerNode, static_cast<int>(group), m_fitted.sun * area * optics.absorptance[l] * m_house.light.left()});
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

namespace {
const char* roomFanId(RoomKind kind) { return kind == RoomKind::bay ? "bay" : kind == RoomKind::lobby ? "lobby" : "roof-void"; }
} // namespace

void Assembler::joinHouse(const Room& room, double airChanges_per_h, const std::optional<RoomFan>& fan, bool drawsFromRoom) {
  const RoomAir house = m_rooms.front().air;
  const double pressure = m_net.pressure_Pa;
  exchangeAir(m_net, room.air, house, airChangeConductance_W_K(airChanges_per_h, room.space.volume_m3, 5.0, pressure), -1, "");
  if (!fan || fan->flow_m3_h <= 0.0) return;
  const double conductance = airChangeConductance_W_K(fan->flow_m3_h, 1.0, 5.0, pressure);
  const RoomAir from = drawsFromRoom ? room.air : house, to = drawsFromRoom ? house : room.air;
  if (fan->rule == FanRule::warm) {
    ventAir(m_net, from, to, fan->warmAbove_C, fan->warmAbove_C + kFanBand_K, conductance, onMains(-1, roomFanId(room.space.kind)), "");
    m_a.fans.push_back({fan->power_W, from.air, fan->warmAbove_C, fan->warmAbove_C + kFanBand_K});
    return;
  }
  Assembly::Fan runs{fan->power_W};
  if (fan->rule != FanRule::always) {
    const bool byNight = fan->rule == FanRule::night;
    for (const double night : m_night) runs.runs.push_back((night > 0.0) == byNight ? 1.0 : 0.0);
  }
  exchangeAir(m_net, from, to, conductance, onMains(runs.runs.empty() ? -1 : signal(runs.runs, true), roomFanId(room.space.kind)), "");
  m_a.fans.push_back(std::move(runs));
}

void Assembler::partition(Room& room, const Skin& skin, double airChanges_per_h, const std::optional<RoomFan>& fan, bool drawsFromRoom) {
  const Crossing crossing = crossingOf(m_house);
  room.covers->add(skin, FaceGroup::ends, crossing.below_m2, 0.5, "partition", behind(m_rooms.front()), room.prefix);
  if (const Room* above = this->room(RoomKind::roofVoid))
    room.covers->add(skin, FaceGroup::ends, crossing.above_m2, 0.5, "partition above", behind(*above), room.prefix);
  joinHouse(room, airChanges_per_h, fan, drawsFromRoom);
}

void Assembler::ceiling(Room& room) {
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

void Assembler::bedCover(Room& room, const BedCover& cover, const Assembly::Room& bed, const std::string& id) {
  const CoverPart& part = room.covers->tuck(cover, bed.air, bed.vapour, bed.floor, id);
  m_bedSheets.push_back(part.sheets.back().innerNode);
  const double byDay = cover.liftedByDay ? std::max(cover.airChanges_per_h, kLiftedAirChanges_per_h) : cover.airChanges_per_h;
  const int changes = signalOf([&](std::size_t i) { return m_night[i] > 0.0 ? cover.airChanges_per_h : byDay; }, true);
  exchangeAir(m_net, {bed.air, bed.vapour}, room.air, airChangeConductance_W_K(1.0, cover.volume_m3(), 5.0, m_net.pressure_Pa), changes, "");
}

} // namespace muffle
