// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/answers.h"
#include "cli/verbs.h"

#include "core/calc/aids.h"
#include "core/calc/quantity.h"
#include "core/crop/crops.h"
#include "core/material/materials.h"
#include "core/store/ingredients.h"
#include "words/words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdio>

namespace muffle {

int runMaterials() {
  for (const CoverMaterial& m : coverMaterials())
    fmt::print("{:<17} {:<38} long-wave e {:.2f} t {:.2f}  sun {:.2f}  R {:.3f}  ({}; {})\n", m.id, english(nameOf(m)), m.longwave.emissivity, m.longwave.transmittance,
               m.solarTransmittance, m.resistance_m2K_W, m.range, m.source);
  for (const FloorCover& m : floorCovers()) fmt::print("{:<17} {:<38} k {:.2f} W/mK  ({})\n", m.id, english(nameOf(m)), m.conductivity_W_mK, m.source);
  for (const SoilMaterial& m : soilMaterials()) fmt::print("{:<17} {:<38} k {:.2f} W/mK  ({}; {})\n", m.id, english(nameOf(m)), m.conductivity_W_mK, m.range, m.source);
  for (const CompostIngredient& i : compostIngredients())
    fmt::print("{:<17} {:<38} water {:.2f}  C:N {:.0f}  {:.0f} kg/m3  ({})\n", i.id, english(nameOf(i)), i.moisture, i.carbonNitrogen, i.bulk_kg_m3, i.source);
  return kDone;
}

int runCrops() {
  for (const CropFacts& crop : cropTable()) {
    std::string harmed;
    for (int p = 0; p < kCropPartCount; ++p)
      for (const Exposure& e : crop.harmed[static_cast<std::size_t>(p)])
        harmed += fmt::format("{}{} {:g} C for {:g} h", harmed.empty() ? "" : ", ", idOf(static_cast<CropPart>(p)), e.at_C, e.for_h);
    if (const auto& g = crop.growth) harmed += fmt::format("; grows from {:g} C, best at {:g}, to {:g}", g->base_C, g->best_C, g->tooWarm_C);
    fmt::print("{:<18} {:<26} {}  ({}; {})\n", crop.id, english(nameOf(crop)), harmed, crop.range, crop.source);
  }
  return kDone;
}

int listAids(bool json) {
  if (json) {
    print(aidsAnswer());
    return kDone;
  }
  for (const Aid& aid : aids()) {
    fmt::print("{}: {}\n  {}\n", aid.name, english(whatOf(aid)), english(formulaOf(aid)));
    for (const AidInput& i : aid.inputs) fmt::print("  {:<12} {} (as \"{}\")\n", i.key, english(whatOf(aid, i.key)), i.typical);
  }
  return kDone;
}

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
      problems.push_back({ProblemKind::badInput, key, Message{"aid.is-not-asked-for"}, Message{"aid.takes-keys", name}});
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
      problems.push_back(
          {ProblemKind::missing, input.key, Message{"aid.is-missing"}, Message{"aid.as-written", whatOf(*aid, input.key), input.key, input.typical}});
    inputs.push_back(read[i].value_or(Measured{}));
  }
  if (!problems.empty()) return report(name, problems);
  const auto answer = work(*aid, inputs);
  if (!answer) return report(name, answer.problems());
  if (json) {
    print(aidAnswer(*aid, inputs, *answer));
    return kDone;
  }
  for (std::size_t k = 0; k < answer->size(); ++k)
    fmt::print("{}: {}\n", english(whatOf(*aid, aid->outputs[k].key)), textOf((*answer)[k], aid->outputs[k].kind));
  return kDone;
}

} // namespace muffle
