// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/change_page.h"
#include "app/stages/document_view.h"
#include "app/stages/floor_page.h"
#include "app/stages/page_strip.h"
#include "app/stages/place_page.h"
#include "app/stages/proportions_page.h"
#include "app/stages/rooms_page.h"
#include "app/stages/shape_page.h"
#include "app/stages/skin_editor.h"
#include "app/stages/stage.h"
#include "app/stages/stage_page.h"
#include "app/stages/vents_page.h"

namespace muffle {

/// Heat leaving by part, as bars with the reason under each.
class LossBars : public DocumentView {
  Q_OBJECT
public:
  explicit LossBars(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {430, 268}; }
  QSize minimumSizeHint() const override { return {330, 230}; }

protected:
  void paintEvent(QPaintEvent*) override;
};

/// Where the warmth goes in the chosen night, the house's shape, and its skins.
class HouseStage : public StagePage {
  Q_OBJECT
public:
  enum class Page { place, flows, shape, skins, floor, vents, rooms, proportions, change };
  static constexpr StageId kId = "house";
  static Knot knot(const Document& document);
  explicit HouseStage(const Bench& bench);
  void showPage(Page page);
  void begin() override;
  [[nodiscard]] SkinEditor& skins() { return *m_skins; }
  [[nodiscard]] ProportionsPage& proportions() { return *m_proportions; }
  [[nodiscard]] ChangePage& changes() { return *m_changes; }

private:
  void refresh() override;
  PageStrip* m_pages;
  PlacePage* m_place;
  ShapePage* m_shape;
  SkinEditor* m_skins;
  FloorPage* m_floor;
  VentsPage* m_vents;
  RoomsPage* m_roomsPage;
  ProportionsPage* m_proportions;
  ChangePage* m_changes;
};

} // namespace muffle
