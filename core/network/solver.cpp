// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/solver.h"

#include "core/constants.h"
#include "core/network/tr_bdf2.h"

#include <algorithm>
#include <cmath>

namespace muffle {

using namespace trBdf2;

namespace {

constexpr int kMaxIterations = 25;
constexpr int kRefactorAfter = 4; // a stage that has not settled by then gets fresh slopes each round
constexpr double kWild_K = 5.0;   // a larger update than the one before: the slopes are of no use there
constexpr int kMaxSwitchesPerStep = 400;
constexpr int kMaxHalvings = 12;
constexpr double kShortestForFreezing_s = 60.0; // a step in which water passes its freezing point too far is halved, down to a minute
constexpr double kCurvatureMargin = 2.0;        // a node's own pivot overlooks what its neighbours pass on
// The end stage takes the middle's implied flow, so that an error e of the middle reaches it as w/d e/(1 + x) with x = d h J/C.
// What moves far enough within a step to bend its links is quick, x of 2 or more.
constexpr double kMiddleReachesEnd = 0.4;

} // namespace

double EnergyBalance::closure() const {
  double in = advection_J;
  for (const double e : thermostat_J) in += e;
  for (const double e : source_J) in += e;
  for (const double e : boundary_J) in += e;
  return throughput_J > 0.0 ? std::abs(in - storageChange_J) / throughput_J : 0.0;
}

Result<Solver> Solver::prepare(Network network, SolverOptions options) {
  if (Problems problems = validate(network); !problems.empty()) return problems;
  Solver solver;
  solver.m_options = std::move(options);
  solver.m_network = std::make_shared<const Network>(std::move(network));
  solver.m_flows = NetworkFlows(solver.m_network, solver.m_options.groupOfLink);
  const Network& net = *solver.m_network;
  for (const Thermostat& t : net.thermostats) {
    solver.m_sensorSlot.push_back(solver.m_flows.slot(t.sensor));
    solver.m_limitsVary = solver.m_limitsVary || t.limitSignal >= 0;
    double rest = 1.0;
    std::vector<Heated> heated;
    for (const HeatShare& h : t.elsewhere) {
      heated.push_back({solver.m_flows.slot(h.node), h.share});
      rest -= h.share;
    }
    if (rest > 1e-12) heated.insert(heated.begin(), {solver.m_flows.slot(t.heats), rest});
    solver.m_heated.push_back(std::move(heated));
  }
  const auto free = static_cast<std::size_t>(solver.m_flows.freeCount());
  const auto slots = static_cast<std::size_t>(solver.m_flows.slotCount());
  solver.m_start = solver.m_middle = solver.m_end = solver.m_flows.makeState();
  solver.m_slopes = solver.m_endSlopes = solver.m_flows.makeSlopes();
  solver.m_initial.assign(slots, 0.0);
  for (std::size_t i = 0; i < net.nodes.size(); ++i) solver.m_initial[solver.m_flows.slot(static_cast<int>(i))] = net.nodes[i].initial_C;
  const bool switches = std::any_of(net.thermostats.begin(), net.thermostats.end(), [](const Thermostat& t) { return t.mode == Thermostat::Mode::hysteresis; });
  if (switches || solver.m_flows.hasAlgebraic()) solver.m_options.multistep = false;
  const auto isIdeal = [](const Thermostat& t) { return t.mode == Thermostat::Mode::ideal; };
  solver.m_besideStages = static_cast<std::size_t>(std::find_if(net.thermostats.begin(), net.thermostats.end(), isIdeal) - net.thermostats.begin());
  solver.m_explicitPart.assign(free, 0.0);
  for (const double C : solver.m_flows.capacity_J_K()) solver.m_storing.push_back(C > 0.0 ? 1.0 : 0.0);
  solver.m_nextFlows = solver.m_start.f;
  solver.m_delta.assign(slots, 0.0);
  solver.m_roundFrom = solver.m_delta;
  solver.m_moved.assign(slots, 0.0);
  solver.m_work.assign(static_cast<std::size_t>(solver.m_flows.rowCount()), 0.0);
  solver.m_responseMiddle.assign(net.thermostats.size(), std::vector<double>(free, 0.0));
  solver.m_responseEnd = solver.m_responseMiddle;
  solver.m_ideal = IdealThermostats(net.thermostats, solver.m_sensorSlot, free);
  solver.m_setpoint.assign(net.thermostats.size(), 0.0);
  solver.m_error_K = solver.m_setpoint;
  solver.m_limitShare.assign(net.thermostats.size(), 1.0);
  for (std::size_t j = 0; j < net.thermostats.size(); ++j) solver.m_limit.push_back(solver.limitAt(j, 0.0));
  solver.m_powerBefore = solver.m_powerTried = solver.m_powerAtStart = solver.m_lastPower = solver.m_setpoint;
  solver.m_step_J.assign(static_cast<std::size_t>(solver.m_flows.rowCount()), 0.0);
  solver.m_stepValue.assign(solver.m_flows.drivers().valueCount(), 0.0);
  solver.m_stepHeat_J.assign(net.thermostats.size(), 0.0);
  solver.m_before_J = solver.m_step_J;
  solver.m_beforeValue = solver.m_doubleEndValue = solver.m_stepValue;
  solver.m_beforeHeat_J = solver.m_stepHeat_J;
  solver.m_doubleEnd = solver.m_start;
  solver.m_singleStep = solver.m_doubleStep = solver.m_restart = solver.makeFactoredStage();
  solver.m_firstResponse = solver.m_restart.response;
  solver.m_lastEnergy.assign(static_cast<std::size_t>(solver.m_flows.rowCount()), 0.0);
  solver.reset();
  return solver;
}

void Solver::reset() {
  const std::size_t thermostats = m_network->thermostats.size();
  m_time = 0.0;
  m_start.T = m_initial;
  m_power.assign(thermostats, 0.0);
  m_on.assign(thermostats, false);
  m_starts.assign(thermostats, 0);
  m_thermostat_J.assign(thermostats, 0.0);
  m_energy_J.assign(static_cast<std::size_t>(m_flows.rowCount()), 0.0);
  m_valueIntegral.assign(m_flows.drivers().valueCount(), 0.0);
  m_throughput_J = 0.0;
  m_iterations = m_doubleSteps = 0;
  m_startIsExact = m_inDoubleStep = false;
  m_singleStep.isFactored = m_doubleStep.isFactored = m_restart.isFactored = false;
  m_equalStep_s = 0.0;
  m_doubleStepsBarred = 0;
  m_flows.drive(0.0, m_start);
  m_flows.startFreezing(m_start.T);
  m_flows.startRelays(m_start.T);
}

void Solver::setTemperatures(std::span<const double> temperature_C) {
  for (std::size_t i = 0; i < m_network->nodes.size(); ++i) {
    if (m_network->nodes[i].boundary) continue;
    const std::size_t slot = m_flows.slot(static_cast<int>(i));
    m_start.T[slot] = m_initial[slot] = temperature_C[i];
  }
  m_flows.startFreezing(m_start.T);
  m_flows.startRelays(m_start.T);
  m_startIsExact = m_inDoubleStep = false;
  m_equalStep_s = 0.0;
}

void Solver::setLimit(std::size_t thermostat, double share) {
  if (m_limitShare[thermostat] == share) return;
  m_limitShare[thermostat] = share;
  m_inDoubleStep = false; // what was worked out ahead is no longer so
  m_equalStep_s = 0.0;
}

void Solver::setRelay(int relay, bool on) {
  if (m_flows.relays().isOn(relay) == on) return;
  m_flows.setRelay(relay, on);
  m_startIsExact = m_inDoubleStep = false;
  m_equalStep_s = 0.0;
}

/// How much smaller the next Newton update is than one of this size, K. The slopes are those of the step's start: fourth
/// powers change theirs by 3 dT/T, the cube root of a few kelvin by dT/(3 x 3 K), a vent's ramp by dT over its span.
/// Measured on the demo houses it stays below this line.
double Solver::contraction(double update_K) const { return std::min(0.2, 0.004 + 0.1 * (update_K + m_slopesOff_K)); }

/// The flows of the first `count` free slots as the stage's linear solve implies them.
void Solver::imply(FlowState& stage, double s, std::size_t count) {
  const double* __restrict const C = m_flows.capacity_J_K().data();
  const double* __restrict const explicitPart = m_explicitPart.data();
  const double* __restrict const T = stage.T.data();
  const double* __restrict const start = m_start.T.data();
  double* __restrict const f = stage.f.data();
  const double inverse = 1.0 / s;
  for (std::size_t i = 0; i < count; ++i) f[i] = (C[i] * (T[i] - start[i]) - explicitPart[i]) * inverse;
}

/// What a stage's linear solve begins at: the step's start, or the middle where that has flows of its own.
const FlowState& Solver::base(const FlowState& stage) const { return &stage == &m_end && m_middle.reported ? m_middle : m_start; }

/// The reported rows of a stage that moved along the slopes.
void Solver::report(FlowState& stage) {
  if (stage.reported) return;
  const FlowState& from = base(stage);
  std::copy(from.f.begin() + m_flows.freeCount(), from.f.end(), stage.f.begin() + m_flows.freeCount());
  for (std::size_t i = 0; i < m_moved.size(); ++i) m_moved[i] = stage.T[i] - from.T[i];
  m_flows.addSourcesAtBoundaries(from, stage, 1.0, stage.f.data());
  m_flows.addToReported(m_slopes, m_moved.data(), stage.f.data());
  stage.reported = true;
}

/// Solves the stage along the slopes, from a state whose flows are known, and `beside` with it where given. Returns the
/// furthest that anything moved, K.
double Solver::predict(const FlowState& from, FlowState& to, double s, double* beside) {
  const auto& C = m_flows.capacity_J_K();
  const std::size_t free = C.size();
  double largest = 0.0;
  for (std::size_t i = 0; i < free; ++i) m_delta[i] = 0.0;
  for (std::size_t i = free; i < m_delta.size(); ++i) {
    m_delta[i] = to.T[i] - from.T[i];
    largest = std::max(largest, std::abs(m_delta[i]));
  }
  std::copy_n(from.f.begin(), free, m_work.begin());
  m_flows.addDriven(m_slopes, from, to, m_delta.data(), m_work.data());
  for (std::size_t i = 0; i < free; ++i) m_delta[i] = m_explicitPart[i] + s * m_work[i] - C[i] * (from.T[i] - m_start.T[i]);
  if (beside)
    m_flows.solve(m_delta.data(), beside);
  else
    m_flows.solve(m_delta.data());
  for (std::size_t i = 0; i < free; ++i) {
    to.T[i] = from.T[i] + m_delta[i];
    largest = std::max(largest, std::abs(m_delta[i]));
  }
  return largest;
}

/// Newton rounds from exact evaluations, after an update of the size `previous`. The first takes m_nextFlows where those
/// are known to be the stage's.
bool Solver::refine(FlowState& stage, double s, double previous) {
  const auto& C = m_flows.capacity_J_K();
  const std::size_t free = C.size();
  const bool isEnd = &stage == &m_end;
  std::fill(m_delta.begin() + static_cast<std::ptrdiff_t>(free), m_delta.end(), 0.0);
  double moved = 0.0;
  bool isFresh = false; // slopes each round
  for (int k = 0; k < kMaxIterations; ++k) {
    ++m_iterations;
    isFresh = isFresh || k >= kRefactorAfter;
    if (isFresh) {
      report(m_middle); // by the slopes it was solved with
      m_flows.evaluate(stage, stage.f, &m_slopes);
      m_flows.factor(s, m_slopes);
      m_besideIsCurrent = false;
      m_slopesOff_K += moved; // they are no longer those of the step's start
    } else if (k == 0 && isEnd && m_haveNextFlows) {
      std::swap(stage.f, m_nextFlows);
    } else {
      imply(stage, s, static_cast<std::size_t>(m_flows.linearCount()));
      m_flows.evaluate(stage, stage.f, nullptr, m_flows.linearCount());
    }
    for (std::size_t i = 0; i < free; ++i) m_delta[i] = m_explicitPart[i] + s * stage.f[i] - C[i] * (stage.T[i] - m_start.T[i]);
    m_flows.solve(m_delta.data());
    double largest = 0.0;
    for (std::size_t i = 0; i < free; ++i) largest = std::max(largest, std::abs(m_delta[i]));
    if (!std::isfinite(largest)) return false;
    if (largest > std::max(previous, kWild_K)) { // it goes away from the answer, not towards it
      if (!isFresh) {
        isFresh = true;
        continue;
      }
      const double shorter = 0.5 * std::max(previous, kWild_K) / largest;
      for (std::size_t i = 0; i < free; ++i) m_delta[i] *= shorter;
      largest *= shorter;
    }
    for (std::size_t i = 0; i < free; ++i) stage.T[i] += m_delta[i];
    moved += largest;
    if (largest * std::min(largest / std::max(previous, 1e-300), 1.0) < m_options.newtonTolerance_K) {
      m_flows.addFreeToReported(m_slopes, m_delta.data(), stage.f.data());
      stage.reported = true;
      imply(stage, s, free);
      if (isEnd) {
        m_endSlopesOff_K += moved;
        m_haveNextFlows = false;
      }
      return true;
    }
    previous = largest;
  }
  return false;
}

bool Solver::solveMiddle(double s, double* beside) {
  const double largest = predict(m_start, m_middle, s, beside);
  if (!std::isfinite(largest)) return false;
  const bool enough =
      !m_flows.isNonlinear() ||
      kMiddleReachesEnd * kCurvatureMargin * m_flows.curvature_K(m_slopes, m_start, m_middle, s, largest + m_slopesOff_K) < m_options.newtonTolerance_K;
  if (!enough) return refine(m_middle, s, largest);
  imply(m_middle, s, m_explicitPart.size());
  return true;
}

/// Evaluates the end stage exactly, for the next step starts from it, and refines it where the linear solve was not enough
/// or the middle has changed under it.
bool Solver::settleEnd(double h, bool refineAnyway) {
  const double s = kD * h;
  m_haveNextFlows = false;
  imply(m_end, s, m_explicitPart.size());
  if (!m_flows.isNonlinear()) {
    report(m_end);
    return true;
  }
  const int linear = refineAnyway ? 0 : m_flows.linearCount();
  std::copy_n(m_end.f.begin(), linear, m_nextFlows.begin());
  m_flows.evaluate(m_end, m_nextFlows, &m_endSlopes, linear);
  m_endSlopesOff_K = 0.0;
  m_haveNextFlows = true;
  const std::vector<double>& inverse = m_flows.inversePivots();
  double off = 0.0;
  for (std::size_t i = 0; i < m_explicitPart.size(); ++i) off = std::max(off, std::abs(m_nextFlows[i] - m_end.f[i]) * inverse[i]);
  return (!refineAnyway && kCurvatureMargin * s * off < m_options.newtonTolerance_K) || refine(m_end, s, m_endMoved_K);
}

/// The accepted end as the next start.
void Solver::takeNext() {
  if (m_haveNextFlows) std::swap(m_end.f, m_nextFlows);
  m_haveNextFlows = false;
  std::swap(m_start, m_end);
  m_start.reported = true;
  std::swap(m_slopes, m_endSlopes);
  m_slopesOff_K = m_endSlopesOff_K;
}

void Solver::explicitPartOfMiddle(double s) {
  const auto& C = m_flows.capacity_J_K();
  for (std::size_t i = 0; i < C.size(); ++i) m_explicitPart[i] = s * m_start.f[i] * m_storing[i];
  for (std::size_t j = 0; j < m_power.size(); ++j)
    for (const Heated& at : m_heated[j]) m_explicitPart[at.slot] += (C[at.slot] > 0.0 ? 2.0 : 1.0) * s * at.share * m_power[j];
}

void Solver::explicitPartOfEnd(double h, double s) {
  const auto& C = m_flows.capacity_J_K();
  for (std::size_t i = 0; i < C.size(); ++i) m_explicitPart[i] = kW * h * (m_start.f[i] + m_middle.f[i]) * m_storing[i];
  for (std::size_t j = 0; j < m_power.size(); ++j)
    for (const Heated& at : m_heated[j]) m_explicitPart[at.slot] += (C[at.slot] > 0.0 ? h : s) * at.share * m_power[j];
}

/// Both stages from m_start with the present powers, the end along the slopes only; leaves m_middle and m_end.
bool Solver::solveStages(double h) {
  const double s = kD * h;
  m_flows.drive(m_time + kGamma * h, m_middle);
  m_flows.drive(m_time + h, m_end);
  m_middle.reported = m_end.reported = m_haveNextFlows = false;
  m_flows.factor(s, m_slopes);
  const std::size_t j = m_besideStages;
  m_besideIsCurrent = j < m_power.size() && m_power[j] > 0.0; // it will most likely be corrected
  const bool beside = m_besideIsCurrent;
  if (beside) middleUnit(j, s);
  explicitPartOfMiddle(s);
  if (!solveMiddle(s, beside ? m_responseMiddle[j].data() : nullptr)) return false;
  if (beside) endUnit(j, h, s);
  explicitPartOfEnd(h, s);
  m_endMoved_K = predict(m_middle, m_end, s, beside ? m_responseEnd[j].data() : nullptr);
  return std::isfinite(m_endMoved_K);
}

/// The state at the start of a step: flows and slopes where they are not known from the step before.
void Solver::restart() {
  m_flows.drive(m_time, m_start);
  m_flows.evaluate(m_start, m_start.f, &m_slopes);
  m_slopesOff_K = 0.0;
  m_startIsExact = true;
}

/// Brings algebraic nodes onto their balance without letting time pass. Needs flows and slopes at m_start.
bool Solver::balanceAlgebraic() {
  const auto& C = m_flows.capacity_J_K();
  constexpr double kInstant_s = 1e-6;
  for (int k = 0; k < kMaxIterations; ++k) {
    m_flows.factor(kInstant_s, m_slopes);
    for (std::size_t i = 0; i < C.size(); ++i) m_delta[i] = C[i] > 0.0 ? 0.0 : kInstant_s * m_start.f[i];
    for (std::size_t j = 0; j < m_power.size(); ++j)
      for (const Heated& at : m_heated[j])
        if (C[at.slot] <= 0.0) m_delta[at.slot] += kInstant_s * at.share * m_power[j];
    m_flows.solve(m_delta.data());
    double largest = 0.0;
    for (std::size_t i = 0; i < C.size(); ++i) {
      if (C[i] > 0.0) continue;
      m_start.T[i] += m_delta[i];
      largest = std::max(largest, std::abs(m_delta[i]));
    }
    if (!std::isfinite(largest)) return false;
    m_flows.evaluate(m_start, m_start.f, &m_slopes);
    if (largest < m_options.newtonTolerance_K) return true;
  }
  return false;
}

/// The reported rows' energies over the step, into m_work: the weighted flows of the start and of stages that report, and
/// one product with what the others moved by.
void Solver::sumStep(double outer, double last) {
  const auto free = static_cast<std::size_t>(m_flows.freeCount());
  std::fill(m_moved.begin(), m_moved.end(), 0.0);
  std::fill(m_work.begin() + static_cast<std::ptrdiff_t>(free), m_work.end(), 0.0);
  double ofStart = outer;
  double ofMiddle = m_middle.reported ? outer : 0.0;
  const auto follow = [&](const FlowState& stage, double weight) {
    const FlowState& from = base(stage);
    (&from == &m_middle ? ofMiddle : ofStart) += weight;
    for (std::size_t i = 0; i < m_moved.size(); ++i) m_moved[i] += weight * (stage.T[i] - from.T[i]);
    m_flows.addSourcesAtBoundaries(from, stage, weight, m_work.data());
  };
  if (!m_middle.reported) follow(m_middle, outer);
  if (!m_end.reported) follow(m_end, last);
  const double ofEnd = m_end.reported ? last : 0.0;
  for (std::size_t r = free; r < m_work.size(); ++r) m_work[r] += ofStart * m_start.f[r] + ofMiddle * m_middle.f[r] + ofEnd * m_end.f[r];
  if (!m_middle.reported || !m_end.reported) m_flows.addToReported(m_slopes, m_moved.data(), m_work.data());
}

void Solver::accept(double h) {
  const double outer = kW * h;
  const double last = kD * h;
  const auto over = [&](double start, double middle, double end) { return outer * (start + middle) + last * end; };
  const auto free = static_cast<std::size_t>(m_flows.freeCount());
  const auto slots = static_cast<std::size_t>(m_flows.slotCount());
  sumStep(outer, last);
  for (std::size_t r = free; r < m_energy_J.size(); ++r) {
    m_energy_J[r] += m_work[r];
    m_lastEnergy[r] += m_work[r];
    if (r < slots) m_throughput_J += std::abs(m_work[r]);
  }
  for (std::size_t v = 0; v < m_valueIntegral.size(); ++v) {
    m_stepValue[v] = over(m_start.value[v], m_middle.value[v], m_end.value[v]);
    m_valueIntegral[v] += m_stepValue[v];
  }
  for (std::size_t r = free; r < m_energy_J.size(); ++r) m_step_J[r] = m_work[r];
  for (const NetworkDrivers::Term& t : m_flows.drivers().sourceTerms()) {
    const auto v = static_cast<std::size_t>(t.value);
    m_throughput_J += std::abs(t.factor * over(m_start.value[v], m_middle.value[v], m_end.value[v]));
  }
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    m_thermostat_J[j] += h * m_power[j];
    m_throughput_J += h * m_power[j];
    m_stepHeat_J[j] = h * m_power[j];
    m_lastPower[j] += h * m_power[j];
  }
  takeNext();
  m_equalStep_s = h;
  m_smoothSteps = 1; // what jumped did so as it began, or within
  if (m_flows.settleFreezing(m_end.T, m_start.T)) {
    m_startIsExact = false;
    m_equalStep_s = 0.0;
  }
  if (m_flows.settleRelays(m_start.T, h)) m_startIsExact = false;
  m_time += h;
}

