// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/calibrate.h"

#include "core/fit/fitted_sensors.h"
#include "core/fit/model_balance.h"
#include "core/parallel.h"
#include "core/simulate/before_run.h"
#include "core/simulate/simulate.h"

#include <ceres/ceres.h>
#include <fmt/format.h>

#include <atomic>
#include <chrono>
#include <cmath>
#include <optional>

namespace muffle {
namespace {

constexpr double kPrior = 0.7; // of a factor's logarithm: a factor of two
constexpr double kSettle_s = 4.0 * 86400.0;
constexpr std::size_t kLeastNights = 8;
constexpr double kStep = 0.04; // of a logarithm, for differences: well above what the integration leaves over

using Factors = std::array<double, kFactorCount>;

Calibration fromLogs(const double* logs) {
  Calibration c;
  for (int f = 0; f < kFactorCount; ++f) factorOf(c, f) = std::exp(logs[f]);
  return c;
}

/// What the sensors read at the hours of one night; NaN where one did not.
struct NightHours {
  std::size_t winter = 0;
  std::vector<std::size_t> step;
  std::vector<std::vector<double>> measured_C; ///< by sensor
};

/// What the model says for every sensor, by winter, sensor and step.
using Modelled = std::vector<std::vector<std::vector<float>>>;

class Model {
public:
  Model(const Plan& plan, const Log& log, const std::shared_ptr<const Weather>& weather, const CalibrateOptions& options)
      : m_plan(plan), m_scene(makeScene(weather, plan)), m_options(options) {
    const Channel* const heater = log.find(Role::heater);
    const auto& winters = weather->winters;
    if (!winters.empty()) m_sensors = fittedSensors(plan, assemble(plan, winters.front(), m_scene.sun.front()), log);
    for (std::size_t w = 0; w < winters.size(); ++w) {
      const Winter& winter = winters[w];
      std::vector<std::vector<double>> readings;
      for (const FittedSensor& sensor : m_sensors) readings.push_back(readingsOn(winter, log, *sensor.channel));
      m_heater.push_back(heater ? readingsOn(winter, log, *heater) : std::vector<double>{});
      for (double& watts : m_heater.back()) watts = std::isfinite(watts) ? std::max(watts, 0.0) : 0.0;
      if (!readings.empty()) addNights(w, winter, readings);
    }
  }

  [[nodiscard]] const std::vector<FittedSensor>& sensors() const { return m_sensors; }
  [[nodiscard]] const std::vector<NightHours>& nights() const { return m_nights; }
  [[nodiscard]] bool heaterMeasured() const { return !m_heater.empty() && !m_heater.front().empty(); }

  [[nodiscard]] bool isStopped() const { return m_options.stop && m_options.stop->load(std::memory_order_relaxed); }

  /// Empty if a run found no solution, or was stopped.
  [[nodiscard]] Modelled run(const Calibration& calibration) const {
    Plan plan = m_plan;
    plan.calibration = calibration;
    const auto& winters = m_scene.weather->winters;
    Modelled said(winters.size());
    std::atomic<bool> failed{false};
    forEachIndex(winters.size(), m_options.threads, [&](std::size_t w) {
      const Winter& winter = winters[w];
      Assembly a = assemble(plan, winter, m_scene.sun[w]);
      if (!m_heater[w].empty()) { // what was measured, not what a thermostat would do
        for (const Assembly::HeaterNodes& heater : a.heaters)
          if (heater.place.of == HeaterPlace::Of::house) a.network.thermostats[static_cast<std::size_t>(heater.thermostat)].power_W = 0.0;
        Signal power;
        power.value = m_heater[w];
        power.step_s = winter.step_s;
        a.network.sources.push_back({a.air, Driver::table(a.network.addSignal(std::move(power))), "heater"});
      }
      auto run = Run::prepare(plan, std::move(a), winter);
      const Scene::Before& before = m_scene.before[w];
      const auto state = before.winter ? runBefore(plan, before, m_options.stop) : std::nullopt;
      if (!run || (before.winter && !state)) {
        failed = true;
        return;
      }
      if (!state || !run->begin(*state)) run->begin();
      said[w].assign(m_sensors.size(), std::vector<float>(winter.size(), 0.0F));
      const auto see = [&] {
        for (std::size_t k = 0; k < m_sensors.size(); ++k) said[w][k][run->step()] = static_cast<float>(run->solver().temperature_C(m_sensors[k].node));
      };
      see();
      while (!run->isDone() && !failed) {
        if (isStopped() || !run->advance()) failed = true;
        see();
      }
    });
    return failed ? Modelled{} : said;
  }

private:
  /// Whole hours of nights that were measured inside and out, once the start has died away.
  void addNights(std::size_t w, const Winter& winter, const std::vector<std::vector<double>>& readings) {
    const std::vector<double>& air = readings.front();
    const auto hour = std::max<std::size_t>(static_cast<std::size_t>(std::lround(3600.0 / winter.step_s)), 1);
    for (const NightSpan& span : winter.nights) {
      if (!span.assessable || static_cast<double>(span.from) * winter.step_s < kSettle_s) continue;
      NightHours night{w, {}, std::vector<std::vector<double>>(readings.size())};
      for (std::size_t i = span.from; i <= span.to; i += hour) {
        if (!std::isfinite(air[i])) continue;
        night.step.push_back(i);
        for (std::size_t k = 0; k < readings.size(); ++k) night.measured_C[k].push_back(readings[k][i]);
      }
      if (night.step.size() * hour + hour >= span.to - span.from) m_nights.push_back(std::move(night)); // no hole in it
    }
  }

