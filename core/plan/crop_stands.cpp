// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/crop_stands.h"

#include "core/plan/heaters.h"
#include "core/plan/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <string_view>

namespace muffle {
namespace {

bool isThere(const Plan& plan, const CropStand& stand) {
  if (stand.in == CropStand::In::bay) return plan.house.bay.has_value();
  return stand.in == CropStand::In::house || stand.bed() < plan.house.bedCovers.size();
}

template <class Bad> void checkOwn(const OwnCrop& crop, const Bad& bad) {
  constexpr std::string_view kLetters = "abcdefghijklmnopqrstuvwxyz0123456789-";
  if (crop.id.empty() || crop.id.find_first_not_of(kLetters) != std::string::npos)
    bad("id", Message{"plan.quoted", crop.id}, Message{"plan.small-letters-digits-hyphens"});
  if (Crops().find(crop.id)) bad("id", Message{"plan.id-is-of-the-table", crop.id}, Message{"plan.choose-another"});
  const GrowthResponse& g = crop.growth;
  if (!(g.base_C < g.best_C && g.best_C < g.tooWarm_C)) bad("growth", Message{"plan.growth-out-of-order"}, Message{"plan.growth-rising"});
  for (const auto& cold_C : {crop.leaf_C, crop.bud_C})
    if (cold_C && crop.heat_C && *cold_C >= *crop.heat_C) {
      bad("heat_C", Message{"plan.harmed-by-all", Amount{*crop.heat_C, Unit::celsius}}, Message{"plan.above-the-cold", Amount{*cold_C, Unit::celsius}});
      break;
    }
}

} // namespace

Message nameOf(const Plan& plan, const CropStand& stand) {
  const Crops crops(plan.ownCrops);
  const CropFacts* const crop = crops.find(stand.crop);
  Message name = crop ? nameOf(*crop) : Message::verbatim(stand.crop);
  if (stand.in == CropStand::In::bay && plan.house.bay) return Message{"name.of-room", name, nameOf(*plan.house.bay)};
  if (stand.in == CropStand::In::bed && stand.bed() < plan.house.bedCovers.size())
    return Message{"name.of-room", name, nameOf(plan.house.bedCovers[stand.bed()])};
  return name;
}

GrowthResponse growthResponseOf(const Plan& plan, CropStand::In in) {
  const Crops crops(plan.ownCrops);
  for (const CropStand& stand : plan.crops) {
    const CropFacts* const crop = stand.in == in ? crops.find(stand.crop) : nullptr;
    if (crop && crop->growth) return *crop->growth;
  }
  return {};
}

std::optional<double> coldLine_C(const CropFacts& crop, double within_h) {
  std::optional<double> line_C;
  for (const CropPart part : {CropPart::leaf, CropPart::bud})
    for (const Exposure& e : crop.of(part))
      if (e.for_h <= within_h) line_C = line_C ? std::max(*line_C, e.at_C) : e.at_C;
  return line_C;
}

void removeBedCover(Plan& plan, std::size_t bed) {
  plan.house.bedCovers.erase(plan.house.bedCovers.begin() + static_cast<std::ptrdiff_t>(bed));
  removePlace(plan, {HeaterPlace::Of::bed, bed});
  std::erase_if(plan.crops, [bed](const CropStand& c) { return c.in == CropStand::In::bed && c.bed() == bed; });
  for (CropStand& c : plan.crops)
    if (c.in == CropStand::In::bed && c.bed() > bed) --c.bedCover;
}

void removeBay(Plan& plan) {
  plan.house.bay.reset();
  removeHeaters(plan, {HeaterPlace::Of::bay});
  for (BedCover& bed : plan.house.bedCovers) bed.inBay = false;
  std::erase_if(plan.crops, [](const CropStand& c) { return c.in == CropStand::In::bay; });
}

void checkCrops(const Plan& plan, Problems& problems) {
  for (std::size_t i = 0; i < plan.ownCrops.size(); ++i) {
    const auto bad = [&](const char* key, Message what, Message allowed) {
      problems.push_back({ProblemKind::badInput, fmt::format("/own_crops/{}/{}", i, key), std::move(what), std::move(allowed)});
    };
    checkOwn(plan.ownCrops[i], bad);
    for (std::size_t k = 0; k < i; ++k)
      if (plan.ownCrops[k].id == plan.ownCrops[i].id) bad("id", Message{"plan.stands-twice", plan.ownCrops[i].id}, Message{"plan.choose-another"});
  }
  const Crops crops(plan.ownCrops);
  for (std::size_t i = 0; i < plan.crops.size(); ++i) {
    const CropStand& stand = plan.crops[i];
    const auto bad = [&](const char* key, Message what, Message allowed) {
      problems.push_back({ProblemKind::badInput, fmt::format("/crops/{}/{}", i, key), std::move(what), std::move(allowed)});
    };
    if (!crops.find(stand.crop)) bad("crop", Message{"plan.not-known-crop", stand.crop}, Message{"plan.see-crops"});
    if (!isThere(plan, stand))
      bad(stand.in == CropStand::In::bay ? "in" : "bed_cover", Message{"plan.crop-in-no-room"},
          Message{"plan.add-the-room-first", plan.house.bedCovers.size()});
  }
}

} // namespace muffle
