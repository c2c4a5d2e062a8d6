// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/usual_covers.h"

#include <algorithm>
#include <vector>

namespace muffle {

std::span<const UsualCover> usualCovers() {
  constexpr double kBlown_m = 0.10;  // between two films held apart by a fan
  constexpr double kPinned_m = 0.02; // wrap pinned to the bars
  const auto skin = [](std::vector<Layer> layers) { return Skin{std::move(layers)}; };
  const auto one = [&](const char* material) { return skin({{.material = material, .gap_m = Layer{}.gap_m}}); };
  const auto two = [&](const char* outside, double gap_m, const char* inside) {
    return skin({{.material = outside, .gap_m = gap_m}, {.material = inside, .gap_m = Layer{}.gap_m}});
  };
  static const std::vector<UsualCover> covers{
      {"one-film", one("pe-film")},
      {"one-heat-holding-film", one("pe-film-ir")},
      {"two-films-blown-apart", two("pe-film", kBlown_m, "pe-film-ir")},
      {"one-film-bubble-wrap-within", two("pe-film", kPinned_m, "bubble-wrap")},
      {"single-glass", one("glass-4mm")},
      {"glass-bubble-wrap-within", two("glass-4mm", kPinned_m, "bubble-wrap")},
      {"sealed-double-glass", one("sealed-glass")},
      {"twin-wall-sheet-8-mm", one("twin-wall-8")},
      {"twin-wall-sheet-16-mm", one("twin-wall-16")},
      {"multi-wall-sheet-32-mm", one("multi-wall-32")},
  };
  return covers;
}

void coverWith(House& house, const Skin& skin) { house.roof = house.sides = house.ends = skin; }

const UsualCover* usualCoverOf(const House& house) {
  if (!(house.roof == house.sides) || !(house.roof == house.ends)) return nullptr;
  const auto covers = usualCovers();
  const auto it = std::find_if(covers.begin(), covers.end(), [&](const UsualCover& c) { return c.skin == house.roof; });
  return it == covers.end() ? nullptr : &*it;
}

Message nameOf(const UsualCover& cover) { return Message::of("cover", cover.id); }

} // namespace muffle
