// SPDX-License-Identifier: GPL-3.0-or-later
//
// Undyed wool and natural dyes, by day and by lamp. The one place where colours and fonts are named.
#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>

namespace muffle {

struct Theme {
  QColor oat, wool, ink, fleece, seam; ///< ground, cards, text, quiet text, lines
  QColor woad, weld, madder, lichen;   ///< cold, between, warm and losing, stored and saved
  QColor skyNight, skyDusk, soilTop, soilDeep;
  bool dark = false;

  static const Theme& wool_();
  static const Theme& lamp();
  static const Theme& of(bool dark) { return dark ? lamp() : wool_(); }

  [[nodiscard]] QPalette palette() const;
  [[nodiscard]] QString styleSheet() const;
  /// Woad through wool to madder over -8..+16 degC, for air, soil and water.
  [[nodiscard]] QColor warmth(double celsius) const;
  /// How far a night's coldest stayed above (madder) or below (woad) the line, K.
  [[nodiscard]] QColor margin(double kelvin) const;
};

/// The ink, dark or light, that can be read on a colour.
QColor inkOn(const QColor& ground);

/// Loads the fonts that ship with the application; call before the first widget.
void loadFonts();
QFont textFont(double points, bool bold = false);
QFont titleFont(double points);

} // namespace muffle
