// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCoreApplication>

namespace muffle::section {

/// Words written in the section.
inline QString tr(const char* text) { return QCoreApplication::translate("Section", text); }

} // namespace muffle::section
