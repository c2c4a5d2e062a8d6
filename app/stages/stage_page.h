// SPDX-License-Identifier: GPL-3.0-or-later
//
// A card that holds one stage's instrument: title, a remark beside it, and room below.
#pragma once

#include "app/model/document.h"
#include "app/paint/theme.h"

#include <QPainter>
#include <QVBoxLayout>
#include <QWidget>

#include <initializer_list>

class QMenu;

namespace muffle {

class StagePage : public QWidget {
public:
  explicit StagePage(Document& document, QWidget* parent = nullptr) : QWidget(parent), m_document(document), m_body(new QVBoxLayout(this)) {
    m_body->setContentsMargins(16, 46, 16, 12);
    m_body->setSpacing(4);
    QObject::connect(&document, &Document::viewChanged, this, qOverload<>(&QWidget::update));
  }
  /// Turns to what a new book asks for first.
  virtual void begin() {}
  /// What the window's menu of the plan offers of this stage.
  virtual void addActions(QMenu& planMenu) { Q_UNUSED(planMenu) }

protected:
  /// Calls refresh() when one of these signals comes, at once if the page is in sight, else when it next is.
  void refreshOn(std::initializer_list<void (Document::*)()> signals_) {
    for (const auto signal : signals_)
      QObject::connect(&m_document, signal, this, [this] {
        if (isVisible())
          refresh();
        else
          m_stale = true;
      });
  }
  virtual void refresh() {}
  void showEvent(QShowEvent* e) override {
    if (m_stale) {
      m_stale = false;
      refresh();
    }
    QWidget::showEvent(e);
  }
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    const Theme& t = theme();
    p.setPen(QPen(t.seam, 1));
    p.setBrush(t.wool);
    p.drawRect(QRectF(0.5, 0.5, width() - 1.0, height() - 1.0));
    p.setFont(titleFont(13));
    p.setPen(t.ink);
    p.drawText(QRectF(16, 10, width() - 32.0, 28), static_cast<int>(Qt::AlignVCenter), m_title);
    const double x = 16 + QFontMetricsF(titleFont(13)).horizontalAdvance(m_title) + 14;
    p.setFont(textFont(9));
    p.setPen(t.fleece);
    p.drawText(QRectF(x, 10, width() - 16 - x, 30), static_cast<int>(Qt::AlignVCenter | Qt::AlignRight),
               QFontMetricsF(textFont(9)).elidedText(m_remark, Qt::ElideRight, width() - 16 - x));
    paintBody(p);
  }
  virtual void paintBody(QPainter&) {}
  [[nodiscard]] const Theme& theme() const { return Theme::of(m_document.view().isDark()); }
  void setHeading(const QString& title, const QString& remark) {
    m_title = title;
    m_remark = remark;
    update();
  }
  Document& m_document;
  QVBoxLayout* m_body;

private:
  bool m_stale = true;
  QString m_title, m_remark;
};

} // namespace muffle
