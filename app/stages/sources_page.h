// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the heat comes from: sun, stores and each heater on each other, hour by hour through the chosen night and week by week through its winter;
// and the hours of work by the week.
#pragma once

#include "app/model/document.h"
#include "core/results/heat_sources.h"

#include <QWidget>

class QLabel;
class QCPBars;

namespace muffle {

class NumberField;
class Plot;

class SourcesPage : public QWidget {
  Q_OBJECT
public:
  explicit SourcesPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// Another night is chosen, and nothing else has changed.
  void followNight();
  [[nodiscard]] QString words() const;
  /// The drawing of the chosen night.
  [[nodiscard]] QWidget& hoursView();
  /// What the upper and the lower drawing show.
  [[nodiscard]] const std::vector<HeatSource>& ofNight() const { return m_night; }
  [[nodiscard]] const std::vector<HeatSource>& ofWinter() const { return m_winter; }
  [[nodiscard]] const std::vector<double>& workByWeek_h() const { return m_work_h; }

private:
  [[nodiscard]] const NightResult* night() const;
  [[nodiscard]] QString nameOf(const HeatSource& source) const;
  [[nodiscard]] bool isShown(std::size_t source) const;
  void draw(Plot& plot, const std::vector<HeatSource>& sources, double start_s, double piece_s);
  void drawNight();
  void drawWork(double start_s);
  [[nodiscard]] QString told() const;
  Document& m_document;
  QLabel* m_words;
  Plot *m_hours, *m_weeks, *m_work;
  NumberField* m_have; ///< hours a week
  std::vector<HeatSource> m_night, m_winter;
  std::size_t m_drawnWinter = 0;
  std::vector<double> m_work_h;
};

} // namespace muffle
