// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a search found, so that it can be written down and shown again another day without searching.
#pragma once

#include "core/json/fields.h"
#include "core/sizing/package_scenes.h"
#include "core/sizing/sizing.h"

namespace muffle {

struct KeptSizing {
  Plan plan; ///< that was searched from
  Sizing sizing;
};

/// Each package by what its seasons took and how cold it was; what follows from that and from prices is worked out anew.
Json keptToJson(const Sizing& sizing, const Plan& plan);
/// Problems if it was not written by this form of keptToJson(), or if it was stopped: each package is built anew, a millisecond where measures are one's own.
Result<KeptSizing> keptFromJson(const Json& json, const std::atomic<bool>* stop = nullptr);

/// Runs the winner (the warmest, where nothing holds) again: true if it costs and misses what was written down, so that log, place and model are those of then.
/// Problem if it was stopped or cannot be run.
Result<bool> isStillSo(const KeptSizing& kept, PackageScenes& scenes, const std::atomic<bool>* stop = nullptr);

} // namespace muffle
