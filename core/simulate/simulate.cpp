// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/simulate.h"

#include "core/air/moist_air.h"
#include "core/air/saturation_curve.h"
#include "core/network/solver.h"
#include "core/parallel.h"
#include "core/simulate/before_run.h"
#include "core/simulate/blanket.h"
#include "core/simulate/dampness.h"
#include "core/simulate/store_runner.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <optional>
#include <set>

namespace muffle {
namespace {

constexpr double kSpinUp_s = 5.0 * 86400.0; // where nothing is to be run before the log its first days are run twice, so that air, covers and barrels start right

class WinterRunner {
public:
  WinterRunner(const Plan& plan, const Scene& scene, std::size_t index, const SimulateOptions& options)
      : m_plan(plan), m_winter(scene.weather->winters[index]), m_before(index < scene.before.size() ? &scene.before[index] : nullptr), m_index(index),
        m_options(options), m_assembly(assemble(plan, m_winter, scene.sun[index])), m_stores(plan, m_assembly, m_winter),
        m_saturated(m_assembly.network.pressure_Pa), m_houseHours(m_winter.step_s), m_roomHours(m_assembly.rooms.size(), DampHours(m_winter.step_s)) {
    m_heaters.push_back(m_assembly.heater);
    for (const Assembly::Room& room : m_assembly.rooms) m_heaters.push_back(room.heater);
    std::erase(m_heaters, -1);
    std::set<int> groups;
    for (const auto& [link, part] : m_assembly.losses) groups.insert(lossGroup(link, part));
    m_groups.assign(groups.begin(), groups.end());
  }

  Result<WinterResult> run() {
    SolverOptions options{.cruise = true};
    if (m_options.series) options.groupOfLink = groupOfLink();
    auto prepared = Solver::prepare(std::move(m_assembly.network), std::move(options));
    if (!prepared) return prepared.problems();
    Solver& solver = *prepared;
    if (!start(solver)) return noSolution("start");
    const std::size_t n = m_winter.size();
    m_air.resize(n);
    m_blanket = m_assembly.blanketClosed;
    m_heater.assign(n, 0.0F);
    m_rooms.assign(m_assembly.rooms.size(), std::vector<float>(n));
    m_damp.assign(n, 0);
    if (m_options.series) reserve(n);
    m_run.stores.resize(m_assembly.stores.size());
    m_run.soilDepth_m = m_assembly.soilDepth_m;
    record(solver, 0);
    if (m_options.stop && m_options.stop->load(std::memory_order_relaxed)) return Problem{ProblemKind::cancelled, "", "stopped", ""};
    for (std::size_t i = 1; i < n; ++i) {
      if ((i & 1023U) == 0 && m_options.stop && m_options.stop->load(std::memory_order_relaxed)) return Problem{ProblemKind::cancelled, "", "stopped", ""};
      if (!solver.advance(m_winter.step_s)) return noSolution(fmt::format("step {}", i));
      m_stores.step(solver, i);
      record(solver, i);
      if (m_options.tell && i == std::clamp<std::size_t>(m_options.tellAt, 1, n - 1)) {
        m_run.nights = judged(i);
        m_options.tell(m_run, i);
      }
    }
    const EnergyBalance balance = solver.balance();
    m_run.closure = balance.closure();
    m_run.draws = timesDrawn(m_blanket);
    for (const int heater : m_heaters) m_run.heater_J += balance.thermostat_J[static_cast<std::size_t>(heater)];
    for (const Assembly::Room& room : m_assembly.rooms)
      m_run.roomHeater_J.push_back(room.heater >= 0 ? balance.thermostat_J[static_cast<std::size_t>(room.heater)] : 0.0);
    for (int i = 0; i < m_assembly.sunSources; ++i) m_run.sun_J += balance.source_J[static_cast<std::size_t>(i)];
    m_run.nights = judged(n - 1);
    for (std::size_t s = 0; s < m_assembly.stores.size(); ++s) {
      const StoreNodes& store = m_assembly.stores[s];
      StoreSummary& sum = m_run.stores[s];
      if (store.kind == StoreKind::compost) {
        sum.made_kWh = m_stores.energy()[store.index].heat_J / 3.6e6;
        const double pumped_h = m_stores.pumped_h(store.index);
        sum.running_h += pumped_h;
        sum.electricity_kWh += store.power_W * pumped_h / 1000.0;
        m_run.fan_J += store.power_W * pumped_h * 3600.0;
      }
      if (store.collector >= 0) {
        constexpr double kCollectorPump_W = 20.0; // the smallest circulators
        sum.stagnant_h = m_stores.stagnant_h(s);
        sum.electricity_kWh += kCollectorPump_W * m_stores.collected_h(s) / 1000.0;
        m_run.fan_J += kCollectorPump_W * m_stores.collected_h(s) * 3600.0;
      }
      if (store.boiler >= 0) {
        sum.fuel_kWh = balance.thermostat_J[static_cast<std::size_t>(store.boiler)] / 3.6e6;
      }
    }
    m_run.damp = m_houseHours.sum();
    for (const DampHours& room : m_roomHours) m_run.roomDamp.push_back(room.sum());
    return std::move(m_run);
  }

private:
  static Problem noSolution(std::string where) {
    return {ProblemKind::noSolution, std::move(where), "the simulation found no solution", "check for sizes far outside the usual"};
  }

