// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/cost_stage.h"
#include "app/model/said.h"

#include "app/stages/caution_label.h"
#include "app/stages/frontier_view.h"
#include "app/stages/measures_editor.h"
#include "app/stages/sizing_words.h"
#include "core/sizing/usual_measures.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QStackedWidget>

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

namespace muffle {
namespace {

constexpr int kUsualPrice = 80, kUsualHour = 60; // cents a kWh and money an hour that the sliders reach at least

bool buysAnything(const SizedPackage& p) {
  return std::any_of(p.choice.begin(), p.choice.end(), [](int place) { return place >= 0; });
}

constexpr int kPriceEdit = 7; // steps of one drag are one undo step

} // namespace

Knot CostStage::knot(const Document& document) {
  if (document.results().isSizing()) return {tr("searching"), 0.5};
  if (!document.results().sizing()) return {tr("not searched yet"), 0.0};
  if (!document.results().sizingIsCurrent()) return {tr("searched for an older plan"), 0.5};
  return {tr("%1 compared")
              .arg(tr("%Ln plan(s)", nullptr, static_cast<int>(std::min<std::size_t>(document.results().sizing()->covered, std::numeric_limits<int>::max())))),
          1.0};
}

CostStage::CostStage(const Bench& bench)
    : StagePage(bench.document), m_show(bench.show), m_pages(new QStackedWidget(this)), m_frontier(new FrontierView(bench.document, this)),
      m_search(new QPushButton(this)), m_take(new QPushButton(tr("Make it the plan"), this)), m_turn(new QPushButton(this)), m_progress(new QProgressBar(this)),
      m_bill(new QLabel(this)), m_eachDoes(new QLabel(this)), m_worth(new QScrollArea(this)), m_caution(new CautionLabel(this)),
      m_price(new QSlider(Qt::Horizontal, this)), m_hour(new QSlider(Qt::Horizontal, this)), m_priceText(new QLabel(this)), m_hourText(new QLabel(this)) {
  Document& document = bench.document;
  auto* result = new QWidget(this);
  auto* page = new QVBoxLayout(result);
  page->setContentsMargins(0, 0, 0, 0);
  page->setSpacing(4);
  page->addWidget(m_frontier, 1);
  auto* against = m_against = new QComboBox(m_frontier);
  against->setAccessibleName(tr("Set cost against"));
  against->setToolTip(tr("what a plan's cost is set against in the picture"));
  for (int a = 0; a < kCostAgainstCount; ++a) against->addItem(tr("against %1").arg(FrontierView::wordsFor(static_cast<CostAgainst>(a))));
  connect(against, &QComboBox::activated, this, [this](int a) { m_frontier->setAgainst(static_cast<CostAgainst>(a)); });
  against->setFont(textFont(9));
  auto* over = new QVBoxLayout(m_frontier); // in the picture's empty corner
  over->setContentsMargins(0, 0, 0, 0);
  over->addWidget(against, 0, Qt::AlignTop | Qt::AlignRight);
  m_bill->setWordWrap(true);
  m_bill->setTextFormat(Qt::RichText);
  m_bill->setFont(textFont(10));
  m_eachDoes->setWordWrap(true);
  m_eachDoes->setFont(textFont(9));
  m_eachDoes->setTextFormat(Qt::RichText);
  page->addWidget(m_bill);
  m_worth->setWidgetResizable(true);
  m_worth->setFrameShape(QFrame::NoFrame);
  m_worth->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_worth->setWidget(m_eachDoes);
  m_eachDoes->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  page->addWidget(m_worth, 2); // what there is no room for is scrolled to: the cautions below stay whole
  page->addSpacing(2);
  page->addWidget(m_caution);
  page->addSpacing(6);
  page->addLayout(priceSliders());
  m_pages->addWidget(result);
  m_pages->addWidget(new MeasuresEditor(document, this));
  m_body->addWidget(m_pages, 1);
  m_progress->setTextVisible(true);
  m_body->addWidget(m_progress);
  auto* row = new QHBoxLayout;
  row->addWidget(m_search);
  row->addWidget(m_take);
  row->addStretch();
  row->addWidget(m_turn);
  m_body->addLayout(row);
  connect(m_turn, &QPushButton::clicked, this, [this] { showMeasures(m_pages->currentIndex() == 0); });
  connect(m_search, &QPushButton::clicked, this, [this] {
    if (m_document.results().isSizing())
      m_document.results().cancelSizing();
    else
      search();
  });
  connect(m_take, &QPushButton::clicked, this, [this] {
    if (!m_document.results().otherPlan()) compareWithWinner();
    m_document.takeOther();
  });
  connect(&document, &Document::sizingProgress, this, [this](const SizingProgress& so) { tell(so); });
  refreshOn({&Document::sizingChanged, &Document::planChanged, &Document::logChanged, &Document::resultChanged, &Document::viewChanged});
}

/// Of a search nobody knows the length of, what it has found and what nothing can be below.
void CostStage::tell(const SizingProgress& so) {
  const auto done = static_cast<int>(so.done), of = static_cast<int>(so.of);
  if (of > 0) {
    m_progress->setMaximum(of);
    m_progress->setValue(done);
    m_progress->setFormat(tr("%1 of %2 plans run over every night").arg(done).arg(of));
    return;
  }
  const QString runs = tr("%Ln plan(s) run", nullptr, done);
  if (!so.found || !so.bound) {
    m_progress->setMaximum(100);
    m_progress->setValue(0);
    m_progress->setFormat(tr("%1, none that holds yet").arg(runs));
    return;
  }
  m_progress->setMaximum(1000);
  m_progress->setValue(static_cast<int>(std::lround(1000.0 * std::clamp(*so.bound / std::max(*so.found, 1e-9), 0.0, 1.0))));
  m_progress->setFormat(tr("%1: %2 %3 a winter holds, below %4 nothing does")
                            .arg(runs, QLocale().toString(std::lround(*so.found)), QString::fromStdString(m_document.plan().prices.currency),
                                 QLocale().toString(static_cast<qlonglong>(std::floor(*so.bound)))));
}

void CostStage::addActions(QMenu& planMenu) {
  planMenu.addAction(tr("&Compare with the cheapest that holds"), QKeySequence(tr("Ctrl+B")), this, &CostStage::compareWithWinner);
  planMenu.addAction(tr("&Search for least cost"), QKeySequence(tr("Ctrl+R")), this, [this] {
    m_show(kId);
    search();
  });
}

void CostStage::search() {
  if (!m_document.readings().weather()) return;
  showMeasures(false);
  if (m_document.plan().measures.empty() && !listUsual()) return;
  m_document.startSizing();
}

/// Whether the plan now has measures to try.
bool CostStage::listUsual() {
  const auto power = usualHeater_W(m_document.plan(), m_document.designLow_C());
  const auto why = power ? m_document.edit(tr("list the usual measures"), [&](Plan& p) { p.measures = measuresToSearch(p, *power); })
                         : std::optional(said(power.problem(), m_document.view().units()));
  if (why) {
    m_eachDoes->setText(*why);
    fitWorth();
  }
  return !why;
}

/// The sliders re-rank what was searched while they move; letting go is one undoable edit of the plan's prices.
QGridLayout* CostStage::priceSliders() {
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(8);
  m_price->setRange(1, kUsualPrice);
  m_hour->setRange(0, kUsualHour);
  m_price->setAccessibleName(tr("Price of a kWh"));
  m_hour->setAccessibleName(tr("Worth of your hour"));
  for (auto* l : {m_priceText, m_hourText}) l->setFont(textFont(9.5));
  grid->addWidget(m_priceText, 0, 0);
  grid->addWidget(m_price, 0, 1);
  grid->addWidget(m_hourText, 1, 0);
  grid->addWidget(m_hour, 1, 1);
  grid->setColumnStretch(1, 1);
  // each slider speaks for its own price; what it cannot show of the other stays as it is
  const auto shown = [this](const QSlider* moved) {
    Prices prices = m_document.plan().prices;
    if (moved == m_price)
      prices.electricity_per_kWh = m_price->sliderPosition() / 100.0;
    else
      prices.hour = m_hour->sliderPosition();
    return prices;
  };
  const auto keep = [this, shown](const QSlider* moved) {
    const Prices prices = shown(moved);
    const Prices& now = m_document.plan().prices;
    if (prices.electricity_per_kWh == now.electricity_per_kWh && prices.hour == now.hour) return;
    if (const auto why = m_document.edit(
            tr("change a price"), [&](Plan& p) { p.prices = prices; }, kPriceEdit))
      emit m_document.trouble(*why);
  };
  for (QSlider* slider : {m_price, m_hour}) {
    connect(slider, &QSlider::sliderMoved, this, [this, shown, slider] {
      m_document.results().repriceSizing(shown(slider));
      refresh();
    });
    connect(slider, &QSlider::sliderReleased, this, [this, keep, slider] {
      keep(slider);
      m_document.planInHand().finishEdit();
    });
    connect(slider, &QSlider::actionTriggered, this, [this, keep, slider](int action) {
      // at once, from the position: a result arriving before the value follows would put the slider back and lose the key
      if (action != QAbstractSlider::SliderMove) keep(slider);
    });
  }
  return grid;
}

/// As high as what it says, down to three rows.
void CostStage::fitWorth() {
  const int whole = m_eachDoes->heightForWidth(std::max(m_worth->viewport()->width(), m_frontier->minimumSizeHint().width())) + 2;
  const int least = std::min(whole, 3 * m_eachDoes->fontMetrics().lineSpacing());
  m_worth->setVisible(!m_eachDoes->text().isEmpty());
  m_worth->setMinimumHeight(least);
  m_worth->setMaximumHeight(std::max(whole, least));
}

void CostStage::showMeasures(bool on) {
  m_pages->setCurrentIndex(on ? 1 : 0);
  refresh();
}

void CostStage::compareWithWinner() {
  if (m_document.results().otherPlan()) {
    m_document.compareWith(std::nullopt, {});
    return;
  }
  const Sizing* s = m_document.results().sizing();
  if (!s || s->winner < 0) return;
  const SizedPackage& p = s->packages[static_cast<std::size_t>(s->winner)];
  m_document.compareWith(buildPackage(m_document.results().sizedPlan(), p.choice).plan, said(p.label, m_document.view().units()), static_cast<std::size_t>(s->winner));
}

/// Of the measures in the cheapest plan, or in the one compared with.
std::vector<Caution> CostStage::cautionsOfWhatIsProposed() const {
  const Sizing* s = m_document.results().sizing();
  if (!s) return {};
  int proposed = s->winner;
  if (const auto compared = m_document.results().otherPackage()) proposed = static_cast<int>(*compared);
  if (proposed < 0) return {};
  std::vector<Measure> chosen;
  const auto& choice = s->packages[static_cast<std::size_t>(proposed)].choice;
  for (std::size_t m = 0; m < choice.size() && m < m_document.results().sizedPlan().measures.size(); ++m)
    if (choice[m] >= 0) chosen.push_back(m_document.results().sizedPlan().measures[m]);
  return cautionsFor(m_document.results().sizedPlan(), chosen);
}

void CostStage::refresh() {
  const Sizing* s = m_document.results().sizing();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  const auto words = s ? std::optional<SizingWords>(std::in_place, m_document) : std::nullopt;
  if (m_document.plan().measures.empty()) {
    const auto power = usualHeater_W(m_document.plan(), m_document.designLow_C());
    m_frontier->setUsual(power ? measuresToSearch(m_document.plan(), *power) : std::vector<Measure>{});
  }
  if (m_pages->currentIndex() == 1)
    setHeading(tr("What may be added"), tr("%1 to choose among").arg(tr("%Ln plan(s)", nullptr, static_cast<int>(packageCount(m_document.plan())))));
  else
    setHeading(tr("What holds for least"), s ? tr("%1 over %2%3")
                                                   .arg(words->plansLookedAt(), tr("%Ln night(s)", nullptr, static_cast<int>(s->packages.front().nights)),
                                                        m_document.results().sizingIsCurrent() ? QString() : tr(" · the plan has changed since"))
                                             : tr("not searched yet"));
  if (!m_price->isSliderDown() && !m_hour->isSliderDown()) {
    const auto show = [](QSlider* slider, double value, int usual) {
      const int at = static_cast<int>(std::lround(value));
      slider->setMaximum(std::max(usual, 2 * at)); // room to either side of what it is now
      slider->setValue(at);
    };
    show(m_price, m_document.plan().prices.electricity_per_kWh * 100.0, kUsualPrice);
    show(m_hour, m_document.plan().prices.hour, kUsualHour);
  }
  m_turn->setText(m_pages->currentIndex() == 1 ? tr("Back to the result") : tr("What may be added…"));
  m_against->setVisible(s && m_pages->currentIndex() == 0);
  const bool canGoOn = m_document.results().canGoOnSearching(m_document.plan());
  m_search->setText(m_document.results().isSizing()      ? tr("Stop")
                    : canGoOn                            ? tr("Go on searching")
                    : s                                  ? tr("Search again")
                    : m_document.plan().measures.empty() ? tr("Search the usual")
                                                         : tr("Search"));
  m_search->setEnabled(m_document.readings().weather() != nullptr);
  m_progress->setVisible(m_document.results().isSizing());
  const bool canTake = m_document.results().otherPlan().has_value() || (s && s->winner >= 0 && buysAnything(s->packages[static_cast<std::size_t>(s->winner)]));
  m_take->setVisible(canTake && !m_document.results().isSizing());
  m_take->setText(m_document.results().otherPlan() ? tr("Make it the plan") : tr("Make the cheapest the plan"));
  m_priceText->setText(tr("a kWh costs %1 %2").arg(QLocale().toString(m_price->value() / 100.0, 'f', 2), currency));
  m_hourText->setText(tr("your hour is worth %1 %2").arg(m_hour->value()).arg(currency));
  m_caution->state(cautionsOfWhatIsProposed());
  if (!s) {
    m_bill->clear();
    m_eachDoes->clear();
    fitWorth();
    return;
  }
  m_bill->setText(words->bill());
  m_eachDoes->setText(words->argument());
  fitWorth();
}

} // namespace muffle
