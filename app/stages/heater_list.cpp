// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/heater_list.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/heater_row_words.h"
#include "app/stages/heater_words.h"
#include "app/stages/number_field.h"
#include "core/plan/heaters.h"
#include "core/plan/names.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <tuple>

namespace muffle {
namespace {

/// Heaters of rooms in the turn in which they give, room by room.
std::vector<std::size_t> inTurn(const Plan& plan) {
  std::vector<std::size_t> order;
  for (std::size_t i = 0; i < plan.heaters.size(); ++i)
    if (plan.heaters[i].place.of != HeaterPlace::Of::tank) order.push_back(i); // those stand with their tanks
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    const Heater &x = plan.heaters[a], &y = plan.heaters[b];
    return std::tuple(x.place.of, x.place.index, x.stage_K) < std::tuple(y.place.of, y.place.index, y.stage_K);
  });
  return order;
}

QStringList signatureOf(const Plan& plan) {
  QStringList signature;
  for (const std::size_t i : inTurn(plan))
    signature << QStringLiteral("%1 %2 %3 %4 %5 %6 %7 %8 %9 %10")
                     .arg(i)
                     .arg(static_cast<int>(plan.heaters[i].kind))
                     .arg(plan.heaters[i].through)
                     .arg(plan.mass.size())
                     .arg(4 * plan.house.bedCovers.size() + (plan.house.bay ? 1 : 0) + (plan.prices.electricityWindows.empty() ? 0 : 2))
                     .arg(QString::fromStdString(placeId(plan.heaters[i].place)), QString::fromStdString(plan.heaters[i].id),
                          said(nameOf(plan, plan.heaters[i])), QString::fromStdString(plan.heaters[i].boughtBy))
                     .arg(static_cast<int>(plan.heaters[i].burns));
  return signature;
}

Find<double> at(std::size_t heater, double Heater::*member) {
  return [=](Plan& p) -> double* { return heater < p.heaters.size() ? &(p.heaters[heater].*member) : nullptr; };
}

constexpr double kCold_C = -40.0, kColdest_C = -60.0, kWarm_C = 40.0; // outside, as plans allow
constexpr int kNameWidth_px = 120;
constexpr int kFieldWidth_px = 112; // four beside one another in the page's least width

} // namespace

