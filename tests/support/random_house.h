// SPDX-License-Identifier: GPL-3.0-or-later
//
// Houses, crops and weather of many kinds, by chance from a seed: laws are held against what nobody had in mind when writing them.
#pragma once

#include "core/plan/plan.h"
#include "core/weather/weather.h"
#include "tests/support/every_store.h"
#include "tests/support/pace.h"

#include <algorithm>
#include <cstdlib>
#include <memory>
#include <random>

namespace muffle::testing {

/// MUFFLE_HOUSES=1000 in the environment tries so many.
inline const unsigned kManyHouses = std::getenv("MUFFLE_HOUSES") ? static_cast<unsigned>(std::atoi(std::getenv("MUFFLE_HOUSES"))) : isSanitized() ? 15 : 100;

class Chance {
public:
  explicit Chance(unsigned seed) : m_engine(seed) {}
  double between(double least, double most) { return std::uniform_real_distribution<double>(least, most)(m_engine); }
  int whole(int least, int most) { return std::uniform_int_distribution<int>(least, most)(m_engine); }
  bool happens(double probability) { return between(0.0, 1.0) < probability; }
  double normal() { return std::normal_distribution<double>()(m_engine); }
  template <class T> T oneOf(std::initializer_list<T> of) { return *(of.begin() + whole(0, static_cast<int>(of.size()) - 1)); }

private:
  std::mt19937 m_engine;
};

inline HouseShape randomShape(Chance& chance) {
  HouseShape s;
  s.kind = chance.oneOf({ShapeKind::gable, ShapeKind::arch, ShapeKind::leanTo, ShapeKind::pointedArch, ShapeKind::singleSlope, ShapeKind::dome});
  s.width_m = chance.between(1.2, 12.0);
  s.length_m = chance.between(1.5, 40.0);
  s.eave_m = chance.between(0.3, 2.6);
  s.ridge_m = s.eave_m + s.width_m * chance.between(0.15, 0.5);
  s.axis_deg = chance.between(0.0, 180.0);
  s = s.as(s.kind);
  if (s.kind == ShapeKind::gable && chance.happens(0.3)) s.bays = chance.whole(2, 4);
  if (chance.happens(0.15)) s.sunk_m = chance.between(0.2, 1.2);
  return s;
}

inline Skin randomSkin(Chance& chance) {
  Skin skin{{Layer{chance.oneOf({"pe-film", "pe-film-ir", "glass-4mm", "twin-wall-8"}), chance.between(0.01, 0.15)}}};
  if (chance.happens(0.35)) skin.layers.push_back({chance.oneOf({"pe-film", "pe-film-ir", "bubble-wrap"}), 0.05});
  return skin;
}

/// A house that check() lets pass, without heater: somewhere from 35 to 60 degrees, either hemisphere.
inline Plan randomPlan(unsigned seed) {
  Chance chance(seed);
  for (;;) {
    Plan p;
    p.site.place = {chance.between(35.0, 60.0) * (chance.happens(0.2) ? -1.0 : 1.0), chance.between(-120.0, 150.0), chance.between(0.0, 1500.0)};
    p.site.groundMean_C = chance.between(5.0, 14.0);
    House& h = p.house;
    h.shape = randomShape(chance);
    h.roof = randomSkin(chance);
    h.sides = chance.happens(0.5) ? h.roof : randomSkin(chance);
    h.ends = chance.happens(0.5) ? h.roof : randomSkin(chance);
    h.airChanges_per_h = chance.between(0.1, 2.5);
    h.windAirChanges = chance.between(0.0, 0.5);
    h.floor.soil = chance.oneOf({"loam", "sand-moist", "clay"});
    h.crop.leafArea = chance.between(0.0, 3.0);
    h.crop.wetFloor = chance.between(0.0, 1.0);
    h.ventOpens_C = chance.between(18.0, 26.0);
    h.ventFull_C = h.ventOpens_C + chance.between(2.0, 8.0);
    if (chance.happens(0.3)) {
      h.blanket = NightBlanket{};
      h.blanket->material = chance.oneOf({"woven-blanket", "aluminised-screen", "quilt"});
      h.blanket->leak = chance.between(0.0, 0.4);
      h.blanket->rule = chance.oneOf({BlanketRule::night, BlanketRule::dark, BlanketRule::cold});
    }
    if (chance.happens(0.4)) p.barrels.push_back({.count = chance.whole(1, 20), .litres = chance.between(50.0, 250.0), .layered = chance.happens(0.3)});
    if (chance.happens(0.2)) h.bedCovers.push_back({.length_m = std::max(0.3, 0.6 * h.shape.length_m)});
    if (chance.happens(0.2)) h.door.opened = chance.between(1.0, 30.0);
    p.warmUp_days = chance.whole(1, 12); // quick; what they are for is another test
    p.setpoints.hold_C = chance.between(-3.0, 10.0);
    p.setpoints.night_C = p.setpoints.hold_C;
    p.setpoints.day_C = p.setpoints.night_C + chance.between(0.0, 4.0);
    if (check(p).empty()) return p;
  }
}

/// Ten-minute readings of a cold spell: days that swing, dull and clear, and a front or two. Starts at a local noon.
inline Log randomLog(unsigned seed, const Site& site, int days = 8) {
  Chance chance(seed + 77777);
  Log log;
  log.channels.push_back(
      {.name = "outside", .role = Role::outside, .id = "", .statistic = Statistic::moment, .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}});
  const bool south = site.place.latitude_deg < 0.0;
  const UtcSeconds start = daysSinceEpoch({2031, south ? 7U : 1U, 10}) * 86400 + 43200 - static_cast<UtcSeconds>(site.place.longitude_deg * 240.0) / 600 * 600;
  const double mean = chance.between(-8.0, 4.0), slow = chance.between(0.0, 5.0), phase = chance.between(0.0, 6.28);
  double swing = 4.0, noise = 0.0;
  for (int i = 0; i <= days * 144; ++i) {
    if (i % 144 == 0) swing = chance.between(0.5, 8.0);
    noise = 0.97 * noise + 0.05 * chance.normal();
    const double hour = std::fmod(12.0 + i / 6.0, 24.0);
    log.time.push_back(start + 600 * i);
    log.channels[0].raw.push_back(static_cast<float>(mean + slow * std::sin(i / 300.0 + phase) + swing * std::cos(2.0 * kPi * (hour - 14.5) / 24.0) + noise));
  }
  log.channels[0].flag.assign(log.time.size(), 0);
  return log;
}

inline std::shared_ptr<const Weather> randomWeather(unsigned seed, const Plan& plan, int days = 8) {
  return std::make_shared<const Weather>(*weatherFromLog(randomLog(seed, plan.site, days), plan.site));
}

} // namespace muffle::testing
