// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the window calls stores and what it says of each with care.
#pragma once

#include "app/model/units.h"
#include "core/plan/store_list.h"

#include <QCoreApplication>
#include <QString>

#include <vector>

namespace muffle {

class StoreWords {
  Q_DECLARE_TR_FUNCTIONS(StoreWords)
public:
  /// "pipes under the floor", "hot bed", ...
  static QString kind(const Plan& plan, const StoreRef& store);
  /// In a word or two, for a row of them.
  static QString brief(const Plan& plan, const StoreRef& store);
  static QString trace(StoreTrace trace);
  /// An energy without its unit, to a tenth below ten.
  static QString kWh(double value);
  /// "3 pipes", "960 kg", ...
  static QString size(const StoreRef& store, double size, const Units& units);
  /// What it is counted by: "pipes", "kg", ...
  static QString measure(const StoreRef& store, const Units& units);

  /// What may be added to a plan.
  struct Addition {
    QString name;
    QString says;
    std::function<void(Plan&)> add;
    StoreKind kind;
  };
  static std::vector<Addition> additions();
};

} // namespace muffle
