// SPDX-License-Identifier: GPL-3.0-or-later
//
// The search for least cost, and what it is asked to hold and keep to.
#include "cli/plan_and_weather.h"
#include "cli/size_answers.h"
#include "cli/verbs.h"
#include "core/sizing/thumb_rules.h"
#include "core/sizing/why_not.h"
#include "words/words.h"

#include <fmt/format.h>
#include <unistd.h>

#include <charconv>
#include <cstdio>
#include <functional>
#include <map>

namespace muffle {
namespace {

/// One word, or a word and a number: "all", "all-but:3".
struct Wish {
  std::string word;
  std::optional<double> value;
};
std::vector<Wish> wishesOf(const std::string& text) {
  std::vector<Wish> wishes;
  for (std::size_t at = 0; at <= text.size();) {
    const std::size_t end = std::min(text.find(',', at), text.size());
    const std::string one = text.substr(at, end - at);
    const std::size_t colon = one.find(':');
    Wish wish{one.substr(0, colon), {}};
    if (colon != std::string::npos) {
      double value = 0.0;
      const char* const last = one.data() + one.size();
      if (const auto [stop, error] = std::from_chars(one.data() + colon + 1, last, value); error == std::errc() && stop == last && value >= 0.0)
        wish.value = value;
      else
        wish.word = one; // which is no word
    }
    wishes.push_back(std::move(wish));
    at = end + 1;
  }
  return wishes;
}

using Setters = std::map<std::string, std::pair<bool, std::function<void(Ask&, double)>>>; ///< by word: whether it takes a number

const Setters& holdsSetters() {
  static const Setters setters{
      {"all", {false, [](Ask& a, double) { a.missesAllowed = 0; }}},
      {"all-but", {true, [](Ask& a, double nights) { a.missesAllowed = static_cast<int>(nights); }}},
      {"cold", {true, [](Ask& a, double degreeHours) { a.coldAllowed_K_h = degreeHours; }}},
      {"return", {true, [](Ask& a, double years) { a.rareNight_years = years; }}},
      {"any-heater-out", {false, [](Ask& a, double) { a.anyHeaterOut = true; }}},
      {"mains-off", {true, [](Ask& a, double hours) { a.mainsOff_h = hours; }}},
  };
  return setters;
}
const Setters& limitSetters() {
  static const Setters setters{
      {"spend", {true, [](Ask& a, double money) { a.toSpend = money; }}},        {"hours", {true, [](Ask& a, double hours) { a.hoursPerWeek = hours; }}},
      {"supply", {true, [](Ask& a, double kW) { a.supply_kW = kW; }}},           {"trench", {true, [](Ask& a, double metres) { a.trench_m = metres; }}},
      {"fuel-store", {true, [](Ask& a, double kWh) { a.fuelStore_kWh = kWh; }}}, {"no-fire-asleep", {false, [](Ask& a, double) { a.noFireAsleep = true; }}},
  };
  return setters;
}

std::optional<Problem> take(Ask& ask, const std::string& text, const char* option, const Setters& setters) {
  std::string allowed;
  for (const auto& [word, setter] : setters) allowed += (allowed.empty() ? "" : ", ") + word + (setter.first ? ":N" : "");
  for (const Wish& wish : wishesOf(text)) {
    const auto it = setters.find(wish.word);
    if (it == setters.end() || it->second.first != wish.value.has_value())
      return Problem{ProblemKind::badInput, option, Message{"command.no-such-wish", text}, Message{"command.wishes-are", allowed}};
    it->second.second(ask, wish.value.value_or(0.0));
  }
  return std::nullopt;
}

/// The plan's own wishes, and what the command says in place of them.
Result<Ask> withAsked(Ask ask, const SizeOptions& how) {
  if (!how.holds.empty()) {
    ask.missesAllowed = 0;
    ask.coldAllowed_K_h.reset();
    if (auto why = take(ask, how.holds, "--holds", holdsSetters())) return *why;
  }
  if (!how.limit.empty())
    if (auto why = take(ask, how.limit, "--limit", limitSetters())) return *why;
  return ask;
}

} // namespace

int runSize(const std::string& planFile, const LogOptions& o, bool json, const SizeOptions& how) {
  auto in = readPlanAndWeather(planFile, o);
  if (!in) return kBadInput;
  if (const auto asked = withAsked(in->plan.ask, how); asked)
    in->plan.ask = *asked;
  else
    return report("size", asked.problems());
  if (const Problems wrong = check(in->plan); !wrong.empty()) return report(planFile, wrong);
  SizingOptions options;
  options.threads = how.threads;
  options.exhaustive = how.exhaustive;
  options.time_s = how.time_s;
  if (isatty(STDERR_FILENO))
    options.progress = [](const SizingProgress& so) {
      if (so.of > 0)
        fmt::print(stderr, "\r{} of {}", so.done, so.of);
      else if (so.found && so.bound)
        fmt::print(stderr, "\r{} run: {:.0f} holds, nothing below {:.0f} does  ", so.done, *so.found, *so.bound);
      else
        fmt::print(stderr, "\r{} run", so.done);
      return true;
    };
  auto sizing = size(in->plan, in->weather, options);
  if (options.progress) fmt::print(stderr, "\n");
  if (!sizing) return report(planFile, sizing.problems());
  std::optional<HowSure> sure;
  PackageScenes scenes(in->weather);
  if (sizing->winner >= 0) {
    sure = howSure(*sizing, in->plan);
    auto winters = colderWinters(*sizing, in->plan, scenes, options);
    if (!winters) return report(planFile, winters.problems());
    sizing->colder = *std::move(winters);
    auto houses = likelyHouses(*sizing, in->plan, scenes, options);
    if (!houses) return report(planFile, houses.problems());
    sizing->likely = *std::move(houses);
  }
  auto thumb = runThumbRules(in->plan, scenes);
  if (!thumb) return report(planFile, thumb.problems());
  sizing->thumb = *std::move(thumb);
  const Json answer = sizeAnswer(in->plan, *sizing, sure ? &*sure : nullptr);
  if (json) {
    print(answer);
    return kDone;
  }
  const std::string& currency = in->plan.prices.currency;
  if (sizing->winner >= 0) {
    const SizedPackage& w = sizing->packages[static_cast<std::size_t>(sizing->winner)];
    fmt::print("cheapest that holds: {}\n  {:.0f} {} a winter: power {:.0f}, kit {:.0f}, {:.0f} h of work at {:.0f}\n", english(w.label), w.cost.total(),
               currency, w.cost.energy, w.cost.kit, w.cost.hours, w.cost.hoursMoney);
  } else {
    fmt::print("{}\n", answer["why_none"].get<std::string>());
    for (const Json& loosen : answer["loosen"]) fmt::print("  {}\n", loosen.get<std::string>());
  }
  if (sure && sure->hasRanges)
    fmt::print("by the ranges of prices it stays the cheapest in {:.0f} of 100; where not, another costs {:.0f} {} less in the mean\n", 100.0 * sure->stays,
               sure->stays < 1.0 ? sure->regret / (1.0 - sure->stays) : 0.0, currency);
  for (const ByThumb& rule : sizing->thumb)
    fmt::print("by rule of thumb, {}: {:.0f} {} a winter, held {} of {}\n", english(rule.says), rule.package.cost.total(), currency, rule.package.held,
               rule.package.nights);
  for (const ColderWinter& c : sizing->colder)
    if (c.holds)
      fmt::print("in winters {:g} K colder it holds for {:.0f} {} more\n", c.by_K, c.extra.value_or(0.0), currency);
    else
      fmt::print("in winters {:g} K colder, nights missed: {}\n", c.by_K, c.misses);
  if (!sizing->likely.empty()) {
    const LikelyInShort likely = inShort(*sizing);
    fmt::print("in {} houses as likely by the readings it holds in {} and is the cheapest in {}; nights missed at most: {}\n", likely.houses, likely.held,
               likely.cheapest.value_or(0), likely.mostMissed);
  }
  if (sizing->provedLeast)
    fmt::print("the least of {} combinations, by {} runs\n", sizing->covered, sizing->runs);
  else
    fmt::print("not proved: none of {} combinations costs less than {:.0f}; {} runs\n", sizing->covered, sizing->bound, sizing->runs);
  fmt::print("cost against cold owed, {} packages simulated:\n", sizing->packages.size());
  for (const int i : sizing->frontier) {
    const SizedPackage& p = sizing->packages[static_cast<std::size_t>(i)];
    fmt::print("  {:6.0f} {}  {:7.1f} K h  held {}/{}  {}\n", p.cost.total(), currency, p.degreeHours_K_h, p.held, p.nights, english(p.label));
  }
  return kDone;
}

} // namespace muffle
