// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/stores_stage.h"

#include "app/stages/page_strip.h"
#include "app/stages/section_view.h"
#include "app/stages/store_words.h"

#include <utility>

namespace muffle {

Knot StoresStage::knot(const Document& document) {
  const Plan& p = document.plan();
  int barrels = 0;
  for (const Barrels& b : p.barrels) barrels += b.count;
  QStringList has;
  if (barrels > 0) has << tr("%Ln barrel(s)", nullptr, static_cast<int>(barrels));
  if (!p.groundPipes.empty()) has << tr("pipes");
  if (!p.compost.empty()) has << tr("compost");
  if (!p.waterLoops.empty()) has << tr("tank");
  if (!p.soilCables.empty()) has << tr("cable");
  return {has.isEmpty() ? tr("none") : has.join(QStringLiteral(", ")), has.isEmpty() ? 0.0 : 1.0};
}

StoresStage::StoresStage(const Bench& bench)
    : StagePage(bench.document), m_choice(bench.document, this), m_strip(new PageStrip(bench.document, this)),
      m_stores(new StoresPage(bench.document, m_choice, this)), m_together(new StoresTogetherPage(bench.document, this)),
      m_oneMore(new StoreCurvePage(bench.document, m_choice, this)), m_ground(new GroundPage(bench.document, m_choice, this)),
      m_compost(new CompostPage(bench.document, m_choice, this)) {
  Document& document = bench.document;
  m_strip->add(tr("Your stores"), m_stores);
  m_strip->add(tr("All together"), m_together);
  m_strip->add(tr("One more"), m_oneMore);
  m_strip->add(tr("Ground"), m_ground);
  m_strip->add(tr("Compost bench"), m_compost);
  m_body->addWidget(m_strip, 1);
  connect(m_stores, &StoresPage::placing, &bench.section, &SectionView::place);
  connect(&bench.section, &SectionView::placed, m_stores, &StoresPage::takeUp);
  connect(&bench.section, &SectionView::storePointedAt, this, [this, show = bench.show](StoreKind kind, std::size_t index) {
    show(kId);
    for (const StoreRef& s : storesOf(m_document.plan()))
      if (s.kind == kind && s.index == index) m_choice.choose(s.id);
  });
  connect(m_strip, &PageStrip::turned, this, [this] { refresh(); });
  connect(&m_choice, &StoreChoice::chosen, this, [this] { refresh(); });
  connect(&document, &Document::selectionChanged, this, [this] { // before refreshOn's own
    m_change = !isVisible() ? Change::all : m_night == m_document.view().selectedNight() ? Change::clock : Change::night;
    m_night = m_document.view().selectedNight();
  });
  refreshOn({&Document::planChanged, &Document::resultChanged, &Document::winterChanged, &Document::selectionChanged, &Document::viewChanged});
}

void StoresStage::showPage(Page page) { m_strip->show(static_cast<int>(page)); }

void StoresStage::refresh() {
  const auto all = storesOf(m_document.plan());
  const auto now = m_choice.now();
  setHeading(
      tr("Stores of heat"),
      all.empty() ? tr("none yet")
      : all.size() == 1
          ? StoreWords::kind(m_document.plan(), *now)
          : tr("%1; in hand: %2").arg(tr("%Ln store(s)", nullptr, static_cast<int>(all.size())), StoreWords::kind(m_document.plan(), *now)));
  const Change change = std::exchange(m_change, Change::all);
  switch (static_cast<Page>(m_strip->shown())) {
  case Page::stores:
    if (change != Change::clock) m_stores->refresh();
    break;
  case Page::together:
    if (change == Change::all)
      m_together->refresh();
    else if (change == Change::night)
      m_together->followNight();
    break;
  case Page::oneMore:
    if (change == Change::all) m_oneMore->refresh();
    break;
  case Page::ground: change == Change::all ? m_ground->refresh() : m_ground->followClock(); break;
  case Page::compost:
    if (change == Change::all) m_compost->refresh();
    break;
  }
}

} // namespace muffle
