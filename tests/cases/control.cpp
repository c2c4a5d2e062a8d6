// SPDX-License-Identifier: GPL-3.0-or-later
//
// Control in time and failures: the case's house as a network, run by the solver that seasons run by.
#include "core/air/moist_air.h"
#include "core/constants.h"
#include "core/heater/carrier.h"
#include "core/heater/heater.h"
#include "core/heater/setpoint_schedule.h"
#include "core/network/solver.h"
#include "core/plan/unvented.h"
#include "tests/cases/adapters.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

namespace muffle::cases {
namespace {

constexpr double kPiece_s = 60.0;
constexpr double kBelow_K = 0.005;                                                                // a setpoint is held to within it
constexpr double kCaseWater_J_kgK = 4186.0, kCaseIce_J_kgK = 2100.0, kCaseFusion_J_kg = 333600.0; // as the cases have them

std::optional<double> maybe(const Json& in, const char* key) {
  const auto value = in.find(key);
  return value != in.end() && value->is_number() ? std::optional(value->get<double>()) : std::nullopt;
}

/// A house of one or two nodes, and water, under an outside that is known at every moment.
struct House {
  House(const Json& in, double start_h, double lasts_s) : steps(static_cast<std::size_t>(std::lround(lasts_s / kPiece_s))) {
    const double mean = num(in, "outside_mean_C"), swing = num(in, "outside_amplitude_K"), peak = num(in, "outside_peak_h");
    const double slow = num(in, "outside_slow_amplitude_K", 0.0), period = num(in, "outside_slow_period_d", 1.0);
    for (std::size_t i = 0; i <= steps; ++i) {
      const double t = kPiece_s * static_cast<double>(i), hour = start_h + t / 3600.0;
      outside_C.push_back(mean + swing * std::cos(2.0 * kPi * (hour - peak) / 24.0) + slow * std::cos(2.0 * kPi * t / (86400.0 * period)));
    }
    out = net.addBoundary("outside", Driver::table(signal(outside_C)));
    air = net.addNode("air", num(in, "air_J_per_K"), num(in, "start_air_C"));
    net.addConductance(air, out, num(in, "air_to_outside_W_per_K"));
    if (const auto capacity = maybe(in, "mass_J_per_K")) {
      mass = net.addNode("mass", *capacity, num(in, "start_mass_C"));
      net.addConductance(air, mass, num(in, "air_to_mass_W_per_K"));
      if (const auto ground = maybe(in, "mass_to_ground_W_per_K"))
        net.addConductance(mass, net.addBoundary("ground", Driver::constant(num(in, "ground_C"))), *ground);
    }
    if (const double sun_W = num(in, "sun_peak_W", 0.0); sun_W > 0.0) {
      std::vector<double> sun;
      for (std::size_t i = 0; i <= steps; ++i) {
        const double hour = std::fmod(start_h + kPiece_s * static_cast<double>(i) / 3600.0, 24.0);
        sun.push_back(hour >= 8.0 && hour <= 16.0 ? sun_W * std::sin(kPi * (hour - 8.0) / 8.0) : 0.0);
      }
      const int table = signal(std::move(sun));
      const double share = num(in, "sun_to_air_share");
      net.sources.push_back({air, Driver::table(table, share), "sun in the air"});
      if (mass >= 0) net.sources.push_back({mass, Driver::table(table, 1.0 - share), "sun on the mass"});
    }
    net.step_s = kPiece_s;
    net.end_s = lasts_s;
  }
  int signal(std::vector<double> value, bool hold = false) {
    Signal s;
    s.step_s = kPiece_s;
    s.value = std::move(value);
    s.hold = hold;
    return net.addSignal(std::move(s));
  }
  int heater(double setpoint_C, double power_W) {
    Thermostat t;
    t.id = "heater " + std::to_string(net.thermostats.size());
    t.sensor = t.heats = air;
    t.setpoint_C = setpoint_C;
    t.power_W = power_W;
    net.thermostats.push_back(t);
    return static_cast<int>(net.thermostats.size()) - 1;
  }
  void water(double kg, double toAir_W_K, double start_C) {
    const int node = net.addNode("water", kg * kCaseWater_J_kgK, start_C);
    constexpr double kInterval_K = 0.01;
    net.nodes[static_cast<std::size_t>(node)].water = FreezingWater{kg * kCaseFusion_J_kg, kInterval_K, kg * kCaseIce_J_kgK};
    net.addConductance(air, node, toAir_W_K);
    waterNode = node;
    water_kg = kg;
  }
  [[nodiscard]] double ice(double water_C) const { return water_C >= 0.0 ? 0.0 : std::clamp(-water_C / 0.01, 0.0, 1.0); }

