// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/failure/failure.h"

#include "core/parallel.h"
#include "core/plan/heaters.h"
#include "core/plan/rooms.h"
#include "core/plan/store_list.h"
#include "core/simulate/before_run.h"
#include "core/plan/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace muffle {
namespace {

constexpr double kMinute_s = 60.0;

Problem cancelled() { return {ProblemKind::cancelled, "", Message{"season.stopped"}, {}}; }
Problem noSolution() { return {ProblemKind::noSolution, "", Message{"season.no-solution"}, Message{"season.check-sizes"}}; }

bool isStopped(const std::atomic<bool>* stop) { return stop && stop->load(std::memory_order_relaxed); }

Scenario scenarioOf(const FailingThing& what, const Spell& when) {
  switch (what.kind) {
  case FailingThing::Kind::mains: return {.mainsOff = {when}};
  case FailingThing::Kind::stoker: return {.nobodyThere = {when}};
  case FailingThing::Kind::heater: return {.failures = {{what.id, when}}};
  case FailingThing::Kind::fan:
  case FailingThing::Kind::blanketOpen:
  case FailingThing::Kind::blanketShut: break;
  }
  return {.failures = {{what.text(), when}}};
}

/// A winter on its way, with what can fail in it.
Result<Run> begun(const Plan& plan, const Scene& scene, std::size_t winter, const std::atomic<bool>* stop) {
  const Winter& w = scene.weather->winters[winter];
  auto run = Run::prepare(plan, assemble(plan, w, scene.sun[winter], std::nullopt, Failable::yes), w);
  if (!run) return run;
  if (!startRun(*run, plan, winter < scene.before.size() ? &scene.before[winter] : nullptr, stop)) return noSolution();
  return run;
}

/// Node of the air that counts.
int airConcerned(const Plan& plan, const FailingThing& thing, const Assembly& assembly) {
  return concernsBay(plan, thing) ? assembly.rooms[*otherRoom(plan, RoomKind::bay)].air : assembly.air;
}

std::size_t stepsOf(double hours, const Winter& winter) {
  return std::max<std::size_t>(1, static_cast<std::size_t>(std::lround(hours * 3600.0 / winter.step_s)));
}

Spell spellFrom(const Winter& winter, std::size_t step, double hours) { return {winter.time(step), winter.time(step + stepsOf(hours, winter))}; }

/// Minutes after the moment at which a course of values `every_min` apart first goes below a line; nothing if it never does.
template <class Values> std::optional<double> crossing_min(const Values& values, double every_min, double line) {
  for (std::size_t i = 0; i < values.size(); ++i) {
    const auto now = static_cast<double>(values[i]);
    if (now >= line) continue;
    if (i == 0) return 0.0;
    const auto before = static_cast<double>(values[i - 1]);
    return every_min * (static_cast<double>(i - 1) + (before - line) / (before - now));
  }
  return std::nullopt;
}

} // namespace

std::string FailingThing::text() const {
  switch (kind) {
  case Kind::mains: return "mains";
  case Kind::stoker: return "stoker";
  case Kind::heater: return "heater:" + id;
  case Kind::fan: return "fan:" + id;
  case Kind::blanketOpen: return "blanket:open";
  case Kind::blanketShut: return "blanket:shut";
  }
  return {};
}

