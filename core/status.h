// SPDX-License-Identifier: GPL-3.0-or-later
//
// Expected failures as values. A Problem names the thing, its place and what is allowed; a Result<T> is either a
// value or the problems that prevented it. Exceptions are left to libraries and are caught where they are called.
//
//   Result<Plan> plan = planFromJson(text);
//   if (!plan) return plan.problems();
//   use(*plan);
#pragma once

#include "core/message.h"

#include <cassert>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace muffle {

/// What the caller can do about it.
enum class ProblemKind {
  badInput,   ///< the value itself is wrong: mend the input
  missing,    ///< something required is not there: supply it
  noSolution, ///< the input is sound but has no answer: change the question
  storage,    ///< reading or writing failed: retry or choose another place
  cancelled,  ///< the caller asked to stop; nothing was written
  damaged,    ///< what was stored is no longer what was written: save what can be
};

/// One thing that is wrong. `where` is a JSON pointer, a line number or a file; never empty when known.
struct Problem {
  ProblemKind kind = ProblemKind::badInput;
  std::string where;
  Message what;    ///< what is wrong, naming the value
  Message allowed; ///< what would be right

  Problem();
  Problem(ProblemKind kind, std::string where, Message what, Message allowed = {});
  Problem(const Problem& other);
  Problem(Problem&& other) noexcept;
  Problem& operator=(const Problem& other);
  Problem& operator=(Problem&& other) noexcept;
  ~Problem();
  bool operator==(const Problem&) const;
};

/// As something that is said within another message.
Message asMessage(const Problem& p);

using Problems = std::vector<Problem>;

/// Either a value or at least one problem.
template <class T> class [[nodiscard]] Result {
public:
  Result(T value) : m_state(std::move(value)) {}
  Result(Problem problem) : m_state(Problems{std::move(problem)}) {}
  Result(Problems problems) : m_state(std::move(problems)) { assert(!std::get<Problems>(m_state).empty()); }

  [[nodiscard]] bool hasValue() const { return std::holds_alternative<T>(m_state); }
  explicit operator bool() const { return hasValue(); }
  T& operator*() { return std::get<T>(m_state); }
  const T& operator*() const { return std::get<T>(m_state); }
  T* operator->() { return &std::get<T>(m_state); }
  const T* operator->() const { return &std::get<T>(m_state); }
  [[nodiscard]] const Problems& problems() const { return std::get<Problems>(m_state); }
  [[nodiscard]] const Problem& problem() const { return problems().front(); }

private:
  std::variant<T, Problems> m_state;
};

/// Success without a value.
struct Done {};
using Status = Result<Done>;

} // namespace muffle