  Network net;
  std::size_t steps;
  std::vector<double> outside_C;
  int out = -1, air = -1, mass = -1, waterNode = -1;
  double water_kg = 0.0;
};

Json kWh(double joules) { return joules / 3.6e6; }

Json stagedHeaters(const Json& in) {
  House house(in, num(in, "start_h"), 86400.0 * num(in, "days"));
  const auto& offsets = in.at("offsets_K");
  for (std::size_t i = 0; i < offsets.size(); ++i) house.heater(num(in, "setpoint_C") - offsets[i].get<double>(), in.at("capacity_W")[i].get<double>());
  Solver s = *Solver::prepare(house.net);
  double coldest = num(in, "start_air_C");
  std::vector<double> full(offsets.size(), 0.0);
  for (std::size_t i = 0; i < house.steps; ++i) {
    s.advance(kPiece_s);
    const double T = s.temperature_C(house.air);
    coldest = std::min(coldest, T);
    for (std::size_t k = 0; k < full.size(); ++k)
      if (T < house.net.thermostats[k].setpoint_C - kBelow_K) full[k] += kPiece_s / 3600.0;
  }
  Json energy = Json::array();
  for (std::size_t k = 0; k < full.size(); ++k) energy.push_back(kWh(s.balance().thermostat_J[k]));
  return {{"energy_kWh", energy}, {"coldest_C", coldest}, {"hours_full", full}};
}

Json setpointSchedule(const Json& in) {
  const double start_h = num(in, "start_h");
  House house(in, start_h, 86400.0 * num(in, "days"));
  std::vector<double> setpoint;
  Json nights = Json::array();
  if (in.contains("low_bands_C")) {
    std::vector<NightBand> bands;
    for (std::size_t i = 0; i < in.at("low_bands_C").size(); ++i)
      bands.push_back({in.at("low_bands_C")[i].get<double>(), in.at("setpoints_at_bands_C")[i].get<double>()});
    constexpr std::size_t kDay = 1440;
    for (std::size_t from = 0; from < house.steps; from += kDay) {
      const double low = *std::min_element(house.outside_C.begin() + static_cast<std::ptrdiff_t>(from),
                                           house.outside_C.begin() + static_cast<std::ptrdiff_t>(std::min(from + kDay, house.steps)) + 1);
      nights.push_back(bandSetpoint_C(bands, low));
      setpoint.insert(setpoint.end(), kDay, nights.back().get<double>());
    }
  } else {
    for (std::size_t i = 0; i < house.steps; ++i)
      setpoint.push_back(clockSetpoint_C(num(in, "day_setpoint_C"), num(in, "night_setpoint_C"), num(in, "day_from_h"), num(in, "night_from_h"),
                                         num(in, "ramp_h"), start_h + kPiece_s * (static_cast<double>(i) + 1.0) / 3600.0));
  }
  setpoint.resize(house.steps + 1, setpoint.back());
  const int heater = house.heater(0.0, num(in, "heater_W"));
  house.net.thermostats[static_cast<std::size_t>(heater)].setpointSignal = house.signal(setpoint, true);
  Solver s = *Solver::prepare(house.net);
  double coldest = num(in, "start_air_C"), full_h = 0.0, before_J = 0.0;
  Json days = Json::array();
  for (std::size_t i = 0; i < house.steps; ++i) {
    s.advance(kPiece_s);
    const double T = s.temperature_C(house.air);
    coldest = std::min(coldest, T);
    if (T < setpoint[i] - kBelow_K) full_h += kPiece_s / 3600.0;
    if ((i + 1) % 1440 == 0) {
      const double now_J = s.balance().thermostat_J[0];
      days.push_back(kWh(now_J - before_J));
      before_J = now_J;
    }
  }
  Json out{{"energy_kWh", kWh(s.balance().thermostat_J[0])}, {"energy_kWh_per_day", days}, {"coldest_C", coldest}, {"hours_full", full_h}};
  if (!nights.empty()) out["night_setpoints_C"] = nights;
  return out;
}

Json swingLimit(const Json& in) {
  House house(in, num(in, "start_h"), 86400.0 * num(in, "days"));
  const double limit_C = num(in, "night_setpoint_C") + num(in, "limit_K");
  house.heater(num(in, "night_setpoint_C"), num(in, "heater_W"));
  constexpr double kRamp_K = 0.02; // a vent that opens as far as it must, within it
  house.net.vents.push_back({house.air, house.out, house.air, limit_C, limit_C + kRamp_K, num(in, "vent_W_per_K"), "", -1});
  Solver s = *Solver::prepare(house.net);
  double warmest = num(in, "start_air_C"), coldest = warmest, vented_J = 0.0, open_h = 0.0;
  const int vent = static_cast<int>(house.net.links.size());
  double before_W = 0.0;
  for (std::size_t i = 0; i < house.steps; ++i) {
    s.advance(kPiece_s);
    const double T = s.temperature_C(house.air), now_W = s.linkFlow_W(vent);
    warmest = std::max(warmest, T);
    coldest = std::min(coldest, T);
    vented_J += 0.5 * (now_W + before_W) * kPiece_s;
    before_W = now_W;
    if (T > limit_C) open_h += kPiece_s / 3600.0;
  }
  return {{"warmest_C", warmest},
          {"coldest_C", coldest},
          {"vented_kWh", kWh(vented_J)},
          {"heat_kWh", kWh(s.balance().thermostat_J[0])},
          {"hours_vent_open", open_h}};
}

Json heatPump(const Json& in) {
  House house(in, num(in, "start_h"), 86400.0 * num(in, "days"));
  Heater pump{.kind = HeaterKind::heatPump, .power_W = 1.0};
  double most_W = 0.0;
  for (const Json& w : in.at("capacity_W_at_points")) most_W = std::max(most_W, w.get<double>());
  for (std::size_t i = 0; i < in.at("points_C").size(); ++i)
    pump.heatPump.push_back(
        {in.at("points_C")[i].get<double>(), in.at("capacity_W_at_points")[i].get<double>() / most_W, in.at("cop_at_points")[i].get<double>()});
  pump.defrostBelow_C = num(in, "defrost_below_C");
  pump.defrostLoss = num(in, "defrost_loss_fraction");
  std::vector<double> limit, perHeat;
  double cutOut_h = 0.0;
  for (const double T : house.outside_C) {
    const HeatPumpPoint at = heatPumpAt(pump, T);
    const bool isOut = T < num(in, "cut_out_C");
    limit.push_back(isOut ? 0.0 : at.capacity);
    perHeat.push_back(1.0 / at.cop);
    if (isOut) cutOut_h += kPiece_s / 3600.0;
  }
  house.heater(num(in, "setpoint_C"), most_W);
  house.net.thermostats[0].limitSignal = house.signal(limit, true);
  house.heater(num(in, "setpoint_C") - num(in, "backup_offset_K"), num(in, "backup_W"));
  Solver s = *Solver::prepare(house.net);
  double coldest = num(in, "start_air_C"), taken_J = 0.0;
  for (std::size_t i = 0; i < house.steps; ++i) {
    s.advance(kPiece_s);
    coldest = std::min(coldest, s.temperature_C(house.air));
    taken_J += s.lastPower_W(0) * kPiece_s * perHeat[i];
  }
  const double heat_J = s.balance().thermostat_J[0];
  return {{"heat_pump_heat_kWh", kWh(heat_J)},
          {"heat_pump_electricity_kWh", kWh(taken_J)},
          {"seasonal_factor", taken_J > 0.0 ? Json(heat_J / taken_J) : Json()},
          {"backup_kWh", kWh(s.balance().thermostat_J[1])},
          {"coldest_C", coldest},
          {"hours_cut_out", cutOut_h}};
}

/// What the case's loads give, W by step as a mean, and in all up to the end.
struct Burnt {
  std::vector<double> mean_W;
  double total_J = 0.0;
};
Burnt burn(const Json& in, std::size_t steps) {
  Burnt fire;
  fire.mean_W.assign(steps + 1, 0.0);
  for (std::size_t l = 0; l < in.at("load_h").size(); ++l) {
    const double lit_s = 3600.0 * in.at("load_h")[l].get<double>(), heat_J = in.at("loads_kg")[l].get<double>() * num(in, "net_heating_value_J_per_kg");
    const double rise = num(in, "rise_s"), plateau = num(in, "plateau_s"), ember = num(in, "ember_s");
    const BurnCurve curve{rise, plateau, ember, heat_J / (rise / 2.0 + plateau + ember)};
    for (std::size_t i = 0; i < steps; ++i) {
      const double from = kPiece_s * static_cast<double>(i) - lit_s;
      fire.mean_W[i] += (curve.given_J(from + kPiece_s) - curve.given_J(from)) / kPiece_s;
    }
    fire.total_J += curve.given_J(kPiece_s * static_cast<double>(steps) - lit_s);
  }
  return fire;
}

Json batchStove(const Json& in) {
  const auto& reports = in.at("report_h");
  House house(in, 0.0, 3600.0 * reports.back().get<double>());
  const Burnt fire = burn(in, house.steps);
  const int table = house.signal(fire.mean_W, true);
  house.net.sources.push_back({house.air, Driver::table(table, num(in, "air_share")), "stove"});
  house.net.sources.push_back({house.mass, Driver::table(table, num(in, "mass_share")), "stove, into the mass"});
  Solver s = *Solver::prepare(house.net);
  Json air = Json::array(), mass = Json::array();
  std::size_t next = 0;
  for (std::size_t i = 0; i <= house.steps; ++i) {
    if (next < reports.size() && std::abs(kPiece_s * static_cast<double>(i) - 3600.0 * reports[next].get<double>()) < 1.0) {
      air.push_back(s.temperature_C(house.air));
      mass.push_back(s.temperature_C(house.mass));
      ++next;
    }
    if (i < house.steps) s.advance(kPiece_s);
  }
  const double stored_J = num(in, "air_J_per_K") * (s.temperature_C(house.air) - num(in, "start_air_C")) +
                          num(in, "mass_J_per_K") * (s.temperature_C(house.mass) - num(in, "start_mass_C"));
  return {{"air_C", air},
          {"mass_C", mass},
          {"released_kWh", kWh(fire.total_J)},
          {"to_air_kWh", kWh(s.balance().source_J[0])},
          {"to_mass_kWh", kWh(s.balance().source_J[1])},
          {"flue_kWh", kWh(fire.total_J - s.balance().source_J[0] - s.balance().source_J[1])},
          {"lost_kWh", kWh(-s.balance().boundary_J[static_cast<std::size_t>(house.out)])},
          {"stored_kWh", kWh(stored_J)}};
}

Json benchMass(const Json& in) {
  const auto& reports = in.at("report_h");
  House house(in, 0.0, 3600.0 * reports.back().get<double>());
  const Burnt fire = burn(in, house.steps);
  const int table = house.signal(fire.mean_W, true);
  const double air = num(in, "air_share"), taken = (1.0 - air) * -std::expm1(-num(in, "flue_NTU"));
  const int core = house.net.addNode("core", num(in, "core_J_per_K"), num(in, "start_bench_C"));
  const int surface = house.net.addNode("surface", num(in, "surface_J_per_K"), num(in, "start_bench_C"));
  house.net.addConductance(core, surface, num(in, "core_to_surface_W_per_K"));
  house.net.addConductance(surface, house.air, num(in, "surface_to_air_W_per_K"));
  const int link = static_cast<int>(house.net.links.size()) - 1;
  house.net.sources.push_back({house.air, Driver::table(table, air), "stove"});
  house.net.sources.push_back({core, Driver::table(table, taken), "flue"});
  Solver s = *Solver::prepare(house.net);
  Json airs = Json::array(), cores = Json::array(), surfaces = Json::array();
  std::size_t next = 0;
  double peak_C = -1e9, peak_h = 0.0, given_J = 0.0, before_W = s.linkFlow_W(link);
  for (std::size_t i = 0; i <= house.steps; ++i) {
    const double hour = kPiece_s * static_cast<double>(i) / 3600.0;
    if (next < reports.size() && std::abs(hour - reports[next].get<double>()) < 1e-3) {
      airs.push_back(s.temperature_C(house.air));
      cores.push_back(s.temperature_C(core));
      surfaces.push_back(s.temperature_C(surface));
      ++next;
    }
    if (s.temperature_C(surface) > peak_C) peak_C = s.temperature_C(surface), peak_h = hour;
    if (i == house.steps) break;
    s.advance(kPiece_s);
    const double now_W = s.linkFlow_W(link);
    given_J += 0.5 * (now_W + before_W) * kPiece_s;
    before_W = now_W;
  }
  return {{"air_C", airs},
          {"core_C", cores},
          {"surface_C", surfaces},
          {"surface_peak_C", peak_C},
          {"surface_peak_h", peak_h},
          {"released_kWh", kWh(fire.total_J)},
          {"chimney_kWh", kWh(fire.total_J * (1.0 - air - taken))},
          {"bench_to_air_kWh", kWh(given_J)}};
}

Json cableOnOff(const Json& in) {
  Network net;
  const int lower = net.addNode("layer 1", num(in, "layer1_J_per_K"), num(in, "start_C"));
  const int upper = net.addNode("layer 2", num(in, "layer2_J_per_K"), num(in, "start_C"));
  net.addConductance(lower, upper, num(in, "between_W_per_K"));
  net.addConductance(lower, net.addBoundary("deep", Driver::constant(num(in, "deep_C"))), num(in, "layer1_to_deep_W_per_K"));
  net.addConductance(upper, net.addBoundary("air", Driver::sine(num(in, "air_mean_C"), num(in, "air_amplitude_K"), 86400.0, 3600.0 * num(in, "air_peak_h"))),
                     num(in, "layer2_to_air_W_per_K"));
  Thermostat t{.id = "cable", .sensor = in.at("sensor") == "layer 1" ? lower : upper, .heats = lower, .mode = Thermostat::Mode::hysteresis};
  t.on_C = num(in, "setpoint_C") - 0.5 * num(in, "band_K");
  t.off_C = num(in, "setpoint_C") + 0.5 * num(in, "band_K");
  t.power_W = num(in, "cable_W");
  net.thermostats.push_back(t);
  Solver s = *Solver::prepare(net);
  double sum = 0.0, low = 1e9, high = -1e9;
  long count = 0;
  const auto steps = static_cast<long>(std::lround(86400.0 * num(in, "days") / kPiece_s));
  for (long i = 1; i <= steps; ++i) {
    s.advance(kPiece_s);
    if (i < 1440) continue;
    const double T = s.temperature_C(upper);
    sum += T;
    ++count;
    low = std::min(low, T);
    high = std::max(high, T);
  }
  return {{"energy_kWh", kWh(s.balance().thermostat_J[0])},
          {"starts", s.starts(0)},
          {"root_mean_C", sum / static_cast<double>(count)},
          {"root_lowest_C", low},
          {"root_highest_C", high}};
}

Json unventedHouse(const Json& in) {
  const Combustion burnt = combustion(num(in, "carbon_atoms"), num(in, "hydrogen_atoms"));
  const double fuel_kg_s = num(in, "burner_W_net") / num(in, "net_heating_value_J_per_kg"), volume = num(in, "volume_m3"), n = num(in, "air_changes_per_h");
  const double inside = num(in, "inside_C"), outdoor = num(in, "outdoor_C");
  const double source = fuel_kg_s * burnt.carbonDioxide_kg / num(in, "CO2_density_kg_per_m3");
  const auto ppm = [&](double t) { return carbonDioxide_ppm(source, volume, n, num(in, "outdoor_CO2_ppm"), t); };
  const double vapour_Pa = num(in, "outdoor_RH") * saturationPressure_Pa(outdoor);
  const double w0 = humidityRatio(vapour_Pa);
  const double dry_kg = volume * (kStandardPressure_Pa - vapour_Pa) / (287.042 * (inside + 273.15));
  const double water_kg_s = fuel_kg_s * burnt.water_kg, changes = n / 3600.0, saturated = humidityRatio(saturationPressure_Pa(inside));
  const auto humid = [&](double t) { return std::min(saturated, w0 + water_kg_s / (changes * dry_kg) * -std::expm1(-changes * t)); };
  const double forever = std::numeric_limits<double>::infinity();
  const auto relative = [&](double w) { return vapourPressure_Pa(w) / saturationPressure_Pa(inside); };
  return {{"CO2_ppm_1h", ppm(3600.0)},
          {"CO2_ppm_steady", ppm(forever)},
          {"humidity_ratio_1h", humid(3600.0)},
          {"humidity_ratio_steady", humid(forever)},
          {"RH_1h", relative(humid(3600.0))},
          {"RH_steady", relative(humid(forever))},
          {"condensate_kg_per_h_steady", std::max(0.0, 3600.0 * (water_kg_s - changes * dry_kg * (saturated - w0)))},
          {"fuel_kg_per_h", 3600.0 * fuel_kg_s}};
}

/// First moment at which a course of minutes is below a line.
Json minutesTo(const std::vector<double>& air, double line) {
  for (std::size_t i = 0; i < air.size(); ++i) {
    if (air[i] >= line) continue;
    if (i == 0) return 0.0;
    return static_cast<double>(i - 1) + (air[i - 1] - line) / (air[i - 1] - air[i]);
  }
  return nullptr;
}

Json timeToLine(const Json& in) {
  House house(in, num(in, "stop_h"), 3600.0 * num(in, "horizon_h"));
  if (const auto kg = maybe(in, "water_kg")) house.water(*kg, num(in, "water_to_air_W_per_K"), num(in, "start_water_C"));
  Solver s = *Solver::prepare(house.net);
  std::vector<double> air{s.temperature_C(house.air)};
  for (std::size_t i = 0; i < house.steps; ++i) {
    s.advance(kPiece_s);
    air.push_back(s.temperature_C(house.air));
  }
  Json minutes = Json::array();
  for (const Json& line : in.at("lines_C")) minutes.push_back(minutesTo(air, line.get<double>()));
  return {{"minutes_to_line_min", minutes},
          {"lowest_air_C", *std::min_element(air.begin(), air.end())},
          {"ice_fraction_end", house.waterNode >= 0 ? house.ice(s.temperature_C(house.waterNode)) : 0.0}};
}

/// As failures are tried over a season: a run that is kept at every moment and gone on with without its heater.
Json worstHour(const Json& in) {
  const double last_h = num(in, "last_h"), outage_h = num(in, "outage_h"), line = num(in, "line_C");
  House house(in, 12.0, 3600.0 * (last_h + outage_h - 12.0) + 3600.0);
  house.heater(num(in, "setpoint_C"), 1e7);
  Solver s = *Solver::prepare(house.net);
  double lowest = 1e9, lowHour = 0.0, soonest = 1e9, soonHour = 0.0, atFirst = 0.0, atLast = 0.0;
  for (std::size_t i = 0;; ++i) {
    const double hour = 12.0 + kPiece_s * static_cast<double>(i) / 3600.0;
    if (hour > last_h + 1e-6) break;
    if (i % 10 == 0 && hour >= num(in, "first_h") - 1e-6) {
      Solver branch = s;
      branch.setLimit(0, 0.0);
      std::vector<double> air{branch.temperature_C(house.air)};
      for (int k = 0; k < static_cast<int>(std::lround(outage_h * 60.0)); ++k) {
        branch.advance(kPiece_s);
        air.push_back(branch.temperature_C(house.air));
      }
      const double low = *std::min_element(air.begin(), air.end());
      const Json minutes = minutesTo(air, line);
      if (low < lowest) lowest = low, lowHour = hour;
      if (minutes.is_number() && minutes.get<double>() < soonest) soonest = minutes.get<double>(), soonHour = hour;
      if (std::abs(hour - num(in, "first_h")) < 1e-6) atFirst = low;
      atLast = low;
    }
    s.advance(kPiece_s);
  }
  const bool crosses = soonest < 1e9;
  return {{"worst_hour_for_low", lowHour},
          {"lowest_low_C", lowest},
          {"worst_hour_for_time", crosses ? Json(soonHour) : Json()},
          {"shortest_time_min", crosses ? Json(soonest) : Json()},
          {"low_at_first_C", atFirst},
          {"low_at_last_C", atLast}};
}

Json neededMass(const Json& in) {
  struct Held {
    double low, water_C, ice;
  };
  const auto with = [&](double litres) {
    House house(in, num(in, "stop_h"), 3600.0 * num(in, "hold_h"));
    if (litres > 0.0) house.water(litres, litres * num(in, "u_W_per_K_per_litre"), num(in, "water_start_C"));
    Solver s = *Solver::prepare(house.net);
    double low = s.temperature_C(house.air);
    for (std::size_t i = 0; i < house.steps; ++i) {
      s.advance(kPiece_s);
      low = std::min(low, s.temperature_C(house.air));
    }
    if (litres <= 0.0) return Held{low, 0.0, 0.0};
    const double water_C = s.temperature_C(house.waterNode);
    return Held{low, water_C, house.ice(water_C)};
  };
  const double line = num(in, "line_C");
  double low = 0.0, high = 100.0;
  while (with(high).low < line && high < 1e7) low = high, high *= 2.0;
  for (int i = 0; i < 40; ++i) {
    const double middle = 0.5 * (low + high);
    (with(middle).low >= line ? high : low) = middle;
  }
  const Held held = with(high);
  return {{"litres", high},
          {"water_end_C", held.ice > 0.0 && held.ice < 1.0 ? 0.0 : held.water_C},
          {"ice_fraction_end", held.ice},
          {"low_without_C", with(0.0).low}};
}

} // namespace

void addControl(Adapters& a) {
  a["staged_heaters"] = stagedHeaters;
  a["setpoint_schedule"] = setpointSchedule;
  a["swing_limit"] = swingLimit;
  a["heat_pump"] = heatPump;
  a["batch_stove"] = batchStove;
  a["bench_mass"] = benchMass;
  a["cable_on_off"] = cableOnOff;
  a["unvented_burner_house"] = unventedHouse;
  a["time_to_line"] = timeToLine;
  a["worst_hour"] = worstHour;
  a["needed_mass"] = neededMass;
}

} // namespace muffle::cases
