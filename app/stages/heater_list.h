// SPDX-License-Identifier: GPL-3.0-or-later
//
// The heaters of the rooms, one below the other in the turn in which they give: size, how far below the setpoint each begins, price, and what it gave.
// What heats a tank stands with its tank (Stores).
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <set>
#include <string>
#include <vector>

class QComboBox;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace muffle {

class HeaterList : public QWidget {
  Q_OBJECT
public:
  explicit HeaterList(Document& document, QWidget* parent = nullptr);
  void refresh();
  [[nodiscard]] QPushButton* addButton() const { return m_add; } ///< to stand where the page has room for it

private:
  struct Row {
    std::size_t heater; ///< among the plan's
    QLabel* words;
  };
  void rebuild();
  void addRow(std::size_t heater);
  QComboBox* woods(std::size_t heater);
  QWidget* tendedBy(std::size_t heater);
  void addFuel(std::size_t heater, QVBoxLayout& body);
  void addStoking(std::size_t heater, QVBoxLayout& body);
  void addPlace(std::size_t heater, QVBoxLayout& body);
  void addFlue(std::size_t heater, QVBoxLayout& body);
  void addWhen(std::size_t heater, QVBoxLayout& body);
  void setKind(std::size_t heater, HeaterKind kind);
  void addAnother();

  Document& m_document;
  QLabel* m_none;
  QVBoxLayout* m_rows;
  QPushButton* m_add;
  std::vector<Row> m_shown;
  std::set<std::string> m_opened;      ///< ids of those whose hours and limits are in sight
  QStringList m_signature; ///< of what the rows were made for
};

} // namespace muffle
