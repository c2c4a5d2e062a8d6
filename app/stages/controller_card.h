// SPDX-License-Identifier: GPL-3.0-or-later
//
// Sends tonight's setpoints to the house's controller, and shows what it says it holds beside what was sent.
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <map>

class QLabel;
class QLineEdit;
class QPushButton;

namespace muffle {

class ControllerCard : public QWidget {
  Q_OBJECT
public:
  explicit ControllerCard(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// What would be sent now; by the forecast that is typed where setpoints follow it.
  [[nodiscard]] std::map<std::string, double> setpoints_C() const;
  [[nodiscard]] QString words() const;

private:
  void join(const QString& address);
  [[nodiscard]] double outside_C(const QLineEdit& forecast, double usual_C) const;

  Document& m_document;
  QLineEdit *m_address, *m_low, *m_high; ///< where it is, and what is forecast
  QPushButton *m_join, *m_send;
  QLabel* m_words;
};

} // namespace muffle
