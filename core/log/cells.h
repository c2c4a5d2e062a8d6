// SPDX-License-Identifier: GPL-3.0-or-later
//
// The pieces of delimited text: rows, cells and numbers as loggers and people write them.
#pragma once

#include "core/status.h"

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

std::string lower(std::string_view text);  ///< ASCII letters only; UTF-8 passes through
std::string_view trim(std::string_view s); ///< of blanks, tabs and carriage returns
/// "", "-", "NaN", "n/a" and the like: a reading that is not there.
bool isMissing(std::string_view cell);
/// A finite number with a point, or with a comma if so said; a unit behind it is passed over ("12.3 C"); nothing if the cell is
/// anything else.
std::optional<double> parseNumber(std::string_view cell, bool decimalComma);

/// Feeds the rows to `sink` with their line numbers, from 1, until it returns false. Quoting by RFC 4180; malformed quoting is read as
/// it stands. The views last for the call only.
/// Problem at the first row that is wider or longer than bounds.h allows.
Status eachRow(std::string_view bytes, char separator, std::function<bool(const std::vector<std::string_view>&, long)> sink);

} // namespace muffle
