// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/fitted_sensors.h"

#include "core/fit/calibrate.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <random>

namespace muffle {
namespace {

Plan furnished() {
  Plan p = testing::filmTunnel();
  p.barrels = {Barrels{.name = "row", .count = 10}, Barrels{.name = "tank", .count = 1, .litres = 1000}};
  p.house.bedCovers = {BedCover{}, BedCover{.name = "salads"}};
  return p;
}

Channel channel(const char* name, Role role, const char* id, std::size_t size) {
  Channel c{.name = name, .role = role, .id = id, .unitIn = "C", .unitWhy = {}, .raw = std::vector<float>(size, 1.0F), .flag = {}};
  c.flag.assign(size, 0);
  return c;
}

Log logWith(std::vector<Channel> channels) {
  Log log;
  log.time = {0, 600};
  log.channels = std::move(channels);
  return log;
}

std::map<std::string, int> nodesOf(const Plan& plan, const Log& log) {
  const auto weather = testing::frost(plan.site);
  const Scene scene = makeScene(weather, plan);
  std::map<std::string, int> nodes;
  for (const FittedSensor& s : fittedSensors(plan, assemble(plan, weather->winters.front(), scene.sun.front()), log)) nodes[s.channel->name] = s.node;
  return nodes;
}

TEST(FittedSensors, ARoomOrStoreThatNobodyNamedGoesByWhatItIs) {
  Plan plan = furnished();
  plan.house.bay = WarmBay{};
  plan.house.bay->length_m = 3.0;
  plan.waterLoops.emplace_back();
  const auto weather = testing::frost(plan.site);
  const Assembly a = assemble(plan, weather->winters.front(), makeScene(weather, plan).sun.front());
  const auto nodes = nodesOf(
      plan, logWith({channel("air", Role::room, "house", 2), channel("bay", Role::room, "Warm bay", 2), channel("loop", Role::store, "water loop", 2)}));
  const auto rooms = otherRooms(plan);
  const auto bay = std::find_if(rooms.begin(), rooms.end(), [](const OtherRoom& r) { return r.kind == RoomKind::bay; });
  ASSERT_NE(bay, rooms.end());
  ASSERT_TRUE(nodes.contains("bay"));
  EXPECT_EQ(nodes.at("bay"), a.rooms[static_cast<std::size_t>(bay - rooms.begin())].air);
  EXPECT_TRUE(nodes.contains("loop"));
}

TEST(FittedSensors, EverySensorIsAnsweredByTheNodeThatItSitsIn) {
  const Plan plan = furnished();
  const auto weather = testing::frost(plan.site);
  const Assembly a = assemble(plan, weather->winters.front(), makeScene(weather, plan).sun.front());
  const Log log =
      logWith({channel("out", Role::outside, "", 2), channel("air", Role::room, "house", 2), channel("first", Role::store, "barrels", 2),
               channel("second", Role::store, "barrels2", 2), channel("by name", Role::store, "tank", 2), channel("fleece", Role::cover, "cover2", 2),
               channel("Soil 30 cm", Role::soil, "floor", 2), channel("nowhere", Role::room, "loft", 2)});
  const auto nodes = nodesOf(plan, log);
  EXPECT_EQ(nodes.at("air"), a.air);
  EXPECT_EQ(nodes.at("first"), a.stores[0].node[0]);
  EXPECT_EQ(nodes.at("second"), a.stores[1].node[0]);
  EXPECT_EQ(nodes.at("by name"), a.stores[1].node[0]);
  EXPECT_EQ(nodes.at("fleece"), a.rooms[1].air);
  EXPECT_FALSE(nodes.contains("nowhere")) << "the plan has no such room";
  EXPECT_FALSE(nodes.contains("out"));
  const auto layer = std::find(a.soil.begin(), a.soil.end(), nodes.at("Soil 30 cm"));
  ASSERT_NE(layer, a.soil.end());
  EXPECT_CLOSE(a.soilDepth_m[static_cast<std::size_t>(layer - a.soil.begin())], 0.30, 0.15, "the nearest layer's middle");
  const auto depthOf = [&](const char* name) {
    const auto found = nodesOf(plan, logWith({channel("air", Role::room, "house", 2), channel(name, Role::soil, "floor", 2)}));
    return a.soilDepth_m[static_cast<std::size_t>(std::find(a.soil.begin(), a.soil.end(), found.at(name)) - a.soil.begin())];
  };
  EXPECT_DOUBLE_EQ(depthOf("Soil 12 inches"), depthOf("Soil 30 cm"));
  EXPECT_DOUBLE_EQ(depthOf("Soil 30 in tunnel"), depthOf("Soil")) << "its thirtieth sensor, not thirty inches";
  EXPECT_TRUE(nodesOf(plan, logWith({channel("first", Role::store, "barrels", 2)})).empty()) << "a house is measured by its air";
}

/// Five weeks of what a house of that calibration does, with its water and soil read as well.
Log fullLog(const Plan& plan, const Calibration& truth) {
  std::mt19937 random(11);
  std::normal_distribution<double> scatter(0.0, 1.0);
  Log log;
  Channel out = channel("outside", Role::outside, "", 36 * 144);
  double front = 0.0;
  for (int i = 0; i < 36 * 144; ++i) {
    log.time.push_back(daysSinceEpoch({2031, 1, 5}) * 86400 + 600 * i);
    front = 0.999 * front + 0.045 * scatter(random);
    out.raw[static_cast<std::size_t>(i)] = static_cast<float>(-1.0 + 4.0 * front + 5.0 * std::cos(kPi * (i / 6.0 - 14.0) / 12.0));
  }
  log.channels = {out};
  Plan real = plan;
  real.calibration = truth;
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(log, plan.site));
  const Simulation run = *simulate(real, makeScene(weather, real), {.series = true});
  const WinterSeries& s = run.series.front();
  const Winter& w = weather->winters.front();
  const auto read = [&](const char* name, Role role, const char* id, const std::vector<float>& series) {
    Channel c = channel(name, role, id, log.time.size());
    for (std::size_t i = 0; i < log.time.size(); ++i) {
      const auto step =
          static_cast<std::size_t>(std::clamp(std::round(static_cast<double>(log.time[i] - w.start) / w.step_s), 0.0, static_cast<double>(w.size() - 1)));
      c.raw[i] = series[step] + static_cast<float>(0.1 * scatter(random));
    }
    log.channels.push_back(c);
  };
  read("air", Role::room, "house", s.air_C);
  read("barrel", Role::store, "barrels", s.stores[0].temperature_C[0]);
  read("Soil 10 cm", Role::soil, "floor", s.soil_C.at(1));
  return log;
}

TEST(FittedSensors, WaterAndSoilThatAreReadTellWhatTheAirAloneCannot) {
  Plan plan = testing::filmTunnel();
  plan.barrels = {Barrels{.count = 10}};
  const Calibration truth{.skin = 1.2, .draughts = 0.9, .mass = 1.0, .ground = 1.3, .sun = 0.8, .date = ""};
  const Log all = fullLog(plan, truth);
  Log airOnly = all;
  airOnly.channels.resize(2);
  const auto weather = std::make_shared<const Weather>(*weatherFromLog(all, plan.site));
  const auto full = calibrate(plan, all, weather), air = calibrate(plan, airOnly, weather);
  ASSERT_TRUE(full && air);
  ASSERT_EQ(full->sensors.size(), 3U);
  EXPECT_EQ(air->sensors.size(), 1U);
  EXPECT_EQ(full->sensors[1].channel, "barrel");
  for (const SensorMisfit& s : full->sensors) EXPECT_LT(s.after_K, s.before_K) << s.channel;
  const auto error = [](const Calibrated& fit) { // of all factors together, in their own errors of a prior
    double sum = 0.0;
    for (const double e : fit.standardError) sum += e * e;
    return std::sqrt(sum);
  };
  EXPECT_LT(error(*full), error(*air));
  EXPECT_CLOSE(full->found.sun, truth.sun, 3.0 * full->standardError[4], "three standard errors");
}

} // namespace
} // namespace muffle
