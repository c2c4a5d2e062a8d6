// SPDX-License-Identifier: GPL-3.0-or-later
//
// The crops of a plan by where they stand, and rooms that go with all that is in them.
#pragma once

#include "core/message.h"
#include "core/plan/plan.h"

namespace muffle {

/// "Lettuce in the bay"; of the house the crop alone. A crop that is not known goes by its id.
Message nameOf(const Plan& plan, const CropStand& stand);
/// By how the first crop grows that stands in the house, or in its bay, and grows in winter; usual leaves where none does.
GrowthResponse growthResponseOf(const Plan& plan, CropStand::In in = CropStand::In::house);
/// The warmest of what harms a crop's leaves or buds by cold after at most `within_h`; nothing where nothing does.
std::optional<double> coldLine_C(const CropFacts& crop, double within_h = 3.0);

/// A bed cover is gone, with its heaters and crops; those behind it have moved up.
void removeBedCover(Plan& plan, std::size_t bed);
/// The warm bay is gone, with its heaters and crops.
void removeBay(Plan& plan);

/// Own crops with ids of their own, crops that are known, in rooms that are there.
void checkCrops(const Plan& plan, Problems& problems);

} // namespace muffle
