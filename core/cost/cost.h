// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a plan costs each winter. Kit is spread over its life by the annuity a = i/(1 - (1+i)^-n) (engineering economics).
#pragma once

#include "core/plan/plan.h"
#include "core/results/ledger.h"

#include <cmath>
#include <string_view>

namespace muffle {

/// What costs, hours and heat "a winter" are stated for.
constexpr double kWinterDays = 182.0;

/// Whether what is given for a winter was reckoned up from fewer days or shared out of more, and is not a mean of whole winters within a
/// tenth. Then it is to be said by what: the days that were logged, and how many times a winter has as many.
inline bool isScaledToWinter(double winters) {
  const double whole = std::max(1.0, std::round(winters));
  return std::abs(winters - whole) > 0.1 * whole;
}

/// Yearly payment per unit of capital; 1/years at no interest. rate >= 0, years > 0.
double annuityFactor(double rate, double years);

/// Present value and equal yearly cost of a purchase and a yearly cost that grows at `escalation`, paid at year ends.
struct LifeCost {
  double presentRunning;
  double presentTotal;
  double equalYearly;
};
LifeCost lifeCost(double capital, double yearlyCost, double rate, double escalation, double years);

struct Cost {
  double energy = 0.0; ///< money a winter
  double spread = 0.0; ///< of that, what may come on top or off by the ranges of prices
  double kit = 0.0;
  double hours = 0.0;      ///< hours a winter
  double hoursMoney = 0.0; ///< at the grower's own rate
  double carbon_kg = 0.0;  ///< carbon dioxide a winter, of electricity and what is fossil; what grows again counts nothing
  double carbon = 0.0;     ///< money for it, where the plan has a price
  [[nodiscard]] double total() const { return energy + kit + hoursMoney + carbon; }
};

/// A line of what has been bought.
struct Bought {
  Message name;
  double capital = 0.0;
  double life_years = 5.0;
  double hoursPerWinter = 0.0;
};

/// What has been bought with a plan: its kit, and what of heaters and stores has a price.
std::vector<Bought> kitOf(const Plan& plan);

/// Of what the ledger of so many winters says, and the kit. `plan` for its heaters' fuels; `prices` need not be its own.
Cost winterCost(const Plan& plan, const Prices& prices, const Ledger& ledger, double winters, const std::vector<Bought>& kit);

/// Of all winters together: what the fans, pumps and cables of a store took, by its place among storesOf().
double moneyOfStore(const Ledger& ledger, const Plan& plan, std::size_t store);

/// A skin bought anew, by the prices of its layers' materials.
struct SkinCost {
  double capital = 0.0;
  int priced = 0; ///< layers that have a price
};
SkinCost skinCost(const Skin& skin, double area_m2, const Prices& prices);

/// nullptr where the material has none.
const MaterialPrice* priceOf(const Prices& prices, std::string_view material);
/// The same to be changed; put there if it has none.
MaterialPrice& priceOf(Prices& prices, std::string_view material);

} // namespace muffle
