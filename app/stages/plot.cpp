// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/plot.h"

#include "app/paint/theme.h"
#include "book/files.h"

#include <QClipboard>
#include <QContextMenuEvent>
#include <QFileDialog>
#include <QGuiApplication>
#include <QLocale>
#include <QMenu>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace muffle {

Plot::Plot(Document& document, QWidget* parent) : QCustomPlot(parent), m_document(document) {
  setPlottingHint(QCP::phFastPolylines);
  setInteractions(QCP::iRangeDrag | QCP::iRangeZoom);
  axisRect()->setRangeZoom(Qt::Horizontal);
  axisRect()->setRangeDrag(Qt::Horizontal);
  setMouseTracking(true);
  retheme();
}

void Plot::retheme() {
  const Theme& t = Theme::of(m_document.view().isDark());
  setBackground(t.wool);
  for (QCPAxis* axis : {xAxis, yAxis, xAxis2, yAxis2}) {
    axis->setBasePen(QPen(t.seam));
    axis->setTickPen(QPen(t.seam));
    axis->setSubTickPen(Qt::NoPen);
    axis->setTickLabelColor(t.fleece);
    axis->setLabelColor(t.fleece);
    axis->setTickLabelFont(textFont(8.5));
    axis->setLabelFont(textFont(8.8));
    axis->grid()->setPen(QPen(t.seam, 0.6, Qt::DotLine));
    axis->grid()->setZeroLinePen(QPen(t.fleece, 0.8));
  }
}

void Plot::datesBelow(const QString& format) {
  auto ticker = QSharedPointer<QCPAxisTickerDateTime>::create();
  ticker->setDateTimeSpec(Qt::UTC);
  if (!format.isEmpty()) ticker->setDateTimeFormat(format);
  xAxis->setTicker(ticker);
}

void Plot::alignLeft() {
  constexpr int kLeft_px = 54;
  axisRect()->setAutoMargins(QCP::msTop | QCP::msRight | QCP::msBottom);
  axisRect()->setMargins(QMargins(kLeft_px, 0, 0, 0));
}

void Plot::legendAbove() {
  const Theme& t = Theme::of(m_document.view().isDark());
  if (legend->layout() != plotLayout()) {
    plotLayout()->insertRow(0);
    plotLayout()->addElement(0, 0, legend);
    plotLayout()->setRowStretchFactor(0, 0.001);
    plotLayout()->setRowSpacing(0);
    legend->setMargins(QMargins(2, 0, 2, 0));
  }
  legend->setVisible(true);
  legend->setBrush(Qt::NoBrush);
  legend->setBorderPen(Qt::NoPen);
  legend->setFont(textFont(8.5));
  legend->setTextColor(t.ink);
  legend->setFillOrder(QCPLegend::foColumnsFirst);
  legend->setRowSpacing(-2);
  legend->setMaximumSize(QWIDGETSIZE_MAX, 18);
}

void Plot::wrapLegend() {
  constexpr int kNarrow_px = 520, kRow_px = 18;
  int widest = 1, items = 0;
  for (int i = 0; i < legend->itemCount(); ++i) {
    const QCPAbstractLegendItem* item = legend->item(i);
    if (!item) continue; // a place that the drawing before has left empty
    ++items;
    widest = std::max(widest, item->minimumOuterSizeHint().width() + legend->columnSpacing());
  }
  const int columns = std::clamp(kNarrow_px / widest, 1, std::max(1, items));
  legend->setWrap(columns);
  legend->setFillOrder(QCPLegend::foColumnsFirst);
  legend->setMaximumSize(QWIDGETSIZE_MAX, kRow_px * ((items + columns - 1) / columns));
}

QCPGraph* Plot::line(const QColor& colour, double width) {
  QCPGraph* g = addGraph();
  g->setPen(QPen(colour, width));
  g->setAdaptiveSampling(true);
  return g;
}

void Plot::mouseMoveEvent(QMouseEvent* e) {
  QCustomPlot::mouseMoveEvent(e);
  if (!reading || e->buttons() != Qt::NoButton || !axisRect()->rect().contains(e->pos())) return;
  const QString text = reading(xAxis->pixelToCoord(e->position().x()), yAxis->pixelToCoord(e->position().y()));
  if (!text.isEmpty()) QToolTip::showText(e->globalPosition().toPoint(), text, this);
}

