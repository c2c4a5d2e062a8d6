// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/plan_differences.h"

#include "core/crop/crops.h"
#include "core/material/materials.h"
#include "core/plan/names.h"
#include "core/plan/plan_json.h"

#include <fmt/format.h>

#include <algorithm>
#include <string>

namespace muffle {
namespace {

/// Something that stands in a plan, and where it is written in its file.
struct Fact {
  std::string key; ///< by which it is the same thing in both plans
  std::vector<std::string> at;
  Message what, value;
  PlanPart part = PlanPart::none;
  std::size_t index = 0; ///< among its kind
};

/// Lists whose rows are facts, and what is no part of what stands.
constexpr const char* kLists[] = {"barrels", "ground_pipes", "compost", "water_loops", "soil_cables", "mass", "heaters", "crops"};
constexpr const char* kLeftOut[] = {"name", "measures", "ask", "kit"};

class Facts {
public:
  explicit Facts(const Plan& plan) : m_plan(plan), m_materials(plan.materials) {
    ofHouse();
    ofRooms();
    ofStores();
    ofHeat();
    ofPrices();
  }
  std::vector<Fact> all;

private:
  void add(std::string at, Message what, Message value, PlanPart part = PlanPart::none, std::size_t index = 0) {
    all.push_back({at, {at}, std::move(what), std::move(value), part, index});
  }
  /// The rows of a list, each with its name and, of several, its number.
  template <class T, class Size> void list(const char* field, PlanPart part, const std::vector<T>& things, Size size) {
    for (std::size_t i = 0; i < things.size(); ++i) {
      const Message name = nameOf(things[i]);
      add(fmt::format("{}/{}", field, i), things.size() < 2 ? name : Message{"name.numbered", name, i + 1}, size(things[i]), part, i);
    }
  }
  static Message amount(double value, Unit unit, int digits = 3) { return Message{"plan.differs-amount", Amount{value, unit, digits}}; }

  [[nodiscard]] Message layersOf(const Skin& skin) const {
    std::vector<Message> names;
    for (const Layer& layer : skin.layers) {
      const CoverMaterial* material = m_materials.find(layer.material);
      names.push_back(material ? nameOf(*material) : Message::verbatim(layer.material));
    }
    return Message{"plan.differs-layers", names};
  }

  void ofHouse() {
    const House& house = m_plan.house;
    add("/house/shape", Message{"plan.differs-size"},
        Message{"plan.differs-long-wide-high", Amount{house.shape.length_m, Unit::metre, 3}, Amount{house.shape.span_m(), Unit::metre, 3},
                Amount{house.shape.ridge_m, Unit::metre, 3}},
        PlanPart::shape);
    add("/house/roof", Message{"plan.differs-roof"}, layersOf(house.roof), PlanPart::roof);
    add("/house/sides", Message{"plan.differs-sides"}, layersOf(house.sides), PlanPart::sides);
    add("/house/ends", Message{"plan.differs-ends"}, layersOf(house.ends), PlanPart::ends);
    if (house.shape.hasBackWall()) add("/house/back_wall", Message{"plan.differs-back-wall"}, layersOf(house.backWall), PlanPart::backWall);
    if (house.blanket) {
      const CoverMaterial* material = m_materials.find(house.blanket->material);
      add("/house/blanket", Message{"plan.differs-blanket"}, material ? nameOf(*material) : Message::verbatim(house.blanket->material), PlanPart::blanket);
    }
    all.push_back({"draughts",
                   {"/house/air_changes_per_h", "/house/air_changes_per_wind"},
                   Message{"plan.differs-draughts"},
                   Message{"plan.differs-air-changes", Amount{house.airChanges_per_h, Unit::none, 3}},
                   PlanPart::none});
    if (house.floor.edgeInsulation_m2K_W > 0.0)
      all.push_back({"skirt",
                     {"/house/floor/edge_depth_m", "/house/floor/edge_insulation_m2K_W"},
                     Message{"plan.differs-skirt"},
                     amount(house.floor.edgeDepth_m, Unit::metre),
                     PlanPart::skirt});
    if (const FloorCover* cover = findFloorCover(house.floor.cover))
      all.push_back({"floor cover", {"/house/floor/cover", "/house/floor/cover_m"}, Message{"plan.differs-floor"}, nameOf(*cover), PlanPart::floorCover});
    list("/house/bed_covers", PlanPart::bedCover, house.bedCovers, [](const BedCover& b) { return amount(b.bed_m2(), Unit::squareMetre); });
  }

  void ofRooms() {
    const House& house = m_plan.house;
    if (house.bay) add("/house/warm_bay", nameOf(*house.bay), amount(house.bay->length_m, Unit::metre));
    if (house.lobby) add("/house/lobby", nameOf(*house.lobby), amount(house.lobby->length_m, Unit::metre));
    if (house.roofVoid) add("/house/roof_void", nameOf(*house.roofVoid), layersOf(house.roofVoid->ceiling), PlanPart::ceiling);
  }

