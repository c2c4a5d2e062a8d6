// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"
#include "app/stages/stage.h"

namespace muffle {

/// The stages on one line, each with what it has and lacks.
class ThreadBar : public DocumentView {
  Q_OBJECT
public:
  explicit ThreadBar(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {900, 58}; }
  QSize minimumSizeHint() const override { return {600, 58}; }
  void setStage(StageId stage);
  [[nodiscard]] StageId stage() const;
  /// Where its knot is drawn.
  [[nodiscard]] static QPointF knotPoint(StageId stage);
signals:
  void chosen(StageId stage);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  std::size_t m_stage = 0;
};

} // namespace muffle
