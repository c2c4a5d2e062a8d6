// SPDX-License-Identifier: GPL-3.0-or-later
//
// A window that edits and imports without end, to be killed: `muffle_app_tests --edit-without-end BOOK`. Each edit is told on standard output
// once it is in the book.
#pragma once

#include "core/log/log.h"

namespace muffle {

/// So many readings of outside, ten minutes apart, as many as the log says in its name.
Log numberedLog(int rows);

/// 1 if the book cannot be opened; else it does not return while it lives.
int editWithoutEnd(const char* book);

} // namespace muffle
