// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle_fit_study PLAN.json SEED=LOG.csv...: fits each log, made by the generator with that seed, and sets what is found against the
// truth: what the tunnel's heater gives in the long run, 2.5 K either side of the heated nights' mean outside, under their mean wind and
// cloud, per kelvin of lift. One line a log.
#include "book/files.h"
#include "core/fit/calibrate.h"
#include "core/fit/house_loss.h"
#include "core/fit/quick_fit.h"
#include "core/log/flags.h"
#include "core/log/read.h"
#include "core/network/solver.h"
#include "core/plan/plan_json.h"
#include "core/simulate/simulate.h"
#include "demo-data/truth.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdio>

using namespace muffle;

namespace {

constexpr double kAside_K = 2.5;

constexpr double kFails_h = 4.0;

/// Heat that a house gives back over a night in which its heater has failed, by kelvin that its air fell: what it lost meanwhile, which
/// nothing else made good.
double capacity_J_K(double UA_W_K, const demo::Truth::Cooling& c, double outside_C) {
  return UA_W_K * (c.mean_C - outside_C) * kFails_h * 3600.0 / (c.start_C - c.end_C);
}

/// The plan's house under the same failure.
demo::Truth::Cooling coolingOf(const Plan& plan, double air_C, double outside_C, double wind_m_s, double cloud) {
  Plan still = plan;
  still.heaters.clear();
  still.site.groundAmplitude_K = 0.0;
  still.house.ventOpens_C = 90.0;
  still.house.ventFull_C = 99.0;
  const Winter winter = steadyWinter(still.site, outside_C, wind_m_s, 1.0 - cloud);
  Assembly a = assemble(still, winter, sunOnHouse(still.house.shape, winter));
  const int heat = static_cast<int>(a.network.sources.size());
  a.network.sources.push_back({a.air, Driver::set(steadyLoss(still, air_C, outside_C, wind_m_s, 1.0 - cloud)->total_W), "heater"});
  auto solver = Solver::prepare(std::move(a.network));
  if (!solver || !solver->solveSteady()) return {};
  demo::Truth::Cooling c{solver->temperature_C(a.air), 0.0, 0.0};
  solver->setSource(heat, 0.0);
  constexpr int kSteps = 120;
  for (int i = 0; i < kSteps; ++i) {
    solver->advance(kFails_h * 3600.0 / kSteps);
    c.mean_C += solver->temperature_C(a.air) / kSteps;
  }
  c.end_C = solver->temperature_C(a.air);
  return c;
}

/// The tunnel of the generator on its own heated nights.
struct Truth {
  double wind_m_s = 0.0, cloud = 0.0, outside_C = 0.0; ///< means
  demo::Truth::Steady cold{}, mild{};
  demo::Truth::Cooling fails{};
  [[nodiscard]] double liftBetween_K() const { return (cold.air_C - (outside_C - kAside_K)) - (mild.air_C - (outside_C + kAside_K)); }
  [[nodiscard]] double slope_W_K() const { return (cold.heater_W - mild.heater_W) / liftBetween_K(); }
};

Truth truthOf(std::uint32_t seed, std::vector<std::pair<UtcSeconds, demo::Minute>>* minutes = nullptr) {
  Truth mean;
  demo::Truth played(seed, 45.2, 3.1);
  long n = 0;
  for (const int year : {2023, 2024}) { // as the generator does
    const UtcSeconds from = daysSinceEpoch({year, 10, 1}) * 86400 + 10 * 3600, to = daysSinceEpoch({year + 1, 4, 1}) * 86400;
    played.start(13.0);
    for (UtcSeconds t = from - 3 * 86400; t < to; t += 60) {
      const demo::Minute m = played.step(t, dayOfYear(dateFromDays(t / 86400)) + static_cast<double>(t % 86400) / 86400.0);
      if (minutes) minutes->emplace_back(t, m);
      if (t < from || m.sun_W_m2 > 0.0 || m.outside_C > -0.5 || m.outside_C < -7.0) continue; // dark, the heater neither off nor at its limit
      mean.wind_m_s += m.wind_m_s;
      mean.cloud += m.cloud;
      mean.outside_C += m.outside_C;
      ++n;
    }
  }
  for (double* sum : {&mean.wind_m_s, &mean.cloud, &mean.outside_C}) *sum /= static_cast<double>(n);
  demo::Truth still(1, 45.2, 3.1);
  mean.cold = still.steady(mean.outside_C - kAside_K, mean.wind_m_s, mean.cloud);
  mean.fails = still.cooling(mean.outside_C, mean.wind_m_s, mean.cloud, kFails_h);
  mean.mild = still.steady(mean.outside_C + kAside_K, mean.wind_m_s, mean.cloud);
  return mean;
}

} // namespace

