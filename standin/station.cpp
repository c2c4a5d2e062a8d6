// SPDX-License-Identifier: GPL-3.0-or-later
//
// A logger and a weather station that are not there. Plays a log's rows, one after the other:
//   muffle-station LOG.csv --write live.csv            as a logger that keeps writing a file
//   muffle-station LOG.csv --publish HOST[:PORT]       as a station that publishes over MQTT, a topic a sensor
// Faults on demand: --torn writes each line in two goes, --gone N loses every Nth row, --twice N gives every Nth row twice.
#include "book/files.h"
#include "core/log/read.h"
#include "words/words.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <mosquitto.h>

#include <chrono>
#include <cstdio>
#include <fstream>
#include <memory>
#include <thread>

namespace {

using namespace muffle;

struct Play {
  std::string file, zone = "UTC", write, publish, topic = "muffle/station";
  long rows = 0; ///< 0 all
  int pause_ms = 1000, gone = 0, twice = 0;
  bool torn = false, now = false;
};

void rest(int ms) { std::this_thread::sleep_for(std::chrono::milliseconds(ms)); }

std::string lineOf(const Log& log, std::size_t row, const TimeZone& zone) {
  std::string line = zone.iso(log.time[row]);
  for (const Channel& c : log.channels) line += std::isnan(c.raw[row]) ? std::string(",") : fmt::format(",{:.2f}", c.raw[row]);
  return line + "\n";
}

/// Calls `give` with each row that is not lost, `twice` again where it is given twice.
template <class Give> void eachRow(const Play& play, const Log& log, Give give) {
  const auto rows = play.rows > 0 ? std::min<std::size_t>(static_cast<std::size_t>(play.rows), log.time.size()) : log.time.size();
  for (std::size_t row = 0; row < rows; ++row) {
    const auto nth = [&](int n) { return n > 0 && (row + 1) % static_cast<std::size_t>(n) == 0; };
    if (nth(play.gone)) continue;
    give(row);
    if (nth(play.twice)) give(row);
    rest(play.pause_ms);
  }
}

int writeFileLive(const Play& play, const Log& log, const TimeZone& zone) {
  std::ofstream out(play.write, std::ios::trunc);
  Log none = log;
  none.time.clear();
  for (Channel& c : none.channels) c.raw.clear();
  out << writeLogCsv(none, zone) << std::flush;
  eachRow(play, log, [&](std::size_t row) {
    const std::string line = lineOf(log, row, zone);
    const std::size_t half = play.torn ? line.size() / 2 : line.size();
    out << line.substr(0, half) << std::flush;
    if (!play.torn) return;
    rest(play.pause_ms / 2);
    out << line.substr(half) << std::flush;
  });
  if (!out) {
    std::fprintf(stderr, "%s: could not be written, choose another place\n", play.write.c_str());
    return 3;
  }
  return 0;
}

int publishLive(const Play& play, const Log& log, const TimeZone& zone) {
  mosquitto_lib_init();
  const std::unique_ptr<mosquitto, decltype(&mosquitto_destroy)> client(mosquitto_new(nullptr, true, nullptr), mosquitto_destroy);
  const auto colon = play.publish.rfind(':');
  const std::string host = play.publish.substr(0, colon);
  const int port = colon == std::string::npos ? 1883 : std::atoi(play.publish.c_str() + colon + 1);
  if (const int rc = mosquitto_connect(client.get(), host.c_str(), port, 30); rc != MOSQ_ERR_SUCCESS) {
    std::fprintf(stderr, "%s: no broker answers (%s)\n", play.publish.c_str(), mosquitto_strerror(rc));
    return 3;
  }
  mosquitto_loop_start(client.get());
  eachRow(play, log, [&](std::size_t row) {
    for (const Channel& c : log.channels) {
      if (std::isnan(c.raw[row])) continue;
      const std::string topic = fmt::format("{}/{}", play.topic, roleText(c.role, c.id)),
                        text = fmt::format("{} {:.2f} {}", zone.iso(log.time[row]), c.raw[row], c.unit());
      mosquitto_publish(client.get(), nullptr, topic.c_str(), static_cast<int>(text.size()), text.data(), 1, false);
    }
  });
  rest(300); // what is under way arrives
  mosquitto_disconnect(client.get());
  mosquitto_loop_stop(client.get(), false);
  return 0;
}

} // namespace

int main(int argc, char** argv) {
  CLI::App app{"A logger and a station that are not there: plays a log as if it were read now", "muffle-station"};
  Play play;
  app.add_option("LOG.csv", play.file)->required();
  app.add_option("--zone", play.zone, "of clock times without an offset");
  auto* write = app.add_option("--write", play.write, "the file to keep writing");
  app.add_option("--publish", play.publish, "HOST[:PORT] of an MQTT broker")->excludes(write);
  app.add_option("--topic", play.topic, "before the sensors' names");
  app.add_option("--rows", play.rows, "0 all")->check(CLI::Range(0L, 100000000L));
  app.add_option("--pause", play.pause_ms, "between rows, ms")->check(CLI::Range(0, 600000));
  app.add_option("--gone", play.gone, "loses every Nth row")->check(CLI::Range(0, 1000000));
  app.add_option("--twice", play.twice, "gives every Nth row twice")->check(CLI::Range(0, 1000000));
  app.add_flag("--now", play.now, "shifts all times so that the last row played is of now");
  app.add_flag("--torn", play.torn, "writes each line in two goes");
  CLI11_PARSE(app, argc, argv);
  if (play.write.empty() == play.publish.empty()) {
    std::fprintf(stderr, "muffle-station: one of --write and --publish is needed\n");
    return 2;
  }
  const auto bytes = readFile(play.file);
  const auto zone = TimeZone::named(play.zone);
  if (!bytes || !zone) {
    std::fprintf(stderr, "%s\n", english(bytes ? zone.problem() : bytes.problem()).c_str());
    return 3;
  }
  ReadOptions options;
  options.zone = *zone;
  auto read = readLog(*bytes, options);
  if (!read) {
    std::fprintf(stderr, "%s: %s\n", play.file.c_str(), english(read.problem()).c_str());
    return 3;
  }
  if (play.now && !read->log.time.empty()) {
    const auto last = play.rows > 0 ? std::min<std::size_t>(static_cast<std::size_t>(play.rows), read->log.time.size()) - 1 : read->log.time.size() - 1;
    const UtcSeconds shift =
        std::chrono::duration_cast<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count() - read->log.time[last];
    for (UtcSeconds& t : read->log.time) t += shift;
  }
  return play.write.empty() ? publishLive(play, read->log, *zone) : writeFileLive(play, read->log, *zone);
}
