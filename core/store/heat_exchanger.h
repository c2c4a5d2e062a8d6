// SPDX-License-Identifier: GPL-3.0-or-later
//
// Effectiveness of a heat exchanger by its transfer units N = UA/C_min and the ratio r = C_min/C_max of its streams.
//   counterflow  (1 - exp(-N (1 - r)))/(1 - r exp(-N (1 - r))), N/(1 + N) for r = 1
//   parallel     (1 - exp(-N (1 + r)))/(1 + r)
//   one stream at a constant temperature (r = 0): 1 - exp(-N)
// Kays and London, Compact Heat Exchangers; Incropera and DeWitt, ch. 11.
#pragma once

namespace muffle {

enum class FlowArrangement { counterflow, parallel };

/// transferUnits >= 0, capacityRatio 0..1.
double exchangerEffectiveness(FlowArrangement arrangement, double transferUnits, double capacityRatio = 0.0);

/// The conductance, W/K, between what a stream comes from and what it exchanges with at one temperature.
/// flow_W_K: mass flow times specific heat of the stream, >= 0; ua_W_K >= 0.
double loopConductance_W_K(double flow_W_K, double ua_W_K);

} // namespace muffle
