// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/frontier_view.h"

#include "app/model/said.h"
#include "app/stages/measures_editor.h"
#include "core/plan/names.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <array>
#include <cmath>

namespace muffle {
namespace {

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
  setMouseTracking(true);
  connect(&document, &Document::sizingChanged, this, [this] { pointAt(-1); });
}

/// Below the words and the choice of what cost is set against.
QRectF FrontierView::area() const { return {52.0, 32.0, width() - 66.0, height() - 72.0}; }

QString FrontierView::wordsFor(CostAgainst against) {
  switch (against) {
  case CostAgainst::cold: return tr("cold owed");
  case CostAgainst::hours: return tr("your hours");
  case CostAgainst::capital: return tr("money now");
  case CostAgainst::heat: return tr("heat bought");
  case CostAgainst::carbon: return tr("carbon dioxide");
  case CostAgainst::damp: return tr("damp hours");
  case CostAgainst::growth: return tr("growth");
  }
  return {};
}

void FrontierView::setAgainst(CostAgainst against) {
  m_against = against;
  setAccessibleName(tr("Cost against %1").arg(wordsFor(against)));
  update();
}

double FrontierView::valueOf(const SizedPackage& p) const {
  switch (m_against) {
  case CostAgainst::cold: return p.degreeHours_K_h;
  case CostAgainst::hours: return p.cost.hours;
  case CostAgainst::capital: return p.capital;
  case CostAgainst::heat: return p.heater_kWh;
  case CostAgainst::carbon: return p.cost.carbon_kg;
  case CostAgainst::damp: return p.damp_h;
  case CostAgainst::growth: return p.growth_d.value_or(0.0);
  }
  return 0.0;
}

Quantity FrontierView::quantity() const {
  switch (m_against) {
  case CostAgainst::cold: return Quantity::degreeHours;
  case CostAgainst::hours: return Quantity::hours;
  case CostAgainst::capital: return Quantity::money;
  case CostAgainst::heat: return Quantity::energy;
  case CostAgainst::carbon: return Quantity::mass;
  case CostAgainst::damp: return Quantity::hours;
  case CostAgainst::growth: return Quantity::count;
  }
  return Quantity::count;
}

double FrontierView::along(double value, const Axes& axes) const {
  return m_against == CostAgainst::cold ? squeezed(value) / squeezed(axes.top) : (value - axes.bottom) / (axes.top - axes.bottom);
}

FrontierView::Axes FrontierView::axesNow() const {
  constexpr double kStretch = 0.4; // by which rules of thumb may widen the picture: one that is far off stands at its edge
  Axes axes{.least = 1e300, .bottom = m_against == CostAgainst::growth ? 1e300 : 0.0};
  const auto include = [&](const SizedPackage& p) {
    axes.least = std::min(axes.least, p.cost.total());
    axes.most = std::max(axes.most, p.cost.total());
    axes.top = std::max(axes.top, valueOf(p));
    if (m_against == CostAgainst::growth) axes.bottom = std::min(axes.bottom, valueOf(p)); // all grow something: what they differ by is to be seen
  };
  const Sizing& s = *m_document.results().sizing();
  for (const SizedPackage& p : s.packages) include(p);
  const Axes found = axes;
  const double stretch = kStretch * (found.most - found.least);
  for (const ByThumb& rule : s.thumb) {
    const double cost = rule.package.cost.total();
    if (cost > found.least - stretch && cost < found.most + stretch && valueOf(rule.package) < (1.0 + kStretch) * found.top) include(rule.package);
  }
  axes.pad = std::max((axes.most - axes.least) * 0.05, 1.0);
  axes.top = std::max(axes.top, axes.bottom + 1.0);
  return axes;
}

QPointF FrontierView::pointOf(const Axes& axes, const ByThumb& rule) const {
  const QPointF at = pointOf(axes, rule.package);
  const QRectF within = area().adjusted(12, 12, -12, -6);
  return {std::max(within.left(), std::min(at.x(), within.right())), std::max(within.top(), std::min(at.y(), within.bottom()))};
}

QPointF FrontierView::pointOf(const Axes& axes, int package) const {
  return pointOf(axes, m_document.results().sizing()->packages[static_cast<std::size_t>(package)]);
}

QPointF FrontierView::pointOf(const Axes& axes, const SizedPackage& p) const {
  return {area().left() + area().width() * (p.cost.total() - axes.least + axes.pad) / (axes.most - axes.least + 2 * axes.pad),
          area().bottom() - 6 - (area().height() - 12) * along(valueOf(p), axes)};
}

std::vector<int> FrontierView::unbeaten() const {
  const Sizing& s = *m_document.results().sizing();
  if (m_against == CostAgainst::cold) return s.frontier;
  std::vector<int> order;
  for (std::size_t i = 0; i < s.packages.size(); ++i)
    if (s.packages[i].holds) order.push_back(static_cast<int>(i));
  std::stable_sort(order.begin(), order.end(),
                   [&](int a, int b) { return s.packages[static_cast<std::size_t>(a)].cost.total() < s.packages[static_cast<std::size_t>(b)].cost.total(); });
  std::vector<int> line;
  for (const int i : order)
    if (line.empty() || badness(s.packages[static_cast<std::size_t>(i)]) < badness(s.packages[static_cast<std::size_t>(line.back())]) - 1e-9) line.push_back(i);
  return line;
}

int FrontierView::packageAt(const QPointF& at) const {
  if (!m_document.results().sizing()) return -1;
  const Axes scale = axesNow();
  int best = -1;
  double nearest = 12.0;
  const auto consider = [&](int i) {
    const QPointF d = pointOf(scale, i) - at;
    if (const double distance = std::hypot(d.x(), d.y()); distance < nearest) nearest = distance, best = i;
  };
  for (const int i : unbeaten()) consider(i);
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
             m_document.readings().weather()
                 ? tr("Every combination of these is decided on over every logged night; prices and sizes are yours to change afterwards.")
                 : tr("A log of nights is needed first: drop a logger's CSV on the window, or choose Log."));
}