  Plan m_plan;
  Scene m_scene;
  const CalibrateOptions& m_options;
  std::vector<FittedSensor> m_sensors;
  std::vector<std::vector<double>> m_heater; ///< by winter; empty where none is measured
  std::vector<NightHours> m_nights;
};

/// Even nights are fitted.
bool isFitted(std::size_t night) { return night % 2 == 0; }

class Misfit : public ceres::CostFunction {
public:
  Misfit(const Model& model, const CalibrateOptions& options) : m_model(model), m_options(options) {
    int count = kFactorCount;
    for (std::size_t n = 0; n < model.nights().size(); ++n)
      if (isFitted(n)) count += static_cast<int>(model.nights()[n].step.size() * model.sensors().size());
    set_num_residuals(count);
    mutable_parameter_block_sizes()->push_back(kFactorCount);
  }

  bool Evaluate(const double* const* parameters, double* residuals, double** jacobians) const override {
    const double* const at = parameters[0];
    if (jacobians && jacobians[0]) std::fill_n(jacobians[0], num_residuals() * kFactorCount, 0.0);
    if (m_stopped) return endIfStopped(residuals);
    if (!values(at, residuals)) return endIfStopped(residuals);
    if (!jacobians || !jacobians[0]) return true;
    ++m_rounds;
    m_stopped = m_model.isStopped() || (m_options.progress && !m_options.progress(m_rounds));
    std::vector<double> moved(static_cast<std::size_t>(num_residuals()));
    for (int f = 0; f < kFactorCount; ++f) {
      Factors shifted;
      std::copy_n(at, kFactorCount, shifted.begin());
      shifted[static_cast<std::size_t>(f)] += kStep;
      if (!values(shifted.data(), moved.data())) return endIfStopped(residuals);
      for (int r = 0; r < num_residuals(); ++r) jacobians[0][r * kFactorCount + f] = (moved[static_cast<std::size_t>(r)] - residuals[r]) / kStep;
    }
    return true;
  }
  [[nodiscard]] int rounds() const { return m_rounds; }
  [[nodiscard]] bool stopped() const { return m_stopped; }

private:
  /// Nothing more is worked out: the search is handed zeros, and StopWhenAsked ends it. False where it was no stop but a failure.
  bool endIfStopped(double* residuals) const {
    m_stopped = m_stopped || m_model.isStopped();
    if (m_stopped) std::fill_n(residuals, num_residuals(), 0.0);
    return m_stopped;
  }
  bool values(const double* logs, double* out) const {
    const auto said = m_model.run(fromLogs(logs));
    if (said.empty()) return false;
    for (std::size_t n = 0; n < m_model.nights().size(); ++n) {
      if (!isFitted(n)) continue;
      const NightHours& night = m_model.nights()[n];
      for (std::size_t s = 0; s < m_model.sensors().size(); ++s) {
        const FittedSensor& sensor = m_model.sensors()[s];
        const double sigma = sensor.scatter_K * std::sqrt(std::max(static_cast<double>(night.step.size()) / sensor.readingsPerNight, 1.0));
        for (std::size_t k = 0; k < night.step.size(); ++k) {
          const double off_K = static_cast<double>(said[night.winter][s][night.step[k]]) - night.measured_C[s][k];
          *out++ = std::isfinite(off_K) ? off_K / sigma : 0.0; // it did not read
        }
      }
    }
    for (int f = 0; f < kFactorCount; ++f) *out++ = logs[f] / kPrior;
    return true;
  }

