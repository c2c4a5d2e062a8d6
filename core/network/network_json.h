// SPDX-License-Identifier: GPL-3.0-or-later
//
// The explicit network as JSON, schema "muffle-network-1", and a run of it as CSV and JSON. docs/network-format.md.
#pragma once

#include "core/json/fields.h"
#include "core/network/network.h"

#include <string>

namespace muffle {

/// Every problem is reported with its JSON pointer.
Result<Network> networkFromJson(const Json& document);
Json networkToJson(const Network& network);

struct NetworkRun {
  std::string csv; ///< t_s, every node and solid surface in degC, every thermostat's mean power since the last row
  Json summary;    ///< joules by thermostat, source and boundary, storage change, closure
};
Result<NetworkRun> runNetwork(const Network& network);

} // namespace muffle
