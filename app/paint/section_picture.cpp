// SPDX-License-Identifier: GPL-3.0-or-later
//
// The picture of the cross-section, part by part from the sky down.
#include "app/paint/section.h"
#include "app/paint/section_heaters.h"
#include "app/paint/section_stores.h"
#include "app/paint/section_words.h"
#include "app/paint/word_places.h"

#include "core/assemble/assemble.h"
#include "core/plan/heaters.h"

#include <QCoreApplication>
#include <QStringList>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kLeastShown_W = 20.0; ///< of a ribbon
constexpr double kRoomy_px = 130.0;    ///< a house drawn lower than this has its words beside it
using section::tr;

/// A ribbon along a curve whose width is watts.
void ribbon(QPainter& p, QPointF from, QPointF to, double bend, double width, const QColor& colour) {
  const QPointF middle = (from + to) / 2.0;
  const QPointF across(-(to.y() - from.y()), to.x() - from.x());
  QPainterPath path(from);
  path.quadTo(middle + across * bend, to);
  // the tip grows out of the band's end
  const QPointF bendPoint = middle + across * bend;
  const double direction = std::atan2(to.y() - bendPoint.y(), to.x() - bendPoint.x());
  const double tipLength = std::max(width * 0.8, 6.0);
  p.setPen(QPen(colour, width, Qt::SolidLine, Qt::FlatCap));
  p.setBrush(Qt::NoBrush);
  p.drawPath(path);
  // the head says which way the heat goes, without relying on colour
  const QPointF along(std::cos(direction), std::sin(direction)), aside(-along.y(), along.x());
  const double half = std::max(width * 0.85, 5.0);
  p.setPen(Qt::NoPen);
  p.setBrush(colour);
  p.drawPolygon(QPolygonF{to + aside * half - along, to + along * tipLength, to - aside * half - along});
}

QColor blend(const QColor& a, const QColor& b, double share) {
  return {static_cast<int>(a.red() + (b.red() - a.red()) * share), static_cast<int>(a.green() + (b.green() - a.green()) * share),
          static_cast<int>(a.blue() + (b.blue() - a.blue()) * share)};
}

const QColor kOnSky("#F4EFE6");
const QColor kSheet("#E6EEF2");

class SectionPicture {
public:
  SectionPicture(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const std::optional<SectionMoment>& moment, const Theme& theme,
                 const Units& units, Grip hovered)
      : m_p(painter), m_g(geometry), m_plan(plan), m_shape(plan.house.shape), m_moment(moment), m_theme(theme), m_units(units), m_hovered(hovered),
        m_area(geometry.area()), m_half_m(m_shape.span_m() / 2.0), m_soilTop(m_g.at(0, -m_shape.sunk_m).y()), m_centre(m_g.at(0.0, m_shape.ridge_m * 0.42)),
        m_words(m_area, m_soilTop) {
    m_inkOnAir = inkOn(moment ? theme.warmth(moment->air_C) : theme.wool);
  }

  void paint(const QString& title, const QString& subtitle) {
    sky();
    soil();
    keepSoilClear();
    house();
    roofVoid();
    backWall();
    openings();
    bedCovers();
    barrels();
    paintStores(m_p, m_g, m_plan, m_moment, m_theme, m_units, m_hovered, m_words);
    paintHeaters(m_p, m_g, m_plan, m_theme, m_hovered, m_words);
    if (m_moment) {
      dew();
      airWords();
      ribbons();
    }
    handles();
    words(title, subtitle);
  }

private:
  [[nodiscard]] bool isRoomy() const { return m_shape.ridge_m * m_g.scale() > kRoomy_px; }
  [[nodiscard]] QString degrees(double t_C) const { return m_units.text(Quantity::temperature, t_C); }
  void say(const QPointF& at, const QString& text, const QFont& font, const QColor& colour, Qt::Alignment align) {
    m_words.say(m_p, at, text, font, colour, align, m_area);
  }

