// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/room_choice.h"

#include "app/model/said.h"
#include "core/plan/names.h"

#include <QSignalBlocker>

#include <algorithm>

namespace muffle {

RoomChoice::RoomChoice(Document& document, const QString& name, QWidget* parent) : QComboBox(parent), m_document(document) {
  setAccessibleName(name);
  connect(this, &QComboBox::currentIndexChanged, this, [this] { emit chosen(room()); });
  connect(&document, &Document::planChanged, this, &RoomChoice::refresh);
  refresh();
}

void RoomChoice::refresh() {
  const auto& bay = m_document.plan().house.bay;
  setVisible(bay.has_value());
  const QStringList rooms = bay ? QStringList{tr("the house"), said(nameOf(*bay))} : QStringList{tr("the house")};
  QStringList now;
  for (int i = 0; i < count(); ++i) now << itemText(i);
  if (now == rooms) return;
  const HeaterPlace::Of before = room();
  {
    const QSignalBlocker quiet(this);
    const int at = bay ? std::max(currentIndex(), 0) : 0;
    clear();
    addItems(rooms);
    setCurrentIndex(at);
  }
  if (room() != before) emit chosen(room());
}

} // namespace muffle
