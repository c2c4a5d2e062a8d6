// SPDX-License-Identifier: GPL-3.0-or-later
//
// The open book as the window knows it: one plan in hand, a second to compare with, a log, and the results of running
// the plan over it. Every change goes through a verb here, becomes a named undo step and is saved at once, beside the window (outbox.h). Simulation
// runs on its own thread; a result that belongs to an older plan is never shown as current (isCurrent()).
#pragma once

#include "app/model/prepared_log.h"
#include "app/model/units.h"
#include "book/book.h"
#include "core/log/nights.h"
#include "core/simulate/simulate.h"
#include "core/sizing/sizing.h"

#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>

#include <functional>
#include <memory>
#include <optional>

namespace muffle {

class Background;
class BookLock;
class Engine;
class Outbox;

class Document : public QObject {
  Q_OBJECT
public:
  explicit Document(QObject* parent = nullptr);
  ~Document() override;

  /// Opens (or makes) a book and shows its first plan. Problem text on failure; the present book then stays. What of that is not
  /// written yet is tried once more and then given up: ask first (whyNotSaved()).
  std::optional<QString> openBook(const QString& path, bool create);
  /// What was wrong with the book that openBook refused last; kind `damaged` can be salvaged.
  [[nodiscard]] const Problems& openingProblems() const { return m_openingProblems; }
  /// True while another window holds the book: what is done there is shown here, and nothing can be changed until it is closed.
  [[nodiscard]] bool isFollowingWindow() const { return m_followTimer.isActive(); }
  /// Why the newest edits are not in the book yet; nothing while all is written or on its way. They are kept and tried again.
  [[nodiscard]] std::optional<QString> whyNotSaved() const;
  void trySavingAgain();
  /// Everything, with what is not saved yet, to another file, which then is the open book.
  std::optional<QString> saveElsewhere(const QString& path);
  /// Waits until all edits are in the book; false if they cannot be.
  bool waitUntilSaved(int timeout_ms = 20000);
  [[nodiscard]] QString bookPath() const;
  [[nodiscard]] bool hasBook() const { return m_book.has_value(); }

  [[nodiscard]] const Plan& plan() const { return m_plan; }
  /// What the plan may be made of.
  [[nodiscard]] Materials materials() const { return Materials(m_plan.materials); }
  [[nodiscard]] const Log* log() const { return m_log.log.get(); }
  /// From one reading to the next, mostly; 0 while it is being worked out.
  [[nodiscard]] double logStep_s() const { return m_log.step_s; }
  [[nodiscard]] const std::vector<LogProblem>& logProblems() const { return m_log.problems; }
  [[nodiscard]] const std::vector<Night>& logNights() const { return m_log.nights; }
  [[nodiscard]] const Weather* weather() const { return m_log.weather.get(); }
  /// The coldest outside that a usual heater is sized by: of the log, else of the winters the grower listed, else -10.
  [[nodiscard]] double designLow_C() const;
  [[nodiscard]] std::shared_ptr<const Weather> sharedWeather() const { return m_log.weather; }
  /// True while flags, nights and weather of the log are being worked out.
  [[nodiscard]] bool isPreparingLog() const { return m_preparing; }
  [[nodiscard]] TimeZone zone() const;

  /// The newest result, perhaps of an older plan; see isCurrent().
  [[nodiscard]] const Simulation* result() const { return m_result.get(); }
  [[nodiscard]] bool isCurrent() const { return m_result && m_resultOf == m_generation; }
  /// True if at least what is drawn of the chosen night is of the present plan.
  [[nodiscard]] bool isCurrentInSight() const;
  [[nodiscard]] const Simulation* otherResult() const { return m_otherResult.get(); }
  [[nodiscard]] QString otherName() const { return m_otherName; }
  [[nodiscard]] const std::optional<Plan>& otherPlan() const { return m_other; }

  [[nodiscard]] const Sizing* sizing() const { return m_sizing.get(); }
  [[nodiscard]] bool sizingIsCurrent() const { return m_sizing && m_sizingOf == m_generation; }
  [[nodiscard]] bool isSizing() const { return m_isSizing; }
  [[nodiscard]] const Plan& sizedPlan() const { return m_sizedPlan; }

  // verbs; each is one named undo step, or a reason why not
  std::optional<QString> edit(const QString& name, const std::function<void(Plan&)>& change, int mergeId = -1);
  std::optional<QString> setLog(Log log);
  /// What another file, a station or a sheet adds to the log; `what` names the step. Says how much was new.
  std::optional<QString> addToLog(const QString& what, const Log& more);
  /// New readings of a followed file: no step to undo, for the file still has them.
  void followed(const Log& more);
  /// The grower's word on stretches of the log; the last word on a stretch counts.
  void decide(const QString& name, const std::vector<Decision>& decisions);
  /// The file that a logger keeps writing into this book's log; empty if none.
  [[nodiscard]] QString followedFile() const { return m_followed; }
  void setFollowedFile(const QString& path);
  /// The station that publishes into this book's log, as StationFeed takes it; empty if none.
  [[nodiscard]] QString station() const { return m_station; }
  void setStation(const QString& address);
  [[nodiscard]] std::vector<Recipe> recipes() const;
  void keepRecipe(const Recipe& recipe);
  /// Ends a run of merged edits, such as a drag.
  void finishEdit() { ++m_mergeEpoch; }
  void keepSnapshot(const QString& name);
  /// Newest first.
  [[nodiscard]] std::vector<Snapshot> earlierStates() const;
  /// Plan and log as they were, as one step to undo.
  std::optional<QString> bringBack(const Snapshot& state);
  void compareWith(std::optional<Plan> other, const QString& name);
  void takeOther();

