// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/longwave.h"

#include <Eigen/Dense>

#include <algorithm>

namespace muffle {

// Unknowns are the fluxes leaving each face of each surface into its cavity (W/m2 for unit emission of one emitter).
// Faces: the floor's one, each sheet's outer and inner. Cavities: outside (a sink), gaps between sheets (parallel
// planes), and the room (floor and all innermost inner faces, by view factors).
LongwaveAreas longwaveAreas(double floor_m2, double floorEmissivity, const std::vector<LongwaveCover>& covers) {
  LongwaveAreas areas;
  int surfaces = 1;
  for (std::size_t c = 0; c < covers.size(); ++c) areas.outside.push_back(surfaces++);
  int faces = 1; // face 0: floor
  std::vector<std::vector<int>> outerFace(covers.size());
  for (std::size_t c = 0; c < covers.size(); ++c) {
    areas.sheets.emplace_back();
    for (std::size_t s = 0; s < covers[c].sheets.size(); ++s) {
      areas.sheets[c].push_back(surfaces++);
      outerFace[c].push_back(faces); // inner face is the next number
      faces += 2;
    }
  }
  double coverArea = 0.0;
  for (const auto& cover : covers) coverArea += cover.area_m2;

  // arriving(i) = sum_j view(i, j) leaving(j)
  Eigen::MatrixXd view = Eigen::MatrixXd::Zero(faces, faces);
  for (std::size_t c = 0; c < covers.size(); ++c) {
    const int last = static_cast<int>(covers[c].sheets.size()) - 1;
    for (int s = 0; s < last; ++s) {
      const int inner = outerFace[c][static_cast<std::size_t>(s)] + 1;
      const int nextOuter = outerFace[c][static_cast<std::size_t>(s) + 1];
      view(inner, nextOuter) = view(nextOuter, inner) = 1.0;
    }
    const int mine = outerFace[c][static_cast<std::size_t>(last)] + 1;
    const double toFloor = std::min(floor_m2 / coverArea, 1.0);
    view(0, mine) = covers[c].area_m2 / coverArea;
    view(mine, 0) = toFloor;
    for (std::size_t other = 0; other < covers.size(); ++other) {
      const int theirs = outerFace[other].back() + 1;
      view(mine, theirs) = (1.0 - toFloor) * covers[other].area_m2 / coverArea;
    }
  }
  // leaving = emitted + reflect/transmit * arriving (+ sky through the outermost sheet)
  Eigen::MatrixXd scatter = Eigen::MatrixXd::Zero(faces, faces);
  scatter(0, 0) = 1.0 - floorEmissivity;
  for (std::size_t c = 0; c < covers.size(); ++c) {
    for (std::size_t s = 0; s < covers[c].sheets.size(); ++s) {
      const LongwaveSheet& sheet = covers[c].sheets[s];
      const int outer = outerFace[c][s];
      const double reflect = std::max(1.0 - sheet.emissivity - sheet.transmittance, 0.0);
      scatter(outer, outer) = scatter(outer + 1, outer + 1) = reflect;
      scatter(outer, outer + 1) = scatter(outer + 1, outer) = sheet.transmittance;
    }
  }
  const Eigen::MatrixXd system = Eigen::MatrixXd::Identity(faces, faces) - scatter * view;
  const Eigen::PartialPivLU<Eigen::MatrixXd> lu(system);

  areas.between.assign(static_cast<std::size_t>(surfaces), std::vector<double>(static_cast<std::size_t>(surfaces), 0.0));
  Eigen::MatrixXd exchange = Eigen::MatrixXd::Zero(surfaces, surfaces);
  const auto absorb = [&](int emitter, const Eigen::VectorXd& emitted, int skyOf) {
    const Eigen::VectorXd leaving = lu.solve(emitted);
    const Eigen::VectorXd arriving = view * leaving;
    exchange(emitter, 0) += floor_m2 * floorEmissivity * arriving(0);
    for (std::size_t c = 0; c < covers.size(); ++c) {
      const double area = covers[c].area_m2;
      for (std::size_t s = 0; s < covers[c].sheets.size(); ++s) {
        const int outer = outerFace[c][s];
        double both = arriving(outer) + arriving(outer + 1);
        if (s == 0 && static_cast<int>(c) == skyOf) both += 1.0; // the sky's own radiation arriving from outside
        exchange(emitter, areas.sheets[c][s]) += area * covers[c].sheets[s].emissivity * both;
      }
      double out = leaving(outerFace[c][0]);
      if (static_cast<int>(c) == skyOf) out = 0.0; // back to itself
      exchange(emitter, areas.outside[c]) += area * out;
    }
  };
  Eigen::VectorXd emitted = Eigen::VectorXd::Zero(faces);
  emitted(0) = floorEmissivity;
  absorb(0, emitted, -1);
  for (std::size_t c = 0; c < covers.size(); ++c) {
    for (std::size_t s = 0; s < covers[c].sheets.size(); ++s) {
      emitted.setZero();
      emitted(outerFace[c][s]) = emitted(outerFace[c][s] + 1) = covers[c].sheets[s].emissivity;
      absorb(areas.sheets[c][s], emitted, -1);
    }
    // unit sky radiation on the outermost sheet: what it scatters is its "emission" into both sides
    const LongwaveSheet& top = covers[c].sheets.front();
    emitted.setZero();
    emitted(outerFace[c][0]) = std::max(1.0 - top.emissivity - top.transmittance, 0.0);
    emitted(outerFace[c][0] + 1) = top.transmittance;
    absorb(areas.outside[c], emitted, static_cast<int>(c));
  }
  for (int i = 0; i < surfaces; ++i)
    for (int j = 0; j < surfaces; ++j)
      if (i != j) areas.between[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] = 0.5 * (exchange(i, j) + exchange(j, i)); // equal but for rounding
  return areas;
}

} // namespace muffle
