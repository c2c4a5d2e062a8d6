// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/word_places.h"

#include <QFontMetricsF>

#include <algorithm>
#include <cmath>

namespace muffle {

QRectF WordPlaces::free(const QRectF& wanted) const {
  constexpr double kStep_px = 3.0, kAside_px = 12.0;
  constexpr int kSteps = 40, kAsides = 3;
  constexpr double kApart_px = 3.0;
  const auto isFree = [&](const QRectF& box) {
    const QRectF ink = box.adjusted(-kApart_px, 2, kApart_px, -2); // fonts leave room above and below
    return box.top() >= m_soilTop && box.bottom() <= m_area.bottom() && box.left() >= m_area.left() && box.right() <= m_area.right() &&
           std::none_of(m_taken.begin(), m_taken.end(), [&](const QRectF& other) { return other.intersects(ink); });
  };
  if (isFree(wanted)) return wanted;
  QRectF best = wanted;
  double least = 1e9;
  for (int aside = -kAsides; aside <= kAsides; ++aside)
    for (int k = -kSteps; k <= kSteps; ++k) {
      const double x = kAside_px * aside, y = kStep_px * k;
      constexpr double kAsideCounts = 0.6;                                      // a word beside its thing still is its own
      const double far = std::hypot(kAsideCounts * x, y) + (k < 0 ? 0.1 : 0.0); // rather below
      if (far >= least) continue;
      if (const QRectF moved = wanted.translated(x, y); isFree(moved)) best = moved, least = far;
    }
  return best;
}

QRectF WordPlaces::boxOf(const QPointF& at, const QString& text, const QFont& font, Qt::Alignment align, const QRectF& inside) {
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
  return box;
}

void WordPlaces::sayOf(QPainter& p, const QPointF& thing, const QPointF& at, const QString& longer, const QString& shorter, const QFont& font,
                       const QColor& colour, const QRectF& inside) {
  constexpr double kNear_px = 8.0;
  const auto moved = [&](const QRectF& box) { return std::abs(box.center().y() - at.y()); }; // sideways it stays by its thing
  QString text = longer;
  QRectF box = free(boxOf(at, longer, font, Qt::AlignHCenter, inside));
  if (moved(box) > kNear_px && !shorter.isEmpty()) {
    const QRectF small = free(boxOf(at, shorter, font, Qt::AlignHCenter, inside));
    if (moved(small) < moved(box)) box = small, text = shorter;
  }
  m_taken.push_back(box);
  if (moved(box) > kNear_px && box.top() > thing.y() + kNear_px) {
    p.setPen(QPen(colour, 0.8));
    p.drawLine(thing, QPointF(std::clamp(thing.x(), box.left() + 3.0, box.right() - 3.0), box.top() + 2.0));
  }
  p.setFont(font);
  p.setPen(colour);
  p.drawText(box, static_cast<int>(Qt::AlignCenter), text);
}

void WordPlaces::say(QPainter& p, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align, const QRectF& inside) {
  QRectF box = boxOf(at, text, font, align, inside);
  if (box.center().y() > m_soilTop) {
    box = free(box);
    m_taken.push_back(box);
  }
  p.setFont(font);
  p.setPen(colour);
  p.drawText(box, static_cast<int>(Qt::AlignCenter), text);
}

void WordPlaces::sayApart(QPainter& p, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align,
                          const QRectF& inside) {
  constexpr double kStep_px = 2.0;
  QRectF box = boxOf(at, text, font, align, inside);
  const auto isFree = [&] { // fonts leave room above and below
    return std::none_of(m_above.begin(), m_above.end(), [&](const QRectF& other) { return other.intersects(box.adjusted(-2, 2, 2, -2)); });
  };
  while (box.center().y() <= m_soilTop && !isFree()) box.translate(0, kStep_px);
  if (box.center().y() > m_soilTop) return say(p, box.center(), text, font, colour, Qt::AlignHCenter, inside);
  m_above.push_back(box);
  p.setFont(font);
  p.setPen(colour);
  p.drawText(box, static_cast<int>(Qt::AlignCenter), text);
}

} // namespace muffle
