// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/flows.h"

#include "core/constants.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstdint>
#include <tuple>

namespace muffle {
namespace {

/// x^(1/6) for x > 0, to 5e-12. Dividing the bits by six is right to 3.5 %, and two steps of Halley's iteration follow: the
/// error goes as 35/12 e^3.
double sixthRoot(double x) {
  constexpr std::uint64_t kOffset = 0x3547680000000000; // 5/6 of the exponent's bias, centred
  double y = std::bit_cast<double>(std::bit_cast<std::uint64_t>(x) / 6 + kOffset);
  for (int k = 0; k < 2; ++k) {
    const double cube = y * y * y;
    const double power = cube * cube;
    y *= (5.0 * power + 7.0 * x) / (7.0 * power + 5.0 * x);
  }
  return y;
}

/// The product of one row with x; two sums, so that the additions need not wait for each other.
inline double rowSum(const double* value, const int* column, int from, int end, const double* x) {
  double even = 0.0;
  double odd = 0.0;
  int p = from;
  for (; p + 3 < end; p += 4) {
    even += value[p] * x[column[p]];
    odd += value[p + 1] * x[column[p + 1]];
    even += value[p + 2] * x[column[p + 2]];
    odd += value[p + 3] * x[column[p + 3]];
  }
  for (; p < end; ++p) even += value[p] * x[column[p]];
  return even + odd;
}

/// (dT^2 + 0.01)^(p/2).
double naturalPower(double square, double halfExponent, bool third) { return third ? sixthRoot(square) : std::pow(square, halfExponent); }

} // namespace

NetworkFlows::NetworkFlows(std::shared_ptr<const Network> network, const std::vector<int>& groupOfLink) : m_network(std::move(network)), m_drivers(*m_network) {
  orderNodes(*m_network);
  addTerms(*m_network, groupOfLink);
  for (const NetworkDrivers::Term& t : m_drivers.sourceTerms()) m_sources.push_back({static_cast<int>(slot(t.node)), t.value, t.factor});
  std::stable_sort(m_sources.begin(), m_sources.end(), [](const Source& x, const Source& y) { return x.row < y.row; });
  const auto firstFrom = [&](int row) {
    return static_cast<std::size_t>(std::count_if(m_sources.begin(), m_sources.end(), [&](const Source& x) { return x.row < row; }));
  };
  m_curvedSources = firstFrom(linearCount());
  m_boundarySources = firstFrom(m_free);
  m_modulator.assign(m_modulators.size(), 1.0);
  m_modulatorNext = m_modulator;
  m_x.assign(2 * static_cast<std::size_t>(m_slots), 0.0);
  activate();
}

void NetworkFlows::orderNodes(const Network& net) {
  const auto nodes = net.nodes.size();
  std::vector<int> free(nodes, -1);
  for (std::size_t i = 0; i < nodes; ++i)
    if (!net.nodes[i].boundary) free[i] = m_free++;

  std::vector<bool> fixed(static_cast<std::size_t>(m_free), true);
  std::vector<std::pair<int, int>> pairs;
  const auto couple = [&](int a, int b, bool constant) {
    const int fa = free[static_cast<std::size_t>(a)];
    const int fb = free[static_cast<std::size_t>(b)];
    if (fa >= 0 && fb >= 0) pairs.emplace_back(fa, fb);
    if (constant) return;
    if (fa >= 0) fixed[static_cast<std::size_t>(fa)] = false;
    if (fb >= 0) fixed[static_cast<std::size_t>(fb)] = false;
  };
  for (const Link& link : net.links) {
    const bool nonlinear = link.kind == LinkKind::radiative || link.kind == LinkKind::natural || link.kind == LinkKind::evaporative;
    couple(link.from, link.to, link.modulator < 0 && !nonlinear);
    if (link.vapour >= 0) {
      couple(link.from, link.vapour, false);
      couple(link.to, link.vapour, false);
    }
    m_nonlinear = m_nonlinear || nonlinear;
  }
  for (const Vent& vent : net.vents) {
    couple(vent.from, vent.to, false);
    couple(vent.from, vent.sensor, false);
    couple(vent.to, vent.sensor, false);
    m_nonlinear = true;
  }
  m_lu = SparseLu(m_free, pairs, fixed);
  m_slot.assign(nodes, 0);
  m_slots = m_free;
  m_capacity.assign(static_cast<std::size_t>(m_free), 0.0);
  for (std::size_t i = 0; i < nodes; ++i) {
    if (free[i] < 0) {
      m_slot[i] = m_slots++;
      m_boundaryNode.push_back(static_cast<int>(i));
      continue;
    }
    m_slot[i] = m_lu.position(free[i]);
    m_capacity[static_cast<std::size_t>(m_slot[i])] = net.nodes[i].capacity_J_K;
    if (net.nodes[i].capacity_J_K <= 0.0) m_algebraic = true;
    if (net.nodes[i].water) m_freezing.add(m_slot[i], net.nodes[i].capacity_J_K, *net.nodes[i].water);
  }
}

void NetworkFlows::addTerms(const Network& net, const std::vector<int>& groupOfLink) {
  int groups = 0;
  for (const int g : groupOfLink) groups = std::max(groups, g + 1);
  m_rows = m_slots + groups + 1;
  const auto group = [&](std::size_t link) { return link < groupOfLink.size() && groupOfLink[link] >= 0 ? groupRow(groupOfLink[link]) : -1; };
  m_vapour = VapourFlows(net.pressure_Pa);
  const auto entries = [&](int a, int b) { return Entries{m_lu.entry(a, a), m_lu.entry(a, b), m_lu.entry(b, a), m_lu.entry(b, b)}; };

  for (std::size_t l = 0; l < net.links.size(); ++l) {
    const Link& link = net.links[l];
    const int a = m_slot[static_cast<std::size_t>(link.from)];
    const int b = m_slot[static_cast<std::size_t>(link.to)];
    const int modulator = link.modulator < 0 ? -1 : m_modulators.add(net, link.modulator);
    m_relays.resize(m_modulators.size(), false);
    if (modulator >= 0 && (link.kind == LinkKind::radiative || link.kind == LinkKind::natural)) m_relays[static_cast<std::size_t>(modulator)] = true;
    if (link.kind == LinkKind::natural) {
      const bool reported = a >= m_free || b >= m_free || group(l) >= 0;
      const int film = link.vapour < 0 ? -1 : m_vapour.addFilm(a, b, m_slot[static_cast<std::size_t>(link.vapour)], link.wetShare, group(l), m_free, m_lu);
      m_allNatural.push_back(
          {a, b, group(l), link.coefficient, link.exponent / 2.0, modulator, std::abs(link.exponent - 1.0 / 3.0) < 1e-6, reported, entries(a, b), film});
      continue;
    }
    if (link.kind == LinkKind::evaporative) {
      m_vapour.addLeaf(a, b, link.coefficient, modulator, m_free, m_lu);
      continue;
    }
    const bool fourth = link.kind == LinkKind::radiative;
    const double g = fourth ? link.coefficient * kStefanBoltzmann_W_m2K4 : link.coefficient;
    const int shift = fourth ? m_slots : 0;
    int frozen = -1;
    if (link.frozenFactor != 1.0) {
      frozen = static_cast<int>(m_frozenLinks.size());
      m_frozenLinks.push_back({a, b, link.frozenFactor});
    }
    const auto term = [&](int row, double sign) {
      m_terms.push_back({row, a + shift, sign * g, modulator, frozen});
      m_terms.push_back({row, b + shift, -sign * g, modulator, frozen});
    };
    term(b, 1.0);
    const bool oneWay = link.kind == LinkKind::advective;
    if (!oneWay || a >= m_free) term(a, -1.0); // a one-way link is paid for by the boundary it comes from, not by a free node
    if (oneWay && a < m_free) term(advectionRow(), 1.0);
    if (group(l) >= 0) term(group(l), 1.0);
  }
  for (std::size_t v = 0; v < net.vents.size(); ++v) {
    const Vent& vent = net.vents[v];
    const int a = m_slot[static_cast<std::size_t>(vent.from)];
    const int b = m_slot[static_cast<std::size_t>(vent.to)];
    const int sensor = m_slot[static_cast<std::size_t>(vent.sensor)];
    const int modulator = vent.modulator < 0 ? -1 : m_modulators.add(net, vent.modulator);
    m_relays.resize(m_modulators.size(), false);
    if (modulator >= 0) m_relays[static_cast<std::size_t>(modulator)] = true;
    m_vents.push_back({a, b, sensor, group(net.links.size() + v), vent.opens_C, vent.full_C - vent.opens_C, vent.conductance_W_K, vent.conductance_W_K,
                       entries(a, b), m_lu.entry(a, sensor), m_lu.entry(b, sensor), modulator});
  }
  std::stable_sort(m_terms.begin(), m_terms.end(), [this](const Term& x, const Term& y) {
    const int modulatorX = varies(x.modulator) ? x.modulator : -1;
    const int modulatorY = varies(y.modulator) ? y.modulator : -1;
    return std::tie(x.row, modulatorX, x.column) < std::tie(y.row, modulatorY, y.column);
  });
}

/// Lays out the operator of the links in force.
void NetworkFlows::activate() {
  m_rowStart.assign(1, 0);
  m_column.clear();
  m_value.clear();
  m_modulatedAt.clear();
  m_fillConductance.clear();
  m_fixedConductance.clear();
  m_baseFor = -1.0;
  m_fillRadiative.clear();
  m_boundaryColumns.clear();
  m_natural.clear();
  std::size_t t = 0;
  for (int row = 0; row < m_rows; ++row) {
    bool lastVaries = false;
    for (; t < m_terms.size() && m_terms[t].row == row; ++t) {
      const Term& term = m_terms[t];
      const bool varying = varies(term.modulator);
      if (strength(term.modulator) == 0.0) continue;
      const bool first = static_cast<int>(m_column.size()) == m_rowStart.back();
      if (first || m_column.back() != term.column || lastVaries != varying) {
        const int position = static_cast<int>(m_column.size());
        m_column.push_back(term.column);
        m_value.push_back(0.0);
        const bool radiative = term.column >= m_slots;
        const int column = radiative ? term.column - m_slots : term.column;
        if (row < m_free && column < m_free) {
          if (radiative) m_fillRadiative.push_back({m_lu.entry(row, column), position, column});
          if (!radiative) (varying ? m_fillConductance : m_fixedConductance).push_back({m_lu.entry(row, column), position});
        } else if (row < m_free) {
          m_boundaryColumns.push_back({row, position, term.column});
        }
      }
      lastVaries = varying;
      m_value.back() += term.coefficient * strength(term.modulator) * frozenStrength(term.frozen);
      if (varying) m_modulatedAt.push_back({row, static_cast<int>(m_column.size()) - 1, term.coefficient, term.modulator});
    }
    m_rowStart.push_back(static_cast<int>(m_column.size()));
  }
  for (VentSlots& v : m_vents) v.g = v.full * strength(v.modulator);
  m_film.assign(m_vapour.filmCount(), {});
  m_filmFrom = m_filmTo = m_film;
  for (const Natural& n : m_allNatural) {
    const double strong = strength(n.modulator);
    if (strong == 0.0) continue;
    m_natural.push_back(n);
    m_natural.back().g *= strong;
  }
}

double NetworkFlows::frozenStrength(int link) const {
  if (link < 0) return 1.0;
  const FrozenLink& l = m_frozenLinks[static_cast<std::size_t>(link)];
  const double a = m_freezing.frozen(l.a);
  const double b = m_freezing.frozen(l.b);
  const double share = a < 0.0 ? std::max(b, 0.0) : b < 0.0 ? a : 0.5 * (a + b);
  return 1.0 + share * (l.factor - 1.0);
}

void NetworkFlows::startFreezing(std::span<const double> T) {
  if (m_freezing.empty()) return;
  m_freezing.start(T, m_capacity);
  activate();
}

bool NetworkFlows::settleFreezing(std::span<const double> before, std::span<double> T) {
  if (m_freezing.empty() || !m_freezing.settle(before, T, m_capacity)) return false;
  activate();
  return true;
}

FlowState NetworkFlows::makeState() const {
  FlowState state;
  state.T.assign(static_cast<std::size_t>(m_slots), 0.0);
  state.value.assign(m_drivers.valueCount(), 0.0);
  state.f.assign(static_cast<std::size_t>(m_rows), 0.0);
  return state;
}

FlowSlopes NetworkFlows::makeSlopes() const {
  FlowSlopes slopes;
  slopes.fourCubed.assign(static_cast<std::size_t>(m_slots), 0.0);
  slopes.natural.assign(m_allNatural.size(), 0.0);
  slopes.vapour = m_vapour.makeSlopes();
  slopes.vent.assign(m_vents.size(), {});
  return slopes;
}

void NetworkFlows::drive(double t, FlowState& state) const {
  m_drivers.sample(t, state.value);
  for (std::size_t b = 0; b < m_boundaryNode.size(); ++b) state.T[static_cast<std::size_t>(m_free) + b] = m_drivers.boundary_C(state.value, b);
}

bool NetworkFlows::modulate(double t, FlowState& state) {
  bool changed = !m_modulated;
  bool lay = !m_modulated;
  m_modulated = true;
  m_modulators.sample(t, m_modulatorNext.data());
  for (std::size_t i = 0; i < m_modulator.size(); ++i) {
    const double now = m_modulatorNext[i];
    if (now == m_modulator[i]) continue;
    changed = true;
    if (m_relays[i] || now == 0.0 || m_modulator[i] == 0.0) lay = true;
    m_modulator[i] = now;
  }
  if (!changed) return true;
  m_vapour.modulate(m_modulator, state.T.data(), state.f.data());
  if (lay) {
    activate();
    return false;
  }
  for (std::size_t k = 0; k < m_modulatedAt.size();) {
    const auto position = static_cast<std::size_t>(m_modulatedAt[k].position);
    const auto row = static_cast<std::size_t>(m_modulatedAt[k].row);
    double value = 0.0;
    for (; k < m_modulatedAt.size() && static_cast<std::size_t>(m_modulatedAt[k].position) == position; ++k)
      value += m_modulatedAt[k].coefficient * strength(m_modulatedAt[k].modulator);
    state.f[row] += (value - m_value[position]) * state.T[static_cast<std::size_t>(m_column[position])];
    m_value[position] = value;
  }
  return true;
}

void NetworkFlows::evaluate(const FlowState& state, std::vector<double>& flows, FlowSlopes* slopes, int from) {
  const double* const T = state.T.data();
  double* const x = m_x.data();
  double* const f = flows.data();
  std::copy_n(T, m_slots, x);
  double* const fourth = x + m_slots;
  if (slopes) {
    double* const cubed = slopes->fourCubed.data();
    for (int i = from; i < m_slots; ++i) {
      const double K = kelvin(T[i]);
      const double cube = K * K * K;
      cubed[i] = 4.0 * cube;
      fourth[i] = cube * K;
    }
  } else {
    for (int i = from; i < m_slots; ++i) {
      const double square = kelvin(T[i]) * kelvin(T[i]);
      fourth[i] = square * square;
    }
  }
  const double* const value = m_value.data();
  const int* const column = m_column.data();
  const int* const start = m_rowStart.data();
  for (int row = from; row < m_rows; ++row) f[row] = rowSum(value, column, start[row], start[row + 1], x);
  for (std::size_t i = from > 0 ? m_curvedSources : 0; i < m_sources.size(); ++i)
    f[m_sources[i].row] += m_sources[i].factor * state.value[static_cast<std::size_t>(m_sources[i].value)];
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    const double dT = T[n.a] - T[n.b];
    const double square = dT * dT + kNaturalSmoothing_K2;
    const double h = n.g * naturalPower(square, n.halfExponent, n.third);
    if (slopes) slopes->natural[i] = h * (1.0 + 2.0 * n.halfExponent * dT * dT / square);
    if (n.vapour >= 0) m_film[static_cast<std::size_t>(n.vapour)] = {h, h * 2.0 * n.halfExponent * dT / square};
    const double q = h * dT;
    f[n.a] -= q;
    f[n.b] += q;
    if (n.group >= 0) f[n.group] += q;
  }
  m_vapour.evaluate(T, m_film, f, slopes ? &slopes->vapour : nullptr);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    const double ramp = (T[v.sensor] - v.opens) / v.span;
    const double g = std::clamp(ramp, 0.0, 1.0) * v.g;
    const double q = g * (T[v.a] - T[v.b]);
    if (slopes) slopes->vent[i] = {g, ramp > 0.0 && ramp < 1.0 ? v.g * (T[v.a] - T[v.b]) / v.span : 0.0};
    f[v.a] -= q;
    f[v.b] += q;
    if (v.group >= 0) f[v.group] += q;
  }
}