  void ofStores() {
    list("/barrels", PlanPart::barrels, m_plan.barrels, [](const Barrels& b) {
      return Message{"plan.differs-of-each", b.count, Amount{b.litres, Unit::litre, 3}};
    });
    list("/ground_pipes", PlanPart::groundPipes, m_plan.groundPipes, [](const GroundPipes& p) {
      return Message{"plan.differs-of-each", p.count, Amount{p.length_m, Unit::metre, 3}};
    });
    list("/compost", PlanPart::compost, m_plan.compost, [](const CompostPile& c) {
      return Message{"plan.differs-of-each", c.piles, Amount{c.width_m * c.length_m, Unit::squareMetre, 3}};
    });
    list("/water_loops", PlanPart::waterLoop, m_plan.waterLoops, [](const WaterLoop& w) { return amount(w.litres, Unit::litre); });
    list("/soil_cables", PlanPart::soilCable, m_plan.soilCables, [](const SoilCable& c) { return amount(c.watts_per_m * c.length_m, Unit::watt); });
    list("/mass", PlanPart::mass, m_plan.mass, [](const MassBlock& m) { return amount(m.area_m2, Unit::squareMetre); });
  }

  void ofHeat() {
    for (std::size_t i = 0; i < m_plan.heaters.size(); ++i) {
      const Heater& h = m_plan.heaters[i];
      all.push_back({"heater " + h.id, {fmt::format("/heaters/{}", i)}, nameOf(m_plan, h), amount(h.power_W, Unit::watt), PlanPart::heater, i});
    }
    const Setpoints& s = m_plan.setpoints;
    add("/setpoints/hold_C", Message{"plan.differs-line"}, amount(s.hold_C, Unit::celsius));
    add("/setpoints/night_C", Message{"plan.differs-night"}, amount(s.night_C, Unit::celsius));
    add("/setpoints/day_C", Message{"plan.differs-day"}, amount(s.day_C, Unit::celsius));
    if (!s.nightBands.empty())
      add("/setpoints/night_bands", Message{"plan.differs-night-bands"},
          Message{"plan.differs-from-to", Amount{s.nightBands.front().setpoint_C, Unit::celsius}, Amount{s.nightBands.back().setpoint_C, Unit::celsius}});
    if (!s.dayBands.empty())
      add("/setpoints/day_bands", Message{"plan.differs-day-bands"},
          Message{"plan.differs-from-to", Amount{s.dayBands.front().setpoint_C, Unit::celsius}, Amount{s.dayBands.back().setpoint_C, Unit::celsius}});
    const Crops crops(m_plan.ownCrops);
    for (std::size_t i = 0; i < m_plan.crops.size(); ++i) {
      const CropFacts* crop = crops.find(m_plan.crops[i].crop);
      add(fmt::format("/crops/{}", i), Message{"plan.differs-crop", i + 1}, crop ? nameOf(*crop) : Message::verbatim(m_plan.crops[i].crop));
    }
  }

  void ofPrices() {
    const auto money = [&](double price) { return Message{"plan.differs-money", Amount{price, Unit::none, 4}, m_plan.prices.currency}; };
    add("/prices/electricity_per_kWh", Message{"plan.differs-electricity"}, money(m_plan.prices.electricity_per_kWh));
    add("/prices/hour", Message{"plan.differs-hour"}, money(m_plan.prices.hour));
  }

  const Plan& m_plan;
  const Materials m_materials;
};

Json valuesAt(const Json& plan, const std::vector<std::string>& places) {
  Json values = Json::array();
  for (const std::string& at : places) {
    const Json::json_pointer pointer(at);
    values.push_back(plan.contains(pointer) ? plan.at(pointer) : Json());
  }
  return values;
}

/// Takes what has a row of its own out of a plan's file.
void forget(Json& plan, const std::vector<Fact>& facts) {
  for (const char* list : kLists) plan.erase(list);
  for (const char* left : kLeftOut) plan.erase(left);
  for (const Fact& fact : facts)
    for (const std::string& at : fact.at) {
      const Json::json_pointer pointer(at);
      if (!plan.contains(pointer.parent_pointer())) continue;
      Json& parent = plan.at(pointer.parent_pointer());
      if (parent.is_object()) parent.erase(pointer.back());
    }
  if (plan["house"].contains("bed_covers")) plan["house"].erase("bed_covers");
}

} // namespace

std::vector<PlanDifference> differences(const Plan& one, const Plan& other) {
  std::vector<PlanDifference> rows;
  if (one == other) return rows;
  const Facts a(one), b(other);
  Json x = planToJson(one), y = planToJson(other);
  const Message none{"plan.differs-none"}, otherwise{"plan.differs-otherwise"};
  const auto sameThing = [](const std::vector<Fact>& among, const Fact& as) {
    const auto found = std::find_if(among.begin(), among.end(), [&](const Fact& f) { return f.key == as.key; });
    return found == among.end() ? nullptr : &*found;
  };
  for (const Fact& fact : a.all) {
    const Fact* there = sameThing(b.all, fact);
    if (!there)
      rows.push_back({fact.what, fact.value, none, fact.part, fact.index, std::nullopt});
    else if (fact.value != there->value)
      rows.push_back({fact.what, fact.value, there->value, fact.part, fact.index, there->index});
    else if (valuesAt(x, fact.at) != valuesAt(y, there->at))
      rows.push_back({fact.what, fact.value, otherwise, fact.part, fact.index, there->index});
  }
  for (const Fact& fact : b.all)
    if (!sameThing(a.all, fact)) rows.push_back({fact.what, none, fact.value, fact.part, std::nullopt, fact.index});
  for (const std::vector<Fact>* facts : {&a.all, &b.all}) {
    forget(x, *facts);
    forget(y, *facts);
  }
  if (x != y) rows.push_back({Message{"plan.differs-rest"}, Message{}, otherwise, PlanPart::none, {}, {}});
  return rows;
}

} // namespace muffle