HeaterList::HeaterList(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_none(new QLabel(tr("No heater yet. Add a usual one below, and choose here what kind it is."), this)),
      m_rows(new QVBoxLayout), m_add(new QPushButton(tr("Add another heater"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(2);
  m_rows->setSpacing(10);
  m_none->setFont(textFont(10));
  m_none->setWordWrap(true);
  body->addWidget(m_none);
  body->addLayout(m_rows);
  body->addStretch();
  m_add->setFont(textFont(9));
  m_add->setToolTip(tr("one that gives only when the others cannot hold the setpoint; change its size as you like"));
  connect(m_add, &QPushButton::clicked, this, &HeaterList::addAnother);
}

void HeaterList::addAnother() {
  const auto why = m_document.edit(tr("add another heater"), [](Plan& p) {
    constexpr double kStep_W = 500.0, kBelow_K = 1.0;
    const double half_W = std::max(kStep_W, std::round(0.5 * heaterPower_W(p, {HeaterPlace::Of::house}) / kStep_W) * kStep_W);
    double lowest_K = 0.0;
    for (const Heater& h : p.heaters)
      if (h.place.of == HeaterPlace::Of::house) lowest_K = std::max(lowest_K, h.stage_K);
    addHeater(p, {.power_W = half_W, .stage_K = lowest_K + kBelow_K});
  });
  if (why) emit m_document.trouble(*why);
}

void HeaterList::addRow(std::size_t heater) {
  const Heater& of = m_document.plan().heaters[heater];
  auto* row = new QWidget(this);
  auto* body = new QVBoxLayout(row);
  body->setContentsMargins(0, 0, 6, 2);
  body->setSpacing(4);
  auto* head = new QHBoxLayout; // what it is and what it is called
  head->setSpacing(8);
  body->addLayout(head);
  auto* fields = new QHBoxLayout;
  fields->setSpacing(8);
  const QString name = said(nameOf(m_document.plan(), of));
  const auto field = [&](const QString& label, Quantity quantity, double Heater::*member, double high, double nudge, const QString& source) {
    auto* made = new NumberField(m_document, NumberField::Spec::at(label, quantity, at(heater, member), 0.0, high, nudge, source), row);
    made->setMinimumWidth(kFieldWidth_px);
    made->setAccessibleName(QStringLiteral("%1: %2").arg(name, label));
    fields->addWidget(made, 1);
  };
  field(of.place.of == HeaterPlace::Of::bay ? tr("In the bay") : tr("Size"), Quantity::power, &Heater::power_W, 1e6, 500.0,
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
  body->addLayout(fields);
  if (isBurnt(carrierOf(of)) || carrierOf(of) == Carrier::heat) addFuel(heater, *body);
  addPlace(heater, *body);
  if (factsOf(of.kind).control == HeatControl::batches) {
    addStoking(heater, *body);
    addFlue(heater, *body);
  }
  addWhen(heater, *body);
  auto* kinds = new QComboBox(row);
  kinds->setFont(textFont(9));
  kinds->setAccessibleName(tr("Kind of %1").arg(name));
  kinds->setToolTip(tr("what it is: what it takes, where its heat goes and what it leaves in the air follow from it"));
  for (const HeaterKindFacts& facts : heaterKinds()) {
    if (!facts.inRooms) continue;
    kinds->addItem(HeaterWords::kind(facts.kind), static_cast<int>(facts.kind));
    if (facts.kind == of.kind) kinds->setCurrentIndex(kinds->count() - 1);
  }
  connect(kinds, &QComboBox::activated, this, [this, heater, kinds](int at) { setKind(heater, static_cast<HeaterKind>(kinds->itemData(at).toInt())); });
  auto* called = new QLineEdit(QString::fromStdString(of.name), row);
  called->setFont(textFont(9));
  called->setMaxLength(60);
  called->setMinimumWidth(kNameWidth_px);
  called->setPlaceholderText(said(nameOf(of.kind)));
  called->setAccessibleName(tr("Name of %1").arg(name));
  called->setToolTip(tr("what you call it; without a name it goes by its kind"));
  connect(called, &QLineEdit::editingFinished, this, [this, heater, called] {
    const Plan& now = m_document.plan();
    const std::string typed = called->text().trimmed().toStdString();
    if (heater >= now.heaters.size() || typed == now.heaters[heater].name) return;
    if (const auto why = m_document.edit(tr("name a heater"), [&](Plan& p) { p.heaters[heater].name = typed; })) emit m_document.trouble(*why);
  });
  head->addWidget(called, 1);
  head->addWidget(kinds, 1);
  head->addWidget(away);
  auto* words = new QLabel(row);
  words->setFont(textFont(9));
  words->setWordWrap(true);
  body->addWidget(words);
  m_rows->addWidget(row);
  m_shown.push_back({heater, words});
}

/// What it heats, where the plan has more than its house, and what it holds there.
void HeaterList::addPlace(std::size_t heater, QVBoxLayout& body) {
  const Plan& plan = m_document.plan();
  const Heater& of = plan.heaters[heater];
  const QString name = said(nameOf(plan, of));
  const HeaterKindFacts& facts = factsOf(of.kind);
  std::vector<std::pair<HeaterPlace, QString>> places{{{HeaterPlace::Of::house}, tr("in the house")}};
  if (plan.house.bay) places.push_back({{HeaterPlace::Of::bay}, tr("in %1").arg(said(nameOf(*plan.house.bay)))});
  const auto numbered = [](const QString& what, std::size_t at, std::size_t count) { return count > 1 ? QStringLiteral("%1 %2").arg(what).arg(at + 1) : what; };
  for (std::size_t b = 0; facts.inBeds && b < plan.house.bedCovers.size(); ++b)
    places.push_back({{HeaterPlace::Of::bed, b}, tr("under %1").arg(numbered(said(nameOf(plan.house.bedCovers[b])), b, plan.house.bedCovers.size()))});
  for (std::size_t m = 0; facts.inMass && m < plan.mass.size(); ++m)
    places.push_back({{HeaterPlace::Of::mass, m}, tr("within %1").arg(numbered(said(nameOf(plan.mass[m])), m, plan.mass.size()))});
  if (places.size() < 2) return;
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  auto* in = new QComboBox(this);
  in->setFont(textFont(9));
  in->setAccessibleName(tr("%1: where it stands").arg(name));
  for (const auto& [place, words] : places) {
    in->addItem(words);
    if (place == of.place) in->setCurrentIndex(in->count() - 1);
  }
  connect(in, &QComboBox::activated, this, [this, heater, places](int chosen) {
    const auto why = m_document.edit(tr("where a heater stands"), [&](Plan& p) {
      if (heater >= p.heaters.size()) return;
      Heater& h = p.heaters[heater];
      h.place = places[static_cast<std::size_t>(chosen)].first;
      constexpr double kMost_C = 40.0, kUsualBed_C = 5.0, kUsualMass_C = 18.0; // seedlings on a warm bench
      if (h.place.holdsItsOwn() && h.holds_C > kMost_C) h.holds_C = h.place.of == HeaterPlace::Of::bed ? kUsualBed_C : kUsualMass_C;
      if (h.place.of != HeaterPlace::Of::house) h.through = 0;
    });
    if (why) emit m_document.trouble(*why);
  });
  line->addWidget(in, 2);
  if (of.place.holdsItsOwn() && facts.control == HeatControl::thermostat) {
    auto* holds = new NumberField(m_document,
                                  NumberField::Spec::at(tr("Holds"), Quantity::temperature, at(heater, &Heater::holds_C), -10.0, 40.0, 0.5,
                                                        of.place.of == HeaterPlace::Of::bed ? tr("of the air under the cover, day and night")
                                                                                            : tr("where its warmth goes in, day and night")),
                                  this);
    holds->setMinimumWidth(kFieldWidth_px);
    holds->setAccessibleName(tr("%1: holds").arg(name));
    line->addWidget(holds, 2);
  }
  line->addStretch(1);
  body.addLayout(line);
}

/// Through which heavy thing a stove's flue leads.
void HeaterList::addFlue(std::size_t heater, QVBoxLayout& body) {
  const Plan& plan = m_document.plan();
  const Heater& of = plan.heaters[heater];
  if (plan.mass.empty() || of.place.of != HeaterPlace::Of::house) return;
  const QString name = said(nameOf(plan, of));
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  auto* through = new QComboBox(this);
  through->setFont(textFont(9));
  through->setAccessibleName(tr("%1: where its flue leads").arg(name));
  through->addItem(tr("flue straight up"));
  for (std::size_t m = 0; m < plan.mass.size(); ++m) {
    const QString what = said(nameOf(plan.mass[m]));
    through->addItem(tr("flue through %1").arg(plan.mass.size() > 1 ? QStringLiteral("%1 %2").arg(what).arg(m + 1) : what));
  }
  through->setCurrentIndex(std::min(of.through, through->count() - 1));
  connect(through, &QComboBox::activated, this, [this, heater](int chosen) {
    const auto why = m_document.edit(tr("where a flue leads"), [&](Plan& p) {
      if (heater < p.heaters.size()) p.heaters[heater].through = chosen;
    });
    if (why) emit m_document.trouble(*why);
  });
  line->addWidget(through, 2);
  if (of.through > 0) {
    auto* share = new NumberField(m_document,
                                  NumberField::Spec::at(tr("Into it"), Quantity::share, at(heater, &Heater::massShare), 0.0, 1.0, 0.05,
                                                        tr("of the heat that is not lost up the chimney; the rest goes to the room at once")),
                                  this);
    share->setMinimumWidth(kFieldWidth_px);
    share->setAccessibleName(tr("%1: into it").arg(name));
    line->addWidget(share, 2);
  }
  line->addStretch(1);
  body.addLayout(line);
}

void HeaterList::setKind(std::size_t heater, HeaterKind kind) {
  const auto why = m_document.edit(tr("another kind of heater"), [&](Plan& p) {
    if (heater >= p.heaters.size() || p.heaters[heater].kind == kind) return;
    Heater& of = p.heaters[heater];
    of.kind = kind;
    of.burns = Carrier::fuel;
    of.efficiency.reset();
    of.least.reset();
    of.startUp_min.reset();
    of.partLoad.clear();
    of.onlyBelowPrice_kWh.reset();
    if (factsOf(kind).control != HeatControl::batches) of.through = 0;
    if (const HeaterKindFacts& facts = factsOf(kind);
        (of.place.of == HeaterPlace::Of::bed && !facts.inBeds) || (of.place.of == HeaterPlace::Of::mass && !facts.inMass))
      of.place = {};
    of.boughtBy = unitsOf(carrierOf(of)).back().id;
    of.fuelPrice_kWh = 0.0; // of what it took before
  });
  if (why) emit m_document.trouble(*why);
}

/// What a stove burns: logs as they come, or of one tree.
QComboBox* HeaterList::woods(std::size_t heater) {
  const Heater& of = m_document.plan().heaters[heater];
  auto* woods = new QComboBox(this);
  woods->setFont(textFont(9));
  woods->setAccessibleName(tr("%1: wood").arg(said(nameOf(m_document.plan(), of))));
  for (const CarrierFacts& wood : carriers()) {
    if (!isWood(wood.kind)) continue;
    woods->addItem(HeaterWords::carrier(wood.kind), static_cast<int>(wood.kind));
    if (wood.kind == carrierOf(of)) woods->setCurrentIndex(woods->count() - 1);
  }
  connect(woods, &QComboBox::activated, this, [this, heater, woods](int at) {
    const auto why = m_document.edit(tr("what the stove burns"), [&](Plan& p) {
      if (heater < p.heaters.size()) p.heaters[heater].burns = static_cast<Carrier>(woods->itemData(at).toInt());
    });
    if (why) emit m_document.trouble(*why);
  });
  return woods;
}

/// What its fuel costs, by the unit it is bought in.
void HeaterList::addFuel(std::size_t heater, QVBoxLayout& body) {
  const Heater& of = m_document.plan().heaters[heater];
  const QString name = said(nameOf(m_document.plan(), of));
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  const double unit_kWh = kWhPerUnit(carrierOf(of), of.boughtBy, of.stoking.moisture);
  const auto price = [heater, unit_kWh](const Plan& p) { return heater < p.heaters.size() ? p.heaters[heater].fuelPrice_kWh * unit_kWh : 0.0; };
  const auto setPrice = [heater, unit_kWh](Plan& p, double money) {
    if (heater < p.heaters.size()) p.heaters[heater].fuelPrice_kWh = money / unit_kWh;
  };
  auto* money = new NumberField(
      m_document,
      {tr("Fuel price"), Quantity::price, price, setPrice, 0.0, 100.0 * unit_kWh, 0.5,
       tr("of %1, from your bill; a unit holds %2").arg(HeaterWords::carrier(carrierOf(of)), m_document.view().units().text(Quantity::energy, unit_kWh))},
      this);
  money->setMinimumWidth(kFieldWidth_px);
  money->setAccessibleName(tr("%1: price of its fuel").arg(name));
  auto* units = new QComboBox(this);
  units->setFont(textFont(9));
  units->setAccessibleName(tr("%1: bought by").arg(name));
  for (const FuelUnit& unit : unitsOf(carrierOf(of))) {
    units->addItem(HeaterWords::unit(unit.id), QString::fromLatin1(unit.id));
    if (of.boughtBy == unit.id) units->setCurrentIndex(units->count() - 1);
  }
  connect(units, &QComboBox::activated, this, [this, heater, units](int at) {
    const auto why = m_document.edit(tr("what fuel is bought by"), [&](Plan& p) {
      if (heater < p.heaters.size()) p.heaters[heater].boughtBy = units->itemData(at).toString().toStdString();
    });
    if (why) emit m_document.trouble(*why);
  });
  line->addWidget(money, 2);
  line->addWidget(units, 1);
  if (isWood(carrierOf(of))) line->addWidget(woods(heater), 1);
  body.addLayout(line);
  auto* yard = new QGridLayout; // the work of it, and how it comes to the yard
  yard->setHorizontalSpacing(8);
  yard->setVerticalSpacing(4);
  const auto part = [heater](double Delivery::*member) -> Find<double> {
    return [=](Plan& p) -> double* { return heater < p.heaters.size() ? &(p.heaters[heater].delivery.*member) : nullptr; };
  };
  const auto put = [&](NumberField::Spec spec) {
    constexpr int kAcross = 2;
    const QString label = spec.label;
    auto* made = new NumberField(m_document, std::move(spec), this);
    made->setMinimumWidth(kFieldWidth_px);
    made->setAccessibleName(QStringLiteral("%1: %2").arg(name, label));
    yard->addWidget(made, yard->count() / kAcross, yard->count() % kAcross);
  };
  put(NumberField::Spec::at(tr("Hours a unit"), Quantity::hours, at(heater, &Heater::hoursPerUnit), 0.0, 100.0, 0.05,
                            tr("of work: to fetch, change or fill one")));
  put(NumberField::Spec::at(tr("In stock"), Quantity::count, part(&Delivery::stock_units), 0.0, 1e6, 1.0, tr("units in the yard as winter begins")));
  put(NumberField::Spec::at(tr("A delivery"), Quantity::count, part(&Delivery::units), 0.0, 1e6, 1.0, tr("units that are delivered at a time"),
                            NumberField::Spec::Word{0.0, tr("fetched")}));
  put(NumberField::Spec::at(tr("Its charge"), Quantity::money, part(&Delivery::charge), 0.0, 1e6, 5.0, tr("charged for each, beside the fuel")));
  put(NumberField::Spec::at(tr("Give or take"), Quantity::share, at(heater, &Heater::fuelPriceSpread), 0.0, 0.9, 0.05,
                            tr("by which the fuel may come out dearer or cheaper this winter")));
  body.addLayout(yard);
}

/// How a stove is fed.
void HeaterList::addStoking(std::size_t heater, QVBoxLayout& body) {
  const QString name = said(nameOf(m_document.plan(), m_document.plan().heaters[heater]));
  auto* lines = new QGridLayout; // two beside one another
  lines->setHorizontalSpacing(8);
  lines->setVerticalSpacing(4);
  int place = 0;
  const auto put = [&](NumberField* made) {
    lines->addWidget(made, place / 2, place % 2);
    ++place;
  };
  const auto field = [&](const QString& label, Quantity quantity, const Find<double>& find, double low, double high, double nudge, const QString& source) {
    auto* made = new NumberField(m_document, NumberField::Spec::at(label, quantity, find, low, high, nudge, source), this);
    made->setMinimumWidth(kFieldWidth_px);
    made->setAccessibleName(QStringLiteral("%1: %2").arg(name, label));
    put(made);
  };
  const auto of = [heater](double Stoking::*member) -> Find<double> {
    return [=](Plan& p) -> double* { return heater < p.heaters.size() ? &(p.heaters[heater].stoking.*member) : nullptr; };
  };
  field(tr("A load"), Quantity::mass, of(&Stoking::load_kg), 0.1, 500.0, 0.5, tr("of wood, put on at a time"));
  field(tr("First at"), Quantity::hours, at(heater, &Heater::from_h), 0.0, 24.0, 0.5, tr("by the clock"));
  field(tr("then every"), Quantity::hours, of(&Stoking::every_h), 0.25, 24.0, 0.5, tr("hours from load to load"));
  auto* loads = new NumberField(m_document,
                                {tr("Loads a night"), Quantity::count,
                                 [heater](const Plan& p) { return heater < p.heaters.size() ? double(p.heaters[heater].stoking.loads) : 0.0; },
                                 [heater](Plan& p, double v) {
                                   if (heater < p.heaters.size()) p.heaters[heater].stoking.loads = static_cast<int>(std::lround(v));
                                 },
                                 1.0, 24.0, 1.0, tr("a night")},
                                this);
  loads->setMinimumWidth(kFieldWidth_px);
  loads->setAccessibleName(tr("%1: loads a night").arg(name));
  put(loads);
  field(tr("Work a load"), Quantity::hours, of(&Stoking::hoursPerLoad), 0.0, 5.0, 0.05, tr("fetching it, putting it on, the ash"));
  field(tr("Its water"), Quantity::share, of(&Stoking::moisture), 0.0, 0.6, 0.02, tr("share of the wood's mass; dry after two summers it is 0.18"));
  body.addLayout(lines);
}

/// Who lights, loads and refuels it.
QWidget* HeaterList::tendedBy(std::size_t heater) {
  const Heater& of = m_document.plan().heaters[heater];
  auto* whose = new QLineEdit(QString::fromStdString(of.tendedBy), this);
  whose->setMaxLength(40);
  whose->setFont(textFont(9));
  whose->setPlaceholderText(tr("tended by: you"));
  whose->setToolTip(tr("who lights, loads and refuels it; their hours are told apart"));
  whose->setAccessibleName(tr("%1: tended by").arg(said(nameOf(m_document.plan(), of))));
  connect(whose, &QLineEdit::editingFinished, this, [this, whose, heater] {
    const std::string typed = whose->text().trimmed().toStdString();
    if (heater >= m_document.plan().heaters.size() || m_document.plan().heaters[heater].tendedBy == typed) return;
    const auto why = m_document.edit(tr("who tends a heater"), [&](Plan& p) {
      if (heater < p.heaters.size()) p.heaters[heater].tendedBy = typed;
    });
    if (why) emit m_document.trouble(*why);
  });
  connect(&m_document, &Document::planChanged, whose, [this, whose, heater] {
    if (heater < m_document.plan().heaters.size() && !whose->hasFocus()) whose->setText(QString::fromStdString(m_document.plan().heaters[heater].tendedBy));
  });
  return whose;
}

/// When it may give, by whom that is decided: the clock, the weather outside, the forecast.
void HeaterList::addWhen(std::size_t heater, QVBoxLayout& body) {
  const Heater& of = m_document.plan().heaters[heater];
  const QString name = said(nameOf(m_document.plan(), of));
  auto* inside = new QWidget(this);
  auto* grid = new QGridLayout(inside);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(4);
  int place = 0;
  const auto put = [&](NumberField::Spec spec) {
    const QString label = spec.label;
    auto* made = new NumberField(m_document, std::move(spec), inside);
    made->setMinimumWidth(kFieldWidth_px);
    made->setAccessibleName(QStringLiteral("%1: %2").arg(name, label));
    grid->addWidget(made, place / 2, place % 2);
    ++place;
  };
  /// Outside, beyond `always_C` it is no limit.
  const auto limit = [&](const QString& label, std::optional<double> Heater::*member, double always_C, const QString& word, const QString& source) {
    const double least_C = always_C == kColdest_C ? kColdest_C : kCold_C;
    const auto get = [=](const Plan& p) { return heater < p.heaters.size() ? (p.heaters[heater].*member).value_or(always_C) : always_C; };
    const auto set = [=](Plan& p, double v) {
      if (heater < p.heaters.size()) p.heaters[heater].*member = v == always_C ? std::nullopt : std::optional(v);
    };
    put({label, Quantity::temperature, get, set, least_C, kWarm_C, 1.0, source, NumberField::Spec::Word{always_C, word}});
  };
  const bool isFed = factsOf(of.kind).control == HeatControl::batches; // whose hours are those of its loads
  limit(tr("Before nights below"), &Heater::beforeNightsBelow_C, kWarm_C, tr("every night"),
        tr("only from noon to noon about a night that is forecast to fall below this; the rest is left to the others"));
  limit(tr("Outside below"), &Heater::onlyBelow_C, kWarm_C, tr("always"), tr("outside: locked out while it is warmer"));
  limit(tr("Outside above"), &Heater::onlyAbove_C, kColdest_C, tr("always"), tr("outside: locked out while it is colder"));
  if (carrierOf(of) == Carrier::electricity && !m_document.plan().prices.electricityWindows.empty()) {
    constexpr double kAny = 100.0;
    put({tr("A kWh below"), Quantity::price,
         [=](const Plan& p) { return heater < p.heaters.size() ? p.heaters[heater].onlyBelowPrice_kWh.value_or(kAny) : kAny; },
         [=](Plan& p, double v) {
           if (heater < p.heaters.size()) p.heaters[heater].onlyBelowPrice_kWh = v < kAny ? std::optional(v) : std::nullopt;
         },
         0.0, kAny, 0.01, tr("only in hours in which electricity costs less; the rest is left to the others"),
         NumberField::Spec::Word{kAny, tr("at any price")}});
  }
  if (!isFed) {
    put(NumberField::Spec::at(tr("From"), Quantity::hours, at(heater, &Heater::from_h), 0.0, 24.0, 0.5, tr("by the clock of the place")));
    put(NumberField::Spec::at(tr("For"), Quantity::hours, at(heater, &Heater::for_h), 0.5, 24.0, 0.5, tr("hours from then on; all of them: day and night"),
                              NumberField::Spec::Word{24.0, tr("day and night")}));
    put(NumberField::Spec::at(tr("Reads too warm"), Quantity::difference, at(heater, &Heater::sensorError_K), -5.0, 5.0, 0.5,
                              tr("by so much, its thermostat: in the sun, or beside the heater; less than 0: too cold")));
  }
  if (const double usual = factsOf(of.kind).efficiency; of.kind != HeaterKind::heatPump && carrierOf(of) != Carrier::electricity)
    put({tr("Gives of its fuel"), Quantity::share, [=](const Plan& p) { return heater < p.heaters.size() ? efficiencyOf(p.heaters[heater]) : usual; },
         [=](Plan& p, double v) {
           if (heater < p.heaters.size()) p.heaters[heater].efficiency = std::abs(v - usual) < 1e-9 ? std::nullopt : std::optional(v);
         },
         0.05, 1.1, 0.05, tr("heat for a net kWh of it; usual of its kind %1").arg(m_document.view().units().text(Quantity::share, usual))});
  if (factsOf(of.kind).control == HeatControl::thermostat) { // how it goes on and off
    const auto own = [heater](std::optional<double> Heater::*member, double usual) {
      return std::pair([=](const Plan& p) { return heater < p.heaters.size() ? (p.heaters[heater].*member).value_or(usual) : usual; },
                       [=](Plan& p, double v) {
                         if (heater < p.heaters.size()) p.heaters[heater].*member = std::abs(v - usual) < 1e-9 ? std::nullopt : std::optional(v);
                       });
    };
    const auto [band, setBand] = own(&Heater::band_K, 0.0);
    put({tr("On to off"), Quantity::difference, band, setBand, 0.0, 10.0, 0.5,
         tr("that its thermostat goes on below where it goes off; given, the nights are judged by how far the air falls"),
         NumberField::Spec::Word{0.0, tr("exact")}});
    const double usualLeast = factsOf(of.kind).least;
    const auto [least, setLeast] = own(&Heater::least, usualLeast);
    put({tr("Gives at least"), Quantity::share, least, setLeast, 0.0, 1.0, 0.1,
         tr("of its size; below that it goes on and off. Usual of its kind: %1").arg(m_document.view().units().text(Quantity::share, usualLeast))});
    const double usualStart_min = factsOf(of.kind).startUp_s / 60.0;
    const auto [start, setStart] = own(&Heater::startUp_min, usualStart_min);
    put({tr("Minutes to heat"), Quantity::count, start, setStart, 0.0, 120.0, 1.0,
         tr("from its thermostat's call until it gives heat; usual of its kind: %1").arg(QLocale().toString(usualStart_min, 'g', 2))});
    put(NumberField::Spec::at(tr("Watts at rest"), Quantity::count, at(heater, &Heater::standby_W), 0.0, 5000.0, 5.0,
                              tr("that it takes while it may give and does not: a pilot flame, a pump, electronics")));
    const auto low = [heater](const Plan& p) {
      return heater < p.heaters.size() && !p.heaters[heater].partLoad.empty() ? p.heaters[heater].partLoad.front().factor : 1.0;
    };
    const auto setLow = [heater](Plan& p, double v) {
      constexpr double kLow = 0.3; // of its size, as part loads are rated
      if (heater < p.heaters.size())
        p.heaters[heater].partLoad = std::abs(v - 1.0) < 1e-9 ? std::vector<PartLoadPoint>() : std::vector<PartLoadPoint>{{kLow, v}, {1.0, 1.0}};
    };
    put({tr("At low load"), Quantity::share, low, setLow, 0.05, 2.0, 0.05, tr("heat for what it takes at a third of its size, by that at full stretch")});
  }
  if (factsOf(of.kind).control == HeatControl::thermostat && of.place.of == HeaterPlace::Of::house)
    put(NumberField::Spec::at(tr("Stirs"), Quantity::airFlow, at(heater, &Heater::stirs_m3_h), 0.0, 100000.0, 50.0,
                              tr("of the house's air, its fan: the covers take its warmth sooner, leaves dry"),
                              NumberField::Spec::Word{0.0, tr("next to none")}));
  if (carrierOf(of) != Carrier::electricity) grid->addWidget(tendedBy(heater), place / 2, place % 2);
  auto* toggle = new QPushButton(tr("when and how it gives"), this);
  toggle->setAccessibleName(tr("When and how %1 gives").arg(name));
  toggle->setFont(textFont(9));
  toggle->setCheckable(true);
  const auto show = [inside](bool open) { inside->setVisible(open); };
  const bool isOpen = m_opened.contains(of.id);
  toggle->setChecked(isOpen);
  show(isOpen);
  connect(toggle, &QPushButton::toggled, this, [this, show, id = of.id](bool open) {
    open ? static_cast<void>(m_opened.insert(id)) : static_cast<void>(m_opened.erase(id));
    show(open);
  });
  body.addWidget(toggle, 0, Qt::AlignLeft);
  body.addWidget(inside);
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
  m_none->setVisible(m_shown.empty());
  const HeaterRowWords words(m_document);
  for (const Row& row : m_shown) row.words->setText(words.of(row.heater));
}

} // namespace muffle
