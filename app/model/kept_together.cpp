// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/kept_together.h"

#include <QRegularExpression>

namespace muffle {

QString KeptTogether::translate(const char*, const char* source, const char*, int) const {
  // a written number or the place of one, a blank, and a unit, a counted thing or the place of either
  static const QRegularExpression apart(
      QStringLiteral("(?<=\\d) (?=%(?!\\w)|%\\d|(?:K|°C|°F|W|kW|kWh|Wh|h|min|s|m|cm|mm|kg|t|l|L|g|Pa|W/K|kW/K|m²|m³|nights?|days?|hours?|weeks?|winters?|years?|plans?|readings?|rows|times|km|miles)(?![\\w]))"));
  QString text = QString::fromUtf8(source);
  const qsizetype before = text.size();
  text.replace(apart, QString(QChar(QChar::Nbsp)));
  return text.size() == before && text == QString::fromUtf8(source) ? QString() : text;
}

} // namespace muffle
