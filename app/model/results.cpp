// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/results.h"
#include "core/sizing/search_memory.h"

#include <utility>

namespace muffle {

Results::Results(QObject* parent) : QObject(parent), m_engine(std::make_unique<Engine>()) {
  connect(m_engine.get(), &Engine::simulated, this,
          [this](quint64 generation, const std::shared_ptr<const Weather>& weather, std::shared_ptr<Simulation> result, std::shared_ptr<const Simulation> other,
                 const QString& problem) {
            if (!problem.isEmpty()) emit trouble(problem);
            if (!result || generation < m_resultOf || weather != m_weather) return; // of an older plan or another log
            m_result = std::move(result);
            m_otherResult = std::move(other);
            m_resultOf = generation;
            emit arrived();
          });
  connect(m_engine.get(), &Engine::winterSimulated, this,
          [this](quint64 generation, const std::shared_ptr<const Weather>& weather, std::size_t winter, const std::shared_ptr<const WinterResult>& result,
                 std::size_t step) {
            if (generation != m_generation || weather != m_weather || !m_result || winter >= m_result->series.size()) return;
            takeFirst(m_result->series[winter], result->series, step);
            m_result->soilDepth_m = result->soilDepth_m;
            auto night = result->nights.begin();
            for (NightResult& n : m_result->nights)
              if (n.winter == winter && night != result->nights.end()) n = *night++;
            m_freshOf = generation;
            m_fresh = {winter, step};
            emit winterArrived();
          });
  connect(m_engine.get(), &Engine::sized, this, [this](quint64 generation, std::shared_ptr<Sizing> sizing, const QString& problem) {
    if (generation != m_sizingAsked) return; // of a book that is no longer open
    m_isSizing = false;
    const bool isLess = sizing && sizing->isStopped && sizing->winner < 0 && m_sizing; // than what the search before has found
    if (sizing && !isLess) {
      m_sizing = std::move(sizing);
      m_sizingOf = generation;
    } else if (!problem.isEmpty()) {
      emit trouble(problem);
    }
    emit sizingChanged();
  });
  connect(m_engine.get(), &Engine::progress, this, &Results::sizingProgress);
  connect(m_engine.get(), &Engine::found, this, [this](quint64 generation, const QString& kept) {
    if (generation == m_sizingAsked && m_sizing && m_sizingOf == generation) emit sizingFound(kept);
  });
  connect(m_engine.get(), &Engine::restored, this, [this](quint64 generation, std::shared_ptr<Sizing> sizing, const std::shared_ptr<const Plan>& of) {
    if (m_sizing || m_isSizing || generation < m_forgottenAt) return; // there is a newer one, or another book
    m_sizing = std::move(sizing);
    m_sizedPlan = *of;
    m_sizingOf = generation;
    emit sizingChanged();
  });
}

Results::~Results() = default;

void Results::run(const Plan& plan, std::shared_ptr<const Weather> weather, InSight inSight) {
  outdate();
  m_weather = weather;
  m_engine->simulate(m_generation, plan, m_other, std::move(weather), inSight);
}

void Results::forgetWinters() {
  outdate();
  m_weather.reset();
  m_result.reset();
  m_otherResult.reset();
}

void Results::forgetAll() {
  forgetWinters();
  m_forgottenAt = m_generation;
  m_other.reset();
  m_otherName.clear();
  m_otherPackage.reset();
  m_otherFrom.reset();
  m_sizing.reset();
  if (m_isSizing) cancelSizing();
  m_isSizing = false;
  m_sizingAsked = 0;
}

bool Results::isCurrent(InSight inSight) const {
  return isCurrent() || (m_result && m_freshOf == m_generation && m_fresh.winter == inSight.winter && inSight.step <= m_fresh.step);
}

void Results::compareWith(std::optional<Plan> other, const QString& name, std::optional<std::size_t> package) {
  m_other = std::move(other);
  m_otherName = name;
  m_otherPackage = package;
  m_otherFrom = m_sizing;
  if (!m_other) m_otherResult.reset();
}

std::optional<std::size_t> Results::otherPackage() const { return m_sizing && m_otherFrom == m_sizing ? m_otherPackage : std::nullopt; }

void Results::startSizing(const Plan& plan, const std::shared_ptr<const Weather>& weather) {
  if (!weather || m_isSizing) return;
  m_isSizing = true;
  m_sizedPlan = plan;
  emit sizingChanged();
  m_sizingAsked = m_generation;
  m_engine->size(m_generation, plan, weather, m_sizing ? m_sizing->memory : nullptr);
}

bool Results::canGoOnSearching(const Plan& plan) const { return m_sizing && m_sizing->memory && m_sizing->memory->plan == plan; }

void Results::cancelSizing() { m_engine->cancelSizing(); }

void Results::repriceSizing(const Prices& prices) {
  if (!m_sizing) return;
  m_sizedPlan.prices = prices;
  reprice(*m_sizing, m_sizedPlan, prices);
  emit sizingChanged();
}

} // namespace muffle
