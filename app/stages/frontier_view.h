// SPDX-License-Identifier: GPL-3.0-or-later
//
// Plans by what they cost a winter, against cold owed or another thing that matters: one mark a plan. Click one to compare with it.
#pragma once

#include "app/stages/document_view.h"
#include "core/sizing/sizing.h"

#include <vector>

namespace muffle {

/// What cost is set against.
enum class CostAgainst { cold, hours, capital, heat, carbon, damp, growth };
constexpr int kCostAgainstCount = 7;

class FrontierView : public DocumentView {
  Q_OBJECT
public:
  explicit FrontierView(Document& document, QWidget* parent = nullptr);
  /// What a search would list where the plan lists nothing.
  void setUsual(std::vector<Measure> usual);
  void setAgainst(CostAgainst against);
  [[nodiscard]] static QString wordsFor(CostAgainst against);
  QSize minimumSizeHint() const override { return {320, 150}; }
  [[nodiscard]] QPointF packagePoint(int package) const { return pointOf(axesNow(), package); }
  [[nodiscard]] QPointF thumbPoint(const ByThumb& rule) const { return pointOf(axesNow(), rule); }
  /// Those that nothing beats in both, from the cheapest. Against cold all that were run count, else those that hold.
  [[nodiscard]] std::vector<int> unbeaten() const;

  [[nodiscard]] std::vector<SpokenLine> spoken() const override; ///< the plans that nothing beats, from the cheapest

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void leaveEvent(QEvent*) override;
  void hideEvent(QHideEvent*) override;
  bool event(QEvent*) override;

private:
  struct Axes {
    double least = 0.0, most = 0.0, pad = 1.0; ///< money
    double bottom = 0.0, top = 1.0;            ///< of the other
  };
  [[nodiscard]] Axes axesNow() const;
  [[nodiscard]] QPointF pointOf(const Axes& axes, int package) const;
  [[nodiscard]] QPointF pointOf(const Axes& axes, const SizedPackage& package) const;
  [[nodiscard]] QPointF pointOf(const Axes& axes, const ByThumb& rule) const; ///< at the edge where it stands beyond it
  [[nodiscard]] double valueOf(const SizedPackage& package) const;
  /// Of growth more is better, of all else less.
  [[nodiscard]] double badness(const SizedPackage& package) const { return m_against == CostAgainst::growth ? -valueOf(package) : valueOf(package); }
  [[nodiscard]] Quantity quantity() const;
  /// Along its axis, 0..1.
  [[nodiscard]] double along(double value, const Axes& axes) const;
  void paintUsual(QPainter& painter) const;
  void paintAxes(QPainter& painter, const Axes& axes) const;
  void paintThumb(QPainter& painter, const Axes& axes) const;
  /// A plan in the picture, with its name.
  struct Standing {
    Plan plan;
    QString name;
    std::optional<std::size_t> package; ///< of the search; a rule of thumb is none
  };
  /// A package by its index, or a rule of thumb beyond them; -1 where nothing is near.
  [[nodiscard]] int markAt(const QPointF& at) const;
  [[nodiscard]] std::optional<Standing> standing(int mark) const;
  void pointAt(int mark);
  [[nodiscard]] const ByThumb* thumbAt(const QPointF& at) const;
  [[nodiscard]] QString costAndHeld(const SizedPackage& package) const;
  void paintRange(QPainter& painter, const Axes& axes, int package) const;
  [[nodiscard]] QString axisWords() const;
  std::vector<Measure> m_usual;
  CostAgainst m_against = CostAgainst::cold;
  int m_pointedMark = -1;
  [[nodiscard]] int packageAt(const QPointF& at) const;
  [[nodiscard]] QRectF area() const;
};

} // namespace muffle
