// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_fields.h"

#include "app/paint/theme.h"
#include "app/stages/number_field.h"
#include "core/plan/heaters.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr int kColumns = 3;

/// A member of the plan's store at a place of a list.
template <class S, class T> Find<T> at(std::vector<S> Plan::*list, std::size_t index, T S::*member) {
  return [=](Plan& p) -> T* { return index < (p.*list).size() ? &((p.*list)[index].*member) : nullptr; };
}

template <class S> Find<double> ruleAt(std::vector<S> Plan::*list, std::size_t index, double StoreRule::*member) {
  return [=](Plan& p) -> double* { return index < (p.*list).size() ? &((p.*list)[index].rule.*member) : nullptr; };
}

/// A whole number.
template <class S>
NumberField::Spec whole(const QString& label, std::vector<S> Plan::*list, std::size_t index, int S::*member, int low, int high, const QString& source) {
  const Find<int> find = at(list, index, member);
  NumberField::Spec spec;
  spec.label = label;
  spec.get = [find](const Plan& p) {
    const int* const v = look(find, p);
    return v ? static_cast<double>(*v) : 0.0;
  };
  spec.set = [find](Plan& p, double v) {
    if (int* const to = find(p)) *to = static_cast<int>(std::lround(v));
  };
  spec.min = low;
  spec.max = high;
  spec.source = source;
  return spec;
}

} // namespace

StoreFields::StoreFields(Document& document, QWidget* parent) : QWidget(parent), m_document(document), m_grid(new QGridLayout(this)) {
  m_grid->setContentsMargins(0, 0, 0, 0);
  m_grid->setHorizontalSpacing(18);
  m_grid->setVerticalSpacing(2);
  for (int c = 0; c < kColumns; ++c) m_grid->setColumnStretch(c, 1);
}

void StoreFields::put(QWidget* field) { m_fields.push_back({field, m_when, m_seldom}); }

void StoreFields::seldom(const std::function<void()>& fields) {
  m_seldom = true;
  fields();
  m_seldom = false;
}

void StoreFields::showSeldom(bool on) {
  m_all = on;
  arrange();
}

bool StoreFields::hasSeldom() const {
  return std::any_of(m_fields.begin(), m_fields.end(),
                     [this](const Field& f) { return f.isShown(m_document.plan(), true) && !f.isShown(m_document.plan(), false); });
}

void StoreFields::onlyWhile(std::function<bool(const Plan&)> when, const std::function<void()>& fields) {
  m_when = std::move(when);
  fields();
  m_when = nullptr;
}

/// Those that mean something now, one after the other.
void StoreFields::arrange() {
  QString shown;
  for (const Field& f : m_fields) shown += f.isShown(m_document.plan(), m_all) ? QLatin1Char('1') : QLatin1Char('0');
  if (shown == m_arranged) return;
  m_arranged = shown;
  int count = 0;
  for (std::size_t k = 0; k < m_fields.size(); ++k) {
    QWidget* const field = m_fields[k].widget;
    m_grid->removeWidget(field);
    const bool isShown = shown[static_cast<qsizetype>(k)] == QLatin1Char('1');
    field->setVisible(isShown);
    if (!isShown) continue;
    m_grid->addWidget(field, count / kColumns, count % kColumns);
    ++count;
  }
}

template <class S>
void StoreFields::number(const QString& label, Quantity quantity, std::vector<S> Plan::*list, std::size_t index, double S::*member, double low, double high,
                         double nudge, const QString& source, const QString& whenNone) {
  std::optional<NumberField::Spec::Word> word;
  if (!whenNone.isEmpty()) word = NumberField::Spec::Word{0.0, whenNone};
  put(new NumberField(m_document, NumberField::Spec::at(label, quantity, at(list, index, member), low, high, nudge, source, word), this));
  m_fields.back().isSet = [find = at(list, index, member), usual = S{}.*member](const Plan& p) {
    const double* const v = look(find, p);
    return v && *v != usual;
  };
}

