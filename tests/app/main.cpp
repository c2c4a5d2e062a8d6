// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/theme.h"
#include "app/model/kept_together.h"
#include "app/stages/spoken.h"
#include "tests/app/edit_without_end.h"

#include <gtest/gtest.h>

#include <QApplication>
#include <QStyleFactory>
#include <QTemporaryDir>

#include <string_view>

int main(int argc, char** argv) {
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  const QTemporaryDir home; // remembered books and the demo's own book belong to no one here
  qputenv("XDG_CONFIG_HOME", home.path().toUtf8());
  qputenv("XDG_DATA_HOME", home.path().toUtf8());
  ::testing::InitGoogleTest(&argc, argv);
  QApplication app(argc, argv);
  QApplication::setApplicationName(QStringLiteral("muffle"));
  QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
  static muffle::KeptTogether kept;
  QCoreApplication::installTranslator(&kept);
  muffle::speakPaintedViews();
  muffle::loadFonts();
  if (argc == 3 && std::string_view(argv[1]) == "--edit-without-end") return muffle::editWithoutEnd(argv[2]);
  return RUN_ALL_TESTS();
}
