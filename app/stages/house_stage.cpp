// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/house_stage.h"

#include "app/model/said.h"
#include "app/stages/section_view.h"
#include "core/material/materials.h"

#include <algorithm>

namespace muffle {
namespace {

/// Mean flows over the chosen night, W; nothing without a result.
std::optional<std::array<double, kLossPathCount>> nightLoss(const Document& d) {
  const Simulation* run = d.results().simulation();
  if (!run || d.view().selectedNight() < 0) return std::nullopt;
  const NightResult& n = run->nights[static_cast<std::size_t>(d.view().selectedNight())];
  std::array<double, kLossPathCount> mean{};
  for (std::size_t p = 0; p < kLossPathCount; ++p) {
    for (std::size_t i = n.from; i <= n.to; ++i) mean[p] += static_cast<double>(run->series[n.winter].loss_W[p][i]);
    mean[p] /= static_cast<double>(n.to - n.from + 1);
  }
  return mean;
}

QString skinText(const Skin& skin, const Materials& materials) {
  QStringList names;
  for (const Layer& l : skin.layers) names << said(nameOf(*materials.find(l.material)));
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
               m_document.readings().log() ? tr("Working it out.") : tr("Import a log of nights, and the way each watt leaves this house is drawn here."));
    return;
  }
  if (!m_document.isCurrentInSight()) p.setOpacity(0.5);
  const House& h = m_document.plan().house;
  const Units& u = m_document.view().units();
  const Materials materials = m_document.planInHand().materials();
  struct Row {
    LossPath part;
    QString name, why;
  };
  std::vector<Row> rows{
      {LossPath::roof, tr("Roof"), skinText(h.roof, materials)},
      {LossPath::sides, tr("Sides"), skinText(h.sides, materials)},
      {LossPath::ends, tr("End walls"), skinText(h.ends, materials)},
      {LossPath::draughts, tr("Draughts"),
       h.leakage ? tr("leaks of %1").arg(u.text(Quantity::leakArea, h.leakage->area_cm2))
                 : tr("%1 changes an hour, calm").arg(u.number(Quantity::airChanges, h.airChanges_per_h))},
      {LossPath::floorEdge, tr("Floor edge"),
       h.floor.edgeDepth_m > 0 ? tr("skirt %1 down").arg(u.text(Quantity::length, h.floor.edgeDepth_m)) : tr("no skirt")},
      {LossPath::deepGround, tr("Deep ground"), (*loss)[static_cast<int>(LossPath::deepGround)] < 0 ? tr("gives heat back") : tr("takes heat")}};
  if (h.shape.hasBackWall()) rows.insert(rows.begin() + 3, {LossPath::backWall, tr("Back wall"), skinText(h.backWall, materials)});
  std::erase_if(rows, [&](const Row& r) {
    return (r.part == LossPath::sides && h.shape.area_m2(FaceGroup::sides) <= 0.0) || (r.part == LossPath::ends && h.shape.area_m2(FaceGroup::ends) <= 0.0);
  });
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

Knot HouseStage::knot(const Document& document) {
  const Plan& p = document.plan();
  const QString skin = p.house.roof.layers.size() > 1 ? tr("double") : tr("single");
  return {p.site.placeAssumed ? tr("place assumed") : (p.house.blanket ? tr("%1 skin, blanket") : tr("%1 skin, no blanket")).arg(skin), 1.0};
}

HouseStage::HouseStage(const Bench& bench)
    : StagePage(bench.document), m_pages(new PageStrip(bench.document, this)), m_place(new PlacePage(bench.document, this)),
      m_shape(new ShapePage(bench.document, this)), m_skins(new SkinEditor(bench.document, this)), m_floor(new FloorPage(bench.document, this)),
      m_vents(new VentsPage(bench.document, this)), m_roomsPage(new RoomsPage(bench.document, this)), m_proportions(new ProportionsPage(bench.document, this)),
      m_changes(new ChangePage(bench.document, this)) {
  Document& document = bench.document;
  m_body->addWidget(m_pages, 1);
  m_pages->add(tr("Place"), m_place);
  m_pages->add(tr("Losses"), new LossBars(document, this));
  m_pages->add(tr("Shape"), m_shape);
  m_pages->add(tr("Skins"), m_skins);
  m_pages->add(tr("Floor"), m_floor);
  m_pages->add(tr("Vents"), m_vents);
  m_pages->add(tr("Rooms"), m_roomsPage);
  m_pages->add(tr("Proportions"), m_proportions);
  m_pages->add(tr("One change"), m_changes);
  showPage(Page::flows);
  connect(&bench.section, &SectionView::housePointedAt, this, [show = bench.show] { show(kId); });
  connect(m_pages, &PageStrip::turned, this, &HouseStage::refresh);
  connect(&document, &Document::bookOpened, this, [this] {
    if (m_document.plan().site.placeAssumed) showPage(Page::place); // asked before a night is judged
  });
  refreshOn({&Document::planChanged, &Document::resultChanged, &Document::winterChanged, &Document::selectionChanged, &Document::viewChanged});
}

void HouseStage::showPage(Page page) {
  m_pages->show(static_cast<int>(page));
  if (page == Page::place && m_document.plan().site.placeAssumed) m_place->setFocus(); // what is asked can be answered at once
}

/// A new house is placed and described before anything can be asked of it.
void HouseStage::begin() { showPage(m_document.plan().site.placeAssumed ? Page::place : Page::shape); }

void HouseStage::refresh() {
  switch (static_cast<Page>(m_pages->shown())) { // the others wait until they are turned to
  case Page::place: m_place->refresh(); break;
  case Page::flows: break;
  case Page::shape: m_shape->refresh(); break;
  case Page::skins: m_skins->refresh(); break;
  case Page::floor: m_floor->refresh(); break;
  case Page::vents: m_vents->refresh(); break;
  case Page::rooms: m_roomsPage->refresh(); break;
  case Page::proportions: m_proportions->refresh(); break;
  case Page::change: m_changes->refresh(); break;
  }
  QString remark;
  if (const auto loss = nightLoss(m_document); loss && m_pages->shown() != static_cast<int>(Page::place)) {
    double total = 0.0;
    for (const double w : *loss) total += w;
    remark = tr("where %1 went, on average through this night").arg(m_document.view().units().text(Quantity::power, total));
  }
  if (m_document.plan().site.placeAssumed) remark = remark.isEmpty() ? tr("place assumed") : tr("%1 · place assumed").arg(remark);
  setHeading(tr("The house"), remark);
}

} // namespace muffle
