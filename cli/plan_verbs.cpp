// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/answers.h"
#include "cli/crop_answers.h"
#include "cli/ledger_answers.h"
#include "cli/plan_and_weather.h"
#include "cli/verbs.h"

#include "book/files.h"
#include "core/network/network_json.h"
#include "core/plan/plan_notes.h"
#include "core/plan/store_list.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cstdio>
#include <thread>

namespace muffle {

int runNetworkVerb(const std::string& file, const std::string& out, bool json) {
  const auto document = readJson(file);
  if (!document) return report(file, document.problems());
  const auto network = networkFromJson(*document);
  if (!network) return report(file, network.problems());
  const auto run = runNetwork(*network);
  if (!run) return report(file, run.problems());
  if (!out.empty())
    if (const auto ok = writeFile(out, run->csv); !ok) return report(out, ok.problems());
  if (json)
    print(run->summary);
  else if (out.empty())
    std::fputs(run->csv.c_str(), stdout);
  else
    fmt::print("wrote {}; the energy balance closes to {:.1e}\n", out, run->summary["closure"].get<double>());
  return kDone;
}

int runCheck(const std::string& file, bool json) {
  const auto plan = readPlan(file);
  const Problems notes = plan ? planNotes(*plan) : Problems{};
  if (json) {
    Json out{{"ok", static_cast<bool>(plan)}, {"problems", Json::array()}};
    if (!plan)
      for (const Problem& p : plan.problems()) out["problems"].push_back({{"pointer", p.where}, {"what", english(p.what)}, {"allowed", english(p.allowed)}});
    out["notes"] = Json::array();
    for (const Problem& p : notes) out["notes"].push_back({{"pointer", p.where}, {"what", english(p.what)}, {"instead", english(p.allowed)}});
    if (plan) out["cautions"] = cautionsAnswer(*plan);
    print(out);
  }
  if (!plan) return report(file, plan.problems());
  if (!json) {
    fmt::print("{}: \"{}\" is sound\n", file, plan->name);
    for (const Problem& p : notes) fmt::print("  {}\n", english(p));
  }
  return kDone;
}

int runLoss(const std::string& file, double inside_C, double outside_C, double wind_m_s, double clear, bool json) {
  const auto plan = readPlan(file);
  if (!plan) return report(file, plan.problems());
  const auto loss = steadyLoss(*plan, inside_C, outside_C, wind_m_s, clear);
  if (!loss) return report(file, loss.problems());
  if (json) {
    print(lossAnswer(*loss));
    return kDone;
  }
  fmt::print("{:.2f} kW to hold {:g} C at {:g} C outside\n", loss->total_W / 1000.0, inside_C, outside_C);
  for (const LossPart& p : loss->parts) fmt::print("  {:<12} {:8.0f} W\n", lossPathId(p.part), p.loss_W);
  return kDone;
}

int runSimulate(const std::string& planFile, const LogOptions& o, const std::string& out, bool json) {
  const auto in = readPlanAndWeather(planFile, o);
  if (!in) return kBadInput;
  const Scene scene = makeScene(in->weather, in->plan);
  const auto run = simulate(in->plan, scene, {.series = true, .threads = static_cast<int>(std::thread::hardware_concurrency())});
  if (!run) return report(planFile, run.problems());
  if (!out.empty())
    if (const auto ok = writeFile(out, simulateSeries(in->plan, *run, *in->weather, in->zone)); !ok) return report(out, ok.problems());
  if (json) {
    Json answer = simulateAnswer(in->plan, *run, *in->weather, in->zone);
    answer["cycles"] = cyclesAnswer(in->plan, heaterCycles(in->plan, *in->weather, *run));
    print(answer);
    return kDone;
  }
  const Summary& s = run->summary;
  fmt::print("held {:g} C on {} of {} nights", in->plan.setpoints.hold_C, s.held, s.nights);
  if (s.leftOut) fmt::print(" ({} left out: outside readings are missing)", s.leftOut);
  fmt::print("\ncoldest {:.1f} C at {}\ncold owed {:.1f} K h\nheater {:.0f} kWh in {:.0f} days; a winter of 182 days like these {:.0f} kWh, {:.0f} {}\nenergy "
             "balance closes to {:.0e}\n",
             s.coldest_C, in->zone.iso(s.coldestAt), s.degreeHours_K_h, s.heater_kWh, s.winters * kWinterDays, s.heater_kWh / s.winters, s.cost.total(),
             in->plan.prices.currency, s.closure);
  if (in->plan.heaters.size() > 1)
    for (const Json& heater : heatersAnswer(in->plan, s))
      fmt::print("{}: gave {:.0f} kWh, {:.0f} {} a winter\n", heater["name"].get<std::string>(), heater["given_kWh"].get<double>(),
                 heater["cost_a_winter"].get<double>(), in->plan.prices.currency);
  fmt::print("{}", cropsSaid(in->plan, *in->weather, in->zone, *run));
  const auto stores = storesOf(in->plan);
  for (std::size_t k = 0; k < stores.size() && k < s.stores.size(); ++k)
    fmt::print("{}: gave {:.0f} kWh, took {:.0f}, {:+.0f} in all\n", english(stores[k].name), s.stores[k].given_kWh, s.stores[k].taken_kWh,
               s.stores[k].given_kWh - s.stores[k].taken_kWh);
  return kDone;
}

} // namespace muffle
