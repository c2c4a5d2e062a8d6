// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/stage_page.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace muffle {

class Plot;
class NumberField;

/// Water barrels: sizes, and how warm they stayed through the night and the winter.
class StoresStage : public StagePage {
  Q_OBJECT
public:
  explicit StoresStage(Document& document, QWidget* parent = nullptr);

private:
  void refresh() override;
  Plot* m_winter;
  QWidget* m_fields;
  QComboBox* m_colour;
  QPushButton* m_add;
  QPushButton* m_remove;
  QLabel* m_words;
  QLabel* m_caution;
};

} // namespace muffle
