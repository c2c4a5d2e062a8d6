// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/cost_stage.h"
#include "app/model/said.h"

#include "app/stages/caution_label.h"
#include "app/stages/dates.h"
#include "app/stages/measures_editor.h"
#include "core/plan/names.h"
#include "core/sizing/usual_measures.h"

#include <QGridLayout>
#include <QHelpEvent>
#include <QLabel>
#include <QMenu>
#include <QMouseEvent>
#include <QProgressBar>
#include <QPushButton>
#include <QSlider>
#include <QStackedWidget>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr int kUsualPrice = 80, kUsualHour = 60; // cents a kWh and money an hour that the sliders reach at least

constexpr int kPriceEdit = 7; // steps of one drag are one undo step

/// Cold owed spans decades and reaches zero: a root keeps both ends readable.
double squeezed(double degreeHours) { return std::sqrt(degreeHours); }

/// The next number at or below with one digit that is not 0.
double roundBelow(double value) {
  if (value <= 0.0) return 0.0;
  const double unit = std::pow(10.0, std::floor(std::log10(value) + 1e-9));
  return std::floor(value / unit + 1e-9) * unit;
}

} // namespace

FrontierView::FrontierView(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::sizingChanged, &Document::viewChanged, &Document::planChanged}, parent) {
  setAccessibleName(tr("Cost against cold owed"));
}

QRectF FrontierView::area() const { return {52.0, 12.0, width() - 66.0, height() - 52.0}; }

QPointF FrontierView::packagePoint(int package) const {
  const auto& all = m_document.results().sizing()->packages;
  double least = 1e300, most = 0.0, cold = 1.0;
  for (const SizedPackage& p : all) {
    least = std::min(least, p.cost.total());
    most = std::max(most, p.cost.total());
    cold = std::max(cold, p.degreeHours_K_h);
  }
  const SizedPackage& p = all[static_cast<std::size_t>(package)];
  const double pad = std::max((most - least) * 0.05, 1.0);
  return {area().left() + area().width() * (p.cost.total() - least + pad) / (most - least + 2 * pad),
          area().bottom() - 6 - (area().height() - 12) * squeezed(p.degreeHours_K_h) / squeezed(cold)};
}

int FrontierView::packageAt(const QPointF& at) const {
  if (!m_document.results().sizing()) return -1;
  int best = -1;
  double nearest = 12.0;
  const auto consider = [&](int i) {
    const QPointF d = packagePoint(i) - at;
    if (const double distance = std::hypot(d.x(), d.y()); distance < nearest) nearest = distance, best = i;
  };
  for (const int i : m_document.results().sizing()->frontier) consider(i);
  for (std::size_t i = 0; i < m_document.results().sizing()->packages.size(); ++i) consider(static_cast<int>(i));
  return best;
}

void FrontierView::setUsual(std::vector<Measure> usual) {
  m_usual = std::move(usual);
  update();
}

/// What a search of the usual will set against each other, and what it still needs.
void FrontierView::paintUsual(QPainter& p) const {
  const Theme& t = theme();
  const Units& u = m_document.view().units();
  double y = 62.0;
  p.setFont(textFont(10));
  double names = 0.0;
  for (const Measure& m : m_usual) names = std::max(names, p.fontMetrics().horizontalAdvance(said(nameOf(m))) + 1.0);
  names = std::min(names, width() * 0.5 - 8);
  const double sizes_x = 8 + names + 28;
  for (const Measure& m : m_usual) {
    const QString name = said(nameOf(m)), sizes = m.levels.empty() ? tr("or not") : tr("none, or %1").arg(levelsText(m, u));
    constexpr int kHow = Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap;
    const QRectF left(8, y, names, 400), right(sizes_x, y, width() - 8 - sizes_x, 400);
    p.setPen(t.ink);
    p.drawText(left, kHow, name);
    p.setPen(t.fleece);
    p.drawText(right, kHow, sizes);
    y += std::max(p.boundingRect(left, kHow, name).height(), p.boundingRect(right, kHow, sizes).height()) + 8;
  }
  y += 10;
  p.setFont(textFont(10, true));
  p.setPen(t.ink);
  p.drawText(QRectF(8, y, width() - 16, 44), static_cast<int>(Qt::TextWordWrap),
             m_document.readings().weather() ? tr("Every combination of these is run over every logged night; prices and sizes are yours to change afterwards.")
                                             : tr("A log of nights is needed first: drop a logger's CSV on the window, or choose Log."));
}

