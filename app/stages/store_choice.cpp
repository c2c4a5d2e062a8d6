// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_choice.h"

#include <algorithm>

namespace muffle {

std::optional<std::size_t> StoreChoice::place() const {
  const auto all = storesOf(m_document.plan());
  if (all.empty()) return std::nullopt;
  const auto it = std::find_if(all.begin(), all.end(), [this](const StoreRef& s) { return s.id == m_id; });
  return it == all.end() ? 0 : static_cast<std::size_t>(it - all.begin());
}

std::optional<StoreRef> StoreChoice::now() const {
  const auto at = place();
  return at ? std::optional(storesOf(m_document.plan())[*at]) : std::nullopt;
}

std::optional<StoreRef> StoreChoice::of(StoreKind kind) const {
  if (auto chosen = now(); chosen && chosen->kind == kind) return chosen;
  for (const StoreRef& s : storesOf(m_document.plan()))
    if (s.kind == kind) return s;
  return std::nullopt;
}

void StoreChoice::choose(const std::string& id) {
  m_id = id;
  emit chosen();
}

} // namespace muffle
