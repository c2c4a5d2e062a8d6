// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle [BOOK]                         opens a book (the grower's own by default)
// muffle --demo DIR                     a fresh demo book from DIR/plan.json and DIR/log.csv
// muffle --demo DIR --shots OUT         writes a PNG of every main view and ends
#include "app/model/demo_book.h"
#include "app/model/kept_together.h"
#include "app/paint/theme.h"
#include "app/pictures/shots.h"
#include "app/stages/main_window.h"
#include "app/stages/spoken.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QIcon>
#include <QStandardPaths>
#include <QStyleFactory>
#include <QTemporaryDir>

#include <cstdio>

using namespace muffle;

int main(int argc, char** argv) {
  QApplication app(argc, argv);
  QApplication::setApplicationName(QStringLiteral("muffle"));
  QApplication::setApplicationDisplayName(QStringLiteral("Muffle"));
  QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
  static KeptTogether kept;
  QCoreApplication::installTranslator(&kept);
  speakPaintedViews();
  loadFonts();
  QApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/muffle.svg")));
  QCommandLineParser parser;
  parser.setApplicationDescription(QStringLiteral("Winter heating for greenhouses, from logged nights"));
  parser.addHelpOption();
  parser.addPositionalArgument(QStringLiteral("book"), QStringLiteral("a *.muffle file"));
  const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("open a fresh demo book made from this folder"), QStringLiteral("folder"));
  const QCommandLineOption shots(QStringLiteral("shots"), QStringLiteral("write a picture of every main view and end"), QStringLiteral("folder"));
  parser.addOptions({demo, shots});
  parser.process(app);

  QTemporaryDir scratch;
  QString path;
  Document document;
  MainWindow window(document);
  if (parser.isSet(demo)) {
    window.setRemembersBooks(false);
    path = parser.isSet(shots) ? scratch.filePath(QStringLiteral("demo.muffle"))
                               : QDir::temp().filePath(QStringLiteral("muffle-demo-%1.muffle").arg(QCoreApplication::applicationPid()));
    if (!makeDemoBook(path, parser.value(demo))) {
      std::fprintf(stderr, "%s: no demo plan could be read there\n", qPrintable(parser.value(demo)));
      return 3;
    }
  } else if (!parser.positionalArguments().isEmpty()) {
    path = parser.positionalArguments().front();
  } else {
    const QString home = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
    QDir().mkpath(home);
    path = home + QStringLiteral("/my-house.muffle");
  }
  if (!window.openPath(path, true)) { // said in the window, which stays: others can be opened, a damaged one salvaged
    std::fprintf(stderr, "%s\n", qPrintable(window.notice()));
    if (parser.isSet(demo)) return 3;
  }
  if (parser.isSet(demo) && !window.importFileUnasked(parser.value(demo) + QStringLiteral("/log.csv"))) {
    std::fprintf(stderr, "%s: no demo log could be read there\n", qPrintable(parser.value(demo)));
    return 3;
  }
  document.planInHand().undoStack()->clear();
  window.show();
  if (parser.isSet(shots)) return takeShots(document, window, parser.value(shots));
  return QApplication::exec();
}
