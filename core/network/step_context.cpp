// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/step_context.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

constexpr double kWarmEnough_K = 4.0; // over a new setpoint, for its heater to stay off
constexpr double kSlight = 1e-6;      // of what a given power may be off: the last digits of sums that are to be nothing

} // namespace

StepContext::StepContext(Network of, SolverOptions with) : options(std::move(with)), network(std::make_shared<const Network>(std::move(of))) {
  const Network& net = *network;
  flows = NetworkFlows(network, options.groupOfLink);
  for (const Thermostat& t : net.thermostats) {
    sensorSlot.push_back(flows.slot(t.sensor));
    limitsVary = limitsVary || t.limitSignal >= 0;
    double rest = 1.0;
    std::vector<Heated> places;
    for (const HeatShare& h : t.elsewhere) {
      places.push_back({flows.slot(h.node), h.share});
      rest -= h.share;
    }
    if (rest > 1e-12) places.insert(places.begin(), {flows.slot(t.heats), rest});
    heated.push_back(std::move(places));
  }
  const auto free = static_cast<std::size_t>(flows.freeCount());
  const auto slots = static_cast<std::size_t>(flows.slotCount());
  const auto rows = static_cast<std::size_t>(flows.rowCount());
  start = middle = end = flows.makeState();
  initial.assign(slots, 0.0);
  for (std::size_t i = 0; i < net.nodes.size(); ++i) initial[flows.slot(static_cast<int>(i))] = net.nodes[i].initial_C;
  const bool switches = std::any_of(net.thermostats.begin(), net.thermostats.end(), [](const Thermostat& t) { return t.mode == Thermostat::Mode::hysteresis; });
  if (switches || flows.hasAlgebraic()) options.multistep = false;
  explicitPart.assign(free, 0.0);
  delta.assign(slots, 0.0);
  ideal = IdealThermostats(net.thermostats, sensorSlot, free);
  setpoint.assign(net.thermostats.size(), 0.0);
  error_K = powerBefore = powerTried = lastPower = stepHeat_J = beforeHeat_J = setpoint;
  limitShare.assign(net.thermostats.size(), 1.0);
  for (std::size_t j = 0; j < net.thermostats.size(); ++j) limit.push_back(limitAt(j, 0.0));
  step_J.assign(rows, 0.0);
  before_J = lastEnergy = step_J;
  stepValue.assign(flows.drivers().valueCount(), 0.0);
  beforeValue = stepValue;
}

void StepContext::reset() {
  const std::size_t thermostats = network->thermostats.size();
  time = 0.0;
  start.T = initial;
  power.assign(thermostats, 0.0);
  on.assign(thermostats, false);
  starts.assign(thermostats, 0);
  thermostat_J.assign(thermostats, 0.0);
  energy_J.assign(static_cast<std::size_t>(flows.rowCount()), 0.0);
  valueIntegral.assign(flows.drivers().valueCount(), 0.0);
  throughput_J = 0.0;
  iterations = 0;
  startIsExact = inDoubleStep = false;
  equalStep_s = 0.0;
  for (Given& g : given) g = {g.thermostat};
  setpointsFrom_s = setpointsUntil_s = 0.0;
  flows.drive(0.0, start);
  flows.startFreezing(start.T);
  flows.startRelays(start.T);
}

double StepContext::limitAt(std::size_t j, double time_s) const {
  for (const Given& g : given)
    if (g.thermostat == j) return g.mean_W;
  const Thermostat& t = network->thermostats[j];
  const double most_W = limitShare[j] * t.power_W;
  return t.limitSignal < 0 ? most_W : most_W * std::max(network->tables[static_cast<std::size_t>(t.limitSignal)].at(time_s), 0.0);
}

/// Of the ideal thermostats; limits of all, and the powers of those that give what is given.
void StepContext::takeSetpoints(double time_s) {
  for (std::size_t j = 0; j < power.size(); ++j) limit[j] = limitAt(j, time_s);
  for (const Given& g : given) power[g.thermostat] = limit[g.thermostat];
  if (knowsSetpointsAt(time_s)) return;
  for (std::size_t j = 0; j < power.size(); ++j) {
    const Thermostat& t = network->thermostats[j];
    if (t.mode == Thermostat::Mode::ideal)
      setpoint[j] = t.setpointSignal >= 0 ? network->tables[static_cast<std::size_t>(t.setpointSignal)].at(time_s) : t.setpoint_C;
  }
  knowSetpointsAt(time_s);
}

/// They are those of that time: until one of them changes none need be looked at.
void StepContext::knowSetpointsAt(double time_s) {
  setpointsFrom_s = time_s;
  setpointsUntil_s = std::numeric_limits<double>::infinity();
  for (const Thermostat& t : network->thermostats)
    if (t.setpointSignal >= 0) setpointsUntil_s = std::min(setpointsUntil_s, network->tables[static_cast<std::size_t>(t.setpointSignal)].nextChange_s(time_s));
}

/// What those that give whatever is asked have to give in a step of h.
void StepContext::beginGiven(double h) {
  for (Given& g : given) {
    g.steps = g.heat ? g.heat->steps(time, h) : GivenHeat::Steps{};
    g.wanted_J = g.owed_J + limitShare[g.thermostat] * g.steps.energy_J;
    limit[g.thermostat] = g.mean_W = std::max(g.wanted_J, 0.0) / h;
  }
}

