// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/view_state.h"

#include "app/model/book_keeping.h"
#include "app/model/log_in_hand.h"

#include <algorithm>

namespace muffle {

void ViewState::restore(const std::map<std::string, std::string>& settings) {
  const auto is = [&](const char* key, const char* value) {
    const auto it = settings.find(key);
    return it != settings.end() && it->second == value;
  };
  m_units.fahrenheit = is("units.temperature", "F");
  m_units.feet = is("units.length", "ft");
  m_dark = is("theme", "lamp");
  forgetNight();
}

void ViewState::setUnits(const Units& units) {
  m_units = units;
  m_book.saveSetting("units.temperature", units.fahrenheit ? QStringLiteral("F") : QStringLiteral("C"));
  m_book.saveSetting("units.length", units.feet ? QStringLiteral("ft") : QStringLiteral("m"));
  emit viewChanged();
}

void ViewState::setDark(bool dark) {
  m_dark = dark;
  m_book.saveSetting("theme", dark ? QStringLiteral("lamp") : QStringLiteral("wool"));
  emit viewChanged();
}

const NightResult* ViewState::night() const {
  const Simulation* result = m_results.simulation();
  return result && m_night >= 0 && m_night < static_cast<int>(result->nights.size()) ? &result->nights[static_cast<std::size_t>(m_night)] : nullptr;
}

void ViewState::selectNight(int night, bool extend) {
  const Simulation* result = m_results.simulation();
  if (!result || result->nights.empty()) return;
  m_night = std::clamp(night, 0, static_cast<int>(result->nights.size()) - 1);
  if (!extend) m_spanStart = m_night;
  emit selectionChanged();
}

std::optional<Date> ViewState::selectedDate() const {
  if (const NightResult* chosen = night()) return chosen->date;
  return std::nullopt;
}

void ViewState::selectNightOf(const Date& date) {
  const Simulation* result = m_results.simulation();
  for (std::size_t i = 0; result && i < result->nights.size(); ++i)
    if (result->nights[i].date == date) return selectNight(static_cast<int>(i));
}

void ViewState::openOnColdest() {
  const auto& nights = m_results.simulation()->nights;
  if (m_night >= static_cast<int>(nights.size())) m_night = -1;
  if (m_night >= 0) return;
  double coldest = 1e9;
  for (std::size_t i = 0; i < nights.size(); ++i)
    if (nights[i].assessable && nights[i].coldest_C < coldest) coldest = nights[i].coldest_C, m_night = static_cast<int>(i);
  m_spanStart = m_night;
}

void ViewState::setClock(double clock) {
  m_clock = std::clamp(clock, 0.0, 1.0);
  emit selectionChanged();
}

std::optional<ViewState::Moment> ViewState::moment() const {
  const NightResult* chosen = night();
  if (!chosen || !m_readings.weather()) return std::nullopt;
  const Winter& winter = m_readings.weather()->winters[chosen->winter];
  const auto middle = static_cast<double>(chosen->from + chosen->to) / 2.0; // about midnight by the sun
  const double step = middle + (m_clock - 0.5) * 86400.0 / winter.step_s;
  return Moment{chosen->winter, static_cast<std::size_t>(std::clamp(step, 0.0, static_cast<double>(winter.size() - 1)))};
}

void ViewState::showMoment(const Moment& moment) {
  const Simulation* result = m_results.simulation();
  if (!result || !m_readings.weather()) return;
  const auto fromMiddle = [&](const NightResult& n) { return static_cast<double>(moment.step) - static_cast<double>(n.from + n.to) / 2.0; };
  int nearest = -1;
  for (std::size_t i = 0; i < result->nights.size(); ++i) {
    const NightResult& n = result->nights[i];
    if (n.winter != moment.winter) continue;
    if (nearest < 0 || std::abs(fromMiddle(n)) < std::abs(fromMiddle(result->nights[static_cast<std::size_t>(nearest)]))) nearest = static_cast<int>(i);
  }
  if (nearest < 0) return;
  m_night = m_spanStart = nearest;
  const double step_s = m_readings.weather()->winters[moment.winter].step_s;
  m_clock = std::clamp(0.5 + (fromMiddle(result->nights[static_cast<std::size_t>(nearest)]) + 0.5) * step_s / 86400.0, 0.0, 1.0); // amid its step
  emit selectionChanged();
}

Results::InSight ViewState::inSight() const {
  constexpr double kDaysAfter = 3.3; // the charts of a night show the days beside it
  const NightResult* chosen = night();
  if (!chosen) return {};
  if (!m_readings.weather()) return {chosen->winter, 0};
  const Winter& winter = m_readings.weather()->winters[chosen->winter];
  return {chosen->winter, std::min(chosen->to + static_cast<std::size_t>(kDaysAfter * 86400.0 / winter.step_s), winter.size() - 1)};
}

void ViewState::pointAtPlan(std::optional<Plan> plan) {
  if (!plan && !m_pointedPlan) return;
  m_pointedPlan = std::move(plan);
  emit pointedPlanChanged();
}

} // namespace muffle
