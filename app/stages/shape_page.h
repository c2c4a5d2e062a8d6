// SPDX-License-Identifier: GPL-3.0-or-later
//
// The house's shape: silhouettes to choose from, drawn by the same geometry that is calculated with, and its measures.
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <vector>

class QAbstractButton;
class QCheckBox;
class QComboBox;
class QLabel;

namespace muffle {

class ShapePage : public QWidget {
  Q_OBJECT
public:
  explicit ShapePage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  QComboBox* coverChoice();
  [[nodiscard]] QString takenAsUsual() const;

  Document& m_document;
  std::vector<QAbstractButton*> m_silhouettes;
  QWidget *m_bays, *m_length;
  QWidget* m_byAirChanges[2]; ///< of no account where draughts go by leakage area
  QComboBox *m_cover, *m_draughty;
  QCheckBox* m_lobby;
  QLabel *m_sums, *m_taken;
};

} // namespace muffle
