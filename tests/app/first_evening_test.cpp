// SPDX-License-Identifier: GPL-3.0-or-later
//
// A grower's first evening: from an empty book to the cheapest plan, once with the mouse and once by keyboard alone. What the hands do
// is counted: a click, a drop, a key chord, or what is typed into a field with the Return that ends it.
#include "app/pictures/waiting.h"
#include "app/stages/cost_stage.h"
#include "app/stages/house_stage.h"
#include "app/stages/page_strip.h"
#include "app/stages/thread_bar.h"
#include "tests/app/window_fixture.h"
#include "words/words.h"

#include "app/stages/heat_stage.h"
#include <QAbstractButton>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFile>
#include <QFileDialog>
#include <QLineEdit>
#include <QMimeData>

#include <cmath>

namespace muffle {
namespace {

constexpr int kMostActions = 25;

class FirstEvening : public WindowTest {
protected:
  /// A logger of one's own: semicolons, decimal commas, Windows' line ends, German headings, three weeks of frost south of the equator.
  QString ownLog() {
    const QString path = m_dir.filePath(QStringLiteral("Frost.csv"));
    QFile file(path);
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("Zeit;Aussen [\xC2\xB0"
               "C];Gew\xC3\xA4"
               "chshaus [\xC2\xB0"
               "C]\r\n");
    const QDateTime start(QDate(2026, 7, 3), QTime(12, 0), Qt::UTC);
    for (int i = 0; i < 21 * 144; ++i) {
      const double hour = i / 6.0;
      const double outside = 1.0 + 3.0 * std::sin(hour / 61.0) + 5.5 * std::cos((hour - 2.5) / 24.0 * 2.0 * M_PI);
      const double inside = outside + 1.5 + 4.0 * std::max(0.0, std::cos((hour - 1.0) / 24.0 * 2.0 * M_PI));
      const auto cell = [](double c) { return QString::number(c, 'f', 1).replace(QLatin1Char('.'), QLatin1Char(',')); };
      file.write((start.addSecs(600 * i).toString(QStringLiteral("dd.MM.yyyy HH:mm")) + QLatin1Char(';') + cell(outside) + QLatin1Char(';') + cell(inside) +
                  QStringLiteral("\r\n"))
                     .toUtf8());
    }
    return path;
  }
  void startEmpty() {
    document = std::make_unique<Document>();
    window = std::make_unique<MainWindow>(*document);
    ASSERT_FALSE(document->openBook(m_dir.filePath(QStringLiteral("mine.muffle")), true));
    window->show();
    ASSERT_TRUE(QTest::qWaitForWindowExposed(window.get()));
  }

  // by mouse
  void click(QWidget* on, QPoint at = {}) {
    ASSERT_NE(on, nullptr);
    ++actions;
    QTest::mouseClick(on, Qt::LeftButton, {}, at);
    QCoreApplication::processEvents();
  }
  QAbstractButton* word(const QString& text) {
    QCoreApplication::processEvents();
    for (auto* b : window->findChildren<QAbstractButton*>())
      if (b->isVisible() && (b->text().startsWith(text) || b->accessibleName() == text)) return b;
    return nullptr;
  }
  void number(const QString& name, const QString& typed) {
    ASSERT_NO_FATAL_FAILURE(click(WindowTest::number(name)));
    write(typed);
  }
  /// Into whatever has the focus, with Return.
  void write(const QString& typed) {
    QWidget* into = QApplication::focusWidget();
    ASSERT_NE(into, nullptr);
    if (auto* edit = qobject_cast<QLineEdit*>(into)) edit->selectAll();
    ++actions;
    for (const QChar c : typed) QTest::sendKeyEvent(QTest::Click, QApplication::focusWidget(), Qt::Key_unknown, QString(c), {});
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
    QCoreApplication::processEvents();
  }
  // by keyboard
  void chord(Qt::Key key, Qt::KeyboardModifiers with = {}) {
    ++actions;
    QWidget* to = QApplication::focusWidget() ? QApplication::focusWidget() : window.get();
    QTest::keyClick(to, key, with);
    QCoreApplication::processEvents();
  }
  /// Tab until what is named has the focus; each is a stroke, a run of them one action of the hand.
  void tabTo(const QString& name) {
    ++actions;
    const auto isThere = [&] {
      QWidget* now = QApplication::focusWidget();
      if (!now) return false;
      const auto* button = qobject_cast<QAbstractButton*>(now);
      return now->objectName() == name || now->accessibleName() == name || (button && button->text().startsWith(name));
    };
    for (int i = 0; i < 40 && !isThere(); ++i) QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : window.get(), Qt::Key_Tab);
    EXPECT_TRUE(isThere()) << name.toStdString() << " cannot be reached by Tab";
  }

