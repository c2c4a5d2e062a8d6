// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/store_curve_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/plot.h"
#include "app/stages/store_words.h"
#include "core/plan/plan_json.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

struct CurveOf {
  QString name;
  double StorePoint::*value;
  Quantity quantity;
};

std::vector<CurveOf> measured() {
  return {{StoreCurvePage::tr("coldest night inside"), &StorePoint::coldest_C, Quantity::temperature},
          {StoreCurvePage::tr("cold owed"), &StorePoint::degreeHours_K_h, Quantity::degreeHours},
          {StoreCurvePage::tr("heat bought a winter"), &StorePoint::heater_kWh, Quantity::energy},
          {StoreCurvePage::tr("heat it gives a winter"), &StorePoint::given_kWh, Quantity::energy},
          {StoreCurvePage::tr("electricity of its own"), &StorePoint::running_kWh, Quantity::energy}};
}

} // namespace

StoreCurvePage::StoreCurvePage(Document& document, StoreChoice& choice, QWidget* parent)
    : QWidget(parent), m_document(document), m_choice(choice), m_words(new QLabel(this)), m_what(new QComboBox(this)), m_plot(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  m_words->setFont(textFont(10));
  m_words->setWordWrap(true);
  head->addWidget(m_words, 1);
  for (const CurveOf& m : measured()) m_what->addItem(m.name);
  m_what->setFont(textFont(9.5));
  m_what->setAccessibleName(tr("What is drawn"));
  head->addWidget(m_what);
  body->addLayout(head);
  m_plot->setAccessibleName(tr("What more of the store buys"));
  body->addWidget(m_plot, 1);
  connect(m_what, &QComboBox::currentIndexChanged, this, [this] { draw(); });
  connect(&m_choice, &StoreChoice::chosen, this, [this] { refresh(); });
}

bool StoreCurvePage::isCurrent() const {
  const auto store = m_choice.now();
  return store && !m_points.empty() && m_of.id == store->id && m_weather == m_document.readings().sharedWeather() && m_asked == m_document.plan();
}

QString StoreCurvePage::words() const { return m_words->text(); }

void StoreCurvePage::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void StoreCurvePage::refresh() {
  const bool may = m_choice.now() && m_document.readings().weather();
  m_plot->setVisible(may && !m_points.empty());
  m_what->setVisible(may);
  if (!m_choice.now())
    m_words->setText(tr("Add a store first: this page then says what one more of it would buy."));
  else if (!m_document.readings().weather())
    m_words->setText(tr("Import a log of nights, and more and less of the store is tried over them here."));
  else if (isCurrent())
    draw();
  else if (isVisible() && m_document.results().isCurrent())
    start();
}

void StoreCurvePage::start() {
  const StoreRef store = *m_choice.now();
  if (m_job.isWorking() && m_asked == m_document.plan() && store.id == m_of.id && m_weather == m_document.readings().sharedWeather()) return;
  m_asked = m_document.plan();
  m_of = store;
  m_weather = m_document.readings().sharedWeather();
  m_points.clear();
  m_plot->hide();
  m_words->setText(tr("Trying more and less of it over all logged nights."));
  m_job.start([plan = m_document.plan(), weather = m_weather, store](const auto& progress,
                                                                     const auto* stop) { return storeCurve(plan, weather, store, countedBy(progress, stop)); },
              [this](Result<std::vector<StorePoint>> points) {
                if (!points) {
                  m_words->setText(said(points.problem(), m_document.view().units()));
                  return;
                }
                m_points = std::move(*points);
                m_plot->show();
                draw();
              },
              [this](std::size_t done, std::size_t of) { m_words->setText(tr("Trying more and less of it: %1 of %2.").arg(done).arg(of)); });
}

/// By each point the nights it holds, on the side where neither line nor another number is; where there is none, nothing.
void StoreCurvePage::sayHeld(const QVector<double>& x, const QVector<double>& y, double mine) {
  const Theme& t = Theme::of(m_document.view().isDark());
  const QFontMetricsF metrics(textFont(8.5));
  std::vector<QPointF> points;
  for (qsizetype i = 0; i < x.size(); ++i) points.emplace_back(m_plot->xAxis->coordToPixel(x[i]), m_plot->yAxis->coordToPixel(y[i]));
  std::vector<QRectF> taken;
  const auto isFree = [&](const QRectF& box) {
    if (!QRectF(m_plot->axisRect()->rect()).adjusted(5, 2, -2, -2).contains(box)) return false;
    for (const double upright : {0.0, mine}) // the lines at none and at yours
      if (const double at = m_plot->xAxis->coordToPixel(upright); at > box.left() - 2.0 && at < box.right() + 2.0) return false;
    for (const QRectF& other : taken)
      if (other.intersects(box.adjusted(-2, -1, 2, 1))) return false;
    for (std::size_t i = 1; i < points.size(); ++i) // the line between two points, every few pixels
      for (double along = 0.0; along <= 1.0; along += 0.02)
        if (box.contains(points[i - 1] + (points[i] - points[i - 1]) * along)) return false;
    return true;
  };
  for (std::size_t i = 0; i < points.size(); ++i) {
    const QString text = QLocale().toString(m_points[i].held);
    const QSizeF size(metrics.horizontalAdvance(text), metrics.height());
    for (const QPointF& side : {QPointF(-0.5, -1.35), QPointF(-1.3, -0.9), QPointF(0.3, -0.9), QPointF(0.3, 0.1), QPointF(-1.3, 0.1), QPointF(-0.5, 0.4)}) {
      const QRectF box(points[i] + QPointF(side.x() * size.width(), side.y() * size.height()), size);
      if (!isFree(box)) continue;
      taken.push_back(box);
      auto* held = new QCPItemText(m_plot);
      held->position->setCoords(m_plot->xAxis->pixelToCoord(box.center().x()), m_plot->yAxis->pixelToCoord(box.center().y()));
      held->setText(text);
      held->setFont(textFont(8.5));
      held->setColor(t.fleece);
      break;
    }
  }
}

