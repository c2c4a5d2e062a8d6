// SPDX-License-Identifier: GPL-3.0-or-later
//
// What whole houses are usually covered with: roof, sides and ends alike.
#pragma once

#include "core/plan/plan.h"

#include <span>
#include <string_view>

namespace muffle {

struct UsualCover {
  std::string_view id;
  Skin skin;
};

std::span<const UsualCover> usualCovers();
Message nameOf(const UsualCover& cover);

/// Roof, sides and ends of this skin; a back wall stays as it is.
void coverWith(House& house, const Skin& skin);

/// The usual cover that all of roof, sides and ends have, or nullptr.
const UsualCover* usualCoverOf(const House& house);

} // namespace muffle
