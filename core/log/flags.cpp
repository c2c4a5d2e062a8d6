// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/flags.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace muffle {
namespace {

struct Limits {
  double low, high;
};

Limits limitsOf(Role role) {
  switch (role) {
  case Role::outside: return {-60.0, 55.0};
  case Role::room:
  case Role::cover: return {-50.0, 75.0};
  case Role::soil: return {-40.0, 60.0};
  case Role::store: return {-40.0, 110.0};
  case Role::wind: return {0.0, 75.0};
  case Role::sun: return {-20.0, 1500.0};
  case Role::humidity: return {0.0, 105.0};
  case Role::heater: return {-1.0, 1e6};
  case Role::rain: return {0.0, 500.0};
  case Role::note: break;
  }
  return {-1e12, 1e12};
}

constexpr double kSpike_K = 6.0;                // away from both neighbours, which agree within half of it
constexpr double kSlowSpike_K = 3.0;            // soil and water cannot jump
constexpr UtcSeconds kSpikeWithin_s = 4 * 3600; // from the reading before to the one after
constexpr double kStuck_s = 5.0 * 3600.0;       // air never repeats a reading to the last digit for so long
constexpr std::size_t kStuckReadings = 6;
constexpr double kCoarse_K = 0.4, kStuckCoarse_s = 20.0 * 3600.0; // of a logger that resolves no more: a dull night may not move it
constexpr double kStuckHeld_s = 24.0 * 3600.0;                    // of a room: a thermostat holds its air quite level from dusk to dawn
constexpr std::size_t kHeldLevels = 3;                            // stretches at one reading: a level that is held, not a sensor that hangs
constexpr double kUnitFit_K = 2.5;                                // how well 1.8 t + 32 must explain a jump
constexpr double kUnitJump_K = 15.0;
constexpr std::size_t kUnitReadings = 3;
constexpr double kClockOff_h = 0.7;    // most of an hour: a summer time that was not followed
constexpr double kHeaterJump_K = 1.5;  // within one reading: the heater blows on the sensor
constexpr std::size_t kOneStretch = 6; // flags so close together are told of as one

/// Puts flags on one log, rule by rule, and keeps the list.
class Flagger {
public:
  Flagger(Log& log, const Place& place, std::vector<LogProblem>& out) : m_log(log), m_place(place), m_out(out) {}

  void run() {
    for (std::size_t c = 0; c < m_log.channels.size(); ++c) {
      Channel& channel = m_log.channels[c];
      channel.flag.assign(m_log.time.size(), 0);
      outOfRange(c);
      if (!isTemperature(channel.role) || channel.statistic != Statistic::moment) continue;
      fahrenheit(c);
      spikes(c);
      if (channel.role == Role::outside || channel.role == Role::room) stuck(c);
      if (channel.role == Role::outside) sunlit(c);
    }
    pairs();
    placement();
    clock();
    byHand();
  }

private:
  /// Dismissed where the grower said so: then listed, but not set.
  void found(std::size_t c, Flag flag, const char* kind, const Series& series, const Stretch& stretch, long count, Message why) {
    LogProblem problem{kind, m_log.channels[c].name, series.time(stretch.first), series.time(stretch.last), count, std::move(why), flag, static_cast<int>(c)};
    problem.verdict = verdictOn(problem);
    m_out.push_back(std::move(problem));
  }
  [[nodiscard]] Verdict verdictOn(const LogProblem& p) const {
    Verdict verdict = Verdict::open;
    for (const Decision& d : m_log.decisions) // the last word counts
      if (d.flag == p.flag && (d.channel < 0 || d.channel == p.index) && d.from <= p.from && d.to >= p.to) verdict = d.verdict;
    return verdict;
  }
  /// Sets the flags of single readings and tells of those close together as one stretch.
  template <class Bad> void mark(std::size_t c, Flag flag, const char* kind, const Series& series, Bad bad, const Message& why) {
    std::vector<std::uint32_t> rows;
    for (std::size_t k = 0; k < series.size();) {
      if (!bad(k)) {
        ++k;
        continue;
      }
      Stretch stretch{k, k};
      rows.assign(1, series.at[k]);
      while (++k < series.size() && k - stretch.last <= kOneStretch)
        if (bad(k)) stretch.last = k, rows.push_back(series.at[k]);
      k = stretch.last + 1;
      found(c, flag, kind, series, stretch, static_cast<long>(rows.size()), why);
      if (m_out.back().verdict != Verdict::dismissed) m_marked.insert(m_marked.end(), rows.begin(), rows.end());
    }
    for (const std::uint32_t row : m_marked) series.channel.flag[row] = static_cast<std::uint8_t>(flag); // after: a rule sees no flags of its own
    m_marked.clear();
  }
  void markAll(std::size_t c, Flag flag, const char* kind, const Series& series, const Stretch& stretch, Message why) {
    found(c, flag, kind, series, stretch, static_cast<long>(stretch.last - stretch.first + 1), std::move(why));
    if (m_out.back().verdict == Verdict::dismissed) return;
    for (std::size_t k = stretch.first; k <= stretch.last; ++k) series.channel.flag[series.at[k]] = static_cast<std::uint8_t>(flag);
  }