void FrontierView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const Sizing* s = m_document.results().sizing();
  if (!s) {
    p.setFont(textFont(10));
    p.setPen(t.fleece);
    p.drawText(rect().adjusted(0, 10, 0, 0), static_cast<int>(Qt::TextWordWrap | Qt::AlignTop),
               m_document.plan().measures.empty()
                   ? tr("Nothing is listed to try yet. Search what is usual for such a house, a second film, blankets, sealing, barrels and heaters of "
                        "several sizes at usual prices, or list your own under What may be added.")
                   : tr("Every combination of the plan's %1 measures is run over every logged night; the cheapest that holds is "
                        "named here, with what the others miss.")
                         .arg(m_document.plan().measures.size()));
    if (m_document.plan().measures.empty()) paintUsual(p);
    return;
  }
  if (!m_document.results().sizingIsCurrent()) p.setOpacity(0.5);
  const QRectF r = area();
  p.setPen(QPen(t.seam, 1));
  p.drawLine(r.topLeft(), r.bottomLeft());
  p.drawLine(r.bottomLeft(), r.bottomRight());
  const Units& u = m_document.view().units();
  double least = 1e300, most = 0.0, cold = 1.0;
  for (const SizedPackage& k : s->packages)
    least = std::min(least, k.cost.total()), most = std::max(most, k.cost.total()), cold = std::max(cold, k.degreeHours_K_h);
  const double pad = std::max((most - least) * 0.05, 1.0);
  p.setFont(textFont(8.5));
  p.setPen(t.fleece);
  const double range = most - least + 2 * pad;
  const double nice = std::pow(10.0, std::floor(std::log10(range / 3.0)));
  const double step = range / nice > 20 ? nice * 5 : range / nice > 8 ? nice * 2 : nice;
  for (double v = std::ceil((least - pad) / step) * step; v <= most + pad; v += step) {
    const double x = r.left() + r.width() * (v - least + pad) / range;
    p.drawLine(QPointF(x, r.bottom()), QPointF(x, r.bottom() + 4));
    p.drawText(QRectF(x - 34, r.bottom() + 4, 68, 14), static_cast<int>(Qt::AlignHCenter), QLocale().toString(v, 'f', 0));
  }
  for (const double share : {0.0, 0.1, 0.4, 1.0}) {
    const double owed = u.toSi(Quantity::degreeHours, roundBelow(u.show(Quantity::degreeHours, cold) * share));
    const double y = r.bottom() - 6 - (r.height() - 12) * squeezed(owed) / squeezed(cold);
    p.drawText(QRectF(0, y - 8, 47, 16), static_cast<int>(Qt::AlignRight | Qt::AlignVCenter), u.number(Quantity::degreeHours, owed));
  }
  p.drawText(QRectF(r.left(), r.bottom() + 19, r.width(), 16), static_cast<int>(Qt::AlignRight),
             tr("%1 each winter").arg(QString::fromStdString(m_document.plan().prices.currency)));
  p.drawText(QRectF(r.left() + 6, 0, r.width(), 16), static_cast<int>(Qt::AlignLeft),
             tr("cold owed, %1 over all logged nights").arg(u.unit(Quantity::degreeHours)));
  // all plans: filled when they hold, open when they miss; the frontier joined by thread
  for (std::size_t i = 0; i < s->packages.size(); ++i) {
    const QPointF at = packagePoint(static_cast<int>(i));
    p.setPen(QPen(s->packages[i].holds ? t.lichen : t.fleece, 1));
    p.setBrush(s->packages[i].holds ? t.lichen : Qt::transparent);
    p.drawEllipse(at, 2.6, 2.6);
  }
  QPolygonF thread;
  for (const int i : s->frontier) thread << packagePoint(i);
  p.setPen(QPen(t.madder, 1.8));
  p.setBrush(Qt::NoBrush);
  p.drawPolyline(thread);
  for (const int i : s->frontier) {
    p.setBrush(t.wool);
    p.drawEllipse(packagePoint(i), 4.5, 4.5);
  }
  if (s->winner >= 0) {
    const QPointF at = packagePoint(s->winner);
    p.setPen(QPen(t.madder, 2));
    p.setBrush(t.madder);
    p.drawEllipse(at, 6.5, 6.5);
    p.setPen(t.ink);
    p.setFont(textFont(9, true));
    const bool toLeft = at.x() > r.center().x();
    const QString words = tr("cheapest that holds");
    const double w = QFontMetricsF(textFont(9, true)).horizontalAdvance(words) + 8;
    const QRectF box(toLeft ? at.x() - 10 - w : at.x() + 8, at.y() - 26, w, 17);
    p.fillRect(box, t.wool);
    p.drawText(box, static_cast<int>(Qt::AlignCenter), words);
  }
  if (const auto compared = m_document.results().otherPackage()) { // wears a ring
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(packagePoint(static_cast<int>(*compared)), 10, 10);
  }
}