template <class S> void StoreFields::rule(std::vector<S> Plan::*list, std::size_t index) {
  const auto line = [&](const QString& label, double StoreRule::*member, double low, double high, const QString& source) {
    put(new NumberField(m_document, NumberField::Spec::at(label, Quantity::temperature, ruleAt(list, index, member), low, high, 1.0, source), this));
  };
  line(tr("Charge"), &StoreRule::chargeAbove_C, -5.0, 60.0, tr("the house warms the store while it is warmer than this"));
  line(tr("Give"), &StoreRule::giveBelow_C, -30.0, 40.0, tr("the store warms the house while it is colder than this"));
}

template <class T> void StoreFields::choice(const QString& name, const QStringList& words, const QString& step, std::function<T*(Plan&)> find) {
  auto* row = new QWidget(this);
  auto* along = new QHBoxLayout(row);
  along->setContentsMargins(0, 0, 0, 0);
  auto* label = new QLabel(name, row);
  label->setFont(textFont(9.5));
  auto* box = new QComboBox(row);
  box->addItems(words);
  box->setAccessibleName(name);
  box->setFont(textFont(9.5));
  along->addWidget(label);
  along->addWidget(box, 1);
  connect(box, &QComboBox::activated, this, [this, step, find](int i) {
    if (auto why = m_document.edit(step, [&](Plan& p) {
          if (T* const to = find(p)) *to = static_cast<T>(i);
        }))
      emit m_document.trouble(*why);
  });
  m_refresh.push_back([this, box, find] {
    if (const T* const v = look<T>(find, m_document.plan())) box->setCurrentIndex(static_cast<int>(*v));
  });
  put(row);
}

void StoreFields::show(const std::optional<StoreRef>& store) {
  QString signature;
  if (store) {
    signature = QString::fromStdString(store->id);
    if (store->kind == StoreKind::mass) signature += QString::number(static_cast<int>(m_document.plan().mass[store->index].kind));
    if (store->kind == StoreKind::compost) signature += QString::number(static_cast<int>(m_document.plan().compost[store->index].place));
  }
  if (signature != m_shown) {
    m_shown = signature;
    for (QWidget* old : findChildren<QWidget*>(Qt::FindDirectChildrenOnly)) {
      old->hide();
      old->deleteLater();
    }
    m_refresh.clear();
    m_fields.clear();
    m_arranged.clear();
    if (store) build(*store);
  }
  arrange();
  for (const auto& refresh : m_refresh) refresh();
}

void StoreFields::build(const StoreRef& store) {
  switch (store.kind) {
  case StoreKind::barrels: return barrels(store.index);
  case StoreKind::pipes: return pipes(store.index);
  case StoreKind::compost: return compost(store.index);
  case StoreKind::loop: return loop(store.index);
  case StoreKind::cable: return cable(store.index);
  case StoreKind::mass: return mass(store.index);
  }
}

void StoreFields::barrels(std::size_t i) {
  put(new NumberField(m_document, whole(tr("Count"), &Plan::barrels, i, &Barrels::count, 1, 2000, tr("that stand in the house")), this));
  number(tr("Holds"), Quantity::water, &Plan::barrels, i, &Barrels::litres, 1.0, 20000.0, 10.0, tr("filled, leaving room for ice"));
  number(tr("Sunlit"), Quantity::share, &Plan::barrels, i, &Barrels::sunShare, 0.0, 1.0, 0.05,
         tr("of the silhouette that the sun reaches past crop and benches"));
  choice<BarrelColour>(tr("Colour"), {tr("black"), tr("blue"), tr("white"), tr("bare steel")}, tr("change the barrels' colour"),
                       at(&Plan::barrels, i, &Barrels::colour));
  choice<bool>(tr("Water"), {tr("as one"), tr("in two layers")}, tr("change how the water lies"), at(&Plan::barrels, i, &Barrels::layered));
  choice<BarrelFilling>(tr("Filled with"), {tr("water"), tr("sand"), tr("stone")}, tr("change what the barrels hold"),
                        at(&Plan::barrels, i, &Barrels::filling));
}

