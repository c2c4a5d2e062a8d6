// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters of the house in the cross-section: stoves and burners with their flues, fan heaters, tubes, what hangs under the roof, and the part of a
// heat pump that stands outside. Sizes are usual ones of their kind.
#pragma once

#include "app/paint/section.h"
#include "app/paint/word_places.h"

namespace muffle {

void paintHeaters(QPainter& painter, const SectionGeometry& geometry, const Plan& plan, const Theme& theme, Grip hovered, WordPlaces& words);

} // namespace muffle
