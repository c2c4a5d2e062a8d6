// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/stage.h"

#include "app/stages/cost_stage.h"
#include "app/stages/heat_stage.h"
#include "app/stages/house_stage.h"
#include "app/stages/log_stage.h"
#include "app/stages/stores_stage.h"

#include <QCoreApplication>

#include <algorithm>

namespace muffle {
namespace {

template <class Page> StageRow stageRow(const char* title) {
  return {Page::kId, title, &Page::knot, [](const Bench& bench) -> StagePage* { return new Page(bench); }};
}

} // namespace

const std::vector<StageRow>& stages() {
  static const std::vector<StageRow> all{
      stageRow<HouseStage>(QT_TRANSLATE_NOOP("muffle::Stages", "House")),   stageRow<LogStage>(QT_TRANSLATE_NOOP("muffle::Stages", "Log")),
      stageRow<StoresStage>(QT_TRANSLATE_NOOP("muffle::Stages", "Stores")), stageRow<HeatStage>(QT_TRANSLATE_NOOP("muffle::Stages", "Heat")),
      stageRow<CostStage>(QT_TRANSLATE_NOOP("muffle::Stages", "Cost")),
  };
  return all;
}

QString stageTitle(const StageRow& row) { return QCoreApplication::translate("muffle::Stages", row.title); }

std::size_t stageIndex(StageId id) {
  const auto& all = stages();
  return static_cast<std::size_t>(std::find_if(all.begin(), all.end(), [&](const StageRow& row) { return row.id == id; }) - all.begin());
}

} // namespace muffle
