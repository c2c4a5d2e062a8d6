// SPDX-License-Identifier: GPL-3.0-or-later
//
// A network's heat flows compiled for repeated evaluation. Nodes get slots: free ones first, in elimination order, then the
// boundaries.
//   f = sources + conductances + long-wave + one-way links + natural convection + vapour + vents          W, by row
// Rows are the slots (net heat into each; at a boundary what it takes up), then one per tracked group of links, then one for
// the heat that one-way links carry off free nodes. Links whose relay is 0 are left out until it is not.
// The Jacobian on the free slots shares the pattern, so that C - s J is filled and factored without a search.
// Nothing allocates but activate(), which runs when links come into force or leave it.
//
//   NetworkFlows flows(network, {});
//   FlowState now = flows.makeState();
//   flows.drive(t_s, now);
//   flows.modulate(t_s, now);
//   flows.evaluate(now, &slopes);
#pragma once

#include "core/network/drivers.h"
#include "core/network/freezing.h"
#include "core/network/reported_rows.h"
#include "core/network/sparse_lu.h"
#include "core/network/vapour.h"

#include <algorithm>
#include <array>
#include <memory>
#include <span>
#include <vector>

namespace muffle {

/// Temperatures, driven values and flows at one instant.
struct FlowState {
  std::vector<double> T;     ///< degC, by slot
  std::vector<double> value; ///< of the drivers
  std::vector<double> f;     ///< W, by row; thermostats are not in it
  bool reported = true;      ///< the rows past the free slots are in f
};

/// What the Jacobian is made of, at the temperatures of an evaluation.
struct FlowSlopes {
  std::vector<double> fourCubed; ///< 4 T_K^3, by slot
  std::vector<double> natural;   ///< W/K, by active link
  std::vector<double> varying;   ///< W/K, by varying conductance, when the matrix was factored
  VapourSlopes vapour;
  struct Vent {
    double opening, sensor;
  };
  std::vector<Vent> vent;       ///< W/K
  std::vector<double> reported; ///< of the rows past the free slots, when the matrix was factored
};

class NetworkFlows {
public:
  NetworkFlows() = default;
  /// groupOfLink: by link, then by vent, the tracked group (0..) or -1; may be empty.
  NetworkFlows(std::shared_ptr<const Network> network, const std::vector<int>& groupOfLink);

  [[nodiscard]] int freeCount() const { return m_free; }
  [[nodiscard]] int slotCount() const { return m_slots; }
  [[nodiscard]] int rowCount() const { return m_rows; }
  [[nodiscard]] int groupRow(int group) const { return m_slots + group; }
  [[nodiscard]] int advectionRow() const { return m_rows - 1; }
  [[nodiscard]] std::size_t slot(int node) const { return static_cast<std::size_t>(m_slot[static_cast<std::size_t>(node)]); }
  [[nodiscard]] int boundaryNode(int slot) const { return m_boundaryNode[static_cast<std::size_t>(slot - m_free)]; }
  [[nodiscard]] const std::vector<double>& capacity_J_K() const { return m_capacity; } ///< by free slot
  [[nodiscard]] bool isNonlinear() const { return m_nonlinear; }
  [[nodiscard]] bool hasAlgebraic() const { return m_algebraic; }
  [[nodiscard]] const NetworkDrivers& drivers() const { return m_drivers; }
  /// Of a boundary or source made by Driver::set().
  void setBoundary(int node, double value_C) { m_drivers.setBoundary(slot(node) - static_cast<std::size_t>(m_free), value_C); }
  void setSource(int source, double value_W) { m_drivers.setSource(static_cast<std::size_t>(source), value_W); }

  [[nodiscard]] FlowState makeState() const;
  [[nodiscard]] FlowSlopes makeSlopes() const;

  /// Takes up which water is frozen at these temperatures, by slot; for a start.
  void startFreezing(std::span<const double> T);
  /// After a step from `before` to T: true if water has begun or ceased to freeze somewhere; T is then put right, and flows and
  /// slopes must be evaluated anew.
  bool settleFreezing(std::span<const double> before, std::span<double> T);
  [[nodiscard]] const FreezingNodes& freezing() const { return m_freezing; }
  /// A commanded relay; flows and slopes must be evaluated anew.
  void setRelay(int relay, bool on);

  /// The relays by the temperatures T alone, for a start.
  void startRelays(std::span<const double> T);
  /// After a step of h seconds to T: true if one has switched; flows and slopes must be evaluated anew.
  bool settleRelays(std::span<const double> T, double h_s);
  [[nodiscard]] const Relays& relays() const { return m_relays; }

