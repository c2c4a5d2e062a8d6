// SPDX-License-Identifier: GPL-3.0-or-later
//
// What is said of each heater of the plan beside its fields: what it gives and costs a winter, how its fuel comes, how often it goes on, and what a flame
// without a flue leaves in the air.
#pragma once

#include "app/model/document.h"
#include "core/control/asked_setpoints.h"
#include "core/simulate/heater_cycles.h"

#include <QCoreApplication>
#include <QString>

#include <cstddef>
#include <vector>

namespace muffle {

class HeaterRowWords {
  Q_DECLARE_TR_FUNCTIONS(HeaterRowWords)
public:
  /// Of the run in sight; made anew where plan, log or run changes.
  explicit HeaterRowWords(const Document& document);
  /// By its place among the plan's; its name alone where nothing was run.
  [[nodiscard]] QString of(std::size_t heater) const;

private:
  [[nodiscard]] QString fuel(std::size_t heater) const;
  [[nodiscard]] QString cycles(std::size_t heater) const;

  const Document& m_document;
  std::vector<HeaterCycles> m_cycles;
  std::vector<AskedSetpoint> m_nights; ///< of the log, for what is lit by the forecast
};

} // namespace muffle
