// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/nights_page.h"

#include "app/model/said.h"
#include "app/stages/annual_lows_field.h"
#include "app/stages/dates.h"
#include "app/stages/plot.h"
#include "core/fit/design_night.h"
#include "core/log/compare.h"
#include "core/log/flags.h"
#include "core/log/growing.h"

#include <QComboBox>
#include <QDateEdit>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QSplitter>
#include <QStackedWidget>
#include <QTableView>
#include <QToolTip>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <map>

namespace muffle {
namespace {

constexpr std::int64_t kSummerDays = 60; // without nights lie between two winters
constexpr double kReturnYears[] = {10.0, 20.0, 50.0};
constexpr double k95 = 1.96;

QCPScatterStyle firstMark(const Theme& t) { return {QCPScatterStyle::ssDisc, QPen(t.madder), QBrush(t.madder), 5.5}; }
QCPScatterStyle secondMark(const Theme& t) { return {QCPScatterStyle::ssTriangle, QPen(t.woad, 1.3), Qt::NoBrush, 6.5}; }

/// Consecutive nights, winter by winter.
std::vector<std::vector<Night>> winters(const std::vector<Night>& nights) {
  std::vector<std::vector<Night>> all;
  for (const Night& n : nights) {
    if (all.empty() || daysSinceEpoch(n.date) - daysSinceEpoch(all.back().back().date) > kSummerDays) all.emplace_back();
    all.back().push_back(n);
  }
  return all;
}

void clear(Plot& plot) {
  plot.clearPlottables();
  plot.clearItems();
  plot.retheme();
}

} // namespace

CalendarView::CalendarView(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Calendar of the nights; arrow keys choose one"));
  for (auto signal : {&Document::logChanged, &Document::viewChanged, &Document::selectionChanged, &Document::planChanged})
    connect(&document, signal, this, qOverload<>(&QWidget::update));
}

NightCalendar CalendarView::layoutNow() const {
  return {m_document.readings().nights(), QRectF(rect()).adjusted(2, 2, -6, -18), m_document.plan().setpoints.hold_C};
}

int CalendarView::chosen() const {
  const auto date = m_document.view().selectedDate();
  const auto& nights = m_document.readings().nights();
  for (std::size_t i = 0; date && i < nights.size(); ++i)
    if (nights[i].date == *date) return static_cast<int>(i);
  return -1;
}

void CalendarView::choose(int night) {
  const auto& nights = m_document.readings().nights();
  if (night >= 0 && night < static_cast<int>(nights.size())) m_document.view().selectNightOf(nights[static_cast<std::size_t>(night)].date);
}

void CalendarView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::of(m_document.view().isDark());
  p.fillRect(rect(), t.wool);
  layoutNow().paint(p, t, chosen());
  p.setFont(textFont(8.2));
  p.setPen(t.fleece);
  p.drawText(rect().adjusted(0, 0, -6, -2), static_cast<int>(Qt::AlignRight | Qt::AlignBottom),
             tr("the deeper the red, the greater the lift; a stroke: under the line you hold; hollow: readings are missing"));
  if (hasFocus()) {
    p.setPen(QPen(t.madder, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
  }
}

std::vector<SpokenLine> CalendarView::spoken() const {
  const Units& u = m_document.view().units();
  const auto text = [&](const std::optional<Reading>& r) { return r ? u.text(Quantity::temperature, r->value) : tr("not read"); };
  std::vector<SpokenLine> lines;
  for (const Night& n : m_document.readings().nights())
    lines.push_back({dayText(n.date, QStringLiteral("d MMM yyyy")), tr("outside %1, inside %2").arg(text(n.outsideLow), text(n.insideLow))});
  return lines;
}

void CalendarView::mousePressEvent(QMouseEvent* e) { choose(layoutNow().nightAt(e->position())); }

void CalendarView::keyPressEvent(QKeyEvent* e) {
  const int now = chosen();
  switch (e->key()) {
  case Qt::Key_Left: return choose(now - 1);
  case Qt::Key_Right: return choose(now + 1);
  default: QWidget::keyPressEvent(e);
  }
}

bool CalendarView::event(QEvent* e) {
  if (e->type() != QEvent::ToolTip) return QWidget::event(e);
  auto* help = static_cast<QHelpEvent*>(e);
  const int at = layoutNow().nightAt(QPointF(help->pos()));
  if (at < 0) {
    QToolTip::hideText();
    return true;
  }
  const Night& n = m_document.readings().nights()[static_cast<std::size_t>(at)];
  const Units& u = m_document.view().units();
  const auto text = [&](const std::optional<Reading>& r) { return r ? u.text(Quantity::temperature, r->value) : tr("not read"); };
  QToolTip::showText(help->globalPos(),
                     tr("%1\noutside %2, inside %3").arg(dayText(n.date, QStringLiteral("d MMMM yyyy")), text(n.outsideLow), text(n.insideLow)) +
                         (n.lift_K() ? tr(", lift %1").arg(u.text(Quantity::difference, *n.lift_K())) : QString()),
                     this);
  return true;
}

NightsPage::NightsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_model(document), m_view(new QComboBox(this)), m_charts(new QStackedWidget(this)),
      m_lift(new Plot(document, this)), m_often(new Plot(document, this)), m_compare(new Plot(document, this)), m_calendar(new CalendarView(document, this)),
      m_design(new QLabel(this)), m_compareText(new QLabel(this)), m_growing(new QLabel(this)), m_annualLows(new AnnualLowsField(document, this)),
      m_compareBy(new QComboBox(this)), m_change(new QDateEdit(this)), m_base(new QDoubleSpinBox(this)), m_table(new QTableView(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(4);
  auto* top = new QHBoxLayout;
  m_view->addItems({tr("Lift against the cold outside"), tr("How often how cold"), tr("Calendar"), tr("Two sets of nights")});
  m_view->setAccessibleName(tr("What to show of the nights"));
  top->addWidget(m_view);
  top->addWidget(m_compareBy);
  top->addWidget(m_change);
  top->addStretch();
  body->addLayout(top);
  for (QLabel* words : {m_design, m_compareText, m_growing}) {
    words->setWordWrap(true);
    words->setFont(textFont(9));
  }
  for (Plot* plot : {m_lift, m_often, m_compare}) {
    plot->axisRect()->setRangeZoom({});
    plot->axisRect()->setRangeDrag({});
    plot->numbers = [this] { return m_model.csv(); };
  }
  m_lift->setAccessibleName(tr("Lift of each night"));
  m_often->setAccessibleName(tr("How many nights were how cold"));
  m_compare->setAccessibleName(tr("Lift of two sets of nights"));

  auto* often = new QWidget(this);
  auto* oftenDown = new QVBoxLayout(often);
  oftenDown->setContentsMargins(0, 0, 0, 0);
  oftenDown->addWidget(m_often, 1);
  oftenDown->addWidget(m_design);
  oftenDown->addWidget(m_annualLows);

  auto* compare = new QWidget(this);
  auto* compareDown = new QVBoxLayout(compare);
  compareDown->setContentsMargins(0, 0, 0, 0);
  m_compareBy->addItems({tr("first winter, last winter"), tr("before and after a change"), tr("two sensors in the house")});
  m_compareBy->setAccessibleName(tr("What to compare"));
  m_change->setDisplayFormat(QStringLiteral("d MMM yyyy"));
  m_change->setAccessibleName(tr("Day of the change"));
  m_change->setCalendarPopup(true);
  compareDown->addWidget(m_compare, 1);
  compareDown->addWidget(m_compareText);

  for (QWidget* chart : std::initializer_list<QWidget*>{m_lift, often, m_calendar, compare}) m_charts->addWidget(chart);

  m_sorted.setSourceModel(&m_model);
  m_sorted.setSortRole(NightsModel::SortRole);
  m_table->setModel(&m_sorted);
  m_table->setSortingEnabled(true);
  m_table->sortByColumn(NightsModel::night, Qt::AscendingOrder);
  m_table->setAccessibleName(tr("The nights"));
  m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
  m_table->setSelectionMode(QAbstractItemView::SingleSelection);
  m_table->setFont(textFont(8.5));
  m_table->horizontalHeader()->setFont(textFont(8.2));
  m_table->horizontalHeader()->setMinimumSectionSize(24);
  m_table->horizontalHeader()->setSortIndicatorShown(true);
  m_table->verticalHeader()->hide();
  m_table->verticalHeader()->setDefaultSectionSize(20);
  m_table->setShowGrid(false);
  m_table->setAlternatingRowColors(true);
  static constexpr int kWidths[NightsModel::kColumns] = {60, 43, 38, 43, 38, 33, 31, 40, 34, 33, 48, 42}; // all of them in sight
  for (int c = 0; c < NightsModel::kColumns; ++c) m_table->setColumnWidth(c, kWidths[c]);
  m_table->setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
  auto* halves = new QSplitter(Qt::Vertical, this);
  halves->addWidget(m_charts);
  halves->addWidget(m_table);
  halves->setChildrenCollapsible(false);
  halves->setStretchFactor(0, 1);
  halves->setSizes({260, 130});
  body->addWidget(halves, 1);

  auto* warmth = new QHBoxLayout;
  auto* above = new QLabel(tr("Growing warmth above"), this);
  above->setFont(textFont(9));
  m_base->setAccessibleName(tr("Base of growing warmth"));
  m_base->setDecimals(1);
  warmth->addWidget(above);
  warmth->addWidget(m_base);
  warmth->addWidget(m_growing, 1);
  body->addLayout(warmth);

  for (auto signal : {&Document::logChanged, &Document::planChanged, &Document::viewChanged}) connect(&document, signal, this, [this] { m_stale = true; });
  connect(m_view, &QComboBox::activated, this, [this](int view) { show(static_cast<View>(view)); });
  connect(m_compareBy, &QComboBox::activated, this, &NightsPage::drawCompare);
  connect(m_change, &QDateEdit::dateChanged, this, &NightsPage::drawCompare);
  connect(m_annualLows, &AnnualLowsField::refused, m_design, &QLabel::setText);
  connect(m_base, &QDoubleSpinBox::valueChanged, this, [this](double shown) {
    m_base_C = m_document.view().units().fahrenheit ? (shown - 32.0) / 1.8 : shown;
    showGrowing();
  });
  connect(m_table, &QTableView::clicked, this,
          [this](const QModelIndex& at) { m_document.view().selectNightOf(m_model.nightAt(m_sorted.mapToSource(at).row()).date); });
}

void NightsPage::show(View view) {
  m_view->setCurrentIndex(static_cast<int>(view));
  m_charts->setCurrentIndex(static_cast<int>(view));
  redraw();
}

void NightsPage::refresh() {
  if (m_stale) redraw();
}

void NightsPage::redraw() {
  m_stale = false;
  const bool any = m_document.readings().log() && !m_document.readings().nights().empty();
  for (QWidget* w : std::initializer_list<QWidget*>{m_charts, m_table, m_view, m_base}) w->setEnabled(any);
  const auto view = static_cast<View>(m_charts->currentIndex());
  m_compareBy->setVisible(view == View::compare);
  m_change->setVisible(view == View::compare && m_compareBy->currentIndex() == 1);
  switch (view) {
  case View::lift: drawLift(); break;
  case View::often: drawOften(); break;
  case View::calendar: m_calendar->update(); break;
  case View::compare: drawCompare(); break;
  }
  showGrowing();
}

void NightsPage::drawLift() {
  const Theme& t = Theme::of(m_document.view().isDark());
  const Units& u = m_document.view().units();
  clear(*m_lift);
  QVector<double> cx, cy, ox, oy;
  for (const Night& n : m_document.readings().nights()) {
    if (!n.complete || !n.lift_K()) continue;
    const double low = u.show(Quantity::temperature, n.outsideLow->value), lift = u.show(Quantity::difference, *n.lift_K());
    if (QLatin1String(n.sky()) == QLatin1String("clear"))
      cx.push_back(low), cy.push_back(lift);
    else
      ox.push_back(low), oy.push_back(lift);
  }
  const auto scatter = [&](const QVector<double>& x, const QVector<double>& y, const QCPScatterStyle& style, const QString& name) {
    QCPGraph* g = m_lift->addGraph();
    g->setLineStyle(QCPGraph::lsNone);
    g->setScatterStyle(style);
    g->setName(name);
    g->setData(x, y);
  };
  scatter(cx, cy, firstMark(t), tr("clear nights"));
  scatter(ox, oy, secondMark(t), tr("part and cloudy"));
  m_lift->legendAbove();
  m_lift->xAxis->setLabel(tr("outside low, %1").arg(u.unit(Quantity::temperature)));
  m_lift->yAxis->setLabel(tr("lift, %1").arg(u.unit(Quantity::difference)));
  m_lift->rescaleAxes();
  m_lift->xAxis->scaleRange(1.08);
  m_lift->yAxis->scaleRange(1.15);
  m_lift->reading = [this](double x, double y) -> QString {
    const Units& shown = m_document.view().units();
    const Night* best = nullptr;
    double nearest = 1e9;
    for (const Night& n : m_document.readings().nights()) {
      if (!n.complete || !n.lift_K()) continue;
      const double dx = m_lift->xAxis->coordToPixel(shown.show(Quantity::temperature, n.outsideLow->value)) - m_lift->xAxis->coordToPixel(x);
      const double dy = m_lift->yAxis->coordToPixel(shown.show(Quantity::difference, *n.lift_K())) - m_lift->yAxis->coordToPixel(y);
      if (std::hypot(dx, dy) < nearest) nearest = std::hypot(dx, dy), best = &n;
    }
    if (!best || nearest > 12) return {};
    return tr("%1, %2\noutside %3, inside %4, lift %5")
        .arg(QString::fromStdString(isoDate(best->date)), QString::fromLatin1(best->sky()), shown.text(Quantity::temperature, best->outsideLow->value),
             shown.text(Quantity::temperature, best->insideLow->value), shown.text(Quantity::difference, *best->lift_K()));
  };
  m_lift->replot();
}

void NightsPage::drawOften() {
  const Theme& t = Theme::of(m_document.view().isDark());
  const Units& u = m_document.view().units();
  clear(*m_often);
  constexpr double kBin = 1.0; // of the degree shown
  const double width = u.fahrenheit ? 2.0 * kBin : kBin;
  const auto histogram = [&](auto low) {
    std::map<int, int> bins;
    for (const Night& n : m_document.readings().nights())
      if (n.complete && low(n)) ++bins[static_cast<int>(std::floor(u.show(Quantity::temperature, low(n)->value) / width))];
    return bins;
  };
  const auto bars = [&](const std::map<int, int>& bins, const QColor& colour, double shift, const QString& name) {
    auto* b = new QCPBars(m_often->xAxis, m_often->yAxis);
    b->setName(name);
    b->setWidth(0.42 * width);
    b->setPen(Qt::NoPen);
    b->setBrush(colour);
    QVector<double> x, y;
    for (const auto& [bin, n] : bins) x.push_back((bin + 0.5) * width + shift * width), y.push_back(n);
    b->setData(x, y);
  };
  QColor outside = t.woad, inside = t.madder;
  bars(histogram([](const Night& n) { return n.outsideLow; }), outside, -0.22, tr("coldest outside"));
  bars(histogram([](const Night& n) { return n.insideLow; }), inside, 0.22, tr("coldest inside"));
  m_often->legendAbove();
  m_often->xAxis->setLabel(tr("coldest of the night, %1").arg(u.unit(Quantity::temperature)));
  m_often->yAxis->setLabel(tr("nights"));
  m_often->rescaleAxes();
  m_often->yAxis->setRangeLower(0.0);
  m_often->yAxis->setRangeUpper(m_often->yAxis->range().upper * 1.12);
  auto* line = new QCPItemStraightLine(m_often);
  const double hold = u.show(Quantity::temperature, m_document.plan().setpoints.hold_C);
  line->point1->setCoords(hold, 0);
  line->point2->setCoords(hold, 1);
  line->setPen(QPen(t.ink, 1, Qt::DashLine));
  m_often->reading = [this, width](double x, double) {
    const Units& shown = m_document.view().units();
    int out = 0, in = 0;
    for (const Night& n : m_document.readings().nights()) {
      const auto here = [&](const std::optional<Reading>& low) {
        return n.complete && low && std::floor(shown.show(Quantity::temperature, low->value) / width) == std::floor(x / width);
      };
      out += here(n.outsideLow) ? 1 : 0;
      in += here(n.insideLow) ? 1 : 0;
    }
    const double from = std::floor(x / width) * width;
    return tr("%1 to %2 %3\noutside %4 nights, inside %5").arg(from).arg(from + width).arg(shown.unit(Quantity::temperature)).arg(out).arg(in);
  };
  m_often->replot();
  showDesign();
}

void NightsPage::showDesign() {
  const Units& u = m_document.view().units();
  const auto degrees = [&](double c) { return u.text(Quantity::temperature, c); };
  QString words;
  if (const auto lows = loggedLows(m_document.readings().nights()))
    words = tr("Coldest logged %1. One night in a hundred goes below %2. ").arg(degrees(lows->coldest_C), degrees(lows->oneInHundred_C));
  const auto& annual = m_document.plan().site.annualLows_C;
  if (annual.empty()) {
    words += tr("Write the coldest of each winter you know of below, and the night to expect once in 10, 20 and 50 winters is worked out.");
  } else if (const auto fit = gumbelByLikelihood(annual)) {
    QStringList levels;
    for (const double years : kReturnYears) {
      const double low = fit->returnLow_C(years), error = fit->returnError_K(years, annual.size());
      levels << tr("%1 winters %2 (%3 to %4)").arg(years).arg(degrees(low), degrees(low - k95 * error), degrees(low + k95 * error));
    }
    words += tr("From your %1 winters, to be expected once in %2.").arg(annual.size()).arg(levels.join(QStringLiteral(", ")));
    if (annual.size() < 10) words += tr(" With so few winters the range in brackets is wider still.");
  } else {
    words += tr("%1; %2.").arg(said(fit.problem().what, m_document.view().units()), said(fit.problem().allowed, m_document.view().units()));
  }
  m_design->setText(words);
  m_annualLows->refresh();
}

std::pair<std::vector<Night>, std::vector<Night>> NightsPage::sets(QString& first, QString& second) const {
  const auto& nights = m_document.readings().nights();
  if (m_compareBy->currentIndex() == 0) {
    const auto all = winters(nights);
    if (all.size() < 2) return {};
    first = tr("Winter from %1").arg(dayText(all.front().front().date, QStringLiteral("MMM yyyy")));
    second = tr("Winter from %1").arg(dayText(all.back().front().date, QStringLiteral("MMM yyyy")));
    return {all.front(), all.back()};
  }
  const QDate day = m_change->date();
  const std::int64_t change = daysSinceEpoch({day.year(), static_cast<unsigned>(day.month()), static_cast<unsigned>(day.day())});
  std::pair<std::vector<Night>, std::vector<Night>> two;
  for (const Night& n : nights) (daysSinceEpoch(n.date) < change ? two.first : two.second).push_back(n);
  first = tr("Before");
  second = tr("After");
  return two;
}

QString NightsPage::sensorsText() const {
  const Log* log = m_document.readings().log();
  const Channel* a = log->find(Role::room);
  const Channel* b = nullptr;
  for (const Channel& c : log->channels)
    if (c.role == Role::room && c.statistic == Statistic::moment && &c != a) b = &c;
  if (!a || !b) return tr("The log has one sensor in the house. Import a second one's file and choose \"house air, second sensor\".");
  const Units& u = m_document.view().units();
  const TimeZone zone = m_document.planInHand().zone();
  double sum = 0.0;
  int n = 0;
  for (std::size_t i = 0; i < log->time.size(); ++i)
    if (const double d = b->clean(i) - a->clean(i); !std::isnan(d)) sum += d, ++n;
  if (n == 0) return tr("The two sensors never read at the same time.");
  QString words = tr("\"%1\" stands %2 against \"%3\" in the mean of %4 readings.")
                      .arg(QString::fromStdString(b->name), u.text(Quantity::difference, sum / n), QString::fromStdString(a->name))
                      .arg(n);
  if (const auto drift = driftBetween(*log, *a, *b))
    words += drift->isReal() ? tr(" It has moved by %1 since the log begins: compare both in melting ice.").arg(u.text(Quantity::difference, drift->change_K))
                             : tr(" They keep together: what difference there is stays the same.");
  return words;
}

void NightsPage::drawCompare() {
  const Theme& t = Theme::of(m_document.view().isDark());
  const Units& u = m_document.view().units();
  clear(*m_compare);
  const auto& nights = m_document.readings().nights();
  const bool bySensor = m_compareBy->currentIndex() == 2;
  m_change->setVisible(m_compareBy->currentIndex() == 1);
  m_compare->setVisible(!bySensor);
  if (nights.empty()) return m_compareText->setText({});
  if (bySensor) return m_compareText->setText(sensorsText());
  const auto asDate = [](const Date& d) { return QDate(d.year, static_cast<int>(d.month), static_cast<int>(d.day)); };
  if (m_change->minimumDate() != asDate(nights.front().date) || m_change->maximumDate() != asDate(nights.back().date)) {
    const QSignalBlocker quiet(m_change);
    m_change->setDateRange(asDate(nights.front().date), asDate(nights.back().date));
    m_change->setDate(asDate(nights[nights.size() / 2].date));
  }
  QString first, second;
  const auto [a, b] = sets(first, second);
  const auto scatter = [&](const std::vector<Night>& set, const QCPScatterStyle& mark, const QString& name) {
    QVector<double> x, y;
    for (const Night& n : set)
      if (n.complete && n.lift_K()) x.push_back(u.show(Quantity::temperature, n.outsideLow->value)), y.push_back(u.show(Quantity::difference, *n.lift_K()));
    QCPGraph* g = m_compare->addGraph();
    g->setLineStyle(QCPGraph::lsNone);
    g->setScatterStyle(mark);
    g->setName(name);
    g->setData(x, y);
  };
  scatter(a, firstMark(t), first);
  scatter(b, secondMark(t), second);
  m_compare->legendAbove();
  m_compare->xAxis->setLabel(tr("outside low, %1").arg(u.unit(Quantity::temperature)));
  m_compare->yAxis->setLabel(tr("lift, %1").arg(u.unit(Quantity::difference)));
  m_compare->rescaleAxes();
  m_compare->xAxis->scaleRange(1.08);
  m_compare->yAxis->scaleRange(1.15);
  m_compare->replot();
  if (a.empty() && b.empty()) return m_compareText->setText(tr("The log has one winter. Compare before and after a day instead."));
  const auto c = compareNights(a, b);
  if (!c) return m_compareText->setText(tr("Each set needs at least eight whole nights with a reading inside and outside."));
  const auto lift = [&](double k) { return u.text(Quantity::difference, k); };
  const auto setText = [&](const QString& name, const NightSet& set) {
    return tr("%1: %2 nights, mean lift %3 over a mean outside low of %4.")
        .arg(name)
        .arg(set.nights)
        .arg(lift(set.meanLift_K), u.text(Quantity::temperature, set.meanOutsideLow_C));
  };
  const QString sets = setText(first, c->first) + QStringLiteral(" ") + setText(second, c->second) + QStringLiteral("\n");
  if (!c->atLikeNights)
    return m_compareText->setText(sets +
                                  tr("The weather alone tells the two apart, as cloudy nights here and clear ones there: what the house does cannot be told."));
  const double difference_K = c->atLikeNights->value_K;
  const QString found = !c->atLikeNights->isReal() ? tr("no difference can be told (%1,").arg(lift(difference_K))
                        : difference_K > 0.0       ? tr("the second lifts %1 more (").arg(lift(difference_K))
                                                   : tr("the second lifts %1 less (").arg(lift(-difference_K));
  m_compareText->setText(sets +
                         tr("At like nights (outside low, sky, wind and heat the same) %1 ±%2).").arg(found, lift(2.0 * c->atLikeNights->standardError_K)));
}

void NightsPage::showGrowing() {
  const Units& u = m_document.view().units();
  {
    const QSignalBlocker quiet(m_base);
    m_base->setSuffix(QStringLiteral(" ") + u.unit(Quantity::temperature));
    m_base->setRange(u.show(Quantity::temperature, -5.0), u.show(Quantity::temperature, 25.0));
    m_base->setValue(u.show(Quantity::temperature, m_base_C));
  }
  const Log* log = m_document.readings().log();
  QStringList rooms;
  if (log)
    for (const Channel& c : log->channels) {
      if ((c.role != Role::room && c.role != Role::cover) || c.statistic != Statistic::moment) continue;
      const GrowingWarmth w = growingWarmth(*log, c, m_base_C, m_document.planInHand().zone());
      const QString name = QString::fromStdString(c.name).section(QLatin1Char('['), 0, 0).trimmed();
      const auto whole = [&](double kelvin) { return QLocale().toString(u.show(Quantity::difference, kelvin), 'f', 0); };
      const QString unit = u.unit(Quantity::difference);
      rooms << tr("%1: %2 %3·days, %4 %3·h in %5 days").arg(name, whole(w.degreeDays_K_d), unit, whole(w.degreeHours_K_h)).arg(w.days);
    }
  m_growing->setText(rooms.join(QStringLiteral(" · ")));
  m_growing->setToolTip(tr("degree-days by the mean of each day's lowest and highest; degree-hours reading by reading"));
}

} // namespace muffle
