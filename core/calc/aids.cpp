// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calc/aids.h"

#include "core/constants.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kWater_J_m3K = kWaterDensity_kg_m3 * kWaterHeat_J_kgK; // within 1 % from 5 to 80 degC
constexpr const char* kHeatInIt = "heat_in_it";                         // means the same wherever it is asked

} // namespace

const std::vector<Aid>& aids() {
  static const AidInput heatInIt{kHeatInIt, QuantityKind::heatPerVolume, "10.0 +-0.1 kWh/L", 1e7, 1e11};
  static const std::vector<Aid> all{
      {"flow_from_power",
       {{"power", QuantityKind::power, "5.2 kW", 1.0, 1e6}, {"rise", QuantityKind::difference, "12 +-0.5 K", 0.05, 100.0}},
       {{"flow", QuantityKind::flow}},
       [](const std::vector<double>& x) { return std::vector{x[0] / (kWater_J_m3K * x[1])}; }},
      {"power_from_flow",
       {{"flow", QuantityKind::flow, "310 +-15 L/h", 1e-7, 1.0}, {"rise", QuantityKind::difference, "12 +-0.5 K", 0.0, 100.0}},
       {{"power", QuantityKind::power}},
       [](const std::vector<double>& x) { return std::vector{x[0] * kWater_J_m3K * x[1]}; }},
      {"tank_power",
       {{"volume", QuantityKind::volume, "1980 +-40 L", 1e-4, 1e4},
        {"from", QuantityKind::temperature, "14.0 +-0.2 C", -1.0, 110.0},
        {"to", QuantityKind::temperature, "9.5 +-0.2 C", -1.0, 110.0},
        {"time", QuantityKind::time, "10 h", 1.0, 1e8}},
       {{"power", QuantityKind::power}, {"energy", QuantityKind::energy}},
       [](const std::vector<double>& x) {
         const double energy_J = x[0] * kWater_J_m3K * (x[1] - x[2]);
         return std::vector{energy_J / x[3], energy_J};
       }},
      {"meter_pair",
       {{"start", QuantityKind::energy, "1204.3 +-0.05 kWh", 0.0, 1e15},
        {"end", QuantityKind::energy, "1218.9 +-0.05 kWh", 0.0, 1e15},
        {"time", QuantityKind::time, "12 h", 1.0, 1e9}},
       {{"energy", QuantityKind::energy}, {"power", QuantityKind::power}},
       [](const std::vector<double>& x) {
         if (x[1] < x[0]) return std::vector<double>{};
         return std::vector{x[1] - x[0], (x[1] - x[0]) / x[2]};
       }},
      {"loss_from_duty",
       {{"rated", QuantityKind::power, "9 kW", 1.0, 1e7},
        {"on", QuantityKind::time, "38 +-1 min", 0.0, 1e7},
        {"off", QuantityKind::time, "22 +-1 min", 0.0, 1e7},
        {"inside", QuantityKind::temperature, "3.0 +-0.3 C", -40.0, 60.0},
        {"outside", QuantityKind::temperature, "-8.0 +-0.3 C", -60.0, 60.0}},
       {{"loss", QuantityKind::conductance}, {"power", QuantityKind::power}},
       [](const std::vector<double>& x) {
         if (x[1] + x[2] <= 0.0 || x[3] - x[4] < 0.5) return std::vector<double>{};
         const double power_W = x[0] * x[1] / (x[1] + x[2]);
         return std::vector{power_W / (x[3] - x[4]), power_W};
       }},
      {"heat_from_fuel",
       {{"volume", QuantityKind::volume, "18 +-0.5 L", 0.0, 1e4}, heatInIt, {"efficiency", QuantityKind::share, "85 +-3 %", 0.01, 1.1}},
       {{"heat", QuantityKind::energy}},
       [](const std::vector<double>& x) { return std::vector{x[0] * x[1] * x[2]}; }},
      {"fuel_for_heat",
       {{"heat", QuantityKind::energy, "153 kWh", 0.0, 1e15}, heatInIt, {"efficiency", QuantityKind::share, "85 +-3 %", 0.01, 1.1}},
       {{"volume", QuantityKind::volume}},
       [](const std::vector<double>& x) { return std::vector{x[0] / (x[1] * x[2])}; }},
  };
  return all;
}

Message whatOf(const Aid& aid) { return Message::of("aid", aid.name); }
Message formulaOf(const Aid& aid) { return Message::of("aid", aid.name, "formula"); }
Message whatOf(const Aid& aid, const char* key) { return std::string_view(key) == kHeatInIt ? Message::of("aid", key) : Message::of("aid", aid.name, key); }

const Aid* aidNamed(std::string_view name) {
  const auto& all = aids();
  const auto found = std::find_if(all.begin(), all.end(), [&](const Aid& a) { return a.name == name; });
  return found == all.end() ? nullptr : &*found;
}

Result<std::vector<Measured>> work(const Aid& aid, const std::vector<Measured>& inputs) {
  Problems problems;
  std::vector<double> x;
  for (std::size_t i = 0; i < aid.inputs.size(); ++i) {
    const AidInput& input = aid.inputs[i];
    x.push_back(inputs[i].value);
    if (!(x[i] >= input.least && x[i] <= input.most))
      problems.push_back({ProblemKind::badInput, input.key, Message{"aid.out-of-range", textOf({x[i], 0.0}, input.kind)},
                          Message{"aid.range-allowed", textOf({input.least, 0.0}, input.kind), textOf({input.most, 0.0}, input.kind)}});
  }
  if (!problems.empty()) return problems;
  const std::vector<double> y = aid.compute(x);
  if (y.empty()) return Problem{ProblemKind::noSolution, aid.name, Message{"aid.there-is-no-answer"}, Message::of("aid", aid.name, "no-answer")};
  std::vector<Measured> answer;
  for (const double value : y) answer.push_back({value, 0.0});
  std::vector<double> variance(y.size(), 0.0);
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (inputs[i].uncertain <= 0.0) continue;
    // over the reading's own spread, so that a curved law is met where the reading may lie; one-sided where the other has no answer
    auto up = x, down = x;
    up[i] += inputs[i].uncertain;
    down[i] -= inputs[i].uncertain;
    const auto above = aid.compute(up), below = aid.compute(down);
    for (std::size_t k = 0; k < y.size(); ++k) {
      const double high = above.empty() ? y[k] : above[k], low = below.empty() ? y[k] : below[k];
      const double move = (high - low) / (above.empty() || below.empty() ? 1.0 : 2.0);
      variance[k] += move * move;
    }
  }
  for (std::size_t k = 0; k < y.size(); ++k) answer[k].uncertain = std::sqrt(variance[k]);
  return answer;
}

} // namespace muffle
