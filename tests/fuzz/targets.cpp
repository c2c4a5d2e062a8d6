// SPDX-License-Identifier: GPL-3.0-or-later
//
// Readers against anything at all (libFuzzer), one program a reader, chosen by MUFFLE_FUZZ_READER when it is compiled. What must hold: no crash,
// no endless work, a problem that says what is wrong and what is allowed, and what is taken can be written and read again as the same.
//   cmake --preset fuzz && cmake --build --preset fuzz && scripts/fuzz 600
#include "core/calc/quantity.h"
#include "core/log/by_hand.h"
#include "core/log/message.h"
#include "core/log/recipe.h"
#include "core/network/network_json.h"
#include "core/plan/cautions.h"
#include "core/plan/plan_json.h"
#include "core/plan/plan_notes.h"
#include "core/simulate/simulate.h"

#include <cmath>
#include <cstdlib>
#include <string_view>

#ifdef MUFFLE_FUZZ_BOOK
#include "book/book.h"
#include "book/files.h"
#include "book/salvage.h"

#include <filesystem>
#include <unistd.h>
#endif

namespace {

using namespace muffle;

void must(bool holds) {
  if (!holds) std::abort();
}

void mustSay(const Problems& problems) {
  must(!problems.empty());
  for (const Problem& p : problems) must(!p.what.empty() && !p.allowed.empty());
}

[[maybe_unused]] void plan(std::string_view bytes) {
  const auto json = parseJson(bytes);
  if (!json) return mustSay(json.problems());
  const auto read = planFromJson(*json);
  if (!read) return mustSay(read.problems());
  const Json written = planToJson(*read);
  const auto again = planFromJson(written);
  must(static_cast<bool>(again) && planToJson(*again) == written);
  (void)planNotes(*read);
  (void)cautionsOf(*read);
  if (const auto loss = steadyLoss(*read, 5.0, -5.0, 2.0, 0.5)) must(std::isfinite(loss->total_W));
}

[[maybe_unused]] void network(std::string_view bytes) {
  const auto json = parseJson(bytes);
  if (!json) return mustSay(json.problems());
  const auto read = networkFromJson(*json);
  if (!read) return mustSay(read.problems());
  constexpr double kFew = 200.0;
  if (read->end_s / read->step_s > kFew || read->end_s / read->outputEvery_s > kFew || read->nodes.size() > 60) return;
  if (const auto run = runNetwork(*read); !run) mustSay(run.problems());
}

[[maybe_unused]] void recipe(std::string_view bytes) {
  const auto json = parseJson(bytes);
  if (!json) return mustSay(json.problems());
  const auto read = recipeFromJson(*json);
  if (!read) return mustSay(read.problems());
  const auto again = recipeFromJson(recipeToJson(*read));
  must(static_cast<bool>(again) && *again == *read);
}

[[maybe_unused]] void hand(std::string_view bytes) {
  static const TimeZone zone = *TimeZone::named("Europe/Paris");
  const HandSheet sheet = readByHand(bytes, {2031, 1, 17}, zone, bytes.size() % 2 == 0);
  for (const Problem& p : sheet.problems) mustSay({p});
  const Log log = logByHand(sheet);
  for (std::size_t i = 1; i < log.time.size(); ++i) must(log.time[i] > log.time[i - 1]);
}

[[maybe_unused]] void quantity(std::string_view bytes) {
  for (int kind = 0; kind <= static_cast<int>(QuantityKind::number); ++kind) {
    const auto read = readMeasured(std::string(bytes), static_cast<QuantityKind>(kind));
    if (read)
      must(std::isfinite(read->value));
    else
      mustSay(read.problems());
  }
}

[[maybe_unused]] void message(std::string_view bytes) {
  const auto read = readMessage("yard/outside", bytes, 1'900'000'000);
  if (!read) return mustSay(read.problems());
  must(read->time.size() == 1 && !read->channels.empty());
  for (const Channel& c : read->channels) must(c.raw.size() == 1 && c.flag.size() == 1);
}

#ifdef MUFFLE_FUZZ_BOOK
[[maybe_unused]] void book(std::string_view bytes) {
  static const std::string folder = [] {
    std::string name = (std::filesystem::temp_directory_path() / "muffle-fuzz-XXXXXX").string();
    must(::mkdtemp(name.data()) != nullptr);
    return name;
  }();
  const std::string path = folder + "/a.muffle", saved = folder + "/b.muffle";
  must(static_cast<bool>(writeFile(path, bytes)));
  std::filesystem::remove(path + "-journal");
  const auto opened = Book::open(path, Book::Mode::existing);
  if (opened) {
    (void)opened->plans();
    (void)opened->logs();
    (void)opened->settings();
  } else {
    mustSay(opened.problems());
  }
  std::filesystem::remove(saved);
  if (const auto found = salvageBook(path, saved)) {
    const auto again = Book::open(saved, Book::Mode::existing);
    must(static_cast<bool>(again) && again->plans() && again->logs());
  }
}
#endif

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  MUFFLE_FUZZ_READER(std::string_view(reinterpret_cast<const char*>(data), size));
  return 0;
}
