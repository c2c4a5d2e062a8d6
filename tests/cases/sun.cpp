// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sun/glazing.h"
#include "core/sun/irradiance.h"
#include "core/sun/position.h"
#include "tests/cases/adapters.h"

#include <cmath>

namespace muffle::cases {
namespace {

Place placeOf(const Json& in) { return {num(in, "latitude_deg"), num(in, "longitude_deg", 0.0), num(in, "elevation_m", 0.0)}; }

Date dateOf(const Json& in, const char* key) { return parseIsoDate(in.at(key).get<std::string>()).value(); }

double instantOf(const Json& in) {
  const double midnight = static_cast<double>(daysSinceEpoch(dateOf(in, "date"))) * 86400.0;
  if (in.contains("hour_utc")) return midnight + num(in, "hour_utc") * 3600.0;
  const std::string clock = in.at("local_time").get<std::string>();
  double seconds = std::stod(clock.substr(0, 2)) * 3600.0 + std::stod(clock.substr(3, 2)) * 60.0;
  if (clock.size() > 5) seconds += std::stod(clock.substr(6));
  return midnight + seconds - num(in, "utc_offset_h", 0.0) * 3600.0;
}

SunPosition positionOf(const Json& in) {
  const bool refracted = in.contains("refraction") ? in.at("refraction").get<bool>() : in.contains("pressure_Pa");
  if (!refracted) return sunPosition(instantOf(in), placeOf(in));
  return sunPosition(instantOf(in), placeOf(in), Refraction{num(in, "pressure_Pa", kStandardPressure_Pa), num(in, "temperature_C", 10.0)});
}

double fromSouthToNorth(double azimuth_deg) { return azimuth_deg + 180.0; }

double pathOf(const Json& in) { return in.contains("KL") ? num(in, "KL") : num(in, "K_per_m") * num(in, "thickness_m"); }

} // namespace

void addSun(Adapters& a) {
  a["sun_position"] = [](const Json& in) {
    const SunPosition s = positionOf(in);
    return Json{{"zenith_deg", s.zenith_deg}, {"azimuth_deg", s.azimuth_deg}, {"declination_deg", s.declination_deg}};
  };
  a["sun_incidence_at_time"] = [](const Json& in) {
    const SunPosition s = positionOf(in);
    return Json{{"julian_day", instantOf(in) / 86400.0 + 2440587.5},
                {"R_au", s.distance_au},
                {"declination_deg", s.declination_deg},
                {"incidence_deg", incidence_deg(s.zenith_deg, s.azimuth_deg, num(in, "slope_deg"), num(in, "surface_azimuth_deg"))}};
  };
  a["sunrise_sunset"] = [](const Json& in) {
    const Place place = placeOf(in);
    const Date riseDate = dateOf(in, in.contains("sunrise_date_local") ? "sunrise_date_local" : "date");
    const Date setDate = dateOf(in, in.contains("sunset_date_local") ? "sunset_date_local" : "date");
    const double offset = num(in, "utc_offset_h", 0.0) * 3600.0;
    const auto hour = [&](double utc, const Date& d) { return (utc + offset - static_cast<double>(daysSinceEpoch(d)) * 86400.0) / 3600.0; };
    const SunDay rise = sunDay(riseDate, place), set = sunDay(setDate, place);
    Json out;
    if (rise.rise_utc) out["sunrise_h"] = hour(*rise.rise_utc, riseDate);
    if (set.set_utc) out["sunset_h"] = hour(*set.set_utc, setDate);
    out["day_length_h"] = set.rise_utc && set.set_utc ? (*set.set_utc - *set.rise_utc) / 3600.0 : set.alwaysUp ? 24.0 : 0.0;
    return out;
  };
  a["sun_incidence"] = [](const Json& in) {
    const double declination = declinationCooper_deg(in.at("day_of_year").get<int>());
    const SunPosition s = sunAtHourAngle(num(in, "latitude_deg"), declination, num(in, "hour_angle_deg"));
    return Json{
        {"declination_deg", declination},
        {"incidence_deg", incidence_deg(s.zenith_deg, s.azimuth_deg, num(in, "slope_deg"), fromSouthToNorth(num(in, "surface_azimuth_from_south_deg", 0.0)))}};
  };
  a["sun_at_hour_angle"] = [](const Json& in) {
    const SunPosition s = sunAtHourAngle(num(in, "latitude_deg"), declinationCooper_deg(in.at("day_of_year").get<int>()), num(in, "hour_angle_deg"));
    double fromSouth = s.azimuth_deg - 180.0;
    if (fromSouth > 180.0) fromSouth -= 360.0;
    return Json{{"zenith_deg", s.zenith_deg}, {"azimuth_from_south_deg", fromSouth}};
  };
  a["extraterrestrial_day"] = [](const Json& in) {
    const int n = in.at("day_of_year").get<int>();
    return Json{{"H0_J_per_m2", extraterrestrialDay_J_m2(num(in, "latitude_deg"), n)}, {"G_on_W_per_m2", extraterrestrialNormal_W_m2(n)}};
  };
  a["diffuse_fraction_erbs"] = [](const Json& in) { return Json{{"Id_over_I", mapped(in.at("k_T"), diffuseFractionErbs)}}; };
  a["tilted_hour_isotropic"] = [](const Json& in) {
    const int n = in.at("day_of_year").get<int>();
    const SunPosition s = sunAtHourAngle(num(in, "latitude_deg"), declinationCooper_deg(n), num(in, "hour_angle_deg"));
    const double slope = num(in, "slope_deg"), global = num(in, "I_J_per_m2");
    const double incidence = incidence_deg(s.zenith_deg, s.azimuth_deg, slope, fromSouthToNorth(num(in, "surface_azimuth_from_south_deg", 0.0)));
    const TiltedIrradiance on =
        tiltedIrradiance(global, global * num(in, "Id_over_I"), 0.0, s.zenith_deg, incidence, slope, num(in, "albedo", 0.2), SkyModel::isotropic);
    return Json{{"R_b", std::cos(radians(incidence)) / std::cos(radians(s.zenith_deg))}, {"I_T_J_per_m2", on.total()}};
  };
  a["tilted_irradiance"] = [](const Json& in) {
    const double zenith = num(in, "zenith_deg"), slope = num(in, "slope_deg");
    const double incidence = incidence_deg(zenith, num(in, "azimuth_deg"), slope, num(in, "surface_azimuth_deg"));
    const bool hay = in.contains("model") && in.at("model") == "hay-davies";
    const TiltedIrradiance on = tiltedIrradiance(num(in, "global_W_per_m2"), num(in, "diffuse_W_per_m2"), num(in, "extraterrestrial_horizontal_W_per_m2", 0.0),
                                                 zenith, incidence, slope, num(in, "albedo", 0.2), hay ? SkyModel::hayDavies : SkyModel::isotropic);
    return Json{{"beam", on.beam}, {"diffuse", on.diffuse}, {"ground", on.ground}, {"total", on.total()}};
  };
  a["glazing_reflection"] = [](const Json& in) {
    const double n = num(in, "n"), path = num(in, "KL", 0.0);
    return Json{{"r_0deg", fresnelReflectance(n, 0.0)},
                {"r_60deg", fresnelReflectance(n, 60.0)},
                {"tau_2sheets_0deg", glazingOptics(n, path, 0.0, 2).transmittance},
                {"tau_2sheets_60deg", glazingOptics(n, path, 60.0, 2).transmittance}};
  };
  a["glazing_transmittance"] = [](const Json& in) {
    const GlazingOptics g = glazingOptics(num(in, "n"), pathOf(in), num(in, "incidence_deg"), in.value("sheets", 1));
    return Json{{"tau", g.transmittance}, {"rho", g.reflectance}, {"alpha", g.absorptance()}};
  };
  a["glazing_diffuse_transmittance"] = [](const Json& in) {
    const double n = num(in, "n"), path = pathOf(in);
    const int sheets = in.value("sheets", 1);
    return Json{{"tau_diffuse", glazingDiffuseTransmittance(n, path, sheets)}, {"tau_at_60deg", glazingOptics(n, path, 60.0, sheets).transmittance}};
  };
}

} // namespace muffle::cases
