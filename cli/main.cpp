// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle-cli: a thin shell over core and book. Takes the command line apart; what each verb does stands in verbs.h. Exit 0 done, 2 wrong usage,
// 3 bad input.
#include "cli/plan_tables.h"
#include "cli/verbs.h"
#include "core/calc/quantity.h"
#include "core/plan/plan_json.h"
#include "words/words.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <cerrno>
#include <cmath>
#include <cstdio>
#include <cstring>

using namespace muffle;

namespace {

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

/// Of any unit that the aids understand; says what is allowed where it is not.
std::optional<double> temperatureGiven(const char* option, const std::string& text) {
  constexpr double kMost_C = 60.0;
  const auto read = readMeasured(text, QuantityKind::temperature);
  if (!read)
    std::fprintf(stderr, "%s: %s\n", option, english(read.problem()).c_str());
  else if (!(std::abs(read->value) <= kMost_C))
    std::fprintf(stderr, "%s: \"%s\": allowed is -60 to 60 degrees C, -76 to 140 F\n", option, text.c_str());
  else
    return read->value;
  return std::nullopt;
}

int run(int argc, char** argv) {
  CLI::App app{"Muffle: what holds the setpoints through the logged nights, and what it costs", "muffle-cli"};
  app.require_subcommand(1);
  bool json = false;
  std::string file, second, out;
  LogOptions log;
  double wind = 2.0, clear = 1.0;
  std::string insideText, outsideText;
  GivenPlace place;
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
  nights->add_option("--annual-lows", asked.annualLow_C, "the coldest of each winter, degC, for rarer nights (with --json)")
      ->delimiter(',')
      ->check(within(-90.0, 60.0));
  addLogOptions(nights, log);
  jsonFlag(nights);
  auto* simulateVerb = app.add_subcommand("simulate", "run a plan over a log");
  simulateVerb->add_option("PLAN.json", file)->required();
  simulateVerb->add_option("--log", log.file)->required();
  simulateVerb->add_option("--out", out, "every step as CSV");
  addLogOptions(simulateVerb, log);
  jsonFlag(simulateVerb);
  auto* failVerb = app.add_subcommand("fail", "something fails: how long each line holds, and what would have held it");
  FailureAsked failure;
  failVerb->add_option("PLAN.json", file)->required();
  failVerb->add_option("--log", log.file)->required();
  failVerb->add_option("--what", failure.what, "mains, stoker, heater:ID, fan:ID, blanket:open or blanket:shut")->required();
  failVerb->add_option("--from", failure.from, "clock of the place, such as 22:30; without it 02:00");
  failVerb->add_option("--for", failure.for_h, "hours it lasts, 0.1 to 240");
  auto* night = failVerb->add_option("--night", failure.night, "date of the night's evening; without it the coldest");
  failVerb->add_flag("--worst", failure.worst, "the worst moment of all, found by trying every hour")->excludes(night);
  failVerb->add_option("--line", failure.lines_C, "a temperature to watch, degC, beside the plan's own")->delimiter(',')->check(within(-60.0, 60.0));
  addLogOptions(failVerb, log);
  jsonFlag(failVerb);
  auto* sizeVerb = app.add_subcommand("size", "least cost over the plan's measures");
  sizeVerb->add_option("PLAN.json", file)->required();
  sizeVerb->add_option("--log", log.file)->required();
  SizeOptions sizeOptions;
  sizeVerb->add_option("--threads", sizeOptions.threads, "0 for all cores; never changes the answer")->check(within(0, 256));
  sizeVerb->add_flag("--exhaustive", sizeOptions.exhaustive, "simulate every combination, up to 100 000 of them")
      ->excludes(sizeVerb->add_option("--time", sizeOptions.time_s, "seconds after which it ends with the best it has, perhaps not proved")
                     ->check(within(0.1, 86400.0)));
  sizeVerb->add_option(
      "--holds", sizeOptions.holds,
      "what counts as holding: all, all-but:K nights, cold:H degree-hours a winter; and with commas return:YEARS, any-heater-out, mains-off:HOURS");
  sizeVerb->add_option("--limit", sizeOptions.limit, "with commas: spend:MONEY, hours:A-WEEK, supply:KW, trench:M, fuel-store:KWH, no-fire-asleep");
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
  auto* crops = app.add_subcommand("crops", "list crops: what harms them, how they grow, with ranges and sources");
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
    if (*failVerb) return runFail(file, log, failure, json);
    if (*sizeVerb) return runSize(file, log, json, sizeOptions);
    if (*fitVerb) return runFit(file, log, out, json);
    if (*exportVerb) return runExport(file, second);
    if (*importVerb) return runImport(file, second);
    if (*salvageVerb) return runSalvage(file, second, json);
    if (*calcVerb) return list || aidName.empty() ? listAids(json) : runCalc(aidName, given, json);
    if (*materials) return runMaterials();
    if (*crops) return runCrops();
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

} // namespace

int main(int argc, char** argv) {
  const int code = run(argc, argv);
  // an answer that did not get out is none: a full disk, a closed output
  if (std::fflush(stdout) != 0 || std::ferror(stdout)) {
    std::fprintf(stderr, "muffle-cli: standard output cannot be written: %s\n", std::strerror(errno));
    return code == kDone ? kBadInput : code;
  }
  return code;
}