  /// Of the air or a loss; it gives way to those said before.
  void sayOnSky(const QPointF& at, const QString& text, const QFont& font, Qt::Alignment align) {
    m_words.sayApart(m_p, at, text, font, kOnSky, align, m_area);
  }

  /// No word is to stand on what is drawn in the soil.
  void keepSoilClear() {
    if (m_moment && std::abs(m_moment->loss_W[static_cast<std::size_t>(LossPath::deepGround)]) >= kLeastShown_W) {
      const auto all = ways();
      const auto way = std::find_if(all.begin(), all.end(), [](const Way& w) { return w.part == LossPath::deepGround; });
      m_words.keepClear(QRectF(way->in, way->out).normalized().adjusted(-6, 0, 6, 8));
    }
    constexpr double kAbout_px = 4.0;
    const auto keep = [&](const QPolygonF& points) {
      if (!points.isEmpty()) m_words.keepClear(points.boundingRect().adjusted(-kAbout_px, -kAbout_px, kAbout_px, kAbout_px));
    };
    for (std::size_t i = 0; i < m_plan.groundPipes.size(); ++i) keep(m_g.pipes(i));
    for (std::size_t i = 0; i < m_plan.soilCables.size(); ++i) keep(m_g.cable(i));
    for (std::size_t i = 0; i < m_plan.mass.size(); ++i)
      if (m_plan.mass[i].kind == MassKind::path) m_words.keepClear(m_g.mass(i));
  }

  /// By the light there is, never quite black.
  void sky() {
    const double light = m_moment ? std::clamp(m_moment->sun_W_m2 / 350.0, 0.0, 1.0) : 0.15;
    const QColor day = m_theme.dark ? QColor("#54707F") : QColor("#A9C0CC");
    QLinearGradient sky(m_area.topLeft(), QPointF(m_area.left(), m_g.ground()));
    sky.setColorAt(0, blend(m_theme.skyNight, day, light * 0.8));
    sky.setColorAt(1, blend(m_theme.skyDusk, day, light));
    m_p.fillRect(QRectF(m_area.left(), m_area.top(), m_area.width(), m_g.ground() - m_area.top()), sky);
  }

  /// In layers, each in its own temperature; a sunk floor has its soil under it.
  void soil() {
    const double height = std::max(m_area.bottom() - m_soilTop, 40.0);
    if (m_soilTop > m_g.ground()) m_p.fillRect(QRectF(m_area.left(), m_g.ground(), m_area.width(), m_soilTop - m_g.ground() + 1), m_theme.soilTop);
    if (!m_moment || m_moment->soil_C.size() <= 1) {
      m_p.fillRect(QRectF(m_area.left(), m_soilTop, m_area.width(), height), m_theme.soilTop);
      return;
    }
    const auto& depth_m = m_moment->soilDepth_m;
    const double shown_m = m_g.shownDepth_m();
    for (std::size_t i = 0; i < m_moment->soil_C.size(); ++i) {
      const double from = i == 0 ? 0.0 : 0.5 * (depth_m[i - 1] + depth_m[i]);
      const double to = i + 1 < m_moment->soil_C.size() ? 0.5 * (depth_m[i] + depth_m[i + 1]) : shown_m;
      const QColor earth = blend(m_theme.soilTop, m_theme.soilDeep, from / shown_m);
      m_p.fillRect(QRectF(m_area.left(), m_soilTop + height * from / shown_m, m_area.width(), height * (to - from) / shown_m + 1),
                   blend(earth, m_theme.warmth(m_moment->soil_C[i]), 0.28));
    }
    for (const double depth : {0.06, 0.28, 0.80}) {
      std::size_t best = 0;
      for (std::size_t i = 0; i < depth_m.size(); ++i)
        if (std::abs(depth_m[i] - depth) < std::abs(depth_m[best] - depth)) best = i;
      say({m_area.left() + 12, m_soilTop + std::max(height * depth_m[best] / shown_m, 12.0)},
          tr("soil %1 deep  %2").arg(m_units.text(Quantity::length, depth_m[best]), degrees(m_moment->soil_C[best])), textFont(8.5), kOnSky, Qt::AlignLeft);
    }
  }

