// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/measured_page.h"
#include "app/stages/nights_page.h"
#include "app/stages/page_strip.h"
#include "app/stages/readings_page.h"
#include "app/stages/stage.h"
#include "app/stages/stage_page.h"

class QLabel;

namespace muffle {

/// The log: its readings and what is wrong with them, its nights, and the house measured from it.
class LogStage : public StagePage {
  Q_OBJECT
public:
  static constexpr StageId kId = "log";
  static Knot knot(const Document& document);
  explicit LogStage(const Bench& bench);
  enum class Page { readings, nights, measured };
  void showPage(Page page) { m_pages->show(static_cast<int>(page)); }
  [[nodiscard]] MeasuredPage& measured() { return *m_measured; }
  [[nodiscard]] NightsPage& nights() { return *m_nights; }
  [[nodiscard]] ReadingsPage& readings() { return *m_readings; }

private:
  void refresh() override;
  void head();
  PageStrip* m_pages;
  ReadingsPage* m_readings;
  NightsPage* m_nights;
  MeasuredPage* m_measured;
  QLabel* m_empty;
};

} // namespace muffle
