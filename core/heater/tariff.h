// SPDX-License-Identifier: GPL-3.0-or-later
//
// What electricity and fuel cost as they are sold: by hour and day of the week, with a standing charge; in whole bottles and bags that are delivered.
#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

namespace muffle {

/// Hours of some days of the week that have a price of their own.
struct TariffWindow {
  unsigned weekdays = 0x7F;  ///< bit 0: Monday
  int from_h = 0, to_h = 24; ///< from <= hour < to; over midnight where from > to
  double price_per_kWh = 0.0;
  [[nodiscard]] bool holds(int weekday, int hour) const;
  bool operator==(const TariffWindow&) const = default;
};

struct Tariff {
  std::vector<TariffWindow> windows = {}; ///< an hour belongs to the first that holds it
  double price_per_kWh = 0.3;             ///< in none of them
  double standing_per_day = 0.0;
  double vat = 0.0; ///< share on top of all
  /// Its window, or windows.size() for none.
  [[nodiscard]] std::size_t windowOf(int weekday, int hour) const;
  [[nodiscard]] double priceAt(int weekday, int hour) const;
  bool operator==(const Tariff&) const = default;
};

struct ElectricityBill {
  double bought_kWh = 0.0;
  std::vector<double> kWhByWindow; ///< what is in none comes last
  double energy = 0.0, standing = 0.0, total = 0.0;
  /// Of a kWh, all charges and tax in it; 0 where none was bought.
  [[nodiscard]] double meanPrice() const { return bought_kWh > 0.0 ? total / bought_kWh : 0.0; }
};
/// Of kWh by the hour; hour 0 begins at midnight of a `firstWeekday` (0: Monday).
ElectricityBill electricityBill(const Tariff& tariff, std::span<const double> bought_kWh, int firstWeekday);

/// Days (24 hours from midnight) on which any is taken.
int daysUsed(std::span<const double> byHour);

/// Fuel that comes in whole units.
struct FuelOrders {
  double kWhPerUnit = 1.0; ///< as it burns, net
  double pricePerUnit = 0.0;
  int unitsPerOrder = 1;
  double deliveryCharge = 0.0; ///< for an order
  double vat = 0.0;
};
struct FuelBill {
  double need_units = 0.0, left_units = 0.0;
  long units = 0, orders = 0;
  double total = 0.0;
  std::optional<int> firstUnitGone_day; ///< on which the first has run out
};
FuelBill fuelBill(const FuelOrders& orders, std::span<const double> needed_kWh);

} // namespace muffle