int main(int argc, char** argv) {
  if (argc < 3) {
    std::fprintf(stderr, "usage: muffle_fit_study PLAN.json LOG.csv...\n");
    return 2;
  }
  const auto plan = planFromJson(*parseJson(*readFile(argv[1])));
  if (!plan) return 3;
  for (int i = 2; i < argc; ++i) {
    const std::string argument = argv[i];
    const auto equals = argument.find('=');
    const auto seed = static_cast<std::uint32_t>(std::stoul(argument.substr(0, equals)));
    const std::string file = argument.substr(equals + 1);
    std::vector<std::pair<UtcSeconds, demo::Minute>> minutes;
    const Truth truth = truthOf(seed, &minutes);
    ReadOptions options;
    options.zone = *TimeZone::named(plan->site.timeZone);
    auto read = readLog(*readFile(file), options);
    flagProblems(read->log, plan->site.place);
    const auto weather = std::make_shared<const Weather>(*weatherFromLog(read->log, plan->site));
    const auto quick = quickFit(read->log, cutNights(read->log, plan->site.place, options.zone));
    const auto fit = calibrate(*plan, read->log, weather);
    if (!quick || !fit) continue;
    Plan fitted = *plan;
    fitted.calibration = fit->found;
    const auto lossAt = [&](const Plan& p, const demo::Truth::Steady& at, double outside) {
      return steadyLoss(p, at.air_C, outside, truth.wind_m_s, 1.0 - truth.cloud)->total_W;
    };
    const auto slope = [&](const Plan& p) {
      return (lossAt(p, truth.cold, truth.outside_C - kAside_K) - lossAt(p, truth.mild, truth.outside_C + kAside_K)) / truth.liftBetween_K();
    };
    const double fittedUA = slope(fitted);
    const demo::Truth::Cooling fails = coolingOf(fitted, truth.fails.start_C, truth.outside_C, truth.wind_m_s, truth.cloud);
    const double capacity = capacity_J_K(fittedUA, fails, truth.outside_C), trueCapacity = capacity_J_K(truth.slope_W_K(), truth.fails, truth.outside_C);
    const auto nights = cutNights(read->log, plan->site.place, options.zone);
    const auto balanceOf = [&](const auto& airAt) { // the same readings, the air from elsewhere
      Log other = read->log;
      for (Channel& c : other.channels) {
        if (c.role != Role::room) continue;
        for (std::size_t k = 0; k < other.time.size(); ++k) {
          c.raw[k] = std::isfinite(c.clean(k)) ? static_cast<float>(airAt(other.time[k])) : std::nanf("");
          c.flag[k] = 0;
        }
      }
      return quickFit(other, nights)->balance;
    };
    const auto trueBalance = balanceOf([&](UtcSeconds t) {
      const auto it = std::lower_bound(minutes.begin(), minutes.end(), t, [](const auto& a, UtcSeconds b) { return a.first < b; });
      return it != minutes.end() && it->first == t ? it->second.lowAir_C : std::nan("");
    });
    const auto storage = houseStorage(*fit);
    if (!trueBalance || !storage) continue;
    const auto off = [](double found, double real) { return 100.0 * (found / real - 1.0); };
    fmt::print("by the hours: C truth {:.1f}, measured {:.1f} {:+.1f} %, fitted {:.1f} +- {:.1f} {:+.1f} %{} MJ/K; UA truth {:.0f}, measured {:+.1f} %, fitted "
               "{:+.1f} %\n",
               trueBalance->C_J_K / 1e6, quick->balance->C_J_K / 1e6, off(quick->balance->C_J_K, trueBalance->C_J_K), storage->C_J_K / 1e6,
               1.96 * storage->standardError_J_K / 1e6, off(storage->C_J_K, trueBalance->C_J_K),
               std::abs(storage->C_J_K - trueBalance->C_J_K) <= 1.96 * storage->standardError_J_K ? "" : " outside", trueBalance->UA_W_K,
               off(quick->balance->UA_W_K, trueBalance->UA_W_K), off(fit->balance->UA_W_K, trueBalance->UA_W_K));
    const auto both = houseLoss(*plan, *quick, *fit);
    const double together = both ? both->UA_W_K : 0.0, error = both ? 1.96 * both->standardError_W_K : 0.0;
    fmt::print("C by failure: truth {:.1f} MJ/K ({:.2f} to {:.2f} C), fitted {:.1f} ({:.2f} to {:.2f}) {:+.1f} %\n", trueCapacity / 1e6, truth.fails.start_C,
               truth.fails.end_C, capacity / 1e6, fails.start_C, fails.end_C, 100.0 * (capacity / trueCapacity - 1.0));
    fmt::print(
        "seed {:2}: truth {:.0f} W/K (wind {:.1f}, cloud {:.2f}, outside {:.1f}); quick {:.0f} ({:.0f} to {:.0f}) {:+.1f} %; fitted {:.0f} {:+.1f} %; together "
        "{:.0f} +- {:.0f} {:+.1f} %{}; entered "
        "{:+.1f} %; "
        "balance {:.0f} W/K {:.1f} MJ/K; lows held out {:.2f} -> {:.2f} K; skin {:.2f}+-{:.2f} draughts {:.2f}+-{:.2f} mass {:.2f} ground {:.2f} sun {:.2f}\n",
        seed, truth.slope_W_K(), truth.wind_m_s, truth.cloud, truth.outside_C, quick->UA_W_K(), quick->line ? quick->line->low : 0.0,
        quick->line ? quick->line->high : 0.0, 100.0 * (quick->UA_W_K() / truth.slope_W_K() - 1.0), fittedUA, 100.0 * (fittedUA / truth.slope_W_K() - 1.0),
        together, error, 100.0 * (together / truth.slope_W_K() - 1.0), std::abs(together - truth.slope_W_K()) <= error ? "" : " outside",
        100.0 * (slope(*plan) / truth.slope_W_K() - 1.0), quick->balance ? quick->balance->UA_W_K : 0.0, quick->balance ? quick->balance->C_J_K / 1e6 : 0.0,
        fit->lowBefore_K, fit->lowAfter_K, fit->found.skin, fit->standardError[0], fit->found.draughts, fit->standardError[1], fit->found.mass,
        fit->found.ground, fit->found.sun);
    std::fflush(stdout);
  }
  return 0;
}
