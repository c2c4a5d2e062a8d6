// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/ground_page.h"

#include "app/paint/theme.h"
#include "app/stages/plot.h"
#include "core/assemble/soil_under.h"
#include "core/sizing/pipe_rules.h"

#include <QDate>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kDeepest_m = 4.0;
constexpr double kAsGoodAsConstant_K = 0.5;

QString dayText(double dayOfYear) {
  return QLocale().toString(QDate(2023, 1, 1).addDays(static_cast<qint64>(std::lround(dayOfYear)) - 1), QStringLiteral("d MMMM"));
}

/// A length to the metre or foot: a rule of thumb is no better.
QString whole(const Units& u, double length_m) { return QLocale().toString(u.show(Quantity::length, length_m), 'f', 0); }

} // namespace

GroundPage::GroundPage(Document& document, StoreChoice& choice, QWidget* parent)
    : QWidget(parent), m_document(document), m_choice(choice), m_constant(new QLabel(this)), m_rules(new QLabel(this)), m_depths(new Plot(document, this)),
      m_pipes(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(6);
  for (QLabel* label : {m_constant, m_rules}) {
    label->setFont(textFont(9.5));
    label->setWordWrap(true);
  }
  body->addWidget(m_constant);
  m_depths->setAccessibleName(tr("Temperature of the ground by depth and month"));
  body->addWidget(m_depths, 5);
  body->addWidget(m_rules);
  m_pipes->setAccessibleName(tr("Heat from pipes in a night by their length"));
  body->addWidget(m_pipes, 4);
  connect(&m_choice, &StoreChoice::chosen, this, [this] { refresh(); });
}

QString GroundPage::words() const { return m_constant->text() + QLatin1Char('\n') + m_rules->text(); }

void GroundPage::drawDepths() {
  const Plan& plan = m_document.plan();
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  const UndisturbedGround ground = undisturbedGround(plan);
  m_depths->clearPlottables();
  m_depths->clearItems();
  m_depths->retheme();
  const auto curve = [&](const QColor& colour, const QString& name, Qt::PenStyle style, double width, const std::vector<std::pair<double, double>>& points) {
    auto* c = new QCPCurve(m_depths->xAxis, m_depths->yAxis);
    c->setPen(QPen(colour, width, style));
    c->setName(name);
    QVector<double> x, y;
    for (const auto& [depth, celsius] : points) x << u.show(Quantity::temperature, celsius), y << u.show(Quantity::length, depth);
    c->setData(x, y);
  };
  const std::pair<int, Qt::PenStyle> months[] = {{1, Qt::SolidLine}, {4, Qt::DashLine}, {7, Qt::SolidLine}, {10, Qt::DashLine}};
  const QColor colours[] = {t.woad, t.lichen, t.madder, t.weld};
  for (std::size_t m = 0; m < 4; ++m) {
    std::vector<std::pair<double, double>> points;
    const double day = QDate(2023, months[m].first, 15).dayOfYear();
    for (double depth = 0.0; depth <= kDeepest_m + 1e-9; depth += 0.1) points.emplace_back(depth, ground.temperature_C(depth, day));
    curve(colours[m], QLocale().standaloneMonthName(months[m].first), months[m].second, 1.6, points);
  }
  const Simulation* run = m_document.results().simulation();
  if (const auto moment = m_document.view().moment(); run && moment && moment->winter < run->series.size()) {
    const WinterSeries& s = run->series[moment->winter];
    std::vector<std::pair<double, double>> points;
    for (std::size_t k = 0; k < s.soil_C.size() && k < run->soilDepth_m.size(); ++k)
      points.emplace_back(run->soilDepth_m[k], static_cast<double>(s.soil_C[k][moment->step]));
    curve(t.ink, tr("under the house, this night"), Qt::SolidLine, 2.4, points);
  }
  m_depths->legendAbove();
  m_depths->xAxis->setLabel(tr("temperature (%1)").arg(u.unit(Quantity::temperature)));
  m_depths->yAxis->setLabel(tr("depth (%1)").arg(u.unit(Quantity::length)));
  m_depths->yAxis->setRangeReversed(true);
  m_depths->rescaleAxes();
  m_depths->yAxis->setRange(0.0, u.show(Quantity::length, kDeepest_m));
  m_depths->xAxis->scaleRange(1.05);
  m_depths->replot();
}

