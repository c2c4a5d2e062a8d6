// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/network.h"

#include "core/constants.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

/// Cell sizes of one layer, graded from the exposed ends so that the first cell resolves an hour's wave.
/// sqrt(a 3600 s / pi) is the depth an hourly wave reaches to 1/e; a fifth of it keeps the surface error of a step
/// change under 0.02 K per 10 K after an hour; each cell may be 1.4 times its outer neighbour.
std::vector<double> gradedCells(const SolidLayer& layer, double beforeLayer_m, double afterLayer_m) {
  constexpr double kFirstCellOfHourWave = 0.2;
  constexpr double kGrowth = 0.4;
  const double diffusivity = layer.conductivity_W_mK / (layer.density_kg_m3 * layer.heat_J_kgK);
  const double first_m = kFirstCellOfHourWave * std::sqrt(diffusivity * 3600.0 / kPi);
  const auto sizeAt = [&](double x) {
    const double fromEnd = std::min(beforeLayer_m + x, afterLayer_m + layer.thickness_m - x);
    return first_m + kGrowth * std::max(fromEnd, 0.0);
  };
  std::vector<double> cells;
  double x = 0.0;
  while (x < layer.thickness_m - 1e-9 && cells.size() < 200) {
    const double size = sizeAt(x);
    cells.push_back(std::min(size, layer.thickness_m - x));
    x += cells.back();
  }
  if (cells.size() > 1 && cells.back() < 0.5 * cells[cells.size() - 2]) { // no sliver at the end
    cells[cells.size() - 2] += cells.back();
    cells.pop_back();
  }
  return cells;
}

} // namespace

double Signal::at(double t) const {
  if (value.empty()) return 0.0;
  if (step_s > 0.0) return atPosition((t - start_s) / step_s);
  if (t <= t_s.front()) return value.front();
  if (t >= t_s.back()) return value.back();
  const auto i = static_cast<std::size_t>(std::upper_bound(t_s.begin(), t_s.end(), t) - t_s.begin()) - 1;
  return hold ? value[i] : value[i] + (value[i + 1] - value[i]) * (t - t_s[i]) / (t_s[i + 1] - t_s[i]);
}

double Signal::nextChange_s(double t) const {
  if (!hold) return t;
  const double now = at(t);
  const auto isOther = [&](double v) { return v != now; };
  const auto timeOf = [&](std::size_t i) { return step_s > 0.0 ? start_s + static_cast<double>(i) * step_s : t_s[i]; };
  std::size_t from = 0;
  if (step_s > 0.0)
    from = static_cast<std::size_t>(std::max((t - start_s) / step_s, 0.0));
  else
    from = static_cast<std::size_t>(std::upper_bound(t_s.begin(), t_s.end(), t) - t_s.begin());
  if (from >= value.size()) return std::numeric_limits<double>::infinity();
  const auto other = std::find_if(value.begin() + static_cast<std::ptrdiff_t>(from), value.end(), isOther);
  return other == value.end() ? std::numeric_limits<double>::infinity() : timeOf(static_cast<std::size_t>(other - value.begin()));
}

Driver Driver::constant(double value) {
  Driver d;
  d.mean = value;
  return d;
}

Driver Driver::set(double value) {
  Driver d = constant(value);
  d.isSet = true;
  return d;
}

Driver Driver::sine(double mean, double amplitude, double period_s, double peak_s) {
  Driver d;
  d.kind = Kind::sine;
  d.mean = mean;
  d.amplitude = amplitude;
  d.period_s = period_s;
  d.peak_s = peak_s;
  return d;
}

Driver Driver::table(int signal, double factor, double offset) {
  Driver d;
  d.kind = Kind::table;
  d.signal = signal;
  d.amplitude = factor;
  d.mean = offset;
  return d;
}

Driver Driver::halfSine(double peak, double from_s, double to_s, bool daily) {
  Driver d;
  d.kind = Kind::halfSine;
  d.amplitude = peak;
  d.from_s = from_s;
  d.to_s = to_s;
  d.daily = daily;
  return d;
}

double Driver::at(double t, const std::vector<Signal>& tables) const {
  switch (kind) {
  case Kind::constant: return mean;
  case Kind::sine: return mean + amplitude * std::cos(2.0 * kPi * (t - peak_s) / period_s);
  case Kind::table: return mean + amplitude * tables[static_cast<std::size_t>(signal)].at(t);
  case Kind::halfSine: {
    double at = t;
    if (daily) {
      at = std::fmod(t - from_s, 86400.0);
      at = (at < 0.0 ? at + 86400.0 : at) + from_s;
    }
    if (at <= from_s || at >= to_s) return 0.0;
    return amplitude * std::sin(kPi * (at - from_s) / (to_s - from_s));
  }
  }
  return 0.0;
}

