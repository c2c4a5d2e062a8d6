// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/section_view.h"

#include "app/model/said.h"

#include "app/paint/section_differences.h"
#include "app/stages/store_drag.h"
#include "core/air/moist_air.h"
#include "core/plan/names.h"

#include <QDateTime>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace muffle {

SectionView::SectionView(Document& document, QWidget* parent)
    : DocumentView(document,
                   {&Document::planChanged, &Document::resultChanged, &Document::winterChanged, &Document::selectionChanged, &Document::viewChanged,
                    &Document::pointedPlanChanged},
                   parent),
      m_toggle(new QPushButton(tr("from above"), this)) {
  m_toggle->setFont(textFont(9));
  m_toggle->setCursor(Qt::PointingHandCursor);
  m_toggle->setToolTip(tr("the house on the compass, and the sun's way on this day"));
  connect(m_toggle, &QPushButton::clicked, this, [this] { setFromAbove(!m_fromAbove); });
  for (const auto signal : {&Document::planChanged, &Document::pointedPlanChanged}) connect(&document, signal, this, [this] { m_differences.reset(); });
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Cross-section of the house"));
}

void SectionView::setFromAbove(bool on) {
  m_fromAbove = on;
  m_toggle->setText(on ? tr("cut through") : tr("from above"));
  setAccessibleName(on ? tr("The house from above") : tr("Cross-section of the house"));
  setCursor(Qt::ArrowCursor);
  placeToggle();
  update();
}

void SectionView::placeToggle() {
  m_toggle->adjustSize();
  m_toggle->move(width() - m_toggle->width() - 10, height() - 46 - m_toggle->height() - 10);
}

void SectionView::resizeEvent(QResizeEvent*) { placeToggle(); }

/// The sun's way over the local day that the clock stands in.
SunWay SectionView::sunWay() const {
  SunWay day;
  const auto at = m_document.view().moment();
  if (!at) return day;
  const Winter& w = m_document.readings().weather()->winters[at->winter];
  const auto sinceMidnight_s = static_cast<double>((w.time(at->step) + m_document.planInHand().zone().offset_s(w.time(at->step))) % 86400);
  const auto back = static_cast<std::size_t>(sinceMidnight_s / w.step_s);
  const std::size_t from = at->step > back ? at->step - back : 0;
  const auto steps = static_cast<std::size_t>(86400.0 / w.step_s);
  for (std::size_t i = from; i < std::min(from + steps, w.size()); ++i) {
    const SunStand stand{static_cast<double>(w.azimuth_deg[i]), 90.0 - static_cast<double>(w.zenith_deg[i])};
    if (stand.height_deg <= 0.0) continue;
    day.path.push_back(stand);
    if (i == at->step) day.now = stand;
  }
  return day;
}

/// With the store that is being placed.
Plan SectionView::planInSight() const {
  Plan plan = m_document.plan();
  if (!m_placing) return plan;
  if (!m_placingAt) {
    m_placing->add(plan);
    return plan;
  }
  const SectionGeometry g = geometry();
  const double floor = g.depthY(0.0);
  const double below_m = m_placingAt->y() > floor ? (m_placingAt->y() - floor) / (g.depthY(1.0) - floor) : 0.0;
  m_placing->put(plan, g.metresX(m_placingAt->x()), below_m);
  return plan;
}

void SectionView::place(StorePlacing placing) {
  if (m_fromAbove) setFromAbove(false);
  m_placing = std::move(placing);
  m_placingAt.reset();
  m_refusal.clear();
  setCursor(Qt::CrossCursor);
  setFocus();
  update();
}

void SectionView::leaveIt() {
  m_placing.reset();
  m_refusal.clear();
  setCursor(Qt::ArrowCursor);
  update();
}

void SectionView::setDown() {
  const Plan with = planInSight();
  const StorePlacing placing = *m_placing;
  m_document.planInHand().finishEdit();
  if (const auto why = m_document.edit(placing.name, [&](Plan& p) { p = with; })) {
    m_refusal = *why;
    update();
    return;
  }
  leaveIt();
  emit placed(placing.kind);
}

SectionGeometry SectionView::geometry() const { return {m_document.plan(), QRectF(0, 0, width(), height() - 46)}; }

QPointF SectionView::handlePoint(Grip grip) const { return geometry().handle(grip); }

QRectF SectionView::clockRect() const { return {36.0, height() - 34.0, width() - 72.0, 14.0}; }

