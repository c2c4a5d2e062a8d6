// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/calibrate.h"

#include "core/fit/explain.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "tests/support/pace.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace muffle {
namespace {

Plan house() {
  Plan p = testing::filmTunnel();
  p.setpoints = {1.0, 2.0, 3.0};
  p.heaters = {{.id = "heater", .power_W = 12000.0}};
  return p;
}

Channel channel(const char* name, Role role, std::vector<float> raw) {
  Channel c{.name = name, .role = role, .id = role == Role::room ? "house" : "", .unitIn = "", .unitWhy = {}, .raw = std::move(raw), .flag = {}};
  c.flag.assign(c.raw.size(), 0);
  return c;
}

/// Five weeks of frosty weather with wind that comes and goes, and what a house of that calibration made of it.
Log logOf(const Plan& plan, const Calibration& truth, double noise_K, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> scatter(0.0, 1.0);
  Log log;
  std::vector<float> out, wind;
  double front = 0.0, gust = 0.0;
  for (int i = 0; i < 36 * 144; ++i) {
    log.time.push_back(daysSinceEpoch({2031, 1, 5}) * 86400 + 600 * i);
    front = 0.999 * front + 0.045 * scatter(random);
    gust = 0.99 * gust + 0.14 * scatter(random);
    out.push_back(static_cast<float>(-2.0 + 4.0 * front + 4.0 * std::cos(kPi * (i / 6.0 - 14.0) / 12.0)));
    wind.push_back(static_cast<float>(std::max(0.0, 2.5 + 2.0 * gust)));
  }
  log.channels = {channel("outside", Role::outside, out), channel("wind", Role::wind, wind)};
  Plan real = plan;
  real.calibration = truth;
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(log, plan.site));
  const Simulation run = *simulate(real, makeScene(weather, real), {.series = true});
  const WinterSeries& s = run.series.front();
  std::vector<float> inside(log.time.size(), std::nanf("")), heater = inside;
  const Winter& w = weather->winters.front();
  for (std::size_t i = 0; i < log.time.size(); ++i) {
    const auto step =
        static_cast<std::size_t>(std::clamp<double>(std::round(static_cast<double>(log.time[i] - w.start) / w.step_s), 0.0, static_cast<double>(w.size() - 1)));
    inside[i] = s.air_C[step] + static_cast<float>(noise_K * scatter(random));
    heater[i] = s.heater_W[std::min(step + 1, w.size() - 1)]; // of the step that begins here
  }
  log.channels.push_back(channel("house", Role::room, inside));
  log.channels.push_back(channel("heater", Role::heater, heater));
  return log;
}

std::shared_ptr<const Weather> weatherOf(const Log& log, const Plan& plan) { return std::make_shared<const Weather>(*weatherFromLog(log, plan.site)); }

double lossOf(Plan plan, const Calibration& calibration) {
  plan.calibration = calibration;
  return steadyLoss(plan, 5.0, -5.0, 2.5, 0.5)->total_W;
}

TEST(Calibrate, FindsWhatTheHouseReallyLoses) {
  const Plan plan = house();
  const Calibration truth{.skin = 1.25, .draughts = 0.7, .mass = 1.3, .ground = 1.0, .sun = 0.9, .date = ""};
  const Log log = logOf(plan, truth, 0.1, 5);
  const auto fit = calibrate(plan, log, weatherOf(log, plan));
  ASSERT_TRUE(fit) << english(fit.problem());
  EXPECT_TRUE(fit->heaterMeasured);
  EXPECT_CLOSE(lossOf(plan, fit->found) / lossOf(plan, truth), 1.0, 0.05, "five in a hundred is what a grower can use");
  for (const int f : {0, 1}) {
    Calibration real = truth, found = fit->found;
    EXPECT_CLOSE(factorOf(found, f), factorOf(real, f), 3.0 * fit->standardError[static_cast<std::size_t>(f)], "three standard errors");
  }
  ASSERT_EQ(fit->found.logCovariance.size(), 15U) << "kept with the factors, for what is asked of them later";
  for (std::size_t f = 0, diagonal = 0; f < kFactorCount; ++f, diagonal += f + 1) {
    Calibration found = fit->found;
    EXPECT_CLOSE(std::sqrt(fit->found.logCovariance[diagonal]) * factorOf(found, static_cast<int>(f)), fit->standardError[f], 1e-12, "rounding");
  }
  ASSERT_TRUE(fit->balance);
  const Log clean = logOf(plan, truth, 0.0, 5); // noise in the air's slope would make its C too small
  const auto quick = quickFit(clean, cutNights(clean, plan.site.place, *TimeZone::named("UTC")));
  ASSERT_TRUE(quick && quick->balance);
  EXPECT_CLOSE(fit->balance->UA_W_K / quick->balance->UA_W_K, 1.0, 0.05, "asked alike, the fitted house answers as the true one");
  EXPECT_LT(fit->lowAfter_K, 0.25) << "the reading's scatter, and a little";
  EXPECT_LT(fit->lowAfter_K, 0.5 * fit->lowBefore_K);
  EXPECT_GT(fit->heldOut, 10U);
}

