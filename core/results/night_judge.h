// SPDX-License-Identifier: GPL-3.0-or-later
//
// Whether the nights of a winter were held, by the air of the house and of every room that has a line of its own.
#pragma once

#include "core/results/damp_watch.h"
#include "core/results/house_watch.h"

namespace muffle {

/// Those that end by step `last`. `winterIndex` is put into them.
std::vector<NightResult> judgeNights(const Plan& plan, const Winter& winter, std::size_t winterIndex, const HouseWatch& house, const DampWatch& damp,
                                     std::size_t last);

} // namespace muffle
