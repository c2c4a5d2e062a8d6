// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/section_stores.h"

#include "app/paint/section_words.h"
#include "core/store/pile.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

using section::tr;

class StoresPicture {
public:
  StoresPicture(QPainter& p, const SectionGeometry& g, const Plan& plan, const std::optional<SectionMoment>& moment, const Theme& theme, const Units& units,
                Grip hovered, WordPlaces& words)
      : m_p(p), m_g(g), m_plan(plan), m_moment(moment), m_theme(theme), m_units(units), m_hovered(hovered), m_words(words) {}

  void paint() {
    const auto all = storesOf(m_plan);
    for (std::size_t k = 0; k < all.size(); ++k) {
      const std::vector<double>* const known = m_moment && k < m_moment->stores_C.size() ? &m_moment->stores_C[k] : nullptr;
      switch (all[k].kind) {
      case StoreKind::pipes: pipes(all[k].index, known); break;
      case StoreKind::compost: pile(all[k].index, known); break;
      case StoreKind::loop: tank(all[k].index, known); break;
      case StoreKind::cable: cable(all[k].index, known); break;
      case StoreKind::mass: mass(all[k].index, known); break;
      case StoreKind::barrels: break;
      }
    }
  }

private:
  [[nodiscard]] QPen outline(Handle handle, std::size_t index) const {
    const bool lit = m_hovered == Grip(handle, index);
    return {lit ? m_theme.weld : m_theme.ink, lit ? 2.6 : 1.3};
  }
  [[nodiscard]] QColor colour(const std::vector<double>* known, std::size_t trace) const {
    return known && trace < known->size() && !std::isnan((*known)[trace]) ? m_theme.warmth((*known)[trace]) : m_theme.wool;
  }
  /// In the soil under what stands at a point, by its name where there is room for it.
  void sayUnder(const QPointF& thing, double below_px, const QString& name, const QString& t) {
    m_words.sayOf(m_p, thing, thing + QPointF(0, below_px), t.isEmpty() ? name : name + QStringLiteral("  ") + t, t, textFont(9, true), QColor("#F4EFE6"),
                  m_g.area());
  }
  void say(const QPointF& at, const QString& text, const QColor& ink) { m_words.say(m_p, at, text, textFont(9, true), ink, Qt::AlignHCenter, m_g.area()); }
  [[nodiscard]] QString degrees(const std::vector<double>* known, std::size_t trace) const {
    return known && trace < known->size() && !std::isnan((*known)[trace]) ? m_units.text(Quantity::temperature, (*known)[trace]) : QString();
  }

  void pipes(std::size_t i, const std::vector<double>* known) {
    const GroundPipes& pipes = m_plan.groundPipes[i];
    const double r = std::max(pipes.diameter_m / 2.0 * m_g.scale(), 3.0);
    m_p.setPen(outline(Handle::pipes, i));
    m_p.setBrush(colour(known, 3));
    const QPolygonF at = m_g.pipes(i);
    for (const QPointF& q : at) m_p.drawEllipse(q, r, r);
    if (at.isEmpty()) return;
    const QPointF words = pipes.place == PipePlace::underFloor ? (at.front() + at.back()) / 2.0 + QPointF(0, r + 9) : at.front() + QPointF(0, r + 9);
    const QString t = degrees(known, 3);
    say(words, t.isEmpty() ? tr("%Ln pipe(s)", nullptr, static_cast<int>(pipes.count)) : tr("%1, soil %2").arg(tr("%Ln pipe(s)", nullptr, static_cast<int>(pipes.count)), t),
        QColor("#F4EFE6"));
  }

