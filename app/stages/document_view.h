// SPDX-License-Identifier: GPL-3.0-or-later
//
// A painted view of the document: it repaints when what it shows has changed.
#pragma once

#include "app/model/document.h"
#include "app/paint/theme.h"
#include "app/stages/spoken.h"

#include <QWidget>

#include <initializer_list>

namespace muffle {

class DocumentView : public QWidget, public Spoken {
public:
  using Signal = void (Document::*)();
  DocumentView(Document& document, std::initializer_list<Signal> repaintOn, QWidget* parent) : QWidget(parent), m_document(document) {
    for (const Signal signal : repaintOn) connect(&document, signal, this, qOverload<>(&QWidget::update));
  }

  [[nodiscard]] std::vector<SpokenLine> spoken() const override { return paintedLines(*this); }

protected:
  [[nodiscard]] const Theme& theme() const { return Theme::of(m_document.view().isDark()); }
  Document& m_document;
};

} // namespace muffle
