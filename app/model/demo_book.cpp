// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/demo_book.h"

#include "book/book.h"
#include "book/files.h"
#include "core/plan/plan_json.h"

#include <QCoreApplication>
#include <QFile>

namespace muffle {

std::optional<QString> demoFolder() {
  const QString here = QCoreApplication::applicationDirPath();
  for (const char* beside : {"/../share/muffle/demo", "/../demo"}) { // installed; in a build tree
    const QString folder = here + QString::fromLatin1(beside);
    if (QFile::exists(folder + QStringLiteral("/plan.json")) && QFile::exists(folder + QStringLiteral("/log.csv"))) return folder;
  }
  return std::nullopt;
}

bool makeDemoBook(const QString& path, const QString& folder) {
  const auto text = readFile((folder + QStringLiteral("/plan.json")).toStdString());
  if (!text) return false;
  const auto json = parseJson(*text);
  if (!json) return false;
  const auto plan = planFromJson(*json);
  if (!plan) return false;
  QFile::remove(path);
  auto book = Book::open(path.toStdString(), Book::Mode::create);
  return book && book->addPlan(*plan);
}

} // namespace muffle
