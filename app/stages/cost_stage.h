// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"
#include "app/stages/stage.h"
#include "app/stages/stage_page.h"
#include "core/plan/cautions.h"

class QGridLayout;
class QLabel;
class QProgressBar;
class QPushButton;
class QSlider;
class QStackedWidget;

namespace muffle {

/// Cost against cold owed, one mark a plan; click one to compare with it.
class CautionLabel;

class FrontierView : public DocumentView {
  Q_OBJECT
public:
  explicit FrontierView(Document& document, QWidget* parent = nullptr);
  /// What a search would list where the plan lists nothing.
  void setUsual(std::vector<Measure> usual);
  QSize minimumSizeHint() const override { return {320, 210}; }
  [[nodiscard]] QPointF packagePoint(int package) const;

  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< the plans that nothing beats, from the cheapest

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  bool event(QEvent*) override;

private:
  void paintUsual(QPainter& painter) const;
  std::vector<Measure> m_usual;
  [[nodiscard]] int packageAt(const QPointF& at) const;
  [[nodiscard]] QRectF area() const;
};

class CostStage : public StagePage {
  Q_OBJECT
public:
  static constexpr StageId kId = "cost";
  static Knot knot(const Document& document);
  explicit CostStage(const Bench& bench);
  /// Over the plan's measures; lists the usual ones where it has none. Nothing without a log.
  void search();
  /// The second plan becomes the cheapest that holds (or the plan in hand again).
  void compareWithWinner();
  /// Turns to the list of measures, or back to the result.
  void showMeasures(bool on);
  void addActions(QMenu& planMenu) override;

private:
  std::function<void(StageId)> m_show;
  [[nodiscard]] std::vector<Caution> cautionsOfWhatIsProposed() const;
  void refresh() override;
  QGridLayout* priceSliders();
  bool listUsual();
  QStackedWidget* m_pages;
  FrontierView* m_frontier;
  QPushButton* m_search;
  QPushButton* m_take;
  QPushButton* m_turn;
  QProgressBar* m_progress;
  QLabel* m_bill;
  QLabel* m_lost;
  CautionLabel* m_caution;
  QSlider* m_price;
  QSlider* m_hour;
  QLabel* m_priceText;
  QLabel* m_hourText;
};

} // namespace muffle
