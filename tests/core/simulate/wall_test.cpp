// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heavy walls as the skins build them, against the exact periodic answer of ISO 13786 and against their own steady state.
#include "core/assemble/covers.h"
#include "core/constants.h"
#include "core/house/resistance.h"
#include "core/material/materials.h"
#include "core/network/solver.h"
#include "tests/support/near.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <complex>

namespace muffle {
namespace {

using Complex = std::complex<double>;

constexpr double kOutsideFilm_W_m2K = 4.0 + 4.0 * 3.0;

/// The skin between a sine outside and still air inside at 0 degC, radiation left out: the wall and its two films alone.
struct Wall {
  Network net;
  int inside = -1;
  Wall(const std::vector<Layer>& layers, const Driver& outside) {
    CoverSurroundings at;
    at.air = inside = net.addBoundary("air", Driver::constant(0.0));
    at.floor = net.addBoundary("floor", Driver::constant(0.0));
    at.outside = net.addBoundary("outside", outside);
    at.sky = net.addBoundary("sky", Driver::constant(0.0));
    Signal film;
    film.value = {kOutsideFilm_W_m2K};
    film.step_s = 600.0;
    at.windFilm = net.addSignal(std::move(film));
    Covers covers(net, at, 0.0, 0.0);
    covers.add(Skin{layers}, FaceGroup::sides, 1.0, 0.5, "wall");
    for (Link& l : net.links) // a plain film inside: ISO 13786 is linear
      if (l.kind == LinkKind::natural) {
        l.kind = LinkKind::conductance;
        l.coefficient = 1.0 / 0.13;
      }
  }
  Wall(const char* material, double swing_K) : Wall({{material, 0.05}}, Driver::sine(0.0, swing_K, kDay_s, 0.0)) {}

