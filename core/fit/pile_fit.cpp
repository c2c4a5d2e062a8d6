// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/pile_fit.h"

#include "core/plan/store_list.h"
#include "core/simulate/simulate.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

namespace muffle {
namespace {

constexpr double kLeast = 0.25, kMost = 4.0; // of the factor
constexpr int kRounds = 12;                  // to 1 % of it
constexpr std::size_t kLeastReadings = 24;

struct Error {
  double rms_K = 0.0;
  std::size_t readings = 0;
};

} // namespace

const Channel* pileChannel(const Log& log, std::size_t pile) {
  const auto named = [&](const std::string& id) { return log.find(Role::store, id); };
  if (const Channel* own = named(fmt::format("compost{}", pile + 1))) return own;
  return pile == 0 ? named("compost") : nullptr;
}

Result<PileFit> fitPile(const Plan& plan, const Log& log, const std::shared_ptr<const Weather>& weather, std::size_t pile,
                        const std::function<bool(std::size_t, std::size_t)>& progress, const std::atomic<bool>* stop) {
  const Channel* channel = pileChannel(log, pile);
  if (!channel) return Problem{ProblemKind::missing, "", Message{"fit.log-no-temperature-inside-pile"}, Message{"fit.channel-role-store-compost", pile + 1}};
  const auto refs = storesOf(plan);
  const auto place = static_cast<std::size_t>(
      std::find_if(refs.begin(), refs.end(), [&](const StoreRef& s) { return s.kind == StoreKind::compost && s.index == pile; }) - refs.begin());
  const Scene scene = makeScene(weather, plan);
  std::vector<std::vector<double>> readings;
  for (const Winter& winter : weather->winters) readings.push_back(readingsOn(winter, log, *channel));
  std::optional<Problem> problem;
  std::size_t runs = 0;
  const auto error = [&](double factor) {
    Plan tried = plan;
    tried.compost[pile].k20Factor = factor;
    Error e;
    const auto run = simulate(tried, scene, {.series = true, .threads = 2, .stop = stop});
    if (!run) {
      problem = run.problem();
      return e;
    }
    double sum = 0.0;
    for (std::size_t w = 0; w < readings.size(); ++w) {
      const auto& core = run->series[w].stores[place].temperature_C[0];
      for (std::size_t i = 0; i < core.size(); ++i) {
        const double off = static_cast<double>(core[i]) - readings[w][i];
        if (std::isnan(off)) continue;
        sum += off * off;
        ++e.readings;
      }
    }
    e.rms_K = e.readings > 0 ? std::sqrt(sum / static_cast<double>(e.readings)) : 0.0;
    if (progress && !progress(++runs, kRounds + 3)) problem = Problem{ProblemKind::cancelled, "", Message{"fit.fit-was-stopped"}, {}};
    return e;
  };
  const Error before = error(plan.compost[pile].k20Factor);
  if (problem) return *problem;
  if (before.readings < kLeastReadings)
    return Problem{ProblemKind::missing, "", Message{"fit.readings-from-inside-pile", before.readings}, Message{"fit.day-of-readings-needed"}};
  const double golden = (std::sqrt(5.0) - 1.0) / 2.0;
  double low = std::log(kLeast), high = std::log(kMost);
  double a = high - golden * (high - low), b = low + golden * (high - low);
  double atA = error(std::exp(a)).rms_K, atB = error(std::exp(b)).rms_K;
  for (int round = 0; round < kRounds && !problem; ++round) {
    if (atA < atB) {
      high = b;
      b = a;
      atB = atA;
      a = high - golden * (high - low);
      atA = error(std::exp(a)).rms_K;
    } else {
      low = a;
      a = b;
      atA = atB;
      b = low + golden * (high - low);
      atB = error(std::exp(b)).rms_K;
    }
  }
  if (problem) return *problem;
  return PileFit{std::exp(atA < atB ? a : b), before.rms_K, std::min(atA, atB), before.readings};
}

} // namespace muffle
