// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the house stands on and what grows in it: soil and what lies on it, water given to the air, light lost on the way in;
// and how damp each room was.
#pragma once

#include "app/model/document.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace muffle {

class FloorPage : public QWidget {
  Q_OBJECT
public:
  explicit FloorPage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  void choose(const QString& name, const std::function<void(Floor&)>& change);
  [[nodiscard]] QString dampText() const;
  Document& m_document;
  QComboBox *m_soil, *m_cover;
  QWidget* m_thickness;
  QLabel* m_damp;
};

} // namespace muffle
