// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/run/store_runner.h"

#include "core/assemble/soil_under.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kPileStep_s = 3600.0; // a pile changes over hours: half of it moves what one makes by 0.01 %
constexpr int kMostWarmUp_days = 200;
constexpr double kLeastStart_C = 5.0; // of what a pile is built of: it has lain in a heap
constexpr double kUnder_m2K_W = 1.0;  // of the ground under a pile: half a metre of moist soil
constexpr double kUnder_m = 0.5;
constexpr double kOuter_m2K_W = 0.08; // film and long-wave on a mound in the open
// a flat collector with one glass and a black face: EN ISO 9806, usual values
constexpr double kCollectorTakesUp = 0.75, kCollectorLoss_W_m2K = 4.5;
constexpr double kPumpNeeds_K = 4.0; // that a pile must be above what its coil warms for the pump to run

} // namespace

UtcSeconds firstBuilt(const CompostPile& pile, UtcSeconds inSeason, double latitude_deg) {
  const Date now = dateFromDays(static_cast<std::int64_t>(std::floor(static_cast<double>(inSeason) / kDay_s)));
  const unsigned seasonBegins = latitude_deg < 0.0 ? 1 : 7; // winters run from one summer to the next
  const int autumn = now.month >= seasonBegins ? now.year : now.year - 1;
  const MonthDay built = parseMonthDay(pile.built).value_or(MonthDay{11, 1});
  constexpr UtcSeconds kNoon = 12 * 3600;
  return daysSinceEpoch({built.month >= seasonBegins ? autumn : autumn + 1, built.month, built.day}) * static_cast<UtcSeconds>(kDay_s) + kNoon;
}

int warmUpDays(const Plan& plan, const Winter& winter) {
  constexpr int kPlain_days = 45; // four time constants of the metre of soil under a floor
  const bool remembersLong = !(plan.groundPipes.empty() && plan.waterLoops.empty() && plan.compost.empty());
  int days = remembersLong ? plan.warmUp_days : std::min(plan.warmUp_days, kPlain_days);
  for (const CompostPile& pile : plan.compost) {
    const double before = static_cast<double>(winter.start - firstBuilt(pile, winter.start, plan.site.place.latitude_deg)) / kDay_s;
    if (before > 0.0) days = std::max(days, static_cast<int>(std::ceil(before)));
  }
  return std::min(days, kMostWarmUp_days);
}

StoreRunner::StoreRunner(const Plan& plan, const Assembly& assembly, const Winter& winter)
    : m_plan(plan), m_assembly(assembly), m_winter(winter), m_every(std::max<std::size_t>(1, static_cast<std::size_t>(kPileStep_s / winter.step_s))) {
  m_state.stagnant_h.assign(assembly.stores.size(), 0.0);
  m_state.collected_h = m_state.stagnant_h;
  m_ground = undisturbedGround(plan);
  for (std::size_t s = 0; s < assembly.stores.size(); ++s) {
    const StoreNodes& store = assembly.stores[s];
    if (std::holds_alternative<LayeredHandles>(store.own)) m_layered.push_back(s);
    if (store.collector) m_collecting.push_back(s);
    if (store.kind != StoreKind::compost) continue;
    const CompostPile& pile = plan.compost[store.index];
    Place place{&store, blendOf(pile), firstBuilt(pile, winter.start, plan.site.place.latitude_deg), 0.0, 0.0};
    const PileSize size = pileSize(pile, place.blend);
    m_state.air.push_back(pileAir(pile, size));
    const double buried_m2 = pile.buried * size.sides_m2;
    place.ground_W_K = size.foot_m2 / (size.core_m2K_W + kUnder_m2K_W) + buried_m2 / (size.core_m2K_W + pile.jacket_m2K_W + kUnder_m2K_W);
    if (pile.place == PilePlace::mound) place.outside_W_K = (size.top_m2 + size.sides_m2 - buried_m2) / (size.core_m2K_W + pile.jacket_m2K_W + kOuter_m2K_W);
    m_places.push_back(std::move(place));
  }
  m_state.piles.resize(m_places.size());
  m_state.energy.resize(m_places.size());
  m_state.taken_J.resize(m_places.size());
  m_state.pumped_h.resize(m_places.size());
  m_state.pumps.resize(m_places.size());
}

