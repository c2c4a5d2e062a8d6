// SPDX-License-Identifier: GPL-3.0-or-later
//
// The log night by night: as lift, as how often how cold, as a calendar, and set against each other; below, every night as a row to
// sort by.
#pragma once

#include "app/model/nights_model.h"
#include "app/paint/night_calendar.h"
#include "app/stages/spoken.h"

#include <QSortFilterProxyModel>
#include <QWidget>

class QComboBox;
class QDateEdit;
class QDoubleSpinBox;
class QLabel;
class QStackedWidget;
class QTableView;

namespace muffle {

class AnnualLowsField;
class Plot;

/// The calendar as a widget: click or arrow keys choose a night.
class CalendarView : public QWidget, public Spoken {
  Q_OBJECT
public:
  explicit CalendarView(Document& document, QWidget* parent = nullptr);
  [[nodiscard]] NightCalendar layoutNow() const;
  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< every night

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  bool event(QEvent*) override;

private:
  [[nodiscard]] int chosen() const;
  void choose(int night);
  Document& m_document;
};

class NightsPage : public QWidget {
  Q_OBJECT
public:
  enum class View { lift, often, calendar, compare };
  explicit NightsPage(Document& document, QWidget* parent = nullptr);
  /// Draws anew what the log, the plan or the look has changed; the night in sight changes nothing but the calendar, by itself.
  void refresh();
  void show(View view);
  [[nodiscard]] QTableView* table() { return m_table; }

private:
  void redraw();
  void drawLift();
  void drawOften();
  void drawCompare();
  void showDesign();
  void showGrowing();
  [[nodiscard]] std::pair<std::vector<Night>, std::vector<Night>> sets(QString& first, QString& second) const;
  [[nodiscard]] QString sensorsText() const;
  Document& m_document;
  NightsModel m_model;
  QSortFilterProxyModel m_sorted;
  QComboBox* m_view;
  QStackedWidget* m_charts;
  Plot *m_lift, *m_often, *m_compare;
  CalendarView* m_calendar;
  QLabel *m_design, *m_compareText, *m_growing;
  AnnualLowsField* m_annualLows;
  QComboBox* m_compareBy;
  QDateEdit* m_change;
  QDoubleSpinBox* m_base;
  QTableView* m_table;
  bool m_stale = true;   ///< the log, the plan or the look has changed since it was drawn
  double m_base_C = 5.0; ///< growth of most winter greens stops about there
};

} // namespace muffle
