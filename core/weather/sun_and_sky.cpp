// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weather/sun_and_sky.h"

#include "core/air/moist_air.h"
#include "core/air/sky.h"
#include "core/sun/irradiance.h"
#include "core/weather/night_cloud.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kClearTransmittance = 0.60; // of a clear winter sky between the tropics and 50 degrees, Haurwitz over H0
constexpr double kSunset_deg = 90.8333;      // zenith of the sun's centre
constexpr double kLowNoon = 0.07,
                 kHighNoon = 0.20; // sine of the sun's height at noon from which a measured day tells its cloud, and tells it fully: 4 and 12 degrees
constexpr double kHighFrom = 14.0 / 24.0, kHighBy = 15.0 / 24.0; // of a solar day: between these its high is reached
constexpr double kUnknownClearness = 0.8;                        // half clouded, before anything is known
constexpr std::size_t kSwingDays = 10;                           // over which a place's usual swing is taken
constexpr double kMorning = 0.25;                                // six in the morning, when lows are reached, of a solar day

struct SunDayStats {
  double high_C = -1e9;
  double low_C = 1e9; ///< of the night that ends on this day, up to its sunrise
  double clear_J_m2 = 0.0, above_J_m2 = 0.0, measured_J_m2 = 0.0;
  double highestSun = 0.0; ///< sine of its height at the highest
  double rise = -1.0;      ///< when the sun comes up, in days
  double last = 0.0;       ///< reading, in days
  bool sunMeasured = true;
  double cloud = cloudFromClearness(kUnknownClearness);
  double sunFactor = 1.0; ///< on the clear sky's course
};

/// The course of a winter by the sun: where each step lies, in solar days from the first one's midnight.
class SunDays {
public:
  SunDays(const Winter& w, const Place& place, const std::vector<double>& measuredSun) : m_w(w), m_measured(measuredSun), m_x(w.size()) {
    m_clear.assign(w.size(), 0.0);
    m_solarHour.resize(w.size());
    std::optional<std::int64_t> first;
    for (std::size_t i = 0; i < w.size(); ++i) {
      const auto t = static_cast<double>(w.time(i));
      const SunPosition sun = sunPosition(t, place);
      m_solarHour[i] = sun.hourAngle_deg / 15.0 + 12.0;
      const auto day = std::llround((t + place.longitude_deg * 240.0) / 86400.0 - m_solarHour[i] / 24.0);
      if (!first) first = day;
      m_x[i] = static_cast<double>(day - *first) + m_solarHour[i] / 24.0;
      add(i, sun);
    }
    estimate();
  }

  [[nodiscard]] double solarHour(std::size_t i) const { return m_solarHour[i]; }
  [[nodiscard]] double clear_W_m2(std::size_t i) const { return m_clear[i]; }
  [[nodiscard]] const SunDayStats& dayOf(std::size_t i) const { return m_days[static_cast<std::size_t>(m_x[i])]; }
  [[nodiscard]] const std::vector<SunPosition>& sun() const { return m_sun; }
  [[nodiscard]] const SkySources& sources() const { return m_sources; }

  /// The last day's from its noon to the next sunrise; from there on it passes to that day's own by noon.
  [[nodiscard]] double cloud(std::size_t i) const {
    const double noons = std::floor(m_x[i] - 0.5);
    const SunDayStats& before = at(noons);
    const SunDayStats& next = at(noons + 1.0);
    const double rise = next.rise >= 0.0 ? next.rise : noons + 1.25;
    const double share = std::clamp((m_x[i] - rise) / std::max(noons + 1.5 - rise, 1e-6), 0.0, 1.0);
    return before.cloud + share * (next.cloud - before.cloud);
  }
  /// From one night's low to the next: reached near six in the morning and kept to noon.
  [[nodiscard]] double low_C(std::size_t i) const {
    const double noons = std::floor(m_x[i] - 0.5);
    const double share = std::clamp((m_x[i] - noons - 0.5) / (0.5 + kMorning), 0.0, 1.0);
    const double before = at(noons).low_C, next = at(noons + 1.0).low_C;
    return before + share * (next - before);
  }

private:
  [[nodiscard]] const SunDayStats& at(double day) const {
    return m_days[static_cast<std::size_t>(std::clamp(day, 0.0, static_cast<double>(m_days.size() - 1)))];
  }

  SunDayStats& grown(double day) {
    const auto d = static_cast<std::size_t>(std::max(day, 0.0));
    if (d >= m_days.size()) m_days.resize(d + 1);
    return m_days[d];
  }

