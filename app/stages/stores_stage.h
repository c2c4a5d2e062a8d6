// SPDX-License-Identifier: GPL-3.0-or-later
//
// What stores heat: the stores of the plan, what one more of each buys, the ground, and the bench where compost is mixed.
#pragma once

#include "app/stages/compost_page.h"
#include "app/stages/ground_page.h"
#include "app/stages/stage.h"
#include "app/stages/stage_page.h"
#include "app/stages/store_curve_page.h"
#include "app/stages/stores_page.h"
#include "app/stages/stores_together_page.h"

namespace muffle {

class PageStrip;

class StoresStage : public StagePage {
  Q_OBJECT
public:
  enum class Page { stores, together, oneMore, ground, compost };
  static constexpr StageId kId = "stores";
  static Knot knot(const Document& document);
  explicit StoresStage(const Bench& bench);
  void showPage(Page page);
  StoresPage& stores() { return *m_stores; }
  StoresTogetherPage& together() { return *m_together; }
  StoreCurvePage& oneMore() { return *m_oneMore; }
  GroundPage& ground() { return *m_ground; }
  CompostPage& compost() { return *m_compost; }
  StoreChoice& choice() { return m_choice; }

private:
  void refresh() override;
  /// What the next refresh is for: a scrub of the clock asks for less than another night, and that for less than another result.
  enum class Change { all, night, clock };
  Change m_change = Change::all;
  int m_night = -1;
  StoreChoice m_choice;
  PageStrip* m_strip;
  StoresPage* m_stores;
  StoresTogetherPage* m_together;
  StoreCurvePage* m_oneMore;
  GroundPage* m_ground;
  CompostPage* m_compost;
};

} // namespace muffle
