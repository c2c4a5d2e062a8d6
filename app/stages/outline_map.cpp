// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/outline_map.h"

#include "app/model/atlas.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QTimer>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace muffle {
namespace {

constexpr double kMost_px_deg = 240.0; // about half a kilometre a pixel
constexpr double kNear_px_deg = 14.0;  // a land of middle size across
constexpr double kNames_px_deg = 6.0;  // from here on towns are named
constexpr int kNames = 14;
constexpr double kSlop_px = 4.0; // a click that shakes is still a click

} // namespace

OutlineMap::OutlineMap(Document& document, QWidget* parent) : DocumentView(document, {&Document::viewChanged}, parent) {
  setAccessibleName(tr("Map of outlines"));
  setToolTip(tr("click sets the pin: the nearest town is taken; the wheel brings the map nearer, dragging moves it; arrows, +, − and Return do the same"));
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::CrossCursor);
  setMinimumSize(220, 130);
}

double OutlineMap::leastScale() const { return std::min(width() / 360.0, height() / 145.0); } // the whole world in sight

QPointF OutlineMap::pixelOf(Coordinates at) const {
  const double scale = std::max(m_scale, leastScale());
  // degrees of longitude as wide as they are at the middle of the map; the whole world as if at the equator
  const double narrow = scale > 2.0 * leastScale() ? std::cos(m_centre.latitude_deg * std::numbers::pi / 180.0) : 1.0;
  const double east = std::remainder(at.longitude_deg - m_centre.longitude_deg, 360.0);
  return {width() / 2.0 + east * scale * narrow, height() / 2.0 - (at.latitude_deg - m_centre.latitude_deg) * scale};
}

Coordinates OutlineMap::placeAt(QPointF pixel) const {
  const double scale = std::max(m_scale, leastScale());
  const double narrow = scale > 2.0 * leastScale() ? std::cos(m_centre.latitude_deg * std::numbers::pi / 180.0) : 1.0;
  const double longitude = std::remainder(m_centre.longitude_deg + (pixel.x() - width() / 2.0) / (scale * narrow), 360.0);
  return {std::clamp(m_centre.latitude_deg - (pixel.y() - height() / 2.0) / scale, -90.0, 90.0), longitude};
}

void OutlineMap::keepInSight() {
  const double half = height() / 2.0 / std::max(m_scale, leastScale());
  m_centre.latitude_deg = std::clamp(m_centre.latitude_deg, std::min(0.0, -60.0 + half), std::max(0.0, 85.0 - half));
}

void OutlineMap::showPlace(Coordinates at, bool isKnown) {
  const bool isNew = isKnown && (!m_isKnown || std::hypot(at.latitude_deg - m_pin.latitude_deg, at.longitude_deg - m_pin.longitude_deg) > 1e-6);
  m_isKnown = isKnown;
  m_pin = at;
  if (!isKnown) {
    m_scale = 0.0;
    m_centre = {20.0, 10.0};
  } else if (isNew) {
    m_scale = std::max(m_scale, kNear_px_deg);
    m_centre = at;
  }
  keepInSight();
  update();
}

void OutlineMap::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = theme();
  p.fillRect(rect(), t.oat);
  p.setRenderHint(QPainter::Antialiasing);
  const Atlas* const read = atlasIfRead();
  if (!read) { // the window does not wait for it
    QTimer::singleShot(50, this, qOverload<>(&QWidget::update));
    return;
  }
  p.setPen(QPen(t.fleece, 0.8));
  const QRectF seen(rect());
  const double halfTurn_px = std::abs(pixelOf({0.0, m_centre.longitude_deg + 179.9}).x() - pixelOf({0.0, m_centre.longitude_deg}).x());
  QPolygonF drawn;
  const auto draw = [&] {
    if (drawn.size() > 1 && drawn.boundingRect().intersects(seen)) p.drawPolyline(drawn);
    drawn.clear();
  };
  for (const QPolygonF& line : read->outlines) {
    for (const QPointF& at : line) {
      const QPointF pixel = pixelOf({at.y(), at.x()});
      if (!drawn.isEmpty() && std::abs(pixel.x() - drawn.back().x()) > halfTurn_px) draw(); // round the back of the globe
      if (drawn.isEmpty() || (pixel - drawn.back()).manhattanLength() > 0.7) drawn << pixel;
    }
    draw();
  }
  if (std::max(m_scale, leastScale()) >= kNames_px_deg) paintTowns(p);
  if (m_isKnown || hasFocus()) {
    const QPointF pin = pixelOf(m_pin);
    p.setPen(QPen(t.wool, 1.5));
    p.setBrush(t.madder);
    QPolygonF drop{pin, pin + QPointF(-5, -10), pin + QPointF(0, -15), pin + QPointF(5, -10)};
    p.drawPolygon(drop);
  }
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(hasFocus() ? t.madder : t.seam, hasFocus() ? 2.0 : 1.0));
  p.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
}

