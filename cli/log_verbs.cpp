// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/answers.h"
#include "cli/verbs.h"

#include "book/files.h"
#include "core/log/flags.h"
#include "core/plan/plan_json.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdio>
#include <regex>

namespace muffle {
namespace {

/// Hours east of Greenwich that the log's own times are written with, such as 2031-01-05T06:00-06:00.
std::optional<double> writtenOffset_h(const std::string& file) {
  const auto bytes = readFile(file);
  if (!bytes) return std::nullopt;
  constexpr std::size_t kHead = 20000;
  const std::string head = bytes->substr(0, kHead);
  static const std::regex offset(R"(\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?([+-])(\d{2}):?(\d{2}))");
  std::smatch found;
  if (!std::regex_search(head, found, offset)) return std::nullopt;
  const double hours = std::stod(found[2]) + std::stod(found[3]) / 60.0;
  return found[1] == "-" ? -hours : hours;
}

/// What was not said is assumed, and told.
Place assumedPlace(const GivenPlace& given, const LogOptions& o, std::vector<std::string>& assumed) {
  constexpr double kLatitude_deg = 50.0, kDegreesAnHour = 15.0;
  Place place{given.latitude_deg.value_or(kLatitude_deg), given.longitude_deg.value_or(0.0), 0.0};
  if (!given.latitude_deg) assumed.push_back("latitude 50 degrees north: give --latitude");
  if (given.longitude_deg) return place;
  if (const auto hours = writtenOffset_h(o.file)) {
    place.longitude_deg = *hours * kDegreesAnHour;
    assumed.push_back(fmt::format("longitude {:g} degrees, from the offset of {:+g} h written in the log: give --longitude", place.longitude_deg, *hours));
  } else {
    assumed.push_back("longitude 0: give --longitude");
  }
  return place;
}

} // namespace

int runNights(const LogOptions& o, const GivenPlace& given, const NightQuestions& asked, bool json) {
  auto read = readLogFile(o, o.zone);
  if (!read) return report(o.file, read.problems());
  std::vector<std::string> assumed;
  const Place place = assumedPlace(given, o, assumed);
  for (const std::string& name : read->placeless) assumed.push_back(fmt::format("\"{}\" hangs outside: give --column", name));
  const auto zone = *TimeZone::named(o.zone);
  Log& log = read->log;
  const auto problems = flagProblems(log, place);
  const auto nights = cutNights(log, place, zone, asked.line_C);
  if (json) {
    Json answer = nightsAnswer(*read, problems, nights, zone);
    answer["log"]["assumed"] = assumed;
    answer["design"] = designAnswer(nights, asked.annualLow_C);
    if (asked.growingBase_C) answer["growing"] = growingAnswer(log, *asked.growingBase_C, zone);
    print(answer);
    return kDone;
  }
  for (const auto& what : assumed) fmt::print("assumed: {}\n", what);
  for (const auto& sentence : read->recognised) fmt::print("{}\n", english(sentence));
  for (const LogProblem& p : problems) fmt::print("{} {}: {} to {}, {} ({})\n", p.kind, p.channel, zone.iso(p.from), zone.iso(p.to), p.count, english(p.why));
  fmt::print("{:<11}{:>9}{:>9}{:>7}  sky\n", "night", "outside", "inside", "lift");
  for (const Night& n : nights)
    fmt::print("{:<11}{:>9}{:>9}{:>7}  {}{}\n", isoDate(n.date), n.outsideLow ? fmt::format("{:.1f}", n.outsideLow->value) : "-",
               n.insideLow ? fmt::format("{:.1f}", n.insideLow->value) : "-", n.lift_K() ? fmt::format("{:.1f}", *n.lift_K()) : "-", n.sky(),
               n.complete ? "" : ", incomplete");
  return kDone;
}

int runFit(const std::string& planFile, const LogOptions& o, const std::string& out, bool json) {
  const auto plan = readPlan(planFile);
  if (!plan) return report(planFile, plan.problems());
  auto read = readLogFile(o, plan->site.timeZone);
  if (!read) return report(o.file, read.problems());
  flagProblems(read->log, plan->site.place);
  auto weather = weatherFromLog(read->log, plan->site);
  if (!weather) return report(o.file, weather.problems());
  const auto zone = *TimeZone::named(plan->site.timeZone);
  const auto quick = quickFit(read->log, cutNights(read->log, plan->site.place, zone));
  if (!quick) return report(o.file, quick.problems());
  const auto parts = againstParts(*plan, *quick);
  auto full = calibrate(*plan, read->log, std::make_shared<const Weather>(std::move(*weather)));
  if (!full) return report(o.file, full.problems());
  full->found.date = isoDate(zone.localDate(read->log.time.back()));
  if (!out.empty()) {
    Plan fitted = *plan;
    fitted.calibration = full->found;
    if (const auto ok = writeFile(out, planToJson(fitted).dump(2) + "\n"); !ok) return report(out, ok.problems());
  }
  const auto together = houseLoss(*plan, *quick, *full);
  const Json answer = fitAnswer(*quick, parts ? std::optional(*parts) : std::nullopt, *full, together ? std::optional(*together) : std::nullopt);
  if (json) {
    print(answer);
    return kDone;
  }
  fmt::print("measured {:.0f} W/K (error {:.0f}) over {} heated nights", quick->UA_W_K(), quick->standardError_W_K(), quick->heated.size());
  if (parts) fmt::print(", calculated {:.0f} W/K", parts->calculated_W_K);
  fmt::print("\n");
  for (const auto& sentence : answer["explains"]) fmt::print("  {}\n", sentence.get<std::string>());
  for (const auto& [name, factor] : answer["full"].items())
    fmt::print("{:<9} x {:.2f} (error {:.2f})\n", name, factor["value"].get<double>(), factor["standard_error"].get<double>());
  fmt::print("lows of {} nights not fitted: off by {:.2f} K rms, {:.2f} K before\n", full->heldOut, full->lowAfter_K, full->lowBefore_K);
  for (std::size_t k = 1; k < full->sensors.size(); ++k)
    fmt::print("  \"{}\" on those nights: off by {:.2f} K rms, {:.2f} K before\n", full->sensors[k].channel, full->sensors[k].after_K,
               full->sensors[k].before_K);
  for (const auto& sentence : answer["remarks"]) fmt::print("  {}\n", sentence.get<std::string>());
  return kDone;
}

} // namespace muffle
