// SPDX-License-Identifier: GPL-3.0-or-later
//
// The steps that can be undone: each holds what was before and what is after.
#pragma once

#include "app/model/document.h"

#include <QUndoCommand>

#include <memory>
#include <utility>
#include <vector>

namespace muffle {

class EditCommand : public QUndoCommand {
public:
  EditCommand(Document& document, const QString& name, Plan before, Plan after, int mergeId, int epoch)
      : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)), m_mergeId(mergeId), m_epoch(epoch) {}
  void redo() override { m_document.applyPlan(m_after); }
  void undo() override { m_document.applyPlan(m_before); }
  int id() const override { return m_mergeId; }
  bool mergeWith(const QUndoCommand* later) override {
    const auto* other = static_cast<const EditCommand*>(later);
    if (other->m_mergeId != m_mergeId || other->m_epoch != m_epoch) return false;
    m_after = other->m_after;
    return true;
  }

private:
  Document& m_document;
  Plan m_before, m_after;
  int m_mergeId, m_epoch;
};

class LogCommand : public QUndoCommand {
public:
  LogCommand(Document& document, const QString& name, std::shared_ptr<const Log> before, std::shared_ptr<const Log> after)
      : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)) {}
  void redo() override { m_document.applyLog(m_after); }
  void undo() override { m_document.applyLog(m_before); }

private:
  Document& m_document;
  std::shared_ptr<const Log> m_before, m_after;
};

class DecisionCommand : public QUndoCommand {
public:
  DecisionCommand(Document& document, const QString& name, std::vector<Decision> before, std::vector<Decision> after)
      : QUndoCommand(name), m_document(document), m_before(std::move(before)), m_after(std::move(after)) {}
  void redo() override { m_document.applyDecisions(m_after); }
  void undo() override { m_document.applyDecisions(m_before); }

private:
  Document& m_document;
  std::vector<Decision> m_before, m_after;
};

} // namespace muffle
