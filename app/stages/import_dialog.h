// SPDX-License-Identifier: GPL-3.0-or-later
//
// What was recognised in a logger's file, live, with every guess changeable, before anything is kept.
#pragma once

#include "app/model/document.h"
#include "core/log/read.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace muffle {

class ImportDialog : public QDialog {
  Q_OBJECT
public:
  ImportDialog(Document& document, QString bytesName, std::string bytes, QWidget* parent = nullptr);
  [[nodiscard]] const std::optional<ReadLog>& read() const { return m_read; }
  /// The log that was kept; the dialog has it no longer.
  [[nodiscard]] Log takeLog() { return std::move(m_read->log); }

public slots:
  /// Reads the rest of a long file off the interface thread, with progress and cancel, then accepts.
  void accept() override;

private:
  [[nodiscard]] ReadOptions options() const;
  void preview();
  void rolesChanged();
  Document& m_document;
  QString m_name;
  std::string m_bytes;
  std::optional<ReadLog> m_read;
  QComboBox *m_separator, *m_unit, *m_dates, *m_decimal;
  QLabel* m_recognised;
  QTableWidget* m_columns;
  QTableWidget* m_rows;
  QPushButton* m_keep;
};

} // namespace muffle
