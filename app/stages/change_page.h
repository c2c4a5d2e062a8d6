// SPDX-License-Identifier: GPL-3.0-or-later
//
// What one change would buy: measures that this house does not have yet, each alone, over the logged nights; worked out
// beside the window, ranked, and built in by one click that one undo takes back.
#pragma once

#include "app/model/document.h"
#include "app/model/latest_job.h"

#include <QWidget>

class QComboBox;
class QPushButton;
class QTreeWidget;
class QLabel;

namespace muffle {

class CautionLabel;

class ChangePage : public QWidget {
  Q_OBJECT
public:
  explicit ChangePage(Document& document, QWidget* parent = nullptr);
  void refresh();
  /// True when what is shown belongs to the plan in hand.
  [[nodiscard]] bool isCurrent() const;
  [[nodiscard]] const Sizing* list() const { return m_list.get(); }

protected:
  void showEvent(QShowEvent*) override;

private:
  void start();
  void show(Result<Sizing> list);
  void rebuild();
  void build();
  [[nodiscard]] std::vector<Measure> measuresOf(const SizedPackage& package) const;
  /// A change in the shown units: "skirt 0.60 m".
  [[nodiscard]] QString nameOf(const SizedPackage& package) const;
  Document& m_document;
  QComboBox* m_order;
  QLabel *m_state, *m_note;
  CautionLabel* m_caution; ///< of the chosen line
  QTreeWidget* m_tree;
  QPushButton* m_build;
  Plan m_asked;                  ///< whose measures are the changes
  std::optional<Plan> m_askedOf; ///< the plan as it was
  std::shared_ptr<const Weather> m_weather;
  std::shared_ptr<Sizing> m_list;
  LatestJob<Sizing> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
