// SPDX-License-Identifier: GPL-3.0-or-later
//
// A whole plan in gusty weather with sun that comes and goes all day, run as seasons are, against single steps of 75 s.
#include "core/network/solver.h"
#include "core/plan/heaters.h"
#include "core/simulate/simulate.h"
#include "tests/support/near.h"
#include "tests/support/yard.h"

#include <random>

namespace muffle::season_accuracy_test {
namespace {

constexpr int kDays = 24;

/// March days between frost and 12 degC, with gusts, and sun that comes and goes.
std::shared_ptr<const Weather> gusty(const Site& site) {
  Log log;
  std::mt19937 random(3);
  std::normal_distribution<double> normal;
  const auto add = [&](const char* name, Role role, const char* unit) {
    log.channels.push_back({.name = name, .role = role, .id = "", .statistic = Statistic::moment, .unitIn = unit, .unitWhy = {}, .raw = {}, .flag = {}});
  };
  add("outside", Role::outside, "C");
  add("wind", Role::wind, "m/s");
  add("sun", Role::sun, "W/m2");
  double cloud = 0.0;
  for (int i = 0; i < kDays * 144; ++i) {
    log.time.push_back(daysSinceEpoch({2031, 3, 1}) * 86400 + 600 * i);
    const double hour = i % 144 / 6.0;
    cloud = 0.95 * cloud + 0.3 * normal(random);
    const double sun = std::max(0.0, std::sin(kPi * (hour - 6.5) / 11.0)) * (hour > 6.5 && hour < 17.5 ? 600.0 : 0.0) * (cloud > 0.0 ? 1.0 : 0.35);
    log.channels[0].raw.push_back(static_cast<float>(2.0 + 5.0 * std::cos(kPi * (hour - 14.5) / 12.0) + 2.0 * std::sin(i / 400.0) + 0.1 * normal(random)));
    log.channels[1].raw.push_back(static_cast<float>(std::max(0.0, 2.0 + 0.6 * normal(random))));
    log.channels[2].raw.push_back(static_cast<float>(sun));
  }
  for (Channel& c : log.channels) c.flag.assign(c.raw.size(), 0);
  return std::make_shared<const Weather>(*weatherFromLog(log, site));
}

TEST(SeasonAccuracy, ThreeRoomsUnderBlanketAndCoverAreRightToAHundredthOfTheirSwing) {
  Plan p = testing::yard();
  p.heaters = {{.id = "heater", .name = "fan heater", .power_W = 9000.0, .price = 0.0, .life_years = 10.0}};
  p.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  p.house.bay = WarmBay{};
  replaceHeaters(p, {.place = {HeaterPlace::Of::bay}, .power_W = 4000.0});
  p.house.bedCovers.push_back({});
  ASSERT_TRUE(check(p).empty());
  const Scene scene = makeScene(gusty(p.site), p);
  const Winter& winter = scene.weather->winters.front();
  const Assembly a = assemble(p, winter, scene.sun.front());
  Solver season = *Solver::prepare(a.network, {.multistep = true});
  Solver fine = *Solver::prepare(a.network);
  ASSERT_GE(season.freeCount(), 40);
  std::vector<int> rooms{a.air};
  for (const auto& room : a.rooms) rooms.push_back(room.air);
  std::vector<double> square(rooms.size(), 0.0), low(rooms.size(), 1e9), high(rooms.size(), -1e9);
  const auto steps = winter.size() - 1;
  for (std::size_t i = 0; i < steps; ++i) {
    ASSERT_TRUE(season.advance(winter.step_s));
    for (int k = 0; k < 8; ++k) ASSERT_TRUE(fine.advance(winter.step_s / 8.0));
    for (std::size_t r = 0; r < rooms.size(); ++r) {
      low[r] = std::min(low[r], fine.temperature_C(rooms[r]));
      high[r] = std::max(high[r], fine.temperature_C(rooms[r]));
    }
    for (std::size_t r = 0; r < rooms.size(); ++r) square[r] += std::pow(season.temperature_C(rooms[r]) - fine.temperature_C(rooms[r]), 2);
  }
  EXPECT_GT(season.doubleSteps(), static_cast<long>(steps / 8)) << "it is what seasons do that is measured";
  for (std::size_t r = 0; r < rooms.size(); ++r)
    EXPECT_LE(std::sqrt(square[r] / static_cast<double>(steps)), 0.01 * (high[r] - low[r]))
        << "a hundredth of what a sun that comes and goes all day moves the air by";
  const auto bought = season.balance().thermostat_J, exact = fine.balance().thermostat_J;
  for (std::size_t t = 0; t < bought.size(); ++t) EXPECT_CLOSE(bought[t] / exact[t], 1.0, 0.01, "a hundredth of the fuel");
  EXPECT_LE(season.balance().closure(), 1e-9);
}

} // namespace
} // namespace muffle::season_accuracy_test
