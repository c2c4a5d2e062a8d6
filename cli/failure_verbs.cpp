// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/digits.h"
#include "cli/plan_and_weather.h"
#include "cli/verbs.h"

#include "core/failure/remedies.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <thread>

namespace muffle {
namespace {

constexpr double kUsualHour = 2.0;

/// Hours of the day, or nothing for what is no time.
std::optional<double> hourOf(const std::string& text) {
  unsigned hour = 0, minute = 0;
  int end = 0;
  if (std::sscanf(text.c_str(), "%2u:%2u%n", &hour, &minute, &end) != 2 || static_cast<std::size_t>(end) != text.size() || hour > 23 || minute > 59)
    return std::nullopt;
  return hour + minute / 60.0;
}

std::optional<Date> dateOf(const std::string& text) {
  int year = 0;
  unsigned month = 0, day = 0;
  int end = 0;
  if (std::sscanf(text.c_str(), "%4d-%2u-%2u%n", &year, &month, &day, &end) != 3 || static_cast<std::size_t>(end) != text.size()) return std::nullopt;
  return Date{year, month, day};
}

struct Moment {
  std::size_t winter, step;
};

/// The night that was asked for, or the one that is coldest outside; its hour by the clock.
Result<Moment> momentOf(const PlanAndWeather& in, const FailureAsked& asked) {
  const auto hour = asked.from.empty() ? std::optional(kUsualHour) : hourOf(asked.from);
  if (!hour) return Problem{ProblemKind::badInput, "--from", Message{"command.no-time-of-day", asked.from}, Message{"command.time-as"}};
  const auto date = asked.night.empty() ? std::nullopt : dateOf(asked.night);
  if (!asked.night.empty() && !date)
    return Problem{ProblemKind::badInput, "--night", Message{"command.no-date", asked.night}, Message{"command.date-as"}};
  const NightSpan* night = nullptr;
  std::size_t winter = 0;
  double coldest_C = 1e9;
  const auto& winters = in.weather->winters;
  for (std::size_t i = 0; i < winters.size(); ++i)
    for (const NightSpan& n : winters[i].nights) {
      if (date ? !(n.date == *date) : !n.assessable) continue;
      const auto& outside = winters[i].outside_C;
      const double low = *std::min_element(outside.begin() + static_cast<std::ptrdiff_t>(n.from), outside.begin() + static_cast<std::ptrdiff_t>(n.to) + 1);
      if (low >= coldest_C) continue;
      coldest_C = low;
      night = &n;
      winter = i;
    }
  if (!night)
    return Problem{ProblemKind::badInput, "--night", date ? Message{"command.night-not-log", asked.night} : Message{"command.no-night-log-whole"},
                   Message{"command.night-was-logged-needed"}};
  // from noon before it on, the first step at that hour or after it
  const Winter& w = winters[winter];
  std::size_t i = (night->from + night->to) / 2;
  while (i > 0 && !(in.zone.localHour(w.time(i)) >= 12.0 && in.zone.localHour(w.time(i - 1)) < 12.0)) --i;
  const double due = std::fmod(*hour - 12.0 + 24.0, 24.0);
  while (i + 2 < w.size() && std::fmod(in.zone.localHour(w.time(i)) - 12.0 + 24.0, 24.0) < due - 1e-6) ++i;
  return Moment{winter, i};
}

Json courseOf(const FailureRun& run) {
  const auto tenMinutes = std::max<std::size_t>(1, static_cast<std::size_t>(std::lround(10.0 / run.every_min)));
  Json course = Json::array();
  for (std::size_t i = 0; i < run.air_C.size(); i += tenMinutes)
    course.push_back({{"minute", digits(static_cast<double>(i) * run.every_min, 1)},
                      {"air_C", digits(static_cast<double>(run.air_C[i]), 2)},
                      {"outside_C", digits(static_cast<double>(run.outside_C[i]), 2)}});
  return course;
}

} // namespace

int runFail(const std::string& planFile, const LogOptions& log, const FailureAsked& asked, bool json) {
  const auto in = readPlanAndWeather(planFile, log);
  if (!in) return kBadInput;
  const auto what = failingThing(in->plan, asked.what);
  if (!what) return report(planFile, what.problems());
  FailureQuestion question{*what, asked.for_h, {setpointsConcerned(in->plan, *what).hold_C}};
  for (const double line : asked.lines_C) question.lines_C.push_back(line);
  if (asked.lines_C.empty() && question.lines_C.front() != 0.0) question.lines_C.push_back(0.0);
  const Scene scene = makeScene(in->weather, in->plan);
  const auto failures = Failures::prepare(in->plan, scene, question, static_cast<int>(std::thread::hardware_concurrency()));
  if (!failures) return report(planFile, failures.problems());

  std::optional<WorstMoments> worst;
  Moment moment{};
  if (asked.worst) {
    auto found = failures->worst();
    if (!found) return report(planFile, found.problems());
    worst = *found;
    moment = worst->stepOfTime ? Moment{*worst->winterOfTime, *worst->stepOfTime} : Moment{worst->winterOfLow, worst->stepOfLow};
  } else {
    const auto found = momentOf(*in, asked);
    if (!found) return report(planFile, found.problems());
    moment = *found;
  }
  const auto run = failures->at(moment.winter, moment.step);
  if (!run) return report(planFile, run.problems());
  const auto remedies = whatWouldHold(in->plan, scene, question, moment.winter, moment.step);
  if (!remedies) return report(planFile, remedies.problems());

  Json out{{"what", what->text()},
           {"from", in->zone.iso(run->at)},
           {"for_h", asked.for_h},
           {"air_C", digits(run->atAir_C, 2)},
           {"outside_C", digits(run->atOutside_C, 2)},
           {"lines", Json::array()},
           {"lowest_C", digits(run->lowest_C, 2)},
           {"lowest_after_h", digits(run->lowestAfter_min / 60.0, 2)},
           {"course", courseOf(*run)}};
  for (std::size_t i = 0; i < question.lines_C.size(); ++i) {
    Json line{{"line_C", question.lines_C[i]}, {"minutes", run->minutes[i] ? Json(digits(*run->minutes[i], 1)) : Json()}};
    line["at"] = run->minutes[i] ? Json(in->zone.iso(run->at + static_cast<UtcSeconds>(60.0 * *run->minutes[i]))) : Json();
    out["lines"].push_back(std::move(line));
  }
  Json held{{"alarm_within_min", run->minutes.front() ? Json(digits(*run->minutes.front(), 0)) : Json()}};
  const auto put = [&](const char* key, const std::optional<double>& value, int decimals) { held[key] = value ? Json(digits(*value, decimals)) : Json(); };
  put("backup_heater_W", remedies->backup_W, 0);
  put("more_water_l", remedies->water_l, 0);
  put("held_warmer_K", remedies->warmer_K, 2);
  out["would_hold"] = std::move(held);
  if (worst)
    out["worst"] = {{"moments_tried", worst->moments},
                    {"lowest_C", digits(worst->lowest_C, 2)},
                    {"lowest_from", in->zone.iso(in->weather->winters[worst->winterOfLow].time(worst->stepOfLow))},
                    {"soonest_from", worst->stepOfTime ? Json(in->zone.iso(in->weather->winters[*worst->winterOfTime].time(*worst->stepOfTime))) : Json()}};
  if (json) {
    print(out);
    return kDone;
  }
  fmt::print("{} fails at {} for {:g} h: {:.1f} C in the house, {:.1f} C outside\n", what->text(), in->zone.iso(run->at), asked.for_h, run->atAir_C,
             run->atOutside_C);
  for (std::size_t i = 0; i < question.lines_C.size(); ++i) {
    if (run->minutes[i])
      fmt::print("  below {:g} C after {:.0f} min\n", question.lines_C[i], *run->minutes[i]);
    else
      fmt::print("  {:g} C holds\n", question.lines_C[i]);
  }
  fmt::print("  lowest {:.1f} C after {:.1f} h\n", run->lowest_C, run->lowestAfter_min / 60.0);
  if (remedies->backup_W) fmt::print("  a heater of {:.0f} W that stays would have held it\n", *remedies->backup_W);
  if (remedies->water_l) fmt::print("  {:.0f} litres of water more would have held it\n", *remedies->water_l);
  if (remedies->warmer_K) fmt::print("  held {:.1f} K warmer beforehand, it would have lasted\n", *remedies->warmer_K);
  return kDone;
}

} // namespace muffle
