// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/scarf_view.h"

#include "app/stages/dates.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace muffle {

ScarfView::ScarfView(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::planChanged, &Document::resultChanged, &Document::selectionChanged, &Document::viewChanged}, parent) {
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("The winters, night by night"));
}

double ScarfView::nightX(double night) const {
  const Simulation* run = m_document.results().simulation();
  if (!run || run->nights.empty()) return 0.0;
  const auto n = static_cast<double>(run->nights.size());
  const auto winters = static_cast<double>(m_document.readings().weather()->winters.size());
  const double gap = 10.0;
  const double row = (width() - 28.0 - gap * (winters - 1.0)) / n;
  const auto index = static_cast<std::size_t>(std::clamp(night, 0.0, n - 1.0));
  return 14.0 + row * night + gap * static_cast<double>(run->nights[index].winter);
}

int ScarfView::nightAt(double x) const {
  const Simulation* run = m_document.results().simulation();
  int best = 0;
  double nearest = 1e9;
  for (std::size_t i = 0; i < run->nights.size(); ++i) {
    const double d = std::abs(nightX(static_cast<double>(i) + 0.5) - x);
    if (d < nearest) nearest = d, best = static_cast<int>(i);
  }
  return best;
}

QPointF ScarfView::nightPoint(int night) const { return {nightX(night + 0.5), 60.0}; }

