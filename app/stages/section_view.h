// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cross-section with its clock: hover tells, drag changes a dimension, the clock scrubs through the chosen night.
#pragma once

#include "app/model/document.h"
#include "app/paint/plan_picture.h"
#include "app/paint/section.h"
#include "app/stages/document_view.h"

#include <QWidget>

class QPushButton;

namespace muffle {

class SectionView : public DocumentView {
  Q_OBJECT
public:
  explicit SectionView(Document& document, QWidget* parent = nullptr);
  QSize minimumSizeHint() const override { return {380, 320}; }
  /// Where a handle stands, in widget coordinates.
  [[nodiscard]] QPointF handlePoint(Handle h) const;
  [[nodiscard]] QRectF clockRect() const;
  /// Seen from above instead of cut through.
  void setFromAbove(bool on);
  [[nodiscard]] bool isFromAbove() const { return m_fromAbove; }

signals:
  void pointed(Document::Stage stage); ///< something was clicked whose instrument is elsewhere

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void leaveEvent(QEvent*) override;
  void resizeEvent(QResizeEvent*) override;

private:
  [[nodiscard]] SectionGeometry geometry() const;
  [[nodiscard]] std::optional<SectionMoment> sectionMoment() const;
  [[nodiscard]] SunWay sunWay() const;
  void placeToggle();
  void drag(const QPointF& to);
  QPushButton* m_toggle;
  bool m_fromAbove = false;
  Handle m_hovered = Handle::none;
  Handle m_dragged = Handle::none;
  bool m_scrubbing = false;
  double m_dragScale = 1.0;
  double m_dragDepthScale = 1.0; ///< pixels by metre of depth
  QPointF m_pressed;
  Plan m_dragStart;
  QString m_refusal;
};

} // namespace muffle
