// SPDX-License-Identifier: GPL-3.0-or-later
//
// What may be added, typed and priced in the window.
#include "app/pictures/waiting.h"
#include "app/stages/measures_editor.h"

#include "core/plan/cautions.h"
#include "core/plan/names.h"
#include "core/sizing/usual_measures.h"
#include "core/sizing/why_not.h"

#include "app/model/said.h"
#include "app/stages/caution_label.h"
#include "app/stages/cost_stage.h"
#include "app/stages/frontier_view.h"
#include "tests/app/window_fixture.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QSlider>

#include <algorithm>
#include <string_view>

namespace muffle {
namespace {

TEST(Levels, AreReadAsTheyAreWritten) {
  for (const Units u : {Units{}, Units{true, true}}) {
    const auto watts = parseLevels(QStringLiteral("3 kW; 4500 W, 6 kW"), MeasureKind::heater, u);
    ASSERT_TRUE(watts);
    ASSERT_EQ(watts->size(), 3U);
    EXPECT_NEAR((*watts)[1], 4500.0, 1e-9);
    Measure m = usualMeasure(MeasureKind::sealing);
    m.levels = {0.35, 0.5};
    EXPECT_EQ(parseLevels(levelsText(m, u), MeasureKind::sealing, u), m.levels);
  }
  EXPECT_EQ(*parseLevels(QStringLiteral("0,35; 0,5"), MeasureKind::sealing, Units{}), (std::vector<double>{0.35, 0.5}));
  for (const char* bad : {"", ";", "many", "-3", "3; some"}) EXPECT_FALSE(parseLevels(QString::fromLatin1(bad), MeasureKind::barrels, Units{})) << bad;
}

TEST(Levels, EveryUsualMeasureMakesAPlanThatCanBeSaved) {
  for (const MeasureKind kind : {MeasureKind::secondSkin, MeasureKind::nightBlanket, MeasureKind::sealing, MeasureKind::barrels, MeasureKind::heater}) {
    Plan plan;
    plan.measures.push_back(usualMeasure(kind));
    EXPECT_TRUE(planFromJson(planToJson(plan)));
  }
}

class MeasuresTest : public WindowTest {
protected:
  void showEditor() {
    open();
    window->showStage(CostStage::kId);
    cost = find<CostStage>();
    cost->showMeasures(true);
    QTest::qWait(10);
  }
  QLineEdit* sizesOf(const QString& measure) { return named<QLineEdit>(QStringLiteral("Sizes of %1 to try").arg(measure)); }
  template <class T> T* named(const QString& accessible) {
    for (T* w : window->findChildren<T*>())
      if (w->accessibleName() == accessible && w->isVisible()) return w;
    return nullptr;
  }
  void retype(QLineEdit* edit, const QString& text) {
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Return);
  }
  CostStage* cost = nullptr;
};

TEST_F(MeasuresTest, SizesAreTypedWithUnitsAndARefusalKeepsTheOldOnes) {
  showEditor();
  QLineEdit* sizes = sizesOf(QStringLiteral("fan heater"));
  ASSERT_NE(sizes, nullptr);
  retype(sizes, QStringLiteral("2 kW; 4 kW"));
  EXPECT_EQ(document->plan().measures[4].levels, (std::vector<double>{2000.0, 4000.0}));
  retype(sizes, QStringLiteral("plenty"));
  EXPECT_EQ(document->plan().measures[4].levels, (std::vector<double>{2000.0, 4000.0}));
  EXPECT_EQ(sizes->text(), QStringLiteral("2.0\u00A0kW; 4.0\u00A0kW"));
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().measures[4].levels.size(), 3U);
}

