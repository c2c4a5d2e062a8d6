// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/network_json.h"

#include "core/bounds.h"
#include "core/network/solver.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr Range kTemperature{-273.0, 2000.0};
constexpr Range kAnything{-1e15, 1e15};
constexpr Range kPositive{0.0, 1e15};
constexpr Range kAbove0{1e-12, 1e15};

struct TableJson {
  std::vector<double> t_s, value;
  const char* key = "C";
};
struct SineJson {
  double mean = 0, amplitude = 0, period_s = 86400, peak_s = 0;
  bool power = false;
};
struct HalfSineJson {
  double peak = 0, from_s = 0, to_s = 0;
  bool daily = false;
};
struct BoundaryJson {
  std::optional<double> constant_C;
  std::optional<SineJson> sine;
  std::optional<TableJson> table;
};
struct WaterJson {
  double latent = 0, interval = 0.5, frozen = 0;
};
struct NodeJson {
  std::string id;
  std::optional<double> capacity, initial;
  std::optional<BoundaryJson> boundary;
  std::optional<WaterJson> water;
};
struct NaturalJson {
  double area_m2 = 0, k = 0, exponent = 1.0 / 3.0, wet = 0;
  std::string vapour;
};
struct LinkJson {
  std::string from, to;
  std::optional<double> conductance, radiative, advective, evaporative;
  double frozenFactor = 1.0;
  std::optional<NaturalJson> natural;
};
struct LayerJson {
  double thickness = 0, conductivity = 0, density = 0, heat = 0;
  int cells = 0;
};
struct SolidJson {
  std::string id, from, to;
  double area = 0, initial = 0;
  Json hFrom, hTo;
  std::vector<LayerJson> layers;
};
struct PowerTableJson : TableJson {
  PowerTableJson() { key = "W"; }
};
struct PowerSineJson : SineJson {
  PowerSineJson() { power = true; }
};
struct SourceJson {
  std::string node, id;
  std::optional<double> constant_W;
  std::optional<HalfSineJson> halfSine;
  std::optional<PowerSineJson> sine;
  std::optional<PowerTableJson> table;
};
struct ThermostatJson {
  std::string id, sensor, heats, mode = "ideal";
  std::optional<double> setpoint, on, off;
  double power = 0;
};
struct VentJson {
  std::string from, to, sensor;
  double opens = 0, full = 0, conductance = 0;
};
struct NetworkJson {
  double step = 600, end = 0, every = 3600, pressure = kStandardPressure_Pa;
  std::vector<NodeJson> nodes;
  std::vector<LinkJson> links;
  std::vector<SolidJson> solids;
  std::vector<SourceJson> sources;
  std::vector<ThermostatJson> thermostats;
  std::vector<VentJson> vents;
};