void StoreFields::pipes(std::size_t i) {
  put(new NumberField(m_document, whole(tr("Pipes"), &Plan::groundPipes, i, &GroundPipes::count, 1, 200, tr("side by side, each with its share of the air")),
                      this));
  number(tr("Length"), Quantity::length, &Plan::groundPipes, i, &GroundPipes::length_m, 0.5, 200.0, 0.5, tr("in the ground"));
  number(tr("Depth"), Quantity::length, &Plan::groundPipes, i, &GroundPipes::depth_m, 0.15, 4.0, 0.1, tr("of their axes, below floor or ground"));
  number(tr("Apart"), Quantity::length, &Plan::groundPipes, i, &GroundPipes::spacing_m, 0.08, 10.0, 0.05, tr("from axis to axis; soil between them is shared"));
  number(tr("Bore"), Quantity::thickness, &Plan::groundPipes, i, &GroundPipes::diameter_m, 0.04, 1.0, 0.01, tr("inside diameter"));
  number(tr("Fan"), Quantity::airFlow, &Plan::groundPipes, i, &GroundPipes::fan_m3_h, 10.0, 50000.0, 50.0,
         tr("air of the fan blowing free; the pipes' friction leaves less: see the words above"));
  rule(&Plan::groundPipes, i);
  number(tr("Price"), Quantity::money, &Plan::groundPipes, i, &GroundPipes::price, 0.0, 1e7, 50.0, tr("of pipes, fan and digging; 0 if you have them"));
  onlyWhile([](const Plan& p) { return p.house.bay || !p.house.bedCovers.empty(); },
            [&] {
              choice<PipeOutlet>(tr("Serve"), {tr("the house"), tr("the bay"), tr("the first bed")}, tr("let the pipes serve another room"),
                                 at(&Plan::groundPipes, i, &GroundPipes::serves));
            });
  seldom([&] {
    number(tr("Fan, Pa"), Quantity::count, &Plan::groundPipes, i, &GroundPipes::fan_Pa, 5.0, 3000.0, 10.0,
           tr("the fan's pressure against a shut duct, from its label"));
    onlyWhile([i](const Plan& p) { return p.groundPipes[i].place == PipePlace::underFloor; },
              [&] {
                number(tr("Board"), Quantity::resistance, &Plan::groundPipes, i, &GroundPipes::board_m2K_W, 0.0, 10.0, 0.5,
                       tr("insulation half a metre under the pipes"), tr("none"));
                number(tr("Sides"), Quantity::resistance, &Plan::groundPipes, i, &GroundPipes::sides_m2K_W, 0.0, 10.0, 0.5,
                       tr("insulation round the bed, as deep"), tr("none"));
              });
    number(tr("Solar"), Quantity::area, &Plan::groundPipes, i, &GroundPipes::collector_m2, 0.0, 2000.0, 0.5,
           tr("collector outside; its water warms the soil at the pipes"), tr("none"));
    onlyWhile([i](const Plan& p) { return p.groundPipes[i].collector_m2 > 0.0; },
              [&] {
                number(tr("Slope"), Quantity::angle, &Plan::groundPipes, i, &GroundPipes::collectorTilt_deg, 0.0, 90.0, 5.0,
                       tr("of the collector, towards the noon sun"));
              });
    choice<PipePlace>(tr("Lie"), {tr("under the floor"), tr("beside the house")}, tr("lay the pipes elsewhere"),
                      at(&Plan::groundPipes, i, &GroundPipes::place));
  });
}

