// SPDX-License-Identifier: GPL-3.0-or-later
//
// How much each reader takes. Past a bound it refuses and names it; below it takes time in proportion to what it is given. They lie far beyond
// what a greenhouse needs: five winters of one-minute readings of thirty sensors are 2.6 million rows and 80 million cells.
#pragma once

#include <cstddef>

namespace muffle::bounds {

// a log's table
inline constexpr std::size_t kTableColumns = 256;
inline constexpr std::size_t kTableRows = 20'000'000;
inline constexpr std::size_t kTableCells = 200'000'000;
inline constexpr std::size_t kTableRowBytes = std::size_t{1} << 20;
// readings by hand
inline constexpr std::size_t kHandLines = 2000;
inline constexpr std::size_t kHandLineBytes = 400;
// what a station publishes
inline constexpr std::size_t kMessageBytes = 65536;
inline constexpr std::size_t kMessageReadings = 256;
// a network on its own
inline constexpr std::size_t kNetworkNodes = 2000;
inline constexpr std::size_t kNetworkLinks = 20'000;
inline constexpr double kNetworkSteps = 50e6;
inline constexpr double kNetworkCells = 20e6; ///< rows written times columns
// JSON: depth, keys and bytes stand with its reader, core/json/fields.h

} // namespace muffle::bounds
