// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_words.h"

#include "core/plan/usual_stores.h"

#include <QLocale>

#include <algorithm>
#include <cmath>

namespace muffle {
QString StoreWords::kind(const Plan& plan, const StoreRef& store) {
  switch (store.kind) {
  case StoreKind::barrels: {
    const BarrelFilling filling = plan.barrels[store.index].filling;
    return filling == BarrelFilling::water ? tr("barrels of water") : filling == BarrelFilling::sand ? tr("barrels of sand") : tr("bins of stone");
  }
  case StoreKind::pipes: return plan.groundPipes[store.index].place == PipePlace::underFloor ? tr("pipes under the floor") : tr("pipes beside the house");
  case StoreKind::compost: {
    const PilePlace place = plan.compost[store.index].place;
    return place == PilePlace::hotBed ? tr("compost under a bed") : place == PilePlace::chamber ? tr("compost in a shed") : tr("compost mound with a coil");
  }
  case StoreKind::loop: return tr("water that goes round");
  case StoreKind::cable: return tr("cable in the soil");
  case StoreKind::mass: {
    const MassKind mass = plan.mass[store.index].kind;
    return mass == MassKind::wall    ? tr("heavy wall in the house")
           : mass == MassKind::path  ? tr("heavy path")
           : mass == MassKind::bench ? tr("heavy bench")
                                     : tr("raised bed");
  }
  }
  return {};
}

QString StoreWords::brief(const Plan& plan, const StoreRef& store) {
  switch (store.kind) {
  case StoreKind::barrels: return plan.barrels[store.index].filling == BarrelFilling::water ? tr("barrels") : tr("bins");
  case StoreKind::pipes: return plan.groundPipes[store.index].place == PipePlace::underFloor ? tr("floor pipes") : tr("ground tube");
  case StoreKind::compost: {
    const PilePlace place = plan.compost[store.index].place;
    return place == PilePlace::hotBed ? tr("hot bed") : place == PilePlace::chamber ? tr("chamber") : tr("mound");
  }
  case StoreKind::loop: return tr("tank");
  case StoreKind::cable: return tr("cable");
  case StoreKind::mass: {
    const MassKind mass = plan.mass[store.index].kind;
    return mass == MassKind::wall ? tr("wall") : mass == MassKind::path ? tr("path") : mass == MassKind::bench ? tr("bench") : tr("raised bed");
  }
  }
  return {};
}

QString StoreWords::trace(StoreTrace trace) {
  switch (trace) {
  case StoreTrace::content: return tr("what it holds");
  case StoreTrace::outlet: return tr("out of the pipes");
  case StoreTrace::soilFirst: return tr("soil where air goes in");
  case StoreTrace::soilLast: return tr("soil where it comes out");
  case StoreTrace::soilAbout: return tr("soil about them");
  case StoreTrace::core: return tr("in the pile");
  case StoreTrace::root: return tr("at the roots");
  case StoreTrace::surface: return tr("on top");
  case StoreTrace::chamberAir: return tr("in the shed");
  case StoreTrace::cableSoil: return tr("beside the cable");
  case StoreTrace::leafAir: return tr("at the leaves");
  case StoreTrace::upper: return tr("upper half");
  case StoreTrace::middle: return tr("in its middle");
  case StoreTrace::radiator: return tr("in the drums or bench");
  }
  return {};
}

QString StoreWords::kWh(double value) {
  const double shown = std::abs(value) < 0.05 ? 0.0 : value; // no "-0.0"
  return QLocale().toString(shown, 'f', std::abs(shown) < 10.0 ? 1 : 0).replace(QLatin1Char('-'), QChar(0x2212));
}

QString StoreWords::measure(const StoreRef& store, const Units& units) {
  switch (store.kind) {
  case StoreKind::barrels: return tr("barrels");
  case StoreKind::pipes: return tr("pipes");
  case StoreKind::compost: return units.unit(Quantity::mass);
  case StoreKind::loop: return units.unit(Quantity::water);
  case StoreKind::cable: return units.unit(Quantity::length);
  case StoreKind::mass: return units.unit(Quantity::area);
  }
  return {};
}

QString StoreWords::size(const StoreRef& store, double size, const Units& units) {
  switch (store.kind) {
  case StoreKind::barrels: return tr("%Ln barrel(s)", nullptr, static_cast<int>(std::lround(size)));
  case StoreKind::pipes: return tr("%Ln pipe(s)", nullptr, static_cast<int>(std::lround(size)));
  case StoreKind::compost: return units.text(Quantity::mass, size);
  case StoreKind::loop: return units.text(Quantity::water, size);
  case StoreKind::cable: return units.text(Quantity::length, size);
  case StoreKind::mass: return units.text(Quantity::area, size);
  }
  return {};
}

std::vector<StoreWords::Addition> StoreWords::additions() {
  const auto mass = [](MassKind kind) { return [kind](Plan& p) { p.mass.push_back(usualMass(p, kind)); }; };
  const auto pile = [](PilePlace place) { return [place](Plan& p) { p.compost.push_back(usualPile(p, place)); }; };
  const auto pipes = [](PipePlace place) { return [place](Plan& p) { p.groundPipes.push_back(usualPipes(p, place)); }; };
  return {{tr("Barrels of water"), tr("dark water takes up the day's sun and gives it back through the night"),
           [](Plan& p) { p.barrels.push_back(usualBarrels(p)); }, StoreKind::barrels},
          {tr("Pipes under the floor"), tr("a fan pushes the day's warm air into the ground and draws it out by night"), pipes(PipePlace::underFloor),
           StoreKind::pipes},
          {tr("Pipes beside the house"), tr("a long pipe in deep soil tempers the house's air"), pipes(PipePlace::beside), StoreKind::pipes},
          {tr("Compost under a bed"), tr("a hot bed: manure, with the soil that you plant in on top"), pile(PilePlace::hotBed), StoreKind::compost},
          {tr("Compost in a shed"), tr("a chamber against the house, joined by openings and a fan"), pile(PilePlace::chamber), StoreKind::compost},
          {tr("Compost mound with a coil"), tr("a heap out of doors that warms water for the house"), pile(PilePlace::mound), StoreKind::compost},
          {tr("Water that goes round"), tr("a tank, a pump and a radiator or bench, with a solar collector if you like"),
           [](Plan& p) { p.waterLoops.push_back(usualLoop(p)); }, StoreKind::loop},
          {tr("Cable in the soil"), tr("electric warmth at the roots of a covered bed"),
           [](Plan& p) {
             if (p.house.bedCovers.empty()) p.house.bedCovers.push_back(usualBedCover(p)); // it needs a bed
             p.soilCables.push_back(usualCable(p));
           },
           StoreKind::cable},
          {tr("Heavy wall"), tr("stone, brick or earth that stands in the sun"), mass(MassKind::wall), StoreKind::mass},
          {tr("Heavy path"), tr("flags or bricks on the floor, along the house"), mass(MassKind::path), StoreKind::mass},
          {tr("Raised bed"), tr("soil in boards, a step above the floor"), mass(MassKind::raisedBed), StoreKind::mass},
          {tr("Heavy bench"), tr("earth or stone that plants stand on; a stove's flue may lead through it"), mass(MassKind::bench), StoreKind::mass}};
}

} // namespace muffle
