// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/thread_bar.h"
#include "core/plan/heaters.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

namespace muffle {
namespace {

constexpr int kStages = 5;
constexpr double kKnotSpacing = 168.0;

} // namespace

ThreadBar::ThreadBar(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::planChanged, &Document::resultChanged, &Document::logChanged, &Document::sizingChanged, &Document::viewChanged},
                   parent) {
  setFocusPolicy(Qt::TabFocus);
  setAccessibleName(tr("Stages"));
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
            p.site.placeAssumed ? tr("place assumed")
            : p.house.blanket   ? tr("%1 skin, blanket").arg(p.house.roof.layers.size() > 1 ? tr("double") : tr("single"))
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
    const QStringList parts{counted(static_cast<long long>(winters), tr("winter"), tr("winters")), counted(gaps, tr("gap"), tr("gaps")),
                            counted(other, tr("fault"), tr("faults"))};
    return {tr("Log"), parts.join(QStringLiteral(", ")), 1.0};
  }
  case Document::Stage::stores: {
    int barrels = 0;
    for (const Barrels& b : p.barrels) barrels += b.count;
    QStringList has;
    if (barrels > 0) has << counted(barrels, tr("barrel"), tr("barrels"));
    if (!p.groundPipes.empty()) has << tr("pipes");
    if (!p.compost.empty()) has << tr("compost");
    if (!p.waterLoops.empty()) has << tr("tank");
    if (!p.soilCables.empty()) has << tr("cable");
    return {tr("Stores"), has.isEmpty() ? tr("none") : has.join(QStringLiteral(", ")), has.isEmpty() ? 0.0 : 1.0};
  }
  case Document::Stage::heat: {
    const double heaters_W = roomHeaters_W(p);
    return {tr("Heat"),
            heaters_W > 0.0 ? (countOfRoomHeaters(p) > 1 ? tr("heaters %1") : tr("heater %1")).arg(m_document.units().text(Quantity::power, heaters_W))
                            : tr("no heater"),
            heaters_W > 0.0 ? 1.0 : 0.0};
  }
  case Document::Stage::cost: {
    if (m_document.isSizing()) return {tr("Cost"), tr("searching"), 0.5};
    if (!m_document.sizing()) return {tr("Cost"), tr("not searched yet"), 0.0};
    return {tr("Cost"),
            m_document.sizingIsCurrent() ? tr("%1 compared").arg(counted(static_cast<long long>(m_document.sizing()->packages.size()), tr("plan"), tr("plans")))
                                         : tr("searched for an older plan"),
            m_document.sizingIsCurrent() ? 1.0 : 0.5};
  }
  }
  return {};
}

QPointF ThreadBar::knotPoint(Document::Stage stage) { return {40.0 + static_cast<int>(stage) * kKnotSpacing, 24.0}; }

void ThreadBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  p.fillRect(rect(), t.oat);
  const double y = knotPoint(m_stage).y();
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
    const QPointF at = knotPoint(stage);
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

} // namespace muffle