  void outOfRange(std::size_t c) {
    Channel& channel = m_log.channels[c];
    const Limits limits = limitsOf(channel.role);
    const Series series(m_log, channel);
    mark(
        c, Flag::outOfRange, "out of range", series, [&](std::size_t k) { return series.value(k) < limits.low || series.value(k) > limits.high; },
        Message{"log.no-sensor-reads-this"});
  }

  /// A stretch that begins and ends with the jump that a change of unit makes.
  void fahrenheit(std::size_t c) {
    Channel& channel = m_log.channels[c];
    if (channel.unitIn == "F") return;
    const double least = limitsOf(channel.role).low;
    const Series series(m_log, channel);
    const auto jumps = [&](double celsius, double other) { return other - celsius > kUnitJump_K && std::abs(other - (1.8 * celsius + 32.0)) < kUnitFit_K; };
    std::vector<Stretch> all;
    for (std::size_t k = 1; k < series.size(); ++k) {
      if (!jumps(series.value(k - 1), series.value(k))) continue;
      std::size_t end = k + 1;
      while (end < series.size() && !jumps(series.value(end), series.value(end - 1)) && series.value(end) >= least) ++end;
      if (end >= series.size() || end - k < kUnitReadings) continue;
      all.push_back({k, end - 1});
      k = end;
    }
    for (const Stretch& s : all) markAll(c, Flag::fahrenheit, "unit", series, s, Message{"log.stretch-in-fahrenheit"});
  }

  void spikes(std::size_t c) {
    Channel& channel = m_log.channels[c];
    const double least = channel.role == Role::soil || channel.role == Role::store ? kSlowSpike_K : kSpike_K;
    const Series series(m_log, channel);
    mark(
        c, Flag::spike, "spike", series,
        [&](std::size_t k) {
          if (k == 0 || k + 1 >= series.size() || series.time(k + 1) - series.time(k - 1) >= kSpikeWithin_s) return false;
          const double before = series.value(k - 1), here = series.value(k), after = series.value(k + 1);
          return std::abs(here - before) > least && std::abs(here - after) > least && std::abs(before - after) < least / 2.0;
        },
        Message{"log.reading-far-from-both"});
  }

  /// The smallest steps that a logger's readings move by, as most of them do.
  [[nodiscard]] static double resolution_K(const Series& series) {
    std::vector<double> steps;
    for (std::size_t k = 1; k < series.size(); ++k)
      if (const double step = std::abs(series.value(k) - series.value(k - 1)); step > 1e-6) steps.push_back(step);
    if (steps.empty()) return 0.0;
    const auto at = steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 20);
    std::nth_element(steps.begin(), at, steps.end());
    return *at;
  }

