// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/frame_views.h"

#include "app/paint/theme.h"

#include <QDate>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr int kStages = 5;
constexpr double kKnotSpacing = 168.0;

QString dayText(const Date& d, const QString& format) {
  return QLocale(QLocale::English).toString(QDate(d.year, static_cast<int>(d.month), static_cast<int>(d.day)), format);
}

} // namespace

// ---- thread ---------------------------------------------------------------------------------------------------------

ThreadBar::ThreadBar(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  setFocusPolicy(Qt::TabFocus);
  setAccessibleName(tr("Stages"));
  for (auto signal : {&Document::planChanged, &Document::resultChanged, &Document::logChanged, &Document::sizingChanged, &Document::viewChanged})
    connect(&document, signal, this, qOverload<>(&QWidget::update));
}

void ThreadBar::setStage(Document::Stage stage) {
  m_stage = stage;
  update();
}

ThreadBar::Knot ThreadBar::knot(Document::Stage stage) const {
  const Plan& p = m_document.plan();
  switch (stage) {
  case Document::Stage::house:
    return {tr("House"),
            p.house.blanket ? tr("%1 skin, blanket").arg(p.house.roof.layers.size() > 1 ? tr("double") : tr("single"))
                            : tr("%1 skin, no blanket").arg(p.house.roof.layers.size() > 1 ? tr("double") : tr("single")),
            1.0};
  case Document::Stage::log: {
    if (!m_document.log()) return {tr("Log"), tr("no readings yet"), 0.0};
    int gaps = 0, other = 0;
    for (const LogProblem& problem : m_document.logProblems()) {
      if (problem.kind != "gap")
        ++other;
      else if (problem.to - problem.from < 30 * 86400)
        ++gaps;
    }
    const std::size_t winters = m_document.weather() ? m_document.weather()->winters.size() : 0;
    QString line = winters == 1 ? tr("1 winter") : tr("%1 winters").arg(winters);
    line += tr(", %1 gaps, %2 faults").arg(gaps).arg(other);
    return {tr("Log"), line, 1.0};
  }
  case Document::Stage::stores: {
    int barrels = 0;
    for (const Barrels& b : p.barrels) barrels += b.count;
    return {tr("Stores"), barrels ? tr("%1 water barrels").arg(barrels) : tr("none"), barrels ? 1.0 : 0.0};
  }
  case Document::Stage::heat:
    return {tr("Heat"), p.heater && p.heater->power_W > 0 ? tr("heater %1").arg(m_document.units().text(Quantity::power, p.heater->power_W)) : tr("no heater"),
            p.heater && p.heater->power_W > 0 ? 1.0 : 0.0};
  case Document::Stage::cost: {
    if (m_document.isSizing()) return {tr("Cost"), tr("searching"), 0.5};
    if (!m_document.sizing()) return {tr("Cost"), tr("not searched yet"), 0.0};
    return {tr("Cost"), m_document.sizingIsCurrent() ? tr("%1 plans compared").arg(m_document.sizing()->packages.size()) : tr("searched for an older plan"),
            m_document.sizingIsCurrent() ? 1.0 : 0.5};
  }
  }
  return {};
}

void ThreadBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::of(m_document.isDark());
  p.fillRect(rect(), t.oat);
  const double y = 24.0;
  QPainterPath thread(QPointF(0, y));
  for (int i = 0; i < kStages; ++i) {
    const double x = 40 + i * kKnotSpacing;
    thread.cubicTo(QPointF(x - 50, y - (i % 2 ? 4 : -4)), QPointF(x - 30, y), QPointF(x, y));
  }
  thread.lineTo(width() - 22, y);
  thread.quadTo(width() - 9, y, width() - 9, y + 14);
  thread.lineTo(width() - 9, height());
  p.setPen(QPen(t.madder, 2));
  p.drawPath(thread);
  for (int i = 0; i < kStages; ++i) {
    const auto stage = static_cast<Document::Stage>(i);
    const Knot k = knot(stage);
    const bool here = stage == m_stage;
    const QPointF at(40 + i * kKnotSpacing, y);
    const double r = here ? 9 : 6.5;
    p.setPen(QPen(t.madder, 2));
    p.setBrush(t.wool);
    p.drawEllipse(at, r, r);
    p.setBrush(t.madder);
    if (k.filled >= 1.0)
      p.drawEllipse(at, r, r);
    else if (k.filled > 0.0)
      p.drawPie(QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r), 180 * 16, 180 * 16);
    const QRectF name(at.x() + 14, 3, kKnotSpacing - 20, 20);
    p.fillRect(QRectF(name.left() - 2, y - 3, QFontMetricsF(titleFont(11)).horizontalAdvance(k.name) + 6, 7), t.oat);
    p.setFont(titleFont(11.5));
    p.setPen(t.ink);
    p.drawText(QRectF(name.left(), 11, name.width(), 22), static_cast<int>(Qt::AlignVCenter), k.name);
    p.setFont(textFont(8.8));
    p.setPen(t.fleece);
    p.drawText(QRectF(name.left(), 33, name.width(), 16), static_cast<int>(Qt::AlignVCenter),
               QFontMetricsF(textFont(8.8)).elidedText(k.line, Qt::ElideRight, name.width()));
    if (here && hasFocus()) {
      p.setPen(QPen(t.ink, 1, Qt::DotLine));
      p.setBrush(Qt::NoBrush);
      p.drawRoundedRect(QRectF(at.x() - 14, 4, kKnotSpacing - 8, 48), 6, 6);
    }
  }
}

