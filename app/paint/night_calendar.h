// SPDX-License-Identifier: GPL-3.0-or-later
//
// The winters' nights as a calendar: a row a month, a square a night, as deep as its lift; a night below the line bears a stroke,
// one with holes is hollow. Drawing and hit test by one layout, without widgets.
#pragma once

#include "app/paint/theme.h"
#include "core/log/nights.h"

#include <QRectF>

#include <vector>

class QPainter;

namespace muffle {

class NightCalendar {
public:
  /// `line_C` is what the plan holds inside.
  NightCalendar(const std::vector<Night>& nights, const QRectF& area, double line_C);
  void paint(QPainter& painter, const Theme& theme, int chosen) const;
  /// Index of the night there, -1 none.
  [[nodiscard]] int nightAt(const QPointF& at) const;
  [[nodiscard]] QRectF squareOf(int night) const { return m_squares[static_cast<std::size_t>(night)]; }

private:
  const std::vector<Night>& m_nights;
  double m_line_C, m_least_K = 0.0, m_most_K = 1.0;
  std::vector<QRectF> m_squares;
  struct Label {
    QRectF area;
    int year;
    unsigned month;
  };
  std::vector<Label> m_months;
};

} // namespace muffle
