// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/site/gazetteer.h"

#include "core/calendar.h"
#include "core/site/place_names.h"
#include "core/site/zones.h"
#include "tests/support/near.h"

#include <fstream>
#include <sstream>

namespace muffle {
namespace {

std::string fileText(const std::string& path) {
  std::ifstream file(path, std::ios::binary);
  EXPECT_TRUE(file) << path;
  std::ostringstream text;
  text << file.rdbuf();
  return text.str();
}

/// The table that ships.
const Gazetteer& world() {
  static const Gazetteer made = *Gazetteer::read(fileText(MUFFLE_SOURCE_DIR "/data/places.txt"), fileText(MUFFLE_SOURCE_DIR "/data/other-names.txt"));
  return made;
}

TEST(Gazetteer, NamesAreComparedWithoutAccentsCapitalsAndMarks) {
  const std::pair<const char*, const char*> alike[] = {{"Saint-Étienne", "st. etienne"},
                                                       {"Łódź", "LODZ"},
                                                       {"Tromsø", "tromso"},
                                                       {"Großröhrsdorf", "grossrohrsdorf"},
                                                       {"Olevs’k", "Olevsk"},
                                                       {"Ste-Foy", "sainte foy"},
                                                       {"L'Aquila", "laquila"},
                                                       {"Đà Nẵng", "da nang"},
                                                       {"Iğdır", "igdir"},
                                                       {"  Kōchi ", "kochi"}};
  for (const auto& [written, typed] : alike) EXPECT_EQ(foldedName(written), foldedName(typed)) << written;
  EXPECT_NE(foldedName("Bray"), foldedName("Brey"));
  EXPECT_EQ(foldedName("\xff\xfe"), "") << "not UTF-8";
}

TEST(Gazetteer, AVillageIsFoundByItsNameAndTheBiggestNamesakeComesFirst) {
  ASSERT_GT(world().towns().size(), 130'000U);
  const auto found = world().find("springfield", 50);
  ASSERT_GE(found.size(), 10U);
  for (std::size_t i = 1; i < found.size() && foldedName(found[i].name) == "springfield"; ++i)
    EXPECT_GE(found[i - 1].people_hundreds, found[i].people_hundreds);
  EXPECT_EQ(found[0].country, "United States");
  EXPECT_NE(found[0].region, found[1].region) << "namesakes are told apart by their region";
  const auto inOne = world().find("Springfield, Illinois", 5);
  ASSERT_EQ(inOne.size(), 1U);
  EXPECT_CLOSE(inOne[0].at.latitude_deg, 39.802, 1e-9, "as the table has it");
  EXPECT_EQ(world().find("springfield, au", 5).at(0).country, "Australia");
  EXPECT_EQ(world().find("el tarter", 3).at(0).countryCode, "AD") << "a village of a thousand people";
  EXPECT_TRUE(world().find("Qqqqq", 5).empty());
  EXPECT_TRUE(world().find("  ,  ", 5).empty());
}

TEST(Gazetteer, ABigPlaceIsFoundByWhatItsPeopleCallIt) {
  for (const auto& [typed, name] : std::map<std::string, std::string>{
           {"munchen", "Munich"}, {"Wien", "Vienna"}, {"Praha", "Prague"}, {"København", "Copenhagen"}, {"Galway", "Gaillimh"}, {"Москва", "Moscow"}})
    EXPECT_EQ(world().find(typed, 3).at(0).name, name) << typed;
}

TEST(Gazetteer, EveryOtherNameHasItsPlace) {
  std::istringstream lines(fileText(MUFFLE_SOURCE_DIR "/data/other-names.txt"));
  for (std::string line; std::getline(lines, line);) {
    if (line.empty() || line[0] == ';') continue;
    const std::string code = line.substr(0, 2), name = line.substr(3, line.find('\t', 3) - 3), other = line.substr(line.find('\t', 3) + 1);
    const auto found = world().find(other + "," + code, 20);
    EXPECT_TRUE(std::any_of(found.begin(), found.end(), [&](const Town& t) { return t.name == name; })) << line;
  }
}

TEST(Gazetteer, EveryPlaceIsTheNearestToItself) {
  for (std::size_t i = 0; i < world().towns().size(); i += 9973) {
    const Town& town = world().towns()[i];
    EXPECT_CLOSE(distance_km(world().nearest(town.at)->at, town.at), 0.0, 1e-9, "two may share a spot") << town.name;
  }
  // across the date line a degree is a degree
  EXPECT_CLOSE(distance_km({0, 179.5}, {0, -179.5}), 111.19, 0.02, "a degree of a sphere of 6371 km");
}

TEST(Gazetteer, AWrongLineIsNamed) {
  const auto read = Gazetteer::read("#XX\tLand\n@\nPlace\t3\t45000\t2000\nTorn\t3\t45", "");
  ASSERT_FALSE(read);
  EXPECT_EQ(read.problem().where, "line 4");
  EXPECT_FALSE(Gazetteer::read("#XX\tLand\n@\nFar\t3\t95000\t2000\n", ""));
}

TEST(Zones, APlaceGoesByTheNearestZoneOfItsOwnCountry) {
  const char* table =
      "# a table\nAA,BB\t+5000+00300\tLand/One\nBB\t+5000+01000\tLand/Two\tthe east\nCC\t-413030+1744600\tLand/South\nBB\t+5000+00800\tLand/Dot\tDot\n"
      "DD\t+5000+02000\tLand/Near\tNear - XY (a county)\nDD\t+5000+03000\tLand/Far\tFar - XY (most areas)\nDD\t+5000+02100\tLand/Other\tNear - ZZ (most "
      "areas)\n";
  const auto zone = [&](Coordinates at, const char* land, const char* region = "") {
    Town town;
    town.countryCode = land;
    town.regionCode = region;
    return zoneAt(at, town, table);
  };
  EXPECT_EQ(zone({50, 4}, "BB"), "Land/One");
  EXPECT_EQ(zone({50, 9.5}, "BB"), "Land/Two");
  EXPECT_EQ(zone({50, 9.9}, "AA"), "Land/One") << "a border is nearer than the own town";
  EXPECT_EQ(zone({-41, 174}, ""), "Land/South");
  EXPECT_EQ(zone({50, 9.5}, "EE"), "Land/Two") << "a land that has none goes by the nearest";
  EXPECT_EQ(zone({50, 8.9}, "BB"), "Land/Two") << "a zone of one town reaches no farther than its fields";
  EXPECT_EQ(zone({50, 8.1}, "BB"), "Land/Dot");
  EXPECT_EQ(zone({50, 22}, "DD", "XY"), "Land/Far") << "most of the region goes by it";
  EXPECT_EQ(zone({50, 20.2}, "DD", "XY"), "Land/Near") << "but its county";
  EXPECT_EQ(zoneAt({50, 9}, {}, ""), "");
}

TEST(Zones, TheSystemsTableKnowsTheTownsOfManyLands) {
  std::ifstream file("/usr/share/zoneinfo/zone.tab");
  ASSERT_TRUE(file) << "tzdata is among what is installed";
  std::ostringstream text;
  text << file.rdbuf();
  const std::map<std::string, std::string> expected = {{"El Tarter", "Europe/Andorra"},
                                                       {"Munich", "Europe/Berlin"},
                                                       {"Ballarat", "Australia/Melbourne"},
                                                       {"Phoenix, Arizona", "America/Phoenix"},
                                                       {"Chicago", "America/Chicago"},
                                                       {"Invercargill", "Pacific/Auckland"},
                                                       {"Tromsø", "Europe/Oslo"},
                                                       {"Murmansk", "Europe/Moscow"},
                                                       {"Springfield, Illinois", "America/Chicago"},
                                                       {"Boise", "America/Boise"},
                                                       {"Louisville, Kentucky", "America/Kentucky/Louisville"},
                                                       {"Indianapolis", "America/Indiana/Indianapolis"},
                                                       {"Vigo", "Europe/Madrid"},
                                                       {"Las Palmas, Spain", "Atlantic/Canary"},
                                                       {"Porto, Portugal", "Europe/Lisbon"},
                                                       {"Perth, Australia", "Australia/Perth"},
                                                       {"Chengdu", "Asia/Shanghai"},
                                                       {"Grand Rapids, Michigan", "America/Detroit"},
                                                       {"Tucson", "America/Phoenix"},
                                                       {"Owensboro", "America/Chicago"},
                                                       {"Rio de Janeiro", "America/Sao_Paulo"},
                                                       {"Porto Alegre", "America/Sao_Paulo"},
                                                       {"Manaus", "America/Manaus"}};
  for (const auto& [name, zone] : expected) {
    const auto found = world().find(name, 1);
    ASSERT_FALSE(found.empty()) << name;
    const std::string got = zoneAt(found[0].at, found[0], text.str());
    for (const Date day : {Date{2025, 1, 15}, Date{2025, 7, 15}}) // a zone of the same clock is as good
      EXPECT_EQ(TimeZone::named(got)->offset_s(daysSinceEpoch(day) * 86'400), TimeZone::named(zone)->offset_s(daysSinceEpoch(day) * 86'400))
          << name << ": " << got;
  }
}

} // namespace
} // namespace muffle
