// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/room_cards.h"

#include "app/model/said.h"
#include "app/model/text.h"
#include "app/paint/theme.h"
#include "app/stages/number_field.h"
#include "app/stages/stack_field.h"
#include "core/material/materials.h"
#include "core/plan/crop_stands.h"
#include "core/plan/heaters.h"
#include "core/plan/names.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include <cmath>

namespace muffle {
namespace {

constexpr const char* kCloths[] = {"fleece", "pe-film", "pe-film-ir", "bubble-wrap", "clear-screen", "woven-blanket", "quilt"};
constexpr int kResultRow = 20;

QString fanSign(const std::optional<RoomFan>& fan) { return fan ? QStringLiteral("fan %1").arg(static_cast<int>(fan->rule)) : QString(); }

} // namespace

QString RoomCard::signature(const Plan& plan, RoomKind kind, std::size_t bed) {
  const House& h = plan.house;
  switch (kind) {
  case RoomKind::bay: return QStringLiteral("bay ") + fanSign(h.bay->fan);
  case RoomKind::lobby: return QStringLiteral("lobby");
  case RoomKind::roofVoid: return QStringLiteral("void ") + fanSign(h.roofVoid->fan);
  case RoomKind::bed:
    return QStringLiteral("bed ") + QString::fromStdString(h.bedCovers[bed].material) + (h.bedCovers[bed].liftedByDay ? QStringLiteral(" lifted") : QString()) +
           (h.bedCovers[bed].inBay ? QStringLiteral(" bay") : QString()) + (h.bedCovers[bed].hold_C ? QStringLiteral(" line") : QString()) +
           (h.bay ? QStringLiteral(" or bay") : QString());
  case RoomKind::house: break;
  }
  return {};
}

RoomCard::RoomCard(Document& document, RoomKind kind, std::size_t bed, QWidget* parent)
    : QWidget(parent), m_document(document), m_kind(kind), m_bed(bed), m_grid(new QGridLayout(this)), m_result(new QLabel(this)) {
  m_grid->setContentsMargins(0, 0, 0, 0);
  m_grid->setHorizontalSpacing(22);
  m_grid->setVerticalSpacing(2);
  m_grid->setColumnStretch(0, 1);
  m_grid->setColumnStretch(1, 1);
  switch (kind) {
  case RoomKind::bay: bay(); break;
  case RoomKind::lobby: lobby(); break;
  case RoomKind::roofVoid: roofVoid(); break;
  case RoomKind::bed: bedCover(); break;
  case RoomKind::house: break;
  }
  m_result->setFont(textFont(9.5));
  m_result->setWordWrap(true);
  m_grid->addWidget(m_result, kResultRow, 0, 1, 2);
}

void RoomCard::edit(const QString& name, const std::function<void(House&)>& change) {
  if (auto why = m_document.edit(name, [&](Plan& p) { change(p.house); })) emit m_document.trouble(*why);
}

void RoomCard::number(int row, int column, const QString& name, Quantity quantity, const InHouse& of, double min, double max, double nudge,
                      const QString& source) {
  const Find<double> find = [of](Plan& p) { return of(p.house); };
  m_grid->addWidget(new NumberField(m_document, NumberField::Spec::at(name, quantity, find, min, max, nudge, source), this), row, column);
}

void RoomCard::stack(int row, const QString& name, const Find<Skin>& of, FaceGroup lies) {
  m_stack = new StackField(m_document, name, of, lies, this);
  m_grid->addWidget(m_stack, row, 0, 1, 2);
}

void RoomCard::heading(const QString& name, const QString& takeAway, const QString& step, const std::function<void(Plan&)>& remove) {
  auto* label = new QLabel(name, this);
  label->setFont(textFont(10, true));
  m_grid->addWidget(label, 0, 0);
  auto* button = new QPushButton(takeAway, this);
  button->setFont(textFont(9));
  connect(button, &QPushButton::clicked, this, [this, step, remove] {
    if (auto why = m_document.edit(step, remove)) emit m_document.trouble(*why);
  });
  m_grid->addWidget(button, 0, 1, Qt::AlignRight);
}

QComboBox* RoomCard::choice(int row, int column, const QString& name, const QStringList& items, int now, const QString& step,
                            const std::function<void(House&, int)>& put) {
  auto* across = new QHBoxLayout;
  across->setSpacing(8);
  auto* label = new QLabel(name, this);
  label->setFont(textFont(10));
  across->addWidget(label);
  auto* box = new QComboBox(this);
  box->setAccessibleName(name);
  box->setFont(textFont(9.5));
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  box->setMinimumContentsLength(8);
  box->addItems(items);
  box->setCurrentIndex(now);
  connect(box, &QComboBox::activated, this, [this, step, put](int i) { edit(step, [&](House& h) { put(h, i); }); });
  across->addWidget(box, 1);
  m_grid->addLayout(across, row, column);
  return box;
}

void RoomCard::fan(int row, const std::function<std::optional<RoomFan>*(House&)>& of, const QString& drawsFrom) {
  const Find<std::optional<RoomFan>> find = [of](Plan& p) { return of(p.house); };
  const std::optional<RoomFan> now = *look(find, m_document.plan());
  choice(row, 0, tr("Fan"), {tr("none"), tr("always"), tr("by day"), tr("by night"), tr("while %1 is warm").arg(drawsFrom)},
         now ? 1 + static_cast<int>(now->rule) : 0, tr("change the fan"), [of](House& h, int i) {
           auto& fan = *of(h);
           if (i == 0) return fan.reset();
           if (!fan) fan = RoomFan{};
           fan->rule = static_cast<FanRule>(i - 1);
         });
  if (!now) return;
  const auto part = [of](double RoomFan::*member) {
    return [of, member](House& h) {
      auto* fan = of(h);
      return fan && *fan ? &((**fan).*member) : nullptr;
    };
  };
  number(row, 1, tr("Air moved"), Quantity::airFlow, part(&RoomFan::flow_m3_h), 0, 200000, 100, tr("to and fro between the two rooms, by the fan's maker"));
  number(row + 1, 1, tr("Fan takes"), Quantity::power, part(&RoomFan::power_W), 0, 20000, 10, tr("electricity, in the bill; its own warmth is left out"));
  if (now->rule == FanRule::warm)
    number(row + 1, 0, tr("Runs above"), Quantity::temperature, part(&RoomFan::warmAbove_C), -20, 60, 1,
           tr("of the air it draws; fully a kelvin above, and only worth while where the other room is cooler"));
}

void RoomCard::bay() {
  heading(said(nameOf(*m_document.plan().house.bay)), tr("Take the bay away"), tr("take the bay away"), [](Plan& p) { removeBay(p); });
  const auto of = [](double WarmBay::*member) { return [member](House& h) { return h.bay ? &((*h.bay).*member) : nullptr; }; };
  const auto set = [](double Setpoints::*member) { return [member](House& h) { return h.bay ? &(h.bay->setpoints.*member) : nullptr; }; };
  stack(
      1, tr("Partition"), [](Plan& p) { return p.house.bay ? &p.house.bay->partition : nullptr; }, FaceGroup::ends);
  number(2, 0, tr("Bay length"), Quantity::length, of(&WarmBay::length_m), 0.3, 299, 0.1, tr("along the ridge, from one end"));
  m_grid->addWidget(new NumberField(m_document,
                                    {tr("Bay heater"), Quantity::power,
                                     [](const Plan& p) {
                                       const Heater* const first = heaterIn(p, {HeaterPlace::Of::bay});
                                       return first ? first->power_W : 0.0;
                                     },
                                     [](Plan& p, double v) { setHeaterPower(p, {HeaterPlace::Of::bay}, v); }, 0, 1e6, 250,
                                     tr("its own, electric, with a thermostat in the bay")},
                                    this),
                    2, 1);
  number(3, 0, tr("Bay at night"), Quantity::temperature, set(&Setpoints::night_C), -30, 40, 0.5, tr("what its heater aims at from sunset to sunrise"));
  number(3, 1, tr("by day"), Quantity::temperature, set(&Setpoints::day_C), -30, 40, 0.5, tr("what its heater aims at by day"));
  number(4, 0, tr("Bay must hold"), Quantity::temperature, set(&Setpoints::hold_C), -30, 40, 0.5, tr("the line its nights are judged by"));
  number(4, 1, tr("Bay leaks"), Quantity::airChanges, of(&WarmBay::airChanges_per_h), 0, 60, 0.1,
         tr("air changes an hour with the house, through door and joints"));
  fan(
      5, [](House& h) { return h.bay ? &h.bay->fan : nullptr; }, tr("the house"));
}

void RoomCard::lobby() {
  heading(said(nameOf(*m_document.plan().house.lobby)), tr("Take the lobby away"), tr("take the lobby away"),
          [](Plan& p) { p.house.lobby.reset(); });
  const auto of = [](double Lobby::*member) { return [member](House& h) { return h.lobby ? &((*h.lobby).*member) : nullptr; }; };
  stack(
      1, tr("Partition"), [](Plan& p) { return p.house.lobby ? &p.house.lobby->partition : nullptr; }, FaceGroup::ends);
  number(2, 0, tr("Lobby length"), Quantity::length, of(&Lobby::length_m), 0.3, 299, 0.1, tr("along the ridge, at the end where the door is"));
  number(2, 1, tr("Lobby leaks"), Quantity::airChanges, of(&Lobby::airChanges_per_h), 0, 60, 0.1,
         tr("air changes an hour with the house, through joints; what comes by the door is counted by how often it is opened (Shape)"));
}

void RoomCard::roofVoid() {
  heading(tr("ceiling at the eaves"), tr("Take the ceiling away"), tr("take the ceiling away"), [](Plan& p) { p.house.roofVoid.reset(); });
  stack(
      1, tr("Ceiling"), [](Plan& p) { return p.house.roofVoid ? &p.house.roofVoid->ceiling : nullptr; }, FaceGroup::roof);
  number(
      2, 0, tr("Ceiling leaks"), Quantity::airChanges, [](House& h) { return h.roofVoid ? &h.roofVoid->airChanges_per_h : nullptr; }, 0, 60, 0.1,
      tr("air changes an hour of the void with the house: 0.5 film sealed at the walls, 1 cloth, 3 loose"));
  fan(
      3, [](House& h) { return h.roofVoid ? &h.roofVoid->fan : nullptr; }, tr("the void"));
}

void RoomCard::bedCover() {
  const std::size_t k = m_bed;
  const BedCover& bed = m_document.plan().house.bedCovers[k];
  const Materials materials = m_document.planInHand().materials();
  QStringList names;
  std::vector<std::string> ids;
  const auto offer = [&](std::string_view id) {
    if (std::find(ids.begin(), ids.end(), id) != ids.end()) return;
    ids.emplace_back(id);
    names << said(nameOf(*materials.find(id)));
  };
  for (const char* id : kCloths) offer(id);
  for (const OwnMaterial& m : m_document.plan().materials) offer(m.id);
  offer(bed.material);
  const auto now = static_cast<int>(std::find(ids.begin(), ids.end(), bed.material) - ids.begin());
  choice(0, 0, tr("Cover"), names, now, tr("change a bed's cover"), [k, ids](House& h, int i) {
    h.bedCovers[k].material = ids[static_cast<std::size_t>(i)];
  })->setAccessibleName(tr("Cover of bed %1").arg(k + 1));
  auto* lifted = new QCheckBox(tr("lifted by day"), this);
  lifted->setFont(textFont(9.5));
  lifted->setChecked(bed.liftedByDay);
  lifted->setToolTip(tr("its ends open from sunrise to sunset, forty air changes an hour"));
  connect(lifted, &QCheckBox::toggled, this, [this, k](bool on) { edit(tr("lift the cover by day"), [&](House& h) { h.bedCovers[k].liftedByDay = on; }); });
  auto* right = new QHBoxLayout;
  right->addWidget(lifted);
  if (m_document.plan().house.bay) {
    auto* inBay = new QCheckBox(tr("in the bay"), this);
    inBay->setFont(textFont(9.5));
    inBay->setChecked(bed.inBay);
    connect(inBay, &QCheckBox::clicked, this, [this, k, inBay](bool on) {
      edit(tr("where a covered bed lies"), [&](House& h) { h.bedCovers[k].inBay = on; });
      inBay->setChecked(m_document.plan().house.bedCovers[k].inBay);
    });
    right->addWidget(inBay);
  }
  right->addStretch(1);
  auto* remove = new QPushButton(tr("Take away"), this);
  remove->setFont(textFont(9));
  remove->setAccessibleName(tr("Take away bed cover %1").arg(k + 1));
  connect(remove, &QPushButton::clicked, this, [this, k] {
    if (const auto why = m_document.edit(tr("take a bed cover away"), [k](Plan& p) { removeBedCover(p, k); })) emit m_document.trouble(*why);
  });
  right->addWidget(remove);
  m_grid->addLayout(right, 0, 1);
  const auto of = [k](double BedCover::*member) { return [k, member](House& h) { return k < h.bedCovers.size() ? &(h.bedCovers[k].*member) : nullptr; }; };
  number(1, 0, tr("Bed width"), Quantity::length, of(&BedCover::width_m), 0.2, 20, 0.1, tr("your measurement, at the ground"));
  number(1, 1, tr("Bed length"), Quantity::length, of(&BedCover::length_m), 0.2, 300, 0.1, tr("your measurement"));
  number(2, 0, tr("Height"), Quantity::length, of(&BedCover::height_m), 0.1, 3, 0.05, tr("of the hoops' top; the section is half an ellipse"));
  m_grid->addWidget(new NumberField(m_document,
                                    {tr("Alike"), Quantity::count,
                                     [k](const Plan& p) { return k < p.house.bedCovers.size() ? static_cast<double>(p.house.bedCovers[k].count) : 0.0; },
                                     [k](Plan& p, double v) { p.house.bedCovers[k].count = static_cast<int>(std::lround(v)); }, 1, 200, 1,
                                     tr("how many beds are covered so")},
                                    this),
                    2, 1);
  number(3, 0, tr("Cover leaks"), Quantity::airChanges, of(&BedCover::airChanges_per_h), 0, 60, 0.5,
         tr("an hour with the air around it, tucked in: 1 sealed with soil, 2 weighted down, 6 loose"));
  if (bed.liftedByDay)
    number(3, 1, tr("Work each day"), Quantity::hours, of(&BedCover::hoursPerLift), 0, 12, 0.05,
           tr("to lift one in the morning and tuck it in at night, hours; what it comes to over a winter is in the slip"));
  auto* line = new QCheckBox(tr("a line of its own"), this);
  line->setFont(textFont(9.5));
  line->setChecked(bed.hold_C.has_value());
  line->setToolTip(tr("a night that is colder under it is missed; the house keeps its own line beside"));
  line->setAccessibleName(tr("Bed %1 has a line of its own").arg(k + 1));
  const double house_C = m_document.plan().setpoints.hold_C;
  connect(line, &QCheckBox::toggled, this, [this, k, house_C](bool on) {
    edit(tr("a covered bed's own line"), [&](House& h) { h.bedCovers[k].hold_C = on ? std::optional(house_C) : std::nullopt; });
  });
  m_grid->addWidget(line, 4, 0);
  if (bed.hold_C)
    number(
        4, 1, tr("Line under it"), Quantity::temperature,
        [k](House& h) { return k < h.bedCovers.size() && h.bedCovers[k].hold_C ? &*h.bedCovers[k].hold_C : nullptr; }, -30, 40, 0.5,
        tr("what stands under it must not be colder"));
}

QString RoomCard::resultText() const {
  const auto place = otherRoom(m_document.plan(), m_kind, m_bed);
  const Simulation* run = m_document.results().simulation();
  const Units& u = m_document.view().units();
  if (!place || !run || m_document.view().selectedNight() < 0 || *place >= run->summary.rooms.size())
    return m_document.readings().log() ? tr("working it out") : tr("import a log of nights to see what it keeps");
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
  if (*place >= n.roomColdest_C.size()) return tr("working it out");
  const RoomSummary& s = run->summary.rooms[*place];
  const double own_C = n.roomColdest_C[*place];
  const auto degrees = [&](double t_C) { return u.text(Quantity::temperature, t_C); };
  const QString winter = tr("All winter: held %1 of %2 nights, coldest %3").arg(s.held).arg(run->summary.nights).arg(degrees(s.coldest_C));
  switch (m_kind) {
  case RoomKind::bay:
    return tr("This night: bay %1, house %2. %3; %4 bought for it a winter.")
        .arg(degrees(own_C), degrees(n.coldest_C), winter, u.text(Quantity::energy, s.heater_kWh / run->summary.winters));
  case RoomKind::lobby: return tr("This night: lobby %1, house %2. Its coldest all winter %3.").arg(degrees(own_C), degrees(n.coldest_C), degrees(s.coldest_C));
  case RoomKind::roofVoid:
    return tr("This night: over the ceiling %1, under it %2. Its coldest all winter %3.").arg(degrees(own_C), degrees(n.coldest_C), degrees(s.coldest_C));
  default: break;
  }
  const auto bay = m_document.plan().house.bedCovers[m_bed].inBay ? otherRoom(m_document.plan(), RoomKind::bay) : std::nullopt;
  const double around_C = bay && *bay < n.roomColdest_C.size() ? n.roomColdest_C[*bay] : n.coldest_C;
  return tr("This night: under it %1, in the %2 %3, so %4 more. %5.")
      .arg(degrees(own_C), bay ? tr("bay") : tr("house"), degrees(around_C), u.text(Quantity::difference, own_C - around_C), winter);
}

void RoomCard::refresh() {
  if (m_stack) m_stack->refresh();
  m_result->setText(resultText());
}

} // namespace muffle
