// SPDX-License-Identifier: GPL-3.0-or-later
//
// Temperatures and flows at every step, for drawing. Looks on after those whose word it takes.
#pragma once

#include "core/results/damp_watch.h"
#include "core/results/house_watch.h"

namespace muffle {

class SeriesRecorder final : public Observer {
public:
  /// `lossGroups` as groups.h has them; `series` has its stores laid out.
  SeriesRecorder(const Plan& plan, const Assembly& assembly, const Winter& winter, std::vector<int> lossGroups, const HouseWatch& house, const DampWatch& damp,
                 WinterResult& result);
  void see(const Run& run) override;

private:
  void seeOpenings(const Run& run);
  void seeLosses(const Run& run);

  const House& m_plan;
  std::vector<int> m_groups;
  const HouseWatch& m_house;
  const DampWatch& m_damp;
  WinterResult& m_result;
};

} // namespace muffle
