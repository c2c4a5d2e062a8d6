// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle-cli: a thin shell over core and book. Exit 0 done, 2 wrong usage, 3 bad input.
#include "book/book.h"
#include "book/files.h"
#include "book/salvage.h"
#include "core/store/ingredients.h"
#include "core/plan/plan_notes.h"
#include "core/plan/store_list.h"
#include "core/calc/quantity.h"
#include "cli/answers.h"
#include "cli/plan_tables.h"
#include "core/calc/aids.h"
#include "core/log/flags.h"
#include "core/log/headings.h"
#include "core/material/materials.h"
#include "core/network/network_json.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <unistd.h>

#include <cmath>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <regex>
#include <thread>

using namespace muffle;

namespace {

constexpr int kDone = 0;
constexpr int kUsage = 2;
constexpr int kBadInput = 3;

int report(const std::string& file, const Problems& problems) {
  for (const Problem& p : problems) {
    const bool named = p.where.starts_with(file);
    std::fprintf(stderr, "%s%s\n", named ? "" : (file + ": ").c_str(), p.text().c_str());
  }
  return kBadInput;
}

void print(const Json& json) { std::fputs((json.dump(2) + "\n").c_str(), stdout); }

Result<Json> readJson(const std::string& path) {
  auto text = readFile(path);
  if (!text) return text.problems();
  return parseJson(*text);
}

Result<Plan> readPlan(const std::string& path) {
  auto json = readJson(path);
  if (!json) return json.problems();
  return planFromJson(*json);
}

struct LogOptions {
  std::string file;
  std::string zone = "UTC";
  std::string unit;
  std::string separator;
  bool monthFirst = false;
  std::vector<std::string> columns; ///< "HEADING=ROLE"
};

/// "Temperature=room:house", "Logger 2=outside".
Result<ColumnChoice> columnChoice(const std::string& text) {
  const auto split = text.rfind('=');
  ColumnChoice choice;
  if (split != std::string::npos) {
    choice.heading = text.substr(0, split);
    Channel channel;
    const std::string role = text.substr(split + 1), word = role.substr(0, role.find(':'));
    for (int r = 0; r <= static_cast<int>(Role::note); ++r)
      if (word == roleText(static_cast<Role>(r), "") && guessRole(role, channel)) {
        choice.role = channel.role;
        choice.id = channel.id;
        return choice;
      }
  }
  return Problem{ProblemKind::badInput, "--column", fmt::format("\"{}\" is not HEADING=ROLE", text), "a role is outside, room:house, soil:ID, store:ID, cover:ID, wind, sun, humidity:ID, heater:ID, rain or note"};
}

Result<ReadLog> readLogFile(const LogOptions& o, const std::string& zoneName) {
  auto bytes = readFile(o.file);
  if (!bytes) return bytes.problems();
  auto zone = TimeZone::named(zoneName);
  if (!zone) return zone.problems();
  ReadOptions options;
  options.zone = *zone;
  if (o.unit == "F") options.fahrenheit = true;
  if (o.unit == "C") options.fahrenheit = false;
  if (!o.separator.empty()) options.separator = o.separator == "tab" ? '\t' : o.separator[0];
  if (o.monthFirst) options.monthFirst = true;
  for (const std::string& text : o.columns) {
    auto choice = columnChoice(text);
    if (!choice) return choice.problems();
    options.columns.push_back(*choice);
  }
  auto read = readLog(*bytes, options);
  if (read)
    for (const std::string& name : read->placeless)
      fmt::print(stderr, "{}: \"{}\" is taken to hang outside, for its heading says no place: give --column \"{}=room:house\" where it hangs in the house\n", o.file, name, name);
  return read;
}

void addLogOptions(CLI::App* verb, LogOptions& o) {
  verb->add_option("--unit", o.unit, "unit of temperatures without a mark")->check(CLI::IsMember({"C", "F"}));
  verb->add_option("--separator", o.separator, "column separator, one character or \"tab\"");
  verb->add_option("--column", o.columns, "what a column holds, HEADING=ROLE such as \"Temperature=outside\"; may be given several times");
  verb->add_flag("--month-first", o.monthFirst, "dates are month/day/year");
}

/// A number that is one, from least to most.
CLI::Validator within(double least, double most) {
  return CLI::Validator(
      [least, most](std::string& text) {
        double value = 0.0;
        if (CLI::detail::lexical_cast(text, value) && value >= least && value <= most) return std::string(); // nan is neither
        return fmt::format("\"{}\" is not allowed: {:g} to {:g} is", text, least, most);
      },
      fmt::format("FLOAT in [{:g} - {:g}]", least, most));
}

int runNetworkVerb(const std::string& file, const std::string& out, bool json) {
  const auto document = readJson(file);
  if (!document) return report(file, document.problems());
  const auto network = networkFromJson(*document);
  if (!network) return report(file, network.problems());
  const auto run = runNetwork(*network);
  if (!run) return report(file, run.problems());
  if (!out.empty())
    if (const auto ok = writeFile(out, run->csv); !ok) return report(out, ok.problems());
  if (json)
    print(run->summary);
  else if (out.empty())
    std::fputs(run->csv.c_str(), stdout);
  else
    fmt::print("wrote {}; the energy balance closes to {:.1e}\n", out, run->summary["closure"].get<double>());
  return kDone;
}

int runCheck(const std::string& file, bool json) {
  const auto plan = readPlan(file);
  const Problems notes = plan ? planNotes(*plan) : Problems{};
  if (json) {
    Json out{{"ok", static_cast<bool>(plan)}, {"problems", Json::array()}};
    if (!plan)
      for (const Problem& p : plan.problems()) out["problems"].push_back({{"pointer", p.where}, {"what", p.what}, {"allowed", p.allowed}});
    out["notes"] = Json::array();
    for (const Problem& p : notes) out["notes"].push_back({{"pointer", p.where}, {"what", p.what}, {"instead", p.allowed}});
    if (plan) out["cautions"] = cautionsAnswer(*plan);
    print(out);
  }
  if (!plan) return report(file, plan.problems());
  if (!json) {
    fmt::print("{}: \"{}\" is sound\n", file, plan->name);
    for (const Problem& p : notes) fmt::print("  {}\n", p.text());
  }
  return kDone;
}

int runLoss(const std::string& file, double inside, double outside, double wind, double clear, bool json) {
  const auto plan = readPlan(file);
  if (!plan) return report(file, plan.problems());
  const auto loss = steadyLoss(*plan, inside, outside, wind, clear);
  if (!loss) return report(file, loss.problems());
  if (json) {
    print(lossAnswer(*loss));
    return kDone;
  }
  fmt::print("{:.2f} kW to hold {:g} C at {:g} C outside\n", loss->total_W / 1000.0, inside, outside);
  for (const LossPart& p : loss->parts) fmt::print("  {:<12} {:8.0f} W\n", partId(p.part), p.loss_W);
  return kDone;
}

/// What else may be asked of a log's nights.
struct NightQuestions {
  std::optional<double> line_C, growingBase_C;
  std::vector<double> annualLow_C;
};

/// The site as far as it was said.
struct GivenPlace {
  std::optional<double> latitude_deg, longitude_deg;
};

/// Of any unit that the aids understand; says what is allowed where it is not.
std::optional<double> temperatureGiven(const char* option, const std::string& text) {
  constexpr double kMost_C = 60.0;
  const auto read = readMeasured(text, Kind::temperature);
  if (!read)
    std::fprintf(stderr, "%s: %s\n", option, read.problem().text().c_str());
  else if (!(std::abs(read->value) <= kMost_C))
    std::fprintf(stderr, "%s: \"%s\": allowed is -60 to 60 degrees C, -76 to 140 F\n", option, text.c_str());
  else
    return read->value;
  return std::nullopt;
}

/// Hours east of Greenwich that the log's own times are written with, such as 2031-01-05T06:00-06:00.
std::optional<double> writtenOffset_h(const std::string& file) {
  const auto bytes = readFile(file);
  if (!bytes) return std::nullopt;
  constexpr std::size_t kHead = 20000;
  const std::string head = bytes->substr(0, kHead);
  static const std::regex offset(R"(\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?([+-])(\d{2}):?(\d{2}))");
  std::smatch found;
  if (!std::regex_search(head, found, offset)) return std::nullopt;
  const double hours = std::stod(found[2]) + std::stod(found[3]) / 60.0;
  return found[1] == "-" ? -hours : hours;
}

/// What was not said is assumed, and told.
Place assumedPlace(const GivenPlace& given, const LogOptions& o, std::vector<std::string>& assumed) {
  constexpr double kLatitude_deg = 50.0, kDegreesAnHour = 15.0;
  Place place{given.latitude_deg.value_or(kLatitude_deg), given.longitude_deg.value_or(0.0), 0.0};
  if (!given.latitude_deg) assumed.push_back("latitude 50 degrees north: give --latitude");
  if (given.longitude_deg) return place;
  if (const auto hours = writtenOffset_h(o.file)) {
    place.longitude_deg = *hours * kDegreesAnHour;
    assumed.push_back(fmt::format("longitude {:g} degrees, from the offset of {:+g} h written in the log: give --longitude", place.longitude_deg, *hours));
  } else {
    assumed.push_back("longitude 0: give --longitude");
  }
  return place;
}

int runNights(const LogOptions& o, const GivenPlace& given, const NightQuestions& asked, bool json) {
  auto read = readLogFile(o, o.zone);
  if (!read) return report(o.file, read.problems());
  std::vector<std::string> assumed;
  const Place place = assumedPlace(given, o, assumed);
  for (const std::string& name : read->placeless) assumed.push_back(fmt::format("\"{}\" hangs outside: give --column", name));
  const auto zone = *TimeZone::named(o.zone);
  Log& log = read->log;
  const auto problems = flagProblems(log, place);
  const auto nights = cutNights(log, place, zone, asked.line_C);
  if (json) {
    Json answer = nightsAnswer(*read, problems, nights, zone);
    answer["log"]["assumed"] = assumed;
    answer["design"] = designAnswer(nights, asked.annualLow_C);
    if (asked.growingBase_C) answer["growing"] = growingAnswer(log, *asked.growingBase_C, zone);
    print(answer);
    return kDone;
  }
  for (const auto& what : assumed) fmt::print("assumed: {}\n", what);
  for (const auto& sentence : read->recognised) fmt::print("{}\n", sentence);
  for (const LogProblem& p : problems) fmt::print("{} {}: {} to {}, {} ({})\n", p.kind, p.channel, zone.iso(p.from), zone.iso(p.to), p.count, p.why);
  fmt::print("{:<11}{:>9}{:>9}{:>7}  sky\n", "night", "outside", "inside", "lift");
  for (const Night& n : nights)
    fmt::print("{:<11}{:>9}{:>9}{:>7}  {}{}\n", isoDate(n.date), n.outsideLow ? fmt::format("{:.1f}", n.outsideLow->value) : "-",
               n.insideLow ? fmt::format("{:.1f}", n.insideLow->value) : "-", n.lift_K() ? fmt::format("{:.1f}", *n.lift_K()) : "-", n.sky(),
               n.complete ? "" : ", incomplete");
  return kDone;
}

struct PlanAndWeather {
  Plan plan;
  std::shared_ptr<const Weather> weather;
  TimeZone zone;
};

/// On failure reports and returns nothing.
std::optional<PlanAndWeather> load(const std::string& planFile, const LogOptions& o) {
  const auto plan = readPlan(planFile);
  if (!plan) {
    report(planFile, plan.problems());
    return std::nullopt;
  }
  auto read = readLogFile(o, plan->site.timeZone);
  if (!read) {
    report(o.file, read.problems());
    return std::nullopt;
  }
  flagProblems(read->log, plan->site.place);
  auto weather = weatherFromLog(read->log, plan->site);
  if (!weather) {
    report(o.file, weather.problems());
    return std::nullopt;
  }
  return PlanAndWeather{*plan, std::make_shared<const Weather>(std::move(*weather)), *TimeZone::named(plan->site.timeZone)};
}

int runSimulate(const std::string& planFile, const LogOptions& o, const std::string& out, bool json) {
  const auto in = load(planFile, o);
  if (!in) return kBadInput;
  const Scene scene = makeScene(in->weather, in->plan);
  const auto run = simulate(in->plan, scene, {.series = true, .threads = static_cast<int>(std::thread::hardware_concurrency())});
  if (!run) return report(planFile, run.problems());
  if (!out.empty())
    if (const auto ok = writeFile(out, simulateSeries(in->plan, *run, *in->weather, in->zone)); !ok) return report(out, ok.problems());
  if (json) {
    print(simulateAnswer(in->plan, *run, *in->weather, in->zone));
    return kDone;
  }
  const Summary& s = run->summary;
  fmt::print("held {:g} C on {} of {} nights", in->plan.setpoints.hold_C, s.held, s.nights);
  if (s.leftOut) fmt::print(" ({} left out: outside readings are missing)", s.leftOut);
  fmt::print("\ncoldest {:.1f} C at {}\ncold owed {:.1f} K h\nheater {:.0f} kWh in {:.0f} days; a winter of 182 days like these {:.0f} kWh, {:.0f} {}\nenergy balance closes to {:.0e}\n", s.coldest_C,
             in->zone.iso(s.coldestAt), s.degreeHours_K_h, s.heater_kWh, s.winters * kWinterDays, s.heater_kWh / s.winters, s.cost.total(), in->plan.prices.currency, s.closure);
  const auto stores = storesOf(in->plan);
  for (std::size_t k = 0; k < stores.size() && k < s.stores.size(); ++k)
    fmt::print("{}: gave {:.0f} kWh, took {:.0f}, {:+.0f} in all\n", stores[k].name, s.stores[k].given_kWh, s.stores[k].taken_kWh,
               s.stores[k].given_kWh - s.stores[k].taken_kWh);
  return kDone;
}

int runSize(const std::string& planFile, const LogOptions& o, bool json, int threads) {
  const auto in = load(planFile, o);
  if (!in) return kBadInput;
  SizingOptions options;
  options.threads = threads;
  if (isatty(STDERR_FILENO))
    options.progress = [](std::size_t done, std::size_t of) {
      fmt::print(stderr, "\r{} of {}", done, of);
      if (done == of) fmt::print(stderr, "\n");
      return true;
    };
  const auto sizing = size(in->plan, in->weather, options);
  if (!sizing) return report(planFile, sizing.problems());
  const Json answer = sizeAnswer(in->plan, *sizing);
  if (json) {
    print(answer);
    return kDone;
  }
  const std::string& currency = in->plan.prices.currency;
  if (sizing->winner >= 0) {
    const SizedPackage& w = sizing->packages[static_cast<std::size_t>(sizing->winner)];
    fmt::print("cheapest that holds: {}\n  {:.0f} {} a winter: power {:.0f}, kit {:.0f}, {:.0f} h of work at {:.0f}\n", w.label, w.cost.total(), currency,
               w.cost.energy, w.cost.kit, w.cost.hours, w.cost.hoursMoney);
  } else {
    fmt::print("{}\n", answer["why_none"].get<std::string>());
  }
  fmt::print("cost against cold owed, {} packages simulated:\n", sizing->packages.size());
  for (const int i : sizing->frontier) {
    const SizedPackage& p = sizing->packages[static_cast<std::size_t>(i)];
    fmt::print("  {:6.0f} {}  {:7.1f} K h  held {}/{}  {}\n", p.cost.total(), currency, p.degreeHours_K_h, p.held, p.nights, p.label);
  }
  return kDone;
}

/// Of verbs with two files, whose problems name the one they are about.
int reportAsNamed(const Problems& problems) {
  for (const Problem& p : problems) std::fprintf(stderr, "%s\n", p.text().c_str());
  return kBadInput;
}

int runExport(const std::string& path, const std::string& folder) {
  const auto book = Book::open(path, Book::Mode::existing);
  if (!book) return reportAsNamed(book.problems());
  if (const auto ok = exportBook(*book, folder); !ok) return reportAsNamed(ok.problems());
  return kDone;
}

int runImport(const std::string& folder, const std::string& path) {
  if (const auto ok = importBook(folder, path); !ok) return reportAsNamed(ok.problems());
  return kDone;
}

int runSalvage(const std::string& path, const std::string& newBook, bool json) {
  const auto found = salvageBook(path, newBook);
  if (!found) return reportAsNamed(found.problems());
  if (json) {
    print({{"saved", found->saved}, {"doubtful", found->doubtful}, {"lost", found->lost}});
    return kDone;
  }
  for (const std::string& what : found->saved) fmt::print("saved: {}\n", what);
  for (const std::string& what : found->doubtful) fmt::print("doubtful: {}\n", what);
  for (const std::string& what : found->lost) fmt::print("lost: {}\n", what);
  return kDone;
}

/// Writes the calibrated plan where `out` names a file.
int runFit(const std::string& planFile, const LogOptions& o, const std::string& out, bool json) {
  const auto plan = readPlan(planFile);
  if (!plan) return report(planFile, plan.problems());
  auto read = readLogFile(o, plan->site.timeZone);
  if (!read) return report(o.file, read.problems());
  flagProblems(read->log, plan->site.place);
  auto weather = weatherFromLog(read->log, plan->site);
  if (!weather) return report(o.file, weather.problems());
  const auto zone = *TimeZone::named(plan->site.timeZone);
  const auto quick = quickFit(read->log, cutNights(read->log, plan->site.place, zone));
  if (!quick) return report(o.file, quick.problems());
  const auto parts = againstParts(*plan, *quick);
  auto full = calibrate(*plan, read->log, std::make_shared<const Weather>(std::move(*weather)));
  if (!full) return report(o.file, full.problems());
  full->found.date = isoDate(zone.localDate(read->log.time.back()));
  if (!out.empty()) {
    Plan fitted = *plan;
    fitted.calibration = full->found;
    if (const auto ok = writeFile(out, planToJson(fitted).dump(2) + "\n"); !ok) return report(out, ok.problems());
  }
  const auto together = houseLoss(*plan, *quick, *full);
  const Json answer = fitAnswer(*quick, parts ? std::optional(*parts) : std::nullopt, *full, together ? std::optional(*together) : std::nullopt);
  if (json) {
    print(answer);
    return kDone;
  }
  fmt::print("measured {:.0f} W/K (error {:.0f}) over {} heated nights", quick->UA_W_K(), quick->standardError_W_K(), quick->heated.size());
  if (parts) fmt::print(", calculated {:.0f} W/K", parts->calculated_W_K);
  fmt::print("\n");
  for (const auto& sentence : answer["explains"]) fmt::print("  {}\n", sentence.get<std::string>());
  for (const auto& [name, factor] : answer["full"].items())
    fmt::print("{:<9} x {:.2f} (error {:.2f})\n", name, factor["value"].get<double>(), factor["standard_error"].get<double>());
  fmt::print("lows of {} nights not fitted: off by {:.2f} K rms, {:.2f} K before\n", full->heldOut, full->lowAfter_K, full->lowBefore_K);
  for (std::size_t k = 1; k < full->sensors.size(); ++k)
    fmt::print("  \"{}\" on those nights: off by {:.2f} K rms, {:.2f} K before\n", full->sensors[k].channel, full->sensors[k].after_K, full->sensors[k].before_K);
  for (const auto& sentence : answer["remarks"]) fmt::print("  {}\n", sentence.get<std::string>());
  return kDone;
}

int runMaterials() {
  for (const CoverMaterial& m : coverMaterials())
    fmt::print("{:<17} {:<38} long-wave e {:.2f} t {:.2f}  sun {:.2f}  R {:.3f}  ({}; {})\n", m.id, m.name, m.longwave.emissivity, m.longwave.transmittance,
               m.solarTransmittance, m.resistance_m2K_W, m.range, m.source);
  for (const FloorCover& m : floorCovers()) fmt::print("{:<17} {:<38} k {:.2f} W/mK  ({})\n", m.id, m.name, m.conductivity_W_mK, m.source);
  for (const SoilMaterial& m : soilMaterials()) fmt::print("{:<17} {:<38} k {:.2f} W/mK  ({}; {})\n", m.id, m.name, m.conductivity_W_mK, m.range, m.source);
  for (const CompostIngredient& i : compostIngredients())
    fmt::print("{:<17} {:<38} water {:.2f}  C:N {:.0f}  {:.0f} kg/m3  ({})\n", i.id, i.name, i.moisture, i.carbonNitrogen, i.bulk_kg_m3, i.source);
  return kDone;
}

int listAids(bool json) {
  if (json) {
    print(aidsAnswer());
    return kDone;
  }
  for (const Aid& aid : aids()) {
    fmt::print("{}: {}\n  {}\n", aid.name, aid.what, aid.formula);
    for (const AidInput& i : aid.inputs) fmt::print("  {:<12} {} (as \"{}\")\n", i.key, i.what, i.typical);
  }
  return kDone;
}

/// `given` are "key=value" with any unit.
int runCalc(const std::string& name, const std::vector<std::string>& given, bool json) {
  const Aid* aid = aidNamed(name);
  if (!aid) {
    std::fprintf(stderr, "calc: \"%s\" is not known, see `muffle-cli calc --list`\n", name.c_str());
    return kUsage;
  }
  Problems problems;
  std::vector<std::optional<Measured>> read(aid->inputs.size());
  for (const std::string& pair : given) {
    const auto equals = pair.find('=');
    const std::string key = pair.substr(0, equals);
    const auto input = std::find_if(aid->inputs.begin(), aid->inputs.end(), [&](const AidInput& i) { return i.key == key; });
    if (equals == std::string::npos || input == aid->inputs.end()) {
      problems.push_back({ProblemKind::badInput, key, "is not asked for", fmt::format("{} takes the keys that `muffle-cli calc --list` shows", name)});
      continue;
    }
    auto value = readMeasured(pair.substr(equals + 1), input->kind);
    if (value) {
      read[static_cast<std::size_t>(input - aid->inputs.begin())] = *value;
    } else {
      Problem p = value.problem();
      p.where = key;
      problems.push_back(p);
    }
  }
  std::vector<Measured> inputs;
  for (std::size_t i = 0; i < read.size(); ++i) {
    const AidInput& input = aid->inputs[i];
    const bool wasBad = std::any_of(problems.begin(), problems.end(), [&](const Problem& p) { return p.where == input.key; });
    if (!read[i] && !wasBad)
      problems.push_back({ProblemKind::missing, input.key, "is missing", fmt::format("{}, as {}={}", input.what, input.key, input.typical)});
    inputs.push_back(read[i].value_or(Measured{}));
  }
  if (!problems.empty()) return report(name, problems);
  const auto answer = work(*aid, inputs);
  if (!answer) return report(name, answer.problems());
  if (json) {
    print(aidAnswer(*aid, inputs, *answer));
    return kDone;
  }
  for (std::size_t k = 0; k < answer->size(); ++k) fmt::print("{}: {}\n", aid->outputs[k].what, textOf((*answer)[k], aid->outputs[k].kind));
  return kDone;
}

} // namespace

