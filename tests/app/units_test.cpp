// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/units.h"

#include <gtest/gtest.h>

#include <QLocale>

namespace muffle {
namespace {

TEST(Units, ReadWhatTheyWrite) {
  for (const Units u : {Units{}, Units{true, true}})
    for (const Quantity q : {Quantity::temperature, Quantity::length, Quantity::power, Quantity::water, Quantity::share, Quantity::airChanges}) {
      const double si = 7.25;
      const auto back = u.parse(q, u.text(q, si));
      ASSERT_TRUE(back) << u.text(q, si).toStdString();
      // half the last digit shown, in the unit shown; power in whole watts reads back coarsely
      const double shown = q == Quantity::power ? 51.0 : q == Quantity::length ? 0.013 : q == Quantity::water ? 2.0 : 0.06;
      EXPECT_NEAR(*back, si, shown) << u.text(q, si).toStdString();
    }
}

TEST(Units, OfThicknessAnglesAndUValues) {
  const Units metric, feet{true, true};
  EXPECT_EQ(metric.text(Quantity::thickness, 0.05), QStringLiteral("50\u00A0mm"));
  EXPECT_EQ(feet.text(Quantity::thickness, 0.0508), QStringLiteral("2\u00A0in"));
  EXPECT_NEAR(*metric.parse(Quantity::thickness, QStringLiteral("5 cm")), 0.05, 1e-12);
  EXPECT_NEAR(*metric.parse(Quantity::thickness, QStringLiteral("2 in")), 0.0508, 1e-12);
  EXPECT_NEAR(*metric.parse(Quantity::thickness, QStringLiteral("20")), 0.02, 1e-12) << "the shown unit is meant";
  EXPECT_EQ(metric.text(Quantity::angle, 75.0), QStringLiteral("75°"));
  EXPECT_EQ(metric.text(Quantity::uValue, 6.7), QStringLiteral("6.7\u00A0W/m²K"));
  EXPECT_NEAR(feet.show(Quantity::uValue, 5.678), 1.0, 1e-3) << "one BTU an hour, square foot and degree";
  EXPECT_EQ(metric.number(Quantity::volume, 265.53), QStringLiteral("266")) << "no tenths of a hundred cubic metres";
  EXPECT_EQ(metric.number(Quantity::volume, 12.34), QStringLiteral("12.3"));
}

TEST(Units, LessThanAFootIsSaidInInchesAndReadAgain) {
  const Units feet{true, true};
  EXPECT_EQ(feet.text(Quantity::length, 0.0508), QStringLiteral("2\u00A0in"));
  EXPECT_EQ(feet.text(Quantity::length, 0.3048), QStringLiteral("1\u00A0ft\u00A00\u00A0in"));
  EXPECT_EQ(feet.text(Quantity::length, 0.0), QStringLiteral("0\u00A0ft\u00A00\u00A0in"));
  for (const double inches : {1.0, 2.0, 11.0}) EXPECT_NEAR(*feet.parse(Quantity::length, feet.text(Quantity::length, inches * 0.0254)), inches * 0.0254, 1e-9);
}

TEST(Units, UnderstandPeople) {
  const Units u;
  EXPECT_NEAR(*u.parse(Quantity::length, QStringLiteral("7 ft 6")), 7.5 * 0.3048, 1e-12);
  EXPECT_NEAR(*u.parse(Quantity::length, QStringLiteral("2,3 m")), 2.3, 1e-12);
  EXPECT_NEAR(*u.parse(Quantity::length, QStringLiteral("230 cm")), 2.3, 1e-12);
  EXPECT_NEAR(*u.parse(Quantity::temperature, QStringLiteral("12 F")), (12 - 32) / 1.8, 1e-12);
  EXPECT_NEAR(*u.parse(Quantity::temperature, QString::fromUtf8("−4 °C")), -4.0, 1e-12);
  EXPECT_NEAR(*u.parse(Quantity::power, QStringLiteral("1500 W")), 1500.0, 1e-9);
  for (const char* bad : {"", "warm", "3 potatoes", "1 2 3", "--4", "1e"}) EXPECT_FALSE(u.parse(Quantity::temperature, QString::fromLatin1(bad))) << bad;
}

TEST(Units, ShowTheDigitsThatAValueHas) {
  const Units u;
  EXPECT_EQ(u.text(Quantity::airChanges, 0.35), QStringLiteral("0.35/h"));
  EXPECT_EQ(u.text(Quantity::airChanges, 0.7), QStringLiteral("0.7/h"));
  EXPECT_EQ(u.text(Quantity::hours, 0.25), QStringLiteral("0.25\u00A0h"));
  EXPECT_EQ(u.text(Quantity::hours, 3.0), QStringLiteral("3\u00A0h"));
  EXPECT_EQ(u.text(Quantity::hours, 41.3), QStringLiteral("41\u00A0h"));
}

TEST(Units, PriceAnAreaInItsOwnMeasure) {
  EXPECT_EQ(Units{}.text(Quantity::areaPrice, 9.0), QString::fromUtf8("9.00/m²"));
  const Units imperial{true, true};
  EXPECT_EQ(imperial.text(Quantity::areaPrice, 10.7639), QString::fromUtf8("1.00/ft²"));
  EXPECT_NEAR(*imperial.parse(Quantity::areaPrice, QStringLiteral("1")), 10.7639, 1e-3); // 1/0.3048^2
  EXPECT_NEAR(*Units{}.parse(Quantity::areaPrice, QString::fromUtf8("2,5/m²")), 2.5, 1e-12);
}

TEST(Units, ReadThousandsAsTheyAreShown) {
  const QLocale before;
  QLocale::setDefault(QLocale(QLocale::English, QLocale::UnitedKingdom));
  const Units u;
  EXPECT_EQ(u.text(Quantity::airFlow, 3000.0), QString::fromUtf8("3,000\u00A0m³/h"));
  EXPECT_NEAR(*u.parse(Quantity::airFlow, QStringLiteral("3,500")), 3500.0, 1e-9);
  EXPECT_NEAR(*u.parse(Quantity::airFlow, QString::fromUtf8("12,345.5 m³/h")), 12345.5, 1e-9);
  EXPECT_NEAR(*u.parse(Quantity::length, QStringLiteral("2,3 m")), 2.3, 1e-12) << "one or two digits are decimals";
  QLocale::setDefault(QLocale(QLocale::German, QLocale::Germany));
  EXPECT_NEAR(*u.parse(Quantity::airFlow, QStringLiteral("3.500")), 3500.0, 1e-9);
  EXPECT_NEAR(*u.parse(Quantity::length, QStringLiteral("2,345")), 2.345, 1e-12);
  QLocale::setDefault(before);
}

TEST(Units, OfAirLeaksAndMaterials) {
  const Units metric, feet{true, true};
  EXPECT_NEAR(feet.show(Quantity::airFlow, 1.699), 1.0, 1e-3);
  EXPECT_NEAR(feet.show(Quantity::leakArea, 6.4516), 1.0, 1e-9);
  EXPECT_NEAR(feet.show(Quantity::resistance, 0.17611), 1.0, 1e-4) << "R 1 is 0.176 m2K/W";
  EXPECT_NEAR(feet.show(Quantity::areaHeat, 20441.6), 1.0, 1e-4);
  EXPECT_EQ(metric.text(Quantity::areaHeat, 420.0), QString::fromUtf8("0.42\u00A0kJ/m²K"));
  EXPECT_EQ(metric.text(Quantity::resistance, 0.375), QString::fromUtf8("0.375\u00A0m²K/W"));
  EXPECT_NEAR(*metric.parse(Quantity::areaHeat, QStringLiteral("8")), 8000.0, 1e-9);
}

TEST(Units, OfMassWaterAndDays) {
  const Units metric, feet{true, true};
  EXPECT_NEAR(*metric.parse(Quantity::mass, QStringLiteral("1.2 t")), 1200.0, 1e-9);
  EXPECT_NEAR(*metric.parse(Quantity::mass, QStringLiteral("100 lb")), 45.359237, 1e-9);
  EXPECT_NEAR(*feet.parse(Quantity::mass, QStringLiteral("100")), 45.359237, 1e-9) << "the shown unit is meant";
  EXPECT_EQ(feet.text(Quantity::mass, 45.359237), QStringLiteral("100\u00A0lb"));
  EXPECT_EQ(metric.text(Quantity::waterFlow, 7.5), QStringLiteral("7.5\u00A0L/min"));
  EXPECT_NEAR(feet.show(Quantity::waterFlow, 3.785411784), 1.0, 1e-12);
  EXPECT_NEAR(feet.show(Quantity::conductance, 0.52752793), 1.0, 1e-6) << "one BTU an hour and degree";
  EXPECT_EQ(metric.text(Quantity::factor, 0.5), QStringLiteral("0.50"));
  EXPECT_EQ(feet.text(Quantity::days, 30.0), QStringLiteral("30\u00A0d"));
}

TEST(Units, OfHeightsAboveTheSeaAreWhole) {
  const Units metric, feet{.fahrenheit = true, .feet = true};
  EXPECT_EQ(metric.text(Quantity::elevation, 780.3), QStringLiteral("780\u00A0m"));
  EXPECT_EQ(feet.text(Quantity::elevation, 280.0), QStringLiteral("919\u00A0ft"));
  EXPECT_NEAR(*feet.parse(Quantity::elevation, feet.text(Quantity::elevation, 780.0)), 780.0, 0.15) << "half a foot";
  EXPECT_DOUBLE_EQ(*feet.parse(Quantity::elevation, QStringLiteral("780 m")), 780.0);
}

TEST(Units, NeverShowMinusNothing) { EXPECT_EQ(Units{}.text(Quantity::temperature, -0.04), QString::fromUtf8("0.0\u00A0°C")); }

} // namespace
} // namespace muffle