void StoreCurvePage::draw() {
  if (m_points.empty()) return;
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  const CurveOf what = measured()[static_cast<std::size_t>(std::max(m_what->currentIndex(), 0))];
  const double now = storeSize(m_document.plan(), m_of);
  const auto shownSize = [&](double size) {
    switch (m_of.kind) {
    case StoreKind::compost: return u.show(Quantity::mass, size);
    case StoreKind::loop: return u.show(Quantity::water, size);
    case StoreKind::cable: return u.show(Quantity::length, size);
    case StoreKind::mass: return u.show(Quantity::area, size);
    default: return size;
    }
  };
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->retheme();
  QVector<double> x, y;
  for (const StorePoint& q : m_points) x << shownSize(q.size), y << u.show(what.quantity, q.*what.value);
  QCPGraph* line = m_plot->addGraph();
  line->setPen(QPen(t.ink, 1.8));
  line->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, t.ink, 6));
  line->setData(x, y, true);
  auto* mark = new QCPItemStraightLine(m_plot);
  mark->point1->setCoords(shownSize(now), 0.0);
  mark->point2->setCoords(shownSize(now), 1.0);
  mark->setPen(QPen(t.madder, 1.4));
  if (m_of.kind == StoreKind::barrels || m_of.kind == StoreKind::pipes) {
    auto ticker = QSharedPointer<QCPAxisTickerFixed>::create(); // whole ones
    ticker->setScaleStrategy(QCPAxisTickerFixed::ssMultiples);
    m_plot->xAxis->setTicker(ticker);
  } else {
    m_plot->xAxis->setTicker(QSharedPointer<QCPAxisTicker>(new QCPAxisTicker));
  }
  m_plot->xAxis->setLabel(tr("%1 (red: yours; by each the nights held)").arg(StoreWords::measure(m_of, u)));
  m_plot->yAxis->setLabel(QStringLiteral("%1 (%2)").arg(what.name, u.unit(what.quantity)));
  m_plot->rescaleAxes();
  m_plot->xAxis->scaleRange(1.12);
  m_plot->yAxis->scaleRange(1.3);
  m_plot->replot(); // the axes' pixels are known from here on
  sayHeld(x, y, shownSize(now));
  m_plot->replot();
  // from yours to the next size up, by one of what it is counted in
  const auto after = std::find_if(m_points.begin(), m_points.end(), [&](const StorePoint& q) { return q.size > now * 1.0001; });
  const auto mine = std::find_if(m_points.begin(), m_points.end(), [&](const StorePoint& q) { return std::abs(q.size - now) < 1e-6 * std::max(now, 1.0); });
  const StorePoint& none = m_points.front();
  constexpr double kShown_K = 0.05; // what a run is off by, and half of the last digit
  if (mine == m_points.end()) return;
  QString words = tr("Without it %1 nights are held and the coldest is %2; with %3 it is %4 nights and %5.")
                      .arg(none.held)
                      .arg(u.text(Quantity::temperature, none.coldest_C), StoreWords::size(m_of, now, u))
                      .arg(mine->held)
                      .arg(u.text(Quantity::temperature, mine->coldest_C));
  if (after != m_points.end())
    words += QLatin1Char(' ') +
             (std::abs(after->coldest_C - mine->coldest_C) < kShown_K
                  ? tr("%1 would hold %2 and change the coldest by nothing that shows.").arg(StoreWords::size(m_of, after->size, u)).arg(after->held)
                  : tr("%1 would hold %2 and buy %3.")
                        .arg(StoreWords::size(m_of, after->size, u))
                        .arg(after->held)
                        .arg(u.text(Quantity::difference, after->coldest_C - mine->coldest_C)));
  m_words->setText(words);
}

} // namespace muffle
