// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"
#include "core/plan/ladder.h"

namespace muffle {

/// A temperature axis with rungs to drag: what lets air out, day and night setpoints, each heater, the line to hold. A rung that follows the
/// weather slopes from cold nights to mild ones. What is at odds is said at its foot.
class Ladder : public DocumentView {
  Q_OBJECT
public:
  explicit Ladder(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {330, 320}; }
  QSize minimumSizeHint() const override { return {260, 240}; }
  /// Of the house, or of its warm bay.
  void showRoom(HeaterPlace::Of room);
  /// Where it can be taken hold of; of heaters the one of that index in the plan.
  [[nodiscard]] QPointF rungPoint(RungOf of, std::size_t heater = 0) const;
  [[nodiscard]] double pixelsPerKelvin() const;
  /// What is at odds, a line each.
  [[nodiscard]] QStringList conflicts() const;
  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< every rung, and what is at odds

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  /// What the plan says of the room, once a change of it.
  void takePlan();
  [[nodiscard]] const std::vector<Rung>& rungs() const { return m_rungs; }
  [[nodiscard]] QString name(const Rung& rung) const;
  [[nodiscard]] QString text(const Rung& rung) const;
  [[nodiscard]] QColor colour(const Rung& rung) const;
  void paintRails(QPainter& painter) const;
  void paintRungs(QPainter& painter) const;
  void paintFoot(QPainter& painter) const;
  void put(Rung rung, double celsius); // by value: the plan's own are others once it has changed
  [[nodiscard]] double bottom() const;
  [[nodiscard]] double yOf(double celsius) const;
  [[nodiscard]] double celsiusAt(double y) const;
  HeaterPlace::Of m_room = HeaterPlace::Of::house;
  std::vector<Rung> m_rungs;
  std::vector<LadderConflict> m_conflicts;
  double m_low_C = 0.0, m_high_C = 1.0; ///< of the axis: the usual, and further where a rung stands further
  std::size_t m_focused = 0;            ///< among rungs()
  std::optional<Rung> m_dragged;
  double m_dragShare = 0.5; ///< how far from the left rail it is held
  QString m_refusal;
};

} // namespace muffle
