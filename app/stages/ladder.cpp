// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/ladder.h"

#include "app/model/said.h"
#include "core/plan/crop_stands.h"
#include "core/plan/names.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kLow_C = -8.0, kHigh_C = 32.0, kBeyond_K = 2.0;
constexpr std::size_t kMostSaid = 2; // of what is at odds; a reader hears all
constexpr double kTop_px = 14.0, kBottom_px = 18.0, kFootLine_px = 32.0;
constexpr double kRail_px = 52.0, kWidth_px = 58.0; // left rail, and from rail to rail

bool isSame(const Rung& a, const Rung& b) { return a.of == b.of && a.heater == b.heater && a.crop == b.crop; }

QString capitalised(QString words) {
  if (!words.isEmpty()) words[0] = words[0].toUpper();
  return words;
}

double middle_C(const Rung& r) { return 0.5 * (r.low_C + r.high_C); }
/// At a share of the way from the left rail to the right.
double at_C(const Rung& r, double share) { return r.low_C + share * (r.high_C - r.low_C); }
double shareAt(double x) { return std::clamp((x - kRail_px) / kWidth_px, 0.0, 1.0); }

Setpoints* roomSetpoints(Plan& plan, HeaterPlace::Of room) {
  if (room != HeaterPlace::Of::bay) return &plan.setpoints;
  return plan.house.bay ? &plan.house.bay->setpoints : nullptr;
}

} // namespace

Ladder::Ladder(Document& document, QWidget* parent)
    : DocumentView(document, {&Document::planChanged, &Document::resultChanged, &Document::viewChanged}, parent) {
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Ladder of temperatures"));
  connect(&document, &Document::planChanged, this, &Ladder::takePlan);
  takePlan();
}

void Ladder::takePlan() {
  m_rungs = rungsOf(m_document.plan(), m_room);
  m_conflicts = ladderConflicts(m_document.plan(), m_room);
  if (m_dragged) return; // the axis stands still under the hand
  m_low_C = kLow_C;
  m_high_C = kHigh_C;
  for (const Rung& r : m_rungs) {
    m_low_C = std::min(m_low_C, r.low_C - kBeyond_K);
    m_high_C = std::max(m_high_C, r.high_C + kBeyond_K);
  }
}

void Ladder::showRoom(HeaterPlace::Of room) {
  if (room == m_room) return;
  m_room = room;
  m_focused = 0;
  m_refusal.clear();
  takePlan();
  update();
}

double Ladder::bottom() const { return height() - kBottom_px - kFootLine_px * static_cast<double>(std::min<std::size_t>(m_conflicts.size(), kMostSaid)); }
double Ladder::pixelsPerKelvin() const { return (bottom() - kTop_px) / (m_high_C - m_low_C); }
double Ladder::yOf(double c) const { return kTop_px + pixelsPerKelvin() * (m_high_C - c); }
double Ladder::celsiusAt(double y) const { return m_high_C - (y - kTop_px) / pixelsPerKelvin(); }

QPointF Ladder::rungPoint(RungOf of, std::size_t heater) const {
  const double share = of == RungOf::heater ? 0.75 : 0.25; // a heater's own part is the right half: there the setpoint that it follows may lie under it
  for (const Rung& r : rungs())
    if (r.of == of && (of != RungOf::heater || r.heater == heater)) return {kRail_px + kWidth_px * share, yOf(at_C(r, share))};
  return {};
}

QString Ladder::name(const Rung& rung) const {
  switch (rung.of) {
  case RungOf::vents: return tr("vents open");
  case RungOf::rollUp: return tr("sides roll up");
  case RungOf::extractFan: return tr("extract fan runs");
  case RungOf::day: return rung.followsWeather() ? tr("day setpoint, by the high") : tr("day setpoint");
  case RungOf::night: return rung.followsWeather() ? tr("night setpoint, by the low") : tr("night setpoint");
  case RungOf::heater: return tr("%1 begins").arg(said(nameOf(m_document.plan(), m_document.plan().heaters[rung.heater])));
  case RungOf::crop: return tr("harms %1").arg(said(nameOf(m_document.plan(), m_document.plan().crops[rung.crop])));
  case RungOf::hold: break;
  }
  return tr("hold above");
}

QString Ladder::text(const Rung& rung) const {
  const Units& u = m_document.view().units();
  const QString low = u.text(Quantity::temperature, rung.low_C);
  return rung.followsWeather() ? tr("%1 to %2").arg(low, u.text(Quantity::temperature, rung.high_C)) : low;
}