void ScarfView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = theme();
  p.fillRect(rect(), t.oat);
  p.setPen(QPen(hasFocus() ? t.madder : t.seam, hasFocus() ? 1.6 : 1));
  p.setBrush(t.wool);
  p.drawRect(QRectF(0.5, 0.5, width() - 1.0, height() - 1.0));
  const Units& u = m_document.view().units();
  p.setFont(titleFont(11));
  p.setPen(t.ink);
  p.drawText(QRectF(14, 5, 300, 22), static_cast<int>(Qt::AlignVCenter), tr("The winter, night by night"));
  const Simulation* run = m_document.results().simulation();
  p.setFont(textFont(8.8));
  p.setPen(t.fleece);
  if (!run || run->nights.empty()) {
    p.drawText(rect().adjusted(14, 30, -14, -10), static_cast<int>(Qt::AlignLeft | Qt::TextWordWrap),
               tr("Each logged night becomes one row here, coloured by how far the coldest inside stayed above or below your line."));
    return;
  }
  if (!m_document.results().isCurrent()) p.setOpacity(0.5);
  const double line = m_document.plan().setpoints.hold_C;
  const QString selection = [&] {
    if (m_document.view().selectedNight() < 0) return QString();
    const int a = std::min(m_document.view().selectedNight(), m_document.view().spanStart()),
              b = std::max(m_document.view().selectedNight(), m_document.view().spanStart());
    if (a != b && a >= 0) {
      int held = 0, judged = 0;
      for (int i = a; i <= b; ++i) {
        const NightResult& n = run->nights[static_cast<std::size_t>(i)];
        judged += n.assessable ? 1 : 0;
        held += n.assessable && n.held ? 1 : 0;
      }
      return tr("%1 to %2: held %3 of %4")
          .arg(dayText(run->nights[static_cast<std::size_t>(a)].date, QStringLiteral("d MMM")),
               dayText(run->nights[static_cast<std::size_t>(b)].date, QStringLiteral("d MMM")))
          .arg(held)
          .arg(judged);
    }
    const NightResult& n = run->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
    return tr("%1: inside %2, outside %3%4")
        .arg(dayText(n.date, QStringLiteral("ddd d MMM yyyy")), u.text(Quantity::temperature, n.coldest_C), u.text(Quantity::temperature, n.outsideLow_C),
             n.assessable ? QString() : tr(", not judged: readings are missing"));
  }();
  // what the colours say: two yarns and the notched one
  double legend = 14 + QFontMetricsF(titleFont(11)).horizontalAdvance(tr("The winter, night by night")) + 18;
  double lowest = 0.0;
  for (const NightResult& n : run->nights) lowest = std::min(lowest, n.outsideLow_C);
  const auto swatch = [&](const QColor& colour, bool notched, const QString& text) {
    const QRectF r(legend, 11, 12, 11);
    p.fillRect(r, colour);
    if (notched) {
      p.save();
      p.setClipRect(r);
      p.setPen(QPen(t.dark ? QColor("#F0E6D8") : QColor("#FFFFFF"), 1));
      for (double k = r.top() + 2; k < r.bottom(); k += 4) p.drawLine(QPointF(r.left(), k + 3), QPointF(r.right(), k));
      p.restore();
    }
    p.setPen(t.fleece);
    const double w = QFontMetricsF(textFont(8.8)).horizontalAdvance(text);
    p.drawText(QRectF(legend + 16, 5, w + 6, 22), static_cast<int>(Qt::AlignVCenter), text);
    legend += 16 + w + 16;
  };
  swatch(t.margin(6.0), false, tr("well above %1").arg(u.text(Quantity::temperature, line)));
  swatch(t.margin(0.5), false, tr("just above"));
  swatch(t.margin(-2.0), true, tr("missed"));
  swatch(t.dark ? QColor("#5D7F97") : QColor("#86A0B3"), false, tr("outside low, to %1").arg(u.text(Quantity::temperature, lowest)));
  p.drawText(QRectF(legend, 5, width() - 14 - legend, 22), static_cast<int>(Qt::AlignVCenter | Qt::AlignRight), selection);

  const Simulation* other = m_document.results().other();
  const bool two = other && other->nights.size() == run->nights.size();
  const double top = 32, bandHeight = two ? 31 : 64;
  double coldest = 0.0;
  for (const NightResult& n : run->nights) coldest = std::min(coldest, n.outsideLow_C);
  const auto band = [&](const Simulation& of, double y) {
    for (std::size_t i = 0; i < of.nights.size(); ++i) {
      const NightResult& n = of.nights[i];
      const double x = nightX(static_cast<double>(i)), w = std::max(nightX(static_cast<double>(i) + 1.0) - x, 1.0);
      const double row = std::min(w, (width() - 28.0) / static_cast<double>(of.nights.size()));
      const QRectF r(x, y, std::max(row - 0.4, 0.8), bandHeight);
      if (!n.assessable) {
        p.setPen(QPen(t.seam, 1));
        p.drawLine(r.topLeft(), r.bottomLeft());
        continue;
      }
      p.fillRect(r, t.margin(n.coldest_C - line));
      if (!n.held) { // misses are notched as well as coloured
        p.setPen(QPen(t.dark ? QColor("#F0E6D8") : QColor("#FFFFFF"), 1));
        for (double k = y + 3; k < y + bandHeight - 1; k += 6) p.drawLine(QPointF(r.left(), k + 3), QPointF(r.right(), k));
      }
    }
  };
  band(*run, top);
  if (two) band(*other, top + bandHeight + 2);
  const double hang = top + 70;
  for (std::size_t i = 0; i < run->nights.size(); ++i) {
    const NightResult& n = run->nights[i];
    if (!n.assessable) continue;
    const double x = nightX(static_cast<double>(i));
    const double row = (width() - 28.0) / static_cast<double>(run->nights.size());
    const double h = std::clamp(-n.outsideLow_C, 0.0, 60.0) / std::max(-coldest, 1.0) * 34.0;
    p.fillRect(QRectF(x, hang, std::max(row - 0.4, 0.8), std::max(h, 0.8)), t.dark ? QColor("#5D7F97") : QColor("#86A0B3"));
  }
  // months and winters
  Date before{};
  double lastLabel = -100;
  for (std::size_t i = 0; i < run->nights.size(); ++i) {
    const Date& d = run->nights[i].date;
    if (d.month == before.month && d.year == before.year) continue;
    const double x = nightX(static_cast<double>(i));
    p.setPen(t.seam);
    p.drawLine(QPointF(x, top - 3), QPointF(x, height() - 18.0));
    p.setPen(t.fleece);
    const bool winterStart = i == 0 || run->nights[i].winter != run->nights[i - 1].winter;
    if (x - lastLabel > 42) {
      p.setFont(textFont(8.5, winterStart));
      p.drawText(QRectF(x + 2, height() - 19, 90, 15), static_cast<int>(Qt::AlignLeft | Qt::AlignVCenter),
                 dayText(d, winterStart || d.month == 1 ? QStringLiteral("MMM yyyy") : QStringLiteral("MMM")));
      lastLabel = x;
    }
    before = d;
  }
  if (m_document.view().selectedNight() >= 0) {
    const int a =
        std::min(m_document.view().selectedNight(), m_document.view().spanStart() < 0 ? m_document.view().selectedNight() : m_document.view().spanStart());
    const int b = std::max(m_document.view().selectedNight(), m_document.view().spanStart());
    const double xa = nightX(a), xb = nightX(b) + std::max((width() - 28.0) / static_cast<double>(run->nights.size()), 2.0);
    p.setOpacity(1.0);
    p.setPen(QPen(t.ink, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(xa - 2, top - 3, xb - xa + 3, 110));
  }
}

