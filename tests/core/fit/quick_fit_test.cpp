// SPDX-License-Identifier: GPL-3.0-or-later
//
// Houses of one node, whose loss and storage are known, measured from logs of them.
#include "core/fit/quick_fit.h"

#include "core/fit/calibrate.h"
#include "core/fit/explain.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

namespace muffle::quick_fit_test {
namespace {

constexpr double kUA_W_K = 150.0, kC_J_K = 6e6;
const Place kPlace{48.0, 0.0, 100.0};

struct Nightly {
  bool heated = true;
  bool metered = true;
};

/// Thirty days of readings every ten minutes. The heater holds 7 and 9 degC in turn, for three hours each, so that the house stores and gives back.
Log house(const Nightly& how) {
  Log log;
  std::vector<float> inside, outside, heater;
  double T = 8.0;
  for (int i = 0; i < 30 * 144; ++i) {
    const double hour = i / 6.0, day = hour / 24.0;
    const double out = 2.0 - 8.0 * std::abs(std::sin(0.4 * day)) + 3.0 * std::cos(kPi * (hour - 14.0) / 12.0);
    const double held = (i / 18) % 2 == 0 ? 7.0 : 9.0;
    const double needed = kUA_W_K * (held - out) + kC_J_K * (held - T) / 600.0;
    const double watts = how.heated ? std::clamp(needed, 0.0, 6000.0) : 0.0;
    log.time.push_back(daysSinceEpoch({2031, 1, 5}) * 86400 + 600 * i);
    inside.push_back(static_cast<float>(T));
    outside.push_back(static_cast<float>(out));
    heater.push_back(static_cast<float>(watts));
    const double rest = out + watts / kUA_W_K;
    T = rest + (T - rest) * std::exp(-600.0 * kUA_W_K / kC_J_K);
  }
  const auto add = [&log](const char* name, Role role, std::vector<float> raw) {
    Channel c{.name = name, .role = role, .id = role == Role::room ? "house" : "", .unitIn = "", .unitWhy = {}, .raw = std::move(raw), .flag = {}};
    c.flag.assign(c.raw.size(), 0);
    log.channels.push_back(std::move(c));
  };
  add("outside", Role::outside, outside);
  add("house", Role::room, inside);
  if (how.metered) add("heater", Role::heater, heater);
  return log;
}

Result<QuickFit> measured(const Log& log) { return quickFit(log, cutNights(log, kPlace, TimeZone::utc())); }

TEST(QuickFit, FindsTheLossOfAHouseOfOneNodeFromItsNights) {
  const auto fit = measured(house({}));
  ASSERT_TRUE(fit) << english(fit.problem());
  EXPECT_GT(fit->heated.size(), 25U);
  ASSERT_TRUE(fit->line);
  EXPECT_LT(fit->line->low, kUA_W_K);
  EXPECT_GT(fit->line->high, kUA_W_K);
  EXPECT_CLOSE(fit->UA_W_K(), kUA_W_K, 0.10 * kUA_W_K, "a night that ends 2 K from where it began has stored 12 MJ, over ten hours a quarter of the heater's");
  ASSERT_TRUE(fit->balance);
  EXPECT_CLOSE(fit->balance->UA_W_K, kUA_W_K, 0.03 * kUA_W_K, "hours' means");
  EXPECT_GT(fit->standardError_W_K(), 0.0);
  for (const QuickNight& n : fit->heated) EXPECT_CLOSE(n.heater_W / n.lift_K, kUA_W_K, 0.1 * kUA_W_K, "each night alone") << isoDate(n.date);
}

TEST(QuickFit, WithoutHeatTellsHowFastTheHouseCools) {
  const auto fit = measured(house({.heated = false, .metered = false}));
  ASSERT_TRUE(fit);
  EXPECT_TRUE(fit->heated.empty());
  EXPECT_FALSE(fit->line);
  ASSERT_FALSE(fit->timeConstant_h.empty());
  std::vector<double> tau = fit->timeConstant_h;
  std::sort(tau.begin(), tau.end());
  const double exact_h = kC_J_K / kUA_W_K / 3600.0;
  EXPECT_GT(tau[tau.size() / 2], 0.5 * exact_h) << "the outside falls through the night, a steady one is taken";
  EXPECT_LT(tau[tau.size() / 2], 3.0 * exact_h);
  EXPECT_FALSE(againstParts(Plan{}, *fit)) << "a loss needs watts";
}

TEST(QuickFit, LeavesNightsWithHolesOutAndNeedsBothTemperatures) {
  Log log = house({});
  const auto whole = measured(log);
  for (int i = 10 * 144; i < 13 * 144; ++i) log.channels[1].raw[static_cast<std::size_t>(i)] = std::nanf("");
  const auto holed = measured(log);
  ASSERT_TRUE(whole && holed);
  EXPECT_LE(holed->heated.size(), whole->heated.size() - 2);
  EXPECT_GE(holed->heated.size(), whole->heated.size() - 4);
  log.channels.erase(log.channels.begin() + 1);
  EXPECT_FALSE(measured(log));
  Log blind = house({});
  std::fill(blind.channels[0].raw.begin(), blind.channels[0].raw.end(), std::nanf(""));
  ASSERT_FALSE(measured(blind));
  EXPECT_NE(english(measured(blind).problem()).find("at least one is needed"), std::string::npos);
}

TEST(Explanations, NameTheLeaksWhereDraughtsGoByTheirArea) {
  const auto fit = measured(house({}));
  ASSERT_TRUE(fit);
  Plan tight = testing::filmTunnel();
  tight.house.shape = {ShapeKind::arch, 1.6, 3, 0.5, 1.6, 90}; // loses less than was measured
  tight.house.leakage = Leakage{.area_cm2 = 20.0};
  const auto parts = againstParts(tight, *fit);
  ASSERT_TRUE(parts) << english(parts.problem());
  const auto has = [&](GapInput input) {
    return std::any_of(parts->explains.begin(), parts->explains.end(), [&](const Explanation& e) { return e.input == input; });
  };
  ASSERT_FALSE(parts->explains.empty());
  EXPECT_TRUE(has(GapInput::leaks));
  EXPECT_FALSE(has(GapInput::draughts)) << "air changes are of no account there";
  for (const Explanation& e : parts->explains)
    if (e.input == GapInput::leaks) { EXPECT_DOUBLE_EQ(e.entered, 20.0); }
  EXPECT_TRUE(std::is_sorted(parts->explains.begin(), parts->explains.end(), [](const Explanation& a, const Explanation& b) {
    return std::abs(std::log(a.factor())) < std::abs(std::log(b.factor()));
  })) << "nearest to what was entered first";
}

TEST(Remarks, NameWhatTheNightsCannotTell) {
  Calibrated fit;
  fit.heaterMeasured = true;
  fit.standardError.fill(0.1);
  EXPECT_TRUE(remarks(fit).empty());
  fit.correlation[0][1] = fit.correlation[1][0] = -0.95;
  fit.standardError[4] = 0.6;
  fit.heaterMeasured = false;
  const auto said = remarks(fit);
  ASSERT_EQ(said.size(), 3U);
  EXPECT_EQ(said[0].kind, RemarkKind::cannotTellApart);
  EXPECT_EQ(said[0].factor, 0);
  EXPECT_EQ(said[0].other, 1);
  EXPECT_EQ(said[1].kind, RemarkKind::saysLittle);
  EXPECT_STREQ(factorName(said[1].factor), "sun");
  EXPECT_EQ(said[2].kind, RemarkKind::noHeaterMeter);
  fit.found.sun = 2.0;
  EXPECT_EQ(remarks(fit).size(), 2U) << "0.6 of 2 is less than half";
}

TEST(QuickFit, TheIntervalHoldsTheTruthThoughNeighbouringNightsAreAlike) {
  std::mt19937 random(3);
  std::normal_distribution<double> normal;
  constexpr int kTrials = 200, kNights = 120;
  constexpr double kKeeps = 0.6;
  int bare = 0, widened = 0;
  for (int trial = 0; trial < kTrials; ++trial) {
    std::vector<QuickNight> nights;
    std::vector<double> lift, watts;
    double front = 0.0, odd = 0.0;
    for (int i = 0; i < kNights; ++i) {
      front = kKeeps * front + std::sqrt(1.0 - kKeeps * kKeeps) * normal(random);
      odd = kKeeps * odd + std::sqrt(1.0 - kKeeps * kKeeps) * normal(random);
      QuickNight n;
      n.date = dateFromDays(20000 + i);
      n.lift_K = 8.0 + 3.0 * front;
      n.heater_W = 300.0 * n.lift_K - 200.0 + 350.0 * odd;
      nights.push_back(n);
      lift.push_back(n.lift_K), watts.push_back(n.heater_W);
    }
    RobustLine line = *robustLine(lift, watts);
    bare += line.low <= 300.0 && 300.0 <= line.high ? 1 : 0;
    widenForAlikeNights(line, nights);
    widened += line.low <= 300.0 && 300.0 <= line.high ? 1 : 0;
  }
  EXPECT_LT(bare, kTrials * 90 / 100) << "as if every night were a witness of its own";
  EXPECT_GE(widened, kTrials * 92 / 100) << "95 of 100 are promised; 92 and fewer in 200 trials happen once in fifty";
}

} // namespace
} // namespace muffle::quick_fit_test
