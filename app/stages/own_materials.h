// SPDX-License-Identifier: GPL-3.0-or-later
//
// Materials of the grower's own: set out from a row of the table, put right by a maker's sheet, usable wherever the table's are.
#pragma once

#include "app/model/document.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QVBoxLayout;

namespace muffle {

class OwnMaterialsDialog : public QDialog {
  Q_OBJECT
public:
  explicit OwnMaterialsDialog(Document& document, QWidget* parent = nullptr);

private:
  void refresh();
  QWidget* card(std::size_t index);
  void edit(const QString& name, const std::function<void(std::vector<OwnMaterial>&)>& change);
  Document& m_document;
  QVBoxLayout* m_cards = nullptr;
  QLabel* m_refused;
  QComboBox* m_from;
  std::vector<std::string> m_shown; ///< ids of the cards that stand
};

} // namespace muffle