template <class V> void describe(V& v, TableJson& t) {
  v.numbers("t_s", t.t_s, kAnything, "time of the table");
  v.numbers(t.key, t.value, kAnything, "value of the table");
}
template <class V> void describe(V& v, SineJson& s) {
  v.number(s.power ? "mean_W" : "mean_C", s.mean, kAnything, "mean", true);
  v.number(s.power ? "amplitude_W" : "amplitude_K", s.amplitude, kAnything, "amplitude", true);
  v.number("period_s", s.period_s, kAbove0, "period");
  v.number("peak_s", s.peak_s, kAnything, "time of the peak");
}
template <class V> void describe(V& v, HalfSineJson& s) {
  v.number("peak_W", s.peak, kAnything, "peak power", true);
  v.number("from_s", s.from_s, kAnything, "start of the half-sine", true);
  v.number("to_s", s.to_s, kAnything, "end of the half-sine", true);
  v.boolean("daily", s.daily, "repeats every day");
}
template <class V> void describe(V& v, BoundaryJson& b) {
  v.number("constant_C", b.constant_C, kTemperature, "temperature");
  v.object("sine", b.sine, "sine");
  v.object("table", b.table, "table");
}
template <class V> void describe(V& v, WaterJson& w) {
  v.number("latent_J", w.latent, kAbove0, "latent heat of all its water", true);
  v.number("interval_K", w.interval, {1e-6, 50.0}, "below 0 degC over which it freezes");
  v.number("frozen_capacity_J_K", w.frozen, kAbove0, "heat capacity when frozen", true);
}
template <class V> void describe(V& v, NodeJson& n) {
  v.text("id", n.id, "name of the node", true);
  v.number("capacity_J_K", n.capacity, kPositive, "heat capacity");
  v.number("initial_C", n.initial, kTemperature, "starting temperature");
  v.object("boundary", n.boundary, "given temperature");
  v.object("water", n.water, "water that may freeze in it");
}
template <class V> void describe(V& v, NaturalJson& n) {
  v.number("area_m2", n.area_m2, kPositive, "area", true);
  v.number("k", n.k, kPositive, "coefficient", true);
  v.number("exponent", n.exponent, {0.0, 2.0}, "exponent", true);
  v.text("vapour", n.vapour, "node of the humidity of the air that it comes from");
  v.number("wet", n.wet, {0.0, 1.0}, "share of the surface that dries");
}
template <class V> void describe(V& v, LinkJson& l) {
  v.text("from", l.from, "node it comes from", true);
  v.text("to", l.to, "node it goes to", true);
  v.number("conductance_W_K", l.conductance, kPositive, "conductance");
  v.number("radiative_m2", l.radiative, kPositive, "radiating area");
  v.number("advective_W_K", l.advective, kPositive, "flow times heat capacity");
  v.number("evaporative_W_g_kg", l.evaporative, kPositive, "heat evaporated for each g/kg");
  v.object("natural", l.natural, "natural convection");
  v.number("frozen_factor", l.frozenFactor, {1e-3, 1e3}, "of a conductance once the water at its ends is frozen");
}
template <class V> void describe(V& v, LayerJson& l) {
  v.number("thickness_m", l.thickness, {1e-6, 1000.0}, "thickness", true);
  v.number("conductivity_W_mK", l.conductivity, {1e-6, 1e5}, "conductivity", true);
  v.number("density_kg_m3", l.density, {1e-3, 1e5}, "density", true);
  v.number("heat_J_kgK", l.heat, {1e-3, 1e6}, "specific heat", true);
  v.integer("cells", l.cells, {0, 500}, "number of cells; 0 chooses them");
}
template <class V> void describe(V& v, SourceJson& s) {
  v.text("node", s.node, "node it feeds", true);
  v.text("id", s.id, "name");
  v.number("constant_W", s.constant_W, kAnything, "power");
  v.object("half_sine", s.halfSine, "half-sine");
  v.object("sine", s.sine, "sine");
  v.object("table", s.table, "table");
}
template <class V> void describe(V& v, ThermostatJson& t) {
  v.text("id", t.id, "name");
  v.text("sensor", t.sensor, "node it reads", true);
  v.text("heats", t.heats, "node it heats", true);
  v.text("mode", t.mode, "mode", true);
  v.number("setpoint_C", t.setpoint, kTemperature, "setpoint");
  v.number("on_C", t.on, kTemperature, "switch-on temperature");
  v.number("off_C", t.off, kTemperature, "switch-off temperature");
  v.number("power_W", t.power, kPositive, "full power", true);
}
template <class V> void describe(V& v, VentJson& x) {
  v.text("from", x.from, "node it comes from", true);
  v.text("to", x.to, "node it goes to", true);
  v.text("sensor", x.sensor, "node it reads", true);
  v.number("opens_C", x.opens, kTemperature, "opening temperature", true);
  v.number("full_C", x.full, kTemperature, "temperature of full opening", true);
  v.number("conductance_W_K", x.conductance, kPositive, "conductance when open", true);
}