void NetworkFlows::addDriven(const FlowSlopes& slopes, const FlowState& from, const FlowState& to, const double* delta, double* f) const {
  for (std::size_t i = 0; i < m_boundarySources; ++i) {
    const Source& s = m_sources[i];
    f[s.row] += s.factor * (to.value[static_cast<std::size_t>(s.value)] - from.value[static_cast<std::size_t>(s.value)]);
  }
  for (const BoundaryColumn& c : m_boundaryColumns) {
    const bool radiative = c.column >= m_slots;
    const auto slot = static_cast<std::size_t>(radiative ? c.column - m_slots : c.column);
    f[c.row] += m_value[static_cast<std::size_t>(c.position)] * (radiative ? slopes.fourCubed[slot] : 1.0) * delta[slot];
  }
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    if (!n.reported) continue;
    const double q = slopes.natural[i] * (delta[n.a] - delta[n.b]);
    f[n.a] -= q;
    f[n.b] += q;
  }
  m_vapour.addReported(slopes.vapour, delta, f, 0);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    const double q = slopes.vent[i].opening * (delta[v.a] - delta[v.b]) + slopes.vent[i].sensor * delta[v.sensor];
    f[v.a] -= q;
    f[v.b] += q;
  }
}

void NetworkFlows::addToReported(const FlowSlopes& slopes, const double* delta, double* f) {
  double* const x = m_x.data();
  for (int i = 0; i < m_slots; ++i) {
    x[i] = delta[i];
    x[m_slots + i] = slopes.fourCubed[static_cast<std::size_t>(i)] * delta[i];
  }
  const int* const start = m_rowStart.data();
  for (int row = m_free; row < m_rows; ++row) f[row] += rowSum(m_value.data(), m_column.data(), start[row], start[row + 1], x);
  const auto add = [&](int row, double q) {
    if (row >= m_free) f[row] += q;
  };
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    if (!n.reported) continue;
    const double q = slopes.natural[i] * (delta[n.a] - delta[n.b]);
    add(n.a, -q);
    add(n.b, q);
    add(n.group, q);
  }
  m_vapour.addReported(slopes.vapour, delta, f, m_free);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    const double q = slopes.vent[i].opening * (delta[v.a] - delta[v.b]) + slopes.vent[i].sensor * delta[v.sensor];
    add(v.a, -q);
    add(v.b, q);
    add(v.group, q);
  }
}

