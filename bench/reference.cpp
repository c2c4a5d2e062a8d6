// SPDX-License-Identifier: GPL-3.0-or-later
//
// The demo's networks integrated by SUNDIALS CVODE (BDF, dense) at tight tolerance, beside the product's solver, over the whole
// first winter: as it is without its heater and with it, and with three rooms. An ideal heater gives one power a step; the
// reference is handed the powers that the product found, as a source that holds them, and must come to the same temperatures.
// Water does not freeze here, and no drops stay on the covers: every corner brings CVODE to a stop. Prints the largest and rms difference of the air
// and both run times, at several CVODE tolerances so that equal errors can be compared.
#include "bench/demo_scene.h"
#include "core/air/moist_air.h"
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
  std::vector<int> free;    ///< node -> unknown, -1 for boundaries
  std::vector<int> node;    ///< unknown -> node
  double stepEnd_s = 1e300; ///< held sources keep their value up to here
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
    const auto saturated_g_kg = [&](double t_C) { return 1000.0 * humidityRatio(saturationPressure_Pa(t_C), net.pressure_Pa); };
    if (l.vapour >= 0) {
      const double x = T[static_cast<std::size_t>(l.vapour)] - saturated_g_kg(b);
      const double film = l.coefficient * mod * std::pow((a - b) * (a - b) + 0.01, l.exponent / 2.0);
      const double latent = (x > 0.0 ? 1.0 : l.wetShare) * film * kEvaporation_J_kg / 1000.0 / (kAirHeat_J_kgK * 0.905) * x;
      f[static_cast<std::size_t>(l.vapour)] -= latent;
      f[static_cast<std::size_t>(l.to)] += latent;
    }
    double q = 0.0;
    switch (l.kind) {
    case LinkKind::evaporative: q = l.coefficient * mod * (saturated_g_kg(a) - b); break;
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
    const double locked = v.modulator < 0 ? 1.0 : net.tables[static_cast<std::size_t>(v.modulator)].at(t);
    const double q = locked * opening * v.conductance_W_K * (T[static_cast<std::size_t>(v.from)] - T[static_cast<std::size_t>(v.to)]);
    f[static_cast<std::size_t>(v.from)] -= q;
    f[static_cast<std::size_t>(v.to)] += q;
  }
  const double inside = std::min(t, p.stepEnd_s - 1e-3);
  for (const Source& s : net.sources) {
    const bool held = s.power.kind == Driver::Kind::table && net.tables[static_cast<std::size_t>(s.power.signal)].hold;
    f[static_cast<std::size_t>(s.node)] += s.power.at(held ? inside : t, net.tables);
  }
  for (std::size_t u = 0; u < p.node.size(); ++u) D[u] = f[static_cast<std::size_t>(p.node[u])] / net.nodes[static_cast<std::size_t>(p.node[u])].capacity_J_K;
  return 0;
}

double seconds() { return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count(); }

