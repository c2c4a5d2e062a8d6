// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/tr_bdf2_step.h"

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

TrBdf2Step::TrBdf2Step(const StepContext& c)
    : m_nextFlows(c.start.f), m_slopes(c.flows.makeSlopes()), m_endSlopes(m_slopes), m_moved(c.delta), m_work(c.step_J),
      m_responseMiddle(c.network->thermostats.size(), std::vector<double>(c.explicitPart.size(), 0.0)), m_responseEnd(m_responseMiddle) {
  const auto& thermostats = c.network->thermostats;
  const auto isIdeal = [](const Thermostat& t) { return t.mode == Thermostat::Mode::ideal; };
  m_besideStages = static_cast<std::size_t>(std::find_if(thermostats.begin(), thermostats.end(), isIdeal) - thermostats.begin());
  for (const double C : c.flows.capacity_J_K()) m_storing.push_back(C > 0.0 ? 1.0 : 0.0);
}

/// How much smaller the next Newton update is than one of this size, K. The slopes are those of the step's start: fourth
/// powers change theirs by 3 dT/T, the cube root of a few kelvin by dT/(3 x 3 K), a vent's ramp by dT over its span.
/// Measured on the demo houses it stays below this line.
double TrBdf2Step::contraction(double update_K) const { return std::min(0.2, 0.004 + 0.1 * (update_K + m_slopesOff_K)); }

/// The flows of the first `count` free slots as the stage's linear solve implies them.
void TrBdf2Step::imply(StepContext& c, FlowState& stage, double s, std::size_t count) {
  const double* __restrict const C = c.flows.capacity_J_K().data();
  const double* __restrict const explicitPart = c.explicitPart.data();
  const double* __restrict const T = stage.T.data();
  const double* __restrict const start = c.start.T.data();
  double* __restrict const f = stage.f.data();
  const double inverse = 1.0 / s;
  for (std::size_t i = 0; i < count; ++i) f[i] = (C[i] * (T[i] - start[i]) - explicitPart[i]) * inverse;
}

/// What a stage's linear solve begins at: the step's start, or the middle where that has flows of its own.
const FlowState& TrBdf2Step::base(StepContext& c, const FlowState& stage) const { return &stage == &c.end && c.middle.reported ? c.middle : c.start; }

/// The reported rows of a stage that moved along the slopes.
void TrBdf2Step::report(StepContext& c, FlowState& stage) {
  if (stage.reported) return;
  const FlowState& from = base(c, stage);
  std::copy(from.f.begin() + c.flows.freeCount(), from.f.end(), stage.f.begin() + c.flows.freeCount());
  for (std::size_t i = 0; i < m_moved.size(); ++i) m_moved[i] = stage.T[i] - from.T[i];
  c.flows.addSourcesAtBoundaries(from, stage, 1.0, stage.f.data());
  c.flows.addToReported(m_slopes, m_moved.data(), stage.f.data());
  stage.reported = true;
}

/// Solves the stage along the slopes, from a state whose flows are known, and `beside` with it where given. Returns the
/// furthest that anything moved, K.
double TrBdf2Step::predict(StepContext& c, const FlowState& from, FlowState& to, double s, double* beside) {
  const auto& C = c.flows.capacity_J_K();
  const std::size_t free = C.size();
  double largest = 0.0;
  for (std::size_t i = 0; i < free; ++i) c.delta[i] = 0.0;
  for (std::size_t i = free; i < c.delta.size(); ++i) {
    c.delta[i] = to.T[i] - from.T[i];
    largest = std::max(largest, std::abs(c.delta[i]));
  }
  std::copy_n(from.f.begin(), free, m_work.begin());
  c.flows.addDriven(m_slopes, from, to, c.delta.data(), m_work.data());
  for (std::size_t i = 0; i < free; ++i) c.delta[i] = c.explicitPart[i] + s * m_work[i] - C[i] * (from.T[i] - c.start.T[i]);
  if (beside)
    c.flows.solve(c.delta.data(), beside);
  else
    c.flows.solve(c.delta.data());
  for (std::size_t i = 0; i < free; ++i) {
    to.T[i] = from.T[i] + c.delta[i];
    largest = std::max(largest, std::abs(c.delta[i]));
  }
  return largest;
}

