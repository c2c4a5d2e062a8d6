// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readings typed in as they are read, a line each, understood while they are typed.
#pragma once

#include "app/model/document.h"
#include "core/log/by_hand.h"

#include <QDialog>

class QDateEdit;
class QLabel;
class QPlainTextEdit;
class QPushButton;
class QTableWidget;

namespace muffle {

class HandSheetDialog : public QDialog {
  Q_OBJECT
public:
  explicit HandSheetDialog(Document& document, QWidget* parent = nullptr);
  [[nodiscard]] Log log() const { return logByHand(m_sheet); }
  [[nodiscard]] QPlainTextEdit* lines() { return m_lines; }
  [[nodiscard]] const HandSheet& sheet() const { return m_sheet; }

private:
  void understand();
  void refusePaste(const QString& why);
  Document& m_document;
  HandSheet m_sheet;
  QDateEdit* m_day;
  QPlainTextEdit* m_lines;
  QTableWidget* m_table;
  QLabel* m_problems;
  QPushButton* m_keep;
};

} // namespace muffle
