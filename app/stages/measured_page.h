// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the house really loses: each heated night's watts against its lift, the line through them beside the sum of the parts, which
// input would explain a gap; and the model put right by a fit, judged on nights it has not seen, applied as one step to undo.
#pragma once

#include "app/model/document.h"
#include "app/model/latest_job.h"
#include "core/fit/calibrate.h"
#include "core/fit/explain.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace muffle {

class Plot;

class MeasuredPage : public QWidget {
  Q_OBJECT
public:
  explicit MeasuredPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  void startFit();
  [[nodiscard]] bool isWorking() const { return m_running; }
  [[nodiscard]] const Calibrated* fit() const { return m_fit ? &*m_fit : nullptr; }

private:
  void measure();
  void draw();
  void apply();
  [[nodiscard]] QString quickText() const;
  [[nodiscard]] QString fitText() const;
  Document& m_document;
  QLabel *m_quickText, *m_fitText;
  Plot* m_plot;
  QPushButton *m_run, *m_apply, *m_remove;
  bool m_logIsNew = true, m_planIsNew = true; ///< since the figures below were worked out
  std::optional<Plan> m_fittedPlan;
  std::optional<QuickFit> m_quick;
  std::optional<MeasuredAgainstParts> m_parts;
  std::optional<Calibrated> m_fit;
  QString m_logTrouble, m_trouble;
  bool m_running = false;
  LatestJob<Calibrated> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
