// SPDX-License-Identifier: GPL-3.0-or-later
//
// A house is what its place and season have made of it, on whatever day its log happens to begin.
#include "core/simulate/simulate.h"
#include "tests/support/every_store.h"
#include "tests/support/near.h"
#include "tests/support/random_house.h"

namespace muffle {
namespace {

/// Half a year from October that follows the place's wave, with days that swing and spells of some days off it.
Log winterOf(const Site& site) {
  testing::Chance chance(9);
  Log log;
  log.channels.push_back(
      {.name = "outside", .role = Role::outside, .id = "", .statistic = Statistic::moment, .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}});
  double spell = 0.0, swing = 4.0;
  for (int i = 0; i <= 180 * 144; ++i) {
    if (i % 144 == 0) swing = chance.between(1.5, 6.0);
    if (i % 144 == 0) spell = 0.75 * spell + 1.6 * chance.normal();
    const double day = 275.0 + i / 144.0, hour = std::fmod(i / 6.0 + 0.2, 24.0);
    log.time.push_back(daysSinceEpoch({2030, 10, 2}) * 86400 + 600 * i);
    log.channels[0].raw.push_back(static_cast<float>(site.groundMean_C - site.groundAmplitude_K * std::cos(2.0 * kPi * (day - site.coldestDay()) / 365.0) +
                                                     spell + swing * std::cos(2.0 * kPi * (hour - 14.5) / 24.0)));
  }
  log.channels[0].flag.assign(log.time.size(), 0);
  return log;
}

Simulation run(const Plan& p, const Log& log) {
  return *simulate(p, makeScene(std::make_shared<const Weather>(*weatherFromLog(log, p.site)), p), {.series = true});
}

Log cut(const Log& log, int fromDay, int days) {
  Log part = log;
  const auto from = static_cast<std::size_t>(fromDay) * 144, to = std::min(from + static_cast<std::size_t>(days) * 144 + 1, log.time.size());
  const auto keep = [&](auto& v) { v = std::decay_t<decltype(v)>(v.begin() + static_cast<std::ptrdiff_t>(from), v.begin() + static_cast<std::ptrdiff_t>(to)); };
  keep(part.time);
  keep(part.channels[0].raw);
  keep(part.channels[0].flag);
  return part;
}

TEST(BeforeLog, ALogThatBeginsOnAnyOfFortyDaysTellsTheSameTenDaysIn) {
  Plan p = testing::yard();
  p.barrels.push_back({.count = 10});
  const Log log = winterOf(p.site);
  const Simulation whole = run(p, log);
  const WinterSeries& all = whole.series.front();
  double worstSoil = 0.0, worstStore = 0.0, worstNight = 0.0;
  for (int day = 2; day < 162; day += 4) {
    const Simulation part = run(p, cut(log, day, 15));
    const WinterSeries& s = part.series.front();
    const std::size_t at = 10 * 144, there = at + static_cast<std::size_t>(day) * 144;
    worstStore = std::max(worstStore, static_cast<double>(std::abs(s.stores[0].temperature_C[0][at] - all.stores[0].temperature_C[0][there])));
    for (std::size_t k = 0; k < s.soil_C.size(); ++k) worstSoil = std::max(worstSoil, static_cast<double>(std::abs(s.soil_C[k][at] - all.soil_C[k][there])));
    for (const NightResult& n : part.nights) {
      if (n.from < at) continue;
      for (const NightResult& w : whole.nights)
        if (w.date == n.date && w.assessable && n.assessable) worstNight = std::max(worstNight, std::abs(w.coldest_C - n.coldest_C));
    }
  }
  EXPECT_LE(worstStore, 0.5) << "K; barrels";
  EXPECT_LE(worstSoil, 0.5) << "K; the soil at every depth";
  EXPECT_LE(worstNight, 0.3) << "K";
}

TEST(BeforeLog, AFrostyFirstReadingDoesNotFreezeTonnesOfWater) {
  Plan p = testing::yard();
  p.barrels.push_back({.count = 35});
  Log log = cut(winterOf(p.site), 60, 5);
  for (std::size_t i = 0; i < 40; ++i) log.channels[0].raw[i] = -20.0F; // six hours
  const Simulation s = run(p, log);
  EXPECT_GT(s.series.front().stores[0].temperature_C[0].front(), 1.0F) << "the first of December after a usual autumn";
}

TEST(BeforeLog, SetpointsOfAHeaterThatIsNotThereChangeNothing) {
  Plan p = testing::yard();
  p.barrels.push_back({});
  const Log log = cut(winterOf(p.site), 120, 12);
  const Simulation a = run(p, log);
  p.setpoints.night_C = 15.0;
  p.setpoints.day_C = 18.0;
  const Simulation b = run(p, log);
  EXPECT_EQ(a.series.front().air_C, b.series.front().air_C);
}

} // namespace
} // namespace muffle
