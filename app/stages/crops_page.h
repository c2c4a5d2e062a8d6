// SPDX-License-Identifier: GPL-3.0-or-later
//
// What stands in the rooms and what its leaves, buds and roots bear: how near the logged nights came to harming them, and the line that would not.
#pragma once

#include "app/model/document.h"
#include "core/simulate/crop_harm.h"

#include <QWidget>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace muffle {

class CropsPage : public QWidget {
  Q_OBJECT
public:
  explicit CropsPage(Document& document, QWidget* parent = nullptr);
  void refresh();
  [[nodiscard]] QString words() const;
  /// Of a crop of the plan, what became of it.
  [[nodiscard]] QString words(std::size_t stand) const;

private:
  void rebuild();
  void addCrop(std::size_t stand);
  void edit(const QString& step, const std::function<void(Plan&)>& change);
  [[nodiscard]] QString told(const CropFate& fate) const;
  /// That the house's crops want held, by how far the air is above what they feel; nothing where cold does not harm them.
  [[nodiscard]] std::optional<double> line_C() const;

  Document& m_document;
  QLabel* m_words;
  QVBoxLayout* m_rows;
  QPushButton* m_line;
  std::vector<QLabel*> m_told; ///< by crop of the plan
  std::vector<CropFate> m_fates;
  QStringList m_signature; ///< of what the rows were made for
};

} // namespace muffle
