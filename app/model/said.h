// SPDX-License-Identifier: GPL-3.0-or-later
//
// What core and book answer in codes, in the window's words: in its language, and in the units it shows.
#pragma once

#include "app/model/units.h"
#include "words/words.h"

#include <QString>

namespace muffle {

QString said(const Message& message, const Units& units = {});
/// With the line or sensor that it is about; not with its place in a plan's file, which is for those who write files.
QString said(const Problem& problem, const Units& units = {});

} // namespace muffle
