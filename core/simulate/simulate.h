// SPDX-License-Identifier: GPL-3.0-or-later
//
// A plan run over logged weather: which nights it held, where the warmth went, what the heater used.
//
//   const Scene scene = makeScene(weather, plan);         // sun on this shape; reuse while the shape stays
//   auto run = simulate(plan, scene, {.series = true});
//   run->summary.held, run->summary.coldest_C
#pragma once

#include "core/cost/cost.h"
#include "core/simulate/assemble.h"
#include "core/simulate/store_results.h"

#include <array>
#include <atomic>
#include <functional>
#include <memory>
#include <optional>

namespace muffle {

/// Weather and what depends on weather and shape alone. Shared, never changed.
struct Scene {
  std::shared_ptr<const Weather> weather;
  std::vector<SunOnHouse> sun; ///< by winter; empty series where it has not been worked out
  std::shared_ptr<LightTables> light;
  HouseShape shape;
  double latitude_deg = 0.0;
  /// What a plan is run through before each winter's log.
  struct Before {
    int days = 0;
    std::optional<Winter> winter;
    SunOnHouse sun;
  };
  std::vector<Before> before;
  Site site; ///< whose ground the weather before follows
  /// True while this is the scene of a plan: place, ground, shape and the days before are the same.
  [[nodiscard]] bool serves(const Plan& plan, const std::shared_ptr<const Weather>& itsWeather) const;
};
/// Without any sun yet: addSun() works it out for one winter, so that those in a hurry need not wait for the others.
Scene darkScene(std::shared_ptr<const Weather> weather, const Plan& plan);
void addSun(Scene& scene, const Plan& plan, std::size_t winter);
/// With the sun of every winter.
Scene makeScene(std::shared_ptr<const Weather> weather, const Plan& plan);

/// What a night may miss its line by and still be held: a sensor's last digit.
inline constexpr double kHoldTolerance_K = 0.05;

struct NightResult {
  Date date;
  std::size_t winter = 0;
  std::size_t from = 0, to = 0; ///< steps of the winter
  bool judged = false;          ///< outside was measured throughout
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
  std::vector<float> air_C, floor_C, heater_W, sun_W;
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
  std::array<std::vector<float>, kPartCount> loss_W; ///< mean over the step that ends here
  std::vector<float> sky_W;                          ///< radiated to the sky; some of it may have come from warmer air outside
};

/// How damp a room's air was.
struct Dampness {
  double above90_h = 0.0; ///< hours at 90 % relative humidity or more: mould and rot grow
  double leafWet_h = 0.0; ///< hours in which leaves were below the dew point
  double longest_h = 0.0; ///< of either, on end
};

/// One winter of a plan.
struct WinterResult {
  WinterSeries series; ///< empty unless asked for
  std::vector<NightResult> nights;
  double heater_J = 0.0, cable_J = 0.0, fan_J = 0.0, sun_J = 0.0, peak_W = 0.0; ///< heaters by electricity; a loop's boiler is told with its store
  std::array<double, kPartCount> loss_J{};
  double sky_J = 0.0; ///< radiated to the sky; some of it may have come from warmer air outside
  double closure = 1.0;
  int draws = 0;          ///< of the night blanket
  double tooWarm_h = 0.0; ///< that the house was above its line
  double warmest_C = -1e9;
  Dampness damp;
  std::vector<Dampness> roomDamp;   ///< as otherRooms() lists them
  std::vector<double> roomHeater_J; ///< of heater_J, the rooms' own
  std::vector<double> soilDepth_m;
  std::vector<StoreSummary> stores; ///< given and taken only with series
};

/// Steps 0..last of one series into another of the same winter; series that only one of them has are taken or dropped whole.
void takeFirst(WinterSeries& into, const WinterSeries& from, std::size_t last);

/// A room within the house, over the judged nights.
struct RoomSummary {
  int held = 0; ///< nights at or above its hold line
  double coldest_C = 0.0;
  double heater_kWh = 0.0; ///< over all winters
  Dampness damp;           ///< hours a winter
};

struct Summary {
  int nights = 0; ///< judged
  int held = 0;
  int leftOut = 0;
  double coldest_C = 0.0;
  UtcSeconds coldestAt = 0;
  double degreeHours_K_h = 0.0;
  double heater_kWh = 0.0, sun_kWh = 0.0; ///< over all winters; all heaters
  double fan_kWh = 0.0;                   ///< electricity of fans and pumps
  double cable_kWh = 0.0;                 ///< of soil cables
  /// All that is bought as electricity.
  [[nodiscard]] double electricity_kWh() const { return heater_kWh + fan_kWh + cable_kWh; }
  double winters = 1.0;                   ///< how many winters of 182 days the log amounts to
  double heaterPeak_W = 0.0;
  double tooWarm_h = 0.0;                    ///< hours a winter that the house was above Setpoints::tooWarm_C
  double warmest_C = 0.0;                    ///< by day or night
  Dampness damp;                             ///< of the house; hours a winter
  std::array<double, kPartCount> loss_kWh{}; ///< over all winters
  double sky_kWh = 0.0;                      ///< radiated to the sky; some of it may have come from warmer air outside
  double closure = 1.0;                      ///< worst of the winters
  Cost cost;                                 ///< a winter
  double fuel = 0.0;                         ///< of its energy, what boilers burn; money a winter
  double draws = 0.0;                        ///< times a winter that the night blanket is drawn
  std::size_t steps = 0;
  double run_ms = 0.0;
  std::vector<RoomSummary> rooms;   ///< within the house, as otherRooms() lists them
  std::vector<StoreSummary> stores; ///< over all winters, as storesOf() lists them
};

struct Simulation {
  Summary summary;
  std::vector<int> warmUp_days; ///< by winter: that the plan was run before its log
  std::vector<NightResult> nights;
  std::vector<WinterSeries> series; ///< by winter; empty unless asked for
  std::vector<double> soilDepth_m;
};

struct SimulateOptions {
  bool series = false;
  int threads = 1;                         ///< winters in parallel; the answer does not depend on it
  const std::atomic<bool>* stop = nullptr; ///< set to give up; the result is then a cancelled problem
  /// simulateWinter() only: called once, when step `tellAt` (or the last, if that comes first) has been run, with series and
  /// nights up to it.
  std::function<void(const WinterResult& soFar, std::size_t step)> tell = nullptr;
  std::size_t tellAt = 0;
};

/// One winter alone; options.threads is of no account.
Result<WinterResult> simulateWinter(const Plan& plan, const Scene& scene, std::size_t winter, const SimulateOptions& options = {});
/// What the winters of a plan, in their order, amount to; the first problem if one has any. Every entry must be set.
Result<Simulation> gather(const Plan& plan, const Scene& scene, std::vector<std::optional<Result<WinterResult>>>&& runs);
/// All winters.
Result<Simulation> simulate(const Plan& plan, const Scene& scene, const SimulateOptions& options = {});

/// Steady heat loss at given temperatures, by part.
struct LossPart {
  Part part;
  double loss_W;
};
struct HeatLoss {
  double total_W = 0.0;
  double difference_K = 0.0;
  std::vector<LossPart> parts;
};
/// skyClear 0..1. The ground is at its year's mean; no sun; vents shut.
Result<HeatLoss> steadyLoss(const Plan& plan, double inside_C, double outside_C, double wind_m_s, double skyClear);

} // namespace muffle