  const Model& m_model;
  const CalibrateOptions& m_options;
  mutable int m_rounds = 0;
  mutable bool m_stopped = false;
};

class StopWhenAsked : public ceres::IterationCallback {
public:
  explicit StopWhenAsked(const Misfit& misfit) : m_misfit(misfit) {}
  ceres::CallbackReturnType operator()(const ceres::IterationSummary&) override { return m_misfit.stopped() ? ceres::SOLVER_ABORT : ceres::SOLVER_CONTINUE; }

private:
  const Misfit& m_misfit;
};

/// Rms errors over the nights that are not fitted.
struct Judged {
  std::size_t nights = 0;
  double lows_K = 0.0;           ///< of the house's lows
  std::vector<double> sensors_K; ///< hour by hour, by sensor
};
Judged judge(const Model& model, const Calibration& calibration) {
  const auto said = model.run(calibration);
  const std::size_t sensors = model.sensors().size();
  Judged judged;
  judged.sensors_K.assign(sensors, 0.0);
  std::vector<std::size_t> hours(sensors, 0);
  for (std::size_t n = 0; n < model.nights().size(); ++n) {
    if (isFitted(n) || said.empty()) continue;
    const NightHours& night = model.nights()[n];
    double low = 1e9, measured = 1e9;
    for (std::size_t k = 0; k < night.step.size(); ++k) {
      low = std::min(low, static_cast<double>(said[night.winter][0][night.step[k]]));
      measured = std::min(measured, night.measured_C[0][k]);
      for (std::size_t s = 0; s < sensors; ++s) {
        const double off_K = static_cast<double>(said[night.winter][s][night.step[k]]) - night.measured_C[s][k];
        if (std::isfinite(off_K)) judged.sensors_K[s] += off_K * off_K, ++hours[s];
      }
    }
    judged.lows_K += (low - measured) * (low - measured);
    ++judged.nights;
  }
  const auto rms = [](double sum, std::size_t of) { return of > 0 ? std::sqrt(sum / static_cast<double>(of)) : 0.0; };
  judged.lows_K = rms(judged.lows_K, judged.nights);
  for (std::size_t s = 0; s < sensors; ++s) judged.sensors_K[s] = rms(judged.sensors_K[s], hours[s]);
  return judged;
}

} // namespace

const char* factorName(int factor) {
  static const char* const kNames[] = {"skin", "draughts", "mass", "ground", "sun"};
  return kNames[factor];
}

double& factorOf(Calibration& c, int factor) {
  double* const all[] = {&c.skin, &c.draughts, &c.mass, &c.ground, &c.sun};
  return *all[factor];
}

Result<Calibrated> calibrate(const Plan& plan, const Log& log, const std::shared_ptr<const Weather>& weather, const CalibrateOptions& options) {
  const auto begin = std::chrono::steady_clock::now();
  if (!log.find(Role::room)) return Problem{ProblemKind::badInput, "log", Message{"fit.log-no-temperature-inside"}, Message{"fit.house-measured-air"}};
  const Model model(plan, log, weather, options);
  if (model.nights().size() < kLeastNights)
    return Problem{ProblemKind::badInput, "log", Message{"fit.whole-nights-inside-outside", model.nights().size()}, Message{"fit.at-least", kLeastNights}};
  Factors logs{};
  auto* const misfit = new Misfit(model, options); // the problem below owns it
  ceres::Problem problem;
  problem.AddResidualBlock(misfit, nullptr, logs.data());
  for (int f = 0; f < kFactorCount; ++f) {
    constexpr double kFurthest = 1.6; // a factor of five, as a plan may hold
    problem.SetParameterLowerBound(logs.data(), f, -kFurthest);
    problem.SetParameterUpperBound(logs.data(), f, kFurthest);
  }
  ceres::Solver::Options how;
  how.linear_solver_type = ceres::DENSE_QR;
  how.max_num_iterations = 12;
  how.function_tolerance = 1e-4;
  how.parameter_tolerance = 1e-3; // a thousandth of a factor is nothing
  how.num_threads = 1;
  how.logging_type = ceres::SILENT;
  StopWhenAsked stop(*misfit);
  how.callbacks.push_back(&stop);
  ceres::Solver::Summary summary;
  ceres::Solve(how, &problem, &summary);
  if (misfit->stopped()) return Problem{ProblemKind::cancelled, "", Message{"fit.fit-was-stopped"}, {}};
  if (!summary.IsSolutionUsable()) return Problem{ProblemKind::noSolution, "", Message{"fit.fit-found-no-solution"}, Message{"fit.check-heater-and-sizes"}};
  Calibrated fit;
  fit.found = fromLogs(logs.data());
  ceres::Covariance covariance({});
  std::array<double, kFactorCount * kFactorCount> c{};
  const std::vector<std::pair<const double*, const double*>> block{{logs.data(), logs.data()}};
  const bool isCovarianceKnown = covariance.Compute(block, &problem) && covariance.GetCovarianceBlock(logs.data(), logs.data(), c.data());
  // what is left over may be more than the readings' own scatter: the model's shape is off too
  std::size_t fitted = 0;
  for (std::size_t n = 0; n < model.nights().size(); ++n) fitted += isFitted(n) ? 1 : 0;
  double perNight = 0.0;
  for (const FittedSensor& sensor : model.sensors()) perNight += sensor.readingsPerNight;
  const double left = 2.0 * summary.final_cost / std::max(perNight * static_cast<double>(fitted) - kFactorCount, 1.0);
  for (std::size_t f = 0; f < kFactorCount; ++f) {
    for (std::size_t g = 0; g <= f && isCovarianceKnown; ++g) fit.found.logCovariance.push_back(c[f * kFactorCount + g] * std::max(left, 1.0));
    fit.standardError[f] = factorOf(fit.found, static_cast<int>(f)) * std::sqrt(c[f * kFactorCount + f] * std::max(left, 1.0));
    for (std::size_t g = 0; g < kFactorCount; ++g) {
      const double scale = std::sqrt(c[f * kFactorCount + f] * c[g * kFactorCount + g]);
      fit.correlation[f][g] = scale > 0.0 ? c[f * kFactorCount + g] / scale : 0.0;
    }
  }
  fit.nights = fitted;
  const Judged before = judge(model, plan.calibration.value_or(Calibration{})), after = judge(model, fit.found);
  fit.heldOut = after.nights;
  fit.lowBefore_K = before.lows_K;
  fit.lowAfter_K = after.lows_K;
  fit.airBefore_K = before.sensors_K.front();
  fit.airAfter_K = after.sensors_K.front();
  for (std::size_t s = 0; s < model.sensors().size(); ++s) fit.sensors.push_back({model.sensors()[s].channel->name, before.sensors_K[s], after.sensors_K[s]});
  std::vector<std::vector<float>> air;
  for (auto& winter : model.run(fit.found)) air.push_back(std::move(winter.front()));
  if (auto balance = modelBalance(air, *weather, log, plan.site)) fit.balance = *balance;
  if (model.isStopped()) return Problem{ProblemKind::cancelled, "", Message{"fit.fit-was-stopped"}, {}};
  fit.heaterMeasured = model.heaterMeasured();
  fit.rounds = misfit->rounds();
  fit.run_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  return fit;
}

std::vector<Remark> remarks(const Calibrated& fit) {
  constexpr double kAlike = 0.9, kUnknown = 0.5;
  std::vector<Remark> all;
  for (int f = 0; f < kFactorCount; ++f)
    for (int g = f + 1; g < kFactorCount; ++g)
      if (std::abs(fit.correlation[static_cast<std::size_t>(f)][static_cast<std::size_t>(g)]) >= kAlike) all.push_back({RemarkKind::cannotTellApart, f, g});
  for (int f = 0; f < kFactorCount; ++f) {
    Calibration found = fit.found;
    if (fit.standardError[static_cast<std::size_t>(f)] > kUnknown * factorOf(found, f)) all.push_back({RemarkKind::saysLittle, f});
  }
  if (!fit.heaterMeasured) all.push_back({RemarkKind::noHeaterMeter});
  return all;
}

} // namespace muffle
