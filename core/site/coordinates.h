// SPDX-License-Identifier: GPL-3.0-or-later
//
// A place on the earth as people write or paste it: decimal degrees with sign or letters, degrees and minutes, with seconds.
//
//   parseCoordinates("45.21, 3.14")            parseCoordinates("45°12'36\"N 3°8'E")        parseCoordinates("33.4 S 70.6 W")
#pragma once

#include "core/status.h"

#include <string_view>

namespace muffle {

struct Coordinates {
  double latitude_deg = 0.0;  ///< -90..90, north positive
  double longitude_deg = 0.0; ///< -180..180, east positive
};

/// Latitude first unless letters say otherwise. The problem says what forms are understood.
Result<Coordinates> parseCoordinates(std::string_view text);

} // namespace muffle
