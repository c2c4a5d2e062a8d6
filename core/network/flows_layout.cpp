// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which links a network has, which of them are in force, and how strong: laid out once, then by modulators, relays and ice.
#include "core/network/flows.h"

#include "core/constants.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace muffle {

NetworkFlows::NetworkFlows(std::shared_ptr<const Network> network, const std::vector<int>& groupOfLink) : m_network(std::move(network)), m_drivers(*m_network) {
  orderNodes(*m_network);
  addLinks(*m_network, groupOfLink);
  markReported();
  for (const NetworkDrivers::Term& t : m_drivers.sourceTerms()) m_sources.push_back({static_cast<int>(slot(t.node)), t.value, t.factor});
  std::stable_sort(m_sources.begin(), m_sources.end(), [](const Source& x, const Source& y) { return x.row < y.row; });
  m_boundarySources = static_cast<std::size_t>(std::count_if(m_sources.begin(), m_sources.end(), [&](const Source& x) { return x.row < m_free; }));
  m_modulator.assign(m_modulators.size(), 1.0);
  m_modulatorNext = m_modulatorMiddle = m_modulatorStart = m_modulator;
  for (std::size_t i = 0; i < m_modulators.size(); ++i) (m_layout[i] || m_modulators.isHeld(i) ? m_jumping : m_sliding).push_back(static_cast<int>(i));
  m_fourth.assign(static_cast<std::size_t>(m_slots), 0.0);
  m_kept.assign(static_cast<std::size_t>(linearCount()), 0.0);
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
    couple(link.from, link.to, link.modulator < 0 && !nonlinear && link.kind != LinkKind::advective);
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

void NetworkFlows::addLinks(const Network& net, const std::vector<int>& groupOfLink) {
  int groups = 0;
  for (const int g : groupOfLink) groups = std::max(groups, g + 1);
  m_rows = m_slots + groups + 1;
  const auto group = [&](std::size_t link) { return link < groupOfLink.size() && groupOfLink[link] >= 0 ? groupRow(groupOfLink[link]) : -1; };
  m_vapour = VapourFlows(net.pressure_Pa);
  m_relays = Relays(net.relays);
  for (std::size_t r = 0; r < net.relays.size(); ++r) {
    if (const auto* by = std::get_if<SwitchedByTemperature>(&net.relays[r].by)) m_switched.push_back({r, slot(by->sensor), *by});
    if (std::holds_alternative<SurfaceWater>(net.relays[r].by)) m_wetted.push_back(r);
  }
  m_relayFilm.assign(net.relays.size(), -1);
  m_relayModulator.assign(net.relays.size(), -1);
  const auto entries = [&](int a, int b) { return Entries{m_lu.entry(a, a), m_lu.entry(a, b), m_lu.entry(b, a), m_lu.entry(b, b)}; };

  for (std::size_t l = 0; l < net.links.size(); ++l) {
    const Link& link = net.links[l];
    const int a = m_slot[static_cast<std::size_t>(link.from)];
    const int b = m_slot[static_cast<std::size_t>(link.to)];
    const int modulator = link.modulator < 0 ? -1 : m_modulators.add(net, link.modulator);
    m_layout.resize(m_modulators.size(), false);
    if (modulator >= 0 && (link.kind == LinkKind::radiative || link.kind == LinkKind::natural)) m_layout[static_cast<std::size_t>(modulator)] = true;
    const bool reported = a >= m_free || b >= m_free || group(l) >= 0;
    if (link.kind == LinkKind::natural) {
      const int film = link.vapour < 0 ? -1 : m_vapour.addFilm(a, b, m_slot[static_cast<std::size_t>(link.vapour)], link.wetShare, group(l), m_free, m_lu);
      m_allNatural.push_back({a, b, group(l), link.coefficient, link.exponent / 2.0, modulator, std::abs(link.exponent - 1.0 / 3.0) < 1e-6, reported,
                              entries(a, b), film, link.relay, link.wetShare});
      for (std::size_t r = 0; r < net.relays.size(); ++r)
        if (const auto* by = std::get_if<SurfaceWater>(&net.relays[r].by); by && by->film == static_cast<int>(l))
          m_relayFilm[r] = film, m_relayModulator[r] = modulator;
      continue;
    }
    int frozen = -1;
    if (link.frozenFactor != 1.0) {
      frozen = static_cast<int>(m_frozenLinks.size());
      m_frozenLinks.push_back({a, b, link.frozenFactor});
    }
    const bool oneWay = link.kind == LinkKind::advective;
    if (oneWay || (modulator >= 0 && link.kind == LinkKind::conductance)) {
      const bool counted = oneWay && a < m_free; // a one-way link is paid for by the boundary it comes from, not by a free node
      m_varying.push_back({a, b, group(l), counted ? advectionRow() : a, counted ? 1.0 : -1.0, link.coefficient, 0.0, modulator, frozen, oneWay,
                           reported || counted, entries(a, b)});
      continue;
    }
    if (link.kind == LinkKind::evaporative) {
      m_vapour.addLeaf(a, b, link.coefficient, modulator, m_free, m_lu);
      continue;
    }
    const bool radiative = link.kind == LinkKind::radiative;
    const double g = radiative ? link.coefficient * kStefanBoltzmann_W_m2K4 : link.coefficient;
    (radiative ? m_radiative : m_conductances).all.push_back({a, b, group(l), g, modulator, frozen, reported, entries(a, b), link.relay, link.relayFactor});
  }
  for (PlainLinks* links : {&m_conductances, &m_radiative}) {
    const auto rank = [](const Plain& link) { return link.group >= 0 ? 0 : link.reported ? 1 : 2; };
    std::stable_sort(links->all.begin(), links->all.end(), [&](const Plain& x, const Plain& y) { return rank(x) < rank(y); });
  }
  for (std::size_t v = 0; v < net.vents.size(); ++v) {
    const Vent& vent = net.vents[v];
    const int a = m_slot[static_cast<std::size_t>(vent.from)];
    const int b = m_slot[static_cast<std::size_t>(vent.to)];
    const int sensor = m_slot[static_cast<std::size_t>(vent.sensor)];
    const int modulator = vent.modulator < 0 ? -1 : m_modulators.add(net, vent.modulator);
    m_layout.resize(m_modulators.size(), false);
    if (modulator >= 0 && net.tables[static_cast<std::size_t>(vent.modulator)].hold) m_layout[static_cast<std::size_t>(modulator)] = true;
    m_vents.push_back({a, b, sensor, group(net.links.size() + v), vent.opens_C, vent.full_C - vent.opens_C, vent.conductance_W_K, vent.conductance_W_K,
                       entries(a, b), m_lu.entry(a, sensor), m_lu.entry(b, sensor), modulator});
  }
}

/// Where the flows of all links, in force or not, count past the free slots.
void NetworkFlows::markReported() {
  m_reported = ReportedRows(m_free, m_slots, m_rows);
  for (const PlainLinks* links : {&m_conductances, &m_radiative})
    for (const Plain& link : links->all) m_reported.markFlow(link.a, link.b, link.group);
  for (const Varying& v : m_varying)
    for (const int row : {v.paid, v.b, v.group})
      for (const int slot : {v.a, v.b}) m_reported.mark(row, slot);
  for (const Natural& n : m_allNatural) m_reported.markFlow(n.a, n.b, n.group);
  m_vapour.mark(m_reported);
  for (const VentSlots& v : m_vents) {
    m_reported.markFlow(v.a, v.b, v.group);
    for (const int row : {v.a, v.b, v.group}) m_reported.mark(row, v.sensor);
  }
  m_reported.number();
  m_reportedPlain = m_reportedRadiative = m_reported.makeValues();
}

void NetworkFlows::collectReported(const PlainLinks& links, std::vector<double>& values) const {
  std::fill(values.begin(), values.end(), 0.0);
  for (std::size_t i = 0; i < links.reported; ++i)
    m_reported.addFlow(values, links.pair[i].a, links.pair[i].b, links.active[i].group, links.pair[i].g, links.pair[i].g);
}

/// Takes up the links in force, by the state of the water too.
void NetworkFlows::activate() {
  for (Base& base : m_bases) base.s = -1.0;
  activate(m_conductances);
  collectReported(m_conductances, m_reportedPlain);
  activateModulated();
}

/// Those whose strength modulators or relays decide.
void NetworkFlows::activateModulated() {
  ++m_layoutCount;
  m_natural.clear();
  activate(m_radiative);
  collectReported(m_radiative, m_reportedRadiative);
  for (Varying& v : m_varying) v.g = varyingStrength(v);
  for (VentSlots& v : m_vents) v.g = v.full * strength(v.modulator);
  m_film.assign(m_vapour.filmCount(), {});
  m_filmFrom = m_filmTo = m_film;
  for (const Natural& n : m_allNatural) {
    const double strong = strength(n.modulator);
    if (strong == 0.0) continue;
    m_natural.push_back(n);
    m_natural.back().g *= strong;
  }
  m_difference.assign(m_natural.size(), 0.0);
  m_root = m_difference;
}

void NetworkFlows::activate(PlainLinks& links) {
  links.active.clear();
  links.pair.clear();
  for (const Plain& link : links.all) {
    const double g = plainStrength(link);
    if (g == 0.0) continue;
    links.active.push_back(link);
    links.pair.push_back({link.a, link.b, g});
  }
  const auto count = [&](auto is) { return static_cast<std::size_t>(std::count_if(links.active.begin(), links.active.end(), is)); };
  links.tracked = count([](const Plain& link) { return link.group >= 0; });
  links.reported = count([](const Plain& link) { return link.reported; });
}

double NetworkFlows::varyingStrength(const Varying& v) const { return v.full * strength(v.modulator) * frozenStrength(v.frozen); }

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

void NetworkFlows::setRelay(int relay, bool on) {
  m_relays.set(relay, on);
  followRelays();
}

/// What follows relays and needs no new layout: strengths of long-wave links, wet films.
void NetworkFlows::followRelays() {
  ++m_layoutCount;
  bool changed = false;
  for (std::size_t i = 0; i < m_radiative.active.size(); ++i) {
    if (m_radiative.active[i].relay < 0) continue;
    const double g = plainStrength(m_radiative.active[i]);
    changed = changed || g != m_radiative.pair[i].g;
    m_radiative.pair[i].g = g;
  }
  if (changed) collectReported(m_radiative, m_reportedRadiative);
  for (const Natural& n : m_allNatural)
    if (n.relay >= 0) m_vapour.setWetShare(n.vapour, m_relays.isOn(n.relay) ? 1.0 : n.wetShare);
}

void NetworkFlows::startRelays(std::span<const double> T) {
  if (m_relays.empty()) return;
  for (const Switched& s : m_switched) m_relays.start(s.relay, s.by, T[s.sensor]);
  for (const std::size_t r : m_wetted) {
    constexpr double kAnyFilm_W_K = 1.0;                      // only the sign counts
    const bool reached = strength(m_relayModulator[r]) > 0.0; // no damp air gets behind a tight cloth
    m_relays.start(r, waterOf(r), reached ? m_vapour.condensing_W(m_relayFilm[r], T.data(), kAnyFilm_W_K) : 0.0);
  }
  followRelays();
}

bool NetworkFlows::settleRelays(std::span<const double> T, double h) {
  bool any = false;
  for (const std::size_t r : m_wetted) {
    const int film = m_relayFilm[r];
    const bool has = m_relays.step(r, waterOf(r), m_vapour.condensing_W(film, T.data(), m_film[static_cast<std::size_t>(film)].h), h);
    any = any || has;
  }
  for (const Switched& s : m_switched) {
    const bool has = m_relays.step(s.relay, s.by, T[s.sensor]);
    any = any || has;
  }
  if (any) followRelays();
  return any;
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
  slopes.varying.assign(m_varying.size(), 0.0);
  slopes.vapour = m_vapour.makeSlopes();
  slopes.vent.assign(m_vents.size(), {});
  slopes.reported = m_reported.makeValues();
  return slopes;
}

void NetworkFlows::drive(double t, FlowState& state) const {
  m_drivers.sample(t, state.value);
  setBoundaries(state);
}

void NetworkFlows::setBoundaries(FlowState& state) const {
  for (std::size_t b = 0; b < m_boundaryNode.size(); ++b) state.T[static_cast<std::size_t>(m_free) + b] = m_drivers.boundary_C(state.value, b);
}

NetworkFlows::Modulation NetworkFlows::takeModulators(double t) {
  bool changed = !m_modulated;
  bool jumped = false;
  bool lay = !m_modulated;
  m_modulated = true;
  m_modulators.sample(t, m_modulatorNext.data(), m_relays.states());
  for (std::size_t i = 0; i < m_modulator.size(); ++i) {
    const double now = m_modulatorStart[i] = m_modulatorNext[i];
    if (now == m_modulator[i]) continue;
    changed = true;
    if (m_layout[i]) lay = true;
    if (m_modulators.isHeld(i)) jumped = true;
    m_modulator[i] = now;
  }
  if (lay) activateModulated();
  m_modulatedLayout = m_layoutCount;
  return lay ? Modulation::laidOut : jumped ? Modulation::jumped : changed ? Modulation::changed : Modulation::same;
}

bool NetworkFlows::modulate(double t, FlowState& state) {
  const Modulation change = takeModulators(t);
  if (change == Modulation::same) return true;
  m_vapour.modulate(m_modulator, state.T.data(), state.f.data());
  if (change == Modulation::laidOut) return false;
  for (Varying& v : m_varying) {
    const double g = varyingStrength(v);
    if (g == v.g) continue;
    const double q = (g - v.g) * (state.T[static_cast<std::size_t>(v.a)] - state.T[static_cast<std::size_t>(v.b)]);
    v.g = g;
    take(v, q, state.f.data());
  }
  double* const f = state.f.data();
  for (VentSlots& v : m_vents) {
    const double g = v.full * strength(v.modulator);
    if (g == v.g) continue;
    const double q = (g - v.g) * opening(v, state.T.data()) * (state.T[static_cast<std::size_t>(v.a)] - state.T[static_cast<std::size_t>(v.b)]);
    v.g = g;
    f[v.a] -= q;
    f[v.b] += q;
    if (v.group >= 0) f[v.group] += q;
  }
  return true;
}

bool NetworkFlows::modulate(double t) {
  const Modulation change = takeModulators(t);
  if (change == Modulation::same) return true;
  m_vapour.modulate(m_modulator);
  for (Varying& v : m_varying) v.g = varyingStrength(v);
  for (VentSlots& v : m_vents) v.g = v.full * strength(v.modulator);
  return change == Modulation::changed;
}

bool NetworkFlows::modulateOver(double middle_s, double end_s, const std::vector<double>& T, double s, double most_K) {
  if (m_modulatedLayout != m_layoutCount) return false; // a relay has switched since: what it chooses jumps
  m_modulators.sample(middle_s, m_modulatorMiddle.data(), m_relays.states());
  m_modulators.sample(end_s, m_modulatorNext.data(), m_relays.states());
  double* const now = m_modulator.data();
  double* const bend = m_modulatorMiddle.data();
  const double* const end = m_modulatorNext.data();
  for (const int i : m_jumping) {
    if (bend[i] != now[i] || end[i] != now[i]) return false;
    bend[i] = 0.0;
  }
  for (const int i : m_sliding) bend[i] -= 0.5 * (m_modulatorStart[static_cast<std::size_t>(i)] + end[i]);
  const double* const inverse = m_lu.inverseDiagonal().data();
  for (const Varying& v : m_varying) {
    if (v.modulator < 0 || bend[v.modulator] == 0.0) continue;
    const double pivot = std::max(v.a < m_free ? inverse[v.a] : 0.0, v.b < m_free ? inverse[v.b] : 0.0);
    if (std::abs(v.full * bend[v.modulator] * (T[static_cast<std::size_t>(v.a)] - T[static_cast<std::size_t>(v.b)])) * s * pivot > most_K) return false;
  }
  for (const int i : m_sliding) {
    now[i] = std::max(end[i] + 0.5 * bend[i], 0.0); // no link is weaker than none
    m_modulatorStart[static_cast<std::size_t>(i)] = end[i];
  }
  m_vapour.modulate(m_modulator);
  for (Varying& v : m_varying) v.g = varyingStrength(v);
  for (VentSlots& v : m_vents) v.g = v.full * strength(v.modulator);
  return true;
}

bool NetworkFlows::relayTurns(const std::vector<double>& T) const {
  for (const Switched& s : m_switched)
    if (m_relays.isOn(static_cast<int>(s.relay)) ? T[s.sensor] >= s.by.off_C : T[s.sensor] <= s.by.on_C) return true;
  return false;
}

} // namespace muffle
