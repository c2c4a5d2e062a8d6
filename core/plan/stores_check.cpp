// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/stores_check.h"

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
constexpr double kMostMoisture = 0.85; // a blend wetter than this is a slurry

void checkRule(const StoreRule& rule, const std::string& where, Problems& problems) {
  if (rule.giveBelow_C > rule.chargeAbove_C - 2.0)
    problems.push_back({ProblemKind::badInput, where + "/rule/give_below_C",
                        fmt::format("it gives below {:g} and is charged above {:g}", rule.giveBelow_C, rule.chargeAbove_C),
                        "at least 2 K must lie between, or it would charge and give at once"});
}

void checkPipes(const Plan& plan, Problems& problems) {
  double under_m2 = 0.0;
  for (std::size_t i = 0; i < plan.groundPipes.size(); ++i) {
    const GroundPipes& p = plan.groundPipes[i];
    const auto where = fmt::format("/ground_pipes/{}", i);
    const auto bad = [&](const char* field, std::string what, std::string allowed) {
      problems.push_back({ProblemKind::badInput, where + field, std::move(what), std::move(allowed)});
    };
    checkRule(p.rule, where, problems);
    if (p.count > 1 && p.spacing_m < 1.5 * kWall * p.diameter_m)
      bad("/spacing_m", fmt::format("pipes {:g} m wide every {:g} m", p.diameter_m, p.spacing_m),
          fmt::format("soil must lie between them: at least {:.2g} m from axis to axis", 1.5 * kWall * p.diameter_m));
    if (p.depth_m < p.diameter_m)
      bad("/depth_m", fmt::format("a pipe {:g} m wide at {:g} m", p.diameter_m, p.depth_m),
          fmt::format("its top must be covered: at least {:g} m deep", p.diameter_m));
    if (p.serves == PipeOutlet::bay && !plan.house.bay)
      bad("/serves", "the pipes let their air into a warm bay and there is none", "let them serve the house, or partition a bay off");
    if (p.serves == PipeOutlet::bed && p.bed >= static_cast<int>(plan.house.bedCovers.size()))
      bad("/bed", fmt::format("the pipes serve bed cover {} of {}", p.bed + 1, plan.house.bedCovers.size()),
          "cover that bed first, or let them serve the house");
    if (p.place == PipePlace::underFloor) under_m2 += p.bed_m2();
    if (p.place == PipePlace::underFloor && under_m2 > kMostOfFloor * plan.house.shape.floor_m2())
      bad("/count", fmt::format("the pipe bed takes {:.3g} m2", under_m2),
          fmt::format("at most nine tenths of the floor, {:.3g} m2; lay fewer, shorter or closer pipes, or lay them beside the house",
                      kMostOfFloor * plan.house.shape.floor_m2()));
  }
}

void checkCompost(const Plan& plan, Problems& problems) {
  const HouseShape& shape = plan.house.shape;
  double beds_m2 = 0.0;
  for (std::size_t i = 0; i < plan.compost.size(); ++i) {
    const CompostPile& c = plan.compost[i];
    const auto where = fmt::format("/compost/{}", i);
    const auto bad = [&](std::string field, std::string what, std::string allowed) {
      problems.push_back({ProblemKind::badInput, where + field, std::move(what), std::move(allowed)});
    };
    if (!parseMonthDay(c.built)) bad("/built", fmt::format("\"{}\" is not a day of the year", c.built), "month and day are needed, such as 11-01");
    bool known = true;
    for (std::size_t k = 0; k < c.recipe.size(); ++k)
      if (!findIngredient(c.recipe[k].ingredient)) {
        known = false;
        bad(fmt::format("/recipe/{}/ingredient", k), fmt::format("\"{}\" is not a known ingredient", c.recipe[k].ingredient), "see `muffle-cli materials`");
      }
    if (!known) continue;
    const Blend blend = blendOf(c);
    if (blend.degradable_kg <= 0.0) {
      bad("/recipe", "there is nothing in the pile", "at least one ingredient with a mass above 0");
      continue;
    }
    if (blend.moisture > kMostMoisture)
      bad("/water_kg", fmt::format("the pile is {:.0f} % water", 100.0 * blend.moisture), "at most 85 %: what is wetter runs off; use something drier with it");
    constexpr double kWarmestHouse_C = 35.0; // beyond it the house would warm the pile
    if (c.place != PilePlace::hotBed && c.giveBelow_C > kWarmestHouse_C)
      bad("/give_below_C", fmt::format("the house is to be given heat until it has {:g}", c.giveBelow_C), "at most 35: the coil would be hotter than the pile");
    if (c.place == PilePlace::mound && c.coilInto == CoilInto::tank && c.tank >= static_cast<int>(plan.waterLoops.size()))
      bad("/tank", fmt::format("the coil goes to tank {} of {}", c.tank + 1, plan.waterLoops.size()),
          "add that water loop first, or let the coil warm the house");
    const PileSize size = pileSize(c, blend);
    constexpr double kTallest_m = 3.0, kFlattest_m = 0.15;
    if (size.height_m > kTallest_m)
      bad("/width_m", fmt::format("{:.3g} m3 on a foot of {:g} x {:g} m stand {:.3g} m high", blend.volume_m3, c.width_m, c.length_m, size.height_m),
          "at most 3 m can be built safely; give it a wider foot or less material");
    if (size.height_m < kFlattest_m)
      bad("/width_m", fmt::format("{:.3g} m3 on a foot of {:g} x {:g} m lie {:.2g} m thick", blend.volume_m3, c.width_m, c.length_m, size.height_m),
          "at least 0.15 m; give it a smaller foot or more material");
    if (c.place != PilePlace::hotBed) continue;
    beds_m2 += size.foot_m2;
    if (beds_m2 > kMostOfFloor * shape.floor_m2())
      bad("/length_m", fmt::format("hot beds of {:.3g} m2", beds_m2),
          fmt::format("at most nine tenths of the floor, {:.3g} m2", kMostOfFloor * shape.floor_m2()));
    if (size.height_m + c.soil_m > shape.ridge_m + shape.sunk_m)
      bad("/soil_m", fmt::format("pile and soil stand {:.3g} m high", size.height_m + c.soil_m),
          fmt::format("they must stay below the ridge, {:.3g} m above the floor", shape.ridge_m + shape.sunk_m));
  }
}

