// SPDX-License-Identifier: GPL-3.0-or-later
//
// How long a house has when something fails: a season is run to the moment, kept, and gone on with under the failure, a minute at a time.
//
//   auto all = failures(plan, scene, {.what = "mains", .for_h = 6.0, .lines_C = {2.0, 0.0}});
//   all->at(winter, step)      // at a moment
//   all->worst()               // of all moments of all winters
#pragma once

#include "core/simulate/simulate.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace muffle {

/// Something of a plan that can fail, by the name that scenarios know it by: "mains", "stoker", "heater:ID", "fan:ID", "blanket:open", "blanket:shut".
struct FailingThing {
  enum class Kind { mains, stoker, heater, fan, blanketOpen, blanketShut };
  Kind kind = Kind::mains;
  std::string id = {};   ///< of a heater or fan
  Message name = {};   ///< that the plan has for it
  [[nodiscard]] std::string text() const;
};
/// What of this plan can fail: never without the mains.
std::vector<FailingThing> whatCanFail(const Plan& plan);
/// Of a text as above; "blanket" is one that stays open. A problem names what this plan has.
Result<FailingThing> failingThing(const Plan& plan, const std::string& text);

/// What fails serves the bay alone: then it is the bay's air that counts, else the house's.
bool concernsBay(const Plan& plan, const FailingThing& thing);
/// Of the room that counts.
const Setpoints& setpointsConcerned(const Plan& plan, const FailingThing& thing);

struct FailureQuestion {
  FailingThing what;
  double for_h = 6.0;          ///< how long it fails, 0.1 to 240
  std::vector<double> lines_C; ///< whose crossing is asked for
};

struct FailureRun {
  std::size_t winter = 0, step = 0; ///< when it fails
  UtcSeconds at = 0;
  double atAir_C = 0.0, atOutside_C = 0.0;
  double every_min = 1.0, otherwiseEvery_min = 10.0; ///< between the values of the courses below
  std::vector<float> air_C, outside_C;               ///< while it fails, from its moment on, or until the winter ends
  std::vector<float> otherwise_C;                    ///< the air if nothing had failed
  std::vector<std::optional<double>> minutes;        ///< by line: until the air is below it; nothing if it never is
  double lowest_C = 0.0;
  double lowestAfter_min = 0.0;
};

/// The worst moments for a failure.
struct WorstMoments {
  std::size_t winterOfLow = 0, stepOfLow = 0; ///< the air falls lowest
  double lowest_C = 0.0;
  std::optional<std::size_t> winterOfTime, stepOfTime; ///< the first line is crossed soonest; none if it never is
  double soonest_min = 0.0;
  std::size_t moments = 0; ///< that were tried
};

class Failures {
public:
  /// The scene must have sun and weeks before (makeScene()), and outlive this, as must `stop`. `threads` for worst().
  static Result<Failures> prepare(const Plan& plan, const Scene& scene, FailureQuestion question, int threads = 1, const std::atomic<bool>* stop = nullptr);

  /// At the start of a step of a winter.
  Result<FailureRun> at(std::size_t winter, std::size_t step) const;
  /// Tried every hour of every winter, then every step about the worst.
  Result<WorstMoments> worst() const;

private:
  Failures() = default;
  std::shared_ptr<const Plan> m_plan;
  const Scene* m_scene = nullptr;
  FailureQuestion m_question;
  int m_threads = 1;
  const std::atomic<bool>* m_stop = nullptr;
};

} // namespace muffle