  /// The part, or for radiation to the sky kPartCount more, so that it can be told apart.
  [[nodiscard]] int lossGroup(int link, Part part) const {
    const auto l = static_cast<std::size_t>(link);
    const bool toSky = l < m_assembly.network.links.size() && m_assembly.network.links[l].to == m_assembly.sky;
    return static_cast<int>(part) + (toSky ? kPartCount : 0);
  }

  /// The group of every link, then vent, that loses heat; -1 for the others.
  std::vector<int> groupOfLink() const {
    std::vector<int> part(m_assembly.network.links.size() + m_assembly.network.vents.size(), -1);
    for (const auto& [link, p] : m_assembly.losses) part[static_cast<std::size_t>(link)] = lossGroup(link, p);
    for (std::size_t s = 0; s < m_assembly.stores.size(); ++s)
      for (const int link : m_assembly.stores[s].giving) part[static_cast<std::size_t>(link)] = storeGroup(s);
    for (std::size_t s = 0; s < m_assembly.stores.size(); ++s)
      for (const int link : m_assembly.stores[s].taking) part[static_cast<std::size_t>(link)] = storeGroup(s) + 1;
    return part;
  }
  /// After those of the losses.
  static int storeGroup(std::size_t store) { return 2 * (kPartCount + static_cast<int>(store)); }

  /// Everything is as the weeks before the log leave it (before_run.h).
  bool start(Solver& solver) {
    if (!m_before || !m_before->winter) {
      if (!spinUp(solver)) return false;
      m_stores.begin(solver);
      return true;
    }
    const auto state = runBefore(m_plan, *m_before, m_options.stop);
    if (m_options.stop && m_options.stop->load(std::memory_order_relaxed)) return true; // run() sees it, too
    if (!state || state->temperature_C.size() != solver.network().nodes.size()) return false;
    solver.setTemperatures(state->temperature_C);
    solver.reset();
    m_stores.begin(solver, state->piles);
    return true;
  }

  bool spinUp(Solver& solver) {
    const auto steps = std::min(m_winter.size() - 1, static_cast<std::size_t>(kSpinUp_s / m_winter.step_s));
    for (std::size_t i = 0; i < steps; ++i) {
      if (!solver.advance(m_winter.step_s)) return false;
    }
    std::vector<double> start(solver.network().nodes.size());
    for (std::size_t i = 0; i < start.size(); ++i) start[i] = solver.temperature_C(static_cast<int>(i));
    // the soil keeps its undisturbed profile: five days of autumn say nothing about it below the surface
    for (const int below : m_assembly.below) {
      const auto node = static_cast<std::size_t>(below);
      start[node] = solver.network().nodes[node].initial_C;
    }
    solver.setTemperatures(start);
    solver.reset();
    return true;
  }

