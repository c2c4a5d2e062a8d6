// SPDX-License-Identifier: GPL-3.0-or-later
//
// The log's nights as a table.
//   columns  night · outside low · at · inside low · at · lift · lag · cold owed · below freezing · wind · sky · heater
//   roles    DisplayRole in the window's units; SortRole a number or text to sort by
#pragma once

#include "app/model/document.h"

#include <QAbstractTableModel>

namespace muffle {

class NightsModel : public QAbstractTableModel {
  Q_OBJECT
public:
  enum Column { night, outsideLow, outsideAt, insideLow, insideAt, lift, lag, owed, freezing, wind, sky, heater, kColumns };
  static constexpr int SortRole = Qt::UserRole;

  explicit NightsModel(Document& document, QObject* parent = nullptr);
  [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : static_cast<int>(m_nights.size()); }
  [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : kColumns; }
  [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
  [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  [[nodiscard]] const Night& nightAt(int row) const { return m_nights[static_cast<std::size_t>(row)]; }
  /// Everything in it as CSV, in the window's units.
  [[nodiscard]] QString csv() const;

public slots:
  void takeNights();

private:
  [[nodiscard]] QString text(const Night& n, Column column) const;
  [[nodiscard]] QVariant number(const Night& n, Column column) const;
  Document& m_document;
  std::vector<Night> m_nights;
};

} // namespace muffle
