// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/solver.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

const double kGamma = 2.0 - std::sqrt(2.0); // the trapezium reaches this far into the step
const double kD = kGamma / 2.0;             // weight of the new value in both stages
const double kW = std::sqrt(2.0) / 4.0;     // weight of the start and the middle over the whole step
constexpr double kSmoothing_K2 = 0.01;      // rounds natural convection off below 0.1 K
constexpr int kMaxIterations = 25;
constexpr int kRefactorAfter = 4; // a stage that has not settled by then gets a fresh Jacobian each round
constexpr int kMaxSwitchesPerStep = 400;

double cube(double x) { return x * x * x; }

/// How much smaller the second Newton update is than a first one of this size, K. The matrix is that of the predicted
/// state: fourth powers change their slope by 3 dT/T, the cube root of a few kelvin by dT/(3 x 3 K), a vent's ramp by
/// dT over its span. Measured on the demo houses it stays below this line.
double firstContraction(double update_K) { return std::min(0.2, 0.004 + 0.1 * update_K); }

/// (dT^2 + 0.01)^(p/2) and its derivative factor.
struct NaturalTerm {
  double power;
  double derivative; ///< d(q)/d(dT) / k
};
NaturalTerm naturalTerm(double dT, double halfExponent, bool third) {
  const double square = dT * dT + kSmoothing_K2;
  const double power = third ? std::sqrt(std::cbrt(square)) : std::pow(square, halfExponent);
  return {power, power * (1.0 + 2.0 * halfExponent * dT * dT / square)};
}

} // namespace

double EnergyBalance::closure() const {
  double in = advection_J;
  for (const double e : thermostat_J) in += e;
  for (const double e : source_J) in += e;
  for (const double e : boundary_J) in += e;
  return throughput_J > 0.0 ? std::abs(in - storageChange_J) / throughput_J : 0.0;
}

Result<Solver> Solver::prepare(const Network& network, SolverOptions options) {
  if (Problems problems = validate(network); !problems.empty()) return problems;
  Solver solver;
  solver.m_options = options;
  solver.compile(network);
  solver.reset();
  return solver;
}

