// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores in the window: each kind added, seen, changed and taken out again; the bench, the ground, and what one more buys.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "core/plan/cautions.h"

#include "app/paint/theme.h"
#include "app/paint/word_places.h"
#include "app/stages/plot.h"
#include "app/stages/section_view.h"
#include "app/stages/store_words.h"
#include "app/stages/stores_stage.h"
#include "words/words.h"

#include <QComboBox>
#include <QLabel>
#include <QToolButton>

#include <limits>

namespace muffle {
namespace {

class StoresWindow : public WindowTest {
protected:
  void openWithLog(bool whole = false) {
    open();
    whole ? importWholeDemoLog() : importDemoLog();
    window->showStage(StoresStage::kId);
    stage = find<StoresStage>();
    ASSERT_NE(stage, nullptr);
  }
  StoresStage* stage = nullptr;
};

TEST_F(StoresWindow, EveryKindIsAddedSimulatedAndUndone) {
  openWithLog();
  const int before = document->planInHand().undoStack()->index();
  const std::size_t had = storesOf(document->plan()).size();
  const auto additions = StoreWords::additions();
  for (std::size_t i = 0; i < additions.size(); ++i) {
    stage->stores().add(i);
    ASSERT_TRUE(waitForResult(*document)) << i;
    EXPECT_EQ(storesOf(document->plan()).size(), had + i + 1) << i;
    EXPECT_EQ(stage->choice().now()->kind, additions[i].kind); // the new one is in hand
    const QString said = stage->stores().words();
    EXPECT_TRUE(said.contains(QStringLiteral("kWh"))) << i << said.toStdString();
    EXPECT_EQ(said.contains(QStringLiteral("on the ten coldest")), additions[i].kind != StoreKind::cable) << i << said.toStdString();
    const bool draws = document->results().simulation()->summary.stores[*stage->choice().place()].electricity_kWh > 0.0;
    EXPECT_EQ(said.contains(QStringLiteral("EUR")), draws || additions[i].kind == StoreKind::pipes) << i << said.toStdString();
    EXPECT_EQ(document->results().simulation()->summary.stores.size(), had + i + 1);
    EXPECT_LT(document->results().simulation()->summary.closure, 1e-6);
  }
  while (document->planInHand().undoStack()->index() > before) document->planInHand().undoStack()->undo();
  EXPECT_EQ(storesOf(document->plan()).size(), had);
  QTest::mouseClick(button(QStringLiteral("Take it out")), Qt::LeftButton);
  EXPECT_EQ(storesOf(document->plan()).size(), had - 1);
}

TEST_F(StoresWindow, ANumberOutOfReachIsExplainedAndKept) {
  openWithLog();
  stage->stores().add(1);
  NumberField* apart = number(QStringLiteral("Apart"));
  type(apart, QStringLiteral("0.09 m"));
  EXPECT_TRUE(apart->errorText().contains(QStringLiteral("soil must lie between them"))) << apart->errorText().toStdString();
  EXPECT_DOUBLE_EQ(document->plan().groundPipes.front().spacing_m, 0.5);
  type(number(QStringLiteral("Depth")), QStringLiteral("3 ft"));
  EXPECT_NEAR(document->plan().groundPipes.front().depth_m, 0.9144, 1e-9);
}

TEST_F(StoresWindow, AStoreIsSetDownInTheSectionWhereItIsClicked) {
  openWithLog();
  auto* section = find<SectionView>();
  const std::size_t had = document->plan().barrels.size();
  stage->stores().choose(0);
  ASSERT_TRUE(section->isPlacing());
  EXPECT_EQ(document->plan().barrels.size(), had); // not before it is set down
  const QPointF middle(section->width() / 2.0, section->handlePoint(Handle::width).y() - 20.0);
  QMouseEvent over(QEvent::MouseMove, middle, section->mapToGlobal(middle), Qt::NoButton, Qt::NoButton, {});
  QApplication::sendEvent(section, &over);
  QTest::mouseClick(section, Qt::LeftButton, {}, middle.toPoint());
  EXPECT_FALSE(section->isPlacing());
  ASSERT_EQ(document->plan().barrels.size(), had + 1);
  EXPECT_NEAR(document->plan().barrels.back().x_m, 0.0, 0.15);
  EXPECT_EQ(stage->choice().now()->kind, StoreKind::barrels);
  EXPECT_EQ(stage->choice().now()->index, had);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().barrels.size(), had);

