// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"

namespace muffle {

/// The stages on one line, each with what it has and lacks.
class ThreadBar : public DocumentView {
  Q_OBJECT
public:
  explicit ThreadBar(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {900, 58}; }
  QSize minimumSizeHint() const override { return {600, 58}; }
  void setStage(Document::Stage stage);
  [[nodiscard]] Document::Stage stage() const { return m_stage; }
  /// Where its knot is drawn.
  [[nodiscard]] static QPointF knotPoint(Document::Stage stage);
signals:
  void chosen(Document::Stage stage);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  struct Knot {
    QString name, line;
    double filled;
  };
  [[nodiscard]] Knot knot(Document::Stage stage) const;
  Document::Stage m_stage = Document::Stage::house;
};

} // namespace muffle