void Solver::compile(const Network& network) {
  m_network = network;
  const Network& net = m_network;
  const auto nodes = net.nodes.size();
  std::vector<int> free(nodes, -1);
  m_free = 0;
  for (std::size_t i = 0; i < nodes; ++i)
    if (!net.nodes[i].boundary) free[i] = m_free++;

  std::vector<bool> fixed(static_cast<std::size_t>(m_free), true);
  std::vector<std::pair<int, int>> pairs;
  const auto couple = [&](int a, int b, bool constant) {
    const int fa = free[static_cast<std::size_t>(a)];
    const int fb = free[static_cast<std::size_t>(b)];
    if (fa >= 0 && fb >= 0) pairs.emplace_back(fa, fb);
    if (!constant) {
      if (fa >= 0) fixed[static_cast<std::size_t>(fa)] = false;
      if (fb >= 0) fixed[static_cast<std::size_t>(fb)] = false;
    }
  };
  for (const Link& link : net.links) {
    const bool constant = link.modulator < 0 && (link.kind == LinkKind::conductance || link.kind == LinkKind::advective);
    couple(link.from, link.to, constant);
    if (link.modulator >= 0) m_hasModulation = true;
    if (link.kind == LinkKind::radiative || link.kind == LinkKind::natural) m_hasNonlinear = true;
  }
  for (const Vent& vent : net.vents) {
    couple(vent.from, vent.to, false);
    couple(vent.from, vent.sensor, false);
    couple(vent.to, vent.sensor, false);
    m_hasNonlinear = true;
  }
  m_lu = SparseLu(m_free, pairs, fixed);
  m_slot.assign(nodes, 0);
  int next = m_free;
  for (std::size_t i = 0; i < nodes; ++i) {
    if (free[i] >= 0) {
      m_slot[i] = m_lu.position(free[i]);
    } else {
      m_slot[i] = next;
      m_boundaries.emplace_back(next++, static_cast<int>(i));
    }
  }
  m_slots = next;
  const auto at = [&](int node) { return m_slot[static_cast<std::size_t>(node)]; };
  const auto entries = [&](int a, int b) { return Entries{m_lu.entry(a, a), m_lu.entry(a, b), m_lu.entry(b, a), m_lu.entry(b, b)}; };

  m_capacity.assign(static_cast<std::size_t>(m_free), 0.0);
  m_initial.assign(static_cast<std::size_t>(m_slots), 0.0);
  for (std::size_t i = 0; i < nodes; ++i) {
    if (free[i] >= 0) m_capacity[static_cast<std::size_t>(m_slot[i])] = net.nodes[i].capacity_J_K;
    m_initial[static_cast<std::size_t>(m_slot[i])] = net.nodes[i].initial_C;
  }
  for (const bool modulated : {false, true}) {
    if (modulated) m_modulatedFrom = m_conductance.size();
    for (std::size_t l = 0; l < net.links.size(); ++l) {
      const Link& link = net.links[l];
      if (link.kind != LinkKind::conductance || (link.modulator >= 0) != modulated) continue;
      m_conductance.push_back({at(link.from), at(link.to), link.coefficient, link.modulator, static_cast<int>(l)});
    }
  }
  for (std::size_t l = 0; l < net.links.size(); ++l) {
    const Link& link = net.links[l];
    const int a = at(link.from);
    const int b = at(link.to);
    const int id = static_cast<int>(l);
    if (link.kind == LinkKind::radiative) m_radiative.push_back({a, b, link.coefficient * kStefanBoltzmann_W_m2K4, link.modulator, id});
    if (link.kind == LinkKind::advective) m_advective.push_back({a, b, link.coefficient, link.modulator, id});
    if (link.kind == LinkKind::natural) m_natural.push_back({a, b, link.coefficient, link.exponent / 2.0, link.modulator, id, std::abs(link.exponent - 1.0 / 3.0) < 1e-6});
  }
  for (std::size_t v = 0; v < net.vents.size(); ++v) {
    const Vent& vent = net.vents[v];
    m_vents.push_back({at(vent.from), at(vent.to), at(vent.sensor), vent.opens_C, vent.full_C, vent.conductance_W_K, static_cast<int>(net.links.size() + v)});
  }
  for (const Pair& c : m_conductance) m_conductanceAt.push_back(entries(c.a, c.b));
  for (const Pair& r : m_radiative) {
    m_radiativeAt.push_back(entries(r.a, r.b));
    m_radiating.insert(m_radiating.end(), {r.a, r.b});
  }
  std::sort(m_radiating.begin(), m_radiating.end());
  m_radiating.erase(std::unique(m_radiating.begin(), m_radiating.end()), m_radiating.end());
  m_fourth.assign(static_cast<std::size_t>(m_slots), 0.0);
  for (const Natural& c : m_natural) m_naturalAt.push_back(entries(c.a, c.b));
  for (const Pair& v : m_advective) m_advectiveAt.push_back(entries(v.a, v.b));
  for (const VentSlots& v : m_vents) m_ventAt.push_back({entries(v.a, v.b), m_lu.entry(v.a, v.sensor), m_lu.entry(v.b, v.sensor)});
  for (const Thermostat& t : net.thermostats) {
    m_thermostatSensor.push_back(at(t.sensor));
    m_thermostatHeats.push_back(at(t.heats));
  }
  for (const Source& s : net.sources) m_sourceSlot.push_back(at(s.node));

  const auto free_ = static_cast<std::size_t>(m_free);
  const auto slots = static_cast<std::size_t>(m_slots);
  const std::size_t flows = net.links.size() + net.vents.size();
  for (Stage* stage : {&m_start, &m_middle, &m_end}) {
    stage->T.assign(slots, 0.0);
    stage->f.assign(slots, 0.0);
    stage->source.assign(net.sources.size(), 0.0);
    stage->flow.assign(flows, 0.0);
  }
  m_T.assign(slots, 0.0);
  m_known.assign(free_, 0.0);
  m_update.assign(slots, 0.0); // zero at the boundaries, always
  m_scratchMiddle.assign(free_, 0.0);
  m_radiativeSlope.assign(m_radiative.size(), {});
  m_naturalSlope.assign(m_natural.size(), 0.0);
  m_ventSlope.assign(m_vents.size(), {});
  m_slope.assign(free_, 0.0);
  m_scratch.assign(free_, 0.0);
  m_modulator.assign(net.tables.size(), 1.0);
  m_responseMiddle.assign(net.thermostats.size(), std::vector<double>(free_, 0.0));
  m_responseEnd = m_responseMiddle;
  m_setpoint.assign(net.thermostats.size(), 0.0);
  m_lastPower.assign(net.thermostats.size(), 0.0);
  m_linkEnergy.assign(flows, 0.0);
  m_network.links.shrink_to_fit();
}

