// SPDX-License-Identifier: GPL-3.0-or-later
//
// One night's readings as many loggers would write them. All are of 2031-01-17 15:00 UTC on, every ten minutes, made up.
#pragma once

#include "core/calendar.h"

#include <fmt/format.h>

#include <cmath>
#include <functional>
#include <string>
#include <vector>

namespace muffle {

struct WrittenReading {
  UtcSeconds at;
  double outside_C, house_C;
};

inline const std::vector<WrittenReading>& writtenReadings() {
  static const std::vector<WrittenReading> all = [] {
    std::vector<WrittenReading> made;
    for (int i = 0; i < 90; ++i)
      made.push_back({1926428400 + i * 600, std::round(-40.0 - 50.0 * std::sin(i / 30.0)) / 10.0, std::round(38.0 - 9.0 * std::sin(i / 28.0)) / 10.0});
    return made;
  }();
  return all;
}

/// A file and the clock its times are of.
struct LoggerFile {
  const char* name;
  std::string text;
  const char* zone = "Europe/Paris";
  double tolerance_K = 1e-5; ///< of what the file can hold
};

/// Wall clock in Paris, an hour ahead of UTC in January.
inline std::string parisClock(UtcSeconds at, const char* form) {
  const Date d = dateFromDays((at + 3600) / 86400);
  const int s = static_cast<int>((at + 3600) % 86400), h = s / 3600, m = s / 60 % 60;
  static const char* const kMonths[] = {"Jan", "Feb"};
  return fmt::format(fmt::runtime(form), fmt::arg("Y", d.year), fmt::arg("y", d.year % 100), fmt::arg("M", d.month), fmt::arg("D", d.day),
                     fmt::arg("N", kMonths[d.month - 1]), fmt::arg("h", h), fmt::arg("m", m), fmt::arg("k", h % 12 == 0 ? 12 : h % 12),
                     fmt::arg("a", h < 12 ? "AM" : "PM"));
}

inline std::string withComma(double v) {
  std::string s = fmt::format("{:.1f}", v);
  s[s.find('.')] = ',';
  return s;
}
inline double fahrenheit(double c) { return std::round((c * 1.8 + 32.0) * 100.0) / 100.0; }

inline std::vector<LoggerFile> loggerFiles() {
  std::vector<LoggerFile> files;
  using Row = std::function<std::string(const WrittenReading&)>;
  const auto add = [&](const char* name, std::string head, const Row& row, const char* zone = "Europe/Paris", double tolerance_K = 1e-5) {
    for (const WrittenReading& r : writtenReadings()) head += row(r);
    files.push_back({name, std::move(head), zone, tolerance_K});
  };
  /// Clock, outside, house by a form.
  const auto rows = [](const char* clock, const char* form) -> Row {
    return [=](const WrittenReading& r) { return fmt::format(fmt::runtime(form), parisClock(r.at, clock), r.outside_C, r.house_C); };
  };
  constexpr const char* kIso = "{Y}-{M:02}-{D:02} {h:02}:{m:02}";
  add("IsoCommas", "Time,Outside,House\n", rows(kIso, "{},{:.1f},{:.1f}\n"));
  add("IsoWithT", "Time,Outside,House\n", rows("{Y}-{M:02}-{D:02}T{h:02}:{m:02}:00", "{},{:.1f},{:.1f}\n"));
  add("IsoWithOffset", "Time,Outside,House\n", rows("{Y}-{M:02}-{D:02}T{h:02}:{m:02}:00+01:00", "{},{:.1f},{:.1f}\n"), "UTC");
  add("IsoWithFractions", "Time,Outside,House\n", rows("{Y}-{M:02}-{D:02} {h:02}:{m:02}:00.000", "{},{:.1f},{:.1f}\n"));
  add("CompactIso", "Time,Outside,House\n", rows("{Y}{M:02}{D:02}T{h:02}{m:02}00", "{},{:.1f},{:.1f}\n"));
  add("CompactDigits", "Time,Outside,House\n", rows("{Y}{M:02}{D:02}{h:02}{m:02}", "{},{:.1f},{:.1f}\n"));
  add("GmtInTheHeading",
      "\"Date Time, GMT+01:00\",\"Outdoor temp, \xC2\xB0"
      "C\",\"Tunnel temp, \xC2\xB0"
      "C\"\n",
      rows("{M:02}/{D:02}/{y:02} {k:02}:{m:02}:00 {a}", "{},{:.1f},{:.1f}\n"), "UTC");
  add("Semicolons",
      "Datum;Au\xC3\x9F"
      "en [\xC2\xB0"
      "C];Gew\xC3\xA4"
      "chshaus [\xC2\xB0"
      "C]\n",
      [](const WrittenReading& r) {
        return fmt::format("{};{};{}\n", parisClock(r.at, "{D:02}.{M:02}.{Y} {h:02}:{m:02}"), withComma(r.outside_C), withComma(r.house_C));
      });
  add("Latin1Degrees",
      "Datum;Aussen (\xB0"
      "C);Innen (\xB0"
      "C)\n",
      [](const WrittenReading& r) {
        return fmt::format("{};{};{}\n", parisClock(r.at, "{D:02}.{M:02}.{Y} {h:02}:{m:02}"), withComma(r.outside_C), withComma(r.house_C));
      });
  add("QuotedDecimalCommas", "\"heure\",\"dehors\",\"serre\"\n", [](const WrittenReading& r) {
    return fmt::format("\"{}\",\"{}\",\"{}\"\n", parisClock(r.at, "{D:02}/{M:02}/{Y} {h:02}:{m:02}"), withComma(r.outside_C), withComma(r.house_C));
  });
  add("Tabs", "tijd\tbuiten\tbinnen\n", rows("{D}-{M}-{Y} {h}:{m:02}", "{}\t{:.1f}\t{:.1f}\n"));
  add("Bars", "time|outside|inside\n", rows(kIso, "{}|{:.1f}|{:.1f}\n"));
  add("Blanks", "date time outside inside\n", rows(kIso, "{}   {:.1f}    {:.1f}\n"));
  add("DayFirst", "Date,Outside,House\n", rows("{D:02}/{M:02}/{Y} {h:02}:{m:02}", "{},{:.1f},{:.1f}\n"));
  add("MonthFirst", "Date,Outside,House\n", rows("{M}/{D}/{Y} {h}:{m:02}", "{},{:.1f},{:.1f}\n"));
  add("TwelveHours", "Date,Outside,House\n", rows("{M}/{D}/{Y} {k}:{m:02} {a}", "{},{:.1f},{:.1f}\n"));
  add("MonthNames", "Date,Outside,House\n", rows("{D:02} {N} {Y} {h:02}:{m:02}", "{},{:.1f},{:.1f}\n"));
  add("MonthNamesFirst", "\"Date\",\"Outside\",\"House\"\n", rows("{N} {D}, {Y} {k}:{m:02} {a}", "\"{}\",{:.1f},{:.1f}\n"));
  add("Weekdays", "Date,Outside,House\n", rows("Fri {D:02}/{M:02}/{y:02} {h:02}:{m:02}", "{},{:.1f},{:.1f}\n"));
  add("DateAndTimeApart", "Date,Time,Outside,House\n", rows("{Y}-{M:02}-{D:02},{h:02}:{m:02}", "{},{:.1f},{:.1f}\n"));
  add("NumberDateTime", "No.,Date,Time,Outside,House\n", [n = 0](const WrittenReading& r) mutable {
    return fmt::format("{},{},{:.1f},{:.1f}\n", ++n, parisClock(r.at, "{D:02}/{M:02}/{Y},{h:02}:{m:02}:00"), r.outside_C, r.house_C);
  });
  add("DateOncePerDay", "Date,Time,Outside,House\n", [day = std::string()](const WrittenReading& r) mutable {
    const std::string today = parisClock(r.at, "{Y}-{M:02}-{D:02}");
    const bool again = today == day;
    day = today;
    return fmt::format("{},{},{:.1f},{:.1f}\n", again ? "" : today, parisClock(r.at, "{h:02}:{m:02}"), r.outside_C, r.house_C);
  });
  add("EpochSeconds", "epoch,outside,house\n", [](const WrittenReading& r) { return fmt::format("{},{:.1f},{:.1f}\n", r.at, r.outside_C, r.house_C); });
  add("EpochMilliseconds", "timestamp,outside,house\n",
      [](const WrittenReading& r) { return fmt::format("{}000,{:.1f},{:.1f}\n", r.at, r.outside_C, r.house_C); });
  add("SpreadsheetDays", "Date time,Outside,House\n", [](const WrittenReading& r) {
    return fmt::format("{:.6f},{:.1f},{:.1f}\n", static_cast<double>(r.at + 3600) / 86400.0 + 25569.0, r.outside_C, r.house_C);
  });
  add(
      "Fahrenheit",
      "Time,Outside (\xC2\xB0"
      "F),House (\xC2\xB0"
      "F)\n",
      [](const WrittenReading& r) { return fmt::format("{},{},{}\n", parisClock(r.at, kIso), fahrenheit(r.outside_C), fahrenheit(r.house_C)); }, "Europe/Paris",
      0.004);
  add(
      "OneHeadingInFahrenheit", "Time,Outside degF,House\n",
      [](const WrittenReading& r) { return fmt::format("{},{},{}\n", parisClock(r.at, kIso), fahrenheit(r.outside_C), fahrenheit(r.house_C)); }, "Europe/Paris",
      0.004);
  add(
      "EachItsOwnDegree", "Time,Outside temp (C),House temp (F)\n",
      [](const WrittenReading& r) { return fmt::format("{},{:.1f},{}\n", parisClock(r.at, kIso), r.outside_C, fahrenheit(r.house_C)); }, "Europe/Paris", 0.004);
  add("UnitsBehindReadings", "Time,Outside,House\n",
      rows(kIso, "{},{:.1f} \xC2\xB0"
                 "C,{:.1f} \xC2\xB0"
                 "C\n"));
  add(
      "FahrenheitBehindReadings", "Time,Outside,House\n",
      [](const WrittenReading& r) { return fmt::format("{},{} F,{} F\n", parisClock(r.at, kIso), fahrenheit(r.outside_C), fahrenheit(r.house_C)); },
      "Europe/Paris", 0.004);
  add("UnitsInARowOfTheirOwn",
      "Time,Outside,House\n,\xC2\xB0"
      "C,\xC2\xB0"
      "C\n",
      rows(kIso, "{},{:.1f},{:.1f}\n"));
  add(
      "Kelvin", "Time,Outside [K],House [K]\n",
      [](const WrittenReading& r) { return fmt::format("{},{:.2f},{:.2f}\n", parisClock(r.at, kIso), r.outside_C + 273.15, r.house_C + 273.15); },
      "Europe/Paris", 0.006);
  add("Preamble", "Greenhouse logger\nSerial 4711; firmware 2\nStarted by hand\n\nTime,Outside,House\n", rows(kIso, "{},{:.1f},{:.1f}\n"));
  add("CommentLines", "# station 3\n# written every ten minutes\nTime,Outside,House\n", rows(kIso, "{},{:.1f},{:.1f}\n"));
  add("HeadingsAgain", "Time,Outside,House\n", [n = 0](const WrittenReading& r) mutable {
    return fmt::format("{}{},{:.1f},{:.1f}\n", ++n % 40 == 0 ? "Time,Outside,House\n" : "", parisClock(r.at, kIso), r.outside_C, r.house_C);
  });
  add("CarriageReturns", "Time,Outside,House\r\n", rows(kIso, "{},{:.1f},{:.1f}\r\n"));
  add("OldLineEnds", "Time,Outside,House\r", rows(kIso, "{},{:.1f},{:.1f}\r"));
  add("TrailingSeparator", "Time,Outside,House,\n", rows(kIso, "{},{:.1f},{:.1f},\n"));
  add("ManyColumns", "Record,Time,Battery (V),Outside,Humidity out (%),House,Humidity in (%),Wind (km/h),Dew point\n",
      rows(kIso, "7,{0},3.61,{1:.1f},88,{2:.1f},91,4.5,-3.0\n"));
  add("NoHeadings", "", rows(kIso, "{},{:.1f},{:.1f}\n"));
  add("HighTunnel", "Time,Outside air,High tunnel air\n", rows(kIso, "{},{:.1f},{:.1f}\n"));
  add("PlusSigns", "Time,Outside,House\n", rows(kIso, "{},{:+.1f},{:+.1f}\n"));
  add("ARowAReading", "time,sensor,value\n", [](const WrittenReading& r) {
    const std::string t = parisClock(r.at, kIso);
    return fmt::format("{},outside,{:.1f}\n{},tunnel,{:.1f}\n", t, r.outside_C, t, r.house_C);
  });
  add(
      "ARowAReadingWithUnits", "sensor;time;state;unit\n",
      [](const WrittenReading& r) {
        const std::string t = parisClock(r.at, kIso);
        return fmt::format("greenhouse temp;{};{:.1f};\xC2\xB0"
                           "C\noutdoor temp;{};{};\xC2\xB0"
                           "F\n",
                           t, r.house_C, t, fahrenheit(r.outside_C));
      },
      "Europe/Paris", 0.004);
  add("TwoPasses", "Time,Outside,House\n", rows(kIso, "{},{:.1f},{:.1f}\n"));
  files.back().text += files[0].text.substr(files[0].text.find('\n') + 1); // the download was doubled
  std::string wide = "\xFF\xFE";                                           // UTF-16
  for (const char c : files[0].text) wide += c, wide += '\0';
  files.push_back({"Utf16", wide});
  files.push_back({"Utf8WithMark", "\xEF\xBB\xBF" + files[0].text});
  files.push_back({"TornLastLine", files[0].text + "2031-01-1"});
  return files;
}

} // namespace muffle
