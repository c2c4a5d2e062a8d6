// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/proportions_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/caution_label.h"
#include "core/plan/plan_json.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kLeft = 150.0, kRight = 60.0, kTop = 6.0, kBottom = 40.0;

struct Strip {
  QString name;
  double ProportionPoint::*member;
  Quantity quantity;
  bool byFloor = false; ///< an energy by area of floor

  [[nodiscard]] QString unit(const Units& u) const { return byFloor ? u.unit(Quantity::energy) + u.unit(Quantity::areaPrice) : u.unit(quantity); }
  [[nodiscard]] QString number(const Units& u, double value) const { return u.number(quantity, byFloor ? u.show(Quantity::areaPrice, value) : value); }
};

std::vector<Strip> strips() {
  return {{ProportionStrips::tr("heat bought a winter"), &ProportionPoint::heater_kWh, Quantity::energy},
          {ProportionStrips::tr("coldest inside"), &ProportionPoint::coldest_C, Quantity::temperature},
          {ProportionStrips::tr("swing, day to night"), &ProportionPoint::swing_K, Quantity::difference},
          {ProportionStrips::tr("cover"), &ProportionPoint::cover_m2, Quantity::area},
          {ProportionStrips::tr("sun taken up, by floor"), &ProportionPoint::light_kWh_m2, Quantity::energy, true}};
}

} // namespace

ProportionStrips::ProportionStrips(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  setMinimumHeight(300);
  setMouseTracking(true);
  setAccessibleName(tr("What changes with the proportions"));
}

void ProportionStrips::show(std::shared_ptr<const Proportions> sweep, double now_m) {
  m_sweep = std::move(sweep);
  m_now_m = now_m;
  update();
}

double ProportionStrips::xOf(double value) const {
  const double low = m_sweep->points.front().value_m, high = m_sweep->points.back().value_m;
  return kLeft + (width() - kLeft - kRight) * (high > low ? (value - low) / (high - low) : 0.5);
}

