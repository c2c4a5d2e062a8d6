// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the grower looks at, and how: units, theme, the night and hour chosen. Kept in the book where it lasts; never a step to undo.
#pragma once

#include "app/model/results.h"
#include "app/model/units.h"
#include "core/calendar.h"

#include <QObject>

#include <map>
#include <optional>
#include <string>

namespace muffle {

class BookKeeping;
class LogInHand;

class ViewState : public QObject {
  Q_OBJECT
public:
  ViewState(BookKeeping& book, const LogInHand& readings, const Results& results, QObject* parent = nullptr)
      : QObject(parent), m_book(book), m_readings(readings), m_results(results) {}
  /// As they stand in the book.
  void restore(const std::map<std::string, std::string>& settings);

  [[nodiscard]] const Units& units() const { return m_units; }
  void setUnits(const Units& units);
  [[nodiscard]] bool isDark() const { return m_dark; }
  void setDark(bool dark);

  [[nodiscard]] int selectedNight() const { return m_night; } ///< index into the result's nights, -1 none
  [[nodiscard]] int spanStart() const { return m_spanStart; }
  void selectNight(int night, bool extend = false);
  [[nodiscard]] std::optional<Date> selectedDate() const;
  void selectNightOf(const Date& date); ///< nothing happens if it was not simulated
  void forgetNight() { m_night = -1; }
  /// Where no night is chosen, or it is no longer there: the coldest that was judged.
  void openOnColdest();
  /// Position in the selected night, 0 at noon before, 1 at noon after.
  [[nodiscard]] double clock() const { return m_clock; }
  void setClock(double clock);
  /// Winter and step that the clock stands at; nothing without a result.
  struct Moment {
    std::size_t winter, step;
  };
  [[nodiscard]] std::optional<Moment> moment() const;
  /// The night that the moment lies in or is nearest to, and the clock at it.
  void showMoment(const Moment& moment);
  /// A plan that the pointer rests on, to be set against the one in hand while it does so.
  [[nodiscard]] const std::optional<Plan>& pointedPlan() const { return m_pointedPlan; }
  void pointAtPlan(std::optional<Plan> plan);
  /// What of the winters any view of the chosen night draws.
  [[nodiscard]] Results::InSight inSight() const;

signals:
  void viewChanged();
  void selectionChanged();
  void pointedPlanChanged();

private:
  /// The chosen night; nullptr if none.
  [[nodiscard]] const NightResult* night() const;

  BookKeeping& m_book;
  const LogInHand& m_readings;
  const Results& m_results;
  Units m_units;
  bool m_dark = false;
  int m_night = -1, m_spanStart = -1;
  double m_clock = 0.7;
  std::optional<Plan> m_pointedPlan;
};

} // namespace muffle
