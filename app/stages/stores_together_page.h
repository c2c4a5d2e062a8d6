// SPDX-License-Identifier: GPL-3.0-or-later
//
// All stores of the plan through a winter: what each gave and took by the day, and how full it was. A click takes a night.
#pragma once

#include "app/model/document.h"
#include "core/plan/store_list.h"

#include <QWidget>

class QLabel;

namespace muffle {

class Plot;

class StoresTogetherPage : public QWidget {
  Q_OBJECT
public:
  explicit StoresTogetherPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// Another night was chosen: only its mark moves, unless it lies in another winter.
  void followNight();
  [[nodiscard]] QString words() const;

private:
  [[nodiscard]] const NightResult* night() const;
  [[nodiscard]] QString told() const;
  [[nodiscard]] double at(const NightResult& night) const;
  [[nodiscard]] QString read(double x) const;
  [[nodiscard]] QString table() const;
  [[nodiscard]] const NightResult* nearest(double x) const;
  void draw();
  void drawDays(const WinterSeries& series);
  void drawFilling(const WinterSeries& series);
  void mark();
  Document& m_document;
  QLabel* m_words;
  Plot *m_days, *m_filling;
  std::size_t m_winter = 0; ///< that is drawn
  QPoint m_pressed;         ///< where the button went down
};

} // namespace muffle