QString FrontierView::axisWords() const {
  const Units& u = m_document.view().units();
  switch (m_against) {
  case CostAgainst::cold: return tr("cold owed, %1 over all logged nights").arg(u.unit(Quantity::degreeHours));
  case CostAgainst::hours: return tr("your work, hours a winter");
  case CostAgainst::capital: return tr("money for kit, all of it now, %1").arg(QString::fromStdString(m_document.plan().prices.currency));
  case CostAgainst::heat: return tr("heat bought, %1 a winter").arg(u.unit(Quantity::energy));
  case CostAgainst::carbon: return tr("carbon dioxide of power and fuel, %1 a winter").arg(u.unit(Quantity::mass));
  case CostAgainst::damp: return tr("hours a winter at 90 % humidity and more");
  case CostAgainst::growth: return tr("days of the crop's best growth a winter");
  }
  return {};
}

/// From what a plan costs if all prices come out low to what it costs if all come out high.
void FrontierView::paintRange(QPainter& p, const Axes& axes, int package) const {
  const SizedPackage& of = m_document.results().sizing()->packages[static_cast<std::size_t>(package)];
  if (of.spread <= 0.0) return;
  const QRectF r = area();
  const QPointF at = pointOf(axes, package);
  const double half = r.width() * of.spread / (axes.most - axes.least + 2 * axes.pad);
  const double left = std::max(at.x() - half, r.left()), right = std::min(at.x() + half, r.right());
  p.setPen(QPen(theme().madder, 1));
  p.drawLine(QPointF(left, at.y()), QPointF(right, at.y()));
  for (const double x : {at.x() - half, at.x() + half}) // no end where it goes beyond the picture
    if (x >= r.left() && x <= r.right()) p.drawLine(QPointF(x, at.y() - 4), QPointF(x, at.y() + 4));
}

