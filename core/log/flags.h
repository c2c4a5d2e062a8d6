// SPDX-License-Identifier: GPL-3.0-or-later
//
// What is wrong with a log: single readings that no sensor can give, spikes, a sensor that hangs, a stretch in another unit, the sun on
// a sensor, two sensors changed over, two that drift apart, a clock that is off; and gaps. The raw readings stay; the grower's
// decisions (Log::decisions) have the last word.
//
//   for (const LogProblem& p : flagProblems(log, site.place)) show(p.why);
#pragma once

#include "core/log/nights.h"

#include <span>

namespace muffle {

/// Sets every channel's flags anew and lists them, by time, together with gaps and the notes of reading.
std::vector<LogProblem> flagProblems(Log& log, const Place& place);

/// What keeps a night from being judged: of the problems that touch it outside, the one that covers most of it. Null for a whole night
/// and where nothing was found.
const LogProblem* whyLeftOut(const Night& night, const Log& log, const std::vector<LogProblem>& problems);

/// The readings of one channel that are there, in order: what a rule looks at.
struct Series {
  const Log& log;
  Channel& channel;
  std::vector<std::uint32_t> at; ///< rows, with a reading that may be used

  Series(const Log& log, Channel& channel);
  [[nodiscard]] std::size_t size() const { return at.size(); }
  [[nodiscard]] UtcSeconds time(std::size_t k) const { return log.time[at[k]]; }
  [[nodiscard]] double value(std::size_t k) const { return channel.clean(at[k]); }
};

/// A stretch found by a rule: readings first..last of a series.
struct Stretch {
  std::size_t first, last;
};

/// Mornings or afternoons on which a thermometer rises far above the air's own course and falls back while the sun still climbs or
/// stands high, at the same hour of several days within a week. The course is the straight line between the readings two hours before
/// and after. Before noon a reading that cools while the sun climbs is enough; later the hump must stand far above an afternoon's own.
std::vector<Stretch> sunOnSensor(const Series& series, const Place& place);

/// Rows from which, and up to which, two thermometers show each other's readings: both jump at once, each to where the other was.
/// `a` and `b` have one value a row, NaN where missing.
std::vector<Stretch> changedOver(std::span<const double> a, std::span<const double> b);

/// How far b has moved against a from the first tenth of the days to the last, K: medians of the daily mean differences; and the
/// spread of a day's difference about a straight line. Nothing with fewer than 20 days.
struct Drift {
  double change_K = 0.0;
  double spread_K = 0.0;
  [[nodiscard]] bool isReal() const; ///< more than 0.8 K, and more than three times the spread
};
std::optional<Drift> driftBetween(const Log& log, const Channel& a, const Channel& b);

/// How far an inside thermometer jumps, K, from the reading before a heater starts to the one after, in the median of its starts; a
/// room's air takes longer than the quarter of an hour between them. Nothing with fewer than ten starts that are read so often.
std::optional<double> jumpAtHeater_K(const Log& log, const Channel& inside, const Channel& heater);

/// By how much the log's clock is ahead of the sun, h, from a sun column: the shift of each fortnight's clear-sky curve that fits
/// its readings best, the median of them; nothing with less than a week of sun.
std::optional<double> clockAhead_h(const Log& log, const Channel& sun, const Place& place);

} // namespace muffle