double Link::flow_W(double a, double b) const {
  switch (kind) {
  case LinkKind::conductance:
  case LinkKind::advective: return coefficient * (a - b);
  case LinkKind::radiative: return coefficient * kStefanBoltzmann_W_m2K4 * (std::pow(kelvin(a), 4) - std::pow(kelvin(b), 4));
  case LinkKind::natural: return coefficient * std::pow((a - b) * (a - b) + kNaturalSmoothing_K2, exponent / 2.0) * (a - b);
  case LinkKind::evaporative: break;
  }
  return 0.0;
}

int Network::addNode(std::string id, double capacity_J_K, double initial_C) {
  nodes.push_back({std::move(id), capacity_J_K, initial_C, std::nullopt});
  return static_cast<int>(nodes.size()) - 1;
}

int Network::addBoundary(std::string id, Driver driver) {
  nodes.push_back({std::move(id), 0.0, 0.0, driver});
  return static_cast<int>(nodes.size()) - 1;
}

int Network::addSignal(Signal signal) {
  tables.push_back(std::move(signal));
  return static_cast<int>(tables.size()) - 1;
}

int Network::addSwitch(int relay, int then, int otherwise) {
  Signal s;
  s.relay = relay;
  s.then = then;
  s.otherwise = otherwise;
  s.hold = true;
  return addSignal(std::move(s));
}

Link& Network::addConductance(int from, int to, double conductance, std::string part) {
  return links.emplace_back(Link{LinkKind::conductance, from, to, conductance, 0.0, -1, 1.0, 0.0, -1, std::move(part)});
}
Link& Network::addRadiative(int from, int to, double area_m2, std::string part) {
  return links.emplace_back(Link{LinkKind::radiative, from, to, area_m2, 0.0, -1, 1.0, 0.0, -1, std::move(part)});
}
Link& Network::addNatural(int from, int to, double area_m2, double k, double exponent, std::string part) {
  return links.emplace_back(Link{LinkKind::natural, from, to, area_m2 * k, exponent, -1, 1.0, 0.0, -1, std::move(part)});
}
Link& Network::addEvaporative(int from, int to, double g, std::string part) {
  return links.emplace_back(Link{LinkKind::evaporative, from, to, g, 0.0, -1, 1.0, 0.0, -1, std::move(part)});
}
Link& Network::addAdvective(int from, int to, double mcp, std::string part) {
  return links.emplace_back(Link{LinkKind::advective, from, to, mcp, 0.0, -1, 1.0, 0.0, -1, std::move(part)});
}

int Network::find(const std::string& id) const {
  const auto it = std::find_if(nodes.begin(), nodes.end(), [&](const Node& n) { return n.id == id; });
  if (it != nodes.end()) return static_cast<int>(it - nodes.begin());
  for (const auto& [name, node] : aliases)
    if (name == id) return node;
  return -1;
}

int Network::addSolid(Solid solid) {
  // Nodes sit on cell boundaries and carry half of each neighbouring cell: second order, and surfaces are nodes.
  double total_m = 0.0;
  for (const auto& layer : solid.layers) total_m += layer.thickness_m;
  const double endIsGraded = solid.hTo_W_m2K ? 0.0 : 1e9; // a buried far end needs no fine cells

  int previous = -1;
  double depth_m = 0.0;
  const auto startAt = [&](double x) { return solid.initialFar_C ? solid.initial_C + (*solid.initialFar_C - solid.initial_C) * x / total_m : solid.initial_C; };
  int first = -1;
  if (solid.hFrom_W_m2K) {
    first = addNode(solid.id + ":0", 0.0, startAt(0.0));
    addConductance(solid.from, first, *solid.hFrom_W_m2K * solid.area_m2, solid.part);
  } else {
    first = solid.from;
    aliases.emplace_back(solid.id + ":0", first);
  }
  previous = first;
  for (std::size_t l = 0; l < solid.layers.size(); ++l) {
    const SolidLayer& layer = solid.layers[l];
    std::vector<double> cells;
    if (layer.cells > 0) {
      cells.assign(static_cast<std::size_t>(layer.cells), layer.thickness_m / layer.cells);
    } else {
      cells = gradedCells(layer, depth_m, total_m - depth_m - layer.thickness_m + endIsGraded);
    }
    for (std::size_t c = 0; c < cells.size(); ++c) {
      depth_m += cells[c];
      const bool layerEnd = c + 1 == cells.size();
      const bool lastSurface = layerEnd && l + 1 == solid.layers.size();
      int next = -1;
      if (lastSurface && !solid.hTo_W_m2K) {
        next = solid.to;
        aliases.emplace_back(fmt::format("{}:{}", solid.id, l + 1), next);
      } else {
        next = addNode(layerEnd ? fmt::format("{}:{}", solid.id, l + 1) : fmt::format("{}:{}.{}", solid.id, l, c + 1), 0.0, startAt(depth_m));
      }
      const double halfCapacity = 0.5 * cells[c] * solid.area_m2 * layer.density_kg_m3 * layer.heat_J_kgK;
      for (const int end : {previous, next}) {
        Node& node = nodes[static_cast<std::size_t>(end)];
        if (node.boundary) continue;
        const double frozen = layer.frozenHeat_J_m3K > 0.0 ? 0.5 * cells[c] * solid.area_m2 * layer.frozenHeat_J_m3K : halfCapacity;
        if (layer.latent_J_m3 > 0.0) {
          if (!node.water) node.water = FreezingWater{0.0, layer.freezingInterval_K, node.capacity_J_K};
          node.water->latent_J += 0.5 * cells[c] * solid.area_m2 * layer.latent_J_m3;
        }
        if (node.water) node.water->frozenCapacity_J_K += frozen;
        node.capacity_J_K += halfCapacity;
      }
      Link& link = addConductance(previous, next, layer.conductivity_W_mK * solid.area_m2 / cells[c]);
      if (layer.latent_J_m3 > 0.0 && layer.frozenConductivity_W_mK > 0.0) link.frozenFactor = layer.frozenConductivity_W_mK / layer.conductivity_W_mK;
      previous = next;
    }
  }
  if (solid.hTo_W_m2K) addConductance(previous, solid.to, *solid.hTo_W_m2K * solid.area_m2);
  solids.push_back(std::move(solid));
  return first;
}