  void stuck(std::size_t c) {
    const Series series(m_log, m_log.channels[c]);
    const bool isRoom = m_log.channels[c].role == Role::room;
    const double least_s = std::max(resolution_K(series) >= kCoarse_K ? kStuckCoarse_s : kStuck_s, isRoom ? kStuckHeld_s : 0.0);
    std::size_t from = 0;
    std::vector<Stretch> all;
    std::map<float, std::size_t> levels; // stretches of some hours at each reading
    for (std::size_t k = 1; k <= series.size(); ++k) {
      const float level = series.channel.raw[series.at[from]];
      if (k < series.size() && series.channel.raw[series.at[k]] == level) continue;
      const auto lasts_s = static_cast<double>(series.time(k - 1) - series.time(from));
      if (lasts_s >= kStuck_s && k - from >= kStuckReadings) ++levels[level];
      if (lasts_s >= least_s && k - from >= kStuckReadings) all.push_back({from, k - 1});
      from = k;
    }
    std::erase_if(all, [&](const Stretch& s) { return isRoom && levels[series.channel.raw[series.at[s.first]]] >= kHeldLevels; });
    for (const Stretch& s : all) markAll(c, Flag::stuck, "stuck", series, s, Message{"log.sensor-hangs"});
  }

  void sunlit(std::size_t c) {
    const Series series(m_log, m_log.channels[c]);
    for (const Stretch& s : sunOnSensor(series, m_place)) markAll(c, Flag::sun, "sun on the sensor", series, s, Message{"log.sun-on-sensor"});
  }

  void pairs() {
    for (std::size_t a = 0; a < m_log.channels.size(); ++a)
      for (std::size_t b = a + 1; b < m_log.channels.size(); ++b) {
        Channel &first = m_log.channels[a], &second = m_log.channels[b];
        const auto isAir = [](const Channel& ch) { return ch.statistic == Statistic::moment && (ch.role == Role::outside || ch.role == Role::room); };
        if (!isAir(first) || !isAir(second)) continue;
        if (first.role != second.role) swapped(a, b);
        if (first.role == second.role) drift(a, b);
      }
  }
  void swapped(std::size_t a, std::size_t b) {
    std::vector<double> one(m_log.time.size()), other(m_log.time.size());
    for (std::size_t i = 0; i < m_log.time.size(); ++i) one[i] = m_log.channels[a].clean(i), other[i] = m_log.channels[b].clean(i);
    for (const Stretch& s : changedOver(one, other))
      for (const auto& [c, beside] : {std::pair{a, b}, std::pair{b, a}}) {
        const Series series(m_log, m_log.channels[c]);
        const auto first = std::lower_bound(series.at.begin(), series.at.end(), s.first), after = std::upper_bound(series.at.begin(), series.at.end(), s.last);
        if (first == after) continue;
        markAll(c, Flag::swapped, "swapped", series,
                {static_cast<std::size_t>(first - series.at.begin()), static_cast<std::size_t>(after - series.at.begin()) - 1},
                Message{"log.sensors-changed-over", m_log.channels[beside].name});
      }
  }
  void drift(std::size_t a, std::size_t b) {
    const auto found = driftBetween(m_log, m_log.channels[a], m_log.channels[b]);
    if (!found || !found->isReal()) return;
    note(static_cast<int>(b), Flag::drift, "drift", Message{"log.sensor-drifts", Amount{found->change_K, Unit::kelvin, 2}, m_log.channels[a].name});
  }
  void placement() {
    const Channel* heater = m_log.find(Role::heater);
    for (std::size_t c = 0; heater && c < m_log.channels.size(); ++c) {
      if (m_log.channels[c].role != Role::room || m_log.channels[c].statistic != Statistic::moment) continue;
      const auto jump = jumpAtHeater_K(m_log, m_log.channels[c], *heater);
      if (!jump || *jump < kHeaterJump_K) continue;
      note(static_cast<int>(c), Flag::none, "placement", Message{"log.jumps-with-heater", Amount{*jump, Unit::kelvin, 2}});
    }
  }
  void clock() {
    for (std::size_t c = 0; c < m_log.channels.size(); ++c) {
      if (m_log.channels[c].role != Role::sun || m_log.channels[c].statistic != Statistic::moment) continue;
      const auto ahead = clockAhead_h(m_log, m_log.channels[c], m_place);
      if (!ahead || std::abs(*ahead) < kClockOff_h) continue;
      note(static_cast<int>(c), Flag::clock, "clock", Message{*ahead > 0 ? "log.clock-is-fast" : "log.clock-is-slow", Amount{std::abs(*ahead), Unit::hour, 2}});
    }
  }
  void note(int channel, Flag flag, const char* kind, Message why) {
    LogProblem problem{kind, m_log.channels[static_cast<std::size_t>(channel)].name, m_log.time.front(), m_log.time.back(), 1, std::move(why), flag, channel};
    for (const Decision& d : m_log.decisions) // of the whole log, however it has grown since
      if (d.flag == flag && (d.channel < 0 || d.channel == channel)) problem.verdict = d.verdict;
    m_out.push_back(std::move(problem));
  }

