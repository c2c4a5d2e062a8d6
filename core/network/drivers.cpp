// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/drivers.h"

#include <algorithm>

namespace muffle {

namespace {
constexpr int kOneValue = -2;
}

int TableSampler::add(const Network& network, int table) {
  const Signal* const signal = &network.tables[static_cast<std::size_t>(table)];
  const auto known = std::find_if(m_tables.begin(), m_tables.end(), [&](const Table& t) { return t.signal == signal; });
  if (known != m_tables.end()) return static_cast<int>(known - m_tables.begin());
  if (signal->relay >= 0) {
    const int then = add(network, signal->then), otherwise = add(network, signal->otherwise);
    const auto held = [&](int place) { return m_tables[static_cast<std::size_t>(place)].hold; };
    m_tables.push_back({signal, -1, held(then) || held(otherwise), then, otherwise});
    return static_cast<int>(m_tables.size()) - 1;
  }
  int grid = -1;
  if (signal->step_s > 0.0 && signal->value.size() > 1) {
    const auto same = [&](const Grid& g) { return g.start_s == signal->start_s && g.step_s == signal->step_s && g.count == signal->value.size(); };
    const auto it = std::find_if(m_grids.begin(), m_grids.end(), same);
    grid = static_cast<int>(it - m_grids.begin());
    if (it == m_grids.end()) m_grids.push_back({signal->start_s, signal->step_s, signal->value.size()});
  }
  if (grid < 0 && signal->value.size() == 1) grid = kOneValue;
  m_tables.push_back({signal, grid, signal->hold});
  return static_cast<int>(m_tables.size()) - 1;
}

void TableSampler::sample(double t, double* value, const char* relays) const {
  const double* const values = value;
  std::size_t before = 0;
  double along = 0.0; // from `before` to the value after it
  int grid = -1;
  for (const Table& table : m_tables) {
    if (table.then >= 0) {
      *value++ = values[relays[table.signal->relay] ? table.then : table.otherwise];
      continue;
    }
    if (table.grid < 0) {
      *value++ = table.grid == kOneValue ? table.signal->value.front() : table.signal->at(t);
      continue;
    }
    if (table.grid != grid) {
      grid = table.grid;
      const Grid& g = m_grids[static_cast<std::size_t>(grid)];
      const double position = std::clamp((t - g.start_s) / g.step_s, 0.0, static_cast<double>(g.count - 1));
      before = std::min(static_cast<std::size_t>(position), g.count - 2);
      along = position - static_cast<double>(before);
    }
    const double* const at = table.signal->value.data() + before;
    if (table.hold)
      *value++ = along < 1.0 ? at[0] : at[1];
    else
      *value++ = along < 1.0 ? at[0] + (at[1] - at[0]) * along : at[1];
  }
}

NetworkDrivers::NetworkDrivers(const Network& network) : m_network(&network) {
  // all tables first, so that the places of the formulas after them are known
  const auto uses = [&](const Driver& d) {
    if (d.kind == Driver::Kind::table) m_tables.add(network, d.signal);
  };
  for (const Node& n : network.nodes)
    if (n.boundary) uses(*n.boundary);
  for (const Source& s : network.sources) uses(s.power);
  for (const Node& n : network.nodes)
    if (n.boundary) m_boundaries.push_back(prepare(*n.boundary));
  for (const Source& s : network.sources) m_sources.push_back(prepare(s.power));

  const int one = static_cast<int>(valueCount()) - 1;
  const auto gather = [&](int node, int value, double factor) {
    if (factor == 0.0) return;
    for (Term& t : m_sourceTerms) {
      if (t.node == node && t.value == value) {
        t.factor += factor;
        return;
      }
    }
    m_sourceTerms.push_back({node, value, factor});
  };
  for (std::size_t i = 0; i < m_sources.size(); ++i) {
    gather(network.sources[i].node, m_sources[i].value, m_sources[i].factor);
    gather(network.sources[i].node, one, m_sources[i].offset);
  }
}

NetworkDrivers::Scaled NetworkDrivers::prepare(const Driver& d) {
  switch (d.kind) {
  case Driver::Kind::constant:
    if (!d.isSet) return {0, 0.0, d.mean};
    break;
  case Driver::Kind::table: return {m_tables.add(*m_network, d.signal), d.amplitude, d.mean};
  case Driver::Kind::sine:
  case Driver::Kind::halfSine: break;
  }
  m_formulas.push_back(d);
  return {static_cast<int>(m_tables.size() + m_formulas.size()) - 1, 1.0, 0.0};
}

void NetworkDrivers::set(const Scaled& driver, double value) { m_formulas[static_cast<std::size_t>(driver.value) - m_tables.size()].mean = value; }

void NetworkDrivers::sample(double t, std::span<double> value) const {
  m_tables.sample(t, value.data());
  std::size_t at = m_tables.size();
  for (const Driver& d : m_formulas) value[at++] = d.at(t, m_network->tables);
  value[at] = 1.0;
}

} // namespace muffle