  /// The outline drawn in by so many pixels.
  [[nodiscard]] QPainterPath inset(double px) const {
    const double shrink = 1.0 - px / (m_half_m * m_g.scale());
    QTransform t;
    t.translate(m_centre.x(), m_g.ground());
    t.scale(shrink, shrink);
    t.translate(-m_centre.x(), -m_g.ground());
    return t.map(m_g.outline());
  }

  void house() {
    QPainterPath closed = m_g.outline();
    closed.closeSubpath();
    if (m_shape.sunk_m > 0.0) closed.addRect(QRectF(m_g.at(-m_half_m, 0.0), m_g.at(m_half_m, -m_shape.sunk_m)));
    m_p.setPen(Qt::NoPen);
    m_p.setBrush(m_moment ? m_theme.warmth(m_moment->air_C) : m_theme.wool);
    m_p.setOpacity(0.93);
    m_p.drawPath(closed);
    m_p.setOpacity(1.0);
    const auto& layers = m_plan.house.roof.layers;
    for (std::size_t l = 0; l < layers.size() + (m_plan.house.blanket ? 1 : 0); ++l) {
      const bool blanket = l == layers.size();
      QPen pen(blanket ? m_theme.lichen : kSheet, blanket ? 3.0 : l == 0 ? 3.0 : 1.6);
      if (m_moment && m_moment->roofOpen && !blanket) pen.setStyle(Qt::DotLine);
      if (blanket && !(m_moment && m_moment->blanketClosed)) pen.setStyle(Qt::DotLine);
      m_p.setPen(pen);
      m_p.setBrush(Qt::NoBrush);
      m_p.drawPath(inset(static_cast<double>(l) * 6.0 + (blanket ? 3.0 : 0.0)));
    }
    m_p.setPen(QPen(m_theme.ink, 1.2));
    const double floor = -m_shape.sunk_m;
    if (m_shape.sunk_m > 0.0) m_p.drawPolyline(QPolygonF{m_g.at(-m_half_m, 0), m_g.at(-m_half_m, floor), m_g.at(m_half_m, floor), m_g.at(m_half_m, 0)});
    m_p.drawLine(m_g.at(-m_half_m, floor), m_g.at(m_half_m, floor));
    m_p.setPen(QPen(m_theme.ink, 1.2, Qt::DashLine)); // posts under the gutters
    for (int bay = 1; bay < m_shape.bays; ++bay)
      m_p.drawLine(m_g.at(-m_half_m + bay * m_shape.width_m, floor), m_g.at(-m_half_m + bay * m_shape.width_m, m_shape.eave_m));
  }

  /// The air over the ceiling in its own colour, and the ceiling at the eaves.
  void roofVoid() {
    if (!m_plan.house.roofVoid) return;
    const double eave = m_g.at(0, m_shape.eave_m).y();
    m_p.save();
    m_p.setClipRect(QRectF(m_area.left(), m_area.top(), m_area.width(), eave - m_area.top()), Qt::IntersectClip);
    const RoomMoment* const known = m_moment ? m_moment->room(RoomKind::roofVoid) : nullptr;
    QPainterPath roof = inset(6.0 * static_cast<double>(m_plan.house.roof.layers.size() - 1) + 1.5);
    roof.closeSubpath();
    m_p.setPen(Qt::NoPen);
    m_p.setBrush(known ? m_theme.warmth(known->air_C) : m_theme.wool);
    m_p.drawPath(roof);
    m_p.restore();
    m_p.setPen(QPen(kSheet, 2.0, Qt::DashDotLine));
    m_p.drawLine(m_g.at(-m_half_m, m_shape.eave_m), m_g.at(m_half_m, m_shape.eave_m));
    if (known)
      say({m_centre.x(), eave - 0.3 * m_shape.rise_m() * m_g.scale()}, tr("over the ceiling %1").arg(degrees(known->air_C)), textFont(9, true),
          inkOn(m_theme.warmth(known->air_C)), Qt::AlignHCenter);
  }