QColor Ladder::colour(const Rung& rung) const {
  const Theme& t = theme();
  switch (rung.of) {
  case RungOf::day: return t.weld;
  case RungOf::night:
  case RungOf::heater: return t.madder;
  case RungOf::hold: return t.woad;
  default: return t.lichen;
  }
}

QStringList Ladder::conflicts() const {
  const Units& u = m_document.view().units();
  QStringList lines;
  for (const LadderConflict& c : m_conflicts) {
    const QString by = u.text(Quantity::difference, c.by_K);
    switch (c.kind) {
    case LadderConflictKind::nightBelowLine: lines << tr("The night setpoint stands %1 below the line: heaters let the room fall past it.").arg(by); break;
    case LadderConflictKind::heaterBelowLine:
      lines << capitalised(
          tr("%1 begins %2 below the line: the night is lost before it gives.").arg(said(nameOf(m_document.plan(), m_document.plan().heaters[c.rung.heater])), by));
      break;
    case LadderConflictKind::lineHarmsCrop:
      lines << tr("The line lies %1 below what %2 bear.").arg(by, said(nameOf(m_document.plan(), m_document.plan().crops[c.rung.crop])));
      break;
    case LadderConflictKind::airedWhileHeated:
      lines << capitalised(c.by_K > 0.0 ? tr("%1 only %2 above the warmest setpoint: bought heat goes out.").arg(name(c.rung), by)
                                        : tr("%1 at the warmest setpoint or below: bought heat goes out.").arg(name(c.rung)));
    }
  }
  return lines;
}

void Ladder::put(Rung rung, double c) {
  if (rung.of == RungOf::crop) return; // what it bears is the crop's own
  // whole halves of a degree, in whichever degree is shown
  const Units& u = m_document.view().units();
  const double step = u.fahrenheit ? 1.0 : 0.5;
  c = u.toSi(Quantity::temperature, std::round(u.show(Quantity::temperature, std::clamp(c, m_low_C, m_high_C)) / step) * step);
  const double by_K = c - middle_C(rung); // a rung that slopes is moved as it is
  QString step_name;
  switch (rung.of) {
  case RungOf::vents:
  case RungOf::rollUp:
  case RungOf::extractFan: step_name = tr("move the vents' rung"); break;
  case RungOf::day: step_name = tr("move the day setpoint"); break;
  case RungOf::night: step_name = tr("move the night setpoint"); break;
  case RungOf::heater: step_name = tr("move a heater's rung"); break;
  case RungOf::hold: step_name = tr("move the line to hold"); break;
  case RungOf::crop: return;
  }
  constexpr int kMerge = 40;
  const auto why = m_document.edit(
      step_name,
      [&](Plan& p) {
        Setpoints* s = roomSetpoints(p, m_room);
        if (!s) return;
        switch (rung.of) {
        case RungOf::vents:
          p.house.ventFull_C += c - p.house.ventOpens_C;
          p.house.ventOpens_C = c;
          break;
        case RungOf::rollUp:
          p.house.rollUp->full_C += c - p.house.rollUp->opens_C;
          p.house.rollUp->opens_C = c;
          break;
        case RungOf::extractFan: p.house.extractFan->above_C = c; break;
        case RungOf::day:
          s->day_C = s->dayBands.empty() ? c : s->day_C + by_K;
          for (SetpointBand& band : s->dayBands) band.setpoint_C += by_K;
          break;
        case RungOf::night:
          s->night_C = s->nightBands.empty() ? c : s->night_C + by_K;
          for (SetpointBand& band : s->nightBands) band.setpoint_C += by_K;
          break;
        case RungOf::heater: p.heaters[rung.heater].stage_K = std::clamp(p.heaters[rung.heater].stage_K - by_K, 0.0, 20.0); break;
        case RungOf::hold: s->hold_C = c; break;
        case RungOf::crop: break;
        }
      },
      kMerge + static_cast<int>(rung.of) + 10 * static_cast<int>(rung.heater));
  m_refusal = why.value_or(QString());
  update();
}

