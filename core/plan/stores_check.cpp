// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/stores_check.h"

#include "core/plan/rooms.h"
#include "core/store/ingredients.h"
#include "core/store/pile.h"

#include <fmt/format.h>

#include <algorithm>

namespace muffle {
namespace {

constexpr double kMostOfFloor = 0.9;
constexpr double kWall = 1.1;             // outside of a pipe by its inside
constexpr double kMostCable_W_m2 = 200.0; // beyond it roots beside the cable are cooked
constexpr double kLeastBetweenCables_m = 0.04;
constexpr double kLeastCableBand_K = 0.1;
constexpr double kMostMoisture = 0.85; // a blend wetter than this is a slurry

void checkRule(const StoreRule& rule, const std::string& where, Problems& problems) {
  if (rule.giveBelow_C > rule.chargeAbove_C - 2.0)
    problems.push_back({ProblemKind::badInput, where + "/rule/give_below_C",
                        Message{"store.gives-below-charged-above", Amount{rule.giveBelow_C, Unit::celsius, 6}, Amount{rule.chargeAbove_C, Unit::celsius, 6}},
                        Message{"store.between-at-least", Amount{2.0, Unit::kelvin}}});
}

void checkPipes(const Plan& plan, Problems& problems) {
  double under_m2 = 0.0;
  for (std::size_t i = 0; i < plan.groundPipes.size(); ++i) {
    const GroundPipes& p = plan.groundPipes[i];
    const auto where = fmt::format("/ground_pipes/{}", i);
    const auto bad = [&](const char* field, Message what, Message allowed) {
      problems.push_back({ProblemKind::badInput, where + field, std::move(what), std::move(allowed)});
    };
    checkRule(p.rule, where, problems);
    if (p.count > 1 && p.spacing_m < 1.5 * kWall * p.diameter_m)
      bad("/spacing_m", Message{"store.pipes-wide-every", Amount{p.diameter_m, Unit::metre, 6}, Amount{p.spacing_m, Unit::metre, 6}},
          Message{"store.soil-lie-between-them", Amount{1.5 * kWall * p.diameter_m, Unit::metre, 2}});
    if (p.depth_m < p.diameter_m)
      bad("/depth_m", Message{"store.pipe-wide", Amount{p.diameter_m, Unit::metre, 6}, Amount{p.depth_m, Unit::metre, 6}},
          Message{"store.top-covered-least-deep", Amount{p.diameter_m, Unit::metre, 6}});
    if (p.serves == PipeOutlet::bay && !plan.house.bay) bad("/serves", Message{"store.pipes-let-their-air"}, Message{"store.let-them-serve-house"});
    if (p.serves == PipeOutlet::bed && p.bed >= static_cast<int>(plan.house.bedCovers.size()))
      bad("/bed", Message{"store.pipes-serve-bed-cover", p.bed + 1, plan.house.bedCovers.size()}, Message{"store.cover-bed-first-let"});
    if (p.place == PipePlace::underFloor) under_m2 += p.bed_m2();
    if (p.place == PipePlace::underFloor && under_m2 > kMostOfFloor * plan.house.shape.floor_m2())
      bad("/count", Message{"store.pipe-bed-takes", Amount{under_m2, Unit::squareMetre, 3}},
          Message{"store.pipes-floor-at-most", Amount{kMostOfFloor * plan.house.shape.floor_m2(), Unit::squareMetre, 3}});
  }
}

void checkCompost(const Plan& plan, Problems& problems) {
  const HouseShape& shape = plan.house.shape;
  double beds_m2 = 0.0, covered_m2 = 0.0;
  for (const BedCover& bed : plan.house.bedCovers)
    if (!bed.inBay) covered_m2 += bed.bed_m2();
  const double most_m2 = kMostOfFloor * ownFloor_m2(plan.house, false) - covered_m2;
  for (std::size_t i = 0; i < plan.compost.size(); ++i) {
    const CompostPile& c = plan.compost[i];
    const auto where = fmt::format("/compost/{}", i);
    const auto bad = [&](const std::string& field, Message what, Message allowed) {
      problems.push_back({ProblemKind::badInput, where + field, std::move(what), std::move(allowed)});
    };
    if (!parseMonthDay(c.built)) bad("/built", Message{"store.not-day-year", c.built}, Message{"store.date-as"});
    bool known = true;
    for (std::size_t k = 0; k < c.recipe.size(); ++k)
      if (!findIngredient(c.recipe[k].ingredient)) {
        known = false;
        bad(fmt::format("/recipe/{}/ingredient", k), Message{"store.not-known-ingredient", c.recipe[k].ingredient}, Message{"store.see-materials"});
      }
    if (!known) continue;
    const Blend blend = blendOf(c);
    if (blend.degradable_kg <= 0.0) {
      bad("/recipe", Message{"store.nothing-pile"}, Message{"store.ingredient-needed"});
      continue;
    }
    if (blend.moisture > kMostMoisture)
      bad("/water_kg", Message{"store.pile-water", Amount{100.0 * blend.moisture, Unit::percent, 3}}, Message{"store.water-at-most"});
    constexpr double kWarmestHouse_C = 35.0; // beyond it the house would warm the pile
    if (c.place != PilePlace::hotBed && c.giveBelow_C > kWarmestHouse_C)
      bad("/give_below_C", Message{"store.house-given-heat-until", Amount{c.giveBelow_C, Unit::celsius, 6}},
          Message{"store.gives-at-most", Amount{35.0, Unit::celsius}});
    if (c.place == PilePlace::mound && c.coilInto == CoilInto::tank && c.tank >= static_cast<int>(plan.waterLoops.size()))
      bad("/tank", Message{"store.coil-goes-tank", c.tank + 1, plan.waterLoops.size()}, Message{"store.add-water-loop-first"});
    const PileSize size = pileSize(c, blend);
    constexpr double kTallest_m = 3.0, kFlattest_m = 0.15;
    if (size.height_m > kTallest_m)
      bad("/width_m",
          Message{"store.pile-stands-high", Amount{blend.volume_m3, Unit::cubicMetre, 3}, Amount{c.width_m, Unit::none, 6}, Amount{c.length_m, Unit::metre, 6},
                  Amount{size.height_m, Unit::metre, 3}},
          Message{"store.height-at-most", Amount{3.0, Unit::metre}});
    if (size.height_m < kFlattest_m)
      bad("/width_m",
          Message{"store.pile-lies-thick", Amount{blend.volume_m3, Unit::cubicMetre, 3}, Amount{c.width_m, Unit::none, 6}, Amount{c.length_m, Unit::metre, 6},
                  Amount{size.height_m, Unit::metre, 2}},
          Message{"store.thickness-at-least", Amount{0.15, Unit::metre}});
    if (c.place != PilePlace::hotBed) continue;
    beds_m2 += size.foot_m2;
    if (beds_m2 > most_m2)
      bad("/length_m", Message{"store.hot-beds", Amount{beds_m2, Unit::squareMetre, 3}},
          Message{covered_m2 > 0.0 ? "store.floor-beside-covers-at-most" : "store.floor-at-most", Amount{std::max(most_m2, 0.0), Unit::squareMetre, 3}});
    if (size.height_m + c.soil_m > shape.ridge_m + shape.sunk_m)
      bad("/soil_m", Message{"store.pile-soil-stand-high", Amount{size.height_m + c.soil_m, Unit::metre, 3}},
          Message{"store.below-the-ridge", Amount{shape.ridge_m + shape.sunk_m, Unit::metre, 3}});
  }
}

void checkMass(const Plan& plan, Problems& problems) {
  double ground_m2 = 0.0;
  for (std::size_t i = 0; i < plan.mass.size(); ++i) {
    const MassBlock& m = plan.mass[i];
    const double takes_m2 = m.kind == MassKind::wall ? m.area_m2 * m.thickness_m / plan.house.shape.ridge_m : m.area_m2;
    ground_m2 += takes_m2;
    if (ground_m2 > kMostOfFloor * plan.house.shape.floor_m2())
      problems.push_back({ProblemKind::badInput, fmt::format("/mass/{}/area_m2", i),
                          Message{"store.walls-paths-raised-beds", Amount{ground_m2, Unit::squareMetre, 3}},
                          Message{"store.floor-at-most", Amount{kMostOfFloor * plan.house.shape.floor_m2(), Unit::squareMetre, 3}}});
    if (m.kind != MassKind::wall && m.width_m > plan.house.shape.span_m())
      problems.push_back({ProblemKind::badInput, fmt::format("/mass/{}/width_m", i), Message{"store.width", Amount{m.width_m, Unit::metre, 6}},
                          Message{"store.width-at-most", Amount{plan.house.shape.span_m(), Unit::metre, 3}}});
    if (m.kind == MassKind::wall && m.area_m2 > 2.0 * plan.house.shape.ridge_m * plan.house.shape.length_m)
      problems.push_back({ProblemKind::badInput, fmt::format("/mass/{}/area_m2", i), Message{"store.wall", Amount{m.area_m2, Unit::squareMetre, 6}},
                          Message{"store.wall-at-most", Amount{2.0 * plan.house.shape.ridge_m * plan.house.shape.length_m, Unit::squareMetre, 3}}});
  }
}

void checkLoops(const Plan& plan, Problems& problems) {
  for (std::size_t i = 0; i < plan.waterLoops.size(); ++i) {
    const WaterLoop& w = plan.waterLoops[i];
    const auto where = fmt::format("/water_loops/{}", i);
    checkRule(w.rule, where, problems);
    const auto fits = [&](const char* field, const char* code, double litres) {
      if (litres / 1000.0 > 0.25 * plan.house.shape.volume_m3())
        problems.push_back({ProblemKind::badInput, where + field, Message{code, Amount{litres, Unit::litre, 6}},
                            Message{"store.tank-at-most", Amount{250.0 * plan.house.shape.volume_m3(), Unit::litre, 3}}});
    };
    fits("/litres", "store.tank-of", w.litres);
    fits("/radiator_l", "store.drums-of", w.radiator_l);
  }
}

void checkCables(const Plan& plan, Problems& problems) {
  for (std::size_t i = 0; i < plan.soilCables.size(); ++i) {
    const SoilCable& c = plan.soilCables[i];
    const auto where = fmt::format("/soil_cables/{}", i);
    const auto bad = [&](const char* field, Message what, Message allowed) {
      problems.push_back({ProblemKind::badInput, where + field, std::move(what), std::move(allowed)});
    };
    if (c.bed >= static_cast<int>(plan.house.bedCovers.size())) {
      bad("/bed", Message{"store.cable-lies-under-bed", c.bed + 1, plan.house.bedCovers.size()}, Message{"store.cover-bed-first"});
      continue;
    }
    if (c.off_C && *c.off_C < c.setpoint_C + kLeastCableBand_K)
      bad("/off_C", Message{"store.cable-off-at", Amount{*c.off_C, Unit::celsius}, Amount{c.setpoint_C, Unit::celsius}},
          Message{"store.cable-off-above", Amount{kLeastCableBand_K, Unit::kelvin}});
    const double bed_m2 = plan.house.bedCovers[static_cast<std::size_t>(c.bed)].bed_m2();
    const double power_W_m2 = c.watts_per_m * c.length_m / bed_m2;
    if (power_W_m2 > kMostCable_W_m2)
      bad("/length_m", Message{"store.cable-on-bed", Amount{power_W_m2, Unit::watt, 3}},
          Message{"store.cable-at-most", Amount{kMostCable_W_m2, Unit::none, 6}, Amount{kMostCable_W_m2 * bed_m2 / c.watts_per_m, Unit::metre, 3}});
    if (bed_m2 / c.length_m < kLeastBetweenCables_m)
      bad("/length_m", Message{"store.passes-apart", Amount{bed_m2 / c.length_m, Unit::metre, 2}},
          Message{"store.passes-at-least", Amount{kLeastBetweenCables_m, Unit::metre, 6}});
  }
}

} // namespace

void checkStores(const Plan& plan, Problems& problems) {
  const auto atMost = [&](const char* where, std::size_t count, std::size_t most) {
    if (count > most) problems.push_back({ProblemKind::badInput, where, Message{"json.entries", count}, Message{"json.at-most", most}});
  };
  atMost("/barrels", plan.barrels.size(), kMostBarrelRows);
  atMost("/ground_pipes", plan.groundPipes.size(), kMostPipes);
  atMost("/compost", plan.compost.size(), kMostPiles);
  atMost("/water_loops", plan.waterLoops.size(), kMostLoops);
  atMost("/soil_cables", plan.soilCables.size(), kMostCables);
  atMost("/mass", plan.mass.size(), kMostMasses);
  checkPipes(plan, problems);
  checkCompost(plan, problems);
  checkMass(plan, problems);
  checkLoops(plan, problems);
  checkCables(plan, problems);
}

} // namespace muffle
