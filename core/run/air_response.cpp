// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/run/air_response.h"

#include "core/network/solver.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kLasts_s = 1800.0, kStep_s = 30.0;
constexpr double kProbe_W = 1000.0;

/// As it stands at a moment, for good: every signal and driver as it is then, nothing that a thermostat gives.
Network standingStill(const Network& of, double at_s, std::span<const double> temperature_C) {
  Network still;
  still.nodes = of.nodes;
  still.links = of.links;
  still.solids = of.solids;
  still.sources = of.sources;
  still.vents = of.vents;
  still.relays = of.relays;
  still.pressure_Pa = of.pressure_Pa;
  still.aliases = of.aliases;
  for (const Signal& table : of.tables) {
    Signal now;
    now.step_s = kLasts_s;
    now.hold = true;
    now.relay = table.relay;
    now.then = table.then;
    now.otherwise = table.otherwise;
    if (table.relay < 0) now.value = {table.at(at_s)};
    still.tables.push_back(std::move(now));
  }
  const auto holdStill = [&](Driver& driver) { driver = Driver::constant(driver.at(at_s, of.tables)); };
  for (Source& source : still.sources) holdStill(source.power);
  for (std::size_t i = 0; i < still.nodes.size(); ++i) {
    if (still.nodes[i].boundary)
      holdStill(*still.nodes[i].boundary);
    else
      still.nodes[i].initial_C = temperature_C[i];
  }
  return still;
}

/// Of a node, from step to step.
std::optional<std::vector<double>> followed(Network network, int node) {
  auto solver = Solver::prepare(std::move(network));
  if (!solver) return std::nullopt;
  std::vector<double> temperature_C;
  for (double t = 0.0; t < kLasts_s; t += kStep_s) {
    if (!solver->advance(kStep_s)) return std::nullopt;
    temperature_C.push_back(solver->temperature_C(node));
  }
  return temperature_C;
}

} // namespace

double AirResponse::after(double t_s) const {
  const double position = t_s / step_s;
  if (position <= 1.0) return position * K_W.front();
  const auto at = std::min(static_cast<std::size_t>(position), K_W.size() - 1);
  if (at == K_W.size() - 1 || at == 0) return K_W.back();
  const double share = position - static_cast<double>(at);
  return K_W[at - 1] + share * (K_W[at] - K_W[at - 1]);
}

double AirResponse::time_s(double K_per_W) const {
  const auto above = std::lower_bound(K_W.begin(), K_W.end(), K_per_W);
  if (above == K_W.begin()) return step_s * K_per_W / K_W.front();
  const auto n = static_cast<double>(above - K_W.begin());
  if (above == K_W.end()) return step_s * n * K_per_W / K_W.back();
  return step_s * (n + (K_per_W - *(above - 1)) / std::max(1e-12, *above - *(above - 1)));
}

std::optional<AirResponse> airResponse(const Network& network, double at_s, std::span<const double> temperature_C, std::size_t thermostat) {
  const Thermostat& of = network.thermostats[thermostat];
  Network still = standingStill(network, at_s, temperature_C);
  const auto before = followed(still, of.sensor);
  double rest = 1.0;
  for (const HeatShare& h : of.elsewhere) {
    still.sources.push_back({h.node, Driver::constant(kProbe_W * h.share), "probe"});
    rest -= h.share;
  }
  still.sources.push_back({of.heats, Driver::constant(kProbe_W * rest), "probe"});
  const auto with = followed(std::move(still), of.sensor);
  if (!before || !with) return std::nullopt;
  AirResponse response{kStep_s, {}};
  double most = 1e-12;
  for (std::size_t i = 0; i < with->size(); ++i) response.K_W.push_back(most = std::max(most, ((*with)[i] - (*before)[i]) / kProbe_W));
  return response;
}

std::optional<HeaterCycle> cycleOf(const Heater& heater, const AirResponse& response, double load_W, double size_W) {
  const double gives_W = std::max(leastOf(heater), 1e-3) * size_W; // what it gives while it is on
  if (load_W <= 0.0 || load_W >= gives_W || response.K_W.empty()) return std::nullopt;
  const double band_K = heater.band_K.value_or(kUsualBand_K), lag_s = startUp_s(heater);
  const double falls_s = response.time_s(band_K / load_W);
  const double slips_K = load_W * (response.after(falls_s + lag_s) - response.after(falls_s));
  HeaterCycle cycle;
  cycle.rest_s = falls_s + lag_s;
  cycle.run_s = response.time_s((band_K + slips_K) / (gives_W - load_W));
  cycle.below_K = 0.5 * band_K + slips_K;
  return cycle;
}

} // namespace muffle
