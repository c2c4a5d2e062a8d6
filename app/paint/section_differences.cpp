// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/section_differences.h"

#include "app/model/said.h"
#include "app/paint/section_words.h"

#include <QStringList>
#include <QTransform>

namespace muffle {
namespace {

using section::tr;

constexpr double kAbout_px = 5.0; ///< between a thing and the line about it

QPainterPath about(const QRectF& thing) {
  QPainterPath path;
  if (!thing.isEmpty()) path.addRoundedRect(thing.adjusted(-kAbout_px, -kAbout_px, kAbout_px, kAbout_px), kAbout_px, kAbout_px);
  return path;
}

QPainterPath about(const QPolygonF& points) {
  if (points.isEmpty()) return {};
  return about(points.boundingRect().adjusted(-1, -1, 1, 1));
}

/// The cover seen on end: over the eaves, or the walls under them on either side.
QPainterPath cover(const SectionGeometry& g, const HouseShape& shape, bool isRoof, bool hasLeft, bool hasRight) {
  const double eave = g.at(0.0, shape.eave_m).y() + 0.5;
  const QPainterPath& all = g.outline();
  QPainterPath path;
  for (int i = 0; i + 1 < all.elementCount(); ++i) {
    const QPointF from = all.elementAt(i), to = all.elementAt(i + 1);
    const bool isOver = from.y() <= eave && to.y() <= eave;
    if (isOver != isRoof) continue;
    const bool isLeft = from.x() + to.x() < 2.0 * g.at(0.0, 0.0).x();
    if (!isRoof && !(isLeft ? hasLeft : hasRight)) continue;
    if (path.isEmpty() || path.currentPosition() != from) path.moveTo(from);
    path.lineTo(to);
  }
  return path;
}

/// The same within the house, by a share of its size.
QPainterPath within(const QPainterPath& path, const SectionGeometry& g, double share) {
  const QPointF foot = g.at(0.0, 0.0);
  return QTransform().translate(foot.x(), foot.y()).scale(share, share).translate(-foot.x(), -foot.y()).map(path);
}

QPainterPath line(const QPointF& from, const QPointF& to) {
  QPainterPath path(from);
  path.lineTo(to);
  return path;
}

QString inWords(const QStringList& placed, const QStringList& unplaced, bool isAnyDashed, bool isCut) {
  const auto list = [](const QStringList& things) { return things.join(QStringLiteral(", ")); };
  QStringList sentences;
  if (!placed.isEmpty()) sentences << (isAnyDashed ? tr("outlined, and dashed as in the other plan: %1") : tr("outlined, as it differs: %1")).arg(list(placed));
  if (!unplaced.isEmpty()) sentences << (placed.isEmpty() ? tr("what differs: %1") : tr("also: %1")).arg(list(unplaced));
  return sentences.join(QStringLiteral("; ")) + (isCut ? tr(" and more") : QString());
}

} // namespace

QPainterPath outlineOf(PlanPart part, std::size_t index, const SectionGeometry& g, const Plan& plan) {
  const HouseShape& s = plan.house.shape;
  const double half = s.span_m() / 2.0, floor = -s.sunk_m;
  switch (part) {
  case PlanPart::none: break;
  case PlanPart::shape: {
    QPainterPath whole = g.outline();
    whole.closeSubpath();
    return whole;
  }
  case PlanPart::roof: return cover(g, s, true, true, true);
  case PlanPart::sides: return cover(g, s, false, true, !s.hasBackWall());
  case PlanPart::backWall: return cover(g, s, false, false, true);
  case PlanPart::ends: { // which the picture looks at
    QPainterPath face = g.outline();
    face.closeSubpath();
    return within(face, g, 0.9);
  }
  case PlanPart::blanket: return within(cover(g, s, true, true, true), g, 0.95);
  case PlanPart::ceiling: return line(g.at(-half, s.eave_m), g.at(half, s.eave_m));
  case PlanPart::floorCover: return line(g.at(-half, floor) + QPointF(0, 3), g.at(half, floor) + QPointF(0, 3));
  case PlanPart::skirt: {
    QPainterPath both;
    for (const double x_m : {-half, half}) {
      const double x = g.at(x_m, 0.0).x();
      both.addPath(line({x, g.depthY(0.0)}, {x, g.depthY(plan.house.floor.edgeDepth_m)}));
    }
    return both;
  }
  case PlanPart::bedCover: {
    const QRectF whole = g.bedCoverRect(index);
    return about(QRectF(whole.topLeft(), QSizeF(whole.width(), whole.height() / 2.0)));
  }
  case PlanPart::barrels: return about(g.barrelsRect(index));
  case PlanPart::groundPipes: return about(g.pipes(index));
  case PlanPart::compost: return about(g.pile(index));
  case PlanPart::waterLoop: return about(g.tank(index));
  case PlanPart::soilCable: return about(g.cable(index));
  case PlanPart::mass: return about(g.mass(index));
  case PlanPart::heater: return about(g.heater(index));
  }
  return {};
}

void paintDifferences(QPainter& p, const SectionGeometry& geometry, const Plan& plan, const Plan& other, const std::vector<PlanDifference>& rows,
                      double clearOf_px, const Units& units) {
  if (rows.empty()) return;
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setBrush(Qt::NoBrush);
  const SectionGeometry there(other, geometry.area());
  const QPointF to = geometry.at(0.0, 0.0), from = there.at(0.0, 0.0);
  const double ratio = geometry.scale() / there.scale(); // the other house in the scale of this one
  const QTransform here = QTransform().translate(to.x(), to.y()).scale(ratio, ratio).translate(-from.x(), -from.y());
  const auto draw = [&](const QPainterPath& path, Qt::PenStyle style) {
    p.setPen(QPen(QColor(20, 24, 28, 170), 5.0, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin)); // to be seen on sky, air and soil alike
    if (style == Qt::SolidLine) p.drawPath(path);
    QPen pen(Theme::lamp().weld, 2.4, style, style == Qt::SolidLine ? Qt::RoundCap : Qt::FlatCap, Qt::RoundJoin);
    p.setPen(pen);
    p.drawPath(path);
  };
  QStringList placed, unplaced;
  bool isAnyDashed = false;
  for (const PlanDifference& row : rows) {
    const QPainterPath mine = row.inOne ? outlineOf(row.part, *row.inOne, geometry, plan) : QPainterPath();
    const QPainterPath its = row.inOther ? here.map(outlineOf(row.part, *row.inOther, there, other)) : QPainterPath();
    (mine.isEmpty() && its.isEmpty() ? unplaced : placed) << said(row.what, units);
    if (!its.isEmpty() && its.boundingRect() != mine.boundingRect()) {
      draw(its, Qt::DashLine);
      isAnyDashed = true;
    }
    if (!mine.isEmpty()) draw(mine, Qt::SolidLine);
  }
  p.setFont(textFont(8.5));
  const QRectF area = geometry.area();
  const QRectF most(area.left() + 12, area.bottom() - 160, area.width() - 36 - clearOf_px, 150);
  constexpr int kHow = Qt::TextWordWrap | Qt::AlignLeft;
  QString words;
  QRectF box;
  for (bool isCut = false;; isCut = true) { // two lines: what lies in the soil is to be seen
    words = inWords(placed, unplaced, isAnyDashed, isCut);
    box = p.fontMetrics().boundingRect(most.toRect(), kHow, words);
    QStringList& longer = placed.size() > unplaced.size() ? placed : unplaced;
    if (box.height() <= 2.2 * p.fontMetrics().lineSpacing() || longer.size() < 2) break;
    longer.removeLast();
  }
  box.moveBottom(area.bottom() - 12);
  p.fillRect(box.adjusted(-5, -3, 5, 3), QColor(20, 24, 28, 190));
  p.setPen(Theme::lamp().weld);
  p.drawText(box, kHow, words);
  p.restore();
}

} // namespace muffle
