// SPDX-License-Identifier: GPL-3.0-or-later
//
// The demo: an invented flower yard's plan and log, in a book of its own.
#pragma once

#include <QString>

#include <optional>

namespace muffle {

/// The folder with plan.json and log.csv that came with this program; nothing if they are not there.
std::optional<QString> demoFolder();
/// A fresh book at `path` with the plan of `folder`; the log is imported by the window, as a grower would. False if either fails.
bool makeDemoBook(const QString& path, const QString& folder);

} // namespace muffle
