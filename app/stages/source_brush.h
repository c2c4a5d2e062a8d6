// SPDX-License-Identifier: GPL-3.0-or-later
//
// What is drawn of a source of heat: a colour by what it is, a pattern by which of them.
#pragma once

#include "app/paint/theme.h"
#include "core/results/heat_sources.h"

#include <QBrush>

#include <iterator>

namespace muffle {

/// `among`: the how manieth of its sort.
inline QBrush sourceBrush(HeatSource::Of of, std::size_t among, const Theme& t) {
  constexpr Qt::BrushStyle kPatterns[] = {Qt::SolidPattern, Qt::BDiagPattern, Qt::Dense5Pattern, Qt::FDiagPattern, Qt::DiagCrossPattern, Qt::Dense3Pattern};
  const QColor colour = of == HeatSource::Of::sun ? t.weld : of == HeatSource::Of::store ? t.lichen : t.madder;
  return {colour, kPatterns[among % std::size(kPatterns)]};
}

} // namespace muffle
