// SPDX-License-Identifier: GPL-3.0-or-later
//
// How even a cable's warmth is in a bed: straight passes a distance apart, each a line that gives q watts a metre into soil of conductivity k.
// Their temperatures add up (Carslaw and Jaeger, Conduction of Heat in Solids, ch. 10; the row's sum is ln of 2(cosh - cos)): at y above
// the passes, the soil straight over one is warmer than halfway to the next by
//   q/(2 pi k) ln coth(pi y/s)
// which falls by a factor of 23 with every half of the distance s. The bed's surface levels it a little more.
#pragma once

namespace muffle {

/// K, while the cable heats; above_m and spacing_m > 0.
double cableUnevenness_K(double watts_per_m, double conductivity_W_mK, double spacing_m, double above_m);

} // namespace muffle
