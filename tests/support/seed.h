// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdlib>

namespace muffle::testing {

/// Of random damage: the same in every run of the tests, another in every round of scripts/attack.
inline unsigned seed(unsigned base) {
  const char* const round = std::getenv("MUFFLE_ROUND");
  return base + (round ? 1000U * static_cast<unsigned>(std::atoi(round)) : 0U);
}

} // namespace muffle::testing