void Solver::reset() {
  m_time = 0.0;
  m_endDrivenAt = -1.0;
  m_T = m_initial;
  std::fill(m_slope.begin(), m_slope.end(), 0.0);
  m_power.assign(m_network.thermostats.size(), 0.0);
  m_on.assign(m_network.thermostats.size(), false);
  m_starts.assign(m_network.thermostats.size(), 0);
  m_thermostat_J.assign(m_network.thermostats.size(), 0.0);
  m_source_J.assign(m_network.sources.size(), 0.0);
  m_boundary_J.assign(static_cast<std::size_t>(m_slots), 0.0);
  m_advection_J = m_throughput_J = 0.0;
  m_iterations = 0;
  for (const auto& [s, node] : m_boundaries) m_T[static_cast<std::size_t>(s)] = m_network.nodes[static_cast<std::size_t>(node)].boundary->at(0.0, m_network.tables);
}

void Solver::setTemperatures(std::span<const double> temperature_C) {
  for (std::size_t i = 0; i < m_network.nodes.size(); ++i)
    if (!m_network.nodes[i].boundary) m_T[static_cast<std::size_t>(m_slot[i])] = m_initial[static_cast<std::size_t>(m_slot[i])] = temperature_C[i];
}

void Solver::drive(double t, Stage& stage) const {
  for (const auto& [s, node] : m_boundaries)
    stage.T[static_cast<std::size_t>(s)] = m_network.nodes[static_cast<std::size_t>(node)].boundary->at(t, m_network.tables);
  for (std::size_t i = 0; i < m_network.sources.size(); ++i) stage.source[i] = m_network.sources[i].power.at(t, m_network.tables);
}

void Solver::modulate(double t) {
  if (!m_hasModulation) return;
  for (std::size_t i = 0; i < m_modulator.size(); ++i) m_modulator[i] = m_network.tables[i].at(t);
}

/// Net heat into every slot but for thermostats, W; and every link's flow.
void Solver::evaluate(Stage& stage) {
  const double* const T = stage.T.data();
  double* const f = stage.f.data();
  double* const flow = stage.flow.data();
  std::fill(stage.f.begin(), stage.f.end(), 0.0);
  for (std::size_t i = 0; i < m_sourceSlot.size(); ++i) f[m_sourceSlot[i]] += stage.source[i];
  const auto modulated = [this](int mod) { return mod < 0 ? 1.0 : m_modulator[static_cast<std::size_t>(mod)]; };
  for (std::size_t i = 0; i < m_conductance.size(); ++i) {
    const Pair& c = m_conductance[i];
    const double q = (i < m_modulatedFrom ? c.g : c.g * modulated(c.mod)) * (T[c.a] - T[c.b]);
    f[c.a] -= q;
    f[c.b] += q;
    flow[c.link] = q;
  }
  double* const fourth = m_fourth.data();
  for (const int i : m_radiating) {
    const double square = kelvin(T[i]) * kelvin(T[i]);
    fourth[i] = square * square;
  }
  for (const Pair& r : m_radiative) {
    const double g = r.mod < 0 ? r.g : r.g * modulated(r.mod);
    if (g == 0.0) { // the half of a blanket's exchange that is not in force
      flow[r.link] = 0.0;
      continue;
    }
    const double q = g * (fourth[r.a] - fourth[r.b]);
    f[r.a] -= q;
    f[r.b] += q;
    flow[r.link] = q;
  }
  for (const Natural& n : m_natural) {
    const double k = n.k * modulated(n.mod);
    if (k == 0.0) {
      flow[n.link] = 0.0;
      continue;
    }
    const double dT = T[n.a] - T[n.b];
    const double q = k * naturalTerm(dT, n.halfExponent, n.third).power * dT;
    f[n.a] -= q;
    f[n.b] += q;
    flow[n.link] = q;
  }
  for (const Pair& v : m_advective) {
    const double q = v.g * modulated(v.mod) * (T[v.a] - T[v.b]);
    f[v.b] += q;
    if (v.a >= m_free) f[v.a] -= q; // the boundary it comes from pays for it
    flow[v.link] = q;
  }
  for (const VentSlots& v : m_vents) {
    const double opening = std::clamp((T[v.sensor] - v.opens) / (v.full - v.opens), 0.0, 1.0);
    const double q = opening * v.g * (T[v.a] - T[v.b]);
    f[v.a] -= q;
    f[v.b] += q;
    flow[v.link] = q;
  }
}

