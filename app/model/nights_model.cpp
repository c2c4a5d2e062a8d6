// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/nights_model.h"

#include <QDate>
#include <QLocale>

namespace muffle {
namespace {

const QString kNothing = QStringLiteral("–");

} // namespace

NightsModel::NightsModel(Document& document, QObject* parent) : QAbstractTableModel(parent), m_document(document) {
  connect(&document, &Document::logChanged, this, &NightsModel::takeNights);
  connect(&document, &Document::viewChanged, this, [this] {
    if (!m_nights.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, kColumns - 1));
    emit headerDataChanged(Qt::Horizontal, 0, kColumns - 1);
  });
  takeNights();
}

void NightsModel::takeNights() {
  beginResetModel();
  m_nights = m_document.readings().nights();
  endResetModel();
}

QVariant NightsModel::number(const Night& n, Column column) const {
  switch (column) {
  case night: return QVariant::fromValue(static_cast<qlonglong>(n.sunset));
  case outsideLow: return n.outsideLow ? QVariant(n.outsideLow->value) : QVariant();
  case outsideAt: return n.outsideLow ? QVariant(static_cast<double>(n.outsideLow->at - n.sunset)) : QVariant();
  case insideLow: return n.insideLow ? QVariant(n.insideLow->value) : QVariant();
  case insideAt: return n.insideLow ? QVariant(static_cast<double>(n.insideLow->at - n.sunset)) : QVariant();
  case lift: return n.lift_K() ? QVariant(*n.lift_K()) : QVariant();
  case lag: return n.lag_h() ? QVariant(*n.lag_h()) : QVariant();
  case owed: return n.degreeHours_K_h ? QVariant(*n.degreeHours_K_h) : QVariant();
  case freezing: return n.belowFreezing_h ? QVariant(*n.belowFreezing_h) : QVariant();
  case wind: return n.hasWind ? QVariant(n.meanWind_m_s) : QVariant();
  case sky: return QString::fromLatin1(n.sky());
  case heater: return n.heater_kWh > 0.0 ? QVariant(n.heater_kWh) : QVariant();
  case kColumns: break;
  }
  return {};
}

QString NightsModel::text(const Night& n, Column column) const {
  const Units& u = m_document.view().units();
  const TimeZone zone = m_document.planInHand().zone();
  const auto clock = [&](const std::optional<Reading>& r) { return r ? QString::fromStdString(zone.iso(r->at).substr(11, 5)) : kNothing; };
  const auto hours = [](double h) { return QLocale().toString(h, 'f', 1); };
  const QVariant v = number(n, column);
  if (!v.isValid()) return kNothing;
  switch (column) {
  case night: return QLocale().toString(QDate(n.date.year, static_cast<int>(n.date.month), static_cast<int>(n.date.day)), QStringLiteral("d MMM yy"));
  case outsideLow:
  case insideLow: return QLocale().toString(u.show(Quantity::temperature, v.toDouble()), 'f', 1);
  case outsideAt: return clock(n.outsideLow);
  case insideAt: return clock(n.insideLow);
  case lift: return QLocale().toString(u.show(Quantity::difference, v.toDouble()), 'f', 1);
  case owed: return QLocale().toString(u.show(Quantity::difference, v.toDouble()), 'f', 1);
  case lag:
  case freezing: return hours(v.toDouble());
  case wind: return QLocale().toString(u.show(Quantity::speed, v.toDouble()), 'f', 1);
  case sky: {
    const std::string_view s = n.sky();
    return (s == "clear" ? tr("clear") : s == "part" ? tr("part") : s == "cloudy" ? tr("cloudy") : kNothing) + (n.complete ? QString() : tr(", holes"));
  }
  case heater: return QLocale().toString(v.toDouble(), 'f', v.toDouble() < 10.0 ? 1 : 0);
  case kColumns: break;
  }
  return {};
}

QVariant NightsModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid()) return {};
  const Night& n = nightAt(index.row());
  const auto column = static_cast<Column>(index.column());
  if (role == Qt::DisplayRole) return text(n, column);
  if (role == SortRole) return number(n, column);
  if (role == Qt::TextAlignmentRole) return static_cast<int>(Qt::AlignVCenter | (column == night || column == sky ? Qt::AlignLeft : Qt::AlignRight));
  return {};
}

QVariant NightsModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation != Qt::Horizontal) return {};
  const Units& u = m_document.view().units();
  const QString degree = u.unit(Quantity::temperature), kelvin = u.unit(Quantity::difference);
  if (role == Qt::DisplayRole) {
    switch (static_cast<Column>(section)) {
    case night: return tr("night\nof");
    case outsideLow: return tr("outside\n%1").arg(degree);
    case outsideAt: return tr("at");
    case insideLow: return tr("inside\n%1").arg(degree);
    case insideAt: return tr("at");
    case lift: return tr("lift\n%1").arg(kelvin);
    case lag: return tr("lag\nh");
    case owed: return tr("owed\n%1 h").arg(kelvin);
    case freezing: return tr("frost\nh");
    case wind: return tr("wind\n%1").arg(u.unit(Quantity::speed));
    case sky: return tr("sky");
    case heater: return tr("heater\nkWh");
    case kColumns: break;
    }
  }
  if (role == Qt::ToolTipRole) {
    switch (static_cast<Column>(section)) {
    case lift: return tr("coldest inside minus coldest outside");
    case lag: return tr("from the coldest outside to the coldest inside; below zero, the inside was coldest first");
    case owed: return tr("degree-hours of the inside under the line your plan holds");
    case freezing: return tr("hours of the inside below freezing");
    case sky: return tr("by how far it fell from the day before: clear, part or cloudy; \"holes\": readings are missing");
    default: break;
    }
  }
  return {};
}

QString NightsModel::csv() const {
  QString out;
  for (int c = 0; c < kColumns; ++c) {
    QString head = headerData(c, Qt::Horizontal, Qt::DisplayRole).toString();
    out += (c ? QStringLiteral(",") : QString()) + head.replace(QLatin1Char('\n'), QLatin1Char(' '));
  }
  out += QLatin1Char('\n');
  for (const Night& n : m_nights) {
    for (int c = 0; c < kColumns; ++c) {
      const QString cell = text(n, static_cast<Column>(c));
      out += (c ? QStringLiteral(",") : QString()) + (cell.contains(QLatin1Char(',')) ? QStringLiteral("\"%1\"").arg(cell) : cell);
    }
    out += QLatin1Char('\n');
  }
  return out;
}

} // namespace muffle
