// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_drag.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

QString tr(const char* text, const char* = nullptr, int n = -1) { return QCoreApplication::translate("SectionView", text, nullptr, n); }

double fives(double v) { return std::round(20.0 * v) / 20.0; } // centimetres

} // namespace

bool isStore(Grip grip) {
  return grip.what == Handle::barrels || grip.what == Handle::pipes || grip.what == Handle::pile || grip.what == Handle::tank || grip.what == Handle::mass ||
         grip.what == Handle::cable;
}

StoreKind storeKind(Grip grip) {
  switch (grip.what) {
  case Handle::pipes: return StoreKind::pipes;
  case Handle::pile: return StoreKind::compost;
  case Handle::tank: return StoreKind::loop;
  case Handle::cable: return StoreKind::cable;
  case Handle::mass: return StoreKind::mass;
  default: return StoreKind::barrels;
  }
}

bool isDraggedAcross(const Plan& plan, Grip grip) {
  return grip.what == Handle::barrels || grip.what == Handle::pile || (grip.what == Handle::mass && plan.mass[grip.store].kind == MassKind::path);
}

QString storeDragStep(const Plan& start, Grip grip) {
  switch (grip.what) {
  case Handle::barrels: return tr("move the barrels");
  case Handle::pipes: return tr("move the pipes");
  case Handle::pile: return tr("widen the pile");
  case Handle::tank: return tr("change the tank");
  case Handle::cable: return tr("move the cable");
  case Handle::mass: {
    const MassKind kind = start.mass[grip.store].kind;
    return kind == MassKind::wall    ? tr("move the wall")
           : kind == MassKind::path  ? tr("move the path")
           : kind == MassKind::bench ? tr("move the bench")
                                     : tr("move the raised bed");
  }
  default: return {};
  }
}

void dragStore(Plan& plan, const Plan& start, Grip grip, const DragBy& by) {
  const std::size_t i = grip.store;
  const double half_m = start.house.shape.span_m() / 2.0;
  const auto across = [&](double from_m) { return std::clamp(fives(from_m + by.across_m), -half_m, half_m); };
  switch (grip.what) {
  case Handle::barrels: plan.barrels[i].x_m = across(start.barrels[i].x_m); break;
  case Handle::pipes: plan.groundPipes[i].depth_m = std::clamp(fives(start.groundPipes[i].depth_m + by.down_m), 0.15, 4.0); break;
  case Handle::pile: plan.compost[i].width_m = std::clamp(fives(start.compost[i].width_m + 2.0 * by.across_m), 0.3, 20.0); break;
  case Handle::tank: {
    const double side_m = std::max(std::cbrt(start.waterLoops[i].litres / 1000.0) + by.up_m, 0.2);
    plan.waterLoops[i].litres = std::round(100.0 * side_m * side_m * side_m) * 10.0;
    break;
  }
  case Handle::cable: plan.soilCables[i].depth_m = std::clamp(std::round(100.0 * (start.soilCables[i].depth_m + by.down_m)) / 100.0, 0.02, 0.5); break;
  case Handle::mass: {
    const MassBlock& was = start.mass[i];
    MassBlock& m = plan.mass[i];
    const MassOutline outline = massOutline(start, i);
    m.x_m = across(outline.x_m);
    if (was.kind == MassKind::raisedBed || was.kind == MassKind::bench) m.thickness_m = std::clamp(fives(was.thickness_m + by.up_m), 0.05, 2.0);
    if (was.kind == MassKind::wall) // higher, on the same foot
      m.area_m2 = std::max(std::round(10.0 * was.area_m2 * std::max(1.0 + by.up_m / outline.high_m, 0.05)) / 10.0, 0.1);
    break;
  }
  default: break;
  }
}

QString storeTip(const Plan& plan, Grip grip, const Units& u) {
  const std::size_t i = grip.store;
  switch (grip.what) {
  case Handle::barrels:
    return tr("%1 of %2; click for their instrument, drag to move")
        .arg(tr("%Ln barrel(s)", nullptr, static_cast<int>(plan.barrels[i].count)), u.text(Quantity::water, plan.barrels[i].litres));
  case Handle::pipes:
    return tr("pipes %1 deep; click for their instrument, drag to lay them deeper").arg(u.text(Quantity::length, plan.groundPipes[i].depth_m));
  case Handle::pile: return tr("a pile on a foot of %1; click for its instrument, drag to widen it").arg(u.text(Quantity::length, plan.compost[i].width_m));
  case Handle::tank: return tr("a tank of %1; click for its instrument, drag to change it").arg(u.text(Quantity::water, plan.waterLoops[i].litres));
  case Handle::cable:
    return tr("a cable %1 deep; click for its instrument, drag to lay it deeper").arg(u.text(Quantity::thickness, plan.soilCables[i].depth_m));
  case Handle::mass: {
    const MassBlock& m = plan.mass[i];
    const QString area = u.text(Quantity::area, m.area_m2);
    if (m.kind == MassKind::wall) return tr("a wall with a face of %1; click for its instrument, drag to move it or make it higher").arg(area);
    if (m.kind == MassKind::path) return tr("a path of %1; click for its instrument, drag to move it").arg(area);
    return tr("a raised bed of %1; click for its instrument, drag to move it or make it higher").arg(area);
  }
  default: return {};
  }
}

} // namespace muffle
