// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"

namespace muffle {

/// The till receipt of the plan in hand, against another if one is chosen.
class SlipView : public DocumentView {
  Q_OBJECT
public:
  explicit SlipView(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {206, 470}; }
  QSize minimumSizeHint() const override { return {206, 300}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  /// The nights chosen on the scarf, summed.
  struct Span {
    QString name;
    int nights = 0, assessable = 0, held = 0;
    double coldest_C = 0.0, heater_kWh = 0.0;
  };
  [[nodiscard]] Span chosenSpan() const;
};

} // namespace muffle
