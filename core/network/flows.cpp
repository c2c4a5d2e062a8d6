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

/// x^(1/6) for x of 1e-30 to 1e30, to 5e-12. Dividing a float's bits by six is right to 3.5 %, and two steps of Halley's
/// iteration follow: the error goes as 35/12 e^3. Written so that loops over it vectorise.
inline double sixthRoot(double x) {
  constexpr std::uint32_t kOffset = 888406016; // 5/6 of the exponent's bias, centred
  auto y = static_cast<double>(std::bit_cast<float>(std::bit_cast<std::uint32_t>(static_cast<float>(x)) / 6 + kOffset));
  for (int k = 0; k < 2; ++k) {
    const double cube = y * y * y;
    const double power = cube * cube;
    y *= (5.0 * power + 7.0 * x) / (7.0 * power + 5.0 * x);
  }
  return y;
}

/// x^e; openings in line flow by the root of a difference.
inline double power(double x, double e) { return e == 0.25 ? std::sqrt(std::sqrt(x)) : std::pow(x, e); }

/// (dT^2 + 0.01)^(p/2).
double naturalPower(double square, double halfExponent, bool third) { return third ? sixthRoot(square) : power(square, halfExponent); }

} // namespace

double NetworkFlows::drivenBend_K(const FlowState& start, const FlowState& middle, const FlowState& end, double s) const {
  double worst = 0.0;
  for (auto slot = static_cast<std::size_t>(m_free); slot < start.T.size(); ++slot)
    worst = std::max(worst, std::abs(middle.T[slot] - 0.5 * (start.T[slot] + end.T[slot])));
  const std::vector<double>& inverse = m_lu.inverseDiagonal();
  double bend_W = 0.0; // of the row in hand; the sources stand by rows
  for (std::size_t i = 0; i < m_boundarySources; ++i) {
    const Source& source = m_sources[i];
    const auto v = static_cast<std::size_t>(source.value);
    bend_W += source.factor * (middle.value[v] - 0.5 * (start.value[v] + end.value[v]));
    if (i + 1 < m_boundarySources && m_sources[i + 1].row == source.row) continue;
    worst = std::max(worst, std::abs(bend_W) * s * inverse[static_cast<std::size_t>(source.row)]);
    bend_W = 0.0;
  }
  return worst;
}

