// SPDX-License-Identifier: GPL-3.0-or-later
//
// Stores in the cross-section, to scale: pipes at their depth, piles with the soil over them or out of doors, tanks. Barrels are
// drawn with the house.
#pragma once

#include "app/paint/section.h"
#include "app/paint/word_places.h"

namespace muffle {

void paintStores(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const std::optional<SectionMoment>& moment, const Theme& theme,
                 const Units& units, Grip hovered, WordPlaces& words);

} // namespace muffle
