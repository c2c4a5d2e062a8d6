// SPDX-License-Identifier: GPL-3.0-or-later
//
// The readings as traces with nights shaded and faults marked on them; below, what was found wrong and the grower's word on it.
#pragma once

#include "app/stages/faults_list.h"

#include <QWidget>

class QCPGraph;
class QMenu;
class QPushButton;

namespace muffle {

class Plot;

class ReadingsPage : public QWidget {
  Q_OBJECT
public:
  explicit ReadingsPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  [[nodiscard]] FaultsList& faults() { return *m_faults; }

signals:
  void importAsked();
  void followAsked();
  void byHandAsked();

private:
  /// One channel drawn: its line and the marks of its faults.
  struct Trace {
    std::size_t channel;
    QCPGraph* line;
    QCPGraph* faults;
  };
  void rebuild();
  void fillTraces();
  void showNight();
  void showAround(double centre_s, double days);
  void fillSetAside();
  Document& m_document;
  Plot* m_traces;
  FaultsList* m_faults;
  QPushButton* m_setAside;
  QMenu* m_setAsideMenu;
  std::vector<Trace> m_drawn;
  bool m_filling = false;
  bool m_redraw = true; ///< the log or the look has changed since the traces were drawn
};

} // namespace muffle