template <class V> void describe(V& v, SolidJson& s) {
  v.text("id", s.id, "name of the solid", true);
  v.number("area_m2", s.area, kAbove0, "area", true);
  v.text("from", s.from, "node on its first side", true);
  v.text("to", s.to, "node on its last side", true);
  v.number("initial_C", s.initial, kTemperature, "starting temperature", true);
  v.list("layers", s.layers, "layers");
}
template <class V> void describe(V& v, NetworkJson& n) {
  v.fixedText("schema", "muffle-network-1");
  v.number("step_s", n.step, {1e-3, 1e7}, "time step", true);
  v.number("pressure_Pa", n.pressure, {2e4, 2e5}, "pressure of the air, for humidity");
  v.number("end_s", n.end, {1e-3, 1e11}, "end time", true);
  v.number("output_every_s", n.every, {1e-3, 1e11}, "output interval");
  v.list("nodes", n.nodes, "nodes", 100000);
  v.list("links", n.links, "links", 100000);
  v.list("solids", n.solids, "solids", 10000);
  v.list("sources", n.sources, "sources", 100000);
  v.list("thermostats", n.thermostats, "thermostats", 1000);
  v.list("vents", n.vents, "vents", 1000);
}

class Builder {
public:
  explicit Builder(Problems& problems) : m_problems(problems) {}
  Network net;

  void bad(const std::string& where, Message what, Message allowed) {
    m_problems.push_back({ProblemKind::badInput, where, std::move(what), std::move(allowed)});
  }

  int node(const std::string& id, const std::string& where) {
    const int found = net.find(id);
    if (found < 0) bad(where, Message{"network.no-node", id}, Message{"network.name-node-surface-such"});
    return found;
  }
  std::optional<Driver> table(const TableJson& t, const std::string& where) {
    if (t.t_s.empty() || t.t_s.size() != t.value.size()) {
      bad(where, Message{"network.times-values", t.t_s.size(), t.value.size()}, Message{"network.many-values-times-needed"});
      return std::nullopt;
    }
    if (std::adjacent_find(t.t_s.begin(), t.t_s.end(), std::greater_equal<>()) != t.t_s.end()) {
      bad(where + "/t_s", Message{"network.times-do-not-increase"}, Message{"network.each-time-later-than"});
      return std::nullopt;
    }
    return Driver::table(net.addSignal({t.value, t.t_s}));
  }

private:
  Problems& m_problems;
};

int countSet(std::initializer_list<bool> flags) { return static_cast<int>(std::count(flags.begin(), flags.end(), true)); }

void addNodes(Builder& b, NetworkJson& in) {
  for (std::size_t i = 0; i < in.nodes.size(); ++i) {
    NodeJson& n = in.nodes[i];
    const auto where = fmt::format("/nodes/{}", i);
    if (b.net.find(n.id) >= 0) b.bad(where + "/id", Message{"network.second-node-called", n.id}, Message{"network.names-differ"});
    if (!n.boundary) {
      if (!n.capacity) b.bad(where, Message{"network.neither-capacity-nor-boundary", n.id}, Message{"network.give-one-them"});
      if (!n.initial) b.bad(where + "/initial_C", Message{"network.start-missing"}, Message{"network.give-starting-temperature"});
      b.net.addNode(n.id, n.capacity.value_or(0.0), n.initial.value_or(0.0));
      if (n.water) b.net.nodes.back().water = FreezingWater{n.water->latent, n.water->interval, n.water->frozen};
      continue;
    }
    if (n.capacity) b.bad(where, Message{"network.both-capacity-and-boundary", n.id}, Message{"network.boundary-no-capacity"});
    BoundaryJson& boundary = *n.boundary;
    std::optional<Driver> driver;
    if (countSet({boundary.constant_C.has_value(), boundary.sine.has_value(), boundary.table.has_value()}) != 1) {
      b.bad(where + "/boundary", Message{"network.needs-exactly-one-course"}, Message{"network.kinds-of-boundary"});
    } else if (boundary.constant_C) {
      driver = Driver::constant(*boundary.constant_C);
    } else if (boundary.sine) {
      driver = Driver::sine(boundary.sine->mean, boundary.sine->amplitude, boundary.sine->period_s, boundary.sine->peak_s);
    } else {
      driver = b.table(*boundary.table, where + "/boundary/table");
    }
    b.net.addBoundary(n.id, driver.value_or(Driver::constant(0.0)));
  }
}