  stage->stores().choose(1); // pipes, as deep as they are clicked
  const QPointF deep(section->width() / 2.0, section->height() - 46.0 - 30.0);
  QTest::mouseClick(section, Qt::LeftButton, {}, deep.toPoint());
  ASSERT_EQ(document->plan().groundPipes.size(), 1U);
  EXPECT_GT(document->plan().groundPipes.front().depth_m, 0.7);
}

TEST_F(StoresWindow, AStoreThatIsBeingPlacedCanBeLeftOrSetDownByKey) {
  openWithLog();
  auto* section = find<SectionView>();
  const std::size_t had = storesOf(document->plan()).size();
  stage->stores().choose(0);
  QTest::keyClick(section, Qt::Key_Escape);
  EXPECT_FALSE(section->isPlacing());
  EXPECT_EQ(storesOf(document->plan()).size(), had);
  stage->stores().choose(6); // the tank
  QTest::keyClick(section, Qt::Key_Return);
  EXPECT_EQ(document->plan().waterLoops.size(), 1U);
  EXPECT_FALSE(document->plan().waterLoops.front().x_m); // where it usually stands
}

TEST_F(StoresWindow, HeavyThingsAndCablesHaveTheirPlaceInTheSectionToo) {
  openWithLog();
  auto* section = find<SectionView>();
  const double floor = section->handlePoint(Handle::width).y();
  const auto setDown = [&](std::size_t addition, double across, double y) {
    stage->stores().choose(addition);
    ASSERT_TRUE(section->isPlacing());
    QTest::mouseClick(section, Qt::LeftButton, {}, QPoint(static_cast<int>(across * section->width()), static_cast<int>(y)));
    ASSERT_FALSE(section->isPlacing());
  };
  setDown(7, 0.4, floor + 25.0); // a cable, and with it a bed
  ASSERT_EQ(document->plan().soilCables.size(), 1U);
  EXPECT_GT(document->plan().soilCables.front().depth_m, 0.1);
  setDown(8, 0.6, floor - 20.0);
  setDown(9, 0.5, floor - 20.0);
  setDown(10, 0.35, floor - 20.0);
  const auto& mass = document->plan().mass;
  ASSERT_EQ(mass.size(), 3U);
  EXPECT_GT(*mass[0].x_m, 0.2);
  EXPECT_NEAR(*mass[1].x_m, 0.0, 0.15);
  EXPECT_LT(*mass[2].x_m, -0.2);
  EXPECT_EQ(mass[2].kind, MassKind::raisedBed);

  const double high_m = mass[2].thickness_m, x_m = *mass[2].x_m;
  const QPointF bed = section->handlePoint({Handle::mass, 2});
  drag(section, bed, bed + QPointF(20, -20));
  EXPECT_GT(document->plan().mass[2].thickness_m, high_m);
  EXPECT_GT(*document->plan().mass[2].x_m, x_m);
  document->planInHand().undoStack()->undo(); // one step for both
  EXPECT_DOUBLE_EQ(document->plan().mass[2].thickness_m, high_m);
  EXPECT_DOUBLE_EQ(*document->plan().mass[2].x_m, x_m);
  const double deep_m = document->plan().soilCables.front().depth_m;
  const QPointF cable = section->handlePoint(Handle::cable);
  drag(section, cable, cable + QPointF(0, 12));
  EXPECT_GT(document->plan().soilCables.front().depth_m, deep_m);
}

TEST_F(StoresWindow, ACoilIsLedIntoTheTankAndFieldsThatMeanNothingThenAreGone) {
  openWithLog();
  stage->stores().add(5); // a mound, without a tank to lead it to
  const auto shown = [&](const QString& name) {
    for (QComboBox* box : stage->stores().findChildren<QComboBox*>())
      if (box->accessibleName() == name && box->isVisibleTo(&stage->stores())) return box;
    return static_cast<QComboBox*>(nullptr);
  };
  EXPECT_EQ(shown(QStringLiteral("Warms")), nullptr);
  EXPECT_EQ(number(QStringLiteral("Passes")), nullptr) << "seldom changed";
  QTest::mouseClick(button(QStringLiteral("more sizes")), Qt::LeftButton);
  EXPECT_NE(number(QStringLiteral("Passes")), nullptr);
  stage->stores().add(6);
  ASSERT_TRUE(waitForResult(*document));
  stage->choice().choose("compost:1");
  QComboBox* const warms = shown(QStringLiteral("Warms"));
  ASSERT_NE(warms, nullptr);
  warms->setCurrentIndex(1);
  emit warms->activated(1);
  EXPECT_EQ(document->plan().compost.front().coilInto, CoilInto::tank);
  EXPECT_EQ(number(QStringLiteral("Passes")), nullptr) << "there is no radiator of its own";
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_TRUE(stage->stores().words().contains(QStringLiteral("the tank"))) << stage->stores().words().toStdString();
}

TEST_F(StoresWindow, WhatIsSeldomChangedIsOutOfSightUntilItIsSet) {
  openWithLog();
  stage->stores().add(1);
  EXPECT_EQ(number(QStringLiteral("Board")), nullptr);
  EXPECT_EQ(number(QStringLiteral("Slope")), nullptr);
  QPushButton* const more = button(QStringLiteral("more sizes"));
  QTest::mouseClick(more, Qt::LeftButton);
  type(number(QStringLiteral("Solar")), QStringLiteral("3"));
  EXPECT_DOUBLE_EQ(document->plan().groundPipes.front().collector_m2, 3.0);
  QTest::mouseClick(more, Qt::LeftButton);
  EXPECT_EQ(number(QStringLiteral("Board")), nullptr);
  EXPECT_NE(number(QStringLiteral("Solar")), nullptr) << "it is set";
}

TEST_F(StoresWindow, AStoreInAnothersPlaceIsNotReadFromARunThatHadTheOther) {
  openWithLog();
  stage->stores().add(7); // a cable
  stage->stores().add(8); // a wall, after it
  ASSERT_TRUE(waitForResult(*document));
  document->view().selectNight(100);
  for (const auto page : {StoresStage::Page::stores, StoresStage::Page::together}) {
    stage->showPage(page);
    document->edit(QStringLiteral("take the cable out"), [](Plan& p) { p.soilCables.clear(); });
    stage->choice().choose("mass:1"); // stands where the run has the cable, which holds nothing
    QCoreApplication::processEvents();
    document->planInHand().undoStack()->undo();
    QCoreApplication::processEvents();
  }
  ASSERT_TRUE(waitForResult(*document));
}

TEST_F(StoresWindow, AllStoresTogetherShowWhatEachGaveAndAClickTakesTheNight) {
  openWithLog(true);
  stage->stores().add(1);
  stage->stores().add(3);
  ASSERT_TRUE(waitForResult(*document));
  document->view().selectNight(100);
  stage->showPage(StoresStage::Page::together);
  const QString said = stage->together().words();
  for (const QString& part : {QStringLiteral("ten coldest nights"), QStringLiteral("barrels"), QStringLiteral("floor pipes"), QStringLiteral("hot bed"),
                              QStringLiteral("the heaters"), QStringLiteral("EUR a winter")})
    EXPECT_TRUE(said.contains(part)) << said.toStdString();
  const auto plots = stage->together().findChildren<Plot*>();
  ASSERT_EQ(plots.size(), 2);
  Plot* const days = plots.front();
  EXPECT_EQ(days->plottableCount(), 6) << "given and taken of three stores";
  EXPECT_EQ(plots.back()->graphCount(), 3);

  // what the bars show is what the series add up to
  const NightResult& night = document->results().simulation()->nights[100];
  const double step_s = document->readings().weather()->winters[night.winter].step_s;
  const auto& given_W = document->results().simulation()->series[night.winter].stores[1].given_W;
  const auto* pipes = qobject_cast<QCPBars*>(days->plottable(2));
  double nearest = 1e18, shown_kWh = 0.0;
  const double at = static_cast<double>(document->readings().weather()->winters[night.winter].time((night.from + night.to) / 2));
  for (const QCPBarsData& bar : *pipes->data())
    if (std::abs(bar.key - at) < nearest) nearest = std::abs(bar.key - at), shown_kWh = bar.value;
  double sum_kWh = 0.0;
  const std::size_t middle = (night.from + night.to) / 2;
  for (std::size_t i = middle - 71; i <= middle + 72; ++i) sum_kWh += std::max(0.0, static_cast<double>(given_W[i])) * step_s / 3.6e6;
  EXPECT_NEAR(shown_kWh, sum_kWh, 1e-9);

  const double x = days->xAxis->coordToPixel(at + 10 * 86400.0);
  QTest::mouseClick(days, Qt::LeftButton, {}, QPoint(static_cast<int>(x), days->axisRect()->center().y()));
  EXPECT_NEAR(document->view().selectedNight(), 110, 1); // a day is two pixels wide
  EXPECT_TRUE(days->numbers().startsWith(QStringLiteral("night,barrels:1 gave_kWh"))) << days->numbers().left(80).toStdString();
  EXPECT_TRUE(days->reading(days->xAxis->pixelToCoord(x), 0.0).contains(QStringLiteral("at dusk")));

  stage->choice().choose("barrels:1");
  stage->showPage(StoresStage::Page::stores);
  EXPECT_TRUE(stage->stores().words().contains(QStringLiteral("at dusk"))) << stage->stores().words().toStdString();
}

TEST(WordsInTheSoil, GiveWayToEachOtherAndShortenWhereThereIsNoRoom) {
  QImage picture(400, 300, QImage::Format_ARGB32);
  QPainter painter(&picture);
  const QRectF area(0, 0, 400, 300);
  WordPlaces words(area, 100.0);
  for (int i = 0; i < 6; ++i) // six things close to each other
    words.sayOf(painter, {150.0 + 15.0 * i, 110.0}, {150.0 + 15.0 * i, 121.0}, QStringLiteral("raised bed 12.3 °C"), QStringLiteral("12.3 °C"),
                textFont(9, true), Qt::white, area);
  const auto& taken = words.taken();
  ASSERT_EQ(taken.size(), 6U);
  int shortened = 0;
  for (std::size_t a = 0; a < taken.size(); ++a) {
    if (taken[a].width() < 0.6 * taken[0].width()) ++shortened;
    EXPECT_GE(taken[a].top(), 100.0);
    for (std::size_t b = 0; b < a; ++b) EXPECT_FALSE(taken[a].adjusted(2, 2, -2, -2).intersects(taken[b])) << a << " on " << b;
  }
  EXPECT_GT(shortened, 0);
}

TEST(WordsOnTheSky, GiveWayDownwardsToThoseSaidBefore) {
  QImage picture(400, 300, QImage::Format_ARGB32);
  QPainter painter(&picture);
  const QRectF area(0, 0, 400, 300);
  WordPlaces words(area, 250.0);
  for (int i = 0; i < 5; ++i)
    words.sayApart(painter, {200.0 + 20.0 * i, 100.0 + 3.0 * i}, QStringLiteral("draughts 12.3 kBTU/h"), textFont(9, true), Qt::white, Qt::AlignHCenter, area);
  const auto& above = words.above();
  ASSERT_EQ(above.size(), 5U);
  for (std::size_t a = 0; a < above.size(); ++a)
    for (std::size_t b = 0; b < a; ++b) EXPECT_FALSE(above[a].adjusted(2, 2, -2, -2).intersects(above[b].adjusted(2, 2, -2, -2))) << a << " on " << b;
  EXPECT_NEAR(above[0].center().y(), 100.0, 1.0) << "the first stays where it is";
}

TEST_F(StoresWindow, EveryStoreOfAKindIsTakenHoldOfNotOnlyTheFirst) {
  openWithLog();
  stage->stores().add(6);
  stage->stores().add(6);
  auto* section = find<SectionView>();
  const QPointF second = section->handlePoint({Handle::tank, 1});
  const double before_l = document->plan().waterLoops[1].litres;
  drag(section, second, second + QPointF(0, -20));
  EXPECT_GT(document->plan().waterLoops[1].litres, before_l);
  EXPECT_DOUBLE_EQ(document->plan().waterLoops[0].litres, before_l);
  stage->choice().choose("loop:1");
  QTest::mouseClick(section, Qt::LeftButton, {}, section->handlePoint({Handle::tank, 1}).toPoint() + QPoint(0, 6));
  EXPECT_EQ(stage->choice().now()->id, "loop:2");
}

TEST_F(StoresWindow, PipesAreLaidDeeperByDraggingThemInTheSection) {
  openWithLog();
  stage->stores().add(1);
  ASSERT_TRUE(waitForResult(*document));
  auto* section = find<SectionView>();
  const QPointF pipe = section->handlePoint(Handle::pipes);
  drag(section, pipe, pipe + QPointF(0, 25));
  EXPECT_GT(document->plan().groundPipes.front().depth_m, 0.65);
  document->planInHand().undoStack()->undo(); // one step for the whole drag
  EXPECT_DOUBLE_EQ(document->plan().groundPipes.front().depth_m, 0.6);
}

TEST_F(StoresWindow, TheBenchMixesAndSaysWhatTheBlendIsLike) {
  openWithLog();
  stage->stores().add(3);
  stage->showPage(StoresStage::Page::compost);
  ASSERT_TRUE(waitForResult(*document));
  const QString first = stage->compost().words();
  EXPECT_TRUE(first.contains(QStringLiteral("W a tonne")));
  const auto measured = [&] { // ingredients with their barrows and bales beside them
    int count = 0;
    for (QLabel* note : stage->compost().findChildren<QLabel*>(QStringLiteral("measures"))) count += note->text().contains(QStringLiteral("C:N")) ? 1 : 0;
    return count;
  };
  EXPECT_EQ(measured(), 2);
  document->view().setUnits({true, true});
  QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  EXPECT_EQ(measured(), 2); // at once, not with the next change
  document->view().setUnits({});
  const double straw = document->plan().compost.front().recipe[1].wet_kg;
  type(number(QStringLiteral("straw")), QStringLiteral("0.3 t"));
  EXPECT_NEAR(document->plan().compost.front().recipe[1].wet_kg, 300.0, 1e-9);
  EXPECT_NE(stage->compost().words(), first);
  type(number(QStringLiteral("water poured on")), QStringLiteral("20000"));
  EXPECT_EQ(document->plan().compost.front().water_kg, 0.0); // a slurry is refused
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().compost.front().recipe[1].wet_kg, straw);
  // in the measures of the yard: a bale of 190 litres and a cubic metre weigh what straw weighs, 100 kg/m3
  type(number(QStringLiteral("straw")), QStringLiteral("4 bales"));
  EXPECT_NEAR(document->plan().compost.front().recipe[1].wet_kg, 4 * 19.0, 1e-9);
  type(number(QStringLiteral("straw")), QStringLiteral("2 m³"));
  EXPECT_NEAR(document->plan().compost.front().recipe[1].wet_kg, 200.0, 1e-9);
  type(number(QStringLiteral("straw")), QStringLiteral("12 sheep"));
  EXPECT_FALSE(number(QStringLiteral("straw"))->errorText().isEmpty());
  EXPECT_NEAR(document->plan().compost.front().recipe[1].wet_kg, 200.0, 1e-9);
}

