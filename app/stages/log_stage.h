// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/measured_page.h"
#include "app/stages/page_strip.h"
#include "app/stages/stage_page.h"

class QCPGraph;
class QLabel;
class QPushButton;

namespace muffle {

class Plot;

/// Traces with nights shaded and faults marked on them, and the lift of every night.
class LogStage : public StagePage {
  Q_OBJECT
public:
  explicit LogStage(Document& document, QWidget* parent = nullptr);
  enum class Page { nights, measured };
  void showPage(Page page) { m_pages->show(static_cast<int>(page)); }
  [[nodiscard]] MeasuredPage& measured() { return *m_measured; }

signals:
  void importAsked();

private:
  /// One channel drawn: its line and the marks of its faults.
  struct Trace {
    std::size_t channel;
    QCPGraph* line;
    QCPGraph* faults;
  };
  void refresh() override;
  void rebuild();
  void fillTraces();
  void showNight();
  [[nodiscard]] std::string writeLogCsvText() const;
  PageStrip* m_pages;
  MeasuredPage* m_measured;
  Plot* m_traces;
  Plot* m_lift;
  QLabel* m_faults;
  QPushButton* m_import;
  std::vector<Trace> m_drawn;
  bool m_filling = false;
  bool m_redraw = true; ///< the log or the look has changed since the traces were drawn
};

} // namespace muffle
