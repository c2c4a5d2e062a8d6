// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/shape_page.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "app/stages/caution_label.h"
#include "app/stages/number_field.h"
#include "core/house/infiltration.h"
#include "core/material/materials.h"
#include "core/plan/usual_covers.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

struct Silhouetted {
  ShapeKind kind;
  const char* name;
};
constexpr Silhouetted kKinds[] = {{ShapeKind::gable, QT_TRANSLATE_NOOP("muffle::ShapePage", "gable")},
                                  {ShapeKind::arch, QT_TRANSLATE_NOOP("muffle::ShapePage", "round arch")},
                                  {ShapeKind::pointedArch, QT_TRANSLATE_NOOP("muffle::ShapePage", "pointed arch")},
                                  {ShapeKind::leanTo, QT_TRANSLATE_NOOP("muffle::ShapePage", "lean-to")},
                                  {ShapeKind::singleSlope, QT_TRANSLATE_NOOP("muffle::ShapePage", "own back wall")},
                                  {ShapeKind::dome, QT_TRANSLATE_NOOP("muffle::ShapePage", "dome")}};

class Silhouette : public QAbstractButton {
public:
  Silhouette(Document& document, ShapeKind kind, const QString& name, QWidget* parent) : QAbstractButton(parent), m_document(document), m_kind(kind) {
    setText(name);
    setAccessibleName(name);
    setCheckable(true);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::StrongFocus);
  }
  QSize sizeHint() const override { return {74, 66}; }
  QSize minimumSizeHint() const override { return {66, 66}; }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = Theme::of(m_document.view().isDark());
    if (isChecked()) p.fillRect(rect(), t.oat);
    HouseShape s{m_kind, 6.0, 12.0, 1.0, m_kind == ShapeKind::pointedArch ? 4.6 : 3.2, 90.0}; // high enough to show its point
    s = s.as(m_kind);
    const double scale = std::min((width() - 16.0) / s.span_m(), 38.0 / s.ridge_m);
    QPolygonF line;
    for (const Point& q : s.outline(24)) line << QPointF(width() / 2.0 + q.x_m * scale, 45.0 - q.y_m * scale);
    p.setPen(QPen(isChecked() ? t.madder : t.ink, isChecked() ? 2.0 : 1.4));
    p.drawPolyline(line);
    p.setPen(QPen(t.fleece, 1));
    p.drawLine(QPointF(4, 45.5), QPointF(width() - 4.0, 45.5));
    if (s.hasBackWall()) {
      const QRectF wall(QPointF(width() / 2.0 + s.span_m() / 2.0 * scale, 45.0 - s.ridge_m * scale), QSizeF(4, s.ridge_m * scale));
      p.fillRect(wall, m_kind == ShapeKind::leanTo ? t.fleece : t.soilTop);
    }
    p.setFont(textFont(8.5, isChecked()));
    p.setPen(t.ink);
    p.drawText(QRect(0, 48, width(), 16), static_cast<int>(Qt::AlignCenter), text());
    if (hasFocus()) {
      p.setPen(QPen(t.madder, 1, Qt::DotLine));
      p.drawRect(rect().adjusted(1, 1, -2, -2));
    }
  }

private:
  Document& m_document;
  ShapeKind m_kind;
};

} // namespace