Problems validate(const Network& net) {
  Problems problems;
  const int count = static_cast<int>(net.nodes.size());
  const auto bad = [&](std::string where, Message what, Message allowed) {
    problems.push_back({ProblemKind::badInput, std::move(where), std::move(what), std::move(allowed)});
  };
  if (!(net.step_s > 0.0)) bad("/step_s", Message{"network.step", Amount{net.step_s, Unit::second}}, Message{"network.time-above-0"});
  if (!(net.end_s > 0.0)) bad("/end_s", Message{"network.end", Amount{net.end_s, Unit::second}}, Message{"network.time-above-0"});
  if (!(net.pressure_Pa >= 2e4 && net.pressure_Pa <= 2e5))
    bad("/pressure_Pa", Message{"network.pressure", Amount{net.pressure_Pa, Unit::pascal}}, Message{"network.pressure-allowed"});
  std::vector<int> touched(net.nodes.size(), 0);
  const auto checkNode = [&](int node, const std::string& where) {
    if (node < 0 || node >= count) {
      bad(where, Message{"network.no-such-node"}, Message{"network.name-a-node"});
      return;
    }
    touched[static_cast<std::size_t>(node)] = 1;
  };
  for (std::size_t i = 0; i < net.links.size(); ++i) {
    const Link& link = net.links[i];
    const auto where = fmt::format("/links/{}", i);
    checkNode(link.from, where + "/from");
    checkNode(link.to, where + "/to");
    if (link.from == link.to) bad(where, Message{"network.joins-node-itself"}, Message{"network.needs-two-different-nodes"});
    if (!(link.coefficient >= 0.0) || !std::isfinite(link.coefficient)) bad(where, Message{"network.coefficient", link.coefficient}, Message{"network.0-or-more"});
    if (link.vapour >= 0) checkNode(link.vapour, where + "/vapour");
    if (link.vapour >= 0 && (link.vapour == link.from || link.vapour == link.to))
      bad(where + "/vapour", Message{"network.vapour-is-an-end"}, Message{"network.name-node-airs-humidity"});
    if (link.vapour >= 0 && link.kind != LinkKind::natural)
      bad(where + "/vapour", Message{"network.vapour-link-without-film"}, Message{"network.only-natural-links-carry"});
    if (!(link.wetShare >= 0.0 && link.wetShare <= 1.0)) bad(where + "/wet", Message{"network.wet-share", link.wetShare}, Message{"network.0-to-1"});
  }
  for (std::size_t i = 0; i < net.vents.size(); ++i) {
    const Vent& vent = net.vents[i];
    const auto where = fmt::format("/vents/{}", i);
    for (const int node : {vent.from, vent.to, vent.sensor}) checkNode(node, where);
    if (!(vent.full_C > vent.opens_C)) bad(where, Message{"network.opening-range", vent.full_C, vent.opens_C}, Message{"network.full-above-opens"});
  }
  for (std::size_t i = 0; i < net.thermostats.size(); ++i) {
    const Thermostat& t = net.thermostats[i];
    const auto where = fmt::format("/thermostats/{}", i);
    checkNode(t.sensor, where + "/sensor");
    checkNode(t.heats, where + "/heats");
    if (t.heats >= 0 && t.heats < count && net.nodes[static_cast<std::size_t>(t.heats)].boundary)
      bad(where + "/heats", Message{"network.heats-boundary"}, Message{"network.heat-node-free-temperature"});
    double elsewhere = 0.0;
    for (const HeatShare& h : t.elsewhere) {
      checkNode(h.node, where + "/elsewhere");
      if (h.node >= 0 && h.node < count && net.nodes[static_cast<std::size_t>(h.node)].boundary)
        bad(where + "/elsewhere", Message{"network.heats-boundary"}, Message{"network.heat-node-free-temperature"});
      if (!(h.share > 0.0)) bad(where + "/elsewhere", Message{"network.share", h.share}, Message{"network.above-0"});
      elsewhere += h.share;
    }
    if (elsewhere > 1.0 + 1e-12) bad(where + "/elsewhere", Message{"network.shares", elsewhere}, Message{"network.shares-at-most-1"});
    if (t.limitSignal >= static_cast<int>(net.tables.size())) bad(where + "/limit", Message{"network.no-such-signal"}, Message{"network.name-a-signal"});
    if (t.mode == Thermostat::Mode::hysteresis && !(t.off_C > t.on_C))
      bad(where, Message{"network.switch-range", t.off_C, t.on_C}, Message{"network.off-above-on"});
  }
  const auto isRelay = [&](int relay) { return relay >= 0 && relay < static_cast<int>(net.relays.size()); };
  for (std::size_t i = 0; i < net.links.size(); ++i) {
    const Link& link = net.links[i];
    if (link.relay < 0) continue;
    const bool mayBe = link.kind == LinkKind::radiative || (link.kind == LinkKind::natural && link.vapour >= 0);
    if (!isRelay(link.relay) || !mayBe || !(link.relayFactor > 0.0))
      bad(fmt::format("/links/{}/relay", i), Message{"network.link-cannot-follow-relay"}, Message{"network.long-wave-links-films"});
  }
  for (std::size_t i = 0; i < net.relays.size(); ++i) {
    const Relay& r = net.relays[i];
    const auto where = fmt::format("/relays/{}", i);
    if (const auto* by = std::get_if<SwitchedByTemperature>(&r.by)) {
      checkNode(by->sensor, where + "/sensor");
      if (!(by->off_C > by->on_C)) bad(where, Message{"network.switch-range", by->off_C, by->on_C}, Message{"network.off-above-on"});
    }
    const auto* water = std::get_if<SurfaceWater>(&r.by);
    if (!water) continue;
    if (water->film < 0 || water->film >= static_cast<int>(net.links.size()) || net.links[static_cast<std::size_t>(water->film)].vapour < 0)
      bad(where + "/film", Message{"network.no-such-film"}, Message{"network.name-natural-link-vapour"});
    else if (!(water->wets_g > 0.0 && water->holds_g >= water->wets_g))
      bad(where, Message{"network.water-range", water->wets_g, water->holds_g}, Message{"network.water-above-0"});
  }
  for (std::size_t i = 0; i < net.tables.size(); ++i) {
    const Signal& s = net.tables[i];
    const auto before = [&](int k) { return k >= 0 && k < static_cast<int>(i); };
    if (s.relay >= 0 && (!isRelay(s.relay) || !before(s.then) || !before(s.otherwise)))
      bad(fmt::format("/tables/{}", i), Message{"network.switch-without-relay-signals"}, Message{"network.both-signals-come-before"});
  }
  for (std::size_t i = 0; i < net.sources.size(); ++i) checkNode(net.sources[i].node, fmt::format("/sources/{}/node", i));
  for (std::size_t i = 0; i < net.nodes.size(); ++i) {
    if (const auto& water = net.nodes[i].water;
        water && !net.nodes[i].boundary &&
        (!(water->latent_J > 0.0) || !(water->interval_K > 0.0) || !(water->frozenCapacity_J_K > 0.0) || net.nodes[i].capacity_J_K <= 0.0))
      bad(fmt::format("/nodes/{}/water", i), Message{"network.cannot-freeze-so", net.nodes[i].id}, Message{"network.latent-heat-interval-both"});
    if (!net.nodes[i].boundary && net.nodes[i].capacity_J_K <= 0.0 && !touched[i])
      bad(fmt::format("/nodes/{}", i), Message{"network.no-capacity-no-link", net.nodes[i].id}, Message{"network.algebraic-node-needs-link"});
  }
  return problems;
}

} // namespace muffle
