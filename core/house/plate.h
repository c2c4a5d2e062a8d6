// SPDX-License-Identifier: GPL-3.0-or-later
//
// A thin plate of one temperature out of doors, such as a sensor in the sun or a dark roof: what it comes to in sun, sky and wind.
#pragma once

namespace muffle {

struct Plate {
  double absorptance = 0.9; ///< of sunlight
  double emissivity = 0.9;
  double tilt_deg = 0.0; ///< from level, towards the sun
  bool backFree = false; ///< else perfectly insulated
};
struct PlateWeather {
  double global_W_m2 = 0.0, diffuse_W_m2 = 0.0; ///< on the level
  double sunAltitude_deg = 0.0;
  double albedo = 0.2;
  double air_C = 10.0;
  double skyDownward_W_m2 = 280.0;
  double wind_m_s = 1.0;
};
/// In the steady state; the ground is black and as warm as the air. Film 2.8 + 3.0 v W/m2K (Watmuff et al. 1977).
double plateTemperature_C(const Plate& plate, const PlateWeather& weather);

} // namespace muffle
