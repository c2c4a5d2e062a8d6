// SPDX-License-Identifier: GPL-3.0-or-later
//
// The plan's stores, one in hand: how warm it was through the night and the winter, what it gave and cost, and its numbers.
#pragma once

#include "app/stages/store_choice.h"
#include "app/stages/store_placing.h"

#include <QWidget>

class QButtonGroup;
class QHBoxLayout;
class QLabel;
class QPushButton;

namespace muffle {

class CautionLabel;

class Plot;
class StoreFields;

class StoresPage : public QWidget {
  Q_OBJECT
public:
  StoresPage(Document& document, StoreChoice& choice, QWidget* parent = nullptr);
  void refresh();
  /// Adds what the menu lists at a place, where such stores usually stand.
  void add(std::size_t addition);
  /// What the menu does: has it set down in the section, or adds it where the section does not show its kind.
  void choose(std::size_t addition);
  /// Takes the last of its kind in hand.
  void takeUp(StoreKind kind);
  /// The winter instead of the days about the chosen night.
  void showWinter(bool on);
  [[nodiscard]] QString words() const;

signals:
  void placing(const StorePlacing& store); ///< to be set down in the section

private:
  void rebuildChips();
  void remove();
  void draw();
  [[nodiscard]] QString told() const;
  Document& m_document;
  StoreChoice& m_choice;
  QHBoxLayout* m_chips;
  QButtonGroup* m_group;
  QStringList m_shown;
  QLabel* m_words;
  QPushButton *m_add, *m_remove, *m_more, *m_span;
  Plot* m_plot;
  StoreFields* m_fields;
  CautionLabel* m_caution;
};

} // namespace muffle
