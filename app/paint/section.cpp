// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/section.h"

#include "core/assemble/assemble.h"
#include "core/store/pile.h"

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
  const int endRooms = (plan.house.bay ? 1 : 0) + (plan.house.lobby ? 1 : 0);
  const double room = ground - area.top() - 92.0 - 18.0 * endRooms; // title, a line for each of them, and the roof's ribbon
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
  for (std::size_t i = 0; i < plan.heaters.size(); ++i) m_heaters.push_back(placeHeater(i));
}

QPointF SectionGeometry::handle(Grip grip) const {
  const HouseShape& s = m_plan.house.shape;
  const double half = s.span_m() / 2.0;
  const QPointF nowhere(-1e6, -1e6);
  const auto of = [&](const auto& stores, auto&& at) { return grip.store < stores.size() ? at(grip.store) : nowhere; };
  switch (grip.what) {
  case Handle::ridge: return at(s.hasBackWall() ? half : -half + s.width_m / 2.0, s.ridge_m);
  case Handle::eave: return at(-half, s.eave_m);
  case Handle::width: return at(half, -s.sunk_m);
  case Handle::barrels: return of(m_plan.barrels, [this](std::size_t i) { return barrelsRect(i).center(); });
  case Handle::pipes: return of(m_plan.groundPipes, [this](std::size_t i) { return pipes(i).front(); });
  case Handle::pile: return of(m_plan.compost, [this](std::size_t i) { return QPointF(pile(i).right(), pile(i).center().y()); });
  case Handle::tank: return of(m_plan.waterLoops, [this](std::size_t i) { return QPointF(tank(i).center().x(), tank(i).top()); });
  case Handle::mass: return of(m_plan.mass, [this](std::size_t i) { return mass(i).center(); });
  case Handle::cable: return of(m_plan.soilCables, [this](std::size_t i) { return cable(i).front(); });
  case Handle::heater: return of(m_plan.heaters, [this](std::size_t i) { return heater(i).center(); });
  case Handle::none: break;
  }
  return nowhere;
}

QRectF SectionGeometry::barrelsRect(std::size_t group) const {
  const Barrels& b = m_plan.barrels[group];
  const BarrelSize size = barrelSize(b.litres);
  const double half = m_plan.house.shape.span_m() / 2.0;
  const double x = std::clamp(b.x_m, -half + size.diameter_m / 2.0, half - size.diameter_m / 2.0);
  const QPointF foot = at(x - size.diameter_m / 2.0, -m_plan.house.shape.sunk_m);
  return {foot.x(), foot.y() - size.height_m * m_scale, size.diameter_m * m_scale, size.height_m * m_scale};
}

double SectionGeometry::shownDepth_m() const {
  double depth = 1.2;
  for (const GroundPipes& p : m_plan.groundPipes) depth = std::max(depth, 1.25 * p.depth_m);
  return depth;
}

double SectionGeometry::depthY(double depth_m) const {
  const double top = at(0, -m_plan.house.shape.sunk_m).y();
  return top + std::max(m_area.bottom() - top, 40.0) * depth_m / shownDepth_m();
}

QPolygonF SectionGeometry::pipes(std::size_t store) const {
  const GroundPipes& p = m_plan.groundPipes[store];
  QPolygonF points;
  const double half = m_plan.house.shape.span_m() / 2.0;
  const double y = depthY(p.depth_m);
  if (p.place == PipePlace::beside) {
    for (int k = 0; k < std::min(p.count, 12); ++k) points << QPointF(std::min(at(half + 0.5 + k * p.spacing_m, 0).x(), m_area.right() - 40.0), y);
    return points;
  }
  // across the house where they fit, else in as much of it as there is
  const double apart = std::min(p.spacing_m, p.count > 1 ? 1.8 * half / (p.count - 1) : 0.0);
  for (int k = 0; k < p.count; ++k) points << QPointF(at((k - (p.count - 1) / 2.0) * apart, 0).x(), y);
  return points;
}

