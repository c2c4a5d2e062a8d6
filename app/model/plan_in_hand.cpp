// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/plan_in_hand.h"

#include "app/model/book_keeping.h"
#include "app/model/said.h"
#include "core/plan/plan_json.h"

#include <QUndoCommand>

#include <utility>

namespace muffle {

/// One change of the plan.
class PlanInHand::Edit : public QUndoCommand {
public:
  Edit(PlanInHand& inHand, const QString& name, Plan after, int mergeId)
      : QUndoCommand(name), m_inHand(inHand), m_before(inHand.m_plan), m_after(std::move(after)), m_mergeId(mergeId), m_epoch(inHand.m_mergeEpoch) {}
  void redo() override { m_inHand.apply(m_after); }
  void undo() override { m_inHand.apply(m_before); }
  int id() const override { return m_mergeId; }
  bool mergeWith(const QUndoCommand* later) override {
    const auto* other = static_cast<const Edit*>(later);
    if (other->m_mergeId != m_mergeId || other->m_epoch != m_epoch) return false;
    m_after = other->m_after;
    return true;
  }

private:
  PlanInHand& m_inHand;
  Plan m_before, m_after;
  int m_mergeId, m_epoch;
};

void PlanInHand::start(const Plan& plan) {
  m_undo.clear();
  m_plan = plan;
}

void PlanInHand::follow(const Plan& plan) {
  if (!(plan == m_plan)) apply(plan);
}

TimeZone PlanInHand::zone() const {
  auto zone = TimeZone::named(m_plan.site.timeZone);
  return zone ? *zone : TimeZone::utc();
}

std::optional<QString> PlanInHand::edit(const QString& name, const std::function<void(Plan&)>& change, int mergeId) {
  Plan after = m_plan;
  change(after);
  if (after == m_plan) return std::nullopt; // nothing to undo
  const auto refused = [units = m_units()](const Problem& p) { return tr("%1: %2").arg(said(p.what, units), said(p.allowed, units)); };
  if (const Problems problems = check(after); !problems.empty()) return refused(problems.front());
  if (const auto readable = planFromJson(planToJson(after)); !readable) return refused(readable.problem()); // what is saved can be opened again
  if (auto why = m_book.whyNotChangeable()) return why;
  m_book.keepState(tr("before \"%1\"").arg(name), m_plan, true);
  m_undo.push(new Edit(*this, name, std::move(after), mergeId));
  return std::nullopt;
}

void PlanInHand::replace(const QString& name, const Plan& plan) { m_undo.push(new Edit(*this, name, plan, -1)); }

void PlanInHand::apply(const Plan& plan) {
  const Plan before = std::exchange(m_plan, plan);
  m_book.savePlan(m_plan);
  emit changed(before);
}

} // namespace muffle
