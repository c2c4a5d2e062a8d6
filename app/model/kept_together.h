// SPDX-License-Identifier: GPL-3.0-or-later
//
// Keeps numbers and their units on one line: every sentence of the window passes here (it asks for its translation), and the blank
// between a number's place and its unit becomes one that does not break. The one place for it; figures put together elsewhere come
// from Units::text(), which does the same.
//
//   static KeptTogether kept;
//   QCoreApplication::installTranslator(&kept);
#pragma once

#include <QTranslator>

namespace muffle {

class KeptTogether : public QTranslator {
public:
  using QTranslator::QTranslator;
  /// Of a sentence without such a blank nothing, which leaves it as it is.
  [[nodiscard]] QString translate(const char* context, const char* source, const char* disambiguation, int n) const override;
  [[nodiscard]] bool isEmpty() const override { return false; }
};

} // namespace muffle
