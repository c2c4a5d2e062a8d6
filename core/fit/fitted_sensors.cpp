// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/fitted_sensors.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>

namespace muffle {
namespace {

// scatter: in which barrel, and where in water or soil a probe sits, is not known
constexpr double kAir_K = 0.4, kOtherAir_K = 0.6, kWater_K = 1.5, kSoil_K = 2.0;
constexpr double kAirPerNight = 4.0, kOtherAirPerNight = 2.0, kSlowPerNight = 1.0;
constexpr double kUsualDepth_m = 0.10;

std::string small(std::string text) {
  for (char& c : text) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return text;
}

/// By its grower or, where nobody named it, by what it is ("warm bay" of name.warm-bay), whatever the case.
bool isCalled(const Message& name, const std::string& id) {
  std::string called = name.given().empty() ? name.code.substr(name.code.find('.') + 1) : name.given();
  if (name.given().empty()) std::replace(called.begin(), called.end(), '-', ' ');
  return !id.empty() && small(called) == small(id);
}

/// "barrels2" and "barrels:2" are the second of "barrels"; without a number the first.
std::pair<std::string, std::size_t> numbered(const std::string& id) {
  const auto digits = std::find_if(id.begin(), id.end(), [](unsigned char c) { return std::isdigit(c); });
  std::string name(id.begin(), digits);
  while (!name.empty() && !std::isalpha(static_cast<unsigned char>(name.back()))) name.pop_back();
  std::size_t number = 1;
  std::from_chars(id.data() + (digits - id.begin()), id.data() + id.size(), number);
  return {name, number};
}

double depthIn(const std::string& name) {
  const std::string text = small(name);
  for (std::size_t at = 0; at < text.size(); ++at) {
    if (!std::isdigit(static_cast<unsigned char>(text[at]))) continue;
    double value = 0.0;
    const auto [end, error] = std::from_chars(text.data() + at, text.data() + text.size(), value);
    auto next = static_cast<std::size_t>(end - text.data());
    while (next < text.size() && text[next] == ' ') ++next;
    const std::string_view unit = std::string_view(text).substr(next);
    const auto isUnit = [&](std::string_view word) {
      return unit.starts_with(word) && (unit.size() == word.size() || !std::isalpha(static_cast<unsigned char>(unit[word.size()])));
    };
    if (error == std::errc() && isUnit("cm")) return value / 100.0;
    if (error == std::errc() && (isUnit("inch") || isUnit("inches") || unit.starts_with('"'))) return value * 0.0254; // "in" may be where it is
    at = next;
  }
  return kUsualDepth_m;
}

int roomNode(const std::vector<OtherRoom>& rooms, const Assembly& a, const Channel& channel) {
  const auto [name, number] = numbered(small(channel.id));
  for (std::size_t r = 0; r < rooms.size(); ++r) {
    const bool isMeant = channel.role == Role::cover ? rooms[r].kind == RoomKind::bed && rooms[r].bed + 1 == number
                                                     : small(rooms[r].id) == small(channel.id) || isCalled(rooms[r].name, channel.id);
    if (isMeant) return a.rooms[r].air;
  }
  return -1;
}

int waterNode(const Plan& plan, const Assembly& a, const Channel& channel) {
  const auto refs = storesOf(plan);
  const auto [name, number] = numbered(small(channel.id));
  for (std::size_t s = 0; s < refs.size(); ++s) {
    const bool isWater = refs[s].kind == StoreKind::barrels || refs[s].kind == StoreKind::loop;
    const bool isMeant = isCalled(refs[s].name, channel.id) || (refs[s].index + 1 == number && small(refs[s].id).starts_with(name + ":"));
    if (!isWater || !isMeant) continue;
    const auto traces = storeTraces(plan, refs[s]);
    for (std::size_t t = 0; t < traces.size() && t < a.stores[s].node.size(); ++t)
      if (traces[t] == StoreTrace::content) return a.stores[s].node[t];
  }
  return -1;
}

int soilNode(const Assembly& a, const Channel& channel) {
  if (a.soil.empty()) return -1;
  const double depth_m = depthIn(channel.name);
  const auto nearest =
      std::min_element(a.soilDepth_m.begin(), a.soilDepth_m.end(), [&](double x, double y) { return std::abs(x - depth_m) < std::abs(y - depth_m); });
  return a.soil[static_cast<std::size_t>(nearest - a.soilDepth_m.begin())];
}

} // namespace

std::vector<FittedSensor> fittedSensors(const Plan& plan, const Assembly& assembly, const Log& log) {
  const Channel* const house = log.find(Role::room);
  if (!house) return {};
  std::vector<FittedSensor> sensors{{house, assembly.air, kAir_K, kAirPerNight}};
  const auto rooms = otherRooms(plan);
  bool hasSoil = false;
  for (const Channel& channel : log.channels) {
    if (&channel == house || channel.statistic != Statistic::moment) continue;
    FittedSensor sensor{&channel, -1, kOtherAir_K, kOtherAirPerNight};
    if (channel.role == Role::room || channel.role == Role::cover) {
      sensor.node = roomNode(rooms, assembly, channel);
    } else if (channel.role == Role::store) {
      sensor = {&channel, waterNode(plan, assembly, channel), kWater_K, kSlowPerNight};
    } else if (channel.role == Role::soil && !hasSoil) {
      sensor = {&channel, soilNode(assembly, channel), kSoil_K, kSlowPerNight};
      hasSoil = sensor.node >= 0;
    }
    if (sensor.node >= 0) sensors.push_back(sensor);
  }
  return sensors;
}

} // namespace muffle
