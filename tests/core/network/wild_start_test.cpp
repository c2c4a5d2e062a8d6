// SPDX-License-Identifier: GPL-3.0-or-later
//
// Long steps that set out where the slopes say nothing of what is to come: a film cover as warm as the air under it has next to no natural
// convection, until the sun is on it.
#include "core/network/solver.h"

#include "tests/support/near.h"

namespace muffle {
namespace {

/// Moist air under a cover that weighs next to nothing, over warm wet soil, on a cold morning.
Network underCover(double sun_W) {
  Network net;
  const int out = net.addBoundary("out", Driver::constant(-5.0)), sky = net.addBoundary("sky", Driver::constant(-20.0));
  const int air = net.addNode("air", 1e5, 18.0), vapour = net.addNode("vapour", 7e3, 12.8);
  const int soil = net.addNode("soil", 2e6, 22.0), cover = net.addNode("cover", 600.0, 18.0);
  Link& film = net.addNatural(air, cover, 20.0, 1.5, 1.0 / 3.0);
  film.vapour = vapour;
  Link& bed = net.addNatural(air, soil, 12.0, 2.0, 1.0 / 3.0);
  bed.vapour = vapour;
  bed.wetShare = 1.0;
  net.addRadiative(cover, sky, 12.0);
  net.addRadiative(soil, cover, 10.0);
  net.addConductance(cover, out, 20.0);
  net.sources.push_back({cover, Driver::constant(sun_W), "sun"});
  return net;
}

TEST(WildStart, StaysAboveAbsoluteZeroAndComesOutWhereShortStepsDo) {
  for (const double sun_W : {0.0, 500.0, 5000.0, 20000.0}) {
    const Network net = underCover(sun_W);
    Solver fine = *Solver::prepare(net);
    for (int i = 0; i < 720; ++i) ASSERT_TRUE(fine.advance(20.0));
    for (const bool multistep : {false, true}) {
      Solver coarse = *Solver::prepare(net, {.multistep = multistep});
      for (int i = 0; i < 4; ++i) {
        ASSERT_TRUE(coarse.advance(3600.0));
        for (std::size_t n = 0; n < net.nodes.size(); ++n)
          EXPECT_GT(coarse.temperature_C(static_cast<int>(n)), -60.0) << net.nodes[n].id << " under " << sun_W << " W";
      }
      EXPECT_CLOSE(coarse.temperature_C(net.find("cover")), fine.temperature_C(net.find("cover")), 1.0, "after four hours, in hours");
      EXPECT_LE(coarse.balance().closure(), 1e-9);
    }
  }
}

} // namespace
} // namespace muffle