std::vector<SpokenLine> ScarfView::spoken() const {
  const Simulation* run = m_document.results().simulation();
  if (!run || run->nights.empty()) return paintedLines(*this);
  const Units& u = m_document.view().units();
  std::vector<SpokenLine> lines;
  for (const NightResult& n : run->nights)
    lines.push_back(
        {dayText(n.date, QStringLiteral("d MMM yyyy")), tr("%1, inside %2, outside %3")
                                                            .arg(n.assessable ? n.held ? tr("held") : tr("missed") : tr("not judged"),
                                                                 u.text(Quantity::temperature, n.coldest_C), u.text(Quantity::temperature, n.outsideLow_C))});
  return lines;
}

void ScarfView::mousePressEvent(QMouseEvent* e) {
  setFocus();
  if (m_document.results().simulation() && !m_document.results().simulation()->nights.empty())
    m_document.view().selectNight(nightAt(e->position().x()), e->modifiers() & Qt::ShiftModifier);
}

void ScarfView::mouseMoveEvent(QMouseEvent* e) {
  if ((e->buttons() & Qt::LeftButton) && m_document.results().simulation() && !m_document.results().simulation()->nights.empty())
    m_document.view().selectNight(nightAt(e->position().x()), true);
}

void ScarfView::keyPressEvent(QKeyEvent* e) {
  const bool extend = e->modifiers() & Qt::ShiftModifier;
  const int step = e->modifiers() & Qt::ControlModifier ? 7 : 1;
  if (e->key() == Qt::Key_Left)
    m_document.view().selectNight(m_document.view().selectedNight() - step, extend);
  else if (e->key() == Qt::Key_Right)
    m_document.view().selectNight(m_document.view().selectedNight() + step, extend);
  else if (e->key() == Qt::Key_Home)
    m_document.view().selectNight(0, extend);
  else if (e->key() == Qt::Key_End)
    m_document.view().selectNight(1 << 20, extend);
  else
    QWidget::keyPressEvent(e);
}

bool ScarfView::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip && m_document.results().simulation() && !m_document.results().simulation()->nights.empty()) {
    const auto* help = static_cast<QHelpEvent*>(e);
    const NightResult& n = m_document.results().simulation()->nights[static_cast<std::size_t>(nightAt(help->pos().x()))];
    const Units& u = m_document.view().units();
    QToolTip::showText(help->globalPos(),
                       tr("%1\ncoldest inside %2 (%3)\noutside low %4\nheater %5")
                           .arg(dayText(n.date, QStringLiteral("ddd d MMM yyyy")), u.text(Quantity::temperature, n.coldest_C),
                                n.assessable ? n.held ? tr("held") : tr("missed") : tr("not judged"), u.text(Quantity::temperature, n.outsideLow_C),
                                u.text(Quantity::energy, n.heater_kWh)),
                       this);
    return true;
  }
  return QWidget::event(e);
}

} // namespace muffle
