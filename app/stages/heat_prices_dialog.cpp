// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/heat_prices_dialog.h"

#include "app/paint/theme.h"
#include "app/stages/heater_words.h"
#include "app/stages/number_field.h"
#include "core/plan/heaters.h"
#include "core/simulate/heat_prices.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace muffle {
namespace {

constexpr std::array kPriced{Carrier::propane, Carrier::naturalGas, Carrier::heatingOil, Carrier::pellets, Carrier::hardwood, Carrier::paraffin, Carrier::heat};

FuelPrice& there(Plan& plan, Carrier fuel) {
  if (const FuelPrice* known = listedPrice(plan.prices, fuel)) return plan.prices.fuels[static_cast<std::size_t>(known - plan.prices.fuels.data())];
  return plan.prices.fuels.emplace_back(FuelPrice{.fuel = fuel, .boughtBy = unitsOf(fuel).back().id});
}

std::string unitOf(const Plan& plan, Carrier fuel) {
  const FuelPrice* known = listedPrice(plan.prices, fuel);
  return known ? known->boughtBy : std::string(unitsOf(fuel).back().id);
}

} // namespace

HeatPricesDialog::HeatPricesDialog(Document& document, QWidget* parent)
    : QDialog(parent), m_document(document), m_grid(new QGridLayout), m_words(new QLabel(this)) {
  setWindowTitle(tr("Fuels side by side"));
  resize(620, 520);
  auto* body = new QVBoxLayout(this);
  auto* intro = new QLabel(
      tr("Write down what each is offered for. Below stands what a kWh of heat in the house comes to by it, at the hours and in the weather in which this "
         "house takes it. A heater of the plan that burns one has its own price, which counts first."),
      this);
  intro->setWordWrap(true);
  body->addWidget(intro);
  m_grid->setHorizontalSpacing(12);
  m_grid->setVerticalSpacing(2);
  body->addLayout(m_grid);
  for (const Carrier fuel : kPriced) addRow(fuel);
  m_words->setFont(textFont(10));
  m_words->setWordWrap(true);
  m_words->setTextInteractionFlags(Qt::TextSelectableByMouse);
  body->addWidget(m_words);
  body->addStretch(1);
  auto* close = new QPushButton(tr("Close"), this);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  body->addWidget(close, 0, Qt::AlignRight);
  for (const auto signal : {&Document::planChanged, &Document::resultChanged, &Document::viewChanged})
    connect(&document, signal, this, &HeatPricesDialog::refresh);
  connect(&document, &Document::bookOpened, this, &QDialog::reject);
  refresh();
}

void HeatPricesDialog::addRow(Carrier fuel) {
  const int row = m_grid->rowCount();
  const QString name = HeaterWords::carrier(fuel);
  m_grid->addWidget(new QLabel(name, this), row, 0);
  const auto unit_kWh = [fuel](const Plan& p) { return kWhPerUnit(fuel, unitOf(p, fuel)); };
  constexpr double kDearest = 10000.0;
  auto* price = new NumberField(m_document,
                                {tr("costs"), Quantity::price,
                                 [fuel, unit_kWh](const Plan& p) {
                                   const FuelPrice* known = listedPrice(p.prices, fuel);
                                   return known ? known->price_kWh * unit_kWh(p) : 0.0;
                                 },
                                 [fuel, unit_kWh](Plan& p, double money) { there(p, fuel).price_kWh = money / unit_kWh(p); }, 0.0, kDearest, 0.5,
                                 tr("a unit of it, tax and delivery in it"), NumberField::Spec::Word{0.0, tr("no price")}},
                                this);
  price->setAccessibleName(tr("%1: price of a unit").arg(name));
  m_grid->addWidget(price, row, 1);
  auto* units = new QComboBox(this);
  units->setFont(textFont(9));
  units->setAccessibleName(tr("%1: bought by").arg(name));
  for (const FuelUnit& unit : unitsOf(fuel)) {
    units->addItem(tr("by the %1").arg(HeaterWords::unit(unit.id)), QString::fromLatin1(unit.id));
    if (unitOf(m_document.plan(), fuel) == unit.id) units->setCurrentIndex(units->count() - 1);
  }
  connect(units, &QComboBox::activated, this, [this, fuel, units](int at) {
    const auto why = m_document.edit(tr("what fuel is bought by"), [&](Plan& p) { there(p, fuel).boughtBy = units->itemData(at).toString().toStdString(); });
    if (why) emit m_document.trouble(*why);
  });
  m_grid->addWidget(units, row, 2);
}

QString HeatPricesDialog::words() const { return m_words->text(); }

void HeatPricesDialog::refresh() {
  const Simulation* const run = m_document.results().simulation();
  const Weather* const weather = m_document.readings().weather();
  const bool isKnown = run && weather && m_document.results().isCurrent();
  const auto prices = isKnown ? heatPrices(m_document.plan(), *weather, *run) : std::vector<HeatPrice>();
  if (prices.empty())
    return m_words->setText(isKnown ? tr("The heaters of this plan gave nothing: there are no loads to compare by.")
                                    : tr("Import a log, and what heat comes to stands here."));
  const Units& u = m_document.view().units();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  double heat_kWh = 0.0; // a winter
  for (std::size_t w = 0; w < run->series.size() && w < weather->winters.size(); ++w)
    for (const float power : run->series[w].heater_W) heat_kWh += static_cast<double>(power) * weather->winters[w].step_s / 3.6e6;
  heat_kWh /= run->summary.winters;
  QStringList lines{tr("For the %1 that the rooms take a winter:").arg(u.text(Quantity::energy, heat_kWh))};
  for (const HeatPrice& p : prices) {
    const QString kind = HeaterWords::kind(p.kind);
    lines << (p.perHeat ? tr("%1: %2 %3 a kWh of heat, %4 %3 a winter")
                              .arg(kind, u.number(Quantity::price, *p.perHeat), currency, u.number(Quantity::money, *p.perHeat * heat_kWh))
                        : tr("%1: no price").arg(kind));
  }
  m_words->setText(lines.join(QLatin1Char('\n')));
}

} // namespace muffle