  /// Boundary temperatures and driven values at time t.
  void drive(double t_s, FlowState& state) const;
  /// Takes the modulators of time t. True if `state.f` was right before and has been brought up to date (only plain
  /// conductances changed); false if it and the slopes must be evaluated anew.
  bool modulate(double t_s, FlowState& state);
  /// The same where no flows are to be kept right: false if one of them has jumped or the operator had to be laid out anew.
  bool modulate(double t_s);
  /// The modulators of a step that spans two of the tables' samples: their value at its end, and half of what the middle lies off the
  /// line between start and end, so that the mean is that of the three. False, with nothing taken, if one changes that lays the operator
  /// out or is held, or if what a link bends by moves a node by more than `most_K` (by the pivots in force, over s seconds).
  bool modulateOver(double middle_s, double end_s, const std::vector<double>& T, double s, double most_K);
  /// How far the driven values' bend at the middle of such a step moves a node at most, K; boundaries by their own bend.
  [[nodiscard]] double drivenBend_K(const FlowState& start, const FlowState& middle, const FlowState& end, double s) const;
  /// Sets the boundaries out from the state's driven values.
  void setBoundaries(FlowState& state) const;
  /// f at the state's temperatures; slopes too where wanted. Rows before `from` are taken to be right already; it is 0 or
  /// linearCount().
  void evaluate(const FlowState& state, std::vector<double>& f, FlowSlopes* slopes = nullptr, int from = 0);
  /// A vent stands between shut and full at these temperatures, by slot: the house then follows a steep curve with a corner at
  /// either end.
  [[nodiscard]] bool ventOnRamp(const std::vector<double>& T) const;
  /// One passes such a corner between two states.
  [[nodiscard]] bool ventTurns(const std::vector<double>& from, const std::vector<double>& to) const;
  /// A relay that goes by a temperature would not stay as it is at these, by slot.
  [[nodiscard]] bool relayTurns(const std::vector<double>& T) const;
  /// The leading free slots whose every link is a conductance that never changes: a linear solve leaves their flows exact.
  [[nodiscard]] int linearCount() const { return m_lu.fixedCount(); }

  /// The change of heat into the free slots when driven values and boundaries move from one state to another, along the
  /// slopes; `delta` holds the boundaries' moves, and zeros at the free slots. Adds to `f`.
  void addDriven(const FlowSlopes& slopes, const FlowState& from, const FlowState& to, const double* delta, double* f) const;
  /// Adds J delta to the rows that are not free slots, by slopes that a matrix was factored with.
  void addToReported(const FlowSlopes& slopes, const double* delta, double* f) const { m_reported.multiply(slopes.reported, delta, f); }
  /// The same where boundaries stand still.
  void addFreeToReported(const FlowSlopes& slopes, const double* delta, double* f) const { m_reported.multiplyFree(slopes.reported, delta, f); }
  /// Adds what the driven values' change brings to boundary rows, times `weight`.
  void addSourcesAtBoundaries(const FlowState& from, const FlowState& to, double weight, double* f) const;

  /// About how far, in K, a stage solved along the slopes from one state to the other lies from its true answer: what the
  /// curves of its links leave over, by each node's pivot. `largest_K` is the furthest that anything moved.
  [[nodiscard]] double curvature_K(const FlowSlopes& slopes, const FlowState& from, const FlowState& to, double s, double largest_K) const;
  /// The pivots' inverses of the last factorisation, K/J, by free slot.
  [[nodiscard]] const std::vector<double>& inversePivots() const { return m_lu.inverseDiagonal(); }

  /// Counts the changes of links that make slopes and matrices of before useless.
  [[nodiscard]] long layout() const { return m_layoutCount; }

  /// A factored matrix that is set aside while another is in force.
  using Factors = SparseLu::Numbers;
  [[nodiscard]] Factors makeFactors() const { return m_lu.makeNumbers(); }
  void swapFactors(Factors& factors) { m_lu.swap(factors); }

  /// Factors C - s J.
  void factor(double s, FlowSlopes& slopes);
  void solve(double* b) const { m_lu.solve(b); }
  void solve(double* b, double* c) const { m_lu.solve(b, c); }

private:
  struct FrozenLink {
    int a, b;
    double factor;
  };
  struct Entries {
    int aa, ab, ba, bb;
  };
  static void addEntries(double* matrix, const Entries& at, double g) {
    matrix[at.aa] += g;
    matrix[at.ba] -= g;
    matrix[at.bb] += g;
    matrix[at.ab] -= g;
  }
  struct Natural {
    int a, b, group;
    double g, halfExponent;
    int modulator;
    bool third;
    bool reported; ///< touches a boundary or a group
    Entries at;
    int vapour; ///< its film in m_vapour, or -1
    int relay;  ///< wets it, or -1
    double wetShare;
  };
  struct VentSlots {
    int a, b, sensor, group;
    double opens, span, full, g; ///< g: full by the modulator at present
    Entries at;
    int as, bs;
    int modulator;
  };
  static double opening(const VentSlots& v, const double* T) { return std::clamp((T[v.sensor] - v.opens) / v.span, 0.0, 1.0); }
  /// A conductance or one-way link whose modulator is no relay.
  struct Varying {
    int a, b, group;
    int paid; ///< the row that the flow is taken from, or that counts it for a one-way link out of a free node
    double sign;
    double full, g;
    int modulator, frozen;
    bool oneWay, reported;
    Entries at;
  };
  /// A conductance that never changes, or a long-wave link: q = g (T_a - T_b), or of the fourth powers.
  struct Plain {
    int a, b, group;
    double full;
    int modulator; ///< a relay, or -1
    int frozen;    ///< index into m_frozenLinks, or -1
    bool reported; ///< touches a boundary or a group
    Entries at;
    int relay; ///< or -1
    double relayFactor;
  };
  /// What evaluate() needs of one that is in force.
  struct Pair {
    int a, b;
    double g;
  };
  struct PlainLinks {
    std::vector<Plain> all, active; ///< tracked ones first, then the others that are reported
    std::vector<Pair> pair;         ///< of the active ones
    std::size_t tracked = 0, reported = 0;
  };
  struct Base {
    double s = -1.0;
    std::vector<double> values, inverse;
  };
  struct Source {
    int row, value;
    double factor;
  };

