// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/run/run.h"

namespace muffle {

Result<Run> Run::prepare(const Plan& plan, Assembly assembly, const Winter& winter, Scenario scenario, std::vector<int> groupOfLink) {
  Run run;
  run.m_winter = &winter;
  run.m_assembly = std::make_unique<Assembly>(std::move(assembly));
  auto solver = Solver::prepare(std::move(run.m_assembly->network), {.multistep = true, .groupOfLink = std::move(groupOfLink)});
  if (!solver) return solver.problems();
  run.m_solver = std::make_unique<Solver>(std::move(*solver));
  auto stores = std::make_unique<StoreRunner>(plan, *run.m_assembly, winter);
  run.m_stores = stores.get();
  run.m_components.push_back(std::move(stores));
  run.m_scenario = std::move(scenario);
  run.m_isUsual = run.m_scenario.mainsOff.empty() && run.m_scenario.nobodyThere.empty() && run.m_scenario.failures.empty();
  return run;
}

void Run::begin() {
  m_step = 0;
  for (const auto& component : m_components) component->begin(*m_solver);
}

bool Run::begin(const StateBefore& before) {
  if (before.temperature_C.size() != m_solver->network().nodes.size()) return false;
  m_solver->setTemperatures(before.temperature_C);
  m_solver->reset();
  m_stores->take(before.piles);
  begin();
  return true;
}

bool Run::beginTwice(double first_s) {
  const auto steps = std::min(m_winter->size() - 1, static_cast<std::size_t>(first_s / m_winter->step_s));
  for (std::size_t i = 0; i < steps; ++i)
    if (!m_solver->advance(m_winter->step_s)) return false;
  std::vector<double> start(m_solver->network().nodes.size());
  for (std::size_t i = 0; i < start.size(); ++i) start[i] = m_solver->temperature_C(static_cast<int>(i));
  // the soil keeps its undisturbed profile: five days of autumn say nothing about it below the surface
  for (const int below : m_assembly->below) {
    const auto node = static_cast<std::size_t>(below);
    start[node] = m_solver->network().nodes[node].initial_C;
  }
  m_solver->setTemperatures(start);
  m_solver->reset();
  begin();
  return true;
}

void Run::takeCircumstances() {
  const UtcSeconds t = m_winter->time(m_step);
  const Circumstances now{!isWithin(m_scenario.mainsOff, t), !isWithin(m_scenario.nobodyThere, t)};
  const auto& thermostats = m_solver->network().thermostats;
  for (std::size_t j = 0; j < thermostats.size(); ++j) {
    bool gives = now.mains || !m_assembly->isElectric(static_cast<int>(j));
    for (const Failure& f : m_scenario.failures)
      if (f.what == thermostats[j].id && f.when.covers(t)) gives = false;
    m_solver->setLimit(j, gives ? 1.0 : 0.0);
  }
  if (m_assembly->mains >= 0) m_solver->setRelay(m_assembly->mains, now.mains);
  m_now = now;
  for (const auto& component : m_components) component->change(*m_solver, m_step, now);
}

bool Run::advance(std::size_t steps) {
  if (!m_isUsual) takeCircumstances();
  if (!m_solver->advance(static_cast<double>(steps) * m_winter->step_s)) return false;
  m_step += steps;
  for (const auto& component : m_components) component->step(*m_solver, m_step);
  return true;
}

RunState Run::keep() const {
  RunState state{m_step, std::make_shared<const Solver>(*m_solver), {}};
  for (const auto& component : m_components) state.components.push_back(component->keep());
  return state;
}

void Run::goOn(const RunState& state, Scenario scenario) {
  m_step = state.step;
  *m_solver = *state.solver;
  for (std::size_t c = 0; c < m_components.size(); ++c) m_components[c]->goOn(state.components[c]);
  const bool acts = !(scenario.mainsOff.empty() && scenario.nobodyThere.empty() && scenario.failures.empty());
  // what was off when it was kept is put right by the next step
  m_isUsual = !acts && m_isUsual;
  m_scenario = std::move(scenario);
}

} // namespace muffle
