// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/measures_editor.h"

#include "app/model/said.h"
#include "core/plan/heaters.h"
#include "core/plan/names.h"
#include "core/simulate/heat_prices.h"
#include "core/sizing/usual_measures.h"

#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/caution_label.h"
#include "app/stages/number_field.h"
#include "app/stages/stack_field.h"
#include "app/stages/wishes_card.h"
#include "core/material/materials.h"
#include "core/plan/measure_rules.h"
#include "core/plan/measure_table.h"
#include "core/plan/own_measure.h"
#include "core/plan/plan_differences.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

QString kindText(MeasureKind kind) { return said(Message::of("measure", rowOf(kind).id)); }

QString priceText(MeasureKind kind) {
  switch (rowOf(kind).pricedBy) {
  case PricedBy::whole: return MeasuresEditor::tr("Price, all of it");
  case PricedBy::each: return MeasuresEditor::tr("Price of one");
  case PricedBy::kilowatt: return MeasuresEditor::tr("Price a kW");
  case PricedBy::perimeter_m: return MeasuresEditor::tr("Price a metre round");
  case PricedBy::cover_m2:
  case PricedBy::floor_m2:
  case PricedBy::level_m2:
  case PricedBy::nothing: break;
  }
  return MeasuresEditor::tr("Price");
}

} // namespace

Quantity levelQuantity(MeasureKind kind) {
  switch (rowOf(kind).levelOf) {
  case LevelOf::power_W: return Quantity::power;
  case LevelOf::airChanges_per_h: return Quantity::airChanges;
  case LevelOf::depth_m:
  case LevelOf::length_m: return Quantity::length;
  case LevelOf::colder_K: return Quantity::difference;
  case LevelOf::area_m2: return Quantity::area;
  case LevelOf::any: return Quantity::factor;
  case LevelOf::none:
  case LevelOf::count: break;
  }
  return Quantity::count;
}

QString levelsText(const Measure& measure, const Units& units) {
  QStringList parts;
  for (const double level : measure.levels) parts << units.text(levelQuantity(measure.kind), level);
  return parts.join(QStringLiteral("; "));
}

std::optional<std::vector<double>> parseLevels(const QString& typed, MeasureKind kind, const Units& units) {
  std::vector<double> levels;
  // a semicolon parts them; a comma followed by a space does too, and a comma within a number is a decimal comma
  for (const QString& part : QString(typed).replace(QStringLiteral(", "), QStringLiteral(";")).split(QLatin1Char(';'), Qt::SkipEmptyParts)) {
    const auto value = units.parse(levelQuantity(kind), part.trimmed());
    if (!value || *value < 0.0) return std::nullopt;
    levels.push_back(rowOf(kind).levelOf == LevelOf::count ? std::round(*value) : *value);
  }
  if (levels.empty()) return std::nullopt;
  return levels;
}

