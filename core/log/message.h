// SPDX-License-Identifier: GPL-3.0-or-later
//
// One reading as a station publishes it: the topic's last part names the sensor, the text is a number, with its unit or not, and its
// time before it or not ("2031-01-17T06:10:00Z -4.2 C", "-4.2"); or an object of several, {"time": ..., "outside [C]": -4.2}.
#pragma once

#include "core/log/log.h"
#include "core/status.h"

#include <string_view>

namespace muffle {

/// A log of one row. `now` stands where the message carries no time. The problem says what a message may be.
Result<Log> readMessage(std::string_view topic, std::string_view text, UtcSeconds now);

} // namespace muffle
