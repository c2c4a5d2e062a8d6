// SPDX-License-Identifier: GPL-3.0-or-later
//
// What can be saved of a damaged book. The book itself is not touched: a copy is read row by row, what is whole and sound goes into a new
// book, and everything that is lost or doubtful is named.
#pragma once

#include "core/status.h"

#include <string>
#include <vector>

namespace muffle {

struct Salvaged {
  std::vector<Message> saved;    ///< whole, as it was written: "the plan "Tunnel""
  std::vector<Message> doubtful; ///< saved, but not as it was written or not all of it: to be looked over
  std::vector<Message> lost;
};

/// Problem if `path` holds nothing of a book that can be read, or `newBook` exists already or cannot be made; nothing is left of it then.
Result<Salvaged> salvageBook(const std::string& path, const std::string& newBook);

} // namespace muffle
