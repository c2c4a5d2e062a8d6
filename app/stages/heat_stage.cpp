// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/heat_stage.h"
#include "app/model/said.h"

#include "app/stages/caution_label.h"
#include "app/stages/crops_page.h"
#include "app/stages/degree_page.h"
#include "app/stages/failure_page.h"
#include "app/stages/heat_prices_dialog.h"
#include "app/stages/heater_list.h"
#include "app/stages/ladder.h"
#include "app/stages/load_curve.h"
#include "app/stages/number_field.h"
#include "app/stages/page_strip.h"
#include "app/stages/room_choice.h"
#include "app/stages/section_view.h"
#include "app/stages/setpoints_page.h"
#include "app/stages/sources_page.h"
#include "app/stages/tariff_dialog.h"
#include "core/plan/heaters.h"
#include "core/plan/names.h"
#include "core/sizing/usual_measures.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>

#include <algorithm>
#include <cmath>
#include <utility>

namespace muffle {

Knot HeatStage::knot(const Document& document) {
  const double heaters_W = roomHeaters_W(document.plan());
  if (heaters_W <= 0.0) return {tr("no heater"), 0.0};
  return {(countOfRoomHeaters(document.plan()) > 1 ? tr("heaters %1") : tr("heater %1")).arg(document.view().units().text(Quantity::power, heaters_W)), 1.0};
}

HeatStage::HeatStage(const Bench& bench)
    : StagePage(bench.document), m_pages(new PageStrip(bench.document, this)), m_setpoints(new SetpointsPage(bench.document, this)),
      m_crops(new CropsPage(bench.document, this)), m_failure(new FailurePage(bench.document, this)), m_degree(new DegreePage(bench.document, this)),
      m_sources(new SourcesPage(bench.document, this)), m_heaters(new HeaterList(bench.document, this)), m_foot(new QWidget(this)),
      m_caution(new CautionLabel(this)), m_usual(new QPushButton(this)), m_tariff(new QPushButton(this)), m_compare(new QPushButton(tr("Fuels…"), this)),
      m_ladder(new Ladder(bench.document, this)) {
  Document& document = bench.document;
  auto* ladder = new QWidget(this);
  auto* row = new QHBoxLayout(ladder);
  row->setContentsMargins(0, 0, 0, 0);
  auto* rungs = new QVBoxLayout;
  auto* room = new RoomChoice(document, tr("Whose ladder"), this);
  rungs->addWidget(room, 0, Qt::AlignLeft);
  rungs->addWidget(m_ladder, 1);
  connect(room, &RoomChoice::chosen, m_ladder, &Ladder::showRoom);
  row->addLayout(rungs, 6);
  row->addWidget(new LoadCurve(document, this), 5);
  auto* list = new QScrollArea(this);
  list->setWidget(m_heaters);
  list->setWidgetResizable(true);
  list->setFrameShape(QFrame::NoFrame);
  list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* fields = new QHBoxLayout(m_foot);
  fields->setContentsMargins(0, 0, 0, 0);
  fields->setSpacing(12);
  fields->addWidget(m_heaters->addButton(), 0);
  fields->addWidget(m_usual, 0);
  fields->addWidget(new NumberField(document,
                                    {tr("Price of a kWh"), Quantity::price, [](const Plan& p) { return p.prices.electricity_per_kWh; },
                                     [](Plan& p, double v) { p.prices.electricity_per_kWh = v; }, 0, 100, 0.01, tr("of electricity, from your bill")},
                                    this),
                    1);
  m_tariff->setToolTip(tr("a night price, dear hours, and what is charged a day"));
  fields->addWidget(m_tariff, 0);
  m_compare->setToolTip(tr("what heat comes to by each fuel, side by side, at this house's loads"));
  fields->addWidget(m_compare, 0);
  connect(m_compare, &QPushButton::clicked, this, [this] {
    auto* dialog = new HeatPricesDialog(m_document, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  connect(m_tariff, &QPushButton::clicked, this, [this] {
    auto* dialog = new TariffDialog(m_document, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  for (QPushButton* adds : {m_heaters->addButton(), m_usual}) // and is seen there
    connect(adds, &QPushButton::clicked, this, [this] { showPage(Page::heaters); });
  connect(m_usual, &QPushButton::clicked, this, [this] {
    const auto power = usualHeater_W(m_document.plan(), m_document.designLow_C());
    if (!power) return;
    if (const auto why = m_document.edit(tr("add a usual heater"), [&](Plan& p) { addHeater(p, {.power_W = *power}); })) m_usual->setToolTip(*why);
  });
  m_pages->add(tr("The ladder"), ladder);
  m_pages->add(tr("Setpoints"), m_setpoints);
  m_pages->add(tr("Crops"), m_crops);
  m_pages->add(tr("Heaters"), list);
  m_pages->add(tr("By source"), m_sources);
  m_pages->add(tr("A degree more"), m_degree);
  m_pages->add(tr("If it fails"), m_failure);
  m_body->addWidget(m_pages, 1);
  m_body->addWidget(m_foot);
  m_body->addWidget(m_caution);
  connect(&bench.section, &SectionView::heaterPointedAt, this, [this, show = bench.show] {
    show(kId);
    showPage(Page::heaters);
  });
  connect(m_pages, &PageStrip::turned, this, &HeatStage::refresh);
  connect(&document, &Document::selectionChanged, this, [this] { // before refreshOn's own
    m_change = !isVisible() ? Change::all : m_night == m_document.view().selectedNight() ? Change::clock : Change::night;
    m_night = m_document.view().selectedNight();
  });
  refreshOn({&Document::planChanged, &Document::resultChanged, &Document::logChanged, &Document::selectionChanged, &Document::viewChanged});
}

void HeatStage::showPage(Page page) { m_pages->show(static_cast<int>(page)); }

void HeatStage::refresh() {
  const auto page = static_cast<Page>(m_pages->shown());
  const Change change = std::exchange(m_change, Change::all);
  if (change != Change::all && page != Page::failure) { // the others are the same for every moment, By source for all of a night
    if (page == Page::sources && change == Change::night) m_sources->followNight();
    return;
  }
  m_foot->setVisible(page == Page::ladder || page == Page::heaters);
  switch (page) {
  case Page::ladder: setHeading(tr("The ladder"), tr("drag a rung, or Page Down and arrows")); break;
  case Page::setpoints:
    setHeading(tr("Setpoints"), tr("what the heaters are asked to hold"));
    m_setpoints->refresh();
    break;
  case Page::crops:
    setHeading(tr("Crops"), tr("what stands here, and what it bears"));
    m_crops->refresh();
    break;
  case Page::heaters:
    setHeading(tr("Heaters"), tr("in the turn in which they give"));
    m_heaters->refresh();
    break;
  case Page::sources:
    setHeading(tr("By source"), tr("the chosen night by the hour, its winter by the week"));
    m_sources->refresh();
    break;
  case Page::degree:
    setHeading(tr("A degree more"), tr("warmer and cooler nights, everything else as it stands"));
    m_degree->refresh();
    break;
  case Page::failure:
    setHeading(tr("If it fails"), tr("at the clock in the picture, or at the worst moment"));
    m_failure->refresh();
    break;
  }
  refreshUsual();
  const std::size_t windows = m_document.plan().prices.electricityWindows.size();
  m_tariff->setText(windows == 0 ? tr("By the hour…") : tr("By the hour (%1)…").arg(windows));
  const Plan& plan = m_document.plan();
  std::vector<Caution> cautions;
  for (std::size_t i = 0; i < plan.heaters.size(); ++i)
    for (const Caution& c : cautionsFor(plan, {ThingKind::heater, i}))
      if (std::none_of(cautions.begin(), cautions.end(), [&](const Caution& known) { return known.id == c.id; })) cautions.push_back(c);
  if (plan.heaters.empty()) { // of the usual one that is offered
    Plan with = plan;
    addHeater(with, {});
    cautions = cautionsFor(with, {ThingKind::heater, 0});
  }
  m_caution->state(page == Page::sources || page == Page::setpoints || page == Page::crops ? std::vector<Caution>()
                                                                                           : cautions); // they stand where heaters are chosen
}

void HeatStage::refreshUsual() {
  const bool hasOne = heaterIn(m_document.plan(), {HeaterPlace::Of::house}) != nullptr;
  m_usual->setVisible(!hasOne);
  m_heaters->addButton()->setVisible(hasOne); // for the first the usual one is offered
  if (hasOne) return;
  const Units& u = m_document.view().units();
  const double low_C = m_document.designLow_C();
  const auto power = usualHeater_W(m_document.plan(), low_C);
  m_usual->setEnabled(static_cast<bool>(power));
  m_usual->setText(power ? tr("Add a usual one: %1").arg(u.text(Quantity::power, *power)) : tr("Add a usual one"));
  m_usual->setToolTip(
      power ? tr("keeps the house on its night setpoint through a clear, calm night of %1 outside%2; change its size as you like")
                  .arg(u.text(Quantity::temperature, low_C), m_document.readings().log() ? tr(", the coldest of your log") : tr(" (assumed until a log says)"))
            : said(power.problem(), m_document.view().units()));
}

} // namespace muffle