double NetworkFlows::curvature_K(const FlowSlopes& slopes, const FlowState& from, const FlowState& to, double s, double largest_K) const {
  constexpr double kFourthPower_1_K = 1.5 / 250.0; // T^4 bends by 3 dT/T over the move, on average by half of that; T at least 250 K
  const std::vector<double>& inverse = m_lu.inverseDiagonal();
  const auto pivot = [&](int slot) { return slot < m_free ? inverse[static_cast<std::size_t>(slot)] : 0.0; };
  double worst = kFourthPower_1_K * largest_K * largest_K;
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    const auto film = [&](double dT) { return n.g * naturalPower(dT * dT + kNaturalSmoothing_K2, n.halfExponent, n.third); };
    const double before = from.T[static_cast<std::size_t>(n.a)] - from.T[static_cast<std::size_t>(n.b)];
    const double after = to.T[static_cast<std::size_t>(n.a)] - to.T[static_cast<std::size_t>(n.b)];
    const double filmBefore = film(before);
    const double filmAfter = film(after);
    if (n.vapour >= 0) {
      m_filmFrom[static_cast<std::size_t>(n.vapour)].h = filmBefore;
      m_filmTo[static_cast<std::size_t>(n.vapour)].h = filmAfter;
    }
    const double left = filmAfter * after - filmBefore * before - slopes.natural[i] * (after - before);
    worst = std::max(worst, s * std::abs(left) * std::max(pivot(n.a), pivot(n.b)));
  }
  if (!m_vapour.empty()) worst = std::max(worst, s * m_vapour.curvature(slopes.vapour, from.T.data(), to.T.data(), m_filmFrom, m_filmTo, inverse));
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    const auto flow = [&](const FlowState& at) {
      const double ramp = std::clamp((at.T[static_cast<std::size_t>(v.sensor)] - v.opens) / v.span, 0.0, 1.0);
      return ramp * v.g * (at.T[static_cast<std::size_t>(v.a)] - at.T[static_cast<std::size_t>(v.b)]);
    };
    const auto moved = [&](int slot) { return to.T[static_cast<std::size_t>(slot)] - from.T[static_cast<std::size_t>(slot)]; };
    const double left = flow(to) - flow(from) - slopes.vent[i].opening * (moved(v.a) - moved(v.b)) - slopes.vent[i].sensor * moved(v.sensor);
    worst = std::max(worst, s * std::abs(left) * std::max(pivot(v.a), pivot(v.b)));
  }
  return worst;
}