TEST_F(StoresWindow, APileIsFittedToTheThermometerInIt) {
  openWithLog();
  stage->stores().add(3);
  ASSERT_TRUE(waitForResult(*document));
  stage->showPage(StoresStage::Page::compost);
  EXPECT_EQ(button(QStringLiteral("Fit it to its log")), nullptr) << "no thermometer is in it";
  // readings as the pile would give them if it rotted half as fast again
  document->edit(QStringLiteral("quicker"), [](Plan& p) { p.compost.front().k20Factor = 1.5; });
  ASSERT_TRUE(waitForResult(*document));
  Log log = *document->readings().log();
  const auto place = *stage->choice().place();
  Channel core{.name = "pile", .role = Role::store, .id = "compost", .unitIn = "C", .unitWhy = {}, .raw = {}, .flag = {}};
  core.raw.assign(log.time.size(), std::numeric_limits<float>::quiet_NaN());
  const Weather& weather = *document->readings().weather();
  for (std::size_t w = 0; w < weather.winters.size(); ++w)
    for (std::size_t i = 0, at = 0; i < log.time.size(); ++i) {
      while (at + 1 < weather.winters[w].size() && weather.winters[w].time(at) < log.time[i]) ++at;
      if (weather.winters[w].time(at) == log.time[i]) core.raw[i] = document->results().simulation()->series[w].stores[place].temperature_C[0][at];
    }
  core.flag.assign(core.raw.size(), 0);
  log.channels.push_back(core);
  document->edit(QStringLiteral("as the recipe says"), [](Plan& p) { p.compost.front().k20Factor = 1.0; });
  ASSERT_FALSE(document->readings().set(log));
  ASSERT_TRUE(waitForResult(*document));
  QPushButton* fit = button(QStringLiteral("Fit it to its log"));
  ASSERT_NE(fit, nullptr);
  QTest::mouseClick(fit, Qt::LeftButton);
  ASSERT_TRUE(QTest::qWaitFor([&] { return document->plan().compost.front().k20Factor != 1.0; }, 60000));
  EXPECT_NEAR(document->plan().compost.front().k20Factor, 1.5, 0.08); // the log's readings are rounded and flagged like any
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().compost.front().k20Factor, 1.0);
}

