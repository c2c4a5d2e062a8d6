// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/longwave.h"

#include "tests/support/near.h"

namespace muffle {
namespace {

TEST(Longwave, EverythingEmittedIsAbsorbedSomewhere) {
  const double floor = 50.0;
  const std::vector<LongwaveCover> covers{{60.0, {{0.4, 0.45}, {0.65, 0.22}}}, {30.0, {{0.9, 0.0}}}};
  const auto a = longwaveAreas(floor, 0.95, covers);
  // a floor that lost nothing to itself would send eps x area; what comes back to it by reflection is the difference
  double sum = 0.0;
  for (const double x : a.between[0]) sum += x;
  EXPECT_LE(sum, floor * 0.95 + 1e-9);
  EXPECT_GE(sum, floor * 0.80);
  for (std::size_t i = 0; i < a.between.size(); ++i)
    for (std::size_t j = 0; j < a.between.size(); ++j) {
      EXPECT_GE(a.between[i][j], -1e-12);
      EXPECT_CLOSE(a.between[i][j], a.between[j][i], 1e-9, "reciprocity, to rounding of the solve");
    }
}

TEST(Longwave, AnOpaqueCoverHidesTheSkyFromTheFloor) {
  const auto a = longwaveAreas(50.0, 0.95, {{90.0, {{0.9, 0.0}}}});
  EXPECT_CLOSE(a.between[0][static_cast<std::size_t>(a.outside[0])], 0.0, 1e-12, "no path");
}

TEST(Longwave, TwoParallelGreyPlanesFollowTheTextbook) {
  // floor and an opaque cover of the same size: A / (1/e1 + 1/e2 - 1)
  const auto a = longwaveAreas(10.0, 0.8, {{10.0, {{0.6, 0.0}}}});
  EXPECT_CLOSE(a.between[0][static_cast<std::size_t>(a.sheets[0][0])], 10.0 / (1 / 0.8 + 1 / 0.6 - 1), 1e-10, "closed form");
}

/// Radiosities of opaque grey surfaces, written out: J_i = e_i E_i + (1 - e_i) sum F_ij J_j; the net flow of each for given E.
std::vector<double> byRadiosity(const std::vector<double>& area, const std::vector<double>& emissivity, const std::vector<std::vector<double>>& view,
                                const std::vector<double>& E) {
  std::vector<double> J = E, net(E.size());
  for (int k = 0; k < 2000; ++k)
    for (std::size_t i = 0; i < J.size(); ++i) {
      double arriving = 0.0;
      for (std::size_t j = 0; j < J.size(); ++j) arriving += view[i][j] * J[j];
      J[i] = emissivity[i] * E[i] + (1.0 - emissivity[i]) * arriving;
      net[i] = area[i] * (J[i] - arriving);
    }
  return net;
}

TEST(Longwave, ThreeGreySurfacesExchangeAsByTheirRadiosities) {
  // a floor under two opaque covers of unlike size and emissivity
  const double floor = 40.0, first = 60.0, second = 25.0, all = first + second;
  const double toFloor = floor / all;
  const std::vector<std::vector<double>> view{{0.0, first / all, second / all},
                                              {toFloor, (1 - toFloor) * first / all, (1 - toFloor) * second / all},
                                              {toFloor, (1 - toFloor) * first / all, (1 - toFloor) * second / all}};
  const std::vector<double> E{380.0, 300.0, 250.0};
  const auto expected = byRadiosity({floor, first, second}, {0.9, 0.3, 0.85}, view, E);
  const auto a = longwaveAreas(floor, 0.9, {{first, {{0.3, 0.0}}}, {second, {{0.85, 0.0}}}});
  const std::size_t surface[] = {0, static_cast<std::size_t>(a.sheets[0][0]), static_cast<std::size_t>(a.sheets[1][0])};
  for (std::size_t i = 0; i < 3; ++i) {
    double net = 0.0;
    for (std::size_t j = 0; j < 3; ++j) net += a.between[surface[i]][surface[j]] * (E[i] - E[j]);
    EXPECT_CLOSE(net, expected[i], 1e-8, "an iteration to rounding against a solve");
  }
}

TEST(Longwave, AStackPassesOnWhatItDoesNotKeep) {
  // one sheet: the sky sees the room by the transmittance, both see the sheet by its emissivity
  const LongwaveStack a = longwaveStack({10.0, {{0.3, 0.6}}});
  EXPECT_CLOSE(a[kStackOutside][kStackRoom], 6.0, 1e-12, "closed form");
  EXPECT_CLOSE(a[kStackOutside][kStackSheets], 3.0, 1e-12, "closed form");
  EXPECT_CLOSE(a[kStackRoom][kStackSheets], 3.0, 1e-12, "closed form");
}

TEST(Longwave, TheStarAboutTheRoomIsTheSameAsALinkForEveryPair) {
  // films, a body and a bare film over a moist floor: flows by the star, its middle in balance, against those by pairs
  const double floor = 50.0, emissivity = 0.95;
  const std::vector<LongwaveCover> covers{{60.0, {{0.4, 0.45}, {0.65, 0.22}}}, {30.0, {{0.9, 0.0}, {0.9, 0.0}}}, {12.0, {{0.2, 0.75}}}};
  const auto a = longwaveAreas(floor, emissivity, covers);
  std::vector<double> E(a.between.size());
  for (std::size_t i = 0; i < E.size(); ++i) E[i] = 250.0 + 17.0 * static_cast<double>(i * i % 11);
  double coverArea = 0.0;
  for (const LongwaveCover& c : covers) coverArea += c.area_m2;
  double weight = floorToRoom_m2(floor, emissivity, coverArea), sum = weight * E[0];
  const auto surface = [&](std::size_t c, std::size_t k) {
    return static_cast<std::size_t>(k == kStackOutside ? a.outside[c] : a.sheets[c][k - kStackSheets]);
  };
  for (std::size_t c = 0; c < covers.size(); ++c) {
    const LongwaveStack stack = longwaveStack(covers[c]);
    for (std::size_t k = 0; k < stack.size(); ++k) {
      if (k == kStackRoom) continue;
      weight += stack[k][kStackRoom];
      sum += stack[k][kStackRoom] * E[surface(c, k)];
    }
  }
  const double room = sum / weight;
  for (std::size_t c = 0; c < covers.size(); ++c) {
    const LongwaveStack stack = longwaveStack(covers[c]);
    for (std::size_t k = kStackSheets; k < stack.size(); ++k) {
      double byStar = stack[k][kStackRoom] * (E[surface(c, k)] - room), byPairs = 0.0;
      for (std::size_t j = 0; j < stack.size(); ++j)
        if (j != kStackRoom) byStar += stack[k][j] * (E[surface(c, k)] - E[surface(c, j)]);
      for (std::size_t j = 0; j < E.size(); ++j) byPairs += a.between[surface(c, k)][j] * (E[surface(c, k)] - E[j]);
      EXPECT_CLOSE(byStar, byPairs, 1e-9, "rounding");
    }
  }
}

TEST(Longwave, AClearFilmShowsTheFloorItsShareOfSky) {
  // black floor, film of no reflectance: the floor sees the sky by tau
  const auto a = longwaveAreas(10.0, 1.0, {{10.0, {{0.3, 0.7}}}});
  EXPECT_CLOSE(a.between[0][static_cast<std::size_t>(a.outside[0])], 7.0, 1e-10, "closed form");
}

} // namespace
} // namespace muffle
