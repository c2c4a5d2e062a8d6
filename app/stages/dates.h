// SPDX-License-Identifier: GPL-3.0-or-later
//
// A calendar day as the window writes it, and what a winter is reckoned from.
#pragma once

#include "core/calendar.h"
#include "core/cost/cost.h"

#include <QCoreApplication>
#include <QDate>
#include <QLocale>
#include <QString>

namespace muffle {

inline QString dayText(const Date& d, const QString& format) {
  return QLocale(QLocale::English).toString(QDate(d.year, static_cast<int>(d.month), static_cast<int>(d.day)), format);
}

/// Of how many logged days a winter's heat and money are made; empty where whole winters were logged.
inline QString winterMadeOf(double winters) {
  if (!isScaledToWinter(winters)) return {};
  const QString times = QLocale().toString(1.0 / winters, 'f', winters > 0.1 ? 1 : 0);
  const auto days = static_cast<int>(std::lround(winters * kWinterDays));
  return QCoreApplication::translate("muffle::Winter", "%1 logged days, taken %2 times for a winter of %3")
      .arg(days)
      .arg(times)
      .arg(static_cast<int>(kWinterDays));
}

} // namespace muffle
