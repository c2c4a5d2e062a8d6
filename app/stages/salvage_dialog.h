// SPDX-License-Identifier: GPL-3.0-or-later
//
// What was saved of a damaged book, what is doubtful and what is lost; the list can be copied.
#pragma once

#include "book/salvage.h"

#include <QDialog>

namespace muffle {

class SalvageDialog : public QDialog {
  Q_OBJECT
public:
  SalvageDialog(const Salvaged& found, const QString& newBook, QWidget* parent = nullptr);
};

} // namespace muffle