/// Moves a stage by `delta` (by slot, 0 at boundaries) along the Jacobian of the last matrix: what a converged Newton
/// update leaves of f and the flows, without evaluating again. It satisfies the same linear balance as the update.
void Solver::extrapolate(Stage& stage, const double* delta) {
  double* const f = stage.f.data();
  double* const flow = stage.flow.data();
  const auto modulated = [this](int mod) { return mod < 0 ? 1.0 : m_modulator[static_cast<std::size_t>(mod)]; };
  const auto move = [f, flow](const auto& link, double dq) {
    f[link.a] -= dq;
    f[link.b] += dq;
    flow[link.link] += dq;
  };
  for (std::size_t i = 0; i < m_conductance.size(); ++i) {
    const Pair& c = m_conductance[i];
    move(c, (i < m_modulatedFrom ? c.g : c.g * modulated(c.mod)) * (delta[c.a] - delta[c.b]));
  }
  for (std::size_t i = 0; i < m_radiative.size(); ++i)
    if (m_radiativeSlope[i].a != 0.0) move(m_radiative[i], m_radiativeSlope[i].a * delta[m_radiative[i].a] - m_radiativeSlope[i].b * delta[m_radiative[i].b]);
  for (std::size_t i = 0; i < m_natural.size(); ++i) move(m_natural[i], m_naturalSlope[i] * (delta[m_natural[i].a] - delta[m_natural[i].b]));
  for (const Pair& v : m_advective) {
    const double dq = v.g * modulated(v.mod) * (delta[v.a] - delta[v.b]);
    f[v.b] += dq;
    if (v.a >= m_free) f[v.a] -= dq;
    flow[v.link] += dq;
  }
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    move(v, m_ventSlope[i].a * (delta[v.a] - delta[v.b]) + m_ventSlope[i].b * delta[v.sensor]);
  }
}

/// The part of C - s J that never changes, with its fixed rows eliminated.
void Solver::prepareBase(double s) {
  if (s == m_baseFor) return;
  auto& a = m_lu.values();
  std::fill(a.begin(), a.end(), 0.0);
  for (int i = 0; i < m_free; ++i) a[static_cast<std::size_t>(i)] = m_capacity[static_cast<std::size_t>(i)];
  for (std::size_t i = 0; i < m_modulatedFrom; ++i) {
    const double g = s * m_conductance[i].g;
    const Entries& e = m_conductanceAt[i];
    a[static_cast<std::size_t>(e.aa)] += g;
    a[static_cast<std::size_t>(e.bb)] += g;
    a[static_cast<std::size_t>(e.ab)] -= g;
    a[static_cast<std::size_t>(e.ba)] -= g;
  }
  for (std::size_t i = 0; i < m_advective.size(); ++i) {
    if (m_advective[i].mod >= 0) continue;
    a[static_cast<std::size_t>(m_advectiveAt[i].bb)] += s * m_advective[i].g;
    a[static_cast<std::size_t>(m_advectiveAt[i].ba)] -= s * m_advective[i].g;
  }
  m_lu.factor(0, m_lu.fixedCount());
  m_baseValues = a;
  m_baseInverse = m_lu.inverseDiagonal();
  m_baseFor = s;
}

void Solver::buildMatrix(double s, const double* T) {
  prepareBase(s);
  auto& values = m_lu.values();
  std::copy(m_baseValues.begin(), m_baseValues.end(), values.begin());
  std::copy(m_baseInverse.begin(), m_baseInverse.begin() + m_lu.fixedCount(), m_lu.inverseDiagonal().begin());
  double* const a = values.data();
  const auto modulated = [this](int mod) { return mod < 0 ? 1.0 : m_modulator[static_cast<std::size_t>(mod)]; };
  const auto add = [a](const Entries& e, double gA, double gB) {
    a[e.aa] += gA;
    a[e.ba] -= gA;
    a[e.bb] += gB;
    a[e.ab] -= gB;
  };
  for (std::size_t i = m_modulatedFrom; i < m_conductance.size(); ++i) {
    const double g = s * m_conductance[i].g * modulated(m_conductance[i].mod);
    add(m_conductanceAt[i], g, g);
  }
  for (std::size_t i = 0; i < m_radiative.size(); ++i) {
    const Pair& r = m_radiative[i];
    const double g = 4.0 * (r.mod < 0 ? r.g : r.g * modulated(r.mod));
    if (g == 0.0) {
      m_radiativeSlope[i] = {0.0, 0.0};
      continue;
    }
    m_radiativeSlope[i] = {g * cube(kelvin(T[r.a])), g * cube(kelvin(T[r.b]))};
    add(m_radiativeAt[i], s * m_radiativeSlope[i].a, s * m_radiativeSlope[i].b);
  }
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    m_naturalSlope[i] = n.k * modulated(n.mod) * naturalTerm(T[n.a] - T[n.b], n.halfExponent, n.third).derivative;
    add(m_naturalAt[i], s * m_naturalSlope[i], s * m_naturalSlope[i]);
  }
  for (std::size_t i = 0; i < m_advective.size(); ++i) {
    if (m_advective[i].mod < 0) continue;
    const double g = s * m_advective[i].g * modulated(m_advective[i].mod);
    a[m_advectiveAt[i].bb] += g;
    a[m_advectiveAt[i].ba] -= g;
  }
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    const double ramp = (T[v.sensor] - v.opens) / (v.full - v.opens);
    m_ventSlope[i] = {0.0, 0.0};
    if (ramp <= 0.0) continue;
    m_ventSlope[i].a = std::min(ramp, 1.0) * v.g;
    add(m_ventAt[i].link, s * m_ventSlope[i].a, s * m_ventSlope[i].a);
    if (ramp < 1.0) {
      m_ventSlope[i].b = v.g * (T[v.a] - T[v.b]) / (v.full - v.opens);
      a[m_ventAt[i].as] += s * m_ventSlope[i].b;
      a[m_ventAt[i].bs] -= s * m_ventSlope[i].b;
    }
  }
  m_lu.factor(m_lu.fixedCount(), m_free);
}

