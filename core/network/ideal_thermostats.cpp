// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/ideal_thermostats.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

constexpr std::size_t kFixed = std::numeric_limits<std::size_t>::max();
constexpr int kMaxSweeps = 60;    // random houses of up to eight rooms of up to four stages, with fans between them, need ten to 1e-7 K
constexpr int kTogetherAfter = 2; // sweeps

} // namespace

IdealThermostats::IdealThermostats(const std::vector<Thermostat>& thermostats, const std::vector<std::size_t>& sensorSlot, std::size_t free) {
  for (std::size_t j = 0; j < thermostats.size(); ++j) {
    const bool isSolved = thermostats[j].mode == Thermostat::Mode::ideal && sensorSlot[j] < free;
    m_slotOf.push_back(isSolved ? sensorSlot[j] : kFixed);
    if (!isSolved) continue;
    const auto known = std::find_if(m_sensors.begin(), m_sensors.end(), [&](const Sensor& s) { return s.slot == sensorSlot[j]; });
    (known == m_sensors.end() ? m_sensors.emplace_back(Sensor{sensorSlot[j], {}}) : *known).stages.push_back(j);
  }
  m_between.reserve(thermostats.size());
}

void IdealThermostats::leaveOut(std::size_t thermostat) {
  for (Sensor& sensor : m_sensors) std::erase(sensor.stages, thermostat);
  std::erase_if(m_sensors, [](const Sensor& sensor) { return sensor.stages.empty(); });
  m_slotOf[thermostat] = kFixed;
}

/// Nothing is to be done: within its tolerance, off and warm enough, or full on and not.
inline bool IdealThermostats::rests(std::size_t j, const Step& step) {
  const double power = step.power_W[j], error = step.error_K[j], limit = step.limit_W[j];
  return (power <= limit && std::abs(error) < step.letBe_K) || (power <= 0.0 && error <= 0.0) || (power == limit && error >= 0.0);
}

/// So of all stages, and none gives before its turn.
bool IdealThermostats::restInTurn(const Sensor& sensor, const Step& step) {
  bool mayGive = true;
  for (const std::size_t j : sensor.stages) {
    if (!rests(j, step) || (step.power_W[j] > 0.0 && !mayGive)) return false;
    mayGive = mayGive && step.power_W[j] >= step.limit_W[j];
  }
  return true;
}

/// How far its own sensor moves by it.
double IdealThermostats::change(std::size_t thermostat, double to_W, const Step& step) const {
  if (to_W == step.power_W[thermostat]) return 0.0;
  return change(thermostat, to_W, step.responses.of(thermostat), step);
}

double IdealThermostats::change(std::size_t thermostat, double to_W, const std::vector<double>& response, const Step& step) const {
  const double by_W = to_W - step.power_W[thermostat];
  step.power_W[thermostat] = to_W; // to the bit, where it is a limit
  for (const Sensor& sensor : m_sensors)
    for (const std::size_t j : sensor.stages) step.error_K[j] -= by_W * response[sensor.slot];
  return std::abs(by_W) * response[m_slotOf[thermostat]];
}

double IdealThermostats::settleOne(const Sensor& sensor, const Step& step) const {
  const std::size_t j = sensor.stages.front();
  const std::vector<double>& response = step.responses.of(j);
  const double own = response[sensor.slot];
  return own > 0.0 ? change(j, std::clamp(step.power_W[j] + step.error_K[j] / own, 0.0, step.limit_W[j]), response, step) : 0.0;
}

