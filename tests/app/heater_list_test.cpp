// SPDX-License-Identifier: GPL-3.0-or-later
//
// The heaters of the rooms in Heat: another is added to help the first, changed, and taken out again.
#include "app/pictures/waiting.h"
#include "app/stages/heater_list.h"

#include "app/stages/number_field.h"
#include "core/cost/fuel_orders.h"
#include "core/plan/heaters.h"
#include "tests/app/window_fixture.h"

#include "app/stages/heat_prices_dialog.h"
#include "app/stages/heat_stage.h"
#include "core/simulate/heat_prices.h"
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace muffle {
namespace {

class HeaterListTest : public WindowTest {
protected:
  HeaterList& list() {
    window->showStage(HeatStage::kId);
    window->findChild<HeatStage*>()->showPage(HeatStage::Page::heaters);
    return *window->findChild<HeaterList*>();
  }
  NumberField* field(HeaterList& of, const QString& name) {
    for (auto* f : of.findChildren<NumberField*>())
      if (f->accessibleName() == name && f->isVisible()) return f;
    return nullptr;
  }
  QPushButton* button(HeaterList& of, const QString& text) {
    for (auto* b : of.findChildren<QPushButton*>())
      if (b->isVisible() && (b->text() == text || b->accessibleName() == text)) return b;
    return nullptr;
  }
};

TEST_F(HeaterListTest, AnotherHelpsTheFirstIsChangedAndTakenOutByUndo) {
  open();
  importDemoLog();
  HeaterList& heaters = list();
  const Plan before = document->plan();
  ASSERT_EQ(before.heaters.size(), 1U);
  heaters.addButton()->click();
  ASSERT_EQ(document->plan().heaters.size(), 2U);
  EXPECT_GT(document->plan().heaters[1].stage_K, 0.0) << "it gives when the first cannot";
  EXPECT_NE(document->plan().heaters[1].id, document->plan().heaters[0].id);
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  const Simulation& run = *document->results().simulation();
  EXPECT_GE(run.summary.ledger.heat_kWh(MeterUse::heater, 0), run.summary.ledger.heat_kWh(MeterUse::heater, 1));
  QString said;
  for (auto* l : heaters.findChildren<QLabel*>()) said += l->text() + QLatin1Char('\n');
  EXPECT_TRUE(said.contains(QStringLiteral("full stretch"))) << said.toStdString();
  NumberField* begins = field(heaters, QStringLiteral("electric fan heater: Waits"));
  ASSERT_TRUE(begins);
  type(begins, QStringLiteral("2.5"));
  EXPECT_DOUBLE_EQ(document->plan().heaters[1].stage_K, 2.5);
  button(heaters, QStringLiteral("Take out electric fan heater"))->click();
  EXPECT_EQ(document->plan(), before);
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().heaters.size(), 2U);
  QCoreApplication::processEvents();
  type(field(heaters, QStringLiteral("fan heater: Waits")), QStringLiteral("4")); // its row moves down while its field is in hand
  EXPECT_DOUBLE_EQ(document->plan().heaters[0].stage_K, 4.0);
  QCoreApplication::processEvents();
  EXPECT_NE(field(heaters, QStringLiteral("electric fan heater: Waits")), nullptr);
}

TEST_F(HeaterListTest, EveryKindIsChosenInPlaceAndSaysWhatItTakes) {
  open();
  importDemoLog();
  HeaterList& heaters = list();
  for (const HeaterKindFacts& facts : heaterKinds()) {
    if (!facts.inRooms) continue;
    auto* kinds = heaters.findChild<QComboBox*>();
    ASSERT_NE(kinds, nullptr);
    const int at = kinds->findData(static_cast<int>(facts.kind));
    ASSERT_GE(at, 0) << facts.id;
    kinds->setCurrentIndex(at);
    emit kinds->activated(at);
    ASSERT_TRUE(waitForResult(*document));
    QCoreApplication::processEvents();
    EXPECT_EQ(document->plan().heaters[0].kind, facts.kind) << facts.id;
    const bool hasPrice = field(heaters, QString::fromStdString(document->plan().heaters[0].name) + QStringLiteral(": price of its fuel")) != nullptr;
    EXPECT_EQ(hasPrice, facts.carrier != Carrier::electricity) << facts.id;
    QString said;
    for (auto* l : heaters.findChildren<QLabel*>())
      if (l->isVisible()) said += l->text() + QLatin1Char('\n');
    EXPECT_EQ(said.contains(QStringLiteral("carbon dioxide")), !facts.hasFlue) << facts.id << ": " << said.toStdString();
    EXPECT_EQ(said.contains(QStringLiteral("loads")), facts.control == HeatControl::batches) << facts.id;
  }
  EXPECT_EQ(document->plan().heaters[0].name, "fan heater") << "a name that the grower gave stays";
}

TEST_F(HeaterListTest, ANameIsTypedInPlaceAndTakenAwayAgain) {
  open();
  HeaterList& heaters = list();
  const auto nameField = [&](const QString& of) {
    QCoreApplication::processEvents();
    for (auto* e : heaters.findChildren<QLineEdit*>())
      if (e->isVisible() && e->accessibleName() == QStringLiteral("Name of ") + of) return e;
    return static_cast<QLineEdit*>(nullptr);
  };
  QLineEdit* called = nameField(QStringLiteral("fan heater"));
  ASSERT_TRUE(called);
  called->setText(QStringLiteral("the old one"));
  emit called->editingFinished();
  EXPECT_EQ(document->plan().heaters[0].name, "the old one");
  called = nameField(QStringLiteral("the old one"));
  ASSERT_TRUE(called);
  called->clear();
  emit called->editingFinished();
  EXPECT_EQ(document->plan().heaters[0].name, "");
  EXPECT_TRUE(nameField(QStringLiteral("electric fan heater"))) << "it goes by its kind";
}

TEST_F(HeaterListTest, AFuelIsPricedByTheUnitItIsBoughtIn) {
  open();
  HeaterList& heaters = list();
  document->edit(QStringLiteral("gas"), [](Plan& p) {
    p.heaters[0].kind = HeaterKind::propane;
    p.heaters[0].boughtBy = "bottle-11kg";
  });
  QCoreApplication::processEvents();
  type(field(heaters, QStringLiteral("fan heater: price of its fuel")), QStringLiteral("28.32"));
  EXPECT_NEAR(document->plan().heaters[0].fuelPrice_kWh, 28.32 / (11.0 * 46.35 / 3.6), 1e-6);
}

TEST_F(HeaterListTest, FuelComesInDeliveriesAndAStockIsGoneOnADay) {
  open();
  importDemoLog();
  HeaterList& heaters = list();
  document->edit(QStringLiteral("gas"), [](Plan& p) {
    p.heaters[0].kind = HeaterKind::propane;
    p.heaters[0].boughtBy = "bottle-11kg";
  });
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  const double before = document->results().simulation()->summary.cost.energy;
  type(field(heaters, QStringLiteral("fan heater: A delivery")), QStringLiteral("6"));
  QCoreApplication::processEvents();
  type(field(heaters, QStringLiteral("fan heater: Its charge")), QStringLiteral("15"));
  QCoreApplication::processEvents();
  type(field(heaters, QStringLiteral("fan heater: In stock")), QStringLiteral("4"));
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  const Simulation& run = *document->results().simulation();
  const auto fuel = fuelOfWinter(document->plan(), run.summary.ledger, run.summary.winters);
  ASSERT_EQ(fuel.size(), 1U);
  ASSERT_GT(fuel[0].deliveries, 1);
  EXPECT_NEAR(run.summary.cost.energy - before, 15.0 * static_cast<double>(fuel[0].deliveries), 1e-6);
  QString said;
  for (auto* l : heaters.findChildren<QLabel*>()) said += l->text();
  EXPECT_TRUE(said.contains(QStringLiteral("delivered %1").arg(fuel[0].deliveries))) << said.toStdString();
  EXPECT_TRUE(said.contains(QStringLiteral("in stock is gone on"))) << said.toStdString();
}

TEST_F(HeaterListTest, WhereOnlyTheBayHasOneTheUsualOneIsOfferedForTheHouse) {
  open();
  HeaterList& heaters = list();
  document->edit(QStringLiteral("bay"), [](Plan& p) {
    p.heaters.clear();
    p.house.bay = WarmBay{};
    setHeaterPower(p, {HeaterPlace::Of::bay}, 2000.0);
  });
  QCoreApplication::processEvents();
  EXPECT_EQ(heaters.findChildren<NumberField*>().empty(), false);
  EXPECT_FALSE(heaters.addButton()->isVisible());
}

TEST_F(HeaterListTest, AFieldOfAHeaterThatIsGoneChangesNothing) {
  open();
  HeaterList& heaters = list();
  document->edit(QStringLiteral("none"), [](Plan& p) { p.heaters.clear(); });
  QCoreApplication::processEvents();
  EXPECT_TRUE(heaters.findChildren<NumberField*>().empty() || !heaters.findChildren<NumberField*>().front()->isVisible());
  EXPECT_FALSE(heaters.addButton()->isVisible()) << "the usual one is offered instead";
}

TEST_F(HeaterListTest, FuelsAreSetSideBySideAtThisHousesLoads) {
  open();
  importDemoLog();
  list();
  HeatPricesDialog dialog(*document, window.get());
  dialog.show();
  QCoreApplication::processEvents();
  EXPECT_TRUE(dialog.words().contains(QStringLiteral("oil heater with a flue: no price"))) << dialog.words().toStdString();
  NumberField* oil = nullptr;
  for (auto* f : dialog.findChildren<NumberField*>())
    if (f->accessibleName() == QStringLiteral("oil: price of a unit")) oil = f;
  ASSERT_NE(oil, nullptr);
  for (auto* c : dialog.findChildren<QComboBox*>())
    if (c->accessibleName() == QStringLiteral("oil: bought by")) {
      const int at = c->findData(QStringLiteral("litre"));
      c->setCurrentIndex(at);
      emit c->activated(at);
    }
  type(oil, QStringLiteral("1.1"));
  const auto price = fuelPrice_kWh(document->plan(), Carrier::heatingOil);
  ASSERT_TRUE(price);
  EXPECT_NEAR(*price, 1.1 / kWhPerUnit(Carrier::heatingOil, "litre"), 1e-9);
  ASSERT_TRUE(waitForResult(*document));
  QCoreApplication::processEvents();
  EXPECT_FALSE(dialog.words().contains(QStringLiteral("oil heater with a flue: no price")));
  EXPECT_TRUE(dialog.words().contains(QStringLiteral("a kWh of heat"))) << dialog.words().toStdString();
}

TEST_F(HeaterListTest, APriceOfAStackIsOfTheWoodThatWasChosen) {
  open();
  ASSERT_FALSE(document->edit(QStringLiteral("a stove"),
                              [](Plan& p) { p.heaters = {{.id = "stove", .kind = HeaterKind::woodStove, .power_W = 7000.0, .boughtBy = "stere"}}; }));
  HeaterList& rows = list();
  QCoreApplication::processEvents();
  const auto priced = [&](Carrier wood) {
    QComboBox* woods = nullptr;
    for (auto* c : rows.findChildren<QComboBox*>())
      if (c->accessibleName().endsWith(QStringLiteral(": wood")) && c->isVisible()) woods = c;
    ASSERT_NE(woods, nullptr);
    woods->setCurrentIndex(woods->findData(static_cast<int>(wood)));
    emit woods->activated(woods->currentIndex());
    QCoreApplication::processEvents();
    QTest::qWait(1); // the row made anew
    NumberField* price = nullptr;
    for (auto* f : rows.findChildren<NumberField*>())
      if (f->accessibleName().endsWith(QStringLiteral(": price of its fuel")) && f->isVisible()) price = f;
    ASSERT_NE(price, nullptr);
    type(price, QStringLiteral("80"));
    const Heater& stove = document->plan().heaters.front();
    EXPECT_EQ(carrierOf(stove), wood);
    EXPECT_NEAR(stove.fuelPrice_kWh, 80.0 / kWhPerUnit(wood, "stere", stove.stoking.moisture), 1e-9);
  };
  priced(Carrier::beech);
  priced(Carrier::spruce);
}

} // namespace
} // namespace muffle
