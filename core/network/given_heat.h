// SPDX-License-Identifier: GPL-3.0-or-later
//
// Heat that comes as it comes, whatever a sensor says: a fire's, by its curve, known beforehand. What there is of it over a step is an energy, and
// what it is at the step's end a power: the one keeps what is burnt, by the other the quick nodes go.
#pragma once

#include <vector>

namespace muffle {

struct GivenHeat {
  struct Part {
    double at_W = 0.0;   ///< as it begins, >= 0
    double mean_W = 0.0; ///< over it, >= 0
  };
  double step_s = 600.0;   ///< > 0, from the solver's time 0
  std::vector<Part> parts; ///< by step; nothing beyond
  double near_W = 0.0;     ///< a step may end so far off its power there to give its energy
  double bend_W = 0.0;     ///< so far off the line through the step before it, it counts as a jump

  /// Over a step of h from a time on, and the next of that length; and at their ends.
  struct Steps {
    double energy_J, nextEnergy_J;
    double end_W, nextEnd_W;
    bool isLast; ///< none after the first gives anything: what is owed is to be given in it
  };
  [[nodiscard]] Steps steps(double from_s, double h) const;
  [[nodiscard]] double energy_J(double from_s, double to_s) const;
  /// In straight lines between steps.
  [[nodiscard]] double power_W(double t_s) const;
};

} // namespace muffle
