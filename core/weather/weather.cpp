// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weather/weather.h"

#include "core/air/moist_air.h"
#include "core/air/sky.h"
#include "core/weather/daily_curve.h"
#include "core/weather/sun_and_sky.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kStep_s = 600.0;
constexpr double kBridge_s = 5400.0; // a hole this short is joined by a straight line and counts as measured
constexpr double kNewWinter_s = 7.0 * 86400.0;
constexpr double kNaN = std::numeric_limits<double>::quiet_NaN();

/// Grid values of a channel; NaN in holes longer than kBridge_s.
std::vector<double> onGrid(const Log& log, const Channel& channel, const Winter& winter, std::size_t size) {
  std::vector<double> grid(size, kNaN);
  std::size_t before = log.time.size();
  std::size_t next =
      static_cast<std::size_t>(std::lower_bound(log.time.begin(), log.time.end(), winter.start - static_cast<UtcSeconds>(kBridge_s)) - log.time.begin());
  for (std::size_t g = 0; g < size; ++g) {
    const UtcSeconds t = winter.time(g);
    while (next < log.time.size() && (log.time[next] <= t || std::isnan(channel.clean(next)))) {
      if (!std::isnan(channel.clean(next))) before = next;
      ++next;
    }
    if (before >= log.time.size()) continue;
    const double a = channel.clean(before);
    if (log.time[before] == t) {
      grid[g] = a;
    } else if (next < log.time.size() && static_cast<double>(log.time[next] - log.time[before]) <= kBridge_s) {
      const double share = static_cast<double>(t - log.time[before]) / static_cast<double>(log.time[next] - log.time[before]);
      grid[g] = a + share * (channel.clean(next) - a);
    }
  }
  return grid;
}

/// Fills holes with the days beside them, lifted so that both ends meet.
void bridge(std::vector<double>& v, std::vector<std::uint8_t>& bridged) {
  const auto day = static_cast<std::ptrdiff_t>(86400.0 / kStep_s);
  const auto n = static_cast<std::ptrdiff_t>(v.size());
  bridged.assign(v.size(), 0);
  const std::vector<double> known = v;
  const auto shape = [&](std::ptrdiff_t i) {
    for (std::ptrdiff_t k = 1; k <= 7; ++k) {
      double sum = 0.0;
      int count = 0;
      for (const std::ptrdiff_t j : {i - k * day, i + k * day})
        if (j >= 0 && j < n && !std::isnan(known[static_cast<std::size_t>(j)])) sum += known[static_cast<std::size_t>(j)], ++count;
      if (count > 0) return sum / count;
    }
    return kNaN;
  };
  std::ptrdiff_t i = 0;
  while (i < n) {
    if (!std::isnan(known[static_cast<std::size_t>(i)])) {
      ++i;
      continue;
    }
    std::ptrdiff_t end = i;
    while (end < n && std::isnan(known[static_cast<std::size_t>(end)])) ++end;
    const bool left = i > 0, right = end < n;
    const double a = left ? known[static_cast<std::size_t>(i - 1)] : right ? known[static_cast<std::size_t>(end)] : 0.0;
    const double b = right ? known[static_cast<std::size_t>(end)] : a;
    const double sa = left ? shape(i - 1) : kNaN, sb = right ? shape(end) : kNaN;
    const double liftA = std::isnan(sa) ? 0.0 : a - sa, liftB = std::isnan(sb) ? 0.0 : b - sb;
    for (std::ptrdiff_t k = i; k < end; ++k) {
      const double share = static_cast<double>(k - i + 1) / static_cast<double>(end - i + 1);
      const double s = shape(k);
      v[static_cast<std::size_t>(k)] = std::isnan(s) ? a + share * (b - a) : s + liftA + share * (liftB - liftA);
      bridged[static_cast<std::size_t>(k)] = 1;
    }
    i = end;
  }
}

} // namespace

const char* inputKindText(InputKind kind) { return kind == InputKind::measured ? "measured" : kind == InputKind::estimated ? "estimated" : "assumed"; }

std::size_t Weather::steps() const {
  std::size_t sum = 0;
  for (const Winter& w : winters) sum += w.size();
  return sum;
}

