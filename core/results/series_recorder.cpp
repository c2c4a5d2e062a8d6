// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/series_recorder.h"

namespace muffle {
namespace {

/// The sun taken up inside and in the cover, mean over each step: what its sources are driven by, without a step having been run.
void sunOverSteps(const Network& net, int sunSources, double step_s, std::vector<float>& sun_W) {
  std::vector<double> at(sun_W.size(), 0.0);
  for (int k = 0; k < sunSources; ++k) {
    const Driver& driver = net.sources[static_cast<std::size_t>(k)].power;
    const Signal* const table = driver.kind == Driver::Kind::table ? &net.tables[static_cast<std::size_t>(driver.signal)] : nullptr;
    const bool onSteps = table && table->step_s == step_s && table->start_s == 0.0 && table->value.size() >= at.size();
    for (std::size_t i = 0; i < at.size(); ++i)
      at[i] += onSteps ? driver.mean + driver.amplitude * table->value[i] : driver.at(static_cast<double>(i) * step_s, net.tables);
  }
  for (std::size_t i = 1; i < at.size(); ++i) sun_W[i] = static_cast<float>(0.5 * (at[i - 1] + at[i]));
}

} // namespace

SeriesRecorder::SeriesRecorder(const Plan& plan, const Assembly& assembly, const Winter& winter, std::vector<int> lossGroups, const HouseWatch& house,
                               const DampWatch& damp, WinterResult& result)
    : m_plan(plan.house), m_groups(std::move(lossGroups)), m_house(house), m_damp(damp), m_result(result) {
  const std::size_t n = winter.size();
  WinterSeries& s = m_result.series;
  for (auto* of : {&s.air_C, &s.floor_C, &s.heater_W, &s.vapour_g_kg, &s.leaf_C, &s.light_W_m2}) of->resize(n);
  s.blanket.assign(assembly.blanketClosed.size(), 0.0F);
  s.sun_W.assign(n, 0.0F);
  s.soil_C.assign(assembly.soil.size(), std::vector<float>(n));
  s.rooms.assign(assembly.rooms.size(), {std::vector<float>(n), std::vector<float>(n)});
  for (std::size_t g = 0; g < s.inner_C.size(); ++g)
    if (assembly.inner[g] >= 0) s.inner_C[g].resize(n), s.outer_C[g].resize(n);
  for (auto& part : s.loss_W) part.assign(n, 0.0F);
  s.sky_W.assign(n, 0.0F);
  s.vents.assign(n, 0.0F);
  s.rolled.assign(m_plan.rollUp ? n : 0, 0.0F);
  s.roof.assign(assembly.roofOpen.begin(), assembly.roofOpen.end());
}

/// How far what opens by the house's warmth is open.
void SeriesRecorder::seeOpenings(const Run& run) {
  const std::size_t i = run.step();
  const auto air_C = static_cast<double>(m_house.air_C()[i]);
  const auto& mayVent = run.assembly().mayVent;
  const double may = mayVent.empty() ? 1.0 : mayVent[i];
  const auto open = [&](double from_C, double full_C) { return static_cast<float>(may * openness(air_C, from_C, full_C)); };
  m_result.series.vents[i] = open(m_plan.ventOpens_C, m_plan.ventFull_C);
  if (m_plan.rollUp) m_result.series.rolled[i] = open(m_plan.rollUp->opens_C, m_plan.rollUp->full_C);
}

void SeriesRecorder::seeLosses(const Run& run) {
  const std::size_t i = run.step();
  double sky_J = 0.0;
  for (const int group : m_groups) {
    const double energy = run.solver().groupEnergy_J(group);
    const auto part = static_cast<std::size_t>(group % kLossPathCount);
    m_result.loss_J[part] += energy;
    m_result.series.loss_W[part][i] += static_cast<float>(energy / run.winter().step_s);
    if (group >= kLossPathCount) sky_J += energy;
  }
  m_result.sky_J += sky_J;
  m_result.series.sky_W[i] = static_cast<float>(sky_J / run.winter().step_s);
}

void SeriesRecorder::see(const Run& run) {
  if (run.step() == 0) sunOverSteps(run.solver().network(), run.assembly().sunSources, run.winter().step_s, m_result.series.sun_W);
  const std::size_t i = run.step();
  const Solver& solver = run.solver();
  const Assembly& assembly = run.assembly();
  WinterSeries& s = m_result.series;
  s.air_C[i] = m_house.air_C()[i];
  if (assembly.light >= 0) s.light_W_m2[i] = static_cast<float>(solver.signalNow(assembly.light));
  seeOpenings(run);
  if (!m_house.blanket().empty()) s.blanket[i] = static_cast<float>(m_house.blanket()[i]);
  s.leaf_C[i] = static_cast<float>(m_damp.leaf_C());
  s.vapour_g_kg[i] = static_cast<float>(solver.temperature_C(assembly.vapour));
  for (std::size_t r = 0; r < s.rooms.size(); ++r) {
    s.rooms[r].air_C[i] = m_house.rooms_C()[r][i];
    s.rooms[r].vapour_g_kg[i] = static_cast<float>(solver.temperature_C(assembly.rooms[r].vapour));
  }
  s.heater_W[i] = m_house.heater_W()[i];
  s.floor_C[i] = static_cast<float>(solver.temperature_C(assembly.floor));
  for (std::size_t k = 0; k < assembly.soil.size(); ++k) s.soil_C[k][i] = static_cast<float>(solver.temperature_C(assembly.soil[k]));
  for (std::size_t g = 0; g < s.inner_C.size(); ++g) {
    if (assembly.inner[g] < 0) continue;
    s.inner_C[g][i] = static_cast<float>(solver.temperature_C(assembly.inner[g]));
    s.outer_C[g][i] = static_cast<float>(solver.temperature_C(assembly.outer[g]));
  }
  if (i > 0) seeLosses(run);
}

} // namespace muffle
