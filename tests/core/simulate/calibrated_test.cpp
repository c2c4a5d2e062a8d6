// SPDX-License-Identifier: GPL-3.0-or-later
//
// What each factor of a calibration moves in the model, and that it moves nothing else.
#include "core/simulate/simulate.h"

#include "tests/support/frost.h"
#include "tests/support/near.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <map>

namespace muffle {
namespace {

Plan sunkHouse() {
  Plan p = testing::filmTunnel();
  p.house.shape.sunk_m = 0.8;
  return p;
}

Plan with(Plan plan, const Calibration& calibration) {
  plan.calibration = calibration;
  return plan;
}

std::map<LossPath, double> parts(const Plan& plan) {
  std::map<LossPath, double> loss_W;
  const HeatLoss loss = *steadyLoss(plan, 6.0, -6.0, 2.0, 0.5);
  for (const LossPart& p : loss.parts) loss_W[p.part] = p.loss_W;
  return loss_W;
}

Assembly assembled(const Plan& plan) {
  const auto weather = testing::frost(plan.site);
  const Winter& winter = weather->winters.front();
  return assemble(plan, winter, sunOnHouse(plan.house.shape, winter));
}

/// Added up over the links between two nodes whose names begin so.
double conductance_W_K(const Network& net, const std::string& name) {
  double sum = 0.0;
  const auto isIt = [&](int node) { return net.nodes[static_cast<std::size_t>(node)].id.rfind(name, 0) == 0; };
  for (const Link& l : net.links)
    if (l.kind == LinkKind::conductance && isIt(l.from) && isIt(l.to)) sum += l.coefficient;
  return sum;
}

TEST(Calibrated, DraughtsAreMultipliedByTheirFactorAndTheRestStays) {
  Plan dry = sunkHouse(); // or drier air would carry less water off and wet the cover less
  dry.house.crop = {.leafArea = 0.0, .wetFloor = 0.0};
  auto before = parts(dry), after = parts(with(dry, {.draughts = 1.5, .date = ""}));
  EXPECT_CLOSE(after[LossPath::draughts] / before[LossPath::draughts], 1.5, 1e-9, "both airs are given");
  for (const LossPath part : {LossPath::roof, LossPath::sides, LossPath::ends, LossPath::floorEdge, LossPath::deepGround})
    EXPECT_CLOSE(after[part] / before[part], 1.0, 1e-9, "the air's temperature is given") << lossPathId(part);
}

TEST(Calibrated, CoversThatLetMoreThroughLoseMoreAndTheGroundDoesNot) {
  auto before = parts(sunkHouse()), after = parts(with(sunkHouse(), {.skin = 1.3, .date = ""}));
  for (const LossPath part : {LossPath::roof, LossPath::ends}) {
    EXPECT_GT(after[part], 1.1 * before[part]) << lossPathId(part);
    EXPECT_LT(after[part], 1.31 * before[part]) << lossPathId(part);
  }
  EXPECT_LT(after[LossPath::deepGround], before[LossPath::deepGround]) << "a colder cover draws on the floor, which then gives the ground less";
}

TEST(Calibrated, SoilThatConductsMoreDoesSoUnderTheFloorAndBesideIt) {
  const Assembly before = assembled(sunkHouse()), after = assembled(with(sunkHouse(), {.ground = 1.4, .date = ""}));
  for (const char* name : {"soil", "sunk wall"}) {
    const double was = conductance_W_K(before.network, name);
    ASSERT_GT(was, 0.0) << name;
    EXPECT_CLOSE(conductance_W_K(after.network, name) / was, 1.4, 1e-9, "between pieces of soil there is nothing else") << name;
  }
}

TEST(Calibrated, MassIsThatOfCropAndBenches) {
  const Assembly before = assembled(sunkHouse()), after = assembled(with(sunkHouse(), {.mass = 2.0, .date = ""}));
  const auto capacity = [](const Assembly& a) { return a.network.nodes[static_cast<std::size_t>(a.air)].capacity_J_K; };
  EXPECT_CLOSE(capacity(after) - capacity(before), 20000.0 * sunkHouse().house.shape.floor_m2(), 1.0, "20 kJ/K by square metre, once more");
}

TEST(Calibrated, AllFactorsAtOneChangeNothing) {
  const Plan plan = sunkHouse();
  const Scene scene = makeScene(testing::frost(plan.site), plan);
  const auto bare = simulate(plan, scene, {.series = true}), fitted = simulate(with(plan, {.date = "2031-02-01"}), scene, {.series = true});
  EXPECT_EQ(bare->series.front().air_C, fitted->series.front().air_C);
}

TEST(SteadyLoss, HasTheGroundAtItsYearsMeanBesideASunkFloorToo) {
  Plan p = sunkHouse();
  p.site.groundMean_C = 9.0;
  p.site.groundAmplitude_K = 0.0;
  auto still = parts(p);
  p.site.groundAmplitude_K = 12.0;
  auto waving = parts(p);
  for (const auto& [part, loss_W] : still) EXPECT_CLOSE(waving[part], loss_W, 1e-6, "watts, of the solver's last round") << lossPathId(part);
}

} // namespace
} // namespace muffle