static int run(int argc, char** argv) {
  CLI::App app{"Muffle: what holds the setpoints through the logged nights, and what it costs", "muffle-cli"};
  app.require_subcommand(1);
  bool json = false;
  std::string file, second, out;
  LogOptions log;
  double wind = 2.0, clear = 1.0;
  std::string insideText, outsideText;
  GivenPlace place;
  int threads = 0;
  const auto jsonFlag = [&](CLI::App* v) { v->add_flag("--json", json, "one JSON document on standard output"); };

  auto* network = app.add_subcommand("network", "integrate an explicit network");
  network->add_option("NET.json", file)->required();
  network->add_option("--out", out, "series as CSV");
  jsonFlag(network);
  auto* check = app.add_subcommand("check", "validate a plan");
  check->add_option("PLAN.json", file)->required();
  jsonFlag(check);
  auto* loss = app.add_subcommand("loss", "heat loss by part");
  loss->add_option("PLAN.json", file)->required();
  loss->add_option("--inside", insideText, "such as 2.5, 2.5C or 36F")->required();
  loss->add_option("--outside", outsideText, "the same")->required();
  loss->add_option("--wind", wind, "m/s")->check(within(0.0, 60.0));
  loss->add_option("--sky-clear", clear, "0 overcast to 1 clear")->check(within(0.0, 1.0));
  jsonFlag(loss);
  auto* nights = app.add_subcommand("nights", "clean a log, cut and describe its nights");
  nights->add_option("LOG.csv", log.file)->required();
  nights->add_option("--latitude", place.latitude_deg, "of the site, for sunset")->check(within(-66.0, 66.0));
  nights->add_option("--longitude", place.longitude_deg)->check(within(-180.0, 180.0));
  nights->add_option("--zone", log.zone, "time zone of clock times without an offset");
  NightQuestions asked;
  nights->add_option("--line", asked.line_C, "count degree-hours of the inside below this, degC")->check(within(-60.0, 60.0));
  nights->add_option("--base", asked.growingBase_C, "count growing degree-hours and days above this, degC (with --json)")->check(within(-60.0, 60.0));
  nights->add_option("--annual-lows", asked.annualLow_C, "the coldest of each winter, degC, for rarer nights (with --json)")->delimiter(',')->check(within(-90.0, 60.0));
  addLogOptions(nights, log);
  jsonFlag(nights);
  auto* simulateVerb = app.add_subcommand("simulate", "run a plan over a log");
  simulateVerb->add_option("PLAN.json", file)->required();
  simulateVerb->add_option("--log", log.file)->required();
  simulateVerb->add_option("--out", out, "every step as CSV");
  addLogOptions(simulateVerb, log);
  jsonFlag(simulateVerb);
  auto* sizeVerb = app.add_subcommand("size", "least cost over the plan's measures");
  sizeVerb->add_option("PLAN.json", file)->required();
  sizeVerb->add_option("--log", log.file)->required();
  sizeVerb->add_option("--threads", threads, "0 for all cores; never changes the answer")->check(within(0, 256));
  bool exhaustive = false;
  sizeVerb->add_flag("--exhaustive", exhaustive, "simulate every combination (always so in this version)");
  addLogOptions(sizeVerb, log);
  jsonFlag(sizeVerb);
  auto* exportVerb = app.add_subcommand("export", "write a book as JSON and CSV files");
  exportVerb->add_option("BOOK", file)->required();
  exportVerb->add_option("DIR", second)->required();
  auto* importVerb = app.add_subcommand("import", "make a book from an export");
  importVerb->add_option("DIR", file)->required();
  importVerb->add_option("BOOK", second)->required();
  auto* salvageVerb = app.add_subcommand("salvage", "what can be saved of a damaged book, into a new one, and what is lost");
  salvageVerb->add_option("BOOK", file)->required();
  salvageVerb->add_option("NEW", second)->required();
  jsonFlag(salvageVerb);
  auto* fitVerb = app.add_subcommand("fit", "what a log says the house really loses, and the model put right by it");
  fitVerb->add_option("PLAN", file)->required();
  fitVerb->add_option("LOG", log.file)->required();
  fitVerb->add_option("--out", out, "the plan with what was found");
  fitVerb->add_flag("--json", json);
  addLogOptions(fitVerb, log);
  auto* calcVerb = app.add_subcommand("calc", "measuring aids: `calc NAME key=value ...`, values with any unit and, if known, +- what they are off by");
  std::string aidName;
  std::vector<std::string> given;
  bool list = false;
  calcVerb->add_option("NAME", aidName);
  calcVerb->add_option("key=value", given);
  calcVerb->add_flag("--list", list, "the aids, with what they take");
  jsonFlag(calcVerb);
  auto* materials = app.add_subcommand("materials", "list skins, soils and what compost is made of, with ranges and sources");
  auto* schema = app.add_subcommand("schema", "print the JSON Schema of a plan");
  bool tables = false;
  schema->add_flag("--tables", tables, "the same for people, as Markdown");

  try {
    app.parse(argc, argv);
  } catch (const CLI::CallForHelp& e) { return app.exit(e); } catch (const CLI::ParseError& e) {
    app.exit(e, std::cerr, std::cerr);
    return kUsage;
  }
  try {
    if (*network) return runNetworkVerb(file, out, json);
    if (*check) return runCheck(file, json);
    if (*loss) {
      const auto inside = temperatureGiven("--inside", insideText), outside = temperatureGiven("--outside", outsideText);
      return inside && outside ? runLoss(file, *inside, *outside, wind, clear, json) : kUsage;
    }
    if (*nights) return runNights(log, place, asked, json);
    if (*simulateVerb) return runSimulate(file, log, out, json);
    if (*sizeVerb) return runSize(file, log, json, threads);
    if (*fitVerb) return runFit(file, log, out, json);
    if (*exportVerb) return runExport(file, second);
    if (*importVerb) return runImport(file, second);
    if (*salvageVerb) return runSalvage(file, second, json);
    if (*calcVerb) return list || aidName.empty() ? listAids(json) : runCalc(aidName, given, json);
    if (*materials) return runMaterials();
    if (*schema) {
      if (tables)
        fmt::print("{}", planTables(planSchema()));
      else
        print(planSchema());
      return kDone;
    }
  } catch (const std::bad_alloc&) {
    std::fputs("muffle-cli: there is not enough memory for this; give it less at once\n", stderr);
    return kBadInput;
  } catch (const Json::type_error&) { // a name that is no UTF-8, met only when it is to be written
    std::fputs("muffle-cli: a text in this input is not UTF-8 and cannot be written as JSON; UTF-8 is needed\n", stderr);
    return kBadInput;
  } catch (const std::exception& e) { // a library's last word; none is known
    std::fprintf(stderr, "muffle-cli: %s\n", e.what());
    return kBadInput;
  }
  return kUsage;
}

int main(int argc, char** argv) {
  const int code = run(argc, argv);
  // an answer that did not get out is none: a full disk, a closed output
  if (std::fflush(stdout) != 0 || std::ferror(stdout)) {
    std::fprintf(stderr, "muffle-cli: standard output cannot be written: %s\n", std::strerror(errno));
    return code == kDone ? kBadInput : code;
  }
  return code;
}
