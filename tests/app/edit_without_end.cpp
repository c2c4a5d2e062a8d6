// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/app/edit_without_end.h"

#include "app/stages/main_window.h"

#include <QCoreApplication>

#include <cmath>
#include <cstdio>
#include <string>

namespace muffle {

Log numberedLog(int rows) {
  Log log;
  log.name = std::to_string(rows);
  Channel c;
  c.role = Role::outside;
  for (int i = 0; i < rows; ++i) log.time.push_back(1'900'000'000 + 600 * i), c.raw.push_back(static_cast<float>(i % 53) / 4.0F);
  c.flag.assign(c.raw.size(), 0);
  log.channels = {c};
  return log;
}

int editWithoutEnd(const char* book) {
  Document document;
  MainWindow window(document);
  window.setRemembersBooks(false);
  if (!window.openPath(QString::fromLocal8Bit(book), false)) return 1;
  window.show();
  for (int i = static_cast<int>(std::lround(document.plan().house.shape.length_m));; ++i) {
    const int k = 10 + i % 190;
    document.edit(QStringLiteral("longer"), [k](Plan& p) {
      p.house.shape.length_m = k;
      p.house.airChanges_per_h = k / 100.0; // two fields that must always agree
    });
    if (i % 7 == 0) document.readings().set(numberedLog(500 + 10 * (i % 50)));
    if (i % 3 == 0) document.planInHand().undoStack()->undo(), document.planInHand().undoStack()->redo();
    QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    if (!document.book().waitUntilSaved()) continue;
    std::printf("%d\n", k);
    std::fflush(stdout);
  }
}

} // namespace muffle
