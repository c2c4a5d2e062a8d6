// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which of the plan's measures to take: the cheapest combination that holds what was asked, with the frontier of cost against cold and why the others
// lost. Few combinations are all simulated; of many, those whose bound already costs more are left out (core/sizing/search.h), and what is found is the
// least all the same.
#pragma once

#include "core/simulate/simulate.h"

#include <atomic>
#include <functional>
#include <memory>
#include <optional>
#include <utility>

namespace muffle {

/// For each measure of the plan, -1 for "not" or the index of a level (0 for measures without levels).
using Choice = std::vector<int>;

/// The plan with the chosen measures built in and bought.
struct Package {
  Choice choice;
  Plan plan;               ///< check() says whether its measures go together
  std::vector<Bought> kit; ///< all of the plan's
  Message label;           ///< "as it is", or the measures by name
};
Package buildPackage(const Plan& base, const Choice& choice);

struct SizedPackage {
  Choice choice;
  Message label;
  Cost cost;
  int nights = 0, held = 0;
  double coldest_C = 0.0;
  double degreeHours_K_h = 0.0;
  double heater_kWh = 0.0; ///< a winter
  Ledger ledger = {};      ///< over all winters
  double winters = 1.0;
  double capital = 0.0; ///< money for kit, all of it now
  double spread = 0.0;  ///< money a winter to either side, by the ranges of prices
  double damp_h = 0.0;  ///< hours a winter at 90 % relative humidity and more
  std::optional<double> growth_d = {}; ///< a winter, in days of the crop's best growth (core/results/growth.h); none where a run was not asked for it
  double electric_W = 0.0;           ///< all electric heaters together
  double trench_m = 0.0;             ///< that it digs
  double fuelStored_kWh = 0.0;       ///< fuel burnt a winter
  double loadsAsleep = 0.0;          ///< put on a fire between 23 and 6, a winter
  std::optional<Message> fails = {}; ///< what it was tried against beside the log and did not withstand (core/sizing/withstands.h)
  bool isTried = false;              ///< it was
  bool holds = false;                ///< the line in every room, by what the plan asks, and keeps to its limits
  bool onFrontier = false;
};

/// The winner and its rivals in the logged winters so much colder throughout.
struct ColderWinter {
  double by_K = 1.0;
  int misses = 0;                   ///< of the winner
  bool holds = false;               ///< the winner does
  int cheapest = -1;                ///< of those run again; -1 if none holds, or prices are others since
  std::optional<double> extra = {}; ///< money a winter that the winner takes more in such a one than in those logged; none where prices are others since
};

/// The winner and its rivals in a house as the readings leave it open: with other factors that they allow as well (core/fit/calibrate.h).
struct LikelyHouse {
  Calibration factors;
  int misses = 0;                   ///< of the winner
  bool holds = false;               ///< the winner does
  int cheapest = -1;                ///< of those run again; -1 if none holds, or prices are others since
  std::optional<double> extra = {}; ///< money a winter that the winner takes more in such a house; none where prices are others since
};

/// What a rule of thumb would build (core/sizing/thumb_rules.h).
struct ByThumb {
  Message says;
  Plan plan; ///< with what it builds as its list
  SizedPackage package;
};

struct SearchMemory;

struct Sizing {
  std::vector<SizedPackage> packages; ///< in a fixed order: the last measure varies fastest
  int winner = -1;                    ///< cheapest that holds; -1 if none does
  std::vector<int> frontier;          ///< by rising cost, degree-hours falling
  std::size_t covered = 0;            ///< combinations that were decided on, most of them without being run
  std::size_t runs = 0;               ///< seasons run for it, each over all winters
  bool provedLeast = false;           ///< none of those covered costs less than the winner, or none of them holds
  bool isStopped = false;             ///< before its end, by whoever waited: what it has is the best so far
  double bound = 0.0;                 ///< money a winter that none that holds can cost less than; of the winner where that is proved
  double run_ms = 0.0;
  std::vector<ColderWinter> colder = {}; ///< of the winner, where that was asked (core/sizing/how_sure.h)
  std::vector<LikelyHouse> likely = {};  ///< of the winner, where the plan's factors were fitted and it was asked; each as likely as any other of them
  std::vector<ByThumb> thumb = {};       ///< beside what was found, where that was asked
  std::shared_ptr<const SearchMemory> memory = {}; ///< of one that was stopped or ran out of time: SizingOptions::goOn
};

/// How far a search has come.
struct SizingProgress {
  std::size_t done = 0, of = 0; ///< runs; `of` is 0 while nobody can say
  std::optional<double> found;  ///< money a winter of the cheapest so far that holds
  std::optional<double> bound;  ///< below which none can be
};

struct SizingOptions {
  int threads = 0;                                                ///< 0: all cores. Never changes the answer.
  std::function<bool(const SizingProgress&)> progress = {}; ///< called from one thread at a time; false stops: what has been run is the answer, if anything has
  const std::atomic<bool>* stop = nullptr; ///< set to give up at once, amid a run; size() answers with what has been run, else it is a cancelled problem
  bool exhaustive = false;                                        ///< size(): every combination is run, up to kMostExhaustive
  std::optional<double> time_s = {};                              ///< size(): after it the search ends with what it has, perhaps not proved
  std::shared_ptr<const SearchMemory> goOn = {}; ///< of an earlier search of the same plan over the same weather: its runs are not made again, and the answer
                                                 ///< is that of one that was never stopped
};

/// For one that only counts.
inline SizingOptions countedBy(std::function<bool(std::size_t done, std::size_t of)> count, const std::atomic<bool>* stop) {
  SizingOptions options;
  options.progress = [count = std::move(count)](const SizingProgress& so) { return count(so.done, so.of); };
  options.stop = stop;
  return options;
}

/// Up to so many combinations are all run, whatever their bounds: then every one of them can be shown.
constexpr std::size_t kFewPackages = 256;
constexpr std::size_t kMostExhaustive = 100'000;

/// How many combinations of its measures a plan has, none included; never overflows, it stops counting at 1e15.
std::size_t packageCount(const Plan& plan);

/// Any number of combinations up to 1e12; more is a problem that says so, as is more than kMostExhaustive where every one is to be run. A heater
/// on the list whose fuel has no price is one, too.
Result<Sizing> size(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options = {});

/// The plan as it is, then each size of each of its measures alone: what one change would buy.
Result<Sizing> oneChangeEach(const Plan& plan, std::shared_ptr<const Weather> weather, const SizingOptions& options = {});

/// What a season of a package says, for the list: priced, and judged by the plan's own wishes.
SizedPackage sizedPackage(const Plan& plan, const Package& package, const Summary& summary);
/// Warm enough for the wishes and within their limits; what it was tried against beside the log is SizedPackage::fails.
bool keepsTo(const SizedPackage& package, const Ask& ask);
/// Nights below the line, or degree-hours where those are asked for: whether it is colder than the plan accepts.
bool isTooCold(const Ask& ask, int misses, double degreeHours_K_h);
/// Whether a plan's own check() finds nothing: pipes that fit under the floor, a lobby beside the bay.
bool isSound(Plan plan);
/// What it builds fits the house and one another, whatever the measures' rules are.
bool goTogether(const Plan& plan, const Choice& choice);
/// And the rules allow it.
bool canBeBuilt(const Plan& plan, const Choice& choice);
/// In the order of combinations; nothing where the rules and the house leave none among the first 10 000 that the rules allow.
std::optional<Choice> firstThatCanBeBuilt(const Plan& plan);
class PackageScenes;
Result<SizedPackage> runPackage(const Plan& plan, const Choice& choice, PackageScenes& scenes, const std::atomic<bool>* stop);
/// Tries it against what the plan asks beside the log (core/sizing/withstands.h), once.
std::optional<Problem> tryPackage(SizedPackage& package, const Plan& plan, PackageScenes& scenes, const std::atomic<bool>* stop);
/// Tries the winner, and the next where it fails, until one withstands all.
std::optional<Problem> tryWinners(Sizing& sizing, const Plan& plan, PackageScenes& scenes, const std::atomic<bool>* stop);
/// What is said where no combination is allowed.
Problem nothingAllowed();
/// Winner and frontier of the packages as they stand, which are put in the order of combinations first.
void rankPackages(Sizing& sizing, const Plan& plan);
/// Whether what was searched from one plan, priced anew, is what would be found from the other: they differ in prices that change nothing of what is given.
bool sameButPrices(Plan one, const Plan& other);
/// Ranks the same packages under other prices without simulating again. Where not all were run, nothing is proved at those.
void reprice(Sizing& sizing, const Plan& plan, const Prices& prices);

/// One sentence on why a package is not the winner.
Message whyNot(const Sizing& sizing, int package, const Plan& plan);

} // namespace muffle
