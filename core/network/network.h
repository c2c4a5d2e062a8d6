// SPDX-License-Identifier: GPL-3.0-or-later
//
// An explicit thermal network: nodes joined by links, fed by sources, held by thermostats. It knows no greenhouses.
//   C_i dT_i/dt = sum of link flows + sources + thermostats        (C_i = 0: algebraic, the sum is zero)
// Temperatures in degC, powers in W, conductances in W/K, times in s from the start of the run.
// A node may hold the humidity of some air instead, in g/kg with J per g/kg for its capacity (core/network/vapour.h).
//
//   Network net;
//   const int air = net.addNode("air", 250e3, 8.0);
//   const int out = net.addBoundary("out", Driver::constant(-5.0));
//   net.addConductance(air, out, 120.0);
//   auto solver = Solver::prepare(net);
#pragma once

#include "core/constants.h"
#include "core/network/freezing.h"
#include "core/network/relays.h"
#include "core/status.h"

#include <algorithm>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace muffle {

/// Values over time. Regular when step_s > 0 (times start_s + i step_s), else at the given times (increasing).
/// Linear between points and held at the ends; `hold` keeps each value until the next point instead.
struct Signal {
  std::vector<double> value;
  std::vector<double> t_s;
  double start_s = 0.0;
  double step_s = 0.0;
  bool hold = false;
  int relay = -1;                ///< set: no table but a switch between two others, for modulators only
  int then = -1, otherwise = -1; ///< while it is on, and off; both before this one
  [[nodiscard]] double at(double t_s) const;
  /// From when on, after t, it has another value than at t; infinite where it keeps that, and t itself where it does not hold its values.
  [[nodiscard]] double nextChange_s(double t_s) const;
  /// For a regular signal that is not empty: its value at (t - start_s)/step_s.
  [[nodiscard]] double atPosition(double position) const {
    if (position <= 0.0) return value.front();
    const auto last = value.size() - 1;
    if (position >= static_cast<double>(last)) return value.back();
    const auto i = static_cast<std::size_t>(position);
    return hold ? value[i] : value[i] + (value[i + 1] - value[i]) * (position - static_cast<double>(i));
  }
};

/// A quantity that drives a boundary (degC) or a source (W).
struct Driver {
  enum class Kind { constant, sine, table, halfSine };
  Kind kind = Kind::constant;
  bool isSet = false;      ///< constant: Solver::setBoundary() or setSource() changes it between steps
  double mean = 0.0;       ///< constant value, mean of the sine, offset of the table, 0 for a half-sine
  double amplitude = 0.0;  ///< of the sine, peak of the half-sine, factor on the table
  double period_s = 86400; ///< of the sine, > 0
  double peak_s = 0.0;     ///< time of the sine's maximum
  double from_s = 0.0;     ///< half-sine: starts
  double to_s = 0.0;       ///< half-sine: ends, > from_s
  bool daily = false;      ///< half-sine: repeats every 86 400 s
  int signal = -1;         ///< table: index into Network::tables

  static Driver constant(double value);
  /// Changed between steps by what the network does not know of, such as a pile of compost.
  static Driver set(double value);
  static Driver sine(double mean, double amplitude, double period_s, double peak_s);
  static Driver table(int signal, double factor = 1.0, double offset = 0.0);
  static Driver halfSine(double peak, double from_s, double to_s, bool daily);
  [[nodiscard]] double at(double t_s, const std::vector<Signal>& tables) const;
};

struct Node {
  std::string id;
  double capacity_J_K = 0.0; ///< >= 0; 0 makes an algebraic node
  double initial_C = 0.0;
  std::optional<Driver> boundary;          ///< set: the temperature is given
  std::optional<FreezingWater> water = {}; ///< that may freeze in it; its capacity is then the thawed one
};

enum class LinkKind {
  conductance, ///< q = G (Ta - Tb), G in W/K
  radiative,   ///< q = sigma A (Ta^4 - Tb^4), A in m2
  natural,     ///< q = k A (dT^2 + 0.01)^(p/2) dT, k in W/m2K^(1+p)
  advective,   ///< m cp (Ta - Tb) into b; a is not cooled by it
  evaporative, ///< q = g (x_s(Ta) - xb), from a node with a temperature to one with a humidity; g in W per g/kg
};

struct Link {
  LinkKind kind = LinkKind::conductance;
  int from = -1;
  int to = -1;
  double coefficient = 0.0;  ///< W/K, m2, k x A or W/K by kind; >= 0
  double exponent = 0.0;     ///< natural only
  int vapour = -1;           ///< natural only: humidity of the air at `from`, which condenses on the surface at `to`
  double frozenFactor = 1.0; ///< plain conductance only: of the coefficient once the water at both ends is frozen
  double wetShare = 0.0;     ///< natural with vapour: of the surface that gives water up while it dries, 0..1
  int modulator = -1;        ///< signal that multiplies the coefficient, sampled at mid-step; -1 none
  std::string part;          ///< name under which flows are reported; may be empty
  int relay = -1;            ///< radiative: the coefficient has relayFactor while it is on; natural with vapour: all of it is wet then
  double relayFactor = 1.0;  ///< > 0
  /// Sensible flow from -> to without the modulator, W; an advective link's counts into `to`. Not for evaporative links.
  [[nodiscard]] double flow_W(double from_C, double to_C) const;
};

