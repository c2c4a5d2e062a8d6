// SPDX-License-Identifier: GPL-3.0-or-later
//
// The air of every room, the heaters, the fans and the blanket at every step: what nights are judged by.
#pragma once

#include "core/results/results.h"
#include "core/run/air_response.h"
#include "core/run/run.h"

#include <optional>

namespace muffle {

class HouseWatch final : public Observer {
public:
  /// What heaters, fans and the grower's hands take goes into `ledger`.
  HouseWatch(const Plan& plan, const Assembly& assembly, const Winter& winter, Ledger& ledger);
  void see(const Run& run) override;

  [[nodiscard]] const std::vector<float>& air_C() const { return m_air; }
  /// How far under it the air falls within a step, by bands and slow starts that the plan gives; empty where it gives none.
  [[nodiscard]] const std::vector<float>& below_K() const { return m_below; }
  [[nodiscard]] const std::vector<float>& heater_W() const { return m_heater; } ///< all that heat rooms
  [[nodiscard]] const std::vector<std::vector<float>>& rooms_C() const { return m_rooms; }
  [[nodiscard]] const std::vector<double>& blanket() const { return m_blanket; } ///< 1 while it is closed; empty without one
  /// Writes what it has seen of them, and closes their meters.
  void tell(const Run& run, const EnergyBalance& balance, WinterResult& result);

private:
  void seeFans(const Run& run);
  struct MeteredHeater {
    const Assembly::HeaterNodes* nodes;
    const Heater* heater;
    int thermostat;
    double counted; ///< as its nodes have it
    bool heatsRoom;
    bool isHeatPump;
    bool varies;    ///< what it takes for its heat is not always the same
    double perHeat; ///< taken for a unit of heat; of a heat pump by step
    std::size_t meter;
    double taken_J = 0.0;     ///< of one that varies
    double ownPower = 0.0;    ///< electricity beside, for a unit of heat
    std::size_t ownMeter = 0; ///< its meter, where it takes any
    int starts = 0;
    bool isOn = false;
    std::optional<AirResponse> response = {}; ///< where the plan says how its thermostat goes on and off
  };
  [[nodiscard]] double taken_J(const MeteredHeater& heater, double heat_W, const Run& run) const;
  void seeCycle(MeteredHeater& heater, double heat_W, const Run& run);
  void seeHeaters(const Run& run);
  void refuelling(const MeteredHeater& heater, double taken_kWh);

  const Plan& m_plan;
  Ledger& m_ledger;
  std::vector<MeteredHeater> m_heaters;
  std::vector<double> m_fan_kWh; ///< by fan
  std::vector<double> m_blanket;
  std::vector<float> m_air, m_heater, m_below;
  std::vector<std::vector<float>> m_rooms;
  void seeVents(const Run& run);
  std::vector<std::size_t> m_ventings; ///< steps at which vents were opened by hand
  double m_peak_W = 0.0, m_warmest_C = -1e9, m_tooWarm_h = 0.0;
};

} // namespace muffle
