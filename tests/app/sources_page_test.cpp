// SPDX-License-Identifier: GPL-3.0-or-later
//
// By source: what is drawn is what the run's own series and meters say, of the night that is chosen.
#include "app/stages/heat_stage.h"
#include "app/stages/sources_page.h"
#include "core/plan/heaters.h"
#include "tests/app/window_fixture.h"

#include <numeric>

namespace muffle {
namespace {

class SourcesPageTest : public WindowTest {
protected:
  SourcesPage& page() {
    window->showStage(HeatStage::kId);
    find<HeatStage>()->showPage(HeatStage::Page::sources);
    QCoreApplication::processEvents();
    return find<HeatStage>()->sources();
  }
  static double heaters_kWh(const std::vector<HeatSource>& sources) {
    double sum = 0.0;
    for (const HeatSource& s : sources)
      if (s.of == HeatSource::Of::heater) sum += s.sum_kWh();
    return sum;
  }
};

TEST_F(SourcesPageTest, ShowsTheChosenNightAndItsWinterAndFollowsBoth) {
  open();
  importDemoLog();
  SourcesPage& of = page();
  const auto& run = *document->results().simulation();
  const NightResult& n = run.nights[static_cast<std::size_t>(document->view().selectedNight())];
  EXPECT_EQ(of.ofNight().front().kWh.size(), 24U);
  EXPECT_GE(heaters_kWh(of.ofNight()), n.heater_kWh - 1e-3) << "a night's heat and that of the hours about it";
  EXPECT_LE(heaters_kWh(of.ofNight()), 2.0 * n.heater_kWh);
  EXPECT_NEAR(heaters_kWh(of.ofWinter()), run.ledgers[n.winter].heat_kWh(MeterUse::heater), 1e-3 * heaters_kWh(of.ofWinter()));
  const double before = heaters_kWh(of.ofNight());
  document->view().selectNight(document->view().selectedNight() + 20);
  QCoreApplication::processEvents();
  EXPECT_NE(heaters_kWh(of.ofNight()), before);
  EXPECT_TRUE(of.workByWeek_h().empty()) << "a fan heater asks for none";
}

TEST_F(SourcesPageTest, SeveralHeatersAndTheirWorkStandApart) {
  open();
  importDemoLog();
  ASSERT_FALSE(document->edit(QStringLiteral("stove"), [](Plan& p) { addHeater(p, {.id = "stove", .kind = HeaterKind::woodStove, .power_W = 6000.0}); }));
  ASSERT_TRUE(waitForResult(*document));
  SourcesPage& of = page();
  int heaters = 0;
  for (const HeatSource& s : of.ofWinter()) heaters += s.of == HeatSource::Of::heater ? 1 : 0;
  EXPECT_EQ(heaters, 2);
  ASSERT_FALSE(of.workByWeek_h().empty());
  EXPECT_TRUE(of.words().contains(QStringLiteral("Work takes up to"))) << of.words().toStdString();
  // against what there are
  NumberField* have = nullptr;
  for (auto* f : of.findChildren<NumberField*>())
    if (f->isVisible()) have = f;
  ASSERT_NE(have, nullptr);
  type(have, QStringLiteral("0.5"));
  EXPECT_EQ(document->plan().ask.hoursPerWeek, 0.5);
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  const auto over = std::count_if(of.workByWeek_h().begin(), of.workByWeek_h().end(), [](double h) { return h > 0.5; });
  ASSERT_GT(over, 0);
  EXPECT_TRUE(of.words().contains(QString::number(over))) << of.words().toStdString();
  EXPECT_TRUE(of.words().contains(QStringLiteral("more than you have"))) << of.words().toStdString();
}

TEST_F(SourcesPageTest, AnotherNightOfTheWinterOrAnotherWinterShowsTheSameAsDrawnAnew) {
  open();
  importDemoLog();
  SourcesPage& of = page();
  const auto& nights = document->results().simulation()->nights;
  for (std::size_t i = 5; i < nights.size(); i += 61) {
    document->view().selectNight(static_cast<int>(i));
    QCoreApplication::processEvents();
    const auto night = of.ofNight(), winter = of.ofWinter();
    const QString words = of.words();
    of.refresh();
    ASSERT_EQ(night.size(), of.ofNight().size());
    for (std::size_t k = 0; k < night.size(); ++k) {
      EXPECT_EQ(night[k].kWh, of.ofNight()[k].kWh) << "night " << i;
      EXPECT_EQ(winter[k].kWh, of.ofWinter()[k].kWh) << "night " << i;
    }
    EXPECT_EQ(words, of.words());
  }
}

TEST_F(SourcesPageTest, ManySourcesWithLongNamesLeaveTheWindowItsWidth) {
  open();
  importDemoLog();
  window->resize(1280, 800);
  ASSERT_FALSE(document->edit(QStringLiteral("many"), [](Plan& p) {
    p.heaters.clear();
    for (int i = 0; i < 5; ++i)
      addHeater(p, {.name = "the paraffin stove of the far corner, " + std::to_string(i), .kind = HeaterKind::oil, .power_W = 900.0, .stage_K = 0.5 * i});
  }));
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_GE(page().ofWinter().size(), 6U);
  QCoreApplication::processEvents();
  EXPECT_LE(window->minimumSizeHint().width(), 1280);
  EXPECT_EQ(window->width(), 1280);
}

TEST_F(SourcesPageTest, WithoutALogItAsksForOne) {
  open();
  EXPECT_TRUE(page().words().contains(QStringLiteral("Import a log")));
}

} // namespace
} // namespace muffle
