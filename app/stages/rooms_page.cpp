// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/rooms_page.h"

#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/caution_label.h"
#include "core/plan/heaters.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace muffle {
namespace {

constexpr std::size_t kMostKinds = 12;

QStringList signatures(const Plan& plan) {
  QStringList all;
  for (const OtherRoom& room : otherRooms(plan)) all << RoomCard::signature(plan, room.kind, room.bed);
  return all;
}

} // namespace

RoomsPage::RoomsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_empty(new QLabel(this)), m_add(new QPushButton(tr("Cover a bed"), this)),
      m_addBay(new QPushButton(tr("Partition off a warm bay"), this)), m_addLobby(new QPushButton(tr("Build a lobby"), this)),
      m_addCeiling(new QPushButton(tr("Hang a ceiling at the eaves"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(10);
  m_empty->setText(
      tr("A low tunnel over a bed is a room within the house: warmed by its own soil, sheltered from the sky. Cover a bed, partition a bay off, and the air "
         "of each is simulated beside that of the house."));
  m_empty->setWordWrap(true);
  m_empty->setFont(textFont(10));
  body->addWidget(m_empty);
  m_cards = addScrolled(*body);
  m_cards->setSpacing(16);
  auto* buttons = new QGridLayout;
  buttons->addWidget(m_add, 0, 0);
  buttons->addWidget(m_addBay, 0, 1);
  buttons->addWidget(m_addLobby, 1, 0);
  buttons->addWidget(m_addCeiling, 1, 1);
  body->addLayout(buttons);
  body->addWidget(new CautionLabel(ThingKind::rooms, this));
  connect(m_add, &QPushButton::clicked, this, &RoomsPage::addBed);
  connect(m_addBay, &QPushButton::clicked, this, &RoomsPage::addBay);
  connect(m_addLobby, &QPushButton::clicked, this, [this] {
    edit(tr("build a lobby"), [](Plan& p) {
      Lobby lobby;
      lobby.length_m = std::min(lobby.length_m, 0.1 * std::floor(2.5 * p.house.shape.length_m));
      p.house.lobby = lobby;
      p.house.door.lobby = false; // it has air of its own now
    });
  });
  connect(m_addCeiling, &QPushButton::clicked, this, [this] { edit(tr("hang a ceiling"), [](Plan& p) { p.house.roofVoid = RoofVoid{}; }); });
}

void RoomsPage::edit(const QString& name, const std::function<void(Plan&)>& change) {
  if (auto why = m_document.edit(name, change)) emit m_document.trouble(*why);
}

void RoomsPage::addBay() {
  edit(tr("partition off a warm bay"), [](Plan& p) {
    WarmBay bay;
    bay.length_m = std::max(0.3, std::round(p.house.shape.length_m * 2.5) / 10.0); // a quarter of it
    constexpr double kUsual_W_m2 = 300.0;                                          // film over it, thirty kelvin of lift
    const double heater_W = std::max(1000.0, std::round(bay.length_m * p.house.shape.span_m() * kUsual_W_m2 / 500.0) * 500.0);
    p.house.bay = bay;
    addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = heater_W});
  });
}

void RoomsPage::addBed() {
  if (m_document.plan().house.bedCovers.size() >= kMostKinds) {
    emit m_document.trouble(tr("At most %1 kinds of bed cover fit in a plan.").arg(kMostKinds));
    return;
  }
  edit(tr("cover a bed"), [](Plan& p) {
    const HouseShape& s = p.house.shape;
    BedCover b;
    b.width_m = std::min(b.width_m, 0.4 * s.span_m());
    b.length_m = std::min(b.length_m, std::floor(0.8 * (s.kind == ShapeKind::dome ? s.width_m : s.length_m) * 10.0) / 10.0);
    b.height_m = std::min(b.height_m, std::floor(0.4 * s.ridge_m * 10.0) / 10.0);
    b.x_m = -0.25 * s.span_m() + 1.3 * static_cast<double>(p.house.bedCovers.size());
    p.house.bedCovers.push_back(b);
  });
}

void RoomsPage::rebuild() {
  clearCards(*m_cards);
  m_rooms.clear();
  for (const OtherRoom& room : otherRooms(m_document.plan())) {
    m_rooms.push_back(new RoomCard(m_document, room.kind, room.bed, this));
    m_cards->addWidget(m_rooms.back());
  }
}

void RoomsPage::refresh() {
  const Plan& plan = m_document.plan();
  if (const QStringList now = signatures(plan); now != m_shown) {
    m_shown = now;
    rebuild();
  }
  const bool isLong = plan.house.shape.kind != ShapeKind::dome;
  m_empty->setVisible(m_rooms.empty());
  m_addBay->setVisible(isLong && !plan.house.bay);
  m_addLobby->setVisible(isLong && !plan.house.lobby);
  m_addCeiling->setVisible(isLong && !plan.house.roofVoid);
  for (RoomCard* room : m_rooms) room->refresh();
}

} // namespace muffle
