// SPDX-License-Identifier: GPL-3.0-or-later
//
// write_corpus DIR: a folder for each fuzzer with what it begins from: whole, small and sound. The corpora are made, not kept.
#include "book/book.h"
#include "core/log/recipe.h"
#include "core/plan/plan_json.h"
#include "core/sizing/usual_measures.h"
#include "tests/support/logger_files.h"

#include <filesystem>
#include <fstream>

namespace fs = std::filesystem;
using namespace muffle;

int main(int argc, char** argv) {
  if (argc != 2) return 2;
  const fs::path base = argv[1];
  const auto seed = [&](const char* reader, const std::string& name, const std::string& text) {
    fs::create_directories(base / reader);
    std::ofstream(base / reader / name, std::ios::binary) << text;
  };
  constexpr std::size_t kHead = 700;
  for (const auto& file : loggerFiles()) seed("csv", file.name, file.text.substr(0, kHead));
  const char* byHand = "17.1.2031\n7:10 -4 / 2.5\n18/1 min -6 / 1.2 wet\n2031-01-19 6:00 pm 3,5/8\n17 Jan\nmax 4 / 19\n";
  seed("csv", "by hand", byHand);
  seed("hand", "sheet", byHand);
  Plan plan;
  seed("plan", "bare", planToJson(plan).dump());
  plan.heaters = {{.id = "heater"}};
  plan.measures = measuresToSearch(plan, 5000.0);
  plan.house.bay.emplace();
  plan.house.bedCovers.emplace_back();
  plan.house.roofVoid.emplace();
  plan.barrels.emplace_back();
  plan.groundPipes.emplace_back();
  plan.compost.emplace_back().recipe.emplace_back();
  plan.waterLoops.emplace_back();
  plan.soilCables.emplace_back();
  plan.mass.emplace_back();
  seed("plan", "full", planToJson(plan).dump());
  seed("network", "box", R"({"schema":"muffle-network-1","step_s":60,"end_s":600,"output_every_s":60,
"nodes":[{"id":"air","capacity_J_K":5000,"initial_C":5},{"id":"out","boundary":{"sine":{"mean_C":0,"amplitude_K":5,"period_s":86400,"peak_s":0}}}],
"links":[{"from":"air","to":"out","conductance_W_K":10},{"from":"air","to":"out","natural":{"area_m2":1,"k":1.3,"exponent":0.33}}],
"sources":[{"node":"air","id":"sun","constant_W":50}],"thermostats":[{"id":"t","sensor":"air","heats":"air","power_W":500,"mode":"ideal","setpoint_C":4}],
"solids":[{"id":"wall","area_m2":2,"layers":[{"thickness_m":0.1,"conductivity_W_mK":1,"density_kg_m3":2000,"heat_J_kgK":900}],"a":"air","b":"out"}]})");
  seed("recipe", "yard",
       recipeToJson({"yard", ';', true, std::nullopt, false, Clockwork::winterTime, {{"A", Role::room, "house", Statistic::highest, "F", true}}}).dump());
  for (const char* text : {"5", "-4.2 C", "36F", "12 kBTU/h", "3 gph", "5 +- 0.2 m", "7 1/2 in", "1e3 W", "2,5 l/min"})
    seed("quantity", std::to_string(std::hash<std::string>{}(text)), text);
  for (const char* text : {"-4.2", "2031-01-17T06:10:00+01:00 41 F", R"({"time":1926393000,"outside [C]":-4.5,"house [C]":3,"ok":true})"})
    seed("message", std::to_string(std::hash<std::string>{}(text)), text);
  const fs::path path = base / "book" / "small.muffle";
  fs::create_directories(path.parent_path());
  fs::remove(path);
  auto book = Book::open(path.string(), Book::Mode::create);
  if (!book || !book->addPlan(plan)) return 3;
  Log log;
  log.name = "log";
  Channel c;
  c.name = "out";
  c.role = Role::outside;
  for (int i = 0; i < 20; ++i) log.time.push_back(1'900'000'000 + 600 * i), c.raw.push_back(1.0F);
  c.flag.assign(c.raw.size(), 0);
  log.channels = {c};
  return book->addLog(log) && book->addSnapshot("before", 5, plan) ? 0 : 3;
}
