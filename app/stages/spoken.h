// SPDX-License-Identifier: GPL-3.0-or-later
//
// Painted views for those who do not see them: each answers assistive technology with a list of what it shows, a name and a value to a line.
// Unless a view says more of itself, its list is what it paints, read off the painting, so that the two cannot differ.
#pragma once

#include <QString>

#include <vector>

class QWidget;

namespace muffle {

struct SpokenLine {
  QString name, value;
};

class Spoken {
public:
  virtual ~Spoken() = default;
  [[nodiscard]] virtual std::vector<SpokenLine> spoken() const = 0;
};

/// The words that a widget paints, line by line from above, each from the left: the first is the name, the others are the value.
std::vector<SpokenLine> paintedLines(const QWidget& widget);

/// From now on every widget that is Spoken answers with its lines. Once a program.
void speakPaintedViews();

} // namespace muffle
