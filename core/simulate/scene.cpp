// SPDX-License-Identifier: GPL-3.0-or-later
//
// The weather of a run's winters and of the weeks before them, with the sun on the house.
#include "core/air/moist_air.h"
#include "core/run/store_runner.h"
#include "core/simulate/simulate.h"
#include "core/weather/before.h"

#include <algorithm>
#include <tuple>

namespace muffle {

Scene darkScene(std::shared_ptr<const Weather> weather, const Plan& plan) {
  Scene scene;
  scene.shape = plan.house.shape;
  scene.latitude_deg = plan.site.place.latitude_deg;
  scene.site = plan.site;
  scene.sun.resize(weather->winters.size());
  scene.light = std::make_shared<LightTables>(plan.house.shape);
  scene.weather = std::move(weather);
  for (const Winter& winter : scene.weather->winters) scene.before.push_back({warmUpDays(plan, winter), {}, {}});
  return scene;
}

bool Scene::serves(const Plan& plan, const std::shared_ptr<const Weather>& itsWeather) const {
  if (weather != itsWeather || !(shape == plan.house.shape) || latitude_deg != plan.site.place.latitude_deg) return false;
  const bool remembers = std::any_of(before.begin(), before.end(), [](const Before& b) { return b.days > 0; });
  const auto ground = [](const Site& s) { return std::tuple(s.groundMean_C, s.groundAmplitude_K, s.coldestDay()); };
  if (remembers && ground(site) != ground(plan.site)) return false;
  for (std::size_t i = 0; i < before.size(); ++i)
    if (before[i].days != warmUpDays(plan, weather->winters[i])) return false;
  return true;
}

void addSun(Scene& scene, const Plan& plan, std::size_t winter) {
  const Winter& w = scene.weather->winters[winter];
  const auto lit = [&](const Winter& of) {
    SunOnHouse sun = sunOnHouse(scene.shape, of);
    sun.light = scene.light; // one house, one set of tables
    return sun;
  };
  if (scene.sun[winter].beam_W_m2.empty()) scene.sun[winter] = lit(w);
  Scene::Before& before = scene.before[winter];
  if (before.days == 0 || before.winter) return;
  before.winter = weatherBefore(w, plan.site, before.days);
  if (before.winter) before.sun = lit(*before.winter);
}

Scene colderBy(const Scene& scene, double by_K) {
  const auto cool = [by_K](Winter& winter) {
    for (std::size_t i = 0; i < winter.size(); ++i) {
      const double warm_C = winter.outside_C[i];
      winter.outside_C[i] -= by_K;
      winter.sky_C[i] -= by_K;
      winter.outside_g_kg[i] *= saturationPressure_Pa(winter.outside_C[i]) / saturationPressure_Pa(warm_C);
    }
  };
  Scene colder = scene;
  auto weather = std::make_shared<Weather>(*scene.weather);
  for (Winter& winter : weather->winters) cool(winter);
  colder.weather = std::move(weather);
  for (Scene::Before& before : colder.before)
    if (before.winter) cool(*before.winter);
  return colder;
}

Scene makeScene(std::shared_ptr<const Weather> weather, const Plan& plan) {
  Scene scene = darkScene(std::move(weather), plan);
  for (std::size_t i = 0; i < scene.sun.size(); ++i) addSun(scene, plan, i);
  return scene;
}

} // namespace muffle
