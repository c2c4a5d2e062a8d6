// SPDX-License-Identifier: GPL-3.0-or-later
//
// The ground: how warm it is by depth and month, whether it is constant where pipes lie, and how much pipe: what growers go by beside
// what heat exchange with this soil says.
#pragma once

#include "app/stages/store_choice.h"

#include <QWidget>

class QLabel;

namespace muffle {

class NumberField;
class Plot;

class GroundPage : public QWidget {
  Q_OBJECT
public:
  GroundPage(Document& document, StoreChoice& choice, QWidget* parent = nullptr);
  void refresh();
  /// The soil under the house at the moment in sight; the rest stays.
  void followClock() { drawDepths(); }
  [[nodiscard]] QString words() const;

private:
  void drawDepths();
  void drawPipes();
  Document& m_document;
  StoreChoice& m_choice;
  QLabel *m_constant, *m_rules;
  Plot *m_depths, *m_pipes;
};

} // namespace muffle
