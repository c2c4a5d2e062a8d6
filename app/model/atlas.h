// SPDX-License-Identifier: GPL-3.0-or-later
//
// The towns of the world, their zones and the outlines of its lands, as they ship (data/README.md): read once, beside the window.
#pragma once

#include "core/site/gazetteer.h"

#include <QPolygonF>

#include <vector>

namespace muffle {

struct Atlas {
  Gazetteer towns;
  std::vector<std::size_t> bySize; ///< towns, the biggest first
  std::vector<QPolygonF> outlines; ///< x east and y north, degrees
  std::string zoneTable;           ///< the system's; empty on a machine without one
};

/// Begins to read it on a thread of its own, if that has not begun.
void beginAtlas();
/// Null while it is being read; begins that as well. For what is painted.
const Atlas* atlasIfRead();
/// Waits until it is read: a third of a second at most.
const Atlas& atlas();

} // namespace muffle
