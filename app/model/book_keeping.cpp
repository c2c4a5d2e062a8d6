// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/book_keeping.h"
#include "app/model/said.h"

#include "app/model/beside.h"
#include "app/model/outbox.h"
#include "book/files.h"
#include "book/lock.h"
#include "core/log/recipe.h"

#include <QDateTime>

#include <algorithm>
#include <filesystem>

namespace muffle {
namespace {
constexpr int kFollow_ms = 1000;
constexpr int kReadingPatience_ms = 100; // the window waits no longer for what is just being written
constexpr int kReadAfter_ms = 1500;      // what is still being written is waited for so long

template <class T> Status doneIf(const Result<T>& result) {
  if (!result) return result.problems();
  return Done{};
}

/// What is read of a book when it is opened.
struct Opened {
  Book book, writer;
  std::vector<StoredPlan> plans;
  std::vector<StoredLog> logs;
  std::map<std::string, std::string> settings;

  static Result<Opened> read(const std::string& path, bool create) {
    auto book = Book::open(path, create ? Book::Mode::create : Book::Mode::existing);
    if (!book) return book.problems();
    auto plans = book->plans();
    if (!plans) return plans.problems();
    auto logs = book->logs();
    if (!logs) return logs.problems();
    auto settings = book->settings();
    if (!settings) return settings.problems();
    auto writer = Book::open(path, Book::Mode::existing, Book::Check::opened);
    if (!writer) return writer.problems();
    return Opened{std::move(*book), std::move(*writer), std::move(*plans), std::move(*logs), std::move(*settings)};
  }
};
} // namespace

BookKeeping::BookKeeping(QObject* parent) : QObject(parent) {
  m_followTimer.setInterval(kFollow_ms);
  connect(&m_followTimer, &QTimer::timeout, this, &BookKeeping::followWindow);
}

BookKeeping::~BookKeeping() = default;

QString BookKeeping::path() const { return m_book ? QString::fromStdString(m_book->path()) : QString(); }

Result<BookKeeping::Contents> BookKeeping::open(const QString& path, bool create, const Plan& first) {
  const std::string file = path.toStdString();
  std::error_code error;
  if (this->path() == path) m_outbox.reset(), m_lock.reset(); // opened again: all is written first
  const bool fresh = !std::filesystem::exists(file, error);
  auto lock = BookLock::take(file); // before SQLite opens it; see lock.h
  auto opened = beside([&] { return Opened::read(file, create); });
  if (fresh && opened) { // it is there now: whoever made it at the same moment has it
    lock.reset();
    if (auto now = BookLock::take(file)) lock.emplace(std::move(*now));
  }
  if (!opened) {
    if (this->path() == path)
      if (auto writer = Book::open(file, Book::Mode::existing, Book::Check::opened)) own(std::move(*writer));
    return opened.problems();
  }
  Contents contents;
  contents.isNew = opened->plans.empty();
  RowId planId = 0;
  if (contents.isNew) {
    contents.plan = first;
    auto id = opened->book.addPlan(first);
    if (!id) return id.problems();
    planId = *id;
  } else {
    contents.plan = opened->plans.front().plan;
    planId = opened->plans.front().id;
  }
  if (!opened->logs.empty()) contents.log = std::make_shared<const Log>(std::move(opened->logs.back().log));
  contents.settings = std::move(opened->settings);
  m_outbox.reset(); // the book before is written and let go
  m_lock.reset();
  m_book = std::move(opened->book);
  m_book->setPatience(kReadingPatience_ms);
  m_planId = planId;
  if (!lock) {
    m_seenVersion = m_book->version() ? *m_book->version() : 0;
    m_seenLog = m_book->logDigest() ? *m_book->logDigest() : 0;
    m_followTimer.start();
  } else {
    m_lock = std::make_shared<BookLock>(std::move(*lock));
    own(std::move(opened->writer));
  }
  return contents;
}

/// The open book is this window's to write, from here on.
void BookKeeping::own(Book writer) {
  m_followTimer.stop();
  m_stateKept_s = 0;
  if (!m_lock)
    if (auto lock = BookLock::take(writer.path())) m_lock = std::make_shared<BookLock>(std::move(*lock));
  m_outbox = std::make_unique<Outbox>(std::move(writer), [this] { QMetaObject::invokeMethod(this, &BookKeeping::outboxChanged, Qt::QueuedConnection); });
}

void BookKeeping::outboxChanged() {
  if (!m_outbox) return;
  if (const auto refused = m_outbox->takeRefused()) emit trouble(said(*refused));
  emit savingChanged();
}

std::optional<QString> BookKeeping::whyNotSaved() const {
  if (!m_outbox) return m_book && !isFollowingWindow() ? std::optional(tr("the book cannot be opened for writing")) : std::nullopt;
  const auto stopped = m_outbox->state().stopped;
  if (!stopped) return std::nullopt;
  return tr("%1; %2").arg(said(stopped->what), said(stopped->allowed));
}

void BookKeeping::trySavingAgain() {
  if (m_outbox) m_outbox->tryAgain();
}

bool BookKeeping::waitUntilSaved(int timeout_ms) { return !m_outbox || m_outbox->waitUntilWritten(timeout_ms); }

std::optional<QString> BookKeeping::saveElsewhere(const QString& path, const Plan& plan, const std::shared_ptr<const Log>& log) {
  if (!m_book) return std::nullopt;
  const std::string file = path.toStdString();
  std::error_code error;
  if (std::filesystem::equivalent(file, m_book->path(), error)) return tr("%1 is the book that cannot be written: choose another name").arg(path);
  auto lock = BookLock::take(file);
  if (!lock) return tr("%1 is open in another window: choose another name").arg(path);
  auto folder = TemporaryFolder::beside(file);
  if (!folder) return said(folder.problem());
  const std::vector<Outbox::Entry> waiting = m_outbox ? m_outbox->takeAll() : std::vector<Outbox::Entry>();
  const auto keepWaiting = [&] {
    if (m_outbox)
      for (const Outbox::Entry& e : waiting) m_outbox->put(e.key, e.job);
  };
  const std::string part = folder->path() + "/book.muffle";
  const Status made = beside([&]() -> Status {
    const bool copied = static_cast<bool>(m_book->copyTo(part)); // the old one may be out of reach altogether
    if (!copied) std::filesystem::remove(part, error);
    auto book = Book::open(part, Book::Mode::create, Book::Check::opened);
    if (!book) return book.problems();
    if (!copied) {
      if (auto id = book->addPlan(plan); !id) return id.problems();
      if (log)
        if (auto id = book->addLog(*log); !id) return id.problems();
    }
    for (const Outbox::Entry& e : waiting)
      if (auto ok = e.job(*book); !ok && ok.problem().kind == ProblemKind::storage) return ok;
    if (const auto plans = book->plans(); !plans || plans->empty())
      return Problem{ProblemKind::storage, file, Message{"book.not-written"}, Message{"book.choose-another-place"}};
    return Done{};
  });
  if (!made) {
    keepWaiting();
    return said(made.problem());
  }
  std::filesystem::rename(part, file, error);
  if (error) {
    keepWaiting();
    return tr("%1 cannot be written: %2").arg(path, QString::fromStdString(error.message()));
  }
  auto book = Book::open(file, Book::Mode::existing, Book::Check::opened);
  auto writer = book ? Book::open(file, Book::Mode::existing, Book::Check::opened) : Result<Book>(book.problems());
  if (!writer) {
    book = writer.problems();
    keepWaiting();
    return said(book.problem());
  }
  m_planId = book->plans()->front().id;
  m_outbox.reset();
  m_book = std::move(*book);
  m_book->setPatience(kReadingPatience_ms);
  m_lock.reset();
  own(std::move(*writer));
  emit moved();
  emit savingChanged();
  return std::nullopt;
}

/// While another window holds the book: what it has done since, and whether it has gone.
void BookKeeping::followWindow() {
  if (!m_book) return m_followTimer.stop();
  if (BookLock::take(m_book->path())) { // it is ours now, as it stands
    emit letGo(path());
    return;
  }
  const auto version = m_book->version();
  if (!version || *version == m_seenVersion) return;
  m_seenVersion = *version;
  if (const auto plans = m_book->plans(); plans && !plans->empty()) emit planChangedElsewhere(plans->front().plan);
  const auto digest = m_book->logDigest();
  if (!digest || *digest == m_seenLog) return;
  m_seenLog = *digest;
  auto logs = beside([this] { return m_book->logs(); });
  if (!logs) return;
  emit logChangedElsewhere(logs->empty() ? nullptr : std::make_shared<const Log>(std::move(logs->back().log)));
}

std::optional<QString> BookKeeping::whyNotChangeable() const {
  if (!m_book) return tr("No book is open: open one, or begin a new one.");
  if (isFollowingWindow()) return heldElsewhere();
  return std::nullopt;
}

QString BookKeeping::heldElsewhere() { return tr("This book is open in another window, and is changed there. Close that window, or work on a copy."); }

void BookKeeping::saveLog(std::shared_ptr<const Log> log) {
  if (m_outbox) m_outbox->put("log", [log = std::move(log)](Book& book) { return book.replaceLogs(log.get()); }, {"flags"});
}

void BookKeeping::saveFlags(std::shared_ptr<const Log> log) {
  if (!m_outbox) return;
  m_outbox->put("flags", [log = std::move(log)](Book& book) -> Status {
    const auto id = book.newestLog();
    if (!id) return id.problems();
    return book.saveFlags(*id, *log);
  });
}

void BookKeeping::savePlan(const Plan& plan) {
  if (m_outbox) m_outbox->put("plan", [id = m_planId, plan](Book& book) { return book.savePlan(id, plan); });
}

void BookKeeping::keepState(const QString& why, const Plan& plan, bool onlyIfLongAgo) {
  constexpr qint64 kLongAgo_s = 15 * 60;
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  if (!m_outbox || (onlyIfLongAgo && now - m_stateKept_s < kLongAgo_s)) return;
  m_stateKept_s = now;
  m_outbox->putToStay([why = why.toStdString(), now, plan](Book& book) -> Status { return doneIf(book.keepState(why, now, plan)); });
}

std::vector<Recipe> BookKeeping::recipes() const {
  if (!m_book) return {};
  if (m_outbox) m_outbox->waitUntilWritten(kReadAfter_ms);
  auto all = m_book->recipes();
  return all ? std::move(*all) : std::vector<Recipe>();
}

void BookKeeping::keepRecipe(const Recipe& recipe) {
  if (m_outbox) m_outbox->put("recipe " + recipe.name, [recipe](Book& book) { return book.saveRecipe(recipe); });
}

void BookKeeping::keepSnapshot(const QString& name, const Plan& plan) {
  if (!m_outbox) {
    const auto why = whyNotChangeable();
    return emit trouble(why ? *why : whyNotSaved().value_or(QString()));
  }
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  m_outbox->putToStay([name = name.toStdString(), now, plan](Book& book) -> Status { return doneIf(book.addSnapshot(name, now, plan)); });
}

std::vector<Snapshot> BookKeeping::earlierStates() const {
  if (!m_book) return {};
  if (m_outbox) m_outbox->waitUntilWritten(kReadAfter_ms);
  auto all = m_book->snapshots();
  if (!all) return {};
  std::reverse(all->begin(), all->end());
  return std::move(*all);
}

Result<Log> BookKeeping::logOf(const Snapshot& state) const {
  return beside([&] { return m_book->logOf(state); });
}

void BookKeeping::saveSetting(const char* key, const QString& value) {
  if (m_outbox)
    m_outbox->put(std::string("setting ") + key, [key = std::string(key), value = value.toStdString()](Book& book) { return book.setSetting(key, value); });
}

} // namespace muffle
