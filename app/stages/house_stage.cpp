// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/house_stage.h"

#include "app/stages/number_field.h"
#include "core/material/materials.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>

#include <algorithm>

namespace muffle {
namespace {

/// Mean flows over the chosen night, W; nothing without a result.
std::optional<std::array<double, kPartCount>> nightLoss(const Document& d) {
  const Simulation* run = d.result();
  if (!run || d.selectedNight() < 0) return std::nullopt;
  const NightResult& n = run->nights[static_cast<std::size_t>(d.selectedNight())];
  std::array<double, kPartCount> mean{};
  for (std::size_t p = 0; p < kPartCount; ++p) {
    for (std::size_t i = n.from; i <= n.to; ++i) mean[p] += static_cast<double>(run->series[n.winter].loss_W[p][i]);
    mean[p] /= static_cast<double>(n.to - n.from + 1);
  }
  return mean;
}

QString skinText(const Skin& skin) {
  QStringList names;
  for (const Layer& l : skin.layers) names << QString::fromUtf8(findCoverMaterial(l.material)->name.data());
  return names.join(QStringLiteral(" + "));
}

} // namespace

LossBars::LossBars(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::resultChanged, &Document::winterChanged, &Document::selectionChanged, &Document::viewChanged}, parent) {
  setAccessibleName(tr("Heat loss by part"));
}

void LossBars::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = theme();
  const auto loss = nightLoss(m_document);
  if (!loss) {
    p.setFont(textFont(10));
    p.setPen(t.fleece);
    p.drawText(rect(), static_cast<int>(Qt::TextWordWrap | Qt::AlignLeft),
               m_document.log() ? tr("Working it out.") : tr("Import a log of nights, and the way each watt leaves this house is drawn here."));
    return;
  }
  if (!m_document.isCurrentInSight()) p.setOpacity(0.5);
  const House& h = m_document.plan().house;
  const Units& u = m_document.units();
  struct Row {
    Part part;
    QString name, why;
  };
  std::vector<Row> rows{
      {Part::roof, tr("Roof"), skinText(h.roof)},
      {Part::sides, tr("Sides"), skinText(h.sides)},
      {Part::ends, tr("End walls"), skinText(h.ends)},
      {Part::draughts, tr("Draughts"), tr("%1 changes an hour, calm").arg(u.number(Quantity::airChanges, h.airChanges_per_h))},
      {Part::floorEdge, tr("Floor edge"), h.floor.edgeDepth_m > 0 ? tr("skirt %1 down").arg(u.text(Quantity::length, h.floor.edgeDepth_m)) : tr("no skirt")},
      {Part::deepGround, tr("Deep ground"), (*loss)[static_cast<int>(Part::deepGround)] < 0 ? tr("gives heat back") : tr("takes heat")}};
  if (h.shape.kind == ShapeKind::leanTo) rows.insert(rows.begin() + 3, {Part::backWall, tr("Back wall"), tr("masonry")});
  double largest = 1.0;
  for (const Row& r : rows) largest = std::max(largest, std::abs((*loss)[static_cast<std::size_t>(r.part)]));
  const double rowHeight = std::min(44.0, height() / static_cast<double>(rows.size()));
  const double x0 = 176, room = width() - x0 - 96;
  double y = 0;
  for (const Row& r : rows) {
    const double w = (*loss)[static_cast<std::size_t>(r.part)];
    p.setFont(textFont(10.5));
    p.setPen(t.ink);
    p.drawText(QRectF(0, y + 2, x0 - 8, 18), static_cast<int>(Qt::AlignVCenter), r.name);
    p.setFont(textFont(8.5));
    p.setPen(t.fleece);
    p.drawText(QRectF(0, y + 20, x0 - 8, 16), static_cast<int>(Qt::AlignVCenter), QFontMetricsF(textFont(8.5)).elidedText(r.why, Qt::ElideRight, x0 - 10));
    const double length = std::max(room * std::abs(w) / largest, 1.5);
    const QRectF bar(x0, y + 8, length, 18);
    if (w >= 0)
      p.fillRect(bar, t.madder);
    else { // gains are hatched as well as green
      p.fillRect(bar, t.lichen);
      p.save();
      p.setClipRect(bar);
      p.setPen(QPen(t.wool, 1));
      for (double k = bar.left() - 18; k < bar.right(); k += 6) p.drawLine(QPointF(k, bar.bottom()), QPointF(k + 18, bar.top()));
      p.restore();
    }
    p.setFont(textFont(10));
    p.setPen(t.ink);
    p.drawText(QRectF(x0 + length + 7, y + 6, 100, 22), static_cast<int>(Qt::AlignVCenter), u.text(Quantity::power, w));
    y += rowHeight;
  }
}

