// SPDX-License-Identifier: GPL-3.0-or-later
//
// What was recognised in a logger's file, live, with every guess changeable, before anything is kept. A file whose headings a recipe
// knows is read by it; what is chosen here can be kept as one.
#pragma once

#include "app/model/document.h"
#include "core/log/recipe.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
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
  /// True if it is to be added to the log there is, not to take its place.
  [[nodiscard]] bool adds() const { return m_adds; }
  /// To be kept, if the grower gave it a name.
  [[nodiscard]] std::optional<Recipe> recipe() const;

public slots:
  /// Reads the rest of a long file off the interface thread, with progress and cancel, then accepts.
  void accept() override;

private:
  [[nodiscard]] ReadOptions options() const;
  [[nodiscard]] Clockwork clock() const;
  void useRecipe(const Recipe& recipe);
  void preview();
  void showColumns();
  void showRows();
  void choose(const ColumnChoice& choice);
  void checkKeep();
  Document& m_document;
  QString m_name;
  std::string m_bytes;
  std::optional<ReadLog> m_read;
  std::vector<ColumnChoice> m_choices; ///< where they differ from what was recognised
  QString m_knownAs;                   ///< name of the recipe it was read by
  bool m_adds = false;
  QComboBox *m_separator, *m_unit, *m_dates, *m_decimal, *m_clock;
  QLabel *m_recognised, *m_question;
  QTableWidget* m_columns;
  QTableWidget* m_rows;
  QLineEdit* m_recipe;
  std::vector<QPushButton*> m_keep;
};

} // namespace muffle