void checkMass(const Plan& plan, Problems& problems) {
  double ground_m2 = 0.0;
  for (std::size_t i = 0; i < plan.mass.size(); ++i) {
    const MassBlock& m = plan.mass[i];
    const double takes_m2 = m.kind == MassKind::wall ? m.area_m2 * m.thickness_m / plan.house.shape.ridge_m : m.area_m2;
    ground_m2 += takes_m2;
    if (ground_m2 > kMostOfFloor * plan.house.shape.floor_m2())
      problems.push_back({ProblemKind::badInput, fmt::format("/mass/{}/area_m2", i), fmt::format("walls, paths and raised beds on {:.3g} m2", ground_m2),
                          fmt::format("at most nine tenths of the floor, {:.3g} m2", kMostOfFloor * plan.house.shape.floor_m2())});
    if (m.kind != MassKind::wall && m.width_m > plan.house.shape.span_m())
      problems.push_back({ProblemKind::badInput, fmt::format("/mass/{}/width_m", i), fmt::format("a width of {:g} m", m.width_m),
                          fmt::format("at most {:.3g} m: it lies within the house", plan.house.shape.span_m())});
    if (m.kind == MassKind::wall && m.area_m2 > 2.0 * plan.house.shape.ridge_m * plan.house.shape.length_m)
      problems.push_back({ProblemKind::badInput, fmt::format("/mass/{}/area_m2", i), fmt::format("a wall of {:g} m2", m.area_m2),
                          fmt::format("at most {:.3g} m2 stand in the house", 2.0 * plan.house.shape.ridge_m * plan.house.shape.length_m)});
  }
}

void checkLoops(const Plan& plan, Problems& problems) {
  for (std::size_t i = 0; i < plan.waterLoops.size(); ++i) {
    const WaterLoop& w = plan.waterLoops[i];
    const auto where = fmt::format("/water_loops/{}", i);
    checkRule(w.rule, where, problems);
    const auto fits = [&](const char* field, const char* what, double litres) {
      if (litres / 1000.0 > 0.25 * plan.house.shape.volume_m3())
        problems.push_back({ProblemKind::badInput, where + field, fmt::format("{} {:g} litres", what, litres),
                            fmt::format("at most a quarter of the house, {:.3g} litres", 250.0 * plan.house.shape.volume_m3())});
    };
    fits("/litres", "a tank of", w.litres);
    fits("/radiator_l", "drums or a bench of", w.radiator_l);
  }
}

void checkCables(const Plan& plan, Problems& problems) {
  for (std::size_t i = 0; i < plan.soilCables.size(); ++i) {
    const SoilCable& c = plan.soilCables[i];
    const auto where = fmt::format("/soil_cables/{}", i);
    const auto bad = [&](const char* field, std::string what, std::string allowed) {
      problems.push_back({ProblemKind::badInput, where + field, std::move(what), std::move(allowed)});
    };
    if (c.bed >= static_cast<int>(plan.house.bedCovers.size())) {
      bad("/bed", fmt::format("the cable lies under bed cover {} of {}", c.bed + 1, plan.house.bedCovers.size()), "cover that bed first");
      continue;
    }
    const double bed_m2 = plan.house.bedCovers[static_cast<std::size_t>(c.bed)].bed_m2();
    const double power_W_m2 = c.watts_per_m * c.length_m / bed_m2;
    if (power_W_m2 > kMostCable_W_m2)
      bad("/length_m", fmt::format("{:.0f} W on each m2 of bed", power_W_m2),
          fmt::format("at most {:g}: roots beside it are cooked; {:.3g} m of it is the most here", kMostCable_W_m2, kMostCable_W_m2 * bed_m2 / c.watts_per_m));
    if (bed_m2 / c.length_m < kLeastBetweenCables_m)
      bad("/length_m", fmt::format("passes {:.2g} m apart", bed_m2 / c.length_m),
          fmt::format("at least {:g} m: passes must never touch", kLeastBetweenCables_m));
  }
}

} // namespace

void checkStores(const Plan& plan, Problems& problems) {
  checkPipes(plan, problems);
  checkCompost(plan, problems);
  checkMass(plan, problems);
  checkLoops(plan, problems);
  checkCables(plan, problems);
}

} // namespace muffle
