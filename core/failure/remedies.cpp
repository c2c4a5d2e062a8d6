// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/failure/remedies.h"

#include "core/plan/heaters.h"

#include <cmath>

namespace muffle {
namespace {

constexpr double kNear_K = 0.02; // of the line, as the nights are judged
constexpr double kBackup_W = 100e3, kWater_l = 20000.0, kWarmer_K = 15.0;
constexpr double kBarrel_l = 200.0;
constexpr int kHalvings = 9; // to a five-hundredth of the bound that was found

class Trial {
public:
  Trial(const Plan& plan, const Scene& scene, const FailureQuestion& question, std::size_t winter, std::size_t step, const std::atomic<bool>* stop)
      : m_plan(plan), m_scene(scene), m_question(question), m_winter(winter), m_step(step), m_stop(stop) {}

  /// How far above the line the air stays; nothing if it cannot be run.
  template <class Change> std::optional<double> above_K(Change change) {
    Plan changed = m_plan;
    change(changed);
    if (!check(changed).empty()) return std::nullopt;
    const auto failures = Failures::prepare(changed, m_scene, m_question, 1, m_stop);
    if (!failures) return std::nullopt;
    const auto run = failures->at(m_winter, m_step);
    if (!run) return std::nullopt;
    return run->lowest_C - m_question.lines_C.front();
  }
  /// The least amount, up to `most`, with which the line holds; more of it never holds less.
  template <class With> std::optional<double> least(double first, double most, With with) {
    const auto holds = [&](double amount) {
      const auto above = above_K([&](Plan& p) { with(p, amount); });
      return above && *above >= -kNear_K;
    };
    double low = 0.0, high = first;
    while (!holds(high)) {
      if (high >= most || (m_stop && m_stop->load())) return std::nullopt;
      low = high;
      high = std::min(most, 4.0 * high);
    }
    for (int i = 0; i < kHalvings && high - low > 0.005 * high; ++i) {
      const double middle = 0.5 * (low + high);
      (holds(middle) ? high : low) = middle;
    }
    return high;
  }

private:
  const Plan& m_plan;
  const Scene& m_scene;
  const FailureQuestion& m_question;
  std::size_t m_winter, m_step;
  const std::atomic<bool>* m_stop;
};

} // namespace

Result<Remedies> whatWouldHold(const Plan& plan, const Scene& scene, const FailureQuestion& question, std::size_t winter, std::size_t step,
                               const std::atomic<bool>* stop) {
  if (question.lines_C.empty()) return Problem{ProblemKind::badInput, "lines", Message{"failure.no-line-was-given"}, Message{"failure.one-needed"}};
  Remedies found;
  Trial trial(plan, scene, question, winter, step, stop);
  const auto now = trial.above_K([](Plan&) {});
  if (stop && stop->load()) return Problem{ProblemKind::cancelled, "", Message{"season.stopped"}, {}};
  if (!now) return Problem{ProblemKind::noSolution, "", Message{"season.no-solution"}, Message{"season.check-sizes"}};
  if (*now >= -kNear_K) return found;
  const double line = question.lines_C.front();
  const bool inBay = concernsBay(plan, question.what);
  const Setpoints& held = setpointsConcerned(plan, question.what);
  const double stage_K = std::min(held.night_C, held.day_C) - line;
  if (stage_K >= 0.0)
    found.backup_W = trial.least(1000.0, kBackup_W, [&](Plan& p, double power_W) {
      addHeater(p, {.id = "backup",
                    .kind = HeaterKind::district,
                    .place = {inBay ? HeaterPlace::Of::bay : HeaterPlace::Of::house},
                    .power_W = power_W,
                    .stage_K = std::min(20.0, stage_K)});
    });
  if (!inBay)
    found.water_l = trial.least(kBarrel_l, kWater_l, [&](Plan& p, double litres) {
      Barrels barrels;
      barrels.count = std::max(1, static_cast<int>(std::lround(litres / kBarrel_l)));
      barrels.litres = litres / barrels.count;
      p.barrels.push_back(barrels);
    });
  found.warmer_K = trial.least(1.0, kWarmer_K, [&](Plan& p, double warmer_K) { (inBay ? p.house.bay->setpoints : p.setpoints).shift(warmer_K); });
  return found;
}

} // namespace muffle
