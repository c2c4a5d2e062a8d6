// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/kept_together.h"

#include <QRegularExpression>

#include <string_view>

namespace muffle {

QString KeptTogether::translate(const char*, const char* source, const char*, int n) const {
  const std::string_view words(source);
  const bool counts = words.find("%Ln") != std::string_view::npos;
  if (!counts && words.find_first_of("0123456789") == std::string_view::npos) return {}; // most sentences, and they are asked for as often as they are painted
  // a written number or the place of one, a blank, and a unit, a counted thing or the place of either
  static const QRegularExpression apart(QStringLiteral("(?<=\\d) "
                                                       "(?=%(?!\\w)|%\\d|(?:K|°C|°F|W|kW|kWh|Wh|h|min|s|m|cm|mm|kg|t|l|L|g|Pa|W/K|kW/"
                                                       "K|m²|m³|nights?|days?|hours?|weeks?|winters?|years?|plans?|readings?|rows|times|km|miles)(?![\\w]))"));
  const QString plain = QString::fromUtf8(source);
  QString text = plain;
  text.replace(apart, QString(QChar(QChar::Nbsp)));
  if (counts) text.replace(QLatin1String("%Ln "), QLatin1String("%Ln") + QChar(QChar::Nbsp)).replace(QLatin1String("(s)"), n == 1 ? QString() : QStringLiteral("s"));
  return text == plain ? QString() : text;
}

} // namespace muffle
