// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a log must be before anything is made of it, wherever it comes from: a book, an export, a file.
#pragma once

#include "core/log/log.h"
#include "core/status.h"

namespace muffle {

/// At least one row and one column; times one later than the other, from 1900 to 2200 and over no more than 120 years; columns as long
/// as the rows, of known roles, statistics and flags. The problem names the column or row.
Status soundLog(const Log& log);

} // namespace muffle
