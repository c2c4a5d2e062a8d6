// SPDX-License-Identifier: GPL-3.0-or-later
//
// A themed QCustomPlot with what every chart here can do: zoom by wheel, drag, read values under the pointer, copy as
// picture, export as PNG or PDF, and the numbers as CSV.
#pragma once

#include "app/model/document.h"

#include <QPointer>

#include <functional>

#include <qcustomplot.h>

namespace muffle {

class Plot : public QCustomPlot {
  Q_OBJECT
public:
  Plot(Document& document, QWidget* parent = nullptr);
  void retheme();
  /// Everything drawn, for the CSV export; set by the owner.
  std::function<QString()> numbers;
  /// Text for the pointer, in plot coordinates.
  std::function<QString(double x, double y)> reading;
  /// Sets the axes to all there is, where not all of it is on the graphs at once.
  std::function<void()> showAll;
  /// Puts the legend in a row above the axes, where it hides nothing.
  void legendAbove();
  /// A line with as many points as the log needs, cheap to draw at two pixels.
  QCPGraph* line(const QColor& colour, double width = 1.6);

protected:
  void contextMenuEvent(QContextMenuEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;

private:
  Document& m_document;
};

} // namespace muffle
