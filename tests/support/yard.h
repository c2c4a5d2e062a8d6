// SPDX-License-Identifier: GPL-3.0-or-later
//
// A film tunnel of seven metres by fourteen on a hill, unheated, for tests of what is put into it.
#pragma once

#include "core/plan/plan.h"

namespace muffle::testing {

inline Plan yard() {
  Plan p;
  p.site.place = {45.0, 3.0, 700.0};
  p.site.timeZone = "UTC";
  p.house.shape = {ShapeKind::arch, 7.0, 14.0, 0.9, 3.3, 80.0};
  p.setpoints = {1.0, 2.5, 4.0};
  return p;
}

} // namespace muffle::testing
