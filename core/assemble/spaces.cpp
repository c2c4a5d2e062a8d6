// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/spaces.h"

namespace muffle {

Crossing crossingOf(const House& house) {
  const HouseShape& s = house.shape;
  const double sunk = s.span_m() * s.sunk_m;
  if (!house.roofVoid) return {s.section_m2() + sunk, 0.0};
  const double below = s.span_m() * s.eave_m;
  return {below + sunk, s.section_m2() - below};
}

std::vector<Space> spacesOf(const House& house) {
  const HouseShape& s = house.shape;
  const double whole = s.length_m;
  const double bay = house.bay ? house.bay->length_m : 0.0;
  const double lobby = house.lobby ? house.lobby->length_m : 0.0;
  const double ends = s.area_m2(FaceGroup::ends);
  const auto piece = [&](RoomKind kind, double length, double endWalls) {
    const double share = length / whole;
    Space p{kind, length, s.floor_m2() * share, s.volume_m3() * share, {}, 1.0, 0.0};
    for (const FaceGroup g : {FaceGroup::roof, FaceGroup::sides, FaceGroup::backWall}) p.cover_m2[static_cast<std::size_t>(g)] = s.area_m2(g) * share;
    p.cover_m2[static_cast<std::size_t>(FaceGroup::ends)] = ends * endWalls / 2.0;
    if (house.bay || house.lobby) p.edgeShare = ((s.kind == ShapeKind::leanTo ? 1.0 : 2.0) * length + endWalls * s.span_m()) / s.perimeter_m();
    p.sunk_m2 = s.sunkWall_m2() * p.edgeShare;
    return p;
  };
  const double between = whole - bay - lobby;
  std::vector<Space> spaces{piece(RoomKind::house, between, 2.0 - (house.bay ? 1.0 : 0.0) - (house.lobby ? 1.0 : 0.0))};
  if (house.roofVoid) {
    Space& main = spaces.front();
    Space above{RoomKind::roofVoid, between, 0.0, crossingOf(house).above_m2 * between, {}, 0.0, 0.0};
    const auto take = [&](FaceGroup g, double share) {
      const auto i = static_cast<std::size_t>(g);
      above.cover_m2[i] = main.cover_m2[i] * share;
      main.cover_m2[i] -= above.cover_m2[i];
    };
    take(FaceGroup::roof, 1.0);
    take(FaceGroup::ends, crossingOf(house).above_m2 / s.section_m2());
    if (s.hasBackWall()) take(FaceGroup::backWall, s.rise_m() / s.ridge_m);
    main.volume_m3 -= above.volume_m3;
    spaces.push_back(above);
  }
  if (house.bay) spaces.push_back(piece(RoomKind::bay, bay, 1.0));
  if (house.lobby) spaces.push_back(piece(RoomKind::lobby, lobby, 1.0));
  return spaces;
}

} // namespace muffle
