// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/headings.h"

#include "core/log/cells.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>

namespace muffle {
namespace {

bool hasPart(const std::string& name, const std::vector<const char*>& parts) {
  return std::any_of(parts.begin(), parts.end(), [&](const char* p) { return name.find(p) != std::string::npos; });
}

/// Letters and digits in runs, in lower case.
std::vector<std::string> wordsOf(const std::string& name) {
  std::vector<std::string> words;
  std::string word;
  for (const char c : name + " ") {
    const auto u = static_cast<unsigned char>(c);
    if (std::isalnum(u) || u >= 0x80) {
      word += static_cast<char>(std::tolower(u));
    } else if (!word.empty()) {
      words.push_back(word);
      word.clear();
    }
  }
  return words;
}

bool hasWord(const std::vector<std::string>& words, std::initializer_list<const char*> any) {
  return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return std::find(any.begin(), any.end(), w) != any.end(); });
}

struct Mark {
  std::vector<const char*> marks; ///< in " heading "
  UnitMark unit;
};

const std::vector<Mark>& marks() {
  static const std::vector<Mark> all{
      {{"\xC2\xB0"
        "f",
        "[f]", "(f)", "_f ", " f ", "degf", "deg f", "deg. f", "fahrenheit"},
       {"F", 1.0 / 1.8, -32.0 / 1.8}},
      {{"\xC2\xB0"
        "c",
        "[c]", "(c)", "_c ", " c ", "degc", "deg c", "deg. c", "celsius", "\xE2\x84\x83", "centigrade"},
       {"C"}},
      {{"[k]", "(k)", "kelvin"}, {"K", 1.0, -273.15}},
      {{"km/h", "kmh", "kph"}, {"km/h", 1.0 / 3.6}},
      {{"mph", "mi/h"}, {"mph", 0.44704}},
      {{"knot", "[kn]", "(kn)", "[kt]", "(kt)"}, {"kn", 0.514444}},
      {{"m/s", "m_s", "ms-1"}, {"m/s"}},
      {{"kwh"}, {"kWh", 3.6e6, 0.0, true}},
      {{"[wh]", "(wh)", "_wh ", " wh "}, {"Wh", 3600.0, 0.0, true}},
      {{"kw]", "kw)", "_kw ", " kw "}, {"kW", 1000.0}},
      {{"w/m", "wm-2", "w_m2", "watts/m"}, {"W/m2"}},
      {{"klux", "[klx]", "(klx)"}, {"klx", 1000.0 / 110.0}}, // daylight: some 110 lm/W
      {{"lux", "[lx]", "(lx)"}, {"lx", 1.0 / 110.0}},
      {{"[w]", "(w)", "_w ", " w ", "watts"}, {"W"}},
      {{"%"}, {"%"}},
      {{"[mm]", "(mm)", " mm "}, {"mm"}},
      {{"[in]", "(in)", "inch"}, {"in", 25.4}},
  };
  return all;
}

} // namespace

std::optional<UnitMark> unitIn(const std::string& text) {
  const std::string padded = fmt::format(" {} ", text);
  for (const Mark& m : marks())
    if (hasPart(padded, m.marks)) return m.unit;
  return std::nullopt;
}

std::string unitBehind(std::string_view cell) {
  cell = trim(cell);
  std::size_t n = 0;
  while (n < cell.size() && (std::isdigit(static_cast<unsigned char>(cell[n])) || cell[n] == '.' || cell[n] == ',' || cell[n] == '-' || cell[n] == '+')) ++n;
  return n == 0 ? std::string() : lower(asUtf8(trim(cell.substr(n))));
}

