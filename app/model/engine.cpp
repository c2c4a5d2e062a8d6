// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/engine.h"
#include "app/model/said.h"
#include "core/sizing/how_sure.h"
#include "core/sizing/kept_sizing.h"
#include "core/sizing/thumb_rules.h"

#include <algorithm>
#include <chrono>

namespace muffle {
namespace {
constexpr int kThreads = 2;
constexpr std::size_t kMostKept = 4000; // packages: some megabytes in the book
}

Engine::Engine(QObject* parent) : QObject(parent) {
  qRegisterMetaType<std::shared_ptr<const Simulation>>();
  qRegisterMetaType<std::shared_ptr<Simulation>>();
  qRegisterMetaType<std::shared_ptr<const Weather>>();
  qRegisterMetaType<std::shared_ptr<const WinterResult>>();
  qRegisterMetaType<std::shared_ptr<Sizing>>();
  qRegisterMetaType<std::shared_ptr<const Plan>>();
  qRegisterMetaType<SizingProgress>();
  m_worker = std::jthread([this](const std::stop_token& stop) { work(stop); });
}

Engine::~Engine() {
  m_stop = m_stopSizing = true;
  m_worker.request_stop();
  m_wake.notify_all();
}

void Engine::simulate(quint64 generation, const Plan& plan, const std::optional<Plan>& other, std::shared_ptr<const Weather> weather, InSight inSight) {
  {
    const std::scoped_lock lock(m_mutex);
    m_next = Request{generation, plan, other, std::move(weather), inSight};
    m_stop = true; // whatever runs now is out of date
  }
  m_wake.notify_all();
}

Result<Simulation> Engine::run(const Request& request, const Plan& plan, Scene& scene, bool tell) {
  const auto begin = std::chrono::steady_clock::now();
  const std::size_t count = request.weather->winters.size();
  const std::size_t first = std::min(request.inSight.winter, count - 1);
  std::vector<std::optional<Result<WinterResult>>> runs(count);
  std::atomic<std::size_t> next{0};
  std::vector<std::jthread> helpers;
  const auto others = [&] {
    for (std::size_t i = next++; i < count; i = next++) {
      if (i == first) continue;
      addSun(scene, plan, i);
      runs[i] = simulateWinter(plan, scene, i, {.series = true, .stop = &m_stop});
    }
  };
  SimulateOptions options{.series = true, .stop = &m_stop};
  options.tellAt = request.inSight.step;
  options.tell = [&](const WinterResult& soFar, std::size_t step) { // up to here the run had the machine to itself
    if (tell) emit winterSimulated(request.generation, request.weather, first, std::make_shared<const WinterResult>(soFar), step);
    for (int t = 1; t < kThreads; ++t) helpers.emplace_back(others);
  };
  addSun(scene, plan, first);
  runs[first] = simulateWinter(plan, scene, first, options);
  if (!*runs[first]) return runs[first]->problems();
  others();
  helpers.clear(); // joins
  auto all = summarise(plan, scene, std::move(runs));
  if (all) all->summary.run_ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
  return all;
}

void Engine::work(const std::stop_token& stop) {
  // the sun on a shape is kept while shape, place and weather stay
  std::optional<Scene> scenes[2];
  while (!stop.stop_requested()) {
    Request request;
    {
      std::unique_lock lock(m_mutex);
      if (!m_wake.wait(lock, stop, [this] { return m_next.has_value(); })) return;
      request = std::move(*m_next);
      m_next.reset();
      m_stop = false;
    }
    const auto run = [&](const Plan& plan, int slot) -> Result<Simulation> {
      if (!scenes[slot] || !scenes[slot]->serves(plan, request.weather)) scenes[slot] = darkScene(request.weather, plan);
      return this->run(request, plan, *scenes[slot], slot == 0);
    };
    auto result = run(request.plan, 0);
    if (!result) {
      if (result.problem().kind != ProblemKind::cancelled) emit simulated(request.generation, request.weather, nullptr, nullptr, said(result.problem()));
      continue;
    }
    std::shared_ptr<const Simulation> other;
    if (request.other) {
      auto second = run(*request.other, 1);
      if (!second) {
        if (second.problem().kind == ProblemKind::cancelled) continue;
      } else {
        other = std::make_shared<const Simulation>(std::move(*second));
      }
    }
    emit simulated(request.generation, request.weather, std::make_shared<Simulation>(std::move(*result)), other, {});
  }
}

void Engine::size(quint64 generation, const Plan& plan, const std::shared_ptr<const Weather>& weather, const std::shared_ptr<const SearchMemory>& goOn) {
  m_stopSizing = true;
  m_sizer = {}; // joins the one before
  m_stopSizing = false;
  m_sizer = std::jthread([this, generation, plan, weather, goOn] {
    SizingOptions options;
    options.goOn = goOn;
    options.progress = [this](const SizingProgress& so) {
      emit progress(so);
      return !m_stopSizing.load();
    };
    options.stop = &m_stopSizing;
    auto sizing = muffle::size(plan, weather, options);
    PackageScenes scenes(weather);
    if (sizing && sizing->winner >= 0 && !m_stopSizing)
      if (auto colder = colderWinters(*sizing, plan, scenes, {.threads = kThreads, .stop = &m_stopSizing}, 0)) sizing->colder = *std::move(colder);
    if (sizing && sizing->winner >= 0 && !m_stopSizing)
      if (auto likely = likelyHouses(*sizing, plan, scenes, {.threads = kThreads, .stop = &m_stopSizing})) sizing->likely = *std::move(likely);
    if (sizing && !m_stopSizing)
      if (auto thumb = runThumbRules(plan, scenes, &m_stopSizing)) sizing->thumb = *std::move(thumb);
    if (!sizing) {
      emit sized(generation, nullptr, said(sizing.problem()));
      return;
    }
    const QString kept = sizing->packages.size() <= kMostKept ? QString::fromStdString(keptToJson(*sizing, plan).dump()) : QString();
    emit sized(generation, std::make_shared<Sizing>(std::move(*sizing)), {});
    emit found(generation, kept);
  });
}

void Engine::restore(quint64 generation, const Plan& plan, const std::shared_ptr<const Weather>& weather, const std::string& kept) {
  m_stopSizing = true;
  m_sizer = {}; // joins the one before
  m_stopSizing = false;
  m_sizer = std::jthread([this, generation, plan, weather, kept] {
    const auto json = parseJson(kept);
    auto found = json ? keptFromJson(*json, &m_stopSizing) : Result<KeptSizing>(json.problems());
    if (!found || !sameButPrices(found->plan, plan)) return;
    PackageScenes scenes(weather);
    const auto isSo = isStillSo(*found, scenes, &m_stopSizing);
    if (!isSo || !*isSo) return;
    if (auto thumb = runThumbRules(found->plan, scenes, &m_stopSizing)) found->sizing.thumb = *std::move(thumb);
    if (found->plan != plan) reprice(found->sizing, found->plan, plan.prices);
    found->plan.prices = plan.prices;
    emit restored(generation, std::make_shared<Sizing>(std::move(found->sizing)), std::make_shared<const Plan>(std::move(found->plan)));
  });
}

} // namespace muffle
