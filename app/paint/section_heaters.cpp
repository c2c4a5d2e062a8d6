// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/section_heaters.h"

#include "app/model/said.h"
#include "core/plan/names.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

class HeatersPicture {
public:
  HeatersPicture(QPainter& p, const SectionGeometry& g, const Plan& plan, const Theme& theme, Grip hovered, WordPlaces& words)
      : m_p(p), m_g(g), m_plan(plan), m_theme(theme), m_hovered(hovered), m_words(words) {}

  void paint() {
    for (std::size_t i = 0; i < m_plan.heaters.size(); ++i) m_drawn += m_g.heater(i).isEmpty() ? 0U : 1U;
    for (std::size_t i = 0; i < m_plan.heaters.size(); ++i) {
      const QRectF r = m_g.heater(i);
      if (r.isEmpty()) continue;
      const bool lit = m_hovered == Grip(Handle::heater, i);
      m_line = QPen(lit ? m_theme.weld : m_theme.ink, lit ? 2.4 : 1.3);
      if (m_plan.heaters[i].place.of == HeaterPlace::Of::mass) {
        within(r);
        continue;
      }
      if (m_plan.heaters[i].place.of == HeaterPlace::Of::bed) {
        underCover(r);
        continue;
      }
      switch (standOf(m_plan.heaters[i].kind)) {
      case HeaterStand::floor: onFloor(m_plan.heaters[i], r); break;
      case HeaterStand::foot: tubes(r); break;
      case HeaterStand::roof: hung(m_plan.heaters[i], r); break;
      case HeaterStand::outside: fan(r); break;
      }
      say(m_plan.heaters[i], r);
    }
  }

private:
  void body(const QRectF& r) {
    m_p.setPen(m_line);
    m_p.setBrush(m_theme.wool);
    m_p.drawRoundedRect(r, 2.5, 2.5);
  }

  /// Its blades in a ring.
  void fan(const QRectF& r) {
    body(r);
    const double radius = 0.34 * std::min(r.width(), r.height());
    m_p.setBrush(Qt::NoBrush);
    m_p.drawEllipse(r.center(), radius, radius);
    for (int blade = 0; blade < 3; ++blade) {
      const double turn = 2.094 * blade + 0.5;
      m_p.drawLine(r.center(), r.center() + radius * QPointF(std::cos(turn), std::sin(turn)));
    }
  }

  void flame(const QPointF& foot, double tall) {
    QPainterPath path(foot);
    path.quadTo(foot + QPointF(-0.45 * tall, -0.3 * tall), foot + QPointF(0, -tall));
    path.quadTo(foot + QPointF(0.45 * tall, -0.3 * tall), foot);
    m_p.setPen(Qt::NoPen);
    m_p.setBrush(m_theme.madder);
    m_p.drawPath(path);
  }

  void onFloor(const Heater& of, const QRectF& r) {
    if (of.kind == HeaterKind::candles) {
      for (const double x : {0.2, 0.5, 0.8}) {
        const QPointF foot(r.left() + x * r.width(), r.bottom());
        m_p.setPen(m_line);
        m_p.drawLine(foot, foot - QPointF(0, 0.35 * r.height()));
        flame(foot - QPointF(0, 0.35 * r.height()), 0.55 * r.height());
      }
      return;
    }
    if (factsOf(of.kind).hasFlue && isBurnt(carrierOf(of))) flue(of, r);
    if (!isBurnt(carrierOf(of))) return fan(r);
    body(r);
    const QRectF door = r.adjusted(0.2 * r.width(), 0.35 * r.height(), -0.2 * r.width(), -0.15 * r.height());
    m_p.setPen(QPen(m_line.color(), 1.0));
    m_p.drawRect(door);
    flame({door.center().x(), door.bottom() - 1}, 0.8 * door.height());
  }

  /// Cut across: those at the foot run along the house.
  void tubes(const QRectF& r) {
    m_p.setPen(m_line);
    m_p.setBrush(m_theme.wool);
    const double radius = 0.24 * r.height();
    for (const double y : {0.25, 0.75}) m_p.drawEllipse(QPointF(r.center().x(), r.top() + y * r.height()), radius, radius);
  }

  /// Low between the plants, whatever its kind.
  void underCover(const QRectF& r) {
    m_p.setPen(m_line);
    m_p.setBrush(m_theme.madder);
    const double radius = 0.3 * r.height();
    for (const double x : {0.25, 0.75}) m_p.drawEllipse(QPointF(r.left() + x * r.width(), r.bottom() - radius), radius, radius);
  }

