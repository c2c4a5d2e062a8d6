// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/crop_answers.h"

#include "cli/digits.h"
#include "core/plan/crop_stands.h"
#include "core/run/air_response.h"
#include "words/words.h"

#include <fmt/format.h>

namespace muffle {
namespace {

const char* inId(CropStand::In in) { return in == CropStand::In::house ? "house" : in == CropStand::In::bay ? "bay" : "bed"; }

} // namespace

Json cropsAnswer(const Plan& plan, const Weather& weather, const TimeZone& zone, const Simulation& run) {
  Json all = Json::array();
  for (const CropFate& fate : cropFates(plan, weather, run)) {
    const CropStand& stand = plan.crops[fate.stand];
    Json& answer = all.emplace_back();
    answer = {{"crop", stand.crop}, {"name", english(nameOf(plan, stand))}, {"in", inId(stand.in)}, {"harmed_times", fate.times()}, {"parts", Json::array()}};
    for (const PartHarm& p : fate.parts)
      answer["parts"].push_back(Json{{"part", std::string(idOf(p.part))},
                                     {"harmed_at_C", p.exposure.at_C},
                                     {"for_h", p.exposure.for_h},
                                     {"reached_C", digits(p.reached_C, 2)},
                                     {"margin_K", digits(p.margin_K(), 2)},
                                     {"at", zone.iso(p.at)},
                                     {"times", p.times}});
    if (fate.growth) answer["growth_best_days_a_winter"] = digits(fate.growth->days / run.summary.winters, 2);
  }
  return all;
}

std::string cropsSaid(const Plan& plan, const Weather& weather, const TimeZone& zone, const Simulation& run) {
  std::string lines;
  for (const CropFate& fate : cropFates(plan, weather, run))
    for (const PartHarm& p : fate.parts)
      lines += fmt::format("{}, {}: {} for {:g} h at {:g} C; came to {:.1f} C at {}\n", english(nameOf(plan, plan.crops[fate.stand])), idOf(p.part),
                           p.times > 0 ? fmt::format("harmed {} time{}", p.times, p.times == 1 ? "" : "s") : std::string("unharmed, it takes more than"),
                           p.exposure.for_h, p.exposure.at_C, p.reached_C, zone.iso(p.at));
  return lines;
}

Json cyclesAnswer(const Plan& plan, const std::vector<HeaterCycles>& cycles) {
  Json all = Json::array();
  for (const HeaterCycles& c : cycles) {
    const Heater& heater = plan.heaters[c.heater];
    all.push_back(Json{{"id", heater.id},
                       {"band_K", heater.band_K.value_or(kUsualBand_K)},
                       {"band_given", heater.band_K.has_value()},
                       {"starts_a_winter", digits(c.starts, 0)},
                       {"most_starts_per_h", digits(c.mostStarts_per_h, 1)},
                       {"mean_run_min", digits(c.mean_run_s / 60.0, 1)},
                       {"least_run_min", digits(factsOf(heater.kind).leastRun_s / 60.0, 1)},
                       {"short_starts_a_winter", digits(c.shortStarts, 0)},
                       {"falls_below_setpoint_K", digits(c.below_K, 2)}});
  }
  return all;
}

} // namespace muffle