ShapePage::ShapePage(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(8);
  auto* row = new QHBoxLayout;
  row->setSpacing(2);
  for (const Silhouetted& k : kKinds) {
    auto* button = new Silhouette(document, k.kind, tr(k.name), this);
    row->addWidget(button, 1);
    m_silhouettes.push_back(button);
    connect(button, &QAbstractButton::clicked, this, [this, kind = k.kind] {
      if (auto why = m_document.edit(tr("change the shape"), [kind](Plan& p) { p.house.shape = p.house.shape.as(kind); })) emit m_document.trouble(*why);
      refresh();
    });
  }
  body->addLayout(row);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(4);
  body->addLayout(grid);
  const auto add = [&](int r, int c, NumberField::Spec spec) {
    auto* field = new NumberField(document, std::move(spec), this);
    grid->addWidget(field, r, c);
    return field;
  };
  const auto size = [&](int r, int c, const QString& name, double HouseShape::*field, double min, double max, Quantity quantity, double nudge,
                        const QString& source) {
    return add(r, c,
               {name, quantity, [field](const Plan& p) { return p.house.shape.*field; }, [field](Plan& p, double v) { p.house.shape.*field = v; }, min, max,
                nudge, source});
  };
  size(0, 0, tr("Width"), &HouseShape::width_m, 0.3, 60, Quantity::length, 0.1, tr("your measurement, outside to outside; of one bay; across a dome's foot"));
  m_length = size(0, 1, tr("Length"), &HouseShape::length_m, 0.3, 300, Quantity::length, 0.1, tr("your measurement"));
  size(1, 0, tr("Eave"), &HouseShape::eave_m, 0, 12, Quantity::length, 0.1, tr("height of the straight sides, or of the low wall"));
  size(1, 1, tr("Ridge"), &HouseShape::ridge_m, 0.1, 15, Quantity::length, 0.1, tr("highest point above the ground"));
  size(2, 0, tr("Ridge runs to"), &HouseShape::axis_deg, 0, 360, Quantity::angle, 5,
       tr("by the compass: 0 north-south, 90 east-west. With a back wall, its front looks 90° to the right"));
  size(2, 1, tr("Sunk floor"), &HouseShape::sunk_m, 0, 3, Quantity::length, 0.1, tr("how deep it is sunk; the walls beside it stand in the soil"));
  m_bays = add(4, 0,
               {tr("Bays"), Quantity::count, [](const Plan& p) { return p.house.shape.bays; },
                [](Plan& p, double v) { p.house.shape.bays = static_cast<int>(std::lround(v)); }, 1, 40, 1, tr("joined side by side with gutters between")});
  m_cover = coverChoice();
  grid->addWidget(m_cover, 3, 0);
  m_draughty = new QComboBox(this);
  m_draughty->setAccessibleName(tr("How draughty"));
  m_draughty->setToolTip(tr("by build and upkeep, ASAE EP406; sets the two numbers below, which you may then change"));
  m_draughty->addItem(tr("your own numbers"));
  for (const Draughtiness& d : draughtinesses()) m_draughty->addItem(said(nameOf(d)));
  grid->addWidget(m_draughty, 3, 1);
  connect(m_draughty, &QComboBox::activated, this, [this](int chosen) {
    if (chosen == 0) return;
    const Draughtiness& d = draughtinesses()[static_cast<std::size_t>(chosen) - 1];
    if (auto why = m_document.edit(tr("change how draughty it is"), [&d](Plan& p) {
          p.house.airChanges_per_h = d.still_per_h;
          p.house.windAirChanges = d.perWind;
        }))
      emit m_document.trouble(*why);
  });
  m_byAirChanges[0] =
      add(5, 0,
          {tr("Air changes"), Quantity::airChanges, [](const Plan& p) { return p.house.airChanges_per_h; },
           [](Plan& p, double v) { p.house.airChanges_per_h = v; }, 0, 20, 0.1, tr("an hour, shut, in still air: 0.3 tight, 1 usual, 3 draughty")});
  m_byAirChanges[1] = add(5, 1,
                          {tr("Wind adds"), Quantity::airChanges, [](const Plan& p) { return p.house.windAirChanges; },
                           [](Plan& p, double v) { p.house.windAirChanges = v; }, 0, 5, 0.05, tr("air changes an hour that each m/s of wind adds")});
  add(4, 1,
      {tr("Door a day"), Quantity::count, [](const Plan& p) { return p.house.door.opened; }, [](Plan& p, double v) { p.house.door.opened = v; }, 0, 1000, 1,
       tr("times, each for 20 seconds; warm air leaves at its top, cold comes in at its foot")});
  m_lobby = new QCheckBox(tr("lobby: two doors, never open together"), this);
  m_lobby->setFont(textFont(9.5));
  grid->addWidget(m_lobby, 6, 1);
  connect(m_lobby, &QCheckBox::clicked, this, [this](bool on) {
    if (auto why = m_document.edit(on ? tr("add a lobby") : tr("take the lobby away"), [on](Plan& p) { p.house.door.lobby = on; }))
      emit m_document.trouble(*why);
  });
  m_sums = new QLabel(this);
  m_sums->setFont(textFont(9.5));
  m_sums->setWordWrap(true);
  body->addWidget(m_sums);
  m_taken = new QLabel(this);
  m_taken->setFont(textFont(9));
  m_taken->setWordWrap(true);
  body->addWidget(m_taken);
  body->addStretch(1);
  body->addWidget(new CautionLabel(ThingKind::shape, this));
}

