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
    return append({signal, -1, held(then) || held(otherwise), then, otherwise});
  }
  int grid = -1;
  if (signal->step_s > 0.0 && signal->value.size() > 1) {
    const auto same = [&](const Grid& g) { return g.start_s == signal->start_s && g.step_s == signal->step_s && g.count == signal->value.size(); };
    const auto it = std::find_if(m_grids.begin(), m_grids.end(), same);
    grid = static_cast<int>(it - m_grids.begin());
    if (it == m_grids.end()) m_grids.push_back({signal->start_s, signal->step_s, signal->value.size()});
  }
  if (grid < 0 && signal->value.size() == 1) grid = kOneValue;
  return append({signal, grid, signal->hold});
}

TableSampler::Reading TableSampler::readingOf(const Table& table) const {
  if (table.then >= 0) return Reading::switched;
  if (table.grid < 0) return table.grid == kOneValue ? Reading::constant : Reading::itself;
  return table.hold ? Reading::held : Reading::between;
}

int TableSampler::append(const Table& table) {
  m_tables.push_back(table);
  m_values.push_back(table.then >= 0 ? nullptr : table.signal->value.data());
  const Reading reading = readingOf(table);
  if (m_stretches.empty() || m_stretches.back().reading != reading || m_stretches.back().grid != table.grid) m_stretches.push_back({reading, table.grid, 0});
  m_stretches.back().end = m_tables.size();
  return static_cast<int>(m_tables.size()) - 1;
}

void TableSampler::sample(double t, double* value, const char* relays) const {
  std::size_t before = 0;
  double along = 0.0; // from `before` to the value after it
  int grid = -1;
  std::size_t i = 0;
  for (const Stretch& stretch : m_stretches) {
    if (stretch.grid >= 0 && stretch.grid != grid) {
      grid = stretch.grid;
      const Grid& g = m_grids[static_cast<std::size_t>(grid)];
      const double position = std::clamp((t - g.start_s) / g.step_s, 0.0, static_cast<double>(g.count - 1));
      before = std::min(static_cast<std::size_t>(position), g.count - 2);
      along = position - static_cast<double>(before);
    }
    switch (stretch.reading) {
    case Reading::between:
      if (along < 1.0) {
#pragma GCC unroll 4
        for (; i < stretch.end; ++i) {
          const double* const at = m_values[i] + before;
          value[i] = at[0] + (at[1] - at[0]) * along;
        }
        break;
      }
      [[fallthrough]];
    case Reading::held:
      for (; i < stretch.end; ++i) value[i] = m_values[i][before + (along < 1.0 ? 0 : 1)];
      break;
    case Reading::itself:
      for (; i < stretch.end; ++i) value[i] = m_tables[i].signal->at(t);
      break;
    case Reading::constant:
      for (; i < stretch.end; ++i) value[i] = *m_values[i];
      break;
    case Reading::switched:
      for (; i < stretch.end; ++i) value[i] = value[relays[m_tables[i].signal->relay] ? m_tables[i].then : m_tables[i].otherwise];
      break;
    }
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