void StoreFields::compost(std::size_t i) {
  number(tr("Width"), Quantity::length, &Plan::compost, i, &CompostPile::width_m, 0.3, 20.0, 0.1, tr("the recipe's volume gives the height"));
  number(tr("Length"), Quantity::length, &Plan::compost, i, &CompostPile::length_m, 0.3, 100.0, 0.1, tr("the recipe's volume gives the height"));
  number(tr("Jacket"), Quantity::resistance, &Plan::compost, i, &CompostPile::jacket_m2K_W, 0.0, 10.0, 0.1,
         tr("of straw or boards round it: 15 cm of straw is 2"));
  put(new NumberField(m_document, whole(tr("Piles"), &Plan::compost, i, &CompostPile::piles, 1, 24, tr("alike, one after the other in the same place")), this));
  onlyWhile([i](const Plan& p) { return p.compost[i].piles > 1; },
            [&] { number(tr("Every"), Quantity::days, &Plan::compost, i, &CompostPile::everyDays, 3.0, 365.0, 1.0, tr("days from one pile to the next")); });
  number(tr("Top up"), Quantity::days, &Plan::compost, i, &CompostPile::topUpEvery_days, 0.0, 365.0, 1.0,
         tr("days after which a fifth of the recipe is put on again"), tr("never"));
  number(tr("Water"), Quantity::share, &Plan::compost, i, &CompostPile::waterBelow, 0.0, 0.55, 0.05, tr("share of water at which it is watered to 60 %"),
         tr("never"));
  switch (m_document.plan().compost[i].place) {
  case PilePlace::hotBed: number(tr("Soil"), Quantity::length, &Plan::compost, i, &CompostPile::soil_m, 0.05, 1.0, 0.02, tr("that you plant in")); break;
  case PilePlace::chamber:
    number(tr("Fan"), Quantity::airFlow, &Plan::compost, i, &CompostPile::fan_m3_h, 0.0, 20000.0, 25.0, tr("0 for openings alone"));
    number(tr("Give"), Quantity::temperature, &Plan::compost, i, &CompostPile::giveBelow_C, -30.0, 40.0, 1.0, tr("the fan runs while the house is colder"));
    number(tr("Opening"), Quantity::area, &Plan::compost, i, &CompostPile::opening_m2, 0.0, 20.0, 0.05, tr("one low, one high, between shed and house"));
    break;
  case PilePlace::mound:
    number(tr("Coil"), Quantity::length, &Plan::compost, i, &CompostPile::coil_m, 1.0, 2000.0, 5.0, tr("of water pipe in the pile"));
    number(tr("Pump"), Quantity::waterFlow, &Plan::compost, i, &CompostPile::coilFlow_l_min, 0.1, 500.0, 0.5, tr("water through the coil"));
    onlyWhile([i](const Plan& p) { return p.compost[i].coilInto == CoilInto::house; },
              [&] {
                number(tr("Give"), Quantity::temperature, &Plan::compost, i, &CompostPile::giveBelow_C, -30.0, 40.0, 1.0,
                       tr("the pump runs while the house is colder"));
              });
    onlyWhile(
        [i](const Plan& p) { return p.compost[i].coilInto == CoilInto::tank || !p.waterLoops.empty(); },
        [&] {
          choice<CoilInto>(tr("Warms"), {tr("the house"), tr("the first tank")}, tr("lead the coil elsewhere"), at(&Plan::compost, i, &CompostPile::coilInto));
        });
    break;
  }
  number(tr("Work"), Quantity::hours, &Plan::compost, i, &CompostPile::hoursToBuild, 0.0, 1000.0, 1.0, tr("of work, for each pile"));
  number(tr("Price"), Quantity::money, &Plan::compost, i, &CompostPile::price, 0.0, 1e7, 10.0, tr("of what a pile is built of"));
  seldom([&] {
    number(tr("Airiness"), Quantity::factor, &Plan::compost, i, &CompostPile::airiness, 0.2, 5.0, 0.1,
           tr("of its own draught: 0.5 trodden down, 1 as thrown up, 2 with pipes through it"));
    onlyWhile([i](const Plan& p) { return p.compost[i].place == PilePlace::mound && p.compost[i].coilInto == CoilInto::house; },
              [&] {
                number(tr("Passes"), Quantity::conductance, &Plan::compost, i, &CompostPile::radiator_W_K, 1.0, 20000.0, 5.0,
                       tr("what passes from water to air for each degree"));
              });
  });
}

