// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/heaters.h"
#include "core/simulate/simulate.h"

#include "core/material/materials.h"
#include "core/network/solver.h"
#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <cmath>

namespace muffle::warm_bay_test {
namespace {

using testing::frost;

/// A house at 4 degC with a bay at 12 degC at one end.
Plan house() {
  Plan p;
  p.site.place = {48.0, 0.0, 100.0};
  p.house.shape = {ShapeKind::gable, 6, 18, 2.0, 3.4, 90};
  p.setpoints = {3.9, 4.0, 4.0};
  p.heaters = {{.id = "heater", .name = "heater", .power_W = 40000.0, .price = 0.0, .life_years = 10.0}};
  WarmBay bay;
  bay.length_m = 4.0;
  bay.setpoints = {11.9, 12.0, 12.0};
  bay.partition.layers = {{"twin-wall-8", 0.05}};
  p.house.bay = bay;
  addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 20000.0});
  return p;
}

TEST(WarmBay, IsHeldAtItsOwnSetpointAndTheEnergyThroughItsPartitionCloses) {
  const Plan p = house();
  const auto weather = frost(p.site);
  const Scene scene = makeScene(weather, p);
  Assembly a = assemble(p, weather->winters.front(), scene.sun.front());
  // everything that flows into and out of the partition's own nodes
  std::vector<bool> own(a.network.nodes.size(), false);
  for (std::size_t i = 0; i < own.size(); ++i) own[i] = a.network.nodes[i].id.find("partition") != std::string::npos;
  ASSERT_EQ(std::count(own.begin(), own.end(), true), 2) << "a body with two faces";
  SolverOptions options;
  for (const Link& l : a.network.links) {
    const bool from = own[static_cast<std::size_t>(l.from)], to = own[static_cast<std::size_t>(l.to)];
    options.groupOfLink.push_back(from == to ? -1 : to ? 0 : 1);
  }
  auto solver = Solver::prepare(a.network, options);
  ASSERT_TRUE(solver);
  const auto stored = [&] {
    double sum = 0.0;
    for (std::size_t i = 0; i < own.size(); ++i)
      if (own[i]) sum += a.network.nodes[i].capacity_J_K * solver->temperature_C(static_cast<int>(i));
    return sum;
  };
  const double before = stored();
  double in = 0.0, out = 0.0;
  for (int i = 0; i < 4 * 144; ++i) {
    ASSERT_TRUE(solver->advance(600.0));
    in += solver->groupEnergy_J(0);
    out += solver->groupEnergy_J(1);
    if (i > 144 && solver->lastPower_W(a.heaters.at(1).thermostat) > 0.0) {
      EXPECT_CLOSE(solver->temperature_C(a.rooms.at(0).air), 12.0, 0.005, "the thermostat's tolerance");
    }
    if (i > 144 && solver->lastPower_W(a.heaters.at(0).thermostat) > 0.0) {
      EXPECT_CLOSE(solver->temperature_C(a.air), 4.0, 0.05, "a step split by freezing soil may heat in its first part alone");
    }
  }
  EXPECT_GT(std::abs(in) + std::abs(out), 1e7) << "some kilowatt-hours went through";
  EXPECT_LE(std::abs(in - out - (stored() - before)), 1e-6 * (std::abs(in) + std::abs(out)));
  EXPECT_LE(solver->balance().closure(), 1e-6);
}

TEST(WarmBay, SeesTheHouseThroughAFilmByItsTransmittanceAndNotThroughABoard) {
  Plan p = house();
  const auto weather = frost(p.site);
  const Scene scene = makeScene(weather, p);
  for (const char* material : {"pe-film", "eva-film", "timber-25"}) {
    p.house.bay->partition.layers = {{material, 0.05}};
    const Network net = assemble(p, weather->winters.front(), scene.sun.front()).network;
    const int rooms[] = {net.find("radiation"), net.find("bay radiation")};
    double area = 0.0;
    for (const Link& l : net.links)
      if (l.kind == LinkKind::radiative && ((l.from == rooms[0] && l.to == rooms[1]) || (l.from == rooms[1] && l.to == rooms[0]))) area += l.coefficient;
    EXPECT_CLOSE(area, p.house.shape.section_m2() * findCoverMaterial(material)->longwave.transmittance, 1e-9, "one sheet between two rooms");
  }
}

TEST(WarmBay, CostsLessToHoldThanTheWholeHouseAtItsTemperature) {
  Plan bay = house();
  const auto weather = frost(bay.site);
  const Scene scene = makeScene(weather, bay);
  const Simulation split = *simulate(bay, scene);
  ASSERT_EQ(split.summary.rooms.size(), 1U);
  EXPECT_EQ(split.summary.rooms[0].held, split.summary.nights);
  EXPECT_EQ(split.summary.held, split.summary.nights);
  EXPECT_GT(split.summary.rooms[0].heater_kWh, 0.0);
  EXPECT_LT(split.summary.rooms[0].heater_kWh, split.summary.heater_kWh);
  EXPECT_LE(split.summary.closure, 1e-6);
  Plan whole = bay;
  whole.house.bay.reset();
  removeHeaters(whole, {HeaterPlace::Of::bay});
  whole.setpoints = {11.9, 12.0, 12.0};
  whole.heaters.front().power_W = 60000.0;
  EXPECT_LT(split.summary.heater_kWh, 0.75 * simulate(whole, scene)->summary.heater_kWh);
}

TEST(WarmBay, ItsFloorSkinsAndDraughtsAreTakenFromTheHouse) {
  Plan with = house();
  Plan without = with;
  without.house.bay.reset();
  const auto split = steadyLoss(with, 8.0, -5.0, 2.0, 0.5), one = steadyLoss(without, 8.0, -5.0, 2.0, 0.5);
  EXPECT_CLOSE(split->total_W, one->total_W, 0.03 * one->total_W,
               "both at one temperature lose what one house loses; enclosures see each other, and dry, a little differently");
}

TEST(WarmBay, SaysWhatDoesNotFit) {
  Plan p = house();
  p.house.bay->length_m = 17.0;
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/warm_bay/length_m");
  p.house.bay->length_m = 4.0;
  p.house.bay->setpoints.day_C = 30.0;
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/warm_bay/setpoints");
  p.house.bay->setpoints.day_C = 12.0;
  p.house.shape = p.house.shape.as(ShapeKind::dome);
  ASSERT_EQ(check(p).size(), 1U);
  EXPECT_EQ(check(p)[0].where, "/house/warm_bay");
}

} // namespace
} // namespace muffle::warm_bay_test
