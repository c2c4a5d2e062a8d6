// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calc/quantity.h"

#include "core/log/cells.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <string>

namespace muffle {
namespace {

constexpr double kGallon_m3 = 3.785411784e-3; // US
constexpr double kBtu_J = 1055.05585262;      // international table

// in the order of QuantityKind
constexpr std::array kUnits{
    UnitOf{QuantityKind::temperature,
           "\xC2\xB0"
           "C",
           1.0},
    UnitOf{QuantityKind::temperature,
           "\xC2\xB0"
           "F",
           1.0 / 1.8, -32.0 / 1.8},
    UnitOf{QuantityKind::temperature, "K", 1.0, -273.15},
    UnitOf{QuantityKind::difference, "K", 1.0},
    UnitOf{QuantityKind::difference,
           "\xC2\xB0"
           "C",
           1.0},
    UnitOf{QuantityKind::difference,
           "\xC2\xB0"
           "F",
           1.0 / 1.8},
    UnitOf{QuantityKind::power, "W", 1.0},
    UnitOf{QuantityKind::power, "kW", 1000.0},
    UnitOf{QuantityKind::power, "BTU/h", kBtu_J / 3600.0},
    UnitOf{QuantityKind::power, "kBTU/h", 1000.0 * kBtu_J / 3600.0},
    UnitOf{QuantityKind::energy, "kWh", 3.6e6},
    UnitOf{QuantityKind::energy, "Wh", 3600.0},
    UnitOf{QuantityKind::energy, "MJ", 1e6},
    UnitOf{QuantityKind::energy, "BTU", kBtu_J},
    UnitOf{QuantityKind::flow, "L/h", 1e-3 / 3600.0},
    UnitOf{QuantityKind::flow, "L/min", 1e-3 / 60.0},
    UnitOf{QuantityKind::flow, "L/s", 1e-3},
    UnitOf{QuantityKind::flow, "m3/h", 1.0 / 3600.0},
    UnitOf{QuantityKind::flow, "gal/min", kGallon_m3 / 60.0},
    UnitOf{QuantityKind::flow, "gal/h", kGallon_m3 / 3600.0},
    UnitOf{QuantityKind::flow, "gpm", kGallon_m3 / 60.0},
    UnitOf{QuantityKind::flow, "gph", kGallon_m3 / 3600.0},
    UnitOf{QuantityKind::volume, "L", 1e-3},
    UnitOf{QuantityKind::volume, "m3", 1.0},
    UnitOf{QuantityKind::volume, "gal", kGallon_m3},
    UnitOf{QuantityKind::time, "h", 3600.0},
    UnitOf{QuantityKind::time, "min", 60.0},
    UnitOf{QuantityKind::time, "s", 1.0},
    UnitOf{QuantityKind::time, "d", 86400.0},
    UnitOf{QuantityKind::share, "%", 0.01},
    UnitOf{QuantityKind::conductance, "W/K", 1.0},
    UnitOf{QuantityKind::conductance,
           "BTU/h\xC2\xB0"
           "F",
           kBtu_J / 3600.0 * 1.8},
    UnitOf{QuantityKind::heatPerVolume, "kWh/L", 3.6e9},
    UnitOf{QuantityKind::heatPerVolume, "MJ/L", 1e9},
    UnitOf{QuantityKind::heatPerVolume, "kWh/gal", 3.6e6 / kGallon_m3},
    UnitOf{QuantityKind::heatPerVolume, "BTU/gal", kBtu_J / kGallon_m3},
    UnitOf{QuantityKind::number, "", 1.0},
};

/// "degF", "°f" and "F" are the same.
std::string plain(std::string_view symbol) {
  std::string s = lower(trim(symbol));
  for (const char* mark : {"\xC2\xB0", "deg", " "})
    for (auto at = s.find(mark); at != std::string::npos; at = s.find(mark)) s.erase(at, std::string_view(mark).size());
  if (s.find("\xC2\xB3") != std::string::npos) s.replace(s.find("\xC2\xB3"), 2, "3");
  return s;
}

/// Where the number at the front ends.
std::size_t numberEnds(std::string_view s) {
  std::size_t n = 0;
  while (n < s.size()) {
    const char c = s[n];
    const bool isSign = (c == '-' || c == '+') && (n == 0 || s[n - 1] == 'e' || s[n - 1] == 'E');
    const bool isExponent =
        (c == 'e' || c == 'E') && n > 0 && n + 1 < s.size() && (std::isdigit(static_cast<unsigned char>(s[n + 1])) || s[n + 1] == '-' || s[n + 1] == '+');
    if (!std::isdigit(static_cast<unsigned char>(c)) && c != '.' && c != ',' && !isSign && !isExponent) break;
    ++n;
  }
  return n;
}

} // namespace

std::span<const UnitOf> unitsOf(QuantityKind kind) {
  const auto first = std::find_if(kUnits.begin(), kUnits.end(), [&](const UnitOf& u) { return u.kind == kind; });
  const auto last = std::find_if(first, kUnits.end(), [&](const UnitOf& u) { return u.kind != kind; });
  return {first, last};
}

Result<Measured> readMeasured(std::string_view text, QuantityKind kind) {
  text = trim(text);
  const auto units = unitsOf(kind);
  std::string names;
  for (const UnitOf& u : units) names += (names.empty() ? "" : ", ") + std::string(u.symbol);
  const auto bad = [&](Message what) {
    return Problem{ProblemKind::badInput, "", std::move(what), names.empty() ? Message{"aid.number-allowed"} : Message{"aid.number-allowed-in", names}};
  };
  const auto number = [](std::string_view s) { return parseNumber(s, s.find(',') != std::string_view::npos); };
  std::size_t end = numberEnds(text);
  const auto value = number(text.substr(0, end));
  if (!value) return bad(Message{"aid.no-number", text});
  std::string_view rest = trim(text.substr(end));
  double uncertain = 0.0;
  for (const std::string_view sign : {"\xC2\xB1", "+-", "+/-"}) {
    if (!rest.starts_with(sign)) continue;
    rest = trim(rest.substr(sign.size()));
    end = numberEnds(rest);
    const auto give = number(rest.substr(0, end));
    if (!give || *give < 0.0) return bad(Message{"aid.uncertainty-below-zero", text});
    uncertain = *give;
    rest = trim(rest.substr(end));
    break;
  }
  const UnitOf* unit = rest.empty() ? &units.front() : nullptr;
  for (const UnitOf& u : units)
    if (!unit && plain(u.symbol) == plain(rest)) unit = &u;
  if (!unit) return bad(Message{"aid.no-unit", rest});
  const Measured read{*value * unit->factor + unit->offset, uncertain * unit->factor};
  constexpr double kMost = 1e15; // nothing that is measured here comes near it, and all that is reckoned from it stays finite
  if (!(std::abs(read.value) <= kMost) || !(read.uncertain <= kMost)) return bad(Message{"aid.too-large", text});
  return read;
}

std::string textOf(const Measured& m, QuantityKind kind) {
  const UnitOf& unit = unitsOf(kind).front();
  const double value = (m.value - unit.offset) / unit.factor, uncertain = m.uncertain / unit.factor;
  // two digits of the uncertainty, or four of the value where it has none
  const double least = uncertain > 0.0 ? uncertain : std::abs(value) / 100.0;
  const int decimals = least > 0.0 ? std::clamp(1 - static_cast<int>(std::floor(std::log10(least))), 0, 6) : 1;
  std::string text = fmt::format("{:.{}f}", value, decimals);
  if (uncertain > 0.0) text += fmt::format(" \xC2\xB1 {:.{}f}", uncertain, decimals);
  if (*unit.symbol) text += fmt::format(" {}", unit.symbol);
  return text;
}

} // namespace muffle
