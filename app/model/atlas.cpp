// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/atlas.h"

#include <QFile>

#include <algorithm>
#include <chrono>
#include <future>
#include <numeric>

static void loadTowns() { Q_INIT_RESOURCE(towns); }

namespace muffle {
namespace {

constexpr double kOutlineStep_deg = 0.05;

QByteArray bytesOf(const QString& name) {
  QFile file(name);
  return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

std::vector<QPolygonF> outlinesFrom(const QByteArray& text) {
  std::vector<QPolygonF> lines;
  for (const QByteArray& row : text.split('\n')) {
    QPolygonF line;
    QPointF at;
    const QList<QByteArray> numbers = row.split(' ');
    for (qsizetype i = 0; i + 1 < numbers.size(); i += 2) {
      at += QPointF(numbers[i].toInt(), numbers[i + 1].toInt()) * kOutlineStep_deg;
      line << at;
    }
    if (line.size() > 1) lines.push_back(line);
  }
  return lines;
}

Atlas readAtlas() {
  Atlas made;
  // what ships is whole: a test reads every line of it
  if (auto towns = Gazetteer::read(bytesOf(QStringLiteral(":/data/places.txt")).toStdString(), bytesOf(QStringLiteral(":/data/other-names.txt")).toStdString()))
    made.towns = std::move(*towns);
  const auto& towns = made.towns.towns();
  made.bySize.resize(towns.size());
  std::iota(made.bySize.begin(), made.bySize.end(), 0U);
  std::stable_sort(made.bySize.begin(), made.bySize.end(), [&](std::size_t a, std::size_t b) { return towns[a].people_hundreds > towns[b].people_hundreds; });
  made.outlines = outlinesFrom(bytesOf(QStringLiteral(":/data/outlines.txt")));
  for (const char* name : {"/usr/share/zoneinfo/zone.tab", "/usr/share/zoneinfo/zone1970.tab"})
    if (made.zoneTable.empty()) made.zoneTable = bytesOf(QString::fromLatin1(name)).toStdString();
  return made;
}

std::shared_future<Atlas>& reading() {
  loadTowns();
  static std::shared_future<Atlas> future = std::async(std::launch::async, readAtlas).share();
  return future;
}

} // namespace

void beginAtlas() { reading(); }
const Atlas* atlasIfRead() {
  const auto& future = reading();
  return future.wait_for(std::chrono::seconds(0)) == std::future_status::ready ? &future.get() : nullptr;
}
const Atlas& atlas() { return reading().get(); }

} // namespace muffle
