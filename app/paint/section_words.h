// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCoreApplication>

namespace muffle::section {

/// Words written in the section.
inline QString tr(const char* text, const char* = nullptr, int n = -1) { return QCoreApplication::translate("Section", text, nullptr, n); }

} // namespace muffle::section
