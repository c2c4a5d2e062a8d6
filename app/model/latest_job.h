// SPDX-License-Identifier: GPL-3.0-or-later
//
// One long computation beside the window, of which only the newest counts: a new one stops and joins the one before, and
// an answer that is no longer wanted is dropped. Used on the interface thread; the answer comes there.
//
//   LatestJob<Sizing> job(this);
//   job.start([=](const auto& goOn, const auto* stop) { return oneChangeEach(plan, weather, {0, goOn, stop}); }, [=](Result<Sizing> list) { ... });
#pragma once

#include "core/status.h"

#include <QObject>

#include <atomic>
#include <functional>
#include <memory>
#include <thread>

namespace muffle {

template <class Answer> class LatestJob {
public:
  using Progress = std::function<bool(std::size_t done, std::size_t of)>;
  /// `context` lives as long as this and receives the answer.
  explicit LatestJob(QObject* context) : m_context(context) {}
  ~LatestJob() { m_stop = true; }

  /// What the work looks at in its midst: true once its answer is not wanted.
  using Stop = const std::atomic<bool>*;
  void start(std::function<Result<Answer>(const Progress&, Stop)> work, std::function<void(Result<Answer>)> done,
             std::function<void(std::size_t, std::size_t)> told = {}) {
    m_stop = true;
    m_worker = {}; // joins
    m_stop = false;
    m_working = true;
    const quint64 run = ++m_run;
    m_worker = std::jthread([this, run, work = std::move(work), done = std::move(done), told = std::move(told)] {
      const Progress progress = [this, run, told](std::size_t at, std::size_t of) {
        if (told)
          QMetaObject::invokeMethod(m_context, [this, run, told, at, of] {
            if (run == m_run && m_working) told(at, of);
          });
        return !m_stop.load();
      };
      auto answer = std::make_shared<Result<Answer>>(work(progress, &m_stop));
      QMetaObject::invokeMethod(m_context, [this, run, answer, done] {
        if (run != m_run) return;
        m_working = false;
        done(std::move(*answer));
      });
    });
  }
  /// Asks the work to end; its answer still comes.
  void cancel() { m_stop = true; }
  [[nodiscard]] bool isWorking() const { return m_working; }

private:
  QObject* m_context;
  bool m_working = false;
  quint64 m_run = 0;
  std::atomic<bool> m_stop{false};
  std::jthread m_worker; ///< last: it uses what is above
};

} // namespace muffle