std::vector<double> byCvode(const Network& net, int air, std::size_t steps, double h, double tolerance, double& took) {
  Problem_ p{&net, std::vector<int>(net.nodes.size(), -1), {}, 1e300};
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
  bool jumps = false; // a held source changes at every step: the history before it misleads
  for (const Source& s : net.sources) jumps = jumps || (s.power.kind == Driver::Kind::table && net.tables[static_cast<std::size_t>(s.power.signal)].hold);
  std::vector<double> T;
  const double begin = seconds();
  for (std::size_t i = 1; i <= steps; ++i) {
    double t = 0.0;
    const double target = h * static_cast<double>(i);
    p.stepEnd_s = target;
    if (i > 1 && jumps) CVodeReInit(cvode, h * static_cast<double>(i - 1), y);
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

int compareSeason(const char* title, const Network& net, int air, const Network& forReference, const Winter& winter) {
  const std::size_t steps = winter.size() - 1;
  double took = 0.0;
  const auto exact = byCvode(forReference, air, steps, winter.step_s, 1e-9, took);
  if (exact.empty()) {
    std::fprintf(stderr, "CVODE gave up\n");
    return 1;
  }
  std::printf("%s: %zu nodes, %zu steps of %.0f s; reference CVODE 1e-9: %.2f s\n", title, net.nodes.size(), steps, winter.step_s, took);
  const auto compare = [&](const char* name, const std::vector<double>& T, double time) {
    double worst = 0.0, sum = 0.0;
    for (std::size_t i = 0; i < T.size(); ++i) {
      worst = std::max(worst, std::abs(T[i] - exact[i]));
      sum += (T[i] - exact[i]) * (T[i] - exact[i]);
    }
    std::printf("  %-28s worst %.4f K  rms %.4f K  %8.1f ms\n", name, worst, std::sqrt(sum / static_cast<double>(T.size())), time * 1000.0);
  };
  for (const auto& [pieces, multistep] : {std::pair{1, true}, {1, false}, {2, false}, {4, false}}) {
    if (!net.thermostats.empty() && !multistep) break; // other steps have other powers
    auto solver = Solver::prepare(net, {.multistep = multistep});
    std::vector<double> T;
    const double begin = seconds();
    for (std::size_t i = 0; i < steps; ++i) {
      for (int k = 0; k < pieces; ++k) solver->advance(winter.step_s / pieces);
      T.push_back(solver->temperature_C(air));
    }
    const std::string name = "Muffle, " + std::to_string(static_cast<int>(winter.step_s) / pieces) + " s" + (multistep ? "" : ", single steps");
    compare(name.c_str(), T, seconds() - begin);
  }
  for (const double tolerance : {1e-2, 3e-3, 1e-3, 1e-4}) {
    const auto T = byCvode(forReference, air, steps, winter.step_s, tolerance, took);
    char name[40];
    std::snprintf(name, sizeof name, "CVODE, tolerance %g", tolerance);
    compare(name, T, took);
  }
  return 0;
}

/// The same network with its heaters as sources of the powers that the product's solver finds.
Network withPowersAsSources(const Network& net, const Winter& winter) {
  Network given = net;
  auto solver = Solver::prepare(net, {.multistep = true});
  std::vector<Signal> power(net.thermostats.size());
  for (std::size_t i = 1; i < winter.size(); ++i) {
    solver->advance(winter.step_s);
    for (std::size_t j = 0; j < power.size(); ++j) power[j].value.push_back(solver->lastPower_W(static_cast<int>(j)));
  }
  for (std::size_t j = 0; j < power.size(); ++j) {
    power[j].step_s = winter.step_s;
    power[j].hold = true;
    const int signal = given.addSignal(std::move(power[j]));
    given.sources.push_back({net.thermostats[j].heats, Driver::table(signal), net.thermostats[j].id});
  }
  given.thermostats.clear();
  return given;
}

Assembly smooth(const Plan& plan, const Winter& winter) {
  Assembly a = assemble(plan, winter, bench::demo().scene.sun.front());
  for (Node& n : a.network.nodes) n.water.reset();
  for (Link& l : a.network.links) {
    l.frozenFactor = 1.0;
    l.relay = -1;
  }
  a.network.relays.clear(); // the plans here have no blanket that looks inside
  return a;
}

} // namespace

int main() {
  const Winter& winter = bench::demo().weather->winters.front();
  Plan cold = bench::demo().plan;
  cold.heaters.clear();
  const Assembly unheated = smooth(cold, winter);
  const Assembly heated = smooth(bench::demo().plan, winter);
  const Assembly rooms = smooth(bench::threeRooms(), winter);
  return compareSeason("without heater", unheated.network, unheated.air, unheated.network, winter) +
         compareSeason("with heater", heated.network, heated.air, withPowersAsSources(heated.network, winter), winter) +
         compareSeason("three rooms", rooms.network, rooms.air, withPowersAsSources(rooms.network, winter), winter);
}
