// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where the house stands: a town by name, coordinates as people write them or a pin on a map; height, time zone, ground, wind, frosts
// and money, each with what was assumed.
#pragma once

#include "app/model/document.h"
#include "core/site/climate.h"
#include "core/site/gazetteer.h"

#include <QWidget>

#include <tuple>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace muffle {

class AnnualLowsField;
class OutlineMap;
class TownField;

class PlacePage : public QWidget {
  Q_OBJECT
public:
  explicit PlacePage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  /// At these coordinates, by the land of the town that was meant or is nearest, and by its name where that was meant or there is none.
  void take(Coordinates at, const Town* town, bool naming, const QString& aside = {});
  /// Until the place is another.
  void say(const QString& words);
  void takeZone();
  void takeFrost(QLineEdit* field, std::optional<double> Site::*day, const QString& what);
  void takeGround();
  void takeText(const QString& what, const QString& text, std::string& (*of)(Plan&));
  void showFrost(QLineEdit* field, std::optional<double> day, const std::vector<LoggedWinter>& winters, std::optional<Date> LoggedWinter::*logged);
  [[nodiscard]] QString sunWords() const;
  [[nodiscard]] QString groundWords(const std::optional<AirYear>& year) const;
  Document& m_document;
  QLabel *m_question, *m_why, *m_sun, *m_ground, *m_lows;
  TownField* m_at;
  QLineEdit *m_name, *m_currency, *m_firstFrost, *m_lastFrost;
  AnnualLowsField* m_annualLows;
  QComboBox* m_zone;
  OutlineMap* m_map;
  QPushButton* m_takeGround;
  std::tuple<double, double, std::string> m_saidOf; ///< the place that the words in sight are of
};

} // namespace muffle
