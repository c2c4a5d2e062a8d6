// SPDX-License-Identifier: GPL-3.0-or-later
//
// Damp air, wet floors and leaves, frozen soil and water in whole houses.
#include "core/air/leaf.h"
#include "core/assemble/room_air.h"
#include "core/ground/soil.h"
#include "core/house/infiltration.h"
#include "core/network/solver.h"
#include "core/plan/heaters.h"
#include "core/results/dampness.h"
#include "core/simulate/simulate.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <algorithm>

namespace muffle::moisture_test {
namespace {

using testing::filmTunnel;
using testing::frost;

Simulation run(const Plan& p) {
  EXPECT_TRUE(check(p).empty());
  return *simulate(p, makeScene(frost(p.site), p), {.series = true});
}

TEST(Moisture, ADryHouseIsLessDampThanOneInFullCrop) {
  Plan dry = filmTunnel(), wet = filmTunnel();
  dry.house.crop = {0.0, 0.0};
  wet.house.crop = {3.0, 0.8};
  const Simulation a = run(dry), b = run(wet);
  EXPECT_LT(a.summary.damp.above90_h, b.summary.damp.above90_h);
  EXPECT_LE(a.summary.damp.leafWet_h, b.summary.damp.leafWet_h);
  EXPECT_LE(b.summary.closure, 1e-6);
}

TEST(Moisture, ATightHouseIsDamperThanADraughtyOne) {
  Plan tight = filmTunnel(), draughty = filmTunnel();
  tight.house.airChanges_per_h = 0.2;
  tight.house.windAirChanges = 0.0;
  draughty.house.airChanges_per_h = 6.0;
  EXPECT_GT(run(tight).summary.damp.above90_h, run(draughty).summary.damp.above90_h);
}

TEST(Moisture, CondensationCarriesHeatToTheCoverWhichLosesIt) {
  Plan dry = filmTunnel(), wet = filmTunnel();
  for (Plan* p : {&dry, &wet}) {
    p->heaters = {{.id = "heater", .power_W = 30000.0}};
    p->setpoints = {5.0, 8.0, 10.0};
    for (Skin* skin : {&p->house.roof, &p->house.sides, &p->house.ends}) skin->layers = {{"glass-4mm", 0.05}}; // drops on film would keep radiation in
  }
  dry.house.crop = {0.0, 0.0};
  wet.house.crop = {0.0, 0.8}; // leaves would take up light that a bare house lets out
  const auto roof = static_cast<std::size_t>(LossPath::roof);
  EXPECT_GT(run(wet).summary.loss_kWh[roof], 1.005 * run(dry).summary.loss_kWh[roof]) << "what evaporates from the warm floor is given to the cold cover";
  EXPECT_GT(run(wet).summary.heater_kWh, 1.02 * run(dry).summary.heater_kWh) << "and paid for, what the soil does not lend in these days";
}

TEST(Moisture, DoesNotLeaveTheBoundsOfAir) {
  const Simulation r = run(filmTunnel());
  for (const WinterSeries& s : r.series)
    for (std::size_t i = 0; i < s.vapour_g_kg.size(); ++i) {
      ASSERT_GT(s.vapour_g_kg[i], 0.0F);
      ASSERT_LT(s.vapour_g_kg[i], 40.0F);
    }
}

TEST(Moisture, WhatAHeatedHouseSendsToTheSkyIsPartOfWhatItLoses) {
  Plan p = filmTunnel();
  p.heaters = {{.id = "heater", .power_W = 30000.0}};
  p.setpoints = {5.0, 8.0, 8.0};
  const Summary s = run(p).summary;
  double lost = 0.0;
  for (const double kWh : s.loss_kWh) lost += std::max(kWh, 0.0);
  EXPECT_GT(s.sky_kWh, 0.1 * lost) << "film under frosty, mostly clear nights";
  EXPECT_LT(s.sky_kWh, lost) << "the air outside takes the rest";
  const Summary cold = run(filmTunnel()).summary;
  EXPECT_GT(cold.sky_kWh, 0.0) << "without a heater it may be more than all losses: the cover takes heat from warmer air outside";
}

/// Everything at once: bay, covered bed, blanket, barrels, mulch, door, vent rules.
Plan fullHouse() {
  Plan p = filmTunnel();
  p.heaters = {{.id = "heater", .power_W = 12000.0}};
  p.setpoints = {3.0, 4.0, 6.0};
  p.house.bay = WarmBay{};
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 2000.0});
  p.house.bay->floor = Floor{};
  p.house.bedCovers.push_back({});
  p.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  p.house.floor.cover = "bark";
  p.house.door.opened = 15.0;
  p.house.door.lobby = true;
  p.house.ventOpens_C = 14.0;
  p.house.ventFull_C = 18.0;
  p.house.ventLock.outsideBelow_C = -2.0;
  p.barrels = {{.count = 4}};
  return p;
}