  /// A cable or mat to and fro within what it warms.
  void within(const QRectF& r) {
    constexpr double kTurn_px = 6.0;
    QPainterPath path(QPointF(r.left(), r.center().y()));
    const int turns = std::max(2, static_cast<int>(r.width() / kTurn_px));
    const double step = r.width() / turns, high = std::min(0.35 * r.height(), 4.0);
    for (int k = 0; k < turns; ++k)
      path.quadTo(QPointF(r.left() + (k + 0.5) * step, r.center().y() + (k % 2 ? high : -high) * 2.0), QPointF(r.left() + (k + 1.0) * step, r.center().y()));
    m_p.setPen(QPen(m_theme.madder, m_line.widthF() + 0.3));
    m_p.setBrush(Qt::NoBrush);
    m_p.drawPath(path);
  }

  /// A stove's smoke: straight up through the cover and clear of it, or first through the mass that it leads through.
  void flue(const Heater& of, const QRectF& r) {
    QPainterPath path(QPointF(r.center().x(), r.top()));
    double x = r.center().x();
    if (of.through > 0 && static_cast<std::size_t>(of.through) <= m_plan.mass.size()) {
      const QRectF mass = m_g.mass(static_cast<std::size_t>(of.through) - 1);
      const bool toTheRight = mass.center().x() >= r.center().x();
      x = toTheRight ? mass.right() - 3.0 : mass.left() + 3.0;
      path = QPainterPath(QPointF(toTheRight ? r.right() : r.left(), r.top() + 0.3 * r.height()));
      const double enter = toTheRight ? mass.left() : mass.right();
      if (toTheRight ? enter > r.right() : enter < r.left()) path.lineTo(enter, r.top() + 0.3 * r.height());
      path.lineTo(path.currentPosition().x(), mass.center().y());
      path.lineTo(x, mass.center().y());
    }
    const double top = m_g.roofY(x) - kFlueAbove_px;
    path.lineTo(x, top);
    m_p.setBrush(Qt::NoBrush);
    m_p.setPen(QPen(m_line.color(), 4.0, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
    m_p.drawPath(path);
    m_p.setPen(QPen(m_line.color(), 2.0));
    m_p.drawLine(QPointF(x - 6, top - 3), QPointF(x + 6, top - 3));
  }

  void hung(const Heater& of, const QRectF& r) {
    m_p.setPen(QPen(m_line.color(), 1.0));
    for (const double x : {0.2, 0.8}) {
      const double across = r.left() + x * r.width();
      m_p.drawLine(QPointF(across, r.top()), QPointF(across, m_g.roofY(across)));
    }
    const bool isLamp = of.kind == HeaterKind::lamps || of.kind == HeaterKind::growLight;
    if (isLamp) {
      m_p.setPen(m_line);
      m_p.setBrush(m_theme.weld);
      for (const double x : {0.2, 0.5, 0.8}) m_p.drawEllipse(QPointF(r.left() + x * r.width(), r.bottom() - 4), 3.5, 4.5);
      m_p.drawLine(r.topLeft(), r.topRight());
      return;
    }
    body(r);
    m_p.setPen(QPen(m_theme.madder, 1.2, Qt::DotLine)); // it warms what it sees
    for (const double x : {0.1, 0.5, 0.9}) {
      const QPointF from(r.left() + x * r.width(), r.bottom() + 2);
      m_p.drawLine(from, from + QPointF((x - 0.5) * 24.0, 14.0));
    }
  }

  /// In the soil below, as stores are. What hangs, and more things than words find room for, are told by their pictures and tips.
  void say(const Heater& of, const QRectF& r) {
    constexpr std::size_t kMostNamed = 3;
    if (standOf(of.kind) == HeaterStand::roof || m_drawn + storesOf(m_plan).size() > kMostNamed) return;
    m_words.sayOf(m_p, {r.center().x(), r.bottom()}, {r.center().x(), r.bottom() + 11.0}, said(nameOf(m_plan, of)), QString(), textFont(9, true),
                  QColor("#F4EFE6"), m_g.area());
  }

  static constexpr double kFlueAbove_px = 16.0;
  QPainter& m_p;
  const SectionGeometry& m_g;
  const Plan& m_plan;
  const Theme& m_theme;
  Grip m_hovered;
  WordPlaces& m_words;
  QPen m_line;
  std::size_t m_drawn = 0;
};

} // namespace

void paintHeaters(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const Theme& theme, Grip hovered, WordPlaces& words) {
  HeatersPicture(painter, geometry, plan, theme, hovered, words).paint();
}

} // namespace muffle
