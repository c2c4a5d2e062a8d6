// SPDX-License-Identifier: GPL-3.0-or-later
//
// Reading and writing whole files. A written file appears whole or not at all.
#pragma once

#include "core/status.h"

#include <string>
#include <string_view>

namespace muffle {

/// Problem if the file is missing, a folder, or larger than 2 GiB.
Result<std::string> readFile(const std::string& path);
/// Writes beside the target, syncs and renames.
Status writeFile(const std::string& path, std::string_view bytes);

} // namespace muffle
