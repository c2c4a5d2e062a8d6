// SPDX-License-Identifier: GPL-3.0-or-later
//
// What counts as holding, and what a plan must keep to: the wishes of the search for least cost.
#pragma once

#include "app/model/document.h"

#include <QWidget>

class QCheckBox;

namespace muffle {

class WishesCard : public QWidget {
  Q_OBJECT
public:
  explicit WishesCard(Document& document, QWidget* parent = nullptr);

signals:
  /// All of them are in sight, or the two that are always.
  void opened(bool isOpen);

private:
  void check(const QString& words, const QString& source, bool Ask::*wish);
  Document& m_document;
  std::vector<std::pair<QCheckBox*, bool Ask::*>> m_checks;
};

} // namespace muffle
