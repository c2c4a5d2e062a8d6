// SPDX-License-Identifier: GPL-3.0-or-later
//
// What skins and floors are made of. One table each; every row carries its source and the range seen in practice.
#pragma once

#include "core/house/longwave.h"
#include "core/message.h"

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

/// A sheet, film, board or cloth that can be a layer of a skin.
struct CoverMaterial {
  std::string_view id;
  LongwaveSheet longwave;
  double solarTransmittance; ///< diffuse, clean and dry, 0..1
  double solarReflectance;   ///< 0..1 - transmittance
  double resistance_m2K_W;   ///< of the body, face to face; 0 for films
  double capacity_J_m2K;     ///< heat stored per area
  std::string_view range;    ///< what is seen in practice
  std::string_view source;
  std::string_view ownName = {}; ///< the grower's; empty for the table's
};

/// A row of the grower's own, by a maker's sheet or a measurement; kept in the plan.
struct OwnMaterial {
  std::string id; ///< of small letters, digits and hyphens; none of the table's
  std::string name;
  double emissivity = 0.9;
  double longwaveTransmittance = 0.0; ///< together with either emissivity at most 1
  double solarTransmittance = 0.7;
  double solarReflectance = 0.15; ///< together with the transmittance at most 1
  double resistance_m2K_W = 0.0;
  double capacity_J_m2K = 1000.0;
  std::string note;                           ///< where its figures are from
  std::optional<double> innerEmissivity = {}; ///< of the face towards the room, where it is another
  bool operator==(const OwnMaterial&) const = default;
};

/// What a plan may be made of: the table and the plan's own rows. Copies share their rows.
class Materials {
public:
  Materials() = default; ///< the table alone
  explicit Materials(const std::vector<OwnMaterial>& own);
  /// nullptr if there is no such id.
  [[nodiscard]] const CoverMaterial* find(std::string_view id) const;
  /// The plan's own, after the table.
  [[nodiscard]] std::vector<const CoverMaterial*> all() const;

private:
  struct Own {
    std::vector<OwnMaterial> kept; ///< the rows' texts
    std::vector<CoverMaterial> rows;
  };
  std::shared_ptr<const Own> m_own;
};

struct SoilMaterial {
  std::string_view id;
  double conductivity_W_mK;
  double density_kg_m3;
  double heat_J_kgK;
  double dryDensity_kg_m3; ///< without its water
  double moisture_kg_kg;   ///< that the figures above are for, kg water per kg dry
  double quartz;           ///< share of the grains, 0..1
  bool coarse;
  double freezingInterval_K; ///< over which its water freezes
  std::string_view range;
  std::string_view source;
};

/// What lies on the soil of a floor.
struct FloorCover {
  std::string_view id;
  double conductivity_W_mK;
  double heat_J_m3K;
  double usual_m;     ///< thickness
  double evaporation; ///< share of what moist soil gives off that still comes through, 0..1
  std::string_view source;
};

std::span<const CoverMaterial> coverMaterials();
std::span<const FloorCover> floorCovers();
std::span<const SoilMaterial> soilMaterials();
/// What bars, gutters and fixings add to the heat that passes a cover of it, as a share: 0.05 of films and cloths on hoops, 0.07 of sheets, 0.09 of
/// glass in metal bars, 0 of walls and boards. Heating tables state whole covers, frames and all (ASAE EP406).
double usualFrameAllowance(const CoverMaterial& outermost);
/// nullptr if there is no such id.
const CoverMaterial* findCoverMaterial(std::string_view id);
const SoilMaterial* findSoilMaterial(std::string_view id);
const FloorCover* findFloorCover(std::string_view id);

Message nameOf(const CoverMaterial& material);
Message nameOf(const SoilMaterial& soil);
Message nameOf(const FloorCover& cover);

} // namespace muffle