Result<Weather> weatherFromLog(const Log& log, const Site& site) {
  auto zone = TimeZone::named(site.timeZone);
  if (!zone) return zone.problems();
  const Log hours = log.find(Role::outside) ? Log{} : outsideFromExtremes(log, site.place, *zone);
  const Log& source = hours.channels.empty() ? log : hours; // of the outside readings
  const Channel* outside = source.find(Role::outside);
  if (!outside) return Problem{ProblemKind::missing, "log", Message{"season.no-outside-column"}, Message{"season.name-one-outside"}};
  const Channel* wind = log.find(Role::wind);
  const Channel* sun = log.find(Role::sun);
  const Channel* humidity = log.find(Role::humidity, "outside");
  const Channel* rain = log.find(Role::rain);

  std::vector<std::size_t> valid;
  for (std::size_t i = 0; i < source.time.size(); ++i)
    if (!std::isnan(outside->clean(i))) valid.push_back(i);
  Weather weather;
  if (!hours.channels.empty()) weather.outside = InputKind::estimated;
  const auto nights = cutNights(source, site.place, *zone);
  std::size_t from = 0;
  for (std::size_t k = 1; k <= valid.size(); ++k) {
    if (k < valid.size() && static_cast<double>(source.time[valid[k]] - source.time[valid[k - 1]]) <= kNewWinter_s) continue;
    const UtcSeconds begin = source.time[valid[from]];
    const UtcSeconds end = source.time[valid[k - 1]];
    from = k;
    if (end - begin < 86400) continue;
    Winter w;
    const auto step = static_cast<UtcSeconds>(kStep_s);
    w.start = (begin + step - 1) / step * step;
    w.step_s = kStep_s;
    const auto size = static_cast<std::size_t>((end - w.start) / step) + 1;
    w.outside_C = onGrid(source, *outside, w, size);
    bridge(w.outside_C, w.bridged);
    w.wind_m_s.assign(size, site.wind_m_s);
    if (wind) {
      const auto measured = onGrid(log, *wind, w, size);
      for (std::size_t i = 0; i < size; ++i) {
        if (!std::isnan(measured[i])) w.wind_m_s[i] = std::max(measured[i], 0.0);
      }
    }
    if (rain) {
      w.rain_mm = onGrid(log, *rain, w, size);
      for (double& mm : w.rain_mm) mm = std::isnan(mm) ? 0.0 : std::max(mm, 0.0);
    }
    const Date first = zone->localDate(w.start);
    w.startDay = dayOfYear(first) + zone->localHour(w.start) / 24.0;
    for (const Night& night : nights) {
      if (night.sunset < w.start || night.sunrise > end) continue;
      NightSpan span{night.date, static_cast<std::size_t>((night.sunset - w.start + step - 1) / step),
                     static_cast<std::size_t>((night.sunrise - w.start) / step), true};
      for (std::size_t i = span.from; i <= span.to && span.assessable; ++i) span.assessable = !w.bridged[i];
      w.nights.push_back(span);
    }
    const SkySources sources = addSunAndSky(
        w, site.place, {sun ? onGrid(log, *sun, w, size) : std::vector<double>{}, humidity ? onGrid(log, *humidity, w, size) : std::vector<double>{}});
    weather.days += sources.days;
    weather.sunEstimatedDays += sources.sunEstimatedDays;
    weather.carriedDays += sources.carriedDays;
    weather.winters.push_back(std::move(w));
  }
  if (weather.winters.empty()) return Problem{ProblemKind::badInput, "log", Message{"season.less-than-a-day"}, Message{"season.a-day-needed"}};
  weather.humidity = humidity ? InputKind::measured : InputKind::estimated;
  weather.wind = !wind ? InputKind::assumed : InputKind::measured;
  weather.sun = sun && weather.sunEstimatedDays == 0 ? InputKind::measured : InputKind::estimated;
  return weather;
}

std::vector<double> readingsOn(const Winter& winter, const Log& log, const Channel& channel) { return onGrid(log, channel, winter, winter.size()); }

std::vector<double> nightOf(const Winter& winter) {
  std::vector<double> night(winter.size(), 0.0);
  for (const NightSpan& span : winter.nights)
    for (std::size_t i = span.from; i < span.to; ++i) night[i] = 1.0;
  return night;
}

Winter steadyWinter(const Site& site, double outside_C, double wind_m_s, double skyClear) {
  Winter w;
  w.step_s = kStep_s;
  w.outside_C.assign(2, outside_C);
  w.wind_m_s.assign(2, wind_m_s);
  w.sun_W_m2.assign(2, 0.0);
  w.diffuse_W_m2.assign(2, 0.0);
  w.cloud.assign(2, 1.0 - skyClear);
  w.zenith_deg.assign(2, 120.0F);
  w.azimuth_deg.assign(2, 0.0F);
  w.extraterrestrial_W_m2.assign(2, 0.0F);
  w.bridged.assign(2, 0);
  const double dew = outside_C - 2.0; // a near-saturated winter night
  w.sky_C.assign(2, skyBerdahlMartin(outside_C, dew, 0.0, pressureAtElevation_Pa(site.place.elevation_m), 1.0 - skyClear, kCloudBase_m).sky_C);
  w.outside_g_kg.assign(2, 1000.0 * humidityRatio(saturationPressure_Pa(dew), pressureAtElevation_Pa(site.place.elevation_m)));
  w.startDay = site.coldestDay();
  w.nights.push_back({{}, 0, 1, true});
  return w;
}

} // namespace muffle