  void reserve(std::size_t n) {
    WinterSeries& s = m_run.series;
    s.air_C.resize(n);
    s.floor_C.resize(n);
    s.heater_W.resize(n);
    s.blanket.assign(m_blanket.size(), 0.0F);
    s.sun_W.assign(n, 0.0F);
    s.soil_C.assign(m_assembly.soil.size(), std::vector<float>(n));
    s.vapour_g_kg.resize(n);
    s.leaf_C.resize(n);
    s.rooms.assign(m_assembly.rooms.size(), {std::vector<float>(n), std::vector<float>(n)});
    for (std::size_t g = 0; g < 3; ++g) {
      if (m_assembly.inner[g] >= 0) s.inner_C[g].resize(n), s.outer_C[g].resize(n);
    }
    for (const StoreNodes& store : m_assembly.stores) {
      StoreSeries& series = s.stores.emplace_back();
      const bool isPile = store.kind == StoreKind::compost;
      series.temperature_C.assign(store.node.size() + (isPile ? 1 : 0), std::vector<float>(n));
      series.given_W.assign(n, 0.0F);
      if (isPile || !store.holds.empty()) series.charge_kWh.assign(n, 0.0F);
      if (isPile)
        for (auto* of : {&series.made_W, &series.oxygen_percent, &series.moisture}) of->assign(n, 0.0F);
    }
    for (auto& part : s.loss_W) part.assign(n, 0.0F);
    s.sky_W.assign(n, 0.0F);
    s.vents.assign(n, 0.0F);
    s.rolled.assign(m_plan.house.rollUp ? n : 0, 0.0F);
    s.roof.assign(m_assembly.roofOpen.begin(), m_assembly.roofOpen.end());
  }

  /// Compost's first trace is the pile itself, NaN while nothing stands there.
  [[nodiscard]] float storeTrace_C(const Solver& solver, const StoreNodes& store, std::size_t trace) const {
    if (store.kind != StoreKind::compost) return static_cast<float>(solver.temperature_C(store.node[trace]));
    if (trace > 0) return static_cast<float>(solver.temperature_C(store.node[trace - 1]));
    const PilePresent& pile = m_stores.piles()[store.index];
    return pile.built > 0 ? static_cast<float>(pile.state.temperature_C) : std::numeric_limits<float>::quiet_NaN();
  }

  /// Above the line that the house is to hold.
  [[nodiscard]] double charge_J(const Solver& solver, const StoreNodes& store) const {
    double sum = 0.0;
    for (const HeldHeat& held : store.holds)
      sum += heatHeld_J(held.capacity_J_K, held.water, solver.temperature_C(held.node)) - heatHeld_J(held.capacity_J_K, held.water, m_plan.setpoints.hold_C);
    return sum;
  }

