// SPDX-License-Identifier: GPL-3.0-or-later
//
// What differs between the plan and the one it is compared with, thing by thing.
#pragma once

#include "app/model/document.h"

#include <QDialog>

class QTableWidget;

namespace muffle {

class DifferencesDialog : public QDialog {
  Q_OBJECT
public:
  /// A second plan must be there.
  explicit DifferencesDialog(const Document& document, QWidget* parent = nullptr);
  [[nodiscard]] QTableWidget* table() const { return m_table; }

private:
  QTableWidget* m_table;
};

} // namespace muffle
