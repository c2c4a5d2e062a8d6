// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which box may include which. A new arrow is a change to this table.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <map>
#include <set>
#include <string>
#include <utility>
#include <vector>

namespace {

namespace fs = std::filesystem;

TEST(Architecture, IncludesPointOneWay) {
  const std::map<std::string, std::set<std::string>> allowed{
      {"core", {"core"}},
      {"words", {"words", "core"}},
      {"book", {"book", "words", "core"}},
      {"cli", {"cli", "book", "words", "core"}},
      {"app", {"app", "book", "words", "core"}},
      {"demo-data", {"demo-data", "words", "core"}},
  };
  for (const auto& [box, may] : allowed) {
    for (const auto& entry : fs::recursive_directory_iterator(std::string(MUFFLE_SOURCE_DIR) + "/" + box)) {
      const auto extension = entry.path().extension();
      if (extension != ".h" && extension != ".cpp") continue;
      std::ifstream file(entry.path());
      for (std::string line; std::getline(file, line);) {
        if (!line.starts_with("#include")) continue;
        if (line.starts_with("#include \"")) {
          const std::string target = line.substr(10, line.find('/') - 10);
          EXPECT_TRUE(may.contains(target)) << entry.path() << ": " << line;
        } else if (box == "core" || box == "book") {
          EXPECT_TRUE(line.find("<Q") == std::string::npos) << entry.path() << ": " << line;
        }
      }
    }
  }
}

/// Core's folders, each below those that may include it; what stands in none is for all.
TEST(Architecture, WithinCoreIncludesPointOneWay) {
  const std::vector<std::pair<std::string, std::set<std::string>>> allowed{
      {"air", {}},
      {"json", {}},
      {"sun", {}},
      {"statistics", {}},
      {"crop", {}},
      {"heater", {}},
      {"house", {"air", "sun"}},
      {"material", {"house"}},
      {"network", {"air", "json"}},
      {"ground", {"material"}},
      {"store", {"air", "network"}},
      {"log", {"json", "statistics", "sun"}},
      {"calc", {"log"}},
      {"site", {"log", "statistics"}},
      {"plan", {"crop", "heater", "house", "json", "material", "statistics", "store", "sun"}},
      {"weather", {"air", "log", "plan", "sun"}},
      {"control", {"weather"}},
      {"assemble", {"air", "control", "ground", "house", "material", "network", "plan", "store", "sun", "weather"}},
      {"run", {"assemble", "ground", "heater", "network", "store"}},
      {"results", {"air", "assemble", "crop", "plan", "run"}},
      {"cost", {"plan", "results"}},
      {"simulate", {"air", "assemble", "cost", "network", "plan", "results", "run", "weather"}},
      {"failure", {"assemble", "plan", "run", "simulate"}},
      {"fit", {"assemble", "log", "plan", "statistics", "simulate", "weather"}},
      {"sizing", {"assemble", "cost", "failure", "fit", "json", "network", "plan", "results", "simulate", "statistics", "store", "weather"}},
  };
  std::set<std::string> above;
  for (const auto& [folder, may] : allowed) {
    for (const std::string& other : may) EXPECT_TRUE(above.contains(other)) << folder << " includes " << other << ", which stands below it";
    above.insert(folder);
  }
  const fs::path core = std::string(MUFFLE_SOURCE_DIR) + "/core";
  for (const auto& entry : fs::recursive_directory_iterator(core)) {
    const auto extension = entry.path().extension();
    if ((extension != ".h" && extension != ".cpp") || entry.path().parent_path() == core) continue;
    const std::string folder = entry.path().parent_path().filename().string();
    const auto row = std::find_if(allowed.begin(), allowed.end(), [&](const auto& r) { return r.first == folder; });
    ASSERT_TRUE(row != allowed.end()) << folder << " has no row in the table";
    std::ifstream file(entry.path());
    for (std::string line; std::getline(file, line);) {
      if (!line.starts_with("#include \"core/")) continue;
      const std::string path = line.substr(15, line.find('"', 15) - 15);
      const std::string target = path.substr(0, path.find('/'));
      if (target == path || target == folder) continue;
      EXPECT_TRUE(row->second.contains(target)) << entry.path() << ": " << line;
    }
  }
}

TEST(Architecture, PaintKnowsNoWidgetsAndCoreNoFiles) {
  const auto scan = [](const std::string& box, std::initializer_list<const char*> banned) {
    for (const auto& entry : fs::recursive_directory_iterator(std::string(MUFFLE_SOURCE_DIR) + "/" + box)) {
      const auto extension = entry.path().extension();
      if (extension != ".h" && extension != ".cpp") continue;
      std::ifstream file(entry.path());
      for (std::string line; std::getline(file, line);)
        for (const char* word : banned) EXPECT_TRUE(line.find(word) == std::string::npos) << entry.path() << ": " << line;
    }
  };
  scan("app/paint", {"<QWidget>", "app/stages"});
  scan("app/model", {"<QWidget>", "app/stages", "app/paint"});
  scan("core", {"<fstream>", "<iostream>", "<filesystem>", "std::cout"});
}

} // namespace
