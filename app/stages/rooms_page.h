// SPDX-License-Identifier: GPL-3.0-or-later
//
// Rooms within the house: a warm bay partitioned off at one end, and low tunnels over beds; how much warmer it was in each in
// the chosen night.
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <vector>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace muffle {

class RoomsPage : public QWidget {
  Q_OBJECT
public:
  explicit RoomsPage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  void rebuild();
  QWidget* card(std::size_t index);
  QWidget* bayCard();
  [[nodiscard]] QString bayText() const;
  [[nodiscard]] QString resultText(std::size_t index) const;
  void change(const QString& name, const std::function<void(std::vector<BedCover>&)>& what);
  Document& m_document;
  QVBoxLayout* m_cards;
  QLabel* m_empty;
  QPushButton *m_add, *m_addBay;
  QLabel* m_bayResult = nullptr;
  std::optional<std::string> m_shownBay; ///< its partition's material, while its card stands
  std::vector<QLabel*> m_results;        ///< by cover
  std::vector<std::string> m_shown;      ///< materials of the cards that stand, and whether each is lifted
};

} // namespace muffle