QRectF SectionGeometry::pile(std::size_t store) const {
  const CompostPile& c = m_plan.compost[store];
  const PileSize size = pileSize(c, blendOf(c));
  const double half = m_plan.house.shape.span_m() / 2.0;
  const double w = c.width_m * m_scale, h = size.height_m * m_scale;
  QPointF foot;
  switch (c.place) {
  case PilePlace::hotBed:
    foot = at(std::clamp(c.x_m.value_or(-0.45 * half), -half + c.width_m / 2.0, half - c.width_m / 2.0), -m_plan.house.shape.sunk_m);
    break;
  case PilePlace::chamber: { // against the house, on the side where it was put
    const double beside = half + 0.25 + c.width_m / 2.0;
    foot = at(std::copysign(beside, c.x_m.value_or(1.0)), 0.0);
    break;
  }
  case PilePlace::mound: {
    const double nearest = half + 0.4 + c.width_m / 2.0;
    const double x = c.x_m.value_or(-nearest);
    foot = at(std::copysign(std::max(std::abs(x), nearest), x), 0.0);
    break;
  }
  }
  // out of doors the picture may cut it off, so that it does not stand in the house
  const double inSight = c.place == PilePlace::hotBed ? w + 6.0 : std::min(w, 50.0);
  const double left = m_area.left() - w / 2.0 + inSight, right = m_area.right() + w / 2.0 - inSight;
  foot.setX(std::clamp(foot.x(), left, std::max(right, left)));
  return {foot.x() - w / 2.0, foot.y() - h, w, h};
}

QRectF SectionGeometry::tank(std::size_t loop) const {
  // as high as wide, standing at the back of the house
  const double side = std::cbrt(m_plan.waterLoops[loop].litres / 1000.0);
  const double half = m_plan.house.shape.span_m() / 2.0;
  const QPointF foot = at(std::clamp(m_plan.waterLoops[loop].x_m.value_or(0.12 * half + 1.3 * side * static_cast<double>(loop)), -half + side / 2.0,
                                     std::max(half - side / 2.0, -half + side / 2.0)),
                          -m_plan.house.shape.sunk_m);
  return {foot.x() - side * m_scale / 2.0, foot.y() - side * m_scale, side * m_scale, side * m_scale};
}

HeaterStand standOf(HeaterKind kind) {
  switch (kind) {
  case HeaterKind::tube:
  case HeaterKind::district:
  case HeaterKind::boiler: return HeaterStand::foot;
  case HeaterKind::radiant:
  case HeaterKind::propaneRadiant:
  case HeaterKind::lamps:
  case HeaterKind::growLight: return HeaterStand::roof;
  case HeaterKind::heatPump: return HeaterStand::outside;
  default: return HeaterStand::floor;
  }
}

double SectionGeometry::roofY(double x_px) const {
  const QRectF house = m_outline.boundingRect();
  const double x = std::clamp(x_px, house.left() + 1.0, house.right() - 1.0);
  double y = house.top();
  while (y < house.bottom() && !m_outline.contains(QPointF(x, y))) y += 1.0; // an open path is taken as closed
  return y;
}

bool SectionGeometry::isTaken(const QRectF& floor) const {
  const auto overlaps = [&](const QRectF& thing) { return thing.intersects(floor); };
  if (std::any_of(m_heaters.begin(), m_heaters.end(), overlaps)) return true;
  for (std::size_t i = 0; i < m_plan.house.bedCovers.size(); ++i)
    if (overlaps(bedCoverRect(i))) return true;
  for (std::size_t i = 0; i < m_plan.barrels.size(); ++i)
    if (overlaps(barrelsRect(i))) return true;
  for (std::size_t i = 0; i < m_plan.waterLoops.size(); ++i)
    if (overlaps(tank(i))) return true;
  for (std::size_t i = 0; i < m_plan.compost.size(); ++i)
    if (overlaps(pile(i).adjusted(0, -m_plan.compost[i].soil_m * m_scale, 0, 0))) return true;
  for (std::size_t i = 0; i < m_plan.mass.size(); ++i)
    if (m_plan.mass[i].kind != MassKind::path && overlaps(mass(i))) return true;
  return false;
}

