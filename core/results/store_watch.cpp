// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/store_watch.h"

#include "core/results/groups.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

constexpr std::size_t kNone = std::numeric_limits<std::size_t>::max();

/// Compost's first trace is the pile itself, NaN while nothing stands there.
float trace_C(const Solver& solver, const std::vector<PilePresent>& piles, const StoreNodes& store, std::size_t trace) {
  if (store.kind != StoreKind::compost) return static_cast<float>(solver.temperature_C(store.node[trace]));
  if (trace > 0) return static_cast<float>(solver.temperature_C(store.node[trace - 1]));
  const PilePresent& pile = piles[store.index];
  return pile.built > 0 ? static_cast<float>(pile.state.temperature_C) : std::numeric_limits<float>::quiet_NaN();
}

} // namespace

StoreWatch::StoreWatch(const Assembly& assembly, double hold_C, std::vector<StoreSeries>* series, Ledger& ledger)
    : m_hold_C(hold_C), m_series(series), m_sums(assembly.stores.size()), m_ledger(ledger), m_meter(assembly.stores.size(), kNone) {
  for (std::size_t s = 0; s < assembly.stores.size(); ++s) {
    const StoreNodes& store = assembly.stores[s];
    if (!store.cable() && store.runs < 0 && !store.hasCoil()) continue;
    const bool pumps = store.kind == StoreKind::loop || store.hasCoil();
    m_meter[s] = ledger.meter(Metered::electricity, store.cable() ? MeterUse::cable : pumps ? MeterUse::storePump : MeterUse::storeFan, s);
  }
}

std::vector<StoreSeries> StoreWatch::makeSeries(const Assembly& assembly, std::size_t n) {
  std::vector<StoreSeries> all;
  for (const StoreNodes& store : assembly.stores) {
    StoreSeries& series = all.emplace_back();
    const bool isPile = store.kind == StoreKind::compost;
    series.temperature_C.assign(store.node.size() + (isPile ? 1 : 0), std::vector<float>(n));
    series.given_W.assign(n, 0.0F);
    if (isPile || !store.holds.empty()) series.charge_kWh.assign(n, 0.0F);
    if (isPile)
      for (auto* of : {&series.made_W, &series.oxygen_percent, &series.moisture}) of->assign(n, 0.0F);
  }
  return all;
}

double StoreWatch::charge_J(const Run& run, const StoreNodes& store) const {
  double sum = 0.0;
  for (const HeldHeat& held : store.holds)
    sum += heatHeld_J(held.capacity_J_K, held.water, run.solver().temperature_C(held.node)) - heatHeld_J(held.capacity_J_K, held.water, m_hold_C);
  return sum;
}

void StoreWatch::see(const Run& run) {
  const std::vector<StoreNodes>& stores = run.assembly().stores;
  const Solver& solver = run.solver();
  const std::vector<PilePresent>& piles = run.stores().piles();
  const bool isFirst = run.step() == 0;
  for (std::size_t s = 0; s < stores.size(); ++s) {
    StoreSummary& sum = m_sums[s];
    const auto first = static_cast<double>(trace_C(solver, piles, stores[s], 0)); // not a number before a pile is built
    if (first < sum.coldest_C) sum.coldest_C = first;
    if (stores[s].kind == StoreKind::loop && stores[s].node.size() > 1) sum.coldest_C = std::min(sum.coldest_C, solver.temperature_C(stores[s].node[1]));
    if (first > sum.warmest_C) sum.warmest_C = first;
    if (!isFirst && !stores[s].hasCoil() && (stores[s].runs >= 0 || stores[s].cable())) seeSupply(run, stores[s], s);
    if (m_series) seeSeries(run, stores[s], s);
  }
}

/// Fan, pump or cable.
void StoreWatch::seeSupply(const Run& run, const StoreNodes& store, std::size_t s) {
  const double power_W = store.cable() ? run.solver().lastPower_W(store.cable()->thermostat) : run.solver().signalNow(store.runs) * store.power_W;
  if (power_W <= 0.0) return;
  const double hours = run.winter().step_s / 3600.0;
  StoreSummary& sum = m_sums[s];
  sum.running_h += hours;
  sum.electricity_kWh += power_W * hours / 1000.0;
  if (m_ledger.keepsHours()) m_ledger.note(m_meter[s], power_W * hours / 1000.0, run.hour());
  if (!store.cable()) return;
  sum.given_kWh += power_W * hours / 1000.0;
  if (m_series) (*m_series)[s].given_W[run.step()] = static_cast<float>(power_W);
}

void StoreWatch::seeSeries(const Run& run, const StoreNodes& store, std::size_t s) {
  const std::size_t i = run.step();
  StoreSeries& series = (*m_series)[s];
  StoreSummary& sum = m_sums[s];
  for (std::size_t k = 0; k < series.temperature_C.size(); ++k) series.temperature_C[k][i] = trace_C(run.solver(), run.stores().piles(), store, k);
  if (i > 0 && !(store.giving.empty() && store.taking.empty())) {
    const double given_J =
        (store.giving.empty() ? 0.0 : run.solver().groupEnergy_J(storeGroup(s))) - (store.taking.empty() ? 0.0 : run.solver().groupEnergy_J(storeGroup(s) + 1));
    series.given_W[i] = static_cast<float>(given_J / run.winter().step_s);
    (given_J > 0.0 ? sum.given_kWh : sum.taken_kWh) += std::abs(given_J) / 3.6e6;
  }
  if (!store.holds.empty()) series.charge_kWh[i] = static_cast<float>(charge_J(run, store) / 3.6e6);
  if (store.kind != StoreKind::compost) return;
  const PilePresent& pile = run.stores().piles()[store.index];
  if (pile.built == 0) return;
  const double solids = pile.state.degradable_kg + pile.mix.inert_kg();
  series.charge_kWh[i] = static_cast<float>(pile.state.degradable_kg * pile.mix.heat_J_kg / 3.6e6);
  series.made_W[i] = static_cast<float>(pile.rates.heat_W);
  series.oxygen_percent[i] = static_cast<float>(pile.rates.oxygen_percent);
  series.moisture[i] = static_cast<float>(pile.state.water_kg / (pile.state.water_kg + solids));
}

void StoreWatch::tell(const Run& run, WinterResult& result) {
  constexpr double kCollectorPump_W = 20.0; // the smallest circulators
  const auto& stores = run.assembly().stores;
  for (std::size_t s = 0; s < stores.size(); ++s) {
    const StoreNodes& store = stores[s];
    StoreSummary& sum = m_sums[s];
    if (store.kind == StoreKind::compost) {
      sum.made_kWh = run.stores().energy()[store.index].heat_J / 3.6e6;
      const double pumped_h = run.stores().pumped_h(store.index);
      sum.running_h += pumped_h;
      sum.electricity_kWh += store.power_W * pumped_h / 1000.0;
      if (const double water_kg = run.stores().piles()[store.index].watered_kg; water_kg > 0.0)
        m_ledger.add(m_ledger.meter(Metered::water, MeterUse::pile, s), water_kg);
    }
    if (m_meter[s] != kNone) m_ledger.add(m_meter[s], sum.electricity_kWh, store.cable() ? sum.given_kWh : 0.0);
    if (!store.collector) continue;
    sum.stagnant_h = run.stores().stagnant_h(s);
    const double pump_kWh = kCollectorPump_W * run.stores().collected_h(s) / 1000.0;
    sum.electricity_kWh += pump_kWh;
    m_ledger.add(m_ledger.meter(Metered::electricity, MeterUse::collectorPump, s), pump_kWh);
  }
  result.stores = m_sums;
}

} // namespace muffle
