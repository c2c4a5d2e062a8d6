// SPDX-License-Identifier: GPL-3.0-or-later
//
// Words in the cross-section. In the soil, where many things have a word to say, one that would stand on another moves to the
// nearest free place.
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
  /// What belongs to a thing at a point in the soil or on it, centred: the longer form where it finds room near by, else the shorter; a
  /// hairline leads to it from `thing` where it had to move away.
  void sayOf(QPainter& painter, const QPointF& thing, const QPointF& at, const QString& longer, const QString& shorter, const QFont& font, const QColor& colour,
             const QRectF& inside);
  /// About a point: centred on it, or to the left or right of it; never out of `inside`.
  void say(QPainter& painter, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align, const QRectF& inside);
  /// The same; above the soil it goes lower until it is clear of all that was said so.
  void sayApart(QPainter& painter, const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align, const QRectF& inside);

  /// Where words stand in the soil, and what was to be kept clear.
  [[nodiscard]] const std::vector<QRectF>& taken() const { return m_taken; }
  /// Where those stand that were said apart above it.
  [[nodiscard]] const std::vector<QRectF>& above() const { return m_above; }

private:
  [[nodiscard]] QRectF free(const QRectF& wanted) const;
  [[nodiscard]] static QRectF boxOf(const QPointF& at, const QString& text, const QFont& font, Qt::Alignment align, const QRectF& inside);
  QRectF m_area;
  double m_soilTop;
  std::vector<QRectF> m_taken, m_above;
};

} // namespace muffle
