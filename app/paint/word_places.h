// SPDX-License-Identifier: GPL-3.0-or-later
//
// Words in the cross-section. In the soil, where many things have a word to say, one that would stand on another moves up or down to the
// nearest free line.
#pragma once

#include <QColor>
#include <QFont>
#include <QPainter>
#include <QRectF>
#include <QString>

#include <vector>

namespace muffle {

class WordPlaces {
public:
  /// Below soilTop and down to the area's bottom words give way to each other.
  WordPlaces(const QRectF& area, double soilTop) : m_area(area), m_soilTop(soilTop) {}
  /// Something is drawn there that no word is to cover.
  void keepClear(const QRectF& drawn) { m_taken.push_back(drawn); }
  /// About a point: centred on it, or to the left or right of it; never out of `inside`.
  void say(QPainter& painter, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align, const QRectF& inside);

private:
  [[nodiscard]] QRectF free(const QRectF& wanted) const;
  QRectF m_area;
  double m_soilTop;
  std::vector<QRectF> m_taken;
};

} // namespace muffle
