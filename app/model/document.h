// SPDX-License-Identifier: GPL-3.0-or-later
//
// The open book as the window knows it: four things held apart, each in a file of its own, and joined here:
//   planInHand()  the plan and what can be undone        readings()  the log and what follows from it
//   results()     winters, comparison, search            view()      units, theme, the night and hour looked at
// and book(), the file that keeps them. What one of them means for the others is said here alone; pages listen here and change things there.
#pragma once

#include "app/model/book_keeping.h"
#include "app/model/controller_link.h"
#include "app/model/log_in_hand.h"
#include "app/model/plan_in_hand.h"
#include "app/model/results.h"
#include "app/model/view_state.h"

#include <QObject>
#include <QString>

#include <optional>

namespace muffle {

class Document : public QObject {
  Q_OBJECT
public:
  explicit Document(QObject* parent = nullptr);

  [[nodiscard]] BookKeeping& book() { return m_book; }
  [[nodiscard]] const BookKeeping& book() const { return m_book; }
  [[nodiscard]] PlanInHand& planInHand() { return m_planInHand; }
  [[nodiscard]] const PlanInHand& planInHand() const { return m_planInHand; }
  [[nodiscard]] LogInHand& readings() { return m_readings; }
  [[nodiscard]] const LogInHand& readings() const { return m_readings; }
  [[nodiscard]] Results& results() { return m_results; }
  [[nodiscard]] const Results& results() const { return m_results; }
  [[nodiscard]] ViewState& view() { return m_view; }
  [[nodiscard]] const ViewState& view() const { return m_view; }
  [[nodiscard]] ControllerLink& controller() { return m_controller; }
  /// The controller of this book's house, as StationAddress reads it; empty if none.
  [[nodiscard]] QString controllerAddress() const { return m_controllerAddress; }
  /// Connects to it and keeps it with the book; empty ends it. Says what is wrong if that is no address.
  std::optional<QString> setController(const QString& address);

  [[nodiscard]] const Plan& plan() const { return m_planInHand.plan(); }
  /// planInHand().edit(): what most pages do.
  std::optional<QString> edit(const QString& name, const std::function<void(Plan&)>& change, int mergeId = -1) {
    return m_planInHand.edit(name, change, mergeId);
  }

  /// Opens (or makes) a book and shows its first plan. Problem text on failure; the present book then stays. What of that is not
  /// written yet is tried once more and then given up: ask first (book().whyNotSaved()).
  std::optional<QString> openBook(const QString& path, bool create);
  /// What was wrong with the book that openBook refused last; kind `damaged` can be salvaged.
  [[nodiscard]] const Problems& openingProblems() const { return m_openingProblems; }
  std::optional<QString> saveElsewhere(const QString& path) { return m_book.saveElsewhere(path, plan(), m_readings.shared()); }
  /// Plan and log as they were, as one step to undo.
  std::optional<QString> bringBack(const Snapshot& state);

  void compareWith(std::optional<Plan> other, const QString& name, std::optional<std::size_t> package = {});
  /// The compared plan becomes the plan.
  void takeOther();
  void startSizing() { m_results.startSizing(plan(), m_readings.sharedWeather()); }
  /// True if at least what is drawn of the chosen night is of the present plan.
  [[nodiscard]] bool isCurrentInSight() const { return m_results.isCurrent(m_view.inSight()); }
  /// The coldest outside that a usual heater is sized by: of the log, else of the winters the grower listed, else -10.
  [[nodiscard]] double designLow_C() const;

signals:
  void bookOpened();
  void bookMoved(); ///< the same work, in another file from now on
  void planChanged();
  void logChanged();
  void resultChanged();
  void winterChanged(); ///< the night in sight is new; later nights and the sums over all winters are still those of before
  void selectionChanged();
  void viewChanged(); ///< units or theme
  void pointedPlanChanged();
  void sizingChanged();
  void sizingProgress(const SizingProgress& progress);
  void trouble(const QString& text); ///< something was refused or could not be saved
  void told(const QString& text);    ///< what was done, in a line
  void savingChanged();              ///< book().whyNotSaved() or isFollowingWindow() may be another

private:
  void planMoved(const Plan& before);
  void runAgain();

  Problems m_openingProblems;
  ControllerLink m_controller;
  QString m_controllerAddress;
  std::string m_keptSizing; ///< of another day, as the book has it, until there is weather to hold it against
  BookKeeping m_book;
  PlanInHand m_planInHand;
  LogInHand m_readings;
  Results m_results;
  ViewState m_view;
};

} // namespace muffle
