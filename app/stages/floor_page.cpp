// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/floor_page.h"

#include "app/model/said.h"
#include "app/model/text.h"
#include "app/paint/theme.h"
#include "app/stages/caution_label.h"
#include "app/stages/number_field.h"
#include "core/material/materials.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QSignalBlocker>

#include <cmath>

namespace muffle {
namespace {} // namespace

FloorPage::FloorPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_soil(new QComboBox(this)), m_cover(new QComboBox(this)), m_damp(new QLabel(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(8);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(4);
  grid->setColumnStretch(0, 1);
  grid->setColumnStretch(1, 1);
  body->addLayout(grid);

  for (const SoilMaterial& s : soilMaterials()) m_soil->addItem(said(nameOf(s)), text(s.id));
  m_cover->addItem(tr("bare soil"), QString());
  for (const FloorCover& c : floorCovers()) m_cover->addItem(said(nameOf(c)), text(c.id));
  m_soil->setAccessibleName(tr("Soil"));
  m_cover->setAccessibleName(tr("On the soil"));
  const auto labelled = [&](int column, const QString& name, QComboBox* box) {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(name, this);
    label->setFont(textFont(9.5));
    row->addWidget(label);
    row->addWidget(box, 1);
    label->setMinimumWidth(44);
    grid->addLayout(row, 0, column);
  };
  labelled(0, tr("Soil"), m_soil);
  labelled(1, tr("On it"), m_cover);
  connect(m_soil, &QComboBox::activated, this, [this] {
    choose(tr("change the soil"), [id = m_soil->currentData().toString().toStdString()](Floor& f) {
      f.soil = id;
      f.moisture_kg_kg.reset(); // each soil has its own usual
    });
  });
  connect(m_cover, &QComboBox::activated, this, [this] {
    choose(tr("change what lies on the floor"), [id = m_cover->currentData().toString().toStdString()](Floor& f) {
      f.cover = id;
      if (const FloorCover* cover = findFloorCover(id)) f.cover_m = cover->usual_m;
    });
  });

  const auto add = [&](int row, int column, NumberField::Spec spec) {
    auto* field = new NumberField(document, std::move(spec), this);
    grid->addWidget(field, row, column);
    return field;
  };
  add(1, 0,
      {tr("Water in the soil"), Quantity::share,
       [](const Plan& p) { return p.house.floor.moisture_kg_kg.value_or(findSoilMaterial(p.house.floor.soil)->moisture_kg_kg); },
       [](Plan& p, double v) { p.house.floor.moisture_kg_kg = v; }, 0, 3, 0.02,
       tr("by weight of the dry soil; wet soil holds and carries more heat, and gives some back as it freezes (Johansen)")});
  m_thickness = add(1, 1,
                    {tr("Thickness"), Quantity::thickness, [](const Plan& p) { return p.house.floor.cover_m; },
                     [](Plan& p, double v) { p.house.floor.cover_m = v; }, 0.01, 0.5, 0.01, tr("of what lies on the soil of paths; beds stay bare")});
  add(2, 0,
      {tr("Moist floor"), Quantity::share, [](const Plan& p) { return p.house.crop.wetFloor; }, [](Plan& p, double v) { p.house.crop.wetFloor = v; }, 0, 1,
       0.05, tr("share of the floor that is moist soil, wet paths or capillary matting")});
  add(2, 1,
      {tr("Leaf for each floor"), Quantity::factor, [](const Plan& p) { return p.house.crop.leafArea; }, [](Plan& p, double v) { p.house.crop.leafArea = v; },
       0, 8, 0.5, tr("square metres of leaf on a square metre of floor: 0.5 seedlings, 1 salads, 3 a full crop")});
  add(3, 0,
      {tr("Light lost to dirt"), Quantity::share, [](const Plan& p) { return p.house.light.dirt; }, [](Plan& p, double v) { p.house.light.dirt = v; }, 0, 0.9,
       0.01, tr("and age: 3 % washed glass, 8 % usual, 20 % old film by a road")});
  add(3, 1,
      {tr("Lost to frame"), Quantity::share, [](const Plan& p) { return p.house.light.frame; }, [](Plan& p, double v) { p.house.light.frame = v; }, 0, 0.9,
       0.01, tr("bars, gutters and hoops, and what trees or buildings take through the winter")});

  add(4, 0,
      {tr("Skirt depth"), Quantity::length, [](const Plan& p) { return p.house.floor.edgeDepth_m; },
       [](Plan& p, double v) {
         p.house.floor.edgeDepth_m = v;
         p.house.floor.edgeInsulation_m2K_W = v > 0 ? 1.43 : 0.0; // 50 mm of rigid foam
       },
       0, 3, 0.1, tr("50 mm foam board round the foot; ISO 13370")});
  m_damp->setFont(textFont(9.5));
  m_damp->setWordWrap(true);
  m_damp->setTextFormat(Qt::RichText);
  body->addSpacing(6);
  body->addWidget(m_damp);
  body->addStretch(1);
  body->addWidget(new CautionLabel(ThingKind::floor, this));
}

void FloorPage::choose(const QString& name, const std::function<void(Floor&)>& change) {
  if (auto why = m_document.edit(name, [&](Plan& p) { change(p.house.floor); })) emit m_document.trouble(*why);
  refresh();
}

QString FloorPage::dampText() const {
  const Simulation* run = m_document.results().simulation();
  if (!run) return m_document.readings().log() ? tr("Working it out.") : tr("Import a log of nights, and the hours of damp air in each room stand here.");
  const Summary& s = run->summary;
  QString rows;
  const auto row = [&](const QString& room, const Dampness& d, bool leaves) {
    const auto hours = [&](double h) { return m_document.view().units().text(Quantity::hours, std::round(10.0 * h) / 10.0); };
    rows += QStringLiteral("<tr><td>%1</td><td align=right>%2</td><td align=right>%3</td><td align=right>%4</td></tr>")
                .arg(room.toHtmlEscaped(), hours(d.above90_h), leaves ? hours(d.leafWet_h) : QStringLiteral("–"), hours(d.longest_h));
  };
  row(tr("house"), s.damp, true);
  const auto rooms = otherRooms(m_document.plan());
  for (std::size_t r = 0; r < std::min(rooms.size(), s.rooms.size()); ++r) row(said(rooms[r].name), s.rooms[r].damp, false);
  return tr("<b>How damp a winter is</b>") +
         QStringLiteral(
             "<table cellspacing=0 cellpadding=3 width='100%'><tr><td></td><td align=right>%1</td><td align=right>%2</td><td align=right>%3</td></tr>")
             .arg(tr("90 % and more"), tr("dew on leaves"), tr("longest on end")) +
         rows + QStringLiteral("</table>");
}

void FloorPage::refresh() {
  const Floor& f = m_document.plan().house.floor;
  const QSignalBlocker soil(m_soil), cover(m_cover);
  m_soil->setCurrentIndex(m_soil->findData(QString::fromStdString(f.soil)));
  m_cover->setCurrentIndex(m_cover->findData(QString::fromStdString(f.cover)));
  m_thickness->setVisible(!f.cover.empty());
  m_damp->setText(dampText());
}

} // namespace muffle
