// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sizing/usual_measures.h"
#include "core/plan/heaters.h"

#include "core/simulate/simulate.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace muffle {

Measure usualMeasure(MeasureKind kind) {
  Measure m;
  m.kind = kind;
  switch (kind) {
  case MeasureKind::secondSkin:
    m.name = "second skin";
    m.material = "pe-film";
    m.price = 1.5;
    m.life_years = 4;
    m.hoursPerWinter = 3;
    break;
  case MeasureKind::nightBlanket:
    m.name = "night blanket";
    m.material = "woven-blanket";
    m.price = 6;
    m.life_years = 8;
    m.hoursPerNight = 0.25;
    break;
  case MeasureKind::sealing:
    m.name = "sealing";
    m.levels = {0.4};
    m.price = 80;
    m.life_years = 3;
    m.hoursPerWinter = 5;
    break;
  case MeasureKind::barrels:
    m.name = "barrels";
    m.levels = {10, 20};
    m.price = 15;
    m.life_years = 15;
    break;
  case MeasureKind::heater:
    m.name = "heater";
    m.levels = {3000, 6000};
    m.price = 55;
    m.life_years = 10;
    break;
  case MeasureKind::skirt:
    m.name = "skirt";
    m.levels = {0.6};
    m.price = 9;
    m.life_years = 25;
    break;
  case MeasureKind::hardier:
    m.name = "hardier crop";
    m.levels = {2};
    break;
  case MeasureKind::ceiling:
    m.name = "ceiling";
    m.material = "clear-screen";
    m.price = 2.5;
    m.life_years = 5;
    m.hoursPerWinter = 4;
    break;
  case MeasureKind::lobby:
    m.name = "lobby";
    m.levels = {1.5};
    m.price = 150;
    m.life_years = 8;
    break;
  }
  return m;
}

std::vector<Measure> changesToTry(const Plan& plan) {
  std::vector<Measure> changes;
  const auto add = [&](MeasureKind kind, std::vector<double> levels, const char* name = "", const char* material = "", double gap_m = 0.05,
                       double price = -1.0) {
    Measure m = usualMeasure(kind);
    m.levels = std::move(levels);
    if (*name) m.name = name;
    if (*material) m.material = material;
    m.gap_m = gap_m;
    if (price >= 0.0) m.price = price;
    const auto own = std::find_if(plan.measures.begin(), plan.measures.end(), [&](const Measure& o) { return o.kind == kind && o.material == m.material; });
    if (own != plan.measures.end()) {
      m.price = own->price;
      m.life_years = own->life_years;
      m.hoursPerWinter = own->hoursPerWinter;
      m.hoursPerNight = own->hoursPerNight;
    }
    changes.push_back(std::move(m));
  };
  const House& house = plan.house;
  const double floor = house.shape.floor_m2();
  constexpr std::size_t kMostLayers = 6;
  if (std::max({house.roof.layers.size(), house.sides.layers.size(), house.ends.layers.size()}) < kMostLayers) {
    add(MeasureKind::secondSkin, {}, "second film, heat-holding", "pe-film-ir", 0.10, 2.0);
    add(MeasureKind::secondSkin, {}, "bubble wrap lining", "bubble-wrap", 0.02, 2.5);
  }
  if (!house.blanket) {
    add(MeasureKind::nightBlanket, {}, "woven night blanket", "woven-blanket");
    add(MeasureKind::nightBlanket, {}, "aluminised night screen", "aluminised-screen", 0.05, 9.0);
  }
  if (house.airChanges_per_h > 0.2) add(MeasureKind::sealing, {std::round(50.0 * house.airChanges_per_h) / 100.0});
  constexpr double kLeastEave_m = 1.6; // room to work under it
  if (!house.roofVoid && !house.retractable && house.shape.kind != ShapeKind::dome && house.shape.eave_m + house.shape.sunk_m >= kLeastEave_m)
    add(MeasureKind::ceiling, {}, "ceiling at the eaves", "clear-screen");
  constexpr double kLobby_m = 1.5;
  if (!house.lobby && house.shape.kind != ShapeKind::dome && kLobby_m + (house.bay ? house.bay->length_m : 0.0) < 0.5 * house.shape.length_m)
    add(MeasureKind::lobby, {kLobby_m});
  add(MeasureKind::barrels, {std::max(2.0, std::round(floor / 10.0))}); // one to each ten square metres
  if (house.floor.edgeDepth_m <= 0.0) add(MeasureKind::skirt, {0.6});
  const double power = heaterPower_W(plan, {HeaterPlace::Of::house});
  add(MeasureKind::heater, {power > 0.0 ? std::round(power * 1.5 / 500.0) * 500.0 : std::max(1000.0, std::round(floor * 60.0 / 500.0) * 500.0)});
  add(MeasureKind::hardier, {2.0});
  return changes;
}

Result<double> usualHeater_W(const Plan& plan, double outside_C) {
  constexpr double kCalm_m_s = 1.0, kClear = 1.0, kStep_W = 500.0;
  const auto loss = steadyLoss(plan, plan.setpoints.night_C, outside_C, kCalm_m_s, kClear);
  if (!loss) return loss.problems();
  return std::max(1.0, std::ceil(loss->total_W / kStep_W)) * kStep_W;
}

std::vector<Measure> measuresToSearch(const Plan& plan, double heater_W) {
  std::vector<Measure> list;
  bool hasFilm = false, hasBlanket = false;
  for (Measure& m : changesToTry(plan)) { // one of a kind, and no hardier crop: that is another question
    const bool isFirst = m.kind == MeasureKind::secondSkin     ? !std::exchange(hasFilm, true)
                         : m.kind == MeasureKind::nightBlanket ? !std::exchange(hasBlanket, true)
                                                               : true;
    if (isFirst && m.kind != MeasureKind::hardier && m.kind != MeasureKind::ceiling && m.kind != MeasureKind::lobby && m.kind != MeasureKind::skirt)
      list.push_back(std::move(m));
  }
  for (Measure& m : list) {
    if (m.kind != MeasureKind::heater) continue;
    constexpr double kStep_W = 500.0;
    m.levels.clear();
    for (const double share : {0.5, 0.75, 1.0, 1.25}) {
      const double power_W = std::max(1.0, std::round(share * heater_W / kStep_W)) * kStep_W;
      if (m.levels.empty() || power_W > m.levels.back()) m.levels.push_back(power_W);
    }
  }
  return list;
}

} // namespace muffle