std::vector<SpokenLine> Plot::spoken() const {
  constexpr int kMostLines = 2000; // nobody listens to a season of minutes
  const QStringList rows = numbers && !numbersAreLong ? numbers().split(QLatin1Char('\n'), Qt::SkipEmptyParts) : QStringList();
  if (rows.size() < 2) return drawnLines();
  const QStringList heads = rows.front().split(QLatin1Char(','));
  std::vector<SpokenLine> lines;
  for (int i = 1; i < std::min<int>(static_cast<int>(rows.size()), kMostLines); ++i) {
    const QStringList cells = rows[i].split(QLatin1Char(','));
    QStringList values;
    for (int c = 1; c < std::min(cells.size(), heads.size()); ++c)
      if (!cells[c].isEmpty()) values << heads[c] + QLatin1Char(' ') + cells[c];
    lines.push_back({cells.front(), values.join(QStringLiteral(", "))});
  }
  return lines;
}

std::vector<SpokenLine> Plot::drawnLines() const {
  constexpr int kLines = 48; // every half hour of a day
  const auto label = [](const QCPAxis* axis, double at) {
    if (auto dates = axis->ticker().dynamicCast<QCPAxisTickerDateTime>())
      return QLocale().toString(QCPAxisTickerDateTime::keyToDateTime(at), QStringLiteral("d MMM yyyy HH:mm"));
    return (axis->label().isEmpty() ? QString() : axis->label() + QLatin1Char(' ')) + QLocale().toString(at, 'g', 4);
  };
  bool found = false;
  QCPRange keys;
  for (int g = 0; g < graphCount(); ++g) {
    bool has = false;
    const QCPRange range = graph(g)->getKeyRange(has);
    if (!has) continue;
    keys = found ? keys.expanded(range) : range;
    found = true;
  }
  std::vector<SpokenLine> lines;
  for (int i = 0; found && i < kLines; ++i) {
    const double at = keys.lower + keys.size() * i / (kLines - 1.0);
    QStringList values;
    for (int g = 0; g < graphCount(); ++g) {
      const auto& points = *graph(g)->data();
      if (!graph(g)->visible() || points.isEmpty()) continue;
      auto point = points.findBegin(at);
      if (point == points.constEnd()) --point;
      if (!std::isfinite(point->value)) continue;
      values << (graph(g)->name().isEmpty() ? QString() : graph(g)->name() + QLatin1Char(' ')) + QLocale().toString(point->value, 'g', 4);
    }
    if (!values.isEmpty()) lines.push_back({label(xAxis, at), values.join(QStringLiteral(", "))});
    if (keys.size() <= 0.0) break;
  }
  return lines;
}

void Plot::contextMenuEvent(QContextMenuEvent* e) {
  QMenu menu(this);
  menu.addAction(tr("Copy picture"), this, [this] { QGuiApplication::clipboard()->setPixmap(toPixmap(width(), height(), 2.0)); });
  const auto save = [this](const QString& filter, auto write) {
    const QString path = QFileDialog::getSaveFileName(this, tr("Export"), {}, filter);
    if (!path.isEmpty() && !write(path)) emit m_document.trouble(tr("%1 could not be written").arg(path));
  };
  menu.addAction(tr("Export PNG…"), this, [this, save] { save(tr("Picture (*.png)"), [this](const QString& f) { return savePng(f, 0, 0, 2.0); }); });
  menu.addAction(tr("Export PDF…"), this, [this, save] { save(tr("Document (*.pdf)"), [this](const QString& f) { return savePdf(f); }); });
  if (numbers)
    menu.addAction(tr("Export numbers as CSV…"), this, [this, save] {
      save(tr("Table (*.csv)"), [this](const QString& f) { return static_cast<bool>(writeFile(f.toStdString(), numbers().toStdString())); });
    });
  menu.addAction(tr("Show all"), this, [this] {
    if (showAll)
      showAll();
    else
      rescaleAxes();
    replot();
  });
  menu.exec(e->globalPos());
}

} // namespace muffle
