// SPDX-License-Identifier: GPL-3.0-or-later
//
// demo_generate DIR [seed]: writes DIR/log.csv, two winters of ten-minute readings of an invented cut-flower tunnel, with
// the noise and faults that real loggers have. See demo-data/README.md.
#include "core/calendar.h"
#include "demo-data/truth.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <string>

using namespace muffle;

namespace {

struct Span {
  Date from;
  double hour;
  double hours;
};

bool within(const Span& s, UtcSeconds utc) {
  const double start = static_cast<double>(daysSinceEpoch(s.from)) * 86400.0 + s.hour * 3600.0;
  return static_cast<double>(utc) >= start && static_cast<double>(utc) < start + s.hours * 3600.0;
}

// what went wrong, in UTC
const Span kGaps[] = {{{2023, 11, 22}, 13, 2.5}, {{2024, 1, 19}, 17, 9}, {{2024, 12, 14}, 9, 31}, {{2025, 2, 3}, 2, 1.2}};
const Span kStuckOutside = {{2023, 12, 9}, 18, 14};
const Span kFahrenheitTunnel = {{2024, 11, 20}, 8, 22};
const Span kSunOnSensor = {{2023, 11, 3}, 0, 24 * 12};

std::string clockText(const TimeZone& zone, UtcSeconds utc) {
  const std::string iso = zone.iso(utc);
  return fmt::format("{} {}", iso.substr(0, 10), iso.substr(11, 5));
}

} // namespace

int main(int argc, char** argv) {
  if (argc < 2 || argc > 3) {
    std::fprintf(stderr, "usage: demo_generate DIR [seed]\n");
    return 2;
  }
  const std::uint32_t seed = argc > 2 ? static_cast<std::uint32_t>(std::stoul(argv[2])) : 20231U;
  const auto zone = TimeZone::named("Europe/Paris");
  if (!zone) {
    std::fprintf(stderr, "%s\n", english(zone.problem()).c_str());
    return 3;
  }
  std::filesystem::create_directories(argv[1]);
  const std::string path = std::string(argv[1]) + "/log.csv";
  std::ofstream out(path + ".part");
  // the logger's own heading; it writes local wall-clock time without an offset
  out << "Date and time,Outside [\xC2\xB0"
         "C],Tunnel air [\xC2\xB0"
         "C],Soil 10 cm [\xC2\xB0"
         "C],Barrel [\xC2\xB0"
         "C],Fan heater [W],Wind [m/s],Sun [W/m2]\n";
  std::mt19937 noiseSource(seed + 7);
  std::normal_distribution<double> noise;
  demo::Truth truth(seed, 45.2, 3.1);
  for (const int year : {2023, 2024}) {
    const UtcSeconds from = daysSinceEpoch({year, 10, 1}) * 86400 + 10 * 3600;
    const UtcSeconds to = daysSinceEpoch({year + 1, 4, 1}) * 86400;
    const bool hasSun = year == 2024; // the pyranometer came for the second winter
    truth.start(13.0);
    double heater_J = 0.0;
    double stuck = NAN;
    for (UtcSeconds t = from - 3 * 86400; t < to; t += 60) {
      const Date date = dateFromDays(t / 86400);
      const demo::Minute m = truth.step(t, dayOfYear(date) + static_cast<double>(t % 86400) / 86400.0);
      heater_J += m.heater_W * 60.0;
      if (t % 600 != 0) continue;
      const double heater = heater_J / 600.0;
      heater_J = 0.0;
      if (t < from) continue;
      bool gap = false;
      for (const Span& s : kGaps) gap = gap || within(s, t);
      // draws do not depend on the faults, so that the same seed gives the same air with or without them
      const double n1 = noise(noiseSource), n2 = noise(noiseSource), n3 = noise(noiseSource), n4 = noise(noiseSource), n5 = noise(noiseSource);
      if (gap) continue;
      double outside = m.outside_C + 0.08 * n1;
      if (within(kSunOnSensor, t))
        outside += 0.017 * m.sun_W_m2 * std::max(0.0, std::sin(M_PI * (static_cast<double>(t % 86400) / 3600.0 - 7.5) / 4.0)) *
                   (t % 86400 > 27000 && t % 86400 < 41400 ? 1.0 : 0.0);
      if (within(kStuckOutside, t)) {
        if (std::isnan(stuck)) stuck = outside;
        outside = stuck;
      } else {
        stuck = NAN;
      }
      double tunnel = m.lowAir_C + 0.10 * n2;
      if (within(kFahrenheitTunnel, t)) tunnel = tunnel * 1.8 + 32.0;
      out << fmt::format("{},{:.2f},{:.2f},{:.2f},{:.2f},{:.0f},{:.1f},", clockText(*zone, t), outside, tunnel, m.soil10_C + 0.05 * n3, m.barrel_C + 0.06 * n4,
                         heater, std::max(0.0, m.wind_m_s * (1.0 + 0.05 * n5)));
      if (hasSun) out << fmt::format("{:.0f}", std::max(0.0, m.sun_W_m2));
      out << "\n";
    }
  }
  out.close();
  if (!out) {
    std::fprintf(stderr, "%s: could not be written\n", path.c_str());
    return 3;
  }
  std::filesystem::rename(path + ".part", path);
  return 0;
}