void addSolids(Builder& b, NetworkJson& in, const Json& document, Problems& problems) {
  for (std::size_t i = 0; i < in.solids.size(); ++i) {
    SolidJson& s = in.solids[i];
    const auto where = fmt::format("/solids/{}", i);
    Solid solid;
    solid.id = s.id;
    solid.area_m2 = s.area;
    solid.initial_C = s.initial;
    solid.from = b.node(s.from, where + "/from");
    solid.to = b.node(s.to, where + "/to");
    const Json& raw = document["solids"][i];
    for (const char* key : {"h_from_W_m2K", "h_to_W_m2K"}) {
      auto& target = std::string_view(key) == "h_from_W_m2K" ? solid.hFrom_W_m2K : solid.hTo_W_m2K;
      const auto it = raw.find(key);
      if (it == raw.end())
        problems.push_back({ProblemKind::missing, where + "/" + key, Message{"network.missing", key}, Message{"network.give-film-coefficient-null"}});
      else if (it->is_number() && it->get<double>() > 0.0 && it->get<double>() <= 1e9)
        target = it->get<double>();
      else if (!it->is_null())
        b.bad(where + "/" + key, Message{"network.film-coefficient", describeValue(*it)}, Message{"network.more-than-0-needed"});
    }
    if (s.layers.empty()) b.bad(where + "/layers", Message{"network.no-layers"}, Message{"network.least-one-layer-needed"});
    for (const LayerJson& l : s.layers) solid.layers.push_back({l.thickness, l.conductivity, l.density, l.heat, l.cells});
    if (problems.empty()) b.net.addSolid(std::move(solid));
  }
}

void addLinks(Builder& b, const NetworkJson& in) {
  for (std::size_t i = 0; i < in.links.size(); ++i) {
    const LinkJson& l = in.links[i];
    const auto where = fmt::format("/links/{}", i);
    const int from = b.node(l.from, where + "/from");
    const int to = b.node(l.to, where + "/to");
    if (countSet({l.conductance.has_value(), l.radiative.has_value(), l.natural.has_value(), l.advective.has_value(), l.evaporative.has_value()}) != 1)
      b.bad(where, Message{"network.needs-exactly-one-kind"}, Message{"network.kinds-of-link"});
    else if (l.conductance)
      b.net.addConductance(from, to, *l.conductance).frozenFactor = l.frozenFactor;
    else if (l.radiative)
      b.net.addRadiative(from, to, *l.radiative);
    else if (l.advective)
      b.net.addAdvective(from, to, *l.advective);
    else if (l.evaporative)
      b.net.addEvaporative(from, to, *l.evaporative);
    else {
      Link& link = b.net.addNatural(from, to, l.natural->area_m2, l.natural->k, l.natural->exponent);
      link.wetShare = l.natural->wet;
      if (!l.natural->vapour.empty()) link.vapour = b.node(l.natural->vapour, where + "/natural/vapour");
    }
  }
}

void addSources(Builder& b, NetworkJson& in) {
  for (std::size_t i = 0; i < in.sources.size(); ++i) {
    SourceJson& s = in.sources[i];
    const auto where = fmt::format("/sources/{}", i);
    Source source;
    source.node = b.node(s.node, where + "/node");
    source.id = s.id.empty() ? fmt::format("{}:{}", s.node, i) : s.id;
    if (countSet({s.constant_W.has_value(), s.halfSine.has_value(), s.sine.has_value(), s.table.has_value()}) != 1)
      b.bad(where, Message{"network.needs-exactly-one-course-power"}, Message{"network.kinds-of-source"});
    else if (s.constant_W)
      source.power = Driver::constant(*s.constant_W);
    else if (s.halfSine && !(s.halfSine->to_s > s.halfSine->from_s))
      b.bad(where + "/half_sine/to_s", Message{"network.half-sine-range", s.halfSine->to_s, s.halfSine->from_s}, Message{"network.half-sine-must-rise"});
    else if (s.halfSine)
      source.power = Driver::halfSine(s.halfSine->peak, s.halfSine->from_s, s.halfSine->to_s, s.halfSine->daily);
    else if (s.sine)
      source.power = Driver::sine(s.sine->mean, s.sine->amplitude, s.sine->period_s, s.sine->peak_s);
    else if (const auto driver = b.table(*s.table, where + "/table"))
      source.power = *driver;
    b.net.sources.push_back(source);
  }
}

