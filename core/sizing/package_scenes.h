// SPDX-License-Identifier: GPL-3.0-or-later
//
// The scenes of packages: one for all whose shape, ground and weeks before the log are the same, made when the first of them is run.
#pragma once

#include "core/simulate/simulate.h"

#include <deque>
#include <memory>
#include <mutex>

namespace muffle {

class PackageScenes {
public:
  explicit PackageScenes(std::shared_ptr<const Weather> weather) : m_weather(std::move(weather)) {}
  /// Stays where it is as long as this does. From any thread.
  const Scene& of(const Plan& package) {
    const std::scoped_lock lock(m_mutex);
    for (const Scene& scene : m_scenes)
      if (scene.serves(package, m_weather)) return scene;
    return m_scenes.emplace_back(makeScene(m_weather, package));
  }
  [[nodiscard]] const std::shared_ptr<const Weather>& weather() const { return m_weather; }

private:
  std::shared_ptr<const Weather> m_weather;
  std::mutex m_mutex;
  std::deque<Scene> m_scenes;
};

} // namespace muffle
