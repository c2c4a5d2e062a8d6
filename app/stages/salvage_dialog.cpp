// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/salvage_dialog.h"
#include "app/model/said.h"

#include "app/model/units.h"
#include "app/paint/theme.h"

#include <QApplication>
#include <QClipboard>
#include <QDialogButtonBox>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

namespace muffle {

SalvageDialog::SalvageDialog(const Salvaged& found, const QString& newBook, QWidget* parent) : QDialog(parent) {
  setWindowTitle(tr("What was saved"));
  resize(680, 420);
  auto* body = new QVBoxLayout(this);
  const auto n = [](const std::vector<Message>& list) { return static_cast<qint64>(list.size()); };
  auto* sum = new QLabel(found.lost.empty() && found.doubtful.empty()
                             ? tr("Everything was saved to %1.").arg(QFileInfo(newBook).fileName())
                             : tr("Saved to %1, which is open now. %2, %3. The damaged book is as it was.")
                                   .arg(QFileInfo(newBook).fileName(), tr("%Ln lost", nullptr, static_cast<int>(n(found.lost))),
                                        tr("%Ln to be looked over", nullptr, static_cast<int>(n(found.doubtful)))),
                         this);
  sum->setWordWrap(true);
  body->addWidget(sum);
  auto* list = new QTreeWidget(this);
  list->setHeaderHidden(true);
  list->setRootIsDecorated(false);
  list->setWordWrap(true);
  list->setSelectionMode(QAbstractItemView::NoSelection);
  list->setFocusPolicy(Qt::ClickFocus);
  list->setAccessibleName(tr("What was lost, what is doubtful and what was saved"));
  QString text;
  const auto add = [&](const QString& heading, const std::vector<Message>& things) {
    if (things.empty()) return;
    auto* group = new QTreeWidgetItem(list, {heading});
    group->setFont(0, titleFont(11));
    group->setFlags(Qt::ItemIsEnabled);
    text += heading + QLatin1Char('\n');
    for (const Message& thing : things) {
      new QTreeWidgetItem(group, {said(thing)});
      text += QStringLiteral("  ") + said(thing) + QLatin1Char('\n');
    }
  };
  add(tr("Lost"), found.lost);
  add(tr("To be looked over"), found.doubtful);
  add(tr("Saved whole"), found.saved);
  list->expandAll();
  body->addWidget(list, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  QPushButton* copy = buttons->addButton(tr("Copy the list"), QDialogButtonBox::ActionRole);
  connect(copy, &QPushButton::clicked, this, [text] { QApplication::clipboard()->setText(text); });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  body->addWidget(buttons);
}

} // namespace muffle