QRectF SectionGeometry::placeHeater(std::size_t of) const {
  const Heater& h = m_plan.heaters[of];
  if (h.power_W <= 0.0) return {};
  if (h.place.of == HeaterPlace::Of::bed && h.place.index < m_plan.house.bedCovers.size()) { // on the bed, beside what grows there
    const QRectF under = bedCoverRect(h.place.index);
    constexpr double kAcross = 0.34, kHigh = 0.2;
    const QSizeF size(kAcross * under.width(), std::max(kHigh * under.height(), 6.0));
    return {QPointF(under.center().x() - 0.5 * size.width(), under.center().y() - size.height()), size};
  }
  if (h.place.of == HeaterPlace::Of::mass && h.place.index < m_plan.mass.size()) return mass(h.place.index).adjusted(2, 1, -2, -1);
  if (h.place.of != HeaterPlace::Of::house) return {};
  const HeaterStand stand = standOf(h.kind);
  const double half = m_plan.house.shape.span_m() / 2.0, floor = -m_plan.house.shape.sunk_m;
  std::size_t among = 0; // of those that have the same place
  for (std::size_t i = 0; i < of; ++i)
    if (!m_heaters[i].isEmpty() && standOf(m_plan.heaters[i].kind) == stand) ++among;
  const auto nth = static_cast<double>(among);
  constexpr double kLeast_px = 13.0; // to be seen in a wide house
  const auto sized = [&](double across_m, double high_m) { return QSizeF(std::max(across_m * m_scale, kLeast_px), std::max(high_m * m_scale, kLeast_px)); };
  const auto standing = [&](const QSizeF& size, double x_m, double y_m) {
    const double most = std::max(half - size.width() / m_scale / 2.0, 0.0);
    return QRectF(at(std::clamp(x_m, -most, most), y_m) - QPointF(size.width() / 2.0, size.height()), size);
  };
  switch (stand) {
  case HeaterStand::floor: {
    const bool isBurner = isBurnt(carrierOf(h));
    const QSizeF size = sized(isBurner ? 0.5 : 0.4, isBurner ? 0.75 : 0.4);
    if (h.x_m) return standing(size, *h.x_m, floor);
    constexpr double kFirst = -0.6;
    for (const double share : {kFirst, -0.36, -0.12, 0.12, 0.36, 0.6, -0.8, 0.8, -1.0, 1.0}) // never under a cloth or in what stands there
      if (const QRectF r = standing(size, half * share, floor); !isTaken(r)) return r;
    return standing(size, half * (kFirst + 0.24 * nth), floor);
  }
  case HeaterStand::foot: return standing(sized(0.2, 0.45), h.x_m.value_or(-half + 0.25 + 0.3 * nth), floor + 0.12);
  case HeaterStand::roof: {
    const QSizeF size = sized(1.0, 0.12);
    const QPointF below = at(std::clamp(h.x_m.value_or(half * (0.3 - 0.4 * nth)), -0.8 * half, 0.8 * half), 0.0);
    const double under = std::max(roofY(below.x() - size.width() / 2.0), roofY(below.x() + size.width() / 2.0)) + 12.0;
    const double top = std::min(under, at(0.0, floor).y() - size.height()); // where the roof comes down to the floor
    return {QPointF(below.x() - size.width() / 2.0, top), size};
  }
  case HeaterStand::outside: break;
  }
  const QSizeF size = sized(0.9, 0.9);
  const QPointF foot = at(h.x_m.value_or(half + 1.2 + 1.1 * nth), 0.0);
  return {foot - QPointF(size.width() / 2.0, size.height()), size};
}

QRectF SectionGeometry::bedCoverRect(std::size_t cover) const {
  const BedCover& b = m_plan.house.bedCovers[cover];
  const double half = std::max((m_plan.house.shape.span_m() - b.width_m) / 2.0, 0.0);
  const QPointF foot = at(std::clamp(b.x_m, -half, half), -m_plan.house.shape.sunk_m);
  const double w = b.width_m * m_scale, h = b.height_m * m_scale;
  return {foot.x() - w / 2.0, foot.y() - h, w, 2.0 * h};
}

MassOutline massOutline(const Plan& plan, std::size_t store) {
  const MassBlock& m = plan.mass[store];
  const HouseShape& s = plan.house.shape;
  const double half = s.span_m() / 2.0;
  // a wall stands along the house, as high as its face needs there, and no higher than a man lays stones
  constexpr double kHighest_m = 1.8;
  const bool wall = m.kind == MassKind::wall;
  const double across_m = wall ? m.thickness_m : m.width_m;
  const double high_m = wall ? std::min({std::max(m.area_m2 / s.length_m, 0.4), kHighest_m, 0.8 * s.ridge_m}) : m.thickness_m;
  const double usual = wall ? 0.45 * half : m.kind == MassKind::path ? 0.0 : -half; // against a side
  const double most = std::max(half - across_m / 2.0, 0.0);
  return {std::clamp(m.x_m.value_or(usual), -most, most), across_m, high_m};
}

