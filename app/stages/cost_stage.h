// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/stage.h"
#include "app/stages/stage_page.h"
#include "core/plan/cautions.h"
#include "core/sizing/sizing.h"

class QComboBox;
class QGridLayout;
class QLabel;
class QProgressBar;
class QPushButton;
class QScrollArea;
class QSlider;
class QStackedWidget;

namespace muffle {

class CautionLabel;
class FrontierView;

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
  void tell(const SizingProgress& so);
  void fitWorth();
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
  QComboBox* m_against;
  QProgressBar* m_progress;
  QLabel* m_bill;
  QLabel* m_eachDoes;
  QScrollArea* m_worth;
  CautionLabel* m_caution;
  QSlider* m_price;
  QSlider* m_hour;
  QLabel* m_priceText;
  QLabel* m_hourText;
};

} // namespace muffle