MeasuresEditor::MeasuresEditor(Document& document, QWidget* parent) : QWidget(parent), m_document(document), m_cards(nullptr), m_add(new QComboBox(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inner = new QWidget(scroll);
  m_cards = new QVBoxLayout(inner);
  m_cards->setContentsMargins(0, 0, 8, 0);
  m_cards->setSpacing(10);
  scroll->setWidget(inner);
  body->addWidget(scroll, 1);
  auto* row = new QHBoxLayout;
  m_add->addItem(tr("Add something to try…"));
  for (const MeasureRow& measure : measureTable()) m_add->addItem(kindText(measure.kind));
  m_add->setAccessibleName(tr("Add a measure"));
  row->addWidget(m_add);
  row->addStretch();
  body->addLayout(row);
  auto* wishes = new WishesCard(document, this);
  connect(wishes, &WishesCard::opened, this, [this, scroll](bool isOpen) {
    scroll->setVisible(!isOpen);
    m_add->setVisible(!isOpen);
  });
  body->addWidget(wishes);
  body->addStretch(0); // of use where the list is out of sight
  connect(m_add, &QComboBox::activated, this, [this](int i) {
    m_add->setCurrentIndex(0);
    if (i < 1) return;
    const MeasureKind kind = measureTable()[static_cast<std::size_t>(i - 1)].kind;
    if (kind == MeasureKind::own) return offerChanges();
    if (const auto why = m_document.edit(tr("add %1 to try").arg(kindText(kind)), [&](Plan& p) { p.measures.push_back(usualMeasure(kind)); }))
      emit m_document.trouble(*why);
  });
  connect(&document, &Document::planChanged, this, &MeasuresEditor::refresh);
  connect(&document, &Document::viewChanged, this, &MeasuresEditor::rebuild);
  rebuild();
}

/// What the second plan has otherwise, or what was changed since the last search, becomes something to choose.
void MeasuresEditor::offerChanges() {
  const Results& results = m_document.results();
  const Plan& plan = m_document.plan();
  const bool isOfOther = results.otherPlan().has_value();
  if (!isOfOther && !results.sizing()) {
    emit m_document.trouble(
        tr("Search once, then change the house as you might have it, and come back here: what you changed becomes something to choose, with a "
           "price of its own. A plan set beside yours does as well."));
    return;
  }
  const Plan& from = isOfOther ? plan : results.sizedPlan();
  const Plan& to = isOfOther ? *results.otherPlan() : plan;
  const auto settings = settingsBetween(from, to);
  if (!settings) {
    emit m_document.trouble(said(settings.problem(), m_document.view().units()));
    return;
  }
  const auto why = m_document.edit(tr("offer a change of your own"), [&](Plan& p) {
    if (!isOfOther) p = putBack(std::move(p), from); // the house is again as it was searched
    Measure own = usualMeasure(MeasureKind::own);
    own.name = tr("change of your own").toStdString();
    own.sets = *settings;
    p.measures.push_back(std::move(own));
  });
  if (why) emit m_document.trouble(*why);
}

std::vector<MeasureKind> MeasuresEditor::kinds() const {
  std::vector<MeasureKind> all;
  for (const Measure& m : m_document.plan().measures) all.push_back(m.kind);
  return all;
}

/// Cards stay while the list of measures stays, so that a field being typed in keeps the keyboard.
void MeasuresEditor::refresh() {
  if (kinds() != m_shown) rebuild();
}

void MeasuresEditor::rebuild() {
  m_shown = kinds();
  clearCards(*m_cards);
  for (std::size_t i = 0; i < m_shown.size(); ++i) m_cards->addWidget(card(i));
  if (m_shown.empty()) {
    auto* none =
        new QLabel(tr("Nothing to try yet. Add a second skin, a blanket, sealing, barrels or a heater, each with your prices; the search then finds the "
                      "combination that holds every logged night for least."),
                   this);
    none->setWordWrap(true);
    m_cards->addWidget(none);
  }
  m_cards->addStretch();
}

/// What a measure of one's own makes of the house, in words; where it cannot be made, and in the tip, by the places in the plan's file.
void MeasuresEditor::stateChanges(QLabel& label, const Measure& own) const {
  QStringList fields, changes;
  for (const Setting& s : own.sets) {
    const bool isWhole = s.to.starts_with('{') || s.to.starts_with('['); // a room, a store: its every field would say little
    fields << QStringLiteral("%1 \u2192 %2").arg(QString::fromStdString(s.field), isWhole ? tr("as you had it") : QString::fromStdString(s.to).left(40));
  }
  const Units& u = m_document.view().units();
  if (const auto made = withSettings(m_document.plan(), own, 0.0))
    for (const PlanDifference& d : differences(m_document.plan(), *made)) changes << tr("%1: %2").arg(said(d.what, u), said(d.other, u));
  label.setText((changes.isEmpty() ? fields : changes).join(QLatin1Char('\n')));
  label.setToolTip(tr("where the plan's file has it, and what it becomes:\n%1").arg(fields.join(QLatin1Char('\n'))));
}

QWidget* MeasuresEditor::card(std::size_t index) {
  const Measure& m = m_document.plan().measures[index];
  const MeasureKind kind = m.kind;
  auto* card = new QWidget(this);
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(0, 4, 0, 0);
  grid->setHorizontalSpacing(18);
  grid->setVerticalSpacing(2);
  const auto measureOf = [index](Plan& p) -> Measure* { return index < p.measures.size() ? &p.measures[index] : nullptr; };

  auto* name = new QLineEdit(said(nameOf(m)), card);
  name->setMaxLength(60);
  name->setFont(textFont(10.5, true));
  name->setAccessibleName(tr("Name of measure %1").arg(index + 1));
  connect(name, &QLineEdit::editingFinished, this, [this, name, index, measureOf] {
    if (index >= m_document.plan().measures.size()) return;
    const Measure& now = m_document.plan().measures[index];
    const QString typed = name->text().trimmed();
    if (typed == said(nameOf(now))) return;
    if (const auto why = m_document.edit(tr("rename a measure"), [&](Plan& p) { measureOf(p)->name = typed.toStdString(); })) emit m_document.trouble(*why);
  });
  connect(&m_document, &Document::planChanged, name, [this, name, index] {
    if (index < m_document.plan().measures.size() && !name->hasFocus()) name->setText(said(nameOf(m_document.plan().measures[index])));
  });
  grid->addWidget(name, 0, 0);
  auto* drop = new QPushButton(tr("Take off"), card);
  drop->setAccessibleName(tr("Take %1 off the list").arg(said(nameOf(m))));
  connect(drop, &QPushButton::clicked, this, [this, index] {
    m_document.edit(tr("take a measure off the list"), [index](Plan& p) {
      if (index >= p.measures.size()) return;
      const std::string id = p.measures[index].id;
      p.measures.erase(p.measures.begin() + static_cast<std::ptrdiff_t>(index));
      for (Measure& other : p.measures) // whose rules spoke of it
        for (auto* ids : {&other.excludes, &other.needs}) std::erase(*ids, id);
    });
  });
  grid->addWidget(drop, 0, 1, Qt::AlignRight);

  if (hasMaterial(kind)) {
    auto* material = new QComboBox(card);
    material->setAccessibleName(tr("Material of %1").arg(said(nameOf(m))));
    offerMaterials(*material, m_document.planInHand().materials());
    const auto show = [this, material, index] {
      if (index < m_document.plan().measures.size())
        material->setCurrentIndex(material->findData(QString::fromStdString(m_document.plan().measures[index].material)));
    };
    show();
    connect(&m_document, &Document::planChanged, material, show);
    connect(material, &QComboBox::activated, this, [this, material, measureOf](int i) {
      const std::string id = material->itemData(i).toString().toStdString();
      if (const auto why = m_document.edit(tr("change a measure's material"), [&](Plan& p) {
            if (Measure* at = measureOf(p)) at->material = id;
          }))
        emit m_document.trouble(*why);
    });
    grid->addWidget(material, 1, 0);
  } else if (kind == MeasureKind::own && m.levels.empty()) {
    auto* what = new QLabel(card);
    what->setFont(textFont(8.5));
    what->setWordWrap(true);
    stateChanges(*what, m);
    grid->addWidget(what, 1, 0);
  } else {
    auto* sizes = new QLineEdit(levelsText(m, m_document.view().units()), card);
    sizes->setAccessibleName(tr("Sizes of %1 to try").arg(said(nameOf(m))));
    sizes->setToolTip(kind == MeasureKind::sealing ? tr("air changes an hour to get down to; part several by semicolons")
                                                   : tr("sizes to try besides none; part them by semicolons"));
    auto* refused = new QLabel(card);
    refused->setWordWrap(true);
    refused->setFont(textFont(8.5));
    refused->hide();
    connect(sizes, &QLineEdit::editingFinished, this, [this, sizes, refused, index, kind, measureOf] {
      if (index >= m_document.plan().measures.size() || sizes->text() == levelsText(m_document.plan().measures[index], m_document.view().units())) return;
      const auto levels = parseLevels(sizes->text(), kind, m_document.view().units());
      std::optional<QString> why;
      if (!levels)
        why = tr("\"%1\" cannot be read; type sizes such as %2").arg(sizes->text().left(30), levelsText(usualMeasure(kind), m_document.view().units()));
      else if (*levels != m_document.plan().measures[index].levels)
        why = m_document.edit(tr("change the sizes to try"), [&](Plan& p) { measureOf(p)->levels = *levels; });
      if (why) sizes->setText(levelsText(m_document.plan().measures[index], m_document.view().units()));
      refused->setText(why.value_or(QString()));
      refused->setVisible(why.has_value());
    });
    connect(&m_document, &Document::planChanged, sizes, [this, sizes, index] {
      if (index < m_document.plan().measures.size() && !sizes->hasFocus())
        sizes->setText(levelsText(m_document.plan().measures[index], m_document.view().units()));
    });
    grid->addWidget(sizes, 1, 0);
    grid->addWidget(refused, 2, 0);
  }
  const auto number = [&](int row, int column, const QString& label, Quantity quantity, double Measure::*field, double max, double nudge,
                          const QString& source) {
    const auto get = [index, field](const Plan& p) { return index < p.measures.size() ? p.measures[index].*field : 0.0; };
    const auto set = [index, field](Plan& p, double v) {
      if (index >= p.measures.size()) return;
      p.measures[index].*field = v;
      if (field == &Measure::price) p.measures[index].isUsualPrice = false;
    };
    const double least = field == &Measure::life_years ? 0.5 : 0.0;
    grid->addWidget(new NumberField(m_document, {label, quantity, get, set, least, max, nudge, source}, card), row, column);
  };
  if (kind == MeasureKind::heater) grid->addWidget(heaterKinds(index, card), 2, 1);
  if (kind == MeasureKind::secondSkin) grid->addWidget(coveredFaces(index, card), 2, 0);
  number(1, 1, priceText(kind), hasMaterial(kind) || rowOf(kind).pricedBy == PricedBy::level_m2 ? Quantity::areaPrice : Quantity::price, &Measure::price, 1e5,
         1.0, tr("bought once; spread over its life with interest"));
  number(3, 0, tr("Lasts, years"), Quantity::count, &Measure::life_years, 60, 1, tr("until it must be bought again"));
  if (rowOf(kind).isDrawnDaily)
    number(3, 1, tr("Work a night"), Quantity::hours, &Measure::hoursPerNight, 12, 0.05, tr("closing and opening it"));
  else
    number(3, 1, tr("Work a winter"), Quantity::hours, &Measure::hoursPerWinter, 1000, 1, tr("putting up, mending, taking down"));
  number(4, 1, tr("Give or take"), Quantity::share, &Measure::priceSpread, 0.9, 0.05, tr("by which its price may come out dearer or cheaper"));
  auto* how = new QHBoxLayout;
  how->addWidget(offers(index, card), 1);
  how->addWidget(rules(index, card));
  grid->addLayout(how, 4, 0);
  auto* usual = new QLabel(tr("a usual price: put yours"), card);
  usual->setFont(textFont(8.5));
  const auto showUsual = [this, usual, index] {
    usual->setVisible(index < m_document.plan().measures.size() && m_document.plan().measures[index].isUsualPrice);
  };
  showUsual();
  connect(&m_document, &Document::planChanged, usual, showUsual);
  grid->addWidget(usual, grid->rowCount(), 0, 1, 2);
  auto* caution = new CautionLabel(card);
  caution->state(cautionsFor(m_document.plan(), std::vector<Measure>{m}));
  grid->addWidget(caution, grid->rowCount(), 0, 1, 2);
  return card;
}

/// One of a few things that a measure is, as the plan has it.
QComboBox* MeasuresEditor::choice(std::size_t index, const QString& name, const QString& step, const Choosable& of, QWidget* card) {
  auto* choice = new QComboBox(card);
  choice->setAccessibleName(name);
  for (const auto& [words, value] : of.items) choice->addItem(words, value);
  const auto show = [this, choice, index, get = of.get] {
    if (index < m_document.plan().measures.size()) choice->setCurrentIndex(choice->findData(get(m_document.plan().measures[index])));
  };
  show();
  connect(&m_document, &Document::planChanged, choice, show);
  connect(choice, &QComboBox::activated, this, [this, choice, index, step, set = of.set](int at) {
    const int value = choice->itemData(at).toInt();
    const auto why = m_document.edit(step, [&](Plan& p) {
      if (index < p.measures.size()) set(p, p.measures[index], value);
    });
    if (why) emit m_document.trouble(*why);
  });
  return choice;
}

/// Whether it is a question at all.
QComboBox* MeasuresEditor::offers(std::size_t index, QWidget* card) {
  const Choosable of{{{tr("if it pays"), static_cast<int>(Offer::open)},
                      {tr("in any case"), static_cast<int>(Offer::fixed)},
                      {tr("not this time"), static_cast<int>(Offer::ruledOut)}},
                     [](const Measure& m) { return static_cast<int>(m.offer); },
                     [](Plan&, Measure& m, int value) { m.offer = static_cast<Offer>(value); }};
  auto* offers = choice(index, tr("%1: how it is offered").arg(said(nameOf(m_document.plan().measures[index]))), tr("how a measure is offered"), of, card);
  offers->setFont(textFont(9));
  return offers;
}

/// Which others it is not built together with, and which it needs: a list to tick.
QPushButton* MeasuresEditor::rules(std::size_t index, QWidget* card) {
  auto* button = new QPushButton(tr("with…"), card);
  button->setFont(textFont(9));
  button->setAccessibleName(tr("%1: what it goes with").arg(said(nameOf(m_document.plan().measures[index]))));
  button->setToolTip(tr("what it is not built together with, and what it needs"));
  auto* menu = new QMenu(button);
  button->setMenu(menu);
  connect(menu, &QMenu::aboutToShow, this, [this, menu, index] {
    menu->clear();
    const Plan& plan = m_document.plan();
    if (index >= plan.measures.size()) return;
    const auto offer = [&](const QString& words, std::size_t other, std::vector<std::string> Measure::*list) {
      auto* action = menu->addAction(words.arg(said(nameOf(plan.measures[other]))));
      action->setCheckable(true);
      const auto& ids = plan.measures[index].*list;
      const std::string& id = plan.measures[other].id;
      action->setChecked(!id.empty() && std::find(ids.begin(), ids.end(), id) != ids.end());
      connect(action, &QAction::triggered, this, [this, index, other, list](bool on) {
        const auto why = m_document.edit(tr("what a measure goes with"), [&](Plan& p) {
          if (std::max(index, other) >= p.measures.size()) return;
          const std::string called = idOf(p, other);
          auto& now = p.measures[index].*list;
          std::erase(now, called);
          if (on) now.push_back(called);
        });
        if (why) emit m_document.trouble(*why);
      });
    };
    for (std::size_t other = 0; other < plan.measures.size(); ++other)
      if (other != index) offer(tr("not with %1"), other, &Measure::excludes);
    menu->addSeparator();
    for (std::size_t other = 0; other < plan.measures.size(); ++other)
      if (other != index) offer(tr("only with %1"), other, &Measure::needs);
  });
  return button;
}

/// Which of the kinds that hold a setpoint by themselves; what it burns is priced among the fuels.
QComboBox* MeasuresEditor::heaterKinds(std::size_t index, QWidget* card) {
  Choosable of{{},
               [](const Measure& m) { return static_cast<int>(m.heater); },
               [](Plan& p, Measure& m, int value) {
                 m.heater = static_cast<HeaterKind>(value);
                 // a heater of the plan that burns the same says what it costs
                 const Carrier burns = factsOf(m.heater).carrier;
                 if (const auto known = fuelPrice_kWh(p, burns); known && !listedPrice(p.prices, burns))
                   p.prices.fuels.push_back({.fuel = burns, .boughtBy = unitsOf(burns).back().id, .price_kWh = *known});
               }};
  for (const HeaterKindFacts& facts : muffle::heaterKinds())
    if (facts.inRooms && facts.control == HeatControl::thermostat) of.items.emplace_back(said(nameOf(facts.kind)), static_cast<int>(facts.kind));
  auto* kinds = choice(index, tr("Kind of %1").arg(said(nameOf(m_document.plan().measures[index]))), tr("try another kind of heater"), of, card);
  kinds->setToolTip(tr("what it burns costs what stands under Fuels side by side, in Heat"));
  connect(kinds, &QComboBox::activated, this, &MeasuresEditor::rebuild); // its cautions are others
  return kinds;
}

QComboBox* MeasuresEditor::coveredFaces(std::size_t index, QWidget* card) {
  const Choosable of{{{tr("all round"), static_cast<int>(CoveredFaces::all)},
                      {tr("under the roof"), static_cast<int>(CoveredFaces::roof)},
                      {tr("at the sides"), static_cast<int>(CoveredFaces::sides)},
                      {tr("at the ends"), static_cast<int>(CoveredFaces::ends)},
                      {tr("under roof and sides"), static_cast<int>(CoveredFaces::roofAndSides)},
                      {tr("under roof and ends"), static_cast<int>(CoveredFaces::roofAndEnds)},
                      {tr("at sides and ends"), static_cast<int>(CoveredFaces::sidesAndEnds)}},
                     [](const Measure& m) { return static_cast<int>(m.faces); },
                     [](Plan&, Measure& m, int value) { m.faces = static_cast<CoveredFaces>(value); }};
  auto* where = choice(index, tr("Where %1 goes").arg(said(nameOf(m_document.plan().measures[index]))), tr("put a skin elsewhere"), of, card);
  where->setToolTip(tr("its price a square metre is of these faces alone"));
  return where;
}

} // namespace muffle
