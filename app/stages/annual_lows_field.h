// SPDX-License-Identifier: GPL-3.0-or-later
//
// The coldest of each winter the grower knows of, as numbers with blanks between them.
#pragma once

#include "app/model/document.h"

#include <QLineEdit>

namespace muffle {

class AnnualLowsField : public QLineEdit {
  Q_OBJECT
public:
  explicit AnnualLowsField(Document& document, QWidget* parent = nullptr);
  /// What the plan holds, unless it is being typed in.
  void refresh();

signals:
  /// Why what was typed is not taken; the plan stays as it was.
  void refused(const QString& why);

private:
  void take();
  Document& m_document;
};

} // namespace muffle
