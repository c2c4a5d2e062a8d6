// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/rooms.h"

#include "core/plan/names.h"

#include <fmt/format.h>

namespace muffle {

std::vector<OtherRoom> otherRooms(const Plan& plan) {
  const House& h = plan.house;
  std::vector<OtherRoom> rooms;
  if (h.bay) rooms.push_back({RoomKind::bay, 0, "bay", nameOf(*h.bay), h.bay->setpoints.hold_C, true});
  if (h.lobby) rooms.push_back({RoomKind::lobby, 0, "lobby", nameOf(*h.lobby), {}});
  if (h.roofVoid) rooms.push_back({RoomKind::roofVoid, 0, "roof-void", nameOf(*h.roofVoid), {}});
  for (std::size_t k = 0; k < h.bedCovers.size(); ++k) {
    const BedCover& bed = h.bedCovers[k];
    const double line = bed.inBay && h.bay ? h.bay->setpoints.hold_C : plan.setpoints.hold_C;
    rooms.push_back({RoomKind::bed, k, fmt::format("bed:{}", k + 1), nameOf(bed), bed.hold_C.value_or(line), bed.hold_C.has_value()});
  }
  return rooms;
}

std::optional<std::size_t> otherRoom(const Plan& plan, RoomKind kind, std::size_t bed) {
  const auto rooms = otherRooms(plan);
  for (std::size_t r = 0; r < rooms.size(); ++r)
    if (rooms[r].kind == kind && rooms[r].bed == bed) return r;
  return std::nullopt;
}

double ownFloor_m2(const House& house, bool inBay) {
  const double bay = house.bay ? house.bay->length_m : 0.0;
  const double own = inBay ? bay : house.shape.length_m - bay - (house.lobby ? house.lobby->length_m : 0.0);
  return house.shape.kind == ShapeKind::dome ? (inBay ? 0.0 : house.shape.floor_m2()) : house.shape.floor_m2() * std::max(own, 0.0) / house.shape.length_m;
}

} // namespace muffle