std::optional<SectionMoment> SectionView::sectionMoment() const {
  const auto at = m_document.view().moment();
  const Simulation* run = m_document.results().simulation();
  if (!at || !run || at->winter >= run->series.size()) return std::nullopt;
  const Winter& w = m_document.readings().weather()->winters[at->winter];
  const WinterSeries& s = run->series[at->winter];
  const std::size_t i = at->step;
  SectionMoment m;
  m.outside_C = w.outside_C[i];
  m.sky_C = w.sky_C[i];
  m.wind_m_s = w.wind_m_s[i];
  m.sun_W_m2 = w.sun_W_m2[i];
  m.cloud = w.cloud[i];
  m.air_C = static_cast<double>(s.air_C[i]);
  m.heater_W = static_cast<double>(s.heater_W[i]);
  m.soilDepth_m = run->soilDepth_m;
  for (const auto& soil : s.soil_C) m.soil_C.push_back(static_cast<double>(soil[i]));
  for (const StoreSeries& store : s.stores) {
    m.stores_C.emplace_back();
    for (const auto& trace : store.temperature_C) m.stores_C.back().push_back(static_cast<double>(trace[i]));
  }
  for (std::size_t p = 0; p < kLossPathCount; ++p) m.loss_W[p] = static_cast<double>(s.loss_W[p][i]);
  const double pressure_Pa = pressureAtElevation_Pa(m_document.plan().site.place.elevation_m);
  const auto humidity = [&](double air_C, double vapour_g_kg) { return std::min(relativeHumidity(air_C, vapour_g_kg, pressure_Pa), 1.0); };
  const auto vapour = static_cast<double>(s.vapour_g_kg[i]);
  m.humidity = humidity(m.air_C, vapour);
  const auto rooms = otherRooms(m_document.plan());
  for (std::size_t r = 0; r < std::min(rooms.size(), s.rooms.size()); ++r) {
    const auto air_C = static_cast<double>(s.rooms[r].air_C[i]);
    m.rooms.push_back({rooms[r], air_C, humidity(air_C, static_cast<double>(s.rooms[r].vapour_g_kg[i]))});
  }
  for (std::size_t g = 0; g < m.dewOn.size(); ++g)
    m.dewOn[g] = !s.inner_C[g].empty() && relativeHumidity(static_cast<double>(s.inner_C[g][i]), vapour, pressure_Pa) > 1.0;
  m.leafWet = relativeHumidity(static_cast<double>(s.leaf_C[i]), vapour, pressure_Pa) > 1.0;
  m.sky_W = static_cast<double>(s.sky_W[i]);
  m.vents = static_cast<double>(s.vents[i]);
  if (!s.rolled.empty()) m.rolled = static_cast<double>(s.rolled[i]);
  m.roofOpen = !s.roof.empty() && s.roof[i] > 0.0F;
  m.blanketClosed = !s.blanket.empty() && s.blanket[i] > 0.0F;
  return m;
}

void SectionView::paintWhatDiffers(QPainter& p) {
  const auto& pointed = m_document.view().pointedPlan();
  const auto& compared = m_document.results().otherPlan();
  if (!pointed && !compared) return;
  const Plan& other = pointed ? *pointed : *compared;
  if (!m_differences) m_differences = differences(m_document.plan(), other);
  paintDifferences(p, geometry(), m_document.plan(), other, *m_differences, m_toggle->width(), m_document.view().units());
}

