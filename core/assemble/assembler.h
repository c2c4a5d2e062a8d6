// SPDX-License-Identifier: GPL-3.0-or-later
//
// The work of assemble(), for its own files only: rooms, ground and air in assemble.cpp, heaters in assemble_heaters.cpp, stores in assemble_stores.cpp, skins
// and what divides the house in assemble_skins.cpp, the sun in assemble_sun.cpp. Each step adds to the network what it needs of the steps before.
#pragma once

#include "core/assemble/assemble.h"

#include "core/assemble/covers.h"
#include "core/assemble/light_inside.h"
#include "core/assemble/room_air.h"
#include "core/assemble/soil_under.h"
#include "core/assemble/spaces.h"
#include "core/ground/soil.h"
#include "core/material/materials.h"

#include <algorithm>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace muffle {

constexpr double kFanBand_K = 1.0; ///< of fans, from starting to running fully

class Assembler {
public:
  Assembler(const Plan& plan, const Winter& winter, const SunOnHouse& sun, std::optional<double> inside_C, Failable failable)
      : m_plan(plan), m_house(plan.house), m_winter(winter), m_sun(sun), m_inside_C(inside_C), m_failable(failable), m_materials(plan.materials),
        m_fitted(plan.calibration.value_or(Calibration{})), m_net(m_a.network) {}
  Assembly run();

private:
  /// A space with its place in the network.
  struct Room {
    Space space;
    std::string prefix; ///< of its nodes' names
    double start_C;
    RoomAir air;
    int floor;
    double bare_m2; ///< floor that no bed cover stands on
    std::optional<Covers> covers;
    [[nodiscard]] bool grows() const { return space.kind == RoomKind::house || space.kind == RoomKind::bay; }
  };
  Room* room(RoomKind kind);
  Room& roomOf(const BedCover& bed) { return bed.inBay ? *room(RoomKind::bay) : m_rooms.front(); }
  /// Of the whole house's air.
  [[nodiscard]] double volumeShare(const Room& room) const { return room.space.volume_m3 / m_house.shape.volume_m3(); }
  void rooms();

  Assembly::Room& bedRoom(std::size_t k) { return m_a.rooms[*otherRoom(m_plan, RoomKind::bed, k)]; }
  /// Of air and what stands in it, before the first step of the weeks before a log: the first day's mean and a little, or what a heater holds.
  double start() const;
  int signal(std::vector<double> values, bool hold = false);
  template <class F> int signalOf(F f, bool hold = false) {
    std::vector<double> v(m_winter.size());
    for (std::size_t i = 0; i < v.size(); ++i) v[i] = f(i);
    return signal(std::move(v), hold);
  }
  void boundaries();

  [[nodiscard]] UndisturbedGround far() const { return undisturbedGround(m_plan); }

  /// The ground's own temperature at a depth, day by day: between two days its wave is straight to 1e-4 of its amplitude.
  int undisturbed(double depth_m);

  /// Soil under an area of floor, down to the ground's own wave.
  SoilColumn column(const std::string& id, const Floor& floor, int surface, double area_m2, double below_m, double start_C);

  /// The film over a floor, moist in part.
  void overFloor(RoomAir air, int surface, double area_m2, const Floor& floor, bool isMoist = true);
  void ground();

  void covers();
  void skins(Room& room);

  [[nodiscard]] Behind behind(const Room& room) const { return {room.air.air, room.air.vapour, room.covers->radiation()}; }

  /// Air that a room exchanges with the house, and a fan between them.
  void joinHouse(const Room& room, double airChanges_per_h, const std::optional<RoomFan>& fan, bool drawsFromRoom);

  /// Between a bay or lobby and the house, up to its roof.
  void partition(Room& room, const Skin& skin, double airChanges_per_h, const std::optional<RoomFan>& fan, bool drawsFromRoom);
  void ceiling(Room& room);

  void bedCover(Room& room, const BedCover& cover, const Assembly::Room& bed, const std::string& id);

  /// What stands in the ground beside a sunk floor: the wall's surface, then half a metre of soil to the ground's own wave at
  /// half the depth.
  void sunkWalls();
  void draughts();

  void vents(const std::vector<double>& may);
  void barrels();

