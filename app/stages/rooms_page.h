// SPDX-License-Identifier: GPL-3.0-or-later
//
// Rooms within the house: a warm bay and a lobby at its ends, a ceiling at the eaves, low tunnels over beds; how much warmer it
// was in each in the chosen night.
#pragma once

#include "app/stages/room_cards.h"

#include <QStringList>
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
  void edit(const QString& name, const std::function<void(Plan&)>& change);
  void addBay();
  void addBed();
  Document& m_document;
  QVBoxLayout* m_cards = nullptr;
  QLabel* m_empty;
  QPushButton *m_add, *m_addBay, *m_addLobby, *m_addCeiling;
  std::vector<RoomCard*> m_rooms; ///< the cards that stand
  QStringList m_shown;            ///< their signatures
};

} // namespace muffle