void SectionView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = theme();
  p.fillRect(rect(), t.wool);
  const auto moment = sectionMoment();
  const Units& u = m_document.view().units();
  QString title = (m_fromAbove ? tr("%1 by %2 from above") : tr("%1 by %2 cross-section"))
                      .arg(u.text(Quantity::length, m_document.plan().house.shape.width_m), u.text(Quantity::length, m_document.plan().house.shape.length_m));
  QString subtitle = tr("no log yet: drop a CSV on the window");
  if (const auto at = m_document.view().moment(); at && moment) {
    const UtcSeconds utc = m_document.readings().weather()->winters[at->winter].time(at->step);
    const int offset = m_document.planInHand().zone().offset_s(utc);
    const QDateTime when = QDateTime::fromSecsSinceEpoch(utc + offset, Qt::UTC);
    title = (m_fromAbove ? tr("From above at %1") : tr("Cross-section at %1"))
                .arg(QLocale(QLocale::English).toString(when, QStringLiteral("hh:mm, ddd d MMM yyyy")));
    const QString sky = moment->cloud < 0.35 ? tr("clear") : moment->cloud < 0.75 ? tr("part cloud") : tr("cloudy");
    subtitle = tr("outside %1 · wind %2 · %3, sky %4")
                   .arg(u.text(Quantity::temperature, moment->outside_C), u.text(Quantity::speed, moment->wind_m_s), sky,
                        u.text(Quantity::temperature, moment->sky_C));
  }
  if (m_fromAbove) {
    const HouseShape& s = m_document.plan().house.shape;
    const QString way = s.hasBackWall() ? tr("front looks to %1").arg(u.text(Quantity::angle, std::fmod(s.axis_deg + 90.0, 360.0)))
                                        : tr("ridge runs to %1").arg(u.text(Quantity::angle, s.axis_deg));
    paintPlanView(p, geometry().area(), m_document.plan(), moment, sunWay(), title,
                  s.kind == ShapeKind::dome ? subtitle : way + QStringLiteral(" · ") + subtitle, t, u);
  } else if (m_placing) {
    const Plan with = planInSight();
    auto now = moment;
    if (now) now->stores_C.clear(); // none is known of the new one
    paintSection(p, SectionGeometry(with, geometry().area()), with, now, title, tr("a click sets it down, Enter leaves it here, Esc takes it away"), t, u,
                 Handle::none);
  } else {
    paintSection(p, geometry(), m_document.plan(), moment, title, subtitle, t, u, m_dragged.what != Handle::none ? m_dragged : m_hovered);
    paintWhatDiffers(p);
  }
  if (!m_refusal.isEmpty()) {
    p.setFont(textFont(9, true));
    p.fillRect(QRect(0, height() - 92, width(), 44), t.wool);
    p.setPen(t.madder);
    p.drawText(QRect(10, height() - 92, width() - 20, 44), static_cast<int>(Qt::TextWordWrap | Qt::AlignVCenter), m_refusal);
  }
  if (m_document.results().simulation() && !m_document.isCurrentInSight()) {
    p.setFont(textFont(9));
    p.setPen(QColor("#F4EFE6"));
    p.drawText(QRect(0, 12, width() - 12, 18), static_cast<int>(Qt::AlignRight), tr("working it out again"));
  }
  // the clock: noon to noon, ticks every three hours
  const QRectF c = clockRect();
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(hasFocus() ? t.madder : t.fleece, hasFocus() ? 2 : 1.4));
  p.drawLine(QPointF(c.left(), c.center().y()), QPointF(c.right(), c.center().y()));
  p.setFont(textFont(8.5));
  for (int k = 0; k <= 8; ++k) {
    const double x = c.left() + c.width() * k / 8.0;
    p.setPen(t.fleece);
    p.drawLine(QPointF(x, c.center().y() - 4), QPointF(x, c.center().y() + 4));
    QString hour = QString::number((12 + 3 * k) % 24).rightJustified(2, QLatin1Char('0'));
    if (const auto at = m_document.view().moment()) { // the night's middle is the sun's midnight; the ticks say what the wall clock showed
      const NightResult& n = m_document.results().simulation()->nights[static_cast<std::size_t>(m_document.view().selectedNight())];
      const Winter& w = m_document.readings().weather()->winters[at->winter];
      const auto utc = w.start + static_cast<UtcSeconds>(w.step_s * ((static_cast<double>(n.from + n.to) / 2.0) + (k / 8.0 - 0.5) * 86400.0 / w.step_s));
      const double local = m_document.planInHand().zone().localHour(utc);
      hour = QStringLiteral("%1:%2").arg(static_cast<int>(local), 2, 10, QLatin1Char('0')).arg(static_cast<int>(local * 60) % 60, 2, 10, QLatin1Char('0'));
    }
    p.drawText(QRectF(x - 24, c.bottom() + 1, 48, 16), static_cast<int>(Qt::AlignHCenter), hour);
  }
  p.setPen(Qt::NoPen);
  p.setBrush(t.madder);
  p.drawEllipse(QPointF(c.left() + c.width() * m_document.view().clock(), c.center().y()), 7, 7);
}

void SectionView::mousePressEvent(QMouseEvent* e) {
  setFocus();
  m_refusal.clear();
  if (clockRect().adjusted(-10, -12, 10, 20).contains(e->position())) {
    m_scrubbing = true;
    m_document.view().setClock((e->position().x() - clockRect().left()) / clockRect().width());
    return;
  }
  if (m_fromAbove) return;
  if (m_placing) {
    m_placingAt = e->position();
    if (e->button() == Qt::LeftButton)
      setDown();
    else
      leaveIt();
    return;
  }
  m_dragged = geometry().hit(e->position());
  m_pressed = e->position();
  m_dragStart = m_document.plan();
  m_dragDepthScale = geometry().depthY(1.0) - geometry().depthY(0.0);
  m_dragScale = geometry().scale(); // the drawing rescales as the house grows; the drag keeps the scale it began with
  if (m_dragged.what != Handle::none)
    m_document.planInHand().finishEdit();
  else if (geometry().outline().contains(e->position()))
    emit housePointedAt();
}