void FrontierView::paintAxes(QPainter& p, const Axes& axes) const {
  const Theme& t = theme();
  const QRectF r = area();
  p.setPen(QPen(t.seam, 1));
  p.drawLine(r.topLeft(), r.bottomLeft());
  p.drawLine(r.bottomLeft(), r.bottomRight());
  const Units& u = m_document.view().units();
  p.setFont(textFont(8.5));
  p.setPen(t.fleece);
  const double range = axes.most - axes.least + 2 * axes.pad;
  const double nice = std::pow(10.0, std::floor(std::log10(range / 3.0)));
  const double step = range / nice > 20 ? nice * 5 : range / nice > 8 ? nice * 2 : nice;
  for (double v = std::ceil((axes.least - axes.pad) / step) * step; v <= axes.most + axes.pad; v += step) {
    const double x = r.left() + r.width() * (v - axes.least + axes.pad) / range;
    p.drawLine(QPointF(x, r.bottom()), QPointF(x, r.bottom() + 4));
    p.drawText(QRectF(x - 34, r.bottom() + 4, 68, 14), static_cast<int>(Qt::AlignHCenter), QLocale().toString(v, 'f', 0));
  }
  for (const double share : m_against == CostAgainst::cold ? std::array{0.0, 0.1, 0.4, 1.0} : std::array{0.0, 0.33, 0.66, 1.0}) {
    const double value = m_against == CostAgainst::growth ? axes.bottom + (axes.top - axes.bottom) * share
                                                          : u.toSi(quantity(), roundBelow(u.show(quantity(), axes.top) * share));
    const double y = r.bottom() - 6 - (r.height() - 12) * along(value, axes);
    p.drawText(QRectF(0, y - 8, 47, 16), static_cast<int>(Qt::AlignRight | Qt::AlignVCenter), u.number(quantity(), value));
  }
  p.drawText(QRectF(r.left(), r.bottom() + 19, r.width(), 16), static_cast<int>(Qt::AlignRight),
             tr("%1 each winter").arg(QString::fromStdString(m_document.plan().prices.currency)));
  p.drawText(QRectF(r.left() + 6, 0, r.width(), 16), static_cast<int>(Qt::AlignLeft), axisWords());
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
                   : tr("Every combination of the plan's %1 measures is decided on over every logged night; the cheapest that holds is "
                        "named here, with what the others miss.")
                         .arg(m_document.plan().measures.size()));
    if (m_document.plan().measures.empty()) paintUsual(p);
    return;
  }
  if (!m_document.results().sizingIsCurrent()) p.setOpacity(0.5);
  const Axes scale = axesNow();
  paintAxes(p, scale);
  // all plans: filled when they hold, open when they miss; the frontier joined by thread
  for (std::size_t i = 0; i < s->packages.size(); ++i) {
    const QPointF at = pointOf(scale, static_cast<int>(i));
    p.setPen(QPen(s->packages[i].holds ? t.lichen : t.fleece, 1));
    p.setBrush(s->packages[i].holds ? t.lichen : Qt::transparent);
    p.drawEllipse(at, 2.6, 2.6);
  }
  paintThumb(p, scale);
  const std::vector<int> best = unbeaten();
  QPolygonF line;
  for (const int i : best) line << pointOf(scale, i);
  p.setPen(QPen(t.madder, 1.8));
  p.setBrush(Qt::NoBrush);
  p.drawPolyline(line);
  for (const int i : best) {
    p.setBrush(t.wool);
    p.drawEllipse(pointOf(scale, i), 4.5, 4.5);
  }
  if (s->winner >= 0) paintRange(p, scale, s->winner);
  if (const auto compared = m_document.results().otherPackage()) paintRange(p, scale, static_cast<int>(*compared));
  if (s->winner >= 0) {
    const QPointF at = pointOf(scale, s->winner);
    p.setPen(QPen(t.madder, 2));
    p.setBrush(t.madder);
    p.drawEllipse(at, 6.5, 6.5);
    p.setPen(t.ink);
    p.setFont(textFont(9, true));
    const bool toLeft = at.x() > area().center().x();
    const QString words = tr("cheapest that holds");
    const double w = QFontMetricsF(textFont(9, true)).horizontalAdvance(words) + 8;
    const QRectF box(toLeft ? at.x() - 10 - w : at.x() + 8, at.y() - 26, w, 17);
    p.fillRect(box, t.wool);
    p.drawText(box, static_cast<int>(Qt::AlignCenter), words);
  }
  if (const auto compared = m_document.results().otherPackage()) { // wears a ring
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(pointOf(scale, static_cast<int>(*compared)), 10, 10);
  }
}