int StoreRunner::builtBy(const Place& place, std::size_t pile, UtcSeconds at) const {
  if (at < place.first) return 0;
  const CompostPile& of = m_plan.compost[pile];
  return std::min(of.piles, 1 + static_cast<int>(static_cast<double>(at - place.first) / (of.everyDays * kDay_s)));
}

/// The pile's temperature, and what its air carries, to the network.
void StoreRunner::hand(Solver& solver, std::size_t pile, std::size_t i) {
  const Place& place = m_places[pile];
  PilePresent& now = m_state.piles[pile];
  const StoreNodes& nodes = *place.nodes;
  const PileHandles& handles = *nodes.pile();
  // piles are built at the hours at which they go on
  if (const int due = m_state.waiting == 0 ? builtBy(place, pile, m_winter.time(i)) : now.built; due > now.built) {
    now = {due, place.blend.mix, 0, now.watered_kg, {}, {}};
    breathe(pile);
    now.state = freshCompost(place.blend.mix, m_plan.compost[pile].tipped_C.value_or(std::max(kLeastStart_C, m_winter.outside_C[i])));
  }
  const CompostPile& of = m_plan.compost[pile];
  double t_C = now.state.temperature_C;
  if (of.place == PilePlace::mound) {
    const double warmed_C = solver.temperature_C(handles.coilWarms >= 0 ? handles.coilWarms : m_assembly.air);
    const bool pumps = m_state.now.mains && now.built > 0 && t_C >= warmed_C + kPumpNeeds_K;
    if (!pumps) t_C = warmed_C;
    m_state.pumps[pile] = pumps && (handles.coilWarms >= 0 || solver.signalNow(nodes.runs) > 0.0);
  } else if (now.built == 0) {
    t_C = solver.temperature_C(nodes.node.front()); // nothing stands there
  }
  solver.setBoundary(handles.core, t_C);
  if (handles.breath) {
    solver.setSource(handles.breath->sensible, now.built > 0 ? now.rates.sensible_W : 0.0);
    solver.setSource(handles.breath->latent, now.built > 0 ? now.rates.latent_W : 0.0);
  }
}

void StoreRunner::take(const std::vector<PilePresent>& piles) {
  if (piles.size() == m_state.piles.size()) m_state.piles = piles;
}

void StoreRunner::change(Solver& solver, std::size_t i, const Circumstances& now) {
  if (now.mains != m_state.now.mains) {
    m_state.now = now;
    collect(solver, i, 0.0);
    for (std::size_t p = 0; p < m_places.size(); ++p) hand(solver, p, i);
  }
  m_state.now = now;
}

void StoreRunner::begin(Solver& solver) {
  for (std::size_t p = 0; p < m_places.size(); ++p) hand(solver, p, 0);
  collect(solver, 0, m_winter.step_s);
  turnOver(solver);
}

void StoreRunner::step(Solver& solver, std::size_t i) {
  for (std::size_t p = 0; p < m_places.size(); ++p) {
    m_state.taken_J[p] -= solver.boundaryEnergy_J(m_places[p].nodes->pile()->core);
    if (m_state.pumps[p]) m_state.pumped_h[p] += m_winter.step_s / 3600.0;
  }
  if (++m_state.waiting >= m_every || i + 1 == m_winter.size()) {
    for (std::size_t p = 0; p < m_places.size(); ++p) {
      if (m_state.piles[p].built > 0) goOn(solver, p, i, static_cast<double>(m_state.waiting) * m_winter.step_s);
      m_state.taken_J[p] = 0.0;
    }
    m_state.waiting = 0;
  }
  for (std::size_t p = 0; p < m_places.size(); ++p) hand(solver, p, i);
  collect(solver, i, m_winter.step_s);
  turnOver(solver);
}

