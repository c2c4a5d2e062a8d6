// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/usual_stores.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

double down(double value, double step) { return std::floor(value / step + 1e-9) * step; }

double lengthInside_m(const HouseShape& s) { return s.kind == ShapeKind::dome ? s.width_m : s.length_m; }

} // namespace

Barrels usualBarrels(const Plan& plan) {
  Barrels b;
  b.x_m = 0.34 * plan.house.shape.width_m;
  return b;
}

GroundPipes usualPipes(const Plan& plan, PipePlace place) {
  GroundPipes p;
  p.place = place;
  if (place == PipePlace::beside) {
    p.count = 1;
    p.length_m = 25.0;
    p.depth_m = 1.6;
    p.diameter_m = 0.16;
    p.fan_m3_h = 300.0;
    p.rule = {26.0, 5.0};
    return p;
  }
  const HouseShape& s = plan.house.shape;
  p.length_m = std::clamp(down(0.9 * lengthInside_m(s), 0.5), 0.5, 30.0);
  p.count = std::clamp(static_cast<int>(0.7 * s.floor_m2() / (p.length_m * p.spacing_m)), 1, 12);
  p.fan_m3_h = 100.0 * p.count;
  return p;
}

CompostPile usualPile(const Plan& plan, PilePlace place) {
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

WaterLoop usualLoop(const Plan& plan) {
  WaterLoop w;
  w.litres = std::min(w.litres, 1000.0 * down(0.1 * plan.house.shape.volume_m3(), 0.05));
  return w;
}

MassBlock usualMass(const Plan& plan, MassKind kind) {
  const HouseShape& s = plan.house.shape;
  MassBlock m{.kind = kind};
  const auto along = [&](double share) { return std::max(down(share * m.width_m * s.length_m, 0.1), 0.1); };
  switch (kind) {
  case MassKind::wall: m.area_m2 = std::clamp(down(0.2 * s.floor_m2(), 0.5), 0.5, 10.0); break;
  case MassKind::path:
    m.thickness_m = 0.08;
    m.width_m = std::min(0.6, 0.3 * s.span_m());
    m.area_m2 = along(0.9);
    break;
  case MassKind::raisedBed:
    m.material = MassMaterial::soil;
    m.width_m = std::min(m.width_m, 0.4 * s.span_m());
    m.area_m2 = along(0.8);
    break;
  case MassKind::bench:
    m.material = MassMaterial::earth;
    m.thickness_m = 0.5;
    m.width_m = std::min(0.7, 0.3 * s.span_m());
    m.area_m2 = along(0.5);
    break;
  }
  return m;
}

BedCover usualBedCover(const Plan& plan) {
  const HouseShape& s = plan.house.shape;
  BedCover b;
  b.width_m = std::min(b.width_m, 0.4 * s.span_m());
  b.length_m = std::min(b.length_m, down(0.8 * lengthInside_m(s), 0.1));
  b.height_m = std::min(b.height_m, down(0.4 * s.ridge_m, 0.1));
  b.x_m = -0.25 * s.span_m();
  return b;
}

SoilCable usualCable(const Plan& plan) {
  SoilCable c;
  c.length_m = std::round(plan.house.bedCovers.front().bed_m2() * 60.0 / c.watts_per_m); // 60 W a square metre
  return c;
}

} // namespace muffle
