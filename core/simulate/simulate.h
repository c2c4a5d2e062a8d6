// SPDX-License-Identifier: GPL-3.0-or-later
//
// A plan run over logged weather: which nights it held, where the warmth went, what the heater used.
//
//   const Scene scene = makeScene(weather, plan);         // sun on this shape; reuse while the shape stays
//   auto run = simulate(plan, scene, {.series = true});
//   run->summary.held, run->summary.coldest_C
#pragma once

#include "core/assemble/assemble.h"
#include "core/cost/cost.h"
#include "core/results/results.h"
#include "core/run/scenario.h"

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
/// The same winters so much colder, outside and in the sky, as humid for their temperature; the weeks before them, too. The ground keeps its year.
Scene colderBy(const Scene& scene, double by_K);

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
  Ledger ledger;           ///< over all winters; what follows of energy is read from it
  double heater_kWh = 0.0; ///< heat of all heaters of rooms
  double fan_kWh = 0.0;    ///< electricity of fans and pumps
  double cable_kWh = 0.0;  ///< of soil cables
  double sun_kWh = 0.0;
  double winters = 1.0; ///< how many winters of 182 days the log amounts to
  double heaterPeak_W = 0.0;
  double tooWarm_h = 0.0;                        ///< hours a winter that the house was above Setpoints::tooWarm_C
  double warmest_C = 0.0;                        ///< by day or night
  Dampness damp;                                 ///< of the house; hours a winter
  std::array<double, kLossPathCount> loss_kWh{}; ///< over all winters
  double sky_kWh = 0.0;                          ///< radiated to the sky; some of it may have come from warmer air outside
  double closure = 1.0;                          ///< worst of the winters
  Cost cost;                                     ///< a winter
  double fuel = 0.0;                             ///< of its energy, what is burnt; money a winter
  double draws = 0.0;                            ///< times a winter that the night blanket is drawn
  std::size_t steps = 0;
  double run_ms = 0.0;
  std::vector<HeaterCount> heaters; ///< by heater of the plan, over all winters
  std::vector<RoomSummary> rooms;   ///< within the house, as otherRooms() lists them
  std::vector<StoreSummary> stores; ///< over all winters, as storesOf() lists them
  std::optional<Growth> growth;     ///< of the house's crop, over all winters; where asked for
};

struct Simulation {
  Summary summary;
  std::vector<int> warmUp_days; ///< by winter: that the plan was run before its log
  std::vector<NightResult> nights;
  std::vector<WinterSeries> series; ///< by winter; empty unless asked for
  std::vector<Ledger> ledgers;      ///< by winter; with hours where series were asked for
  std::vector<double> soilDepth_m;
};

struct SimulateOptions {
  bool series = false;
  bool heaterPower = false;                ///< of the series only what heaters give, WinterSeries::heater_W
  bool growth = false;                     ///< Summary::growth
  int threads = 1;                         ///< winters in parallel; the answer does not depend on it
  Scenario scenario = {};                  ///< what befalls the plan; a colder winter is the scene's (colderBy())
  const std::atomic<bool>* stop = nullptr; ///< set to give up; the result is then a cancelled problem
  /// simulateWinter() only: called once, when step `tellAt` (or the last, if that comes first) has been run, with series and
  /// nights up to it.
  std::function<void(const WinterResult& soFar, std::size_t step)> tell = nullptr;
  std::size_t tellAt = 0;
};

/// One winter alone; options.threads is of no account.
Result<WinterResult> simulateWinter(const Plan& plan, const Scene& scene, std::size_t winter, const SimulateOptions& options = {});
/// What the winters of a plan, in their order, amount to; the first problem if one has any. Every entry must be set.
Result<Simulation> summarise(const Plan& plan, const Scene& scene, std::vector<std::optional<Result<WinterResult>>>&& runs);
/// All winters.
Result<Simulation> simulate(const Plan& plan, const Scene& scene, const SimulateOptions& options = {});

/// Steady heat loss at given temperatures, by part.
struct LossPart {
  LossPath part;
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
