// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/engine.h"

namespace muffle {

Engine::Engine(QObject* parent) : QObject(parent) {
  qRegisterMetaType<std::shared_ptr<const Simulation>>();
  qRegisterMetaType<std::shared_ptr<const Weather>>();
  qRegisterMetaType<std::shared_ptr<Sizing>>();
  m_worker = std::jthread([this](std::stop_token stop) { work(stop); });
}

Engine::~Engine() {
  m_stop = m_stopSizing = true;
  m_worker.request_stop();
  m_wake.notify_all();
}

void Engine::simulate(quint64 generation, const Plan& plan, const std::optional<Plan>& other, std::shared_ptr<const Weather> weather) {
  {
    const std::scoped_lock lock(m_mutex);
    m_next = Request{generation, plan, other, std::move(weather)};
    m_stop = true; // whatever runs now is out of date
  }
  m_wake.notify_all();
}

void Engine::work(std::stop_token stop) {
  // the sun on a shape is kept while shape, place and weather stay
  std::optional<Scene> scenes[2];
  const Weather* scenesOf[2] = {nullptr, nullptr};
  Place placeOf[2];
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
      const auto same = [&](const Scene& scene) {
        return scenesOf[slot] == request.weather.get() && scene.shape == plan.house.shape && placeOf[slot].latitude_deg == plan.site.place.latitude_deg;
      };
      if (!scenes[slot] || !same(*scenes[slot])) {
        scenes[slot] = makeScene(request.weather, plan, 2);
        scenesOf[slot] = request.weather.get();
        placeOf[slot] = plan.site.place;
      }
      return muffle::simulate(plan, *scenes[slot], {.series = true, .threads = 2, .stop = &m_stop});
    };
    auto result = run(request.plan, 0);
    if (!result) {
      if (result.problem().kind != ProblemKind::cancelled)
        emit simulated(request.generation, request.weather, nullptr, nullptr, QString::fromStdString(result.problem().text()));
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
    emit simulated(request.generation, request.weather, std::make_shared<const Simulation>(std::move(*result)), other, {});
  }
}

void Engine::size(quint64 generation, const Plan& plan, std::shared_ptr<const Weather> weather) {
  m_stopSizing = true;
  m_sizer = {}; // joins the one before
  m_stopSizing = false;
  m_sizer = std::jthread([this, generation, plan, weather] {
    SizingOptions options;
    options.progress = [this](std::size_t done, std::size_t of) {
      emit progress(static_cast<int>(done), static_cast<int>(of));
      return !m_stopSizing.load();
    };
    auto sizing = muffle::size(plan, weather, options);
    if (sizing)
      emit sized(generation, std::make_shared<Sizing>(std::move(*sizing)), {});
    else
      emit sized(generation, nullptr, QString::fromStdString(sizing.problem().text()));
  });
}

} // namespace muffle
