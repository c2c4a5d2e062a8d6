// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/ledger.h"

#include <algorithm>

namespace muffle {

std::size_t Ledger::meter(Metered of, MeterUse use, std::size_t index) {
  const auto known = std::find_if(m_meters.begin(), m_meters.end(), [&](const Meter& m) { return m.of == of && m.use == use && m.index == index; });
  if (known != m_meters.end()) return static_cast<std::size_t>(known - m_meters.begin());
  m_meters.push_back({of, use, index, 0.0, 0.0, std::vector<float>(m_hours, 0.0F)});
  return m_meters.size() - 1;
}

void Ledger::add(const Ledger& winter) {
  for (const Meter& m : winter.m_meters) add(meter(m.of, m.use, m.index), m.amount, m.heat_kWh);
}

template <class Is> double Ledger::sumOf(double Meter::*what, Is is) const {
  double sum = 0.0;
  for (const Meter& m : m_meters)
    if (is(m)) sum += m.*what;
  return sum;
}

double Ledger::sum(Metered of) const {
  return sumOf(&Meter::amount, [&](const Meter& m) { return m.of == of; });
}

double Ledger::sum(Metered of, MeterUse use) const {
  return sumOf(&Meter::amount, [&](const Meter& m) { return m.of == of && m.use == use; });
}

double Ledger::sum(Metered of, MeterUse use, std::size_t index) const {
  return sumOf(&Meter::amount, [&](const Meter& m) { return m.of == of && m.use == use && m.index == index; });
}

double Ledger::heat_kWh(MeterUse use) const {
  return sumOf(&Meter::heat_kWh, [&](const Meter& m) { return m.use == use; });
}

double Ledger::heat_kWh(MeterUse use, std::size_t index) const {
  return sumOf(&Meter::heat_kWh, [&](const Meter& m) { return m.use == use && m.index == index; });
}

double Ledger::fuelMoney(const Plan& plan) const {
  double money = 0.0;
  for (const Meter& m : m_meters)
    if (m.of == Metered::fuel && m.index < plan.heaters.size()) money += m.amount * plan.heaters[m.index].fuelPrice_kWh;
  return money;
}

} // namespace muffle