  /// A flap at the ridge as far open as the vents, sides rolled up from the foot, and words for what stands open.
  void openings() {
    if (!m_moment) return;
    constexpr double kShut = 0.02;
    QStringList said;
    if (m_moment->roofOpen) said << tr("roof drawn back");
    if (m_moment->vents > kShut) {
      said << tr("vents %1 % open").arg(std::lround(100.0 * m_moment->vents));
      const QPointF ridge = m_g.handle(Handle::ridge);
      const double flap = 26.0, angle = 0.25 + 0.6 * m_moment->vents;
      m_p.setPen(QPen(kSheet, 3.0, Qt::SolidLine, Qt::RoundCap));
      m_p.drawLine(ridge + QPointF(8, 1), ridge + QPointF(8 + flap * std::cos(angle), 1 - flap * std::sin(angle)));
    }
    if (const auto& sides = m_plan.house.rollUp; sides && m_moment->rolled > kShut) {
      said << tr("sides %1 % up").arg(std::lround(100.0 * m_moment->rolled));
      for (const double side : {-1.0, 1.0}) {
        const QPointF foot = m_g.at(side * m_half_m, 0.0), top = m_g.at(side * m_half_m, sides->height_m * m_moment->rolled);
        m_p.setPen(QPen(m_moment ? m_theme.warmth(m_moment->air_C) : m_theme.wool, 5.0, Qt::SolidLine, Qt::FlatCap));
        m_p.drawLine(foot, top);
        m_p.setPen(QPen(kSheet, 2.0));
        m_p.setBrush(kSheet);
        m_p.drawEllipse(top, 4.0, 4.0); // the roll
      }
    }
    if (!said.isEmpty()) say({m_area.left() + 12, m_soilTop - 10.0}, said.join(QStringLiteral(" · ")), textFont(9, true), kOnSky, Qt::AlignLeft);
  }

  /// Hatched like masonry, whatever it is made of.
  void backWall() {
    if (!m_shape.hasBackWall()) return;
    const QRectF wall(m_g.at(m_half_m, m_shape.ridge_m), m_g.at(m_half_m, -m_shape.sunk_m) + QPointF(std::max(0.3 * m_g.scale(), 8.0), 0.0));
    m_p.setPen(QPen(m_theme.ink, 1.2));
    m_p.setBrush(m_theme.soilDeep);
    m_p.drawRect(wall);
    m_p.setBrush(QBrush(QColor("#E9E4DA"), Qt::BDiagPattern));
    m_p.drawRect(wall);
  }

  /// Each kind once; the count is said.
  void bedCovers() {
    for (std::size_t b = 0; b < m_plan.house.bedCovers.size(); ++b) {
      const QRectF r = m_g.bedCoverRect(b);
      const RoomMoment* const known = m_moment ? m_moment->room(RoomKind::bed, b) : nullptr;
      m_p.setPen(QPen(kSheet, 2.2, Qt::DashLine));
      m_p.setBrush(known ? m_theme.warmth(known->air_C) : m_theme.wool);
      m_p.drawChord(r, 0, 180 * 16);
      if (!known) continue;
      const int count = m_plan.house.bedCovers[b].count;
      const QString warmth = degrees(known->air_C);
      const QString said = count > 1 ? tr("%Ln cover(s)  %1", nullptr, static_cast<int>(count)).arg(warmth) : tr("cover  %1").arg(warmth);
      m_words.sayOf(m_p, r.center(), r.center() + QPointF(0, 11), said, warmth, textFont(9, true), kOnSky, m_area); // in the soil, clear of the air's words
    }
  }

