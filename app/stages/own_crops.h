// SPDX-License-Identifier: GPL-3.0-or-later
//
// Crops of the grower's own: set out from a row of the table, put right by what was seen to harm them, usable wherever the table's are.
#pragma once

#include "app/model/document.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QVBoxLayout;

namespace muffle {

class OwnCropsDialog : public QDialog {
  Q_OBJECT
public:
  explicit OwnCropsDialog(Document& document, QWidget* parent = nullptr);

private:
  void refresh();
  QWidget* card(std::size_t index);
  void edit(const QString& name, const std::function<void(Plan&)>& change);
  Document& m_document;
  QVBoxLayout* m_cards = nullptr;
  QLabel* m_refused;
  QComboBox* m_from;
  std::vector<std::string> m_shown; ///< ids of the cards that stand
};

} // namespace muffle
