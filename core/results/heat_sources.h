// SPDX-License-Identifier: GPL-3.0-or-later
//
// Where a house's heat came from over a span of a winter, piece by piece: the sun that was taken up inside, each store that gave, each heater;
// and when the hours of work fell.
#pragma once

#include "core/plan/plan.h"
#include "core/results/results.h"

#include <cstddef>
#include <vector>

namespace muffle {

struct HeatSource {
  enum class Of { sun, store, heater };
  Of of = Of::sun;
  std::size_t index = 0;   ///< a store among storesOf(), a heater among the plan's
  std::vector<double> kWh; ///< by piece
  [[nodiscard]] double sum_kWh() const;
};

/// Of the steps after `from` up to `to`, in pieces of so many hours; the last may be shorter. Sun first, then stores, then heaters of rooms in the
/// plan's order. Stores count only while they give: what they take comes from the others. A heater's share of an hour goes by what its meter took
/// in it, and together they are what heaters gave. The series and the ledger of the same winter, the ledger with its hours.
std::vector<HeatSource> heatBySource(const Plan& plan, const WinterSeries& series, const Ledger& ledger, double step_s, std::size_t from, std::size_t to,
                                     std::size_t piece_h);

/// Heat by the hour that a heater of the plan gave, of its meter: by what it took, less what it takes at rest.
std::vector<double> heatByHour_kWh(const Plan& plan, const Meter& meter);

/// Hours of work in pieces of so many hours of the winter; the ledger with its hours.
std::vector<double> workByPiece_h(const Ledger& ledger, std::size_t piece_h);

} // namespace muffle
