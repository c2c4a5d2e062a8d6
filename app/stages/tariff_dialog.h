// SPDX-License-Identifier: GPL-3.0-or-later
//
// What a kWh costs by the hour: windows of the clock and the week with prices of their own, how much of what the plan takes falls into each,
// and the charge that is paid in any case.
#pragma once

#include "app/model/document.h"

#include <QDialog>

class QLabel;
class QVBoxLayout;

namespace muffle {

class TariffDialog : public QDialog {
  Q_OBJECT
public:
  explicit TariffDialog(Document& document, QWidget* parent = nullptr);

private:
  void refresh();
  QWidget* card(std::size_t index);
  void edit(const QString& name, const std::function<void(std::vector<TariffWindow>&)>& change);
  /// What of the electricity falls into each window, and what all of it costs.
  [[nodiscard]] QString words() const;
  Document& m_document;
  QVBoxLayout* m_cards = nullptr;
  QLabel *m_words, *m_refused;
  std::size_t m_shown = 1000; ///< cards that stand
};

} // namespace muffle
