// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/load_curve.h"

#include "app/model/said.h"
#include "app/stages/source_brush.h"
#include "core/plan/heaters.h"
#include "core/plan/names.h"

#include <QLocale>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace muffle {
namespace {
constexpr std::size_t kSlices = 200;
}

LoadCurve::LoadCurve(Document& document, QWidget* parent) : DocumentView(document, {&Document::resultChanged, &Document::viewChanged}, parent) {
  setAccessibleName(tr("Hours by heat load"));
  connect(&document, &Document::resultChanged, this, [this] { m_sorted.reset(); });
}

LoadCurve::Sorted LoadCurve::sorted(const Simulation& run) const {
  const Weather& weather = *m_document.readings().weather();
  Sorted s{LoadDuration(run, weather), 24.0, {}};
  s.span_h = std::max(s.load.hoursAbove_h(1.0) * 1.08, s.span_h);
  if (countOfRoomHeaters(m_document.plan()) > 1) s.heaters = loadByHeater(m_document.plan(), run, weather, s.span_h, kSlices);
  return s;
}

std::vector<SpokenLine> LoadCurve::spoken() const {
  const Simulation* run = m_document.results().simulation();
  const double size = roomHeaters_W(m_document.plan());
  if (!run || size <= 0.0) return paintedLines(*this);
  const Units& u = m_document.view().units();
  const Sorted now = m_sorted ? *m_sorted : sorted(*run);
  std::vector<SpokenLine> lines;
  for (int tenth = 0; tenth < 10; ++tenth) {
    const double power = std::max(size * tenth / 10.0, 1.0);
    lines.push_back({tr("above %1").arg(u.text(Quantity::power, power)), u.text(Quantity::hours, now.load.hoursAbove_h(power))});
  }
  for (const HeaterLoad& h : now.heaters) {
    double kWh = 0.0;
    for (const double power : h.power_W) kWh += power / 1000.0 * now.span_h / static_cast<double>(kSlices);
    lines.push_back({said(nameOf(m_document.plan(), m_document.plan().heaters[h.heater])), u.text(Quantity::energy, kWh)});
  }
  return lines;
}

/// Each on those that begin before it.
void LoadCurve::paintHeaters(QPainter& p, const QRectF& area, double top_W) const {
  const Theme& t = theme();
  const Plan& plan = m_document.plan();
  std::vector<double> below(kSlices, 0.0);
  const auto point = [&](std::size_t k, double power_W) {
    return QPointF(area.left() + area.width() * (static_cast<double>(k) + 0.5) / static_cast<double>(kSlices), area.bottom() - area.height() * power_W / top_W);
  };
  double legend = area.bottom() - area.height() * roomHeaters_W(plan) / top_W + 5;
  for (const HeaterLoad& h : m_sorted->heaters) {
    QPolygonF part;
    for (std::size_t k = 0; k < kSlices; ++k) part << point(k, below[k] + h.power_W[k]);
    for (std::size_t k = kSlices; k-- > 0;) part << point(k, below[k]);
    for (std::size_t k = 0; k < kSlices; ++k) below[k] += h.power_W[k];
    const auto among = static_cast<std::size_t>( // of those that gave, as By source counts them
        std::count_if(m_sorted->heaters.begin(), m_sorted->heaters.end(), [&](const HeaterLoad& other) { return other.heater < h.heater; }));
    QBrush brush = sourceBrush(HeatSource::Of::heater, among, t);
    QColor colour = brush.color();
    if (brush.style() == Qt::SolidPattern) colour.setAlpha(t.dark ? 120 : 90);
    brush.setColor(colour);
    p.setPen(Qt::NoPen);
    p.setBrush(brush);
    p.drawPolygon(part);
    const QString name = said(nameOf(plan, plan.heaters[h.heater]));
    p.setFont(textFont(8.5));
    const double width = std::min(QFontMetricsF(p.font()).horizontalAdvance(name), area.width() - 40);
    const QRectF swatch(area.right() - width - 22, legend + 3, 14, 10);
    p.setBrush(t.wool);
    p.drawRect(QRectF(swatch.left() - 4, legend - 1, width + 28, 17));
    p.setBrush(brush);
    p.setPen(QPen(t.madder, 1));
    p.drawRect(swatch);
    p.setPen(t.ink);
    p.drawText(QRectF(swatch.right() + 6, legend, width + 2, 16), static_cast<int>(Qt::AlignVCenter),
               QFontMetricsF(p.font()).elidedText(name, Qt::ElideRight, width + 1));
    legend += 17;
  }
}