void StoreRunner::goOn(const Solver& solver, std::size_t pile, std::size_t i, double h_s) {
  const Place& place = m_places[pile];
  PilePresent& now = m_state.piles[pile];
  CompostWeather weather{m_winter.outside_C[i], m_winter.outside_g_kg[i] / 1000.0, solver.network().pressure_Pa};
  if (place.nodes->pile()->air >= 0) weather.air_C = solver.temperature_C(place.nodes->pile()->air);
  if (place.nodes->pile()->vapour >= 0) weather.air_kg_kg = solver.temperature_C(place.nodes->pile()->vapour) / 1000.0;
  const double ground_C = m_ground.temperature_C(kUnder_m, m_winter.startDay + static_cast<double>(i) * m_winter.step_s / kDay_s);
  weather.taken_W_K = place.outside_W_K + place.ground_W_K;
  weather.taken_W = m_state.taken_J[pile] / h_s + place.outside_W_K * (now.state.temperature_C - m_winter.outside_C[i]) +
                    place.ground_W_K * (now.state.temperature_C - ground_C);
  const CompostStep did = advanceCompost(now.mix, now.state, m_state.air[pile], weather, h_s);
  now.rates = did.middle;
  CompostStep& sum = m_state.energy[pile];
  sum.heat_J += did.heat_J;
  sum.sensible_J += did.sensible_J;
  sum.latent_J += did.latent_J;
  sum.taken_J += did.taken_J;
  if (m_state.now.tended) tend(pile, i);
}

/// A pile that has grown or is built anew breathes by its height.
void StoreRunner::breathe(std::size_t pile) {
  const CompostPile& of = m_plan.compost[pile];
  Blend blend = m_places[pile].blend;
  blend.volume_m3 = m_state.piles[pile].mix.volume_m3;
  m_state.air[pile] = pileAir(of, pileSize(of, blend));
}

/// What the grower does to it when it is due.
void StoreRunner::tend(std::size_t pile, std::size_t i) {
  const CompostPile& of = m_plan.compost[pile];
  PilePresent& now = m_state.piles[pile];
  const double yard_C = std::max(kLeastStart_C, m_winter.outside_C[i]);
  if (of.topUpEvery_days > 0.0 && now.state.age_s >= (now.toppedUp + 1) * of.topUpEvery_days * kDay_s) {
    topUpCompost(now.mix, now.state, kTopUp, yard_C);
    ++now.toppedUp;
    breathe(pile);
  }
  const double solids_kg = now.state.degradable_kg + now.mix.inert_kg();
  if (now.state.water_kg < of.waterBelow * (now.state.water_kg + solids_kg)) now.watered_kg += waterCompost(now.mix, now.state, kWateredTo, yard_C);
}

/// A lower half that is warmer rises within half an hour.
void StoreRunner::turnOver(Solver& solver) {
  constexpr double kTurnsOver_s = 1800.0;
  for (const std::size_t s : m_layered) {
    const StoreNodes& store = m_assembly.stores[s];
    const double warmer_K = solver.temperature_C(store.node[0]) - solver.temperature_C(store.node[1]);
    const double half_J_K = solver.network().nodes[static_cast<std::size_t>(store.node[0])].capacity_J_K;
    const double up_W = warmer_K > 0.0 ? 0.5 * half_J_K * warmer_K / std::max(kTurnsOver_s, 2.0 * m_winter.step_s) : 0.0;
    const auto& halves = std::get<LayeredHandles>(store.own);
    solver.setSource(halves.lower, -up_W);
    solver.setSource(halves.upper, up_W);
  }
}

/// What the collectors give over the next step, of which so much is counted as one.
void StoreRunner::collect(Solver& solver, std::size_t i, double counted_s) {
  for (const std::size_t s : m_collecting) {
    const CollectorHandles& collector = *m_assembly.stores[s].collector;
    const double warmed_C = solver.temperature_C(collector.warms);
    const double gain_W_m2 = kCollectorTakesUp * collector.W_m2[i] - kCollectorLoss_W_m2K * (warmed_C + collector.above_K - m_winter.outside_C[i]);
    const bool tooHot = warmed_C > collector.stops_C;
    const bool stands = tooHot || !m_state.now.mains; // its pump rests
    if (gain_W_m2 > 0.0) (stands ? m_state.stagnant_h : m_state.collected_h)[s] += counted_s / 3600.0;
    solver.setSource(collector.source, stands ? 0.0 : collector.area_m2 * std::max(gain_W_m2, 0.0));
  }
}

} // namespace muffle
