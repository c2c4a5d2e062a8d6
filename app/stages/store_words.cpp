// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_words.h"

#include "core/store/pile.h"

#include <QLocale>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

double down(double value, double step) { return std::floor(value / step + 1e-9) * step; }

/// Pipes across the floor as they fit.
GroundPipes pipesUnder(const Plan& plan) {
  GroundPipes p;
  const HouseShape& s = plan.house.shape;
  const double length = s.kind == ShapeKind::dome ? s.width_m : s.length_m;
  p.length_m = std::clamp(down(0.9 * length, 0.5), 0.5, 30.0);
  p.count = std::clamp(static_cast<int>(0.7 * s.floor_m2() / (p.length_m * p.spacing_m)), 1, 12);
  p.fan_m3_h = 100.0 * p.count;
  return p;
}

CompostPile pile(PilePlace place, const Plan& plan) {
  CompostPile c;
  c.place = place;
  const bool isSouth = plan.site.place.latitude_deg < 0.0;
  c.built = isSouth ? "05-01" : "11-01";
  const double floor = plan.house.shape.floor_m2();
  switch (place) {
  case PilePlace::hotBed: {
    c.jacket_m2K_W = 2.0; // dug in, or boxed in bales
    c.soil_m = 0.25;
    const double share = std::min(1.0, 0.4 * floor / (c.width_m * c.length_m));
    c.width_m = std::max(0.4, down(c.width_m * std::sqrt(share), 0.1));
    c.length_m = std::max(0.4, down(c.length_m * std::sqrt(share), 0.1));
    const double area = c.width_m * c.length_m;
    c.recipe = {{"horse-manure", std::round(42.0 * area) * 10.0, {}}, {"straw", std::round(3.0 * area) * 10.0, {}}}; // some 0.7 m thick
    break;
  }
  case PilePlace::chamber:
    c.width_m = 1.5;
    c.recipe = {{"horse-manure", 1200.0, {}}, {"straw", 80.0, {}}, {"leaves", 200.0, {}}};
    c.fan_m3_h = 150.0;
    break;
  case PilePlace::mound:
    c.width_m = c.length_m = 3.0;
    c.recipe = {{"wood-chips", 5000.0, {}}, {"horse-manure", 2500.0, {}}};
    c.water_kg = 600.0;
    c.built = isSouth ? "04-01" : "10-01";
    c.hoursToBuild = 16.0;
    break;
  }
  return c;
}

} // namespace

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
  return {{tr("Barrels of water"), tr("dark water takes up the day's sun and gives it back through the night"),
           [](Plan& p) {
             Barrels b;
             b.x_m = 0.34 * p.house.shape.width_m;
             p.barrels.push_back(b);
           },
           StoreKind::barrels},
          {tr("Pipes under the floor"), tr("a fan pushes the day's warm air into the ground and draws it out by night"),
           [](Plan& p) { p.groundPipes.push_back(pipesUnder(p)); }, StoreKind::pipes},
          {tr("Pipes beside the house"), tr("a long pipe in deep soil tempers the house's air"),
           [](Plan& p) {
             GroundPipes g;
             g.place = PipePlace::beside;
             g.count = 1;
             g.length_m = 25.0;
             g.depth_m = 1.6;
             g.diameter_m = 0.16;
             g.fan_m3_h = 300.0;
             g.rule = {26.0, 5.0};
             p.groundPipes.push_back(g);
           },
           StoreKind::pipes},
          {tr("Compost under a bed"), tr("a hot bed: manure, with the soil that you plant in on top"),
           [](Plan& p) { p.compost.push_back(pile(PilePlace::hotBed, p)); }, StoreKind::compost},
          {tr("Compost in a shed"), tr("a chamber against the house, joined by openings and a fan"),
           [](Plan& p) { p.compost.push_back(pile(PilePlace::chamber, p)); }, StoreKind::compost},
          {tr("Compost mound with a coil"), tr("a heap out of doors that warms water for the house"),
           [](Plan& p) { p.compost.push_back(pile(PilePlace::mound, p)); }, StoreKind::compost},
          {tr("Water that goes round"), tr("a tank, a pump and a radiator or bench, with a solar collector if you like"),
           [](Plan& p) {
             WaterLoop w;
             w.litres = std::min(w.litres, 1000.0 * down(0.1 * p.house.shape.volume_m3(), 0.05));
             p.waterLoops.push_back(w);
           },
           StoreKind::loop},
          {tr("Cable in the soil"), tr("electric warmth at the roots of a covered bed"),
           [](Plan& p) {
             if (p.house.bedCovers.empty()) { // it needs a bed: the smallest that is usual
               BedCover b;
               b.width_m = std::min(b.width_m, 0.4 * p.house.shape.span_m());
               b.length_m = std::min(b.length_m, down(0.8 * (p.house.shape.kind == ShapeKind::dome ? p.house.shape.width_m : p.house.shape.length_m), 0.1));
               b.height_m = std::min(b.height_m, down(0.4 * p.house.shape.ridge_m, 0.1));
               b.x_m = -0.25 * p.house.shape.span_m();
               p.house.bedCovers.push_back(b);
             }
             SoilCable c;
             c.length_m = std::round(p.house.bedCovers.front().bed_m2() * 60.0 / c.watts_per_m); // 60 W a square metre
             p.soilCables.push_back(c);
           },
           StoreKind::cable},
          {tr("Heavy wall"), tr("stone, brick or earth that stands in the sun"),
           [](Plan& p) {
             MassBlock m;
             m.area_m2 = std::clamp(down(0.2 * p.house.shape.floor_m2(), 0.5), 0.5, 10.0);
             p.mass.push_back(m);
           },
           StoreKind::mass},
          {tr("Heavy path"), tr("flags or bricks on the floor, along the house"),
           [](Plan& p) {
             MassBlock m{.kind = MassKind::path, .material = MassMaterial::stone, .thickness_m = 0.08};
             m.width_m = std::min(0.6, 0.3 * p.house.shape.span_m());
             m.area_m2 = std::max(down(0.9 * m.width_m * p.house.shape.length_m, 0.1), 0.1);
             p.mass.push_back(m);
           },
           StoreKind::mass},
          {tr("Raised bed"), tr("soil in boards, a step above the floor"),
           [](Plan& p) {
             MassBlock m{.kind = MassKind::raisedBed, .material = MassMaterial::soil, .thickness_m = 0.3};
             m.width_m = std::min(m.width_m, 0.4 * p.house.shape.span_m());
             m.area_m2 = std::max(down(0.8 * m.width_m * p.house.shape.length_m, 0.1), 0.1);
             p.mass.push_back(m);
           },
           StoreKind::mass},
          {tr("Heavy bench"), tr("earth or stone that plants stand on; a stove's flue may lead through it"),
           [](Plan& p) {
             MassBlock m{.kind = MassKind::bench, .material = MassMaterial::earth, .thickness_m = 0.5};
             m.width_m = std::min(0.7, 0.3 * p.house.shape.span_m());
             m.area_m2 = std::max(down(0.5 * m.width_m * p.house.shape.length_m, 0.1), 0.1);
             p.mass.push_back(m);
           },
           StoreKind::mass}};
}

} // namespace muffle