/// Newton's rounds may come to rest on an answer that the fourth powers have below absolute zero.
bool Solver::isPossible(const FlowState& stage) const {
  return std::all_of(stage.T.begin(), stage.T.begin() + m_flows.freeCount(), [](double t) { return t > -kZeroCelsius_K; });
}

bool Solver::advanceOnce(double h) {
  double left = h;
  for (int pieces = 0; left > 1e-9 * h; ++pieces) {
    if (pieces > kMaxSwitchesPerStep) return false;
    if (!m_flows.modulate(m_time + 0.5 * left, m_start) || !m_startIsExact) restart();
    if (m_flows.hasAlgebraic()) {
      restart();
      if (!balanceAlgebraic()) return false;
    }
    passThresholds();
    if (!advanceSmooth(left) || !isPossible(m_end)) return false;
    std::size_t which = 0;
    double used = left;
    if (const double at = switchTime(left, which); at < left) {
      if (!bisectSwitch(left, at, which, used)) return false;
    }
    if (used > kShortestForFreezing_s && m_flows.freezing().overshoot_K(m_start.T, m_end.T) > kFreezingOvershoot_K) return false;
    accept(used);
    left -= used;
  }
  return true;
}

/// By TR-BDF2, in pieces where one is too much.
bool Solver::advanceSingly(double h) {
  const double end = m_time + h;
  double step = h;
  int halvings = 0;
  while (m_time < end - 1e-9 * h) {
    step = std::min(step, end - m_time);
    if (advanceOnce(step)) continue;
    m_startIsExact = false; // the slopes may have been lost on the way
    step *= 0.5;
    if (++halvings > kMaxHalvings) return false;
  }
  return true;
}