  void add(std::size_t i, const SunPosition& sun) {
    m_sun.push_back(sun);
    SunDayStats& day = grown(std::floor(m_x[i]));
    const double outside = m_w.outside_C[i];
    day.high_C = std::max(day.high_C, outside);
    day.last = std::max(day.last, m_x[i]);
    const double cosZenith = std::cos(radians(sun.zenith_deg));
    if (sun.zenith_deg < kSunset_deg && day.rise < 0.0) day.rise = m_x[i];
    if (sun.zenith_deg < 90.0) {
      m_clear[i] = clearSkyHorizontal_W_m2(sun.zenith_deg) / (sun.distance_au * sun.distance_au);
      day.highestSun = std::max(day.highestSun, cosZenith);
      day.clear_J_m2 += m_clear[i] * m_w.step_s;
      day.above_J_m2 += kSolarConstant_W_m2 / (sun.distance_au * sun.distance_au) * cosZenith * m_w.step_s;
      if (m_measured.empty() || std::isnan(m_measured[i]))
        day.sunMeasured = false;
      else
        day.measured_J_m2 += std::max(m_measured[i], 0.0) * m_w.step_s;
    }
    if (sun.zenith_deg >= kSunset_deg) {
      SunDayStats& morning = grown(std::floor(m_x[i] + 0.5));
      morning.low_C = std::min(morning.low_C, outside);
    }
  }

  /// Lows where a night is not in the log, from the nights beside it.
  void fillLows() {
    for (std::size_t d = 1; d < m_days.size(); ++d)
      if (m_days[d].low_C > 1e8) m_days[d].low_C = m_days[d - 1].low_C;
    for (std::size_t d = m_days.size() - 1; d-- > 0;)
      if (m_days[d].low_C > 1e8) m_days[d].low_C = m_days[d + 1].low_C;
    if (m_days.front().low_C > 1e8) // nowhere a night
      for (SunDayStats& day : m_days) day.low_C = *std::min_element(m_w.outside_C.begin(), m_w.outside_C.end());
  }

  void estimate() {
    fillLows();
    std::vector<double> swings;
    for (std::size_t d = 0; d < m_days.size(); ++d) {
      SunDayStats& day = m_days[d];
      if (day.clear_J_m2 <= 0.0) { // a polar night, or begun by the last steps of a night alone
        if (d > 0) day.cloud = m_days[d - 1].cloud;
        continue;
      }
      ++m_sources.days;
      const bool isWhole = day.last - static_cast<double>(d) >= kHighBy && (d > 0 || m_x.front() < kHighFrom);
      if (!day.sunMeasured) ++m_sources.sunEstimatedDays;
      if (!isWhole && !day.sunMeasured) {
        ++m_sources.carriedDays;
        if (d > 0) day.cloud = m_days[d - 1].cloud;
        day.sunFactor = d > 0 ? m_days[d - 1].sunFactor : kUnknownClearness;
        continue;
      }
      const double fromNight = d + 1 < m_days.size() ? m_days[d + 1].low_C : day.low_C;
      const double swing = isWhole ? day.high_C - 0.5 * (day.low_C + fromNight) : swings.empty() ? 0.0 : swings.back();
      swings.push_back(swing);
      double usual = 0.0;
      const std::size_t of = std::min(swings.size(), kSwingDays);
      for (std::size_t k = swings.size() - of; k < swings.size(); ++k) usual += swings[k] / static_cast<double>(of);
      const double transmittance = dailyTransmittanceBristowCampbell(swing, usual);
      const double clearShare = day.clear_J_m2 / day.above_J_m2;
      const auto limited = [](double x) { return std::clamp(x, 0.05, 1.05); };
      const double bySwing = limited(transmittance / std::max(clearShare, kClearTransmittance));
      const double tells = day.sunMeasured ? std::clamp((day.highestSun - kLowNoon) / (kHighNoon - kLowNoon), 0.0, 1.0) : 0.0;
      day.sunFactor = limited(transmittance / clearShare);
      day.cloud = cloudFromClearness(bySwing + tells * (limited(day.measured_J_m2 / day.clear_J_m2) - bySwing));
    }
  }

  const Winter& m_w;
  const std::vector<double>& m_measured;
  std::vector<double> m_x, m_clear, m_solarHour;
  std::vector<SunPosition> m_sun;
  std::vector<SunDayStats> m_days;
  SkySources m_sources;
};