/// The biggest in sight whose names find room.
void OutlineMap::paintTowns(QPainter& p) const {
  const Theme& t = theme();
  const auto& towns = atlas().towns.towns();
  p.setFont(textFont(8.5));
  const QFontMetricsF metrics(p.font());
  std::vector<QRectF> taken{QRectF(pixelOf(m_pin) + QPointF(-7, -17), QSizeF(14, 18))};
  int named = 0;
  for (const std::size_t i : atlas().bySize) {
    const QPointF at = pixelOf(towns[i].at);
    if (!rect().adjusted(4, 4, -4, -4).contains(at.toPoint())) continue;
    const QString name = QString::fromUtf8(towns[i].name.data(), static_cast<qsizetype>(towns[i].name.size()));
    const QRectF box(at.x() + 4, at.y() - metrics.height() / 2.0, metrics.horizontalAdvance(name), metrics.height());
    if (!QRectF(rect()).adjusted(3, 3, -6, -3).contains(box) ||
        std::any_of(taken.begin(), taken.end(), [&](const QRectF& b) { return b.intersects(box.adjusted(-8, -1, 3, 1)); }))
      continue;
    taken.push_back(box.adjusted(-8, 0, 0, 0));
    p.setPen(Qt::NoPen);
    p.setBrush(t.ink);
    p.drawEllipse(at, 1.8, 1.8);
    p.setPen(t.ink);
    p.drawText(box, Qt::AlignCenter, name);
    if (++named == kNames) return;
  }
}

void OutlineMap::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  m_pressed = event->position();
  m_centreWhenPressed = m_centre;
  m_dragged = false;
}

void OutlineMap::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton)) return;
  if (!m_dragged && (event->position() - m_pressed).manhattanLength() < kSlop_px) return;
  m_dragged = true;
  m_centre = m_centreWhenPressed;
  const Coordinates from = placeAt(m_pressed), to = placeAt(event->position());
  m_centre.latitude_deg += from.latitude_deg - to.latitude_deg;
  m_centre.longitude_deg = std::remainder(m_centre.longitude_deg + from.longitude_deg - to.longitude_deg, 360.0);
  keepInSight();
  update();
}

void OutlineMap::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton && !m_dragged) emit pinned(placeAt(event->position()));
}

void OutlineMap::zoom(double times, QPointF about) {
  const Coordinates fixed = placeAt(about);
  const double scale = std::clamp(std::max(m_scale, leastScale()) * times, leastScale(), kMost_px_deg);
  m_scale = scale > leastScale() ? scale : 0.0;
  const Coordinates now = placeAt(about);
  m_centre.latitude_deg += fixed.latitude_deg - now.latitude_deg;
  m_centre.longitude_deg = std::remainder(m_centre.longitude_deg + fixed.longitude_deg - now.longitude_deg, 360.0);
  keepInSight();
  update();
}

void OutlineMap::wheelEvent(QWheelEvent* event) {
  zoom(std::pow(1.35, event->angleDelta().y() / 120.0), event->position());
  event->accept();
}

void OutlineMap::keyPressEvent(QKeyEvent* event) {
  const double step_deg = 8.0 / std::max(m_scale, leastScale());
  const auto move = [&](double north, double east) {
    m_pin.latitude_deg = std::clamp(m_pin.latitude_deg + north * step_deg, -60.0, 85.0);
    m_pin.longitude_deg = std::remainder(m_pin.longitude_deg + east * step_deg, 360.0);
    if (!rect().adjusted(20, 20, -20, -20).contains(pixelOf(m_pin).toPoint())) m_centre = m_pin;
    keepInSight();
    update();
  };
  switch (event->key()) {
  case Qt::Key_Left: move(0, -1); break;
  case Qt::Key_Right: move(0, 1); break;
  case Qt::Key_Up: move(1, 0); break;
  case Qt::Key_Down: move(-1, 0); break;
  case Qt::Key_Plus: zoom(1.5, pixelOf(m_pin)); break;
  case Qt::Key_Minus: zoom(1.0 / 1.5, pixelOf(m_pin)); break;
  case Qt::Key_Return:
  case Qt::Key_Enter:
  case Qt::Key_Space: emit pinned(m_pin); break;
  default: DocumentView::keyPressEvent(event);
  }
}

void OutlineMap::resizeEvent(QResizeEvent*) { keepInSight(); }

} // namespace muffle
