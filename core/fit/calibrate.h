// SPDX-License-Identifier: GPL-3.0-or-later
//
// The model of a house put right by its own log. The plan's network is run over the logged weather with the heater's measured
// power, and a few named factors are moved until the air inside, and what else of the house the log has (fitted_sensors.h), agree with
// the readings: Levenberg and Marquardt on the logarithms of the factors (Ceres Solver), hour by hour through the chosen nights.
//   residual   (model - reading)/s by sensor and night hour, s such that a night counts as a few readings: neighbours tell the same
//   prior      every factor within a factor of two of 1, one sigma: what the log cannot tell stays near what was entered
//   errors     from the covariance at the minimum, widened by what is left over
// Every other night is fitted and the rest judged: the lows there before and after.
//
//   auto fit = calibrate(plan, log, weather);
//   plan.calibration = fit->found;
#pragma once

#include "core/fit/heat_balance.h"
#include "core/log/log.h"
#include "core/plan/plan.h"
#include "core/weather/weather.h"

#include <array>
#include <atomic>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

namespace muffle {

constexpr int kFactorCount = 5;
/// "skin", "draughts", "mass", "ground", "sun".
const char* factorName(int factor);
double& factorOf(Calibration& calibration, int factor);

/// How far the model is from one sensor over the hours of the nights that were not fitted.
struct SensorMisfit {
  std::string channel; ///< its name in the log
  double before_K = 0.0, after_K = 0.0;
};

struct Calibrated {
  Calibration found;
  std::array<double, kFactorCount> standardError{}; ///< of the factors themselves
  std::array<std::array<double, kFactorCount>, kFactorCount> correlation{};
  std::size_t nights = 0;                     ///< that were fitted
  std::size_t heldOut = 0;                    ///< that were judged
  double lowBefore_K = 0.0;                   ///< rms error of the held-out nights' lows as entered
  double lowAfter_K = 0.0;                    ///< and as fitted
  double airBefore_K = 0.0, airAfter_K = 0.0; ///< rms over the hours of held-out nights
  std::vector<SensorMisfit> sensors;          ///< the house's air first, then what else the fit went by
  std::optional<HeatBalance> balance;         ///< of the fitted plan, asked as the readings are (core/fit/model_balance.h)
  bool heaterMeasured = false;                ///< else the plan's own thermostat heats
  int rounds = 0;
  double run_ms = 0.0;
};

struct CalibrateOptions {
  int threads = 0;                         ///< winters and factors side by side; 0: all cores. Never changes the answer.
  std::function<bool(int round)> progress; ///< false stops
  const std::atomic<bool>* stop = nullptr; ///< set to give up at once, amid a round; the answer is then a cancelled problem
};

/// Problem if the log has no inside temperature or fewer than eight whole nights of it.
Result<Calibrated> calibrate(const Plan& plan, const Log& log, const std::shared_ptr<const Weather>& weather, const CalibrateOptions& options = {});

/// What the numbers say about themselves.
enum class RemarkKind {
  cannotTellApart, ///< two factors: correlated by 0.9 or more
  saysLittle,      ///< one factor: its error is over half of it, nearly what was assumed before any reading
  noHeaterMeter    ///< the plan's own thermostat heated; what the house loses is known only from nights without it
};
struct Remark {
  RemarkKind kind;
  int factor = -1, other = -1; ///< that it is about; -1: none
};
std::vector<Remark> remarks(const Calibrated& fit);

} // namespace muffle