void addControls(Builder& b, const NetworkJson& in) {
  for (std::size_t i = 0; i < in.thermostats.size(); ++i) {
    const ThermostatJson& t = in.thermostats[i];
    const auto where = fmt::format("/thermostats/{}", i);
    Thermostat out;
    out.id = t.id.empty() ? fmt::format("thermostat{}", i) : t.id;
    out.sensor = b.node(t.sensor, where + "/sensor");
    out.heats = b.node(t.heats, where + "/heats");
    out.power_W = t.power;
    if (t.mode == "ideal") {
      if (!t.setpoint) b.bad(where + "/setpoint_C", Message{"network.setpoint-missing"}, Message{"network.ideal-thermostat-needs"});
      out.setpoint_C = t.setpoint.value_or(0.0);
    } else if (t.mode == "hysteresis") {
      if (!t.on || !t.off) b.bad(where, Message{"network.switch-missing"}, Message{"network.hysteresis-thermostat-needs-both"});
      out.mode = Thermostat::Mode::hysteresis;
      out.on_C = t.on.value_or(0.0);
      out.off_C = t.off.value_or(1.0);
    } else {
      b.bad(where + "/mode", Message{"network.not-mode", t.mode}, Message{"network.use-ideal-hysteresis"});
    }
    b.net.thermostats.push_back(out);
  }
  for (std::size_t i = 0; i < in.vents.size(); ++i) {
    const VentJson& x = in.vents[i];
    const auto where = fmt::format("/vents/{}", i);
    b.net.vents.push_back(
        {b.node(x.from, where + "/from"), b.node(x.to, where + "/to"), b.node(x.sensor, where + "/sensor"), x.opens, x.full, x.conductance, {}});
  }
}

/// The schema of the solids' film coefficients allows null, which FieldReader does not: they are read apart.
Json withoutFilms(Json document) {
  const auto it = document.find("solids");
  if (it != document.end() && it->is_array()) {
    for (Json& solid : *it) {
      if (!solid.is_object()) continue;
      solid.erase("h_from_W_m2K");
      solid.erase("h_to_W_m2K");
    }
  }
  return document;
}

} // namespace

Result<Network> networkFromJson(const Json& document) {
  if (!document.is_object())
    return Problem{ProblemKind::badInput, "/", Message{"json.stands-here", describeValue(document)}, Message{"network.object-schema-muffle-network"}};
  Problems problems;
  NetworkJson in;
  const Json plain = withoutFilms(document);
  FieldReader reader(plain, "", problems);
  describe(reader, in);
  reader.finish();
  if (!problems.empty()) return problems;
  Builder b(problems);
  b.net.step_s = in.step;
  b.net.pressure_Pa = in.pressure;
  b.net.end_s = in.end;
  b.net.outputEvery_s = in.every;
  addNodes(b, in);
  addSolids(b, in, document, problems);
  if (!problems.empty()) return problems;
  addLinks(b, in);
  const auto atMost = [&](const char* code, std::size_t n, std::size_t most) {
    if (n > most) problems.push_back({ProblemKind::badInput, "/", Message{code, n}, Message{"network.at-most", most}});
  };
  atMost("network.too-many-nodes", b.net.nodes.size(), bounds::kNetworkNodes);
  atMost("network.too-many-links", b.net.links.size(), bounds::kNetworkLinks);
  if (!problems.empty()) return problems;
  addSources(b, in);
  addControls(b, in);
  if (!problems.empty()) return problems;
  if (Problems found = validate(b.net); !found.empty()) return found;
  return std::move(b.net);
}

