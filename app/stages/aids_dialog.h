// SPDX-License-Identifier: GPL-3.0-or-later
//
// The measuring aids: choose one, write the readings with any unit and what they may be off by, and read the answer with its own.
#pragma once

#include "core/calc/aids.h"

#include <QDialog>

#include <vector>

class QFormLayout;
class QLabel;
class QLineEdit;
class QListWidget;

namespace muffle {

class AidsDialog : public QDialog {
  Q_OBJECT
public:
  explicit AidsDialog(QWidget* parent = nullptr);
  void showAid(int aid);
  [[nodiscard]] QLineEdit* field(const QString& key);
  [[nodiscard]] QString answer() const;

private:
  void answerNow();
  QListWidget* m_list;
  QLabel *m_what, *m_answer;
  QFormLayout* m_form;
  struct Field {
    QLineEdit* edit;
    QLabel* remark;
  };
  std::vector<Field> m_fields;
  int m_aid = -1;
};

} // namespace muffle
