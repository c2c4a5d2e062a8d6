// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which box may include which. A new arrow is a change to this table.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <map>
#include <set>

namespace {

namespace fs = std::filesystem;

TEST(Architecture, IncludesPointOneWay) {
  const std::map<std::string, std::set<std::string>> allowed{
      {"core", {"core"}}, {"book", {"book", "core"}}, {"cli", {"cli", "book", "core"}}, {"app", {"app", "book", "core"}}, {"demo-data", {"demo-data", "core"}},
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
