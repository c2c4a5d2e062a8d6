// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/degree_page.h"
#include "app/stages/heat_stage.h"
#include "core/plan/heaters.h"

#include <QComboBox>

namespace muffle {
namespace {

using DegreePageTest = WindowTest;

TEST_F(DegreePageTest, SaysWhatCoreSaysAndFollowsThePlan) {
  open();
  importDemoLog();
  window->showStage(HeatStage::kId);
  auto* heat = find<HeatStage>();
  heat->showPage(HeatStage::Page::degree);
  DegreePage& page = heat->degree();
  ASSERT_TRUE(waitUntil([&] { return page.isCurrent(); }));
  const auto own = degreeMore(document->plan(), document->readings().sharedWeather());
  ASSERT_TRUE(own);
  ASSERT_EQ(page.points().size(), own->size());
  for (std::size_t i = 0; i < own->size(); ++i) EXPECT_EQ(page.points()[i].energy, (*own)[i].energy);
  EXPECT_TRUE(page.words().contains(QStringLiteral("days of the best growth"))) << page.words().toStdString();
  auto* what = page.findChild<QComboBox*>();
  ASSERT_NE(what, nullptr);
  for (int i = 0; i < what->count(); ++i) what->setCurrentIndex(i);
  document->view().setUnits({true, true}); // a degree is another then
  ASSERT_TRUE(waitUntil([&] { return page.isCurrent(); }));
  EXPECT_GT(page.points().size(), own->size());
  EXPECT_TRUE(page.words().contains(document->view().units().text(Quantity::difference, 1.0 / 1.8) + QStringLiteral(" more"))) << page.words().toStdString();
  EXPECT_TRUE(page.words().contains(QStringLiteral("°F"))) << page.words().toStdString();
  ASSERT_FALSE(document->edit(QStringLiteral("warmer"), [](Plan& p) {
    p.setpoints.night_C += 1.0;
    p.setpoints.day_C += 1.0;
  }));
  EXPECT_FALSE(page.isCurrent()) << "what stood there was of the plan before";
  ASSERT_TRUE(waitUntil([&] { return page.isCurrent(); }));
  ASSERT_FALSE(document->edit(QStringLiteral("no heater"), [](Plan& p) { removeHeaters(p, {HeaterPlace::Of::house}); }));
  ASSERT_TRUE(waitUntil([&] { return page.words().contains(QStringLiteral("heater")); }));
}

} // namespace
} // namespace muffle
