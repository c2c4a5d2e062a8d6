// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters chosen on a trace: what they carry is the load, and none that was not chosen is cheaper.
#include "core/sizing/heater_choice.h"
#include "tests/support/near.h"

#include <algorithm>
#include <numeric>
#include <random>

namespace muffle {
namespace {

struct Trace {
  std::vector<HeaterOffer> offers;
  std::vector<double> load_kW;
};

/// Three kinds with prices by hour, one that fails in the cold, over twenty days.
Trace randomProblem(unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> uniform(0.0, 1.0);
  Trace p;
  const std::size_t hours = 24 * 20;
  for (std::size_t h = 0; h < hours; ++h) p.load_kW.push_back(std::max(0.0, 4.0 * uniform(random) - 1.0));
  for (int k = 0; k < 3; ++k) {
    HeaterOffer offer{.capital_kW = 5.0 + 60.0 * uniform(random), .price_kWh = {}, .perStartDay = 2.0 * uniform(random), .step_kW = 0.5};
    const double day = 0.05 + 0.4 * uniform(random), night = 0.05 + 0.2 * uniform(random);
    for (std::size_t h = 0; h < hours; ++h) offer.price_kWh.push_back(h % 24 < 7 ? night : day);
    if (k == 1)
      for (const double load : p.load_kW) offer.capacity.push_back(load > 2.5 ? 0.0 : 1.0);
    p.offers.push_back(std::move(offer));
  }
  return p;
}

TEST(HeaterChoiceOnATrace, CarriesEveryHourAndItsBillIsItsHeat) {
  for (unsigned seed = 0; seed < 30; ++seed) {
    const Trace p = randomProblem(seed);
    const auto chosen = chooseHeaters(p.offers, p.load_kW, {.maxUnits = 2, .maxSteps = 8});
    ASSERT_TRUE(chosen) << seed;
    const double demand = std::accumulate(p.load_kW.begin(), p.load_kW.end(), 0.0);
    EXPECT_CLOSE(std::accumulate(chosen->best.heat_kWh.begin(), chosen->best.heat_kWh.end(), 0.0), demand, 1e-6, "what is left of an hour");
    ASSERT_TRUE(chosen->second);
    EXPECT_GE(chosen->second->cost, chosen->best.cost);
    for (const auto& alone : chosen->alone) EXPECT_GE(alone.value_or(1e9), chosen->best.cost - 1e-9) << "one alone is among the choices";
    EXPECT_FALSE(chosen->alone[1] && *std::max_element(p.load_kW.begin(), p.load_kW.end()) > 2.5) << "what stops in the cold carries no winter alone";
  }
}

TEST(HeaterChoiceOnATrace, NoPairByHandIsCheaper) {
  for (unsigned seed = 0; seed < 10; ++seed) {
    const Trace p = randomProblem(seed + 100);
    const auto chosen = chooseHeaters(p.offers, p.load_kW, {.maxUnits = 2, .maxSteps = 8});
    ASSERT_TRUE(chosen);
    for (std::size_t a = 0; a < 3; ++a)
      for (std::size_t b = 0; b < 3; ++b)
        for (int n = 1; n <= 8 && a != b; ++n)
          for (int m = 1; m <= 8; ++m) {
            const auto pair = carried(p.offers, p.load_kW, {{a, n}, {b, m}});
            EXPECT_GE(pair ? pair->cost : 1e9, chosen->best.cost - 1e-9);
          }
  }
}

TEST(HeaterChoiceOnATrace, WithAnyOneOutTheOthersCarryAndItCostsMore) {
  for (unsigned seed = 0; seed < 10; ++seed) {
    Trace p = randomProblem(seed);
    for (HeaterOffer& offer : p.offers) offer.capacity.clear();
    const auto one = chooseHeaters(p.offers, p.load_kW, {.maxUnits = 2, .maxSteps = 8});
    const auto safe = chooseHeaters(p.offers, p.load_kW, {.maxUnits = 2, .maxSteps = 8, .anyOneOut = true});
    ASSERT_TRUE(one && safe);
    EXPECT_EQ(safe->best.units.size(), 2U);
    EXPECT_GE(safe->best.cost, one->best.cost - 1e-9);
    const double peak = *std::max_element(p.load_kW.begin(), p.load_kW.end());
    for (const HeaterUnit& u : safe->best.units) EXPECT_GE(p.offers[u.offer].step_kW * u.steps, peak - 1e-9);
  }
}

TEST(HeaterChoiceOnATrace, NothingCarriesWhatIsTooMuch) {
  Trace p = randomProblem(1);
  p.load_kW[5] = 100.0;
  EXPECT_FALSE(chooseHeaters(p.offers, p.load_kW, {.maxUnits = 2, .maxSteps = 8}));
}

} // namespace
} // namespace muffle
