// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"

namespace muffle {

/// The winters, one knitted row a night.
class ScarfView : public DocumentView {
  Q_OBJECT
public:
  explicit ScarfView(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {900, 162}; }
  QSize minimumSizeHint() const override { return {500, 162}; }
  /// Middle of a night's row, in widget coordinates.
  [[nodiscard]] QPointF nightPoint(int night) const;

  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< every night

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  bool event(QEvent*) override;

private:
  [[nodiscard]] double nightX(double night) const;
  [[nodiscard]] int nightAt(double x) const;
};

} // namespace muffle
