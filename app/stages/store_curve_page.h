// SPDX-License-Identifier: GPL-3.0-or-later
//
// What one more buys: the store in hand at other sizes, each simulated over the logged nights.
#pragma once

#include "app/model/latest_job.h"
#include "app/stages/store_choice.h"
#include "core/sizing/store_curve.h"

#include <QVector>
#include <QWidget>

class QComboBox;
class QLabel;

namespace muffle {

class Plot;

class StoreCurvePage : public QWidget {
  Q_OBJECT
public:
  StoreCurvePage(Document& document, StoreChoice& choice, QWidget* parent = nullptr);
  void refresh();
  /// True when what is shown belongs to the plan in hand.
  [[nodiscard]] bool isCurrent() const;
  [[nodiscard]] QString words() const;

protected:
  void showEvent(QShowEvent*) override;

private:
  void start();
  void draw();
  void sayHeld(const QVector<double>& x, const QVector<double>& y, double mine);
  Document& m_document;
  StoreChoice& m_choice;
  QLabel* m_words;
  QComboBox* m_what;
  Plot* m_plot;
  std::vector<StorePoint> m_points;
  StoreRef m_of;
  std::optional<Plan> m_asked; ///< the plan that the points are of
  std::shared_ptr<const Weather> m_weather;
  LatestJob<std::vector<StorePoint>> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
