// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/tariff_dialog.h"

#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/number_field.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <array>
#include <cmath>

namespace muffle {
namespace {
constexpr std::array<unsigned, 3> kDays{0x7FU, 0x1FU, 0x60U};
constexpr std::size_t kMostWindows = 8;
} // namespace

TariffDialog::TariffDialog(Document& document, QWidget* parent)
    : QDialog(parent), m_document(document), m_words(new QLabel(this)), m_refused(new QLabel(this)) {
  setWindowTitle(tr("Electricity by the hour"));
  resize(600, 500);
  auto* body = new QVBoxLayout(this);
  auto* intro =
      new QLabel(tr("Where your bill has a night price or dear hours, write each down: every kWh is then billed at the price of the hour in which the "
                    "plan takes it. Where two hold the same hour, the upper one counts."),
                 this);
  intro->setWordWrap(true);
  body->addWidget(intro);
  body->addWidget(new NumberField(document,
                                  {tr("In all other hours"), Quantity::price, [](const Plan& p) { return p.prices.electricity_per_kWh; },
                                   [](Plan& p, double v) { p.prices.electricity_per_kWh = v; }, 0, 100, 0.01, tr("price of a kWh, tax in it")},
                                  this));
  m_cards = addScrolled(*body);
  m_cards->setSpacing(10);
  body->addWidget(new NumberField(document,
                                  {tr("Charged a day"), Quantity::money, [](const Plan& p) { return p.prices.electricityStanding_per_day; },
                                   [](Plan& p, double v) { p.prices.electricityStanding_per_day = v; }, 0, 100, 0.05,
                                   tr("whether anything is taken or not; 0 where the house would have it without the greenhouse")},
                                  this));
  body->addWidget(new NumberField(document,
                                  {tr("Give or take"), Quantity::share, [](const Plan& p) { return p.prices.electricitySpread; },
                                   [](Plan& p, double v) { p.prices.electricitySpread = v; }, 0, 0.9, 0.05,
                                   tr("by which a kWh may come out dearer or cheaper this winter: the slip then says from what to what")},
                                  this));
  body->addWidget(new NumberField(document,
                                  {tr("Carbon dioxide"), Quantity::factor, [](const Plan& p) { return p.prices.electricityCarbon_kg_kWh; },
                                   [](Plan& p, double v) { p.prices.electricityCarbon_kg_kWh = v; }, 0, 2, 0.05,
                                   tr("kilograms from making a kWh: your supplier's figure; a mixed grid has about 0.3")},
                                  this));
  m_words->setWordWrap(true);
  m_words->setFont(textFont(9.5));
  body->addWidget(m_words);
  m_refused->setWordWrap(true);
  body->addWidget(m_refused);
  auto* row = new QHBoxLayout;
  auto* add = new QPushButton(tr("Add hours"), this);
  connect(add, &QPushButton::clicked, this, [this] {
    const double price = std::round(60.0 * m_document.plan().prices.electricity_per_kWh) / 100.0; // a usual night price
    edit(tr("a price by the hour"), [price](std::vector<TariffWindow>& windows) {
      if (windows.size() < kMostWindows) windows.push_back({.from_h = 22, .to_h = 6, .price_per_kWh = price});
    });
  });
  row->addWidget(add);
  row->addStretch();
  auto* close = new QPushButton(tr("Close"), this);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  row->addWidget(close);
  body->addLayout(row);
  for (const auto signal : {&Document::planChanged, &Document::resultChanged}) connect(&document, signal, this, &TariffDialog::refresh);
  connect(&document, &Document::bookOpened, this, &QDialog::reject);
  refresh();
}

void TariffDialog::edit(const QString& name, const std::function<void(std::vector<TariffWindow>&)>& change) {
  const auto why = m_document.edit(name, [&](Plan& p) { change(p.prices.electricityWindows); });
  m_refused->setText(why.value_or(QString()));
  refresh();
}

QWidget* TariffDialog::card(std::size_t k) {
  auto* card = new QWidget(this);
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(2);
  auto* days = new QComboBox(card);
  days->setAccessibleName(tr("Days of hours %1").arg(k + 1));
  days->addItems({tr("every day"), tr("Monday to Friday"), tr("Saturday and Sunday")});
  const auto show = [this, days, k] {
    const auto& windows = m_document.plan().prices.electricityWindows;
    if (k >= windows.size()) return;
    const QSignalBlocker quiet(days);
    days->setCurrentIndex(static_cast<int>(std::find(kDays.begin(), kDays.end(), windows[k].weekdays) - kDays.begin()));
  };
  show();
  connect(&m_document, &Document::planChanged, days, show);
  connect(days, &QComboBox::activated, this, [this, k](int i) {
    edit(tr("days of a price"), [k, i](std::vector<TariffWindow>& windows) { windows[k].weekdays = kDays[static_cast<std::size_t>(i)]; });
  });
  grid->addWidget(days, 0, 0);
  auto* away = new QPushButton(tr("Take away"), card);
  away->setAccessibleName(tr("Take away hours %1").arg(k + 1));
  connect(away, &QPushButton::clicked, this, [this, k] {
    edit(tr("take away a price by the hour"), [k](std::vector<TariffWindow>& windows) { windows.erase(windows.begin() + static_cast<std::ptrdiff_t>(k)); });
  });
  grid->addWidget(away, 0, 1, Qt::AlignRight);
  const auto hour = [&](int column, const QString& label, int TariffWindow::*member, double most) {
    grid->addWidget(new NumberField(m_document,
                                    {label, Quantity::hours,
                                     [k, member](const Plan& p) {
                                       const auto& windows = p.prices.electricityWindows;
                                       return k < windows.size() ? static_cast<double>(windows[k].*member) : 0.0;
                                     },
                                     [k, member](Plan& p, double v) {
                                       if (k < p.prices.electricityWindows.size()) p.prices.electricityWindows[k].*member = static_cast<int>(std::lround(v));
                                     },
                                     0, most, 1, tr("whole hours of the clock, over midnight where the end is the earlier")},
                                    card),
                    1, column);
  };
  hour(0, tr("From"), &TariffWindow::from_h, 23);
  hour(1, tr("Until"), &TariffWindow::to_h, 24);
  const Find<double> price = [k](Plan& p) { return k < p.prices.electricityWindows.size() ? &p.prices.electricityWindows[k].price_per_kWh : nullptr; };
  grid->addWidget(new NumberField(m_document, NumberField::Spec::at(tr("A kWh costs"), Quantity::price, price, 0.0, 100.0, 0.01, tr("tax in it")), card), 2, 0);
  return card;
}

QString TariffDialog::words() const {
  const Prices& prices = m_document.plan().prices;
  const Simulation* run = m_document.results().simulation();
  if (prices.electricityWindows.empty()) return tr("Every kWh costs the same now.");
  if (!run || !m_document.results().isCurrent())
    return m_document.readings().log() ? tr("Working it out.") : tr("How much falls into each stands here once a log is in.");
  const Tariff tariff = prices.electricity();
  const std::vector<double> share = run->summary.ledger.electricity_kWh(tariff);
  const double all = run->summary.ledger.sum(Metered::electricity);
  if (all <= 0.0) return tr("The plan takes no electricity.");
  QStringList parts;
  for (std::size_t w = 0; w < tariff.windows.size(); ++w)
    parts << tr("%1 % from %2 to %3 h").arg(QLocale().toString(100.0 * share[w] / all, 'f', 0)).arg(tariff.windows[w].from_h).arg(tariff.windows[w].to_h);
  const double winters = run->summary.winters;
  const double money = run->summary.ledger.money(m_document.plan(), prices, Metered::electricity) / winters;
  const Units& u = m_document.view().units();
  return tr("Of the %1 that the plan takes a winter, %2; together they cost %3 %4.")
      .arg(u.text(Quantity::energy, all / winters), parts.join(QStringLiteral(", ")), u.number(Quantity::money, money),
           QString::fromStdString(prices.currency));
}

void TariffDialog::refresh() {
  const std::size_t count = m_document.plan().prices.electricityWindows.size();
  if (count != m_shown) {
    m_shown = count;
    clearCards(*m_cards);
    for (std::size_t k = 0; k < count; ++k) m_cards->addWidget(card(k));
  }
  m_words->setText(words());
}

} // namespace muffle
