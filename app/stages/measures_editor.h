// SPDX-License-Identifier: GPL-3.0-or-later
//
// What may be added to the plan: each measure with the sizes to try, its price, life and work. Every change is an edit of
// the plan. Sizes are typed as a list; a list that cannot be read is refused beside it and the old one stays.
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <functional>
#include <utility>
#include <vector>

class QComboBox;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace muffle {

/// The unit that a measure's sizes are given in.
Quantity levelQuantity(MeasureKind kind);
/// "3 kW, 5 kW" in the shown units; and back. Nothing if a part cannot be read or there is none.
QString levelsText(const Measure& measure, const Units& units);
std::optional<std::vector<double>> parseLevels(const QString& typed, MeasureKind kind, const Units& units);

class MeasuresEditor : public QWidget {
  Q_OBJECT
public:
  explicit MeasuresEditor(Document& document, QWidget* parent = nullptr);

private:
  void rebuild();
  void refresh();
  QWidget* card(std::size_t index);
  void stateChanges(QLabel& label, const Measure& own) const;
  struct Choosable {
    std::vector<std::pair<QString, int>> items;
    std::function<int(const Measure&)> get;
    std::function<void(Plan&, Measure&, int)> set;
  };
  QComboBox* choice(std::size_t index, const QString& name, const QString& step, const Choosable& of, QWidget* card);
  QComboBox* offers(std::size_t index, QWidget* card);
  QPushButton* rules(std::size_t index, QWidget* card);
  void offerChanges();
  QComboBox* heaterKinds(std::size_t index, QWidget* card);
  QComboBox* coveredFaces(std::size_t index, QWidget* card);
  [[nodiscard]] std::vector<MeasureKind> kinds() const;
  Document& m_document;
  QVBoxLayout* m_cards;
  QComboBox* m_add;
  std::vector<MeasureKind> m_shown;
};

} // namespace muffle
