// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/section.h"

#include "core/simulate/assemble.h"

#include <algorithm>
#include <cmath>

namespace muffle {

const RoomMoment* SectionMoment::room(RoomKind kind, std::size_t bed) const {
  for (const RoomMoment& r : rooms)
    if (r.room.kind == kind && r.room.bed == bed) return &r;
  return nullptr;
}
namespace {

constexpr double kGroundShare = 0.70; // of the height, where the floor lies
constexpr double kReach_px = 16.0;

} // namespace

SectionGeometry::SectionGeometry(const Plan& plan, const QRectF& area) : m_plan(plan), m_area(area) {
  const HouseShape& s = plan.house.shape;
  const double ground = area.top() + area.height() * kGroundShare;
  const double room = ground - area.top() - 92.0; // title and the roof's ribbon
  m_scale = std::min(std::max(area.width() - 216.0, 50.0) / s.span_m(), std::max(room, 40.0) / s.ridge_m);
  m_origin = {area.center().x(), ground};
  bool first = true;
  for (const Point& p : s.outline()) {
    const QPointF q = at(p.x_m, p.y_m);
    if (first)
      m_outline.moveTo(q);
    else
      m_outline.lineTo(q);
    first = false;
  }
}

QPointF SectionGeometry::handle(Handle which) const {
  const HouseShape& s = m_plan.house.shape;
  const double half = s.span_m() / 2.0;
  switch (which) {
  case Handle::ridge: return at(s.hasBackWall() ? half : -half + s.width_m / 2.0, s.ridge_m);
  case Handle::eave: return at(-half, s.eave_m);
  case Handle::width: return at(half, -s.sunk_m);
  case Handle::barrels: return m_plan.barrels.empty() ? QPointF(-1e6, -1e6) : barrelsRect(0).center();
  case Handle::none: break;
  }
  return {-1e6, -1e6};
}

QRectF SectionGeometry::barrelsRect(std::size_t group) const {
  const Barrels& b = m_plan.barrels[group];
  const BarrelSize size = barrelSize(b.litres);
  const double half = m_plan.house.shape.span_m() / 2.0;
  const double x = std::clamp(b.x_m, -half + size.diameter_m / 2.0, half - size.diameter_m / 2.0);
  const QPointF foot = at(x - size.diameter_m / 2.0, -m_plan.house.shape.sunk_m);
  return {foot.x(), foot.y() - size.height_m * m_scale, size.diameter_m * m_scale, size.height_m * m_scale};
}

QRectF SectionGeometry::bedCoverRect(std::size_t cover) const {
  const BedCover& b = m_plan.house.bedCovers[cover];
  const double half = std::max((m_plan.house.shape.span_m() - b.width_m) / 2.0, 0.0);
  const QPointF foot = at(std::clamp(b.x_m, -half, half), -m_plan.house.shape.sunk_m);
  const double w = b.width_m * m_scale, h = b.height_m * m_scale;
  return {foot.x() - w / 2.0, foot.y() - h, w, 2.0 * h};
}

Handle SectionGeometry::hit(const QPointF& point) const {
  Handle best = Handle::none;
  double nearest = kReach_px;
  for (const Handle h : {Handle::ridge, Handle::eave, Handle::width}) {
    const QPointF d = handle(h) - point;
    if (const double distance = std::hypot(d.x(), d.y()); distance < nearest) nearest = distance, best = h;
  }
  if (best == Handle::none && !m_plan.barrels.empty() && barrelsRect(0).adjusted(-4, -4, 4, 4).contains(point)) best = Handle::barrels;
  return best;
}

} // namespace muffle
