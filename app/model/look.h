// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where a value stands in a plan, told once for reading and for writing.
#pragma once

#include "core/plan/plan.h"

#include <functional>

namespace muffle {

/// The value's place, or nullptr where the plan has none. It must not change the plan.
template <class T> using Find = std::function<T*(Plan&)>;

template <class T> const T* look(const Find<T>& find, const Plan& plan) { return find(const_cast<Plan&>(plan)); }

} // namespace muffle
