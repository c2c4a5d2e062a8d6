// SPDX-License-Identifier: GPL-3.0-or-later
//
// What was worked out of the plan in hand: its winters, those of a plan to compare with, and the search for the cheapest. They come from
// threads of their own (engine.h). Every result belongs to a generation of what it was made of, so that one of an older plan is never shown as
// current, whatever the plans are called.
#pragma once

#include "app/model/engine.h"

#include <QObject>
#include <QString>

#include <memory>
#include <optional>

namespace muffle {

class Results : public QObject {
  Q_OBJECT
public:
  explicit Results(QObject* parent = nullptr);
  ~Results() override;

  using InSight = Engine::InSight;
  /// Plan, log or place are others now: what runs or has run is of those before.
  void outdate() { ++m_generation; }
  /// Runs the plan, and the plan to compare with, over the weather; the winter in sight comes first. What has run is out of date.
  void run(const Plan& plan, std::shared_ptr<const Weather> weather, InSight inSight);
  /// Its steps are those of another weather: nothing is shown until run() has been through.
  void forgetWinters();
  /// Nothing of what was worked out belongs to the book that is open now.
  void forgetAll();

  /// The newest result, perhaps of an older plan; see isCurrent().
  [[nodiscard]] const Simulation* simulation() const { return m_result.get(); }
  [[nodiscard]] bool isCurrent() const { return m_result && m_resultOf == m_generation; }
  /// True if at least what is in sight is of the present plan.
  [[nodiscard]] bool isCurrent(InSight inSight) const;

  // the plan to compare with
  /// Takes the place of the one before; run() works it out.
  /// `package` is its index among those of the search, where it came from there.
  void compareWith(std::optional<Plan> other, const QString& name, std::optional<std::size_t> package = {});
  [[nodiscard]] const std::optional<Plan>& otherPlan() const { return m_other; }
  [[nodiscard]] QString otherName() const { return m_otherName; }
  /// Which of the search's packages it is; nothing if it is none of this search's.
  [[nodiscard]] std::optional<std::size_t> otherPackage() const;
  [[nodiscard]] const Simulation* other() const { return m_otherResult.get(); }

  // the search
  void startSizing(const Plan& plan, const std::shared_ptr<const Weather>& weather);
  void cancelSizing();
  /// What was found another day, if it still is so (Engine::restore).
  void restoreSizing(const Plan& plan, const std::shared_ptr<const Weather>& weather, const std::string& kept) {
    m_engine->restore(m_generation, plan, weather, kept);
  }
  /// What was found, ranked by other prices.
  void repriceSizing(const Prices& prices);
  /// What changed since does not matter to the search.
  void keepSizing() { m_sizingOf = m_generation; }
  [[nodiscard]] const Sizing* sizing() const { return m_sizing.get(); }
  [[nodiscard]] bool sizingIsCurrent() const { return m_sizing && m_sizingOf == m_generation; }
  [[nodiscard]] bool isSizing() const { return m_isSizing; }
  /// A search of this plan was stopped, and the next goes on from where it was.
  [[nodiscard]] bool canGoOnSearching(const Plan& plan) const;
  /// The plan that was searched from.
  [[nodiscard]] const Plan& sizedPlan() const { return m_sizedPlan; }

signals:
  void arrived();       ///< all winters
  void winterArrived(); ///< the night in sight is new; later nights and the sums over all winters are still those of before
  void sizingChanged();
  void sizingProgress(const SizingProgress& progress);
  void sizingFound(const QString& kept); ///< to be written down; empty where there is too much of it
  void trouble(const QString& text);

private:
  std::shared_ptr<const Weather> m_weather; ///< that the newest run goes by
  std::shared_ptr<Simulation> m_result;     ///< its own: what of a winter comes early is put into it
  std::shared_ptr<const Simulation> m_otherResult;
  std::optional<Plan> m_other;
  QString m_otherName;
  std::optional<std::size_t> m_otherPackage;
  std::shared_ptr<const Sizing> m_otherFrom; ///< the search that it is counted in
  quint64 m_generation = 0, m_resultOf = 0, m_sizingOf = 0;
  quint64 m_forgottenAt = 0; ///< generation that the book in hand began with
  quint64 m_sizingAsked = 0; ///< the search that is waited for; 0: none
  quint64 m_freshOf = 0;     ///< generation whose winter m_fresh has come in
  InSight m_fresh;           ///< up to this step
  std::shared_ptr<Sizing> m_sizing;
  Plan m_sizedPlan;
  bool m_isSizing = false;
  std::unique_ptr<Engine> m_engine; ///< last: it goes first
};

} // namespace muffle