void LoadCurve::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const Units& u = m_document.view().units();
  const Simulation* run = m_document.results().simulation();
  p.setFont(titleFont(10.5));
  p.setPen(t.ink);
  p.drawText(QRectF(0, 0, width(), 20), static_cast<int>(Qt::AlignVCenter), tr("Hours by heat load, a winter"));
  const Plan& plan = m_document.plan();
  const double size = roomHeaters_W(plan); // the curve is of all heaters
  if (!run || size <= 0.0) {
    p.setFont(textFont(9));
    p.setPen(t.fleece);
    p.drawText(QRectF(0, 26, width(), 60), static_cast<int>(Qt::TextWordWrap),
               size <= 0.0 ? tr("No heater yet. Add a usual one below: how many hours it runs at how much stands here then.")
                           : tr("Import a log of nights first."));
    return;
  }
  if (!m_sorted) m_sorted = sorted(*run);
  const LoadDuration& load = m_sorted->load;
  const double running = load.hoursAbove_h(1.0);
  const double full = load.hoursAbove_h(0.995 * size);
  const QRectF area(44, 30, width() - 54, height() - 108);
  const double topPower = 1.12 * std::max(size, load.power_W(0.0)); // loads of a stove that burn at once go over its size
  const double span = m_sorted->span_h;
  QPainterPath path(area.bottomLeft());
  for (std::size_t k = 0; k <= kSlices; ++k) {
    const double share = static_cast<double>(k) / static_cast<double>(kSlices);
    double power = load.power_W(span * share);
    if (!m_sorted->heaters.empty()) { // of whole hours then, as its parts are
      power = 0.0;
      for (const HeaterLoad& h : m_sorted->heaters) power += h.power_W[std::min(k, kSlices - 1)];
    }
    path.lineTo(area.left() + area.width() * share, area.bottom() - area.height() * power / topPower);
  }
  path.lineTo(area.bottomRight());
  path.closeSubpath();
  QColor fill = t.madder;
  fill.setAlpha(t.dark ? 120 : 90);
  p.setPen(QPen(t.madder, 1.6));
  p.setBrush(m_sorted->heaters.empty() ? QBrush(fill) : QBrush(Qt::NoBrush));
  p.drawPath(path);
  paintHeaters(p, area, topPower);
  p.setPen(QPen(t.seam, 1));
  p.drawLine(area.topLeft(), area.bottomLeft());
  p.drawLine(area.bottomLeft(), area.bottomRight());
  p.setFont(textFont(8.5));
  p.setPen(t.fleece);
  const double tick = span > 2000 ? 1000 : span > 800 ? 500 : span > 160 ? 100 : 20;
  for (double h = 0; h <= span; h += tick) {
    const double x = area.left() + area.width() * h / span;
    p.drawLine(QPointF(x, area.bottom()), QPointF(x, area.bottom() + 3));
    p.drawText(QRectF(x - 30, area.bottom() + 4, 60, 14), static_cast<int>(Qt::AlignHCenter), QLocale().toString(h, 'f', 0) + QStringLiteral(" h"));
  }
  const double y = area.bottom() - area.height() * size / topPower;
  p.setPen(QPen(t.ink, 1.4, Qt::DashLine));
  p.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
  p.setPen(t.ink);
  p.drawText(QRectF(0, y - 8, 41, 16), static_cast<int>(Qt::AlignRight | Qt::AlignVCenter), u.number(Quantity::power, size));
  p.drawText(QRectF(area.left() + 4, y - 17, area.width(), 15), static_cast<int>(Qt::AlignRight | Qt::AlignVCenter),
             (countOfRoomHeaters(plan) > 1 ? tr("all heaters, %1") : tr("the heater's size, %1")).arg(u.unit(Quantity::power)));
  p.setPen(t.fleece);
  p.setFont(textFont(9));
  p.drawText(QRectF(0, area.bottom() + 24, width(), 52), static_cast<int>(Qt::TextWordWrap),
             full > 0.5 ? tr("It runs %1 h and is at full stretch for %2 h: those are the hours that get away.")
                              .arg(QLocale().toString(running, 'f', 0), QLocale().toString(full, 'f', 0))
                        : tr("It runs %1 h and never at full stretch.").arg(QLocale().toString(running, 'f', 0)));
}

} // namespace muffle