HouseStage::HouseStage(Document& document, QWidget* parent) : StagePage(document, parent) {
  m_body->addWidget(new LossBars(document, this), 1);
  auto* title = new QLabel(tr("This house"), this);
  title->setFont(titleFont(11.5));
  m_body->addWidget(title);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(1);
  m_body->addLayout(grid);
  const auto shape = [](double HouseShape::*field) {
    return std::pair{[field](const Plan& p) { return p.house.shape.*field; }, [field](Plan& p, double v) { p.house.shape.*field = v; }};
  };
  const auto add = [&](int row, int column, NumberField::Spec spec) { grid->addWidget(new NumberField(document, std::move(spec), this), row, column); };
  const auto size = [&](int row, int column, const QString& name, double HouseShape::*field, double min, double max, const QString& source) {
    auto [get, set] = shape(field);
    add(row, column, {name, Quantity::length, get, set, min, max, 0.1, source});
  };
  size(0, 0, tr("Width"), &HouseShape::width_m, 0.3, 60, tr("your measurement, outside to outside"));
  size(0, 1, tr("Length"), &HouseShape::length_m, 0.3, 300, tr("your measurement"));
  size(1, 0, tr("Eave"), &HouseShape::eave_m, 0, 12, tr("height of the straight sides"));
  size(1, 1, tr("Ridge"), &HouseShape::ridge_m, 0.1, 15, tr("highest point above the floor"));
  add(2, 0,
      {tr("Air changes"), Quantity::airChanges, [](const Plan& p) { return p.house.airChanges_per_h; }, [](Plan& p, double v) { p.house.airChanges_per_h = v; },
       0, 20, 0.1, tr("an hour, shut, in still air: 0.3 tight, 1 usual, 3 draughty")});
  add(2, 1,
      {tr("Skirt depth"), Quantity::length, [](const Plan& p) { return p.house.floor.edgeDepth_m; },
       [](Plan& p, double v) {
         p.house.floor.edgeDepth_m = v;
         p.house.floor.edgeInsulation_m2K_W = v > 0 ? 1.43 : 0.0; // 50 mm of rigid foam
       },
       0, 3, 0.1, tr("50 mm foam board round the foot; ISO 13370")});
  m_shape = new QComboBox(this);
  m_shape->addItems({tr("gable"), tr("round arch"), tr("lean-to")});
  m_shape->setAccessibleName(tr("Shape"));
  m_shape->setFont(textFont(9.5));
  const auto labelled = [&](int row, int column, const QString& name, QComboBox* box) {
    auto* cell = new QHBoxLayout;
    cell->setSpacing(8);
    auto* l = new QLabel(name, this);
    l->setFont(textFont(10));
    cell->addWidget(l);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
    cell->addWidget(box, 1);
    grid->addLayout(cell, row, column);
  };
  labelled(3, 0, tr("Shape"), m_shape);
  connect(m_shape, &QComboBox::activated, this, [this](int i) {
    if (auto why = m_document.edit(tr("change the shape"), [&](Plan& p) {
          p.house.shape.kind = static_cast<ShapeKind>(i);
          auto& s = p.house.shape;
          if (s.kind != ShapeKind::arch)
            s.eave_m = std::max(s.eave_m, 0.3);
          else
            s.ridge_m = std::min(s.ridge_m, s.eave_m + s.width_m / 2.0);
        }))
      emit m_document.trouble(*why);
  });
  const QString names[] = {tr("Roof"), tr("Sides"), tr("Ends")};
  for (int g = 0; g < 3; ++g) {
    m_skins[g] = new QComboBox(this);
    m_skins[g]->setAccessibleName(tr("%1: outermost skin").arg(names[g]));
    m_skins[g]->setFont(textFont(9.5));
    for (const CoverMaterial& m : coverMaterials()) {
      m_skins[g]->addItem(QString::fromUtf8(m.name.data()), QString::fromUtf8(m.id.data()));
      m_skins[g]->setItemData(m_skins[g]->count() - 1, tr("%1; %2").arg(QString::fromUtf8(m.range.data()), QString::fromUtf8(m.source.data())),
                              Qt::ToolTipRole);
    }
    labelled(3 + (g + 1) / 2, (g + 1) % 2, names[g], m_skins[g]);
    connect(m_skins[g], &QComboBox::activated, this, [this, g](int i) {
      const std::string id = m_skins[g]->itemData(i).toString().toStdString();
      if (auto why = m_document.edit(tr("change a skin"), [&](Plan& p) {
            Skin* const skins[] = {&p.house.roof, &p.house.sides, &p.house.ends};
            skins[g]->layers.front().material = id;
          }))
        emit m_document.trouble(*why);
    });
  }
  auto* caution = new QLabel(tr("Snow and wind load are not calculated here: ask a licensed structural engineer."), this);
  caution->setFont(textFont(8.5));
  caution->setWordWrap(true);
  m_body->addWidget(caution);
  refreshOn({&Document::planChanged, &Document::resultChanged, &Document::winterChanged, &Document::selectionChanged, &Document::viewChanged});
}

void HouseStage::refresh() {
  const House& h = m_document.plan().house;
  m_shape->setCurrentIndex(static_cast<int>(h.shape.kind));
  const Skin* const skins[] = {&h.roof, &h.sides, &h.ends};
  for (int g = 0; g < 3; ++g) m_skins[g]->setCurrentIndex(m_skins[g]->findData(QString::fromStdString(skins[g]->layers.front().material)));
  QString remark;
  if (const auto loss = nightLoss(m_document)) {
    double total = 0.0;
    for (const double w : *loss) total += w;
    remark = tr("%1 on average through this night").arg(m_document.units().text(Quantity::power, total));
  }
  setHeading(tr("Where the warmth goes"), remark);
}

} // namespace muffle
