// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/heat_sources.h"

#include "core/plan/store_list.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {

/// A heater of the plan that warms a room, and its meter.
struct RoomHeater {
  std::size_t index;
  std::vector<double> hour_kWh; ///< of heat, to the room
};

std::vector<RoomHeater> roomHeaters(const Plan& plan, const Ledger& ledger) {
  std::vector<RoomHeater> heaters;
  for (const Meter& m : ledger.meters())
    if (m.use == MeterUse::heater && m.index < plan.heaters.size() && plan.heaters[m.index].place.isRoom() && m.amount > 0.0)
      heaters.push_back({m.index, heatByHour_kWh(plan, m)});
  for (RoomHeater& h : heaters)
    for (double& kWh : h.hour_kWh) kWh *= toRoom(plan.heaters[h.index]);
  std::sort(heaters.begin(), heaters.end(), [](const RoomHeater& a, const RoomHeater& b) { return a.index < b.index; });
  return heaters;
}

} // namespace

double HeatSource::sum_kWh() const { return std::accumulate(kWh.begin(), kWh.end(), 0.0); }

std::vector<HeatSource> heatBySource(const Plan& plan, const WinterSeries& series, const Ledger& ledger, double step_s, std::size_t from, std::size_t to,
                                     std::size_t piece_h) {
  const double piece_s = static_cast<double>(piece_h) * kHour_s;
  const std::size_t last = std::min(to, series.sun_W.empty() ? 0 : series.sun_W.size() - 1);
  const std::size_t first = std::min(from, last);
  const auto pieces = static_cast<std::size_t>(std::ceil(static_cast<double>(last - first) * step_s / piece_s - 1e-9));
  const auto pieceOf = [&](std::size_t step) { return static_cast<std::size_t>(static_cast<double>(step - first - 1) * step_s / piece_s); };
  const auto none = std::vector<double>(pieces, 0.0);
  std::vector<HeatSource> sources{{HeatSource::Of::sun, 0, none}};
  for (std::size_t i = first + 1; i <= last; ++i) sources[0].kWh[pieceOf(i)] += static_cast<double>(series.sun_W[i]) * step_s / 3.6e6;
  const auto stores = storesOf(plan);
  for (std::size_t s = 0; s < series.stores.size(); ++s) {
    if (s < stores.size() && warmsTank(plan, stores[s])) continue; // the tank gives that heat to the house
    const auto& given_W = series.stores[s].given_W;
    HeatSource store{HeatSource::Of::store, s, none};
    for (std::size_t i = first + 1; i <= last && i < given_W.size(); ++i)
      if (given_W[i] > 0.0F) store.kWh[pieceOf(i)] += static_cast<double>(given_W[i]) * step_s / 3.6e6;
    sources.push_back(std::move(store));
  }
  const auto heaters = roomHeaters(plan, ledger);
  const std::size_t firstHeater = sources.size();
  for (const RoomHeater& h : heaters) sources.push_back({HeatSource::Of::heater, h.index, none});
  std::vector<double> share(heaters.size());
  for (std::size_t i = first + 1; i <= last; ++i) {
    const auto power_W = static_cast<double>(series.heater_W[i]);
    if (power_W <= 0.0 || heaters.empty()) continue;
    const auto hour = static_cast<std::size_t>(static_cast<double>(i - 1) * step_s / kHour_s); // as Run::hour() has it
    double all = 0.0;
    for (std::size_t h = 0; h < heaters.size(); ++h) {
      const auto& given = heaters[h].hour_kWh;
      share[h] = hour < given.size() ? given[hour] : 0.0;
      all += share[h];
    }
    for (std::size_t h = 0; h < heaters.size(); ++h)
      sources[firstHeater + h].kWh[pieceOf(i)] += power_W * step_s / 3.6e6 * (all > 0.0 ? share[h] / all : 1.0 / static_cast<double>(heaters.size()));
  }
  return sources;
}

std::vector<double> heatByHour_kWh(const Plan& plan, const Meter& meter) {
  const double rest_kWh = plan.heaters[meter.index].standby_W / 1000.0;
  std::vector<double> given;
  for (const float taken : meter.hour) given.push_back(std::max(0.0, static_cast<double>(taken) - rest_kWh));
  const double all = rest_kWh > 0.0 ? std::accumulate(given.begin(), given.end(), 0.0) : meter.amount;
  for (double& kWh : given) kWh *= all > 0.0 ? meter.heat_kWh / all : 0.0;
  return given;
}

std::vector<double> workByPiece_h(const Ledger& ledger, std::size_t piece_h) {
  std::vector<double> pieces;
  for (const Meter& m : ledger.meters()) {
    if (m.of != Metered::work) continue;
    pieces.resize(std::max(pieces.size(), (m.hour.size() + piece_h - 1) / piece_h), 0.0);
    for (std::size_t h = 0; h < m.hour.size(); ++h) pieces[h / piece_h] += static_cast<double>(m.hour[h]);
  }
  return pieces;
}

} // namespace muffle