  // stores, in assemble_stores.cpp
  void stores();
  /// Of the main room's floor, what pipe beds lie under.
  [[nodiscard]] double pipeBeds_m2() const;
  /// Columns of soil over and under pipe beds, from the floor's surface node.
  void pipeBeds(int floor, double start_C);
  void pipes(std::size_t index);
  void hotBedFloors(double start_C);
  void compost(std::size_t index);
  void hotBed(std::size_t index, StoreNodes& store, PileHandles& handles);
  void chamber(std::size_t index, StoreNodes& store, PileHandles& handles);
  void mound(std::size_t index, StoreNodes& store, PileHandles& handles);
  void loop(std::size_t index);
  void massFloors(double start_C, double below_m);
  void mass(std::size_t index);
  void cable(std::size_t index);
  /// Signal of a fan or pump by the air of the house; without `charges` it only gives.
  int runsBy(const std::string& id, const StoreRule& rule, bool charges);
  /// The signal while the mains are on, else 0; -1 stands for always. `what` names the fan or pump to a scenario.
  int onMains(int signal, const std::string& what);
  int commandedRelay(const std::string& id, bool on);
  int constantSignal(double value);
  [[nodiscard]] HeldHeat heldBy(int node) const {
    const Node& of = m_net.nodes[static_cast<std::size_t>(node)];
    return {node, of.capacity_J_K, of.water};
  }
  void collector(StoreNodes& store, int warms, double area_m2, double tilt_deg);
  void coilsInto(int tank, std::size_t loop);

  [[nodiscard]] LightTaking lightTaking() const;
  void sun();

  /// Transpiration by the light inside; the heat comes from the air, for leaves are near its temperature.
  void leaves(int light);

  // heaters, in assemble_heaters.cpp
  void heaters();
  [[nodiscard]] Thermostat thermostatOf(const Heater& heater, Assembly::HeaterNodes& nodes);
  [[nodiscard]] std::vector<bool> mayHeat(const Heater& heater) const;
  [[nodiscard]] std::vector<HeatShare> elsewhere(const Heater& heater, const Assembly::Room& room, double counted) const;
  void addStirred(std::vector<HeatShare>& shares, const Heater& heater, double warmAir) const;
  [[nodiscard]] std::vector<std::size_t> loadsOf(const Heater& stove) const;
  [[nodiscard]] int warmedWithin(std::size_t mass) const;
  int leaf();
  void tagLosses();

  struct Absorbing {
    int node;
    int group;
    double factor;
  };
  const Plan& m_plan;
  const House& m_house;
  const Winter& m_winter;
  const SunOnHouse& m_sun;
  std::optional<double> m_inside_C;
  Failable m_failable;
  Materials m_materials;
  Calibration m_fitted;
  Assembly m_a;
  std::map<double, int> m_constants; ///< signals of one value for all time
  Network& m_net;
  std::vector<double> m_night;
  int m_windFilm = -1;
  int m_leaf = -1; ///< that a thermostat feels; -1 where none does
  std::optional<BlanketSignals> m_blanket, m_blanketUnderRoof;
  std::optional<RoofSignals> m_roof;
  RoomAir m_outdoors;
  std::vector<Room> m_rooms;    ///< as spacesOf() lists them
  std::vector<int> m_pipePlane; ///< by ground pipes: the node of the soil about them
  struct HotBed {
    int floor = -1;
    double foot_m2 = 0.0;
  };
  std::vector<HotBed> m_hotBeds; ///< by compost pile; empty places for those elsewhere
  struct OwnFloor {
    int node = -1;        ///< its surface
    double area_m2 = 0.0; ///< that it takes of the floor
    bool grows = false;
    std::vector<HeldHeat> holds = {};
  };
  std::vector<OwnFloor> m_massFloors;               ///< by heavy thing; walls take no floor
  std::vector<SoilColumn> m_bedSoil;                ///< by bed cover
  std::vector<int> m_tanks;                         ///< by water loop
  std::vector<int> m_bedSheets;                     ///< the bed covers' own nodes, by kind
  std::vector<std::pair<int, double>> m_ceilingSun; ///< node, and the area that takes the light in the void up
  double m_ceilingTransmittance = 1.0;
  std::vector<std::pair<int, double>> m_innerWalls; ///< inner face of a back wall, and its area
  std::vector<Absorbing> m_absorbing;
};

} // namespace muffle
