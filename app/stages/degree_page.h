// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a degree more buys: other night setpoints over all logged nights, in heat, money, work, growth and nights missed, with where frost-free,
// middling and best-growth houses are kept.
#pragma once

#include "app/model/document.h"
#include "app/model/latest_job.h"
#include "core/sizing/degree_more.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace muffle {

class Plot;

class DegreePage : public QWidget {
  Q_OBJECT
public:
  explicit DegreePage(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// True when what is shown belongs to the plan in hand.
  [[nodiscard]] bool isCurrent() const;
  [[nodiscard]] QString words() const;
  [[nodiscard]] const std::vector<DegreePoint>& points() const { return m_points; }

protected:
  void showEvent(QShowEvent*) override;

private:
  void start();
  void draw();
  [[nodiscard]] QString said() const;
  /// The points are of what is asked for now, or will be when they come.
  [[nodiscard]] bool isAsked() const;
  Document& m_document;
  QLabel* m_words;
  QComboBox* m_what;
  Plot* m_plot;
  std::vector<DegreePoint> m_points;
  std::optional<Plan> m_asked; ///< the plan that the points are of
  double m_step_K = 1.0;       ///< a degree, of those that were shown then
  std::shared_ptr<const Weather> m_weather;
  LatestJob<std::vector<DegreePoint>> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
