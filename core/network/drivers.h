// SPDX-License-Identifier: GPL-3.0-or-later
//
// What drives a network from outside, prepared for quick sampling: the temperatures of its boundaries and the heat of its
// sources. Every table is read once per time however many sources scale it, and tables on one grid share the search.
//
//   NetworkDrivers drivers(network);
//   drivers.sample(t, value);               // raw values, one per table or formula in use
//   drivers.boundary_C(value, 0);           // temperature of the first boundary
#pragma once

#include "core/network/network.h"

#include <span>
#include <vector>

namespace muffle {

/// Chosen tables of a network, read together.
class TableSampler {
public:
  /// Adds a table once; its place among the values.
  int add(const Network& network, int table);
  [[nodiscard]] std::size_t size() const { return m_tables.size(); }
  /// The table at that place jumps from value to value.
  [[nodiscard]] bool isHeld(std::size_t place) const { return m_tables[place].hold; }
  /// The first size() values at time t; switches by the states of the network's relays.
  void sample(double t_s, double* value, const char* relays = nullptr) const;

private:
  struct Grid {
    double start_s, step_s;
    std::size_t count; ///< of values, at least 2
  };
  struct Table {
    const Signal* signal;
    int grid; ///< -1: times of its own, -2: one value for all time
    bool hold;
    int then = -1, otherwise = -1; ///< of a switch: places among the values
  };
  /// Tables one after the other that are read in one way.
  enum class Reading { between, held, itself, constant, switched };
  struct Stretch {
    Reading reading;
    int grid; ///< of the first two
    std::size_t end;
  };
  [[nodiscard]] Reading readingOf(const Table& table) const;
  int append(const Table& table);
  std::vector<Table> m_tables;
  std::vector<const double*> m_values; ///< by table: its own, null for a switch
  std::vector<Stretch> m_stretches;
  std::vector<Grid> m_grids;
};

class NetworkDrivers {
public:
  NetworkDrivers() = default;
  explicit NetworkDrivers(const Network& network);

  /// Number of raw values that sample() fills.
  [[nodiscard]] std::size_t valueCount() const { return m_formulas.size() + m_tables.size() + 1; }
  void sample(double t_s, std::span<double> value) const;

  /// Boundaries in the order of their nodes.
  [[nodiscard]] double boundary_C(std::span<const double> value, std::size_t boundary) const { return of(m_boundaries[boundary], value); }

  /// A source's power, W; also its energy, J, when `value` holds integrals over time.
  [[nodiscard]] double source(std::span<const double> value, std::size_t index) const { return of(m_sources[index], value); }

  /// Of drivers made by Driver::set(): the value from now on.
  void setBoundary(std::size_t boundary, double value_C) { set(m_boundaries[boundary], value_C); }
  void setSource(std::size_t index, double value_W) { set(m_sources[index], value_W); }

  /// Sources gathered by node: power into `node` is the sum of factor x value.
  struct Term {
    int node;
    int value;
    double factor;
  };
  [[nodiscard]] const std::vector<Term>& sourceTerms() const { return m_sourceTerms; }

private:
  /// offset + factor x value; the last raw value is always 1, so that an offset is a term too.
  struct Scaled {
    int value = 0;
    double factor = 0.0;
    double offset = 0.0;
  };
  Scaled prepare(const Driver& driver);
  void set(const Scaled& driver, double value);
  [[nodiscard]] double of(const Scaled& s, std::span<const double> value) const {
    return s.offset * value.back() + s.factor * value[static_cast<std::size_t>(s.value)];
  }

  const Network* m_network = nullptr;
  std::vector<Driver> m_formulas;
  TableSampler m_tables;
  std::vector<Scaled> m_boundaries, m_sources;
  std::vector<Term> m_sourceTerms;
};

} // namespace muffle
