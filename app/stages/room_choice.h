// SPDX-License-Identifier: GPL-3.0-or-later
//
// The house or its warm bay, where a page is of one of them; out of sight while there is no bay.
#pragma once

#include "app/model/document.h"

#include <QComboBox>

namespace muffle {

class RoomChoice : public QComboBox {
  Q_OBJECT
public:
  RoomChoice(Document& document, const QString& name, QWidget* parent);
  [[nodiscard]] HeaterPlace::Of room() const { return currentIndex() == 1 ? HeaterPlace::Of::bay : HeaterPlace::Of::house; }

signals:
  void chosen(HeaterPlace::Of room);

private:
  void refresh();
  Document& m_document;
};

} // namespace muffle