void NetworkFlows::addSourcesAtBoundaries(const FlowState& from, const FlowState& to, double weight, double* f) const {
  for (std::size_t i = m_boundarySources; i < m_sources.size(); ++i) {
    const Source& s = m_sources[i];
    f[s.row] += weight * s.factor * (to.value[static_cast<std::size_t>(s.value)] - from.value[static_cast<std::size_t>(s.value)]);
  }
}

/// The part of C - s J that keeps until the next layout, with its fixed rows eliminated.
void NetworkFlows::prepareBase(double s) {
  if (s == m_baseFor) return;
  auto& a = m_lu.values();
  std::fill(a.begin(), a.end(), 0.0);
  for (int i = 0; i < m_free; ++i) a[static_cast<std::size_t>(m_lu.entry(i, i))] = m_capacity[static_cast<std::size_t>(i)];
  for (const FillConductance& c : m_fixedConductance) a[static_cast<std::size_t>(c.entry)] -= s * m_value[static_cast<std::size_t>(c.position)];
  m_lu.factor(0, m_lu.fixedCount());
  m_baseValues = a;
  m_baseInverse = m_lu.inverseDiagonal();
  m_baseFor = s;
}

void NetworkFlows::factor(double s, const FlowSlopes& slopes) {
  prepareBase(s);
  auto& values = m_lu.values();
  std::copy(m_baseValues.begin(), m_baseValues.end(), values.begin());
  std::copy(m_baseInverse.begin(), m_baseInverse.begin() + m_lu.fixedCount(), m_lu.inverseDiagonal().begin());
  double* const a = values.data();
  for (const FillConductance& c : m_fillConductance) a[c.entry] -= s * m_value[static_cast<std::size_t>(c.position)];
  const double* const cubed = slopes.fourCubed.data();
  for (const FillRadiative& r : m_fillRadiative) a[r.entry] -= s * m_value[static_cast<std::size_t>(r.position)] * cubed[r.slot];
  const auto add = [a](const Entries& e, double g) {
    a[e.aa] += g;
    a[e.ba] -= g;
    a[e.bb] += g;
    a[e.ab] -= g;
  };
  for (std::size_t i = 0; i < m_natural.size(); ++i) add(m_natural[i].at, s * slopes.natural[i]);
  m_vapour.fill(slopes.vapour, s, a);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const FlowSlopes::Vent& v = slopes.vent[i];
    if (v.opening == 0.0 && v.sensor == 0.0) continue;
    add(m_vents[i].at, s * v.opening);
    a[m_vents[i].as] += s * v.sensor;
    a[m_vents[i].bs] -= s * v.sensor;
  }
  m_lu.factor(m_lu.fixedCount(), m_free);
}

} // namespace muffle
