// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the house stands: coordinates as people write them, height, time zone, ground, wind and money, each with what was assumed.
#pragma once

#include "app/model/document.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;

namespace muffle {

class PlacePage : public QWidget {
  Q_OBJECT
public:
  explicit PlacePage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  void takeCoordinates();
  void takeZone();
  void takeText(const QString& what, const QString& text, std::string& (*of)(Plan&));
  Document& m_document;
  QLabel *m_question, *m_why, *m_sun;
  QLineEdit *m_at, *m_name, *m_currency;
  QComboBox* m_zone;
};

} // namespace muffle
