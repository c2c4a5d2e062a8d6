// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/log_in_hand.h"

#include "app/model/background.h"
#include "app/model/book_keeping.h"
#include "app/model/plan_in_hand.h"
#include "app/model/said.h"
#include "core/log/merge.h"
#include "core/log/recipe.h"

#include <QLocale>
#include <QUndoCommand>

#include <algorithm>
#include <utility>

namespace muffle {
namespace {
bool sameFlags(const Log& a, const Log& b) {
  return std::equal(a.channels.begin(), a.channels.end(), b.channels.begin(), b.channels.end(),
                    [](const Channel& x, const Channel& y) { return x.flag == y.flag; }) &&
         recordToJson(a) == recordToJson(b);
}
} // namespace

/// Another log, or more of it.
class LogInHand::Change : public QUndoCommand {
public:
  Change(LogInHand& inHand, const QString& name, std::shared_ptr<const Log> after)
      : QUndoCommand(name), m_inHand(inHand), m_before(inHand.m_log.log), m_after(std::move(after)) {}
  void redo() override { m_inHand.apply(m_after); }
  void undo() override { m_inHand.apply(m_before); }

private:
  LogInHand& m_inHand;
  std::shared_ptr<const Log> m_before, m_after;
};

/// The grower's word on stretches of it.
class LogInHand::Decided : public QUndoCommand {
public:
  Decided(LogInHand& inHand, const QString& name, std::vector<Decision> after)
      : QUndoCommand(name), m_inHand(inHand), m_before(inHand.m_log.log->decisions), m_after(std::move(after)) {}
  void redo() override { m_inHand.applyDecisions(m_after); }
  void undo() override { m_inHand.applyDecisions(m_before); }

private:
  LogInHand& m_inHand;
  std::vector<Decision> m_before, m_after;
};

LogInHand::LogInHand(BookKeeping& book, PlanInHand& plan, QObject* parent)
    : QObject(parent), m_book(book), m_plan(plan), m_background(std::make_unique<Background>()) {}

LogInHand::~LogInHand() = default;

void LogInHand::start(std::shared_ptr<const Log> log) {
  m_log = {};
  m_log.log = log;
  prepare(std::move(log), Save::flags);
}

std::optional<QString> LogInHand::set(Log log) {
  if (log.time.empty()) return tr("the log has no readings");
  if (m_book.isFollowingWindow()) return BookKeeping::heldElsewhere();
  m_book.keepState(tr("before a log was imported"), m_plan.plan());
  replace(tr("import a log"), std::make_shared<const Log>(std::move(log)));
  return std::nullopt;
}

std::optional<QString> LogInHand::add(const QString& what, const Log& more) {
  if (more.time.empty()) return tr("there are no readings in it");
  if (m_book.isFollowingWindow()) return BookKeeping::heldElsewhere();
  if (!m_log.log) {
    replace(what, std::make_shared<const Log>(more));
    return std::nullopt;
  }
  Merged merged = mergeLogs(*m_log.log, more);
  const QLocale locale;
  const QString said =
      tr("%1 new readings; %2 were there already")
          .arg(locale.toString(static_cast<qlonglong>(merged.added)), locale.toString(static_cast<qlonglong>(merged.same))) +
      (merged.different > 0 ? tr("; %1 differ from those, which stay").arg(locale.toString(static_cast<qlonglong>(merged.different))) : QString());
  if (merged.added > 0) replace(what, std::make_shared<const Log>(std::move(merged.log)));
  emit told(said);
  return std::nullopt;
}

void LogInHand::replace(const QString& name, std::shared_ptr<const Log> log) { m_plan.undoStack()->push(new Change(*this, name, std::move(log))); }

void LogInHand::followed(const Log& more) {
  if (more.time.empty() || m_book.isFollowingWindow()) return;
  if (!m_log.log) return apply(std::make_shared<const Log>(more));
  Merged merged = mergeLogs(*m_log.log, more);
  if (merged.added == 0) return;
  m_log.log = std::make_shared<const Log>(std::move(merged.log)); // at once, so that what is decided next is decided of it; the flags follow
  emit revised();
  prepare(m_log.log, Save::log);
}

void LogInHand::decide(const QString& name, const std::vector<Decision>& decisions) {
  if (!m_log.log || decisions.empty()) return;
  if (m_book.isFollowingWindow()) return emit trouble(BookKeeping::heldElsewhere());
  std::vector<Decision> all = m_log.log->decisions;
  all.insert(all.end(), decisions.begin(), decisions.end());
  m_plan.undoStack()->push(new Decided(*this, name, std::move(all)));
}

void LogInHand::apply(std::shared_ptr<const Log> log) {
  m_log = {};
  m_log.log = log;
  prepare(std::move(log), Save::log);
  emit replaced();
}

void LogInHand::applyDecisions(const std::vector<Decision>& decisions) {
  if (!m_log.log) return;
  auto log = std::make_shared<Log>(*m_log.log);
  log->decisions = decisions;
  m_log.log = log; // at once, so that the next decision builds on this one; the flags follow
  emit revised();
  m_book.saveFlags(log); // the grower's word at once, the flags that follow from it when they are known
  prepare(std::move(log), Save::flags);
}

void LogInHand::setFollowedFile(const QString& path) {
  m_followedFile = path;
  m_book.saveSetting("log.followed", path);
}

void LogInHand::setStation(const QString& address) {
  m_station = address;
  m_book.saveSetting("log.station", address);
}

void LogInHand::restoreSources(const QString& file, const QString& station) {
  m_followedFile = file;
  m_station = station;
}

void LogInHand::cutNightsAgain() {
  if (!m_log.log || m_preparing) return;
  const Plan& plan = m_plan.plan();
  if (const auto zone = TimeZone::named(plan.site.timeZone)) m_log.nights = cutNights(*m_log.log, plan.site.place, *zone, plan.setpoints.hold_C);
  emit nightsCut();
}

void LogInHand::prepareAgain() {
  if (m_log.log) prepare(m_log.log, Save::nothing);
}

/// Works out what hangs on the log on the background thread; its flags are then saved where asked.
void LogInHand::prepare(std::shared_ptr<const Log> raw, Save save) {
  const quint64 generation = ++m_generation;
  m_preparing = raw != nullptr;
  if (save == Save::log) m_book.saveLog(raw); // at once, and its flags when they are known
  if (!raw) return;
  const Plan& plan = m_plan.plan();
  m_background->post([this, generation, raw = std::move(raw), save, site = plan.site, hold = plan.setpoints.hold_C](const std::stop_token& stop) {
    auto prepared = prepareLog(*raw, site, hold, stop);
    if (!prepared) return; // the window is closing
    QMetaObject::invokeMethod(
        this, [this, generation, prepared = std::move(*prepared), save] { take(generation, prepared, save); }, Qt::QueuedConnection);
  });
}

void LogInHand::take(quint64 generation, PreparedLog done, Save save) {
  if (generation != m_generation) return; // another log or site has taken its place
  m_preparing = false;
  // a window that was closed too soon leaves a log without its flags: they are made good when it is opened again
  if (save != Save::nothing && !sameFlags(*m_log.log, *done.log)) m_book.saveFlags(done.log);
  m_log = std::move(done);
  if (m_log.whyNoWeather) emit trouble(said(*m_log.whyNoWeather));
  emit prepared();
}

} // namespace muffle
