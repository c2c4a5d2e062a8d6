// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/crop_harm.h"

#include "core/plan/rooms.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <limits>
#include <numeric>

namespace muffle {
namespace {

constexpr double kRoots_m = 0.1; // a hand below the floor

/// A pot's, that begins as the air does.
std::vector<float> lagged(std::span<const float> air_C, double lag_h, double step_s) {
  std::vector<float> pot(air_C.size());
  const double keeps = std::exp(-step_s / 3600.0 / lag_h);
  double now = std::numeric_limits<double>::quiet_NaN();
  for (std::size_t i = 0; i < pot.size(); ++i) {
    const auto air = static_cast<double>(air_C[i]);
    now = std::isnan(now) || std::isnan(air) ? air : air + (now - air) * keeps;
    pot[i] = static_cast<float>(now);
  }
  return pot;
}

/// The air where it stands; none if the plan has no such room.
std::span<const float> airOf(const Plan& plan, const CropStand& stand, const WinterSeries& series) {
  if (stand.in == CropStand::In::house) return series.air_C;
  const auto room = stand.in == CropStand::In::bay ? otherRoom(plan, RoomKind::bay) : otherRoom(plan, RoomKind::bed, stand.bed());
  return room && *room < series.rooms.size() ? std::span<const float>(series.rooms[*room].air_C) : std::span<const float>();
}

std::vector<float> rootsOf(const CropStand& stand, const WinterSeries& series, const std::vector<double>& depth_m, std::span<const float> air_C,
                           double step_s) {
  if (stand.inPots) return lagged(air_C, potLag_h(stand.pot_litres), step_s);
  if (depth_m.empty() || series.soil_C.size() < depth_m.size()) return {};
  const auto nearest = std::min_element(depth_m.begin(), depth_m.end(), [](double a, double b) { return std::abs(a - kRoots_m) < std::abs(b - kRoots_m); });
  return series.soil_C[static_cast<std::size_t>(nearest - depth_m.begin())];
}

void take(PartHarm& harm, const Exposed& e, UtcSeconds at, bool isFirst) {
  const bool isWorse = harm.part == CropPart::heat ? e.reached_C > harm.reached_C : e.reached_C < harm.reached_C;
  if (isFirst || isWorse) {
    harm.reached_C = e.reached_C;
    harm.at = at;
  }
  harm.times += e.times;
}

} // namespace

int CropFate::times() const {
  return std::accumulate(parts.begin(), parts.end(), 0, [](int sum, const PartHarm& p) { return sum + p.times; });
}

std::optional<Exposed> exposed(std::span<const float> temperature_C, double step_s, const Exposure& to, bool isHeat) {
  const auto spans = static_cast<std::size_t>(to.for_h * 3600.0 / step_s + 1e-9); // steps that it must last: one more reading than steps
  const double sign = isHeat ? -1.0 : 1.0;
  const auto cold = [&](std::size_t i) { return sign * static_cast<double>(temperature_C[i]); };
  std::optional<Exposed> worst;
  std::deque<std::size_t> warmest; // of the readings in hand, falling
  std::size_t begin = 0, harmed = 0;
  int times = 0;
  for (std::size_t i = 0; i < temperature_C.size(); ++i) {
    if (std::isnan(temperature_C[i])) {
      warmest.clear();
      begin = i + 1;
      harmed = 0;
      continue;
    }
    while (!warmest.empty() && cold(warmest.back()) <= cold(i)) warmest.pop_back();
    warmest.push_back(i);
    if (i - warmest.front() > spans) warmest.pop_front();
    if (i - begin >= spans) {
      const double reached = cold(warmest.front());
      if (!worst || reached < sign * worst->reached_C) worst = Exposed{sign * reached, i, 0};
    }
    harmed = cold(i) <= sign * to.at_C ? harmed + 1 : 0;
    if (harmed == spans + 1) ++times;
  }
  if (worst) worst->times = times;
  return worst;
}

std::vector<CropFate> cropFates(const Plan& plan, const Weather& weather, const Simulation& run) {
  std::vector<CropFate> fates;
  const Crops crops(plan.ownCrops);
  for (std::size_t c = 0; c < plan.crops.size(); ++c) {
    const CropStand& stand = plan.crops[c];
    const CropFacts* const crop = crops.find(stand.crop);
    if (!crop) continue;
    CropFate fate{c, {}, {}};
    std::vector<bool> seen;
    for (int p = 0; p < kCropPartCount; ++p)
      for (const Exposure& e : crop->harmed[static_cast<std::size_t>(p)]) {
        fate.parts.push_back({static_cast<CropPart>(p), e});
        seen.push_back(false);
      }
    for (std::size_t w = 0; w < run.series.size() && w < weather.winters.size(); ++w) {
      const WinterSeries& series = run.series[w];
      const Winter& winter = weather.winters[w];
      const std::span<const float> air = airOf(plan, stand, series);
      const std::span<const float> leaf = stand.in == CropStand::In::house ? std::span<const float>(series.leaf_C) : air;
      const std::vector<float> roots = crop->of(CropPart::root).empty() ? std::vector<float>() : rootsOf(stand, series, run.soilDepth_m, air, winter.step_s);
      for (std::size_t k = 0; k < fate.parts.size(); ++k) {
        PartHarm& harm = fate.parts[k];
        const std::span<const float> its = harm.part == CropPart::heat ? air : harm.part == CropPart::root ? std::span<const float>(roots) : leaf;
        const auto e = exposed(its, winter.step_s, harm.exposure, harm.part == CropPart::heat);
        if (!e) continue;
        take(harm, *e, winter.time(e->step), !seen[k]);
        seen[k] = true;
      }
      if (crop->growth && !air.empty()) {
        if (!fate.growth) fate.growth.emplace();
        *fate.growth += growthOver(air, series.light_W_m2, winter.step_s, *crop->growth);
      }
    }
    for (std::size_t k = fate.parts.size(); k-- > 0;) // what nothing was measured of, nothing is said of
      if (!seen[k]) fate.parts.erase(fate.parts.begin() + static_cast<std::ptrdiff_t>(k));
    fates.push_back(std::move(fate));
  }
  return fates;
}

std::optional<double> lineOfCrops_C(const Plan& plan, const Simulation& run, const Weather& weather) {
  constexpr double kANight_h = 3.0; // what takes longer is not a night's low
  constexpr double kNear_K = 5.0;   // mild nights say little of cold ones
  const Crops crops(plan.ownCrops);
  std::optional<double> line_C;
  for (const CropStand& stand : plan.crops) {
    const CropFacts* const crop = stand.in == CropStand::In::house ? crops.find(stand.crop) : nullptr;
    if (!crop) continue;
    for (const CropPart part : {CropPart::leaf, CropPart::bud})
      for (const Exposure& e : crop->of(part)) {
        if (e.for_h > kANight_h) continue;
        double above_K = 0.0;
        for (const NightResult& night : run.nights) {
          if (!night.assessable || night.winter >= run.series.size() || night.coldest_C > e.at_C + kNear_K) continue;
          const std::span<const float> leaf = run.series[night.winter].leaf_C;
          const auto low = exposed(leaf.subspan(night.from, night.to + 1 - night.from), weather.winters[night.winter].step_s, e, false);
          if (low) above_K = std::max(above_K, night.coldest_C - low->reached_C);
        }
        line_C = std::max(line_C.value_or(e.at_C + above_K), e.at_C + above_K);
      }
  }
  return line_C;
}

} // namespace muffle