/// Solves C T - known - s f(T) = 0 from the guess in stage.T; leaves f at the answer.
bool Solver::newton(Stage& stage, const std::vector<double>& known, double s) {
  evaluate(stage);
  double previous = 0.0;
  for (int k = 0; k < kMaxIterations; ++k) {
    ++m_iterations;
    if (k >= kRefactorAfter) buildMatrix(s, stage.T.data());
    for (int i = 0; i < m_free; ++i) {
      const auto u = static_cast<std::size_t>(i);
      m_update[u] = known[u] + s * stage.f[u] - m_capacity[u] * stage.T[u];
    }
    m_lu.solve(m_update.data());
    double largest = 0.0;
    for (int i = 0; i < m_free; ++i) {
      const auto u = static_cast<std::size_t>(i);
      stage.T[u] += m_update[u];
      largest = std::max(largest, std::abs(m_update[u]));
    }
    if (!std::isfinite(largest)) return false;
    const double contraction = k == 0 ? firstContraction(largest) : std::min(largest / std::max(previous, 1e-300), 1.0);
    if (!m_hasNonlinear || largest * contraction < m_options.newtonTolerance_K) {
      extrapolate(stage, m_update.data());
      return true;
    }
    evaluate(stage);
    previous = largest;
  }
  return false;
}

/// Both stages from m_start with the present powers; leaves m_middle and m_end.
bool Solver::trial(double h) {
  const double s = kD * h;
  drive(m_time + kGamma * h, m_middle);
  drive(m_time + h, m_end);
  for (int i = 0; i < m_free; ++i) {
    const auto u = static_cast<std::size_t>(i);
    m_middle.T[u] = m_start.T[u] + kGamma * h * m_slope[u];
    const bool storing = m_capacity[u] > 0.0;
    m_known[u] = storing ? m_capacity[u] * m_start.T[u] + s * m_start.f[u] : 0.0;
  }
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const auto u = static_cast<std::size_t>(m_thermostatHeats[j]);
    m_known[u] += (m_capacity[u] > 0.0 ? 2.0 : 1.0) * s * m_power[j];
  }
  buildMatrix(s, m_middle.T.data());
  if (!newton(m_middle, m_known, s)) return false;
  for (int i = 0; i < m_free; ++i) {
    const auto u = static_cast<std::size_t>(i);
    m_end.T[u] = m_start.T[u] + (m_middle.T[u] - m_start.T[u]) / kGamma;
    m_known[u] = m_capacity[u] > 0.0 ? m_capacity[u] * m_start.T[u] + kW * h * (m_start.f[u] + m_middle.f[u]) : 0.0;
  }
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const auto u = static_cast<std::size_t>(m_thermostatHeats[j]);
    m_known[u] += (m_capacity[u] > 0.0 ? h : s) * m_power[j];
  }
  return newton(m_end, m_known, s);
}

