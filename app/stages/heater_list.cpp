// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/heater_list.h"

#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/number_field.h"
#include "core/plan/heaters.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

/// Heaters of rooms in the turn in which they give, room by room.
std::vector<std::size_t> inTurn(const Plan& plan) {
  std::vector<std::size_t> order;
  for (std::size_t i = 0; i < plan.heaters.size(); ++i)
    if (plan.heaters[i].place.of != HeaterPlace::Of::tank) order.push_back(i);
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    const Heater &x = plan.heaters[a], &y = plan.heaters[b];
    return std::pair(x.place.of, x.stage_K) < std::pair(y.place.of, y.stage_K);
  });
  return order;
}

QStringList signatureOf(const Plan& plan) {
  QStringList signature;
  for (const std::size_t i : inTurn(plan))
    signature << QStringLiteral("%1 %2 %3").arg(i).arg(QString::fromStdString(plan.heaters[i].id), QString::fromStdString(plan.heaters[i].name));
  return signature;
}

Find<double> at(std::size_t heater, double Heater::*member) {
  return [=](Plan& p) -> double* { return heater < p.heaters.size() ? &(p.heaters[heater].*member) : nullptr; };
}

} // namespace

HeaterList::HeaterList(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_rows(new QVBoxLayout), m_add(new QPushButton(tr("Add another heater"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(2);
  m_rows->setSpacing(2);
  body->addLayout(m_rows);
  m_add->setFont(textFont(9));
  m_add->setToolTip(tr("one that gives only when the others cannot hold the setpoint; change its size as you like"));
  connect(m_add, &QPushButton::clicked, this, &HeaterList::addAnother);
}

void HeaterList::addAnother() {
  const std::string name = tr("heater %1").arg(m_document.plan().heaters.size() + 1).toStdString();
  const auto why = m_document.edit(tr("add another heater"), [&name](Plan& p) {
    constexpr double kStep_W = 500.0, kBelow_K = 1.0;
    const double half_W = std::max(kStep_W, std::round(0.5 * heaterPower_W(p, {HeaterPlace::Of::house}) / kStep_W) * kStep_W);
    double lowest_K = 0.0;
    for (const Heater& h : p.heaters)
      if (h.place.of == HeaterPlace::Of::house) lowest_K = std::max(lowest_K, h.stage_K);
    addHeater(p, {.name = name, .power_W = half_W, .stage_K = lowest_K + kBelow_K});
  });
  if (why) emit m_document.trouble(*why);
}

void HeaterList::addRow(std::size_t heater) {
  const Heater& of = m_document.plan().heaters[heater];
  auto* row = new QWidget(this);
  auto* body = new QVBoxLayout(row);
  body->setContentsMargins(0, 0, 0, 2);
  body->setSpacing(0);
  auto* fields = new QHBoxLayout;
  fields->setSpacing(8); // three fields and the button within the page's least width, so that nothing shifts when the first comes
  const QString name = QString::fromStdString(of.name);
  const auto field = [&](const QString& label, Quantity quantity, double Heater::*member, double high, double nudge, const QString& source) {
    auto* made = new NumberField(m_document, NumberField::Spec::at(label, quantity, at(heater, member), 0.0, high, nudge, source), row);
    made->setAccessibleName(QStringLiteral("%1: %2").arg(name, label));
    fields->addWidget(made, 1);
  };
  field(of.place.of == HeaterPlace::Of::bay ? tr("Heater in the bay") : tr("Heater"), Quantity::power, &Heater::power_W, 1e6, 500.0,
        tr("%1: what its plate says; 0 for none").arg(name));
  field(tr("Waits"), Quantity::difference, &Heater::stage_K, 20.0, 0.5,
        tr("until the air is so far below the setpoint: 0 for the first, more for one that is to help it"));
  field(tr("Price"), Quantity::money, &Heater::price, 1e7, 50.0, tr("0 if you have it"));
  auto* away = new QPushButton(tr("Take out"), row);
  away->setFont(textFont(9));
  away->setAccessibleName(tr("Take out %1").arg(name));
  connect(away, &QPushButton::clicked, this, [this, heater] {
    m_document.edit(tr("take a heater out"), [heater](Plan& p) {
      if (heater < p.heaters.size()) p.heaters.erase(p.heaters.begin() + static_cast<std::ptrdiff_t>(heater));
    });
  });
  fields->addWidget(away);
  body->addLayout(fields);
  auto* words = new QLabel(row);
  words->setFont(textFont(9));
  words->setWordWrap(true);
  body->addWidget(words);
  m_rows->addWidget(row);
  m_shown.push_back({heater, words});
}

QString HeaterList::words(std::size_t heater) const {
  const Plan& plan = m_document.plan();
  const Heater& of = plan.heaters[heater];
  const Units& u = m_document.units();
  const Simulation* const run = m_document.result();
  if (!run || of.power_W <= 0.0) return QString::fromStdString(of.name);
  const double winters = run->summary.winters;
  const double given_kWh = run->summary.ledger.heat_kWh(MeterUse::heater, heater) / winters;
  const double taken_kWh = run->summary.ledger.sum(Metered::electricity, MeterUse::heater, heater) / winters;
  return tr("%1: %2 and %3 %4 a winter, as much as %5 h at full stretch")
      .arg(QString::fromStdString(of.name), u.text(Quantity::energy, given_kWh), u.number(Quantity::money, taken_kWh * plan.prices.electricity_per_kWh),
           QString::fromStdString(plan.prices.currency), QLocale().toString(1000.0 * given_kWh / of.power_W, 'f', 0));
}

void HeaterList::rebuild() {
  clearCards(*m_rows);
  m_shown.clear();
  for (const std::size_t i : inTurn(m_document.plan())) addRow(i);
}

void HeaterList::refresh() {
  if (const QStringList now = signatureOf(m_document.plan()); now != m_signature) {
    m_signature = now;
    rebuild();
  }
  m_add->setVisible(heaterIn(m_document.plan(), {HeaterPlace::Of::house}) != nullptr); // for the first the usual one is offered
  for (const Row& row : m_shown) row.words->setText(words(row.heater));
}

} // namespace muffle
