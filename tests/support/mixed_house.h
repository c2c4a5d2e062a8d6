// SPDX-License-Identifier: GPL-3.0-or-later
//
// A small network that has a link of every kind.
#pragma once

#include "core/network/network.h"

namespace muffle {

/// Every kind of link and source, two of each modulated; node 0 and 1 are free with their neighbours, "out" and "sky" are given.
inline Network mixedHouse() {
  Network net;
  const int air = net.addNode("air", 400e3, 9.0);
  const int film = net.addNode("film", 30e3, 4.0);
  const int water = net.addNode("water", 2e6, 12.0);
  const int floor = net.addNode("floor", 900e3, 8.0);
  const int out = net.addBoundary("out", Driver::sine(-3.0, 4.0, 86400.0, 50000.0));
  const int sky = net.addBoundary("sky", Driver::constant(-22.0));
  const int vapour = net.addNode("vapour", 250e3, 6.3); // wetter than the film bears, drier than the floor
  const int damp = net.addBoundary("damp", Driver::constant(3.0));
  Signal wind;
  wind.value = {0.5, 1.5, 0.7};
  wind.step_s = 3600.0;
  Signal blanket;
  blanket.value = {0.0, 1.0, 0.4};
  blanket.step_s = 3600.0;
  blanket.hold = true;
  const int windy = net.addSignal(wind);
  const int closed = net.addSignal(blanket);
  net.addConductance(air, water, 60.0);
  net.addConductance(air, water, 15.0);
  net.addConductance(film, out, 300.0).modulator = windy;
  net.addConductance(air, out, 25.0).modulator = windy;
  net.addNatural(air, film, 70.0, 1.7, 1.0 / 3.0).vapour = vapour;
  Link& soil = net.addNatural(air, floor, 50.0, 1.5, 0.25);
  soil.modulator = closed;
  soil.vapour = vapour;
  soil.wetShare = 0.4;
  net.addEvaporative(air, vapour, 90.0).modulator = windy;
  net.addConductance(vapour, damp, 60.0).modulator = windy;
  net.addRadiative(floor, film, 45.0);
  net.addRadiative(film, sky, 40.0);
  net.addRadiative(floor, sky, 12.0).modulator = closed;
  net.addAdvective(out, air, 35.0);
  net.addAdvective(water, floor, 20.0);
  net.vents.push_back({air, out, air, 6.0, 14.0, 200.0, ""});
  net.vents.push_back({vapour, damp, air, 5.0, 11.0, 80.0, "", closed});
  Signal sun;
  sun.value = {0.0, 500.0, 900.0};
  sun.step_s = 3600.0;
  const int shine = net.addSignal(sun);
  net.sources.push_back({floor, Driver::table(shine, 2.0, 30.0), "sun on the floor"});
  net.sources.push_back({air, Driver::table(shine, 0.5), "sun on leaves"});
  net.sources.push_back({air, Driver::constant(150.0), "lamp"});
  return net;
}

} // namespace muffle