/// Moves the ideal thermostats' powers so that each sensor ends the step on its setpoint, or the power at a limit.
bool Solver::correctIdeal(double h) {
  const double s = kD * h;
  for (int round = 0; round < 8; ++round) {
    bool moved = false;
    bool haveResponse = false;
    std::vector<double>& before = m_scratch;
    std::vector<double>& beforeMiddle = m_scratchMiddle;
    std::copy_n(m_end.T.begin(), m_free, before.begin());
    std::copy_n(m_middle.T.begin(), m_free, beforeMiddle.begin());
    for (int sweep = 0; sweep < 20; ++sweep) {
      double largest = 0.0;
      for (std::size_t j = 0; j < m_power.size(); ++j) {
        const Thermostat& t = m_network.thermostats[j];
        if (t.mode != Thermostat::Mode::ideal) continue;
        const double error = m_setpoint[j] - m_end.T[static_cast<std::size_t>(m_thermostatSensor[j])];
        const bool idle = (m_power[j] <= 0.0 && error <= 0.0) || (m_power[j] >= t.power_W && error >= 0.0);
        if (idle || std::abs(error) < m_options.newtonTolerance_K) continue;
        if (!haveResponse) { // unit responses of both stages to each thermostat's power
          for (std::size_t k = 0; k < m_power.size(); ++k) {
            if (m_network.thermostats[k].mode != Thermostat::Mode::ideal) continue;
            auto& middle = m_responseMiddle[k];
            auto& end = m_responseEnd[k];
            const auto heated = static_cast<std::size_t>(m_thermostatHeats[k]);
            const bool storing = m_capacity[heated] > 0.0;
            std::fill(middle.begin(), middle.end(), 0.0);
            middle[heated] = (storing ? 2.0 : 1.0) * s;
            m_lu.solve(middle.data());
            for (std::size_t i = 0; i < middle.size(); ++i) {
              // s J r = C r - rhs, so that w h J r needs no product with J
              const double rhs = i == heated ? (storing ? 2.0 : 1.0) * s : 0.0;
              end[i] = m_capacity[i] > 0.0 ? kW / kD * (m_capacity[i] * middle[i] - rhs) : 0.0;
            }
            end[heated] += storing ? h : s;
            m_lu.solve(end.data());
          }
          haveResponse = true;
        }
        const double response = m_responseEnd[j][static_cast<std::size_t>(m_thermostatSensor[j])];
        if (response <= 0.0) continue;
        const double power = std::clamp(m_power[j] + error / response, 0.0, t.power_W);
        const double change = power - m_power[j];
        m_power[j] = power;
        for (std::size_t i = 0; i < m_responseEnd[j].size(); ++i) {
          m_middle.T[i] += change * m_responseMiddle[j][i];
          m_end.T[i] += change * m_responseEnd[j][i];
        }
        largest = std::max(largest, std::abs(change * response));
        moved = true;
      }
      if (largest < m_options.newtonTolerance_K) break;
    }
    if (!moved) return true;
    double furthest = 0.0; // how far the correction moved any node
    for (int i = 0; i < m_free; ++i) furthest = std::max(furthest, std::abs(m_end.T[static_cast<std::size_t>(i)] - before[static_cast<std::size_t>(i)]));
    if (furthest * firstContraction(furthest) < m_options.newtonTolerance_K) {
      for (int i = 0; i < m_free; ++i) m_update[static_cast<std::size_t>(i)] = m_middle.T[static_cast<std::size_t>(i)] - beforeMiddle[static_cast<std::size_t>(i)];
      extrapolate(m_middle, m_update.data());
      for (int i = 0; i < m_free; ++i) m_update[static_cast<std::size_t>(i)] = m_end.T[static_cast<std::size_t>(i)] - before[static_cast<std::size_t>(i)];
      extrapolate(m_end, m_update.data());
      return true;
    }
    // the nonlinear answer with these powers, from the linear prediction as the guess
    for (int i = 0; i < m_free; ++i) {
      const auto u = static_cast<std::size_t>(i);
      m_known[u] = m_capacity[u] > 0.0 ? m_capacity[u] * m_start.T[u] + s * m_start.f[u] : 0.0;
    }
    for (std::size_t j = 0; j < m_power.size(); ++j) {
      const auto u = static_cast<std::size_t>(m_thermostatHeats[j]);
      m_known[u] += (m_capacity[u] > 0.0 ? 2.0 : 1.0) * s * m_power[j];
    }
    if (!newton(m_middle, m_known, s)) return false;
    for (int i = 0; i < m_free; ++i) {
      const auto u = static_cast<std::size_t>(i);
      m_known[u] = m_capacity[u] > 0.0 ? m_capacity[u] * m_start.T[u] + kW * h * (m_start.f[u] + m_middle.f[u]) : 0.0;
    }
    for (std::size_t j = 0; j < m_power.size(); ++j) {
      const auto u = static_cast<std::size_t>(m_thermostatHeats[j]);
      m_known[u] += (m_capacity[u] > 0.0 ? h : s) * m_power[j];
    }
    if (!newton(m_end, m_known, s)) return false;
  }
  return true;
}