bool Solver::advance(double h) {
  std::fill(m_lastPower.begin(), m_lastPower.end(), 0.0);
  std::fill(m_lastEnergy.begin(), m_lastEnergy.end(), 0.0);
  const double end = m_time + h;
  if (m_inDoubleStep && m_equalStep_s == h) {
    finishDouble(h);
  } else {
    m_inDoubleStep = false;
    const bool goesOn = mayMultistep(h) && (advanceDouble(h) || advanceBdf2(h));
    if (!goesOn && !(m_options.multistep && advanceRestart(h)) && !advanceSingly(h)) return false;
  }
  m_time = end;
  for (double& p : m_lastPower) p /= h;
  return true;
}

bool Solver::solveSteady() {
  const double farFuture = 1e12; // the capacities vanish beside s J
  m_flows.modulate(m_time, m_start);
  m_flows.drive(m_time, m_start);
  m_startIsExact = false;
  const auto free = static_cast<std::size_t>(m_flows.freeCount());
  int rounds = 0;
  for (int k = 0; k < 2 * kMaxIterations; ++k) {
    ++m_iterations;
    m_flows.evaluate(m_start, m_start.f, &m_slopes);
    m_flows.factor(farFuture, m_slopes);
    for (std::size_t i = 0; i < free; ++i) m_delta[i] = farFuture * m_start.f[i];
    m_flows.solve(m_delta.data());
    double largest = 0.0;
    for (std::size_t i = 0; i < free; ++i) {
      m_start.T[i] += m_delta[i];
      largest = std::max(largest, std::abs(m_delta[i]));
    }
    if (!std::isfinite(largest)) return false;
    if (m_flows.isNonlinear() && largest >= m_options.newtonTolerance_K) continue;
    constexpr int kRoundsOfRelays = 3; // surfaces that are wet at the end
    if (m_flows.relays().empty() || ++rounds > kRoundsOfRelays) return true;
    m_flows.startRelays(m_start.T);
  }
  return false;
}

