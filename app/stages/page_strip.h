// SPDX-License-Identifier: GPL-3.0-or-later
//
// A row of words under a stage's heading, each a page of its instrument; the one in sight is underlined.
#pragma once

#include "app/model/document.h"

#include <QButtonGroup>
#include <QStackedWidget>
#include <QWidget>

class QHBoxLayout;

namespace muffle {

class PageStrip : public QWidget {
  Q_OBJECT
public:
  PageStrip(Document& document, QWidget* parent);
  /// The page is shown by its word; the first one added is in sight.
  void add(const QString& word, QWidget* page);
  void show(int page);
  [[nodiscard]] int shown() const { return m_pages->currentIndex(); }

signals:
  void turned();

private:
  Document& m_document;
  QHBoxLayout* m_words;
  QButtonGroup m_group;
  QStackedWidget* m_pages;
};

} // namespace muffle
