// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/zones.h"

#include "core/calendar.h"
#include "core/site/gazetteer.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <iterator>
#include <optional>
#include <utility>
#include <vector>

namespace muffle {
namespace {

/// +DDMM, +DDMMSS, +DDDMM or +DDDMMSS.
std::optional<double> sexagesimal(std::string_view text, std::size_t degreeDigits) {
  if (text.size() < degreeDigits + 3) return {};
  const auto digits = [&](std::size_t from, std::size_t count) {
    int value = 0;
    std::from_chars(text.data() + from, text.data() + std::min(text.size(), from + count), value);
    return value;
  };
  double value = digits(1, degreeDigits) + digits(1 + degreeDigits, 2) / 60.0;
  if (text.size() >= degreeDigits + 5) value += digits(3 + degreeDigits, 2) / 3600.0;
  return text[0] == '-' ? -value : value;
}

std::optional<Coordinates> townOfZone(std::string_view text) {
  const std::size_t split = text.find_first_of("+-", 1);
  if (split == std::string_view::npos) return {};
  const auto latitude = sexagesimal(text.substr(0, split), 2), longitude = sexagesimal(text.substr(split), 3);
  if (!latitude || !longitude) return {};
  return Coordinates{*latitude, *longitude};
}

/// In January and July, hours.
std::optional<std::pair<double, double>> offsets_h(std::string_view zone) {
  const auto known = TimeZone::named(std::string(zone));
  if (!known) return {};
  const auto at = [&](unsigned month) { return known->offset_s(daysSinceEpoch({2025, month, 15}) * 86'400) / 3600.0; };
  return std::pair{at(1), at(7)};
}

/// How many hours its winter clock would be off the sun.
double offTheSun_h(std::string_view zone, double longitude_deg) {
  const auto offsets = offsets_h(zone);
  return offsets ? std::abs(std::remainder(std::min(offsets->first, offsets->second) - longitude_deg / 15.0, 24.0)) : 0.0;
}

/// A line of the table.
struct ZoneLine {
  std::string_view countries, zone, comment;
  Coordinates at; ///< of the zone's own town
};

std::vector<ZoneLine> zoneLines(std::string_view table) {
  std::vector<ZoneLine> lines;
  while (!table.empty()) {
    const std::size_t end = table.find('\n');
    std::string_view line = table.substr(0, end);
    table.remove_prefix(end == std::string_view::npos ? table.size() : end + 1);
    if (line.empty() || line[0] == '#') continue;
    std::array<std::string_view, 4> fields;
    for (std::string_view& field : fields) {
      const std::size_t tab = line.find('\t');
      field = line.substr(0, tab);
      line.remove_prefix(tab == std::string_view::npos ? line.size() : tab + 1);
    }
    if (const auto at = townOfZone(fields[1]); at && !fields[2].empty()) lines.push_back({fields[0], fields[2], fields[3], *at});
  }
  return lines;
}

bool hasWord(std::string_view text, std::string_view word) {
  const auto isLetter = [&](std::size_t i) { return i < text.size() && std::isalpha(static_cast<unsigned char>(text[i])); };
  for (std::size_t at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1))
    if ((at == 0 || !isLetter(at - 1)) && !isLetter(at + word.size())) return true;
  return false;
}

// "Eastern - IN (most areas)", "MST - AZ (except Navajo)", "Eastern - IN (Da, Du, K, Mn)", "Busingen"
bool isOfRegions(const ZoneLine& z) { return z.comment.find(" - ") != std::string_view::npos; }
bool isOfMost(const ZoneLine& z) { return hasWord(z.comment, "most") || hasWord(z.comment, "except") || z.comment.find('(') == std::string_view::npos; }
bool isOfAFew(const ZoneLine& z) { return (isOfRegions(z) && !isOfMost(z)) || z.comment == z.zone.substr(z.zone.rfind('/') + 1); }

} // namespace

std::string zoneAt(Coordinates at, const Town& town, std::string_view zoneTable) {
  std::vector<ZoneLine> all = zoneLines(zoneTable);
  const auto keep = [&](auto isKept) {
    std::vector<ZoneLine> kept;
    std::copy_if(all.begin(), all.end(), std::back_inserter(kept), isKept);
    if (!kept.empty()) all = std::move(kept);
  };
  keep([&](const ZoneLine& z) { return !town.countryCode.empty() && hasWord(z.countries, town.countryCode); });
  const auto isOfRegion = [&](const ZoneLine& z) { return !town.regionCode.empty() && hasWord(z.comment, town.regionCode); };
  if (std::any_of(all.begin(), all.end(), [&](const ZoneLine& z) { return isOfRegion(z) && isOfMost(z); })) keep(isOfRegion);
  if (!town.regionCode.empty()) keep([&](const ZoneLine& z) { return !isOfRegions(z) || isOfRegion(z); });
  constexpr double kReach_km = 60.0, kFartherPerHour_km = 700.0, kUsual_h = 0.5;
  keep([&](const ZoneLine& z) { return !isOfAFew(z) || distance_km(at, z.at) < kReach_km; });
  std::string best;
  double best_km = INFINITY;
  for (const ZoneLine& z : all) {
    const double km = distance_km(at, z.at) + kFartherPerHour_km * std::max(0.0, offTheSun_h(z.zone, at.longitude_deg) - kUsual_h);
    if (km < best_km) best_km = km, best = z.zone;
  }
  // of those with the same clock the first: the table has the better known before the others
  if (const auto clock = offsets_h(best))
    for (const ZoneLine& z : all)
      if (offsets_h(z.zone) == clock) return std::string(z.zone);
  return best;
}

} // namespace muffle