/// The state at the start of a step, with this step's modulators and held tables.
void Solver::refreshStart() {
  m_start.T = m_T;
  if (m_endDrivenAt == m_time) { // boundaries came over with m_T, and the sources were worked out for the last step's end
    std::copy(m_end.source.begin(), m_end.source.end(), m_start.source.begin());
  } else {
    drive(m_time, m_start);
  }
  evaluate(m_start);
  bool algebraic = false;
  for (int i = 0; i < m_free && !algebraic; ++i) algebraic = m_capacity[static_cast<std::size_t>(i)] <= 0.0;
  if (algebraic) { // bring algebraic nodes onto their balance without letting time pass
    const double instant = 1e-6;
    for (int i = 0; i < m_free; ++i) {
      const auto u = static_cast<std::size_t>(i);
      m_known[u] = m_capacity[u] * m_start.T[u] - (m_capacity[u] > 0.0 ? instant * m_start.f[u] : 0.0);
    }
    const double keep = m_baseFor;
    buildMatrix(instant, m_start.T.data());
    newton(m_start, m_known, instant);
    if (keep != m_baseFor) m_baseFor = -1.0;
  }
}

void Solver::accept(double h) {
  const double weight[3] = {kW * h, kW * h, kD * h};
  const Stage* const stage[3] = {&m_start, &m_middle, &m_end};
  for (std::size_t i = 0; i < m_source_J.size(); ++i) {
    double e = 0.0;
    for (int k = 0; k < 3; ++k) e += weight[k] * stage[k]->source[i];
    m_source_J[i] += e;
    m_throughput_J += std::abs(e);
  }
  for (const auto& [s, node] : m_boundaries) {
    double e = 0.0;
    for (int k = 0; k < 3; ++k) e -= weight[k] * stage[k]->f[static_cast<std::size_t>(s)];
    m_boundary_J[static_cast<std::size_t>(s)] += e;
    m_throughput_J += std::abs(e);
  }
  for (const Pair& v : m_advective) {
    if (v.a >= m_free) continue;
    for (int k = 0; k < 3; ++k) m_advection_J += weight[k] * stage[k]->flow[static_cast<std::size_t>(v.link)];
  }
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    m_thermostat_J[j] += h * m_power[j];
    m_throughput_J += h * m_power[j];
    m_lastPower[j] += h * m_power[j];
  }
  if (m_options.trackLinks) {
    for (std::size_t l = 0; l < m_linkEnergy.size(); ++l)
      m_linkEnergy[l] += weight[0] * m_start.flow[l] + weight[1] * m_middle.flow[l] + weight[2] * m_end.flow[l];
  }
  for (int i = 0; i < m_free; ++i) {
    const auto u = static_cast<std::size_t>(i);
    m_slope[u] = (m_end.T[u] - m_start.T[u]) / h;
  }
  std::swap(m_T, m_end.T);
  m_time += h;
  m_endDrivenAt = m_time;
}

double Solver::crossingTarget(std::size_t j) const { return m_on[j] ? m_network.thermostats[j].off_C : m_network.thermostats[j].on_C; }

/// Time into the trial step at which a hysteresis thermostat first passes its threshold; h if none does.
double Solver::switchTime(double h, std::size_t& which) {
  double first = h;
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    if (m_network.thermostats[j].mode != Thermostat::Mode::hysteresis) continue;
    const auto s = static_cast<std::size_t>(m_thermostatSensor[j]);
    const double sign = m_on[j] ? 1.0 : -1.0;
    const double target = crossingTarget(j);
    const double g0 = sign * (m_start.T[s] - target);
    const double gm = sign * (m_middle.T[s] - target);
    const double g1 = sign * (m_end.T[s] - target);
    if (g0 >= 0.0 || (gm < 0.0 && g1 < 0.0)) continue;
    const double at = gm >= 0.0 ? kGamma * h * g0 / (g0 - gm) : kGamma * h + (1.0 - kGamma) * h * gm / (gm - g1);
    if (at < first) {
      first = at;
      which = j;
    }
  }
  return first;
}