  void pile(std::size_t i, const std::vector<double>* known) {
    const CompostPile& pile = m_plan.compost[i];
    const QRectF r = m_g.pile(i);
    const bool stands = known && !known->empty() && !std::isnan(known->front());
    QPen pen = outline(Handle::pile, i);
    if (known && !stands) pen.setStyle(Qt::DotLine); // not yet built
    m_p.setPen(pen);
    m_p.setBrush(stands ? colour(known, 0) : m_theme.oat);
    const QBrush straw(m_theme.ink, Qt::Dense7Pattern);
    if (pile.place == PilePlace::mound) {
      const QRectF whole(r.left(), r.top(), r.width(), 2.0 * r.height());
      m_p.drawChord(whole, 0, 180 * 16);
      m_p.setPen(Qt::NoPen);
      m_p.setBrush(straw);
      m_p.drawChord(whole, 0, 180 * 16);
    } else {
      m_p.drawRect(r);
      m_p.fillRect(r.adjusted(1, 1, -1, -1), straw);
    }
    if (pile.place == PilePlace::hotBed) {
      const double soil = pile.soil_m * m_g.scale();
      m_p.setPen(QPen(m_theme.ink, 1.0));
      m_p.setBrush(known && known->size() > 1 ? m_theme.warmth((*known)[1]) : m_theme.soilTop);
      m_p.drawRect(QRectF(r.left(), r.top() - soil, r.width(), soil));
    } else if (pile.place == PilePlace::chamber) {
      m_p.setPen(QPen(m_theme.ink, 1.6, Qt::DashLine));
      m_p.setBrush(Qt::NoBrush);
      m_p.drawRect(r.adjusted(-5, -7, 5, 0));
    }
    const QString t = degrees(known, 0);
    const QString name = pile.place == PilePlace::hotBed ? tr("hot bed") : tr("compost");
    if (pile.place == PilePlace::hotBed)
      sayUnder({r.center().x(), r.bottom()}, 11.0, name, t);
    else
      say({r.center().x(), r.bottom() - 9.0}, t.isEmpty() ? name : name + QStringLiteral("  ") + t, m_theme.ink); // under it are the soil's own words
  }

  void tank(std::size_t i, const std::vector<double>* known) {
    const QRectF r = m_g.tank(i);
    m_p.setPen(outline(Handle::tank, i));
    m_p.setBrush(colour(known, 0));
    m_p.drawRoundedRect(r, 3, 3);
    m_p.setPen(QPen(m_theme.ink, 1.0));
    m_p.drawLine(QPointF(r.left() + 3, r.top() + 6), QPointF(r.right() - 3, r.top() + 6));
    sayUnder({r.center().x(), r.bottom()}, 11.0, tr("tank"), degrees(known, 0));
  }

  /// Walls and paths in courses of stones, a raised bed in its boards.
  void mass(std::size_t i, const std::vector<double>* known) {
    const MassBlock& m = m_plan.mass[i];
    const QRectF r = m_g.mass(i);
    m_p.setPen(outline(Handle::mass, i));
    m_p.setBrush(colour(known, 0));
    m_p.drawRect(r);
    m_p.setPen(QPen(m_theme.ink, 0.8));
    if (m.kind == MassKind::raisedBed) {
      constexpr double kBoard_px = 3.0;
      m_p.fillRect(QRectF(r.left(), r.top() - 3, kBoard_px, r.height() + 3), m_theme.ink);
      m_p.fillRect(QRectF(r.right() - kBoard_px, r.top() - 3, kBoard_px, r.height() + 3), m_theme.ink);
    } else {
      constexpr double kCourse_px = 9.0;
      int course = 0;
      for (double y = r.top(); y < r.bottom() - 1.0; y += kCourse_px, ++course) {
        const double next = std::min(y + kCourse_px, r.bottom());
        m_p.drawLine(QPointF(r.left(), next), QPointF(r.right(), next));
        for (double x = r.left() + (course % 2 == 0 ? 1.0 : 0.5) * 2.0 * kCourse_px; x < r.right() - 2.0; x += 2.0 * kCourse_px)
          m_p.drawLine(QPointF(x, y), QPointF(x, next));
      }
    }
    const QString name = m.kind == MassKind::wall    ? tr("wall")
                         : m.kind == MassKind::path  ? tr("path")
                         : m.kind == MassKind::bench ? tr("bench")
                                                     : tr("raised bed");
    sayUnder({r.center().x(), m_g.depthY(0.0) + (m.kind == MassKind::path ? r.height() : 0.0)}, 11.0, name, degrees(known, 0));
  }

  void cable(std::size_t i, const std::vector<double>* known) {
    const QPolygonF at = m_g.cable(i);
    if (at.isEmpty()) return;
    m_p.setPen(outline(Handle::cable, i));
    m_p.setBrush(colour(known, 0));
    for (const QPointF& q : at) m_p.drawEllipse(q, 3.0, 3.0);
    sayUnder((at.front() + at.back()) / 2.0 + QPointF(0, 3), 11.0, tr("cable"), degrees(known, 0));
  }

  QPainter& m_p;
  const SectionGeometry& m_g;
  const Plan& m_plan;
  const std::optional<SectionMoment>& m_moment;
  const Theme& m_theme;
  const Units& m_units;
  Grip m_hovered;
  WordPlaces& m_words;
};

} // namespace

void paintStores(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const std::optional<SectionMoment>& moment, const Theme& theme,
                 const Units& units, Grip hovered, WordPlaces& words) {
  StoresPicture(painter, geometry, plan, moment, theme, units, hovered, words).paint();
}

} // namespace muffle
