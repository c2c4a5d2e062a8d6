// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/moist_air.h"
#include "core/air/sky.h"
#include "core/house/infiltration.h"
#include "tests/cases/adapters.h"

namespace muffle::cases {

void addAir(Adapters& a) {
  a["saturation_pressure"] = [](const Json& in) { return Json{{"p_ws_Pa", mapped(in.at("t_C"), saturationPressure_Pa)}}; };
  a["moist_air"] = [](const Json& in) {
    const double t = num(in, "t_C"), p = num(in, "pressure_Pa", kStandardPressure_Pa);
    const double pw = num(in, "relative_humidity") * saturationPressure_Pa(t);
    const double W = humidityRatio(pw, p);
    return Json{{"p_w_Pa", pw},
                {"W_kg_per_kg", W},
                {"dew_point_C", dewPoint_C(pw)},
                {"enthalpy_J_per_kg", enthalpy_J_kg(t, W)},
                {"volume_m3_per_kg", specificVolume_m3_kg(t, W, p)},
                {"wet_bulb_C", wetBulb_C(t, W, p)}};
  };
  a["moist_air_from_wet_bulb"] = [](const Json& in) {
    const double t = num(in, "t_C"), p = num(in, "pressure_Pa", kStandardPressure_Pa);
    const double W = humidityRatioFromWetBulb(t, num(in, "wet_bulb_C"), p);
    const double pw = vapourPressure_Pa(W, p);
    return Json{{"W_kg_per_kg", W},
                {"enthalpy_J_per_kg", enthalpy_J_kg(t, W)},
                {"dew_point_C", dewPoint_C(pw)},
                {"relative_humidity", pw / saturationPressure_Pa(t)},
                {"volume_m3_per_kg", specificVolume_m3_kg(t, W, p)}};
  };
  a["sky_berdahl_martin"] = [](const Json& in) {
    const SkyState s = skyBerdahlMartin(num(in, "air_C"), num(in, "dew_point_C"), num(in, "solar_hour", 0.0), num(in, "pressure_Pa", kStandardPressure_Pa),
                                        num(in, "cloud_fraction", 0.0), num(in, "cloud_base_m", 2000.0));
    return Json{{"sky_emissivity", s.emissivity}, {"sky_C", s.sky_C}, {"downward_W_per_m2", s.downward_W_m2}};
  };
  a["sky_swinbank"] = [](const Json& in) { return Json{{"sky_C", mapped(in.at("air_C"), skySwinbank_C)}}; };
  a["sky_hour_term"] = [](const Json& in) {
    return Json{{"delta_sky_K", skyHourSwing_K(num(in, "air_C"), num(in, "dew_point_C"), num(in, "pressure_Pa", kStandardPressure_Pa))}};
  };

  a["air_change_loss"] = [](const Json& in) {
    const double p = num(in, "pressure_Pa", kStandardPressure_Pa), to = num(in, "outdoor_C");
    return Json{{"density_kg_per_m3", airDensity_kg_m3(to, p)},
                {"loss_W", airChangeConductance_W_K(num(in, "air_changes_per_h"), num(in, "volume_m3"), to, p) * (num(in, "inside_C") - to)}};
  };
  a["air_change_loss_moist"] = [](const Json& in) {
    const double p = num(in, "pressure_Pa", kStandardPressure_Pa), to = num(in, "outdoor_C"), n = num(in, "air_changes_per_h"), v = num(in, "volume_m3");
    return Json{{"sensible_W", airChangeConductance_W_K(n, v, to, p) * (num(in, "inside_C") - to)},
                {"latent_W", airChangeLatent_W(n, v, to, num(in, "W_in"), num(in, "W_out"), p)}};
  };
  a["leakage_stack_wind"] = [](const Json& in) {
    const LeakageSite site{num(in, "R"), num(in, "X"), num(in, "height_m"), num(in, "terrain_a"), num(in, "terrain_b"), num(in, "shielding_C")};
    const LeakageFlow f = leakageFlow(num(in, "leakage_area_m2"), site, num(in, "outdoor_K"), num(in, "delta_T_K"), num(in, "wind_m_per_s"));
    return Json{{"f_stack", f.stackFactor}, {"f_wind", f.windFactor}, {"flow_m3_per_s", f.flow_m3_s}};
  };
  a["leakage_basic"] = [](const Json& in) {
    return Json{
        {"flow_m3_per_s", leakageFlowBasic_m3_s(num(in, "leakage_area_cm2"), num(in, "delta_T_K"), num(in, "wind_m_per_s"), num(in, "Cs"), num(in, "Cw"))}};
  };
  a["vents_stack_flow"] = [](const Json& in) {
    return Json{{"flow_m3_per_s", ventStackFlow_m3_s(num(in, "low_area_m2"), num(in, "high_area_m2"), num(in, "height_m"), num(in, "delta_T_K"),
                                                     num(in, "inside_K"), num(in, "Cd", 0.65))}};
  };
  a["open_door_flow"] = [](const Json& in) {
    return Json{{"flow_m3_per_s", openDoorFlow_m3_s(num(in, "width_m"), num(in, "height_m"), num(in, "delta_T_K"), num(in, "mean_K"), num(in, "Cd", 0.65))}};
  };
}

} // namespace muffle::cases
