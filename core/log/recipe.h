// SPDX-License-Identifier: GPL-3.0-or-later
//
// How one logger's files are read, kept under a name for the next file with the same headings.
//
//   if (const Recipe* known = recipeFor(recipes, read->headings)) options = withRecipe(options, *known);
#pragma once

#include "core/json/fields.h"
#include "core/log/read.h"

#include <string>
#include <vector>

namespace muffle {

enum class Clockwork : std::uint8_t { place, winterTime, utc }; ///< the place's own, without summer time, or UTC

struct Recipe {
  std::string name;
  std::optional<char> separator;
  std::optional<bool> decimalComma, monthFirst, fahrenheit;
  Clockwork clock = Clockwork::place;
  std::vector<ColumnChoice> columns; ///< every column but the time's
  bool operator==(const Recipe&) const = default;
};

Json recipeToJson(const Recipe& recipe);
/// Problems with JSON pointers if anything is unknown or out of range.
Result<Recipe> recipeFromJson(const Json& json);

/// The first whose columns are those of a file with these headings; null if none.
const Recipe* recipeFor(const std::vector<Recipe>& recipes, const std::vector<std::string>& headings);
/// `options` with what the recipe says; a clock without summer time is the place's in mid-winter.
ReadOptions withRecipe(ReadOptions options, const Recipe& recipe);
/// What was chosen for a file, with the channels as they were read or changed since.
Recipe recipeOf(const std::string& name, const ReadOptions& options, Clockwork clock, const ReadLog& read);
TimeZone clockOf(Clockwork clock, const TimeZone& place);

// the grower's decisions and the reader's notes, as they are stored beside a log
Json recordToJson(const Log& log);
Status recordFromJson(const Json& json, Log& log);

} // namespace muffle