  /// They stand in rows along the house; one is seen, the count is said.
  void barrels() {
    for (std::size_t b = 0; b < m_plan.barrels.size(); ++b) {
      const QRectF r = m_g.barrelsRect(b);
      const Barrels& group = m_plan.barrels[b];
      const bool lit = m_hovered == Grip(Handle::barrels, b);
      m_p.setPen(QPen(lit ? m_theme.weld : m_theme.ink, lit ? 2.5 : 1.2));
      m_p.setBrush(group.colour == BarrelColour::white  ? QColor("#E9E4DA")
                   : group.colour == BarrelColour::bare ? QColor("#A8A8A2")
                   : group.colour == BarrelColour::blue ? m_theme.woad
                                                        : QColor("#3A3430"));
      m_p.drawRoundedRect(r, 4, 4);
      const auto known = m_moment ? m_moment->barrels_C(b) : std::nullopt;
      if (known) {
        m_p.setPen(Qt::NoPen);
        m_p.setBrush(m_theme.warmth(*known));
        m_p.drawRect(r.adjusted(4, r.height() * 0.16, -4, -5));
      }
      m_p.setPen(QPen(m_theme.ink, 0.8));
      for (const double y : {0.33, 0.66}) m_p.drawLine(QPointF(r.left(), r.top() + r.height() * y), QPointF(r.right(), r.top() + r.height() * y));
      const QString barrels = QObject::tr("%Ln barrel(s)", nullptr, static_cast<int>(group.count));
      const QString text = known ? barrels + QStringLiteral("  ") + degrees(*known) : barrels;
      m_words.sayOf(m_p, {r.center().x(), r.bottom()}, {r.center().x(), r.bottom() + 11.0}, text, known ? degrees(*known) : QString(), textFont(9, true),
                    kOnSky, QRectF(m_g.at(-m_half_m, 1), m_g.at(m_half_m, 0))); // in the soil, clear of the air's words
    }
  }

  /// Drops on the inside of the faces where the air's vapour condenses now.
  void dew() {
    const bool roof = m_moment->dewOn[static_cast<std::size_t>(FaceGroup::roof)];
    const bool sides = m_moment->dewOn[static_cast<std::size_t>(FaceGroup::sides)];
    if (!roof && !sides) return;
    const double layers = static_cast<double>(m_plan.house.roof.layers.size() + (m_moment->blanketClosed ? 1 : 0));
    const QPainterPath line = inset(5.0 + 6.0 * layers);
    const double eave = m_g.at(0, m_shape.eave_m).y();
    m_p.setPen(QPen(QColor("#FBF7F0"), 0.8));
    m_p.setBrush(m_theme.woad);
    constexpr double kApart_px = 17.0;
    for (double along = kApart_px / 2.0; along < line.length(); along += kApart_px) {
      const QPointF at = line.pointAtPercent(line.percentAtLength(along));
      if (at.y() > m_g.ground() - 6.0 || !(at.y() < eave ? roof : sides)) continue;
      QPainterPath drop(at - QPointF(0, 4));
      drop.quadTo(at + QPointF(3.4, 1.5), at + QPointF(0, 4));
      drop.quadTo(at + QPointF(-3.4, 1.5), at - QPointF(0, 4));
      m_p.drawPath(drop);
    }
  }

  /// Nothing is drawn where the words of the air would stand, with so many lines left out below.
  [[nodiscard]] bool standsClear(const QString& air, int leftOut) const {
    const double half = QFontMetricsF(textFont(9)).horizontalAdvance(air) / 2.0;
    const QRectF words(m_centre + QPointF(-half, -28.0), m_centre + QPointF(half, 57.0 - 17.0 * leftOut));
    const auto covers = [&](const QRectF& drawn) { return drawn.intersects(words); };
    for (std::size_t i = 0; i < m_plan.barrels.size(); ++i)
      if (covers(m_g.barrelsRect(i))) return false;
    for (std::size_t i = 0; i < m_plan.compost.size(); ++i)
      if (m_plan.compost[i].place == PilePlace::hotBed && covers(m_g.pile(i).adjusted(0, -m_plan.compost[i].soil_m * m_g.scale(), 0, 0))) return false;
    for (std::size_t i = 0; i < m_plan.waterLoops.size(); ++i)
      if (covers(m_g.tank(i))) return false;
    for (std::size_t i = 0; i < m_plan.mass.size(); ++i)
      if (covers(m_g.mass(i))) return false;
    for (std::size_t i = 0; i < m_plan.heaters.size(); ++i) {
      QRectF drawn = m_g.heater(i);
      if (!drawn.isEmpty() && factsOf(m_plan.heaters[i].kind).hasFlue && standOf(m_plan.heaters[i].kind) == HeaterStand::floor) drawn.setTop(m_area.top());
      if (covers(drawn)) return false;
    }
    return true;
  }