TEST(Calibrate, FindsWhatTheHouseReallyStores) {
  if (testing::isSanitized()) GTEST_SKIP() << "it runs the code of the test above; what it finds is judged where core is optimised";
  Plan plan = house();
  plan.heaters.front().power_W = 2500.0; // always on in the cold: air that a heater holds quite level says nothing of what is stored
  const Calibration truth{.skin = 1.25, .draughts = 0.7, .mass = 1.3, .ground = 1.0, .sun = 0.9, .date = ""};
  const Log log = logOf(plan, truth, 0.1, 5), clean = logOf(plan, truth, 0.0, 5);
  const auto fit = calibrate(plan, log, weatherOf(log, plan));
  ASSERT_TRUE(fit && fit->balance);
  const auto quick = quickFit(clean, cutNights(clean, plan.site.place, *TimeZone::named("UTC")));
  ASSERT_TRUE(quick && quick->balance);
  EXPECT_LT(quick->balance->seC_J_K, 0.15 * quick->balance->C_J_K) << "the readings can tell";
  EXPECT_CLOSE(fit->balance->C_J_K / quick->balance->C_J_K, 1.0, 0.15, "and stores as much");
}

TEST(Calibrate, AHouseThatIsAsEnteredStaysSo) {
  const Plan plan = house();
  const Log log = logOf(plan, {}, 0.1, 6);
  const auto fit = calibrate(plan, log, weatherOf(log, plan));
  ASSERT_TRUE(fit);
  for (int f = 0; f < kFactorCount; ++f) {
    Calibration found = fit->found;
    EXPECT_CLOSE(factorOf(found, f), 1.0, 3.0 * fit->standardError[static_cast<std::size_t>(f)] + 0.02, "three standard errors and the resampled heater's");
  }
}

TEST(Calibrate, AsksForAnInsideAndEnoughNights) {
  const Plan plan = house();
  Log log = logOf(plan, {}, 0.1, 7);
  Log bare = log;
  bare.channels.erase(bare.channels.begin() + 2);
  EXPECT_FALSE(calibrate(plan, bare, weatherOf(bare, plan)));
  const std::size_t few = 9 * 144;
  log.time.resize(few);
  for (Channel& c : log.channels) c.raw.resize(few), c.flag.resize(few);
  const auto fit = calibrate(plan, log, weatherOf(log, plan));
  ASSERT_FALSE(fit);
  EXPECT_NE(english(fit.problem()).find("at least 8"), std::string::npos) << english(fit.problem());
}

TEST(Calibrate, CanBeStopped) {
  const Plan plan = house();
  const Log log = logOf(plan, {.skin = 1.3, .date = ""}, 0.1, 8);
  int rounds = 0;
  const auto fit = calibrate(plan, log, weatherOf(log, plan), {0, [&](int) { return ++rounds < 2; }});
  EXPECT_FALSE(fit);
  EXPECT_LE(rounds, 3);
}

TEST(QuickFit, WattsOverLiftAreTheHousesLossAndNameTheInputThatIsOff) {
  const Plan plan = house();
  const Calibration leaky{.skin = 1.6, .date = ""};
  const Log log = logOf(plan, leaky, 0.05, 9);
  const auto quick = quickFit(log, cutNights(log, plan.site.place, *TimeZone::named("UTC")));
  ASSERT_TRUE(quick);
  ASSERT_TRUE(quick->line);
  ASSERT_GT(quick->heated.size(), 10U);
  const auto parts = againstParts(plan, *quick);
  ASSERT_TRUE(parts);
  EXPECT_GT(parts->measured_W_K, parts->calculated_W_K);
  ASSERT_EQ(parts->explains.size(), 3U);
  for (const Explanation& e : parts->explains) {
    if (e.input == GapInput::skin) { // the line takes no account of wind, nor of what ground and mass give back when a frost sets in
      EXPECT_GT(e.needed, 1.05);
      EXPECT_LT(e.needed, 1.75);
    }
    if (e.input == GapInput::heaterReading) { EXPECT_LT(e.needed, e.entered); }
    if (e.input == GapInput::draughts) { EXPECT_GT(e.needed, e.entered); }
  }
}

} // namespace
} // namespace muffle
