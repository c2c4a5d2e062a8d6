// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/pile_fit.h"

#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/yard.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle {
namespace {

Plan yard() {
  Plan p = testing::yard();
  CompostPile pile;
  pile.recipe = {{"horse-manure", 1200.0, {}}, {"straw", 80.0, {}}};
  p.compost.push_back(pile);
  return p;
}

TEST(PileFit, FindsTheRateThatMadeTheReadings) {
  Plan truth = yard();
  const auto weather = testing::frost(truth.site);
  truth.compost[0].k20Factor = 1.7;
  const Simulation run = *simulate(truth, makeScene(weather, truth), {.series = true});
  Log log;
  const Winter& w = weather->winters.front();
  Channel core{.name = "pile", .role = Role::store, .id = "compost", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  for (std::size_t i = 0; i < w.size(); ++i) {
    log.time.push_back(w.time(i));
    core.raw.push_back(run.series.front().stores.front().temperature_C[0][i]);
  }
  core.flag.assign(core.raw.size(), 0);
  log.channels.push_back(core);
  const auto fit = fitPile(yard(), log, weather, 0);
  ASSERT_TRUE(fit) << english(fit.problem());
  EXPECT_NEAR(fit->k20Factor, 1.7, 0.05); // golden section to 1 %, readings in floats
  EXPECT_LT(fit->after_K, 0.1 * fit->before_K);
}

TEST(PileFit, SaysWhatIsMissing) {
  const auto weather = testing::frost(yard().site);
  EXPECT_FALSE(fitPile(yard(), Log{}, weather, 0));
  EXPECT_TRUE(english(fitPile(yard(), Log{}, weather, 0).problem()).find("store:compost1") != std::string::npos);
}

} // namespace
} // namespace muffle
