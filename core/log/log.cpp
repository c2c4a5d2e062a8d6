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
  std::vector<UtcSeconds> steps;
  for (std::size_t i = 1; i < time.size(); ++i) steps.push_back(time[i] - time[i - 1]);
  std::nth_element(steps.begin(), steps.begin() + static_cast<long>(steps.size() / 2), steps.end());
  return static_cast<double>(steps[steps.size() / 2]);
}

} // namespace muffle
