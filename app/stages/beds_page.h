// SPDX-License-Identifier: GPL-3.0-or-later
//
// Low tunnels over beds inside the house: size, cover, and how much warmer it was under each in the chosen night.
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <vector>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace muffle {

class BedsPage : public QWidget {
  Q_OBJECT
public:
  explicit BedsPage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  void rebuild();
  QWidget* card(std::size_t index);
  [[nodiscard]] QString resultText(std::size_t index) const;
  void change(const QString& name, const std::function<void(std::vector<BedCover>&)>& what);
  Document& m_document;
  QVBoxLayout* m_cards;
  QLabel* m_empty;
  QPushButton* m_add;
  std::vector<QLabel*> m_results;   ///< by cover
  std::vector<std::string> m_shown; ///< materials of the cards that stand, and whether each is lifted
};

} // namespace muffle