/// The same for a step, or two at once, by the multistep formula: the power at its end by which, with its part of what was given before, it gives
/// neither more nor less; where the curve bends, the nearest to what it then is, and the rest is owed. False if two at once would
/// owe, or the last, or one more than the next can make up for; and if it jumps.
bool StepContext::goOnGiving(double h, double s, bool twice) {
  for (const Given& g : given) {
    const std::size_t j = g.thermostat;
    limit[j] = power[j] = 0.0;
    if (!g.heat) continue;
    if (twice && g.steps.isLast) return false; // the second of them is not asked for
    const double share = limitShare[j], near_W = g.heat->near_W;
    const double wanted_J = g.wanted_J + (twice ? share * g.steps.nextEnergy_J : 0.0);
    const double carried_J = (stepHeat_J[j] + (twice ? beforeHeat_J[j] : 0.0)) / 3.0; // of the step's heat, by the formula
    const double even_W = (wanted_J - carried_J) / s;
    const double then_W = share * (twice ? g.steps.nextEnd_W : g.steps.end_W);
    limit[j] = power[j] = std::max(std::clamp(even_W, then_W - near_W, then_W + near_W), 0.0);
    const double tooMuch_J = carried_J + s * power[j] - std::max(wanted_J, 0.0);
    if (std::abs(tooMuch_J) <= kSlight * near_W * s) continue;
    if (twice || g.steps.isLast || tooMuch_J > share * g.steps.nextEnergy_J) return false;
    const double line_W = share * (2.0 * g.heat->power_W(time) - g.heat->power_W(std::max(time - h, 0.0)));
    if (std::abs(then_W - line_W) > g.heat->bend_W) return false;
  }
  return true;
}

/// After a step.
void StepContext::countGiven() {
  for (Given& g : given) g.owed_J = g.wanted_J - lastPower[g.thermostat];
}

/// False if a heater that is on may not give as much from then on, or one at its limit more, at once; what changes little by little is taken up.
bool StepContext::limitsStay(double time_s) {
  for (std::size_t j = 0; j < power.size(); ++j) {
    const int signal = network->thermostats[j].limitSignal;
    if (signal < 0) continue;
    const double then = limitAt(j, time_s);
    if (then == limit[j]) continue;
    if (network->tables[static_cast<std::size_t>(signal)].hold && (power[j] > then || power[j] == limit[j])) return false;
    limit[j] = then;
  }
  return true;
}

/// False if a setpoint is another then, unless its heater is off and stays so as far as one can see: that one is taken up.
bool StepContext::setpointsStay(double time_s) {
  if (knowsSetpointsAt(time_s)) return !limitsVary || limitsStay(time_s);
  setpointsUntil_s = setpointsFrom_s = 0.0; // some may be taken and others not
  for (std::size_t j = 0; j < power.size(); ++j) {
    const Thermostat& t = network->thermostats[j];
    if (t.setpointSignal < 0) continue;
    const double then = network->tables[static_cast<std::size_t>(t.setpointSignal)].at(time_s);
    if (then == setpoint[j]) continue;
    if (limit[j] > 0.0 && (power[j] > 0.0 || start.T[sensorSlot[j]] < then + kWarmEnough_K)) return false;
    setpoint[j] = then;
  }
  knowSetpointsAt(time_s);
  return !limitsVary || limitsStay(time_s);
}

/// Newton's rounds may come to rest on an answer that the fourth powers have below absolute zero.
bool StepContext::isPossible(const FlowState& stage) const {
  return std::all_of(stage.T.begin(), stage.T.begin() + flows.freeCount(), [](double t) { return t > -kZeroCelsius_K; });
}

/// Moves a stage's temperatures by its response to what the powers have changed since `before`, and leaves the moves in delta. The
/// furthest that anything moved, K.
double StepContext::moveByPowers(FlowState& stage, const std::vector<double>& before, const std::vector<std::vector<double>>& response) {
  const std::size_t free = explicitPart.size();
  std::fill(delta.begin(), delta.end(), 0.0);
  for (std::size_t j = 0; j < power.size(); ++j) {
    const double change = power[j] - before[j];
    if (change == 0.0) continue;
    for (std::size_t i = 0; i < free; ++i) delta[i] += change * response[j][i];
  }
  double furthest = 0.0;
  for (std::size_t i = 0; i < free; ++i) {
    stage.T[i] += delta[i];
    furthest = std::max(furthest, std::abs(delta[i]));
  }
  return furthest;
}

/// Counts the energies, driven values and heaters' heat of a step.
void StepContext::count(const std::vector<double>& step, const std::vector<double>& value, const std::vector<double>& heat_J, double h) {
  const auto slots = static_cast<std::size_t>(flows.slotCount());
#pragma GCC unroll 4
  for (std::size_t r = explicitPart.size(); r < energy_J.size(); ++r) {
    energy_J[r] += step[r];
    lastEnergy[r] = step[r];
    if (r < slots) throughput_J += std::abs(step[r]);
  }
#pragma GCC unroll 4
  for (std::size_t v = 0; v < valueIntegral.size(); ++v) valueIntegral[v] += value[v];
#pragma GCC unroll 4
  for (const NetworkDrivers::Term& t : flows.drivers().sourceTerms()) throughput_J += std::abs(t.factor * value[static_cast<std::size_t>(t.value)]);
  for (std::size_t j = 0; j < power.size(); ++j) {
    thermostat_J[j] += heat_J[j];
    throughput_J += heat_J[j];
    lastPower[j] = heat_J[j]; // advance() makes it a power
  }
  time += h;
}

} // namespace muffle
