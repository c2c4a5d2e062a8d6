// SPDX-License-Identifier: GPL-3.0-or-later
//
// The drawing keeps to the model for every shape: scale, handles, floor, bed covers.
#include "app/paint/plan_picture.h"
#include "app/paint/section.h"
#include "app/paint/section_differences.h"
#include "tests/support/every_store.h"

#include <gtest/gtest.h>

#include <QImage>

#include <cmath>

namespace muffle {
namespace {

const QRectF kArea(0, 0, 540, 476);

std::vector<HouseShape> everyShape() {
  std::vector<HouseShape> shapes;
  for (int k = 0; k < kShapeCount; ++k) shapes.push_back(HouseShape{ShapeKind::arch, 6, 12, 1, 3.5, 90}.as(static_cast<ShapeKind>(k)));
  HouseShape bays{ShapeKind::gable, 6.4, 20, 3, 4.6, 90};
  bays.bays = 3;
  shapes.push_back(bays);
  HouseShape sunk = shapes.front();
  sunk.sunk_m = 0.8;
  shapes.push_back(sunk);
  return shapes;
}

TEST(SectionGeometry, DrawsEveryShapeToScaleAndWithinItsFrame) {
  for (const HouseShape& shape : everyShape()) {
    Plan plan;
    plan.house.shape = shape;
    const SectionGeometry g(plan, kArea);
    const QRectF box = g.outline().boundingRect();
    EXPECT_TRUE(kArea.contains(box));
    EXPECT_NEAR(box.height() / g.scale(), shape.ridge_m, 1e-6) << "ground to ridge, metres";
    EXPECT_GE(box.width() / g.scale(), shape.span_m() - 1e-6) << "a dome may bulge beyond its foot";
  }
}

TEST(SectionGeometry, StandsStoresWhereTheModelHasThem) {
  Plan plan;
  plan.house.shape = HouseShape{ShapeKind::arch, 7, 14, 0.9, 3.3, 80};
  testing::addEveryStore(plan);
  const SectionGeometry g(plan, kArea);
  EXPECT_GT(g.shownDepth_m(), 1.5) << "the soil is drawn down to the deepest pipe";
  const QPolygonF under = g.pipes(0), beside = g.pipes(1);
  EXPECT_EQ(under.size(), plan.groundPipes[0].count);
  EXPECT_NEAR(under.front().y(), g.depthY(plan.groundPipes[0].depth_m), 1e-9);
  EXPECT_GT(beside.front().x(), g.at(3.5, 0).x()) << "outside the house";
  EXPECT_GT(beside.front().y(), under.front().y()) << "and deeper";
  EXPECT_NEAR(g.pile(0).width() / g.scale(), plan.compost[0].width_m, 1e-9);
  EXPECT_NEAR(g.pile(0).bottom(), g.ground(), 1e-9) << "a hot bed stands on the floor";
  EXPECT_NEAR(g.tank(0).width() * g.tank(0).width() * g.tank(0).width() / std::pow(g.scale(), 3.0), 0.5, 1e-9) << "cubic metres";
  EXPECT_NEAR(g.mass(0).width() / g.scale(), plan.mass[0].thickness_m, 1e-9) << "a wall is seen on end";
  EXPECT_NEAR(g.mass(1).top(), g.depthY(0.0), 1e-9) << "a path lies in the floor";
  EXPECT_NEAR(g.cable(0).front().y(), g.depthY(plan.soilCables[0].depth_m), 1e-9);
  EXPECT_EQ(g.hit(g.cable(0).front()), Handle::cable);
  EXPECT_EQ(g.hit(under.back()), Handle::pipes);
  EXPECT_EQ(g.hit(g.pile(0).center()), Handle::pile);
  EXPECT_EQ(g.hit(g.tank(0).center()), Handle::tank);
  for (const Handle h : {Handle::pipes, Handle::pile, Handle::tank}) EXPECT_TRUE(kArea.contains(g.handle(h)));
}

TEST(SectionGeometry, PaintsEveryStoreBeforeAnythingIsKnownOfIt) {
  Plan plan;
  plan.house.shape = HouseShape{ShapeKind::arch, 7, 14, 0.9, 3.3, 80};
  const auto painted = [&](const Plan& p) {
    QImage image(kArea.size().toSize(), QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter painter(&image);
    paintSection(painter, SectionGeometry(p, kArea), p, std::nullopt, QStringLiteral("yard"), {}, Theme::of(false), {}, Handle::none);
    return image;
  };
  const QImage empty = painted(plan);
  testing::addEveryStore(plan);
  EXPECT_NE(painted(plan), empty);
}

TEST(PlanView, NorthIsUpAndEastIsRight) {
  EXPECT_NEAR(bearing(0.0).y(), -1.0, 1e-12);
  EXPECT_NEAR(bearing(90.0).x(), 1.0, 1e-12);
  EXPECT_NEAR(bearing(180.0).y(), 1.0, 1e-12);
  EXPECT_NEAR(bearing(270.0).x(), -1.0, 1e-12);
}

TEST(Theme, InkCanBeReadOnAnyWarmth) {
  for (const bool dark : {false, true})
    for (double t = -12.0; t <= 20.0; t += 2.0) {
      const QColor ground = Theme::of(dark).warmth(t), ink = inkOn(ground);
      const auto light = [](const QColor& c) {
        return 0.2126 * std::pow(c.redF(), 2.2) + 0.7152 * std::pow(c.greenF(), 2.2) + 0.0722 * std::pow(c.blueF(), 2.2);
      };
      const double high = std::max(light(ground), light(ink)) + 0.05, low = std::min(light(ground), light(ink)) + 0.05;
      EXPECT_GT(high / low, 3.0) << t << " degC: large text asks for a contrast of 3";
    }
}

TEST(PlanView, PaintsEveryShapeWithSunAndWithout) {
  for (const HouseShape& shape : everyShape()) {
    Plan plan;
    plan.house.shape = shape;
    plan.house.bedCovers.push_back({});
    plan.barrels.push_back({});
    SunWay sun;
    const auto picture = [&] {
      QImage image(540, 476, QImage::Format_RGB32);
      image.fill(Qt::black);
      QPainter p(&image);
      paintPlanView(p, kArea, plan, std::nullopt, sun, QStringLiteral("t"), QStringLiteral("s"), Theme::of(false), Units{});
      return image;
    };
    const QImage without = picture();
    sun.path = {{120.0, 1.0}, {180.0, 25.0}, {240.0, 1.0}};
    sun.now = sun.path[1];
    EXPECT_NE(picture(), without) << "the sun's way is drawn";
    EXPECT_EQ(without.pixel(2, 470), picture().pixel(2, 470)) << "the corner stays ground";
  }
}

TEST(SectionGeometry, HandlesLieOnWhatTheyMove) {
  for (const HouseShape& shape : everyShape()) {
    Plan plan;
    plan.house.shape = shape;
    const SectionGeometry g(plan, kArea);
    EXPECT_NEAR(g.metresY(g.handle(Handle::ridge).y()), shape.ridge_m, 1e-9);
    EXPECT_NEAR(g.metresY(g.handle(Handle::eave).y()), shape.eave_m, 1e-9);
    EXPECT_NEAR(g.metresX(g.handle(Handle::width).x()), shape.span_m() / 2.0, 1e-9);
    EXPECT_NEAR(g.metresY(g.handle(Handle::width).y()), -shape.sunk_m, 1e-9) << "on the floor";
    EXPECT_EQ(g.hit(g.handle(Handle::ridge) + QPointF(3, 3)), Handle::ridge);
  }
}

TEST(SectionDifferences, EveryThingOfEveryShapeHasALineAboutItWhereItIs) {
  for (const HouseShape& shape : everyShape()) {
    Plan plan;
    plan.house.shape = shape;
    testing::addEveryStore(plan);
    addHeater(plan, {.kind = HeaterKind::tube, .power_W = 2000.0});
    plan.house.blanket = NightBlanket{};
    plan.house.roofVoid = RoofVoid{};
    plan.house.floor.edgeInsulation_m2K_W = 1.0;
    plan.house.floor.edgeDepth_m = 0.6;
    const SectionGeometry g(plan, kArea);
    for (const PlanPart part : {PlanPart::shape, PlanPart::roof, PlanPart::ends, PlanPart::blanket, PlanPart::ceiling, PlanPart::floorCover, PlanPart::skirt,
                                PlanPart::barrels, PlanPart::groundPipes, PlanPart::compost, PlanPart::waterLoop, PlanPart::mass}) {
      const QRectF about = outlineOf(part, 0, g, plan).boundingRect();
      EXPECT_FALSE(about.isNull()) << static_cast<int>(shape.kind) << " " << static_cast<int>(part);
      EXPECT_TRUE(kArea.intersects(about.adjusted(-1, -1, 1, 1))) << static_cast<int>(shape.kind) << " " << static_cast<int>(part);
    }
    EXPECT_TRUE(outlineOf(PlanPart::heater, 0, g, plan).isEmpty()) << "the boiler in the tank has no place of its own";
    EXPECT_TRUE(outlineOf(PlanPart::heater, plan.heaters.size() - 1, g, plan).boundingRect().contains(g.heater(plan.heaters.size() - 1)));
    EXPECT_TRUE(outlineOf(PlanPart::barrels, 0, g, plan).boundingRect().contains(g.barrelsRect(0)));
    if (shape.hasBackWall()) { EXPECT_GT(outlineOf(PlanPart::backWall, 0, g, plan).boundingRect().left(), g.at(0.0, 0.0).x()) << "at the back"; }
  }
}

TEST(SectionGeometry, BedCoversStandOnTheFloorInsideTheHouse) {
  Plan plan;
  plan.house.shape.sunk_m = 0.5;
  for (const double x : {-50.0, -1.0, 0.0, 50.0}) {
    BedCover bed;
    bed.x_m = x;
    plan.house.bedCovers = {bed};
    const SectionGeometry g(plan, kArea);
    const QRectF r = g.bedCoverRect(0);
    EXPECT_NEAR(g.metresY(r.center().y()), -0.5, 1e-9) << "the ellipse's middle is the floor";
    EXPECT_NEAR(r.width() / g.scale(), bed.width_m, 1e-9);
    EXPECT_GE(g.metresX(r.left()), -plan.house.shape.span_m() / 2.0 - 1e-9);
    EXPECT_LE(g.metresX(r.right()), plan.house.shape.span_m() / 2.0 + 1e-9);
  }
}

TEST(Section, RoomsAtTheEndsHaveTheirLinesAboveAHighHouse) {
  Plan p;
  p.house.shape = {ShapeKind::gable, 3.0, 6.0, 1.9, 2.6, 0.0};
  const double alone = SectionGeometry(p, kArea).handle(Handle::ridge).y();
  p.house.bay.emplace();
  const double withBay = SectionGeometry(p, kArea).handle(Handle::ridge).y();
  p.house.lobby.emplace();
  EXPECT_NEAR(withBay - alone, 18.0, 1.0) << "a line of words";
  EXPECT_NEAR(SectionGeometry(p, kArea).handle(Handle::ridge).y() - withBay, 18.0, 1.0);
}

} // namespace
} // namespace muffle
