// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/ledger.h"

#include <algorithm>

namespace muffle {
namespace {
constexpr std::size_t kDay_h = 24, kWeek_h = 7 * kDay_h;
}

std::size_t Ledger::meter(Metered of, MeterUse use, std::size_t index) {
  const auto known = std::find_if(m_meters.begin(), m_meters.end(), [&](const Meter& m) { return m.of == of && m.use == use && m.index == index; });
  if (known != m_meters.end()) return static_cast<std::size_t>(known - m_meters.begin());
  m_meters.push_back({of, use, index, 0.0, 0.0, std::vector<float>(m_hours, 0.0F), {}});
  if (of == Metered::electricity && !m_hourOfWeek.empty()) m_meters.back().week.assign(kWeek_h, 0.0);
  return m_meters.size() - 1;
}

void Ledger::add(const Ledger& winter) {
  for (const Meter& m : winter.m_meters) {
    Meter& mine = m_meters[meter(m.of, m.use, m.index)];
    mine.amount += m.amount;
    mine.heat_kWh += m.heat_kWh;
    mine.week.resize(std::max(mine.week.size(), m.week.size()), 0.0);
    for (std::size_t h = 0; h < m.week.size(); ++h) mine.week[h] += m.week[h];
  }
}

template <class Is> double Ledger::sumOf(double Meter::*what, Is is) const {
  double sum = 0.0;
  for (const Meter& m : m_meters)
    if (is(m)) sum += m.*what;
  return sum;
}

template <class Is> double Ledger::moneyOf(const Plan& plan, const Prices& prices, Is is) const {
  const Tariff tariff = prices.electricity();
  double money = 0.0;
  for (const Meter& m : m_meters) {
    if (!is(m)) continue;
    if (m.of == Metered::fuel && m.index < plan.heaters.size()) money += m.amount * plan.heaters[m.index].fuelPrice_kWh;
    if (m.of != Metered::electricity) continue;
    money += m.amount * tariff.price_per_kWh;
    if (tariff.windows.empty()) continue;
    for (std::size_t h = 0; h < m.week.size(); ++h)
      money += m.week[h] * (tariff.priceAt(static_cast<int>(h / kDay_h), static_cast<int>(h % kDay_h)) - tariff.price_per_kWh);
  }
  return money;
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

std::vector<double> Ledger::electricity_kWh(const Tariff& tariff) const {
  std::vector<double> all(tariff.windows.size() + 1, 0.0);
  for (const Meter& m : m_meters) {
    if (m.of != Metered::electricity) continue;
    all.back() += m.amount;
    for (std::size_t h = 0; h < m.week.size(); ++h) {
      all.back() -= m.week[h];
      all[tariff.windowOf(static_cast<int>(h / kDay_h), static_cast<int>(h % kDay_h))] += m.week[h];
    }
  }
  return all;
}

double Ledger::money(const Plan& plan, const Prices& prices) const {
  return moneyOf(plan, prices, [](const Meter&) { return true; });
}

double Ledger::money(const Plan& plan, const Prices& prices, Metered of) const {
  return moneyOf(plan, prices, [&](const Meter& m) { return m.of == of; });
}

double Ledger::money(const Plan& plan, const Prices& prices, MeterUse use, std::size_t index) const {
  return moneyOf(plan, prices, [&](const Meter& m) { return m.use == use && m.index == index; });
}

} // namespace muffle
