// SPDX-License-Identifier: GPL-3.0-or-later
//
// The parts of the frame that are always in sight beside the section: thread, slip and scarf.
#pragma once

#include "app/model/document.h"

#include <QWidget>

namespace muffle {

/// The stages on one line, each with what it has and lacks.
class ThreadBar : public QWidget {
  Q_OBJECT
public:
  explicit ThreadBar(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {900, 58}; }
  QSize minimumSizeHint() const override { return {600, 58}; }
  void setStage(Document::Stage stage);
  [[nodiscard]] Document::Stage stage() const { return m_stage; }
signals:
  void chosen(Document::Stage stage);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  struct Knot {
    QString name, line;
    double filled;
  };
  [[nodiscard]] Knot knot(Document::Stage stage) const;
  Document& m_document;
  Document::Stage m_stage = Document::Stage::house;
};

/// The till receipt of the plan in hand, against another if one is chosen.
class SlipView : public QWidget {
  Q_OBJECT
public:
  explicit SlipView(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {206, 470}; }
  QSize minimumSizeHint() const override { return {206, 300}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  Document& m_document;
};

/// The winters, one knitted row a night.
class ScarfView : public QWidget {
  Q_OBJECT
public:
  explicit ScarfView(Document& document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {900, 162}; }
  QSize minimumSizeHint() const override { return {500, 162}; }
  /// Middle of a night's row, in widget coordinates.
  [[nodiscard]] QPointF nightPoint(int night) const;

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  bool event(QEvent*) override;

private:
  [[nodiscard]] double nightX(double night) const;
  [[nodiscard]] int nightAt(double x) const;
  Document& m_document;
};

} // namespace muffle
