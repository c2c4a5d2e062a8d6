// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/plan_picture.h"

#include "core/assemble/assemble.h"
#include "core/constants.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

QString planText(const char* text) { return QCoreApplication::translate("PlanView", text); }

class PlanPicture {
public:
  PlanPicture(QPainter& p, const QRectF& area, const Plan& plan, const std::optional<SectionMoment>& moment, const Theme& theme, const Units& units)
      : m_p(p), m_area(area), m_plan(plan), m_shape(plan.house.shape), m_moment(moment), m_theme(theme), m_units(units),
        m_centre(area.center() + QPointF(0, 16)), m_radius(std::min(area.width() - 90.0, area.height() - 130.0) / 2.0) {
    const double length = m_shape.kind == ShapeKind::dome ? m_shape.width_m : m_shape.length_m;
    m_length_m = length;
    m_scale = 0.62 * m_radius / (std::hypot(m_shape.span_m(), length) / 2.0);
  }

  void paint(const SunWay& sun, const QString& title, const QString& subtitle) {
    m_p.fillRect(m_area, m_theme.dark ? m_theme.soilDeep : m_theme.soilTop);
    compass();
    way(sun);
    house();
    words(title, subtitle);
  }

private:
  /// Across (to the right of where the ridge points) and along the ridge, metres from the middle.
  [[nodiscard]] QPointF at(double across_m, double along_m) const {
    return m_centre + m_scale * (along_m * bearing(m_shape.axis_deg) + across_m * bearing(m_shape.axis_deg + 90.0));
  }
  [[nodiscard]] QPolygonF block(double left, double right, double from, double to) const {
    return QPolygonF{at(left, from), at(right, from), at(right, to), at(left, to)};
  }
  void say(const QPointF& middle, const QString& text, const QFont& font, const QColor& colour) {
    const QFontMetricsF metrics(font);
    QRectF box(0, 0, metrics.horizontalAdvance(text) + 4, metrics.height());
    box.moveCenter(middle);
    box.moveLeft(std::clamp(box.left(), m_area.left() + 4, std::max(m_area.right() - 4 - box.width(), m_area.left() + 4)));
    m_p.setFont(font);
    m_p.setPen(colour);
    m_p.drawText(box, static_cast<int>(Qt::AlignCenter), text);
  }

  /// The horizon, with the four quarters.
  void compass() {
    m_p.setBrush(Qt::NoBrush);
    m_p.setPen(QPen(kPale, 1.0, Qt::DotLine));
    m_p.drawEllipse(m_centre, m_radius, m_radius);
    const std::pair<double, QString> quarters[] = {{0.0, planText("north")}, {90.0, planText("east")}, {180.0, planText("south")}, {270.0, planText("west")}};
    for (const auto& [angle, name] : quarters) {
      const QPointF out = bearing(angle);
      m_p.setPen(QPen(kPale, 1.2));
      m_p.drawLine(m_centre + out * (m_radius - 5), m_centre + out * (m_radius + 3));
      say(m_centre + QPointF(out.x() * (m_radius + 24), out.y() * (m_radius + 12)), name, textFont(9, angle == 0.0), kPale);
    }
  }

  /// A height of 0 lies on the horizon's ring, the zenith in the middle.
  [[nodiscard]] QPointF stand(const SunStand& s) const { return m_centre + bearing(s.azimuth_deg) * (m_radius * (1.0 - s.height_deg / 90.0)); }

  void way(const SunWay& sun) {
    QPolygonF line;
    for (const SunStand& s : sun.path) line << stand(s);
    m_p.setBrush(Qt::NoBrush);
    m_p.setPen(QPen(m_theme.weld, 2.0, Qt::DashLine));
    m_p.drawPolyline(line);
    m_p.setPen(Qt::NoPen);
    m_p.setBrush(m_theme.weld);
    if (!line.isEmpty()) {
      m_p.drawEllipse(line.first(), 3, 3); // it rises and sets
      m_p.drawEllipse(line.last(), 3, 3);
    }
    if (!sun.now) return;
    m_p.setPen(QPen(m_theme.weld, 1.0));
    m_p.drawLine(stand(*sun.now), m_centre);
    m_p.setPen(QPen(m_theme.ink, 1.0));
    m_p.drawEllipse(stand(*sun.now), 8, 8);
  }

  void house() {
    const double half = m_shape.span_m() / 2.0, end = m_length_m / 2.0;
    m_p.setPen(QPen(QColor("#E6EEF2"), 2.4));
    m_p.setBrush(m_moment ? m_theme.warmth(m_moment->air_C) : m_theme.wool);
    if (m_shape.kind == ShapeKind::dome)
      m_p.drawEllipse(m_centre, half * m_scale, half * m_scale);
    else
      m_p.drawPolygon(block(-half, half, -end, end));
    endRoom(RoomKind::bay, end - bayLength(), end);
    endRoom(RoomKind::lobby, -end, -end + lobbyLength());
    m_p.setPen(QPen(m_theme.ink, 1.0, Qt::DashLine)); // ridges and gutters
    if (m_shape.kind != ShapeKind::dome && !m_shape.hasBackWall())
      for (int bay = 0; bay < m_shape.bays; ++bay) {
        const double ridge = -half + (bay + 0.5) * m_shape.width_m;
        m_p.drawLine(at(ridge, -end), at(ridge, end));
        if (bay > 0) m_p.drawLine(at(-half + bay * m_shape.width_m, -end), at(-half + bay * m_shape.width_m, end));
      }
    if (m_shape.hasBackWall()) { // the front looks to the right of where the ridge points
      const double thick = std::max(0.3, 6.0 / m_scale);
      m_p.setPen(QPen(m_theme.ink, 1.2));
      m_p.setBrush(m_theme.soilDeep);
      m_p.drawPolygon(block(-half - thick, -half, -end, end));
      m_p.setBrush(QBrush(QColor("#E9E4DA"), Qt::BDiagPattern));
      m_p.drawPolygon(block(-half - thick, -half, -end, end));
    }
    beds();
    barrels();
    if (m_moment) {
      say(at(0.22 * m_shape.span_m(), (lobbyLength() - bayLength()) / 2.0), m_units.text(Quantity::temperature, m_moment->air_C), textFont(13, true),
          inkOn(m_theme.warmth(m_moment->air_C)));
    }
    saidAt(RoomKind::bay, end - bayLength() / 2.0);
    saidAt(RoomKind::lobby, -end + lobbyLength() / 2.0);
  }

