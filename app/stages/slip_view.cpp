// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/slip_view.h"

#include "app/model/said.h"
#include "app/stages/dates.h"
#include "core/plan/names.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace muffle {

SlipView::SlipView(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::planChanged, &Document::resultChanged, &Document::selectionChanged, &Document::viewChanged}, parent) {
  setAccessibleName(tr("Slip: what the plan holds and costs"));
}

SlipView::Span SlipView::chosenSpan() const {
  const Simulation& run = *m_document.results().simulation();
  const int now = m_document.view().selectedNight();
  const int start = m_document.view().spanStart() < 0 ? now : m_document.view().spanStart();
  const auto first = static_cast<std::size_t>(std::min(now, start));
  const auto last = std::min(static_cast<std::size_t>(std::max(now, start)), run.nights.size() - 1);
  Span span;
  span.nights = static_cast<int>(last - first) + 1;
  span.coldest_C = 1e9;
  for (std::size_t i = first; i <= last; ++i) {
    const NightResult& n = run.nights[i];
    span.heater_kWh += n.heater_kWh;
    if (!n.assessable) continue;
    ++span.assessable;
    span.held += n.held ? 1 : 0;
    span.coldest_C = std::min(span.coldest_C, n.coldest_C);
  }
  const Date& from = run.nights[first].date;
  const Date& to = run.nights[last].date;
  span.name = first == last ? tr("night of %1").arg(dayText(from, QStringLiteral("d MMM yyyy")))
                            : tr("%1 to %2").arg(dayText(from, QStringLiteral("d MMM")), dayText(to, QStringLiteral("d MMM")));
  return span;
}

