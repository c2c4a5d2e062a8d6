// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/longwave.h"

#include <Eigen/Dense>

#include <algorithm>

namespace muffle {

// Unknowns are the fluxes leaving each face of each sheet (W/m2 for unit emission of one emitter); sheet s has the faces
// 2 s, outer, and 2 s + 1, inner.
LongwaveStack longwaveStack(const LongwaveCover& cover) {
  const auto sheets = static_cast<int>(cover.sheets.size());
  const int faces = 2 * sheets;
  Eigen::MatrixXd view = Eigen::MatrixXd::Zero(faces, faces); // arriving(i) = sum_j view(i, j) leaving(j)
  for (int s = 0; s + 1 < sheets; ++s) view(2 * s + 1, 2 * s + 2) = view(2 * s + 2, 2 * s + 1) = 1.0;
  Eigen::MatrixXd scatter = Eigen::MatrixXd::Zero(faces, faces);
  for (int s = 0; s < sheets; ++s) {
    const LongwaveSheet& sheet = cover.sheets[static_cast<std::size_t>(s)];
    scatter(2 * s, 2 * s) = std::max(1.0 - sheet.emissivity - sheet.transmittance, 0.0);
    scatter(2 * s + 1, 2 * s + 1) = std::max(1.0 - sheet.inner() - sheet.transmittance, 0.0);
    scatter(2 * s, 2 * s + 1) = scatter(2 * s + 1, 2 * s) = sheet.transmittance;
  }
  // leaving = emitted + scatter (view leaving + from beyond)
  const Eigen::PartialPivLU<Eigen::MatrixXd> lu(Eigen::MatrixXd::Identity(faces, faces) - scatter * view);

  const int bodies = sheets + static_cast<int>(kStackSheets);
  Eigen::MatrixXd exchange = Eigen::MatrixXd::Zero(bodies, bodies);
  const auto absorb = [&](std::size_t emitter, const Eigen::VectorXd& emitted, const Eigen::VectorXd& beyond) {
    const Eigen::VectorXd leaving = lu.solve(emitted + scatter * beyond);
    const Eigen::VectorXd arriving = view * leaving + beyond;
    const auto row = static_cast<Eigen::Index>(emitter);
    exchange(row, kStackOutside) = leaving(0);
    exchange(row, kStackRoom) = leaving(faces - 1);
    for (int s = 0; s < sheets; ++s) {
      const LongwaveSheet& sheet = cover.sheets[static_cast<std::size_t>(s)];
      exchange(row, static_cast<Eigen::Index>(kStackSheets) + s) = sheet.emissivity * arriving(2 * s) + sheet.inner() * arriving(2 * s + 1);
    }
  };
  const Eigen::VectorXd none = Eigen::VectorXd::Zero(faces);
  absorb(kStackOutside, none, Eigen::VectorXd::Unit(faces, 0));
  absorb(kStackRoom, none, Eigen::VectorXd::Unit(faces, faces - 1));
  for (int s = 0; s < sheets; ++s) {
    Eigen::VectorXd emitted = none;
    emitted(2 * s) = cover.sheets[static_cast<std::size_t>(s)].emissivity;
    emitted(2 * s + 1) = cover.sheets[static_cast<std::size_t>(s)].inner();
    absorb(kStackSheets + static_cast<std::size_t>(s), emitted, none);
  }
  LongwaveStack areas(static_cast<std::size_t>(bodies), std::vector<double>(static_cast<std::size_t>(bodies), 0.0));
  for (int i = 0; i < bodies; ++i)
    for (int j = 0; j < bodies; ++j) // equal either way but for rounding
      if (i != j) areas[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] = 0.5 * cover.area_m2 * (exchange(i, j) + exchange(j, i));
  return areas;
}

double floorToRoom_m2(double floor_m2, double floorEmissivity, double coverArea_m2) {
  constexpr double kLeast = 1e-12; // a black floor as large as its cover is the room's radiation itself
  const double absorbing = floor_m2 * floorEmissivity;
  return absorbing * coverArea_m2 / std::max(coverArea_m2 - absorbing, kLeast * coverArea_m2);
}

LongwaveAreas longwaveAreas(double floor_m2, double floorEmissivity, const std::vector<LongwaveCover>& covers) {
  LongwaveAreas areas;
  int surfaces = 1;
  for (std::size_t c = 0; c < covers.size(); ++c) areas.outside.push_back(surfaces++);
  double coverArea = 0.0;
  for (const LongwaveCover& cover : covers) {
    std::vector<int>& sheets = areas.sheets.emplace_back();
    for (std::size_t s = 0; s < cover.sheets.size(); ++s) sheets.push_back(surfaces++);
    coverArea += cover.area_m2;
  }
  areas.between.assign(static_cast<std::size_t>(surfaces), std::vector<double>(static_cast<std::size_t>(surfaces), 0.0));
  std::vector<double> toRoom(static_cast<std::size_t>(surfaces), 0.0);
  toRoom[0] = floorToRoom_m2(floor_m2, floorEmissivity, coverArea);
  double sum = toRoom[0];
  for (std::size_t c = 0; c < covers.size(); ++c) {
    const LongwaveStack stack = longwaveStack(covers[c]);
    const auto surface = [&](std::size_t k) { return static_cast<std::size_t>(k == kStackOutside ? areas.outside[c] : areas.sheets[c][k - kStackSheets]); };
    for (std::size_t i = 0; i < stack.size(); ++i) {
      if (i == kStackRoom) continue;
      toRoom[surface(i)] = stack[i][kStackRoom];
      sum += stack[i][kStackRoom];
      for (std::size_t j = 0; j < stack.size(); ++j)
        if (j != kStackRoom) areas.between[surface(i)][surface(j)] += stack[i][j];
    }
  }
  for (std::size_t i = 0; i < toRoom.size(); ++i)
    for (std::size_t j = 0; j < toRoom.size(); ++j)
      if (i != j) areas.between[i][j] += toRoom[i] * toRoom[j] / sum;
  return areas;
}

} // namespace muffle
