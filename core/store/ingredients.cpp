// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/store/ingredients.h"

#include <algorithm>
#include <array>

namespace muffle {

namespace {

// Moisture, nitrogen, C:N and bulk: R. Rynk (ed.), On-Farm Composting Handbook, NRAES-54 (1992), appendix A, typical value and
// range. Degradable share: 0.83 - 0.028 lignin (per cent of volatile solids), Chandler et al., Biotechnology and Bioengineering
// Symp. 10 (1980) 93, less for what lies inside thick pieces. Rates: Haug (1993), table 9.4 and ch. 11, sorted by kind.
constexpr const char* kHandbook = "NRAES-54 (1992), appendix A; degradable by lignin, Chandler et al. (1980); rate by kind, Haug (1993)";
constexpr const char* kEstimated = "NRAES-54 (1992), appendix A for C:N; the rest as measured on heaps of the kind, wide";

constexpr std::array<CompostIngredient, 12> kIngredients{{
    {"horse-manure", 0.68, 0.59, 0.79, 0.016, 30, 22, 50, 600, 0.80, 0.45, 0.35, 0.008, true, 90, "barrow", kHandbook},
    {"cattle-manure", 0.81, 0.67, 0.87, 0.024, 19, 11, 30, 865, 0.82, 0.45, 0.30, 0.007, true, 90, "barrow", kHandbook},
    {"poultry-litter", 0.37, 0.22, 0.46, 0.027, 14, 12, 15, 513, 0.75, 0.55, 0.40, 0.012, true, 90, "barrow", kHandbook},
    {"straw", 0.12, 0.04, 0.27, 0.007, 80, 48, 150, 100, 0.92, 0.48, 0.10, 0.004, false, 190, "bale", kHandbook},
    {"hay", 0.15, 0.08, 0.30, 0.021, 22, 15, 32, 120, 0.91, 0.55, 0.25, 0.006, false, 190, "bale", kHandbook},
    {"grass", 0.80, 0.70, 0.85, 0.034, 17, 9, 25, 300, 0.88, 0.65, 0.50, 0.012, false, 90, "barrow", kHandbook},
    {"leaves", 0.38, 0.20, 0.60, 0.009, 54, 40, 80, 180, 0.88, 0.35, 0.15, 0.004, false, 90, "barrow", kHandbook},
    {"wood-chips", 0.48, 0.30, 0.60, 0.005, 100, 70, 450, 320, 0.96, 0.25, 0.10, 0.0015, false, 90, "barrow", kEstimated},
    {"sawdust", 0.39, 0.19, 0.65, 0.0024, 442, 200, 750, 243, 0.98, 0.15, 0.05, 0.002, false, 60, "bag", kHandbook},
    {"prunings", 0.55, 0.40, 0.70, 0.010, 53, 40, 80, 254, 0.92, 0.35, 0.20, 0.004, false, 90, "barrow", kHandbook},
    {"kitchen-waste", 0.87, 0.80, 0.92, 0.027, 19, 11, 25, 700, 0.90, 0.75, 0.60, 0.015, false, 60, "tub", kHandbook},
    {"coffee-grounds", 0.60, 0.50, 0.70, 0.021, 24, 20, 28, 450, 0.95, 0.45, 0.30, 0.008, false, 20, "bucket", kEstimated},
}};

} // namespace

std::span<const CompostIngredient> compostIngredients() { return kIngredients; }

const CompostIngredient* findIngredient(std::string_view id) {
  const auto it = std::find_if(kIngredients.begin(), kIngredients.end(), [id](const CompostIngredient& i) { return id == i.id; });
  return it == kIngredients.end() ? nullptr : &*it;
}

Message nameOf(const CompostIngredient& ingredient) { return Message::of("ingredient", ingredient.id); }

} // namespace muffle
