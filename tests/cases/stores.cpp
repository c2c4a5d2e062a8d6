// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/moist_air.h"
#include "core/network/solver.h"
#include "core/store/compost.h"
#include "core/store/ground_pipe.h"
#include "core/store/heat_exchanger.h"
#include "core/store/pipe_run.h"
#include "tests/cases/adapters.h"

#include <cmath>

namespace muffle::cases {

namespace {

GroundPipe pipeOf(const Json& in) {
  return {num(in, "inner_diameter_m"), num(in, "outer_diameter_m"), num(in, "length_m"),
          num(in, "pipe_k"),           num(in, "roughness_m"),      num(in, "minor_loss_K", 0.0)};
}

PipeAir airOf(const Json& in) { return {num(in, "air_rho"), num(in, "air_cp"), num(in, "air_mu"), num(in, "air_k"), num(in, "air_pr")}; }

/// Rise of temperature by log radius between the nodes that stand at either side, in soil that a pipe feeds with a constant power.
double riseAt(double q_W_m, double k, double heat_J_m3K, double inner_m, double radius_m, double time_s) {
  const double reach_m = radius_m + 8.0 * std::sqrt(k / heat_J_m3K * time_s); // nothing is felt there
  Network net;
  constexpr int kRings = 900;
  const RadialSoil soil = addRadialSoil(net, "soil", {1.0, inner_m, reach_m, k, heat_J_m3K, kRings}, 0.0);
  net.sources.push_back({soil.face(), Driver::constant(q_W_m), "pipe"});
  Solver s = *Solver::prepare(net);
  constexpr int kSteps = 400; // that grow with time, as the answer changes by its logarithm
  const double grow = 1.02;
  double h = time_s * (grow - 1.0) / (std::pow(grow, kSteps) - 1.0);
  for (int i = 0; i < kSteps; ++i, h *= grow) s.advance(i + 1 == kSteps ? time_s - s.time_s() : h);
  std::size_t i = 0;
  while (i + 2 < soil.node.size() && soil.radius_m[i + 1] < radius_m) ++i;
  const double share = std::log(radius_m / soil.radius_m[i]) / std::log(soil.radius_m[i + 1] / soil.radius_m[i]);
  return std::lerp(s.temperature_C(soil.node[i]), s.temperature_C(soil.node[i + 1]), share);
}

void addPipes(Adapters& a) {
  a["ground_pipe"] = [](const Json& in) {
    const double flow = num(in, "flow_m3_per_s"), inlet = num(in, "T_in_C");
    const PipeFlow p = pipeFlow(pipeOf(in), airOf(in), flow);
    const double outlet = p.outlet_C(inlet, num(in, "soil_C"));
    return Json{{"reynolds", p.reynolds},
                {"friction_factor", p.friction},
                {"h_W_per_m2K", p.film_W_m2K},
                {"NTU", p.ntu},
                {"T_out_C", outlet},
                {"heat_W", p.capacity_W_K * (outlet - inlet)},
                {"pressure_drop_Pa", p.pressure_Pa},
                {"fan_W", p.hydraulic_W / num(in, "fan_efficiency", 1.0)}};
  };
  a["cylinder_source"] = [](const Json& in) { // soil of unit diffusivity and conductivity round a pipe of radius 1
    return Json{{"G", riseAt(1.0, 1.0, 1.0, 1.0, num(in, "p"), num(in, "Fo"))}};
  };
  a["line_source"] = [](const Json& in) {
    const double r = num(in, "radius_m");
    return Json{{"dT_K", riseAt(num(in, "q_W_per_m"), num(in, "k"), num(in, "rho_c"), r / 150.0, r, num(in, "time_s"))}};
  };
  a["ground_pipe_night"] = [](const Json& in) {
    PipeRunShape shape{.pipe = pipeOf(in), .flow_m3_s = num(in, "flow_m3_per_s"), .air = airOf(in)};
    shape.soil_W_mK = num(in, "soil_k");
    shape.soilHeat_J_m3K = num(in, "soil_rho_c");
    const double start = num(in, "soil_start_C"), inlet = num(in, "T_in_C"), time = num(in, "time_s");
    shape.soilRadius_m = shape.pipe.outer_m / 2.0 + 6.0 * std::sqrt(shape.soil_W_mK / shape.soilHeat_J_m3K * time);
    shape.slices = 8;
    shape.rings = 40;
    Network net;
    const int intake = net.addBoundary("intake", Driver::constant(inlet));
    const PipeRun run = addPipeRun(net, "pipe", shape, {intake}, {}, start, {});
    Solver s = *Solver::prepare(net);
    double hour = start;
    constexpr double kStep_s = 60.0;
    while (s.time_s() < time - 1e-6) {
      s.advance(std::min(kStep_s, time - s.time_s()));
      if (std::abs(s.time_s() - 3600.0) < 1e-3) hour = s.temperature_C(run.air.back());
    }
    return Json{{"T_out_after_1h_C", hour},
                {"T_out_end_C", s.temperature_C(run.air.back())},
                {"heat_from_soil_J", -s.balance().storageChange_J},
                {"T_out_if_soil_stayed_C", run.flow.outlet_C(inlet, start)}};
  };
  a["moist_air_cooling"] = [](const Json& in) {
    const MoistCooling c = coolMoistAir(num(in, "T1_C"), num(in, "relative_humidity_1"), num(in, "T2_C"), num(in, "dry_air_kg_per_s"),
                                        num(in, "pressure_Pa", kStandardPressure_Pa));
    return Json{{"W1", c.inletRatio},           {"W2", c.outletRatio},        {"condensate_kg_per_h", c.condensate_kg_s * 3600.0},
                {"total_W", c.total_W},         {"sensible_W", c.sensible_W}, {"latent_W", c.latent_W},
                {"dew_point_1_C", c.dewPoint_C}};
  };
}

void addWater(Adapters& a) {
  a["tank_cooling"] = [](const Json& in) {
    Network net;
    const int tank = net.addNode("tank", num(in, "water_kg") * kWaterHeat_J_kgK, num(in, "start_C"));
    net.addConductance(tank, net.addBoundary("room", Driver::constant(num(in, "ambient_C"))), num(in, "UA_W_per_K"));
    Solver s = *Solver::prepare(net);
    const double time = num(in, "time_s");
    while (s.time_s() < time - 1e-6) s.advance(std::min(600.0, time - s.time_s()));
    return Json{{"T_C", s.temperature_C(tank)}, {"heat_released_J", -s.balance().storageChange_J}};
  };
  a["exchanger_effectiveness"] = [](const Json& in) {
    const auto arrangement = in.at("arrangement").get<std::string>() == "parallel" ? FlowArrangement::parallel : FlowArrangement::counterflow;
    return Json{{"effectiveness", exchangerEffectiveness(arrangement, num(in, "NTU"), num(in, "capacity_ratio", 0.0))}};
  };
  a["tank_radiator_loop"] = [](const Json& in) {
    const double flow = num(in, "loop_kg_per_s") * kWaterHeat_J_kgK, ua = num(in, "radiator_UA");
    Network net;
    const int tank = net.addNode("tank", num(in, "water_kg") * kWaterHeat_J_kgK, num(in, "start_C"));
    const int air = net.addBoundary("air", Driver::constant(num(in, "air_C")));
    net.addConductance(tank, air, loopConductance_W_K(flow, ua));
    net.addConductance(tank, net.addBoundary("around", Driver::constant(num(in, "tank_ambient_C"))), num(in, "tank_UA"));
    Solver s = *Solver::prepare(net);
    const double time = num(in, "time_s");
    while (s.time_s() < time - 1e-6) s.advance(std::min(300.0, time - s.time_s()));
    return Json{{"effectiveness", loopConductance_W_K(flow, ua) / flow},
                {"T_C", s.temperature_C(tank)},
                {"delivered_J", -s.balance().boundary_J[static_cast<std::size_t>(air)]}};
  };
  a["batch_fire_tank"] = [](const Json& in) {
    const double burn = num(in, "burn_time_s");
    const double useful = num(in, "wood_kg") * num(in, "net_heating_value_J_per_kg") * num(in, "efficiency");
    const double peak_W = kPi * useful / (2.0 * burn);
    Network net;
    const int tank = net.addNode("tank", num(in, "water_kg") * kWaterHeat_J_kgK, num(in, "start_C"));
    net.addConductance(tank, net.addBoundary("room", Driver::constant(num(in, "ambient_C"))), num(in, "tank_UA"));
    net.sources.push_back({tank, Driver::halfSine(peak_W, 0.0, burn, false), "fire"});
    Solver s = *Solver::prepare(net);
    const double target = num(in, "target_C");
    double peak = num(in, "start_C"), peakAt = 0.0, reached = -1.0;
    constexpr double kEnd_s = 12.0 * 3600.0, kStep_s = 10.0;
    while (s.time_s() < kEnd_s - 1e-6) {
      const double before = s.temperature_C(tank);
      s.advance(kStep_s);
      const double now = s.temperature_C(tank);
      if (now > peak) peak = now, peakAt = s.time_s();
      if (reached < 0.0 && now >= target) reached = s.time_s() - kStep_s * (now - target) / (now - before);
    }
    return Json{{"useful_energy_J", useful},       {"peak_power_W", peak_W},           {"peak_C", peak},
                {"time_of_peak_s", peakAt},        {"reaches_target", reached >= 0.0}, {"time_to_target_s", reached >= 0.0 ? Json(reached) : Json()},
                {"T_12h_C", s.temperature_C(tank)}};
  };
  a["ice_fraction"] = [](const Json& in) {
    const double kg = num(in, "water_kg");
    const double removed = num(in, "heat_removed_J");
    constexpr double kInterval_K = 1e-6, kTime_s = 86400.0;
    Network net;
    const int water = net.addNode("water", kg * kWaterHeat_J_kgK, num(in, "start_C"));
    net.nodes[0].water = FreezingWater{kg * kFusion_J_kg, kInterval_K, kg * kIceHeat_J_kgK};
    net.sources.push_back({water, Driver::constant(-removed / kTime_s), "cold"});
    Solver s = *Solver::prepare(net);
    while (s.time_s() < kTime_s - 1e-6) s.advance(600.0);
    const double t = s.temperature_C(water);
    return Json{{"T_C", t}, {"ice_fraction", std::clamp(-t / kInterval_K, 0.0, 1.0)}};
  };
}

struct Pile {
  CompostMix mix;
  CompostAir air;
  CompostWeather weather;
  double ua_W_K;
};

Pile pileOf(const Json& in) {
  Pile p;
  p.mix.wet_kg = num(in, "wet_mass_kg");
  p.mix.moisture = num(in, "moisture");
  p.mix.volatileSolids = num(in, "volatile_fraction_of_dry");
  p.mix.degradable = num(in, "biodegradable_fraction_of_volatile");
  p.mix.k20_per_day = num(in, "k20_per_day");
  p.mix.heat_J_kg = num(in, "heat_J_per_kg_BVS");
  p.mix.volume_m3 = num(in, "volume_m3");
  p.mix.waterYield = num(in, "water_yield_kg_per_kg", 0.55);
  p.mix.solidsDensity_kg_m3 = num(in, "solids_density_kg_per_m3", 1500.0);
  p.mix.solidsHeat_J_kgK = num(in, "solids_heat_capacity", 1300.0);
  p.air.blown_kg_s = num(in, "dry_air_kg_per_h") / 3600.0;
  if (in.at("oxygen_percent").is_number()) p.air.oxygen_percent = num(in, "oxygen_percent");
  p.weather.air_C = num(in, "ambient_C");
  p.weather.air_kg_kg = humidityRatio(num(in, "ambient_RH") * saturationPressure_Pa(p.weather.air_C), kStandardPressure_Pa);
  p.ua_W_K = num(in, "U_W_per_m2K") * num(in, "surface_m2");
  return p;
}

void addCompost(Adapters& a) {
  a["compost_pile"] = [](const Json& in) {
    Pile p = pileOf(in);
    CompostState state = freshCompost(p.mix, num(in, "start_C"));
    Json days = in.contains("days") ? in.at("days") : Json{1, 3, 7, 14, 30, 60};
    Json T = Json::array(), B = Json::array(), M = Json::array();
    double peak = state.temperature_C, heat = 0.0, sustained = 0.0, removed = 0.0;
    constexpr double kStep_s = 600.0;
    constexpr int kADay = 144;
    std::size_t next = 0;
    for (int i = 0; i < 60 * kADay; ++i) {
      p.weather.taken_W = p.ua_W_K * (state.temperature_C - p.weather.air_C);
      p.weather.taken_W_K = p.ua_W_K;
      const CompostStep step = advanceCompost(p.mix, state, p.air, p.weather, kStep_s);
      heat += step.heat_J;
      if (i >= 3 * kADay && i < 30 * kADay) sustained += step.heat_J, removed += step.taken_J + step.sensible_J + step.latent_J;
      peak = std::max(peak, state.temperature_C);
      if (next < days.size() && i + 1 == static_cast<int>(std::lround(days[next].get<double>() * kADay))) {
        T.push_back(state.temperature_C);
        B.push_back(state.degradable_kg);
        M.push_back(state.water_kg);
        ++next;
      }
    }
    const double perTonne = 1000.0 / (27.0 * 86400.0 * p.mix.wet_kg);
    return Json{{"days", days},
                {"T_C", T},
                {"BVS_left_kg", B},
                {"water_left_kg", M},
                {"peak_C", peak},
                {"sustained_W_per_t", sustained * perTonne},
                {"removed_W_per_t", removed * perTonne},
                {"heat_60d_J", heat}};
  };
  a["compost_rate"] = [](const Json& in) {
    return Json{{"k_per_day", mapped(in.at("T_C"), [&](double t) { return compostTemperatureFactor_per_day(num(in, "k20_per_day"), t); })}};
  };
  a["compost_best_temperature"] = [](const Json& in) {
    const CompostBest best = bestCompostTemperature(num(in, "k20_per_day"));
    return Json{{"T_opt_C", best.temperature_C}, {"k_opt_per_day", best.k_per_day}};
  };
  a["compost_factors"] = [](const Json& in) {
    return Json{{"F1", mapped(in.at("solids_fraction"), compostWaterFactor)}, {"F2", mapped(in.at("free_air_space"), compostStructureFactor)}};
  };
  a["compost_isothermal"] = [](const Json& in) { // a pile kept at its temperature, with nothing amiss but the given factors
    CompostMix mix;
    mix.k20_per_day = num(in, "k20_per_day") * num(in, "factors_product");
    mix.heat_J_kg = num(in, "heat_J_per_kg");
    mix.volatileSolids = mix.degradable = 1.0;
    mix.moisture = 0.99; // F1 is 1 to 3e-5
    mix.wet_kg = num(in, "BVS_kg") / (1.0 - mix.moisture);
    mix.volume_m3 = mix.wet_kg; // F2 is 1
    const CompostAir air{.oxygen_percent = 1e9};
    const double T = num(in, "T_C");
    CompostState state = freshCompost(mix, T);
    Json left = Json::array(), heat = Json::array();
    double given = 0.0;
    for (const Json& day : in.at("days").is_array() ? in.at("days") : Json::array({in.at("days")})) {
      while (state.age_s < day.get<double>() * 86400.0 - 1e-3) {
        given += advanceCompost(mix, state, air, {.air_C = T}, std::min(600.0, day.get<double>() * 86400.0 - state.age_s)).heat_J;
        state.temperature_C = T;
      }
      left.push_back(state.degradable_kg);
      heat.push_back(given);
    }
    if (in.at("days").is_array()) return Json{{"BVS_left_kg", left}, {"heat_J", heat}};
    return Json{{"BVS_left_kg", left[0]}, {"heat_J", heat[0]}};
  };
}

} // namespace

void addStores(Adapters& a) {
  addPipes(a);
  addWater(a);
  addCompost(a);
}

} // namespace muffle::cases