void ProportionStrips::paintEvent(QPaintEvent*) {
  if (!m_sweep || m_sweep->points.empty()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::of(m_document.view().isDark());
  const Units& u = m_document.view().units();
  const auto all = strips();
  const double bottom = height() - kBottom;
  const double tall = (bottom - kTop) / static_cast<double>(all.size());
  const auto upright = [&](double value, const QColor& colour, Qt::PenStyle style, const QString& text, double y) {
    p.setPen(QPen(colour, 1.4, style));
    p.drawLine(QPointF(xOf(value), kTop), QPointF(xOf(value), bottom));
    p.setFont(textFont(8.5));
    p.setPen(t.ink);
    const double w = QFontMetricsF(textFont(8.5)).horizontalAdvance(text) + 4;
    p.drawText(QRectF(std::clamp(xOf(value) - w / 2, 0.0, width() - w), y, w, 16), static_cast<int>(Qt::AlignCenter), text);
  };
  upright(m_now_m, t.madder, Qt::SolidLine, tr("yours %1").arg(u.text(Quantity::length, m_now_m)), bottom + 4);
  for (const ProportionRule& rule : m_sweep->rules)
    if (rule.value_m >= m_sweep->points.front().value_m && rule.value_m <= m_sweep->points.back().value_m)
      upright(rule.value_m, t.fleece, Qt::DashLine, tr("rule: %1, %2").arg(said(rule.name), u.text(Quantity::length, rule.value_m)),
              bottom + 21);
  for (std::size_t k = 0; k < all.size(); ++k) {
    const Strip& strip = all[k];
    const double top = kTop + tall * static_cast<double>(k);
    double low = 1e300, high = -1e300;
    for (const ProportionPoint& q : m_sweep->points) low = std::min(low, q.*strip.member), high = std::max(high, q.*strip.member);
    const double span = std::max(high - low, 1e-9);
    const auto yOf = [&](double v) { return top + tall - 8 - (tall - 18) * (v - low) / span; };
    p.setPen(QPen(t.seam, 1));
    p.drawLine(QPointF(0, top + tall), QPointF(width(), top + tall));
    p.setFont(textFont(9.5));
    p.setPen(t.ink);
    p.drawText(QRectF(0, top, kLeft - 8, tall), static_cast<int>(Qt::AlignVCenter | Qt::TextWordWrap), QStringLiteral("%1\n%2").arg(strip.name, strip.unit(u)));
    QPolygonF line;
    for (const ProportionPoint& q : m_sweep->points) line << QPointF(xOf(q.value_m), yOf(q.*strip.member));
    p.setPen(QPen(t.ink, 1.8));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(line);
    p.setBrush(t.ink);
    for (const QPointF& q : line) p.drawEllipse(q, 2.2, 2.2);
    p.setFont(textFont(8.5));
    p.setPen(t.fleece);
    const ProportionPoint& first = m_sweep->points.front();
    const ProportionPoint& last = m_sweep->points.back();
    p.drawText(QRectF(kLeft - 66, std::clamp(yOf(first.*strip.member) - 8, top, top + tall - 16), 60, 16), static_cast<int>(Qt::AlignRight | Qt::AlignVCenter),
               strip.number(u, first.*strip.member));
    p.drawText(QRectF(width() - kRight + 6, std::clamp(yOf(last.*strip.member) - 8, top, top + tall - 16), kRight - 6, 16), static_cast<int>(Qt::AlignVCenter),
               strip.number(u, last.*strip.member));
  }
}

void ProportionStrips::mouseMoveEvent(QMouseEvent* e) {
  if (!m_sweep || m_sweep->points.empty()) return;
  const auto nearest = std::min_element(m_sweep->points.begin(), m_sweep->points.end(), [&](const auto& a, const auto& b) {
    return std::abs(xOf(a.value_m) - e->position().x()) < std::abs(xOf(b.value_m) - e->position().x());
  });
  const Units& u = m_document.view().units();
  QString text = m_sweep->of == Proportion::height
                     ? tr("ridge at %1").arg(u.text(Quantity::length, nearest->value_m))
                     : tr("%1 wide, %2 long").arg(u.text(Quantity::length, nearest->value_m), u.text(Quantity::length, nearest->shape.length_m));
  text += QStringLiteral("\n") + tr("held %1 of %2 nights").arg(nearest->held).arg(nearest->nights);
  for (const Strip& s : strips()) text += QStringLiteral("\n%1 %2 %3").arg(s.name, s.number(u, (*nearest).*s.member), s.unit(u));
  QToolTip::showText(e->globalPosition().toPoint(), text, this);
}

ProportionsPage::ProportionsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_of(new QComboBox(this)), m_state(new QLabel(this)), m_strips(new ProportionStrips(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  m_state->setFont(textFont(10));
  m_state->setWordWrap(true);
  head->addWidget(m_state, 1);
  m_of->addItems({tr("how tall"), tr("how wide and long")});
  m_of->setFont(textFont(9.5));
  m_of->setAccessibleName(tr("What is changed"));
  head->addWidget(m_of);
  body->addLayout(head);
  body->addWidget(m_strips, 1);
  body->addWidget(new CautionLabel(ThingKind::shape, this));
  connect(m_of, &QComboBox::currentIndexChanged, this, [this] { refresh(); });
}

Proportion ProportionsPage::chosen() const { return m_of->currentIndex() == 0 ? Proportion::height : Proportion::width; }

bool ProportionsPage::isCurrent() const {
  return m_sweep && m_sweep->of == chosen() && m_asked == chosen() && m_weather == m_document.readings().sharedWeather() && m_askedOf == m_document.plan();
}

void ProportionsPage::refresh() {
  if (!m_document.readings().weather()) {
    m_state->setText(tr("Import a log of nights, and other proportions of this house are tried over them here."));
    return;
  }
  if (isCurrent())
    m_strips->update();
  else if (isVisible() && m_document.results().isCurrent())
    start();
}

void ProportionsPage::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void ProportionsPage::start() {
  if (m_job.isWorking() && m_askedOf == m_document.plan() && m_asked == chosen() && m_weather == m_document.readings().sharedWeather()) return;
  m_askedOf = m_document.plan();
  m_asked = chosen();
  m_weather = m_document.readings().sharedWeather();
  const HouseShape& shape = m_document.plan().house.shape;
  if (proportionShapes(shape, m_asked).size() < 2) {
    m_state->setText(tr("This shape has no other proportion of the kind at the same floor."));
    m_sweep.reset();
    m_strips->show(nullptr, 0.0);
    return;
  }
  m_state->setText(tr("Trying other proportions over all logged nights."));
  const double now = m_asked == Proportion::height ? shape.ridge_m : shape.width_m;
  m_job.start([plan = m_document.plan(), weather = m_weather,
               of = m_asked](const auto& progress, const auto* stop) { return sweepProportions(plan, weather, of, countedBy(progress, stop)); },
              [this, now](Result<Proportions> sweep) {
                if (!sweep) {
                  m_state->setText(said(sweep.problem(), m_document.view().units()));
                  return;
                }
                m_sweep = std::make_shared<const Proportions>(std::move(*sweep));
                m_strips->show(m_sweep, now);
                m_state->setText(m_sweep->of == Proportion::height ? tr("The same roof on taller or lower sides, the same floor.")
                                                                   : tr("Wider and shorter, or narrower and longer: the same floor and roof slope."));
                refresh();
              },
              [this](std::size_t done, std::size_t of) { m_state->setText(tr("Trying other proportions: %1 of %2.").arg(done).arg(of)); });
}

} // namespace muffle
