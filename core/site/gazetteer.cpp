// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/gazetteer.h"

#include "core/site/place_names.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>
#include <set>
#include <unordered_map>

namespace muffle {
namespace {

constexpr double kEarth_km = 6371.0;

/// The next piece of `text` up to `end`; takes it away.
std::string_view cut(std::string_view& text, char end) {
  const std::size_t at = text.find(end);
  const std::string_view piece = text.substr(0, at);
  text.remove_prefix(at == std::string_view::npos ? text.size() : at + 1);
  return piece;
}

bool readNumber(std::string_view text, int& into) {
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), into);
  return error == std::errc() && end == text.data() + text.size();
}

bool beginsAWord(std::string_view text, std::string_view beginning) {
  for (std::size_t at = text.find(beginning); at != std::string_view::npos; at = text.find(beginning, at + 1))
    if (at == 0 || text[at - 1] == ' ') return true;
  return false;
}

bool liesIn(const Town& town, std::string_view where) {
  return where.empty() || foldedName(town.countryCode) == where || beginsAWord(foldedName(town.country), where) || beginsAWord(foldedName(town.region), where);
}

} // namespace

double distance_km(Coordinates from, Coordinates to) {
  constexpr double rad = std::numbers::pi / 180.0;
  const double dLat = (to.latitude_deg - from.latitude_deg) * rad / 2.0, dLon = (to.longitude_deg - from.longitude_deg) * rad / 2.0;
  const double h = std::pow(std::sin(dLat), 2) + std::cos(from.latitude_deg * rad) * std::cos(to.latitude_deg * rad) * std::pow(std::sin(dLon), 2);
  return 2.0 * kEarth_km * std::asin(std::min(1.0, std::sqrt(h)));
}

Result<Gazetteer> Gazetteer::read(std::string text, std::string_view otherNames) {
  Gazetteer made;
  made.m_text = std::make_shared<const std::string>(std::move(text));
  std::string_view places = *made.m_text;
  made.m_towns.reserve(static_cast<std::size_t>(std::count(places.begin(), places.end(), '\n')));
  Town group;
  int line = 0;
  const auto wrong = [&](std::string_view what) {
    return Problem{ProblemKind::badInput, fmt::format("line {}", line), Message{"place.no-place", what}, Message{"place.columns-needed"}};
  };
  while (!places.empty()) {
    ++line;
    std::string_view row = cut(places, '\n');
    if (row.empty()) continue;
    if (row[0] == '#') {
      row.remove_prefix(1);
      group.countryCode = cut(row, '\t');
      group.country = row;
      group.region = group.regionCode = {};
    } else if (row[0] == '@') {
      row.remove_prefix(1);
      group.region = cut(row, '\t');
      group.regionCode = row;
    } else {
      const std::string_view whole = row, name = cut(row, '\t'), people = cut(row, '\t'), latitude = cut(row, '\t');
      int north = 0, east = 0;
      group.people_hundreds = 0;
      if (name.empty() || !readNumber(latitude, north) || !readNumber(row, east) || (!people.empty() && !readNumber(people, group.people_hundreds)) ||
          std::abs(north) > 90'000 || std::abs(east) > 180'000)
        return wrong(whole);
      group.name = name;
      group.at = {north / 1000.0, east / 1000.0};
      made.m_towns.push_back(group);
    }
  }
  std::unordered_map<std::string, std::string> others; // by code and name
  while (!otherNames.empty()) {
    std::string_view row = cut(otherNames, '\n');
    if (row.empty() || row[0] == ';') continue;
    const std::string_view code = cut(row, '\t'), name = cut(row, '\t');
    others[fmt::format("{}\t{}", code, name)] += fmt::format("{}\t", row);
  }
  made.m_names.reserve(made.m_towns.size() + others.size());
  for (std::uint32_t i = 0; i < made.m_towns.size(); ++i) {
    const Town& town = made.m_towns[i];
    made.m_names.push_back({foldedName(town.name), i});
    if (const auto found = others.find(fmt::format("{}\t{}", town.countryCode, town.name)); found != others.end()) {
      std::string_view names = found->second;
      while (!names.empty()) made.m_names.push_back({foldedName(cut(names, '\t')), i});
      others.erase(found); // the biggest of its name
    }
  }
  std::sort(made.m_names.begin(), made.m_names.end(),
            [](const Entry& a, const Entry& b) { return a.folded != b.folded ? a.folded < b.folded : a.town < b.town; });
  return made;
}

std::vector<Town> Gazetteer::find(std::string_view typed, std::size_t limit) const {
  const std::string name = foldedName(cut(typed, ','));
  std::vector<std::string> within;
  while (!typed.empty())
    if (std::string part = foldedName(cut(typed, ',')); !part.empty()) within.push_back(std::move(part));
  if (name.empty() || limit == 0) return {};
  struct Hit {
    int rank;
    std::uint32_t town;
  };
  std::vector<Hit> hits;
  std::set<std::uint32_t> taken;
  const auto take = [&](const Entry& entry, int rank) {
    const Town& town = m_towns[entry.town];
    if (std::all_of(within.begin(), within.end(), [&](const std::string& where) { return liesIn(town, where); }) && taken.insert(entry.town).second)
      hits.push_back({rank, entry.town});
  };
  const auto first = std::lower_bound(m_names.begin(), m_names.end(), name, [](const Entry& e, const std::string& n) { return e.folded < n; });
  auto last = first;
  for (; last != m_names.end() && last->folded.starts_with(name); ++last) take(*last, last->folded == name ? 0 : 1);
  if (hits.size() < limit && name.size() >= 3)
    for (const Entry& entry : m_names)
      if (const std::size_t at = entry.folded.find(' '); at != std::string::npos && beginsAWord(std::string_view(entry.folded).substr(at + 1), name))
        take(entry, 2);
  std::stable_sort(hits.begin(), hits.end(), [&](const Hit& a, const Hit& b) {
    return a.rank != b.rank ? a.rank < b.rank : m_towns[a.town].people_hundreds > m_towns[b.town].people_hundreds;
  });
  std::vector<Town> found;
  for (std::size_t i = 0; i < std::min(limit, hits.size()); ++i) found.push_back(m_towns[hits[i].town]);
  return found;
}

const Town* Gazetteer::nearest(Coordinates at) const {
  const Town* best = nullptr;
  double best_km = 0.0;
  for (const Town& town : m_towns)
    if (const double km = distance_km(at, town.at); !best || km < best_km) best = &town, best_km = km;
  return best;
}

} // namespace muffle
