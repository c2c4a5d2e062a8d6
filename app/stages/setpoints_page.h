// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a room is asked to hold: one setpoint or bands that follow the forecast, by the sun or by the clock, with a limit on what lies between night and
// day; and what that came to over the logged nights.
#pragma once

#include "app/model/document.h"
#include "app/model/look.h"
#include "core/control/asked_setpoints.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QVBoxLayout;

namespace muffle {

class ControllerCard;
class NumberField;
class Plot;
class RoomChoice;

class SetpointsPage : public QWidget {
  Q_OBJECT
public:
  explicit SetpointsPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  [[nodiscard]] QString words() const;

private:
  [[nodiscard]] QString evenness(const Setpoints& of) const;
  template <class Band> struct Side; ///< what differs between the night's bands and the day's
  /// The setpoints of the chosen room in a plan; none where it has no such room.
  [[nodiscard]] Find<Setpoints> setpoints() const;
  void rebuild();
  template <class Band> void addSide(QVBoxLayout& column, const Side<Band>& side);
  template <class Band> void addBand(QVBoxLayout& column, const Side<Band>& side, std::size_t at);
  template <class Band> void follow(const Side<Band>& side, bool weather);
  void addWhen(QGridLayout& grid);
  void addFelt(QGridLayout& grid, int row);
  void edit(const QString& step, const std::function<void(Setpoints&)>& change);
  void draw(const Setpoints& of, const std::vector<AskedSetpoint>& nights, const std::vector<AskedSetpoint>& days);
  [[nodiscard]] QString told(const Setpoints& of, const std::vector<AskedSetpoint>& nights, const std::vector<AskedSetpoint>& days) const;

  Document& m_document;
  RoomChoice* m_room;
  QLabel* m_words;
  QVBoxLayout* m_cards;
  Plot* m_plot;
  ControllerCard* m_controller = nullptr; ///< of the house; gone while the bay is chosen
  QStringList m_signature; ///< of what the fields were made for
};

} // namespace muffle