std::vector<FailingThing> whatCanFail(const Plan& plan) {
  using Kind = FailingThing::Kind;
  std::vector<FailingThing> all{{Kind::mains}};
  for (const Heater& h : plan.heaters)
    if (h.power_W > 0.0) all.push_back({Kind::heater, h.id, nameOf(plan, h)});
  for (std::size_t i = 0; i < plan.soilCables.size(); ++i) all.push_back({Kind::heater, cableId(i), nameOf(plan.soilCables[i])});
  if (std::any_of(plan.heaters.begin(), plan.heaters.end(), [](const Heater& h) { return factsOf(h.kind).control == HeatControl::batches; }) ||
      !plan.compost.empty())
    all.push_back({Kind::stoker});
  const House& house = plan.house;
  if (house.extractFan) all.push_back({Kind::fan, "extract"});
  if (house.bay && house.bay->fan) all.push_back({Kind::fan, "bay"});
  if (house.roofVoid && house.roofVoid->fan) all.push_back({Kind::fan, "roof-void"});
  for (std::size_t i = 0; i < plan.groundPipes.size(); ++i) all.push_back({Kind::fan, fmt::format("pipes {}", i + 1), nameOf(plan.groundPipes[i])});
  for (std::size_t i = 0; i < plan.waterLoops.size(); ++i) all.push_back({Kind::fan, fmt::format("loop {}", i + 1), nameOf(plan.waterLoops[i])});
  for (std::size_t i = 0; i < plan.compost.size(); ++i) {
    if (plan.compost[i].place == PilePlace::chamber && plan.compost[i].fan_m3_h > 0.0)
      all.push_back({Kind::fan, fmt::format("chamber {}", i + 1), nameOf(plan.compost[i])});
    if (plan.compost[i].place == PilePlace::mound) all.push_back({Kind::fan, fmt::format("mound {}", i + 1), nameOf(plan.compost[i])});
  }
  if (house.blanket) {
    all.push_back({Kind::blanketOpen});
    all.push_back({Kind::blanketShut});
  }
  return all;
}

bool concernsBay(const Plan& plan, const FailingThing& thing) {
  if (thing.kind == FailingThing::Kind::fan) return thing.id == "bay";
  return thing.kind == FailingThing::Kind::heater &&
         std::any_of(plan.heaters.begin(), plan.heaters.end(), [&](const Heater& h) { return h.id == thing.id && h.place.of == HeaterPlace::Of::bay; });
}

const Setpoints& setpointsConcerned(const Plan& plan, const FailingThing& thing) {
  return concernsBay(plan, thing) ? plan.house.bay->setpoints : plan.setpoints;
}

Result<FailingThing> failingThing(const Plan& plan, const std::string& text) {
  const std::string asked = text == "blanket" ? "blanket:open" : text;
  std::string known;
  for (const FailingThing& thing : whatCanFail(plan)) {
    if (thing.text() == asked) return thing;
    known += (known.empty() ? "" : ", ") + thing.text();
  }
  return Problem{ProblemKind::badInput, "--what", Message{"failure.nothing-of-that-name", text}, Message{"failure.it-has", known}};
}

Result<Failures> Failures::prepare(const Plan& plan, const Scene& scene, FailureQuestion question, int threads, const std::atomic<bool>* stop) {
  constexpr double kShortest_h = 0.1, kLongest_h = 240.0;
  if (!(question.for_h >= kShortest_h && question.for_h <= kLongest_h))
    return Problem{ProblemKind::badInput, "--for", Message{"failure.length", Amount{question.for_h, Unit::hour}},
                   Message{"failure.hours-allowed", kShortest_h, Amount{kLongest_h, Unit::hour}}};
  Failures all;
  all.m_plan = std::make_shared<const Plan>(plan);
  all.m_scene = &scene;
  all.m_question = std::move(question);
  all.m_threads = threads;
  all.m_stop = stop;
  return all;
}