void ThreadBar::mousePressEvent(QMouseEvent* e) {
  const int i = static_cast<int>((e->position().x() - 22) / kKnotSpacing);
  if (i >= 0 && i < kStages) emit chosen(static_cast<Document::Stage>(i));
}

void ThreadBar::keyPressEvent(QKeyEvent* e) {
  const int now = static_cast<int>(m_stage);
  if (e->key() == Qt::Key_Right && now + 1 < kStages)
    emit chosen(static_cast<Document::Stage>(now + 1));
  else if (e->key() == Qt::Key_Left && now > 0)
    emit chosen(static_cast<Document::Stage>(now - 1));
  else
    QWidget::keyPressEvent(e);
}

// ---- slip -----------------------------------------------------------------------------------------------------------

SlipView::SlipView(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  setAccessibleName(tr("Slip: what the plan holds and costs"));
  for (auto signal : {&Document::planChanged, &Document::resultChanged, &Document::selectionChanged, &Document::viewChanged})
    connect(&document, signal, this, qOverload<>(&QWidget::update));
}

void SlipView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::of(m_document.isDark());
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
  const Units& u = m_document.units();
  const Plan& plan = m_document.plan();
  p.setPen(t.ink);
  p.setFont(titleFont(11));
  p.drawText(QRectF(left, 10, right - left, 22), static_cast<int>(Qt::AlignVCenter),
             QFontMetricsF(titleFont(11)).elidedText(QString::fromStdString(plan.name), Qt::ElideRight, right - left));
  const Simulation* run = m_document.result();
  if (!run) {
    p.setFont(textFont(9.5));
    p.setPen(t.fleece);
    p.drawText(QRectF(left, 40, right - left, 120), static_cast<int>(Qt::TextWordWrap),
               m_document.log() ? tr("Working it out.")
                                : tr("Nights held and costs stand here once a log of nights is in. Drop a CSV on the window, or choose Log."));
    return;
  }
  const Summary& s = run->summary;
  const Simulation* other = m_document.otherResult();
  if (!m_document.isCurrent()) p.setOpacity(0.45);
  p.setFont(textFont(27, true));
  p.setPen(s.held == s.nights ? t.lichen : t.madder);
  const QString held = QString::number(s.held);
  p.drawText(QRectF(left, 36, 110, 44), static_cast<int>(Qt::AlignVCenter), held);
  const double x = left + QFontMetricsF(textFont(27, true)).horizontalAdvance(held) + 8;
  p.setFont(textFont(9));
  p.setPen(t.fleece);
  p.drawText(QRectF(x, 40, right - x, 18), static_cast<int>(Qt::AlignVCenter), tr("held %1").arg(u.text(Quantity::temperature, plan.setpoints.hold_C)));
  p.setPen(t.ink);
  p.drawText(QRectF(x, 57, right - x, 18), static_cast<int>(Qt::AlignVCenter), tr("of %1 nights").arg(s.nights));
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
  const Date coldest = m_document.zone().localDate(s.coldestAt);
  row(tr("misses"), QString::number(s.nights - s.held));
  row(tr("coldest inside"), u.text(Quantity::temperature, s.coldest_C));
  row(tr("on"), dayText(coldest, QStringLiteral("d MMM yyyy")));
  row(tr("cold owed"), u.text(Quantity::degreeHours, s.degreeHours_K_h));
  if (s.leftOut) row(tr("nights left out"), QString::number(s.leftOut));
  rule();
  const auto money = [&](double v) { return QStringLiteral("%1 %2").arg(u.number(Quantity::money, v), QString::fromStdString(plan.prices.currency)); };
  row(tr("heat bought"), u.text(Quantity::energy, s.heater_kWh / s.winters));
  row(tr("power"), money(s.cost.energy));
  row(tr("kit"), money(s.cost.kit));
  row(tr("your hours"), u.text(Quantity::hours, s.cost.hours));
  rule();
  row(tr("each winter"), money(s.cost.total()), true);
  if (other && m_document.otherPlan()) {
    const Summary& o = other->summary;
    y += 6;
    p.setFont(titleFont(10));
    p.setPen(t.ink);
    p.drawText(QRectF(left, y, right - left, 34), static_cast<int>(Qt::TextWordWrap | Qt::AlignTop),
               QFontMetricsF(titleFont(10)).elidedText(tr("against: %1").arg(m_document.otherName()), Qt::ElideRight, 2 * (right - left) - 30));
    y += 36;
    row(tr("holds"), tr("%1 (%2%3)").arg(o.held).arg(o.held >= s.held ? QStringLiteral("+") : QStringLiteral("−")).arg(std::abs(o.held - s.held)));
    row(tr("coldest inside"), u.text(Quantity::temperature, o.coldest_C));
    row(tr("heat bought"), u.text(Quantity::energy, o.heater_kWh / o.winters));
    double otherTotal = o.cost.total();
    if (const Sizing* sizing = m_document.sizing()) // kit and hours of the measures are known to the search
      for (const SizedPackage& k : sizing->packages)
        if (QString::fromStdString(k.label) == m_document.otherName()) otherTotal = k.cost.total();
    row(tr("each winter"), money(otherTotal), true);
    const double difference = otherTotal - s.cost.total();
    row(difference < 0 ? tr("saves") : tr("costs more"), money(std::abs(difference)));
  } else {
    y += 6;
    p.setFont(textFont(8.5));
    p.setPen(t.fleece);
    p.drawText(QRectF(left, y, right - left, 48), static_cast<int>(Qt::TextWordWrap),
               tr("Ctrl+B compares with the cheapest plan that holds, once Cost has searched."));
  }
}

