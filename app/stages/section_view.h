// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cross-section with its clock: hover tells, drag changes a dimension, the clock scrubs through the chosen night.
#pragma once

#include "app/model/document.h"
#include "app/paint/plan_picture.h"
#include "app/paint/section.h"
#include "app/stages/document_view.h"
#include "app/stages/store_placing.h"
#include "core/plan/plan_differences.h"

#include <QWidget>

#include <optional>

class QPushButton;

namespace muffle {

class SectionView : public DocumentView {
  Q_OBJECT
public:
  explicit SectionView(Document& document, QWidget* parent = nullptr);
  QSize minimumSizeHint() const override { return {380, 320}; }
  /// Where a handle stands, in widget coordinates.
  [[nodiscard]] QPointF handlePoint(Grip grip) const;
  [[nodiscard]] QRectF clockRect() const;
  /// Seen from above instead of cut through.
  void setFromAbove(bool on);
  [[nodiscard]] bool isFromAbove() const { return m_fromAbove; }
  /// A store goes with the pointer until a click or Enter sets it down; Escape and another press leave it.
  void place(StorePlacing placing);
  void leaveIt();
  [[nodiscard]] bool isPlacing() const { return m_placing.has_value(); }

signals:
  void housePointedAt();
  void storePointedAt(StoreKind kind, std::size_t index);
  void heaterPointedAt(std::size_t heater);
  void placed(StoreKind kind); ///< the last of its kind in the plan

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
  void setDown();
  [[nodiscard]] Plan planInSight() const;
  void paintWhatDiffers(QPainter& painter);
  QPushButton* m_toggle;
  bool m_fromAbove = false;
  Grip m_hovered;
  Grip m_dragged;
  bool m_scrubbing = false;
  double m_dragScale = 1.0;
  double m_dragDepthScale = 1.0; ///< pixels by metre of depth
  QPointF m_pressed;
  Plan m_dragStart;
  QString m_refusal;
  std::optional<StorePlacing> m_placing;
  std::optional<std::vector<PlanDifference>> m_differences; ///< from the plan pointed at or compared with; none: not worked out yet
  std::optional<QPointF> m_placingAt; ///< none: where such stores usually stand
};

} // namespace muffle
