// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"
#include "app/stages/stage.h"
#include "app/stages/stage_page.h"
#include "core/simulate/load_duration.h"

class QPushButton;

namespace muffle {

/// A temperature axis with draggable rungs: vents, day and night setpoints, the line to hold.
class Ladder : public DocumentView {
  Q_OBJECT
public:
  explicit Ladder(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {330, 320}; }
  QSize minimumSizeHint() const override { return {260, 240}; }
  enum Rung { vents, day, night, hold, rungCount };
  [[nodiscard]] QPointF rungPoint(Rung rung) const;
  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< every rung
  [[nodiscard]] double pixelsPerKelvin() const;

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  [[nodiscard]] double value(Rung rung) const;
  void put(Rung rung, double celsius);
  [[nodiscard]] double yOf(double celsius) const;
  [[nodiscard]] double celsiusAt(double y) const;
  int m_focused = night;
  int m_dragged = -1;
  QString m_refusal;
};

/// The hours of the winters by how much heat they took, the heater's size across it.
class LoadCurve : public DocumentView {
  Q_OBJECT
public:
  explicit LoadCurve(Document& document, QWidget* parent = nullptr);
  QSize minimumSizeHint() const override { return {180, 200}; }
  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< hours at each tenth of its size

protected:
  void paintEvent(QPaintEvent*) override;

private:
  std::optional<LoadDuration> m_load; ///< sorted once a result
};

class CautionLabel;
class FailurePage;
class HeaterList;
class PageStrip;

class HeatStage : public StagePage {
  Q_OBJECT
public:
  static constexpr StageId kId = "heat";
  static Knot knot(const Document& document);
  explicit HeatStage(const Bench& bench);
  enum class Page { ladder, heaters, failure };
  void showPage(Page page);
  [[nodiscard]] FailurePage& failure() { return *m_failure; }

private:
  void refresh() override;
  void refreshUsual();
  bool m_onlyMoment = false; ///< the next refresh is for another moment of the clock
  PageStrip* m_pages;
  FailurePage* m_failure;
  HeaterList* m_heaters;
  QWidget* m_foot; ///< what adds heaters, and what they cost
  CautionLabel* m_caution;
  QPushButton* m_usual; ///< a heater for a house that has none
};

} // namespace muffle