double Solver::strengthNow(int modulator) const {
  if (modulator < 0) return 1.0;
  const Signal& s = m_network->tables[static_cast<std::size_t>(modulator)];
  return s.relay < 0 ? s.at(m_time) : strengthNow(m_flows.relays().isOn(s.relay) ? s.then : s.otherwise);
}

double Solver::linkFlow_W(int link) const {
  const Network& net = *m_network;
  const auto links = static_cast<int>(net.links.size());
  if (link >= links) {
    const Vent& v = net.vents[static_cast<std::size_t>(link - links)];
    return openness(temperature_C(v.sensor), v.opens_C, v.full_C) * strengthNow(v.modulator) * v.conductance_W_K *
           (temperature_C(v.from) - temperature_C(v.to));
  }
  const Link& l = net.links[static_cast<std::size_t>(link)];
  const double wet = l.kind == LinkKind::radiative && m_flows.relays().isOn(l.relay) ? l.relayFactor : 1.0;
  return l.flow_W(temperature_C(l.from), temperature_C(l.to)) * wet * strengthNow(l.modulator);
}

EnergyBalance Solver::balance() const {
  EnergyBalance sum;
  sum.thermostat_J = m_thermostat_J;
  for (std::size_t i = 0; i < m_network->sources.size(); ++i) sum.source_J.push_back(m_flows.drivers().source(m_valueIntegral, i));
  sum.boundary_J.assign(m_network->nodes.size(), 0.0);
  for (int slot = m_flows.freeCount(); slot < m_flows.slotCount(); ++slot)
    sum.boundary_J[static_cast<std::size_t>(m_flows.boundaryNode(slot))] = -m_energy_J[static_cast<std::size_t>(slot)];
  sum.advection_J = m_energy_J[static_cast<std::size_t>(m_flows.advectionRow())];
  const auto& C = m_flows.capacity_J_K();
  for (std::size_t i = 0; i < C.size(); ++i)
    if (!m_flows.freezing().holds(static_cast<int>(i))) sum.storageChange_J += C[i] * (m_start.T[i] - m_initial[i]);
  sum.storageChange_J += m_flows.freezing().storage_J(m_initial, m_start.T);
  sum.throughput_J = m_throughput_J;
  return sum;
}

} // namespace muffle