/// Shortens the step until the thermostat ends it on its threshold; `used` is the step found.
bool Solver::bisectSwitch(double h, double guess, std::size_t which, double& used) {
  const auto s = static_cast<std::size_t>(m_thermostatSensor[which]);
  const double sign = m_on[which] ? 1.0 : -1.0;
  const double target = crossingTarget(which);
  double low = 0.0;
  double high = h;
  double gLow = sign * (m_start.T[s] - target);
  double gHigh = sign * (m_end.T[s] - target);
  double at = guess;
  for (int k = 0; k < 40; ++k) {
    at = std::clamp(at, low + 0.02 * (high - low), high - 0.02 * (high - low));
    if (!trial(at)) return false;
    const double g = sign * (m_end.T[s] - target);
    if (std::abs(g) < m_options.switchTolerance_K || high - low < 1e-3) break;
    if (g < 0.0) {
      low = at;
      gLow = g;
      if (gHigh > 0.0) gHigh *= 0.7; // keeps false position from creeping
    } else {
      high = at;
      gHigh = g;
      gLow *= 0.7;
    }
    at = gHigh > gLow && gHigh > 0.0 ? low + (high - low) * gLow / (gLow - gHigh) : 0.5 * (low + high);
  }
  used = at;
  return true;
}

bool Solver::advanceSmooth(double h) {
  for (std::size_t j = 0; j < m_power.size(); ++j) {
    const Thermostat& t = m_network.thermostats[j];
    if (t.mode == Thermostat::Mode::hysteresis) {
      m_power[j] = m_on[j] ? t.power_W : 0.0;
    } else {
      m_setpoint[j] = t.setpointSignal >= 0 ? m_network.tables[static_cast<std::size_t>(t.setpointSignal)].at(m_time + 0.5 * h) : t.setpoint_C;
    }
  }
  return trial(h) && correctIdeal(h);
}

bool Solver::advanceOnce(double h) {
  double left = h;
  for (int pieces = 0; left > 1e-9 * h; ++pieces) {
    if (pieces > kMaxSwitchesPerStep) return false;
    modulate(m_time + 0.5 * left);
    refreshStart();
    for (std::size_t j = 0; j < m_power.size(); ++j) { // thresholds already passed
      const Thermostat& t = m_network.thermostats[j];
      if (t.mode != Thermostat::Mode::hysteresis) continue;
      const double T = m_start.T[static_cast<std::size_t>(m_thermostatSensor[j])];
      if (!m_on[j] && T <= t.on_C + m_options.switchTolerance_K) {
        m_on[j] = true;
        ++m_starts[j];
      } else if (m_on[j] && T >= t.off_C - m_options.switchTolerance_K) {
        m_on[j] = false;
      }
    }
    if (!advanceSmooth(left)) return false;
    std::size_t which = 0;
    double used = left;
    if (const double at = switchTime(left, which); at < left) {
      if (!bisectSwitch(left, at, which, used)) return false;
    }
    accept(used);
    left -= used;
  }
  return true;
}

bool Solver::advance(double h) {
  std::fill(m_lastPower.begin(), m_lastPower.end(), 0.0);
  if (m_options.trackLinks) std::fill(m_linkEnergy.begin(), m_linkEnergy.end(), 0.0);
  const double end = m_time + h;
  double step = h;
  int halvings = 0;
  while (m_time < end - 1e-9 * h) {
    step = std::min(step, end - m_time);
    if (advanceOnce(step)) continue;
    m_time = std::min(m_time, end);
    std::fill(m_slope.begin(), m_slope.end(), 0.0);
    step *= 0.5;
    if (++halvings > 12) return false;
  }
  if (m_endDrivenAt == m_time) m_endDrivenAt = end;
  m_time = end;
  for (double& p : m_lastPower) p /= h;
  return true;
}

bool Solver::solveSteady() {
  const double farFuture = 1e12; // the capacities vanish beside s J
  modulate(m_time);
  m_start.T = m_T;
  drive(m_time, m_start);
  for (int i = 0; i < m_free; ++i) m_known[static_cast<std::size_t>(i)] = m_capacity[static_cast<std::size_t>(i)] * m_start.T[static_cast<std::size_t>(i)];
  m_baseFor = -1.0;
  buildMatrix(farFuture, m_start.T.data());
  const bool found = newton(m_start, m_known, farFuture);
  m_baseFor = -1.0;
  if (found) m_T = m_start.T;
  return found;
}

EnergyBalance Solver::balance() const {
  EnergyBalance sum;
  sum.thermostat_J = m_thermostat_J;
  sum.source_J = m_source_J;
  sum.boundary_J.assign(m_network.nodes.size(), 0.0);
  for (const auto& [s, node] : m_boundaries) sum.boundary_J[static_cast<std::size_t>(node)] = m_boundary_J[static_cast<std::size_t>(s)];
  sum.advection_J = m_advection_J;
  for (int i = 0; i < m_free; ++i) {
    const auto u = static_cast<std::size_t>(i);
    sum.storageChange_J += m_capacity[u] * (m_T[u] - m_initial[u]);
  }
  sum.throughput_J = m_throughput_J;
  return sum;
}

} // namespace muffle
