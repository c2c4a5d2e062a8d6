// SPDX-License-Identifier: GPL-3.0-or-later
//
// A place as it is typed: a town by name, offered from a list as one types, or coordinates in any form.
#pragma once

#include "core/site/gazetteer.h"

#include <QLineEdit>

#include <vector>

class QStringListModel;

namespace muffle {

/// "45.21° N  3.14° E"
QString coordinatesText(Coordinates at);
/// With region and land, as far as they are known.
QString townText(const Town& town);

class TownField : public QLineEdit {
  Q_OBJECT
public:
  explicit TownField(QWidget* parent = nullptr);
  /// Unless it is being typed in.
  void show(const QString& text);

signals:
  void townChosen(const Town& town);
  void coordinatesTyped(Coordinates at);
  /// What was typed is neither, or not enough to choose by; the text stays.
  void unclear(const QString& why);

private:
  void offer(const QString& typed);
  void take();
  std::vector<Town> m_offered;
  QStringListModel* m_list;
};

} // namespace muffle
