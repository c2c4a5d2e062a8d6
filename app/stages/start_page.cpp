// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/start_page.h"

#include "app/model/demo_book.h"

#include <QFileInfo>
#include <QLabel>
#include <QPushButton>

namespace muffle {

StartPage::StartPage(Document& document, QWidget* parent) : StagePage(document, parent), m_recent(new QVBoxLayout) {
  setHeading(tr("Begin"), tr("or drop a logger's CSV anywhere on this window"));
  m_body->setSpacing(6);
  connect(offer(tr("Bring your nights"), QStringLiteral(":/icons/log.svg"),
                tr("A file from any logger: time, outside and inside temperature are enough. You see what was recognised before anything is kept.")),
          &QPushButton::clicked, this, &StartPage::logAsked);
  connect(offer(tr("Describe your house"), QStringLiteral(":/icons/house.svg"),
                tr("Shape, three sizes, a cover and a draughtiness. The rest has a stated value until you change it.")),
          &QPushButton::clicked, this, &StartPage::houseAsked);
  QPushButton* demo = offer(tr("Look round the demo"), QStringLiteral(":/icons/demo.svg"),
                            tr("Two winters of an invented flower yard in a book of its own. Change what you like: your books stay as they are."));
  connect(demo, &QPushButton::clicked, this, &StartPage::demoAsked);
  demo->setEnabled(demoFolder().has_value());
  if (!demo->isEnabled()) demo->setToolTip(tr("the demo's files did not come with this installation"));
  connect(offer(tr("Open a book"), QStringLiteral(":/icons/book.svg"), tr("A *.muffle file from before.")), &QPushButton::clicked, this,
          [this] { emit bookAsked({}); });
  m_body->addLayout(m_recent);
  m_body->addStretch();
}

QPushButton* StartPage::offer(const QString& name, const QString& icon, const QString& words) {
  auto* button = new QPushButton(QIcon(icon), name, this);
  button->setIconSize({26, 26});
  button->setFont(titleFont(11.5));
  button->setMinimumHeight(46);
  button->setStyleSheet(QStringLiteral("text-align:left;"));
  auto* text = new QLabel(words, this);
  text->setWordWrap(true);
  text->setFont(textFont(9.5));
  text->setContentsMargins(6, 0, 6, 12);
  button->setAccessibleDescription(words);
  m_body->addWidget(button);
  m_body->addWidget(text);
  return button;
}

void StartPage::setRecent(const QStringList& paths) {
  while (QLayoutItem* item = m_recent->takeAt(0)) {
    if (QWidget* w = item->widget()) w->deleteLater();
    delete item;
  }
  for (const QString& path : paths.mid(0, 4)) {
    auto* button = new QPushButton(tr("Open \"%1\" again").arg(QFileInfo(path).completeBaseName()), this);
    button->setFlat(true);
    button->setToolTip(path);
    button->setStyleSheet(QStringLiteral("text-align:left;"));
    connect(button, &QPushButton::clicked, this, [this, path] { emit bookAsked(path); });
    m_recent->addWidget(button);
  }
}

} // namespace muffle
