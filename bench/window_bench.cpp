// SPDX-License-Identifier: GPL-3.0-or-later
//
// The window's own times, offscreen: from main() to the first painted frame of a book with a log, to its first result in
// sight, and from an edit to its result in sight. Prints medians of several runs.
#include "app/model/demo_book.h"
#include "app/paint/theme.h"
#include "app/pictures/waiting.h"
#include "app/stages/main_window.h"
#include "app/stages/section_view.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QStyleFactory>
#include <QTemporaryDir>

#include <algorithm>
#include <cstdio>
#include <vector>

using namespace muffle;

namespace {

double median(std::vector<double> v) {
  std::sort(v.begin(), v.end());
  return v[v.size() / 2];
}

double ms(const QElapsedTimer& timer) { return static_cast<double>(timer.nsecsElapsed()) / 1e6; }

/// Sleeps in the event loop, as the application does, until the present plan's result is in and painted: that of the winter in
/// sight, or of all.
void untilResult(Document& document, bool all) {
  QEventLoop loop;
  const auto there = [&] { return all ? document.results().isCurrent() : document.isCurrentInSight(); };
  const auto quit = [&] {
    if (there()) loop.quit();
  };
  QObject::connect(&document, &Document::resultChanged, &loop, quit);
  QObject::connect(&document, &Document::winterChanged, &loop, quit);
  if (!there()) loop.exec();
  QCoreApplication::processEvents(); // the repaint that the result asked for
}

} // namespace

int main(int argc, char** argv) {
  QElapsedTimer fromMain;
  fromMain.start();
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  const QTemporaryDir home;
  qputenv("XDG_CONFIG_HOME", home.path().toUtf8());
  QApplication app(argc, argv);
  QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
  loadFonts();
  const double started = ms(fromMain);
  const QString path = home.filePath(QStringLiteral("demo.muffle"));
  const QString folder = QStringLiteral(MUFFLE_DEMO_DIR);
  { // a book that already has its log, as on any day but the first
    if (!makeDemoBook(path, folder)) return 1;
    Document document;
    MainWindow window(document);
    if (document.openBook(path, false) || !window.importFileUnasked(folder + QStringLiteral("/log.csv")) || !waitForResult(document)) return 1;
  }
  std::vector<double> firstPaint, firstResult, sight, edits, dragSight, drags;
  for (int run = 0; run < 5; ++run) {
    QElapsedTimer timer;
    timer.start();
    Document document;
    MainWindow window(document);
    if (document.openBook(path, false)) return 1;
    window.show();
    window.grab();
    firstPaint.push_back(started + ms(timer));
    untilResult(document, true);
    firstResult.push_back(started + ms(timer));
    const auto timed = [&](std::vector<double>& first, std::vector<double>& whole, auto change) {
      timer.restart();
      if (document.edit(QStringLiteral("edit"), change)) std::exit(1);
      untilResult(document, false);
      first.push_back(ms(timer));
      untilResult(document, true);
      whole.push_back(ms(timer));
    };
    for (int i = 0; i < 8; ++i) {
      timed(sight, edits, [&](Plan& p) { p.house.airChanges_per_h += i % 2 ? -0.1 : 0.1; });
      timed(dragSight, drags, [&](Plan& p) { p.house.shape.ridge_m += i % 2 ? 0.05 : -0.05; });
    }
  }
  std::printf("from main() to the first painted window %.0f ms, to its result in sight %.0f ms\n", median(firstPaint), median(firstResult));
  const auto line = [](const char* what, const std::vector<double>& first, const std::vector<double>& whole) {
    std::printf("%s to the winter in sight repainted: %.0f ms (best %.0f); to both winters: %.0f ms (best %.0f)\n", what, median(first),
                *std::min_element(first.begin(), first.end()), median(whole), *std::min_element(whole.begin(), whole.end()));
  };
  line("an edit", sight, edits);
  line("another shape, the sun worked out anew,", dragSight, drags);
  return 0;
}
