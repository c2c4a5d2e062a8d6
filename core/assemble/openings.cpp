// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/openings.h"
#include "core/plan/heaters.h"

#include "core/air/moist_air.h"
#include "core/house/infiltration.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kLeastLift_K = 2.0;     // of a house that is not heated, at night
constexpr double kSunLift_K_m2_W = 0.03; // and by day, by the level sun: 18 K at 600 W/m2
constexpr double kLobby = 0.5;           // two openings in turn, each of its own volume: half the air of one
constexpr double kDischarge = 0.6;       // a sharp-edged opening
constexpr double kWindAcross = 0.35;
constexpr double kRolledLift_K = 5.0;

template <class F> std::vector<double> byStep(const Winter& winter, F&& of) {
  std::vector<double> values(winter.size());
  for (std::size_t i = 0; i < values.size(); ++i) values[i] = of(i);
  return values;
}

/// Of the house's air above outside, as far as one can tell before the run.
double lift_K(const Plan& plan, const Winter& winter, std::size_t i, double setpoint_C, std::optional<double> inside_C) {
  constexpr double kAny_K = 0.1;
  if (inside_C) return std::max(std::abs(*inside_C - winter.outside_C[i]), kAny_K);
  const double bare = kLeastLift_K + kSunLift_K_m2_W * (i < winter.sun_W_m2.size() ? winter.sun_W_m2[i] : 0.0);
  return heaterPower_W(plan, {HeaterPlace::Of::house}) > 0.0 ? std::max(setpoint_C - winter.outside_C[i], bare) : bare;
}

/// Generalised shielding coefficients of Sherman and Grimsrud.
double shielding(Shelter shelter) {
  switch (shelter) {
  case Shelter::open: return 0.324;
  case Shelter::scattered: return 0.285;
  case Shelter::hedged: return 0.240;
  case Shelter::walled: return 0.185;
  }
  return 0.285;
}

double airFlow_W_K(double flow_m3_s, double outside_C, double pressure_Pa) { return airDensity_kg_m3(outside_C, pressure_Pa) * kAirHeat_J_kgK * flow_m3_s; }

} // namespace

double windFactor(const Site& site, double height_m) {
  constexpr double kOpenCountry = 0.20;
  return site.windHeight_m > 0.0 ? std::pow(height_m / site.windHeight_m, kOpenCountry) : 1.0;
}

std::vector<double> draughts_W_K(const Plan& plan, const Winter& winter, double pressure_Pa, std::optional<double> inside_C) {
  const House& house = plan.house;
  const double atHouse = windFactor(plan.site, house.shape.ridge_m);
  if (!house.leakage)
    return byStep(winter, [&, volume_m3 = house.shape.volume_m3()](std::size_t i) {
      return airChangeConductance_W_K(house.airChanges_per_h + house.windAirChanges * atHouse * winter.wind_m_s[i], volume_m3, winter.outside_C[i],
                                      pressure_Pa);
    });
  LeakageSite site;
  site.height_m = house.shape.ridge_m;
  site.shielding = shielding(house.leakage->shelter);
  constexpr double kcm2 = 1e-4;
  const double area_m2 = house.leakage->area_cm2 * kcm2;
  constexpr double kGauge_m = 10.0; // that the formula's terrain is for
  // wind that is at the house already meets it as it is; the formula brings a gauge's down to the house
  const double atGauge =
      plan.site.windHeight_m > 0.0 ? windFactor(plan.site, kGauge_m) : 1.0 / (site.terrainA * std::pow(site.height_m / kGauge_m, site.terrainB));
  return byStep(winter, [&](std::size_t i) {
    const double outside = winter.outside_C[i];
    const double lift = lift_K(plan, winter, i, plan.setpoints.night_C, inside_C);
    return airFlow_W_K(leakageFlow(area_m2, site, kelvin(outside), lift, atGauge * winter.wind_m_s[i]).flow_m3_s, outside, pressure_Pa);
  });
}

std::vector<double> door_W_K(const Plan& plan, const Winter& winter, int doors, double pressure_Pa, std::optional<double> inside_C) {
  const Door& door = plan.house.door;
  const auto night = nightOf(winter);
  const auto bySun = static_cast<double>(std::count(night.begin(), night.end(), 0.0));
  constexpr double kShortestDay_s = 4.0 * 3600.0;
  const double day_s = std::max(86400.0 * bySun / static_cast<double>(night.size()), kShortestDay_s);
  return byStep(winter, [&](std::size_t i) {
    if (night[i] > 0.0) return 0.0;
    const double lift = lift_K(plan, winter, i, plan.setpoints.day_C, inside_C) / doors;
    return doorConductance_W_K(door.opened, door.seconds, door.width_m, door.height_m, lift, winter.outside_C[i], day_s, pressure_Pa) *
           (door.lobby ? kLobby : 1.0);
  });
}

std::vector<double> mayVent(const VentLock& lock, const Winter& winter) {
  return byStep(winter, [&](std::size_t i) {
    const bool rains = lock.inRain && !winter.rain_mm.empty() && winter.rain_mm[i] > 0.0;
    return rains || winter.outside_C[i] < lock.outsideBelow_C || winter.wind_m_s[i] > lock.windAbove_m_s ? 0.0 : 1.0;
  });
}

std::vector<double> rolledUp_W_K(const RollUpSides& sides, double length_m, const Winter& winter, double pressure_Pa, double atHouse) {
  const double area_m2 = sides.height_m * length_m;
  return byStep(winter, [&](std::size_t i) {
    const double outside = winter.outside_C[i];
    const double wind = kWindAcross * area_m2 * atHouse * winter.wind_m_s[i];
    const double stack = 2.0 * openDoorFlow_m3_s(length_m, sides.height_m, kRolledLift_K, kelvin(outside + kRolledLift_K / 2.0), kDischarge);
    return airFlow_W_K(std::hypot(wind, stack), outside, pressure_Pa);
  });
}

std::vector<double> roofOpen(const RetractableRoof& roof, const VentLock& lock, const Winter& winter) {
  constexpr double kBand_K = 1.0;
  const auto night = nightOf(winter);
  const auto may = mayVent(lock, winter);
  bool open = false;
  return byStep(winter, [&](std::size_t i) {
    open = night[i] == 0.0 && may[i] > 0.0 && winter.outside_C[i] > roof.outsideAbove_C - (open ? kBand_K : 0.0);
    return open ? 1.0 : 0.0;
  });
}

} // namespace muffle
