// SPDX-License-Identifier: GPL-3.0-or-later
//
// A calendar day as the window writes it.
#pragma once

#include "core/calendar.h"

#include <QDate>
#include <QLocale>
#include <QString>

namespace muffle {

inline QString dayText(const Date& d, const QString& format) {
  return QLocale(QLocale::English).toString(QDate(d.year, static_cast<int>(d.month), static_cast<int>(d.day)), format);
}

} // namespace muffle