void NetworkFlows::evaluate(const FlowState& state, std::vector<double>& flows, FlowSlopes* slopes, int from) {
  const double* const T = state.T.data();
  double* const f = flows.data();
  double* __restrict const fourth = m_fourth.data();
  if (slopes) {
    double* __restrict const cubed = slopes->fourCubed.data();
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
  std::copy_n(f, from, m_kept.data());
  std::fill_n(f, m_rows, 0.0);
#pragma GCC unroll 4
  for (const Source& source : m_sources) f[source.row] += source.factor * state.value[static_cast<std::size_t>(source.value)];
  const auto add = [f](const PlainLinks& links, const double* potential) {
#pragma GCC unroll 8
    for (const Pair& pair : links.pair) {
      const double q = pair.g * (potential[pair.a] - potential[pair.b]);
      f[pair.a] -= q;
      f[pair.b] += q;
    }
    for (std::size_t i = 0; i < links.tracked; ++i) {
      const Pair& pair = links.pair[i];
      f[links.active[i].group] += pair.g * (potential[pair.a] - potential[pair.b]);
    }
  };
  add(m_conductances, T);
  add(m_radiative, fourth);
  for (const Varying& v : m_varying) take(v, v.g * (T[v.a] - T[v.b]), f);
  const std::size_t naturals = m_natural.size();
  double* __restrict const difference = m_difference.data();
  double* __restrict const root = m_root.data();
  for (std::size_t i = 0; i < naturals; ++i) difference[i] = T[m_natural[i].a] - T[m_natural[i].b];
  for (std::size_t i = 0; i < naturals; ++i) root[i] = sixthRoot(difference[i] * difference[i] + kNaturalSmoothing_K2);
  for (std::size_t i = 0; i < naturals; ++i) {
    const Natural& n = m_natural[i];
    const double dT = difference[i];
    const double square = dT * dT + kNaturalSmoothing_K2;
    const double h = n.g * (n.third ? root[i] : power(square, n.halfExponent));
    if (slopes) {
      const double bend = 2.0 * n.halfExponent * dT / square;
      slopes->natural[i] = h * (1.0 + bend * dT);
      if (n.vapour >= 0) m_film[static_cast<std::size_t>(n.vapour)].slope = h * bend;
    }
    if (n.vapour >= 0) m_film[static_cast<std::size_t>(n.vapour)].h = h;
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
  std::copy_n(m_kept.data(), from, f);
}

bool NetworkFlows::ventOnRamp(const std::vector<double>& T) const {
  return std::any_of(m_vents.begin(), m_vents.end(), [&T](const VentSlots& v) {
    const double above = T[static_cast<std::size_t>(v.sensor)] - v.opens;
    return v.g > 0.0 && above > 0.0 && above < v.span;
  });
}

bool NetworkFlows::ventTurns(const std::vector<double>& from, const std::vector<double>& to) const {
  const auto place = [](const VentSlots& v, const std::vector<double>& T) {
    const double above = T[static_cast<std::size_t>(v.sensor)] - v.opens;
    return above <= 0.0 ? 0 : above < v.span ? 1 : 2;
  };
  return std::any_of(m_vents.begin(), m_vents.end(), [&](const VentSlots& v) { return v.g > 0.0 && place(v, from) != place(v, to); });
}

void NetworkFlows::addDriven(const FlowSlopes& slopes, const FlowState& from, const FlowState& to, const double* delta, double* f) const {
  for (std::size_t i = 0; i < m_boundarySources; ++i) {
    const Source& s = m_sources[i];
    f[s.row] += s.factor * (to.value[static_cast<std::size_t>(s.value)] - from.value[static_cast<std::size_t>(s.value)]);
  }
  const auto add = [&](const PlainLinks& links, const double* slope) {
    for (std::size_t i = 0; i < links.reported; ++i) {
      const Pair& pair = links.pair[i];
      const double q = pair.g * ((slope ? slope[pair.a] : 1.0) * delta[pair.a] - (slope ? slope[pair.b] : 1.0) * delta[pair.b]);
      f[pair.a] -= q;
      f[pair.b] += q;
    }
  };
  add(m_conductances, nullptr);
  add(m_radiative, slopes.fourCubed.data());
  for (const Varying& v : m_varying)
    if (v.reported) take(v, v.g * (delta[v.a] - delta[v.b]), f);
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    if (!n.reported) continue;
    const double q = slopes.natural[i] * (delta[n.a] - delta[n.b]);
    f[n.a] -= q;
    f[n.b] += q;
  }
  m_vapour.addAlong(slopes.vapour, delta, f);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const VentSlots& v = m_vents[i];
    const double q = slopes.vent[i].opening * (delta[v.a] - delta[v.b]) + slopes.vent[i].sensor * delta[v.sensor];
    f[v.a] -= q;
    f[v.b] += q;
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
      return opening(v, at.T.data()) * v.g * (at.T[static_cast<std::size_t>(v.a)] - at.T[static_cast<std::size_t>(v.b)]);
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
const NetworkFlows::Base& NetworkFlows::baseFor(double s) {
  for (const Base& base : m_bases)
    if (base.s == s) return base;
  Base& base = m_bases[m_nextBase];
  m_nextBase = (m_nextBase + 1) % m_bases.size();
  auto& a = m_lu.values();
  std::fill(a.begin(), a.end(), 0.0);
  for (int i = 0; i < m_free; ++i) a[static_cast<std::size_t>(m_lu.entry(i, i))] = m_capacity[static_cast<std::size_t>(i)];
  for (std::size_t i = 0; i < m_conductances.active.size(); ++i) addEntries(a.data(), m_conductances.active[i].at, s * m_conductances.pair[i].g);
  m_lu.factor(0, m_lu.fixedCount());
  base.values = a;
  base.inverse = m_lu.inverseDiagonal();
  base.s = s;
  return base;
}

void NetworkFlows::factor(double s, FlowSlopes& slopes) {
  const Base& base = baseFor(s);
  auto& values = m_lu.values();
  std::copy(base.values.begin(), base.values.end(), values.begin());
  std::copy(base.inverse.begin(), base.inverse.begin() + m_lu.fixedCount(), m_lu.inverseDiagonal().begin());
  double* const a = values.data();
  const double* const cubed = slopes.fourCubed.data();
  for (std::size_t i = 0; i < m_radiative.active.size(); ++i) {
    const Pair& pair = m_radiative.pair[i];
    const Entries& at = m_radiative.active[i].at;
    const double byA = s * pair.g * cubed[pair.a];
    const double byB = s * pair.g * cubed[pair.b];
    a[at.aa] += byA;
    a[at.ba] -= byA;
    a[at.bb] += byB;
    a[at.ab] -= byB;
  }
  const auto add = [a](const Entries& e, double g) { addEntries(a, e, g); };
  for (std::size_t i = 0; i < m_varying.size(); ++i) {
    const Varying& v = m_varying[i];
    slopes.varying[i] = v.g;
    const double g = s * v.g;
    if (v.oneWay) {
      a[v.at.ba] -= g;
      a[v.at.bb] += g;
    } else {
      add(v.at, g);
    }
  }
  for (std::size_t i = 0; i < m_natural.size(); ++i) add(m_natural[i].at, s * slopes.natural[i]);
  m_vapour.fill(slopes.vapour, s, a);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    const FlowSlopes::Vent& v = slopes.vent[i];
    if (v.opening == 0.0 && v.sensor == 0.0) continue;
    add(m_vents[i].at, s * v.opening);
    a[m_vents[i].as] += s * v.sensor;
    a[m_vents[i].bs] -= s * v.sensor;
  }
  collectReported(slopes);
  m_lu.factor(m_lu.fixedCount(), m_free);
}

void NetworkFlows::collectReported(FlowSlopes& slopes) const {
  std::vector<double>& values = slopes.reported;
  m_reported.set(values, m_reportedPlain, m_reportedRadiative, slopes.fourCubed);
  const auto add = [&](int a, int b, int group, double byA, double byB) { m_reported.addFlow(values, a, b, group, byA, byB); };
  for (const Varying& v : m_varying) {
    if (!v.reported) continue;
    for (const auto& [row, sign] : {std::pair{v.paid, v.sign}, {v.b, 1.0}, {v.group, 1.0}}) {
      m_reported.add(values, row, v.a, sign * v.g);
      m_reported.add(values, row, v.b, -sign * v.g);
    }
  }
  for (std::size_t i = 0; i < m_natural.size(); ++i) {
    const Natural& n = m_natural[i];
    if (n.reported) add(n.a, n.b, n.group, slopes.natural[i], slopes.natural[i]);
  }
  m_vapour.collectReported(slopes.vapour, m_reported, values);
  for (std::size_t i = 0; i < m_vents.size(); ++i) {
    if (slopes.vent[i].opening == 0.0 && slopes.vent[i].sensor == 0.0) continue; // shut
    const VentSlots& v = m_vents[i];
    add(v.a, v.b, v.group, slopes.vent[i].opening, slopes.vent[i].opening);
    for (const auto& [row, sign] : {std::pair{v.a, -1.0}, {v.b, 1.0}, {v.group, 1.0}}) m_reported.add(values, row, v.sensor, sign * slopes.vent[i].sensor);
  }
}

} // namespace muffle