  /// Heat into the room, W.
  [[nodiscard]] double intoRoom_W(const Solver& solver) const {
    double q = 0.0;
    for (std::size_t l = 0; l < net.links.size(); ++l) {
      if (net.links[l].from == inside) q -= solver.linkFlow_W(static_cast<int>(l));
      if (net.links[l].to == inside) q += solver.linkFlow_W(static_cast<int>(l));
    }
    return q;
  }
};

/// |Y12|: heat into the room by each kelvin of swing outside, W/(m2 K).
double periodicTransmittance(const CoverMaterial& m) {
  const double omega = 2.0 * kPi / kDay_s;
  // thickness and conductivity only matter as R and C: the layer's Z = sqrt(i omega R C), its matrix by ISO 13786
  const Complex z = std::sqrt(Complex(0.0, omega * m.resistance_m2K_W * m.capacity_J_m2K));
  const Complex a11 = std::cosh(z), a12 = -m.resistance_m2K_W * std::sinh(z) / z, a21 = -z * std::sinh(z) / m.resistance_m2K_W;
  const double in = -0.13, out = -1.0 / kOutsideFilm_W_m2K;
  // Z = films on both sides; its element 12 gives Y12 = -1/Z12
  const Complex z12 = (a11 + in * a21) * out + a12 + in * a11;
  return 1.0 / std::abs(z12);
}

TEST(Wall, PassesADaysWaveAsIso13786Says) {
  for (const char* id : {"block-200", "brick-215", "stone-400", "earth-500"}) {
    Wall wall(id, 10.0);
    auto solver = Solver::prepare(wall.net);
    ASSERT_TRUE(solver);
    double least = 1e9, most = -1e9;
    for (int i = 0; i < 20 * 144; ++i) {
      ASSERT_TRUE(solver->advance(600.0));
      if (i < 19 * 144) continue; // the start has died away
      const double q = wall.intoRoom_W(*solver);
      least = std::min(least, q);
      most = std::max(most, q);
    }
    const double exact = periodicTransmittance(*findCoverMaterial(id));
    EXPECT_CLOSE((most - least) / 20.0 / exact, 1.0, 0.06,
                 "pieces of an hour: within 0.1 % for block and 5 % for half a metre of earth, which lets a twelfth of the wave through");
  }
}

/// A layer's transfer matrix by ISO 13786 with s for i omega; of two surface resistances and an air gap, C is 0.
Eigen::Matrix2cd transfer(double resistance, double capacity, Complex s) {
  Eigen::Matrix2cd m;
  if (capacity == 0.0) {
    m << 1.0, -resistance, 0.0, 1.0;
    return m;
  }
  const Complex z = std::sqrt(s * resistance * capacity);
  m << std::cosh(z), -resistance * std::sinh(z) / z, -z * std::sinh(z) / resistance, std::cosh(z);
  return m;
}

/// f(t) from its Laplace transform: Talbot's contour with fixed parameters (Abate and Valko, Int. J. Numer. Meth. Engng 60 (2004) 979).
template <class F> double inverseLaplace(F f, double t) {
  constexpr int kPoints = 24;
  const double r = 2.0 * kPoints / (5.0 * t);
  double sum = 0.5 * (std::exp(r * t) * f(Complex(r, 0.0))).real();
  for (int k = 1; k < kPoints; ++k) {
    const double angle = k * kPi / kPoints;
    const double cot = 1.0 / std::tan(angle);
    const Complex s = r * angle * Complex(cot, 1.0);
    const double sigma = angle + (angle * cot - 1.0) * cot;
    sum += (std::exp(t * s) * f(s) * Complex(1.0, sigma)).real();
  }
  return r / kPoints * sum;
}

TEST(Wall, AnswersAStepOutsideAsTheMatricesOfItsLayersSay) {
  constexpr double kGap_m = 0.05, kStep_K = 10.0;
  const double gap = 1.0 / airLayerConvection_W_m2K(kGap_m, HeatFlow::horizontal);
  for (const auto& [outer, inner] : {std::pair{"brick-215", "foam-board-50"}, {"foam-board-50", "brick-215"}, {"block-200", "timber-25"}}) {
    const Wall wall({{outer, kGap_m}, {inner, kGap_m}}, Driver::constant(kStep_K));
    const CoverMaterial &first = *findCoverMaterial(outer), &second = *findCoverMaterial(inner);
    const auto flux = [&](Complex s) {
      const Eigen::Matrix2cd z = transfer(0.13, 0.0, s) * transfer(second.resistance_m2K_W, second.capacity_J_m2K, s) * transfer(gap, 0.0, s) *
                                 transfer(first.resistance_m2K_W, first.capacity_J_m2K, s) * transfer(1.0 / kOutsideFilm_W_m2K, 0.0, s);
      return -kStep_K / z(0, 1) / s;
    };
    const double last = kStep_K / (0.13 + second.resistance_m2K_W + gap + first.resistance_m2K_W + 1.0 / kOutsideFilm_W_m2K);
    auto solver = Solver::prepare(wall.net);
    ASSERT_TRUE(solver);
    for (const int hours : {1, 2, 4, 8, 16, 32, 64}) {
      while (solver->time_s() < hours * 3600.0 - 1.0) ASSERT_TRUE(solver->advance(600.0));
      EXPECT_CLOSE(wall.intoRoom_W(*solver) / last, inverseLaplace(flux, hours * 3600.0) / last, 0.01,
                   "of the flow that is reached at last: bodies in pieces of an hour");
    }
    EXPECT_CLOSE(inverseLaplace(flux, 3600.0 * 2000.0) / last, 1.0, 1e-6, "the matrices' own end is the sum of resistances");
  }
}

TEST(Wall, HeavyOnesAreCutAndLightOnesAreNot) {
  const auto pieces = [](const char* id) {
    const Wall wall(id, 0.0);
    return std::count_if(wall.net.nodes.begin(), wall.net.nodes.end(), [](const Node& n) { return n.id.rfind("wall", 0) == 0; });
  };
  EXPECT_EQ(pieces("pe-film"), 1);
  EXPECT_EQ(pieces("twin-wall-8"), 2);
  EXPECT_GT(pieces("brick-215"), 4);
  EXPECT_LE(pieces("earth-1000"), 9) << "a season must stay quick";
}

TEST(Wall, StoresWhatItsMaterialStores) {
  for (const char* id : {"glass-4mm", "twin-wall-16", "brick-215", "earth-1000"}) {
    const Wall wall(id, 0.0);
    double sum = 0.0;
    for (const Node& n : wall.net.nodes)
      if (!n.boundary) sum += n.capacity_J_K;
    EXPECT_CLOSE(sum / findCoverMaterial(id)->capacity_J_m2K, 1.0, 1e-12, "rounding");
  }
}

} // namespace
} // namespace muffle
