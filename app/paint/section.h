// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cross-section drawn to scale from the model: geometry in pixels (for painting, hit tests and drags alike) and the
// picture itself. Pixels are device-independent; y grows downwards.
#pragma once

#include "app/model/units.h"
#include "app/paint/theme.h"
#include "core/plan/plan.h"
#include "core/plan/store_list.h"
#include "core/simulate/simulate.h"

#include <QPainter>
#include <QPainterPath>
#include <QPolygonF>
#include <QRectF>

#include <optional>
#include <vector>

namespace muffle {

/// The air of a room other than the house; humidity relative, 0..1.
struct RoomMoment {
  OtherRoom room;
  double air_C = 0.0, humidity = 0.0;
};

/// What the section shows at one moment; without a result only the house is drawn.
struct SectionMoment {
  double outside_C = 0, sky_C = 0, wind_m_s = 0, sun_W_m2 = 0, cloud = 0;
  double air_C = 0, heater_W = 0;
  std::vector<double> soil_C, soilDepth_m;
  std::vector<std::vector<double>> stores_C; ///< as storesOf() and storeTraces() list them, barrels first
  std::vector<RoomMoment> rooms;             ///< as otherRooms() lists them
  /// What a group of barrels holds; nothing if it is not known.
  [[nodiscard]] std::optional<double> barrels_C(std::size_t group) const {
    return group < stores_C.size() && !stores_C[group].empty() ? std::optional(stores_C[group].front()) : std::nullopt;
  }
  [[nodiscard]] const RoomMoment* room(RoomKind kind, std::size_t bed = 0) const;
  std::array<double, kLossPathCount> loss_W{};
  bool blanketClosed = false;
  double vents = 0, rolled = 0; ///< how far they are open, 0..1
  bool roofOpen = false;        ///< drawn back
  double humidity = 0;          ///< of the house's air, relative, 0..1
  std::array<bool, 3> dewOn{};  ///< roof, sides, ends: vapour condenses on the inside
  bool leafWet = false;
  double sky_W = 0; ///< radiated to the sky
};

enum class Handle { none, ridge, eave, width, barrels, pipes, pile, tank, mass, cable, heater };

/// Where a kind of heater has its place in the picture.
enum class HeaterStand { floor, foot, roof, outside };
[[nodiscard]] HeaterStand standOf(HeaterKind kind);

/// What the pointer has hold of: a part of the house, one of the stores of a kind, or a heater of the plan.
struct Grip {
  Handle what = Handle::none;
  std::size_t store = 0;
  Grip() = default;
  Grip(Handle handle, std::size_t index = 0) : what(handle), store(index) {}
  bool operator==(const Grip&) const = default;
};

/// Where a wall, a path or a raised bed stands, seen on end: its middle from the house's middle, and its size.
struct MassOutline {
  double x_m = 0.0, across_m = 0.0, high_m = 0.0; ///< a path's is how deep it lies
};
[[nodiscard]] MassOutline massOutline(const Plan& plan, std::size_t store);

class SectionGeometry {
public:
  SectionGeometry(const Plan& plan, const QRectF& area);
  [[nodiscard]] QPointF at(double x_m, double y_m) const { return {m_origin.x() + x_m * m_scale, m_origin.y() - y_m * m_scale}; }
  [[nodiscard]] double metresX(double px) const { return (px - m_origin.x()) / m_scale; }
  [[nodiscard]] double metresY(double py) const { return (m_origin.y() - py) / m_scale; }
  [[nodiscard]] double scale() const { return m_scale; }
  [[nodiscard]] double ground() const { return m_origin.y(); }
  [[nodiscard]] const QPainterPath& outline() const { return m_outline; }
  [[nodiscard]] QPointF handle(Grip grip) const;
  [[nodiscard]] QRectF barrelsRect(std::size_t group) const;
  /// The upper half of this rectangle's ellipse is the bed cover.
  [[nodiscard]] QRectF bedCoverRect(std::size_t cover) const;
  /// How much of the soil is drawn, and where a depth below the floor lies.
  [[nodiscard]] double shownDepth_m() const;
  [[nodiscard]] double depthY(double depth_m) const;
  /// Where the pipes of a store are cut through.
  [[nodiscard]] QPolygonF pipes(std::size_t store) const;
  /// Of a pile without the soil over it; of a mound the ellipse's upper half lies in it.
  [[nodiscard]] QRectF pile(std::size_t store) const;
  [[nodiscard]] QRectF tank(std::size_t loop) const;
  /// A wall, a path or a raised bed.
  [[nodiscard]] QRectF mass(std::size_t store) const;
  /// The passes of a cable through its bed, cut across.
  [[nodiscard]] QPolygonF cable(std::size_t store) const;
  /// A heater of the house, without its flue; empty for those that stand elsewhere.
  [[nodiscard]] QRectF heater(std::size_t of) const { return m_heaters[of]; }
  /// Where the cover lies over a point of the floor.
  [[nodiscard]] double roofY(double x_px) const;
  /// What is within reach of a point.
  [[nodiscard]] Grip hit(const QPointF& point) const;
  [[nodiscard]] QRectF area() const { return m_area; }

private:
  /// Those before it are in m_heaters.
  [[nodiscard]] QRectF placeHeater(std::size_t of) const;
  /// Whether something stands there that a heater must not stand in, or under.
  [[nodiscard]] bool isTaken(const QRectF& floor) const;
  const Plan& m_plan;
  QRectF m_area;
  QPointF m_origin;
  double m_scale = 1.0;
  QPainterPath m_outline;
  std::vector<QRectF> m_heaters; ///< placed once: a hanging one looks for the roof over it
};

void paintSection(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const std::optional<SectionMoment>& moment, const QString& title,
                  const QString& subtitle, const Theme& theme, const Units& units, Grip hovered);

} // namespace muffle