TEST_F(StoresWindow, OneMoreAndTheGroundAnswerForTheStoreInHand) {
  openWithLog();
  stage->stores().add(1);
  ASSERT_TRUE(waitForResult(*document));
  stage->showPage(StoresStage::Page::oneMore);
  ASSERT_TRUE(waitUntil([&] { return stage->oneMore().isCurrent(); }));
  EXPECT_TRUE(stage->oneMore().words().contains(QStringLiteral("Without it"))) << stage->oneMore().words().toStdString();
  stage->showPage(StoresStage::Page::ground);
  EXPECT_TRUE(stage->ground().words().contains(QStringLiteral("still swings")));
  EXPECT_TRUE(stage->ground().words().contains(QStringLiteral("its outlet falls")));
  document->view().setUnits({true, true});
  EXPECT_TRUE(stage->ground().words().contains(QStringLiteral("°F")));
}

TEST_F(StoresWindow, ScrubbingTheClockDrawsNothingAnewThatDoesNotDependOnIt) {
  openWithLog();
  stage->stores().add(3);
  ASSERT_TRUE(waitForResult(*document));
  for (const auto page : {StoresStage::Page::stores, StoresStage::Page::compost}) {
    stage->showPage(page);
    int drawn = 0;
    for (QCustomPlot* plot : stage->findChildren<QCustomPlot*>()) QObject::connect(plot, &QCustomPlot::afterReplot, plot, [&drawn] { ++drawn; });
    document->view().setClock(0.3);
    document->view().setClock(0.6);
    EXPECT_EQ(drawn, 0);
    document->view().selectNight(document->view().selectedNight() - 1);
    EXPECT_EQ(drawn, page == StoresStage::Page::stores ? 1 : 0); // another night's days; the pile's weeks are the same
    for (QCustomPlot* plot : stage->findChildren<QCustomPlot*>()) QObject::disconnect(plot, &QCustomPlot::afterReplot, plot, nullptr);
  }
}

