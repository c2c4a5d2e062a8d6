// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a fresh start offers: the demo, a new house, a log to bring, a book from before.
#pragma once

#include "app/stages/stage_page.h"

class QPushButton;

namespace muffle {

class StartPage : public StagePage {
  Q_OBJECT
public:
  explicit StartPage(Document& document, QWidget* parent = nullptr);
  /// Books opened before, newest first.
  void setRecent(const QStringList& paths);

signals:
  void demoAsked();
  void houseAsked();
  void logAsked();
  void bookAsked(const QString& path); ///< empty: let the user choose

private:
  QPushButton* offer(const QString& name, const QString& icon, const QString& words);
  QVBoxLayout* m_recent;
};

} // namespace muffle
