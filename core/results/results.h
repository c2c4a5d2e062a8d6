// SPDX-License-Identifier: GPL-3.0-or-later
//
// What became of a plan in one winter: series, nights, sums.
#pragma once

#include "core/assemble/assemble.h"
#include "core/results/growth.h"
#include "core/results/ledger.h"
#include "core/results/store_results.h"

#include <array>
#include <optional>
#include <vector>

namespace muffle {

/// What a night may miss its line by and still be held: a sensor's last digit.
inline constexpr double kHoldTolerance_K = 0.05;

struct NightResult {
  Date date;
  std::size_t winter = 0;
  std::size_t from = 0, to = 0; ///< steps of the winter
  bool assessable = false;      ///< outside was measured throughout
  bool held = false;            ///< by the house and by every room that has a line of its own
  double coldest_C = 0.0;
  UtcSeconds coldestAt = 0;
  double outsideLow_C = 0.0;
  double degreeHours_K_h = 0.0; ///< below the hold lines, of all rooms that have one
  double heater_kWh = 0.0;
  double damp_h = 0.0;                    ///< at 90 % relative humidity or more
  double leafWet_h = 0.0;                 ///< leaves below the dew point
  std::vector<double> roomColdest_C = {}; ///< in the other rooms, as otherRooms() lists them
};

/// The air of a room at every step.
struct RoomSeries {
  std::vector<float> air_C, vapour_g_kg;
};

/// Temperatures and flows at every step, for drawing.
struct WinterSeries {
  std::vector<float> air_C, floor_C, heater_W;
  std::vector<float> sun_W;               ///< taken up inside and in the cover, mean over the step that ends here
  std::vector<float> light_W_m2;          ///< of the sun, that meets leaves and floor
  std::vector<std::vector<float>> soil_C; ///< by depth
  std::vector<StoreSeries> stores;        ///< as storesOf() lists them, barrels first
  std::vector<float> vapour_g_kg;         ///< of the house's air
  std::vector<RoomSeries> rooms;          ///< the others, as otherRooms() lists them
  std::vector<float> leaf_C;              ///< of a leaf that lies open to the cover
  std::vector<float> blanket;             ///< 1 while it is closed; empty without one
  std::vector<float> vents;               ///< how far they are open, 0..1
  std::vector<float> rolled;              ///< the same of rolled sides; empty without them
  std::vector<float> roof;                ///< 1 while it is drawn back; empty where it is not made to
  std::array<std::vector<float>, 3> inner_C, outer_C;
  std::array<std::vector<float>, kLossPathCount> loss_W; ///< mean over the step that ends here
  std::vector<float> sky_W;                              ///< radiated to the sky; some of it may have come from warmer air outside
};

/// How damp a room's air was.
struct Dampness {
  double above90_h = 0.0; ///< hours at 90 % relative humidity or more: mould and rot grow
  double leafWet_h = 0.0; ///< hours in which leaves were below the dew point
  double longest_h = 0.0; ///< of either, on end
};

/// What a heater did, beside what the ledger says it took and gave.
struct HeaterCount {
  int starts = 0;  ///< times that it began to give heat, to a step
  int loads = 0;   ///< put on, of a stove
  int atNight = 0; ///< of them between 23 and 6 by the clock of the place
};

/// One winter of a plan.
struct WinterResult {
  WinterSeries series; ///< empty unless asked for
  std::vector<NightResult> nights;
  Ledger ledger; ///< with hours where series were asked for
  double sun_J = 0.0;
  double peak_W = 0.0; ///< of all heaters of rooms together
  std::array<double, kLossPathCount> loss_J{};
  double sky_J = 0.0; ///< radiated to the sky; some of it may have come from warmer air outside
  double closure = 1.0;
  std::vector<HeaterCount> heaters; ///< by heater of the plan
  int draws = 0;                    ///< of the night blanket
  double tooWarm_h = 0.0;           ///< that the house was above its line
  double warmest_C = -1e9;
  Dampness damp;
  std::vector<Dampness> roomDamp; ///< as otherRooms() lists them
  std::vector<double> soilDepth_m;
  std::vector<StoreSummary> stores; ///< given and taken only with series
  std::optional<Growth> growth;     ///< where asked for
};

} // namespace muffle
