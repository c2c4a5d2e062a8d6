// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/thread_bar.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <cmath>

namespace muffle {
namespace {

constexpr double kKnotSpacing = 168.0;

} // namespace

ThreadBar::ThreadBar(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::planChanged, &Document::resultChanged, &Document::logChanged, &Document::sizingChanged, &Document::viewChanged},
                   parent) {
  setFocusPolicy(Qt::TabFocus);
  setAccessibleName(tr("Stages"));
}

void ThreadBar::setStage(StageId stage) {
  m_stage = stageIndex(stage);
  update();
}

StageId ThreadBar::stage() const { return stages()[m_stage].id; }

QPointF ThreadBar::knotPoint(StageId stage) { return {40.0 + static_cast<double>(stageIndex(stage)) * kKnotSpacing, 24.0}; }

void ThreadBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  p.fillRect(rect(), t.oat);
  const double y = knotPoint(stage()).y();
  QPainterPath thread(QPointF(0, y));
  for (std::size_t i = 0; i < stages().size(); ++i) {
    const double x = 40 + static_cast<double>(i) * kKnotSpacing;
    thread.cubicTo(QPointF(x - 50, y - (i % 2 ? 4 : -4)), QPointF(x - 30, y), QPointF(x, y));
  }
  thread.lineTo(width() - 22, y);
  thread.quadTo(width() - 9, y, width() - 9, y + 14);
  thread.lineTo(width() - 9, height());
  p.setPen(QPen(t.madder, 2));
  p.drawPath(thread);
  for (const StageRow& row : stages()) {
    const QString title = stageTitle(row);
    const Knot k = row.knot(m_document);
    const bool here = row.id == stage();
    const QPointF at = knotPoint(row.id);
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
    p.fillRect(QRectF(name.left() - 2, y - 3, QFontMetricsF(titleFont(11)).horizontalAdvance(title) + 6, 7), t.oat);
    p.setFont(titleFont(11.5));
    p.setPen(t.ink);
    p.drawText(QRectF(name.left(), 11, name.width(), 22), static_cast<int>(Qt::AlignVCenter), title);
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
  const double i = std::floor((e->position().x() - 22) / kKnotSpacing);
  if (i >= 0 && i < static_cast<double>(stages().size())) emit chosen(stages()[static_cast<std::size_t>(i)].id);
}

void ThreadBar::keyPressEvent(QKeyEvent* e) {
  if (e->key() == Qt::Key_Right && m_stage + 1 < stages().size())
    emit chosen(stages()[m_stage + 1].id);
  else if (e->key() == Qt::Key_Left && m_stage > 0)
    emit chosen(stages()[m_stage - 1].id);
  else
    QWidget::keyPressEvent(e);
}

} // namespace muffle
