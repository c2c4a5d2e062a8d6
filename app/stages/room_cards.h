// SPDX-License-Identifier: GPL-3.0-or-later
//
// One card for each room within the house: what it is made of, and what it came to in the chosen night.
#pragma once

#include "app/model/document.h"
#include "app/model/look.h"
#include "core/plan/rooms.h"

#include <QWidget>

#include <functional>

class QComboBox;
class QGridLayout;
class QLabel;

namespace muffle {

class StackField;

class RoomCard : public QWidget {
  Q_OBJECT
public:
  RoomCard(Document& document, RoomKind kind, std::size_t bed, QWidget* parent);
  void refresh();
  /// What the card shows that is not a number: a change of it needs a new card.
  static QString signature(const Plan& plan, RoomKind kind, std::size_t bed);

private:
  using InHouse = std::function<double*(House&)>; ///< nullptr where the room is gone
  void bay();
  void lobby();
  void roofVoid();
  void bedCover();
  void fan(int row, const std::function<std::optional<RoomFan>*(House&)>& of, const QString& drawsFrom);
  void number(int row, int column, const QString& name, Quantity quantity, const InHouse& of, double min, double max, double nudge, const QString& source);
  void stack(int row, const QString& name, const Find<Skin>& of, FaceGroup lies);
  void heading(const QString& name, const QString& takeAway, const QString& step, const std::function<void(Plan&)>& remove);
  QComboBox* choice(int row, int column, const QString& name, const QStringList& items, int now, const QString& step,
                    const std::function<void(House&, int)>& put);
  void edit(const QString& name, const std::function<void(House&)>& change);
  [[nodiscard]] QString resultText() const;

  Document& m_document;
  RoomKind m_kind;
  std::size_t m_bed;
  QGridLayout* m_grid;
  QLabel* m_result;
  StackField* m_stack = nullptr;
};

} // namespace muffle
