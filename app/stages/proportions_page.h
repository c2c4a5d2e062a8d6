// SPDX-License-Identifier: GPL-3.0-or-later
//
// How tall, how wide: the same floor under other proportions over all logged nights, one strip for each thing that changes,
// the rules of thumb drawn beside.
#pragma once

#include "app/model/document.h"
#include "app/model/latest_job.h"
#include "app/stages/spoken.h"
#include "core/sizing/proportions.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace muffle {

/// The strips alone.
class ProportionStrips : public QWidget, public Spoken {
  Q_OBJECT
public:
  ProportionStrips(Document& document, QWidget* parent);
  void show(std::shared_ptr<const Proportions> sweep, double now_m);

  [[nodiscard]] std::vector<SpokenLine> spoken() const override { return paintedLines(*this); }

protected:
  void paintEvent(QPaintEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;

private:
  [[nodiscard]] double xOf(double value_m) const;
  Document& m_document;
  std::shared_ptr<const Proportions> m_sweep;
  double m_now_m = 0.0;
};

class ProportionsPage : public QWidget {
  Q_OBJECT
public:
  explicit ProportionsPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// True when what is shown belongs to the plan in hand.
  [[nodiscard]] bool isCurrent() const;
  [[nodiscard]] const Proportions* sweep() const { return m_sweep.get(); }

protected:
  void showEvent(QShowEvent*) override;

private:
  [[nodiscard]] Proportion chosen() const;
  void start();
  Document& m_document;
  QComboBox* m_of;
  QLabel* m_state;
  ProportionStrips* m_strips;
  std::optional<Plan> m_askedOf; ///< the plan that the sweep is of
  Proportion m_asked = Proportion::height;
  std::shared_ptr<const Weather> m_weather;
  std::shared_ptr<const Proportions> m_sweep;
  LatestJob<Proportions> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