bool guessRole(const std::string& heading, Channel& c) {
  const std::string n = lower(heading);
  // own form first: "room:house"
  for (int r = 0; r <= static_cast<int>(Role::note); ++r) {
    const auto role = static_cast<Role>(r);
    const std::string key = roleText(role, "");
    const std::string word = n.substr(0, n.find_first_of(" [("));
    if (word == key || word.starts_with(key + ":")) {
      c.role = role;
      c.id = word.size() > key.size() ? word.substr(key.size() + 1) : "";
      if (role == Role::room && c.id.empty()) c.id = "house";
      return true;
    }
  }
  const auto words = wordsOf(n);
  if (hasPart(n, {"humid", "feuchte", "moisture", "vocht"}) || hasWord(words, {"rh", "hum"}))
    c.role = Role::humidity, c.id = hasPart(n, {"out", "ext"}) ? "outside" : "house";
  else if (hasPart(n,
                   {"battery", "batt", "voltage", "signal", "rssi", "pressure", "dew", "chill", "heat index", "direction", "record", "serial", "sample no"}) ||
           hasWord(words, {"id", "no", "nr", "index", "dir", "hpa", "mbar", "volt", "volts", "v"}))
    c.role = Role::note;
  else if (hasPart(n, {"wind", "gust", "vent "}))
    c.role = Role::wind;
  else if (hasPart(n, {"solar", "radiation", "irradiance", "pyran", "globalstrahlung", "w/m", "lux", "light"}) || hasWord(words, {"sun", "lx", "klx"}))
    c.role = Role::sun;
  else if (hasPart(n, {"rain", "precip", "regen", "neerslag"}))
    c.role = Role::rain;
  else if (hasPart(n, {"heater", "power", "watt", "heizung", "meter", "kwh", "energy"}))
    c.role = Role::heater, c.id = "1";
  else if (hasPart(n, {"soil", "ground", "boden", "bodem"}) || hasWord(words, {"bed", "sol", "suelo", "floor"}))
    c.role = Role::soil, c.id = "floor";
  else if (hasPart(n, {"tank", "barrel", "water", "drum", "fass"}) || hasWord(words, {"butt"}))
    c.role = Role::store, c.id = "barrels";
  else if (hasPart(n, {"cover", "fleece", "under"}))
    c.role = Role::cover, c.id = "cover";
  else if (hasPart(n, {"outs", "outd", "ambient", "extern", "aussen", "au\xC3\x9F", "buiten", "dehors", "exterior", "ext\xC3\xA9rieur", "fuera", "north wall",
                       "garden", "yard"}) ||
           hasWord(words, {"out", "met", "ext", "oat"}))
    c.role = Role::outside;
  else if (hasPart(n, {"house", "tunnel", "green", "room", "binnen", "innen", "inside", "indoor", "int\xC3\xA9rieur", "interior",
                       "gew\xC3\xA4"
                       "chshaus",
                       "serre", "kas"}) ||
           hasWord(words, {"in", "int"}))
    c.role = Role::room, c.id = "house";
  else if (hasPart(n, {"temp"}) || hasWord(words, {"air", "ch1", "t1"})) {
    c.role = Role::room, c.id = "house";
    return false;
  } else if (statisticIn(heading) != Statistic::moment && std::all_of(words.begin(), words.end(), [](const std::string& w) {
               static constexpr std::array kBare{"min",  "minimum", "tmin",    "mini", "lowest",       "coldest",     "max", "maximum", "tmax",
                                                 "maxi", "highest", "warmest", "low",  "high",         "c",           "f",   "degc",    "degf",
                                                 "deg",  "night",   "day",     "t",    "\xC2\xB0\x63", "\xC2\xB0\x66"};
               return std::find(kBare.begin(), kBare.end(), w) != kBare.end();
             }))
    c.role = Role::outside; // "date,min,max": a max/min sheet, and the weather's unless a name says otherwise
  return true;
}

Statistic statisticIn(const std::string& heading) {
  const auto words = wordsOf(heading);
  for (std::size_t i = 0; i < words.size(); ++i) {
    const std::string& w = words[i];
    const bool afterNumber = i > 0 && std::all_of(words[i - 1].begin(), words[i - 1].end(), [](unsigned char c) { return std::isdigit(c); });
    const bool ofTunnel = i + 1 < words.size() && (words[i + 1] == "tunnel" || words[i + 1] == "tunnels" || words[i + 1] == "bed");
    const auto is = [&](std::initializer_list<const char*> any) { return std::find(any.begin(), any.end(), w) != any.end(); };
    if (!afterNumber && is({"min", "minimum", "tmin", "mini", "lowest", "coldest"})) return Statistic::lowest;
    if (is({"max", "maximum", "tmax", "maxi", "highest", "warmest"})) return Statistic::highest;
    if (!ofTunnel && is({"low"})) return Statistic::lowest;
    if (!ofTunnel && is({"high"})) return Statistic::highest;
  }
  return Statistic::moment;
}

bool looksLikeTimeName(const std::string& heading) {
  return hasPart(lower(heading), {"time", "date", "stamp", "datum", "zeit", "fecha", "hora", "heure", "tijd", "epoch", "clock"}) &&
         !hasPart(lower(heading), {"uptime", "time to"});
}

std::optional<int> clockOffsetIn(const std::string& heading) {
  const std::string n = lower(heading);
  for (const char* key : {"gmt", "utc"}) {
    const auto at = n.find(key);
    if (at == std::string::npos) continue;
    std::size_t i = at + 3;
    while (i < n.size() && n[i] == ' ') ++i;
    if (i >= n.size() || (n[i] != '+' && n[i] != '-')) return 0;
    const int sign = n[i] == '-' ? -1 : 1;
    int hours = 0, minutes = 0;
    const auto* const end = n.data() + n.size();
    auto parsed = std::from_chars(n.data() + i + 1, end, hours);
    if (parsed.ec != std::errc{}) return 0;
    if (parsed.ptr < end && *parsed.ptr == ':') std::from_chars(parsed.ptr + 1, end, minutes);
    if (hours > 99) minutes = hours % 100, hours /= 100;
    if (hours > 14 || minutes > 59) return std::nullopt;
    return sign * (hours * 3600 + minutes * 60);
  }
  return std::nullopt;
}

std::string asUtf8(std::string_view text) {
  bool valid = true;
  for (std::size_t i = 0; i < text.size() && valid;) {
    const auto c = static_cast<unsigned char>(text[i]);
    const std::size_t more = c < 0x80 ? 0 : c >= 0xF0 && c < 0xF5 ? 3 : c >= 0xE0 ? 2 : c >= 0xC2 ? 1 : 9;
    valid = more < 9 && i + more < text.size();
    for (std::size_t k = 1; valid && k <= more; ++k) valid = (static_cast<unsigned char>(text[i + k]) & 0xC0) == 0x80;
    i += more + 1;
  }
  if (valid) return std::string(text);
  std::string out;
  for (const char ch : text) {
    const auto c = static_cast<unsigned char>(ch);
    if (c < 0x80)
      out += ch;
    else
      out += static_cast<char>(0xC0 | (c >> 6)), out += static_cast<char>(0x80 | (c & 0x3F));
  }
  return out;
}

} // namespace muffle