void Ladder::paintRails(QPainter& p) const {
  const Theme& t = theme();
  const Units& u = m_document.view().units();
  p.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::RoundCap));
  p.drawLine(QPointF(kRail_px, kTop_px), QPointF(kRail_px, bottom()));
  p.drawLine(QPointF(kRail_px + kWidth_px, kTop_px), QPointF(kRail_px + kWidth_px, bottom()));
  p.setFont(textFont(8.5));
  const double tick = u.fahrenheit ? 10.0 : 5.0;
  for (double shown = std::ceil(u.show(Quantity::temperature, m_low_C) / tick) * tick; shown <= u.show(Quantity::temperature, m_high_C); shown += tick) {
    const double y = yOf(u.toSi(Quantity::temperature, shown));
    p.setPen(QPen(t.seam, 1));
    p.drawLine(QPointF(kRail_px - 5, y), QPointF(kRail_px, y));
    p.setPen(t.fleece);
    p.drawText(QRectF(0, y - 9, kRail_px - 9, 18), static_cast<int>(Qt::AlignRight | Qt::AlignVCenter),
               QString::number(shown, 'f', 0).replace(QLatin1Char('-'), QChar(0x2212)) + QStringLiteral("°"));
  }
}

void Ladder::paintRungs(QPainter& p) const {
  const Theme& t = theme();
  const std::vector<Rung>& all = rungs();
  std::vector<Rung> sorted = all;
  std::stable_sort(sorted.begin(), sorted.end(), [](const Rung& a, const Rung& b) { return middle_C(a) > middle_C(b); });
  // labels make room for each other; a thread leads to the rung
  const double room = std::min(34.0, (bottom() - kTop_px) / std::max<double>(static_cast<double>(sorted.size()), 1.0));
  std::vector<double> label(sorted.size());
  for (std::size_t i = 0; i < sorted.size(); ++i) label[i] = std::max(yOf(middle_C(sorted[i])), i > 0 ? label[i - 1] + room : -100.0);
  for (std::size_t i = sorted.size(); i-- > 0;) label[i] = std::min(label[i], i + 1 < sorted.size() ? label[i + 1] - room : bottom() - 12.0);
  for (std::size_t i = 0; i < sorted.size(); ++i) {
    const Rung& r = sorted[i];
    const bool isHeater = r.of == RungOf::heater;
    const double left = kRail_px + (isHeater ? 0.5 * kWidth_px : 0.0), right = kRail_px + kWidth_px;
    const bool isCrop = r.of == RungOf::crop; // which nobody moves
    p.setPen(QPen(colour(r), isHeater ? 3.5 : isCrop ? 2.0 : 6.0, isCrop ? Qt::DotLine : Qt::SolidLine, Qt::RoundCap));
    p.drawLine(QPointF(left, yOf(at_C(r, shareAt(left)))), QPointF(right, yOf(r.high_C)));
    if (isHeater) { // a flame's small wedge, so that it is told from a setpoint without its colour
      p.setPen(Qt::NoPen);
      p.setBrush(colour(r));
      const double y = yOf(at_C(r, shareAt(left)));
      p.drawPolygon(QPolygonF({QPointF(left - 7, y), QPointF(left + 2, y - 5), QPointF(left + 2, y + 5)}));
    }
    p.setPen(QPen(colour(r), 1.2));
    p.drawLine(QPointF(right + 4, yOf(r.high_C)), QPointF(right + 22, label[i]));
    if (hasFocus() && m_focused < all.size() && isSame(all[m_focused], r)) {
      p.setPen(QPen(t.ink, 1, Qt::DotLine));
      p.setBrush(Qt::NoBrush);
      p.drawRoundedRect(QRectF(kRail_px - 5, yOf(r.high_C) - 8, 68, yOf(r.low_C) - yOf(r.high_C) + 16), 5, 5);
    }
    const double x = right + 26;
    p.setPen(t.ink);
    p.setFont(textFont(10, true));
    const bool inOneLine = room < 30.0;
    const QString value = text(r);
    p.drawText(QRectF(x, label[i] - (inOneLine ? 9 : 17), width() - x - 2, 18), static_cast<int>(Qt::AlignVCenter), value);
    const double after = inOneLine ? QFontMetricsF(textFont(10, true)).horizontalAdvance(value) + 8 : 0.0;
    p.setPen(t.fleece);
    p.setFont(textFont(9));
    p.drawText(QRectF(x + after, label[i] - (inOneLine ? 8 : 1), width() - x - after - 2, 16), static_cast<int>(Qt::AlignVCenter),
               QFontMetricsF(textFont(9)).elidedText(name(r), Qt::ElideRight, width() - x - after - 2));
  }
}

