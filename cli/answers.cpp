// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/answers.h"

#include "cli/crop_answers.h"
#include "cli/digits.h"
#include "cli/ledger_answers.h"

#include "core/air/moist_air.h"
#include "core/fit/design_night.h"
#include "core/log/growing.h"
#include "core/plan/cautions.h"
#include "core/plan/crop_stands.h"
#include "core/plan/names.h"
#include "core/results/day_swings.h"
#include "core/results/growth.h"
#include "core/sizing/why_not.h"
#include "words/words.h"

#include <fmt/format.h>

#include <algorithm>

namespace muffle {
namespace {

Json reading(const std::optional<Reading>& r) { return r ? Json(digits(r->value, 3)) : Json(); }
Json readingAt(const std::optional<Reading>& r, const TimeZone& zone) { return r ? Json(zone.iso(r->at)) : Json(); }

/// Hours a winter.
Json dampJson(const Dampness& d) {
  return {{"hours_above_90", digits(d.above90_h, 0)}, {"leaf_wet_hours", digits(d.leafWet_h, 0)}, {"longest_hours", digits(d.longest_h, 1)}};
}

} // namespace

Json costAnswer(const Cost& c, const Prices& prices) {
  return {{"total", digits(c.total(), 2)},
          {"energy", digits(c.energy, 2)},
          {"kit", digits(c.kit, 2)},
          {"hours", digits(c.hours, 1)},
          {"hours_money", digits(c.hoursMoney, 2)},
          {"carbon_dioxide_kg", digits(c.carbon_kg, 1)},
          {"carbon_money", digits(c.carbon, 2)},
          {"low", digits(c.total() - c.spread, 2)},
          {"high", digits(c.total() + c.spread, 2)},
          {"currency", prices.currency},
          {"per", "winter of 182 days"}};
}

Json nightsAnswer(const ReadLog& read, const std::vector<LogProblem>& problems, const std::vector<Night>& nights, const TimeZone& zone) {
  const Log& log = read.log;
  Json channels = Json::array();
  for (const Channel& c : log.channels) {
    double low = 1e300, high = -1e300, sum = 0.0;
    long count = 0, flagged = 0;
    for (std::size_t i = 0; i < log.time.size(); ++i) {
      if (c.flag[i]) ++flagged;
      const double v = c.clean(i);
      if (std::isnan(v)) continue;
      low = std::min(low, v);
      high = std::max(high, v);
      sum += v;
      ++count;
    }
    Json channel{{"name", c.name},   {"role", roleText(c.role, c.id)}, {"unit_in", c.unitIn},
                 {"unit", c.unit()}, {"unit_why", english(c.unitWhy)}, {"count", count}};
    channel["min"] = count ? Json(digits(low, 3)) : Json();
    channel["max"] = count ? Json(digits(high, 3)) : Json();
    channel["mean"] = count ? Json(digits(sum / static_cast<double>(count), 3)) : Json();
    channel["flagged"] = flagged;
    channels.push_back(channel);
  }
  Json out;
  Json recognised = Json::array();
  for (const Message& m : read.recognised) recognised.push_back(english(m));
  out["log"] = {{"rows", read.rows},
                {"kept", log.time.size()},
                {"from", zone.iso(log.time.front())},
                {"to", zone.iso(log.time.back())},
                {"step_s", log.step_s()},
                {"recognised", std::move(recognised)},
                {"unsure", read.unsure},
                {"channels", channels}};
  out["problems"] = Json::array();
  for (const LogProblem& p : problems)
    out["problems"].push_back(
        {{"kind", p.kind}, {"channel", p.channel}, {"from", zone.iso(p.from)}, {"to", zone.iso(p.to)}, {"count", p.count}, {"why", english(p.why)}});
  for (const Problem& p : read.firstProblems)
    out["problems"].push_back(
        {{"kind", "unreadable"}, {"channel", ""}, {"from", p.where}, {"to", p.where}, {"count", 1}, {"why", english(p.what) + ", " + english(p.allowed)}});
  out["nights"] = Json::array();
  for (const Night& n : nights) {
    Json night{{"date", isoDate(n.date)},
               {"sunset", zone.iso(n.sunset)},
               {"sunrise", zone.iso(n.sunrise)},
               {"outside_low_C", reading(n.outsideLow)},
               {"outside_low_at", readingAt(n.outsideLow, zone)},
               {"inside_low_C", reading(n.insideLow)},
               {"inside_low_at", readingAt(n.insideLow, zone)}};
    night["lift_K"] = n.lift_K() ? Json(digits(*n.lift_K(), 3)) : Json();
    night["lag_h"] = n.lag_h() ? Json(digits(*n.lag_h(), 2)) : Json();
    night["below_freezing_h"] = n.belowFreezing_h ? Json(digits(*n.belowFreezing_h, 2)) : Json();
    night["sky"] = n.sky();
    night["complete"] = n.complete;
    night["heater_kWh"] = log.find(Role::heater) ? Json(digits(n.heater_kWh, 3)) : Json();
    night["wind_m_s"] = n.hasWind ? Json(digits(n.meanWind_m_s, 2)) : Json();
    night["degree_hours_K_h"] = n.degreeHours_K_h ? Json(digits(*n.degreeHours_K_h, 2)) : Json();
    out["nights"].push_back(night);
  }
  return out;
}

Json designAnswer(const std::vector<Night>& nights, const std::vector<double>& annualLow_C) {
  const auto lows = loggedLows(nights);
  Json out{{"nights", lows ? lows->nights : 0}};
  out["coldest_C"] = lows ? Json(digits(lows->coldest_C, 2)) : Json();
  if (lows) out["one_in_hundred_C"] = digits(lows->oneInHundred_C, 2);
  if (annualLow_C.empty()) return out;
  const auto fit = gumbelByLikelihood(annualLow_C);
  if (!fit) {
    out["return_trouble"] = english(fit.problem());
    return out;
  }
  out["winters"] = annualLow_C.size();
  for (const double years : {10.0, 20.0, 50.0}) {
    const double low = fit->returnLow_C(years), error = fit->returnError_K(years, annualLow_C.size());
    constexpr double k95 = 1.96;
    out["return"].push_back({{"years", years}, {"low_C", digits(low, 2)}, {"from_C", digits(low - k95 * error, 2)}, {"to_C", digits(low + k95 * error, 2)}});
  }
  return out;
}

Json growingAnswer(const Log& log, double base_C, const TimeZone& zone) {
  Json rooms = Json::object();
  for (const Channel& c : log.channels) {
    if (c.role != Role::room) continue;
    const GrowingWarmth sum = growingWarmth(log, c, base_C, zone);
    rooms[roleText(c.role, c.id)] = {
        {"degree_hours_K_h", digits(sum.degreeHours_K_h, 1)}, {"degree_days_K_d", digits(sum.degreeDays_K_d, 2)}, {"days", sum.days}};
  }
  return {{"base_C", base_C}, {"rooms", rooms}};
}

Json lossAnswer(const HeatLoss& loss) {
  Json out{{"total_W", digits(loss.total_W, 1)}};
  out["total_W_per_K"] = loss.difference_K != 0.0 ? Json(digits(loss.total_W / loss.difference_K, 2)) : Json();
  out["parts"] = Json::array();
  for (const LossPart& p : loss.parts) {
    Json part{{"id", lossPathId(p.part)}, {"what", fmt::format("heat leaving by the {}", lossPathId(p.part))}, {"W", digits(p.loss_W, 1)}};
    part["W_per_K"] = loss.difference_K != 0.0 ? Json(digits(p.loss_W / loss.difference_K, 2)) : Json();
    out["parts"].push_back(part);
  }
  out["assumed"] = {"no sun, vents shut, blanket closed if there is one", "ground at its year's mean", "dew point 2 K below the outside air",
                    "cover wet as over a crop"};
  return out;
}

Json cautionsAnswer(const Plan& plan) {
  Json all = Json::array();
  for (const StatedCaution& s : cautionsOf(plan)) {
    Json of = Json::array();
    for (const Message& name : s.of) of.push_back(english(name));
    all.push_back({{"id", s.caution.id}, {"text", english(textOf(s.caution))}, {"of", std::move(of)}});
  }
  return all;
}

Json simulateAnswer(const Plan& plan, const Simulation& run, const Weather& weather, const TimeZone& zone) {
  const Summary& s = run.summary;
  Json out{{"nights", s.nights}, {"held", s.held}, {"nights_left_out", s.leftOut}};
  out["coldest_C"] = s.nights ? Json(digits(s.coldest_C, 3)) : Json();
  out["coldest_at"] = s.nights ? Json(zone.iso(s.coldestAt)) : Json();
  out["hold_C"] = plan.setpoints.hold_C;
  out["degree_hours_K_h"] = digits(s.degreeHours_K_h, 2);
  out["winters"] = digits(s.winters, 3);
  out["days"] = digits(s.winters * kWinterDays, 1);
  out["energy_kWh"] = {{"heater", digits(s.heater_kWh, 2)}, {"fans", digits(s.fan_kWh, 2)}, {"cables", digits(s.cable_kWh, 2)}, {"sun", digits(s.sun_kWh, 1)}};
  out["loss_kWh"] = Json::object();
  for (int p = 0; p < kLossPathCount; ++p)
    if (s.loss_kWh[static_cast<std::size_t>(p)] != 0.0)
      out["loss_kWh"][lossPathId(static_cast<LossPath>(p))] = digits(s.loss_kWh[static_cast<std::size_t>(p)], 1);
  out["cost"] = costAnswer(s.cost, plan.prices);
  out["hours"] = {{"work", digits(s.cost.hours, 1)}};
  out["closure"] = s.closure;
  out["cautions"] = cautionsAnswer(plan);
  out["inputs"] = {{"outside", inputKindText(weather.outside)},
                   {"sun", inputKindText(weather.sun)},
                   {"wind", inputKindText(weather.wind)},
                   {"sky", inputKindText(weather.sky)},
                   {"cloud", "estimated"},
                   {"humidity", inputKindText(weather.humidity)},
                   {"ground", "assumed"}};
  out["sun_estimated_days"] = weather.sunEstimatedDays;
  out["sky_carried_days"] = weather.carriedDays; // whose afternoon was not logged: the sky of the day before
  out["rooms"]["house"] = {{"nights", s.nights},
                           {"held", s.held},
                           {"coldest_C", out["coldest_C"]},
                           {"heater_peak_W", digits(s.heaterPeak_W, 0)},
                           {"damp", dampJson(s.damp)},
                           {"warmest_C", digits(s.warmest_C, 2)},
                           {"too_warm_h", digits(s.tooWarm_h, 1)}};
  const auto rooms = otherRooms(plan);
  for (std::size_t r = 0; r < rooms.size(); ++r) {
    const RoomSummary& room = s.rooms[r];
    Json& answer = out["rooms"][rooms[r].id];
    answer = {{"name", english(rooms[r].name)}, {"nights", s.nights}, {"held", room.held}, {"hold_C", rooms[r].hold_C ? Json(*rooms[r].hold_C) : Json(nullptr)}};
    answer["coldest_C"] = s.nights ? Json(digits(room.coldest_C, 3)) : Json();
    if (rooms[r].kind == RoomKind::bay) answer["heater_kWh"] = digits(room.heater_kWh, 2);
    answer["damp"] = dampJson(room.damp);
  }
  const GrowthResponse crop = growthResponseOf(plan);
  Growth growth;
  DaySwings swings;
  for (std::size_t w = 0; w < run.series.size(); ++w) {
    const double step_s = weather.winters[w].step_s;
    growth += growthOver(run.series[w].air_C, run.series[w].light_W_m2, step_s, crop);
    swings.add(run.series[w].air_C, step_s);
  }
  out["growth"] = {{"base_C", crop.base_C},
                   {"best_C", crop.best_C},
                   {"too_warm_C", crop.tooWarm_C},
                   {"enough_light_mol_m2", crop.enoughLight_mol_m2},
                   {"best_days_a_winter", digits(growth.days / s.winters, 2)},
                   {"light_short_days_a_winter", digits(growth.lightShort_d / s.winters, 1)},
                   {"degree_hours_a_winter", digits(growth.degreeHours_K_h / s.winters, 1)}};
  out["swing"] = {
      {"mean_K", digits(swings.mean_K(), 2)}, {"most_K", digits(swings.most_K(), 2)}, {"thawings_a_winter", digits(swings.thawings() / s.winters, 2)}};
  out["crops"] = cropsAnswer(plan, weather, zone, run);
  out["heaters"] = heatersAnswer(plan, s);
  out["work"] = workAnswer(plan, s);
  const auto stores = storesOf(plan);
  out["stores"] = Json::object();
  for (std::size_t k = 0; k < stores.size() && k < s.stores.size(); ++k) {
    const StoreSummary& store = s.stores[k];
    Json& answer = out["stores"][stores[k].id];
    answer = {{"name", english(stores[k].name)},
              {"given_kWh", digits(store.given_kWh, 1)},
              {"taken_kWh", digits(store.taken_kWh, 1)},
              {"net_kWh", digits(store.given_kWh - store.taken_kWh, 1)},
              {"electricity_kWh", digits(store.electricity_kWh, 2)},
              {"running_h", digits(store.running_h, 1)}};
    if (store.hasStood()) answer.update({{"coldest_C", digits(store.coldest_C, 2)}, {"warmest_C", digits(store.warmest_C, 2)}});
    if (stores[k].kind == StoreKind::compost) answer["made_kWh"] = digits(store.made_kWh, 1);
    if (stores[k].kind == StoreKind::loop) {
      double boiler_kWh = 0.0;
      for (std::size_t h = 0; h < plan.heaters.size(); ++h)
        if (plan.heaters[h].place == HeaterPlace{HeaterPlace::Of::tank, stores[k].index}) boiler_kWh += s.ledger.heat_kWh(MeterUse::tankHeater, h);
      answer["boiler_kWh"] = digits(boiler_kWh, 2);
    }
    if (stores[k].kind == StoreKind::loop || store.stagnant_h > 0.0) answer["collector_too_hot_h"] = digits(store.stagnant_h, 1);
  }
  if (!run.warmUp_days.empty() && *std::max_element(run.warmUp_days.begin(), run.warmUp_days.end()) > 0) {
    out["inputs"]["before the log"] = "assumed";
    out["warm_up_days"] = run.warmUp_days;
  }
  out["night_list"] = Json::array();
  for (const NightResult& n : run.nights)
    out["night_list"].push_back({{"date", isoDate(n.date)},
                                 {"judged", n.assessable},
                                 {"held", n.held},
                                 {"coldest_C", digits(n.coldest_C, 2)},
                                 {"outside_low_C", digits(n.outsideLow_C, 2)},
                                 {"degree_hours_K_h", digits(n.degreeHours_K_h, 2)},
                                 {"heater_kWh", digits(n.heater_kWh, 2)},
                                 {"hours_above_90", digits(n.damp_h, 1)},
                                 {"leaf_wet_hours", digits(n.leafWet_h, 1)}});
  out["steps"] = s.steps;
  out["run_ms"] = digits(s.run_ms, 1);
  return out;
}

std::string simulateSeries(const Plan& plan, const Simulation& run, const Weather& weather, const TimeZone& zone) {
  const double pressure_Pa = pressureAtElevation_Pa(plan.site.place.elevation_m);
  std::string out = "time,outside [C],sky [C],sun [W/m2],wind [m/s],room:house [C],floor [C],humidity:house [%],leaf [C]";
  for (std::size_t b = 0; b < plan.barrels.size(); ++b) out += fmt::format(",store:barrels{} [C]", b + 1);
  for (const OtherRoom& room : otherRooms(plan)) // "bed:1" would read as a role of its own
    out += room.kind == RoomKind::bed ? fmt::format(",room:bed{} [C]", room.bed + 1) : fmt::format(",room:{} [C]", room.id);
  const auto stores = storesOf(plan);
  for (const StoreRef& store : stores)
    for (std::size_t t = 0; store.kind != StoreKind::barrels && t < storeTraces(plan, store).size(); ++t)
      out += fmt::format(",store:{}{} {} [C]", store.id.substr(0, store.id.find(':')), store.index + 1, storeTraceName(storeTraces(plan, store)[t]));
  out += ",heater:1 [W]";
  for (int p = 0; p < kLossPathCount; ++p) out += fmt::format(",loss {} [W]", lossPathId(static_cast<LossPath>(p)));
  for (const StoreRef& store : stores)
    out += fmt::format(",gives {} [W]", store.id) + (store.kind == StoreKind::cable ? "" : fmt::format(",holds {} [kWh]", store.id));
  out += '\n';
  for (std::size_t w = 0; w < run.series.size(); ++w) {
    const Winter& winter = weather.winters[w];
    const WinterSeries& s = run.series[w];
    for (std::size_t i = 0; i < winter.size(); ++i) {
      out += fmt::format("{},{:.3f},{:.3f},{:.1f},{:.2f},{:.3f},{:.3f},{:.1f},{:.3f}", zone.iso(winter.time(i)), winter.outside_C[i], winter.sky_C[i],
                         winter.sun_W_m2[i], winter.wind_m_s[i], s.air_C[i], s.floor_C[i],
                         100.0 * std::min(relativeHumidity(s.air_C[i], s.vapour_g_kg[i], pressure_Pa), 1.0), s.leaf_C[i]);
      for (std::size_t b = 0; b < plan.barrels.size(); ++b) out += fmt::format(",{:.3f}", s.stores[b].temperature_C[0][i]);
      for (const RoomSeries& room : s.rooms) out += fmt::format(",{:.3f}", room.air_C[i]);
      for (std::size_t k = 0; k < stores.size(); ++k)
        if (stores[k].kind != StoreKind::barrels)
          for (const auto& trace : s.stores[k].temperature_C) out += std::isnan(trace[i]) ? "," : fmt::format(",{:.3f}", trace[i]);
      out += fmt::format(",{:.1f}", s.heater_W[i]);
      for (const auto& part : s.loss_W) out += fmt::format(",{:.1f}", part[i]);
      for (const StoreSeries& store : s.stores) {
        out += fmt::format(",{:.1f}", store.given_W[i]);
        if (!store.charge_kWh.empty()) out += fmt::format(",{:.3f}", store.charge_kWh[i]);
      }
      out += '\n';
    }
  }
  return out;
}

std::string explained(const Explanation& e) {
  switch (e.input) {
  case GapInput::heaterReading: return fmt::format("the heater would have to give {:.0f} W on an average night, the log has {:.0f}", e.needed, e.entered);
  case GapInput::draughts: return fmt::format("the air would have to change {:.2f} times an hour in still air, you entered {:.2f}", e.needed, e.entered);
  case GapInput::leaks: return fmt::format("the leaks would have to be {:.0f} cm2, you entered {:.0f}", e.needed, e.entered);
  case GapInput::skin: return fmt::format("the covers would have to let {:.2f} times as much through", e.needed);
  }
  return {};
}

std::string said(const Remark& r) {
  switch (r.kind) {
  case RemarkKind::cannotTellApart: {
    const bool wind = std::string_view(factorName(r.factor)) == "skin" && std::string_view(factorName(r.other)) == "draughts";
    return fmt::format("These nights cannot tell {} from {}{}.", factorName(r.factor), factorName(r.other), wind ? ": log a windy night" : "");
  }
  case RemarkKind::saysLittle: return fmt::format("These nights say little about {}.", factorName(r.factor));
  case RemarkKind::noHeaterMeter:
    return "No heater meter in the log: the plan's own thermostat heated, so that what the house loses is known only from nights without it.";
  }
  return {};
}

Json fitAnswer(const QuickFit& quick, const std::optional<MeasuredAgainstParts>& parts, const Calibrated& full, const std::optional<HouseLoss>& together) {
  Json out;
  out["quick"] = {{"UA_W_per_K", digits(quick.UA_W_K(), 2)}, {"standard_error", digits(quick.standardError_W_K(), 2)}, {"nights", quick.heated.size()}};
  if (quick.balance)
    out["quick"]["balance"] = {{"UA_W_per_K", digits(quick.balance->UA_W_K, 2)},
                               {"UA_standard_error", digits(quick.balance->seUA_W_K, 2)},
                               {"C_J_per_K", digits(quick.balance->C_J_K, 0)},
                               {"C_standard_error", digits(quick.balance->seC_J_K, 0)}};
  if (parts)
    out["calculated"] = {
        {"UA_W_per_K", digits(parts->calculated_W_K, 2)}, {"inside_C", digits(parts->inside_C, 1)}, {"outside_C", digits(parts->outside_C, 1)}};
  if (together)
    out["together"] = {{"UA_W_per_K", digits(together->UA_W_K, 2)},
                       {"standard_error", digits(together->standardError_W_K, 2)},
                       {"fitted_UA_W_per_K", digits(together->fitted_W_K, 2)}};
  if (const auto storage = houseStorage(full)) {
    out["together"]["C_J_per_K"] = digits(storage->C_J_K, 0);
    out["together"]["C_standard_error"] = digits(storage->standardError_J_K, 0);
  }
  Calibration found = full.found;
  for (int f = 0; f < kFactorCount; ++f)
    out["full"][factorName(f)] = {{"value", digits(factorOf(found, f), 4)}, {"standard_error", digits(full.standardError[static_cast<std::size_t>(f)], 4)}};
  out["correlations"] = Json::array();
  for (int f = 0; f < kFactorCount; ++f)
    for (int g = f + 1; g < kFactorCount; ++g)
      out["correlations"].push_back(
          {{"of", {factorName(f), factorName(g)}}, {"value", digits(full.correlation[static_cast<std::size_t>(f)][static_cast<std::size_t>(g)], 3)}});
  out["held_out_rms_K"] = digits(full.lowAfter_K, 3);
  out["held_out_rms_before_K"] = digits(full.lowBefore_K, 3);
  out["sensors"] = Json::array();
  for (const SensorMisfit& s : full.sensors)
    out["sensors"].push_back({{"channel", s.channel}, {"rms_K", digits(s.after_K, 3)}, {"rms_before_K", digits(s.before_K, 3)}});
  out["nights_fitted"] = full.nights;
  out["nights_held_out"] = full.heldOut;
  out["heater"] = full.heaterMeasured ? "measured" : "assumed";
  out["explains"] = Json::array();
  if (parts)
    for (const Explanation& e : parts->explains) out["explains"].push_back(explained(e));
  out["remarks"] = Json::array();
  for (const Remark& r : remarks(full)) out["remarks"].push_back(said(r));
  out["run_ms"] = digits(full.run_ms, 1);
  return out;
}

Json aidsAnswer() {
  Json list = Json::array();
  for (const Aid& aid : aids()) {
    Json entry{{"name", aid.name}, {"what", english(whatOf(aid))}, {"formula", english(formulaOf(aid))}, {"inputs", Json::array()}, {"outputs", Json::array()}};
    const auto units = [](QuantityKind kind) {
      Json symbols = Json::array();
      for (const UnitOf& u : unitsOf(kind)) symbols.push_back(u.symbol);
      return symbols;
    };
    for (const AidInput& i : aid.inputs)
      entry["inputs"].push_back({{"key", i.key}, {"what", english(whatOf(aid, i.key))}, {"units", units(i.kind)}, {"typical", i.typical}});
    for (const AidOutput& o : aid.outputs)
      entry["outputs"].push_back({{"key", o.key}, {"what", english(whatOf(aid, o.key))}, {"unit", unitsOf(o.kind).front().symbol}});
    list.push_back(entry);
  }
  return list;
}

Json aidAnswer(const Aid& aid, const std::vector<Measured>& inputs, const std::vector<Measured>& answer) {
  Json out{{"name", aid.name}, {"inputs", Json::object()}, {"outputs", Json::object()}};
  const auto entry = [](const Measured& m, QuantityKind kind) {
    const UnitOf& unit = unitsOf(kind).front();
    return Json{{"value", (m.value - unit.offset) / unit.factor}, {"uncertainty", m.uncertain / unit.factor}, {"unit", unit.symbol}, {"text", textOf(m, kind)}};
  };
  for (std::size_t i = 0; i < inputs.size(); ++i) out["inputs"][aid.inputs[i].key] = entry(inputs[i], aid.inputs[i].kind);
  for (std::size_t k = 0; k < answer.size(); ++k) out["outputs"][aid.outputs[k].key] = entry(answer[k], aid.outputs[k].kind);
  return out;
}

} // namespace muffle
