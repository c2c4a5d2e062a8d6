// SPDX-License-Identifier: GPL-3.0-or-later
//
// How a book knows that it holds what was written. Every row carries a digest (XXH3, 64 bits) of its values, and one seal goes over the
// digests of all rows, so that an altered, a missing and an added row all show. Digests find accidents, not forgers.
#pragma once

#include "core/status.h"

#include <cstdint>
#include <string>
#include <vector>

struct sqlite3;

namespace muffle {

/// A table whose rows carry digests: `SELECT digest(<columns>)` is what `digest` must hold; `called` is an SQL expression that names a row.
struct SealedTable {
  const char* name;
  const char* columns;
  const char* named; ///< the column by which a row is known to people
};
const std::vector<SealedTable>& sealedTables();

/// Makes `digest(value, ...)` known to the connection.
void addDigestFunction(sqlite3* db);

/// Writes all digests anew where an older book has none. Within a transaction of the caller's.
Status digestAllRows(sqlite3* db);
/// The seal of the present digests, written. Within a transaction of the caller's.
Status seal(sqlite3* db);
/// What is wrong with the pages of the file, whatever is on them.
Problems pageDamageOf(sqlite3* db);
/// One problem for each thing, page or row, that is not as it was written; empty if all is.
Problems damageOf(sqlite3* db);

} // namespace muffle
