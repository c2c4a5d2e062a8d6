// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"
#include "app/stages/stage_page.h"

class QComboBox;

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

/// Where the warmth goes in the chosen night, and the house's own numbers.
class HouseStage : public StagePage {
  Q_OBJECT
public:
  explicit HouseStage(Document& document, QWidget* parent = nullptr);

private:
  void refresh() override;
  QComboBox* m_shape;
  QComboBox* m_skins[3];
};

} // namespace muffle