TEST(Moisture, OfAFullHouseClosesWithItsHeatAndDoesNotDependOnThreads) {
  const Plan p = fullHouse();
  const Simulation r = run(p);
  EXPECT_LE(r.summary.closure, 1e-6);
  ASSERT_EQ(r.summary.rooms.size(), 2U) << "bay and bed";
  EXPECT_GT(r.summary.rooms[1].damp.above90_h, r.summary.rooms[0].damp.above90_h) << "still air over moist soil against a heated room";
  const Simulation two = *simulate(p, makeScene(frost(p.site), p), {.series = true, .threads = 2});
  EXPECT_EQ(two.series[0].vapour_g_kg, r.series[0].vapour_g_kg) << "bit for bit";
  EXPECT_EQ(two.series[0].leaf_C, r.series[0].leaf_C);
}

TEST(Moisture, ABlanketKeepsLeavesFromTheSky) {
  Plan open = filmTunnel(), hung = filmTunnel();
  hung.house.blanket = NightBlanket{.material = "aluminised-screen", .leak = 0.1};
  const auto below = [](const Simulation& r) { // how far leaves are under the air on average by night
    double sum = 0.0, steps = 0.0;
    for (const NightResult& n : r.nights)
      for (std::size_t i = n.from; i <= n.to; ++i, ++steps) sum += static_cast<double>(r.series[0].air_C[i] - r.series[0].leaf_C[i]);
    return sum / steps;
  };
  EXPECT_GT(below(run(open)), below(run(hung)));
}

TEST(Moisture, OfNightsAddsUpToNoMoreThanTheirHours) {
  const Simulation r = run(fullHouse());
  for (const NightResult& n : r.nights) {
    const double hours = static_cast<double>(n.to - n.from + 1) / 6.0;
    EXPECT_LE(n.damp_h, hours + 1e-9);
    EXPECT_LE(n.leafWet_h, hours + 1e-9);
  }
}

TEST(RoomAir, CarriesItsVapourThroughDraughtsAndVents) {
  Network net;
  const RoomAir room = addRoomAir(net, "room ", 100.0, 0.0, 15.0, 8.0);
  const RoomAir out{net.addBoundary("out", Driver::constant(0.0)), net.addBoundary("out vapour", Driver::constant(3.0))};
  net.addConductance(room.air, net.addBoundary("stove", Driver::constant(15.0)), 1e7);
  exchangeAir(net, room, out, 40.0, -1, "draughts");
  ventAir(net, room, out, 10.0, 12.0, 60.0, -1, "vents"); // fully open at 15 degC
  Solver s = *Solver::prepare(net);
  for (int i = 0; i < 60; ++i) s.advance(10.0);
  // one air change takes the room's mass x cp over the conductance of 100 W/K
  const double time_s = net.nodes[static_cast<std::size_t>(room.air)].capacity_J_K / 100.0;
  EXPECT_CLOSE(s.temperature_C(room.vapour), 3.0 + 5.0 * std::exp(-600.0 / time_s), 0.002, "ten-second steps; vapour leaves at the pace of the air");
}

TEST(Moisture, LeavesOpenTheirStomataToTheLight) {
  EXPECT_GT(transpiration_W_g_kg(300.0), 2.0 * transpiration_W_g_kg(0.0));
  EXPECT_CLOSE(transpiration_W_g_kg(0.0), 1.27 * 2501.0 / (82.0 * 4.3 / 0.54 + 200.0), 0.02, "Stanghellini in the dark; air at 5 degC is 1.27 kg/m3");
}

