// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heater/heater.h"

#include <fmt/format.h>

#include <charconv>

namespace muffle {
namespace {

constexpr std::array<HeaterKindFacts, kHeaterKindCount> kKinds{
    {{HeaterKind::electric, "electric", Carrier::electricity, true, true}, {HeaterKind::boiler, "boiler", Carrier::fuel, false, true}}};
constexpr std::string_view kTank = "tank:";

} // namespace

const std::array<HeaterKindFacts, kHeaterKindCount>& heaterKinds() { return kKinds; }

const HeaterKindFacts& factsOf(HeaterKind kind) { return kKinds[static_cast<std::size_t>(kind)]; }

std::string placeId(const HeaterPlace& place) {
  switch (place.of) {
  case HeaterPlace::Of::house: return "house";
  case HeaterPlace::Of::bay: return "bay";
  case HeaterPlace::Of::tank: return fmt::format("{}{}", kTank, place.tank + 1);
  case HeaterPlace::Of::unknown: break;
  }
  return "";
}

HeaterPlace heaterPlace(std::string_view id) {
  if (id == "house") return {HeaterPlace::Of::house};
  if (id == "bay") return {HeaterPlace::Of::bay};
  std::size_t number = 0;
  if (id.starts_with(kTank)) {
    const char* const end = id.data() + id.size();
    const auto read = std::from_chars(id.data() + kTank.size(), end, number);
    if (read.ec == std::errc() && read.ptr == end && number > 0) return {HeaterPlace::Of::tank, number - 1};
  }
  return {HeaterPlace::Of::unknown};
}

} // namespace muffle