  void startSizing();
  void cancelSizing();
  void repriceSizing(const Prices& prices);

  // view state, not undoable
  [[nodiscard]] const Units& units() const { return m_units; }
  void setUnits(const Units& units);
  [[nodiscard]] bool isDark() const { return m_dark; }
  void setDark(bool dark);
  [[nodiscard]] int selectedNight() const { return m_night; } ///< index into result()->nights, -1 none
  [[nodiscard]] int spanStart() const { return m_spanStart; }
  void selectNight(int night, bool extend = false);
  [[nodiscard]] std::optional<Date> selectedDate() const;
  void selectNightOf(const Date& date); ///< nothing happens if it was not simulated
  /// Position in the selected night, 0 at noon before, 1 at noon after.
  [[nodiscard]] double clock() const { return m_clock; }
  void setClock(double clock);
  /// Winter and step that the clock stands at; nothing without a result.
  struct Moment {
    std::size_t winter, step;
  };
  [[nodiscard]] std::optional<Moment> moment() const;

  QUndoStack* undoStack() { return &m_undo; }
  /// Blocks until the present plan's result is in (tests, pictures).
  bool waitForResult(int timeout_ms = 60000);
  bool waitForSizing(int timeout_ms = 600000);

signals:
  void bookOpened();
  void bookMoved(); ///< the same work, in another file from now on
  void planChanged();
  void logChanged();
  void resultChanged();
  void winterChanged(); ///< the night in sight is new; later nights and the sums over all winters are still those of before
  void selectionChanged();
  void viewChanged(); ///< units or theme
  void sizingChanged();
  void sizingProgress(int done, int of);
  void trouble(const QString& text); ///< something was refused or could not be saved
  void told(const QString& text);    ///< what was done, in a line
  void savingChanged();              ///< whyNotSaved() or isFollowingWindow() may be another

private:
  friend class EditCommand;
  friend class LogCommand;
  friend class DecisionCommand;
  void applyPlan(const Plan& plan);
  void applyLog(std::shared_ptr<const Log> log);
  void applyDecisions(const std::vector<Decision>& decisions);
  enum class Save { nothing, flags, log };
  void prepareNow(std::shared_ptr<const Log> raw, Save save);
  void logPrepared(quint64 generation, PreparedLog prepared, Save save);
  void simulateNow();
  [[nodiscard]] std::size_t winterInSight() const;
  /// The last step of that winter that any view of the chosen night draws.
  [[nodiscard]] std::size_t stepInSight() const;
  void saveSetting(const char* key, const QString& value);
  void savePlan();
  void saveLog(std::shared_ptr<const Log> log, Save save);
  /// The state before what is about to be done, as one to come back to.
  void keepState(const QString& why, bool onlyIfLongAgo = false);
  struct Opened;
  void own(Book writer);
  void outboxChanged();
  void followWindow();
  /// Refuses, with the reason told, while another window holds the book.
  bool mayChange();
  static QString heldElsewhere();

  std::optional<Book> m_book; ///< read from; written by the outbox alone
  std::shared_ptr<BookLock> m_lock;
  std::unique_ptr<Outbox> m_outbox; ///< none while another window holds the book
  Problems m_openingProblems;
  QTimer m_followTimer;
  std::int64_t m_seenVersion = 0, m_seenLog = 0;
  qint64 m_stateKept_s = 0;
  RowId m_planId = 0;
  Plan m_plan;
  PreparedLog m_log;
  quint64 m_logGeneration = 0;
  bool m_preparing = false;
  std::shared_ptr<Simulation> m_result; ///< the document's own: what of a winter comes early is put into it
  std::shared_ptr<const Simulation> m_otherResult;
  std::optional<Plan> m_other;
  QString m_otherName;
  quint64 m_generation = 0, m_resultOf = 0, m_sizingOf = 0;
  quint64 m_sizingAsked = 0; ///< the search that is waited for; 0: none
  quint64 m_freshOf = 0;     ///< generation whose winter m_freshWinter has come in up to step m_freshTo
  std::size_t m_freshWinter = 0, m_freshTo = 0;
  std::shared_ptr<Sizing> m_sizing;
  Plan m_sizedPlan;
  bool m_isSizing = false;
  Units m_units;
  bool m_dark = false;
  QString m_followed, m_station;
  int m_night = -1, m_spanStart = -1;
  double m_clock = 0.7;
  int m_mergeEpoch = 0;
  QUndoStack m_undo;
  std::unique_ptr<Engine> m_engine;
  std::unique_ptr<Background> m_background; ///< last: it goes first, and saves what is still waiting
};

} // namespace muffle
