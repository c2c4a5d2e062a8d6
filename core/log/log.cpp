// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/log.h"

#include <algorithm>

namespace muffle {

std::string roleText(Role role, const std::string& id) {
  static const char* const kNames[] = {"outside", "room", "soil", "store", "cover", "wind", "sun", "humidity", "heater", "rain", "note"};
  std::string text = kNames[static_cast<std::size_t>(role)];
  const bool named = role == Role::room || role == Role::soil || role == Role::store || role == Role::cover || role == Role::humidity || role == Role::heater;
  return named && !id.empty() ? text + ":" + id : text;
}

bool isTemperature(Role role) { return role == Role::outside || role == Role::room || role == Role::soil || role == Role::store || role == Role::cover; }

std::string Channel::unit() const {
  if (isTemperature(role)) return "C";
  switch (role) {
  case Role::wind: return "m/s";
  case Role::sun: return "W/m2";
  case Role::humidity: return "%";
  case Role::heater: return "W";
  case Role::rain: return "mm";
  default: return unitIn;
  }
}

const Channel* Log::find(Role role, const std::string& id, Statistic statistic) const {
  for (const Channel& c : channels)
    if (c.role == role && c.statistic == statistic && (id.empty() || c.id == id)) return &c;
  return nullptr;
}

double Log::step_s() const {
  if (time.size() < 2) return 0.0;
  // the median by counting: nearly all of a log's intervals are short, and it may have millions
  constexpr std::size_t kShort_s = 7200;
  std::vector<std::size_t> count(kShort_s, 0);
  std::vector<UtcSeconds> longer;
  for (std::size_t i = 1; i < time.size(); ++i) {
    const UtcSeconds step = time[i] - time[i - 1];
    if (step < static_cast<UtcSeconds>(kShort_s))
      ++count[static_cast<std::size_t>(std::max<UtcSeconds>(step, 0))];
    else
      longer.push_back(step);
  }
  std::size_t left = (time.size() - 1) / 2;
  for (std::size_t step = 0; step < kShort_s; ++step) {
    if (left < count[step]) return static_cast<double>(step);
    left -= count[step];
  }
  const auto middle = longer.begin() + static_cast<std::ptrdiff_t>(left);
  std::nth_element(longer.begin(), middle, longer.end());
  return static_cast<double>(*middle);
}

} // namespace muffle