std::vector<SpokenLine> FrontierView::spoken() const {
  const Sizing* s = m_document.results().sizing();
  if (!s) return paintedLines(*this);
  const Units& u = m_document.view().units();
  std::vector<SpokenLine> lines;
  for (const int i : s->frontier) {
    const SizedPackage& p = s->packages[static_cast<std::size_t>(i)];
    lines.push_back({said(p.label, m_document.view().units()),
                     tr("%1 %2 each winter, held %3 of %4, cold owed %5%6")
                         .arg(u.number(Quantity::money, p.cost.total()), QString::fromStdString(m_document.plan().prices.currency))
                         .arg(p.held)
                         .arg(p.nights)
                         .arg(u.text(Quantity::degreeHours, p.degreeHours_K_h), i == s->winner ? tr(", the cheapest that holds") : QString())});
  }
  return lines;
}

void FrontierView::mousePressEvent(QMouseEvent* e) {
  const int i = packageAt(e->position());
  if (i < 0) return;
  const SizedPackage& p = m_document.results().sizing()->packages[static_cast<std::size_t>(i)];
  m_document.compareWith(buildPackage(m_document.results().sizedPlan(), p.choice).plan, said(p.label, m_document.view().units()), static_cast<std::size_t>(i));
}

bool FrontierView::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip && m_document.results().sizing()) {
    const auto* help = static_cast<QHelpEvent*>(e);
    const int i = packageAt(help->pos());
    if (i >= 0) {
      const SizedPackage& p = m_document.results().sizing()->packages[static_cast<std::size_t>(i)];
      QToolTip::showText(help->globalPos(),
                         tr("%1\n%2 %3 each winter, held %4 of %5\n%6")
                             .arg(said(p.label, m_document.view().units()), m_document.view().units().number(Quantity::money, p.cost.total()),
                                  QString::fromStdString(m_document.plan().prices.currency))
                             .arg(p.held)
                             .arg(p.nights)
                             .arg(said(whyNot(*m_document.results().sizing(), i, m_document.results().sizedPlan()), m_document.view().units())),
                         this);
    }
    return true;
  }
  return QWidget::event(e);
}

Knot CostStage::knot(const Document& document) {
  if (document.results().isSizing()) return {tr("searching"), 0.5};
  if (!document.results().sizing()) return {tr("not searched yet"), 0.0};
  if (!document.results().sizingIsCurrent()) return {tr("searched for an older plan"), 0.5};
  return {tr("%1 compared").arg(tr("%Ln plan(s)", nullptr, static_cast<int>(document.results().sizing()->packages.size()))), 1.0};
}

CostStage::CostStage(const Bench& bench)
    : StagePage(bench.document), m_show(bench.show), m_pages(new QStackedWidget(this)), m_frontier(new FrontierView(bench.document, this)),
      m_search(new QPushButton(this)), m_take(new QPushButton(tr("Make it the plan"), this)), m_turn(new QPushButton(this)), m_progress(new QProgressBar(this)),
      m_bill(new QLabel(this)), m_lost(new QLabel(this)), m_caution(new CautionLabel(this)), m_price(new QSlider(Qt::Horizontal, this)),
      m_hour(new QSlider(Qt::Horizontal, this)), m_priceText(new QLabel(this)), m_hourText(new QLabel(this)) {
  Document& document = bench.document;
  auto* result = new QWidget(this);
  auto* page = new QVBoxLayout(result);
  page->setContentsMargins(0, 0, 0, 0);
  page->setSpacing(4);
  page->addWidget(m_frontier, 1);
  m_bill->setWordWrap(true);
  m_bill->setTextFormat(Qt::RichText);
  m_bill->setFont(textFont(10));
  m_lost->setWordWrap(true);
  m_lost->setFont(textFont(9));
  page->addWidget(m_bill);
  page->addWidget(m_lost);
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
  connect(&document, &Document::sizingProgress, this, [this](int done, int of) {
    m_progress->setMaximum(of);
    m_progress->setValue(done);
    m_progress->setFormat(tr("%1 of %2 plans run over every night").arg(done).arg(of));
  });
  refreshOn({&Document::sizingChanged, &Document::planChanged, &Document::logChanged, &Document::resultChanged, &Document::viewChanged});
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
  if (why) m_lost->setText(*why);
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
  return cautionsFor(chosen);
}