TEST(Moisture, ALeafLiesBetweenTheAirAndWhatItSees) {
  EXPECT_DOUBLE_EQ(leafTemperature_C(5.0, 5.0, 5.0), 5.0);
  const double under = leafTemperature_C(4.0, 4.0, -12.0);
  EXPECT_LT(under, 0.0) << "under a sheet at -12 degC leaves freeze while the air does not";
  EXPECT_GT(under, -12.0);
}

TEST(Dampness, CountsHoursAndTheLongestSpell) {
  DampHours hours(1800.0);
  for (const bool damp : {true, true, false, true, true, true}) hours.add(damp, false);
  hours.add(false, true); // wet leaves carry the spell on
  EXPECT_DOUBLE_EQ(hours.sum().above90_h, 2.5);
  EXPECT_DOUBLE_EQ(hours.sum().leafWet_h, 0.5);
  EXPECT_DOUBLE_EQ(hours.sum().longest_h, 2.0);
}

TEST(SoilHeat, OfMoistSoilGrowsWithItsWaterAndFreezes) {
  const SoilMaterial& loam = *findSoilMaterial("loam");
  const SoilHeat usual = soilHeat(loam), wet = soilHeat(loam, 0.30), dry = soilHeat(loam, 0.02);
  EXPECT_DOUBLE_EQ(usual.conductivity_W_mK, loam.conductivity_W_mK);
  EXPECT_GT(wet.conductivity_W_mK, usual.conductivity_W_mK);
  EXPECT_LT(dry.conductivity_W_mK, usual.conductivity_W_mK);
  EXPECT_GT(usual.frozenConductivity_W_mK, usual.conductivity_W_mK) << "ice conducts four times as well as water";
  EXPECT_LT(usual.frozenHeat_J_m3K, usual.heat_J_m3K);
  EXPECT_CLOSE(wet.latent_J_m3, loam.dryDensity_kg_m3 * 0.30 * kFusion_J_kg, 1.0, "all its water");
  EXPECT_EQ(soilHeat(*findSoilMaterial("rock")).latent_J_m3, 0.0);
}

TEST(Floor, WetSoilFreezesSlowerThanDry) {
  Plan wet = filmTunnel(), dry = filmTunnel();
  for (Plan* p : {&wet, &dry}) {
    p->site.groundMean_C = 2.0;
    p->site.groundAmplitude_K = 2.0;
  }
  dry.house.floor.moisture_kg_kg = 0.02;
  const auto coldest = [](const Simulation& r) { return *std::min_element(r.series[0].soil_C[1].begin(), r.series[0].soil_C[1].end()); };
  const Simulation a = run(wet), b = run(dry);
  EXPECT_GT(coldest(a), coldest(b) + 0.3F) << "two centimetres down, ice forming gives its heat";
  EXPECT_LE(a.summary.closure, 1e-6);
}

TEST(Floor, StrawKeepsTheSoilsWarmthBelow) {
  Plan bare = filmTunnel(), straw = filmTunnel();
  straw.house.floor.cover = "straw";
  straw.house.floor.cover_m = 0.10;
  const Simulation a = run(bare), b = run(straw);
  EXPECT_LT(b.summary.coldest_C, a.summary.coldest_C) << "the air gets less of it";
  EXPECT_GT(b.series[0].soil_C[0].back(), a.series[0].soil_C[0].back()) << "the soil under the straw stays warmer";
  EXPECT_LE(b.summary.closure, 1e-6);
}

TEST(Floor, OfTheBayMayDiffer) {
  Plan p = filmTunnel();
  p.house.bay = WarmBay{};
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 2000.0});
  const double soil = run(p).summary.rooms.at(0).heater_kWh;
  p.house.bay->floor = p.house.floor;
  p.house.bay->floor->cover = "straw";
  EXPECT_NE(run(p).summary.rooms.at(0).heater_kWh, soil);
  p.house.bay->floor->cover = "carpet";
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/warm_bay/floor/cover");
}

TEST(Barrels, StandAtZeroWhileTheyFreeze) {
  Plan p = filmTunnel();
  p.house.airChanges_per_h = 20.0;
  p.site.groundMean_C = 16.0; // a mild autumn, and then this frost
  p.barrels = {{.count = 2, .litres = 200.0, .film_W_m2K = 8.0, .sunShare = 0.0}};
  const Simulation r = run(p);
  const auto& water = r.series[0].stores[0].temperature_C[0];
  const float coldest = *std::min_element(water.begin(), water.end());
  EXPECT_LT(coldest, 0.0F);
  EXPECT_GT(coldest, -0.2F) << "five days of frost at some 130 W take 56 MJ; freezing 400 litres takes 134";
  EXPECT_LE(r.summary.closure, 1e-6);
}

