// SPDX-License-Identifier: GPL-3.0-or-later
//
// A themed QCustomPlot with what every chart here can do: zoom by wheel, drag, read values under the pointer, copy as
// picture, export as PNG or PDF, and the numbers as CSV.
#pragma once

#include "app/model/document.h"
#include "app/stages/spoken.h"

#include <QPointer>

#include <functional>

#include <qcustomplot.h>

namespace muffle {

class Plot : public QCustomPlot, public Spoken {
  Q_OBJECT
public:
  Plot(Document& document, QWidget* parent = nullptr);
  void retheme();
  /// Everything drawn, for the CSV export; set by the owner.
  std::function<QString()> numbers;
  bool numbersAreLong = false; ///< more of them than anyone listens to: what is drawn is spoken instead
  /// Text for the pointer, in plot coordinates.
  std::function<QString(double x, double y)> reading;
  /// Sets the axes to all there is, where not all of it is on the graphs at once.
  std::function<void()> showAll;
  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< the numbers where the owner gives them, else its graphs at moments along the axis
  /// Dates or hours below, of keys that are shifted to the site's clock; `format` as QDateTime has it, empty: the ticker's own.
  void datesBelow(const QString& format = {});
  /// The left margin is the same in all plots that call this, so that what belongs together stands over each other.
  void alignLeft();
  /// Puts the legend in a row above the axes, where it hides nothing.
  void legendAbove();
  /// Breaks it into as many rows as it takes to fit the narrowest window, once all is in it.
  void wrapLegend();
  /// A line with as many points as the log needs, cheap to draw at two pixels.
  QCPGraph* line(const QColor& colour, double width = 1.6);

protected:
  void contextMenuEvent(QContextMenuEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;

private:
  /// What the graphs say at moments along the axis.
  [[nodiscard]] std::vector<SpokenLine> drawnLines() const;
  Document& m_document;
};

} // namespace muffle
