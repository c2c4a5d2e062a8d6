// SPDX-License-Identifier: GPL-3.0-or-later
//
// The demo network integrated by SUNDIALS CVODE (BDF, dense) at tight tolerance, beside the product's solver, over the first
// 30 days of the first winter without the heater (the ideal thermostat is the product's own notion of a step). Prints the
// largest and rms difference of the air and both run times, at several CVODE tolerances so that equal errors can be compared.
#include "bench/demo_scene.h"
#include "core/network/solver.h"

#include <cvode/cvode.h>
#include <nvector/nvector_serial.h>
#include <sunlinsol/sunlinsol_dense.h>
#include <sunmatrix/sunmatrix_dense.h>

#include <chrono>
#include <cmath>
#include <cstdio>

using namespace muffle;

namespace {

struct Problem_ {
  const Network* net;
  std::vector<int> free;           ///< node -> unknown, -1 for boundaries
  std::vector<int> node;           ///< unknown -> node
};

/// dT/dt by the network's definition, written independently of the solver.
int rhs(double t, N_Vector y, N_Vector dy, void* data) {
  const auto& p = *static_cast<Problem_*>(data);
  const Network& net = *p.net;
  const double* Y = N_VGetArrayPointer(y);
  double* D = N_VGetArrayPointer(dy);
  std::vector<double> T(net.nodes.size()), f(net.nodes.size(), 0.0);
  for (std::size_t i = 0; i < T.size(); ++i) T[i] = p.free[i] >= 0 ? Y[p.free[i]] : net.nodes[i].boundary->at(t, net.tables);
  for (const Link& l : net.links) {
    const double a = T[static_cast<std::size_t>(l.from)], b = T[static_cast<std::size_t>(l.to)];
    const double mod = l.modulator < 0 ? 1.0 : net.tables[static_cast<std::size_t>(l.modulator)].at(t);
    double q = 0.0;
    switch (l.kind) {
    case LinkKind::conductance:
    case LinkKind::advective: q = l.coefficient * mod * (a - b); break;
    case LinkKind::radiative: q = l.coefficient * mod * kStefanBoltzmann_W_m2K4 * (std::pow(kelvin(a), 4) - std::pow(kelvin(b), 4)); break;
    case LinkKind::natural: q = l.coefficient * mod * std::pow((a - b) * (a - b) + 0.01, l.exponent / 2.0) * (a - b); break;
    }
    f[static_cast<std::size_t>(l.from)] -= q;
    f[static_cast<std::size_t>(l.to)] += q;
  }
  for (const Vent& v : net.vents) {
    const double opening = std::clamp((T[static_cast<std::size_t>(v.sensor)] - v.opens_C) / (v.full_C - v.opens_C), 0.0, 1.0);
    const double q = opening * v.conductance_W_K * (T[static_cast<std::size_t>(v.from)] - T[static_cast<std::size_t>(v.to)]);
    f[static_cast<std::size_t>(v.from)] -= q;
    f[static_cast<std::size_t>(v.to)] += q;
  }
  for (const Source& s : net.sources) f[static_cast<std::size_t>(s.node)] += s.power.at(t, net.tables);
  for (std::size_t u = 0; u < p.node.size(); ++u) D[u] = f[static_cast<std::size_t>(p.node[u])] / net.nodes[static_cast<std::size_t>(p.node[u])].capacity_J_K;
  return 0;
}

double seconds() { return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count(); }

std::vector<double> byCvode(const Network& net, int air, std::size_t steps, double h, double tolerance, double& took) {
  Problem_ p{&net, std::vector<int>(net.nodes.size(), -1), {}};
  for (std::size_t i = 0; i < net.nodes.size(); ++i)
    if (!net.nodes[i].boundary) {
      p.free[i] = static_cast<int>(p.node.size());
      p.node.push_back(static_cast<int>(i));
    }
  SUNContext context = nullptr;
  SUNContext_Create(nullptr, &context);
  N_Vector y = N_VNew_Serial(static_cast<sunindextype>(p.node.size()), context);
  for (std::size_t u = 0; u < p.node.size(); ++u) N_VGetArrayPointer(y)[u] = net.nodes[static_cast<std::size_t>(p.node[u])].initial_C;
  void* cvode = CVodeCreate(CV_BDF, context);
  CVodeInit(cvode, rhs, 0.0, y);
  CVodeSetUserData(cvode, &p);
  CVodeSStolerances(cvode, tolerance, tolerance * 10.0);
  CVodeSetMaxNumSteps(cvode, 10000000);
  CVodeSetMaxStep(cvode, h); // tables have a corner at every sample
  SUNMatrix matrix = SUNDenseMatrix(static_cast<sunindextype>(p.node.size()), static_cast<sunindextype>(p.node.size()), context);
  SUNLinearSolver solver = SUNLinSol_Dense(y, matrix, context);
  CVodeSetLinearSolver(cvode, solver, matrix);
  std::vector<double> T;
  const double begin = seconds();
  for (std::size_t i = 1; i <= steps; ++i) {
    double t = 0.0;
    const double target = h * static_cast<double>(i);
    CVodeSetStopTime(cvode, target);
    if (CVode(cvode, target, y, &t, CV_NORMAL) < 0) return {};
    T.push_back(N_VGetArrayPointer(y)[p.free[static_cast<std::size_t>(air)]]);
  }
  took = seconds() - begin;
  SUNLinSolFree(solver);
  SUNMatDestroy(matrix);
  N_VDestroy(y);
  CVodeFree(&cvode);
  SUNContext_Free(&context);
  return T;
}

} // namespace

int main() {
  Plan plan = bench::demo().plan;
  plan.heater.reset();
  const Winter& winter = bench::demo().weather->winters.front();
  const Assembly a = assemble(plan, winter, bench::demo().scene.sun.front());
  const std::size_t steps = 30 * 144;
  double took = 0.0;
  const auto exact = byCvode(a.network, a.air, steps, winter.step_s, 1e-9, took);
  if (exact.empty()) {
    std::fprintf(stderr, "CVODE gave up\n");
    return 1;
  }
  std::printf("%zu nodes, %zu steps of %.0f s; reference CVODE 1e-9: %.2f s\n", a.network.nodes.size(), steps, winter.step_s, took);
  const auto compare = [&](const char* name, const std::vector<double>& T, double time) {
    double worst = 0.0, sum = 0.0;
    for (std::size_t i = 0; i < T.size(); ++i) {
      worst = std::max(worst, std::abs(T[i] - exact[i]));
      sum += (T[i] - exact[i]) * (T[i] - exact[i]);
    }
    std::printf("%-28s worst %.4f K  rms %.4f K  %8.1f ms\n", name, worst, std::sqrt(sum / static_cast<double>(T.size())), time * 1000.0);
  };
  for (const int pieces : {1, 2, 4}) {
    auto solver = Solver::prepare(a.network);
    std::vector<double> T;
    const double begin = seconds();
    for (std::size_t i = 0; i < steps; ++i) {
      for (int k = 0; k < pieces; ++k) solver->advance(winter.step_s / pieces);
      T.push_back(solver->temperature_C(a.air));
    }
    const std::string name = "Muffle, step " + std::to_string(static_cast<int>(winter.step_s) / pieces) + " s";
    compare(name.c_str(), T, seconds() - begin);
  }
  for (const double tolerance : {1e-3, 1e-4, 1e-5, 1e-6}) {
    const auto T = byCvode(a.network, a.air, steps, winter.step_s, tolerance, took);
    const std::string name = "CVODE, tolerance " + std::to_string(tolerance);
    compare(name.c_str(), T, took);
  }
  return 0;
}
