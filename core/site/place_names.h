// SPDX-License-Identifier: GPL-3.0-or-later
//
// Names of places as people type them: with or without accents, capitals, hyphens and apostrophes.
#pragma once

#include <string>
#include <string_view>

namespace muffle {

/// The form in which two spellings of a name are compared: small letters without marks (Unicode NFKD, by utf8proc; o-slash, barred l
/// and their like by their plain letter), every run of anything that is neither letter nor digit as one space, "st" and "ste" as
/// "saint" and "sainte". Text that is not UTF-8 folds to nothing.
std::string foldedName(std::string_view name);

} // namespace muffle
