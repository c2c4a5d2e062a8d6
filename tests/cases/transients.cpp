// SPDX-License-Identifier: GPL-3.0-or-later
//
// Behaviour in time: every answer is read off a run of the network.
#include "core/constants.h"
#include "core/network/solver.h"
#include "tests/cases/adapters.h"

#include <cmath>
#include <complex>

namespace muffle::cases {
namespace {

using Complex = std::complex<double>;

Solver solverOf(const Network& net) { return *Solver::prepare(net, {.newtonTolerance_K = 1e-8}); }

void runTo(Solver& solver, double end_s, double step_s) {
  while (solver.time_s() < end_s * (1.0 - 1e-12)) solver.advance(std::min(step_s, end_s - solver.time_s()));
}

/// Complex amplitude (of exp(i w t)) of nodes after the start has died away. The drive is cos(w t).
std::vector<Complex> periodic(const Network& net, const std::vector<int>& nodes, double period_s, int periods) {
  constexpr int kSteps = 720;
  Solver solver = solverOf(net);
  const double h = period_s / kSteps;
  std::vector<Complex> sum(nodes.size());
  for (int p = 0; p < periods; ++p)
    for (int i = 0; i < kSteps; ++i) {
      solver.advance(h);
      if (p + 1 < periods) continue;
      const Complex wave = std::polar(2.0 / kSteps, -2.0 * kPi * solver.time_s() / period_s);
      for (std::size_t k = 0; k < nodes.size(); ++k) sum[k] += wave * solver.temperature_C(nodes[k]);
    }
  return sum;
}

double lag_h(Complex amplitude, double period_s) {
  double lag = -std::arg(amplitude) / (2.0 * kPi) * period_s / 3600.0;
  return lag < 0.0 ? lag + period_s / 3600.0 : lag;
}

/// A slab of one material, deep or thin, on a fine mesh.
SolidLayer fine(double thickness_m, double k, double rho_c, int cells) { return {thickness_m, k, rho_c / 1000.0, 1000.0, cells}; }

} // namespace

void addTransients(Adapters& a) {
  a["one_node_cooling"] = [](const Json& in) {
    Network net;
    const int node = net.addNode("n", num(in, "C_J_per_K"), num(in, "start_C"));
    net.addConductance(node, net.addBoundary("out", Driver::constant(num(in, "outdoor_C"))), num(in, "K_W_per_K"));
    Solver s = solverOf(net);
    runTo(s, num(in, "time_s"), num(in, "time_s") / 200.0);
    return Json{{"T_C", s.temperature_C(node)}, {"time_constant_s", num(in, "C_J_per_K") / num(in, "K_W_per_K")}};
  };
  a["one_node_heated"] = [](const Json& in) {
    Network net;
    const int node = net.addNode("n", num(in, "C_J_per_K"), num(in, "start_C"));
    net.addConductance(node, net.addBoundary("out", Driver::constant(num(in, "outdoor_C"))), num(in, "K_W_per_K"));
    net.sources.push_back({node, Driver::constant(num(in, "heater_W")), "heater"});
    // the heater under its thermostat: once there, it stays there
    Network held = net;
    held.sources.clear();
    Thermostat t{.id = "heater", .sensor = node, .heats = node};
    t.setpoint_C = num(in, "setpoint_C");
    t.power_W = num(in, "heater_W");
    held.thermostats.push_back(t);
    Solver s = solverOf(held);
    runTo(s, 21600.0, 60.0);
    Json out{{"T_after_6h_C", s.temperature_C(node)}};
    Solver steady = solverOf(net);
    steady.solveSteady();
    const double balance = steady.temperature_C(node), target = num(in, "setpoint_C");
    out["balance_C"] = balance;
    out["reaches_setpoint"] = balance >= target;
    if (balance > target) {
      Solver r = solverOf(net);
      double before = r.temperature_C(node);
      while (r.temperature_C(node) < target) {
        before = r.temperature_C(node);
        r.advance(5.0);
      }
      out["time_to_setpoint_s"] = r.time_s() - 5.0 * (r.temperature_C(node) - target) / (r.temperature_C(node) - before);
    }
    return out;
  };
  a["two_node_heated"] = [](const Json& in) {
    const double c1 = num(in, "C1"), c2 = num(in, "C2"), k1 = num(in, "K_out"), k12 = num(in, "K_12");
    Network net;
    const int n1 = net.addNode("1", c1, num(in, "T1_start_C"));
    const int n2 = net.addNode("2", c2, num(in, "T2_start_C"));
    net.addConductance(n1, net.addBoundary("out", Driver::constant(num(in, "outdoor_C"))), k1);
    net.addConductance(n1, n2, k12);
    net.sources.push_back({n1, Driver::constant(num(in, "heater_node1_W", 0.0)), "heater"});
    Solver s = solverOf(net);
    runTo(s, num(in, "time_s"), num(in, "time_s") / 500.0);
    const double mean = 0.5 * ((k1 + k12) / c1 + k12 / c2), product = k1 * k12 / (c1 * c2); // of the two rates
    const double fast = mean + std::sqrt(mean * mean - product), slow = product / fast;
    return Json{{"T1_C", s.temperature_C(n1)}, {"T2_C", s.temperature_C(n2)}, {"time_constants_s", {1.0 / fast, 1.0 / slow}}};
  };
  a["one_node_daily"] = [](const Json& in) {
    const double period = num(in, "period_s", 86400.0);
    Network net;
    const int node = net.addNode("n", num(in, "C_J_per_K"), 0.0);
    net.addConductance(node, net.addBoundary("out", Driver::sine(0.0, 1.0, period, 0.0)), num(in, "K_W_per_K"));
    const int periods = 3 + static_cast<int>(12.0 * num(in, "C_J_per_K") / num(in, "K_W_per_K") / period);
    const Complex amplitude = periodic(net, {node}, period, periods)[0];
    return Json{{"amplitude_ratio", std::abs(amplitude)}, {"lag_h", lag_h(amplitude, period)}};
  };
  a["two_node_daily"] = [](const Json& in) {
    const double period = num(in, "period_s", 86400.0);
    Network net;
    const int n1 = net.addNode("1", num(in, "C1"), 0.0);
    const int n2 = net.addNode("2", num(in, "C2"), 0.0);
    net.addConductance(n1, net.addBoundary("out", Driver::sine(0.0, 1.0, period, 0.0)), num(in, "K_out"));
    net.addConductance(n1, n2, num(in, "K_12"));
    const double slow = (num(in, "C1") + num(in, "C2")) * (1.0 / num(in, "K_out") + 1.0 / num(in, "K_12"));
    const Complex amplitude = periodic(net, {in.value("node", 1) == 1 ? n1 : n2}, period, 3 + static_cast<int>(12.0 * slow / period))[0];
    return Json{{"amplitude_ratio", std::abs(amplitude)}, {"lag_h", lag_h(amplitude, period)}};
  };
  // the solid is made deep enough that its far end feels nothing in the time asked
  const auto deepSolid = [](const Json& in, std::optional<double> h, double front_C) {
    const double k = num(in, "k"), rc = num(in, "rho_c"), time = num(in, "time_s"), x = num(in, "depth_m");
    const double reach = std::max(8.0 * std::sqrt(k / rc * time), 2.0 * x);
    Network net;
    Solid solid{.id = "s", .area_m2 = 1.0, .initial_C = num(in, "start_C")};
    solid.from = net.addBoundary("front", Driver::constant(front_C));
    solid.to = net.addBoundary("deep", Driver::constant(num(in, "start_C")));
    solid.hFrom_W_m2K = h;
    if (x > 0.0) solid.layers.push_back(fine(x, k, rc, 60));
    solid.layers.push_back(fine(reach, k, rc, 600));
    const std::string id = x > 0.0 ? "s:1" : "s:0";
    net.addSolid(solid);
    Solver s = solverOf(net);
    runTo(s, time, time / 2000.0);
    const double cell = (x > 0.0 ? x / 60 : reach / 600);
    const int first = net.find("s:0.1");
    return std::tuple{s.temperature_C(net.find(id)), s, net, cell, first};
  };
  a["solid_step_surface"] = [deepSolid](const Json& in) {
    auto [T, s, net, cell, first] = deepSolid(in, std::nullopt, num(in, "surface_C"));
    // the surface is held, so that its half cell stores nothing: the flux is what is conducted to the next node
    return Json{{"T_C", num(in, "depth_m") > 0.0 ? T : num(in, "surface_C")},
                {"surface_flux_W_per_m2", num(in, "k") * (num(in, "surface_C") - s.temperature_C(first)) / cell}};
  };
  a["solid_step_convective"] = [deepSolid](const Json& in) { return Json{{"T_C", std::get<0>(deepSolid(in, num(in, "h"), num(in, "fluid_C")))}}; };
  a["solid_periodic"] = [](const Json& in) {
    const double k = num(in, "k"), rc = num(in, "rho_c"), period = num(in, "period_s"), x = num(in, "depth_m");
    const double damping = std::sqrt(k / rc * period / kPi);
    Network net;
    Solid solid{.id = "s", .area_m2 = 1.0};
    solid.from = net.addBoundary("front", Driver::sine(0.0, 1.0, period, 0.0));
    solid.to = net.addBoundary("deep", Driver::constant(0.0));
    if (x > 0.0) solid.layers.push_back(fine(x, k, rc, std::max(40, static_cast<int>(x / damping * 60))));
    solid.layers.push_back(fine(8.0 * damping, k, rc, 400));
    net.addSolid(solid);
    const Complex amplitude = periodic(net, {net.find(x > 0.0 ? "s:1" : "s:0")}, period, 12)[0];
    return Json{{"damping_depth_m", damping}, {"amplitude_ratio", std::abs(amplitude)}, {"lag_h", lag_h(amplitude, period)}};
  };
  a["plane_wall_root"] = [](const Json& in) { // half a slab of unit thickness and diffusivity: late decay gives the first root
    Network net;
    Solid solid{.id = "s", .area_m2 = 1.0, .initial_C = 1.0};
    solid.from = net.addBoundary("fluid", Driver::constant(0.0));
    solid.hFrom_W_m2K = num(in, "Bi");
    solid.to = net.addNode("middle", 0.0, 1.0);
    solid.layers.push_back({1.0, 1.0, 1.0, 1.0, 200});
    net.addSolid(solid);
    Solver s = solverOf(net);
    const int middle = net.find("middle");
    const double t1 = 1.0, t2 = 2.0;
    runTo(s, t1, 5e-4);
    const double a1 = s.temperature_C(middle);
    runTo(s, t2, 5e-4);
    const double rate = std::log(a1 / s.temperature_C(middle)) / (t2 - t1);
    return Json{{"zeta1", std::sqrt(rate)}, {"C1", a1 * std::exp(rate * t1)}};
  };
  a["slab_both_sides"] = [](const Json& in) {
    const double d = num(in, "thickness_m"), k = num(in, "k"), rc = num(in, "rho_c"), h = num(in, "h"), time = num(in, "time_s");
    Network net;
    Solid solid{.id = "s", .area_m2 = 1.0, .initial_C = num(in, "start_C")};
    solid.from = solid.to = net.addBoundary("fluid", Driver::constant(num(in, "fluid_C")));
    solid.hFrom_W_m2K = solid.hTo_W_m2K = h;
    solid.layers = {fine(d / 2.0, k, rc, 60), fine(d / 2.0, k, rc, 60)};
    net.addSolid(solid);
    Solver s = solverOf(net);
    runTo(s, time, time / 2000.0);
    return Json{{"Bi", h * d / 2.0 / k},
                {"Fo", k / rc * time / (d * d / 4.0)},
                {"T_mid_C", s.temperature_C(net.find("s:1"))},
                {"T_surface_C", s.temperature_C(net.find("s:0"))}};
  };
  a["wall_periodic_iso13786"] = [](const Json& in) {
    const double rsi = num(in, "Rsi", 0.13), rse = num(in, "Rse", 0.04), period = num(in, "period_s", 86400.0);
    double resistance = rsi + rse, slow = 0.0;
    const auto wall = [&](bool insideDriven) {
      Network net;
      Solid solid{.id = "w", .area_m2 = 1.0};
      solid.from = net.addBoundary("in", insideDriven ? Driver::sine(0.0, 1.0, period, 0.0) : Driver::constant(0.0));
      solid.to = net.addBoundary("out", insideDriven ? Driver::constant(0.0) : Driver::sine(0.0, 1.0, period, 0.0));
      solid.hFrom_W_m2K = 1.0 / rsi;
      solid.hTo_W_m2K = 1.0 / rse;
      for (const Json& l : in.at("layers_in_to_out_d_k_rho_c")) {
        const double d = l[0].get<double>(), k = l[1].get<double>(), rc = l[2].get<double>() * l[3].get<double>();
        const double damping = std::sqrt(k / rc * period / kPi);
        solid.layers.push_back(fine(d, k, rc, std::clamp(static_cast<int>(40.0 * d / damping), 12, 160)));
      }
      net.addSolid(solid);
      return net;
    };
    for (const Json& l : in.at("layers_in_to_out_d_k_rho_c")) {
      resistance += l[0].get<double>() / l[1].get<double>();
      slow += l[0].get<double>() * l[2].get<double>() * l[3].get<double>();
    }
    const int periods = 4 + static_cast<int>(6.0 * slow * resistance / 4.0 / period);
    const std::string last = "w:" + std::to_string(in.at("layers_in_to_out_d_k_rho_c").size());
    const Network fromIn = wall(true), fromOut = wall(false);
    const auto in1 = periodic(fromIn, {fromIn.find("w:0"), fromIn.find(last)}, period, periods);
    const auto out1 = periodic(fromOut, {fromOut.find("w:0"), fromOut.find(last)}, period, periods);
    const Complex y11 = (Complex(1.0) - in1[0]) / rsi;  // into the wall from inside, inside driven
    const Complex y22 = (Complex(1.0) - out1[1]) / rse; // into the wall from outside, outside driven
    const Complex y12 = -out1[0] / rsi;                 // into the wall from inside, outside driven
    const double u = 1.0 / resistance;
    return Json{{"Y12_W_per_m2K", std::abs(y12)},
                {"lag_h", lag_h(-y12, period)},
                {"U_W_per_m2K", u},
                {"decrement", std::abs(y12) / u},
                {"Y11_W_per_m2K", std::abs(y11)},
                {"Y22_W_per_m2K", std::abs(y22)},
                {"kappa1_J_per_m2K", period / (2.0 * kPi) * std::abs(y11 + y12)},
                {"kappa2_J_per_m2K", period / (2.0 * kPi) * std::abs(y22 + y12)}};
  };
  a["tank_cooling"] = [](const Json& in) {
    Network net;
    const double capacity = num(in, "water_kg") * kWaterHeat_J_kgK;
    const int tank = net.addNode("tank", capacity, num(in, "start_C"));
    net.addConductance(tank, net.addBoundary("ambient", Driver::constant(num(in, "ambient_C"))), num(in, "UA_W_per_K"));
    Solver s = solverOf(net);
    runTo(s, num(in, "time_s"), num(in, "time_s") / 200.0);
    return Json{{"T_C", s.temperature_C(tank)}, {"heat_released_J", -s.balance().storageChange_J}};
  };
}

} // namespace muffle::cases
