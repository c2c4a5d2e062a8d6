// SPDX-License-Identifier: GPL-3.0-or-later
//
// A picture of every view, in both themes and both systems of units, so that they can be looked at.
#pragma once

#include <QString>

namespace muffle {

class Document;
class MainWindow;

/// Of the open demo book, as PNG files into a folder. 0, or an exit code.
int takeShots(Document& document, MainWindow& window, const QString& folder);

} // namespace muffle
