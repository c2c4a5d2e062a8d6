// SPDX-License-Identifier: GPL-3.0-or-later
//
// A file's bytes as the text the reader works on.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace muffle {

/// Without a byte order mark; UTF-16 with one becomes UTF-8, columns set by runs of blanks become columns set by tabs. `own` keeps what
/// had to be made anew and must outlive the answer.
std::string_view plainText(std::string_view bytes, std::optional<char> separator, std::string& own);

} // namespace muffle
