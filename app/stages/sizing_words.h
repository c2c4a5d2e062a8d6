// SPDX-License-Identifier: GPL-3.0-or-later
//
// What is said of a search for least cost: of its cheapest plan, of each thing on the list, of what money buys, and how sure it is.
#pragma once

#include "app/model/document.h"
#include "core/sizing/how_sure.h"

#include <QCoreApplication>

namespace muffle {

class SizingWords {
  Q_DECLARE_TR_FUNCTIONS(SizingWords)
public:
  /// The document's, which must have one.
  explicit SizingWords(const Document& document);

  /// How many plans the answer is the least of, and how many of them had to be run for it.
  [[nodiscard]] QString plansLookedAt() const;
  /// The cheapest, line by line; or that none holds, what comes closest and which wish stands in the way.
  [[nodiscard]] QString bill() const;
  /// What each thing on the list does, which price turns the answer, what each further sum buys.
  [[nodiscard]] QString argument() const;

private:
  [[nodiscard]] QString notProved() const;
  [[nodiscard]] QString whatToLoosen() const;
  [[nodiscard]] QString howSureItIs() const;
  [[nodiscard]] QString inColderWinters() const;
  [[nodiscard]] QString inLikelyHouses() const;
  [[nodiscard]] QString byRulesOfThumb() const;
  [[nodiscard]] QString pricesThatTurnIt() const;
  [[nodiscard]] QString whatMoneyBuys() const;
  [[nodiscard]] QString priced(const Plan& plan, const Measure& measure, double price) const;
  [[nodiscard]] QString whatEachDoes() const;
  [[nodiscard]] Plan atPricesNow() const;

  const Document& m_document;
  const Sizing& m_sizing;
  HowSure m_sure;
};

} // namespace muffle
