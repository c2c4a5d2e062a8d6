// SPDX-License-Identifier: GPL-3.0-or-later
//
// One background thread that always works on the newest request and drops older ones. Results come back on the thread
// that made the engine.
#pragma once

#include "core/simulate/simulate.h"
#include "core/sizing/sizing.h"

#include <QObject>

#include <condition_variable>
#include <functional>
#include <mutex>
#include <optional>
#include <thread>

namespace muffle {

class Engine : public QObject {
  Q_OBJECT
public:
  explicit Engine(QObject* parent = nullptr);
  ~Engine() override;

  /// What is looked at: the winter, and the last of its steps that any view draws.
  struct InSight {
    std::size_t winter = 0, step = 0;
  };
  /// Runs the plan, and the other plan if there is one: the winter in sight first, and what it has up to the step in sight as soon as that is run.
  void simulate(quint64 generation, const Plan& plan, const std::optional<Plan>& other, std::shared_ptr<const Weather> weather, InSight inSight);
  /// `goOn`: of a search that was stopped, if there is one.
  void size(quint64 generation, const Plan& plan, const std::shared_ptr<const Weather>& weather, const std::shared_ptr<const SearchMemory>& goOn);
  /// What was found another day (core/sizing/kept_sizing.h): tells of it if plan, log and model are still those of then, but for prices.
  void restore(quint64 generation, const Plan& plan, const std::shared_ptr<const Weather>& weather, const std::string& kept);
  void cancelSizing() { m_stopSizing = true; }

signals:
  void winterSimulated(quint64 generation, std::shared_ptr<const Weather> weather, std::size_t winter, std::shared_ptr<const WinterResult> result,
                       std::size_t step);
  void simulated(quint64 generation, std::shared_ptr<const Weather> weather, std::shared_ptr<Simulation> result, std::shared_ptr<const Simulation> other,
                 QString problem);
  void sized(quint64 generation, std::shared_ptr<Sizing> sizing, QString problem);
  void found(quint64 generation, QString kept); ///< the same, to be written down
  void restored(quint64 generation, std::shared_ptr<Sizing> sizing, std::shared_ptr<const Plan> of);
  void progress(const SizingProgress& progress);

private:
  struct Request {
    quint64 generation;
    Plan plan;
    std::optional<Plan> other;
    std::shared_ptr<const Weather> weather;
    InSight inSight;
  };
  void work(const std::stop_token& stop);
  /// The plan over all winters; tells of the winter in sight as soon as it is there, if `tell`.
  Result<Simulation> run(const Request& request, const Plan& plan, Scene& scene, bool tell);
  std::mutex m_mutex;
  std::condition_variable_any m_wake;
  std::optional<Request> m_next;
  std::atomic<bool> m_stop{false}, m_stopSizing{false};
  std::jthread m_sizer;
  std::jthread m_worker; ///< last: it uses everything above
};

} // namespace muffle
