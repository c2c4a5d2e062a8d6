// SPDX-License-Identifier: GPL-3.0-or-later
//
// How air goes in and out: vents, rolled sides, a fan, a roof that draws back, what keeps them shut, and draughts by leakage
// area; how warm the house became.
#pragma once

#include "app/model/look.h"
#include "app/stages/number_field.h"

#include <QWidget>

#include <functional>
#include <vector>

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;

namespace muffle {

class VentsPage : public QWidget {
  Q_OBJECT
public:
  explicit VentsPage(Document& document, QWidget* parent = nullptr);
  void refresh();

private:
  /// A row of its own: a box that builds the opening in or takes it away, and its fields, shown while it is there.
  void opening(const QString& name, const QString& tip, const std::function<bool(const House&)>& has, const std::function<void(House&, bool)>& put);
  void number(const QString& name, Quantity quantity, const Find<double>& of, double min, double max, double nudge, const QString& source,
              std::optional<NumberField::Spec::Word> word = {});
  void startRow();
  void edit(const QString& name, const std::function<void(House&)>& change);
  [[nodiscard]] QString warmthText() const;

  struct Shown {
    QWidget* field;
    Find<double> of;
  };
  struct Opening {
    QCheckBox* box;
    std::function<bool(const House&)> has;
  };
  Document& m_document;
  QGridLayout* m_grid;
  int m_row = 0, m_column = 0;
  std::vector<Shown> m_fields;
  std::vector<Opening> m_openings;
  QCheckBox* m_rain;
  QComboBox* m_shelter;
  QLabel* m_warmth;
};

} // namespace muffle
