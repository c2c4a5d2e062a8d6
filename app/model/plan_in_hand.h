// SPDX-License-Identifier: GPL-3.0-or-later
//
// The plan in hand and what can be undone. Every change is a named step that is checked, kept in the book, and refused with a reason where it
// cannot be.
#pragma once

#include "app/model/units.h"
#include "core/material/materials.h"
#include "core/plan/plan.h"

#include <QObject>
#include <QString>
#include <QUndoStack>

#include <functional>
#include <optional>
#include <utility>

namespace muffle {

class BookKeeping;

class PlanInHand : public QObject {
  Q_OBJECT
public:
  /// `units` are those in which a refusal says its limits.
  PlanInHand(BookKeeping& book, std::function<Units()> units, QObject* parent = nullptr) : QObject(parent), m_book(book), m_units(std::move(units)) {}
  ~PlanInHand() override { m_undo.clear(); }

  /// A plan just read: nothing is behind it.
  void start(const Plan& plan);
  /// What another window did to it.
  void follow(const Plan& plan);

  [[nodiscard]] const Plan& plan() const { return m_plan; }
  /// What the plan may be made of.
  [[nodiscard]] Materials materials() const { return Materials(m_plan.materials); }
  [[nodiscard]] TimeZone zone() const;

  /// A change as one step to undo, or a reason why not. Steps of one merge id that follow each other are one, until finishEdit().
  std::optional<QString> edit(const QString& name, const std::function<void(Plan&)>& change, int mergeId = -1);
  /// Ends a run of merged edits, such as a drag.
  void finishEdit() { ++m_mergeEpoch; }
  /// A plan that was valid before takes this one's place; a step to undo.
  void replace(const QString& name, const Plan& plan);
  QUndoStack* undoStack() { return &m_undo; }

signals:
  void changed(const Plan& before);

private:
  class Edit;
  void apply(const Plan& plan);

  BookKeeping& m_book;
  std::function<Units()> m_units;
  Plan m_plan;
  int m_mergeEpoch = 0;
  QUndoStack m_undo;
};

} // namespace muffle
