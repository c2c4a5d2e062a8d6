// SPDX-License-Identifier: GPL-3.0-or-later
//
// What may be added to a plan: a row for each kind of measure, with all that is to be known of it. A new kind is a row here, its name in MeasureKind,
// and its words in the window (app/stages/measures_editor.cpp).
#pragma once

#include "core/message.h"
#include "core/plan/plan.h"

#include <array>
#include <string>
#include <vector>

namespace muffle {

/// Below the heater before it, of one that is built in beside it.
inline constexpr double kNextStage_K = 0.5;

/// What a measure's levels are.
enum class LevelOf { none, count, power_W, airChanges_per_h, depth_m, length_m, colder_K, area_m2, any };
/// What its price is of.
enum class PricedBy { nothing, whole, each, kilowatt, cover_m2, floor_m2, perimeter_m, level_m2 };

struct MeasureRow {
  MeasureKind kind;
  const char* id; ///< in a plan's JSON
  LevelOf levelOf;
  PricedBy pricedBy;
  bool isDrawnDaily; ///< its hours a night count by the nights on which it is drawn or tucked in, which a run finds
  bool isUsual;      ///< among what is set against each other where a plan lists nothing
  Measure usual;     ///< as it is usually bought
  Message (*label)(const Message& name, double level);
  void (*apply)(Plan& plan, const Measure& measure, double level);
  /// The same where one of its kind has been built in already: heaters stand beside each other. nullptr: as apply.
  void (*also)(Plan& plan, const Measure& measure, double level);
  /// Makes a house that needs no more heat than any with one of the measure's levels, or with none: what the search's bounds are of (docs/sizing.md). False
  /// where there is none for this plan.
  bool (*relax)(Plan& plan, const Measure& measure);
  /// One each with a size made to fit this house; none where it has it already or there is no room for it.
  std::vector<Measure> (*suggest)(const Plan& plan, const Measure& usual);
};

const std::array<MeasureRow, kMeasureKindCount>& measureTable();
const MeasureRow& rowOf(MeasureKind kind);
/// How many sizes it has besides "not".
int levelCount(const Measure& measure);
/// Of one of its sizes, by its place among them.
double levelAt(const Measure& measure, int place);
/// What a level of it costs to buy for this house, in the plan's currency.
double measureCapital(const Plan& plan, const Measure& measure, double level);

} // namespace muffle