  void airWords() {
    const QString humidity = tr("%1 % humid").arg(static_cast<int>(std::round(100.0 * m_moment->humidity)));
    const QString leaves = m_moment->leafWet ? tr("dew on the leaves") : QString();
    const QString heating = m_moment->heater_W > 1.0
                                ? (countOfRoomHeaters(m_plan) > 1 ? tr("heaters %1") : tr("heater %1")).arg(m_units.text(Quantity::power, m_moment->heater_W))
                                : QString();
    const QString air = tr("house air") + QStringLiteral(" · ") + humidity;
    if (isRoomy() && standsClear(air, heating.isEmpty() + leaves.isEmpty())) {
      say(m_centre - QPointF(0, 12), degrees(m_moment->air_C), textFont(22, true), m_inkOnAir, Qt::AlignHCenter);
      say(m_centre + QPointF(0, 14), air, textFont(9), m_inkOnAir, Qt::AlignHCenter);
      double y = 32.0;
      for (const QString& line : {heating, leaves}) {
        if (line.isEmpty()) continue;
        say(m_centre + QPointF(0, y), line, textFont(9, true), m_inkOnAir, Qt::AlignHCenter);
        y += 17.0;
      }
      return;
    }
    // a low house, thick skins or stores in the way: in the sky under the heading, where nothing else stands
    const double x = m_area.left() + 12;
    const double y = m_area.top() + 62.0 + 18.0 * static_cast<double>(endRooms().size());
    sayOnSky({x, y}, tr("house air %1 · %2").arg(degrees(m_moment->air_C), humidity), textFont(12, true), Qt::AlignLeft);
    const QString second = heating + (heating.isEmpty() || leaves.isEmpty() ? QString() : QStringLiteral(" · ")) + leaves;
    if (!second.isEmpty()) sayOnSky({x, y + 18}, second, textFont(9, true), Qt::AlignLeft);
  }

  struct Way {
    LossPath part;
    QPointF in, out;
    double bend;
    QPointF text;
    Qt::Alignment align;
    QString name;
  };

  /// Where each part's ribbon runs.
  [[nodiscard]] std::vector<Way> ways() const {
    const HouseShape& s = m_shape;
    const bool wall = s.hasBackWall();
    const double roofHeight = wall ? (s.eave_m + s.ridge_m) / 2 : s.bays % 2 == 0 ? s.eave_m + 0.72 * s.rise_m() : s.ridge_m - 0.02 * s.width_m;
    const QPointF ridge = m_g.at(wall ? 0.0 : -0.12 * s.width_m, roofHeight);
    const QPointF left = m_g.at(-m_half_m, s.eave_m * 0.55);
    const QPointF right = m_g.at(m_half_m * (wall ? 1.0 : 0.88), s.eave_m + 0.34 * s.rise_m());
    const QPointF rightLow = m_g.at(m_half_m, s.eave_m * 0.45);
    const QPointF back = m_g.at(m_half_m, s.ridge_m * 0.5);
    const QPointF edge = m_g.at(m_half_m * 0.96, -s.sunk_m - 0.02);
    const QPointF floor = m_g.at(m_half_m * (isRoomy() ? 0.1 : 0.55), -s.sunk_m - 0.02);
    const QPointF slope = m_g.at(-0.55 * m_half_m, s.eave_m + 0.225 * s.rise_m()); // on the roof of a house with a back wall
    return {
        {LossPath::roof, ridge + QPointF(0, 14), ridge - QPointF(-6, 34), 0.15, wall ? ridge + QPointF(-24, -40) : ridge + QPointF(28, -34),
         wall ? Qt::AlignRight : Qt::AlignLeft, tr("roof")},
        {LossPath::sides, left + QPointF(10, 0), left - QPointF(36, 16), -0.2, left - QPointF(58, 42), Qt::AlignHCenter, tr("sides")},
        wall ? Way{LossPath::draughts, slope + QPointF(4, 8), slope + QPointF(-30, -30), -0.2, slope + QPointF(-50, -50), Qt::AlignHCenter, tr("draughts")}
             : Way{LossPath::draughts, right, right + QPointF(34, -24), 0.2, right + QPointF(48, -48), Qt::AlignHCenter, tr("draughts")},
        {LossPath::ends, rightLow - QPointF(10, 0), rightLow + QPointF(36, -16), 0.2, rightLow + QPointF(56, -40), Qt::AlignHCenter, tr("ends")},
        {LossPath::backWall, back - QPointF(10, 0), back + QPointF(46, -4), 0.1, back + QPointF(60, -26), Qt::AlignHCenter, tr("back wall")},
        {LossPath::floorEdge, edge + QPointF(0, 8), edge + QPointF(26, 36), -0.2, edge + QPointF(48, 58), Qt::AlignHCenter, tr("floor edge")},
        {LossPath::deepGround, floor + QPointF(0, 22), floor + QPointF(0, 68), 0.0, floor + QPointF(-12, 62), Qt::AlignRight, tr("deep ground")},
    };
  }

