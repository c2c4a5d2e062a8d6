// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle-cases FILE.json...: runs numeric cases through core. A line a case: `ID pass`, `ID FAIL name got want
// tolerance`, `ID not built`; then `N passed, N failed, N not built`. Exit 1 if any failed, 2 for wrong usage, 3 for a
// file that cannot be read.
#include "tests/cases/adapters.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdio>
#include <fstream>
#include <sstream>

using namespace muffle;
using namespace muffle::cases;

namespace {

/// Empty if `got` is within tolerance of `want`, else what is wrong.
std::string compare(const Json& got, const Json& want, const Json& tolerance) {
  if (want.is_object() && (want.contains("min") || want.contains("max"))) {
    if (!got.is_number()) return "no number";
    const double v = got.get<double>();
    const double low = want.value("min", -1e300), high = want.value("max", 1e300);
    return v >= low && v <= high ? "" : fmt::format("{} outside {}..{}", v, low, high);
  }
  if (want.is_array()) {
    if (!got.is_array() || got.size() < want.size()) return fmt::format("{} values for {}", got.is_array() ? got.size() : 1, want.size());
    double worst = 0.0;
    std::string message;
    for (std::size_t i = 0; i < want.size(); ++i) {
      const std::string m = compare(got[i], want[i], tolerance);
      const double error = got[i].is_number() && want[i].is_number() ? std::abs(got[i].get<double>() - want[i].get<double>()) : 1e300;
      if (!m.empty() && error >= worst) worst = error, message = fmt::format("[{}] {}", i, m);
    }
    return message;
  }
  if (want.is_number()) {
    if (!got.is_number()) return "no number";
    const double g = got.get<double>(), w = want.get<double>();
    const double allowed = tolerance.value("abs", 0.0) + tolerance.value("rel", 0.0) * std::abs(w);
    return std::abs(g - w) <= allowed ? "" : fmt::format("got {:.10g} want {:.10g} tolerance {:.3g}", g, w, allowed);
  }
  return got == want ? "" : fmt::format("got {} want {}", got.dump(), want.dump());
}

} // namespace

int main(int argc, char** argv) {
  if (argc < 2) {
    std::fprintf(stderr, "usage: muffle-cases FILE.json...\n");
    return 2;
  }
  Adapters adapters;
  for (auto* add : {addAir, addSun, addEnvelope, addTransients, addGround, addHeaters, addStatistics, addGreenhouse, addStores, addLight, addBodies, addControl,
                    addMoney, addPlates})
    add(adapters);
  int passed = 0, failed = 0, notBuilt = 0;
  for (int f = 1; f < argc; ++f) {
    std::ifstream file(argv[f]);
    std::stringstream text;
    text << file.rdbuf();
    const auto document = parseJson(text.str());
    if (!file || !document || !document->contains("cases")) {
      std::fprintf(stderr, "%s: not a case file\n", argv[f]);
      return 3;
    }
    for (const Json& c : (*document)["cases"]) {
      const std::string id = c.at("id").get<std::string>();
      const auto it = adapters.find(c.at("calc").get<std::string>());
      std::string wrong;
      try {
        if (it == adapters.end()) throw NotBuilt{};
        const Json got = it->second(c.at("inputs"));
        for (const auto& [name, want] : c.at("expected").items()) {
          const std::string message = got.contains(name) ? compare(got[name], want, c.at("tolerance").value(name, Json::object())) : "no answer";
          if (!message.empty()) wrong += fmt::format("{}{} {}", wrong.empty() ? "" : "; ", name, message);
        }
      } catch (const NotBuilt&) {
        fmt::print("{} not built\n", id);
        ++notBuilt;
        continue;
      } catch (const std::exception& e) { wrong = fmt::format("exception: {}", e.what()); }
      if (wrong.empty()) {
        fmt::print("{} pass\n", id);
        ++passed;
      } else {
        fmt::print("{} FAIL {}\n", id, wrong);
        ++failed;
      }
    }
  }
  fmt::print("{} passed, {} failed, {} not built\n", passed, failed, notBuilt);
  return failed > 0 ? 1 : 0;
}
