// SPDX-License-Identifier: GPL-3.0-or-later
//
// The house from above, as it lies to the compass: its rooms, beds and barrels, and the sun's way across the day.
#pragma once

#include "app/paint/section.h"

#include <vector>

namespace muffle {

/// Where the sun stood at one step of a day; below the horizon it is left out.
struct SunStand {
  double azimuth_deg = 0.0; ///< clockwise from north
  double height_deg = 0.0;  ///< above the horizon, > 0
};

struct SunWay {
  std::vector<SunStand> path;
  std::optional<SunStand> now;
};

/// Direction of a compass bearing on paper with north up: x right, y down.
QPointF bearing(double azimuth_deg);

void paintPlanView(QPainter& painter, const QRectF& area, const Plan& plan, const std::optional<SectionMoment>& moment, const SunWay& sun, const QString& title,
                   const QString& subtitle, const Theme& theme, const Units& units);

} // namespace muffle
