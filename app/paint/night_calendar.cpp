// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/night_calendar.h"

#include <QLocale>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kLabelWidth = 74.0, kDaysHeight = 15.0;
constexpr int kDays = 31;

} // namespace

NightCalendar::NightCalendar(const std::vector<Night>& nights, const QRectF& area, double line_C)
    : m_nights(nights), m_line_C(line_C), m_squares(nights.size()) {
  std::vector<std::pair<int, unsigned>> months;
  std::vector<double> lifts;
  for (const Night& n : nights) {
    if (months.empty() || months.back() != std::pair(n.date.year, n.date.month)) months.emplace_back(n.date.year, n.date.month);
    if (n.lift_K()) lifts.push_back(*n.lift_K());
  }
  if (!lifts.empty()) {
    std::sort(lifts.begin(), lifts.end());
    const auto quantile = [&](double q) { return lifts[static_cast<std::size_t>(q * static_cast<double>(lifts.size() - 1))]; };
    m_least_K = quantile(0.05);
    m_most_K = std::max(quantile(0.95), m_least_K + 1.0); // one odd night does not take the scale
  }
  if (months.empty()) return;
  const double row = std::min((area.height() - kDaysHeight) / static_cast<double>(months.size()), 24.0);
  const double column = (area.width() - kLabelWidth) / kDays;
  std::size_t m = 0;
  for (std::size_t i = 0; i < nights.size(); ++i) {
    const Date& d = nights[i].date;
    while (months[m] != std::pair(d.year, d.month)) ++m;
    m_squares[i] = QRectF(area.left() + kLabelWidth + column * (d.day - 1.0), area.top() + kDaysHeight + row * static_cast<double>(m), column, row)
                       .adjusted(0.8, 0.8, -0.8, -0.8);
  }
  for (std::size_t k = 0; k < months.size(); ++k)
    m_months.push_back({QRectF(area.left(), area.top() + kDaysHeight + row * static_cast<double>(k), kLabelWidth - 8, row), months[k].first, months[k].second});
}

int NightCalendar::nightAt(const QPointF& at) const {
  for (std::size_t i = 0; i < m_squares.size(); ++i)
    if (m_squares[i].adjusted(-0.8, -0.8, 0.8, 0.8).contains(at)) return static_cast<int>(i);
  return -1;
}

void NightCalendar::paint(QPainter& p, const Theme& t, int chosen) const {
  p.setFont(textFont(8.2));
  p.setPen(t.fleece);
  for (const Label& m : m_months)
    p.drawText(m.area, static_cast<int>(Qt::AlignRight | Qt::AlignVCenter),
               QLocale().monthName(static_cast<int>(m.month), QLocale::ShortFormat) + QStringLiteral(" %1").arg(m.year));
  if (!m_months.empty()) {
    const QRectF first = m_months.front().area;
    for (int day = 1; day <= kDays; day += 5) {
      double x = -1.0, w = 0.0;
      for (std::size_t i = 0; i < m_nights.size(); ++i)
        if (static_cast<int>(m_nights[i].date.day) == day) x = m_squares[i].left(), w = m_squares[i].width();
      if (x >= 0.0) p.drawText(QRectF(x - 8, first.top() - kDaysHeight, w + 16, kDaysHeight), static_cast<int>(Qt::AlignCenter), QString::number(day));
    }
  }
  for (std::size_t i = 0; i < m_nights.size(); ++i) {
    const Night& n = m_nights[i];
    const QRectF& square = m_squares[i];
    const auto lift = n.lift_K();
    QColor deep = t.madder;
    if (lift) deep.setAlphaF(static_cast<float>(0.12 + 0.75 * std::clamp((*lift - m_least_K) / (m_most_K - m_least_K), 0.0, 1.0)));
    p.setPen(lift && n.complete ? QPen(Qt::NoPen) : QPen(t.seam, 1));
    p.setBrush(lift && n.complete ? QBrush(deep) : QBrush(Qt::NoBrush));
    p.drawRect(square);
    if (n.insideLow && n.insideLow->value < m_line_C) {
      p.setPen(QPen(t.woad, 1.6));
      p.drawLine(square.bottomLeft(), square.topRight());
    }
    if (static_cast<int>(i) == chosen) {
      p.setPen(QPen(t.ink, 1.6));
      p.setBrush(Qt::NoBrush);
      p.drawRect(square.adjusted(-1, -1, 1, 1));
    }
  }
}

} // namespace muffle