/// Rounds natural convection off below 0.1 K.
inline constexpr double kNaturalSmoothing_K2 = 0.01;

struct SolidLayer {
  double thickness_m = 0.0; ///< > 0
  double conductivity_W_mK = 0.0;
  double density_kg_m3 = 0.0;
  double heat_J_kgK = 0.0;
  int cells = 0;                        ///< 0: chosen from the layer's diffusivity
  double latent_J_m3 = 0.0;             ///< of the water in it; 0 if none freezes
  double frozenConductivity_W_mK = 0.0; ///< 0: as thawed
  double frozenHeat_J_m3K = 0.0;        ///< 0: as thawed
  double freezingInterval_K = 0.5;
};

/// A plane solid between two nodes. Its layer boundaries are nodes "id:0" (first surface), "id:1", ...
struct Solid {
  std::string id;
  double area_m2 = 0.0;
  int from = -1;
  std::optional<double> hFrom_W_m2K = {}; ///< none: perfect contact
  int to = -1;
  std::optional<double> hTo_W_m2K = {};
  double initial_C = 0.0;
  std::optional<double> initialFar_C = {}; ///< set: the start is a straight line from initial_C to this
  std::vector<SolidLayer> layers = {};
  std::string part = {}; ///< for the link on the `from` side
};

struct Source {
  int node = -1;
  Driver power;
  std::string id;
};

/// Of a heater's power, what goes to another node: a surface by radiation, a room's humidity by what burning makes.
struct HeatShare {
  int node = -1;
  double share = 0.0; ///< > 0, all of a thermostat's together at most 1
};

struct Thermostat {
  enum class Mode {
    ideal,     ///< the mean power of the step that ends it on the setpoint, within 0..power_W
    hysteresis ///< full power from on_C down until off_C up; starts off
  };
  std::string id;
  int sensor = -1;
  int heats = -1;
  Mode mode = Mode::ideal;
  double setpoint_C = 0.0;
  int setpointSignal = -1; ///< hold signal in degC that replaces setpoint_C; ideal only
  double on_C = 0.0;
  double off_C = 0.0;
  double power_W = 0.0;
  int limitSignal = -1;                  ///< signal that multiplies power_W: a capacity by the weather, or mains that are off; held ones jump
  std::vector<HeatShare> elsewhere = {}; ///< the rest goes to `heats`
};

struct Vent {
  int from = -1;
  int to = -1;
  int sensor = -1;
  double opens_C = 0.0;
  double full_C = 0.0; ///< > opens_C
  double conductance_W_K = 0.0;
  std::string part;
  int modulator = -1; ///< signal that multiplies the conductance, such as a lock-out (hold) or the wind; sampled at mid-step
};

/// How far a vent stands open by its sensor, 0..1.
inline double openness(double sensor_C, double opens_C, double full_C) { return std::clamp((sensor_C - opens_C) / (full_C - opens_C), 0.0, 1.0); }

struct Network {
  std::vector<Node> nodes;
  std::vector<Link> links;
  std::vector<Solid> solids;
  std::vector<Source> sources;
  std::vector<Thermostat> thermostats;
  std::vector<Vent> vents;
  std::vector<Signal> tables;
  std::vector<Relay> relays;
  double pressure_Pa = kStandardPressure_Pa;        ///< of the air, for saturation
  std::vector<std::pair<std::string, int>> aliases; ///< surfaces in perfect contact with a node: name, node
  double step_s = 600.0;
  double end_s = 86400.0;
  double outputEvery_s = 3600.0;

  int addNode(std::string id, double capacity_J_K, double initial_C);
  int addBoundary(std::string id, Driver driver);
  int addSignal(Signal signal);
  /// A signal that is one of two others by a relay.
  int addSwitch(int relay, int then, int otherwise);
  Link& addConductance(int from, int to, double conductance_W_K, std::string part = {});
  Link& addRadiative(int from, int to, double area_m2, std::string part = {});
  Link& addNatural(int from, int to, double area_m2, double k, double exponent, std::string part = {});
  Link& addEvaporative(int from, int to, double g_W_g_kg, std::string part = {});
  Link& addAdvective(int from, int to, double mcp_W_K, std::string part = {});
  /// Appends the solid and the nodes of its layer boundaries and cells; returns the node of its first surface.
  int addSolid(Solid solid);
  /// Node index of an id or alias, -1 if there is none.
  [[nodiscard]] int find(const std::string& id) const;
};

/// Everything that keeps a network from being solved.
Problems validate(const Network& network);

} // namespace muffle
