// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/network/network_json.h"

#include "tests/support/near.h"
#include "words/words.h"

namespace muffle {
namespace {

Json sound() {
  return *parseJson(R"({"schema":"muffle-network-1","step_s":600,"end_s":7200,"output_every_s":3600,
    "nodes":[{"id":"air","capacity_J_K":250000,"initial_C":8},{"id":"film","capacity_J_K":0,"initial_C":5},
             {"id":"out","boundary":{"table":{"t_s":[0,7200],"C":[-2,-4]}}},{"id":"deep","boundary":{"constant_C":10}}],
    "links":[{"from":"air","to":"film","conductance_W_K":300},{"from":"film","to":"out","radiative_m2":80},
             {"from":"air","to":"film","natural":{"area_m2":62,"k":1.7,"exponent":0.3333333}}],
    "solids":[{"id":"floor","area_m2":60,"from":"air","h_from_W_m2K":6,"to":"deep","h_to_W_m2K":null,"initial_C":9,
               "layers":[{"thickness_m":0.1,"conductivity_W_mK":1.2,"density_kg_m3":1600,"heat_J_kgK":1100}]}],
    "sources":[{"node":"floor:0","half_sine":{"peak_W":4000,"from_s":0,"to_s":7200,"daily":true}}],
    "thermostats":[{"sensor":"air","heats":"air","mode":"ideal","setpoint_C":5,"power_W":3000}],
    "vents":[{"from":"air","to":"out","sensor":"air","opens_C":22,"full_C":28,"conductance_W_K":900}]})");
}

TEST(NetworkJson, RunsAndReportsEveryColumn) {
  const auto net = networkFromJson(sound());
  ASSERT_TRUE(net) << english(net.problem());
  const auto run = runNetwork(*net);
  ASSERT_TRUE(run);
  EXPECT_EQ(run->csv.substr(0, run->csv.find('\n')), "t_s,air,film,out,deep,floor:0,floor:1,thermostat0_W");
  EXPECT_EQ(std::count(run->csv.begin(), run->csv.end(), '\n'), 4); // heading, 0, 3600, 7200
  EXPECT_LE(run->summary["closure"].get<double>(), 1e-6);
  EXPECT_CLOSE(run->summary["sources_J"]["floor:0:0"].get<double>(), 4000.0 * 7200.0 * 2.0 / 3.14159265, 4000.0 * 7200.0 * 0.005,
               "the half-sine's mean, by three points a step of a twelfth");
}

TEST(NetworkJson, WritesWhatItReads) {
  const auto net = networkFromJson(sound());
  const auto again = networkFromJson(networkToJson(*net));
  ASSERT_TRUE(again) << english(again.problem());
  const auto a = runNetwork(*net), b = runNetwork(*again);
  EXPECT_CLOSE(a->summary["boundaries_J"]["out"].get<double>(), b->summary["boundaries_J"]["out"].get<double>(), 1.0,
               "rounding of printed coefficients, in some 1e7 J");
}

struct BadNetwork {
  const char* pointer;
  const char* patch;
  const char* where;
};

TEST(NetworkJson, NamesThePlaceOfEveryMistake) {
  const std::vector<BadNetwork> mistakes{
      {"/step_s", "0", "/step_s"},
      {"/nodes/0/capacity_J_K", "-1", "/nodes/0/capacity_J_K"},
      {"/links/0/from", "\"nowhere\"", "/links/0/from"},
      {"/links/1/conductance_W_K", "5", "/links/1"},
      {"/solids/0/layers/0/conductivity_W_mK", "\"much\"", "/solids/0/layers/0/conductivity_W_mK"},
      {"/solids/0/h_from_W_m2K", "0", "/solids/0/h_from_W_m2K"},
      {"/nodes/2/boundary/table/t_s", "[7200,0]", "/nodes/2/boundary/table/t_s"},
      {"/thermostats/0/mode", "\"clever\"", "/thermostats/0/mode"},
      {"/vents/0/full_C", "22", "/vents/0"},
      {"/nodes/1/colour", "1", "/nodes/1/colour"},
      {"/schema", "\"other\"", "/schema"},
  };
  for (const BadNetwork& m : mistakes) {
    Json document = sound();
    document[Json::json_pointer(m.pointer)] = *parseJson(m.patch);
    const auto net = networkFromJson(document);
    ASSERT_FALSE(net) << m.pointer;
    EXPECT_EQ(net.problem().where, m.where);
    EXPECT_FALSE(net.problem().allowed.empty()) << m.pointer;
  }
}

} // namespace
} // namespace muffle
