// SPDX-License-Identifier: GPL-3.0-or-later
//
// The air of every room, the heaters, the fans and the blanket at every step: what nights are judged by.
#pragma once

#include "core/results/results.h"
#include "core/run/run.h"

namespace muffle {

class HouseWatch final : public Observer {
public:
  HouseWatch(const Plan& plan, const Assembly& assembly, const Winter& winter);
  void see(const Run& run) override;

  [[nodiscard]] const std::vector<int>& heaters() const { return m_heaters; } ///< thermostats of house and rooms
  [[nodiscard]] const std::vector<float>& air_C() const { return m_air; }
  [[nodiscard]] const std::vector<float>& heater_W() const { return m_heater; } ///< all of them
  [[nodiscard]] const std::vector<std::vector<float>>& rooms_C() const { return m_rooms; }
  [[nodiscard]] const std::vector<double>& blanket() const { return m_blanket; } ///< 1 while it is closed; empty without one
  /// Writes what it has seen of them.
  void tell(WinterResult& result) const;

private:
  [[nodiscard]] double fans_W(const Run& run) const;

  double m_tooWarm_C;
  std::vector<int> m_heaters;
  std::vector<double> m_blanket;
  std::vector<float> m_air, m_heater;
  std::vector<std::vector<float>> m_rooms;
  double m_peak_W = 0.0, m_warmest_C = -1e9, m_tooWarm_h = 0.0, m_fan_J = 0.0;
};

} // namespace muffle
