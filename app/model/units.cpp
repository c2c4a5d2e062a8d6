// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/units.h"

#include <QLocale>
#include <QRegularExpression>

#include <cmath>

namespace muffle {
namespace {

constexpr double kFoot_m = 0.3048;
constexpr double kInch_m = 0.0254;
constexpr double kBtuPerHour_W = 0.29307107;
constexpr double kGallon_L = 3.785411784;
constexpr double kBtu_J = 1055.05585262;
constexpr double kPound_kg = 0.45359237;

int decimals(Quantity q, double shown) {
  switch (q) {
  case Quantity::temperature:
  case Quantity::difference:
  case Quantity::speed:
  case Quantity::airChanges:
  case Quantity::uValue: return 1;
  case Quantity::length:
  case Quantity::factor:
  case Quantity::price:
  case Quantity::areaPrice: return 2;
  case Quantity::power: return 1;
  case Quantity::resistance: return std::abs(shown) < 1.0 ? 3 : 2;
  case Quantity::volume: return std::abs(shown) < 100.0 ? 1 : 0;
  default: return 0;
  }
}

/// Further decimals where the value has them: 0.35 changes an hour are not 0.3.
int mostDecimals(Quantity q, double shown) {
  if (q == Quantity::airChanges) return 2;
  if (q == Quantity::waterFlow) return std::abs(shown) < 100.0 ? 1 : 0;
  if (q == Quantity::thickness) return 1;
  if (q == Quantity::areaHeat) return std::abs(shown) < 10.0 ? 2 : 0;
  if (q == Quantity::uValue) return std::abs(shown) < 2.0 ? 2 : 1;
  if (q == Quantity::hours && std::abs(shown) < 10.0) return 2;
  return decimals(q, shown);
}

int placesFor(Quantity q, double shown) {
  int places = decimals(q, shown);
  for (double scale = std::pow(10.0, places); places < mostDecimals(q, shown) && std::abs(shown * scale - std::round(shown * scale)) > 0.005 * scale;
       scale *= 10.0)
    ++places;
  return places;
}

constexpr QChar kNoBreak(0x00A0); // between a number and its unit, which no line's end may part

QString plain(double v, int places) {
  QString s = QLocale().toString(v, 'f', places);
  if (QLocale().toDouble(s) == 0.0 && s.startsWith(QLocale().negativeSign())) s.remove(0, QLocale().negativeSign().size()); // no "-0"
  return s.replace(QLatin1Char('-'), QChar(0x2212));
}

} // namespace

QString Units::unit(Quantity q) const {
  switch (q) {
  case Quantity::temperature: return fahrenheit ? QStringLiteral("°F") : QStringLiteral("°C");
  case Quantity::difference: return fahrenheit ? QStringLiteral("°F") : QStringLiteral("K");
  case Quantity::elevation:
  case Quantity::length: return feet ? QStringLiteral("ft") : QStringLiteral("m");
  case Quantity::thickness: return feet ? QStringLiteral("in") : QStringLiteral("mm");
  case Quantity::angle: return QStringLiteral("°");
  case Quantity::uValue: return feet ? QStringLiteral("BTU/h·ft²·°F") : QStringLiteral("W/m²K");
  case Quantity::area: return feet ? QStringLiteral("ft²") : QStringLiteral("m²");
  case Quantity::volume: return feet ? QStringLiteral("ft³") : QStringLiteral("m³");
  case Quantity::power: return feet ? QStringLiteral("kBTU/h") : QStringLiteral("kW");
  case Quantity::energy: return QStringLiteral("kWh");
  case Quantity::water: return feet ? QStringLiteral("gal") : QStringLiteral("L");
  case Quantity::degreeHours: return fahrenheit ? QStringLiteral("°F·h") : QStringLiteral("K·h");
  case Quantity::hours: return QStringLiteral("h");
  case Quantity::airChanges: return QStringLiteral("/h");
  case Quantity::areaPrice: return feet ? QStringLiteral("/ft²") : QStringLiteral("/m²");
  case Quantity::share: return QStringLiteral("%");
  case Quantity::speed: return feet ? QStringLiteral("mph") : QStringLiteral("m/s");
  case Quantity::airFlow: return feet ? QStringLiteral("ft³/min") : QStringLiteral("m³/h");
  case Quantity::leakArea: return feet ? QStringLiteral("in²") : QStringLiteral("cm²");
  case Quantity::resistance: return feet ? QStringLiteral("h·ft²·°F/BTU") : QStringLiteral("m²K/W");
  case Quantity::days: return QStringLiteral("d");
  case Quantity::mass: return feet ? QStringLiteral("lb") : QStringLiteral("kg");
  case Quantity::waterFlow: return feet ? QStringLiteral("gal/min") : QStringLiteral("L/min");
  case Quantity::conductance: return feet ? QStringLiteral("BTU/h·°F") : QStringLiteral("W/K");
  case Quantity::areaHeat: return feet ? QStringLiteral("BTU/ft²·°F") : QStringLiteral("kJ/m²K");
  case Quantity::money:
  case Quantity::price:
  case Quantity::factor:
  case Quantity::count: return {};
  }
  return {};
}

double Units::show(Quantity q, double v) const {
  switch (q) {
  case Quantity::temperature: return fahrenheit ? v * 1.8 + 32.0 : v;
  case Quantity::difference:
  case Quantity::degreeHours: return fahrenheit ? v * 1.8 : v;
  case Quantity::elevation:
  case Quantity::length: return feet ? v / kFoot_m : v;
  case Quantity::thickness: return feet ? v / kInch_m : v * 1000.0;
  case Quantity::uValue: return feet ? v / kBtuPerHour_W * kFoot_m * kFoot_m / 1.8 : v;
  case Quantity::area: return feet ? v / (kFoot_m * kFoot_m) : v;
  case Quantity::volume: return feet ? v / (kFoot_m * kFoot_m * kFoot_m) : v;
  case Quantity::power: return feet ? v / kBtuPerHour_W / 1000.0 : v / 1000.0;
  case Quantity::water: return feet ? v / kGallon_L : v;
  case Quantity::areaPrice: return feet ? v * kFoot_m * kFoot_m : v;
  case Quantity::share: return v * 100.0;
  case Quantity::speed: return feet ? v / 0.44704 : v;
  case Quantity::airFlow: return feet ? v / (60.0 * kFoot_m * kFoot_m * kFoot_m) : v;
  case Quantity::leakArea: return feet ? v * 1e-4 / (kInch_m * kInch_m) : v;
  case Quantity::resistance: return feet ? v * kBtuPerHour_W * 1.8 / (kFoot_m * kFoot_m) : v;
  case Quantity::mass: return feet ? v / kPound_kg : v;
  case Quantity::waterFlow: return feet ? v / kGallon_L : v;
  case Quantity::conductance: return feet ? v / kBtuPerHour_W / 1.8 : v;
  case Quantity::areaHeat: return feet ? v * kFoot_m * kFoot_m / (1.8 * kBtu_J) : v / 1000.0;
  default: return v;
  }
}

double Units::toSi(Quantity q, double shown) const {
  if (q == Quantity::temperature) return fahrenheit ? (shown - 32.0) / 1.8 : shown;
  return shown / show(q, 1.0); // every other quantity is a plain factor
}

QString Units::number(Quantity q, double si) const { return plain(show(q, si), placesFor(q, show(q, si))); }

QString Units::text(Quantity q, double si) const {
  if (q == Quantity::length && feet) {
    const int inches = static_cast<int>(std::lround(std::abs(si) / kFoot_m * 12.0));
    const QString sign = si < 0 ? QStringLiteral("−") : QString();
    if (inches > 0 && inches < 12) return QStringLiteral("%1%2\u00A0in").arg(sign).arg(inches);
    return QStringLiteral("%1%2\u00A0ft\u00A0%3\u00A0in").arg(sign).arg(inches / 12).arg(inches % 12);
  }
  const QString u = unit(q);
  if (u.isEmpty()) return number(q, si);
  return number(q, si) + (u.startsWith(QLatin1Char('/')) || q == Quantity::angle ? QString() : QString(kNoBreak)) + u;
}

std::optional<double> Units::parse(Quantity q, const QString& typed) const {
  QString t = typed.trimmed().toLower();
  t.replace(QChar(0x2212), QLatin1Char('-'));
  // thousands as this locale sets them apart, before a comma is taken for a decimal one
  const QString apart = QRegularExpression::escape(QLocale().groupSeparator());
  const QRegularExpression grouped(QStringLiteral("^([+-]?\\d{1,3}(?:%1\\d{3})+)(?!\\d)").arg(apart));
  if (const auto m = grouped.match(t); m.hasMatch()) t = m.captured(1).remove(QLocale().groupSeparator()) + t.mid(m.capturedLength(1));
  t.replace(kNoBreak, QLatin1Char(' ')); // as text() writes it
  static const QRegularExpression feetInches(QStringLiteral(R"(^(\d+(?:[.,]\d+)?)\s*(?:ft|feet|foot|')\s*(?:(\d+(?:[.,]\d+)?)\s*(?:in|inches|"|'')?)?$)"));
  const auto value = [](QString s) { return s.replace(QLatin1Char(','), QLatin1Char('.')).toDouble(); };
  if (q == Quantity::length || q == Quantity::elevation) {
    if (const auto m = feetInches.match(t); m.hasMatch())
      return (value(m.captured(1)) + (m.captured(2).isEmpty() ? 0.0 : value(m.captured(2)) / 12.0)) * kFoot_m;
  }
  static const QRegularExpression number(QStringLiteral(R"(^([+-]?\d+(?:[.,]\d+)?)\s*(\S.*)?$)"));
  const auto m = number.match(t);
  if (!m.hasMatch()) return std::nullopt;
  const double v = value(m.captured(1));
  const QString u = m.captured(2).trimmed();
  if (u.isEmpty()) return toSi(q, v);
  const auto is = [&](std::initializer_list<const char*> names) {
    for (const char* n : names)
      if (u == QString::fromUtf8(n)) return true;
    return false;
  };
  switch (q) {
  case Quantity::temperature:
    if (is({"c", "°c", "celsius"})) return v;
    if (is({"f", "°f", "fahrenheit"})) return (v - 32.0) / 1.8;
    break;
  case Quantity::length:
  case Quantity::elevation:
  case Quantity::thickness:
    if (is({"m", "metre", "metres", "meter"})) return v;
    if (is({"cm"})) return v / 100.0;
    if (is({"mm"})) return v / 1000.0;
    if (is({"in", "\""})) return v * kInch_m;
    break;
  case Quantity::power:
    if (is({"kw"})) return v * 1000.0;
    if (is({"w"})) return v;
    if (is({"btu/h", "btu"})) return v * kBtuPerHour_W;
    if (is({"kbtu/h", "kbtu"})) return v * 1000.0 * kBtuPerHour_W;
    break;
  case Quantity::water:
    if (is({"l", "litre", "litres", "liter", "liters"})) return v;
    if (is({"gal", "gallon", "gallons"})) return v * kGallon_L;
    if (is({"m3", "m³"})) return v * 1000.0;
    break;
  case Quantity::mass:
    if (is({"kg"})) return v;
    if (is({"t", "tonne", "tonnes"})) return v * 1000.0;
    if (is({"lb", "lbs", "pound", "pounds"})) return v * kPound_kg;
    break;
  case Quantity::share:
    if (is({"%"})) return v / 100.0;
    break;
  default:
    if (u == unit(q).toLower()) return toSi(q, v);
  }
  return std::nullopt;
}

} // namespace muffle
