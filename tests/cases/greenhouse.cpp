// SPDX-License-Identifier: GPL-3.0-or-later
//
// The complete small greenhouse, as an explicit network.
#include "core/air/sky.h"
#include "core/network/solver.h"
#include "tests/cases/adapters.h"

#include <cmath>

namespace muffle::cases {
namespace {

constexpr double kMinute_s = 60.0; // the reference is given at full hours; the relay cycles in minutes

struct Drives {
  std::vector<double> outside, environment, sun;
};

Drives drivesOf(const Json& in, int days) {
  Drives d;
  const double f = num(in, "F");
  const double x = num(in, "Tdp") / 100.0;
  for (int i = 0; i <= days * 1440; ++i) {
    const double day = i / 1440.0, hour = std::fmod(i / 60.0, 24.0);
    const double swing = std::sin(kPi * day / 180.0);
    const double to = num(in, "tm0") - num(in, "tm1") * swing + num(in, "Ad") * std::cos(2.0 * kPi * (hour - 15.0) / 24.0);
    const double emissivity = 0.711 + 0.56 * x + 0.73 * x * x + 0.013 * std::cos(2.0 * kPi * hour / 24.0);
    const double to4 = std::pow(kelvin(to), 4);
    d.outside.push_back(to);
    d.environment.push_back(std::pow(f * emissivity * to4 + (1.0 - f) * to4, 0.25) - kZeroCelsius_K);
    d.sun.push_back(hour > 8.0 && hour < 17.0 ? (num(in, "g0") - num(in, "g1") * swing) * std::sin(kPi * (hour - 8.0) / 9.0) : 0.0);
  }
  return d;
}

} // namespace

void addGreenhouse(Adapters& a) {
  a["small_greenhouse"] = [](const Json& in) {
    const int days = in.at("days").get<int>();
    const double af = num(in, "Af"), ac = num(in, "Ac");
    const auto start = in.at("start").get<std::vector<double>>();
    const Drives drives = drivesOf(in, days);
    Network net;
    const auto signal = [&](std::vector<double> v) {
      Signal s;
      s.value = std::move(v);
      s.step_s = 60.0;
      return net.addSignal(s);
    };
    const int out = net.addBoundary("out", Driver::table(signal(drives.outside)));
    const int environment = net.addBoundary("environment", Driver::table(signal(drives.environment)));
    const int sun = signal(drives.sun);
    const int deep = net.addBoundary("deep", Driver::constant(num(in, "Td")));
    const int air = net.addNode("air", num(in, "Ca"), start[0]);
    const int cover = net.addNode("cover", num(in, "Cc"), start[1]);
    const int water = net.addNode("water", num(in, "Cw"), start[2]);
    const auto depth = in.at("d").get<std::vector<double>>();
    std::vector<int> soil;
    for (std::size_t i = 0; i < 4; ++i) soil.push_back(net.addNode("soil" + std::to_string(i + 1), num(in, "rc") * depth[i] * af, start[3 + i]));
    net.addNatural(air, cover, ac, num(in, "kc"), 1.0 / 3.0);
    net.addNatural(soil[0], air, af, num(in, "ks"), 1.0 / 3.0);
    net.addConductance(water, air, num(in, "hw") * num(in, "Aw"));
    const double perChange = 1.25 * 1006.0 * num(in, "V") / 3600.0;
    net.addConductance(air, out, perChange * num(in, "n_inf"));
    net.vents.push_back({air, out, air, num(in, "Tv0"), num(in, "Tv1"), perChange * num(in, "n_vent"), ""});
    net.addConductance(cover, out, num(in, "ho") * ac);
    net.addRadiative(cover, environment, num(in, "ec") * ac);
    net.addRadiative(soil[0], cover, num(in, "ec") * af);
    net.addRadiative(soil[0], environment, num(in, "tir") * af);
    for (std::size_t i = 0; i < 3; ++i) net.addConductance(soil[i], soil[i + 1], num(in, "k") * af / ((depth[i] + depth[i + 1]) / 2.0));
    net.addConductance(soil[3], deep, num(in, "k") * af / (depth[3] / 2.0));
    net.addConductance(soil[1], out, num(in, "Ke"));
    const double ts = num(in, "ts");
    net.sources.push_back({air, Driver::table(sun, num(in, "fa") * ts * af), "sun air"});
    net.sources.push_back({cover, Driver::table(sun, num(in, "as") * af), "sun cover"});
    net.sources.push_back({water, Driver::table(sun, num(in, "fw") * ts * af), "sun water"});
    net.sources.push_back({soil[0], Driver::table(sun, num(in, "fs") * ts * af), "sun soil"});
    const std::string heater = in.at("heater").get<std::string>();
    if (heater != "none") {
      Thermostat t{.id = "heater", .sensor = air, .heats = air};
      if (heater == "ideal") {
        t.setpoint_C = num(in, "Tset");
        t.power_W = 1e6;
      } else {
        t.mode = Thermostat::Mode::hysteresis;
        t.on_C = num(in, "Tset") - num(in, "b") / 2.0;
        t.off_C = num(in, "Tset") + num(in, "b") / 2.0;
        t.power_W = num(in, "Pmax");
      }
      net.thermostats.push_back(t);
    }
    Solver s = *Solver::prepare(net);
    const std::vector<std::pair<const char*, int>> columns{{"T_air_C", air},       {"T_cover_C", cover},   {"T_water_C", water},  {"T_soil1_C", soil[0]},
                                                           {"T_soil2_C", soil[1]}, {"T_soil3_C", soil[2]}, {"T_soil4_C", soil[3]}};
    Json result;
    for (const auto& [name, node] : columns) result[name] = Json::array({s.temperature_C(node)});
    Json meanAir = Json::array(), meanPower = Json::array(), perDay = Json::array();
    int below = 0;
    double lowest = s.temperature_C(air), dayEnergy = 0.0, total = 0.0;
    for (int hour = 1; hour <= days * 24; ++hour) {
      double sumAir = 0.0, sumPower = 0.0;
      for (int m = 0; m < 60; ++m) {
        const double before = s.temperature_C(air);
        s.advance(kMinute_s);
        sumAir += 0.5 * (before + s.temperature_C(air)) / 60.0;
        if (!net.thermostats.empty()) sumPower += s.lastPower_W(0) / 60.0;
      }
      for (const auto& [name, node] : columns) result[name].push_back(s.temperature_C(node));
      meanAir.push_back(sumAir);
      meanPower.push_back(sumPower);
      dayEnergy += sumPower / 1000.0;
      if (hour % 24 == 0) {
        perDay.push_back(dayEnergy);
        total += dayEnergy;
        dayEnergy = 0.0;
      }
      if (s.temperature_C(air) < drives.outside[static_cast<std::size_t>(hour * 60)]) ++below;
      lowest = std::min(lowest, s.temperature_C(air));
    }
    result["T_air_hour_mean_C"] = meanAir;
    result["heater_hour_mean_W"] = meanPower;
    result["heater_kWh_per_day"] = perDay;
    result["heater_kWh_total"] = total;
    result["heater_starts"] = net.thermostats.empty() ? 0 : s.starts(0);
    result["hours_air_below_outdoor"] = below;
    result["lowest_air_C"] = lowest;
    return result;
  };
}

} // namespace muffle::cases