/// Rules of thumb as small house gables, open where they miss.
void FrontierView::paintThumb(QPainter& p, const Axes& axes) const {
  const auto& rules = m_document.results().sizing()->thumb;
  if (rules.empty()) return;
  const auto gable = [&](const QPointF& at, bool isFilled) {
    p.setPen(QPen(theme().weld, 1.6));
    p.setBrush(isFilled ? theme().weld : Qt::transparent);
    p.drawPolygon(QPolygonF({at + QPointF(-5, 5), at + QPointF(-5, -1), at + QPointF(0, -6), at + QPointF(5, -1), at + QPointF(5, 5)}));
  };
  for (const ByThumb& rule : rules) {
    const QPointF at = pointOf(axes, rule), beyond = pointOf(axes, rule.package) - at;
    if (const double far = std::hypot(beyond.x(), beyond.y()); far > 1.0) { // an arrow to where it stands
      p.setPen(QPen(theme().weld, 1.6));
      p.drawLine(at + beyond / far * 7.0, at + beyond / far * 12.0);
    }
    gable(at, rule.package.holds);
  }
  p.setFont(textFont(8.5));
  const double x = area().left() + 6, y = area().bottom() + 27; // beside what the foot of the picture is measured in
  gable({x, y}, false);
  p.setPen(theme().fleece);
  p.drawText(QRectF(x + 10, y - 8, width(), 16), static_cast<int>(Qt::AlignLeft), tr("by rule of thumb"));
}

std::vector<SpokenLine> FrontierView::spoken() const {
  const Sizing* s = m_document.results().sizing();
  if (!s) return paintedLines(*this);
  const Units& u = m_document.view().units();
  std::vector<SpokenLine> lines;
  for (const int i : unbeaten()) {
    const SizedPackage& p = s->packages[static_cast<std::size_t>(i)];
    lines.push_back({said(p.label, m_document.view().units()), costAndHeld(p) + (i == s->winner ? tr(", the cheapest that holds") : QString())});
  }
  for (const ByThumb& rule : s->thumb) lines.push_back({tr("rule of thumb, %1").arg(said(rule.says, u)), costAndHeld(rule.package)});
  return lines;
}

QString FrontierView::costAndHeld(const SizedPackage& p) const {
  const Units& u = m_document.view().units();
  return tr("%1 %2 each winter, held %3 of %4, cold owed %5")
      .arg(u.number(Quantity::money, p.cost.total()), QString::fromStdString(m_document.plan().prices.currency))
      .arg(p.held)
      .arg(p.nights)
      .arg(u.text(Quantity::degreeHours, p.degreeHours_K_h));
}

const ByThumb* FrontierView::thumbAt(const QPointF& at) const {
  const Axes axes = axesNow();
  for (const ByThumb& rule : m_document.results().sizing()->thumb)
    if (const QPointF d = pointOf(axes, rule) - at; std::hypot(d.x(), d.y()) < 7.0) return &rule;
  return nullptr;
}

std::optional<FrontierView::Standing> FrontierView::standing(int mark) const {
  const Sizing* s = m_document.results().sizing();
  if (!s || mark < 0) return std::nullopt;
  const auto i = static_cast<std::size_t>(mark);
  if (i < s->packages.size()) {
    const SizedPackage& p = s->packages[i];
    return Standing{buildPackage(m_document.results().sizedPlan(), p.choice).plan, said(p.label, m_document.view().units()), i};
  }
  const ByThumb& rule = s->thumb[i - s->packages.size()];
  return Standing{buildPackage(rule.plan, rule.package.choice).plan, tr("by rule of thumb"), std::nullopt};
}

int FrontierView::markAt(const QPointF& at) const {
  const Sizing* s = m_document.results().sizing();
  if (!s) return -1;
  if (const ByThumb* rule = thumbAt(at)) return static_cast<int>(s->packages.size()) + static_cast<int>(rule - s->thumb.data());
  return packageAt(at);
}

void FrontierView::mousePressEvent(QMouseEvent* e) {
  if (const auto there = standing(markAt(e->position()))) m_document.compareWith(there->plan, there->name, there->package);
}

/// What differs is outlined in the section while the pointer rests on a mark.
void FrontierView::mouseMoveEvent(QMouseEvent* e) { pointAt(markAt(e->position())); }

void FrontierView::leaveEvent(QEvent*) { pointAt(-1); }

void FrontierView::hideEvent(QHideEvent*) { pointAt(-1); }

void FrontierView::pointAt(int mark) {
  if (mark == m_pointedMark) return;
  m_pointedMark = mark;
  auto there = standing(mark);
  m_document.view().pointAtPlan(there ? std::optional(std::move(there->plan)) : std::nullopt);
}

bool FrontierView::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip && m_document.results().sizing()) {
    const auto* help = static_cast<QHelpEvent*>(e);
    if (const ByThumb* rule = thumbAt(help->pos())) {
      QToolTip::showText(help->globalPos(), tr("by rule of thumb: %1\n%2").arg(said(rule->says, m_document.view().units()), costAndHeld(rule->package)), this);
      return true;
    }
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

} // namespace muffle
