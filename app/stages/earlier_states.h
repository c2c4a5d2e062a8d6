// SPDX-License-Identifier: GPL-3.0-or-later
//
// The states of the book that are kept, newest first, with what each would change; one of them can be brought back.
#pragma once

#include "app/model/document.h"

#include <QDialog>

class QLabel;
class QPushButton;
class QTreeWidget;

namespace muffle {

class EarlierStatesDialog : public QDialog {
  Q_OBJECT
public:
  explicit EarlierStatesDialog(Document& document, QWidget* parent = nullptr);
  [[nodiscard]] QTreeWidget* list() const { return m_list; }

private:
  void showChosen();
  void bringBack();
  void compare();
  [[nodiscard]] const Snapshot* chosen() const;
  Document& m_document;
  std::vector<Snapshot> m_states;
  QTreeWidget* m_list;
  QLabel* m_words;
  QPushButton *m_back, *m_compare;
};

/// What differs between two plans, in the words of their fields, such as "setpoints, barrels"; empty if nothing does.
QString differenceBetween(const Plan& a, const Plan& b);

} // namespace muffle
