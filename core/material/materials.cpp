// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/material/materials.h"

#include <algorithm>
#include <array>

namespace muffle {
namespace {

// Long-wave optics: Nijskens et al., Acta Hortic. 148 (1984) and ASAE greenhouse engineering tables. What condenses on the inside is counted where and
// when it does (core/assemble/covers.h); the plain film is given between dry and the dew that a clear night lays on its outside.
constexpr std::array<CoverMaterial, 32> kCovers{{
    {"pe-film",
     {0.30, 0.58},
     0.83,
     0.12,
     0.0,
     420.0,
     "emissivity 0.15 dry to 0.8 wet, long-wave transmittance 0.75 to 0.1",
     "Nijskens 1984; 0.2 mm at 920 kg/m3, 2300 J/kgK"},
    {"pe-film-ir", {0.65, 0.22}, 0.82, 0.12, 0.0, 420.0, "long-wave transmittance 0.1 to 0.35", "Nijskens 1984"},
    {"eva-film", {0.60, 0.27}, 0.85, 0.10, 0.0, 420.0, "long-wave transmittance 0.2 to 0.4", "Nijskens 1984"},
    {"glass-4mm", {0.90, 0.0}, 0.78, 0.14, 0.004, 8000.0, "solar transmittance 0.75 to 0.82 diffuse", "ISO 10456; EN 673; 2500 kg/m3, 800 J/kgK"},
    {"twin-wall-8", {0.90, 0.02}, 0.69, 0.22, 0.130, 1800.0, "U 3.2 to 3.8 as a whole cover", "ASAE heating tables; 1.5 kg/m2"},
    {"twin-wall-16",
     {0.90, 0.0},
     0.60,
     0.28,
     0.260,
     3200.0,
     "U 2.2 to 2.6 as a whole cover",
     "manufacturer-neutral range; 2.7 kg/m2"},
    {"sealed-glass",
     {0.90, 0.0},
     0.70,
     0.20,
     0.165,
     16000.0,
     "U 2.8 to 3.8 as a whole cover",
     "ISO 6946 air layer and ASAE tables"},
    {"acrylic-16", {0.90, 0.0}, 0.76, 0.16, 0.200, 7400.0, "U 2.5 to 3.0 as a whole cover", "ASAE heating tables; 5 kg/m2"},
    {"bubble-wrap", {0.70, 0.15}, 0.76, 0.16, 0.110, 700.0, "R 0.08 to 0.15", "extension engineering trials"},
    {"fleece", {0.60, 0.30}, 0.80, 0.15, 0.010, 60.0, "17 to 50 g/m2", "extension trials; nearly open to long-wave when dry"},
    {"woven-blanket", {0.85, 0.05}, 0.15, 0.55, 0.030, 250.0, "saves 20 to 35 %", "ASAE heating tables"},
    {"aluminised-screen",
     {0.25, 0.03},
     0.10,
     0.75,
     0.015,
     200.0,
     "saves 40 to 60 %",
     "ASAE heating tables; one bright face counted as half"},
    {"foam-board-50", {0.90, 0.0}, 0.0, 0.40, 1.430, 2300.0, "k 0.030 to 0.040", "ISO 10456, k 0.035"},
    {"etfe-film",
     {0.60, 0.25},
     0.87,
     0.09,
     0.0,
     330.0,
     "long-wave transmittance 0.2 to 0.35",
     "0.1 mm at 1750 kg/m3, 1900 J/kgK; optics by ASAE tables"},
    {"twin-wall-4", {0.90, 0.05}, 0.72, 0.20, 0.080, 960.0, "U 3.8 to 4.2 as a whole cover", "ASAE heating tables; 0.8 kg/m2"},
    {"twin-wall-6", {0.90, 0.03}, 0.70, 0.21, 0.105, 1560.0, "U 3.4 to 4.2 as a whole cover", "ASAE heating tables; 1.3 kg/m2"},
    {"multi-wall-32",
     {0.90, 0.0},
     0.48,
     0.34,
     0.580,
     4300.0,
     "U 1.2 to 1.6 as a whole cover",
     "ASAE heating tables; 3.6 kg/m2"},
    {"clear-screen", {0.65, 0.20}, 0.75, 0.15, 0.010, 130.0, "saves 20 to 35 % when closed", "ASAE heating tables"},
    {"shade-cloth", {0.45, 0.45}, 0.45, 0.15, 0.0, 150.0, "light let through 0.3 to 0.7", "extension trials"},
    {"quilt", {0.85, 0.0}, 0.02, 0.50, 0.500, 900.0, "R 0.4 to 0.7", "ISO 10456, k 0.040; damp ones less"},
    {"tarp", {0.90, 0.0}, 0.03, 0.30, 0.0, 450.0, "opaque, 150 to 600 g/m2", "0.3 mm coated cloth"},
    {"foam-board-100", {0.90, 0.0}, 0.0, 0.40, 2.860, 4600.0, "k 0.030 to 0.040", "ISO 10456, k 0.035"},
    {"straw-mat-40", {0.90, 0.0}, 0.05, 0.40, 0.600, 8000.0, "R 0.5 to 0.8; wet it keeps half", "k 0.065, 100 kg/m3, 2000 J/kgK"},
    {"snow-50",
     {0.97, 0.0},
     0.12,
     0.75,
     0.400,
     21000.0,
     "k 0.05 fresh to 0.3 old",
     "k 0.125 at 200 kg/m3, snow tables; an outermost layer for a snowy spell"},
    {"straw-bale-450", {0.90, 0.0}, 0.0, 0.40, 6.900, 99000.0, "k 0.05 to 0.08, dry", "k 0.065, 110 kg/m3, 2000 J/kgK"},
    {"block-200", {0.90, 0.0}, 0.0, 0.35, 0.180, 280000.0, "k 0.8 to 1.4", "ISO 10456, k 1.1, 1400 kg/m3"},
    {"brick-215", {0.90, 0.0}, 0.0, 0.30, 0.280, 292400.0, "k 0.6 to 0.9", "ISO 10456, k 0.77, 1700 kg/m3, 800 J/kgK"},
    {"masonry-300", {0.90, 0.0}, 0.0, 0.35, 0.375, 486000.0, "k 0.6 to 1.2", "ISO 10456, k 0.8, 1800 kg/m3, 900 J/kgK"},
    {"stone-400", {0.90, 0.0}, 0.0, 0.35, 0.222, 828000.0, "k 1.4 to 2.8", "ISO 10456, k 1.8, 2300 kg/m3, 900 J/kgK"},
    {"earth-500", {0.90, 0.0}, 0.0, 0.25, 0.455, 950000.0, "k 0.8 to 1.5", "ISO 10456, k 1.1, 1900 kg/m3, 1000 J/kgK"},
    {"earth-1000", {0.90, 0.0}, 0.0, 0.25, 0.769, 2125000.0, "k 1.0 to 1.6, moist", "Farouki 1981, k 1.3, 1700 kg/m3, 1250 J/kgK"},
    {"timber-25", {0.90, 0.0}, 0.0, 0.40, 0.192, 20000.0, "k 0.12 to 0.18", "ISO 10456, k 0.13, 500 kg/m3, 1600 J/kgK"},
}};

constexpr std::array<SoilMaterial, 6> kSoils{{
    {"sand-dry", 0.40, 1600.0, 850.0, 1580.0, 0.01, 0.7, true, 0.2, "k 0.2 to 0.6", "ISO 13370 annex; Farouki 1981"},
    {"sand-moist", 2.0, 1900.0, 1050.0, 1700.0, 0.12, 0.7, true, 0.2, "k 1.5 to 2.5", "ISO 13370 table 7, sand or gravel"},
    {"loam", 1.3, 1700.0, 1250.0, 1420.0, 0.20, 0.4, false, 0.5, "k 0.8 to 1.6", "Farouki 1981"},
    {"clay", 1.5, 1800.0, 1670.0, 1400.0, 0.28, 0.25, false, 1.0, "k 1.0 to 2.0", "ISO 13370 table 7, clay or silt"},
    {"peat", 0.45, 900.0, 3000.0, 300.0, 2.0, 0.0, false, 0.3, "k 0.3 to 0.6", "Farouki 1981"},
    {"rock", 3.5, 2500.0, 800.0, 2500.0, 0.0, 0.3, true, 0.2, "k 2.5 to 4.5", "ISO 13370 table 7, rock"},
}};

constexpr std::array<FloorCover, 6> kFloorCovers{{
    {"straw", 0.06, 0.10e6, 0.10, 0.3, "k 0.05 to 0.09 for straw at 50 to 80 kg/m3, building tables"},
    {"bark", 0.12, 0.45e6, 0.06, 0.5, "k 0.08 to 0.15, half dry; forestry tables"},
    {"gravel", 0.60, 1.60e6, 0.06, 0.3, "k 0.4 to 1.0, ISO 10456"},
    {"paving", 1.50, 2.00e6, 0.05, 0.1, "k 1.35 to 1.65, ISO 10456"},
    {"brick", 0.80, 1.50e6, 0.07, 0.3, "k 0.6 to 1.0, ISO 10456"},
    {"boards", 0.13, 0.80e6, 0.03, 0.2, "k 0.12 to 0.18, ISO 10456"},
}};

} // namespace

double usualFrameAllowance(const CoverMaterial& m) {
  constexpr double kLetsLight = 0.3, kHeavyPane_J_m2K = 5000.0, kSheet_m2K_W = 0.05;
  if (m.solarTransmittance < kLetsLight) return 0.0;
  if (m.capacity_J_m2K > kHeavyPane_J_m2K) return 0.09;
  return m.resistance_m2K_W > kSheet_m2K_W ? 0.07 : 0.05;
}

std::span<const FloorCover> floorCovers() { return kFloorCovers; }

const FloorCover* findFloorCover(std::string_view id) {
  const auto it = std::find_if(kFloorCovers.begin(), kFloorCovers.end(), [&](const auto& m) { return m.id == id; });
  return it == kFloorCovers.end() ? nullptr : &*it;
}

std::span<const CoverMaterial> coverMaterials() { return kCovers; }
std::span<const SoilMaterial> soilMaterials() { return kSoils; }

Materials::Materials(const std::vector<OwnMaterial>& own) {
  if (own.empty()) return;
  auto made = std::make_shared<Own>();
  made->kept = own;
  for (const OwnMaterial& m : made->kept)
    made->rows.push_back({m.id,
                          {m.emissivity, m.longwaveTransmittance, m.innerEmissivity.value_or(-1.0)},
                          m.solarTransmittance,
                          m.solarReflectance,
                          m.resistance_m2K_W,
                          m.capacity_J_m2K,
                          {},
                          m.note,
                          m.name});
  m_own = std::move(made);
}

const CoverMaterial* Materials::find(std::string_view id) const {
  if (const CoverMaterial* known = findCoverMaterial(id)) return known;
  if (!m_own) return nullptr;
  for (const CoverMaterial& m : m_own->rows)
    if (m.id == id) return &m;
  return nullptr;
}

std::vector<const CoverMaterial*> Materials::all() const {
  std::vector<const CoverMaterial*> all;
  for (const CoverMaterial& m : coverMaterials()) all.push_back(&m);
  if (m_own)
    for (const CoverMaterial& m : m_own->rows) all.push_back(&m);
  return all;
}

const CoverMaterial* findCoverMaterial(std::string_view id) {
  const auto it = std::find_if(kCovers.begin(), kCovers.end(), [&](const auto& m) { return m.id == id; });
  return it == kCovers.end() ? nullptr : &*it;
}
const SoilMaterial* findSoilMaterial(std::string_view id) {
  const auto it = std::find_if(kSoils.begin(), kSoils.end(), [&](const auto& m) { return m.id == id; });
  return it == kSoils.end() ? nullptr : &*it;
}

Message nameOf(const CoverMaterial& material) {
  return material.ownName.empty() ? Message::of("material", material.id) : Message::verbatim(std::string(material.ownName));
}
Message nameOf(const SoilMaterial& soil) { return Message::of("soil", soil.id); }
Message nameOf(const FloorCover& cover) { return Message::of("floor", cover.id); }

} // namespace muffle
