// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stages/document_view.h"
#include "core/simulate/load_duration.h"

namespace muffle {

/// The hours of the winters by how much heat they took, the heaters' size across it; of several each its part.
class LoadCurve : public DocumentView {
  Q_OBJECT
public:
  explicit LoadCurve(Document& document, QWidget* parent = nullptr);
  QSize minimumSizeHint() const override { return {180, 200}; }
  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< hours at each tenth of its size, and what each heater gave

protected:
  void paintEvent(QPaintEvent*) override;

private:
  /// Sorted once a result.
  struct Sorted {
    LoadDuration load;
    double span_h = 0.0; ///< of the picture
    std::vector<HeaterLoad> heaters;
  };
  [[nodiscard]] Sorted sorted(const Simulation& run) const;
  void paintHeaters(QPainter& painter, const QRectF& area, double top_W) const;
  std::optional<Sorted> m_sorted;
};

} // namespace muffle
