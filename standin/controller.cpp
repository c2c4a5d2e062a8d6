// SPDX-License-Identifier: GPL-3.0-or-later
//
// A house with a controller that are not there. It listens to setpoints over MQTT, holds its house by them, and reports what it took and what it reads:
//   muffle-controller HOST[:PORT] --topic muffle/house
//     TOPIC/set/night, day, vents     "4.0 C" comes in
//     TOPIC/state/night, day, vents   "4.0 C" as it has taken it: within its own limits, and held by its broker for whoever asks later
//     TOPIC/room:house, heater:1      "2031-01-12T02:00:00Z 3.84 C", as a station's readings
// The house is one lump of heat that loses to a night as cold as asked, its heater a relay with a band. Faults on demand: --deaf takes no setpoint, --off K
// reads its air so much too warm.
#include "core/calendar.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <mosquitto.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <thread>

namespace {

using namespace muffle;

struct House {
  std::string broker, topic = "muffle/house";
  double capacity_J_K = 600e3, loss_W_K = 150.0, heater_W = 4000.0, band_K = 1.0, outside_C = -5.0, air_C = 8.0, off_K = 0.0;
  int pause_ms = 1000, ticks = 0; ///< 0: until it is stopped
  double tick_s = 60.0;
  bool deaf = false;
};

/// What it may be set to; beyond that it holds its own limit.
constexpr double kLeast_C = -5.0, kMost_C = 35.0;

class Controller {
public:
  explicit Controller(const House& house) : m_house(house) {}

  /// On libmosquitto's thread.
  void take(const std::string& what, double value_C) {
    const std::lock_guard lock(m_mutex);
    const auto known = m_set.find(what);
    if (known != m_set.end()) known->second = std::clamp(value_C, kLeast_C, kMost_C);
  }
  [[nodiscard]] std::map<std::string, double> set() const {
    const std::lock_guard lock(m_mutex);
    return m_set;
  }
  /// The air a tick later, and what its heater gave: on, or off, by the band about the night's setpoint.
  void tick() {
    const double held_C = set().at("night"), read_C = m_air_C + m_house.off_K;
    if (read_C < held_C - m_house.band_K / 2.0) m_isOn = true;
    if (read_C > held_C + m_house.band_K / 2.0) m_isOn = false;
    const double goal_C = m_house.outside_C + (m_isOn ? m_house.heater_W : 0.0) / m_house.loss_W_K;
    m_air_C = goal_C + (m_air_C - goal_C) * std::exp(-m_house.tick_s * m_house.loss_W_K / m_house.capacity_J_K);
  }
  [[nodiscard]] double read_C() const { return m_air_C + m_house.off_K; }
  [[nodiscard]] double heater_W() const { return m_isOn ? m_house.heater_W : 0.0; }

private:
  const House& m_house;
  mutable std::mutex m_mutex;
  std::map<std::string, double> m_set{{"night", 2.0}, {"day", 5.0}, {"vents", 22.0}};
  double m_air_C = m_house.air_C;
  bool m_isOn = false;
};

std::atomic<bool> g_isOver{false};

struct Link {
  Controller* controller;
  std::string topic;
  bool deaf;
};

void onConnect(mosquitto* client, void* of, int rc) {
  if (rc == 0) mosquitto_subscribe(client, nullptr, (static_cast<Link*>(of)->topic + "/set/#").c_str(), 1);
}

void onMessage(mosquitto*, void* of, const mosquitto_message* message) {
  const auto& link = *static_cast<Link*>(of);
  const std::string topic = message->topic, stem = link.topic + "/set/",
                    text(static_cast<const char*>(message->payload), static_cast<std::size_t>(message->payloadlen));
  char* end = nullptr;
  const double value_C = std::strtod(text.c_str(), &end);
  if (link.deaf || !topic.starts_with(stem) || end == text.c_str() || !std::isfinite(value_C)) return;
  link.controller->take(topic.substr(stem.size()), value_C);
}

void say(mosquitto* client, const std::string& topic, const std::string& text, bool isKept) {
  mosquitto_publish(client, nullptr, topic.c_str(), static_cast<int>(text.size()), text.data(), 1, isKept);
}

int run(const House& house) {
  Controller controller(house);
  Link link{&controller, house.topic, house.deaf};
  mosquitto_lib_init();
  const std::unique_ptr<mosquitto, decltype(&mosquitto_destroy)> client(mosquitto_new(nullptr, true, &link), mosquitto_destroy);
  mosquitto_connect_callback_set(client.get(), onConnect);
  mosquitto_message_callback_set(client.get(), onMessage);
  const auto colon = house.broker.rfind(':');
  const int port = colon == std::string::npos ? 1883 : std::atoi(house.broker.c_str() + colon + 1);
  if (const int rc = mosquitto_connect(client.get(), house.broker.substr(0, colon).c_str(), port, 30); rc != MOSQ_ERR_SUCCESS) {
    std::fprintf(stderr, "%s: no broker answers (%s)\n", house.broker.c_str(), mosquitto_strerror(rc));
    return 3;
  }
  mosquitto_loop_start(client.get());
  for (int n = 0; (house.ticks == 0 || n < house.ticks) && !g_isOver; ++n) {
    controller.tick();
    const UtcSeconds now = std::chrono::duration_cast<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count();
    for (const auto& [what, value_C] : controller.set()) say(client.get(), house.topic + "/state/" + what, fmt::format("{:.2f} C", value_C), true);
    say(client.get(), house.topic + "/room:house", fmt::format("{} {:.2f} C", TimeZone::utc().iso(now), controller.read_C()), false);
    say(client.get(), house.topic + "/heater:1", fmt::format("{} {:.0f} W", TimeZone::utc().iso(now), controller.heater_W()), false);
    std::this_thread::sleep_for(std::chrono::milliseconds(house.pause_ms));
  }
  mosquitto_disconnect(client.get());
  mosquitto_loop_stop(client.get(), false);
  return 0;
}

} // namespace

int main(int argc, char** argv) {
  CLI::App app{"A house and its controller that are not there: takes setpoints, reports what it holds", "muffle-controller"};
  House house;
  app.add_option("BROKER", house.broker, "HOST[:PORT] of an MQTT broker")->required();
  app.add_option("--topic", house.topic, "before what it listens to and says");
  app.add_option("--outside", house.outside_C, "of the night about it, C")->check(CLI::Range(-60.0, 40.0));
  app.add_option("--air", house.air_C, "at first, C")->check(CLI::Range(-40.0, 50.0));
  app.add_option("--heater", house.heater_W, "W")->check(CLI::Range(0.0, 1e6));
  app.add_option("--band", house.band_K, "of its thermostat, K")->check(CLI::Range(0.0, 10.0));
  app.add_option("--tick", house.tick_s, "of its house, s")->check(CLI::Range(1.0, 3600.0));
  app.add_option("--pause", house.pause_ms, "between ticks, ms")->check(CLI::Range(10, 600000));
  app.add_option("--ticks", house.ticks, "0: until it is stopped")->check(CLI::Range(0, 100000000));
  app.add_option("--off", house.off_K, "that it reads too warm, K")->check(CLI::Range(-20.0, 20.0));
  app.add_flag("--deaf", house.deaf, "takes no setpoint");
  CLI11_PARSE(app, argc, argv);
  const auto stop = [](int) { g_isOver = true; };
  std::signal(SIGINT, stop);
  std::signal(SIGTERM, stop);
  return run(house);
}
