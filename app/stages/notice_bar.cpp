// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/notice_bar.h"

#include "app/paint/theme.h"

#include <QAccessible>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace muffle {

NoticeBar::NoticeBar(QWidget* parent) : QWidget(parent), m_column(new QVBoxLayout(this)) {
  m_column->setContentsMargins(0, 0, 0, 0);
  m_column->setSpacing(4);
  setAccessibleName(tr("Notices"));
  setVisible(false);
}

void NoticeBar::show(const QString& matter, const QString& text, std::vector<Action> actions, bool canBePutAway) {
  if (textOf(matter) == text) return; // it stands there already, perhaps with the focus on its button
  settle(matter);
  auto* line = new QWidget(this);
  line->setObjectName(QStringLiteral("notice"));
  line->setAttribute(Qt::WA_StyledBackground);
  auto* row = new QHBoxLayout(line);
  row->setContentsMargins(10, 2, 4, 2);
  row->setSpacing(6);
  auto* words = new QLabel(text, line);
  words->setTextFormat(Qt::PlainText); // it may quote a file
  words->setWordWrap(true);
  words->setFont(textFont(9.5));
  words->setTextInteractionFlags(Qt::TextSelectableByMouse);
  row->addWidget(words, 1);
  for (Action& action : actions) {
    auto* button = new QPushButton(action.name, line);
    connect(button, &QPushButton::clicked, this, [act = std::move(action.act)] { act(); });
    row->addWidget(button);
  }
  if (canBePutAway) {
    auto* away = new QPushButton(tr("Put away"), line);
    away->setFlat(true);
    connect(away, &QPushButton::clicked, this, [this, matter] { settle(matter); });
    row->addWidget(away);
  }
  m_column->addWidget(line);
  m_lines[matter] = {line, text};
  setVisible(true);
  QAccessibleEvent heard(words, QAccessible::Alert);
  QAccessible::updateAccessibility(&heard);
}

void NoticeBar::settle(const QString& matter) {
  const auto found = m_lines.find(matter);
  if (found == m_lines.end()) return;
  found->second.widget->hide();
  found->second.widget->deleteLater(); // it may be its own button that asks
  m_column->removeWidget(found->second.widget);
  m_lines.erase(found);
  setVisible(!m_lines.empty());
}

QString NoticeBar::textOf(const QString& matter) const {
  const auto found = m_lines.find(matter);
  return found == m_lines.end() ? QString() : found->second.text;
}

} // namespace muffle