  void recordStores(const Solver& solver, std::size_t i) {
    const double hours = m_winter.step_s / 3600.0;
    for (std::size_t s = 0; s < m_assembly.stores.size(); ++s) {
      const StoreNodes& store = m_assembly.stores[s];
      StoreSummary& sum = m_run.stores[s];
      const auto first = static_cast<double>(storeTrace_C(solver, store, 0)); // not a number before a pile is built
      if (first < sum.coldest_C) sum.coldest_C = first;
      if (store.kind == StoreKind::loop && store.node.size() > 1) sum.coldest_C = std::min(sum.coldest_C, solver.temperature_C(store.node[1]));
      if (first > sum.warmest_C) sum.warmest_C = first;
      if (i > 0 && !store.coil && (store.runs >= 0 || store.thermostat >= 0)) {
        const double runs = store.runs >= 0 ? solver.signalNow(store.runs) : 0.0;
        const double power_W = store.thermostat >= 0 ? solver.lastPower_W(store.thermostat) : runs * store.power_W;
        if (power_W > 0.0) sum.running_h += hours;
        sum.electricity_kWh += power_W * hours / 1000.0;
        (store.thermostat >= 0 ? m_run.cable_J : m_run.fan_J) += power_W * m_winter.step_s;
        if (store.thermostat >= 0) {
          sum.given_kWh += power_W * hours / 1000.0;
          if (m_options.series) m_run.series.stores[s].given_W[i] = static_cast<float>(power_W);
        }
      }
      if (!m_options.series) continue;
      StoreSeries& series = m_run.series.stores[s];
      for (std::size_t k = 0; k < series.temperature_C.size(); ++k) series.temperature_C[k][i] = storeTrace_C(solver, store, k);
      if (i > 0 && !(store.giving.empty() && store.taking.empty())) {
        const double given_J =
            (store.giving.empty() ? 0.0 : solver.groupEnergy_J(storeGroup(s))) - (store.taking.empty() ? 0.0 : solver.groupEnergy_J(storeGroup(s) + 1));
        series.given_W[i] = static_cast<float>(given_J / m_winter.step_s);
        (given_J > 0.0 ? sum.given_kWh : sum.taken_kWh) += std::abs(given_J) / 3.6e6;
      }
      if (!store.holds.empty()) series.charge_kWh[i] = static_cast<float>(charge_J(solver, store) / 3.6e6);
      if (store.kind != StoreKind::compost) continue;
      const PilePresent& pile = m_stores.piles()[store.index];
      if (pile.built == 0) continue;
      const double solids = pile.state.degradable_kg + pile.mix.inert_kg();
      series.charge_kWh[i] = static_cast<float>(pile.state.degradable_kg * pile.mix.heat_J_kg / 3.6e6);
      series.made_W[i] = static_cast<float>(pile.rates.heat_W);
      series.oxygen_percent[i] = static_cast<float>(pile.rates.oxygen_percent);
      series.moisture[i] = static_cast<float>(pile.state.water_kg / (pile.state.water_kg + solids));
    }
  }

  /// How far what opens by the house's warmth is open.
  void recordOpenings(std::size_t i) {
    const House& house = m_plan.house;
    const auto air_C = static_cast<double>(m_air[i]);
    const double may = m_assembly.mayVent.empty() ? 1.0 : m_assembly.mayVent[i];
    const auto open = [&](double from_C, double full_C) { return static_cast<float>(may * openness(air_C, from_C, full_C)); };
    m_run.series.vents[i] = open(house.ventOpens_C, house.ventFull_C);
    if (house.rollUp) m_run.series.rolled[i] = open(house.rollUp->opens_C, house.rollUp->full_C);
  }