Result<FailureRun> Failures::at(std::size_t winter, std::size_t step) const {
  const Winter& w = m_scene->weather->winters[winter];
  auto run = begun(*m_plan, *m_scene, winter, m_stop);
  if (isStopped(m_stop)) return cancelled();
  if (!run) return run.problems();
  step = std::min(step, w.size() - 2);
  while (run->step() < step) {
    if (isStopped(m_stop)) return cancelled();
    if (!run->advance()) return noSolution();
  }
  const int air = airConcerned(*m_plan, m_question.what, run->assembly());
  const auto air_C = [air](const Run& of) { return of.solver().temperature_C(air); };
  FailureRun result;
  result.winter = winter;
  result.step = step;
  result.at = w.time(step);
  result.atAir_C = air_C(*run);
  result.atOutside_C = w.outside_C[step];
  const std::size_t steps = std::min(stepsOf(m_question.for_h, w), w.size() - 1 - step);
  const RunState state = run->keep();
  result.otherwise_C.push_back(static_cast<float>(result.atAir_C));
  for (std::size_t i = 0; i < steps; ++i) {
    if (!run->advance()) return noSolution();
    result.otherwise_C.push_back(static_cast<float>(air_C(*run)));
  }
  run->goOn(state, scenarioOf(m_question.what, spellFrom(w, step, m_question.for_h)));
  result.otherwiseEvery_min = w.step_s / kMinute_s;
  const int minutes = std::max(1, static_cast<int>(std::lround(w.step_s / kMinute_s)));
  result.air_C.push_back(static_cast<float>(result.atAir_C));
  result.outside_C.push_back(static_cast<float>(result.atOutside_C));
  for (std::size_t i = 0; i < steps; ++i) {
    int piece = 0;
    const auto note = [&] {
      const double share = static_cast<double>(++piece) / minutes;
      result.air_C.push_back(static_cast<float>(air_C(*run)));
      result.outside_C.push_back(static_cast<float>(w.outside_C[step + i] + share * (w.outside_C[step + i + 1] - w.outside_C[step + i])));
    };
    if (isStopped(m_stop)) return cancelled();
    if (!run->advanceFinely(minutes, note)) return noSolution();
  }
  result.every_min = result.otherwiseEvery_min / minutes;
  for (const double line : m_question.lines_C) result.minutes.push_back(crossing_min(result.air_C, result.every_min, line));
  const auto lowest = std::min_element(result.air_C.begin(), result.air_C.end());
  result.lowest_C = static_cast<double>(*lowest);
  result.lowestAfter_min = result.every_min * static_cast<double>(lowest - result.air_C.begin());
  return result;
}

namespace {

/// How a failure at a moment goes, by the winter's steps.
struct Tried {
  std::size_t step = 0;
  double lowest_C = std::numeric_limits<double>::infinity();
  double soonest_min = std::numeric_limits<double>::infinity();
};

/// A winter in which nothing fails.
struct Unbroken {
  std::vector<double> air_C;
  std::vector<char> uses; ///< by step: what is to fail gave something in the step that ends here
  [[nodiscard]] bool holds(std::size_t from, std::size_t to, double line) const {
    return std::all_of(air_C.begin() + static_cast<std::ptrdiff_t>(from), air_C.begin() + static_cast<std::ptrdiff_t>(to) + 1,
                       [line](double t) { return t >= line; });
  }
  [[nodiscard]] bool isUsed(std::size_t from, std::size_t to) const {
    return std::any_of(uses.begin() + static_cast<std::ptrdiff_t>(from) + 1, uses.begin() + static_cast<std::ptrdiff_t>(to) + 1, [](char u) { return u != 0; });
  }
};

std::optional<Unbroken> unbroken(Run& run, const FailingThing& what, int air) {
  int thermostat = -1; // of the one heater that is to fail; else it may be anything
  const auto& thermostats = run.solver().network().thermostats;
  for (std::size_t j = 0; j < thermostats.size(); ++j)
    if (what.kind == FailingThing::Kind::heater && thermostats[j].id == what.id) thermostat = static_cast<int>(j);
  Unbroken course{{run.solver().temperature_C(air)}, {1}};
  while (!run.isDone()) {
    if (!run.advance()) return std::nullopt;
    course.air_C.push_back(run.solver().temperature_C(air));
    course.uses.push_back(thermostat < 0 || run.solver().lastPower_W(thermostat) > 0.0 ? 1 : 0);
  }
  return course;
}

struct WinterTried {
  Tried low, soon;
  std::size_t moments = 0;
  bool failed = false;
};

} // namespace

