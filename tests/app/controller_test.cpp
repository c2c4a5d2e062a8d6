// SPDX-License-Identifier: GPL-3.0-or-later
//
// Setpoints go to a controller and what it has taken comes back; one that does not listen is said to.
#include "app/stages/controller_card.h"
#include "app/stages/heat_stage.h"
#include "tests/app/broker.h"
#include "tests/app/window_fixture.h"

#include <QLineEdit>

namespace muffle {
namespace {

class ControllerTest : public WindowTest {
protected:
  void TearDown() override { close(); }
  ControllerCard& card() {
    window->showStage(HeatStage::kId);
    window->findChild<HeatStage*>()->showPage(HeatStage::Page::setpoints);
    QCoreApplication::processEvents();
    ControllerCard* shown = nullptr;
    for (auto* c : window->findChildren<ControllerCard*>())
      if (c->isVisibleTo(window.get())) shown = c;
    return *shown;
  }
  /// Its words with plain spaces: numbers keep their units by ones that do not break.
  QString words() {
    QString said = card().words();
    return said.replace(QChar(0xA0), QLatin1Char(' ')).replace(QChar(0x202F), QLatin1Char(' '));
  }
  void start(QProcess& controller, const Broker& broker, const QStringList& more = {}) {
    controller.start(QStringLiteral(MUFFLE_CONTROLLER),
                     QStringList{broker.address(), QStringLiteral("--topic"), QStringLiteral("yard/house"), QStringLiteral("--pause"), QStringLiteral("50")} +
                         more);
    ASSERT_TRUE(controller.waitForStarted());
  }
};

TEST_F(ControllerTest, TakesWhatIsSentAndSaysWhatItHolds) {
  open();
  const Broker broker(m_dir.path());
  QProcess controller;
  start(controller, broker);
  ASSERT_FALSE(document->edit(QStringLiteral("setpoints"), [](Plan& p) { p.setpoints.night_C = 4.0, p.setpoints.day_C = 7.0, p.house.ventOpens_C = 18.0; }));
  ASSERT_FALSE(document->setController(broker.address() + QStringLiteral("/yard/house")));
  ASSERT_TRUE(waitUntil([&] { return document->controller().isConnected() && document->controller().taken_C().size() == 3; }));
  EXPECT_TRUE(words().contains(QStringLiteral("night: 4.0 °C in this plan, the controller holds 2.0 °C, not sent yet"))) << words().toStdString();
  QTest::mouseClick(button(QStringLiteral("Send")), Qt::LeftButton);
  ASSERT_TRUE(waitUntil([&] { return document->controller().taken_C().at("night") == 4.0 && document->controller().taken_C().at("vents") == 18.0; }));
  EXPECT_EQ(document->controller().taken_C().at("day"), 7.0);
  EXPECT_TRUE(words().contains(QStringLiteral("day: 7.0 °C in this plan, the controller holds 7.0 °C."))) << words().toStdString();
  ASSERT_TRUE(waitUntil([&] { return document->controller().read_C().has_value(); }));
  EXPECT_TRUE(words().contains(QStringLiteral("in the house")));
  controller.terminate();
  controller.waitForFinished(3000);
}

TEST_F(ControllerTest, WhatItDoesNotTakeIsSaid) {
  open();
  const Broker broker(m_dir.path());
  QProcess controller;
  start(controller, broker, {QStringLiteral("--deaf")});
  ASSERT_FALSE(document->setController(broker.address() + QStringLiteral("/yard/house")));
  ASSERT_TRUE(waitUntil([&] { return document->controller().isConnected() && document->controller().taken_C().size() == 3; }));
  ASSERT_FALSE(document->edit(QStringLiteral("setpoints"), [](Plan& p) { p.setpoints.night_C = 6.0; }));
  ASSERT_TRUE(document->controller().send(card().setpoints_C()));
  QTest::qWait(300);
  EXPECT_TRUE(words().contains(QStringLiteral("though it was sent"))) << words().toStdString();
  controller.kill();
  controller.waitForFinished(3000);
}

TEST_F(ControllerTest, TheForecastChoosesTheBandAndTheAddressIsKeptWithTheBook) {
  open();
  ASSERT_FALSE(document->edit(QStringLiteral("bands"), [](Plan& p) { p.setpoints.nightBands = {{-10.0, 2.0}, {0.0, 7.0}}; }));
  ControllerCard& of = card();
  auto* low = of.findChildren<QLineEdit*>().at(1);
  ASSERT_EQ(low->accessibleName(), QStringLiteral("Forecast low"));
  low->setText(QStringLiteral("-5"));
  EXPECT_DOUBLE_EQ(of.setpoints_C().at("night"), 4.5);
  document->view().setUnits({true, true});
  low->setText(QStringLiteral("32"));
  EXPECT_DOUBLE_EQ(of.setpoints_C().at("night"), 7.0);
  document->view().setUnits({});
  const auto why = document->setController(QStringLiteral("nowhere"));
  ASSERT_TRUE(why);
  EXPECT_TRUE(why->contains(QStringLiteral("HOST[:PORT]/TOPIC")));
  EXPECT_TRUE(document->setController(QStringLiteral("127.0.0.1:1/yard/+"))) << "one controller";
  ASSERT_FALSE(document->setController(QStringLiteral("127.0.0.1:1/yard/house")));
  EXPECT_FALSE(document->controller().send(of.setpoints_C())) << "nobody answers there";
  ASSERT_TRUE(document->book().waitUntilSaved());
  close();
  open();
  EXPECT_EQ(document->controllerAddress(), QStringLiteral("127.0.0.1:1/yard/house"));
}

} // namespace
} // namespace muffle
