// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/annual_lows_field.h"

#include <QLocale>
#include <QRegularExpression>

#include <algorithm>
#include <cmath>

namespace muffle {

AnnualLowsField::AnnualLowsField(Document& document, QWidget* parent) : QLineEdit(parent), m_document(document) {
  setAccessibleName(tr("The coldest of each winter"));
  connect(this, &QLineEdit::editingFinished, this, &AnnualLowsField::take);
}

void AnnualLowsField::refresh() {
  const Units& u = m_document.view().units();
  setPlaceholderText(
      tr("your own list: the coldest of each winter, such as %1").arg(u.fahrenheit ? QStringLiteral("16 7 18 12") : QStringLiteral("-9 -14 -7.5 -11")));
  if (hasFocus()) return;
  QStringList list;
  for (const double low : m_document.plan().site.annualLows_C) list << QLocale().toString(u.show(Quantity::temperature, low), 'g', 4);
  setText(list.join(QStringLiteral("  ")));
}

void AnnualLowsField::take() {
  std::vector<double> lows;
  const bool fahrenheit = m_document.view().units().fahrenheit;
  for (const QString& word : text().split(QRegularExpression(QStringLiteral("[\\s;/]+")), Qt::SkipEmptyParts)) {
    bool ok = false;
    double v = QLocale().toDouble(word, &ok);
    if (!ok) v = QString(word).replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&ok);
    if (!ok) {
      emit refused(tr("\"%1\" is no temperature. Numbers with blanks between them are allowed, such as -9 -14 -7.5; the list stays as it was.").arg(word));
      return;
    }
    lows.push_back(fahrenheit ? (v - 32.0) / 1.8 : v);
  }
  const auto same = [](double a, double b) { return std::abs(a - b) < 0.05; }; // what the field shows of it
  const auto& before = m_document.plan().site.annualLows_C;
  if (lows.size() == before.size() && std::equal(lows.begin(), lows.end(), before.begin(), same)) return;
  if (const auto why = m_document.edit(tr("list the coldest of each winter"), [&](Plan& p) { p.site.annualLows_C = lows; })) emit refused(*why);
}

} // namespace muffle
