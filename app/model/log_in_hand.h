// SPDX-License-Identifier: GPL-3.0-or-later
//
// The book's log with what is worked out from it (prepared_log.h), beside the window: flags, nights, weather. Its changes are steps of the
// plan's undo stack, except what a followed file or a station adds by itself.
#pragma once

#include "app/model/prepared_log.h"

#include <QObject>
#include <QString>

#include <memory>
#include <optional>
#include <vector>

namespace muffle {

class Background;
class BookKeeping;
class PlanInHand;

class LogInHand : public QObject {
  Q_OBJECT
public:
  LogInHand(BookKeeping& book, PlanInHand& plan, QObject* parent = nullptr);
  ~LogInHand() override;

  /// A log just read from the book, or none; what follows from it comes with prepared().
  void start(std::shared_ptr<const Log> log);
  /// What another window did to it.
  void follow(std::shared_ptr<const Log> log) { apply(std::move(log)); }

  [[nodiscard]] const Log* log() const { return m_log.log.get(); }
  [[nodiscard]] std::shared_ptr<const Log> shared() const { return m_log.log; }
  /// From one reading to the next, mostly; 0 while it is being worked out.
  [[nodiscard]] double step_s() const { return m_log.step_s; }
  [[nodiscard]] const std::vector<LogProblem>& problems() const { return m_log.problems; }
  [[nodiscard]] const std::vector<Night>& nights() const { return m_log.nights; }
  [[nodiscard]] const Weather* weather() const { return m_log.weather.get(); }
  [[nodiscard]] std::shared_ptr<const Weather> sharedWeather() const { return m_log.weather; }
  /// True while flags, nights and weather of the log are being worked out.
  [[nodiscard]] bool isPreparing() const { return m_preparing; }

  // verbs; each is one named undo step, or a reason why not
  std::optional<QString> set(Log log);
  /// What another file, a station or a sheet adds; `what` names the step. Says how much was new.
  std::optional<QString> add(const QString& what, const Log& more);
  /// The grower's word on stretches of the log; the last word on a stretch counts.
  void decide(const QString& name, const std::vector<Decision>& decisions);
  /// A log that the book holds takes this one's place; a step to undo.
  void replace(const QString& name, std::shared_ptr<const Log> log);
  /// New readings of a followed file: no step to undo, for the file still has them.
  void followed(const Log& more);

  /// The file that a logger keeps writing into this book's log; empty if none.
  [[nodiscard]] QString followedFile() const { return m_followedFile; }
  void setFollowedFile(const QString& path);
  /// The station that publishes into this book's log, as StationFeed takes it; empty if none.
  [[nodiscard]] QString station() const { return m_station; }
  void setStation(const QString& address);
  /// As they stand in the book.
  void restoreSources(const QString& file, const QString& station);

  /// The plan's line has moved: the nights are cut again.
  void cutNightsAgain();
  /// The plan's place or clock has moved: weather and nights are worked out again.
  void prepareAgain();

signals:
  void replaced(); ///< another log, of which nothing is worked out yet
  void revised();  ///< more readings, or other decisions: what follows from them is on its way
  void prepared(); ///< flags, nights and weather are there
  void nightsCut();
  void told(const QString& text);
  void trouble(const QString& text);

private:
  class Change;
  class Decided;
  enum class Save { nothing, flags, log };
  void apply(std::shared_ptr<const Log> log);
  void applyDecisions(const std::vector<Decision>& decisions);
  void prepare(std::shared_ptr<const Log> raw, Save save);
  void take(quint64 generation, PreparedLog prepared, Save save);

  BookKeeping& m_book;
  PlanInHand& m_plan;
  PreparedLog m_log;
  quint64 m_generation = 0;
  bool m_preparing = false;
  QString m_followedFile, m_station;
  std::unique_ptr<Background> m_background; ///< last: it goes first
};

} // namespace muffle
