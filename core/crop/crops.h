// SPDX-License-Identifier: GPL-3.0-or-later
//
// What crops bear: temperatures of leaf, bud and root that harm them and for how long they must last, warmth that does, and how they grow between.
// One table; every row carries its source and the range seen in practice. A plan may have rows of its own.
#pragma once

#include "core/message.h"

#include <array>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

/// Of a crop, what is harmed, and by what.
enum class CropPart {
  leaf, ///< by cold: the leaf itself, which on clear nights is colder than the air
  bud,  ///< by cold: buds, blossoms and fruit, as cold as leaves
  root, ///< by cold: in the bed's soil or in pots
  heat  ///< the leaf, by warmth
};
constexpr int kCropPartCount = 4;
std::string_view idOf(CropPart part);

/// Harmed once it has been at that temperature or beyond for so long on end.
struct Exposure {
  double at_C = 0.0;
  double for_h = 0.5; ///< > 0
  bool operator==(const Exposure&) const = default;
};

/// Warmth by the beta function of three cardinal temperatures, light in proportion up to what is enough (core/results/growth.h).
struct GrowthResponse {
  double base_C = 2.0; ///< no growth below; base < best < tooWarm
  double best_C = 18.0;
  double tooWarm_C = 32.0;          ///< nor above
  double enoughLight_mol_m2 = 12.0; ///< a day, for leaves
  bool operator==(const GrowthResponse&) const = default;
};

struct CropFacts {
  std::string_view id;
  std::array<std::vector<Exposure>, kCropPartCount> harmed; ///< by CropPart; several of one part: the colder for the shorter
  std::optional<GrowthResponse> growth;                     ///< none of what rests in winter
  std::string_view range;
  std::string_view source;
  std::string_view ownName = {}; ///< the grower's; empty for the table's
  [[nodiscard]] const std::vector<Exposure>& of(CropPart part) const { return harmed[static_cast<std::size_t>(part)]; }
};

/// A row of the grower's own, kept in the plan: one exposure of each part at most.
struct OwnCrop {
  std::string id; ///< of small letters, digits and hyphens; none of the table's
  std::string name;
  std::optional<double> leaf_C = {}, bud_C = {}, root_C = {}, heat_C = {};
  double for_h = 1.0; ///< that each of them must last
  GrowthResponse growth = {};
  std::string note; ///< where its figures are from
  bool operator==(const OwnCrop&) const = default;
};

/// What may stand in a plan: the table and the plan's own rows. Copies share their rows.
class Crops {
public:
  Crops() = default; ///< the table alone
  explicit Crops(const std::vector<OwnCrop>& own);
  /// nullptr if there is no such id.
  [[nodiscard]] const CropFacts* find(std::string_view id) const;
  /// The plan's own, after the table.
  [[nodiscard]] std::vector<const CropFacts*> all() const;

private:
  struct Own {
    std::vector<OwnCrop> kept; ///< the rows' texts
    std::vector<CropFacts> rows;
  };
  std::shared_ptr<const Own> m_own;
};

std::span<const CropFacts> cropTable();
Message nameOf(const CropFacts& crop);

/// Hours in which a pot of moist compost follows the air to two thirds: its heat by its skin's exchange, from 0.5 to 500 litres. Taken as not
/// freezing, which is on the safe side.
double potLag_h(double litres);

} // namespace muffle
