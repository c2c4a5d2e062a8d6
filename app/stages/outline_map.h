// SPDX-License-Identifier: GPL-3.0-or-later
//
// The outlines of the lands with a pin: click sets it, drag moves the map, the wheel brings it nearer. By keyboard arrows move the pin,
// plus and minus bring the map nearer and back, Return sets it.
#pragma once

#include "app/stages/document_view.h"
#include "core/site/coordinates.h"

namespace muffle {

class OutlineMap : public DocumentView {
  Q_OBJECT
public:
  explicit OutlineMap(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {330, 190}; }
  /// Moves the pin, and the map under it unless it is in sight.
  void showPlace(Coordinates at, bool isKnown);
  [[nodiscard]] QPointF pixelOf(Coordinates at) const;

signals:
  void pinned(Coordinates at);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  [[nodiscard]] Coordinates placeAt(QPointF pixel) const;
  [[nodiscard]] double leastScale() const;
  void zoom(double times, QPointF about);
  void keepInSight();
  void paintTowns(QPainter& painter) const;
  Coordinates m_centre{20.0, 10.0}, m_pin;
  double m_scale = 0.0; ///< pixels a degree of latitude; 0: the whole world
  bool m_isKnown = false;
  QPointF m_pressed;
  Coordinates m_centreWhenPressed;
  bool m_dragged = false;
};

} // namespace muffle
