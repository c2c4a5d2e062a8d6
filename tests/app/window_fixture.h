// SPDX-License-Identifier: GPL-3.0-or-later
//
// A window on a fresh book with the demo's plan, and the gestures that tests share.
#pragma once

#include "app/pictures/waiting.h"
#include "app/stages/import_dialog.h"
#include "app/stages/main_window.h"
#include "app/stages/number_field.h"
#include "book/files.h"
#include "core/plan/plan_json.h"

#include <gtest/gtest.h>

#include <QApplication>
#include <QFile>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>

#include <algorithm>
#include <functional>
#include <string_view>
#include <type_traits>

namespace muffle {

inline const QString kDemo = QStringLiteral(MUFFLE_DEMO_DIR);

class WindowTest : public ::testing::Test {
protected:
  void SetUp() override {
    ASSERT_TRUE(m_dir.isValid());
    m_path = m_dir.filePath(QStringLiteral("yard.muffle"));
    auto book = Book::open(m_path.toStdString(), Book::Mode::create);
    ASSERT_TRUE(book);
    const auto plan = planFromJson(*parseJson(*readFile((kDemo + QStringLiteral("/plan.json")).toStdString())));
    ASSERT_TRUE(plan);
    ASSERT_TRUE(book->addPlan(*plan));
  }
  void open() {
    document = std::make_unique<Document>();
    window = std::make_unique<MainWindow>(*document);
    ASSERT_FALSE(document->openBook(m_path, false));
    window->show();
    ASSERT_TRUE(QTest::qWaitForWindowExposed(window.get()));
  }
  /// A book of one's own, as empty as they begin, at the page that asks where the house stands.
  void openNew() {
    document = std::make_unique<Document>();
    window = std::make_unique<MainWindow>(*document);
    ASSERT_FALSE(document->openBook(m_dir.filePath(QStringLiteral("mine.muffle")), true));
    window->show();
    ASSERT_TRUE(QTest::qWaitForWindowExposed(window.get()));
    QTest::mouseClick(button(QStringLiteral("Describe your house")), Qt::LeftButton);
  }
  /// The demo with two months of its nights and a list that is soon searched: a second film, and heaters of these sizes.
  void openWithAShortList(const std::vector<double>& heaters_W) {
    open();
    ASSERT_TRUE(window->importFileUnasked(twoMonths()));
    ASSERT_TRUE(waitForResult(*document));
    ASSERT_FALSE(document->edit(QStringLiteral("fewer"), [&](Plan& p) {
      p.measures = {p.measures[0], p.measures[4]};
      p.measures[1].levels = heaters_W;
    }));
  }
  void close() {
    window.reset();
    document.reset();
  }
  /// Acts on the dialog as soon as it stands, however slow the machine.
  template <class Dialog = ImportDialog> void whenAsked(std::type_identity_t<std::function<void(Dialog*)>> act) {
    auto* timer = new QTimer(window.get());
    QObject::connect(timer, &QTimer::timeout, timer, [timer, act] {
      auto* dialog = qobject_cast<Dialog*>(QApplication::activeModalWidget());
      if (!dialog || !dialog->isVisible()) return;
      timer->stop();
      act(dialog);
    });
    timer->start(30);
  }
  /// A month out of each of the demo's winters, with the coldest nights: what is not about a whole winter is the same of them, and is found sooner.
  QString twoMonths() {
    const QString path = m_dir.filePath(QStringLiteral("two-months.csv"));
    if (QFile::exists(path)) return path;
    const auto isOf = [](std::string_view line) {
      const std::string_view day = line.substr(0, 10);
      return day.starts_with("Date") || (day >= "2024-01-01" && day <= "2024-01-31") || (day >= "2025-01-15" && day <= "2025-02-14");
    };
    const std::string all = *readFile((kDemo + QStringLiteral("/log.csv")).toStdString());
    std::string kept;
    for (std::size_t at = 0, end = 0; at < all.size(); at = end + 1) {
      end = std::min(all.find('\n', at), all.size());
      const std::string_view line = std::string_view(all).substr(at, end - at);
      if (isOf(line)) kept.append(line).append("\n");
    }
    EXPECT_TRUE(writeFile(path.toStdString(), kept));
    return path;
  }
  /// Imports through the dialog, accepting what it recognised.
  void importDemoLog() { importDemoLog(twoMonths()); }
  void importWholeDemoLog() { importDemoLog(kDemo + QStringLiteral("/log.csv")); }
  void importDemoLog(const QString& path) {
    whenAsked([](ImportDialog* dialog) {
      ASSERT_TRUE(dialog->read());
      EXPECT_EQ(dialog->read()->log.channels.size(), 7U);
      for (QPushButton* b : dialog->findChildren<QPushButton*>())
        if (b->text() == QStringLiteral("Keep this log")) QTest::mouseClick(b, Qt::LeftButton);
    });
    ASSERT_TRUE(window->importFile(path));
    ASSERT_TRUE(waitForResult(*document));
  }
  QPushButton* button(const QString& text) {
    for (QPushButton* b : window->findChildren<QPushButton*>())
      if (b->text() == text && b->isVisible()) return b;
    return nullptr;
  }
  /// The field of that name in sight.
  NumberField* number(const QString& name) {
    QCoreApplication::processEvents(); // new ones are shown, old ones go
    NumberField* found = nullptr;
    for (NumberField* f : window->findChildren<NumberField*>(name))
      if (f->isVisible()) found = f;
    return found;
  }
  void type(NumberField* field, const QString& text) {
    ASSERT_NE(field, nullptr);
    QTest::mouseClick(field, Qt::LeftButton);
    ASSERT_TRUE(field->editor()->isVisible());
    field->editor()->selectAll();
    QTest::keyClicks(field->editor(), text);
    QTest::keyClick(field->editor(), Qt::Key_Return);
  }
  template <class T> T* find() { return window->findChild<T*>(); }
  void drag(QWidget* w, QPointF from, QPointF to) {
    QTest::mousePress(w, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 4; ++i) {
      const QPointF at = from + (to - from) * i / 4.0;
      QMouseEvent move(QEvent::MouseMove, at, w->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
      QApplication::sendEvent(w, &move);
    }
    QTest::mouseRelease(w, Qt::LeftButton, {}, to.toPoint());
  }

  QTemporaryDir m_dir;
  QString m_path;
  std::unique_ptr<Document> document;
  std::unique_ptr<MainWindow> window;
};

} // namespace muffle