TEST(Door, ALobbyHalvesWhatItCosts) {
  Plan p = filmTunnel();
  p.heaters = {{.id = "heater", .power_W = 60000.0}};
  p.setpoints = {5.0, 8.0, 8.0};
  const double shut = run(p).summary.heater_kWh;
  p.house.door.opened = 200.0;
  const double open = run(p).summary.heater_kWh;
  p.house.door.lobby = true;
  const double lobby = run(p).summary.heater_kWh;
  EXPECT_GT(open, shut);
  EXPECT_CLOSE((lobby - shut) / (open - shut), 0.5, 0.05, "half the air; the house answers nearly in proportion");
}

TEST(Door, CarriesWhatATallOpeningDoesForTheTimeItIsOpen) {
  const double all = doorConductance_W_K(2160.0, 20.0, 0.9, 2.0, 10.0, 0.0, 43200.0); // open all twelve hours
  const double flow = openDoorFlow_m3_s(0.9, 2.0, 10.0, kelvin(5.0), 0.6);
  EXPECT_CLOSE(all, 1.2922 * 1006.0 * flow, 0.01 * all, "density of air at 0 degC");
  EXPECT_CLOSE(doorConductance_W_K(216.0, 20.0, 0.9, 2.0, 10.0, 0.0, 43200.0), all / 10.0, 1e-9, "a tenth of the time");
  EXPECT_DOUBLE_EQ(doorConductance_W_K(1e5, 20.0, 0.9, 2.0, 10.0, 0.0, 43200.0), all) << "it cannot be open for longer than the day";
}

TEST(Door, LargerThanTheWallIsExplained) {
  Plan p = filmTunnel();
  p.house.door = {10.0, 20.0, 0.9, 4.0, false};
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/door");
}

TEST(Draughtiness, LiesWithinTheRangesAtAWintersWind) {
  for (const Draughtiness& d : draughtinesses()) {
    const auto to = d.range.find(" to ");
    ASSERT_NE(to, std::string_view::npos);
    const double low = std::stod(std::string(d.range.substr(0, to))), high = std::stod(std::string(d.range.substr(to + 4)));
    const double at = d.still_per_h + 6.7 * d.perWind;
    EXPECT_GE(at, low) << d.id;
    EXPECT_LE(at, high) << d.id;
  }
}

TEST(VentLock, KeepsVentsShutInColdWindAndRain) {
  Plan p = filmTunnel();
  p.setpoints = {-8.0, -8.0, -8.0};
  p.house.ventOpens_C = -5.0; // open all day
  p.house.ventFull_C = -4.0;
  const auto vents = [](const Summary& s) { return s.loss_kWh[static_cast<std::size_t>(LossPath::vents)]; };
  const double open = vents(run(p).summary);
  EXPECT_GT(open, 1.0);
  p.house.ventLock.outsideBelow_C = 20.0;
  EXPECT_EQ(vents(run(p).summary), 0.0) << "it is never so warm";
  p.house.ventLock = {};
  p.house.ventLock.windAbove_m_s = 0.5;
  EXPECT_EQ(vents(run(p).summary), 0.0) << "the site's wind is 1.5 m/s";
  p.house.ventLock = {};
  p.house.ventLock.inRain = true;
  EXPECT_CLOSE(vents(run(p).summary), open, 1e-9, "the log has no rain");
  auto wet = std::make_shared<Weather>(*frost(p.site));
  for (Winter& w : wet->winters) w.rain_mm.assign(w.size(), 0.2);
  EXPECT_EQ(vents(simulate(p, makeScene(wet, p), {.series = true})->summary), 0.0);
}

TEST(Light, LostToDirtComesOffTheSun) {
  Plan clean = filmTunnel(), dirty = filmTunnel();
  clean.house.light.dirt = 0.0;
  dirty.house.light.dirt = 0.3;
  EXPECT_LT(run(dirty).summary.sun_kWh, 0.75 * run(clean).summary.sun_kWh);
}

} // namespace
} // namespace muffle::moisture_test
