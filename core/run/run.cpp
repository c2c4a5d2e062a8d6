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
  if (auto fire = std::make_unique<Fire>(plan, *run.m_assembly, run.m_solver->network(), winter); !fire->isIdle()) {
    run.m_fire = fire.get();
    fire->goOut(*run.m_solver);
    run.m_components.push_back(std::move(fire));
  }
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
  for (const auto& component : m_components) component->change(*m_solver, m_step, now);
  const auto& thermostats = m_solver->network().thermostats;
  const auto fails = [&](const std::string& what) {
    return std::any_of(m_scenario.failures.begin(), m_scenario.failures.end(), [&](const Failure& f) { return f.what == what && f.when.covers(t); });
  };
  for (std::size_t j = 0; j < thermostats.size(); ++j) {
    const bool gives = (now.mains || !m_assembly->isElectric(static_cast<int>(j))) && !fails(thermostats[j].id);
    m_solver->setLimit(j, gives ? 1.0 : 0.0);
  }
  if (m_assembly->mains >= 0) m_solver->setRelay(m_assembly->mains, now.mains);
  for (const Assembly::Fed& fed : m_assembly->fed) m_solver->setRelay(fed.relay, now.mains && !fails(fed.what));
  if (m_assembly->blanketStuckOpen >= 0) m_solver->setRelay(m_assembly->blanketStuckOpen, fails("blanket:open"));
  if (m_assembly->blanketStuckShut >= 0) m_solver->setRelay(m_assembly->blanketStuckShut, fails("blanket:shut"));
  m_now = now;
}

bool Run::advance(std::size_t steps) {
  if (!m_isUsual) takeCircumstances();
  if (!m_solver->advance(static_cast<double>(steps) * m_winter->step_s)) return false;
  m_step += steps;
  for (const auto& component : m_components) component->step(*m_solver, m_step);
  return true;
}

bool Run::advanceFinely(int pieces, const std::function<void()>& seen) {
  if (!m_isUsual) takeCircumstances();
  for (int i = 0; i < pieces; ++i) {
    if (!m_solver->advance(m_winter->step_s / pieces)) return false;
    seen();
  }
  ++m_step;
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