  void record(const Solver& solver, std::size_t i) {
    m_air[i] = static_cast<float>(solver.temperature_C(m_assembly.air));
    if (i > 0 && !m_heaters.empty()) {
      double power = 0.0; // of all heaters
      for (const int heater : m_heaters) power += solver.lastPower_W(heater);
      m_heater[i] = static_cast<float>(power);
      m_run.peak_W = std::max(m_run.peak_W, power);
    }
    if (m_assembly.blanketRelay >= 0 && !solver.relayIsOn(m_assembly.blanketRelay)) m_blanket[i] = 0.0;
    const auto air_C = static_cast<double>(m_air[i]);
    m_run.warmest_C = std::max(m_run.warmest_C, air_C);
    if (i > 0 && air_C > m_plan.setpoints.tooWarm_C) m_run.tooWarm_h += m_winter.step_s / 3600.0;
    for (std::size_t r = 0; r < m_rooms.size(); ++r) m_rooms[r][i] = static_cast<float>(solver.temperature_C(m_assembly.rooms[r].air));
    if (i > 0) m_run.fan_J += fans_W(solver, i) * m_winter.step_s;
    const double leaf_C = dampen(solver, i);
    recordStores(solver, i);
    if (!m_options.series) return;
    WinterSeries& s = m_run.series;
    s.air_C[i] = m_air[i];
    recordOpenings(i);
    if (!m_blanket.empty()) s.blanket[i] = static_cast<float>(m_blanket[i]);
    s.leaf_C[i] = static_cast<float>(leaf_C);
    s.vapour_g_kg[i] = static_cast<float>(solver.temperature_C(m_assembly.vapour));
    for (std::size_t r = 0; r < m_rooms.size(); ++r) {
      s.rooms[r].air_C[i] = m_rooms[r][i];
      s.rooms[r].vapour_g_kg[i] = static_cast<float>(solver.temperature_C(m_assembly.rooms[r].vapour));
    }
    s.heater_W[i] = m_heater[i];
    s.floor_C[i] = static_cast<float>(solver.temperature_C(m_assembly.floor));
    for (std::size_t k = 0; k < m_assembly.soil.size(); ++k) s.soil_C[k][i] = static_cast<float>(solver.temperature_C(m_assembly.soil[k]));
    for (std::size_t g = 0; g < 3; ++g) {
      if (m_assembly.inner[g] < 0) continue;
      s.inner_C[g][i] = static_cast<float>(solver.temperature_C(m_assembly.inner[g]));
      s.outer_C[g][i] = static_cast<float>(solver.temperature_C(m_assembly.outer[g]));
    }
    if (i == 0) return;
    double sky_J = 0.0;
    for (const int group : m_groups) {
      const double energy = solver.groupEnergy_J(group);
      const auto part = static_cast<std::size_t>(group % kPartCount);
      m_run.loss_J[part] += energy;
      s.loss_W[part][i] += static_cast<float>(energy / m_winter.step_s);
      if (group >= kPartCount) sky_J += energy;
    }
    m_run.sky_J += sky_J;
    s.sky_W[i] = static_cast<float>(sky_J / m_winter.step_s);
  }

  /// Counts the damp hours of every room up to step i; the temperature of a leaf in the house.
  double dampen(const Solver& solver, std::size_t i) {
    const double leaf_C =
        leafTemperature_C(solver.temperature_C(m_assembly.air), solver.temperature_C(m_assembly.floor), solver.temperature_C(m_assembly.above));
    if (i == 0) return leaf_C;
    const double vapour = solver.temperature_C(m_assembly.vapour);
    const bool damp = isDamp(solver.temperature_C(m_assembly.air), vapour);
    const bool wet = vapour > m_saturated.at(leaf_C).g_kg;
    m_houseHours.add(damp, wet);
    m_damp[i] = static_cast<std::uint8_t>((damp ? kDamp : 0) | (wet ? kWet : 0));
    for (std::size_t r = 0; r < m_roomHours.size(); ++r) {
      const Assembly::Room& room = m_assembly.rooms[r];
      m_roomHours[r].add(isDamp(solver.temperature_C(room.air), solver.temperature_C(room.vapour)), false);
    }
    return leaf_C;
  }

  /// What the fans take in the step that ends here; those that follow a room by its air at the end.
  [[nodiscard]] double fans_W(const Solver& solver, std::size_t i) const {
    double power = 0.0;
    for (const Assembly::Fan& fan : m_assembly.fans) {
      const double may = fan.runs.empty() ? 1.0 : fan.runs[i - 1];
      power += may * fan.power_W * (fan.sensor < 0 ? 1.0 : openness(solver.temperature_C(fan.sensor), fan.opens_C, fan.full_C));
    }
    return power;
  }