void StoreFields::boiler(std::size_t tank) {
  const HeaterPlace place{HeaterPlace::Of::tank, tank};
  const auto power_W = [place](const Plan& p) { return heaterPower_W(p, place); };
  NumberField::Spec power{tr("Boiler"), Quantity::power, power_W, [place](Plan& p, double v) { setHeaterPower(p, place, v); },
                          0.0,          500000.0,        500.0,   tr("a stove or boiler that heats the tank")};
  power.word = NumberField::Spec::Word{0.0, tr("none")};
  put(new NumberField(m_document, power, this));
  m_fields.back().isSet = [power_W](const Plan& p) { return power_W(p) > 0.0; };
  onlyWhile([power_W](const Plan& p) { return power_W(p) > 0.0; },
            [&] {
              const auto of = [&](const QString& label, Quantity quantity, double Heater::*member, double low, double high, double nudge,
                                  const QString& source) {
                const Find<double> find = [place, member](Plan& p) -> double* {
                  Heater* const heater = heaterIn(p, place);
                  return heater ? &(heater->*member) : nullptr;
                };
                put(new NumberField(m_document, NumberField::Spec::at(label, quantity, find, low, high, nudge, source), this));
              };
              of(tr("Tank at"), Quantity::temperature, &Heater::holds_C, 20.0, 90.0, 5.0, tr("that the boiler keeps while it is lit"));
              of(tr("Lit at"), Quantity::hours, &Heater::from_h, 0.0, 24.0, 0.5, tr("by the clock"));
              of(tr("Burns"), Quantity::hours, &Heater::for_h, 0.5, 24.0, 0.5, tr("24: day and night"));

              of(tr("Fuel"), Quantity::money, &Heater::fuelPrice_kWh, 0.0, 100.0, 0.01, tr("for a kWh in the fuel"));
            });
}

void StoreFields::loop(std::size_t i) {
  number(tr("Tank"), Quantity::water, &Plan::waterLoops, i, &WaterLoop::litres, 5.0, 500000.0, 50.0, tr("water in it"));
  number(tr("Pump"), Quantity::waterFlow, &Plan::waterLoops, i, &WaterLoop::flow_l_min, 0.1, 2000.0, 1.0, tr("water through the radiator"));
  number(tr("Passes"), Quantity::conductance, &Plan::waterLoops, i, &WaterLoop::radiator_W_K, 1.0, 50000.0, 10.0,
         tr("what passes between water and air for each degree"));
  number(tr("Drums"), Quantity::water, &Plan::waterLoops, i, &WaterLoop::radiator_l, 0.0, 200000.0, 50.0,
         tr("water in drums or a bench that it goes through; they give on while the pump rests"), tr("none"));
  rule(&Plan::waterLoops, i);
  number(tr("Solar"), Quantity::area, &Plan::waterLoops, i, &WaterLoop::collector_m2, 0.0, 2000.0, 0.5, tr("collector outside that warms the tank"),
         tr("none"));
  onlyWhile([i](const Plan& p) { return p.waterLoops[i].collector_m2 > 0.0; },
            [&] { number(tr("Slope"), Quantity::angle, &Plan::waterLoops, i, &WaterLoop::collectorTilt_deg, 0.0, 90.0, 5.0, tr("towards the noon sun")); });
  boiler(i);
  number(tr("Price"), Quantity::money, &Plan::waterLoops, i, &WaterLoop::price, 0.0, 1e7, 50.0, tr("of all of it; 0 if you have it"));
  seldom([&] {
    number(tr("Loss"), Quantity::conductance, &Plan::waterLoops, i, &WaterLoop::tankLoss_W_K, 0.0, 2000.0, 0.5, tr("into the house where it stands"));
  });
}

