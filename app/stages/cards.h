// SPDX-License-Identifier: GPL-3.0-or-later
//
// What pages made of cards share: a scrolled column, emptying it, and small buttons with a tip.
#pragma once

#include <QBoxLayout>
#include <QScrollArea>
#include <QToolButton>

namespace muffle {

/// Adds a column to a page that scrolls when it is too long; what is added to the layout returned stands above a stretch.
inline QVBoxLayout* addScrolled(QVBoxLayout& page) {
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inside = new QWidget(scroll);
  auto* down = new QVBoxLayout(inside);
  down->setContentsMargins(0, 0, 8, 0);
  auto* cards = new QVBoxLayout;
  down->addLayout(cards);
  down->addStretch(1);
  scroll->setWidget(inside);
  page.addWidget(scroll, 1);
  return cards;
}

/// Takes all cards away; one of them may be what sent the signal that brought us here.
inline void clearCards(QLayout& cards) {
  while (QLayoutItem* item = cards.takeAt(0)) {
    if (QWidget* card = item->widget()) {
      card->hide();
      card->deleteLater();
    }
    delete item;
  }
}

/// A button of one sign at the end of a row; `act` runs while `context` lives.
template <class Act> void addSignButton(QBoxLayout& row, QWidget* parent, const QString& sign, const QString& tip, bool enabled, QObject* context, Act act) {
  auto* b = new QToolButton(parent);
  b->setText(sign);
  b->setToolTip(tip);
  b->setAccessibleName(tip);
  b->setEnabled(enabled);
  QObject::connect(b, &QToolButton::clicked, context, act);
  row.addWidget(b);
}

} // namespace muffle
