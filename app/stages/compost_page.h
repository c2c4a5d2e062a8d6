// SPDX-License-Identifier: GPL-3.0-or-later
//
// The mixing bench: what a pile is built of, what the blend is like, how warm it will get and for how long, when the next is due.
#pragma once

#include "app/model/latest_job.h"
#include "app/stages/spoken.h"
#include "app/stages/store_choice.h"
#include "core/fit/pile_fit.h"
#include "core/store/pile.h"

#include <QWidget>

#include <vector>

class QComboBox;
class QDateEdit;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace muffle {

class Plot;

/// The blend on three scales, each with the span that piles like.
class BlendScales : public QWidget, public Spoken {
  Q_OBJECT
public:
  BlendScales(Document& document, QWidget* parent);
  void show(const Blend& blend);
  QSize sizeHint() const override { return {400, 72}; }
  QSize minimumSizeHint() const override { return {200, 66}; }

  [[nodiscard]] std::vector<SpokenLine> spoken() const override { return paintedLines(*this); }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  Document& m_document;
  Blend m_blend;
};

/// The piles of a series on the season, hot while they are above 40 degC.
class SeriesBar : public QWidget, public Spoken {
  Q_OBJECT
public:
  SeriesBar(Document& document, QWidget* parent);
  void show(const CompostPile& pile, const PileCourse& course);
  QSize sizeHint() const override { return {400, 44}; }
  QSize minimumSizeHint() const override { return {200, 42}; }

  [[nodiscard]] std::vector<SpokenLine> spoken() const override { return paintedLines(*this); }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  Document& m_document;
  CompostPile m_pile;
  double m_hotFrom_d = 0.0, m_hotTo_d = 0.0;
};

class CompostPage : public QWidget {
  Q_OBJECT
public:
  CompostPage(Document& document, StoreChoice& choice, QWidget* parent = nullptr);
  void refresh();
  [[nodiscard]] QString words() const;
  /// Moves the pile's rate to its readings in the log.
  void fit();

private:
  void rebuild(const CompostPile& pile, std::size_t index);
  void edit(const QString& name, const std::function<void(CompostPile&)>& change);
  void draw(const CompostPile& pile, const Blend& blend);
  /// When the soil at the roots has fallen to what roots bear, by the simulation; nothing if it is not known.
  [[nodiscard]] QString safeToPlant(std::size_t place) const;
  Document& m_document;
  StoreChoice& m_choice;
  QWidget* m_bench;
  QVBoxLayout* m_rows;
  QString m_shown;
  std::vector<QLabel*> m_notes; ///< by ingredient: its measures
  QComboBox* m_more;
  QDateEdit* m_built;
  BlendScales* m_scales;
  SeriesBar* m_series;
  Plot* m_plot;
  QLabel *m_words, *m_needs;
  QPushButton* m_fit;
  LatestJob<PileFit> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