void SlipView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  p.fillRect(rect(), t.oat);
  const double bottom = height() - 12.0;
  QPainterPath paper(QPointF(0, 0));
  paper.lineTo(width() - 1, 0);
  paper.lineTo(width() - 1, bottom);
  const int teeth = 12;
  for (int i = 0; i < teeth; ++i) {
    const double w = (width() - 1.0) / teeth;
    paper.lineTo(width() - 1 - w * (i + 0.5), bottom + 7);
    paper.lineTo(width() - 1 - w * (i + 1), bottom);
  }
  paper.closeSubpath();
  p.setPen(QPen(t.seam, 1));
  p.setBrush(t.dark ? QColor("#332B25") : QColor("#FFFEFA"));
  p.drawPath(paper);

  const double left = 14, right = width() - 14;
  const Units& u = m_document.view().units();
  const Plan& plan = m_document.plan();
  p.setPen(t.ink);
  p.setFont(titleFont(11));
  p.drawText(QRectF(left, 10, right - left, 22), static_cast<int>(Qt::AlignVCenter),
             QFontMetricsF(titleFont(11)).elidedText(said(nameOf(plan)), Qt::ElideRight, right - left));
  const Simulation* run = m_document.results().simulation();
  if (!run) {
    p.setFont(textFont(9.5));
    p.setPen(t.fleece);
    p.drawText(QRectF(left, 40, right - left, 120), static_cast<int>(Qt::TextWordWrap),
               m_document.readings().log() ? tr("Working it out.")
                                           : tr("Nights held and costs stand here once a log of nights is in. Drop a CSV on the window, or choose Log."));
    return;
  }
  const Summary& s = run->summary;
  const Simulation* other = m_document.results().other();
  if (!m_document.results().isCurrent()) p.setOpacity(0.45);
  p.setFont(textFont(27, true));
  p.setPen(s.held == s.nights ? t.lichen : t.madder);
  const QString held = QString::number(s.held);
  p.drawText(QRectF(left, 36, 110, 44), static_cast<int>(Qt::AlignVCenter), held);
  const double x = left + QFontMetricsF(textFont(27, true)).horizontalAdvance(held) + 8;
  const auto beside = [&](double top, const QColor& ink, const QString& words) { // smaller where the words are longer
    double size = 9.0;
    while (size > 6.5 && QFontMetricsF(textFont(size)).horizontalAdvance(words) > right - x) size -= 0.5;
    p.setFont(textFont(size));
    p.setPen(ink);
    p.drawText(QRectF(x, top, right - x, 18), static_cast<int>(Qt::AlignVCenter), words);
  };
  beside(40, t.fleece, tr("held %1").arg(u.text(Quantity::temperature, plan.setpoints.hold_C)));
  beside(57, t.ink, tr("of %Ln night(s)", nullptr, static_cast<int>(s.nights)));
  double y = 90;
  const auto row = [&](const QString& what, const QString& value, bool strong = false) {
    p.setFont(textFont(9.3, strong));
    p.setPen(strong ? t.ink : t.fleece);
    p.drawText(QRectF(left, y, right - left, 19), static_cast<int>(Qt::AlignVCenter | Qt::AlignLeft), what);
    p.setPen(t.ink);
    p.drawText(QRectF(left, y, right - left, 19), static_cast<int>(Qt::AlignVCenter | Qt::AlignRight), value);
    y += 20.5;
  };
  const auto rule = [&] {
    p.setPen(QPen(t.seam, 1, Qt::DashLine));
    p.drawLine(QPointF(left, y + 3), QPointF(right, y + 3));
    y += 9;
  };
  const Date coldest = m_document.planInHand().zone().localDate(s.coldestAt);
  row(tr("misses"), QString::number(s.nights - s.held));
  row(tr("coldest inside"), u.text(Quantity::temperature, s.coldest_C));
  row(tr("on"), dayText(coldest, QStringLiteral("d MMM yyyy")));
  row(tr("damp, 90 % and more"), u.text(Quantity::hours, s.damp.above90_h));
  row(tr("cold owed"), u.text(Quantity::degreeHours, s.degreeHours_K_h));
  if (s.leftOut) row(tr("nights left out"), QString::number(s.leftOut));
  rule();
  const auto money = [&](double v) { return QStringLiteral("%1 %2").arg(u.number(Quantity::money, v), QString::fromStdString(plan.prices.currency)); };
  row(tr("heat bought"), u.text(Quantity::energy, s.heater_kWh / s.winters));
  row(s.fuel > 0.0 ? tr("power, fuel") : tr("power"), money(s.cost.energy));
  row(tr("kit"), money(s.cost.kit));
  row(tr("your hours"), u.text(Quantity::hours, s.cost.hours));
  if (s.cost.carbon > 0.0) row(tr("carbon dioxide"), money(s.cost.carbon));
  rule();
  row(tr("each winter"), money(s.cost.total()), true);
  if (s.cost.spread > 0.0)
    row(tr("by prices"),
        tr("%1 to %2").arg(u.number(Quantity::money, s.cost.total() - s.cost.spread), u.number(Quantity::money, s.cost.total() + s.cost.spread)));
  if (const QString madeOf = winterMadeOf(s.winters); !madeOf.isEmpty()) {
    p.setFont(textFont(8.5));
    p.setPen(t.fleece);
    p.drawText(QRectF(left, y - 2, right - left, 30), static_cast<int>(Qt::TextWordWrap | Qt::AlignTop), madeOf);
    y += 28;
  }
  if (other && m_document.results().otherPlan()) {
    const Summary& o = other->summary;
    y += 6;
    p.setFont(titleFont(10));
    p.setPen(t.ink);
    p.drawText(QRectF(left, y, right - left, 34), static_cast<int>(Qt::TextWordWrap | Qt::AlignTop),
               QFontMetricsF(titleFont(10)).elidedText(tr("against: %1").arg(m_document.results().otherName()), Qt::ElideRight, 2 * (right - left) - 30));
    y += 40;
    row(tr("holds"), tr("%1 (%2%3)").arg(o.held).arg(o.held >= s.held ? QStringLiteral("+") : QStringLiteral("−")).arg(std::abs(o.held - s.held)));
    row(tr("coldest inside"), u.text(Quantity::temperature, o.coldest_C));
    row(tr("heat bought"), u.text(Quantity::energy, o.heater_kWh / o.winters));
    double otherTotal = o.cost.total();
    if (const auto package = m_document.results().otherPackage()) // kit and hours of the measures are known to the search
      otherTotal = m_document.results().sizing()->packages[*package].cost.total();
    row(tr("each winter"), money(otherTotal), true);
    const double difference = otherTotal - s.cost.total();
    row(difference < 0 ? tr("saves") : tr("costs more"), money(std::abs(difference)));
  } else if (m_document.view().selectedNight() >= 0) {
    const Span span = chosenSpan();
    y += 6;
    p.setFont(titleFont(10));
    p.setPen(t.ink);
    p.drawText(QRectF(left, y, right - left, 20), static_cast<int>(Qt::AlignVCenter), span.name);
    y += 22;
    if (span.assessable == 0) {
      row(tr("not judged"), tr("readings missing"));
    } else if (span.nights == 1) {
      row(span.held ? tr("held, coldest") : tr("missed, coldest"), u.text(Quantity::temperature, span.coldest_C));
    } else {
      row(tr("held"), tr("%1 of %2").arg(span.held).arg(span.assessable));
      row(tr("coldest inside"), u.text(Quantity::temperature, span.coldest_C));
    }
    row(tr("heat bought"), u.text(Quantity::energy, span.heater_kWh));
    y += 4;
  }
  if (!other) {
    y += 2;
    p.setFont(textFont(8.5));
    p.setPen(t.fleece);
    p.drawText(QRectF(left, y, right - left, height() - y), static_cast<int>(Qt::TextWordWrap),
               tr("Ctrl+B compares with the cheapest plan that holds, once Cost has searched."));
  }
}

} // namespace muffle
