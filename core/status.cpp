// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/status.h"

namespace muffle {

Problem::Problem() = default;
Problem::Problem(ProblemKind k, std::string place, Message said, Message right)
    : kind(k), where(std::move(place)), what(std::move(said)), allowed(std::move(right)) {}
Problem::Problem(const Problem& other) = default;
Problem::Problem(Problem&& other) noexcept = default;
Problem& Problem::operator=(const Problem& other) = default;
Problem& Problem::operator=(Problem&& other) noexcept = default;
Problem::~Problem() = default;
bool Problem::operator==(const Problem&) const = default;

Message asMessage(const Problem& p) {
  if (p.where.empty()) return p.allowed.empty() ? p.what : Message{"problem.allowed", p.what, p.allowed};
  return p.allowed.empty() ? Message{"problem.at", p.where, p.what} : Message{"problem.at-allowed", p.where, p.what, p.allowed};
}

} // namespace muffle