Json networkToJson(const Network& net) {
  Json out{
      {"schema", "muffle-network-1"}, {"step_s", net.step_s}, {"end_s", net.end_s}, {"output_every_s", net.outputEvery_s}, {"pressure_Pa", net.pressure_Pa}};
  const auto id = [&](int node) { return net.nodes[static_cast<std::size_t>(node)].id; };
  const auto tableOf = [&](const Driver& d, const char* key) {
    const Signal& s = net.tables[static_cast<std::size_t>(d.signal)];
    Json t{{"t_s", Json::array()}, {key, Json::array()}};
    for (std::size_t i = 0; i < s.value.size(); ++i) {
      t["t_s"].push_back(s.step_s > 0.0 ? s.start_s + s.step_s * static_cast<double>(i) : s.t_s[i]);
      t[key].push_back(d.mean + d.amplitude * s.value[i]);
    }
    return t;
  };
  out["nodes"] = Json::array();
  for (const Node& n : net.nodes) {
    Json node{{"id", n.id}};
    if (!n.boundary) {
      node["capacity_J_K"] = n.capacity_J_K;
      node["initial_C"] = n.initial_C;
      if (n.water) node["water"] = {{"latent_J", n.water->latent_J}, {"interval_K", n.water->interval_K}, {"frozen_capacity_J_K", n.water->frozenCapacity_J_K}};
    } else if (n.boundary->kind == Driver::Kind::constant) {
      node["boundary"]["constant_C"] = n.boundary->mean;
    } else if (n.boundary->kind == Driver::Kind::sine) {
      node["boundary"]["sine"] = {
          {"mean_C", n.boundary->mean}, {"amplitude_K", n.boundary->amplitude}, {"period_s", n.boundary->period_s}, {"peak_s", n.boundary->peak_s}};
    } else {
      node["boundary"]["table"] = tableOf(*n.boundary, "C");
    }
    out["nodes"].push_back(node);
  }
  out["links"] = Json::array(); // solids are written as the nodes and links they were made into
  for (const Link& l : net.links) {
    Json link{{"from", id(l.from)}, {"to", id(l.to)}};
    switch (l.kind) {
    case LinkKind::conductance:
      link["conductance_W_K"] = l.coefficient;
      if (l.frozenFactor != 1.0) link["frozen_factor"] = l.frozenFactor;
      break;
    case LinkKind::radiative: link["radiative_m2"] = l.coefficient; break;
    case LinkKind::advective: link["advective_W_K"] = l.coefficient; break;
    case LinkKind::evaporative: link["evaporative_W_g_kg"] = l.coefficient; break;
    case LinkKind::natural:
      link["natural"] = {{"area_m2", 1.0}, {"k", l.coefficient}, {"exponent", l.exponent}};
      if (l.vapour >= 0) link["natural"].update({{"vapour", id(l.vapour)}, {"wet", l.wetShare}});
      break;
    }
    out["links"].push_back(link);
  }
  out["sources"] = Json::array();
  for (const Source& s : net.sources) {
    Json source{{"node", id(s.node)}, {"id", s.id}};
    switch (s.power.kind) {
    case Driver::Kind::constant: source["constant_W"] = s.power.mean; break;
    case Driver::Kind::sine:
      source["sine"] = {{"mean_W", s.power.mean}, {"amplitude_W", s.power.amplitude}, {"period_s", s.power.period_s}, {"peak_s", s.power.peak_s}};
      break;
    case Driver::Kind::halfSine:
      source["half_sine"] = {{"peak_W", s.power.amplitude}, {"from_s", s.power.from_s}, {"to_s", s.power.to_s}, {"daily", s.power.daily}};
      break;
    case Driver::Kind::table: source["table"] = tableOf(s.power, "W"); break;
    }
    out["sources"].push_back(source);
  }
  out["thermostats"] = Json::array();
  for (const Thermostat& t : net.thermostats) {
    Json thermostat{{"id", t.id}, {"sensor", id(t.sensor)}, {"heats", id(t.heats)}, {"power_W", t.power_W}};
    if (t.mode == Thermostat::Mode::ideal)
      thermostat.update({{"mode", "ideal"}, {"setpoint_C", t.setpoint_C}});
    else
      thermostat.update({{"mode", "hysteresis"}, {"on_C", t.on_C}, {"off_C", t.off_C}});
    out["thermostats"].push_back(thermostat);
  }
  out["vents"] = Json::array();
  for (const Vent& v : net.vents)
    out["vents"].push_back({{"from", id(v.from)},
                            {"to", id(v.to)},
                            {"sensor", id(v.sensor)},
                            {"opens_C", v.opens_C},
                            {"full_C", v.full_C},
                            {"conductance_W_K", v.conductance_W_K}});
  return out;
}

