// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/said.h"

#include <QCoreApplication>
#include <QLocale>

#include <cmath>
#include <optional>

namespace muffle {
namespace {

/// Shown otherwise where feet or degrees Fahrenheit are; nothing for what is the same everywhere.
std::optional<QString> inOtherUnits(const Amount& amount, const Units& units) {
  if (units.fahrenheit) {
    if (amount.unit == Unit::celsius) return units.text(Quantity::temperature, amount.value);
    if (amount.unit == Unit::kelvin) return units.text(Quantity::difference, amount.value);
  }
  if (!units.feet) return std::nullopt;
  switch (amount.unit) {
  case Unit::metre: return units.text(amount.value < 0.3 ? Quantity::thickness : Quantity::length, amount.value);
  case Unit::squareMetre: return units.text(Quantity::area, amount.value);
  case Unit::cubicMetre: return units.text(Quantity::volume, amount.value);
  case Unit::litre: return units.text(Quantity::water, amount.value);
  case Unit::kilogram: return units.text(Quantity::mass, amount.value);
  case Unit::cubicMetrePerHour: return units.text(Quantity::airFlow, amount.value);
  case Unit::litrePerMinute: return units.text(Quantity::waterFlow, amount.value);
  case Unit::watt: return units.text(Quantity::power, amount.value);
  default: return std::nullopt;
  }
}

Speaker speakerFor(const Units& units) {
  return {.words = [](std::string_view english) { return QCoreApplication::translate("Words", std::string(english).c_str()).toStdString(); },
          .amount =
              [units](const Amount& amount) {
                if (const auto other = inOtherUnits(amount, units)) return other->toStdString();
                QString text = QString::fromStdString(englishAmount(amount));
                if (const QString point = QLocale().decimalPoint(); point != QLatin1String(".")) {
                  const qsizetype blank = text.indexOf(QLatin1Char(' '));
                  text.replace(text.left(blank < 0 ? text.size() : blank), text.left(blank < 0 ? text.size() : blank).replace(QLatin1Char('.'), point));
                }
                text.replace(QLatin1String("m2K/W"), QStringLiteral("m\u00B2K/W")).replace(QLatin1String("W/m2"), QStringLiteral("W/m\u00B2"));
                if (text.endsWith(QLatin1String(" m2"))) text.replace(text.size() - 1, 1, QChar(0xB2));
                if (text.endsWith(QLatin1String(" m3"))) text.replace(text.size() - 1, 1, QChar(0xB3));
                return text.replace(QLatin1Char(' '), QChar(QChar::Nbsp)).toStdString();
              }};
}

} // namespace

QString said(const Message& message, const Units& units) { return QString::fromStdString(say(message, speakerFor(units))); }
QString said(const Problem& problem, const Units& units) {
  Problem told = problem;
  if (told.where.starts_with('/')) told.where.clear(); // a place in a plan's file
  return QString::fromStdString(say(told, speakerFor(units)));
}

} // namespace muffle
