// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/heater_choice.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>

namespace muffle {
namespace {

constexpr double kLeft_kW = 1e-9;
constexpr std::size_t kDay_h = 24;

double capacity_kW(const HeaterOffer& offer, int steps, std::size_t hour) {
  const double size = offer.step_kW * steps;
  return offer.capacity.empty() ? size : size * offer.capacity[hour];
}

/// By kind, as choices are told apart.
std::vector<std::pair<int, int>> sizes(const HeaterChoice& choice, std::size_t kinds) {
  std::vector<std::pair<int, int>> all(kinds, {0, 0});
  for (const HeaterUnit& u : choice.units) {
    all[u.offer].first += u.steps;
    ++all[u.offer].second;
  }
  return all;
}

bool othersCarry(std::span<const HeaterOffer> offers, std::span<const double> load_kW, const std::vector<HeaterUnit>& units) {
  for (std::size_t out = 0; out < units.size(); ++out)
    for (std::size_t h = 0; h < load_kW.size(); ++h) {
      double others = 0.0;
      for (std::size_t u = 0; u < units.size(); ++u)
        if (u != out) others += capacity_kW(offers[units[u].offer], units[u].steps, h);
      if (others < load_kW[h] - kLeft_kW) return false;
    }
  return true;
}

} // namespace

std::optional<HeaterChoice> carried(std::span<const HeaterOffer> offers, std::span<const double> load_kW, std::vector<HeaterUnit> units) {
  HeaterChoice choice;
  choice.units = std::move(units);
  std::vector<double> rest(load_kW.begin(), load_kW.end());
  for (const HeaterUnit& u : choice.units) {
    const HeaterOffer& offer = offers[u.offer];
    double heat = 0.0, money = 0.0;
    int days = 0;
    bool today = false;
    for (std::size_t h = 0; h < rest.size(); ++h) {
      if (h % kDay_h == 0) today = false;
      const double given = std::min(rest[h], capacity_kW(offer, u.steps, h));
      if (given <= 0.0) continue;
      rest[h] -= given;
      heat += given;
      money += given * offer.price_kWh[h];
      if (!today) ++days;
      today = true;
    }
    choice.heat_kWh.push_back(heat);
    choice.startDays.push_back(days);
    choice.cost += offer.capital_kW * offer.step_kW * u.steps + money + offer.perStartDay * days;
  }
  if (std::any_of(rest.begin(), rest.end(), [](double left) { return left > kLeft_kW; })) return std::nullopt;
  return choice;
}

std::optional<ChosenHeaters> chooseHeaters(std::span<const HeaterOffer> offers, std::span<const double> load_kW, const ChoiceRules& rules) {
  // hours of load alone: the rest of the year decides nothing, but days stay days
  std::vector<HeaterChoice> all;
  std::vector<HeaterUnit> units;
  ChosenHeaters chosen;
  chosen.alone.resize(offers.size());
  const std::function<void()> next = [&] {
    if (!units.empty() && (!rules.anyOneOut || (units.size() > 1 && othersCarry(offers, load_kW, units))))
      if (auto choice = carried(offers, load_kW, units)) all.push_back(std::move(*choice));
    if (units.size() >= static_cast<std::size_t>(rules.maxUnits)) return;
    for (std::size_t k = 0; k < offers.size(); ++k) {
      if (!rules.kindsMayRepeat && std::any_of(units.begin(), units.end(), [k](const HeaterUnit& u) { return u.offer == k; })) continue;
      for (int steps = 1; steps <= rules.maxSteps; ++steps) {
        units.push_back({k, steps});
        next();
        units.pop_back();
      }
    }
  };
  next();
  for (std::size_t k = 0; k < offers.size(); ++k)
    for (int steps = 1; steps <= rules.maxSteps; ++steps)
      if (const auto one = carried(offers, load_kW, {{k, steps}}); one && (!chosen.alone[k] || one->cost < *chosen.alone[k])) chosen.alone[k] = one->cost;
  if (all.empty()) return std::nullopt;
  std::stable_sort(all.begin(), all.end(), [](const HeaterChoice& a, const HeaterChoice& b) { return a.cost < b.cost; });
  chosen.best = all.front();
  const auto other = std::find_if(all.begin(), all.end(), [&](const HeaterChoice& c) { return sizes(c, offers.size()) != sizes(chosen.best, offers.size()); });
  if (other != all.end()) chosen.second = *other;
  return chosen;
}

TwoHeaters splitLoad(const HeaterOffer& a, const HeaterOffer& b, std::span<const double> load_kW, double step_kW) {
  const double peak = load_kW.empty() ? 0.0 : *std::max_element(load_kW.begin(), load_kW.end());
  TwoHeaters best;
  best.cost = std::numeric_limits<double>::infinity();
  const HeaterOffer* const both[] = {&a, &b};
  for (std::size_t first = 0; first < 2; ++first) {
    const HeaterOffer &base = *both[first], &rest = *both[1 - first];
    const auto steps = static_cast<int>(std::ceil(peak / step_kW));
    for (int n = 0; n <= steps; ++n) {
      TwoHeaters split{.base = first, .base_kW = std::min(peak, n * step_kW)};
      split.peak_kW = peak - split.base_kW;
      double money = 0.0;
      bool baseToday = false, peakToday = false;
      for (std::size_t h = 0; h < load_kW.size(); ++h) {
        if (h % kDay_h == 0) baseToday = peakToday = false;
        const double low = std::min(load_kW[h], split.base_kW), high = load_kW[h] - low;
        split.base_kWh += low;
        split.peak_kWh += high;
        money += low * base.price_kWh[h] + high * rest.price_kWh[h];
        if (low > 0.0 && !baseToday) baseToday = true, ++split.baseDays;
        if (high > 0.0 && !peakToday) peakToday = true, ++split.peakDays;
      }
      split.cost =
          base.capital_kW * split.base_kW + rest.capital_kW * split.peak_kW + money + base.perStartDay * split.baseDays + rest.perStartDay * split.peakDays;
      if (split.cost < best.cost) best = split;
    }
  }
  return best;
}

} // namespace muffle
