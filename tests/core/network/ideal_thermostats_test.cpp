// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heaters that take turns in a room, in rooms that warm each other: every sensor on a setpoint, or its heaters at their limits.
#include "core/network/ideal_thermostats.h"

#include "core/network/solver.h"
#include "core/network/sparse_lu.h"
#include "tests/support/near.h"

#include <random>

namespace muffle {
namespace {

using Outcome = IdealThermostats::Outcome;

/// Rooms that stand in each other's air, and what a watt in each does to all at a step's end.
struct Rooms final : IdealThermostats::Responses {
  std::vector<Thermostat> thermostats;
  std::vector<std::size_t> room;             ///< by thermostat
  std::vector<std::vector<double>> response; ///< by thermostat and room, K/W
  std::vector<double> unheated_C;
  std::vector<double> setpoint_C, limit_W;
  const std::vector<double>& of(std::size_t j) override { return response[j]; }
  [[nodiscard]] double air_C(std::size_t at, const std::vector<double>& power_W) const {
    double t = unheated_C[at];
    for (std::size_t j = 0; j < power_W.size(); ++j) t += power_W[j] * response[j][at];
    return t;
  }
};

/// `joined`: the largest conductance between rooms for one of 10 to 100 W/K to the outside.
Rooms randomRooms(std::mt19937& random, double joined_W_K) {
  const auto between = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
  const auto n = static_cast<int>(between(1.0, 8.99));
  std::vector<std::pair<int, int>> pairs;
  for (int a = 0; a < n; ++a)
    for (int b = 0; b < a; ++b) pairs.emplace_back(a, b);
  SparseLu lu(n, pairs, std::vector<bool>(static_cast<std::size_t>(n), false));
  const auto entry = [&](int a, int b) -> double& { return lu.values()[static_cast<std::size_t>(lu.entry(lu.position(a), lu.position(b)))]; };
  for (int a = 0; a < n; ++a) entry(a, a) = between(10.0, 100.0);
  for (const auto& [a, b] : pairs) {
    const double g = between(0.0, joined_W_K);
    entry(a, a) += g;
    entry(b, b) += g;
    entry(a, b) = entry(b, a) = -g;
  }
  lu.factor();
  Rooms rooms;
  for (int a = 0; a < n; ++a) {
    rooms.unheated_C.push_back(between(-20.0, 12.0));
    std::vector<double> unit(static_cast<std::size_t>(n), 0.0), response(unit);
    unit[static_cast<std::size_t>(lu.position(a))] = 1.0;
    lu.solve(unit.data());
    for (int b = 0; b < n; ++b) response[static_cast<std::size_t>(b)] = unit[static_cast<std::size_t>(lu.position(b))];
    for (int stages = static_cast<int>(between(0.0, 4.99)); stages > 0; --stages) {
      rooms.thermostats.push_back({.id = "t", .sensor = a, .heats = a});
      rooms.room.push_back(static_cast<std::size_t>(a));
      rooms.response.push_back(response);
      rooms.setpoint_C.push_back(std::floor(between(2.0, 12.0))); // now and then two of a room have the same
      rooms.limit_W.push_back(between(0.0, 1.0) < 0.1 ? 0.0 : between(50.0, 3000.0));
    }
  }
  return rooms;
}

void expectInTurn(const Rooms& rooms, const std::vector<double>& power_W, double miss_K) {
  for (std::size_t j = 0; j < power_W.size(); ++j) {
    ASSERT_GE(power_W[j], 0.0);
    ASSERT_LE(power_W[j], rooms.limit_W[j]);
    const double lacks_K = rooms.setpoint_C[j] - rooms.air_C(rooms.room[j], power_W);
    if (power_W[j] < rooms.limit_W[j]) { ASSERT_LT(lacks_K, miss_K); }
    if (power_W[j] > 0.0) { ASSERT_GT(lacks_K, -miss_K); }
    for (std::size_t k = 0; k < power_W.size(); ++k) { // a later stage only when the earlier ones give all they have
      const bool isEarlier =
          rooms.room[k] == rooms.room[j] && (rooms.setpoint_C[k] > rooms.setpoint_C[j] || (rooms.setpoint_C[k] == rooms.setpoint_C[j] && k < j));
      if (isEarlier && power_W[j] > 0.0) { ASSERT_EQ(power_W[k], rooms.limit_W[k]); }
    }
  }
}

TEST(IdealThermostats, InRoomsThatWarmEachOtherEveryHeaterIsOnItsSetpointOrAtALimitAndWaitsItsTurn) {
  std::mt19937 random(7);
  for (const double joined_W_K : {0.0, 20.0, 400.0, 5000.0}) {
    for (int house = 0; house < 500; ++house) {
      Rooms rooms = randomRooms(random, joined_W_K);
      const std::size_t n = rooms.thermostats.size();
      IdealThermostats ideal(rooms.thermostats, rooms.room, rooms.unheated_C.size());
      std::vector<double> power(n, 0.0);
      for (int hour = 0; hour < 5; ++hour) { // each from where the one before has left it
        for (double& t : rooms.unheated_C) t += std::uniform_real_distribution<double>(-6.0, 6.0)(random);
        std::vector<double> error(n);
        for (std::size_t j = 0; j < n; ++j) error[j] = rooms.setpoint_C[j] - rooms.air_C(rooms.room[j], power);
        ASSERT_NE(ideal.find(power, error, rooms.setpoint_C, rooms.limit_W, 0.0, 1e-7, rooms), Outcome::unsettled) << joined_W_K << " " << house;
        expectInTurn(rooms, power, 1e-6);
      }
    }
  }
}

/// A room of 100 W/K with heaters at 10, 8 and 6 degC, of 500, 300 and 2000 W.
Network stagedRoom(double outside_C) {
  Network net;
  const int out = net.addBoundary("out", Driver::constant(outside_C));
  const int room = net.addNode("room", 300e3, 10.0);
  net.addConductance(room, out, 100.0);
  const double setpoint_C[] = {6.0, 10.0, 8.0}, power_W[] = {2000.0, 500.0, 300.0}; // in no order
  for (int j = 0; j < 3; ++j)
    net.thermostats.push_back({.id = "stage " + std::to_string(j), .sensor = room, .heats = room, .setpoint_C = setpoint_C[j], .power_W = power_W[j]});
  return net;
}

TEST(IdealThermostats, ThreeStagesOfARoomGiveToTheWattWhatItsLossAsksOfEach) {
  struct Expected {
    double outside_C, first_W, second_W, third_W, air_C;
  };
  // 100 W/K: the first alone carries 5 K, with the second 8 K
  for (const Expected& e : {Expected{12.0, 0, 0, 0, 12.0},
                            {7.0, 300, 0, 0, 10.0},
                            {4.0, 500, 0, 0, 9.0},
                            {1.0, 500, 200, 0, 8.0},
                            {-1.0, 500, 300, 0, 7.0},
                            {-4.0, 500, 300, 200, 6.0},
                            {-30.0, 500, 300, 2000, -2.0}}) {
    for (const bool multistep : {false, true}) {
      Solver solver = *Solver::prepare(stagedRoom(e.outside_C), {.multistep = multistep});
      for (int i = 0; i < 600; ++i) ASSERT_TRUE(solver.advance(600.0));
      EXPECT_CLOSE(solver.lastPower_W(1), e.first_W, 0.3, "a step's tolerance of 2e-3 K by 100 W/K and what it stores");
      EXPECT_CLOSE(solver.lastPower_W(2), e.second_W, 0.3, "the same");
      EXPECT_CLOSE(solver.lastPower_W(0), e.third_W, 0.3, "the same");
      EXPECT_CLOSE(solver.temperature_C(1), e.air_C, 3e-3, "the same");
      EXPECT_LT(solver.balance().closure() * solver.balance().throughput_J, 1e-3) << "of 0.6 MJ to 1 GJ, J";
    }
  }
}

TEST(IdealThermostats, TwoRoomsWithAStrongFanBetweenThemAreBothHeld) {
  Network net;
  const int out = net.addBoundary("out", Driver::constant(-10.0));
  const int cool = net.addNode("cool", 300e3, 5.0), warm = net.addNode("warm", 300e3, 5.0);
  net.addConductance(cool, out, 100.0);
  net.addConductance(warm, out, 50.0);
  net.addConductance(cool, warm, 20000.0); // all but one air: what one gives the other's sensor feels as well
  net.thermostats.push_back({.id = "cool", .sensor = cool, .heats = cool, .setpoint_C = 5.0, .power_W = 1e5});
  net.thermostats.push_back({.id = "warm", .sensor = warm, .heats = warm, .setpoint_C = 5.1, .power_W = 1e5});
  for (const bool multistep : {false, true}) {
    Solver solver = *Solver::prepare(net, {.multistep = multistep});
    for (int i = 0; i < 300; ++i) ASSERT_TRUE(solver.advance(600.0));
    // the fan carries 2000 W from warm to cool, of whose 1500 W loss nothing is left to heat: it is warmer than its setpoint
    EXPECT_EQ(solver.lastPower_W(0), 0.0);
    EXPECT_CLOSE(solver.temperature_C(warm), 5.1, 2e-3, "newtonTolerance_K");
    const double cool_C = (20000.0 * 5.1 - 100.0 * 10.0) / 20100.0;
    EXPECT_CLOSE(solver.temperature_C(cool), cool_C, 2e-3, "the same");
    EXPECT_CLOSE(solver.lastPower_W(1), 100.0 * (cool_C + 10.0) + 50.0 * 15.1, 1.0, "0.3 K/kW over a few steps");
  }
}

} // namespace
} // namespace muffle
