// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a stage of the work is to the window around it. A new stage is its own files and one row of stages().
#pragma once

#include "app/model/document.h"

#include <functional>
#include <string_view>
#include <vector>

namespace muffle {

class SectionView;
class StagePage;

/// Names a stage: its class's kId, also the name of its picture.
using StageId = std::string_view;

/// What the thread says of a stage: a line, and how much of it is there, from 0 to 1.
struct Knot {
  QString line;
  double filled = 0.0;
};

/// What stands around a stage and what it may ask for there.
struct Bench {
  Document& document;
  SectionView& section;
  std::function<void(StageId)> show;
  std::function<void()> importLog, followFile, writeByHand;
};

struct StageRow {
  StageId id;
  const char* title; ///< for translation, stageTitle()
  Knot (*knot)(const Document&);
  StagePage* (*make)(const Bench&);
};

/// In their order along the thread.
const std::vector<StageRow>& stages();
QString stageTitle(const StageRow& row);
/// Its place along the thread; stages().size() if there is no such stage.
std::size_t stageIndex(StageId id);

} // namespace muffle