  void byHand() {
    for (const Decision& d : m_log.decisions) {
      if (d.verdict != Verdict::setAside) continue;
      for (std::size_t c = 0; c < m_log.channels.size(); ++c) {
        if (d.channel >= 0 && d.channel != static_cast<int>(c)) continue;
        const Series series(m_log, m_log.channels[c]);
        const auto in = [&](std::size_t k) { return series.time(k) >= d.from && series.time(k) <= d.to; };
        std::size_t first = 0;
        while (first < series.size() && !in(first)) ++first;
        std::size_t last = first;
        while (last < series.size() && in(last)) ++last;
        if (last > first) markAll(c, Flag::byHand, "set aside", series, {first, last - 1}, Message{"log.set-aside-you"});
      }
    }
  }

  Log& m_log;
  const Place& m_place;
  std::vector<LogProblem>& m_out;
  std::vector<std::uint32_t> m_marked;
};

void gaps(const Log& log, std::vector<LogProblem>& problems) {
  const double step = log.step_s();
  for (std::size_t i = 1; i < log.time.size(); ++i) {
    const auto gap = static_cast<double>(log.time[i] - log.time[i - 1]);
    if (gap > std::max(3.0 * step, 3600.0))
      problems.push_back(
          {"gap", "", log.time[i - 1], log.time[i], std::lround(gap / step) - 1, Message{"log.no-readings", Amount{gap / 3600.0, Unit::hour, 3}}});
  }
}

} // namespace

Series::Series(const Log& l, Channel& c) : log(l), channel(c) {
  at.reserve(c.raw.size());
  for (std::size_t i = 0; i < c.raw.size(); ++i)
    if (!std::isnan(c.clean(i))) at.push_back(static_cast<std::uint32_t>(i));
}

std::vector<LogProblem> flagProblems(Log& log, const Place& place) {
  std::vector<LogProblem> problems = log.notes;
  if (log.time.empty()) return problems;
  Flagger(log, place, problems).run();
  gaps(log, problems);
  std::stable_sort(problems.begin(), problems.end(), [](const auto& a, const auto& b) { return a.from < b.from; });
  return problems;
}

const LogProblem* whyLeftOut(const Night& night, const Log& log, const std::vector<LogProblem>& problems) {
  if (night.complete) return nullptr;
  const LogProblem* worst = nullptr;
  UtcSeconds most = 0;
  for (const LogProblem& p : problems) {
    const bool ofOutside = p.index < 0 || log.channels[static_cast<std::size_t>(p.index)].role == Role::outside;
    if (!ofOutside || p.verdict == Verdict::dismissed || p.flag == Flag::drift || p.flag == Flag::clock || p.flag == Flag::duplicateTime) continue;
    const UtcSeconds covered = std::min(p.to, night.sunrise) - std::max(p.from, night.sunset);
    if (covered > most) most = covered, worst = &p;
  }
  return worst;
}

} // namespace muffle