/// One after the other, from all off.
double IdealThermostats::settleStages(Sensor& sensor, const Step& step) const {
  const auto comesFirst = [&](std::size_t a, std::size_t b) { return step.setpoint_C[a] > step.setpoint_C[b]; };
  if (!std::is_sorted(sensor.stages.begin(), sensor.stages.end(), comesFirst)) std::stable_sort(sensor.stages.begin(), sensor.stages.end(), comesFirst);
  const std::size_t first = sensor.stages.front();
  double warmth_C = step.setpoint_C[first] - step.error_K[first];
  const double before_C = warmth_C;
  for (const std::size_t j : sensor.stages)
    if (step.power_W[j] > 0.0) warmth_C -= step.power_W[j] * step.responses.of(j)[sensor.slot];
  bool isEnough = false; // a stage has power to spare: no later one begins, whatever the last digit of the warmth says
  for (const std::size_t j : sensor.stages) {
    double power = 0.0;
    const double needed_K = step.setpoint_C[j] - warmth_C;
    if (needed_K > 0.0 && !isEnough) {
      const double response = step.responses.of(j)[sensor.slot];
      power = response > 0.0 ? std::min(needed_K / response, step.limit_W[j]) : step.power_W[j];
      warmth_C += power * response;
    }
    isEnough = isEnough || power < step.limit_W[j];
    change(j, power, step);
  }
  return std::abs(warmth_C - before_C);
}

/// Those between their limits, one a sensor, as if they stayed there.
void IdealThermostats::settleTogether(const Step& step) {
  m_between.clear();
  for (const Sensor& sensor : m_sensors)
    for (const std::size_t j : sensor.stages)
      if (step.power_W[j] > 0.0 && step.power_W[j] < step.limit_W[j]) {
        m_between.push_back(j);
        break;
      }
  const auto n = static_cast<Eigen::Index>(m_between.size());
  if (n < 2) return;
  Eigen::MatrixXd response(n, n);
  Eigen::VectorXd error(n);
  for (Eigen::Index c = 0; c < n; ++c) {
    const std::size_t j = m_between[static_cast<std::size_t>(c)];
    const std::vector<double>& of = step.responses.of(j);
    for (Eigen::Index r = 0; r < n; ++r) response(r, c) = of[m_slotOf[m_between[static_cast<std::size_t>(r)]]];
    error(c) = step.error_K[j];
  }
  const Eigen::VectorXd by_W = response.partialPivLu().solve(error);
  if (!by_W.allFinite()) return;
  // no further than to where the first of them meets a limit: what then still lacks is less than before, so that sweeps and this never go in a circle
  double share = 1.0;
  for (Eigen::Index c = 0; c < n; ++c) {
    const std::size_t j = m_between[static_cast<std::size_t>(c)];
    const double room = by_W(c) > 0.0 ? step.limit_W[j] - step.power_W[j] : step.power_W[j];
    if (std::abs(by_W(c)) > room) share = std::min(share, room / std::abs(by_W(c)));
  }
  for (Eigen::Index c = 0; c < n; ++c) {
    const std::size_t j = m_between[static_cast<std::size_t>(c)];
    change(j, std::clamp(step.power_W[j] + share * by_W(c), 0.0, step.limit_W[j]), step);
  }
}

IdealThermostats::Outcome IdealThermostats::find(std::vector<double>& power_W, std::vector<double>& error_K, const std::vector<double>& setpoint_C,
                                                 const std::vector<double>& limit_W, double letBe_K, double enough_K, Responses& responses) {
  const Step step{power_W, error_K, setpoint_C, limit_W, letBe_K, responses};
  bool moved = false;
  for (int sweep = 0; sweep < kMaxSweeps; ++sweep) {
    double furthest = 0.0;
    for (Sensor& sensor : m_sensors) {
      const bool isStaged = sensor.stages.size() > 1;
      if (isStaged ? restInTurn(sensor, step) : rests(sensor.stages.front(), step)) continue;
      furthest = std::max(furthest, isStaged ? settleStages(sensor, step) : settleOne(sensor, step));
      moved = true;
    }
    if (furthest < enough_K || m_sensors.size() < 2) return moved ? Outcome::moved : Outcome::unchanged;
    if (sweep >= kTogetherAfter) settleTogether(step);
  }
  return Outcome::unsettled;
}

} // namespace muffle