  void orderNodes(const Network& network);
  void addLinks(const Network& network, const std::vector<int>& groupOfLink);
  void activate();
  void activateModulated();
  void activate(PlainLinks& links);
  enum class Modulation { same, changed, jumped, laidOut };
  Modulation takeModulators(double t_s);
  [[nodiscard]] double varyingStrength(const Varying& v) const;
  /// A flow q of a varying link into f, by row.
  static void take(const Varying& v, double q, double* f) {
    f[v.paid] += v.sign * q;
    f[v.b] += q;
    if (v.group >= 0) f[v.group] += q;
  }
  const Base& baseFor(double s);
  void markReported();
  void collectReported(FlowSlopes& slopes) const;
  void collectReported(const PlainLinks& links, std::vector<double>& values) const;
  /// Of a link by the state of the water at its ends.
  [[nodiscard]] double frozenStrength(int link) const;
  [[nodiscard]] double plainStrength(const Plain& link) const {
    return link.full * strength(link.modulator) * frozenStrength(link.frozen) * (m_relays.isOn(link.relay) ? link.relayFactor : 1.0);
  }
  void followRelays();
  [[nodiscard]] double strength(int modulator) const { return modulator < 0 ? 1.0 : m_modulator[static_cast<std::size_t>(modulator)]; }

  std::shared_ptr<const Network> m_network;
  NetworkDrivers m_drivers;
  SparseLu m_lu;
  int m_free = 0, m_slots = 0, m_rows = 0;
  std::vector<int> m_slot, m_boundaryNode;
  std::vector<double> m_capacity;
  FreezingNodes m_freezing;
  [[nodiscard]] const SurfaceWater& waterOf(std::size_t relay) const { return *std::get_if<SurfaceWater>(&m_network->relays[relay].by); }
  Relays m_relays;
  std::vector<int> m_relayModulator;    ///< by relay: of that film, -1 for none
  std::vector<int> m_relayFilm;         ///< by relay: of one that counts water, the film in m_vapour
  struct Switched {
    std::size_t relay, sensor; ///< the sensor's slot
    SwitchedByTemperature by;
  };
  std::vector<Switched> m_switched;
  std::vector<std::size_t> m_wetted; ///< relays that count water
  std::vector<FrozenLink> m_frozenLinks;
  bool m_nonlinear = false, m_algebraic = false;

  PlainLinks m_conductances, m_radiative;
  std::vector<Varying> m_varying;
  std::vector<Natural> m_allNatural, m_natural;
  std::vector<VentSlots> m_vents;
  VapourFlows m_vapour;
  ReportedRows m_reported;
  std::vector<double> m_reportedPlain, m_reportedRadiative; ///< what conductances that never change bring to it, and long-wave links by their slot's cube
  std::vector<FilmNow> m_film;                              ///< of m_vapour's films at the state last evaluated
  mutable std::vector<FilmNow> m_filmFrom, m_filmTo;        ///< scratch of curvature_K()
  std::vector<Source> m_sources;                            ///< by row
  std::size_t m_boundarySources = 0;                        ///< where those of boundaries begin
  TableSampler m_modulators;
  std::vector<double> m_modulator, m_modulatorNext, m_modulatorMiddle, m_modulatorStart; ///< by modulator
  std::vector<bool> m_layout;                                                            ///< by modulator: a change lays the operator out anew
  std::vector<int> m_jumping, m_sliding;                                                 ///< modulators that lay it out anew or are held; the others
  bool m_modulated = false;                                                              ///< modulate() has run
  long m_layoutCount = 0, m_modulatedLayout = 0;                                         ///< the latter as of the last modulators

  std::vector<double> m_fourth;             ///< T_K^4, by slot
  std::vector<double> m_kept;               ///< rows that evaluate() is to leave alone
  std::vector<double> m_difference, m_root; ///< by active natural link: its difference; (dT^2 + 0.01)^(p/2)

  std::array<Base, 4> m_bases; ///< a solver may go to and fro between single steps, equal ones, doubleSteps and those after a jump
  std::size_t m_nextBase = 0;
};

} // namespace muffle
