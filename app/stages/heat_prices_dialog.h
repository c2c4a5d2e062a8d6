// SPDX-License-Identifier: GPL-3.0-or-later
//
// Fuels side by side: what each is bought for, and what a kWh of heat, and a winter's, comes to by it at this house's loads.
#pragma once

#include "app/model/document.h"

#include <QDialog>

class QGridLayout;
class QLabel;

namespace muffle {

class HeatPricesDialog : public QDialog {
  Q_OBJECT
public:
  explicit HeatPricesDialog(Document& document, QWidget* parent = nullptr);
  /// A line a kind, the cheapest first.
  [[nodiscard]] QString words() const;

private:
  void refresh();
  void addRow(Carrier fuel);

  Document& m_document;
  QGridLayout* m_grid;
  QLabel* m_words;
};

} // namespace muffle