TEST_F(StoresWindow, APileThatIsBuiltAfterTheLogHasNoTemperature) {
  openWithLog();
  stage->stores().add(3);
  ASSERT_EQ(stage->choice().now()->kind, StoreKind::compost);
  EXPECT_EQ(document->plan().compost.back().built, "11-01");
  ASSERT_FALSE(document->edit(QStringLiteral("late"), [](Plan& p) { p.compost.back().built = "06-20"; }));
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_TRUE(stage->stores().words().contains(QStringLiteral("built on 20 June"))) << stage->stores().words().toStdString();
  EXPECT_FALSE(stage->stores().words().contains(QStringLiteral("°C"))) << stage->stores().words().toStdString();
}

TEST(StoreWords, APileIsBuiltBeforeTheWinterOfItsHemisphere) {
  for (const double latitude_deg : {52.0, -41.0}) {
    Plan p;
    p.site.place.latitude_deg = latitude_deg;
    for (const auto& addition : StoreWords::additions())
      if (addition.kind == StoreKind::compost) addition.add(p);
    ASSERT_EQ(p.compost.size(), 3U);
    for (const CompostPile& pile : p.compost) {
      const auto built = parseMonthDay(pile.built);
      ASSERT_TRUE(built);
      const unsigned monthsOn = latitude_deg < 0.0 ? (built->month + 6 - 1) % 12 + 1 : built->month;
      EXPECT_TRUE(monthsOn == 10 || monthsOn == 11) << pile.built;
    }
  }
}