QComboBox* ShapePage::coverChoice() {
  auto* choice = new QComboBox(this);
  choice->setAccessibleName(tr("Cover"));
  choice->setToolTip(tr("roof, sides and ends alike; layer by layer under Skins"));
  choice->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  choice->addItem(tr("cover as under Skins"));
  for (const UsualCover& c : usualCovers()) choice->addItem(said(nameOf(c)));
  connect(choice, &QComboBox::activated, this, [this](int chosen) {
    if (chosen == 0) return refresh();
    const UsualCover& c = usualCovers()[static_cast<std::size_t>(chosen) - 1];
    if (auto why = m_document.edit(tr("change the cover"), [&c](Plan& p) { coverWith(p.house, c.skin); })) emit m_document.trouble(*why);
  });
  return choice;
}

/// What nobody has touched yet, with the values that stand for it.
QString ShapePage::takenAsUsual() const {
  const Plan usual;
  const Plan& p = m_document.plan();
  const House& h = p.house;
  const Units& u = m_document.view().units();
  const auto percent = [&](double share) { return u.text(Quantity::share, share); };
  QStringList taken;
  if (h.floor == usual.house.floor && h.crop == usual.house.crop) {
    taken << tr("soil %1, %2 of the floor wet, leaves %3 times its area (Floor)")
                 .arg(said(nameOf(*findSoilMaterial(h.floor.soil))), percent(h.crop.wetFloor))
                 .arg(h.crop.leafArea);
  }
  if (h.light == usual.house.light) taken << tr("%1 of the light lost to dirt, %2 to bars (Floor)").arg(percent(h.light.dirt), percent(h.light.frame));
  if (h.ventOpens_C == usual.house.ventOpens_C && h.ventFull_C == usual.house.ventFull_C)
    taken << tr("vents open from %1 to %2").arg(u.text(Quantity::temperature, h.ventOpens_C), u.text(Quantity::temperature, h.ventFull_C));
  if (p.setpoints.hold_C == usual.setpoints.hold_C) taken << tr("the line to hold %1 (Heat)").arg(u.text(Quantity::temperature, p.setpoints.hold_C));
  if (p.heaters.empty() && p.barrels.empty() && !h.blanket) taken << tr("no heater, stores or blanket");
  return taken.isEmpty() ? QString() : tr("Taken as usual until you change it: %1.").arg(taken.join(QStringLiteral("; ")));
}

void ShapePage::refresh() {
  const HouseShape& s = m_document.plan().house.shape;
  for (std::size_t i = 0; i < m_silhouettes.size(); ++i) m_silhouettes[i]->setChecked(kKinds[i].kind == s.kind);
  m_bays->setVisible(s.kind == ShapeKind::gable || s.kind == ShapeKind::arch || s.kind == ShapeKind::pointedArch);
  m_length->setVisible(s.kind != ShapeKind::dome);
  const House& h = m_document.plan().house;
  int row = 0;
  for (std::size_t d = 0; d < draughtinesses().size(); ++d)
    if (h.airChanges_per_h == draughtinesses()[d].still_per_h && h.windAirChanges == draughtinesses()[d].perWind) row = static_cast<int>(d) + 1;
  m_draughty->setItemText(0, h.leakage ? tr("draughts by the leaks under Vents") : tr("your own numbers"));
  m_draughty->setCurrentIndex(h.leakage ? 0 : row);
  m_draughty->setEnabled(!h.leakage);
  for (QWidget* field : m_byAirChanges) field->setVisible(!h.leakage);
  const UsualCover* cover = usualCoverOf(h);
  m_cover->setCurrentIndex(cover ? static_cast<int>(cover - usualCovers().data()) + 1 : 0);
  m_taken->setText(takenAsUsual());
  m_taken->setVisible(!m_taken->text().isEmpty());
  m_lobby->setChecked(h.door.lobby);
  m_lobby->setEnabled(h.door.opened > 0.0);
  const Units& u = m_document.view().units();
  m_sums->setText(tr("Floor %1, cover %2, air %3: %4 of cover for each of floor.")
                      .arg(u.text(Quantity::area, s.floor_m2()), u.text(Quantity::area, s.cover_m2()), u.text(Quantity::volume, s.volume_m3()),
                           QLocale().toString(s.cover_m2() / s.floor_m2(), 'f', 2)));
}

} // namespace muffle
