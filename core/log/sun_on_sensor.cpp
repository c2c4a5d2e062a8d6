// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/flags.h"

#include "core/sun/irradiance.h"

#include <algorithm>
#include <map>

namespace muffle {
namespace {

constexpr double kBeside_s = 2.0 * 3600.0; // where the straight line of the air's course is held
constexpr double kSlack_s = 1800.0;        // readings this far from it still hold it
constexpr double kLeast_K = 2.2;           // above that line, where the air would have to cool while the sun climbs
constexpr double kLeastLate_K = 4.5;       // where the sun sinks as well: an afternoon's own peak may stand 3 K above the line
constexpr double kClimbs_deg = -1.0;       // so little may the sun sink from the peak to two hours on
constexpr double kEdge_K = 0.5;            // where the hump begins and ends
constexpr double kLeastElevation_deg = 3.0;
constexpr double kSameHour_s = 2700.0;
constexpr std::int64_t kWithinDays = 7;
constexpr int kDaysAlike = 3; // a shadow's edge comes back the next clear day; weather does not

/// Of the line between the readings beside: value(k) minus it; nothing at the ends and beside holes.
std::optional<double> aboveCourse(const Series& s, std::size_t k, std::size_t& before, std::size_t& after) {
  const UtcSeconds t = s.time(k);
  while (before + 1 < k && static_cast<double>(t - s.time(before + 1)) >= kBeside_s) ++before;
  after = std::max(after, k);
  while (after + 1 < s.size() && static_cast<double>(s.time(after) - t) < kBeside_s) ++after;
  const auto left = static_cast<double>(t - s.time(before)), right = static_cast<double>(s.time(after) - t);
  if (left < kBeside_s || right < kBeside_s || left > kBeside_s + kSlack_s || right > kBeside_s + kSlack_s) return std::nullopt;
  return s.value(k) - (s.value(before) * right + s.value(after) * left) / (left + right);
}

struct Hump {
  std::int64_t day = 0;
  double hour_s = 0.0; ///< UTC
  double height_K = 0.0;
  Stretch stretch{};
};

} // namespace

std::vector<Stretch> sunOnSensor(const Series& s, const Place& place) {
  std::vector<double> above(s.size(), 0.0);
  std::size_t before = 0, after = 0;
  std::map<std::int64_t, Hump> humps; // the highest of each day
  for (std::size_t k = 0; k < s.size(); ++k) {
    const auto height = aboveCourse(s, k, before, after);
    if (!height) continue;
    above[k] = *height;
    if (*height < kLeast_K) continue;
    const UtcSeconds t = s.time(k);
    const auto elevation = [&](double at) { return 90.0 - sunPosition(at, place).zenith_deg; };
    const double now_deg = elevation(static_cast<double>(t));
    if (now_deg < kLeastElevation_deg) continue;
    if (*height < kLeastLate_K && elevation(static_cast<double>(t) + kBeside_s) - now_deg < kClimbs_deg) continue;
    Hump& hump = humps[t / 86400];
    if (*height > hump.height_K) hump = {t / 86400, static_cast<double>(t % 86400), *height, {k, k}};
  }
  std::vector<Stretch> found;
  for (auto& [day, hump] : humps) {
    int alike = 0;
    for (auto other = humps.lower_bound(day - kWithinDays); other != humps.end() && other->first <= day + kWithinDays; ++other)
      alike += std::abs(other->second.hour_s - hump.hour_s) <= kSameHour_s ? 1 : 0;
    if (alike < kDaysAlike) continue;
    Stretch& stretch = hump.stretch;
    while (stretch.first > 0 && above[stretch.first - 1] > kEdge_K) --stretch.first;
    while (stretch.last + 1 < s.size() && above[stretch.last + 1] > kEdge_K) ++stretch.last;
    if (found.empty() || stretch.first > found.back().last) found.push_back(stretch);
  }
  return found;
}

std::optional<double> clockAhead_h(const Log& log, const Channel& sun, const Place& place) {
  constexpr double kStep_h = 0.25, kMost_h = 3.0;
  constexpr std::int64_t kFortnight_s = 14 * 86400;
  constexpr std::size_t kLeastReadings = 100; // of daylight, in a fortnight
  const int shifts = static_cast<int>(2.0 * kMost_h / kStep_h) + 1;
  std::vector<double> best;
  for (std::size_t i = 0; i < log.time.size();) {
    const UtcSeconds end = log.time[i] + kFortnight_s;
    std::vector<double> product(static_cast<std::size_t>(shifts)), square(static_cast<std::size_t>(shifts));
    std::size_t readings = 0;
    double ownSquare = 0.0;
    const double step_s = std::max(log.step_s(), 1800.0); // more often tells no more
    UtcSeconds next = 0;
    for (; i < log.time.size() && log.time[i] < end; ++i) {
      const double v = sun.clean(i);
      if (std::isnan(v) || log.time[i] < next) continue;
      next = log.time[i] + static_cast<UtcSeconds>(step_s);
      if (v > 20.0) ++readings;
      ownSquare += v * v;
      for (int k = 0; k < shifts; ++k) {
        const double shift_s = (-kMost_h + kStep_h * k) * 3600.0;
        const double clear = clearSkyHorizontal_W_m2(sunPosition(static_cast<double>(log.time[i]) - shift_s, place).zenith_deg);
        product[static_cast<std::size_t>(k)] += v * clear;
        square[static_cast<std::size_t>(k)] += clear * clear;
      }
    }
    if (readings < kLeastReadings || ownSquare <= 0.0) continue;
    int most = 0;
    for (int k = 1; k < shifts; ++k) {
      const auto fit = [&](int j) { return product[static_cast<std::size_t>(j)] / std::sqrt(square[static_cast<std::size_t>(j)]); };
      if (fit(k) > fit(most)) most = k;
    }
    best.push_back(-kMost_h + kStep_h * most);
  }
  if (best.empty()) return std::nullopt;
  std::nth_element(best.begin(), best.begin() + static_cast<long>(best.size() / 2), best.end());
  return best[best.size() / 2];
}

} // namespace muffle
