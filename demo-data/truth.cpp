// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo-data/truth.h"

#include "core/sun/position.h"

#include <algorithm>
#include <cmath>

namespace demo {
namespace {

constexpr double kMinute = 60.0;
constexpr double kSigma = 5.67e-8;

// the tunnel as built: 7.2 by 14 m, not known to the plan but for its outline
constexpr double kFloor = 100.8, kFilmArea = 152.0, kEndArea = 33.0, kVolume = 218.0;
constexpr double kWater_kg = 1980.0, kBarrelArea = 20.5; // ten barrels, not quite full
constexpr double kSoilLayer = 0.06;
constexpr int kSoilLayers = 18;

double fourth(double c) { return std::pow(c + 273.15, 4); }

} // namespace

Truth::Truth(std::uint32_t seed, double latitude_deg, double longitude_deg) : m_random(seed), m_latitude(latitude_deg), m_longitude(longitude_deg) {}

Truth::Taken Truth::taken_m2(double elevation_deg, double azimuth_deg) {
  const std::pair<int, int> key{static_cast<int>(std::lround(elevation_deg)), static_cast<int>(std::lround(azimuth_deg / 2.0))};
  if (const auto it = m_taken.find(key); it != m_taken.end()) return it->second;
  // the tunnel: straight feet, then an arc; it runs to 75 degrees
  constexpr double kHalf = 3.6, kLength = 14.0, kFoot = 0.9, kTop = 3.3, kPlants = 0.6, kStride = 0.05;
  const double rise = kTop - kFoot, radius = (kHalf * kHalf + rise * rise) / (2.0 * rise), centre = kTop - radius;
  const double e = std::max(key.first, 1) * M_PI / 180.0, a = (2.0 * key.second - 75.0) * M_PI / 180.0;
  const double sx = std::cos(e) * std::cos(a), sy = std::cos(e) * std::sin(a), sz = std::sin(e);
  const auto inside = [&](double x, double y, double z) {
    return std::abs(x) < kLength / 2 && std::abs(y) < kHalf && (z < kFoot || y * y + (z - centre) * (z - centre) < radius * radius);
  };
  const auto film = [](double cosine) { return 0.80 * (1.0 - std::pow(1.0 - cosine, 5)); };
  Taken sum{0.0, 0.0};
  const auto enter = [&](double x, double y, double z, double nx, double ny, double nz, double area, double clear) {
    const double cosine = nx * sx + ny * sy + nz * sz;
    if (cosine <= 0.0) return;
    double left = 0.93 * area * cosine * film(cosine) * clear; // bars and laps
    x -= 0.02 * nx, y -= 0.02 * ny, z -= 0.02 * nz;
    while (z > 0.0 && inside(x, y, z)) {
      if (z < kPlants) {
        const double met = left * (1.0 - std::exp(-0.8 * kStride));
        sum.plants += 0.8 * met;
        left -= met;
      }
      x -= kStride * sx, y -= kStride * sy, z -= kStride * sz;
    }
    if (z <= 0.0) sum.ground += 0.82 * left; // at the far side all but a little goes out again
  };
  constexpr int kAlong = 10, kRound = 20;
  for (int i = 0; i < kAlong; ++i) {
    const double x = kLength * ((i + 0.5) / kAlong - 0.5);
    for (const double side : {-1.0, 1.0})
      for (int k = 0; k < 3; ++k) enter(x, side * kHalf, kFoot * (k + 0.5) / 3, 0.0, side, 0.0, kLength / kAlong * kFoot / 3, 1.0);
    const double open = std::atan2(kHalf, kFoot - centre);
    for (int k = 0; k < kRound; ++k) {
      const double t = open * (2.0 * (k + 0.5) / kRound - 1.0);
      enter(x, radius * std::sin(t), centre + radius * std::cos(t), 0.0, std::sin(t), std::cos(t), kLength / kAlong * radius * 2.0 * open / kRound, 1.0);
    }
  }
  for (const double end : {-1.0, 1.0})
    for (int j = 0; j < 14; ++j)
      for (int k = 0; k < 8; ++k) {
        const double y = kHalf * (2.0 * (j + 0.5) / 14 - 1.0), z = kTop * (k + 0.5) / 8;
        if (inside(0.0, y, z)) enter(end * kLength / 2, y, z, end, 0.0, 0.0, 2.0 * kHalf * kTop / (14 * 8), 0.85); // two walls of a sheet
      }
  return m_taken[key] = sum;
}

void Truth::start(double outside_C) {
  m_low = m_high = m_film = outside_C;
  m_barrel = outside_C + 2.0;
  m_soil.assign(kSoilLayers, 0.0);
  for (int i = 0; i < kSoilLayers; ++i) m_soil[static_cast<std::size_t>(i)] = outside_C + (13.0 - outside_C) * std::min(1.0, i / 8.0);
  m_on = false;
}

void Truth::weather(std::int64_t utc, double yearDay, Minute& now) {
  // fronts over days, cloud over half-days, gusts over minutes: three autoregressive processes
  const auto ar = [this](double& x, double hours) {
    const double keep = std::exp(-kMinute / 3600.0 / hours);
    x = keep * x + std::sqrt(1.0 - keep * keep) * normal();
  };
  ar(m_front, 70.0);
  ar(m_cloudState, 14.0);
  ar(m_gust, 0.6);
  ar(m_quick, 0.8);
  if (utc % 300 == 0) {
    const auto sun = muffle::sunPosition(static_cast<double>(utc), {m_latitude, m_longitude, 780.0});
    m_elevation = 90.0 - sun.zenith_deg;
    m_azimuth = sun.azimuth_deg;
    m_solarHour = sun.hourAngle_deg / 15.0 + 12.0;
    const double s = std::sin(std::max(m_elevation, 0.0) * M_PI / 180.0);
    m_clearSun = s <= 0.0 ? 0.0 : 1361.0 * s * std::pow(0.72, std::pow(1.0 / std::max(s, 0.02), 0.68));
  }
  // mild fronts are cloudy, cold ones clear
  now.cloud = 1.0 / (1.0 + std::exp(-(1.7 * m_cloudState + 0.7 * m_front + 0.1)));
  now.sun_W_m2 = m_clearSun * (1.0 - 0.78 * std::pow(now.cloud, 2.6)) * std::max(0.2, 1.0 + 0.10 * m_quick * now.cloud);
  now.wind_m_s = std::max(0.0, (1.1 + 1.1 * now.cloud + 0.5 * std::abs(m_front)) * std::exp(0.45 * m_gust) * (m_elevation > 0 ? 1.25 : 0.8));
  const double season = 5.6 - 8.2 * std::cos(2.0 * M_PI * (yearDay - 208.0) / 365.0) * -1.0; // coldest late in January
  // the valley's air warms by day and drains by night; how far depends on cloud and wind
  const double target = m_elevation > 0 ? 0.0125 * now.sun_W_m2 : -5.4 * (1.0 - 0.75 * now.cloud) / (1.0 + 0.18 * now.wind_m_s);
  m_diurnal += (target - m_diurnal) * kMinute / (m_elevation > 0 ? 2.6 * 3600.0 : 4.6 * 3600.0);
  // a metre and a fifth under the tunnel the year is flat and a month late, and warmer than under the open field
  m_deep = 7.5 - 4.9 * std::cos(2.0 * M_PI * (yearDay - 26.0 - 30.0) / 365.0);
  now.outside_C = season + 3.9 * m_front + 1.35 * m_diurnal + 0.15 * m_quick;
}

void Truth::tunnel(Minute& now) {
  const double to = now.outside_C;
  const double skyEmissivity = std::min(1.0, 0.70 + 0.0052 * std::max(to, -15.0) + 0.24 * now.cloud);
  const double sky = skyEmissivity * fourth(to);
  // the film is wet whenever it is colder than the air's dew point, and then nearly black
  const bool wet = m_film < m_low - 1.5;
  const double emissivity = wet ? 0.72 : 0.28, through = wet ? 0.18 : 0.62;
  const double hOut = 3.4 + 3.6 * std::pow(now.wind_m_s, 0.85);
  const double hIn = 2.3 * std::cbrt(std::abs(m_high - m_film) + 0.05) * (wet ? 1.45 : 1.0);
  const double surroundings = 0.66 * sky + 0.34 * fourth(to);
  double& ground = m_soil[0];

  // mechanical thermostat with its own error
  if (m_low < 2.1 && !m_failed) m_on = true;
  if (m_low > 3.0) m_on = false;
  now.heater_W = m_on ? 9000.0 : 0.0;

  const double airPart = 1.22 * 1006.0 * kVolume / 2.0;
  const double changes = 0.62 + 0.30 * now.wind_m_s + (m_high > 19.0 ? 16.0 * std::min(1.0, (m_high - 19.0) / 5.0) : 0.0);
  const double draught = 1.22 * 1006.0 * kVolume / 3600.0 * changes;
  // the sky's even part comes in by the whole film; of the beam what its way through the tunnel leaves there
  const double even = now.sun_W_m2 * std::min(1.0, 0.22 + 0.75 * now.cloud);
  const double beam = m_elevation > 0.0 ? (now.sun_W_m2 - even) / std::sin(std::max(m_elevation, 4.0) * M_PI / 180.0) : 0.0;
  const Taken taken = beam > 0.0 ? taken_m2(m_elevation, m_azimuth) : Taken{0.0, 0.0};
  const double onPlants = 0.28 * even * kFloor + beam * taken.plants, onGround = 0.38 * even * kFloor + beam * taken.ground; // taken up
  // leaves give half of it to the air and half as vapour, moist ground a quarter as vapour; what evaporates condenses on the film
  const double vapour = 0.5 * onPlants + 0.25 * onGround;
  const double mixing = 900.0 + (m_on ? 1500.0 : 0.0) + (m_low > m_high ? 2500.0 : 0.0);

  const double filmToHigh = hIn * kFilmArea * (m_high - m_film);
  const double ends = 3.6 * kEndArea * (0.5 * (m_low + m_high) - to);
  const double floorToLow = 1.9 * std::cbrt(std::abs(ground - m_low) + 0.05) * kFloor * (ground - m_low);
  const double barrelToLow = 7.4 * kBarrelArea * (m_barrel - m_low);
  const double dLow =
      (0.75 * now.heater_W + floorToLow + barrelToLow + 0.5 * draught * (to - m_low) + mixing * (m_high - m_low) + 0.4 * onPlants - 0.5 * ends) /
      (airPart + 900e3);
  const double dHigh =
      (0.25 * now.heater_W + mixing * (m_low - m_high) - filmToHigh + 0.5 * draught * (to - m_high) + 0.1 * onPlants - 0.5 * ends) / (airPart + 700e3);
  const double filmSky = kSigma * emissivity * kFilmArea * (surroundings - fourth(m_film));
  const double filmFloor = kSigma * emissivity * 0.9 * kFloor * (fourth(ground) - fourth(m_film));
  const double filmHeat =
      filmToHigh + hOut * kFilmArea * (to - m_film) + filmSky + filmFloor + 0.05 * now.sun_W_m2 * kFilmArea + 0.85 * vapour; // some leaves with the draught
  const double filmRate = (hIn + hOut + 6.0) * kFilmArea;
  const double filmCapacity = 600.0 * kFilmArea;
  const double filmShare = 1.0 - std::exp(-kMinute * filmRate / filmCapacity); // exact for the linear part: the film is stiff
  const double floorSky = kSigma * through * 0.92 * kFloor * (fourth(ground) - surroundings);

  // soil, explicit: 6 cm cells at one minute are far inside the limit
  const double k = 1.15, rc = 2.25e6;
  std::vector<double> next = m_soil;
  const auto flow = [&](double a, double b) { return k * kFloor / kSoilLayer * (a - b); };
  for (int i = 0; i < kSoilLayers; ++i) {
    const auto u = static_cast<std::size_t>(i);
    double q = 0.0;
    if (i == 0)
      q += 0.75 * onGround - floorToLow - filmFloor - floorSky;
    else
      q += flow(m_soil[u - 1], m_soil[u]);
    if (i + 1 < kSoilLayers)
      q -= flow(m_soil[u], m_soil[u + 1]);
    else
      q -= flow(m_soil[u], m_deep) * 0.5;
    if (i == 2 || i == 3) q -= 11.0 * (m_soil[u] - to);
    next[u] = m_soil[u] + q * kMinute / (rc * kFloor * kSoilLayer);
  }
  m_soil = next;
  // black barrels along the north side, half of them behind plants
  m_barrel += kMinute * (-barrelToLow + 0.45 * 4.9 * (0.78 * beam * std::cos(m_elevation * M_PI / 180.0) + 0.3 * even)) / (kWater_kg * 4186.0);
  m_low += kMinute * dLow;
  m_high += kMinute * dHigh;
  m_film += filmShare * filmHeat / filmRate;
  now.lowAir_C = m_low;
  now.barrel_C = m_barrel;
  now.soil10_C = m_soil[1];
}

Minute Truth::step(std::int64_t utc, double yearDay) {
  Minute now{};
  weather(utc, yearDay, now);
  tunnel(now);
  return now;
}

Truth::Steady Truth::steady(double outside_C, double wind_m_s, double cloud) {
  start(outside_C);
  constexpr int kSettle = 90 * 1440, kMean = 10 * 1440; // minutes; a metre of soil settles in a month
  Steady sum{0.0, 0.0};
  for (int i = 0; i < kSettle + kMean; ++i) {
    Minute now{};
    now.outside_C = outside_C;
    now.wind_m_s = wind_m_s;
    now.cloud = cloud;
    tunnel(now);
    if (i < kSettle) continue;
    sum.heater_W += now.heater_W / kMean;
    sum.air_C += now.lowAir_C / kMean;
  }
  return sum;
}

Truth::Cooling Truth::cooling(double outside_C, double wind_m_s, double cloud, double hours) {
  const Steady before = steady(outside_C, wind_m_s, cloud);
  m_failed = true;
  m_on = false;
  const int minutes = static_cast<int>(hours * 60.0);
  Cooling c{before.air_C, 0.0, 0.0};
  for (int i = 0; i < minutes; ++i) {
    Minute now{};
    now.outside_C = outside_C;
    now.wind_m_s = wind_m_s;
    now.cloud = cloud;
    tunnel(now);
    c.mean_C += now.lowAir_C / minutes;
    c.end_C = now.lowAir_C;
  }
  m_failed = false;
  return c;
}

} // namespace demo