  [[nodiscard]] bool isDamp(double air_C, double vapour_g_kg) const {
    constexpr double kRatio_g_kg = 621.945; // relative humidity is by pressure, x/(622 + x)
    const double saturated = m_saturated.at(air_C).g_kg;
    return vapour_g_kg * (kRatio_g_kg + saturated) >= kDampHumidity * saturated * (kRatio_g_kg + vapour_g_kg);
  }

  /// The nights that end by step `last`.
  std::vector<NightResult> judged(std::size_t last) const {
    std::vector<NightResult> nights;
    const double line = m_plan.setpoints.hold_C;
    const auto others = otherRooms(m_plan);
    for (const NightSpan& span : m_winter.nights) {
      if (span.to > last) break;
      NightResult night{span.date, m_index, span.from, span.to, span.judged};
      night.coldest_C = night.outsideLow_C = 1e9;
      for (std::size_t i = span.from; i <= span.to; ++i) {
        const double air = static_cast<double>(m_air[i]);
        if (air < night.coldest_C) {
          night.coldest_C = air;
          night.coldestAt = m_winter.time(i);
        }
        night.outsideLow_C = std::min(night.outsideLow_C, m_winter.outside_C[i]);
        night.degreeHours_K_h += std::max(0.0, line - air) * m_winter.step_s / 3600.0;
        night.heater_kWh += static_cast<double>(m_heater[i]) * m_winter.step_s / 3.6e6;
        if (m_damp[i] & kDamp) night.damp_h += m_winter.step_s / 3600.0;
        if (m_damp[i] & kWet) night.leafWet_h += m_winter.step_s / 3600.0;
      }
      night.held = night.coldest_C >= line - kHoldTolerance_K;
      for (std::size_t r = 0; r < m_rooms.size(); ++r) {
        double coldest_C = 1e9;
        for (std::size_t i = span.from; i <= span.to; ++i) {
          const double air = static_cast<double>(m_rooms[r][i]);
          coldest_C = std::min(coldest_C, air);
          if (others[r].isJudged) night.degreeHours_K_h += std::max(0.0, *others[r].hold_C - air) * m_winter.step_s / 3600.0;
        }
        night.roomColdest_C.push_back(coldest_C);
        night.held = night.held && (!others[r].isJudged || coldest_C >= *others[r].hold_C - kHoldTolerance_K);
      }
      nights.push_back(night);
    }
    return nights;
  }

  static constexpr std::uint8_t kDamp = 1, kWet = 2;

  const Plan& m_plan;
  const Winter& m_winter;
  const Scene::Before* m_before; ///< nullptr without one
  std::size_t m_index;
  const SimulateOptions& m_options;
  Assembly m_assembly;
  StoreRunner m_stores;
  SaturationCurve m_saturated;
  DampHours m_houseHours;
  std::vector<DampHours> m_roomHours;
  std::vector<int> m_heaters; ///< thermostats
  std::vector<std::uint8_t> m_damp;
  std::vector<int> m_groups; ///< of losses that the house has
  WinterResult m_run;
  std::vector<double> m_blanket; ///< by step: 1 while it is closed; empty without one
  std::vector<float> m_air, m_heater;
  std::vector<std::vector<float>> m_rooms; ///< their air
};

} // namespace

Result<WinterResult> simulateWinter(const Plan& plan, const Scene& scene, std::size_t winter, const SimulateOptions& options) {
  return WinterRunner(plan, scene, winter, options).run();
}

Result<Simulation> simulate(const Plan& plan, const Scene& scene, const SimulateOptions& options) {
  const auto begin = std::chrono::steady_clock::now();
  std::vector<std::optional<Result<WinterResult>>> runs(scene.weather->winters.size());
  forEachIndex(runs.size(), options.threads, [&](std::size_t i) { runs[i] = simulateWinter(plan, scene, i, options); });
  auto all = gather(plan, scene, std::move(runs));
  if (all) all->summary.run_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  return all;
}

} // namespace muffle
