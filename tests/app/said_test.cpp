// SPDX-License-Identifier: GPL-3.0-or-later
//
// What core answers in codes is said in the units that the window shows.
#include "app/model/said.h"

#include "app/model/document.h"
#include "core/plan/plan.h"

#include <gtest/gtest.h>

namespace muffle {
namespace {

constexpr Units kMetric{}, kFeet{true, true};

TEST(Said, ALimitIsInTheUnitsThatAreShown) {
  Plan p;
  p.house.bay = WarmBay{};
  p.house.bay->length_m = 40.0;
  const Problems problems = check(p);
  ASSERT_FALSE(problems.empty());
  EXPECT_EQ(said(problems.front().what, kMetric), QStringLiteral("the bay is 40\u00A0m long"));
  EXPECT_TRUE(said(problems.front().what, kFeet).contains(QStringLiteral("ft"))) << said(problems.front().what, kFeet).toStdString();
  EXPECT_FALSE(said(problems.front(), kFeet).contains(QStringLiteral("\u00A0m "))) << said(problems.front(), kFeet).toStdString();
}

TEST(Said, EveryUnitThatHasAnotherIsTurnedIntoIt) {
  const auto in = [](Unit unit, double value, const Units& units) { return said(Message{"plan.wall", Amount{value, unit}}, units); };
  for (const auto& [unit, value, mark] : {std::tuple{Unit::celsius, 5.0, "\u00B0F"},
                                          {Unit::kelvin, 2.0, "\u00B0F"},
                                          {Unit::metre, 3.0, "ft"},
                                          {Unit::metre, 0.15, "in"},
                                          {Unit::squareMetre, 60.0, "ft"},
                                          {Unit::litre, 200.0, "gal"},
                                          {Unit::kilogram, 50.0, "lb"},
                                          {Unit::watt, 6000.0, "BTU"}}) {
    EXPECT_TRUE(in(unit, value, kFeet).contains(QString::fromUtf8(mark))) << mark << ": " << in(unit, value, kFeet).toStdString();
    EXPECT_FALSE(in(unit, value, kMetric).contains(QString::fromUtf8(mark))) << mark << ": " << in(unit, value, kMetric).toStdString();
  }
  EXPECT_TRUE(in(Unit::squareMetre, 60.0, kMetric).startsWith(QStringLiteral("60\u00A0m\u00B2")));
}

TEST(Said, ARefusedEditNamesItsLimitInTheUnitsThatAreShown) {
  Document document;
  const auto tooLong = [](Plan& p) {
    p.house.bay = WarmBay{};
    p.house.bay->length_m = 40.0;
  };
  document.view().setUnits(kMetric);
  EXPECT_TRUE(document.edit(QStringLiteral("bay"), tooLong).value_or(QString()).contains(QStringLiteral("40\u00A0m")));
  document.view().setUnits(kFeet);
  const QString why = document.edit(QStringLiteral("bay"), tooLong).value_or(QString());
  EXPECT_TRUE(why.contains(QStringLiteral("\u00A0ft"))) << why.toStdString();
  EXPECT_FALSE(why.contains(QStringLiteral("\u00A0m "))) << why.toStdString();
}

TEST(Said, WhatSomebodyWroteStaysAsItIs) { EXPECT_EQ(said(Message::verbatim("by the 3.5 m door"), kFeet), QStringLiteral("by the 3.5 m door")); }

TEST(Said, APlaceInAPlansFileIsNotForTheWindow) {
  const Problem inFile{ProblemKind::badInput, "/measures/4/heater", Message{"plan.no-sizes-try"}, Message{"plan.give-least-one"}};
  EXPECT_FALSE(said(inFile).contains(QLatin1Char('/'))) << said(inFile).toStdString();
  const Problem onLine{ProblemKind::badInput, "line 12", Message{"plan.no-sizes-try"}, Message{"plan.give-least-one"}};
  EXPECT_TRUE(said(onLine).startsWith(QStringLiteral("line 12"))) << "a line of a log is";
}

} // namespace
} // namespace muffle