void CostStage::refresh() {
  const Sizing* s = m_document.results().sizing();
  const QString currency = QString::fromStdString(m_document.plan().prices.currency);
  const Units& u = m_document.view().units();
  if (m_document.plan().measures.empty()) {
    const auto power = usualHeater_W(m_document.plan(), m_document.designLow_C());
    m_frontier->setUsual(power ? measuresToSearch(m_document.plan(), *power) : std::vector<Measure>{});
  }
  if (m_pages->currentIndex() == 1)
    setHeading(tr("What may be added"), tr("%1 to run").arg(tr("%Ln plan(s)", nullptr, static_cast<int>(packageCount(m_document.plan())))));
  else
    setHeading(tr("What holds for least"), s ? tr("%1 over %2%3")
                                                   .arg(tr("%Ln plan(s)", nullptr, static_cast<int>(s->packages.size())),
                                                        tr("%Ln night(s)", nullptr, static_cast<int>(s->packages.front().nights)),
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
  m_search->setText(m_document.results().isSizing()      ? tr("Stop")
                    : s                                  ? tr("Search again")
                    : m_document.plan().measures.empty() ? tr("Search the usual")
                                                         : tr("Search"));
  m_search->setEnabled(m_document.readings().weather() != nullptr);
  m_progress->setVisible(m_document.results().isSizing());
  const bool canTake = m_document.results().otherPlan().has_value() || (s && s->winner > 0); // the first is the plan as it stands
  m_take->setVisible(canTake && !m_document.results().isSizing());
  m_take->setText(m_document.results().otherPlan() ? tr("Make it the plan") : tr("Make the cheapest the plan"));
  m_priceText->setText(tr("a kWh costs %1 %2").arg(QLocale().toString(m_price->value() / 100.0, 'f', 2), currency));
  m_hourText->setText(tr("your hour is worth %1 %2").arg(m_hour->value()).arg(currency));
  m_caution->state(cautionsOfWhatIsProposed());
  if (!s) {
    m_bill->clear();
    m_lost->clear();
    return;
  }
  if (s->winner < 0) {
    m_bill->setText(tr("<b>None of these holds %1 on all but %2 nights.</b> Lower the line, accept some misses, grow something hardier, or add measures.")
                        .arg(u.text(Quantity::temperature, m_document.plan().setpoints.hold_C))
                        .arg(m_document.plan().ask.missesAllowed));
  } else {
    const SizedPackage& w = s->packages[static_cast<std::size_t>(s->winner)];
    m_bill->setText(tr("<b>%1</b><br>%2 %3 each winter: power %4, kit %5, %6 h of your work at %7")
                        .arg(said(w.label, m_document.view().units()), u.number(Quantity::money, w.cost.total()), currency, u.number(Quantity::money, w.cost.energy),
                             u.number(Quantity::money, w.cost.kit), u.number(Quantity::hours, w.cost.hours), u.number(Quantity::money, w.cost.hoursMoney)) +
                    (m_document.results().simulation() && isScaledToWinter(m_document.results().simulation()->summary.winters)
                         ? QStringLiteral("<br>") + tr("A winter here is %1.").arg(winterMadeOf(m_document.results().simulation()->summary.winters))
                         : QString()));
  }
  // the next in cost, and what the plan as it is does
  std::vector<int> order(s->packages.size());
  for (std::size_t i = 0; i < order.size(); ++i) order[i] = static_cast<int>(i);
  std::stable_sort(order.begin(), order.end(),
                   [&](int a, int b) { return s->packages[static_cast<std::size_t>(a)].cost.total() < s->packages[static_cast<std::size_t>(b)].cost.total(); });
  QStringList lines;
  const auto say = [&](int i) {
    lines << QStringLiteral("%1: %2").arg(said(s->packages[static_cast<std::size_t>(i)].label, m_document.view().units()),
                                          said(whyNot(*s, i, m_document.results().sizedPlan()), m_document.view().units()));
  };
  if (s->winner != 0) say(0);
  for (const int i : order) {
    if (i == s->winner || i == 0 || lines.size() >= 3) continue;
    say(i);
  }
  m_lost->setText(tr("Why others lost: ") + lines.join(QStringLiteral("; ")));
}

} // namespace muffle
