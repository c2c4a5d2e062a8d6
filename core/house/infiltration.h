// SPDX-License-Identifier: GPL-3.0-or-later
//
// Air that comes and goes.
//   air changes: Q = rho cp n V / 3600 (Ti - To), rho of the entering air, cp 1006 J/(kg K)
//   leakage area, long form: Sherman and Grimsrud, LBL-10852 (1980): Q = AL sqrt(fs^2 dT + fw^2 v^2)
//   leakage area, short form: ASHRAE Fundamentals, Ventilation and Infiltration: Q = AL/1000 sqrt(Cs dT + Cw v^2)
//   openings: Q = Cd A sqrt(2 g h dT/T); one tall opening Cd w/3 sqrt(g h^3 dT/Tm)
#pragma once

#include "core/constants.h"
#include "core/message.h"

#include <span>
#include <string_view>

namespace muffle {

/// Heat carried per kelvin by air changes, W/K.
double airChangeConductance_W_K(double airChanges_per_h, double volume_m3, double outside_C, double pressure_Pa = kStandardPressure_Pa);
/// Latent heat carried out, W: mass flow x (W_in - W_out) x heat of evaporation.
double airChangeLatent_W(double airChanges_per_h, double volume_m3, double outside_C, double humidityIn, double humidityOut,
                         double pressure_Pa = kStandardPressure_Pa);

/// Long form: where the leaks are and how the site lies.
struct LeakageSite {
  double ceilingFloorShare = 0.5;      ///< R, 0..1: (ceiling + floor)/total leakage
  double ceilingFloorDifference = 0.0; ///< X, -1..1
  double height_m = 2.5;
  double terrainA = 0.85; ///< wind profile factor and exponent
  double terrainB = 0.20;
  double shielding = 0.24;
};
struct LeakageFlow {
  double stackFactor;
  double windFactor;
  double flow_m3_s;
};
/// wind_m_s as measured at 10 m; difference_K >= 0; outside in kelvin.
LeakageFlow leakageFlow(double leakageArea_m2, const LeakageSite& site, double outside_K, double difference_K, double wind_m_s);

double leakageFlowBasic_m3_s(double leakageArea_cm2, double difference_K, double wind_m_s, double stackCoefficient, double windCoefficient);
double ventStackFlow_m3_s(double lowArea_m2, double highArea_m2, double height_m, double difference_K, double inside_K, double discharge);
double openDoorFlow_m3_s(double width_m, double height_m, double difference_K, double mean_K, double discharge);

/// How draughty houses of a kind are, shut: air changes an hour in still air and for each m/s of wind, such that the published
/// figure for a winter's wind of 6.7 m/s lies within its range.
struct Draughtiness {
  std::string_view id;
  double still_per_h;
  double perWind;
  std::string_view range; ///< at 6.7 m/s
  std::string_view source;
};
Message nameOf(const Draughtiness& draughtiness);
std::span<const Draughtiness> draughtinesses();

/// The mean heat that a door carries off over the hours of day in which it is used, W/K: a tall opening through which warm
/// air leaves at the top and cold comes in at the foot. opened: times a day, >= 0, each for `seconds`; width and height > 0;
/// difference_K >= 0, inside above outside; day_s > 0, the hours that the openings are spread over; open throughout at most.
double doorConductance_W_K(double opened, double seconds, double width_m, double height_m, double difference_K, double outside_C, double day_s,
                           double pressure_Pa = kStandardPressure_Pa);

} // namespace muffle