TEST_F(StoresWindow, WithoutStoresThePagesTeachTheNextStep) {
  openWithLog();
  while (!storesOf(document->plan()).empty()) QTest::mouseClick(button(QStringLiteral("Take it out")), Qt::LeftButton);
  EXPECT_TRUE(stage->stores().words().contains(QStringLiteral("Add one")));
  for (const auto page : {StoresStage::Page::oneMore, StoresStage::Page::ground, StoresStage::Page::compost}) stage->showPage(page);
  EXPECT_TRUE(stage->compost().words().contains(QStringLiteral("mix it here")));
  stage->showPage(StoresStage::Page::together);
  EXPECT_TRUE(stage->together().words().contains(QStringLiteral("Add one")));
}

TEST(StoreWords, HaveACautionAndANameForEveryKind) {
  Plan p;
  for (const auto& addition : StoreWords::additions()) addition.add(p);
  EXPECT_TRUE(check(p).empty());
  for (const StoreRef& s : storesOf(p)) {
    EXPECT_GT(english(textOf(cautionsFor(p, thingOf(s)).front())).size(), 40U) << s.id;
    EXPECT_FALSE(StoreWords::kind(p, s).isEmpty());
    EXPECT_FALSE(storeTraces(p, s).empty());
    for (const StoreTrace t : storeTraces(p, s)) EXPECT_FALSE(StoreWords::trace(t).isEmpty());
  }
}

TEST(StoreWords, WhatIsAddedFitsSmallHousesToo) {
  for (const double width : {2.0, 3.0, 6.0, 12.0}) {
    for (const ShapeKind kind : {ShapeKind::arch, ShapeKind::gable, ShapeKind::dome}) {
      Plan p;
      p.house.shape = HouseShape{ShapeKind::arch, width, 1.6 * width, 0.2 * width, 0.55 * width, 90.0}.as(kind);
      if (!check(p).empty()) continue;
      for (const auto& addition : StoreWords::additions()) {
        Plan with = p;
        addition.add(with);
        const Problems problems = check(with);
        EXPECT_TRUE(problems.empty()) << addition.name.toStdString() << " in " << width << " m: " << (problems.empty() ? "" : english(problems.front()));
      }
    }
  }
}

} // namespace
} // namespace muffle