  /// What must be so at the end, whichever hand did it.
  void expectCheapestPlan() {
    const Plan& plan = document->plan();
    EXPECT_EQ(plan.site.name, "Oamaru");
    EXPECT_LT(plan.site.place.latitude_deg, -45.0);
    EXPECT_EQ(plan.site.timeZone, "Pacific/Auckland");
    EXPECT_DOUBLE_EQ(plan.house.shape.width_m, 5.0);
    EXPECT_DOUBLE_EQ(plan.house.shape.length_m, 12.0);
    ASSERT_TRUE(waitForResult(*document));
    EXPECT_EQ(document->results().simulation()->summary.held, document->results().simulation()->summary.nights) << "the cheapest that holds, held";
    ASSERT_NE(document->results().sizing(), nullptr);
    const Sizing& s = *document->results().sizing();
    ASSERT_GE(s.winner, 0);
    for (const SizedPackage& p : s.packages)
      EXPECT_TRUE(!p.holds || p.cost.total() >= s.packages[static_cast<std::size_t>(s.winner)].cost.total()) << english(p.label);
    EXPECT_LE(actions, kMostActions);
  }
  bool waitForSearch() {
    return QTest::qWaitFor([&] { return document->results().sizing() && !document->results().isSizing(); }, 120000);
  }
  int actions = 0;
};

TEST_F(FirstEvening, ByMouse) {
  startEmpty();
  const QString log = ownLog();
  click(word(QStringLiteral("Describe your house")));
  write(QStringLiteral("oamaru"));
  ASSERT_FALSE(document->plan().site.placeAssumed);
  click(word(QStringLiteral("Shape")));
  click(word(QStringLiteral("round arch")));
  number(QStringLiteral("Width"), QStringLiteral("5 m"));
  number(QStringLiteral("Length"), QStringLiteral("12 m"));
  number(QStringLiteral("Ridge"), QStringLiteral("2.5 m"));
  // the file is dropped on the window
  QMimeData files;
  files.setUrls({QUrl::fromLocalFile(log)});
  whenAsked([&](ImportDialog* dialog) {
    for (QPushButton* b : dialog->findChildren<QPushButton*>())
      if (b->text() == QStringLiteral("Keep this log")) {
        EXPECT_TRUE(b->isEnabled());
        ++actions;
        QTest::mouseClick(b, Qt::LeftButton);
      }
  });
  QDragEnterEvent enter({200, 200}, Qt::CopyAction, &files, Qt::LeftButton, {});
  QApplication::sendEvent(window.get(), &enter);
  ASSERT_TRUE(enter.isAccepted());
  QDropEvent drop({200, 200}, Qt::CopyAction, &files, Qt::LeftButton, {});
  ++actions;
  QApplication::sendEvent(window.get(), &drop);
  ASSERT_TRUE(QTest::qWaitFor([&] { return document->readings().log() != nullptr; }, 20000));
  ASSERT_TRUE(waitForResult(*document));
  EXPECT_GE(document->readings().nights().size(), 20U);
  auto* thread = find<ThreadBar>();
  click(thread, ThreadBar::knotPoint(HeatStage::kId).toPoint());
  click(word(QStringLiteral("Add a usual one")));
  ASSERT_FALSE(document->plan().heaters.empty());
  EXPECT_GT(document->plan().heaters.front().power_W, 500.0);
  click(thread, ThreadBar::knotPoint(CostStage::kId).toPoint());
  click(word(QStringLiteral("Search the usual")));
  ASSERT_TRUE(waitForSearch());
  click(word(QStringLiteral("Make the cheapest the plan")));
  expectCheapestPlan();
}

TEST_F(FirstEvening, ByKeyboardAlone) {
  startEmpty();
  const QString log = ownLog();
  tabTo(QStringLiteral("Describe your house"));
  chord(Qt::Key_Space);
  write(QStringLiteral("oamaru"));
  ASSERT_FALSE(document->plan().site.placeAssumed);
  chord(Qt::Key_PageDown, Qt::ControlModifier);
  chord(Qt::Key_PageDown, Qt::ControlModifier);
  tabTo(QStringLiteral("round arch"));
  chord(Qt::Key_Space);
  tabTo(QStringLiteral("Width"));
  write(QStringLiteral("5 m"));
  tabTo(QStringLiteral("Length"));
  write(QStringLiteral("12 m"));
  whenAsked<QFileDialog>([&](QFileDialog* dialog) {
    whenAsked([&](ImportDialog* import) { ++actions, QTest::keyClick(import, Qt::Key_Return); });
    auto* name = dialog->findChild<QLineEdit*>();
    name->setFocus();
    name->setText(log);
    ++actions;
    QTest::keyClick(name, Qt::Key_Return);
  });
  chord(Qt::Key_I, Qt::ControlModifier);
  ASSERT_TRUE(QTest::qWaitFor([&] { return document->readings().log() != nullptr; }, 20000));
  ASSERT_TRUE(waitForResult(*document));
  window->activateWindow(); // as the desktop does when a dialog has closed
  ASSERT_TRUE(QTest::qWaitForWindowActive(window.get()));
  chord(Qt::Key_4, Qt::ControlModifier);
  tabTo(QStringLiteral("Add a usual one"));
  chord(Qt::Key_Space);
  ASSERT_FALSE(document->plan().heaters.empty());
  chord(Qt::Key_R, Qt::ControlModifier);
  ASSERT_TRUE(waitForSearch());
  tabTo(QStringLiteral("Make the cheapest the plan"));
  chord(Qt::Key_Space);
  expectCheapestPlan();
}

} // namespace
} // namespace muffle
