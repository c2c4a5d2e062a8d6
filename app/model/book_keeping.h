// SPDX-License-Identifier: GPL-3.0-or-later
//
// The open book as a file: locked by this window or followed while another holds it, written beside the window (outbox.h), saved elsewhere
// when the disk refuses, and its earlier states. What stands in it is held by plan_in_hand.h, log_in_hand.h and view_state.h.
#pragma once

#include "book/book.h"

#include <QObject>
#include <QString>
#include <QTimer>

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace muffle {

class BookLock;
class Outbox;

class BookKeeping : public QObject {
  Q_OBJECT
public:
  explicit BookKeeping(QObject* parent = nullptr);
  /// What is not written yet is tried once more.
  ~BookKeeping() override;

  /// What a book holds when it is opened.
  struct Contents {
    Plan plan;
    bool isNew = false; ///< the plan was put in now
    std::shared_ptr<const Log> log;
    std::map<std::string, std::string> settings;
  };
  /// Opens the book or makes one, with `first` as its plan where it has none. The book before is written and let go, and stays on failure.
  Result<Contents> open(const QString& path, bool create, const Plan& first);

  [[nodiscard]] QString path() const;
  [[nodiscard]] bool isOpen() const { return m_book.has_value(); }
  /// True while another window holds the book: what is done there is shown here, and nothing can be changed until it is closed.
  [[nodiscard]] bool isFollowingWindow() const { return m_followTimer.isActive(); }
  /// Why nothing can be changed now: no book, or another window's.
  [[nodiscard]] std::optional<QString> whyNotChangeable() const;
  static QString heldElsewhere();
  /// Why the newest edits are not in the book yet; nothing while all is written or on its way. They are kept and tried again.
  [[nodiscard]] std::optional<QString> whyNotSaved() const;
  void trySavingAgain();
  /// Waits until all edits are in the book; false if they cannot be.
  bool waitUntilSaved(int timeout_ms = 20000);
  /// Everything, with what is not saved yet, to another file, which then is the open book.
  std::optional<QString> saveElsewhere(const QString& path, const Plan& plan, const std::shared_ptr<const Log>& log);

  void savePlan(const Plan& plan);
  void saveLog(std::shared_ptr<const Log> log);
  /// Flags and decisions alone; the readings are there already.
  void saveFlags(std::shared_ptr<const Log> log);
  void saveSetting(const char* key, const QString& value);

  [[nodiscard]] std::vector<Recipe> recipes() const;
  void keepRecipe(const Recipe& recipe);
  void keepSnapshot(const QString& name, const Plan& plan);
  /// The state before what is about to be done, as one to come back to.
  void keepState(const QString& why, const Plan& plan, bool onlyIfLongAgo = false);
  /// Newest first.
  [[nodiscard]] std::vector<Snapshot> earlierStates() const;
  /// The log as it was in that state.
  [[nodiscard]] Result<Log> logOf(const Snapshot& state) const;

signals:
  void savingChanged();     ///< whyNotSaved() or isFollowingWindow() may be another
  void moved();             ///< the same work, in another file from now on
  void letGo(QString path); ///< the window that held the book has gone
  void planChangedElsewhere(Plan plan);
  void logChangedElsewhere(std::shared_ptr<const Log> log);
  void trouble(const QString& text);

private:
  void own(Book writer);
  void outboxChanged();
  void followWindow();

  std::optional<Book> m_book; ///< read from; written by the outbox alone
  std::shared_ptr<BookLock> m_lock;
  std::unique_ptr<Outbox> m_outbox; ///< none while another window holds the book
  QTimer m_followTimer;
  std::int64_t m_seenVersion = 0, m_seenLog = 0;
  qint64 m_stateKept_s = 0;
  RowId m_planId = 0;
};

} // namespace muffle
