// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/fit/model_balance.h"

#include "core/fit/quick_fit.h"

#include <cmath>

namespace muffle {
namespace {

/// The model's air at a moment; NaN outside its winters.
double airAt(const std::vector<std::vector<float>>& air_C, const Weather& weather, UtcSeconds t) {
  for (std::size_t w = 0; w < air_C.size(); ++w) {
    const Winter& winter = weather.winters[w];
    const double step = static_cast<double>(t - winter.time(0)) / winter.step_s;
    if (step >= 0.0 && step <= static_cast<double>(winter.size() - 1)) return static_cast<double>(air_C[w][static_cast<std::size_t>(std::lround(step))]);
  }
  return std::nan("");
}

} // namespace

Result<HeatBalance> modelBalance(const std::vector<std::vector<float>>& air_C, const Weather& weather, const Log& log, const Site& site) {
  const auto zone = TimeZone::named(site.timeZone);
  if (!zone) return zone.problems();
  Log modelled = log;
  for (Channel& channel : modelled.channels) {
    if (channel.role != Role::room) continue;
    for (std::size_t i = 0; i < modelled.time.size(); ++i) {
      channel.raw[i] = std::isfinite(channel.clean(i)) ? static_cast<float>(airAt(air_C, weather, modelled.time[i])) : std::nanf("");
      channel.flag[i] = static_cast<std::uint8_t>(Flag::none);
    }
  }
  const auto fit = quickFit(modelled, cutNights(modelled, site.place, *zone));
  if (!fit) return fit.problems();
  if (!fit->balance) return Problem{ProblemKind::badInput, "log", Message{"fit.no-balance-hours-nights"}, Message{"fit.measured-heater-needed"}};
  return *fit->balance;
}

} // namespace muffle
