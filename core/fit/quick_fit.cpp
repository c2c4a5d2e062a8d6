// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/quick_fit.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr UtcSeconds kAfterSunset_s = 3 * 3600; // the day's sun has left the air by then
constexpr double kHeated_W = 50.0;
constexpr double k95 = 1.96;
constexpr double kWhole = 0.8; // of the hours of a night that must be there

double mean(const std::vector<double>& v) {
  double sum = 0.0;
  int n = 0;
  for (const double x : v)
    if (std::isfinite(x)) sum += x, ++n;
  return n > 0 ? sum / n : std::nan("");
}

/// Means of a channel by the hours of a night.
std::vector<double> byHour(const Log& log, const Channel& channel, UtcSeconds from, UtcSeconds to) {
  std::vector<double> hours;
  auto i = static_cast<std::size_t>(std::lower_bound(log.time.begin(), log.time.end(), from) - log.time.begin());
  for (UtcSeconds hour = from; hour + 3600 <= to; hour += 3600) {
    double sum = 0.0;
    int n = 0;
    for (; i < log.time.size() && log.time[i] < hour + 3600; ++i)
      if (const double v = channel.clean(i); std::isfinite(v)) sum += v, ++n;
    hours.push_back(n > 0 ? sum / n : std::nan(""));
  }
  return hours;
}

bool isWhole(const std::vector<double>& hours) {
  const auto known = std::count_if(hours.begin(), hours.end(), [](double v) { return std::isfinite(v); });
  return !hours.empty() && static_cast<double>(known) >= kWhole * static_cast<double>(hours.size());
}

} // namespace

/// One night's weather is like the last's, and so is what the line is off by: fewer nights than are counted tell something new. With
/// residuals that keep rho from night to night the interval is sqrt((1 + rho)/(1 - rho)) as wide (Bartlett 1935).
void widenForAlikeNights(RobustLine& line, const std::vector<QuickNight>& nights) {
  double products = 0.0, squares = 0.0, before = 0.0;
  std::size_t pairs = 0;
  for (std::size_t k = 0; k < nights.size(); ++k) {
    const double off = nights[k].heater_W - (line.intercept + line.slope * nights[k].lift_K);
    squares += off * off / static_cast<double>(nights.size());
    if (k > 0 && daysSinceEpoch(nights[k].date) - daysSinceEpoch(nights[k - 1].date) == 1) products += off * before, ++pairs;
    before = off;
  }
  if (pairs < 10 || squares <= 0.0) return; // too few to tell
  constexpr double kMostAlike = 0.9;
  const double rho = std::clamp(products / static_cast<double>(pairs) / squares, 0.0, kMostAlike);
  const double wider = std::sqrt((1.0 + rho) / (1.0 - rho));
  line.low = line.slope - wider * (line.slope - line.low);
  line.high = line.slope + wider * (line.high - line.slope);
}

Result<QuickFit> quickFit(const Log& log, const std::vector<Night>& nights) {
  const Channel* const inside = log.find(Role::room);
  const Channel* const outside = log.find(Role::outside);
  const Channel* const heater = log.find(Role::heater);
  if (!inside || !outside) return Problem{ProblemKind::badInput, "log", Message{"fit.log-lacks-inside-outside"}, Message{"fit.both-needed"}};
  QuickFit fit;
  std::vector<double> in, out, heat; // all nights' hours, with a hole between two nights
  for (const Night& night : nights) {
    const UtcSeconds from = night.sunset + kAfterSunset_s;
    const auto i = byHour(log, *inside, from, night.sunrise), o = byHour(log, *outside, from, night.sunrise);
    if (!isWhole(i) || !isWhole(o)) continue;
    const auto h = heater ? byHour(log, *heater, from, night.sunrise) : std::vector<double>(i.size(), 0.0);
    if (heater && !isWhole(h)) continue;
    in.insert(in.end(), i.begin(), i.end());
    out.insert(out.end(), o.begin(), o.end());
    heat.insert(heat.end(), h.begin(), h.end());
    for (auto* series : {&in, &out, &heat}) series->push_back(std::nan(""));
    const double watts = mean(h);
    if (heater && watts > kHeated_W) {
      fit.heated.push_back({night.date, mean(i), mean(i) - mean(o), watts, night.meanWind_m_s});
    } else if (watts < 1.0) {
      if (const auto cooling = fitCoolDown(i, mean(o), 3600.0); cooling && cooling->timeConstant_s < 30.0 * 86400.0)
        fit.timeConstant_h.push_back(cooling->timeConstant_s / 3600.0);
    }
  }
  if (in.empty()) return Problem{ProblemKind::badInput, "log", Message{"fit.no-night-both-temperatures"}, Message{"fit.one-night-needed"}};
  std::vector<double> lift, watts;
  for (const QuickNight& n : fit.heated) lift.push_back(n.lift_K), watts.push_back(n.heater_W);
  if (auto line = robustLine(lift, watts)) {
    fit.line = *line;
    widenForAlikeNights(*fit.line, fit.heated);
    // a heater that is always full on draws no line, whatever its slope; the hours' balance can still tell
    if (!(fit.line->low > 0.0)) fit.line.reset();
  }
  if (heater)
    if (auto balance = fitHeatBalance(in, out, heat, 3600.0); balance && balance->UA_W_K > k95 * balance->seUA_W_K) fit.balance = *balance;
  return fit;
}

} // namespace muffle
