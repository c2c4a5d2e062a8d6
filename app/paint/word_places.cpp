// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/word_places.h"

#include <QFontMetricsF>

#include <algorithm>

namespace muffle {

QRectF WordPlaces::free(const QRectF& wanted) const {
  constexpr double kStep_px = 3.0;
  constexpr int kSteps = 40;
  const auto isFree = [&](const QRectF& box) {
    const QRectF ink = box.adjusted(2, 2, -2, -2); // fonts leave room above and below
    return box.top() >= m_soilTop && box.bottom() <= m_area.bottom() &&
           std::none_of(m_taken.begin(), m_taken.end(), [&](const QRectF& other) { return other.intersects(ink); });
  };
  for (int k = 0; k < kSteps; ++k)
    for (const double way : {1.0, -1.0})
      if (const QRectF moved = wanted.translated(0.0, way * kStep_px * k); isFree(moved)) return moved;
  return wanted;
}

void WordPlaces::say(QPainter& p, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align, const QRectF& inside) {
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
  if (box.center().y() > m_soilTop) {
    box = free(box);
    m_taken.push_back(box);
  }
  p.setFont(font);
  p.setPen(colour);
  p.drawText(box, static_cast<int>(Qt::AlignCenter), text);
}

} // namespace muffle