// ---- scarf ----------------------------------------------------------------------------------------------------------

ScarfView::ScarfView(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("The winters, night by night"));
  for (auto signal : {&Document::planChanged, &Document::resultChanged, &Document::selectionChanged, &Document::viewChanged})
    connect(&document, signal, this, qOverload<>(&QWidget::update));
}

double ScarfView::nightX(double night) const {
  const Simulation* run = m_document.result();
  if (!run || run->nights.empty()) return 0.0;
  const auto n = static_cast<double>(run->nights.size());
  const auto winters = static_cast<double>(m_document.weather()->winters.size());
  const double gap = 10.0;
  const double row = (width() - 28.0 - gap * (winters - 1.0)) / n;
  const auto index = static_cast<std::size_t>(std::clamp(night, 0.0, n - 1.0));
  return 14.0 + row * night + gap * static_cast<double>(run->nights[index].winter);
}

int ScarfView::nightAt(double x) const {
  const Simulation* run = m_document.result();
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
  const Theme& t = Theme::of(m_document.isDark());
  p.fillRect(rect(), t.oat);
  p.setPen(QPen(hasFocus() ? t.madder : t.seam, hasFocus() ? 1.6 : 1));
  p.setBrush(t.wool);
  p.drawRect(QRectF(0.5, 0.5, width() - 1.0, height() - 1.0));
  const Units& u = m_document.units();
  p.setFont(titleFont(11));
  p.setPen(t.ink);
  p.drawText(QRectF(14, 5, 300, 22), static_cast<int>(Qt::AlignVCenter), tr("The winter, night by night"));
  const Simulation* run = m_document.result();
  p.setFont(textFont(8.8));
  p.setPen(t.fleece);
  if (!run || run->nights.empty()) {
    p.drawText(rect().adjusted(14, 30, -14, -10), static_cast<int>(Qt::AlignLeft | Qt::TextWordWrap),
               tr("Each logged night becomes one row here, coloured by how far the coldest inside stayed above or below your line."));
    return;
  }
  if (!m_document.isCurrent()) p.setOpacity(0.5);
  const double line = m_document.plan().setpoints.hold_C;
  const QString selection = [&] {
    if (m_document.selectedNight() < 0) return QString();
    const int a = std::min(m_document.selectedNight(), m_document.spanStart()), b = std::max(m_document.selectedNight(), m_document.spanStart());
    if (a != b && a >= 0) {
      int held = 0, judged = 0;
      for (int i = a; i <= b; ++i) {
        const NightResult& n = run->nights[static_cast<std::size_t>(i)];
        judged += n.judged ? 1 : 0;
        held += n.judged && n.held ? 1 : 0;
      }
      return tr("%1 to %2: held %3 of %4")
          .arg(dayText(run->nights[static_cast<std::size_t>(a)].date, QStringLiteral("d MMM")),
               dayText(run->nights[static_cast<std::size_t>(b)].date, QStringLiteral("d MMM")))
          .arg(held)
          .arg(judged);
    }
    const NightResult& n = run->nights[static_cast<std::size_t>(m_document.selectedNight())];
    return tr("%1: inside %2, outside %3%4")
        .arg(dayText(n.date, QStringLiteral("ddd d MMM yyyy")), u.text(Quantity::temperature, n.coldest_C), u.text(Quantity::temperature, n.outsideLow_C),
             n.judged ? QString() : tr(", not judged: readings are missing"));
  }();
  // what the colours say: two yarns and the notched one
  double legend = 14 + QFontMetricsF(titleFont(11)).horizontalAdvance(tr("The winter, night by night")) + 18;
  double lowest = 0.0;
  for (const NightResult& n : run->nights) lowest = std::min(lowest, n.outsideLow_C);
  const auto swatch = [&](const QColor& colour, bool notched, const QString& text) {
    const QRectF r(legend, 11, 12, 11);
    p.fillRect(r, colour);
    if (notched) {
      p.setPen(QPen(t.dark ? QColor("#F0E6D8") : QColor("#FFFFFF"), 1));
      for (double k = r.top() + 2; k < r.bottom(); k += 4) p.drawLine(QPointF(r.left(), k + 3), QPointF(r.right(), k));
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

  const Simulation* other = m_document.otherResult();
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
      if (!n.judged) {
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
    if (!n.judged) continue;
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
  if (m_document.selectedNight() >= 0) {
    const int a = std::min(m_document.selectedNight(), m_document.spanStart() < 0 ? m_document.selectedNight() : m_document.spanStart());
    const int b = std::max(m_document.selectedNight(), m_document.spanStart());
    const double xa = nightX(a), xb = nightX(b) + std::max((width() - 28.0) / static_cast<double>(run->nights.size()), 2.0);
    p.setOpacity(1.0);
    p.setPen(QPen(t.ink, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(xa - 2, top - 3, xb - xa + 3, 110));
  }
}

void ScarfView::mousePressEvent(QMouseEvent* e) {
  setFocus();
  if (m_document.result() && !m_document.result()->nights.empty()) m_document.selectNight(nightAt(e->position().x()), e->modifiers() & Qt::ShiftModifier);
}

void ScarfView::mouseMoveEvent(QMouseEvent* e) {
  if ((e->buttons() & Qt::LeftButton) && m_document.result() && !m_document.result()->nights.empty()) m_document.selectNight(nightAt(e->position().x()), true);
}

void ScarfView::keyPressEvent(QKeyEvent* e) {
  const bool extend = e->modifiers() & Qt::ShiftModifier;
  const int step = e->modifiers() & Qt::ControlModifier ? 7 : 1;
  if (e->key() == Qt::Key_Left)
    m_document.selectNight(m_document.selectedNight() - step, extend);
  else if (e->key() == Qt::Key_Right)
    m_document.selectNight(m_document.selectedNight() + step, extend);
  else if (e->key() == Qt::Key_Home)
    m_document.selectNight(0, extend);
  else if (e->key() == Qt::Key_End)
    m_document.selectNight(1 << 20, extend);
  else
    QWidget::keyPressEvent(e);
}

bool ScarfView::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip && m_document.result() && !m_document.result()->nights.empty()) {
    const auto* help = static_cast<QHelpEvent*>(e);
    const NightResult& n = m_document.result()->nights[static_cast<std::size_t>(nightAt(help->pos().x()))];
    const Units& u = m_document.units();
    QToolTip::showText(help->globalPos(),
                       tr("%1\ncoldest inside %2 (%3)\noutside low %4\nheater %5")
                           .arg(dayText(n.date, QStringLiteral("ddd d MMM yyyy")), u.text(Quantity::temperature, n.coldest_C),
                                n.judged ? n.held ? tr("held") : tr("missed") : tr("not judged"), u.text(Quantity::temperature, n.outsideLow_C),
                                u.text(Quantity::energy, n.heater_kWh)),
                       this);
    return true;
  }
  return QWidget::event(e);
}

} // namespace muffle