void StoreFields::cable(std::size_t i) {
  number(tr("Length"), Quantity::length, &Plan::soilCables, i, &SoilCable::length_m, 1.0, 10000.0, 1.0, tr("on all beds of that kind together"));
  number(tr("W/m"), Quantity::count, &Plan::soilCables, i, &SoilCable::watts_per_m, 1.0, 60.0, 1.0, tr("from its label"));
  number(tr("Depth"), Quantity::thickness, &Plan::soilCables, i, &SoilCable::depth_m, 0.02, 0.5, 0.01, tr("in the bed"));
  number(tr("On below"), Quantity::temperature, &Plan::soilCables, i, &SoilCable::setpoint_C, -5.0, 40.0, 0.5, tr("what its thermostat feels"));
  static constexpr double kAsItIsSet_C = -5.0;
  const auto off = [i](const Plan& p) { return i < p.soilCables.size() ? p.soilCables[i].off_C.value_or(kAsItIsSet_C) : kAsItIsSet_C; };
  const auto setOff = [i](Plan& p, double v) {
    if (i < p.soilCables.size()) p.soilCables[i].off_C = v > kAsItIsSet_C ? std::optional(v) : std::nullopt;
  };
  put(new NumberField(m_document,
                      {tr("Off at"), Quantity::temperature, off, setOff, kAsItIsSet_C, 45.0, 0.5,
                       tr("without one soil is held as it is set, and air within a degree above"), NumberField::Spec::Word{kAsItIsSet_C, tr("as set")}},
                      this));
  choice<CableSensor>(tr("Feels"), {tr("the soil beside it"), tr("the air over the bed")}, tr("let the cable feel something else"),
                      at(&Plan::soilCables, i, &SoilCable::sensor));
  number(tr("Price"), Quantity::money, &Plan::soilCables, i, &SoilCable::price, 0.0, 1e7, 10.0, tr("0 if you have it"));
}

void StoreFields::mass(std::size_t i) {
  number(tr("Area"), Quantity::area, &Plan::mass, i, &MassBlock::area_m2, 0.1, 5000.0, 0.5, tr("of one face of a wall; seen from above of the others"));
  number(tr("Thick"), Quantity::thickness, &Plan::mass, i, &MassBlock::thickness_m, 0.02, 2.0, 0.02, tr("a day's warmth goes 10 to 15 cm deep"));
  const MassKind kind = m_document.plan().mass[i].kind;
  if (kind == MassKind::wall)
    number(tr("Sunlit"), Quantity::share, &Plan::mass, i, &MassBlock::sunShare, 0.0, 1.0, 0.05, tr("of its face that the sun reaches"));
  else
    number(tr("Wide"), Quantity::length, &Plan::mass, i, &MassBlock::width_m, 0.2, 20.0, 0.1, tr("across the house"));
  if (kind == MassKind::raisedBed)
    number(tr("Sides"), Quantity::resistance, &Plan::mass, i, &MassBlock::sides_m2K_W, 0.0, 10.0, 0.1, tr("of its boards: 3 cm of wood are 0.2"));
  choice<MassKind>(tr("Is a"), {tr("wall"), tr("path"), tr("raised bed"), tr("bench")}, tr("change what it is"), at(&Plan::mass, i, &MassBlock::kind));
  choice<MassMaterial>(tr("Of"), {tr("stone"), tr("brick"), tr("concrete"), tr("rammed earth"), tr("soil")}, tr("change its material"),
                       at(&Plan::mass, i, &MassBlock::material));
  number(tr("Price"), Quantity::money, &Plan::mass, i, &MassBlock::price, 0.0, 1e7, 50.0, tr("0 if it stands already"));
}

} // namespace muffle
