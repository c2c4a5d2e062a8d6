// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters in the cross-section: each kind has its place, is found under the pointer, moved by it, and leads to its row.
#include "app/paint/section.h"
#include "app/pictures/waiting.h"
#include "app/stages/heat_stage.h"
#include "app/stages/section_view.h"
#include "core/plan/heaters.h"
#include "tests/app/window_fixture.h"

#include <random>

namespace muffle {
namespace {

const QRectF kPicture(0, 0, 446, 474);

TEST(SectionHeaters, EveryKindStandsInTheHouseWhateverItsShape) {
  std::mt19937 random(11);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
  for (int k = 0; k < 300; ++k) {
    Plan p;
    HouseShape& s = p.house.shape;
    s.kind = static_cast<ShapeKind>(k % (static_cast<int>(ShapeKind::dome) + 1));
    s.width_m = between(2.5, 20.0);
    s.length_m = between(3.0, 60.0);
    s.eave_m = s.kind == ShapeKind::dome ? 0.0 : between(0.3, 3.0);
    s.ridge_m = s.eave_m + between(1.2, 0.5 * s.width_m + 1.2);
    for (const HeaterKindFacts& facts : heaterKinds())
      if (facts.inRooms) addHeater(p, {.kind = facts.kind, .power_W = 4000.0, .x_m = k % 3 ? std::optional<double>() : between(-30.0, 30.0)});
    const SectionGeometry g(p, kPicture);
    const QRectF house = g.outline().boundingRect();
    for (std::size_t i = 0; i < p.heaters.size(); ++i) {
      const QRectF r = g.heater(i);
      const char* const id = factsOf(p.heaters[i].kind).id;
      ASSERT_FALSE(r.isEmpty()) << id;
      if (standOf(p.heaters[i].kind) == HeaterStand::outside) continue;
      EXPECT_GE(r.center().x(), house.left() - 1.0) << id << " in house " << k;
      EXPECT_LE(r.center().x(), house.right() + 1.0) << id << " in house " << k;
      EXPECT_LE(r.bottom(), g.ground() + s.sunk_m * g.scale() + 14.0) << id << " in house " << k;
      EXPECT_GE(r.bottom(), house.top()) << id << " in house " << k;
    }
  }
}

TEST(SectionHeaters, NoneIsPutUnderACoverOrIntoAStore) {
  Plan p;
  p.house.shape.width_m = 8.0;
  p.house.shape.ridge_m = 3.0;
  p.house.bedCovers.push_back({.count = 1, .width_m = 1.4, .x_m = -2.4});
  p.barrels.push_back({.count = 4, .litres = 200.0, .x_m = 2.4});
  for (int k = 0; k < 3; ++k) addHeater(p, {.power_W = 3000.0});
  const SectionGeometry g(p, kPicture);
  for (std::size_t i = 0; i < p.heaters.size(); ++i) {
    EXPECT_FALSE(g.heater(i).intersects(g.bedCoverRect(0))) << i;
    EXPECT_FALSE(g.heater(i).intersects(g.barrelsRect(0))) << i;
    for (std::size_t j = 0; j < i; ++j) EXPECT_FALSE(g.heater(i).intersects(g.heater(j))) << i << ", " << j;
  }
}

TEST(SectionHeaters, InAFullHouseWhatRoomThereIsIsFound) {
  Plan p;
  p.house.shape = {ShapeKind::gable, 3.0, 6.0, 1.9, 2.6, 0.0};
  p.compost.emplace_back(); // a hot bed
  p.waterLoops.emplace_back();
  addHeater(p, {.power_W = 3000.0});
  addHeater(p, {.kind = HeaterKind::woodStove, .power_W = 4000.0});
  const SectionGeometry g(p, kPicture);
  for (std::size_t i = 0; i < p.heaters.size(); ++i) {
    EXPECT_FALSE(g.heater(i).intersects(g.pile(0))) << i;
    EXPECT_FALSE(g.heater(i).intersects(g.tank(0))) << i;
  }
  EXPECT_FALSE(g.heater(0).intersects(g.heater(1)));
}

TEST(SectionHeaters, ThoseOfTheBayOrATankAreNotDrawnInTheHouse) {
  Plan p;
  p.house.bay.emplace();
  p.waterLoops.emplace_back();
  addHeater(p, {.place = {HeaterPlace::Of::bay}});
  addHeater(p, {.kind = HeaterKind::boiler, .place = {HeaterPlace::Of::tank, 0}});
  addHeater(p, {.power_W = 0.0});
  const SectionGeometry g(p, kPicture);
  for (std::size_t i = 0; i < p.heaters.size(); ++i) EXPECT_TRUE(g.heater(i).isEmpty()) << i;
}

TEST(SectionHeaters, WhatLiesUnderACoverOrInABenchIsDrawnThereAndGoesWithIt) {
  Plan p;
  p.house.shape.width_m = 8.0;
  p.house.bedCovers.push_back({.count = 1, .width_m = 1.4, .x_m = -2.0});
  p.mass.push_back({.kind = MassKind::bench, .x_m = 2.0});
  addHeater(p, {.kind = HeaterKind::tube, .place = {HeaterPlace::Of::bed, 0}, .power_W = 300.0});
  addHeater(p, {.kind = HeaterKind::electric, .place = {HeaterPlace::Of::mass, 0}, .power_W = 300.0});
  const SectionGeometry g(p, kPicture);
  EXPECT_TRUE(g.bedCoverRect(0).contains(g.heater(0)));
  EXPECT_TRUE(g.mass(0).contains(g.heater(1)));
  for (std::size_t i = 0; i < 2; ++i) EXPECT_NE(g.hit(g.heater(i).center()).what, Handle::heater) << i;
}

TEST_F(WindowTest, AHeaterIsMovedInTheSectionLeadsToItsRowAndIsPutBack) {
  open();
  importDemoLog();
  auto* section = find<SectionView>();
  window->showStage("house");
  const QPointF at = section->handlePoint({Handle::heater, 0});
  const auto before = document->plan().heaters[0].x_m;
  drag(section, at, at + QPointF(40, 0));
  ASSERT_TRUE(document->plan().heaters[0].x_m.has_value());
  EXPECT_NEAR(section->handlePoint({Handle::heater, 0}).x(), at.x() + 40.0, 3.0) << "it goes with the pointer";
  const Summary moved = document->results().simulation()->summary;
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().heaters[0].x_m, before) << "one step";
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_EQ(document->results().simulation()->summary.held, moved.held) << "a place in the drawing heats nothing";
  QTest::mouseClick(section, Qt::LeftButton, {}, section->handlePoint({Handle::heater, 0}).toPoint());
  QCoreApplication::processEvents();
  EXPECT_TRUE(find<HeatStage>()->isVisible());
}

} // namespace
} // namespace muffle