Result<WorstMoments> Failures::worst() const {
  const auto& winters = m_scene->weather->winters;
  const double line = m_question.lines_C.empty() ? -std::numeric_limits<double>::infinity() : m_question.lines_C.front();
  std::vector<WinterTried> tried(winters.size());
  const auto search = [&](std::size_t index) {
    WinterTried& found = tried[index];
    const Winter& w = winters[index];
    auto run = begun(*m_plan, *m_scene, index, m_stop);
    auto branch = Run::prepare(*m_plan, assemble(*m_plan, w, m_scene->sun[index], std::nullopt, Failable::yes), w);
    if (!run || !branch) {
      found.failed = true;
      return;
    }
    const int air = airConcerned(*m_plan, m_question.what, run->assembly());
    const auto air_C = [air](const Run& of) { return of.solver().temperature_C(air); };
    const RunState start = run->keep();
    const auto usual = unbroken(*run, m_question.what, air);
    if (!usual) {
      found.failed = true;
      return;
    }
    run->goOn(start);
    const std::size_t steps = stepsOf(m_question.for_h, w), hour = stepsOf(1.0, w);
    std::vector<float> course;
    const auto tryAt = [&](const RunState& state) -> std::optional<Tried> {
      branch->goOn(state, scenarioOf(m_question.what, spellFrom(w, state.step, m_question.for_h)));
      course.assign(1, static_cast<float>(air_C(*branch)));
      for (std::size_t i = 0; i < steps && !branch->isDone(); ++i) {
        if (!branch->advance()) return std::nullopt;
        course.push_back(static_cast<float>(air_C(*branch)));
      }
      ++found.moments;
      return Tried{state.step, static_cast<double>(*std::min_element(course.begin(), course.end())),
                   crossing_min(course, w.step_s / kMinute_s, line).value_or(std::numeric_limits<double>::infinity())};
    };
    const auto take = [&](const Tried& t) {
      if (t.lowest_C < found.low.lowest_C) found.low = t;
      // a line that would be crossed without it says nothing of the failure
      if (t.soonest_min < found.soon.soonest_min && usual->holds(t.step, t.step + steps, line)) found.soon = t;
    };
    const auto matters = [&](std::size_t step) { return step + steps < w.size() && usual->isUsed(step, step + steps); };
    // hour by hour, then every step about the worst
    while (!run->isDone()) {
      if (run->step() % hour == 0 && matters(run->step())) {
        if (isStopped(m_stop)) return;
        const auto t = tryAt(run->keep());
        if (!t) {
          found.failed = true;
          return;
        }
        take(*t);
      }
      if (!run->advance()) {
        found.failed = true;
        return;
      }
    }
    const std::size_t about[] = {found.low.step, found.soon.step};
    run->goOn(start);
    const auto isNear = [&](std::size_t step) {
      return std::any_of(std::begin(about), std::end(about), [&](std::size_t a) { return step + hour > a && step < a + hour && step != a; });
    };
    const std::size_t last = std::max(about[0], about[1]) + hour;
    while (!run->isDone() && run->step() < last) {
      if (isNear(run->step()) && matters(run->step()))
        if (const auto t = tryAt(run->keep())) take(*t);
      if (!run->advance()) return;
    }
  };
  forEachIndex(winters.size(), m_threads, search);
  if (isStopped(m_stop)) return cancelled();
  WorstMoments worst;
  worst.lowest_C = std::numeric_limits<double>::infinity();
  worst.soonest_min = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < tried.size(); ++i) {
    if (tried[i].failed) return noSolution();
    worst.moments += tried[i].moments;
    if (tried[i].low.lowest_C < worst.lowest_C) {
      worst.lowest_C = tried[i].low.lowest_C;
      worst.winterOfLow = i;
      worst.stepOfLow = tried[i].low.step;
    }
    if (tried[i].soon.soonest_min < worst.soonest_min) {
      worst.soonest_min = tried[i].soon.soonest_min;
      worst.winterOfTime = i;
      worst.stepOfTime = tried[i].soon.step;
    }
  }
  if (worst.moments == 0)
    return Problem{ProblemKind::noSolution, "", Message{"failure.changes-nothing", m_question.what.text(), Amount{m_question.for_h, Unit::hour, 6}},
                   Message{"failure.choose-another"}};
  return worst;
}

} // namespace muffle
