// SPDX-License-Identifier: GPL-3.0-or-later
//
// A plan on its way through a winter: the network and what goes on beside it, from step to step. It can be stopped at any step, kept, and gone on
// with as often as wanted, under the same circumstances to the last bit, or under others from that step on.
//
//   auto run = Run::prepare(plan, assemble(plan, winter, sun), winter);
//   run->begin();
//   while (!run->isDone()) {
//     if (dusk) state = run->keep();
//     run->advance();
//   }
//   run->goOn(*state, {.mainsOff = {{dusk, dawn}}});
#pragma once

#include "core/run/component.h"
#include "core/run/fire.h"
#include "core/run/store_runner.h"

#include <functional>
#include <memory>
#include <span>

namespace muffle {

/// What the weeks before a winter's log leave.
struct StateBefore {
  std::vector<double> temperature_C; ///< by node, as of the winter's own assembly
  std::vector<PilePresent> piles;
};

/// Where a run stands.
struct RunState {
  std::size_t step = 0;
  std::shared_ptr<const Solver> solver; ///< temperatures, humidity, ice, water on covers, switches, thermostats, and the method's memory of steps before
  std::vector<std::any> components;
};

class Run {
public:
  /// The network's problems, if it has any. Plan and winter must outlive it. `groupOfLink` as SolverOptions has it. A colder winter is the caller's: it is in
  /// `winter`.
  static Result<Run> prepare(const Plan& plan, Assembly assembly, const Winter& winter, Scenario scenario = {}, std::vector<int> groupOfLink = {});

  /// From the network's own first temperatures.
  void begin();
  /// From where the weeks before have left it; false, and nothing is done, if that was another house.
  bool begin(const StateBefore& before);
  /// Its first days are run twice, so that air, covers and barrels start right; for want of weeks before. False if no solution was found.
  bool beginTwice(double first_s);

  /// `steps` of the winter at once. False if no solution was found.
  bool advance(std::size_t steps = 1);
  /// One step, in equal pieces, for what must be seen more closely; `seen` is called after each. What goes on beside the network follows at the end.
  bool advanceFinely(int pieces, const std::function<void()>& seen);
  [[nodiscard]] std::size_t step() const { return m_step; }
  /// Of the winter, in which the step that ends here began.
  [[nodiscard]] std::size_t hour() const { return static_cast<std::size_t>(static_cast<double>(m_step > 0 ? m_step - 1 : 0) * m_winter->step_s / 3600.0); }
  [[nodiscard]] bool isDone() const { return m_step + 1 >= m_winter->size(); }

  [[nodiscard]] RunState keep() const;
  /// Of a run that was kept from this one or one that was prepared from the same assembly's copy.
  void goOn(const RunState& state) { goOn(state, m_scenario); }
  void goOn(const RunState& state, Scenario scenario);

  [[nodiscard]] const Solver& solver() const { return *m_solver; }
  [[nodiscard]] const Assembly& assembly() const { return *m_assembly; }
  [[nodiscard]] const Winter& winter() const { return *m_winter; }
  [[nodiscard]] const StoreRunner& stores() const { return *m_stores; }
  /// Its stoves; nullptr without any.
  [[nodiscard]] const Fire* fire() const { return m_fire; }
  /// Of the step that ends here.
  [[nodiscard]] const Circumstances& circumstances() const { return m_now; }

private:
  Run() = default;
  void takeCircumstances();

  const Winter* m_winter = nullptr;
  Scenario m_scenario;
  bool m_isUsual = true;                ///< the scenario never acts
  std::unique_ptr<Assembly> m_assembly; ///< without its network, which is the solver's
  std::unique_ptr<Solver> m_solver;
  std::vector<std::unique_ptr<Component>> m_components;
  StoreRunner* m_stores = nullptr; ///< one of them
  Fire* m_fire = nullptr;          ///< another
  Circumstances m_now;
  std::size_t m_step = 0;
};

/// Looks on at a run; records what it is there for.
class Observer {
public:
  virtual ~Observer() = default;
  /// At the first step, and after every one.
  virtual void see(const Run& run) = 0;
};

} // namespace muffle
