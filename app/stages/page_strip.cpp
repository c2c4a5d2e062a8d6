// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/page_strip.h"

#include "app/paint/theme.h"

#include <QAbstractButton>
#include <QHBoxLayout>
#include <QPainter>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace muffle {
namespace {

class Word : public QAbstractButton {
public:
  Word(Document& document, const QString& text, QWidget* parent) : QAbstractButton(parent), m_document(document) {
    setText(text);
    setCheckable(true);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(text);
  }
  QSize sizeHint() const override { return {QFontMetrics(textFont(10, true)).horizontalAdvance(text()) + 14, 26}; }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    const Theme& t = Theme::of(m_document.view().isDark());
    p.setFont(textFont(10, isChecked()));
    p.setPen(isChecked() || underMouse() ? t.ink : t.fleece);
    p.drawText(QRect(0, 0, width(), 21), static_cast<int>(Qt::AlignCenter), text());
    if (isChecked()) {
      p.setPen(QPen(t.madder, 2));
      p.drawLine(7, 23, width() - 7, 23);
    }
    if (hasFocus()) {
      p.setPen(QPen(t.madder, 1, Qt::DotLine));
      p.drawRect(rect().adjusted(1, 1, -2, -2));
    }
  }

private:
  Document& m_document;
};

} // namespace

PageStrip::PageStrip(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_words(new QHBoxLayout), m_group(this), m_pages(new QStackedWidget(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(6);
  m_words->setContentsMargins(0, 0, 0, 0);
  m_words->setSpacing(6);
  m_words->addStretch(1);
  body->addLayout(m_words);
  body->addWidget(m_pages, 1);
  connect(&m_group, &QButtonGroup::idToggled, this, [this](int id, bool on) {
    if (!on) return;
    m_pages->setCurrentIndex(id);
    emit turned();
  });
  connect(&document, &Document::viewChanged, this, qOverload<>(&QWidget::update));
  const auto turn = [this](int by) { show(std::clamp(m_pages->currentIndex() + by, 0, m_pages->count() - 1)); };
  for (const auto& [key, by] : {std::pair{Qt::Key_PageDown, 1}, std::pair{Qt::Key_PageUp, -1}})
    connect(new QShortcut(QKeySequence(Qt::CTRL | key), this), &QShortcut::activated, this, [turn, by = by] { turn(by); });
}

void PageStrip::add(const QString& word, QWidget* page) {
  auto* button = new Word(m_document, word, this);
  const int id = m_pages->addWidget(page);
  m_words->insertWidget(m_words->count() - 1, button);
  m_group.addButton(button, id);
  if (id == 0) button->setChecked(true);
}

void PageStrip::show(int page) { m_group.button(page)->setChecked(true); }

} // namespace muffle