  /// The widest is 26 px and the rest in proportion to it; heat coming in is lichen and points inwards.
  void ribbons() {
    double widest = 500.0;
    for (const double w : m_moment->loss_W) widest = std::max(widest, std::abs(w));
    for (const Way& way : ways()) {
      const double w = m_moment->loss_W[static_cast<std::size_t>(way.part)];
      if (std::abs(w) < kLeastShown_W) continue;
      const double width = std::max(2.5, 26.0 * std::abs(w) / widest);
      if (w > 0)
        ribbon(m_p, way.in, way.out, way.bend, width, m_theme.dark ? QColor("#C25A48") : m_theme.madder);
      else
        ribbon(m_p, way.out, way.in, -way.bend, width, m_theme.dark ? m_theme.lichen : QColor("#8FA862"));
      sayOnSky(overPiles(way.text), way.name + QStringLiteral(" ") + m_units.text(Quantity::power, std::abs(w)), textFont(9, true), way.align);
      if (way.part == LossPath::roof) radiantLoss(way);
    }
    if (const double w = m_moment->loss_W[static_cast<std::size_t>(LossPath::vents)]; w > 20.0)
      sayOnSky(m_g.at(0, m_shape.ridge_m) + QPointF(-10, -58), tr("vents %1").arg(m_units.text(Quantity::power, w)), textFont(9, true), Qt::AlignRight);
  }

  /// Words that a pile beside the house would stand behind go above it.
  [[nodiscard]] QPointF overPiles(QPointF at) const {
    constexpr double kLine_px = 12.0;
    for (std::size_t i = 0; i < m_plan.compost.size(); ++i) {
      if (m_plan.compost[i].place == PilePlace::hotBed) continue;
      const QRectF pile = m_g.pile(i);
      if (pile.adjusted(-kLine_px, -kLine_px, kLine_px, 0).contains(at)) at.setY(pile.top() - kLine_px);
    }
    return at;
  }

