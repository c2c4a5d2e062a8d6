// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/air/sky.h"
#include "core/house/longwave.h"
#include "core/house/resistance.h"
#include "core/house/shape.h"
#include "core/network/solver.h"
#include "core/plan/plan.h"
#include "core/simulate/simulate.h"
#include "tests/cases/adapters.h"

#include <cmath>

namespace muffle::cases {
namespace {

HeatFlow flowOf(const Json& in) {
  const std::string f = in.value("heat_flow", "horizontal");
  return f == "up" ? HeatFlow::up : f == "down" ? HeatFlow::down : HeatFlow::horizontal;
}

/// Films in the order of the question (top first), as one cover as large as the floor.
struct FilmHouse {
  Network net;
  int out, floor, air = -1, sky;
  std::vector<int> films;
  LongwaveAreas areas;
};

double skyTemperature_C(double downward_W_m2) { return std::pow(downward_W_m2 / kStefanBoltzmann_W_m2K4, 0.25) - kZeroCelsius_K; }

/// Per m2: sky | films | floor with the house's own long-wave areas, film convection outside and in the gaps.
FilmHouse filmHouse(const std::vector<LongwaveSheet>& sheets, double floorEmissivity, double sky_C, double outdoor_C, double hOut, double hGap) {
  FilmHouse h;
  h.out = h.net.addBoundary("out", Driver::constant(outdoor_C));
  h.sky = h.net.addBoundary("sky", Driver::constant(sky_C));
  h.floor = h.net.addNode("floor", 0.0, outdoor_C);
  for (std::size_t i = 0; i < sheets.size(); ++i) h.films.push_back(h.net.addNode("film" + std::to_string(i), 0.0, outdoor_C));
  h.areas = longwaveAreas(1.0, floorEmissivity, {{1.0, sheets}});
  std::vector<int> node(h.areas.between.size(), -1);
  node[0] = h.floor;
  node[static_cast<std::size_t>(h.areas.outside[0])] = h.sky;
  for (std::size_t i = 0; i < sheets.size(); ++i) node[static_cast<std::size_t>(h.areas.sheets[0][i])] = h.films[i];
  for (std::size_t i = 0; i < node.size(); ++i)
    for (std::size_t j = i + 1; j < node.size(); ++j) h.net.addRadiative(node[i], node[j], h.areas.between[i][j]);
  if (hOut > 0.0) h.net.addConductance(h.films.front(), h.out, hOut);
  for (std::size_t i = 1; i < sheets.size(); ++i) h.net.addConductance(h.films[i - 1], h.films[i], hGap);
  return h;
}

/// The whole-cover loss per m2 of a large house under the night that heating tables are made for.
double designU(const std::vector<Layer>& layers, const char* blanket = nullptr) {
  Plan plan;
  plan.house.shape = {ShapeKind::gable, 9.0, 30.0, 2.4, 4.6, 90.0};
  for (Skin* s : {&plan.house.roof, &plan.house.sides, &plan.house.ends}) s->layers = layers;
  if (blanket) plan.house.blanket = NightBlanket{.material = blanket, .leak = 0.1};
  plan.house.airChanges_per_h = 0.0;
  plan.house.windAirChanges = 0.0;
  plan.house.crop = {3.0, 0.8};  // and for houses in full crop on moist ground, whose covers run with water
  plan.site.groundMean_C = 15.0; // the floor neither gains nor loses: the tables speak of the cover alone
  const double inside = 15.0, outside = -5.0;
  // the tables stand for heating nights on the whole: mostly clear, with the 4 m/s that the design film coefficient implies
  const auto loss = steadyLoss(plan, inside, outside, 4.0, 0.7);
  double cover = 0.0;
  for (const LossPart& p : loss->parts)
    if (p.part == LossPath::roof || p.part == LossPath::sides || p.part == LossPath::ends) cover += p.loss_W;
  return cover / plan.house.shape.cover_m2() / (inside - outside);
}

} // namespace

void addEnvelope(Adapters& a) {
  a["u_value"] = [](const Json& in) {
    std::vector<double> r;
    for (const Json& l : in.at("layers_thickness_m_and_conductivity_W_per_mK_or_R_m2K_per_W"))
      r.push_back(l.is_array() ? l[0].get<double>() / l[1].get<double>() : l.get<double>());
    return Json{{"U_W_per_m2K", uValue_W_m2K(r, flowOf(in))}};
  };
  a["air_layer_resistance"] = [](const Json& in) {
    return Json{{"R_m2K_per_W", mapped(in.at("thickness_m"), [&](double d) { return airLayerTable_m2K_W(d, flowOf(in)); })}};
  };
  a["air_layer_resistance_at"] = [](const Json& in) {
    return Json{{"R_m2K_per_W", mapped(in.at("thickness_m"), [&](double d) {
                   return airLayer_m2K_W(d, flowOf(in), num(in, "emissivity_1", 0.9), num(in, "emissivity_2", 0.9), num(in, "mean_C", 10.0));
                 })}};
  };
  a["u_value_combined"] = [](const Json& in) {
    std::vector<Section> sections;
    for (const Json& s : in.at("sections_fraction_then_layers_d_k")) {
      Section section{s[0].get<double>(), {}};
      for (const Json& l : s[1]) section.layers.emplace_back(l[0].get<double>(), l[1].get<double>());
      sections.push_back(section);
    }
    const CombinedResistance r = combinedResistance(sections, flowOf(in));
    return Json{{"R_upper", r.upper_m2K_W}, {"R_lower", r.lower_m2K_W}, {"U_W_per_m2K", r.u_W_m2K()}};
  };
  a["total_conductance"] = [](const Json& in) {
    double sum = 0.0;
    for (const Json& p : in.at("parts_area_m2_U_W_per_m2K")) sum += p[0].get<double>() * p[1].get<double>();
    return Json{{"UA_W_per_K", sum}};
  };
  a["glass_u_value"] = [](const Json& in) {
    return Json{
        {"U_W_per_m2K", 1.0 / (1.0 / num(in, "h_e_W_per_m2K") + num(in, "thickness_m") / num(in, "conductivity_W_per_mK") + 1.0 / num(in, "h_i_W_per_m2K"))}};
  };
  a["thin_sheets_u_value"] = [](const Json& in) {
    const double gap = airLayer_m2K_W(num(in, "gap_m"), flowOf(in), num(in, "emissivity", 0.9), num(in, "emissivity", 0.9), num(in, "mean_C", 10.0));
    const double none[] = {0.0}, one[] = {gap};
    return Json{{"U_one_W_per_m2K", uValue_W_m2K(none, flowOf(in))}, {"U_two_W_per_m2K", uValue_W_m2K(one, flowOf(in))}};
  };
  a["cover_design_u_value"] = [](const Json& in) {
    const std::string cover = in.at("cover").get<std::string>();
    const auto has = [&](const char* word) { return cover.find(word) != std::string::npos; };
    std::vector<Layer> layers;
    if (has("acrylic"))
      layers = {{"acrylic-16", 0.05}};
    else if (has("polycarbonate") && has("16"))
      layers = {{"twin-wall-16", 0.05}};
    else if ((has("polycarbonate") || has("twin-wall")) && has("6 mm"))
      layers = {{"twin-wall-6", 0.05}};
    else if ((has("polycarbonate") || has("twin-wall")) && has("4 mm"))
      layers = {{"twin-wall-4", 0.05}};
    else if (has("polycarbonate") || has("twin-wall"))
      layers = {{"twin-wall-8", 0.05}};
    else if (has("double") && has("glass"))
      layers = {{"sealed-glass", 0.05}};
    else if (has("glass"))
      layers = {{"glass-4mm", 0.05}};
    else if (has("double") && (has("polyethylene") || has("film")))
      layers = {{"pe-film", 0.1}, {"pe-film", 0.1}};
    else if (has("polyethylene") || has("film"))
      layers = {{"pe-film", 0.05}};
    else
      throw NotBuilt{};
    const char* blanket = has("screen") || has("blanket") ? (has("alumin") ? "aluminised-screen" : "woven-blanket") : nullptr;
    return Json{{"U_W_per_m2K", designU(layers, blanket)}};
  };
  a["film_house_unheated"] = [](const Json& in) {
    const double outdoor = num(in, "outdoor_C");
    FilmHouse h = filmHouse({{num(in, "film_emissivity"), num(in, "film_ir_transmittance")}}, num(in, "floor_emissivity"),
                            skyTemperature_C(num(in, "sky_downward_W_per_m2")), outdoor, num(in, "h_out"), 0.0);
    h.air = h.net.addNode("air", 0.0, outdoor);
    h.net.addConductance(h.air, h.films[0], num(in, "h_film_in"));
    h.net.addConductance(h.air, h.floor, num(in, "h_floor"));
    h.net.addConductance(h.air, h.out, num(in, "air_change_W_per_m2K"));
    h.net.addConductance(h.floor, h.net.addBoundary("deep", Driver::constant(num(in, "deep_C"))), num(in, "U_ground_W_per_m2K"));
    h.net.sources.push_back({h.air, Driver::constant(num(in, "heating_W_per_m2", 0.0)), "heating"});
    auto solver = Solver::prepare(h.net, {.newtonTolerance_K = 1e-8});
    solver->solveSteady();
    const double lift = solver->temperature_C(h.air) - outdoor;
    return Json{{"film_C", solver->temperature_C(h.films[0])},
                {"air_C", solver->temperature_C(h.air)},
                {"floor_C", solver->temperature_C(h.floor)},
                {"lift_K", lift},
                {"inside_below_outside", lift < 0.0}};
  };
  a["film_stack_heated"] = [](const Json& in) {
    std::vector<LongwaveSheet> sheets;
    for (const Json& f : in.at("films_top_first_emissivity_ir_transmittance")) sheets.push_back({f[0].get<double>(), f[1].get<double>()});
    const double inside = num(in, "inside_C"), outdoor = num(in, "outdoor_C");
    FilmHouse h =
        filmHouse(sheets, num(in, "floor_emissivity"), skyTemperature_C(num(in, "sky_downward_W_per_m2")), outdoor, num(in, "h_out"), num(in, "h_gap", 0.0));
    h.net.nodes[static_cast<std::size_t>(h.floor)].boundary = Driver::constant(num(in, "floor_C"));
    const int air = h.net.addBoundary("air", Driver::constant(inside));
    h.net.addConductance(air, h.films.back(), num(in, "h_film_in"));
    auto solver = Solver::prepare(h.net, {.newtonTolerance_K = 1e-8});
    solver->solveSteady();
    double loss = 0.0; // everything that leaves air and floor
    for (std::size_t l = 0; l < h.net.links.size(); ++l) {
      const Link& link = h.net.links[l];
      const double q = solver->linkFlow_W(static_cast<int>(l));
      if (link.from == air || link.from == h.floor) loss += q;
      if (link.to == air || link.to == h.floor) loss -= q;
    }
    Json temperatures = Json::array();
    for (const int f : h.films) temperatures.push_back(solver->temperature_C(f));
    return Json{{"film_temperatures_C", temperatures}, {"cover_loss_W_per_m2", loss}, {"apparent_U_W_per_m2K", loss / (inside - outdoor)}};
  };
  a["film_between_black_planes"] = [](const Json& in) {
    FilmHouse h = filmHouse({{num(in, "film_emissivity"), num(in, "film_ir_transmittance")}}, num(in, "floor_emissivity", 1.0), num(in, "sky_C"),
                            num(in, "sky_C"), 0.0, 0.0);
    h.net.nodes[static_cast<std::size_t>(h.floor)].boundary = Driver::constant(num(in, "floor_C"));
    auto solver = Solver::prepare(h.net, {.newtonTolerance_K = 1e-8});
    solver->solveSteady();
    double loss = 0.0;
    for (std::size_t l = 0; l < h.net.links.size(); ++l) {
      if (h.net.links[l].from == h.floor) loss += solver->linkFlow_W(static_cast<int>(l));
      if (h.net.links[l].to == h.floor) loss -= solver->linkFlow_W(static_cast<int>(l));
    }
    return Json{{"film_C", solver->temperature_C(h.films[0])}, {"floor_net_loss_W_per_m2", loss}};
  };
  a["house_shape"] = [](const Json& in) {
    const std::string kind = in.at("shape").get<std::string>();
    HouseShape s;
    s.width_m = num(in, "width_m", 1.0);
    s.length_m = num(in, "length_m", 1.0);
    if (kind == "gable") {
      s.kind = ShapeKind::gable;
      s.eave_m = num(in, "eaves_height_m");
      s.ridge_m = s.eave_m + num(in, "ridge_rise_m");
    } else if (kind == "quonset") {
      s.kind = ShapeKind::arch;
      s.eave_m = num(in, "side_wall_height_m", 0.0);
      s.ridge_m = s.eave_m + num(in, "arch_rise_m", s.width_m / 2.0);
    } else if (kind == "lean-to") {
      s.kind = ShapeKind::leanTo;
      s.eave_m = num(in, "low_height_m");
      s.ridge_m = num(in, "high_height_m");
    } else if (kind == "gothic") {
      s.kind = ShapeKind::pointedArch;
      s.eave_m = num(in, "side_wall_height_m", 0.0);
      s.ridge_m = s.eave_m + num(in, "arch_rise_m");
    } else if (kind == "dome") {
      s.kind = ShapeKind::dome;
      s.width_m = 2.0 * num(in, "base_radius_m");
      s.eave_m = 0.0;
      s.ridge_m = num(in, "height_m");
    } else {
      throw NotBuilt{};
    }
    Json out{{"roof_m2", s.area_m2(FaceGroup::roof)},
             {"side_walls_m2", s.area_m2(FaceGroup::sides)},
             {"end_walls_m2", s.area_m2(FaceGroup::ends)},
             {"cover_m2", s.cover_m2()},
             {"floor_m2", s.floor_m2()},
             {"volume_m3", s.volume_m3()}};
    if (s.kind == ShapeKind::leanTo) out["back_wall_m2"] = s.area_m2(FaceGroup::backWall);
    return out;
  };
}

} // namespace muffle::cases