QRectF SectionGeometry::mass(std::size_t store) const {
  const MassOutline m = massOutline(m_plan, store);
  constexpr double kThinnest_px = 4.0;
  const QPointF middle = at(m.x_m, -m_plan.house.shape.sunk_m);
  const double w = m.across_m * m_scale, h = std::max(m.high_m * m_scale, kThinnest_px);
  if (m_plan.mass[store].kind != MassKind::path) return {middle.x() - w / 2.0, middle.y() - h, w, h};
  return {middle.x() - w / 2.0, middle.y(), w, std::max(depthY(m.high_m) - middle.y(), kThinnest_px)};
}

QPolygonF SectionGeometry::cable(std::size_t store) const {
  const SoilCable& c = m_plan.soilCables[store];
  QPolygonF points;
  if (c.bed >= static_cast<int>(m_plan.house.bedCovers.size())) return points;
  const BedCover& bed = m_plan.house.bedCovers[static_cast<std::size_t>(c.bed)];
  const QRectF over = bedCoverRect(static_cast<std::size_t>(c.bed));
  const int passes = std::clamp(static_cast<int>(std::lround(c.length_m / (bed.count * bed.length_m))), 1, 12);
  for (int k = 0; k < passes; ++k) points << QPointF(over.left() + over.width() * (k + 0.5) / passes, depthY(c.depth_m));
  return points;
}

Grip SectionGeometry::hit(const QPointF& point) const {
  constexpr double kAbout_px = 9.0;
  Grip best;
  double nearest = kReach_px;
  for (const Handle h : {Handle::ridge, Handle::eave, Handle::width}) {
    const QPointF d = handle(h) - point;
    if (const double distance = std::hypot(d.x(), d.y()); distance < nearest) nearest = distance, best = h;
  }
  if (best.what != Handle::none) return best;
  const auto isOn = [&](const QPolygonF& points) {
    return std::any_of(points.begin(), points.end(), [&](const QPointF& q) { return std::hypot(q.x() - point.x(), q.y() - point.y()) < kAbout_px; });
  };
  const auto isIn = [&](const QRectF& r) { return r.adjusted(-4, -4, 4, 4).contains(point); };
  const auto first = [&](Handle what, std::size_t count, auto&& isHit) {
    // those drawn last lie on top
    for (std::size_t i = count; best.what == Handle::none && i-- > 0;)
      if (isHit(i)) best = {what, i};
  };
  // stores that it stands before are still taken by their middles
  const auto isStoresOwn = [&] {
    constexpr double kMiddle_px = 6.0;
    const auto isAt = [&](Handle what, std::size_t count) {
      for (std::size_t i = 0; i < count; ++i)
        if (const QPointF away = handle({what, i}) - point; std::hypot(away.x(), away.y()) < kMiddle_px) return true;
      return false;
    };
    return isAt(Handle::barrels, m_plan.barrels.size()) || isAt(Handle::mass, m_plan.mass.size()) || isAt(Handle::tank, m_plan.waterLoops.size()) ||
           isAt(Handle::pile, m_plan.compost.size());
  };
  if (!isStoresOwn())
    first(Handle::heater, m_plan.heaters.size(), [&](std::size_t i) {
      return m_plan.heaters[i].place.of == HeaterPlace::Of::house && !heater(i).isEmpty() && isIn(heater(i)); // what lies in a bed or a bench goes with it
    });
  first(Handle::cable, m_plan.soilCables.size(), [&](std::size_t i) { return isOn(cable(i)); });
  first(Handle::pipes, m_plan.groundPipes.size(), [&](std::size_t i) { return isOn(pipes(i)); });
  first(Handle::pile, m_plan.compost.size(), [&](std::size_t i) { return isIn(pile(i)); });
  first(Handle::tank, m_plan.waterLoops.size(), [&](std::size_t i) { return isIn(tank(i)); });
  first(Handle::barrels, m_plan.barrels.size(), [&](std::size_t i) { return isIn(barrelsRect(i)); });
  first(Handle::mass, m_plan.mass.size(), [&](std::size_t i) { return isIn(mass(i)); });
  return best;
}

} // namespace muffle