  /// What of all losses goes to the sky as radiation: wavelets above the cover, and its share in words.
  void radiantLoss(const Way& roof) {
    if (m_moment->sky_W < 20.0) return;
    double lost = 0.0;
    for (const double w : m_moment->loss_W) lost += std::max(w, 0.0);
    m_p.setBrush(Qt::NoBrush);
    m_p.setPen(QPen(kOnSky, 1.3));
    const int wavelets = std::clamp(static_cast<int>(std::round(8.0 * m_moment->sky_W / std::max(lost, 1.0))), 1, 6);
    for (int k = 0; k < wavelets; ++k) {
      const double share = (k + 0.5) / wavelets;
      const QPointF foot = m_g.outline().pointAtPercent(0.30 + 0.40 * share) - QPointF(0, 7);
      const bool underWords = roof.align == Qt::AlignLeft ? foot.x() > roof.text.x() - 8.0 && foot.x() < roof.text.x() + 80.0
                                                          : foot.x() < roof.text.x() + 8.0 && foot.x() > roof.text.x() - 80.0;
      if (underWords || std::abs(foot.x() - roof.out.x()) < 22.0) continue; // or where the roof's ribbon is
      QPainterPath wave(foot);
      for (int part = 0; part < 3; ++part) {
        const QPointF from = foot - QPointF(0, 8.0 * part);
        wave.quadTo(from + QPointF(part % 2 == 0 ? 5 : -5, -4), from - QPointF(0, 8));
      }
      m_p.drawPath(wave);
    }
    sayOnSky(roof.text - QPointF(0, 16), tr("to the sky by radiation %1").arg(m_units.text(Quantity::power, m_moment->sky_W)), textFont(9), roof.align);
  }

  /// Rings, larger under the pointer.
  void handles() {
    for (const Handle h : {Handle::ridge, Handle::eave, Handle::width}) {
      m_p.setPen(QPen(m_theme.weld, 2));
      m_p.setBrush(m_hovered == h ? m_theme.weld : QColor("#2D241E"));
      const double radius = m_hovered == h ? 7.0 : 4.5;
      m_p.drawEllipse(m_g.handle(h), radius, radius);
    }
  }

  /// Over as many lines as it takes, broken at its dots.
  static QStringList broken(const QString& text, const QFont& font, double width) {
    const QString dot = QStringLiteral(" \u00B7 ");
    QStringList lines;
    for (const QString& part : text.split(dot)) {
      if (!lines.isEmpty() && QFontMetricsF(font).horizontalAdvance(lines.back() + dot + part) <= width)
        lines.back() += dot + part;
      else
        lines << part;
    }
    return lines;
  }

  void words(const QString& title, const QString& subtitle) {
    const double x = m_area.left() + 12;
    say({x, m_area.top() + 20}, title, titleFont(11), kOnSky, Qt::AlignLeft);
    double y = m_area.top() + 40;
    for (const QString& line : broken(subtitle, textFont(9), m_area.width() - 24)) {
      say({x, y}, line, textFont(9), kOnSky, Qt::AlignLeft);
      y += 18;
    }
    for (const RoomMoment* r : endRooms()) {
      const QString said = r->room.kind == RoomKind::lobby ? tr("lobby at the other end %1 · %2 % humid") : tr("warm bay at the end %1 · %2 % humid");
      say({x, y}, said.arg(degrees(r->air_C)).arg(static_cast<int>(std::round(100.0 * r->humidity))), textFont(9, true), kOnSky, Qt::AlignLeft);
      y += 18;
    }
  }

  /// Rooms that lie behind or before this section.
  [[nodiscard]] std::vector<const RoomMoment*> endRooms() const {
    std::vector<const RoomMoment*> rooms;
    for (const RoomKind kind : {RoomKind::bay, RoomKind::lobby})
      if (const RoomMoment* r = m_moment ? m_moment->room(kind) : nullptr) rooms.push_back(r);
    return rooms;
  }

  QPainter& m_p;
  const SectionGeometry& m_g;
  const Plan& m_plan;
  const HouseShape& m_shape;
  const std::optional<SectionMoment>& m_moment;
  const Theme& m_theme;
  const Units& m_units;
  Grip m_hovered;
  QRectF m_area;
  double m_half_m;
  double m_soilTop;
  QPointF m_centre;
  WordPlaces m_words;
  QColor m_inkOnAir; ///< light or dark, whichever can be read
};

} // namespace

void paintSection(QPainter& p, const SectionGeometry& g, const Plan& plan, const std::optional<SectionMoment>& moment, const QString& title,
                  const QString& subtitle, const Theme& theme, const Units& units, Grip hovered) {
  p.save();
  p.setClipRect(g.area());
  p.setRenderHint(QPainter::Antialiasing);
  SectionPicture(p, g, plan, moment, theme, units, hovered).paint(title, subtitle);
  p.restore();
}

} // namespace muffle
