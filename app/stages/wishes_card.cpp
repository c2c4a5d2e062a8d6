// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/wishes_card.h"

#include "app/paint/theme.h"
#include "app/stages/number_field.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QPushButton>

#include <cmath>
#include <functional>

namespace muffle {
namespace {

constexpr double kAnything = 1e6;

/// A wish that may be none: beyond all bounds it is a word.
NumberField::Spec limit(const QString& label, Quantity quantity, std::optional<double> Ask::*wish, double nudge, const QString& source, const QString& word,
                        double most = kAnything) {
  return {label,
          quantity,
          [=](const Plan& p) { return p.ask.*wish ? *(p.ask.*wish) : most; },
          [=](Plan& p, double v) { p.ask.*wish = v < most ? std::optional(v) : std::nullopt; },
          0.0,
          most,
          nudge,
          source,
          NumberField::Spec::Word{most, word}};
}

} // namespace

WishesCard::WishesCard(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
  auto* always = new QHBoxLayout;
  always->setSpacing(18);
  always->addWidget(new NumberField(document,
                                    {tr("Nights that may be missed"), Quantity::count, [](const Plan& p) { return static_cast<double>(p.ask.missesAllowed); },
                                     [](Plan& p, double v) { p.ask.missesAllowed = static_cast<int>(std::lround(v)); }, 0, 366, 1,
                                     tr("of all logged nights; a plan with more misses does not hold")},
                                    this));
  always->addWidget(new NumberField(document,
                                    limit(tr("Money to spend"), Quantity::money, &Ask::toSpend, 100.0,
                                          tr("for all that is bought, now; a plan that costs more does not count"), tr("as it takes")),
                                    this));
  body->addLayout(always);
  auto* more = new QWidget(this);
  auto* grid = new QGridLayout(more);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(18);
  grid->setVerticalSpacing(2);
  const auto put = [&](NumberField::Spec spec) { grid->addWidget(new NumberField(document, std::move(spec), more), grid->count() / 2, grid->count() % 2); };
  const QString any = tr("any");
  put({tr("Cold accepted"), Quantity::degreeHours, [](const Plan& p) { return p.ask.coldAllowed_K_h.value_or(-1.0); },
       [](Plan& p, double v) { p.ask.coldAllowed_K_h = v >= 0.0 ? std::optional(v) : std::nullopt; }, -1.0, 100000.0, 10.0,
       tr("in place of nights: degrees below the line times hours, a winter"), NumberField::Spec::Word{-1.0, tr("by nights")}});
  put({tr("A night once in, years"), Quantity::count, [](const Plan& p) { return p.ask.rareNight_years.value_or(1.0); },
       [](Plan& p, double v) { p.ask.rareNight_years = v > 1.0 ? std::optional(std::max(v, 1.5)) : std::nullopt; }, 1.0, 200.0, 5.0,
       tr("so cold as comes once in so many winters, by the annual lows of Place; the winter is taken as much colder throughout"),
       NumberField::Spec::Word{1.0, tr("as logged")}});
  put({tr("Power cut"), Quantity::hours, [](const Plan& p) { return p.ask.mainsOff_h.value_or(0.0); },
       [](Plan& p, double v) { p.ask.mainsOff_h = v > 0.0 ? std::optional(std::max(v, 0.1)) : std::nullopt; }, 0.0, 240.0, 1.0,
       tr("hours without mains, at the worst moment of all, in which the line is not crossed"), NumberField::Spec::Word{0.0, tr("none")}});
  put(limit(tr("Work a week"), Quantity::hours, &Ask::hoursPerWeek, 1.0, tr("that there is time for"), any, 168.0));
  put(limit(tr("Supply, kW"), Quantity::factor, &Ask::supply_kW, 0.5, tr("that all electric heaters together may take; volts times amperes by a thousand"), any,
            1e5));
  put(limit(tr("Trench"), Quantity::length, &Ask::trench_m, 5.0, tr("that may be dug for pipes and skirt"), any, 1e5));
  put(limit(tr("Room for fuel"), Quantity::energy, &Ask::fuelStore_kWh, 500.0, tr("for a winter, by what it holds"), any, 1e8));
  put({tr("A tonne of carbon"), Quantity::money, [](const Plan& p) { return p.prices.carbon_per_tonne; },
       [](Plan& p, double v) { p.prices.carbon_per_tonne = v; }, 0.0, 10000.0, 10.0,
       tr("of carbon dioxide, what you reckon it costs beside what prices have of it; of electricity and what is fossil"),
       NumberField::Spec::Word{0.0, tr("not reckoned")}});
  body->addWidget(more);
  check(tr("holds with any one heater out"), tr("for the whole winter"), &Ask::anyHeaterOut);
  check(tr("no wood put on between 23 and 6"), tr("nobody gets up for the fire"), &Ask::noFireAsleep);
  for (const auto& entry : m_checks) grid->addWidget(entry.first, grid->rowCount(), 0, 1, 2);
  auto* toggle = new QPushButton(tr("What counts as holding, and limits…"), this);
  toggle->setFont(textFont(9));
  toggle->setCheckable(true);
  more->setVisible(false);
  connect(toggle, &QPushButton::toggled, this, [this, more, toggle](bool isOpen) {
    toggle->setText(isOpen ? tr("Back to the list") : tr("What counts as holding, and limits…"));
    more->setVisible(isOpen);
    emit opened(isOpen);
  });
  body->insertWidget(1, toggle, 0, Qt::AlignLeft);
}

void WishesCard::check(const QString& words, const QString& source, bool Ask::*wish) {
  auto* box = new QCheckBox(words, this);
  box->setToolTip(source);
  const auto show = [this, box, wish] { box->setChecked(m_document.plan().ask.*wish); };
  show();
  connect(&m_document, &Document::planChanged, box, show);
  connect(box, &QCheckBox::clicked, this, [this, wish](bool on) {
    if (const auto why = m_document.edit(tr("change what is asked"), [&](Plan& p) { p.ask.*wish = on; })) emit m_document.trouble(*why);
  });
  m_checks.emplace_back(box, wish);
}

} // namespace muffle
