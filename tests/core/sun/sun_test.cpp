// SPDX-License-Identifier: GPL-3.0-or-later
//
// The sun's path and what it leaves on planes and through panes.
#include "core/sun/glazing.h"
#include "core/sun/irradiance.h"
#include "core/sun/position.h"
#include "tests/support/near.h"

#include <cmath>

namespace muffle {
namespace {

TEST(Sun, StandsAtNoonByLatitudeAndDeclination) {
  for (const double latitude : {-35.0, 12.0, 47.0, 58.0}) {
    const Place place{latitude, 0.0, 0.0};
    for (const auto& [date, declination] : {std::pair{Date{2031, 6, 21}, 23.44}, {Date{2031, 12, 22}, -23.44}}) {
      const SunDay d = sunDay(date, place);
      EXPECT_CLOSE(sunPosition(d.noon_utc, place).zenith_deg, std::abs(latitude - declination), 0.02, "the almanac's 0.01 degrees and the solstice's hour");
    }
  }
}

TEST(Sun, RisesAndSetsTheSameTimeFromNoonNearTheSolstice) {
  const Place place{46.0, 7.0, 0.0};
  const SunDay d = sunDay({2031, 12, 22}, place);
  ASSERT_TRUE(d.rise_utc && d.set_utc);
  EXPECT_CLOSE((*d.set_utc - d.noon_utc) - (d.noon_utc - *d.rise_utc), 0.0, 20.0, "the declination hardly moves on that day");
  EXPECT_CLOSE(sunPosition(*d.rise_utc, place).zenith_deg, 90.8333, 0.01, "its own definition, to the search's step");
}

TEST(Sun, NeitherRisesNorSetsInPolarNightAndDay) {
  const Place north{78.0, 15.0, 0.0};
  const SunDay winter = sunDay({2031, 12, 20}, north);
  EXPECT_FALSE(winter.rise_utc);
  EXPECT_FALSE(winter.alwaysUp);
  const SunDay summer = sunDay({2031, 6, 20}, north);
  EXPECT_FALSE(summer.set_utc);
  EXPECT_TRUE(summer.alwaysUp);
}

TEST(Sun, GoesFromEastToWestOverTheSouthInTheNorth) {
  const Place place{50.0, 10.0, 0.0};
  const SunDay d = sunDay({2031, 3, 20}, place);
  EXPECT_LT(sunPosition(d.noon_utc - 4 * 3600, place).azimuth_deg, 180.0);
  EXPECT_CLOSE(sunPosition(d.noon_utc, place).azimuth_deg, 180.0, 0.2, "the search for noon stops within a minute");
  EXPECT_GT(sunPosition(d.noon_utc + 4 * 3600, place).azimuth_deg, 180.0);
  const Place south{-37.0, 145.0, 0.0};
  const double azimuth = sunPosition(sunDay({2031, 3, 20}, south).noon_utc, south).azimuth_deg;
  EXPECT_LT(std::min(azimuth, 360.0 - azimuth), 0.3);
}

TEST(Sun, RefractionLiftsItMostAtTheHorizon) {
  const Place place{50.0, 10.0, 0.0};
  const SunDay d = sunDay({2031, 2, 10}, place);
  const double low = sunPosition(*d.rise_utc + 120, place).zenith_deg - sunPosition(*d.rise_utc + 120, place, Refraction{}).zenith_deg;
  const double high = sunPosition(d.noon_utc, place).zenith_deg - sunPosition(d.noon_utc, place, Refraction{}).zenith_deg;
  EXPECT_GT(low, 0.3);
  EXPECT_GT(high, 0.0);
  EXPECT_LT(high, 0.1);
}

TEST(Sun, ALevelPlaneSeesTheZenithAngle) {
  for (const double zenith : {10.0, 45.0, 80.0})
    for (const double azimuth : {0.0, 120.0, 300.0}) EXPECT_CLOSE(incidence_deg(zenith, azimuth, 0.0, 200.0), zenith, 1e-9, "rounding");
  EXPECT_CLOSE(incidence_deg(60.0, 180.0, 60.0, 180.0), 0.0, 1e-5, "facing it: rounding of the arc cosine near 1");
}

TEST(Irradiance, OnALevelPlaneIsTheGlobal) {
  for (const SkyModel model : {SkyModel::isotropic, SkyModel::hayDavies}) {
    const auto level = tiltedIrradiance(420.0, 130.0, 900.0, 55.0, 55.0, 0.0, 0.2, model);
    EXPECT_CLOSE(level.total(), 420.0, 1e-9, "rounding: a level plane sees the whole sky and no ground");
    EXPECT_DOUBLE_EQ(level.ground, 0.0);
  }
}

TEST(Irradiance, APlaneTurnedAwayGetsNoBeam) {
  const auto back = tiltedIrradiance(420.0, 130.0, 900.0, 70.0, 120.0, 90.0, 0.2, SkyModel::isotropic);
  EXPECT_DOUBLE_EQ(back.beam, 0.0);
  EXPECT_CLOSE(back.diffuse, 65.0, 1e-9, "an upright plane sees half an even sky");
  EXPECT_CLOSE(back.ground, 42.0, 1e-9, "and half of the ground's 0.2");
}

TEST(Irradiance, ByCosinesIsThatByDegrees) {
  for (const SkyModel model : {SkyModel::isotropic, SkyModel::hayDavies})
    for (const double zenith : {20.0, 71.0, 89.9, 95.0})
      for (const double incidence : {0.0, 40.0, 100.0})
        for (const double slope : {0.0, 35.0, 90.0}) {
          const SunAngles at{std::cos(radians(zenith)), std::cos(radians(incidence)), std::cos(radians(slope))};
          EXPECT_CLOSE(tiltedIrradiance(420.0, 130.0, 900.0, at, 0.2, model).total(),
                       tiltedIrradiance(420.0, 130.0, 900.0, zenith, incidence, slope, 0.2, model).total(), 1e-9, "rounding");
        }
}

TEST(Irradiance, DiffuseShareFallsAsTheSkyClears) {
  double before = 1.01;
  for (double k = 0.0; k <= 0.8; k += 0.05) {
    const double share = diffuseFractionErbs(k);
    EXPECT_LE(share, before + 0.02) << "Erbs' three pieces meet within 0.02 at " << k;
    EXPECT_GE(share, 0.1);
    before = share;
  }
}

TEST(Irradiance, AWideSwingMeansAClearDay) {
  EXPECT_LT(dailyTransmittanceBristowCampbell(2.0, 8.0), dailyTransmittanceBristowCampbell(12.0, 8.0));
  EXPECT_LE(dailyTransmittanceBristowCampbell(60.0, 8.0), 0.8);
  EXPECT_GE(dailyTransmittanceBristowCampbell(0.0, 8.0), 0.0);
}

TEST(Irradiance, TheYearsSunIsNearestInJanuary) { EXPECT_GT(extraterrestrialNormal_W_m2(3), extraterrestrialNormal_W_m2(185)); }

TEST(Glazing, ConservesLightAndLosesMoreAtASlant) {
  double before = 1.0;
  for (int angle = 0; angle < 90; angle += 5) {
    const GlazingOptics one = glazingOptics(1.526, 0.05, angle, 1), two = glazingOptics(1.526, 0.05, angle, 2);
    EXPECT_GE(one.absorptance(), -1e-12);
    EXPECT_LT(two.transmittance, one.transmittance);
    EXPECT_LE(one.transmittance, before + 1e-3) << "nearly flat at first, then falling";
    before = one.transmittance;
  }
  EXPECT_CLOSE(fresnelReflectance(1.5, 0.0), 0.04, 1e-9, "((n-1)/(n+1))^2");
  EXPECT_LT(glazingDiffuseTransmittance(1.526, 0.05, 1), glazingOptics(1.526, 0.05, 0.0, 1).transmittance);
}

} // namespace
} // namespace muffle