TEST_F(MeasuresTest, LookingAtSizesDoesNotRoundThem) {
  showEditor();
  QLineEdit* sizes = sizesOf(QStringLiteral("sealed laps and doors"));
  ASSERT_NE(sizes, nullptr);
  EXPECT_EQ(sizes->text(), QStringLiteral("0.35/h"));
  sizes->setFocus();
  QTest::keyClick(sizes, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(document->plan().measures[2].levels.front(), 0.35);
  EXPECT_EQ(document->planInHand().undoStack()->count(), 0);
}

TEST_F(MeasuresTest, MeasuresAreAddedTakenOffAndUndone) {
  showEditor();
  ASSERT_EQ(packageCount(document->plan()), 96U);
  auto* add = named<QComboBox>(QStringLiteral("Add a measure"));
  ASSERT_NE(add, nullptr);
  QTest::keyClick(add, Qt::Key_Down); // the first kind: a second skin
  ASSERT_EQ(document->plan().measures.size(), 6U);
  EXPECT_EQ(document->plan().measures.back().kind, MeasureKind::secondSkin);
  EXPECT_EQ(packageCount(document->plan()), 192U);
  QTest::qWait(10); // the cards are laid out anew
  auto* drop = named<QPushButton>(QStringLiteral("Take second film off the list"));
  ASSERT_NE(drop, nullptr);
  QTest::mouseClick(drop, Qt::LeftButton);
  EXPECT_EQ(document->plan().measures.size(), 5U);
  document->planInHand().undoStack()->undo();
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(document->plan().measures.size(), 5U);
  EXPECT_EQ(document->plan().measures.front().name, "second film");
}

TEST_F(MeasuresTest, AListThatCannotBeSavedIsRefused) {
  showEditor();
  retype(sizesOf(QStringLiteral("fan heater")), QStringLiteral("90000 kW")); // above what a plan file allows
  EXPECT_EQ(document->plan().measures[4].levels.size(), 3U);
  close();
  open();
  EXPECT_EQ(document->plan().measures[4].levels.size(), 3U) << "the book opens again";
}

TEST_F(MeasuresTest, LettingGoOfAPriceIsOneUndoableEditAndKeepsTheSearch) {
  openWithAShortList({5000});
  ASSERT_TRUE(waitForResult(*document));
  document->startSizing();
  ASSERT_TRUE(waitForSizing(*document));
  window->showStage(CostStage::kId);
  auto* price = named<QSlider>(QStringLiteral("Price of a kWh"));
  ASSERT_NE(price, nullptr);
  const double total = document->results().sizing()->packages.front().cost.total();
  const int steps = document->planInHand().undoStack()->count();
  price->setFocus();
  for (int i = 0; i < 4; ++i) QTest::keyClick(price, Qt::Key_Right);
  QTest::qWait(10);
  EXPECT_NEAR(document->plan().prices.electricity_per_kWh, 0.28, 1e-9);
  EXPECT_EQ(document->planInHand().undoStack()->count(), steps + 1) << "four nudges in a row are one step";
  EXPECT_TRUE(document->results().sizingIsCurrent()) << "dearer power ranks the same runs again";
  EXPECT_GT(document->results().sizing()->packages.front().cost.total(), total);
  document->planInHand().undoStack()->undo();
  EXPECT_NEAR(document->plan().prices.electricity_per_kWh, 0.24, 1e-9);
  EXPECT_NEAR(document->results().sizing()->packages.front().cost.total(), total, 1e-9);
  EXPECT_EQ(price->value(), 24);
}

TEST_F(MeasuresTest, AHeaterOnTheListIsOfAnyKindAndItsCautionsGoWithIt) {
  showEditor();
  const auto of = [&] {
    return std::find_if(document->plan().measures.begin(), document->plan().measures.end(), [](const Measure& m) { return m.kind == MeasureKind::heater; });
  };
  ASSERT_NE(of(), document->plan().measures.end());
  auto* kinds = named<QComboBox>(QStringLiteral("Kind of %1").arg(said(nameOf(*of()))));
  ASSERT_NE(kinds, nullptr);
  kinds->setCurrentIndex(kinds->findData(static_cast<int>(HeaterKind::propaneUnvented)));
  emit kinds->activated(kinds->currentIndex());
  EXPECT_EQ(of()->heater, HeaterKind::propaneUnvented);
  QTest::qWait(10);
  const auto cautions = cautionsFor(document->plan(), std::vector<Measure>{*of()});
  EXPECT_TRUE(std::any_of(cautions.begin(), cautions.end(), [](const Caution& c) { return std::string_view(c.id) == "carbon-monoxide"; }));
  const auto labels = window->findChildren<QLabel*>();
  EXPECT_TRUE(std::any_of(labels.begin(), labels.end(), [](QLabel* l) { return l->isVisible() && l->text().contains(QStringLiteral("carbon monoxide")); }));
  document->planInHand().undoStack()->undo();
  EXPECT_EQ(of()->heater, HeaterKind::electric);
}

TEST_F(MeasuresTest, ALongListIsSearchedAndEachThingSaysWhatItDoes) {
  open();
  ASSERT_TRUE(window->importFileUnasked(twoMonths()));
  ASSERT_TRUE(waitForResult(*document));
  ASSERT_FALSE(document->edit(QStringLiteral("more"), [](Plan& p) {
    for (Measure& m : p.measures) {
      if (m.kind == MeasureKind::heater) m.levels = {2000, 3000, 5000, 7000, 9000};
      if (m.kind == MeasureKind::barrels) m.levels = {5, 10, 20, 30};
    }
    p.measures.push_back(usualMeasure(MeasureKind::skirt));
  }));
  window->showStage(CostStage::kId);
  SizingProgress last;
  QObject::connect(document.get(), &Document::sizingProgress, window.get(), [&](const SizingProgress& so) { last = so; });
  document->startSizing();
  ASSERT_TRUE(waitForSizing(*document));
  QTest::qWait(10);
  const Sizing& s = *document->results().sizing();
  EXPECT_TRUE(s.provedLeast);
  EXPECT_EQ(s.covered, packageCount(document->plan()));
  EXPECT_LT(s.runs, s.covered);
  ASSERT_GE(s.winner, 0);
  EXPECT_DOUBLE_EQ(last.found.value_or(0.0), s.packages[static_cast<std::size_t>(s.winner)].cost.total());
  const auto labels = window->findChildren<QLabel*>();
  for (const MeasureVerdict& v : verdicts(s, document->plan())) {
    const QString name = said(nameOf(document->plan().measures[v.measure]));
    EXPECT_TRUE(std::any_of(labels.begin(), labels.end(), [&](QLabel* l) {
      return l->isVisible() && l->text().contains(QStringLiteral("<table")) && l->text().contains(name.toHtmlEscaped());
    })) << name.toStdString();
  }
  for (const CautionLabel* caution : window->findChildren<CautionLabel*>())
    if (caution->isVisible()) {
      EXPECT_GE(caution->height(), caution->heightForWidth(caution->width()) - 2) << "a caution is whole, however much stands above it";
    }
  auto* frontier = find<FrontierView>();
  EXPECT_GE(frontier->height(), frontier->minimumSizeHint().height());
  for (int a = 0; a < kCostAgainstCount; ++a) {
    frontier->setAgainst(static_cast<CostAgainst>(a));
    const auto line = frontier->unbeaten();
    ASSERT_FALSE(line.empty()) << a;
    for (std::size_t k = 1; k < line.size(); ++k)
      EXPECT_GE(s.packages[static_cast<std::size_t>(line[k])].cost.total(), s.packages[static_cast<std::size_t>(line[k - 1])].cost.total()) << a;
  }
  frontier->setAgainst(CostAgainst::growth); // of which more is better: the line rises
  const auto line = frontier->unbeaten();
  for (std::size_t k = 1; k < line.size(); ++k) EXPECT_LT(frontier->packagePoint(line[k]).y(), frontier->packagePoint(line[k - 1]).y());
  for (const SizedPackage& p : s.packages) EXPECT_GT(p.growth_d.value_or(0.0), 0.0);
}

} // namespace
} // namespace muffle
