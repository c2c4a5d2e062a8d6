// SPDX-License-Identifier: GPL-3.0-or-later
//
// The numbers of one store, each edited where it is shown.
#pragma once

#include "app/model/document.h"
#include "core/plan/store_list.h"

#include <QWidget>

class QGridLayout;

namespace muffle {

class StoreFields : public QWidget {
  Q_OBJECT
public:
  explicit StoreFields(Document& document, QWidget* parent = nullptr);
  /// Shows the fields of a store; the same ones stay while store and place are the same.
  void show(const std::optional<StoreRef>& store);
  /// Also those that are seldom changed; they are in sight anyway where they are not as usual.
  void showSeldom(bool on);
  [[nodiscard]] bool hasSeldom() const;

private:
  void build(const StoreRef& store);
  void barrels(std::size_t index);
  void pipes(std::size_t index);
  void compost(std::size_t index);
  void loop(std::size_t index);
  void boiler(std::size_t tank);
  void cable(std::size_t index);
  void mass(std::size_t index);
  void put(QWidget* field);
  /// Fields that are there only while a condition holds.
  void onlyWhile(std::function<bool(const Plan&)> when, const std::function<void()>& fields);
  void seldom(const std::function<void()>& fields);
  void arrange();
  /// A number of a store, by its place in the plan's list.
  template <class S>
  void number(const QString& label, Quantity quantity, std::vector<S> Plan::*list, std::size_t index, double S::*member, double low, double high, double nudge,
              const QString& source, const QString& whenNone = {});
  /// When a store is charged and when it gives.
  template <class S> void rule(std::vector<S> Plan::*list, std::size_t index);
  template <class T> void choice(const QString& name, const QStringList& words, const QString& step, std::function<T*(Plan&)> find);
  Document& m_document;
  QGridLayout* m_grid;
  struct Field {
    QWidget* widget;
    std::function<bool(const Plan&)> when; ///< empty: always
    bool isSeldom = false;
    std::function<bool(const Plan&)> isSet = {}; ///< to something that is not usual
    [[nodiscard]] bool isShown(const Plan& plan, bool all) const { return (!when || when(plan)) && (!isSeldom || all || (isSet && isSet(plan))); }
  };
  std::vector<Field> m_fields;
  std::function<bool(const Plan&)> m_when; ///< of those that are being put
  bool m_seldom = false;                   ///< these are
  bool m_all = false;
  QString m_shown, m_arranged;
  std::vector<std::function<void()>> m_refresh; ///< of choices
};

} // namespace muffle
