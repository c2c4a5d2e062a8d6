// SPDX-License-Identifier: GPL-3.0-or-later
//
// The time zone of a place, from the zone table that every Unix system has (tz database, zone.tab, which keeps
// a name of its own for every country; or zone1970.tab: countries, a town's coordinates by ISO 6709, zone).
#pragma once

#include "core/site/coordinates.h"
#include "core/site/gazetteer.h"

#include <string>
#include <string_view>

namespace muffle {

/// The zone for a place `at` or near `town`: of the zones of its land (of all, where it has none) the one whose own town is nearest.
/// - Zones that the table says are of the town's region are the only ones asked, if one of them is of most of it;
///   else those that it does not say are of other regions.
/// - A zone that the table says is of a few counties or one town reaches 60 km.
/// - A zone whose clock would be more than half an hour off the place's sun counts as farther, 700 km for each hour of it.
/// Of zones that show the same time now the table's first. Empty where the table has no zone at all. Right but for places near a line at which zones of one
/// land meet.
std::string zoneAt(Coordinates at, const Town& town, std::string_view zoneTable);

} // namespace muffle
