// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/log.h"

#include <fmt/format.h>

#include <algorithm>

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

constexpr double kSpike_K = 6.0;     // away from both neighbours, which agree within half of it
constexpr double kSlowSpike_K = 3.0; // soil and water cannot jump
constexpr double kStuckHours = 5.0;  // air never repeats a reading to the last digit for so long
constexpr double kUnitFit_K = 2.5;   // how well 1.8 t + 32 must explain a jump
constexpr double kUnitJump_K = 15.0;

class Flagger {
public:
  Flagger(Log& log, std::vector<LogProblem>& out) : m_log(log), m_out(out) {}

  void run(Channel& channel) {
    std::fill(channel.flag.begin(), channel.flag.end(), std::uint8_t{0});
    mark(
        channel, Flag::outOfRange, "out of range",
        [&](std::size_t i) {
          const Limits l = limitsOf(channel.role);
          return channel.raw[i] < l.low || channel.raw[i] > l.high;
        },
        "no sensor of this kind can read this");
    if (!isTemperature(channel.role)) return;
    fahrenheit(channel);
    const double spike = channel.role == Role::soil || channel.role == Role::store ? kSlowSpike_K : kSpike_K;
    mark(
        channel, Flag::spike, "spike",
        [&](std::size_t i) {
          if (i == 0 || i + 1 >= m_log.time.size() || channel.flag[i]) return false;
          const double a = channel.clean(i - 1), b = channel.clean(i), c = channel.clean(i + 1);
          return std::abs(b - a) > spike && std::abs(b - c) > spike && std::abs(a - c) < spike / 2.0 && m_log.time[i + 1] - m_log.time[i - 1] < 4 * 3600;
        },
        "one reading far from both its neighbours");
    if (channel.role == Role::outside || channel.role == Role::room) stuck(channel);
  }

private:
  template <class F> void mark(Channel& channel, Flag flag, const char* kind, F bad, const char* why) {
    LogProblem problem{kind, channel.name, 0, 0, 0, why};
    for (std::size_t i = 0; i < m_log.time.size(); ++i) {
      if (std::isnan(channel.raw[i]) || !bad(i)) continue;
      channel.flag[i] = static_cast<std::uint8_t>(flag);
      if (problem.count++ == 0) problem.from = m_log.time[i];
      problem.to = m_log.time[i];
    }
    if (problem.count > 0) m_out.push_back(problem);
  }

  /// A stretch that begins and ends with the jump that a change of unit makes.
  void fahrenheit(Channel& channel) {
    if (channel.unitIn == "F") return;
    const std::size_t n = m_log.time.size();
    std::size_t i = 1;
    while (i < n) {
      const double before = channel.raw[i - 1], here = channel.raw[i];
      if (!(here - before > kUnitJump_K && std::abs(here - (1.8 * before + 32.0)) < kUnitFit_K)) {
        ++i;
        continue;
      }
      std::size_t end = i + 1;
      while (end < n) {
        const double last = channel.raw[end - 1], next = channel.raw[end];
        if (last - next > kUnitJump_K && std::abs(last - (1.8 * next + 32.0)) < kUnitFit_K) break;
        if (next < limitsOf(channel.role).low) break;
        ++end;
      }
      if (end < n && end - i >= 3) {
        for (std::size_t k = i; k < end; ++k) channel.flag[k] = static_cast<std::uint8_t>(Flag::fahrenheit);
        m_out.push_back({"unit", channel.name, m_log.time[i], m_log.time[end - 1], static_cast<long>(end - i),
                         "this stretch was written in degrees Fahrenheit; it is converted"});
        i = end + 1;
      } else {
        ++i;
      }
    }
  }

  void stuck(Channel& channel) {
    const std::size_t n = m_log.time.size();
    std::size_t from = 0;
    for (std::size_t i = 1; i <= n; ++i) {
      if (i < n && channel.raw[i] == channel.raw[from]) continue;
      if (!std::isnan(channel.raw[from]) && static_cast<double>(m_log.time[i - 1] - m_log.time[from]) >= kStuckHours * 3600.0 && i - from >= 6) {
        for (std::size_t k = from; k < i; ++k) channel.flag[k] = static_cast<std::uint8_t>(Flag::stuck);
        m_out.push_back(
            {"stuck", channel.name, m_log.time[from], m_log.time[i - 1], static_cast<long>(i - from), "the same reading for hours: the sensor hangs"});
      }
      from = i;
    }
  }

  Log& m_log;
  std::vector<LogProblem>& m_out;
};

} // namespace

std::string roleText(Role role, const std::string& id) {
  static const char* const kNames[] = {"outside", "room", "soil", "store", "cover", "wind", "sun", "humidity", "heater", "rain", "note"};
  std::string text = kNames[static_cast<std::size_t>(role)];
  const bool named = role == Role::room || role == Role::soil || role == Role::store || role == Role::cover || role == Role::humidity || role == Role::heater;
  return named && !id.empty() ? text + ":" + id : text;
}

bool isTemperature(Role role) { return role == Role::outside || role == Role::room || role == Role::soil || role == Role::store || role == Role::cover; }

std::string Channel::unit() const {
  if (isTemperature(role)) return "C";
  switch (role) {
  case Role::wind: return "m/s";
  case Role::sun: return "W/m2";
  case Role::humidity: return "%";
  case Role::heater: return "W";
  case Role::rain: return "mm";
  default: return unitIn;
  }
}

const Channel* Log::find(Role role, const std::string& id) const {
  for (const Channel& c : channels)
    if (c.role == role && (id.empty() || c.id == id)) return &c;
  return nullptr;
}

double Log::step_s() const {
  if (time.size() < 2) return 0.0;
  std::vector<UtcSeconds> steps;
  for (std::size_t i = 1; i < time.size(); ++i) steps.push_back(time[i] - time[i - 1]);
  std::nth_element(steps.begin(), steps.begin() + static_cast<long>(steps.size() / 2), steps.end());
  return static_cast<double>(steps[steps.size() / 2]);
}

std::vector<LogProblem> flagProblems(Log& log) {
  std::vector<LogProblem> problems;
  Flagger flagger(log, problems);
  for (Channel& channel : log.channels) flagger.run(channel);
  const double step = log.step_s();
  for (std::size_t i = 1; i < log.time.size(); ++i) {
    const double gap = static_cast<double>(log.time[i] - log.time[i - 1]);
    if (gap > std::max(3.0 * step, 3600.0))
      problems.push_back({"gap", "", log.time[i - 1], log.time[i], std::lround(gap / step) - 1, fmt::format("no readings for {:.1f} h", gap / 3600.0)});
  }
  std::stable_sort(problems.begin(), problems.end(), [](const auto& a, const auto& b) { return a.from < b.from; });
  return problems;
}

} // namespace muffle
