// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/stage.h"
#include "app/stages/stage_page.h"

class QPushButton;

namespace muffle {

class CautionLabel;
class CropsPage;
class DegreePage;
class FailurePage;
class HeaterList;
class Ladder;
class PageStrip;
class RoomChoice;
class SetpointsPage;
class SourcesPage;

class HeatStage : public StagePage {
  Q_OBJECT
public:
  static constexpr StageId kId = "heat";
  static Knot knot(const Document& document);
  explicit HeatStage(const Bench& bench);
  enum class Page { ladder, setpoints, crops, heaters, sources, degree, failure };
  void showPage(Page page);
  [[nodiscard]] FailurePage& failure() { return *m_failure; }
  [[nodiscard]] DegreePage& degree() { return *m_degree; }
  [[nodiscard]] SetpointsPage& setpoints() { return *m_setpoints; }
  [[nodiscard]] CropsPage& crops() { return *m_crops; }
  [[nodiscard]] SourcesPage& sources() { return *m_sources; }

private:
  void refresh() override;
  void refreshUsual();
  enum class Change { all, night, clock } m_change = Change::all; ///< what the next refresh is for
  int m_night = -1;
  PageStrip* m_pages;
  SetpointsPage* m_setpoints;
  CropsPage* m_crops;
  FailurePage* m_failure;
  DegreePage* m_degree;
  SourcesPage* m_sources;
  HeaterList* m_heaters;
  QWidget* m_foot; ///< what adds heaters, and what they cost
  CautionLabel* m_caution;
  QPushButton* m_usual; ///< a heater for a house that has none
  QPushButton *m_tariff, *m_compare;
  Ladder* m_ladder;
};

} // namespace muffle
