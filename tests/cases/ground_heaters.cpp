// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/cost/cost.h"
#include "core/fit/design_night.h"
#include "core/fit/heat_balance.h"
#include "core/ground/slab.h"
#include "core/ground/soil.h"
#include "core/log/growing.h"
#include "core/log/nights.h"
#include "core/network/solver.h"
#include "tests/cases/adapters.h"
#include <algorithm>
#include <cmath>

namespace muffle::cases {

void addGround(Adapters& a) {
  a["undisturbed_soil"] = [](const Json& in) {
    const UndisturbedGround g{num(in, "mean_C"), num(in, "surface_amplitude_K"), num(in, "coldest_day"), num(in, "k"), num(in, "rho_c")};
    return Json{{"T_C", mapped(in.at("depth_m"), [&](double z) { return g.temperature_C(z, num(in, "day")); })}};
  };
  a["slab_u_value_by_ratio"] = [](const Json& in) {
    return Json{{"U_W_per_m2K", mapped(in.at("perimeter_per_area_1_per_m"), [&](double ratio) {
                   return SlabOnGround{1.0, ratio, num(in, "wall_thickness_m"), num(in, "k"), num(in, "floor_R", 0.0)}.u_W_m2K();
                 })}};
  };
  a["slab_iso13370"] = [](const Json& in) {
    const double l = num(in, "length_m"), w = num(in, "width_m");
    const SlabOnGround s{l * w, 2.0 * (l + w), num(in, "wall_thickness_m"), num(in, "k"), num(in, "floor_R", 0.0)};
    return Json{{"B_prime_m", s.characteristicDimension_m()},
                {"dt_m", s.equivalentThickness_m()},
                {"U_W_per_m2K", s.u_W_m2K()},
                {"H_W_per_K", s.u_W_m2K() * s.area_m2}};
  };
  a["slab_edge_insulation"] = [](const Json& in) {
    const bool vertical = in.at("kind").get<std::string>() == "vertical";
    return Json{{"psi_W_per_mK", edgeInsulationPsi_W_mK(num(in, "k"), num(in, "dt_m"), num(in, "D_m"), num(in, "insulation_thickness_m"),
                                                        num(in, "insulation_k"), vertical ? EdgeInsulation::vertical : EdgeInsulation::horizontal)}};
  };
  a["slab_periodic"] = [](const Json& in) {
    // dt is given: a wall of that thickness with no films reproduces it
    SlabOnGround s{num(in, "area_m2"), num(in, "perimeter_m"), 0.0, num(in, "k"), 0.0};
    s.wall_m = num(in, "dt_m") - s.equivalentThickness_m();
    const SlabPeriodic p = slabPeriodic(s, num(in, "rho_c"));
    return Json{{"delta_m", p.penetration_m}, {"Hpi_W_per_K", p.inside_W_K}, {"Hpe_W_per_K", p.outside_W_K}};
  };
  a["slab_half_space"] = [](const Json& in) {
    const double dT = in.contains("delta_T_K") ? num(in, "delta_T_K") : num(in, "inside_C") - num(in, "outside_C");
    return Json{{"Q_W", slabHalfSpaceLoss_W(num(in, "length_m"), num(in, "width_m"), num(in, "wall_m"), num(in, "k"), dT)}};
  };
  a["freezing_front"] = [](const Json& in) {
    SoilHeat soil{num(in, "k_thawed"), num(in, "c_thawed"), num(in, "k_frozen"), num(in, "c_frozen"), num(in, "latent_J_per_m3"), 0.05};
    const double surface = num(in, "surface_C"), start = num(in, "start_C"), time = num(in, "time_s");
    const FreezingFront closed = freezingFront(soil, surface, start, time);
    // the front itself by the network: cells of a hundredth of its depth, then coarser ones to where nothing is felt
    Network net;
    Solid solid{.id = "soil", .area_m2 = 1.0, .from = net.addBoundary("surface", Driver::constant(surface)), .initial_C = start};
    solid.to = net.addBoundary("deep", Driver::constant(start));
    const double fine_m = 2.0 * closed.front_m;
    for (const auto& [d, cells] : {std::pair{fine_m, 200}, {4.0 * fine_m, 60}})
      solid.layers.push_back({d, soil.conductivity_W_mK, 1000.0, soil.heat_J_m3K / 1000.0, cells, soil.latent_J_m3, soil.frozenConductivity_W_mK,
                              soil.frozenHeat_J_m3K, soil.freezingInterval_K});
    net.addSolid(solid);
    Solver s = *Solver::prepare(net);
    while (s.time_s() < time - 1.0) s.advance(std::min(600.0, time - s.time_s()));
    double front = 0.0;
    for (int c = 1; c < 199; ++c) { // the last cell ends on the layer
      const auto at = [&](int cell) { return s.temperature_C(net.find("soil:0." + std::to_string(cell))); };
      const double half = -0.5 * soil.freezingInterval_K; // where half of the water is ice; soil that starts at zero is below it a little everywhere
      if (at(c) < half && at(c + 1) >= half) front = fine_m / 200.0 * (c + (at(c) - half) / (at(c) - at(c + 1)));
    }
    return Json{{"front_m", front}, {"lambda", closed.lambda}, {"stefan_front_m", closed.stefan_m}};
  };
  a["container_freezing"] = [](const Json& in) {
    const double mass = num(in, "water_kg"), end = num(in, "end_C");
    constexpr double kInterval_K = 0.01;
    Network net;
    net.addNode("water", mass * kWaterHeat_J_kgK, num(in, "start_C"));
    net.nodes[0].water = FreezingWater{mass * kFusion_J_kg, kInterval_K, mass * kIceHeat_J_kgK};
    net.addConductance(0, net.addBoundary("frost", Driver::constant(num(in, "ambient_C"))), num(in, "UA_W_per_K"));
    Solver s = *Solver::prepare(net);
    double zero = -1.0, ice = -1.0;
    constexpr double kStep_s = 60.0;
    while (s.temperature_C(0) > end) {
      s.advance(kStep_s);
      if (zero < 0.0 && s.temperature_C(0) <= 0.0) zero = s.time_s();
      if (ice < 0.0 && s.temperature_C(0) < -kInterval_K) ice = s.time_s();
    }
    return Json{{"time_to_0C_s", zero}, {"plateau_s", ice - zero}, {"time_as_ice_s", s.time_s() - ice}, {"heat_released_J", -s.balance().storageChange_J}};
  };
  a["soil_conductivity_johansen"] = [](const Json& in) {
    const SoilConductivity s = soilConductivityJohansen(num(in, "dry_density_kg_per_m3"), num(in, "moisture_kg_per_kg"), num(in, "quartz_fraction"),
                                                        in.value("coarse", false), in.value("frozen", false));
    return Json{{"k_W_per_mK", s.conductivity_W_mK}, {"saturation", s.saturation}};
  };
}

void addHeaters(Adapters& a) {
  a["thermostat_cycle"] = [](const Json& in) {
    Network net;
    const double set = num(in, "setpoint_C"), band = num(in, "band_K"), power = num(in, "heater_W");
    const int room = net.addNode("room", num(in, "C_J_per_K"), set);
    net.addConductance(room, net.addBoundary("out", Driver::constant(num(in, "outdoor_C"))), num(in, "K_W_per_K"));
    Thermostat t{.id = "t", .sensor = room, .heats = room, .mode = Thermostat::Mode::hysteresis};
    t.on_C = set - band / 2.0;
    t.off_C = set + band / 2.0;
    t.power_W = power;
    net.thermostats.push_back(t);
    Solver s = *Solver::prepare(net, {.switchTolerance_K = 1e-5});
    // first start ends the transient; then whole cycles are counted between starts, one second at a time
    const auto toStart = [&] {
      const int before = s.starts(0);
      while (s.starts(0) == before && s.time_s() < 5e6) s.advance(1.0);
    };
    toStart();
    toStart();
    const double begin = s.time_s(), energy = s.balance().thermostat_J[0];
    constexpr int kCycles = 20;
    for (int i = 0; i < kCycles; ++i) toStart();
    const double period = (s.time_s() - begin) / kCycles;
    const double mean = (s.balance().thermostat_J[0] - energy) / (s.time_s() - begin);
    return Json{{"time_on_s", period * mean / power},
                {"time_off_s", period * (1.0 - mean / power)},
                {"period_s", period},
                {"duty", mean / power},
                {"mean_power_W", mean}};
  };
  a["balance_point"] = [](const Json& in) { // the temperature outside at which gains alone hold the setpoint, and the ideal load below it
    Network net;
    const double k = num(in, "K_W_per_K"), set = num(in, "setpoint_C"), gains = num(in, "gains_W");
    const int room = net.addNode("room", k * 10.0, set);
    net.addConductance(room, net.addBoundary("out", Driver::constant(num(in, "outdoor_C"))), k);
    net.sources.push_back({room, Driver::constant(gains), "gains"});
    Thermostat t{.id = "t", .sensor = room, .heats = room};
    t.setpoint_C = set;
    t.power_W = 1e9;
    net.thermostats.push_back(t);
    Solver s = *Solver::prepare(net, {.newtonTolerance_K = 1e-12});
    for (int i = 0; i < 100; ++i) s.advance(10.0);
    return Json{{"balance_point_C", set - gains / k}, {"heating_W", s.lastPower_W(0)}};
  };
  a["degree_hours_sine"] = [](const Json& in) { // an ideal load of 1 W/K through a day, its energy in K h
    Network net;
    const double base = num(in, "base_C");
    const int room = net.addNode("room", 1e-3, base);
    net.addConductance(room, net.addBoundary("out", Driver::sine(num(in, "mean_C"), num(in, "amplitude_K"), 86400.0, 0.0)), 1.0);
    Thermostat t{.id = "t", .sensor = room, .heats = room};
    t.setpoint_C = base;
    t.power_W = 1e6;
    net.thermostats.push_back(t);
    Solver s = *Solver::prepare(net);
    for (int i = 0; i < 5760; ++i) s.advance(15.0);
    return Json{{"degree_hours_Kh", s.balance().thermostat_J[0] / 3600.0}};
  };
  a["annuity"] = [](const Json& in) { return Json{{"annuity", annuityFactor(num(in, "rate"), num(in, "years"))}}; };
  a["life_cost"] = [](const Json& in) {
    const LifeCost c = lifeCost(num(in, "capital"), num(in, "yearly_cost"), num(in, "rate"), num(in, "escalation", 0.0), num(in, "years"));
    return Json{{"present_running_cost", c.presentRunning}, {"present_total", c.presentTotal}, {"equal_yearly_cost", c.equalYearly}};
  };
}

void addStatistics(Adapters& a) {
  a["lift"] = [](const Json& in) {
    const LiftAtColdest l = liftAtColdest(in.at("outdoor_C").get<std::vector<double>>(), in.at("inside_C").get<std::vector<double>>(),
                                          static_cast<std::size_t>(in.at("k").get<int>()));
    return Json{{"lift_mean_K", l.mean_K},
                {"lift_min_K", l.least_K},
                {"coldest_outdoor_C", l.coldestOutside_C},
                {"lift_at_coldest_K", l.liftAtColdest_K},
                {"coldest_inside_C", l.coldestInside_C}};
  };
  a["fit_heat_balance"] = [](const Json& in) {
    const auto list = [&](const char* key) { return in.at(key).get<std::vector<double>>(); };
    const auto inside = list("inside_C"), outside = list("outdoor_C"), heater = list("heater_W");
    const auto fit = fitHeatBalance(inside, outside, heater, num(in, "sample_s"));
    if (!fit) return Json::object();
    return Json{{"UA_W_per_K", fit->UA_W_K}, {"C_J_per_K", fit->C_J_K}, {"se_UA", fit->seUA_W_K}, {"se_C", fit->seC_J_K}, {"residual_sd_W", fit->residual_W}};
  };
  a["fit_cool_down"] = [](const Json& in) {
    const auto inside = in.at("inside_C").get<std::vector<double>>();
    const auto fit = fitCoolDown(inside, num(in, "outdoor_C"), num(in, "sample_s"));
    return fit ? Json{{"time_constant_s", fit->timeConstant_s}, {"se_s", fit->se_s}} : Json::object();
  };
  a["gumbel"] = [](const Json& in) {
    const auto lows = in.at("annual_minima_C").get<std::vector<double>>();
    Json out;
    for (const auto& [name, fit] : {std::pair{std::string("moments"), gumbelByMoments(lows)}, {std::string("ml"), gumbelByLikelihood(lows)}}) {
      if (!fit) continue;
      out[name + "_m"] = fit->m_C;
      out[name + "_b"] = fit->b_K;
      out[name + "_x10"] = fit->returnLow_C(10.0);
      out[name + "_x50"] = fit->returnLow_C(50.0);
    }
    return out;
  };
  a["growing_degrees"] = [](const Json& in) {
    const auto hours = in.at("hourly_C").get<std::vector<double>>();
    const double base = num(in, "base_C"), cap = num(in, "cap_C", 1e9);
    const auto [least, most] = std::minmax_element(hours.begin(), hours.end());
    std::vector<double> fine; // the course itself, in steps of ten seconds
    constexpr double kStep_s = 10.0;
    for (double t = kStep_s / 2.0; t < 86400.0; t += kStep_s) fine.push_back(num(in, "mean_C") + num(in, "amplitude_K") * std::cos(2.0 * kPi * (t / 86400.0)));
    return Json{{"gdh_hourly_Kh", growingDegreeHours_K_h(hours, 3600.0, base, cap)},
                {"gdd_min_max_Kd", growingDegreeDay_K_d(*least, *most, base)},
                {"gdh_exact_Kh", growingDegreeHours_K_h(fine, kStep_s, base, cap)}};
  };
}

} // namespace muffle::cases
