// SPDX-License-Identifier: GPL-3.0-or-later
//
// What must not be overlooked, above the work: a line for each matter, with what can be done about it. A line stays until the matter is
// settled or it is put away; progress is told elsewhere.
#pragma once

#include <QString>
#include <QWidget>

#include <functional>
#include <map>
#include <vector>

class QVBoxLayout;

namespace muffle {

class NoticeBar : public QWidget {
  Q_OBJECT
public:
  struct Action {
    QString name;
    std::function<void()> act;
  };
  explicit NoticeBar(QWidget* parent = nullptr);
  /// Takes the place of a notice on the same matter. `canBePutAway`: with a button to do so.
  void show(const QString& matter, const QString& text, std::vector<Action> actions, bool canBePutAway);
  void settle(const QString& matter);
  [[nodiscard]] QString textOf(const QString& matter) const; ///< empty if it is not there

private:
  struct Line {
    QWidget* widget = nullptr;
    QString text;
  };
  std::map<QString, Line> m_lines;
  QVBoxLayout* m_column;
};

} // namespace muffle
