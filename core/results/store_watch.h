// SPDX-License-Identifier: GPL-3.0-or-later
//
// What became of every store; step by step where series are wanted.
#pragma once

#include "core/results/results.h"
#include "core/run/run.h"

namespace muffle {

class StoreWatch final : public Observer {
public:
  /// `series`: by store, laid out, or null for none. Heat in a store counts above `hold_C`.
  /// What fans, pumps and cables take goes into `ledger`.
  StoreWatch(const Assembly& assembly, double hold_C, std::vector<StoreSeries>* series, Ledger& ledger);
  static std::vector<StoreSeries> makeSeries(const Assembly& assembly, std::size_t steps);
  void see(const Run& run) override;
  /// With what its piles and collectors came to; closes their meters.
  void tell(const Run& run, WinterResult& result);

private:
  void seeSupply(const Run& run, const StoreNodes& store, std::size_t index);
  void seeSeries(const Run& run, const StoreNodes& store, std::size_t index);
  [[nodiscard]] double charge_J(const Run& run, const StoreNodes& store) const;

  double m_hold_C;
  std::vector<StoreSeries>* m_series;
  std::vector<StoreSummary> m_sums;
  Ledger& m_ledger;
  std::vector<std::size_t> m_meter; ///< by store: of its fan, pump or cable; kNone without
};

} // namespace muffle
