// SPDX-License-Identifier: GPL-3.0-or-later
//
// Fuels, tariffs, kit, break-even prices and the choice of heaters on a trace.
#include "core/constants.h"
#include "core/cost/cost.h"
#include "core/cost/life.h"
#include "core/heater/carrier.h"
#include "core/heater/tariff.h"
#include "core/plan/unvented.h"
#include "core/sizing/heater_choice.h"
#include "core/sizing/package_choice.h"
#include "tests/cases/adapters.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <string>

namespace muffle::cases {
namespace {

/// The case file's own chance: Park and Miller's generator.
class CaseChance {
public:
  explicit CaseChance(const Json& in) : m_x(in.at("seed").get<long long>()) {}
  double uniform() {
    m_x = 16807 * m_x % 2147483647;
    return static_cast<double>(m_x) / 2147483647.0;
  }
  double normal() {
    double sum = -6.0;
    for (int i = 0; i < 12; ++i) sum += uniform();
    return sum;
  }

private:
  long long m_x;
};

/// The case file's own weather: a year of hours with a random part.
std::vector<double> traceOutside_C(const Json& in) {
  CaseChance chance(in);
  std::vector<double> out;
  double e = 0.0;
  for (int h = 0; h < 8760; ++h) {
    e = 0.97 * e + num(in, "s_K") * std::sqrt(1.0 - 0.97 * 0.97) * chance.normal();
    out.push_back(num(in, "Tm_C") - num(in, "A1_K") * std::cos(2.0 * kPi * (h - 456) / 8760.0) - num(in, "A2_K") * std::cos(2.0 * kPi * (h - 4) / 24.0) + e);
  }
  return out;
}

std::vector<double> traceLoad_kW(const Json& in, const std::vector<double>& outside_C) {
  std::vector<double> load;
  for (const double T : outside_C) load.push_back(std::max(0.0, num(in, "UA_W_per_K") * (num(in, "Tset_C") - T)) / 1000.0);
  return load;
}

/// Loads of the tariff cases: no random part, gains by day.
std::vector<double> sinusLoad_kW(const Json& in, double UA, double gain_W) {
  std::vector<double> load;
  for (int h = 0; h < 24 * in.at("days").get<int>(); ++h) {
    const double T = num(in, "Tm_C") - num(in, "A1_K") * std::cos(2.0 * kPi * (h - 456) / 8760.0) - num(in, "A2_K") * std::cos(2.0 * kPi * (h - 4) / 24.0);
    const double gain = h % 24 >= 9 && h % 24 < 15 ? gain_W : 0.0;
    load.push_back(std::max(0.0, UA * (num(in, "Tset_C") - T) - gain) / 1000.0);
  }
  return load;
}

double sumOf(const std::vector<double>& values) {
  double sum = 0.0;
  for (const double v : values) sum += v;
  return sum;
}

Json bill(const Json& in) {
  const std::vector<double> load = sinusLoad_kW(in, num(in, "UA_W_per_K"), num(in, "gain_W"));
  const int days = daysUsed(load);
  if (in.contains("kWh_per_unit")) {
    std::vector<double> need = load;
    for (double& x : need) x /= num(in, "efficiency");
    const FuelBill b =
        fuelBill({num(in, "kWh_per_unit"), num(in, "price_per_unit"), in.at("units_per_order").get<int>(), num(in, "delivery_charge"), num(in, "vat")}, need);
    return {{"need_units", b.need_units},
            {"units", b.units},
            {"orders", b.orders},
            {"left_units", b.left_units},
            {"total", b.total},
            {"start_days", days},
            {"hours_of_work", static_cast<double>(b.units) * num(in, "hours_per_unit") + days * num(in, "hours_per_start_day")},
            {"last_day_first_unit", b.firstUnitGone_day ? Json(*b.firstUnitGone_day) : Json()}};
  }
  Tariff tariff{.price_per_kWh = num(in, "base_price"), .standing_per_day = num(in, "standing_per_day"), .vat = num(in, "vat")};
  for (const Json& w : in.at("windows")) {
    TariffWindow window{0U, w[1].get<int>(), w[2].get<int>(), w[3].get<double>()};
    for (const Json& day : w[0]) window.weekdays |= 1U << day.get<unsigned>();
    tariff.windows.push_back(window);
  }
  std::vector<double> bought = load;
  for (double& x : bought) x /= num(in, "efficiency");
  const ElectricityBill b = electricityBill(tariff, bought, in.at("first_weekday").get<int>());
  const double hours = days * num(in, "hours_per_start_day");
  return {{"bought_kWh", b.bought_kWh}, {"kWh_by_window", b.kWhByWindow},
          {"energy_cost", b.energy},    {"standing", b.standing},
          {"total", b.total},           {"start_days", days},
          {"hours_of_work", hours},     {"total_with_work", b.total + hours * num(in, "wage")},
          {"mean_price", b.meanPrice()}};
}

Json kit(const Json& in) {
  std::vector<KitPart> parts;
  for (const Json& p : in.at("parts_name_price_life_residual_upkeep"))
    parts.push_back({p[1].get<double>(), p[2].get<int>(), p[3].get<double>(), p[4].get<double>()});
  const KitCost cost = kitCost(parts, num(in, "rate"));
  return {{"yearly_cost", cost.yearly}, {"horizon_years", cost.horizon_years}, {"present_over_horizon", cost.present}};
}

Json breakEven(const Json& in) {
  if (in.contains("film_price")) {
    const double one = sumOf(sinusLoad_kW(in, num(in, "UA_W_per_K"), num(in, "gain_W")));
    const double two = sumOf(sinusLoad_kW(in, num(in, "UA_W_per_K") * (1.0 - num(in, "saving")), num(in, "gain_W") * (1.0 - num(in, "light_loss"))));
    const double film = num(in, "film_price") * annuityFactor(num(in, "rate"), num(in, "film_life_years")) + num(in, "film_hours_per_year") * num(in, "wage");
    const HeatingWay with{film, 0.0};
    return {{"demand_one_kWh", one},
            {"demand_two_kWh", two},
            {"film_cost_per_year", film},
            {"break_even_price", breakEvenPrice(with, 0.0, num(in, "efficiency"), one - two)},
            {"saved_at_now", (one - two) * num(in, "price_now_per_kWh") / num(in, "efficiency") - film}};
  }
  const auto yearly = [&](const std::string& of) {
    return num(in, (of + "_capital").c_str()) * annuityFactor(num(in, "rate"), num(in, (of + "_life_years").c_str())) +
           num(in, (of + "_upkeep_per_year").c_str()) + num(in, (of + "_hours_per_year").c_str()) * num(in, "wage");
  };
  const double demand = num(in, "demand_kWh");
  const HeatingWay a{yearly("A"), num(in, "price_A_per_kWh") / num(in, "A_efficiency")},
      b{yearly("B"), num(in, "price_B_now_per_kWh") / num(in, "B_efficiency")};
  const auto heat = breakEvenHeat_kWh(a, b);
  return {{"cost_A", a.cost(demand)},
          {"cost_B_now", b.cost(demand)},
          {"break_even_price_B", breakEvenPrice(a, b.yearly, num(in, "B_efficiency"), demand)},
          {"break_even_demand_kWh", heat ? Json(*heat) : Json()}};
}

Json twoHeaters(const Json& in) {
  const std::vector<double> outside = traceOutside_C(in), load = traceLoad_kW(in, outside);
  const auto& units = in.at("units_name_capital_per_kW_running_per_kWh_labour_per_start_day");
  const auto offer = [&](std::size_t i) {
    return HeaterOffer{.capital_kW = units[i][1].get<double>(),
                       .price_kWh = std::vector<double>(load.size(), units[i][2].get<double>()),
                       .perStartDay = units[i][3].get<double>()};
  };
  const HeaterOffer first = offer(0), second = offer(1);
  const double peak = *std::max_element(load.begin(), load.end());
  const TwoHeaters split = splitLoad(first, second, load, peak / 2000.0);
  const auto alone = [&](const HeaterOffer& of) { return of.capital_kW * peak + of.price_kWh.front() * sumOf(load) + of.perStartDay * daysUsed(load); };
  return {{"base_kW", split.base_kW},
          {"peak_kW", split.peak_kW},
          {"base_kWh", split.base_kWh},
          {"peak_kWh", split.peak_kWh},
          {"base_start_days", split.baseDays},
          {"peak_start_days", split.peakDays},
          {"cost_per_year", split.cost},
          {"base_unit", units[split.base][0]},
          {"peak_load_kW", peak},
          {"demand_kWh", sumOf(load)},
          {"cost_only_first", alone(first)},
          {"cost_only_second", alone(second)},
          {"To_first_hours_C", std::vector<double>(outside.begin(), outside.begin() + 4)}};
}

Json heaterChoice(const Json& in) {
  const std::vector<double> outside = traceOutside_C(in), load = traceLoad_kW(in, outside);
  const auto& kinds = in.at("kinds_name_capital_day_price_night_price_labour_step");
  std::vector<HeaterOffer> offers;
  for (const Json& k : kinds) {
    HeaterOffer offer{.capital_kW = k[1].get<double>(), .price_kWh = {}, .perStartDay = k[4].get<double>(), .step_kW = k[5].get<double>()};
    for (std::size_t h = 0; h < load.size(); ++h) {
      const auto hour = static_cast<double>(h % 24);
      offer.price_kWh.push_back(hour >= num(in, "night_from_h") || hour < num(in, "night_to_h") ? k[3].get<double>() : k[2].get<double>());
    }
    if (k[0] == in.at("derate_kind")) {
      const auto points = in.at("derate_points_C").get<std::vector<double>>(), factors = in.at("derate_factors").get<std::vector<double>>();
      for (const double T : outside) {
        std::size_t i = 0;
        while (i + 1 < points.size() && points[i + 1] < T) ++i;
        const double share = i + 1 < points.size() ? std::clamp((T - points[i]) / (points[i + 1] - points[i]), 0.0, 1.0) : 0.0;
        offer.capacity.push_back(i + 1 < points.size() ? factors[i] + share * (factors[i + 1] - factors[i]) : factors.back());
      }
    }
    offers.push_back(std::move(offer));
  }
  const auto chosen = chooseHeaters(
      offers, load, {in.at("max_units").get<int>(), in.at("max_steps").get<int>(), in.at("kinds_may_repeat").get<bool>(), in.at("any_one_out").get<bool>()});
  Json out{{"peak_load_kW", *std::max_element(load.begin(), load.end())}, {"demand_kWh", sumOf(load)}, {"cost_alone", Json::array()}};
  if (!chosen) return out;
  for (const auto& cost : chosen->alone) out["cost_alone"].push_back(cost ? Json(*cost) : Json());
  std::vector<double> kW(offers.size(), 0.0), kWh(offers.size(), 0.0);
  std::vector<int> count(offers.size(), 0);
  for (std::size_t u = 0; u < chosen->best.units.size(); ++u) {
    const HeaterUnit& unit = chosen->best.units[u];
    kW[unit.offer] += offers[unit.offer].step_kW * unit.steps;
    kWh[unit.offer] += chosen->best.heat_kWh[u];
    ++count[unit.offer];
  }
  out["cost_per_year"] = chosen->best.cost;
  out["first_unit"] = kinds[chosen->best.units.front().offer][0];
  out["kW_by_kind"] = kW;
  out["units_by_kind"] = count;
  out["kWh_by_kind"] = kWh;
  out["second_best_cost"] = chosen->second ? Json(chosen->second->cost) : Json();
  return out;
}

Json fuelUse(const Json& in) {
  const double kg = num(in, "heat_demand_kWh") * 3.6e6 / (num(in, "efficiency") * num(in, "net_heating_value_J_per_kg"));
  Json out{{"fuel_kg", kg}, {"cost", kg * num(in, "price_per_kg", 0.0)}};
  if (in.contains("density_kg_per_m3")) out["fuel_litres"] = 1000.0 * kg / num(in, "density_kg_per_m3");
  return out;
}

Json combustionOf(const Json& in) {
  const Combustion c = combustion(num(in, "carbon_atoms"), num(in, "hydrogen_atoms"));
  const double net = num(in, "net_heating_value_J_per_kg") / 3.6e6, gross = num(in, "gross_heating_value_J_per_kg", 3.6e6 * net) / 3.6e6;
  return {{"CO2_kg_per_kg", c.carbonDioxide_kg},
          {"H2O_kg_per_kg", c.water_kg},
          {"O2_kg_per_kg", c.oxygen_kg},
          {"air_kg_per_kg", c.air_kg},
          {"CO2_kg_per_kWh_net", c.carbonDioxide_kg / net},
          {"H2O_kg_per_kWh_net", c.water_kg / net},
          {"CO2_kg_per_kWh_gross", c.carbonDioxide_kg / gross},
          {"latent_share_of_gross", 1.0 - net / gross}};
}

/// The table's fuel that a name speaks of.
Json fuelFactor(const Json& in) {
  const std::string name = in.at("fuel").get<std::string>();
  const auto has = [&](const char* word) { return name.find(word) != std::string::npos; };
  const auto carrier = has("methane") || has("natural")     ? Carrier::naturalGas
                       : has("propane") || has("LPG")       ? Carrier::propane
                       : has("kerosene") || has("paraffin") ? Carrier::paraffin
                       : has("oil") || has("diesel")        ? Carrier::heatingOil
                       : has("pellet")                      ? Carrier::pellets
                       : has("wood")                        ? Carrier::hardwood
                                                            : Carrier::fuel;
  if (carrier == Carrier::fuel) throw NotBuilt{};
  return {{"CO2_kg_per_GJ_net", carbonDioxide_kg_kWh(carrier) / 3.6e-3}};
}

Json unventedBurner(const Json& in) {
  const double net = num(in, "net_heating_value_J_per_kg"), fuel_kg_s = num(in, "burner_W_net") / net;
  const Combustion c = combustion(3.0, 8.0); // the case's burner is of propane
  const double source = fuel_kg_s * c.carbonDioxide_kg / num(in, "CO2_density_kg_per_m3");
  const auto ppm = [&](double t) { return carbonDioxide_ppm(source, num(in, "volume_m3"), num(in, "air_changes_per_h"), num(in, "outdoor_CO2_ppm"), t); };
  return {{"CO2_kg_per_h", 3600.0 * fuel_kg_s * c.carbonDioxide_kg},
          {"H2O_kg_per_h", 3600.0 * fuel_kg_s * c.water_kg},
          {"CO2_ppm", ppm(num(in, "time_s"))},
          {"CO2_ppm_steady", ppm(std::numeric_limits<double>::infinity())}};
}

Json designTrace(const Json& in) {
  std::vector<double> T = traceOutside_C(in);
  double mean = 0.0;
  for (const double t : T) mean += t / static_cast<double>(T.size());
  std::sort(T.begin(), T.end());
  const auto at = [&](double share) { // linear between order statistics
    const double place = share * static_cast<double>(T.size() - 1);
    const auto i = static_cast<std::size_t>(place);
    return T[i] + (place - static_cast<double>(i)) * (T[std::min(i + 1, T.size() - 1)] - T[i]);
  };
  return {{"design_99_6_C", at(0.004)}, {"design_99_C", at(0.01)}, {"mean_C", mean}, {"minimum_C", T.front()}};
}

Json packageChoice(const Json& in) {
  CaseChance chance(in);
  PassiveDays days;
  double e = 0.0;
  const int count = in.at("days").get<int>();
  for (int d = 0; d < count; ++d) {
    const double g = chance.normal(), u = chance.uniform(), season = std::sin(kPi * (d + 0.5) / count);
    e = 0.7 * e + num(in, "s_K") * std::sqrt(1.0 - 0.49) * g;
    days.outside_C.push_back(num(in, "Tm_C") - num(in, "A1_K") * season + e);
    days.sun_kWh.push_back((num(in, "S0_kWh") - num(in, "S1_kWh") * season) * (0.2 + 0.8 * u));
  }
  std::vector<std::string> names;
  std::vector<PassiveMeasure> measures;
  for (const Json& m : in.at("measures_name_UA_sun_store_capital_life_hours")) {
    names.push_back(m[0].get<std::string>());
    measures.push_back({m[1].get<double>(), m[2].get<double>(), m[3].get<double>(), m[4].get<double>(), m[5].get<double>(), m[6].get<double>()});
  }
  const auto placeOf = [&](const Json& name) {
    return static_cast<std::size_t>(std::find(names.begin(), names.end(), name.get<std::string>()) - names.begin());
  };
  std::vector<std::pair<std::size_t, std::size_t>> excludes;
  for (const Json& pair : in.at("excludes")) excludes.emplace_back(placeOf(pair[0]), placeOf(pair[1]));
  const auto namesOf = [&](PackageSet set) {
    std::string joined;
    for (std::size_t k = 0; k < names.size(); ++k)
      if (set >> k & 1U) joined += (joined.empty() ? "" : "+") + names[k];
    return joined.empty() ? std::string("none") : joined;
  };
  const double price = num(in, "price_per_kWh");
  const ChosenPackage chosen = choosePackage({num(in, "UA0_W_per_K"), num(in, "Tset_C"), num(in, "store0_kWh"), num(in, "keep")}, days, measures, excludes,
                                             {price, num(in, "wage"), num(in, "rate")});
  const auto turn = [&](const std::optional<PriceTurn>& at, const char* priceKey, const char* setKey, Json& out) {
    out[priceKey] = at ? Json(at->perKWh) : Json();
    out[setKey] = at ? Json(namesOf(at->set)) : Json();
  };
  Json out{{"chosen", namesOf(chosen.best.set)},
           {"cost_per_year", chosen.best.cost(price)},
           {"energy_kWh", chosen.best.energy_kWh},
           {"second_best", chosen.second ? Json(namesOf(chosen.second->set)) : Json()},
           {"second_best_cost", chosen.second ? Json(chosen.second->cost(price)) : Json()},
           {"energy_bare_kWh", chosen.bare.energy_kWh},
           {"cost_bare", chosen.bare.cost(price)},
           {"To_first_days_C", std::vector<double>(days.outside_C.begin(), days.outside_C.begin() + 3)},
           {"sun_first_days_kWh", std::vector<double>(days.sun_kWh.begin(), days.sun_kWh.begin() + 3)}};
  turn(chosen.above, "price_above", "chosen_above", out);
  turn(chosen.below, "price_below", "chosen_below", out);
  return out;
}

} // namespace

void addMoney(Adapters& a) {
  a["bill"] = bill;
  a["kit_cost"] = kit;
  a["break_even_price"] = breakEven;
  a["two_heater_split"] = twoHeaters;
  a["heater_choice"] = heaterChoice;
  a["package_choice"] = packageChoice;
  a["fuel_use"] = fuelUse;
  a["combustion"] = combustionOf;
  a["fuel_co2_factor"] = fuelFactor;
  a["unvented_burner"] = unventedBurner;
  a["design_temperature_trace"] = designTrace;
}

} // namespace muffle::cases
