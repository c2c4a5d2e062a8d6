// SPDX-License-Identifier: GPL-3.0-or-later
//
// What was found wrong with the log, kind by kind, each with its reason; the grower agrees or uses the readings after all, singly or for
// all of a kind. Raw readings stay, and every word can be undone.
#pragma once

#include "app/model/document.h"

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace muffle {

class FaultsList : public QWidget {
  Q_OBJECT
public:
  explicit FaultsList(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// A further button beside those of the list.
  void addButton(QPushButton* button);
  [[nodiscard]] QTreeWidget* tree() { return m_tree; }

signals:
  void pointed(UtcSeconds from, UtcSeconds to); ///< a stretch was chosen

private:
  [[nodiscard]] std::vector<LogProblem> chosen() const;
  void say(Verdict verdict, const QString& name);
  void choiceChanged();
  [[nodiscard]] QString leftOutText() const;
  Document& m_document;
  QTreeWidget* m_tree;
  QHBoxLayout* m_buttons;
  QLabel* m_leftOut;
  QPushButton *m_agree, *m_use;
};

} // namespace muffle
