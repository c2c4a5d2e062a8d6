// SPDX-License-Identifier: GPL-3.0-or-later
//
// The window's own page on paper: section, instrument, slip and scarf, with the cautions that belong under them.
#pragma once

#include "app/model/document.h"

#include <QWidget>

class QPrinter;

namespace muffle {

struct PrintedViews {
  QWidget *section, *instrument, *slip, *scarf;
};

/// Draws one landscape page. The views are drawn in the light theme whatever the window shows.
/// What stands under the page, and on a second one what goes with each thing of the plan, as HTML.
QString printedCautions(const Plan& plan);

void printPage(QPrinter& printer, const Document& document, const PrintedViews& views);
/// Print preview, from which the page is printed or saved as PDF.
void previewPage(QWidget* parent, Document& document, const PrintedViews& views);

} // namespace muffle
