// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/section.h"

#include "core/simulate/assemble.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kGroundShare = 0.70; // of the height, where the floor lies
constexpr double kReach_px = 16.0;

QString tr(const char* text) { return QCoreApplication::translate("Section", text); }

/// A ribbon along a curve whose width is watts.
void ribbon(QPainter& p, QPointF from, QPointF to, double bend, double width, const QColor& colour) {
  const QPointF middle = (from + to) / 2.0;
  const QPointF across(-(to.y() - from.y()), to.x() - from.x());
  QPainterPath path(from);
  path.quadTo(middle + across * bend, to);
  // the tip grows out of the band's end
  const QPointF bendPoint = middle + across * bend;
  const double direction = std::atan2(to.y() - bendPoint.y(), to.x() - bendPoint.x());
  const double tipLength = std::max(width * 0.8, 6.0);
  p.setPen(QPen(colour, width, Qt::SolidLine, Qt::FlatCap));
  p.setBrush(Qt::NoBrush);
  p.drawPath(path);
  // the head says which way the heat goes, without relying on colour
  const QPointF along(std::cos(direction), std::sin(direction)), aside(-along.y(), along.x());
  const double half = std::max(width * 0.85, 5.0);
  p.setPen(Qt::NoPen);
  p.setBrush(colour);
  p.drawPolygon(QPolygonF{to + aside * half - along, to + along * tipLength, to - aside * half - along});
}

void label(QPainter& p, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align, const QRectF& inside) {
  p.setFont(font);
  const QFontMetricsF metrics(font);
  QRectF box(0, 0, metrics.horizontalAdvance(text) + 4, metrics.height());
  if (align & Qt::AlignHCenter)
    box.moveCenter(at);
  else if (align & Qt::AlignRight)
    box.moveTopRight(at - QPointF(0, box.height() / 2));
  else
    box.moveTopLeft(at - QPointF(0, box.height() / 2));
  if (box.left() < inside.left() + 4) box.moveLeft(inside.left() + 4);
  if (box.right() > inside.right() - 4) box.moveRight(inside.right() - 4);
  p.setPen(colour);
  p.drawText(box, static_cast<int>(Qt::AlignCenter), text);
}

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

