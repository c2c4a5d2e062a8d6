// SPDX-License-Identifier: GPL-3.0-or-later
//
// The weather before a log begins: nobody measured it, so it is assumed. Its days follow the year's wave of the place,
// T = mean - amplitude cos(2 pi (day - coldest)/365), and pass within some ten days to what the log's first fortnight was off it; its hours
// swing as far as that fortnight's days did, clear and dull days alike; its wind is that fortnight's mean. Sun, sky and humidity follow from those temperatures
// as for any log that has no others (weather.h).
#pragma once

#include "core/weather/weather.h"

#include <optional>

namespace muffle {

/// The `days` before the winter's first step, hour by hour, ending there. Nothing if days < 1.
std::optional<Winter> weatherBefore(const Winter& logged, const Site& site, int days);

} // namespace muffle