Result<NetworkRun> runNetwork(const Network& net) {
  const double steps = net.end_s / net.step_s, rows = net.end_s / net.outputEvery_s;
  if (steps > bounds::kNetworkSteps)
    return Problem{ProblemKind::badInput, "/step_s", Message{"network.steps-would-needed", std::llround(steps), Amount{net.step_s, Unit::second, 6}},
                   Message{"network.most-allowed-longer-step", std::llround(bounds::kNetworkSteps)}};
  const double cells = rows * static_cast<double>(net.nodes.size() + net.aliases.size() + net.thermostats.size());
  if (cells > bounds::kNetworkCells)
    return Problem{ProblemKind::badInput, "/output_every_s", Message{"network.rows-numbers-would-written", std::llround(rows), std::llround(cells)},
                   Message{"network.most-numbers-allowed-write", std::llround(bounds::kNetworkCells)}};
  // a network on its own is a question of accuracy, not of a thousand seasons
  auto solver = Solver::prepare(net, {.newtonTolerance_K = 1e-6});
  if (!solver) return solver.problems();
  std::vector<int> columns;
  NetworkRun run;
  run.csv = "t_s";
  for (std::size_t i = 0; i < net.nodes.size(); ++i) {
    const std::string& id = net.nodes[i].id;
    const auto colon = id.find(':');
    if (colon != std::string::npos && id.find('.', colon) != std::string::npos) continue; // cells inside a layer
    columns.push_back(static_cast<int>(i));
    run.csv += "," + id;
  }
  for (const auto& [name, node] : net.aliases) {
    columns.push_back(node);
    run.csv += "," + name;
  }
  for (const Thermostat& t : net.thermostats) run.csv += "," + t.id + "_W";
  run.csv += "\n";
  std::vector<double> energy(net.thermostats.size(), 0.0);
  double since = 0.0;
  const auto row = [&] {
    run.csv += fmt::format("{:.10g}", solver->time_s());
    for (const int c : columns) run.csv += fmt::format(",{:.10g}", solver->temperature_C(c));
    for (double& e : energy) {
      run.csv += fmt::format(",{:.10g}", since > 0.0 ? e / since : 0.0);
      e = 0.0;
    }
    since = 0.0;
    run.csv += "\n";
  };
  row();
  double nextOutput = net.outputEvery_s;
  while (solver->time_s() < net.end_s * (1.0 - 1e-12)) {
    const double t = solver->time_s();
    // steps end on output times and on the end, so that every row is a computed state
    double h = std::min({net.step_s, net.end_s - t, nextOutput - t});
    if (!solver->advance(h))
      return Problem{ProblemKind::noSolution, fmt::format("t = {} s", t), Message{"network.no-solution-was-found"},
                     Message{"network.check-conductances-capacities-absurd"}};
    for (std::size_t j = 0; j < energy.size(); ++j) energy[j] += solver->lastPower_W(static_cast<int>(j)) * h;
    since += h;
    if (solver->time_s() >= nextOutput * (1.0 - 1e-12)) {
      row();
      nextOutput += net.outputEvery_s;
    }
  }
  if (since > 0.0) row();
  const EnergyBalance balance = solver->balance();
  Json& s = run.summary;
  s["schema"] = "muffle-network-run-1";
  s["thermostats_J"] = Json::object();
  for (std::size_t i = 0; i < net.thermostats.size(); ++i) s["thermostats_J"][net.thermostats[i].id] = balance.thermostat_J[i];
  s["thermostat_starts"] = Json::object();
  for (std::size_t i = 0; i < net.thermostats.size(); ++i) s["thermostat_starts"][net.thermostats[i].id] = solver->starts(static_cast<int>(i));
  s["sources_J"] = Json::object();
  for (std::size_t i = 0; i < net.sources.size(); ++i) s["sources_J"][net.sources[i].id] = balance.source_J[i];
  s["boundaries_J"] = Json::object();
  for (std::size_t i = 0; i < net.nodes.size(); ++i)
    if (net.nodes[i].boundary) s["boundaries_J"][net.nodes[i].id] = balance.boundary_J[i];
  s["advection_J"] = balance.advection_J;
  s["storage_change_J"] = balance.storageChange_J;
  s["closure"] = balance.closure();
  return run;
}

} // namespace muffle
