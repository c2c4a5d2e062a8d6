// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a plan takes: one list of meters that everything which takes something writes into, and that cost, hours, the slip and JSON read from.
#pragma once

#include "core/plan/plan.h"

#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

namespace muffle {

enum class Metered { electricity, fuel, work, water }; ///< kWh, kWh in the fuel, h, kg
/// What it was for.
/// heaterOwn: electricity beside what is turned into heat; stoking, refuelling: by heater.
enum class MeterUse {
  heater,
  tankHeater,
  heaterOwn,
  stoking,
  refuelling,
  cable,
  roomFan,
  storeFan,
  storePump,
  collectorPump,
  blanket,
  bedCover,
  venting,
  pile
};

struct Meter {
  Metered of = Metered::electricity;
  MeterUse use = MeterUse::heater;
  std::size_t index = 0;         ///< heaters: among the plan's; cables, fans and pumps of stores, piles: among storesOf(); of others, among their kind
  double amount = 0.0;           ///< of what is metered
  double heat_kWh = 0.0;         ///< that it gave for it
  std::vector<float> hour = {};  ///< the amount by the hours of the winter; empty unless asked for
  std::vector<double> week = {}; ///< electricity by the hours of the week, from Monday 0:00 local; empty where its price is always the same
};

class Ledger {
public:
  Ledger() = default;
  /// As it was read from elsewhere.
  explicit Ledger(std::vector<Meter> meters) : m_meters(std::move(meters)) {}
  /// That keeps when it was, too: by the hours of the winter (none: 0), and electricity by the hour of the week that each of them is (empty: not).
  explicit Ledger(std::size_t hours, std::vector<std::uint8_t> hourOfWeek = {}) : m_hours(hours), m_hourOfWeek(std::move(hourOfWeek)) {}

  /// Its place among meters(); opened if there is none yet.
  std::size_t meter(Metered of, MeterUse use, std::size_t index);
  void add(std::size_t meter, double amount, double heat_kWh = 0.0) {
    m_meters[meter].amount += amount;
    m_meters[meter].heat_kWh += heat_kWh;
  }
  /// That so much of its amount was taken in that hour of the winter; the amount itself comes by add().
  void note(std::size_t meter, double amount, std::size_t hour) {
    Meter& m = m_meters[meter];
    if (hour < m_hours) m.hour[hour] += static_cast<float>(amount);
    if (!m.week.empty() && hour < m_hourOfWeek.size()) m.week[m_hourOfWeek[hour]] += amount;
  }
  [[nodiscard]] bool keepsHours() const { return m_hours > 0 || !m_hourOfWeek.empty(); }
  /// What another winter took, when it took it apart.
  void add(const Ledger& winter);

  [[nodiscard]] const std::vector<Meter>& meters() const { return m_meters; }
  [[nodiscard]] double sum(Metered of) const;
  [[nodiscard]] double sum(Metered of, MeterUse use) const;
  [[nodiscard]] double sum(Metered of, MeterUse use, std::size_t index) const;
  [[nodiscard]] double heat_kWh(MeterUse use) const;
  [[nodiscard]] double heat_kWh(MeterUse use, std::size_t index) const;
  /// Of electricity, by the windows of a tariff; what is in none, or not known by the hour, comes last.
  [[nodiscard]] std::vector<double> electricity_kWh(const Tariff& tariff) const;
  /// What it costs: electricity by its tariff, each hour of the week at its price and what is not known by the hour at the price of no window;
  /// fuel by the prices of the plan's heaters. Work and water cost nothing here. Standing charges are not in it.
  [[nodiscard]] double money(const Plan& plan, const Prices& prices) const;
  [[nodiscard]] double money(const Plan& plan, const Prices& prices, Metered of) const;
  [[nodiscard]] double money(const Plan& plan, const Prices& prices, MeterUse use, std::size_t index) const;

private:
  template <class Is> [[nodiscard]] double moneyOf(const Plan& plan, const Prices& prices, Is is) const;
  template <class Is> [[nodiscard]] double sumOf(double Meter::*what, Is is) const;

  std::size_t m_hours = 0;
  std::vector<std::uint8_t> m_hourOfWeek;
  std::vector<Meter> m_meters;
};

} // namespace muffle
