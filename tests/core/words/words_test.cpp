// SPDX-License-Identifier: GPL-3.0-or-later
//
// Core and book answer in codes; every code has words, every word its code, and no sentence stands where a code should.
#include "words/words.h"

#include "core/calc/aids.h"
#include "core/crop/crops.h"
#include "core/house/infiltration.h"
#include "core/json/message_text.h"
#include "core/plan/cautions.h"
#include "core/plan/measure_table.h"
#include "core/plan/names.h"
#include "core/plan/usual_covers.h"
#include "core/store/ingredients.h"

#include <cmath>
#include <filesystem>
#include <fstream>
#include <regex>
#include <set>
#include <sstream>

#include <gtest/gtest.h>

namespace muffle {
namespace {

namespace fs = std::filesystem;

std::string read(const fs::path& path) {
  std::ifstream file(path);
  std::stringstream all;
  all << file.rdbuf();
  return all.str();
}

/// Sources of a box, by path.
std::map<std::string, std::string> sourcesOf(std::initializer_list<const char*> boxes) {
  std::map<std::string, std::string> sources;
  for (const char* box : boxes)
    for (const auto& entry : fs::recursive_directory_iterator(std::string(MUFFLE_SOURCE_DIR) + "/" + box)) {
      const auto extension = entry.path().extension();
      if (extension == ".h" || extension == ".cpp") sources[entry.path().lexically_relative(MUFFLE_SOURCE_DIR).string()] = read(entry.path());
    }
  return sources;
}

std::set<std::string> allCodes() {
  std::set<std::string> codes;
  for (const auto& table : wordTables())
    for (const WordsOf& row : table) EXPECT_TRUE(codes.insert(row.code).second) << row.code << " stands twice";
  return codes;
}

std::size_t placesIn(std::string_view words) {
  std::size_t n = 0;
  for (std::size_t at = words.find("{}"); at != std::string_view::npos; at = words.find("{}", at + 2)) ++n;
  return n;
}

/// Arguments behind the code of a Message{"code", ...} that starts at the brace; nothing where they are not plain to see.
std::size_t argumentsAt(const std::string& source, std::size_t brace) {
  int depth = 0;
  std::size_t n = 0;
  bool quoted = false;
  for (std::size_t i = brace; i < source.size(); ++i) {
    const char c = source[i];
    if (quoted) {
      if (c == '\\')
        ++i;
      else if (c == '"')
        quoted = false;
      continue;
    }
    if (c == '"') quoted = true;
    if (c == '{' || c == '(' || c == '[') ++depth;
    if (c == '}' || c == ')' || c == ']')
      if (--depth == 0) return n;
    if (c == ',' && depth == 1) ++n;
  }
  return n;
}

TEST(Words, EveryCodeHasWordsWithAPlaceForEachOfItsArguments) {
  static const std::regex message(R"(Message\s*\w*[\{\(]\"([a-z]+\.[a-zA-Z0-9-]+)\")");
  const auto codes = allCodes();
  int seen = 0;
  for (const auto& [path, source] : sourcesOf({"core", "book", "cli", "app"})) {
    for (std::sregex_iterator it(source.begin(), source.end(), message), end; it != end; ++it) {
      const std::string code = (*it)[1];
      if (path == "core/message.h") continue; // its own example
      ASSERT_TRUE(codes.contains(code)) << path << ": " << code << " has no words";
      const auto brace = static_cast<std::size_t>(it->position()) + it->str().find_first_of("{(");
      EXPECT_EQ(placesIn(wordsOf(code)), argumentsAt(source, brace)) << path << ": " << code << ": \"" << wordsOf(code) << "\"";
      ++seen;
    }
  }
  EXPECT_GT(seen, 300);
}

TEST(Words, NoWordsStandThereThatNothingSays) {
  std::string all;
  for (const auto& [path, source] : sourcesOf({"core", "book", "cli", "app"})) all += source;
  std::set<std::string> ofTables; // whose codes are put together from an id
  for (const Aid& aid : aids()) {
    for (const Message& m : {whatOf(aid), formulaOf(aid), Message::of("aid", aid.name, "no-answer")}) ofTables.insert(m.code);
    for (const AidInput& i : aid.inputs) ofTables.insert(whatOf(aid, i.key).code);
    for (const AidOutput& o : aid.outputs) ofTables.insert(whatOf(aid, o.key).code);
  }
  for (const Caution& c : allCautions()) ofTables.insert(textOf(c).code);
  for (const CoverMaterial& m : coverMaterials()) ofTables.insert(nameOf(m).code);
  for (const SoilMaterial& m : soilMaterials()) ofTables.insert(nameOf(m).code);
  for (const FloorCover& m : floorCovers()) ofTables.insert(nameOf(m).code);
  for (const CompostIngredient& i : compostIngredients()) ofTables.insert(nameOf(i).code);
  for (const Draughtiness& d : draughtinesses()) ofTables.insert(nameOf(d).code);
  for (const UsualCover& c : usualCovers()) ofTables.insert(nameOf(c).code);
  for (const HeaterKindFacts& k : heaterKinds()) ofTables.insert(nameOf(k.kind).code);
  for (const CropFacts& c : cropTable()) ofTables.insert(nameOf(c).code);
  for (const MeasureRow& m : measureTable()) ofTables.insert(Message::of("measure", m.id).code);
  for (const char* table : {"plan", "log", "channel", "setting", "snapshot", "recipe"}) ofTables.insert(std::string("book.") + table);
  for (const std::string& code : allCodes())
    EXPECT_TRUE(ofTables.contains(code) || all.find('"' + code + '"') != std::string::npos) << code << " is said nowhere";
  for (const std::string& code : ofTables) EXPECT_TRUE(code.ends_with(".no-answer") || !wordsOf(code).empty()) << code << " has no words";
}

TEST(Words, AnAmountIsSaidWithItsUnitAndAsManyDigitsAsItIsToHave) {
  EXPECT_EQ(englishAmount({0.3, Unit::metre}), "0.3 m");
  EXPECT_EQ(englishAmount({12.3456, Unit::kilogram, 3}), "12.3 kg");
  EXPECT_EQ(englishAmount({123456.7, Unit::watt, 3}), "123 kW");
  EXPECT_EQ(englishAmount({123456.7, Unit::none, 3}), "123457") << "not in powers of ten";
  EXPECT_EQ(englishAmount({0.00012, Unit::none, 3}), "0.00012");
  EXPECT_EQ(englishAmount({-0.5, Unit::celsius}), "-0.5 \xC2\xB0"
                                                  "C");
}

TEST(Words, ASpeakerBringsItsOwnLanguageAndUnits) {
  const Message inner{"plan.bay-length", Amount{4.0, Unit::metre}};
  const Speaker speaker{.words = [](std::string_view english) { return "<" + std::string(english) + ">"; },
                        .amount = [](const Amount& a) { return std::to_string(std::lround(a.value / 0.3048)) + " ft"; }};
  EXPECT_EQ(say(inner, speaker), "<the bay is 13 ft long>");
  EXPECT_EQ(say(Message{"measure.so-many", 20, std::string("tubs")}, {.words = [](std::string_view) { return std::string("{1}: {0}"); }}), "tubs: 20")
      << "in another order";
  EXPECT_EQ(say(Message::verbatim("as SQLite has it"), speaker), "as SQLite has it");
  EXPECT_EQ(say(Message{}, speaker), "");
  EXPECT_EQ(say(Message::of("nowhere", "to-be-found")), "nowhere.to-be-found") << "seen, and so found";
}

TEST(Words, AMessageIsKeptAsTextAndReadBackAsItWas) {
  const Message whole{"log.column-taken-for",
                      "out \"1\"",
                      5,
                      Amount{-3.25, Unit::celsius, 3},
                      Message{"log.no-unit"},
                      std::vector<Message>{Message{"log.low"}, Message::verbatim("C")}};
  EXPECT_EQ(messageFromStored(storedText(whole)), whole);
  EXPECT_EQ(messageFromStored(storedText(Message{})), Message{});
  EXPECT_EQ(messageFromStored("said in the heading"), Message::verbatim("said in the heading")) << "an older book's";
  for (const char* torn : {"[\"", "[\"a\"", "[\"a\",{}]", "[\"a\",{\"value\":1,\"unit\":\"furlong\"}]", "[\"a\",null]", "[]", "[1]"})
    EXPECT_EQ(messageFromStored(torn), Message::verbatim(torn)) << torn;
}

/// What core says is said in words/. What may stand in core are names that a file format or a table has, and descriptions of its fields.
TEST(Words, NoSentencesStandInCore) {
  static const std::regex sentence(R"re("([^"\\]|\\.)*[a-z]{2,},? [a-z]{2,},? [a-z]{2,}([^"\\]|\\.)*")re");
  static const std::regex allowed(
      R"(^\s*v\.(number|text|boolean|choice|list|object|integer|numbers)|^\s*//|#include|sources.push_back|onFloor\(|"sun on |Flag::|kNames\[|"surface", |"k |R [0-9]|transmittance|ISO|ASAE|EN |Haug|extension|NRAES)");
  const std::set<std::string> tables{"core/plan/names.cpp",           "core/constants.h",           "core/crop/crops.cpp",
                                     "core/material/materials.cpp",   "core/store/ingredients.cpp", "core/heater/fuel.cpp",
                                     "core/house/infiltration.cpp",   "core/plan/plan_json.cpp",    "core/log/headings.cpp",
                                     "core/network/network_json.cpp", "core/log/recipe.cpp"};
  for (const auto& [path, source] : sourcesOf({"core"})) {
    if (tables.contains(path)) continue;
    std::istringstream lines(source);
    int number = 0;
    for (std::string line; std::getline(lines, line);) {
      ++number;
      const std::string code = line.substr(0, line.find("//"));
      if (std::regex_search(code, sentence) && !std::regex_search(code, allowed)) ADD_FAILURE() << path << ":" << number << ": " << line;
    }
  }
}

} // namespace
} // namespace muffle
