// SPDX-License-Identifier: GPL-3.0-or-later
//
// The truth behind the demo log: weather and a tunnel simulated minute by minute with a model that shares nothing with
// core but the sun's position. Two layers of air, a film whose wetness changes with the dew, gusts, thin soil
// layers, a mechanical thermostat; light that is marched through the tunnel from points all over its film. What core fits against must not be core.
#pragma once

#include <cstdint>
#include <map>
#include <random>
#include <utility>
#include <vector>

namespace demo {

struct Minute {
  double outside_C, wind_m_s, sun_W_m2, cloud;   ///< weather
  double lowAir_C, barrel_C, soil10_C, heater_W; ///< tunnel
};

class Truth {
public:
  Truth(std::uint32_t seed, double latitude_deg, double longitude_deg);
  /// The next minute; `utc` must advance by 60 between calls.
  Minute step(std::int64_t utc, double yearDay);
  void start(double outside_C);
  /// What the tunnel's heater gives in the long run under weather that stays as it is, without sun: the truth about its loss.
  struct Steady {
    double heater_W, air_C; ///< means
  };
  Steady steady(double outside_C, double wind_m_s, double cloud);
  /// Air when the heater fails in that steady weather, and in the hours after it.
  struct Cooling {
    double start_C, mean_C, end_C;
  };
  Cooling cooling(double outside_C, double wind_m_s, double cloud, double hours);

private:
  double normal() { return m_normal(m_random); }
  void weather(std::int64_t utc, double yearDay, Minute& now);
  void tunnel(Minute& now);
  /// Of a beam of 1 W/m2 across itself from where the sun stands: what plants and ground take up within, m2.
  struct Taken {
    double plants, ground;
  };
  Taken taken_m2(double elevation_deg, double azimuth_deg);

  std::mt19937 m_random;
  std::normal_distribution<double> m_normal;
  double m_latitude, m_longitude;
  double m_front = 0, m_cloudState = 0, m_gust = 0, m_quick = 0, m_diurnal = 0;
  double m_elevation = -10, m_azimuth = 180, m_clearSun = 0, m_solarHour = 0;
  double m_deep = 8;
  double m_low = 5, m_high = 5, m_film = 3, m_barrel = 10;
  bool m_on = false, m_failed = false;
  std::vector<double> m_soil;
  std::map<std::pair<int, int>, Taken> m_taken; ///< by degrees
};

} // namespace demo
