// SPDX-License-Identifier: GPL-3.0-or-later
//
// Painted views answer assistive technology with the values they show.
#include "app/pictures/waiting.h"
#include "tests/app/window_fixture.h"

#include "app/stages/cost_stage.h"
#include "app/stages/heat_stage.h"
#include "app/stages/ladder.h"
#include "app/stages/scarf_view.h"
#include "app/stages/slip_view.h"
#include "app/stages/spoken.h"
#include "app/stages/stage.h"

#include <QAccessible>
#include <QLabel>
#include <QPainter>

namespace muffle {
namespace {

using SpokenTest = WindowTest;

/// What a screen reader finds in a widget, line by line.
std::vector<SpokenLine> heard(QWidget& widget) {
  std::vector<SpokenLine> lines;
  QAccessibleInterface* list = QAccessible::queryAccessibleInterface(&widget);
  if (!list) return lines;
  EXPECT_EQ(list->role(), QAccessible::List);
  for (int i = 0; i < list->childCount(); ++i) {
    QAccessibleInterface* line = list->child(i);
    if (!line || line->role() != QAccessible::ListItem) continue;
    EXPECT_EQ(line->parent(), list);
    EXPECT_EQ(list->indexOfChild(line), i);
    lines.push_back({line->text(QAccessible::Name), line->text(QAccessible::Value)});
  }
  return lines;
}

QString valueOf(const std::vector<SpokenLine>& lines, const QString& name) {
  for (const SpokenLine& line : lines)
    if (line.name == name) return line.value;
  return {};
}

class Painted : public QWidget {
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.drawText(QPointF(100, 40), QStringLiteral("12 kWh"));
    p.drawText(QPointF(10, 40), QStringLiteral("heat bought"));
    p.translate(0, 30);
    p.drawText(QPointF(10, 50), QStringLiteral("kit"));
    p.drawText(QRectF(100, 38, 60, 20), Qt::AlignVCenter, QStringLiteral("7"));
  }
};

TEST(PaintedLines, AreReadFromAboveAndFromTheLeftWhereverTheyWereDrawn) {
  Painted widget;
  widget.resize(200, 120);
  const auto lines = paintedLines(widget);
  ASSERT_EQ(lines.size(), 2U);
  EXPECT_EQ(lines[0].name, QStringLiteral("heat bought"));
  EXPECT_EQ(lines[0].value, QStringLiteral("12 kWh"));
  EXPECT_EQ(lines[1].name, QStringLiteral("kit"));
  EXPECT_EQ(lines[1].value, QStringLiteral("7"));
}

TEST_F(SpokenTest, TheSlipTheLadderAndTheScarfSayTheNumbersOfTheRun) {
  open();
  importDemoLog();
  const Units& u = document->view().units();
  const Summary& s = document->results().simulation()->summary;
  const auto slip = heard(*find<SlipView>());
  EXPECT_EQ(valueOf(slip, QStringLiteral("misses")), QString::number(s.nights - s.held));
  EXPECT_EQ(valueOf(slip, QStringLiteral("coldest inside")), u.text(Quantity::temperature, s.coldest_C));
  const auto scarf = heard(*find<ScarfView>());
  EXPECT_EQ(scarf.size(), document->results().simulation()->nights.size()) << "a line for every night";
  window->showStage(HeatStage::kId);
  EXPECT_EQ(valueOf(heard(*find<Ladder>()), QStringLiteral("night setpoint")), u.text(Quantity::temperature, document->plan().setpoints.night_C));
  // the same list after an edit says what is so then
  ASSERT_FALSE(document->edit(QStringLiteral("warmer"), [](Plan& p) { p.setpoints.night_C += 1.0; }));
  EXPECT_TRUE(QTest::qWaitFor(
      [&] { return valueOf(heard(*find<Ladder>()), QStringLiteral("night setpoint")) == u.text(Quantity::temperature, document->plan().setpoints.night_C); }));
}

TEST_F(SpokenTest, EveryPaintedViewOfEveryStageSaysWhatItShows) {
  open();
  importDemoLog();
  document->startSizing();
  ASSERT_TRUE(waitForSizing(*document));
  int views = 0;
  for (const StageRow& stage : stages()) {
    window->showStage(stage.id);
    QTest::qWait(20);
    for (QWidget* w : window->findChildren<QWidget*>()) {
      if (!w->isVisible() || !dynamic_cast<Spoken*>(w)) continue;
      ++views;
      const auto lines = heard(*w);
      EXPECT_FALSE(lines.empty()) << w->accessibleName().toStdString() << " of " << stage.id;
      EXPECT_FALSE(w->accessibleName().isEmpty()) << w->metaObject()->className();
      for (const SpokenLine& line : lines) EXPECT_FALSE(line.name.isEmpty()) << w->accessibleName().toStdString();
    }
  }
  EXPECT_GT(views, 20) << "thread, section, slip and scarf on every stage, and what is each one's own";
}

} // namespace
} // namespace muffle
