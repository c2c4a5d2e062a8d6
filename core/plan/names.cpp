// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/names.h"

#include "core/plan/measure_table.h"

#include <algorithm>
#include <array>
#include <initializer_list>
#include <string_view>

namespace muffle {
namespace {

Message calledOr(const std::string& name, Message usual) { return name.empty() ? std::move(usual) : Message::verbatim(name); }

const char* codeOf(const CompostPile& pile) {
  switch (pile.place) {
  case PilePlace::hotBed: return "name.hot-bed";
  case PilePlace::chamber: return "name.compost-chamber";
  case PilePlace::mound: break;
  }
  return "name.compost-mound";
}

const char* codeOf(const MassBlock& block) {
  switch (block.kind) {
  case MassKind::path: return "name.path";
  case MassKind::raisedBed: return "name.raised-bed";
  case MassKind::bench: return "name.bench";
  case MassKind::wall: break;
  }
  return "name.wall";
}

/// Coverings that go by what they are for rather than by their kind.
constexpr std::array<std::pair<std::string_view, const char*>, 5> kCoverings{{{"second_skin.pe-film-ir", "measure.second-film"},
                                                                              {"second_skin.bubble-wrap", "measure.bubble-wrap-lining"},
                                                                              {"night_blanket.woven-blanket", "measure.woven-night-blanket"},
                                                                              {"night_blanket.aluminised-screen", "measure.aluminised-night-screen"},
                                                                              {"ceiling.clear-screen", "measure.ceiling-at-the-eaves"}}};

Message usualName(MeasureKind kind, const std::string& material) {
  const std::string id = rowOf(kind).id;
  if (kind == MeasureKind::heater && !material.empty()) return Message::of("heater", material);
  for (const auto& [covering, code] : kCoverings)
    if (covering == id + "." + material) return Message{code};
  return Message::of("measure", id);
}

Message onFaces(const Message& name, CoveredFaces faces) {
  constexpr std::array<const char*, 7> kWhere{
      "", "measure.on-roof", "measure.on-sides", "measure.on-ends", "measure.on-roof-and-sides", "measure.on-roof-and-ends", "measure.on-sides-and-ends"};
  return faces == CoveredFaces::all ? name : Message{kWhere[static_cast<std::size_t>(faces)], name};
}

bool isOneOf(const std::string& name, std::initializer_list<std::string_view> names) { return std::find(names.begin(), names.end(), name) != names.end(); }

template <class T> void forget(T& thing, std::initializer_list<std::string_view> names) {
  if (isOneOf(thing.name, names)) thing.name.clear();
}

} // namespace

Message nameOf(const BedCover& cover) { return calledOr(cover.name, Message{"name.bed-cover"}); }
Message nameOf(const WarmBay& bay) { return calledOr(bay.name, Message{"name.warm-bay"}); }
Message nameOf(const Lobby& lobby) { return calledOr(lobby.name, Message{"name.lobby"}); }
Message nameOf(const RoofVoid& roofVoid) { return calledOr(roofVoid.name, Message{"name.roof-void"}); }
Message nameOf(const Barrels& barrels) { return calledOr(barrels.name, Message{"name.barrels"}); }
Message nameOf(const GroundPipes& pipes) {
  return calledOr(pipes.name, pipes.place == PipePlace::beside ? Message{"name.ground-tube"} : Message{"name.ground-pipes"});
}
Message nameOf(const CompostPile& pile) { return calledOr(pile.name, Message{codeOf(pile)}); }
Message nameOf(const Plan& plan) { return calledOr(plan.name, Message{"name.plan"}); }
Message nameOf(const WaterLoop& loop) { return calledOr(loop.name, Message{"name.water-loop"}); }
Message nameOf(const SoilCable& cable) { return calledOr(cable.name, Message{"name.soil-cable"}); }
Message nameOf(const MassBlock& block) { return calledOr(block.name, Message{codeOf(block)}); }
Message nameOf(HeaterKind kind) { return Message::of("heater", factsOf(kind).id); }

Message nameOf(const Plan& plan, const Heater& heater) {
  if (!heater.name.empty()) return Message::verbatim(heater.name);
  const auto isAlike = [&heater](const Heater& h) { return h.name.empty() && h.kind == heater.kind && h.place == heater.place; };
  Message name = nameOf(heater.kind);
  if (heater.place.of == HeaterPlace::Of::bay && plan.house.bay)
    name = Message{"name.of-room", name, nameOf(*plan.house.bay)};
  else if (heater.place.of == HeaterPlace::Of::tank && heater.place.index < plan.waterLoops.size())
    name = Message{"name.of-room", name, nameOf(plan.waterLoops[heater.place.index])};
  else if (heater.place.of == HeaterPlace::Of::bed && heater.place.index < plan.house.bedCovers.size())
    name = Message{"name.of-room", name, nameOf(plan.house.bedCovers[heater.place.index])};
  else if (heater.place.of == HeaterPlace::Of::mass && heater.place.index < plan.mass.size())
    name = Message{"name.of-room", name, nameOf(plan.mass[heater.place.index])};
  if (std::count_if(plan.heaters.begin(), plan.heaters.end(), isAlike) < 2) return name;
  long number = 0;
  for (const Heater& h : plan.heaters) {
    number += isAlike(h) ? 1 : 0;
    if (h.id == heater.id) break;
  }
  return Message{"name.numbered", name, number};
}

Message nameOf(const Measure& measure) { return calledOr(measure.name, onFaces(usualName(measure.kind, materialOf(measure)), measure.faces)); }
std::string materialOf(const Measure& measure) {
  const bool isOther = measure.kind == MeasureKind::heater && measure.heater != HeaterKind::electric;
  return isOther ? factsOf(measure.heater).id : measure.material;
}
Message nameOf(const Measure& measure, double level) { return rowOf(measure.kind).label(nameOf(measure), level); }

Message nameOf(const Kit& kit) {
  const auto& table = measureTable();
  const auto row = std::find_if(table.begin(), table.end(), [&](const MeasureRow& r) { return r.id == kit.measure; });
  return row == table.end() ? Message::verbatim(kit.name) : row->label(calledOr(kit.name, onFaces(usualName(row->kind, kit.material), kit.faces)), kit.level);
}

void forgetUsualNames(Plan& plan) {
  House& house = plan.house;
  forget(plan, {"Plan"});
  for (BedCover& cover : house.bedCovers) forget(cover, {"bed cover"});
  if (house.bay) forget(*house.bay, {"warm bay"});
  if (house.lobby) forget(*house.lobby, {"lobby"});
  if (house.roofVoid) forget(*house.roofVoid, {"roof void"});
  for (Barrels& b : plan.barrels) forget(b, {"barrels"});
  for (GroundPipes& p : plan.groundPipes) forget(p, {p.place == PipePlace::beside ? "ground tube" : "ground pipes"});
  for (CompostPile& c : plan.compost)
    forget(c, {c.place == PilePlace::hotBed ? "hot bed" : c.place == PilePlace::chamber ? "compost chamber" : "compost mound"});
  for (WaterLoop& w : plan.waterLoops) forget(w, {"water loop"});
  for (SoilCable& c : plan.soilCables) forget(c, {"soil cable"});
  for (MassBlock& m : plan.mass)
    forget(m, {m.kind == MassKind::path ? "path" : m.kind == MassKind::raisedBed ? "raised bed" : m.kind == MassKind::bench ? "heavy bench" : "stone wall"});
  for (Heater& h : plan.heaters) forget(h, {"electric heater", "warm bay heater", "water loop boiler"});
}

} // namespace muffle
