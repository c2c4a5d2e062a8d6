// SPDX-License-Identifier: GPL-3.0-or-later
//
// The command line as scripts use it: exit codes, messages, and that nothing is half-written.
#include "book/book.h"
#include "book/files.h"
#include "core/json/fields.h"
#include "tests/support/folder_test.h"

#include <gtest/gtest.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <filesystem>
#include <set>

namespace muffle {
namespace {

namespace fs = std::filesystem;

struct Outcome {
  int code;
  std::string out;
};

Outcome run(const std::string& arguments) {
  std::string out;
  FILE* pipe = ::popen((std::string(MUFFLE_CLI) + " " + arguments + " 2>&1").c_str(), "r");
  std::array<char, 4096> buffer{};
  while (std::size_t n = std::fread(buffer.data(), 1, buffer.size(), pipe)) out.append(buffer.data(), n);
  const int status = ::pclose(pipe);
  return {WEXITSTATUS(status), out};
}

const std::string kPlan = MUFFLE_DEMO_DIR "/plan.json";
const std::string kLog = MUFFLE_DEMO_DIR "/log.csv";

class Cli : public testing::FolderTest {
protected:
  std::string file(const char* name, const std::string& text) {
    const std::string p = (m_dir / name).string();
    EXPECT_TRUE(writeFile(p, text));
    return p;
  }
};

TEST_F(Cli, SimulatesStoresAndSaysWhatBecameOfEach) {
  Json plan = *parseJson(*readFile(kPlan));
  plan["ground_pipes"] = Json::parse(R"([{"count": 6, "length_m": 8}])");
  plan["compost"] = Json::parse(R"([{"recipe": [{"ingredient": "horse-manure", "wet_kg": 900}, {"ingredient": "straw", "wet_kg": 60}]}])");
  const std::string with = file("stores.json", plan.dump());
  const std::string series = (m_dir / "series.csv").string();
  const Outcome done = run("simulate " + with + " --log " + kLog + " --out " + series + " --json");
  ASSERT_EQ(done.code, 0) << done.out;
  const Json answer = *parseJson(done.out);
  EXPECT_GT(answer["stores"]["pipes:1"]["given_kWh"].get<double>(), 0.0);
  EXPECT_GT(answer["stores"]["pipes:1"]["electricity_kWh"].get<double>(), 0.0);
  EXPECT_GT(answer["stores"]["compost:1"]["made_kWh"].get<double>(), 100.0);
  EXPECT_EQ(answer["inputs"]["before the log"], "assumed");
  EXPECT_EQ(answer["warm_up_days"].size(), 2u); // of both winters
  const std::string text = *readFile(series);
  const std::string head = text.substr(0, text.find('\n'));
  EXPECT_NE(head.find("store:pipes1 outlet [C]"), std::string::npos) << head;
  EXPECT_NE(head.find("store:compost1 core [C]"), std::string::npos) << head;
  EXPECT_NE(head.find("gives pipes:1 [W],holds pipes:1 [kWh]"), std::string::npos) << head;
  const auto first = text.find('\n') + 1;
  const std::string row = text.substr(first, text.find('\n', first) - first);
  EXPECT_EQ(std::count(row.begin(), row.end(), ','), std::count(head.begin(), head.end(), ',')) << "no pile stands yet: its cells are empty";
  plan["compost"][0]["recipe"][0]["ingredient"] = "gold";
  const Outcome refused = run("check " + file("gold.json", plan.dump()));
  EXPECT_EQ(refused.code, 3);
  EXPECT_NE(refused.out.find("/compost/0/recipe/0/ingredient"), std::string::npos) << refused.out;
}

TEST_F(Cli, TellsWrongUsageFromBadInput) {
  EXPECT_EQ(run("").code, 2);
  EXPECT_EQ(run("dance").code, 2);
  EXPECT_EQ(run("loss " + kPlan).code, 2);
  EXPECT_EQ(run("loss " + kPlan + " --inside 900 --outside 0").code, 2);
  EXPECT_EQ(run("check missing.json").code, 3);
  EXPECT_EQ(run("check " + kPlan).code, 0);
}

TEST_F(Cli, NamesFilePointerAndWhatIsAllowed) {
  const std::string bad = file(
      "bad.json",
      R"({"schema":"muffle-plan-1","site":{"latitude_deg":45,"longitude_deg":3},"house":{"shape":{"kind":"arch","width_m":-2,"length_m":10,"ridge_m":3}}})");
  const Outcome r = run("check " + bad);
  EXPECT_EQ(r.code, 3);
  EXPECT_EQ(r.out, bad + ": /house/shape/width_m: width_m is -2, allowed is 0.3 to 60\n");
  const Outcome syntax = run("check " + file("broken.json", "{\n  \"schema\": \n}"));
  EXPECT_EQ(syntax.code, 3);
  EXPECT_NE(syntax.out.find(": line 3: not valid JSON"), std::string::npos);
}

TEST_F(Cli, SimulatesTheDemoAndItsJsonHoldsTheKeysScriptsRead) {
  const std::string out = (m_dir / "t.csv").string();
  const Outcome r = run("simulate " + kPlan + " --log " + kLog + " --out " + out + " --json");
  ASSERT_EQ(r.code, 0) << r.out.substr(0, 400);
  const auto json = parseJson(r.out);
  ASSERT_TRUE(json);
  for (const char* key : {"nights", "held", "coldest_C", "coldest_at", "degree_hours_K_h", "energy_kWh", "cost", "hours", "closure", "inputs", "rooms",
                          "growth", "swing", "work", "run_ms"})
    EXPECT_TRUE(json->contains(key)) << key;
  EXPECT_GT((*json)["growth"]["best_days_a_winter"].get<double>(), 1.0);
  EXPECT_LT((*json)["growth"]["best_days_a_winter"].get<double>(), 182.0);
  EXPECT_GE((*json)["swing"]["most_K"].get<double>(), (*json)["swing"]["mean_K"].get<double>());
  EXPECT_EQ((*json)["inputs"]["sun"], "estimated");
  EXPECT_EQ((*json)["inputs"]["wind"], "measured");
  EXPECT_LE((*json)["closure"].get<double>(), 1e-6);
  EXPECT_GT((*json)["nights"].get<int>(), 350);
  EXPECT_GT(fs::file_size(out), 1000000U);
}

TEST_F(Cli, SaysHowLongTheHouseHasWhenSomethingFails) {
  const std::string about = " " + kPlan + " --log " + kLog;
  const Outcome r = run("fail" + about + " --what mains --night 2024-01-10 --from 23:30 --for 5 --line 0,-3 --json");
  ASSERT_EQ(r.code, 0) << r.out.substr(0, 400);
  const auto json = parseJson(r.out);
  ASSERT_TRUE(json);
  EXPECT_EQ((*json)["from"].get<std::string>().substr(0, 16), "2024-01-10T23:30");
  ASSERT_EQ((*json)["lines"].size(), 3U) << "the plan's own and two";
  const auto minutes = [&](std::size_t line) { return (*json)["lines"][line]["minutes"].is_null() ? 1e9 : (*json)["lines"][line]["minutes"].get<double>(); };
  EXPECT_LE(minutes(0), minutes(1));
  EXPECT_LE(minutes(1), minutes(2));
  EXPECT_EQ((*json)["course"].size(), 31U) << "five hours by ten minutes";
  const Outcome worst = run("fail" + about + " --what heater:heater --worst --for 3 --json");
  ASSERT_EQ(worst.code, 0) << worst.out.substr(0, 400);
  EXPECT_GT((*parseJson(worst.out))["worst"]["moments_tried"].get<int>(), 1000);
  const Outcome unknown = run("fail" + about + " --what heater:stove");
  EXPECT_EQ(unknown.code, 3);
  EXPECT_NE(unknown.out.find("heater:heater"), std::string::npos) << unknown.out;
  EXPECT_EQ(run("fail" + about + " --what mains --from 25:00").code, 3);
  EXPECT_EQ(run("fail" + about + " --what mains --night 1999-01-01").code, 3);
  EXPECT_EQ(run("fail" + about + " --what mains --for 0").code, 3);
  EXPECT_EQ(run("fail" + about + " --what mains --worst --night 2024-01-10").code, 2) << "one or the other";
}

TEST_F(Cli, SaysHowDampItWasAndWritesHumidityAndLeaves) {
  const std::string series = (m_dir / "series.csv").string();
  const Outcome o = run("simulate " + kPlan + " --log " + kLog + " --json --out " + series);
  ASSERT_EQ(o.code, 0) << o.out;
  const Json answer = *parseJson(o.out);
  const Json& damp = answer.at("rooms").at("house").at("damp");
  EXPECT_GT(damp.at("hours_above_90").get<double>(), 0.0);
  EXPECT_LE(damp.at("hours_above_90").get<double>(), 182.0 * 24.0);
  EXPECT_GT(damp.at("longest_hours").get<double>(), 0.0);
  EXPECT_TRUE(answer.at("night_list").at(0).contains("leaf_wet_hours"));
  EXPECT_EQ(answer.at("inputs").at("humidity"), "estimated");
  const std::string table = *readFile(series);
  const std::string head = table.substr(0, table.find('\n'));
  EXPECT_NE(head.find("humidity:house [%],leaf [C]"), std::string::npos) << head;
  const auto columns = [](const std::string& line) { return std::count(line.begin(), line.end(), ','); };
  const std::size_t second = head.size() + 1;
  EXPECT_EQ(columns(table.substr(second, table.find('\n', second) - second)), columns(head));
}

TEST_F(Cli, DescribesTheDemoLogsNightsAndItsFaults) {
  const Outcome r = run("nights " + kLog + " --zone Europe/Paris --latitude 45.2 --longitude 3.1 --json");
  ASSERT_EQ(r.code, 0);
  const auto json = *parseJson(r.out);
  std::set<std::string> kinds;
  for (const Json& p : json["problems"]) kinds.insert(p["kind"].get<std::string>());
  EXPECT_EQ(kinds, (std::set<std::string>{"gap", "stuck", "sun on the sensor", "unit"}));
  EXPECT_GT(json["nights"].size(), 360U);
  for (const char* key : {"date", "outside_low_C", "outside_low_at", "inside_low_C", "inside_low_at", "lift_K", "sky"})
    EXPECT_TRUE(json["nights"][0].contains(key)) << key;
}

TEST_F(Cli, ReadsAnyRubbishWithoutCrashingAndWritesNothing) {
  std::string binary(5000, '\0');
  for (std::size_t i = 0; i < binary.size(); ++i) binary[i] = static_cast<char>(i * 7919 >> 3);
  const std::string out = (m_dir / "never.csv").string();
  const std::string demo = *readFile(kLog);
  for (const std::string& text : {std::string(), binary, demo.substr(0, 70), std::string("a\"b\"c,,,\n\"\"\"\n"), std::string(100000, ',')}) {
    const std::string f = file("rubbish.csv", text);
    const Outcome r = run("simulate " + kPlan + " --log " + f + " --out " + out);
    EXPECT_EQ(r.code, 3) << text.substr(0, 40);
    EXPECT_NE(r.out.find(f), std::string::npos) << r.out;
    EXPECT_FALSE(fs::exists(out));
    EXPECT_EQ(run("check " + f).code, 3);
    EXPECT_EQ(run("network " + f).code, 3);
  }
  // half a log is a shorter log
  EXPECT_EQ(run("simulate " + kPlan + " --log " + file("half.csv", demo.substr(0, demo.size() / 2))).code, 0);
}

TEST_F(Cli, WhatIsNoNumberIsRefusedAndAnAnswerThatDoesNotGetOutEndsWithAnError) {
  for (const char* wrong : {"loss PLAN --inside nan --outside -5", "loss PLAN --inside 5 --outside inf", "loss PLAN --inside 5 --outside 1e308F",
                            "loss PLAN --inside 5 --outside -5 --wind nan", "nights LOG --latitude nan", "nights LOG --line nan", "calc heat_loss area=nan"}) {
    std::string arguments = wrong;
    if (const auto at = arguments.find("PLAN"); at != std::string::npos) arguments.replace(at, 4, kPlan);
    if (const auto at = arguments.find("LOG"); at != std::string::npos) arguments.replace(at, 3, kLog);
    EXPECT_NE(run(arguments).code, 0) << wrong;
  }
  EXPECT_NE(run("materials >/dev/full").code, 0) << "the disk is full";
  EXPECT_NE(run("materials >&-").code, 0) << "nobody listens";
  EXPECT_EQ(run("materials >/dev/null").code, 0);
}

TEST_F(Cli, DocumentsPastTheirBoundsAreRefusedAtOnce) {
  std::string manyKeys = "{";
  for (int i = 0; i < 200'000; ++i) manyKeys += (i ? ",\"k" : "\"k") + std::to_string(i) + "\":1";
  manyKeys += "}";
  const std::pair<std::string, const char*> hostile[] = {{std::string(500'000, '{'), "64"},
                                                         {std::string(500'000, '['), "64"},
                                                         {manyKeys, "2000"},
                                                         {"{\"a\":" + std::string(70, '[') + std::string(70, ']') + "}", "64"}};
  for (const auto& [text, bound] : hostile) {
    const std::string f = file("hostile.json", text);
    for (const char* verb : {"check ", "network "}) {
      const auto begin = std::chrono::steady_clock::now();
      const Outcome r = run(verb + f);
      EXPECT_EQ(r.code, 3) << verb << text.substr(0, 10);
      EXPECT_NE(r.out.find(bound), std::string::npos) << r.out.substr(0, 200);
      EXPECT_LT(std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count(), 5.0) << "linear, with room for a busy machine";
    }
  }
}

TEST_F(Cli, ExportsAndImportsABook) {
  const std::string book = (m_dir / "b.muffle").string();
  {
    auto b = Book::open(book, Book::Mode::create);
    Plan p;
    p.site.place = {45, 3, 0};
    ASSERT_TRUE(b->addPlan(p));
  }
  const std::string folder = (m_dir / "out").string();
  EXPECT_EQ(run("export " + book + " " + folder).code, 0);
  EXPECT_EQ(run("export " + book + " " + folder).code, 3); // not empty any more
  EXPECT_EQ(run("import " + folder + " " + (m_dir / "c.muffle").string()).code, 0);
  EXPECT_EQ(run("import " + folder + " " + book).code, 3);
}

TEST_F(Cli, HeatLossPartsAddUp) {
  const auto json = *parseJson(run("loss " + kPlan + " --inside 3 --outside -11 --json").out);
  double sum = 0.0;
  for (const Json& p : json["parts"]) sum += p["W"].get<double>();
  EXPECT_NEAR(sum, json["total_W"].get<double>(), 0.5); // each part is printed to 0.1 W
}

TEST_F(Cli, FindsTheCheapestOfASmallListAndSaysWhyOthersLost) {
  auto plan = *parseJson(*readFile(kPlan));
  Json film = plan["measures"][0], heater = plan["measures"][4];
  heater["levels"] = {5000};
  plan["measures"] = Json::array({film, heater});
  const std::string demo = *readFile(kLog);
  std::size_t end = 0; // a month of the log is enough to compare four plans
  for (int line = 0; line < 4400 && end != std::string::npos; ++line) end = demo.find('\n', end + 1);
  const std::string log = file("month.csv", demo.substr(0, end + 1));
  const Outcome r = run("size " + file("small.json", plan.dump()) + " --log " + log + " --json");
  ASSERT_EQ(r.code, 0) << r.out.substr(0, 400);
  const auto json = *parseJson(r.out);
  for (const char* key : {"plan", "cost", "proved_least", "gap", "frontier", "why_not", "packages", "run_ms"}) EXPECT_TRUE(json.contains(key)) << key;
  EXPECT_EQ(json["packages"], 4);
  EXPECT_EQ(json["proved_least"], true) << "every combination was run";
  EXPECT_FALSE(json["frontier"].empty());
  EXPECT_EQ(json["why_not"].size(), 3U);
}

TEST_F(Cli, RefusesToRunMoreThanAnyoneCouldWaitFor) {
  auto plan = *parseJson(*readFile(kPlan));
  Json barrels = plan["measures"][3];
  barrels["levels"] = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12};
  plan["measures"] = Json::array({barrels, barrels, barrels, barrels, barrels});
  const Outcome r = run("size " + file("huge.json", plan.dump()) + " --log " + kLog + " --exhaustive --json");
  EXPECT_EQ(r.code, 3);
  EXPECT_NE(r.out.find("371293"), std::string::npos) << r.out;
  EXPECT_NE(r.out.find("100000"), std::string::npos) << r.out;
  EXPECT_NE(run("size " + kPlan + " --log " + kLog + " --time 0").code, 0) << "a search needs some time";
}

TEST_F(Cli, ALongListIsDecidedWithoutRunningMostOfItAndEachThingIsArguedFor) {
  auto plan = *parseJson(*readFile(kPlan));
  plan["measures"][3]["levels"] = {5, 10, 20, 30};
  plan["measures"][4]["levels"] = {2000, 3000, 5000, 7000, 9000};
  plan["measures"].push_back(Json{{"kind", "skirt"}, {"levels", {0.3, 0.6}}, {"price", 9.0}, {"life_years", 25.0}});
  const std::string demo = *readFile(kLog);
  std::size_t end = 0;
  for (int line = 0; line < 4400 && end != std::string::npos; ++line) end = demo.find('\n', end + 1);
  const std::string log = file("month.csv", demo.substr(0, end + 1));
  const Outcome r = run("size " + file("long.json", plan.dump()) + " --log " + log + " --json");
  ASSERT_EQ(r.code, 0) << r.out.substr(0, 400);
  const auto json = *parseJson(r.out);
  EXPECT_EQ(json["covered"], 2 * 2 * 2 * 5 * 6 * 3);
  EXPECT_LT(json["runs"].get<int>(), 360);
  EXPECT_EQ(json["proved_least"], true);
  EXPECT_EQ(json["gap"], 0.0);
  EXPECT_EQ(json["measures"].size(), plan["measures"].size()) << "each thing on the list is argued for or against";
  for (const Json& m : json["measures"])
    if (m["otherwise_holds"] == true) { EXPECT_GE(m["otherwise_costs_more"].get<double>(), 0.0) << m.dump(); }
  EXPECT_EQ(json["sensitivity"]["colder"].size(), 3U);
  EXPECT_TRUE(json["sensitivity"]["stays_cheapest"].is_null()) << "no price has a range";
  for (const Json& price : json["sensitivity"]["prices"])
    if (price.contains("above")) { EXPECT_GE(price["above"]["times"].get<double>(), 1.0) << price.dump(); }
  double spent = -1.0;
  int missed = 1000;
  for (const Json& step : json["staircase"]) { // what each further sum buys
    EXPECT_GT(step["spend"].get<double>(), spent);
    EXPECT_LE(step["nights"].get<int>() - step["held"].get<int>(), missed);
    spent = step["spend"].get<double>();
    missed = step["nights"].get<int>() - step["held"].get<int>();
  }
  EXPECT_GE(json["staircase"].size(), 2U);
}

TEST_F(Cli, WhatCountsAsHoldingAndLimitsAreAskedOnTheCommandLine) {
  const std::string demo = *readFile(kLog);
  std::size_t end = 0;
  for (int line = 0; line < 2200 && end != std::string::npos; ++line) end = demo.find('\n', end + 1);
  const std::string log = file("fortnight.csv", demo.substr(0, end + 1));
  const auto asked = [&](const std::string& how) { return run("size " + kPlan + " --log " + log + " " + how + " --json"); };
  const Outcome bare = asked(""), poor = asked("--limit spend:0,supply:0.1"), resilient = asked("--holds all,any-heater-out");
  ASSERT_EQ(bare.code, 0) << bare.out.substr(0, 300);
  ASSERT_EQ(poor.code, 0);
  ASSERT_EQ(resilient.code, 0);
  const Json none = *parseJson(poor.out);
  for (const Json& line : none["frontier"])
    if (line["holds"] == true) { EXPECT_LE(line["electric_W"].get<double>(), 100.0); }
  const Json free = *parseJson(bare.out), tried = *parseJson(resilient.out);
  if (!tried["plan"].is_null()) {
    EXPECT_EQ(tried["plan"]["withstands"], true);
    EXPECT_GE(tried["cost"]["total"].get<double>(), free["cost"]["total"].get<double>() - 0.01) << "asking more never costs less";
  } else {
    EXPECT_FALSE(tried["loosen"].empty());
  }
  const Outcome wrong = asked("--holds most-nights"), rare = asked("--holds all,return:20"), cut = asked("--limit spend:much");
  EXPECT_EQ(wrong.code, 3);
  EXPECT_NE(wrong.out.find("all-but:N"), std::string::npos) << wrong.out;
  EXPECT_EQ(rare.code, 3) << "the demo knows no annual lows";
  EXPECT_NE(rare.out.find("lows of three winters"), std::string::npos) << rare.out;
  EXPECT_EQ(cut.code, 3);
}

TEST_F(Cli, RunsANetworkAndWritesItsTableWhole) {
  const std::string net = file("net.json", R"({"schema":"muffle-network-1","step_s":600,"end_s":7200,"output_every_s":3600,
    "nodes":[{"id":"air","capacity_J_K":360000,"initial_C":10},{"id":"out","boundary":{"constant_C":0}}],
    "links":[{"from":"air","to":"out","conductance_W_K":100}]})");
  const std::string out = (m_dir / "t.csv").string();
  const Outcome r = run("network " + net + " --out " + out + " --json");
  ASSERT_EQ(r.code, 0) << r.out;
  const std::string table = *readFile(out);
  EXPECT_EQ(table.substr(0, table.find('\n')), "t_s,air,out");
  EXPECT_EQ(std::count(table.begin(), table.end(), '\n'), 4) << "heading, start and two hours";
  const auto last = table.rfind("7200,");
  ASSERT_NE(last, std::string::npos);
  // tau = 3600 s: 10 e^-2; ten-minute steps of a second-order rule leave (1/6)^2/12 of it
  EXPECT_NEAR(std::stod(table.substr(last + 5)), 10.0 * std::exp(-2.0), 0.01);
  EXPECT_EQ(run("network " + net + " --out /nowhere/at/all/t.csv").code, 3);
}

TEST_F(Cli, TellsDesignNightsAndGrowingWarmth) {
  const Outcome r =
      run("nights " + kLog + " --zone Europe/Paris --latitude 45.2 --longitude 3.1 --base 5 --annual-lows -11.2,-19.1,-11.8,-17.8,-16.8,-18.1,-13.9 --json");
  ASSERT_EQ(r.code, 0);
  const Json json = *parseJson(r.out);
  const Json& design = json["design"];
  EXPECT_LE(design["coldest_C"].get<double>(), design["one_in_hundred_C"].get<double>());
  ASSERT_EQ(design["return"].size(), 3U);
  EXPECT_GT(design["return"][0]["low_C"].get<double>(), design["return"][2]["low_C"].get<double>()) << "rarer is colder";
  EXPECT_LT(design["return"][2]["from_C"].get<double>(), design["return"][2]["low_C"].get<double>());
  const Json& house = json["growing"]["rooms"].begin().value();
  EXPECT_GT(house["degree_hours_K_h"].get<double>(), 0.0);
  EXPECT_GT(house["degree_days_K_d"].get<double>(), 0.0);
}

TEST_F(Cli, MeasuresAHouseAndWritesThePlanPutRight) {
  const std::string fitted = file("fitted.json", "");
  const Outcome r = run("fit " + kPlan + " " + kLog + " --out " + fitted + " --json");
  ASSERT_EQ(r.code, 0);
  const Json json = *parseJson(r.out);
  for (const char* key : {"quick", "full", "held_out_rms_K", "explains"}) EXPECT_TRUE(json.contains(key)) << key;
  EXPECT_GT(json["quick"]["UA_W_per_K"].get<double>(), 0.0);
  EXPECT_GT(json["quick"]["standard_error"].get<double>(), 0.0);
  for (const char* factor : {"skin", "draughts", "mass", "ground", "sun"}) EXPECT_GT(json["full"][factor]["standard_error"].get<double>(), 0.0) << factor;
  EXPECT_LE(json["held_out_rms_K"].get<double>(), 1.0);
  EXPECT_LT(json["held_out_rms_K"].get<double>(), json["held_out_rms_before_K"].get<double>());
  EXPECT_EQ(run("check " + fitted).code, 0);
  const Json plan = *parseJson(*readFile(fitted));
  EXPECT_NEAR(plan["calibration"]["skin"].get<double>(), json["full"]["skin"]["value"].get<double>(), 1e-3);
  // and how far the readings leave it open goes on to the search
  const std::string demo = *readFile(kLog);
  std::size_t end = 0;
  for (int line = 0; line < 4400 && end != std::string::npos; ++line) end = demo.find('\n', end + 1);
  const Outcome sized = run("size " + fitted + " --log " + file("month.csv", demo.substr(0, end + 1)) + " --json");
  ASSERT_EQ(sized.code, 0) << sized.out.substr(0, 400);
  const Json likely = (*parseJson(sized.out))["sensitivity"]["likely"];
  ASSERT_EQ(likely.size(), 10U);
  for (const Json& house : likely)
    for (const char* factor : {"skin", "draughts", "mass", "ground", "sun"}) EXPECT_GT(house["factors"][factor].get<double>(), 0.0) << house.dump();
}

TEST_F(Cli, ListsItsMaterialsAndItsSchema) {
  const Outcome materials = run("materials");
  EXPECT_EQ(materials.code, 0);
  EXPECT_NE(materials.out.find("pe-film"), std::string::npos);
  const Outcome schema = run("schema");
  EXPECT_EQ(schema.code, 0);
  EXPECT_TRUE(parseJson(schema.out));
  const Outcome tables = run("schema --tables");
  EXPECT_EQ(tables.out, *readFile(MUFFLE_SOURCE_DIR "/docs/plan-format.md")) << "run: muffle-cli schema --tables > docs/plan-format.md";
}

} // namespace
} // namespace muffle
