// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assemble/pipe_soil.h"

#include "core/constants.h"
#include "core/ground/slab.h"
#include "core/ground/soil.h"
#include "core/material/materials.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kRibbed = 0.02;           // roughness of drain pipe by its diameter: Darcy factor 0.05
constexpr double kSmooth_m = 1.5e-6;       // drawn plastic
constexpr double kPipeWall = 1.1;          // outside by inside diameter
constexpr double kPipe_W_mK = 0.4;         // polyethylene
constexpr double kMinorLoss = 2.5;         // inlet, two bends, outlet
constexpr double kFanEfficiency = 0.35;    // of small centrifugal and axial fans with their motors
constexpr double kBoxBelowPipes_m = 0.5;   // where a board under a bed lies
constexpr int kSlices = 3, kSoilRings = 4; // docs/model.md has what finer ones change

GroundPipe pipeOf(const GroundPipes& p) {
  return {p.diameter_m, kPipeWall * p.diameter_m, p.length_m, kPipe_W_mK, p.ribbed ? kRibbed * p.diameter_m : kSmooth_m, kMinorLoss};
}

PipeAir airAt(double pressure_Pa) {
  PipeAir air;
  air.density_kg_m3 *= pressure_Pa / kStandardPressure_Pa;
  return air;
}

} // namespace

FanDuty pipeDuty(const GroundPipes& p, double pressure_Pa) { return fanDuty({p.fan_m3_h, p.fan_Pa, kFanEfficiency}, pipeOf(p), p.count, airAt(pressure_Pa)); }

PipeRunShape pipeShape(const GroundPipes& p, const Floor& floor, double conductivityFactor, double pressure_Pa) {
  const SoilHeat heat = soilHeat(*findSoilMaterial(floor.soil), floor.moisture_kg_kg);
  PipeRunShape shape{.pipe = pipeOf(p), .count = p.count, .air = airAt(pressure_Pa)};
  shape.flow_m3_s = pipeDuty(p, pressure_Pa).flow_m3_s / p.count;
  shape.soil_W_mK = conductivityFactor * heat.conductivity_W_mK;
  shape.soilHeat_J_m3K = heat.heat_J_m3K;
  shape.soilRadius_m = pipeSoil(p, shape.soil_W_mK).ring_m;
  shape.slices = kSlices;
  shape.rings = kSoilRings;
  return shape;
}

PipeSoil pipeSoil(const GroundPipes& p, double k) {
  const double spacing = p.count > 1 ? p.spacing_m : std::max(p.spacing_m, 4.0 * p.depth_m);
  const double outer = kPipeWall * p.diameter_m / 2.0;
  PipeSoil soil{std::max(std::min(spacing / 2.0, 0.6 * p.depth_m), 1.3 * outer), 0.0, p.count * spacing * p.length_m};
  const double rings = std::log(soil.ring_m / outer) / (2.0 * kPi * k);
  const double row = pipeRowResistance_mK_W(outer, p.depth_m, spacing, k);
  soil.above_m = std::max(k * spacing * (row - rings) - 0.09 * std::min(spacing, p.depth_m), 0.05);
  return soil;
}

double pipeBedSides_W_K(const GroundPipes& p, const HouseShape& shape, double depth_m, double soil_W_mK) {
  const double across_m = p.count * p.spacing_m;
  const bool dome = shape.kind == ShapeKind::dome;
  const auto side = [&](double length_m, double house_m, double bed_m) {
    const double inset_m = std::max((house_m - bed_m) / 2.0, 0.0);
    return 2.0 * length_m * buriedSide_W_mK(depth_m / 2.0, depth_m + kBoxBelowPipes_m, inset_m, p.sides_m2K_W, soil_W_mK);
  };
  return side(p.length_m, shape.span_m(), across_m) + side(across_m, dome ? shape.width_m : shape.length_m, p.length_m);
}

} // namespace muffle