void paintSection(QPainter& p, const SectionGeometry& g, const Plan& plan, const std::optional<SectionMoment>& moment, const QString& title,
                  const QString& subtitle, const Theme& theme, const Units& units, Handle hovered) {
  const QRectF area = g.area();
  p.save();
  p.setClipRect(area);
  p.setRenderHint(QPainter::Antialiasing);

  // sky by the light there is, never quite black
  const double light = moment ? std::clamp(moment->sun_W_m2 / 350.0, 0.0, 1.0) : 0.15;
  const auto blend = [&](const QColor& a, const QColor& b, double s) {
    return QColor(static_cast<int>(a.red() + (b.red() - a.red()) * s), static_cast<int>(a.green() + (b.green() - a.green()) * s),
                  static_cast<int>(a.blue() + (b.blue() - a.blue()) * s));
  };
  const QColor day = theme.dark ? QColor("#54707F") : QColor("#A9C0CC");
  QLinearGradient sky(area.topLeft(), QPointF(area.left(), g.ground()));
  sky.setColorAt(0, blend(theme.skyNight, day, light * 0.8));
  sky.setColorAt(1, blend(theme.skyDusk, day, light));
  p.fillRect(QRectF(area.left(), area.top(), area.width(), g.ground() - area.top()), sky);
  const QColor onSky = QColor("#F4EFE6");

  // soil in layers, each in its own temperature
  const double soilTop = g.at(0, -plan.house.shape.sunk_m).y(); // a sunk floor has its soil under it
  const double soilHeight = std::max(area.bottom() - soilTop, 40.0);
  if (soilTop > g.ground()) p.fillRect(QRectF(area.left(), g.ground(), area.width(), soilTop - g.ground() + 1), theme.soilTop);
  const double shownDepth = 1.2;
  if (moment && moment->soil_C.size() > 1) {
    for (std::size_t i = 0; i < moment->soil_C.size(); ++i) {
      const double from = i == 0 ? 0.0 : 0.5 * (moment->soilDepth_m[i - 1] + moment->soilDepth_m[i]);
      const double to = i + 1 < moment->soil_C.size() ? 0.5 * (moment->soilDepth_m[i] + moment->soilDepth_m[i + 1]) : shownDepth;
      const QColor earth = blend(theme.soilTop, theme.soilDeep, from / shownDepth);
      p.fillRect(QRectF(area.left(), soilTop + soilHeight * from / shownDepth, area.width(), soilHeight * (to - from) / shownDepth + 1),
                 blend(earth, theme.warmth(moment->soil_C[i]), 0.28));
    }
    for (const double depth : {0.06, 0.28, 0.80}) {
      std::size_t best = 0;
      for (std::size_t i = 0; i < moment->soilDepth_m.size(); ++i)
        if (std::abs(moment->soilDepth_m[i] - depth) < std::abs(moment->soilDepth_m[best] - depth)) best = i;
      label(p, {area.left() + 12, soilTop + std::max(soilHeight * moment->soilDepth_m[best] / shownDepth, 12.0)},
            tr("soil %1 deep  %2").arg(units.text(Quantity::length, moment->soilDepth_m[best]), units.text(Quantity::temperature, moment->soil_C[best])),
            textFont(8.5), onSky, Qt::AlignLeft, area);
    }
  } else {
    p.fillRect(QRectF(area.left(), soilTop, area.width(), soilHeight), theme.soilTop);
  }

  // the house; words on its air are light or dark, whichever can be read
  const QColor air = moment ? theme.warmth(moment->air_C) : theme.wool;
  const double luminance = 0.2126 * std::pow(air.redF(), 2.2) + 0.7152 * std::pow(air.greenF(), 2.2) + 0.0722 * std::pow(air.blueF(), 2.2);
  const QColor inkOnAir = luminance > 0.22 ? QColor("#221A15") : QColor("#FBF7F0");
  const HouseShape& shape = plan.house.shape;
  QPainterPath closed = g.outline();
  closed.closeSubpath();
  if (shape.sunk_m > 0.0) closed.addRect(QRectF(g.at(-shape.span_m() / 2.0, 0.0), g.at(shape.span_m() / 2.0, -shape.sunk_m)));
  p.setPen(Qt::NoPen);
  p.setBrush(moment ? theme.warmth(moment->air_C) : theme.wool);
  p.setOpacity(0.93);
  p.drawPath(closed);
  p.setOpacity(1.0);
  const auto& layers = plan.house.roof.layers;
  const QPointF centre = g.at(0.0, plan.house.shape.ridge_m * 0.42);
  for (std::size_t l = 0; l < layers.size() + (plan.house.blanket ? 1 : 0); ++l) {
    const bool blanket = l == layers.size();
    QTransform inset;
    const double shrink = 1.0 - (static_cast<double>(l) * 6.0 + (blanket ? 3.0 : 0.0)) / (0.5 * plan.house.shape.span_m() * g.scale());
    inset.translate(centre.x(), g.ground());
    inset.scale(shrink, shrink);
    inset.translate(-centre.x(), -g.ground());
    QPen pen(blanket ? theme.lichen : QColor("#E6EEF2"), blanket ? 3.0 : l == 0 ? 3.0 : 1.6);
    if (blanket && !(moment && moment->blanketClosed)) pen.setStyle(Qt::DotLine);
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    p.drawPath(inset.map(g.outline()));
  }
  p.setPen(QPen(theme.ink, 1.2));
  const double end = shape.span_m() / 2.0;
  if (shape.sunk_m > 0.0) p.drawPolyline(QPolygonF{g.at(-end, 0), g.at(-end, -shape.sunk_m), g.at(end, -shape.sunk_m), g.at(end, 0)});
  p.drawLine(g.at(-end, -shape.sunk_m), g.at(end, -shape.sunk_m));
  p.setPen(QPen(theme.ink, 1.2, Qt::DashLine)); // posts under the gutters
  for (int bay = 1; bay < shape.bays; ++bay) p.drawLine(g.at(-end + bay * shape.width_m, -shape.sunk_m), g.at(-end + bay * shape.width_m, shape.eave_m));
  if (shape.hasBackWall()) { // hatched like masonry, whatever it is made of
    const QRectF wall(g.at(end, shape.ridge_m), g.at(end, -shape.sunk_m) + QPointF(std::max(0.3 * g.scale(), 8.0), 0.0));
    p.setPen(QPen(theme.ink, 1.2));
    p.setBrush(theme.soilDeep);
    p.drawRect(wall);
    p.setBrush(QBrush(QColor("#E9E4DA"), Qt::BDiagPattern));
    p.drawRect(wall);
  }

  // low tunnels over beds, each kind once; the count is said
  for (std::size_t b = 0; b < plan.house.bedCovers.size(); ++b) {
    const QRectF r = g.bedCoverRect(b);
    const bool known = moment && b < moment->bed_C.size();
    p.setPen(QPen(QColor("#E6EEF2"), 2.2, Qt::DashLine));
    p.setBrush(known ? theme.warmth(moment->bed_C[b]) : theme.wool);
    p.drawChord(r, 0, 180 * 16);
    if (!known) continue;
    const QString warmth = units.text(Quantity::temperature, moment->bed_C[b]);
    const QString said = plan.house.bedCovers[b].count > 1 ? tr("%1 covers  %2").arg(plan.house.bedCovers[b].count).arg(warmth) : tr("cover  %1").arg(warmth);
    label(p, {r.center().x(), r.center().y() + 11}, said, textFont(9, true), onSky, Qt::AlignHCenter, area); // in the soil, clear of the air's words
  }

  // barrels stand in rows along the house; one is seen, the count is said
  for (std::size_t b = 0; b < plan.barrels.size(); ++b) {
    const QRectF r = g.barrelsRect(b);
    const bool lit = hovered == Handle::barrels && b == 0;
    const QColor body = plan.barrels[b].colour == BarrelColour::white  ? QColor("#E9E4DA")
                        : plan.barrels[b].colour == BarrelColour::bare ? QColor("#A8A8A2")
                        : plan.barrels[b].colour == BarrelColour::blue ? theme.woad
                                                                       : QColor("#3A3430");
    p.setPen(QPen(lit ? theme.weld : theme.ink, lit ? 2.5 : 1.2));
    p.setBrush(body);
    p.drawRoundedRect(r, 4, 4);
    if (moment && b < moment->barrels_C.size()) {
      QRectF inner = r.adjusted(4, r.height() * 0.16, -4, -5);
      p.setPen(Qt::NoPen);
      p.setBrush(theme.warmth(moment->barrels_C[b]));
      p.drawRect(inner);
    }
    p.setPen(QPen(theme.ink, 0.8));
    for (const double y : {0.33, 0.66}) p.drawLine(QPointF(r.left(), r.top() + r.height() * y), QPointF(r.right(), r.top() + r.height() * y));
    const QString text = moment && b < moment->barrels_C.size()
                             ? tr("%1 barrels  %2").arg(plan.barrels[b].count).arg(units.text(Quantity::temperature, moment->barrels_C[b]))
                             : tr("%1 barrels").arg(plan.barrels[b].count);
    const double half = plan.house.shape.span_m() / 2.0;
    label(p, {r.center().x(), r.top() - 10}, text, textFont(9, true), inkOnAir, Qt::AlignHCenter, QRectF(g.at(-half, 1), g.at(half, 0)));
  }

  if (moment) {
    const QString heating =
        moment->heater_W > 1.0 ? (plan.house.bay ? tr("heaters %1") : tr("heater %1")).arg(units.text(Quantity::power, moment->heater_W)) : QString();
    if (plan.house.shape.ridge_m * g.scale() > 130.0) {
      label(p, centre - QPointF(0, 12), units.text(Quantity::temperature, moment->air_C), textFont(22, true), inkOnAir, Qt::AlignHCenter, area);
      label(p, centre + QPointF(0, 14), tr("house air"), textFont(9), inkOnAir, Qt::AlignHCenter, area);
      if (!heating.isEmpty()) label(p, centre + QPointF(0, 32), heating, textFont(9, true), inkOnAir, Qt::AlignHCenter, area);
    } else { // a low house: beside the drawing's foot, where there is room
      label(p, {g.at(0, 0).x(), soilTop + 16}, tr("house air %1").arg(units.text(Quantity::temperature, moment->air_C)), textFont(12, true), onSky,
            Qt::AlignHCenter, area);
      if (!heating.isEmpty()) label(p, {g.at(0, 0).x(), soilTop + 36}, heating, textFont(9, true), onSky, Qt::AlignHCenter, area);
    }

    // ribbons: the widest is 26 px and the rest in proportion to it; heat coming in is lichen and points inwards
    double widest = 500.0;
    for (const double w : moment->loss_W) widest = std::max(widest, std::abs(w));
    const double half = plan.house.shape.span_m() / 2.0;
    const HouseShape& s = plan.house.shape;
    struct Way {
      Part part;
      QPointF in, out;
      double bend;
      QPointF text;
      Qt::Alignment align;
      QString name;
    };
    const QPointF ridge = g.at(s.hasBackWall() ? 0.0 : -0.12 * s.width_m, s.hasBackWall()   ? (s.eave_m + s.ridge_m) / 2
                                                                          : s.bays % 2 == 0 ? s.eave_m + 0.72 * s.rise_m()
                                                                                            : s.ridge_m - 0.02 * s.width_m);
    const QPointF left = g.at(-half, s.eave_m * 0.55);
    const QPointF right = g.at(half * (s.hasBackWall() ? 1.0 : 0.93), s.eave_m + 0.22 * s.rise_m());
    const QPointF rightLow = g.at(half, s.eave_m * 0.45);
    const QPointF edge = g.at(half * 0.96, -s.sunk_m - 0.02);
    const QPointF floor = g.at(half * (plan.house.shape.ridge_m * g.scale() > 130.0 ? 0.1 : 0.55), -s.sunk_m - 0.02);
    const bool wall = s.hasBackWall();
    const QPointF slope = g.at(-0.55 * half, s.eave_m + 0.225 * s.rise_m()); // on the roof of a house with a back wall
    const std::vector<Way> ways{
        {Part::roof, ridge + QPointF(0, 14), ridge - QPointF(-6, 34), 0.15, wall ? ridge + QPointF(-24, -40) : ridge + QPointF(28, -34),
         wall ? Qt::AlignRight : Qt::AlignLeft, tr("roof")},
        {Part::sides, left + QPointF(10, 0), left - QPointF(36, 16), -0.2, left - QPointF(58, 42), Qt::AlignHCenter, tr("sides")},
        wall ? Way{Part::draughts, slope + QPointF(4, 8), slope + QPointF(-30, -30), -0.2, slope + QPointF(-50, -50), Qt::AlignHCenter, tr("draughts")}
             : Way{Part::draughts, right, right + QPointF(34, -24), 0.2, right + QPointF(48, -48), Qt::AlignHCenter, tr("draughts")},
        {Part::ends, rightLow - QPointF(10, 0), rightLow + QPointF(36, -16), 0.2, rightLow + QPointF(56, -40), Qt::AlignHCenter, tr("ends")},
        {Part::backWall, g.at(half, s.ridge_m * 0.5) - QPointF(10, 0), g.at(half, s.ridge_m * 0.5) + QPointF(46, -4), 0.1,
         g.at(half, s.ridge_m * 0.5) + QPointF(60, -26), Qt::AlignHCenter, tr("back wall")},
        {Part::floorEdge, edge + QPointF(0, 8), edge + QPointF(26, 36), -0.2, edge + QPointF(48, 58), Qt::AlignHCenter, tr("floor edge")},
        {Part::deepGround, floor + QPointF(0, 8), floor + QPointF(0, 62), 0.0, floor + QPointF(-12, 60), Qt::AlignRight, tr("deep ground")},
    };
    for (const Way& way : ways) {
      const double w = moment->loss_W[static_cast<std::size_t>(way.part)];
      if (std::abs(w) < 20.0) continue;
      const double width = std::max(2.5, 26.0 * std::abs(w) / widest);
      if (w > 0)
        ribbon(p, way.in, way.out, way.bend, width, theme.dark ? QColor("#C25A48") : theme.madder);
      else
        ribbon(p, way.out, way.in, -way.bend, width, theme.dark ? theme.lichen : QColor("#8FA862"));
      label(p, way.text, way.name + QStringLiteral(" ") + units.text(Quantity::power, std::abs(w)), textFont(9, true), onSky, way.align, area);
    }
    if (const double w = moment->loss_W[static_cast<std::size_t>(Part::vents)]; w > 20.0)
      label(p, g.at(0, s.ridge_m) + QPointF(-10, -58), tr("vents %1").arg(units.text(Quantity::power, w)), textFont(9, true), onSky, Qt::AlignRight, area);
  }

  // handles: rings, larger under the pointer
  for (const Handle h : {Handle::ridge, Handle::eave, Handle::width}) {
    p.setPen(QPen(theme.weld, 2));
    p.setBrush(hovered == h ? theme.weld : QColor("#2D241E"));
    p.drawEllipse(g.handle(h), hovered == h ? 7 : 4.5, hovered == h ? 7 : 4.5);
  }
  label(p, {area.left() + 12, area.top() + 20}, title, titleFont(11), onSky, Qt::AlignLeft, area);
  label(p, {area.left() + 12, area.top() + 40}, subtitle, textFont(9), onSky, Qt::AlignLeft, area);
  if (moment && moment->bay_C)
    label(p, {area.left() + 12, area.top() + 58}, tr("warm bay at the end %1").arg(units.text(Quantity::temperature, *moment->bay_C)), textFont(9, true), onSky,
          Qt::AlignLeft, area);
  p.restore();
}

} // namespace muffle