void Ladder::paintFoot(QPainter& p) const {
  const QStringList lines = conflicts().mid(0, kMostSaid);
  const Theme& t = theme();
  double y = height() - kFootLine_px * static_cast<double>(lines.size());
  for (const QString& line : lines) {
    p.setPen(t.madder);
    p.setFont(textFont(10, true));
    p.drawText(QRectF(2, y, 14, 16), static_cast<int>(Qt::AlignVCenter), QStringLiteral("!"));
    p.setFont(textFont(9));
    p.drawText(QRectF(16, y, width() - 18, kFootLine_px), static_cast<int>(Qt::TextWordWrap | Qt::AlignTop), line);
    y += kFootLine_px;
  }
}

void Ladder::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  paintRails(p);
  for (const Rung& r : rungs()) // the cold below the line to hold
    if (r.of == RungOf::hold) {
      const QRectF cold(kRail_px, yOf(r.low_C), kWidth_px, bottom() - yOf(r.low_C));
      p.save();
      p.setClipRect(cold);
      p.setPen(QPen(t.woad, 1.2));
      for (double k = cold.top() - 60; k < cold.bottom(); k += 8) p.drawLine(QPointF(cold.left(), k + kWidth_px), QPointF(cold.right(), k));
      p.restore();
    }
  paintRungs(p);
  paintFoot(p);
  if (!m_refusal.isEmpty()) {
    p.setFont(textFont(8.5, true));
    p.setPen(t.madder);
    p.drawText(QRectF(kRail_px + kWidth_px + 26, 0, width() - kRail_px - kWidth_px - 30, 48), static_cast<int>(Qt::TextWordWrap), m_refusal);
  }
}

std::vector<SpokenLine> Ladder::spoken() const {
  std::vector<SpokenLine> lines;
  for (const Rung& r : rungs()) lines.push_back({name(r), text(r)});
  for (const QString& odd : conflicts()) lines.push_back({tr("at odds"), odd});
  return lines;
}

void Ladder::mousePressEvent(QMouseEvent* e) {
  double nearest = 14;
  m_dragged.reset();
  const std::vector<Rung>& all = rungs();
  const bool rightHalf = e->position().x() > kRail_px + 0.5 * kWidth_px; // where heaters have theirs
  m_dragShare = shareAt(e->position().x());
  for (std::size_t i = 0; i < all.size(); ++i) {
    if (all[i].of == RungOf::crop) continue;
    const double away = std::abs(yOf(at_C(all[i], m_dragShare)) - e->position().y()) + ((all[i].of == RungOf::heater) == rightHalf ? 0.0 : 3.0);
    if (away < nearest) nearest = away, m_dragged = all[i], m_focused = i;
  }
  m_refusal.clear();
  m_document.planInHand().finishEdit();
  update();
}

void Ladder::mouseMoveEvent(QMouseEvent* e) {
  if (!m_dragged || !(e->buttons() & Qt::LeftButton)) return;
  const std::vector<Rung>& all = rungs();
  const auto now = std::find_if(all.begin(), all.end(), [&](const Rung& r) { return isSame(r, *m_dragged); });
  if (now != all.end()) put(*now, celsiusAt(e->position().y()) + middle_C(*now) - at_C(*now, m_dragShare)); // by the point of a slope that is held
}

void Ladder::mouseReleaseEvent(QMouseEvent*) {
  m_dragged.reset();
  m_document.planInHand().finishEdit();
  takePlan(); // the axis again
  update();
}

void Ladder::keyPressEvent(QKeyEvent* e) {
  const std::vector<Rung>& all = rungs();
  if (all.empty()) return QWidget::keyPressEvent(e);
  m_focused = std::min(m_focused, all.size() - 1);
  const double step = m_document.view().units().fahrenheit ? 1.0 / 1.8 : 0.5;
  const Rung& rung = all[m_focused];
  if (e->key() == Qt::Key_Up)
    put(rung, middle_C(rung) + step);
  else if (e->key() == Qt::Key_Down)
    put(rung, middle_C(rung) - step);
  else if (e->key() == Qt::Key_PageUp || e->key() == Qt::Key_PageDown) {
    m_focused = (m_focused + (e->key() == Qt::Key_PageDown ? 1 : all.size() - 1)) % all.size();
    update();
  } else
    QWidget::keyPressEvent(e);
}

} // namespace muffle
