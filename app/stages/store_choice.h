// SPDX-License-Identifier: GPL-3.0-or-later
//
// Which of the plan's stores the stage is about; its pages share it. When that store is gone it is the first.
#pragma once

#include "app/model/document.h"
#include "core/plan/store_list.h"

#include <optional>

namespace muffle {

class StoreChoice : public QObject {
  Q_OBJECT
public:
  StoreChoice(Document& document, QObject* parent) : QObject(parent), m_document(document) {}
  [[nodiscard]] std::optional<StoreRef> now() const;
  /// Its place among storesOf(), and so among results.
  [[nodiscard]] std::optional<std::size_t> place() const;
  /// The first of a kind, where there is one.
  [[nodiscard]] std::optional<StoreRef> of(StoreKind kind) const;
  void choose(const std::string& id);

signals:
  void chosen();

private:
  Document& m_document;
  std::string m_id;
};

} // namespace muffle
