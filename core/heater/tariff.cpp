// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heater/tariff.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {
constexpr std::size_t kDay_h = 24;
constexpr int kWeek_d = 7;
} // namespace

bool TariffWindow::holds(int weekday, int hour) const {
  if (!(weekdays >> weekday & 1U)) return false;
  return from_h <= to_h ? hour >= from_h && hour < to_h : hour >= from_h || hour < to_h;
}

std::size_t Tariff::windowOf(int weekday, int hour) const {
  return static_cast<std::size_t>(std::find_if(windows.begin(), windows.end(), [&](const TariffWindow& w) { return w.holds(weekday, hour); }) -
                                  windows.begin());
}

double Tariff::priceAt(int weekday, int hour) const {
  const std::size_t window = windowOf(weekday, hour);
  return window < windows.size() ? windows[window].price_per_kWh : price_per_kWh;
}

ElectricityBill electricityBill(const Tariff& tariff, std::span<const double> bought_kWh, int firstWeekday) {
  ElectricityBill bill;
  bill.kWhByWindow.assign(tariff.windows.size() + 1, 0.0);
  for (std::size_t h = 0; h < bought_kWh.size(); ++h) {
    const int weekday = static_cast<int>((static_cast<std::size_t>(firstWeekday) + h / kDay_h) % kWeek_d), hour = static_cast<int>(h % kDay_h);
    bill.kWhByWindow[tariff.windowOf(weekday, hour)] += bought_kWh[h];
    bill.energy += bought_kWh[h] * tariff.priceAt(weekday, hour);
    bill.bought_kWh += bought_kWh[h];
  }
  bill.standing = static_cast<double>(bought_kWh.size()) / static_cast<double>(kDay_h) * tariff.standing_per_day;
  bill.total = (bill.energy + bill.standing) * (1.0 + tariff.vat);
  return bill;
}

int daysUsed(std::span<const double> byHour) {
  int days = 0;
  for (std::size_t h = 0; h < byHour.size(); h += kDay_h) {
    const auto day = byHour.subspan(h, std::min(kDay_h, byHour.size() - h));
    days += std::any_of(day.begin(), day.end(), [](double x) { return x > 0.0; }) ? 1 : 0;
  }
  return days;
}

FuelBill fuelBill(const FuelOrders& orders, std::span<const double> needed_kWh) {
  FuelBill bill;
  for (std::size_t h = 0; h < needed_kWh.size(); ++h) {
    bill.need_units += needed_kWh[h] / orders.kWhPerUnit;
    if (!bill.firstUnitGone_day && bill.need_units >= 1.0) bill.firstUnitGone_day = static_cast<int>(h / kDay_h);
  }
  bill.units = static_cast<long>(std::ceil(bill.need_units));
  bill.orders = (bill.units + orders.unitsPerOrder - 1) / orders.unitsPerOrder;
  bill.left_units = static_cast<double>(bill.units) - bill.need_units;
  bill.total = (static_cast<double>(bill.units) * orders.pricePerUnit + static_cast<double>(bill.orders) * orders.deliveryCharge) * (1.0 + orders.vat);
  return bill;
}

} // namespace muffle
