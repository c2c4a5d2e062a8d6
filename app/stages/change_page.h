// SPDX-License-Identifier: GPL-3.0-or-later
//
// What one change would buy: measures that this house does not have yet, each alone, over the logged nights; worked out
// beside the window, ranked, and built in by one click that one undo takes back.
#pragma once

#include "app/model/document.h"

#include <QWidget>

#include <atomic>
#include <thread>

class QComboBox;
class QGridLayout;
class QLabel;

namespace muffle {

class ChangePage : public QWidget {
  Q_OBJECT
public:
  explicit ChangePage(Document& document, QWidget* parent = nullptr);
  ~ChangePage() override;
  void refresh();
  /// Processes events until the list belongs to the plan in hand; false when the time runs out first.
  bool waitForList(int timeout_ms = 120000);
  [[nodiscard]] const Sizing* list() const { return m_list.get(); }

protected:
  void showEvent(QShowEvent*) override;

private:
  void start();
  void show(std::shared_ptr<Sizing> list, const QString& problem);
  void rebuild();
  void build(std::size_t package);
  [[nodiscard]] bool isCurrent() const;
  Document& m_document;
  QComboBox* m_order;
  QLabel *m_state, *m_note;
  QGridLayout* m_rows;
  Plan m_asked; ///< whose measures are the changes
  std::string m_askedText;
  std::shared_ptr<const Weather> m_weather;
  std::shared_ptr<Sizing> m_list;
  bool m_working = false;
  quint64 m_run = 0;
  std::atomic<bool> m_stop{false};
  std::jthread m_worker; ///< last: it uses what is above
};

} // namespace muffle
