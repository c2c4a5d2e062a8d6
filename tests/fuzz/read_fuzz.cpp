// SPDX-License-Identifier: GPL-3.0-or-later
//
// The reader against anything at all (libFuzzer). What must hold of whatever it makes of the bytes: times increase, every channel has a
// reading a row, no unit is converted without being named, what is written can be read again, and reading it twice is the same.
//   cmake --preset fuzz && cmake --build --preset fuzz && build/fuzz/tests/muffle_read_fuzz -max_total_time=600 CORPUS
#include "core/log/by_hand.h"
#include "core/log/flags.h"
#include "core/log/merge.h"
#include "core/log/read.h"
#include "core/weather/weather.h"

#include <cstdlib>

namespace {

using namespace muffle;

void must(bool holds) {
  if (!holds) std::abort();
}

void check(Log log, const std::vector<Message>& recognised) {
  must(!recognised.empty());
  for (std::size_t i = 1; i < log.time.size(); ++i) must(log.time[i] > log.time[i - 1]);
  for (const Channel& c : log.channels) {
    must(c.raw.size() == log.time.size() && c.flag.size() == log.time.size());
    must(!c.unitWhy.empty());
    if (isTemperature(c.role)) must(c.unitIn == "C" || c.unitIn == "F" || c.unitIn == "K");
  }
  const Place place{46.0, 8.0, 500.0};
  flagProblems(log, place);
  const Merged again = mergeLogs(log, log);
  must(again.added == 0 && again.different == 0 && again.log.time == log.time);
  // weeks are enough for the sun; what spans centuries has nights without end
  if (log.time.size() > 1 && log.time.back() - log.time.front() < 400 * 86400) {
    Site site;
    site.place = place;
    if (const auto weather = weatherFromLog(log, site)) must(!weather->winters.empty());
  }
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string_view bytes(reinterpret_cast<const char*>(data), size);
  static const TimeZone paris = *TimeZone::named("Europe/Paris");
  ReadOptions options;
  options.zone = paris;
  if (const auto read = readLog(bytes, options)) {
    check(read->log, read->recognised);
    const auto twice = readLog(bytes, options);
    must(static_cast<bool>(twice) && twice->log.time == read->log.time);
    const std::string written = writeLogCsv(read->log, paris);
    if (const auto back = readLog(written, {})) must(back->log.time.size() <= read->log.time.size());
  } else {
    must(!read.problem().what.empty() && !read.problem().allowed.empty());
  }
  const HandSheet sheet = readByHand(bytes.substr(0, 2000), {2031, 1, 17}, paris, size % 2 == 0);
  const Log log = logByHand(sheet);
  for (std::size_t i = 1; i < log.time.size(); ++i) must(log.time[i] > log.time[i - 1]);
  return 0;
}