  [[nodiscard]] double bayLength() const { return m_plan.house.bay ? m_plan.house.bay->length_m : 0.0; }
  [[nodiscard]] double lobbyLength() const { return m_plan.house.lobby ? m_plan.house.lobby->length_m : 0.0; }
  [[nodiscard]] const RoomMoment* known(RoomKind kind, std::size_t bed = 0) const { return m_moment ? m_moment->room(kind, bed) : nullptr; }

  void endRoom(RoomKind kind, double from, double to) {
    if (to - from <= 0.0) return;
    const RoomMoment* const air = known(kind);
    m_p.setBrush(air ? m_theme.warmth(air->air_C) : m_theme.wool);
    m_p.drawPolygon(block(-m_shape.span_m() / 2.0, m_shape.span_m() / 2.0, from, to));
  }
  void saidAt(RoomKind kind, double along) {
    if (const RoomMoment* air = known(kind))
      say(at(0, along), m_units.text(Quantity::temperature, air->air_C), textFont(10, true), inkOn(m_theme.warmth(air->air_C)));
  }

  /// The section's x runs the other way: it is seen with the ridge coming towards the eye.
  [[nodiscard]] double across(double section_m, double width_m) const {
    const double room = std::max(m_shape.span_m() / 2.0 - width_m / 2.0, 0.0);
    return -std::clamp(section_m, -room, room);
  }

  void beds() {
    for (std::size_t b = 0; b < m_plan.house.bedCovers.size(); ++b) {
      const BedCover& c = m_plan.house.bedCovers[b];
      const double x = across(c.x_m, c.width_m);
      const double end = m_length_m / 2.0 - (c.inBay ? 0.0 : bayLength());
      const double start = c.inBay ? m_length_m / 2.0 - bayLength() : -m_length_m / 2.0 + lobbyLength();
      const double from = std::max(start + 0.3, end - 0.3 - c.length_m);
      m_p.setPen(QPen(QColor("#E6EEF2"), 1.6, Qt::DashLine));
      const RoomMoment* const air = known(RoomKind::bed, b);
      m_p.setBrush(air ? m_theme.warmth(air->air_C) : m_theme.wool);
      m_p.drawPolygon(block(x - c.width_m / 2.0, x + c.width_m / 2.0, from, from + c.length_m));
    }
  }

  void barrels() {
    for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
      const Barrels& group = m_plan.barrels[b];
      const double d = barrelSize(group.litres).diameter_m;
      const double x = across(group.x_m, d);
      const int fit = std::max(static_cast<int>((m_length_m - 0.4) / d), 1);
      m_p.setPen(QPen(m_theme.ink, 0.8));
      const auto known = m_moment ? m_moment->barrels_C(b) : std::nullopt;
      m_p.setBrush(known ? m_theme.warmth(*known) : m_theme.fleece);
      for (int k = 0; k < std::min(group.count, 3 * fit); ++k) { // in rows of as many as the house is long
        const int line = k / fit;
        const double row = line * d * (x > 0 ? -1.0 : 1.0);
        m_p.drawEllipse(at(x + row, -m_length_m / 2.0 + 0.2 + (k % fit + 0.5) * d), 0.45 * d * m_scale, 0.45 * d * m_scale);
      }
    }
  }

  void words(const QString& title, const QString& subtitle) {
    m_p.setPen(kPale);
    m_p.setFont(titleFont(11));
    m_p.drawText(QRectF(m_area.left() + 14, m_area.top() + 8, m_area.width() - 28, 22), static_cast<int>(Qt::AlignVCenter), title);
    m_p.setFont(textFont(9));
    m_p.drawText(QRectF(m_area.left() + 14, m_area.top() + 30, m_area.width() - 28, 18), static_cast<int>(Qt::AlignVCenter),
                 m_p.fontMetrics().elidedText(subtitle, Qt::ElideRight, static_cast<int>(m_area.width()) - 28));
  }

  const QColor kPale{"#F4EFE6"};
  QPainter& m_p;
  QRectF m_area;
  const Plan& m_plan;
  const HouseShape& m_shape;
  const std::optional<SectionMoment>& m_moment;
  const Theme& m_theme;
  const Units& m_units;
  QPointF m_centre;
  double m_radius;
  double m_length_m = 1.0, m_scale = 1.0;
};

} // namespace

QPointF bearing(double azimuth_deg) { return {std::sin(radians(azimuth_deg)), -std::cos(radians(azimuth_deg))}; }

void paintPlanView(QPainter& p, const QRectF& area, const Plan& plan, const std::optional<SectionMoment>& moment, const SunWay& sun, const QString& title,
                   const QString& subtitle, const Theme& theme, const Units& units) {
  p.save();
  p.setClipRect(area);
  p.setRenderHint(QPainter::Antialiasing);
  PlanPicture(p, area, plan, moment, theme, units).paint(sun, title, subtitle);
  p.restore();
}

} // namespace muffle