void SectionView::drag(const QPointF& to) {
  const double dx = (to.x() - m_pressed.x()) / m_dragScale;
  const double dy = (m_pressed.y() - to.y()) / m_dragScale;
  const auto centimetres = [](double v) { return std::round(v * 20.0) / 20.0; };
  const HouseShape& s = m_dragStart.house.shape;
  std::optional<QString> why;
  constexpr int kHandles = 16;
  const int id = 10 + static_cast<int>(m_dragged.what) + kHandles * static_cast<int>(m_dragged.store);
  switch (m_dragged.what) {
  case Handle::ridge:
    why = m_document.edit(
        tr("move the ridge"), [&](Plan& p) { p.house.shape.ridge_m = centimetres(s.ridge_m + dy); }, id);
    break;
  case Handle::eave:
    why = m_document.edit(
        tr("move the eave"),
        [&](Plan& p) {
          p.house.shape.eave_m = std::max(centimetres(s.eave_m + dy), 0.0);
          p.house.shape.ridge_m = p.house.shape.eave_m + s.rise_m(); // the roof rides on it
        },
        id);
    break;
  case Handle::width:
    why = m_document.edit(
        tr("change the width"), [&](Plan& p) { p.house.shape.width_m = centimetres(s.width_m + 2.0 * dx / s.bays); }, id);
    break;
  case Handle::none: break;
  case Handle::heater:
    why = m_document.edit(
        tr("move a heater"),
        [&](Plan& p) {
          const SectionGeometry began(m_dragStart, geometry().area());
          p.heaters[m_dragged.store].x_m = centimetres(began.metresX(began.heater(m_dragged.store).center().x()) + dx);
        },
        id);
    break;
  default:
    why = m_document.edit(
        storeDragStep(m_dragStart, m_dragged),
        [&](Plan& p) {
          dragStore(p, m_dragStart, m_dragged, {dx, dy, (to.y() - m_pressed.y()) / m_dragDepthScale});
        },
        id);
  }
  m_refusal = why.value_or(QString());
  update();
}

void SectionView::mouseMoveEvent(QMouseEvent* e) {
  if (m_scrubbing) {
    m_document.view().setClock((e->position().x() - clockRect().left()) / clockRect().width());
    return;
  }
  if (m_dragged.what != Handle::none) {
    drag(e->position());
    return;
  }
  if (m_fromAbove) return;
  if (m_placing) {
    m_placingAt = e->position();
    update();
    return;
  }
  const Grip grip = geometry().hit(e->position());
  if (grip == m_hovered) return;
  m_hovered = grip;
  const Plan& plan = m_document.plan();
  const bool across = grip.what == Handle::width || grip.what == Handle::heater || isDraggedAcross(plan, grip);
  const bool both = grip.what == Handle::mass && !across;
  setCursor(grip.what == Handle::none ? Qt::ArrowCursor : across ? Qt::SizeHorCursor : both ? Qt::SizeAllCursor : Qt::SizeVerCursor);
  const HouseShape& s = plan.house.shape;
  const Units& u = m_document.view().units();
  switch (grip.what) {
  case Handle::ridge: setToolTip(tr("ridge %1; drag to change").arg(u.text(Quantity::length, s.ridge_m))); break;
  case Handle::eave: setToolTip(tr("eave %1; drag to change").arg(u.text(Quantity::length, s.eave_m))); break;
  case Handle::width: setToolTip(tr("width %1; drag to change").arg(u.text(Quantity::length, s.width_m))); break;
  case Handle::heater: {
    const Heater& h = plan.heaters[grip.store];
    setToolTip(tr("%1, %2; click for its row, drag to move").arg(said(nameOf(plan, h)), u.text(Quantity::power, h.power_W)));
    break;
  }
  default: setToolTip(storeTip(plan, grip, u));
  }
  update();
}

void SectionView::mouseReleaseEvent(QMouseEvent* e) {
  if (m_dragged.what == Handle::heater && (e->position() - m_pressed).manhattanLength() < 4) emit heaterPointedAt(m_dragged.store);
  if (isStore(m_dragged) && (e->position() - m_pressed).manhattanLength() < 4) emit storePointedAt(storeKind(m_dragged), m_dragged.store);
  m_scrubbing = false;
  if (m_dragged.what != Handle::none) m_document.planInHand().finishEdit();
  m_dragged = {};
  update();
}

void SectionView::leaveEvent(QEvent*) {
  m_hovered = {};
  update();
}

void SectionView::keyPressEvent(QKeyEvent* e) {
  if (m_placing && (e->key() == Qt::Key_Escape || e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter)) {
    e->key() == Qt::Key_Escape ? leaveIt() : setDown();
    return;
  }
  const double tick = e->modifiers() & Qt::ShiftModifier ? 1.0 / 24.0 : 1.0 / 144.0;
  if (e->key() == Qt::Key_Left)
    m_document.view().setClock(m_document.view().clock() - tick);
  else if (e->key() == Qt::Key_Right)
    m_document.view().setClock(m_document.view().clock() + tick);
  else
    QWidget::keyPressEvent(e);
}

} // namespace muffle
