// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the window calls kinds of heaters, what they take and are sold by, and what can fail.
#pragma once

#include "core/failure/failure.h"

#include <QCoreApplication>
#include <QString>

namespace muffle {

class HeaterWords {
  Q_DECLARE_TR_FUNCTIONS(HeaterWords)
public:
  static QString kind(HeaterKind kind);
  static QString carrier(Carrier carrier);
  /// In the singular: "litre", "bottle of 11 kg".
  static QString unit(const char* id);
  static QString failing(const FailingThing& thing);
};

} // namespace muffle