/// Newton rounds from exact evaluations, after an update of the size `previous`. The first takes m_nextFlows where those
/// are known to be the stage's.
bool TrBdf2Step::refine(StepContext& c, FlowState& stage, double s, double previous) {
  const auto& C = c.flows.capacity_J_K();
  const std::size_t free = C.size();
  const bool isEnd = &stage == &c.end;
  std::fill(c.delta.begin() + static_cast<std::ptrdiff_t>(free), c.delta.end(), 0.0);
  double moved = 0.0;
  bool isFresh = false; // slopes each round
  for (int k = 0; k < kMaxIterations; ++k) {
    ++c.iterations;
    isFresh = isFresh || k >= kRefactorAfter;
    if (isFresh) {
      report(c, c.middle); // by the slopes it was solved with
      c.flows.evaluate(stage, stage.f, &m_slopes);
      c.flows.factor(s, m_slopes);
      m_besideIsCurrent = false;
      m_slopesOff_K += moved; // they are no longer those of the step's start
    } else if (k == 0 && isEnd && m_haveNextFlows) {
      std::swap(stage.f, m_nextFlows);
    } else {
      imply(c, stage, s, static_cast<std::size_t>(c.flows.linearCount()));
      c.flows.evaluate(stage, stage.f, nullptr, c.flows.linearCount());
    }
    for (std::size_t i = 0; i < free; ++i) c.delta[i] = c.explicitPart[i] + s * stage.f[i] - C[i] * (stage.T[i] - c.start.T[i]);
    c.flows.solve(c.delta.data());
    double largest = 0.0;
    for (std::size_t i = 0; i < free; ++i) largest = std::max(largest, std::abs(c.delta[i]));
    if (!std::isfinite(largest)) return false;
    if (largest > std::max(previous, kWild_K)) { // it goes away from the answer, not towards it
      if (!isFresh) {
        isFresh = true;
        continue;
      }
      const double shorter = 0.5 * std::max(previous, kWild_K) / largest;
      for (std::size_t i = 0; i < free; ++i) c.delta[i] *= shorter;
      largest *= shorter;
    }
    for (std::size_t i = 0; i < free; ++i) stage.T[i] += c.delta[i];
    moved += largest;
    if (largest * std::min(largest / std::max(previous, 1e-300), 1.0) < c.options.newtonTolerance_K) {
      c.flows.addFreeToReported(m_slopes, c.delta.data(), stage.f.data());
      stage.reported = true;
      imply(c, stage, s, free);
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

bool TrBdf2Step::solveMiddle(StepContext& c, double s, double* beside) {
  const double largest = predict(c, c.start, c.middle, s, beside);
  if (!std::isfinite(largest)) return false;
  const bool enough =
      !c.flows.isNonlinear() ||
      kMiddleReachesEnd * kCurvatureMargin * c.flows.curvature_K(m_slopes, c.start, c.middle, s, largest + m_slopesOff_K) < c.options.newtonTolerance_K;
  if (!enough) return refine(c, c.middle, s, largest);
  imply(c, c.middle, s, c.explicitPart.size());
  return true;
}

/// Evaluates the end stage exactly, for the next step starts from it, and refines it where the linear solve was not enough
/// or the middle has changed under it.
bool TrBdf2Step::settleEnd(StepContext& c, double h, bool refineAnyway) {
  const double s = kD * h;
  m_haveNextFlows = false;
  imply(c, c.end, s, c.explicitPart.size());
  if (!c.flows.isNonlinear()) {
    report(c, c.end);
    return true;
  }
  const int linear = refineAnyway ? 0 : c.flows.linearCount();
  std::copy_n(c.end.f.begin(), linear, m_nextFlows.begin());
  c.flows.evaluate(c.end, m_nextFlows, &m_endSlopes, linear);
  m_endSlopesOff_K = 0.0;
  m_haveNextFlows = true;
  const std::vector<double>& inverse = c.flows.inversePivots();
  double off = 0.0;
  for (std::size_t i = 0; i < c.explicitPart.size(); ++i) off = std::max(off, std::abs(m_nextFlows[i] - c.end.f[i]) * inverse[i]);
  return (!refineAnyway && kCurvatureMargin * s * off < c.options.newtonTolerance_K) || refine(c, c.end, s, m_endMoved_K);
}

/// The accepted end as the next start.
void TrBdf2Step::takeNext(StepContext& c) {
  if (m_haveNextFlows) std::swap(c.end.f, m_nextFlows);
  m_haveNextFlows = false;
  std::swap(c.start, c.end);
  c.start.reported = true;
  std::swap(m_slopes, m_endSlopes);
  m_slopesOff_K = m_endSlopesOff_K;
}

void TrBdf2Step::explicitPartOfMiddle(StepContext& c, double s) {
  const auto& C = c.flows.capacity_J_K();
  for (std::size_t i = 0; i < C.size(); ++i) c.explicitPart[i] = s * c.start.f[i] * m_storing[i];
  for (std::size_t j = 0; j < c.power.size(); ++j)
    for (const StepContext::Heated& at : c.heated[j]) c.explicitPart[at.slot] += (C[at.slot] > 0.0 ? 2.0 : 1.0) * s * at.share * c.power[j];
}

void TrBdf2Step::explicitPartOfEnd(StepContext& c, double h, double s) {
  const auto& C = c.flows.capacity_J_K();
  for (std::size_t i = 0; i < C.size(); ++i) c.explicitPart[i] = kW * h * (c.start.f[i] + c.middle.f[i]) * m_storing[i];
  for (std::size_t j = 0; j < c.power.size(); ++j)
    for (const StepContext::Heated& at : c.heated[j]) c.explicitPart[at.slot] += (C[at.slot] > 0.0 ? h : s) * at.share * c.power[j];
}

/// Both stages from c.start with the present powers, the end along the slopes only; leaves c.middle and c.end.
bool TrBdf2Step::solveStages(StepContext& c, double h) {
  const double s = kD * h;
  c.flows.drive(c.time + kGamma * h, c.middle);
  c.flows.drive(c.time + h, c.end);
  c.middle.reported = c.end.reported = m_haveNextFlows = false;
  c.flows.factor(s, m_slopes);
  const std::size_t j = m_besideStages;
  m_besideIsCurrent = j < c.power.size() && c.power[j] > 0.0; // it will most likely be corrected
  const bool beside = m_besideIsCurrent;
  if (beside) middleUnit(c, j, s);
  explicitPartOfMiddle(c, s);
  if (!solveMiddle(c, s, beside ? m_responseMiddle[j].data() : nullptr)) return false;
  if (beside) endUnit(c, j, h, s);
  explicitPartOfEnd(c, h, s);
  m_endMoved_K = predict(c, c.middle, c.end, s, beside ? m_responseEnd[j].data() : nullptr);
  return std::isfinite(m_endMoved_K);
}

/// The state at the start of a step: flows and slopes where they are not known from the step before.
void TrBdf2Step::begin(StepContext& c) {
  c.flows.drive(c.time, c.start);
  c.flows.evaluate(c.start, c.start.f, &m_slopes);
  m_slopesOff_K = 0.0;
  c.startIsExact = true;
}

/// Brings algebraic nodes onto their balance without letting time pass. Needs flows and slopes at c.start.
bool TrBdf2Step::balanceAlgebraic(StepContext& c) {
  const auto& C = c.flows.capacity_J_K();
  constexpr double kInstant_s = 1e-6;
  for (int k = 0; k < kMaxIterations; ++k) {
    c.flows.factor(kInstant_s, m_slopes);
    for (std::size_t i = 0; i < C.size(); ++i) c.delta[i] = C[i] > 0.0 ? 0.0 : kInstant_s * c.start.f[i];
    for (std::size_t j = 0; j < c.power.size(); ++j)
      for (const StepContext::Heated& at : c.heated[j])
        if (C[at.slot] <= 0.0) c.delta[at.slot] += kInstant_s * at.share * c.power[j];
    c.flows.solve(c.delta.data());
    double largest = 0.0;
    for (std::size_t i = 0; i < C.size(); ++i) {
      if (C[i] > 0.0) continue;
      c.start.T[i] += c.delta[i];
      largest = std::max(largest, std::abs(c.delta[i]));
    }
    if (!std::isfinite(largest)) return false;
    c.flows.evaluate(c.start, c.start.f, &m_slopes);
    if (largest < c.options.newtonTolerance_K) return true;
  }
  return false;
}

/// The reported rows' energies over the step, into m_work: the weighted flows of the start and of stages that report, and
/// one product with what the others moved by.
void TrBdf2Step::sumStep(StepContext& c, double outer, double last) {
  const auto free = static_cast<std::size_t>(c.flows.freeCount());
  std::fill(m_moved.begin(), m_moved.end(), 0.0);
  std::fill(m_work.begin() + static_cast<std::ptrdiff_t>(free), m_work.end(), 0.0);
  double ofStart = outer;
  double ofMiddle = c.middle.reported ? outer : 0.0;
  const auto follow = [&](const FlowState& stage, double weight) {
    const FlowState& from = base(c, stage);
    (&from == &c.middle ? ofMiddle : ofStart) += weight;
    for (std::size_t i = 0; i < m_moved.size(); ++i) m_moved[i] += weight * (stage.T[i] - from.T[i]);
    c.flows.addSourcesAtBoundaries(from, stage, weight, m_work.data());
  };
  if (!c.middle.reported) follow(c.middle, outer);
  if (!c.end.reported) follow(c.end, last);
  const double ofEnd = c.end.reported ? last : 0.0;
  for (std::size_t r = free; r < m_work.size(); ++r) m_work[r] += ofStart * c.start.f[r] + ofMiddle * c.middle.f[r] + ofEnd * c.end.f[r];
  if (!c.middle.reported || !c.end.reported) c.flows.addToReported(m_slopes, m_moved.data(), m_work.data());
}

void TrBdf2Step::accept(StepContext& c, double h) {
  const double outer = kW * h;
  const double last = kD * h;
  const auto over = [&](double start, double middle, double end) { return outer * (start + middle) + last * end; };
  const auto free = static_cast<std::size_t>(c.flows.freeCount());
  const auto slots = static_cast<std::size_t>(c.flows.slotCount());
  sumStep(c, outer, last);
  for (std::size_t r = free; r < c.energy_J.size(); ++r) {
    c.energy_J[r] += m_work[r];
    c.lastEnergy[r] += m_work[r];
    if (r < slots) c.throughput_J += std::abs(m_work[r]);
  }
  for (std::size_t v = 0; v < c.valueIntegral.size(); ++v) {
    c.stepValue[v] = over(c.start.value[v], c.middle.value[v], c.end.value[v]);
    c.valueIntegral[v] += c.stepValue[v];
  }
  for (std::size_t r = free; r < c.energy_J.size(); ++r) c.step_J[r] = m_work[r];
  for (const NetworkDrivers::Term& t : c.flows.drivers().sourceTerms()) {
    const auto v = static_cast<std::size_t>(t.value);
    c.throughput_J += std::abs(t.factor * over(c.start.value[v], c.middle.value[v], c.end.value[v]));
  }
  for (std::size_t j = 0; j < c.power.size(); ++j) {
    c.thermostat_J[j] += h * c.power[j];
    c.throughput_J += h * c.power[j];
    c.stepHeat_J[j] = h * c.power[j];
    c.lastPower[j] += h * c.power[j];
  }
  takeNext(c);
  c.equalStep_s = h;
  c.smoothSteps = 1; // what jumped did so as it began, or within
  if (c.flows.settleFreezing(c.end.T, c.start.T)) {
    c.startIsExact = false;
    c.equalStep_s = 0.0;
  }
  if (c.flows.settleRelays(c.start.T, h)) c.startIsExact = false;
  c.time += h;
}

bool TrBdf2Step::advancePiece(StepContext& c, double h) {
  double left = h;
  for (int pieces = 0; left > 1e-9 * h; ++pieces) {
    if (pieces > kMaxSwitchesPerStep) return false;
    if (!c.flows.modulate(c.time + 0.5 * left, c.start) || !c.startIsExact) begin(c);
    if (c.flows.hasAlgebraic()) {
      begin(c);
      if (!balanceAlgebraic(c)) return false;
    }
    passThresholds(c);
    if (!advanceSmooth(c, left) || !c.isPossible(c.end)) return false;
    std::size_t which = 0;
    double used = left;
    if (const double at = switchTime(c, left, which); at < left) {
      if (!bisectSwitch(c, left, at, which, used)) return false;
    }
    if (used > kShortestForFreezing_s && c.flows.freezing().overshoot_K(c.start.T, c.end.T) > kFreezingOvershoot_K) return false;
    accept(c, used);
    left -= used;
  }
  return true;
}

/// By TR-BDF2, in pieces where one is too much.
bool TrBdf2Step::advance(StepContext& c, double h) {
  const double end = c.time + h;
  double step = h;
  int halvings = 0;
  while (c.time < end - 1e-9 * h) {
    step = std::min(step, end - c.time);
    if (advancePiece(c, step)) continue;
    c.startIsExact = false; // the slopes may have been lost on the way
    step *= 0.5;
    if (++halvings > kMaxHalvings) return false;
  }
  return true;
}

bool TrBdf2Step::solveSteady(StepContext& c) {
  const double farFuture = 1e12; // the capacities vanish beside s J
  c.flows.modulate(c.time, c.start);
  c.flows.drive(c.time, c.start);
  c.startIsExact = false;
  const auto free = static_cast<std::size_t>(c.flows.freeCount());
  int rounds = 0;
  for (int k = 0; k < 2 * kMaxIterations; ++k) {
    ++c.iterations;
    c.flows.evaluate(c.start, c.start.f, &m_slopes);
    c.flows.factor(farFuture, m_slopes);
    for (std::size_t i = 0; i < free; ++i) c.delta[i] = farFuture * c.start.f[i];
    c.flows.solve(c.delta.data());
    double largest = 0.0;
    for (std::size_t i = 0; i < free; ++i) {
      c.start.T[i] += c.delta[i];
      largest = std::max(largest, std::abs(c.delta[i]));
    }
    if (!std::isfinite(largest)) return false;
    if (c.flows.isNonlinear() && largest >= c.options.newtonTolerance_K) continue;
    constexpr int kRoundsOfRelays = 3; // surfaces that are wet at the end
    if (c.flows.relays().empty() || ++rounds > kRoundsOfRelays) return true;
    c.flows.startRelays(c.start.T);
  }
  return false;
}

} // namespace muffle