/// By night the cloud carried over from the day gives way by half to what the night's own cooling says.
void cloudAtNight(Winter& w, const std::vector<double>& dew_C, const SunDays& days, double pressure) {
  constexpr double kWeight = 0.5; // two estimates with errors of their own
  constexpr double kRamp_s = 5400.0;
  constexpr double kLeastHours = 4.0;
  std::vector<NightFall> falls;
  for (const NightSpan& night : w.nights) {
    const auto low = static_cast<std::size_t>(
        std::min_element(w.outside_C.begin() + static_cast<long>(night.from), w.outside_C.begin() + static_cast<long>(night.to) + 1) - w.outside_C.begin());
    const std::size_t i = night.from;
    const SkyState clear = skyBerdahlMartin(w.outside_C[i], dew_C[i], days.solarHour(i), pressure, 0.0, kCloudBase_m);
    const double T = kelvin(w.outside_C[i]);
    NightFall fall{w.outside_C[i] - w.outside_C[low], static_cast<double>(low - i) * w.step_s / 3600.0,
                   (1.0 - clear.emissivity) * kStefanBoltzmann_W_m2K4 * T * T * T * T, night.assessable};
    if (fall.hours < kLeastHours) { // it warmed from dusk on, or the night is short: the fall over the whole of it
      fall.hours = static_cast<double>(night.to - night.from) * w.step_s / 3600.0;
      fall.isKnown = fall.isKnown && fall.hours >= kLeastHours;
    }
    falls.push_back(fall);
  }
  const double effect = std::exp(-kCloudBase_m / 8200.0); // Martin and Berdahl's, of a full low cloud
  const auto cloud = cloudFromCooling(falls, effect);
  for (std::size_t n = 0; n < cloud.size(); ++n) {
    if (!cloud[n]) continue;
    const NightSpan& night = w.nights[n];
    for (std::size_t i = night.from; i <= night.to; ++i) {
      const double fromEdge_s = static_cast<double>(std::min(i - night.from, night.to - i)) * w.step_s;
      const double weight = kWeight * std::min(1.0, fromEdge_s / kRamp_s);
      w.cloud[i] += weight * (*cloud[n] - w.cloud[i]);
    }
  }
}

} // namespace

SkySources addSunAndSky(Winter& w, const Place& place, const MeasuredSky& measured) {
  const std::size_t n = w.size();
  w.zenith_deg.resize(n);
  w.azimuth_deg.resize(n);
  w.extraterrestrial_W_m2.assign(n, 0.0F);
  w.sun_W_m2.assign(n, 0.0);
  w.diffuse_W_m2.assign(n, 0.0);
  w.sky_C.resize(n);
  w.cloud.resize(n);
  w.outside_g_kg.resize(n);
  const SunDays days(w, place, measured.sun_W_m2);
  const double pressure = pressureAtElevation_Pa(place.elevation_m);
  std::vector<double> dew_C(n);
  for (std::size_t i = 0; i < n; ++i) {
    const SunPosition& sun = days.sun()[i];
    w.zenith_deg[i] = static_cast<float>(sun.zenith_deg);
    w.azimuth_deg[i] = static_cast<float>(sun.azimuth_deg);
    if (sun.zenith_deg < 90.0) {
      const double above = kSolarConstant_W_m2 / (sun.distance_au * sun.distance_au) * std::cos(radians(sun.zenith_deg));
      w.extraterrestrial_W_m2[i] = static_cast<float>(above);
      const bool isMeasured = !measured.sun_W_m2.empty() && days.dayOf(i).sunMeasured;
      w.sun_W_m2[i] = isMeasured ? std::clamp(measured.sun_W_m2[i], 0.0, 1.2 * above) : days.clear_W_m2(i) * days.dayOf(i).sunFactor;
      w.diffuse_W_m2[i] = w.sun_W_m2[i] * diffuseFractionErbs(std::clamp(w.sun_W_m2[i] / std::max(above, 1.0), 0.0, 1.0));
    }
    w.cloud[i] = days.cloud(i);
    dew_C[i] = std::min(days.low_C(i), w.outside_C[i]);
    if (!measured.humidity_percent.empty() && !std::isnan(measured.humidity_percent[i]))
      dew_C[i] = dewPoint_C(std::clamp(measured.humidity_percent[i], 1.0, 100.0) / 100.0 * saturationPressure_Pa(w.outside_C[i]));
    w.outside_g_kg[i] = 1000.0 * humidityRatio(saturationPressure_Pa(dew_C[i]), pressure);
  }
  cloudAtNight(w, dew_C, days, pressure);
  for (std::size_t i = 0; i < n; ++i) w.sky_C[i] = skyBerdahlMartin(w.outside_C[i], dew_C[i], days.solarHour(i), pressure, w.cloud[i], kCloudBase_m).sky_C;
  return days.sources();
}

} // namespace muffle