void GroundPage::drawPipes() {
  const Plan& plan = m_document.plan();
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  const auto store = m_choice.of(StoreKind::pipes);
  const auto rules = pipeRules(plan.house.shape);
  const PipeRule& rule = rules[!store || plan.groundPipes[store->index].place == PipePlace::underFloor ? 0 : 1];
  m_pipes->setVisible(store.has_value());
  const auto heard = [&](const PipeRule& r) {
    return tr("%1 to %2")
        .arg(whole(u, r.length_m * r.divisor_m / r.high_m), whole(u, r.length_m * r.divisor_m / r.low_m) + QLatin1Char(' ') + u.unit(Quantity::length));
  };
  QString words = tr("How much pipe? Under a house growers go by its envelope, here %1 in all; beside it by its floor, here %2. Neither rule knows your soil, "
                     "depth or fan.")
                      .arg(heard(rules[0]), heard(rules[1]));
  if (!store) {
    m_rules->setText(words + QLatin1Char(' ') + tr("Add pipes, and what this soil gives in a night is drawn here."));
    return;
  }
  const GroundPipes& pipes = plan.groundPipes[store->index];
  const double air_C = plan.setpoints.night_C;
  // the soil as autumn leaves it, at the start of winter
  constexpr double kFirstOfDecember = 335.0, kNight_h = 14.0;
  const UndisturbedGround ground = undisturbedGround(plan);
  const double soil_C = ground.temperature_C(pipes.depth_m, kFirstOfDecember);
  std::vector<double> lengths;
  for (const double share : {0.25, 0.5, 0.75, 1.0, 1.5, 2.0, 3.0}) lengths.push_back(share * pipes.length_m);
  const auto nights = pipeNights(plan, pipes, air_C, soil_C, kNight_h, lengths);
  m_pipes->clearPlottables();
  m_pipes->clearItems();
  m_pipes->retheme();
  const auto line = [&](const QColor& colour, const QString& name, double PipeNight::*member) {
    QVector<double> x{0.0}, y{0.0};
    for (const PipeNight& n : nights) x << u.show(Quantity::length, pipes.count * n.length_m), y << n.*member;
    QCPGraph* g = m_pipes->addGraph();
    g->setPen(QPen(colour, 1.8));
    g->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, colour, 5));
    g->setName(name);
    g->setData(x, y, true);
  };
  line(t.lichen, tr("heat the soil gives in a long night"), &PipeNight::heat_kWh);
  line(t.madder, tr("the fan's electricity"), &PipeNight::fan_kWh);
  const auto mark = [&](double metres, const QColor& colour, const QString& says, Qt::PenStyle style, double up) {
    auto* upright = new QCPItemStraightLine(m_pipes);
    upright->point1->setCoords(u.show(Quantity::length, metres), 0.0);
    upright->point2->setCoords(u.show(Quantity::length, metres), 1.0);
    upright->setPen(QPen(colour, 1.4, style));
    auto* text = new QCPItemText(m_pipes);
    text->position->setTypeY(QCPItemPosition::ptAxisRectRatio);
    text->position->setCoords(u.show(Quantity::length, metres), up);
    text->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
    text->setPadding(QMargins(4, 0, 0, 0));
    text->setText(says);
    text->setFont(textFont(8.5));
    text->setColor(t.ink);
  };
  mark(pipes.count * pipes.length_m, t.ink, tr("yours"), Qt::SolidLine, 0.02);
  mark(rule.length_m, t.fleece, tr("rule"), Qt::DashLine, 0.16);
  m_pipes->legendAbove();
  m_pipes->xAxis->setLabel(tr("pipe in all (%1)").arg(u.unit(Quantity::length)));
  m_pipes->yAxis->setLabel(tr("kWh a night"));
  m_pipes->rescaleAxes();
  m_pipes->xAxis->setRange(0.0, u.show(Quantity::length, std::max(3.0 * pipes.count * pipes.length_m, 1.1 * rule.length_m)));
  m_pipes->yAxis->scaleRange(1.15);
  m_pipes->replot();
  const auto mine = std::find_if(nights.begin(), nights.end(), [&](const PipeNight& n) { return n.length_m == pipes.length_m; });
  if (mine != nights.end())
    words += QLatin1Char(' ') + tr("Yours is %1: from soil at %2 it gives %3 kWh in the first long night of winter, and its outlet falls from %4 to %5.")
                                    .arg(whole(u, pipes.count * pipes.length_m) + QLatin1Char(' ') + u.unit(Quantity::length),
                                         u.text(Quantity::temperature, soil_C), QLocale().toString(mine->heat_kWh, 'f', 1),
                                         u.text(Quantity::temperature, mine->firstOutlet_C), u.text(Quantity::temperature, mine->lastOutlet_C));
  m_rules->setText(words);
}

void GroundPage::refresh() {
  const Units& u = m_document.view().units();
  const Plan& plan = m_document.plan();
  const auto store = m_choice.of(StoreKind::pipes);
  const double depth = store ? plan.groundPipes[store->index].depth_m : 2.0;
  const GroundSwing at = groundSwing(plan, depth);
  m_constant->setText(
      tr("Constant down there? At %1 your ground still swings %2 to either side of %3 and is coldest, %4, about %5. It is within %6 all year only "
         "below about %7.")
          .arg(u.text(Quantity::length, depth), u.text(Quantity::difference, at.swing_K), u.text(Quantity::temperature, plan.site.groundMean_C),
               u.text(Quantity::temperature, at.coldest_C), dayText(at.coldestDay), u.text(Quantity::difference, kAsGoodAsConstant_K),
               QStringLiteral("%1 %2").arg(std::lround(u.show(Quantity::length, depthOfSwing_m(plan, kAsGoodAsConstant_K)))).arg(u.unit(Quantity::length))));
  drawDepths();
  drawPipes();
}

} // namespace muffle
