// SPDX-License-Identifier: GPL-3.0-or-later
//
// Light through a shell against rays thrown at it by chance: planes and points in space, nothing of the chords.
#include "core/house/light_table.h"

#include "tests/support/near.h"
#include "tests/support/pace.h"
#include "tests/support/random_house.h"

#include <fmt/format.h>

#include <chrono>

namespace muffle {
namespace {

struct Vector {
  double x, y, z;
};
double dot(const Vector& a, const Vector& b) { return a.x * b.x + a.y * b.y + a.z * b.z; }

/// A convex body as the space behind planes n.r <= d, each with the group it stands for.
struct Body {
  struct Plane {
    Vector n;
    double d;
    int surface;
  };
  std::vector<Plane> planes;
  double reach = 0.0; ///< radius of a ball about the middle that holds it
  Vector middle{};

  /// Where a ray enters and leaves; false if it misses.
  bool cut(const Vector& from, const Vector& way, double& in, int& inAt, double& out, int& outAt) const {
    in = -1e300, out = 1e300;
    for (std::size_t i = 0; i < planes.size(); ++i) {
      const double speed = dot(planes[i].n, way), left = planes[i].d - dot(planes[i].n, from);
      if (std::abs(speed) < 1e-12) {
        if (left < 0.0) return false;
        continue;
      }
      const double t = left / speed;
      if (speed < 0.0 && t > in) in = t, inAt = static_cast<int>(i);
      if (speed > 0.0 && t < out) out = t, outAt = static_cast<int>(i);
    }
    return in < out;
  }
};

Body bodyOf(const HouseShape& s) {
  Body body;
  const double length = s.length_m, width = s.width_m;
  const auto plane = [&](double ny, double nz, double y, double z, int surface) { body.planes.push_back({{0.0, ny, nz}, ny * y + nz * z, surface}); };
  plane(0.0, -1.0, 0.0, 0.0, kShellFloor);
  plane(1.0, 0.0, width / 2.0, 0.0, kShellSides);
  plane(-1.0, 0.0, -width / 2.0, 0.0, s.hasBackWall() ? kShellBackWall : kShellSides);
  body.planes.push_back({{1.0, 0.0, 0.0}, length / 2.0, kShellEnds});
  body.planes.push_back({{-1.0, 0.0, 0.0}, length / 2.0, kShellEnds});
  if (s.kind == ShapeKind::gable) {
    const double a = std::atan2(s.rise_m(), width / 2.0);
    plane(std::sin(a), std::cos(a), width / 2.0, s.eave_m, kShellRoof);
    plane(-std::sin(a), std::cos(a), -width / 2.0, s.eave_m, kShellRoof);
  } else if (s.hasBackWall()) {
    const double a = std::atan2(s.rise_m(), width);
    plane(std::sin(a), std::cos(a), width / 2.0, s.eave_m, kShellRoof);
  } else { // tangents of the arc
    const double f = s.rise_m(), radius = (width * width / 4.0 + f * f) / (2.0 * f), centre = s.ridge_m - radius;
    const double foot = std::asin((s.eave_m - centre) / radius);
    constexpr int kTangents = 200;
    for (int i = 0; i < kTangents; ++i) {
      const double a = foot + (kPi - 2.0 * foot) * (i + 0.5) / kTangents;
      plane(std::cos(a), std::sin(a), radius * std::cos(a), centre + radius * std::sin(a), kShellRoof);
    }
  }
  body.middle = {0.0, 0.0, s.ridge_m / 2.0};
  body.reach = std::sqrt(length * length / 4.0 + width * width / 4.0 + s.ridge_m * s.ridge_m / 4.0) + 0.01;
  return body;
}

struct Counted {
  double entering = 0.0, floor = 0.0, backWall = 0.0, leaves = 0.0, far = 0.0, leaving = 0.0, things = 0.0;
};

/// Rays of a beam of 1 W/m2, thrown at a disc across it.
Counted thrown(const HouseShape& shape, const LightFilling& filling, const LightDirection& sun, long rays) {
  const Body body = bodyOf(shape);
  const Vector s{sun.x, sun.y, sun.z}, way{-sun.x, -sun.y, -sun.z};
  const double level = std::max(std::hypot(s.x, s.y), 1e-9);
  const Vector right{-s.y / level, s.x / level, 0.0}, up{-s.z * s.x / level, -s.z * s.y / level, level};
  std::mt19937 random(11);
  std::uniform_real_distribution<double> unit(-1.0, 1.0);
  Counted sum;
  const double weight = 4.0 * body.reach * body.reach / static_cast<double>(rays);
  const double leaf = 0.5 * filling.leafArea / filling.cropHeight_m;
  for (long i = 0; i < rays; ++i) {
    const double a = body.reach * unit(random), b = body.reach * unit(random);
    const Vector from{body.middle.x + a * right.x + b * up.x, body.middle.y + a * right.y + b * up.y, body.middle.z + a * right.z + b * up.z};
    double in = 0.0, out = 0.0;
    int inAt = 0, outAt = 0;
    if (!body.cut(from, way, in, inAt, out, outAt)) continue;
    const auto& entry = body.planes[static_cast<std::size_t>(inAt)];
    const auto& exit = body.planes[static_cast<std::size_t>(outAt)];
    if (entry.surface == kShellFloor || entry.surface == kShellBackWall) continue;
    double W = weight * transmittanceByIncidence(std::abs(dot(entry.n, s)));
    sum.entering += W;
    // by steps through what stands there
    constexpr int kSteps = 24;
    for (int k = 0; k < kSteps; ++k) {
      const double t = in + (out - in) * (k + 0.5) / kSteps, z = from.z + t * way.z, step = (out - in) / kSteps;
      const double byLeaves = z < filling.cropHeight_m ? leaf : 0.0;
      double byThings = 0.0;
      for (const auto& thing : filling.standing)
        if (z < thing.height_m)
          byThings += (thing.level_m2 * std::abs(s.z) + thing.upright_m2 * level + thing.across_m2 * std::abs(s.y)) / (shape.floor_m2() * thing.height_m);
      if (byLeaves + byThings <= 0.0) continue;
      const double lost = W * (1.0 - std::exp(-(byLeaves + byThings) * step));
      sum.leaves += lost * byLeaves / (byLeaves + byThings);
      sum.things += lost * byThings / (byLeaves + byThings);
      W -= lost;
    }
    if (exit.surface == kShellFloor)
      sum.floor += W;
    else if (exit.surface == kShellBackWall)
      sum.backWall += W;
    else
      sum.far += W, sum.leaving += W * transmittanceByIncidence(std::abs(dot(exit.n, s)));
  }
  return sum;
}

Counted counted(const LightShares& shares, std::size_t things) {
  Counted sum;
  for (int by = 0; by < kLightEntries; ++by) {
    sum.entering += shares.entering(by);
    sum.floor += shares.floor(by);
    sum.backWall += shares.backWall(by);
    sum.leaves += shares.leaves(by);
    for (int group = 0; group < kLightEntries; ++group) sum.far += shares.far(by, group), sum.leaving += shares.leaving(by, group);
    for (std::size_t k = 0; k < things; ++k) sum.things += shares.standing(by, k);
  }
  return sum;
}

const HouseShape kSmallGable{ShapeKind::gable, 2.4, 3.7, 1.6, 2.3, 90.0};

const long kRays = testing::isSanitized() ? 30000 : 350000; // a million a shape: half a thousandth by chance
const double kChance = testing::isSanitized() ? 0.04 : 0.01;

TEST(ShellLight, IsThatOfAMillionRaysThrownAtEachShape) {
  const HouseShape shapes[] = {kSmallGable,
                               {ShapeKind::arch, 8.0, 30.0, 0.5, 3.6, 20.0},
                               {ShapeKind::singleSlope, 4.0, 9.0, 0.8, 3.4, 90.0},
                               {ShapeKind::gable, 9.6, 30.0, 2.6, 5.0, 0.0}};
  const LightFilling filling{2.0, 0.9, {{0.8, 0.5, 1.2, 0.0}, {1.1, 0.0, 0.0, 4.0}}};
  // directions of the table itself, so that nothing but the paths is asked
  for (const HouseShape& shape : shapes)
    for (const auto& [altitude, off] : {std::pair{26.0, 0.0}, {13.0, 40.0}, {48.0, 110.0}}) {
      const LightTable table(shape, filling);
      std::vector<double> values(table.size());
      const double azimuth = shape.axis_deg + 90.0 - off;
      const Counted got = counted(table.at(altitude, azimuth, values), 2);
      const Counted want = thrown(shape, filling, lightDirection(altitude, azimuth, shape.axis_deg), kRays);
      const double all = want.entering;
      for (const auto& [g, w] : {std::pair{got.entering, want.entering},
                                 {got.floor, want.floor},
                                 {got.backWall, want.backWall},
                                 {got.leaves, want.leaves},
                                 {got.far, want.far},
                                 {got.leaving, want.leaving},
                                 {got.things, want.things}})
        EXPECT_CLOSE(g / all, w / all, kChance, "of what comes in") << static_cast<int>(shape.kind) << " at " << altitude << ", " << off;
      EXPECT_CLOSE((got.floor + got.backWall + got.leaves + got.far + got.things) / got.entering, 1.0, 1e-3, "each ray ends once; Gauss points");
    }
}

TEST(ShellLight, ASmallHouseTakesInSeveralTimesItsFloorsShareOfALowSun) {
  const LightTable table(kSmallGable, {0.0, 0.6, {}});
  std::vector<double> values(table.size());
  const auto times = [&](double altitude, double azimuth) {
    const LightShares shares = table.at(altitude, azimuth, values);
    return counted(shares, 0).entering / (kSmallGable.floor_m2() * std::sin(radians(altitude)));
  };
  // 40 degrees north in February: noon, and half past eight
  EXPECT_GE(times(38.0, 180.0), 1.6);
  EXPECT_GE(times(15.0, 130.0), 3.2);
  const LightShares noon = table.at(30.0, 180.0, values);
  EXPECT_CLOSE(counted(noon, 0).leaving / counted(noon, 0).entering, 0.52, 0.1, "empty, half of it leaves by the far side");
  const HouseShape tunnel{ShapeKind::arch, 8.0, 30.0, 0.6, 3.6, 0.0};
  const LightTable wide(tunnel, {});
  std::vector<double> more(wide.size());
  const double of = counted(wide.at(38.0, 180.0, more), 0).entering / (tunnel.floor_m2() * std::sin(radians(38.0)));
  EXPECT_GT(of, 0.95);
  EXPECT_LT(of, 1.25);
}

TEST(ShellLight, EvenLightFromAllRoundIsTheSumOfItsDirections) {
  for (const HouseShape& shape : {kSmallGable, HouseShape{ShapeKind::dome, 6.0, 6.0, 0.4, 2.9, 0.0}}) {
    const LightTable table(shape, {1.0, 0.6, {}});
    std::vector<double> values(table.size());
    double entering = 0.0, floor = 0.0;
    constexpr int kUp = 40, kRound = 72;
    for (int i = 0; i < kUp; ++i)
      for (int a = 0; a < kRound; ++a) {
        const double sine = (i + 0.5) / kUp, weight = 2.0 / kUp / kRound;
        const Counted of = counted(table.at(degrees(std::asin(sine)), 360.0 * a / kRound, values), 0);
        entering += weight * of.entering;
        floor += weight * of.floor;
      }
    const Counted sky = counted(table.sky(), 0);
    EXPECT_CLOSE(entering / sky.entering, 1.0, 0.02, "straight between the table's directions");
    EXPECT_CLOSE(floor / sky.floor, 1.0, 0.02, "straight between the table's directions");
  }
}

TEST(ShellLight, ReadBetweenItsDirectionsItIsWithinAHundredth) {
  testing::Chance chance(4);
  for (unsigned seed = 0; seed < 20; ++seed) {
    HouseShape shape = testing::randomPlan(seed).house.shape;
    const LightTable table(shape, {1.0, 0.5, {}});
    std::vector<double> values(table.size());
    const auto sections = sectionsOf(shape, 32);
    double between = 0.0, exact = 0.0, off = 0.0;
    for (int k = 0; k < 60; ++k) {
      const double altitude = chance.between(5.0, 50.0), azimuth = chance.between(0.0, 360.0);
      const LightDirection s = shape.kind == ShapeKind::dome ? LightDirection{0.0, std::cos(radians(altitude)), std::sin(radians(altitude))}
                                                             : lightDirection(altitude, azimuth, shape.axis_deg);
      const std::vector<LightLayer> layers{{0.5, 1.0}};
      const LightPaths paths = lightPaths(sections, s, layers, [](int surface, double cosine) {
        return surface == kShellFloor || surface == kShellBackWall ? FaceOptics{} : FaceOptics{transmittanceByIncidence(cosine), 0.0};
      });
      double of = 0.0;
      for (const int by : {kShellRoof, kShellSides, kShellEnds}) of += paths.arriving(by, kShellFloor) + paths.met(by, 0);
      const Counted read = counted(table.at(altitude, azimuth, values), 0);
      between += read.floor + read.leaves;
      exact += of;
      off += std::abs(read.floor + read.leaves - of);
    }
    EXPECT_CLOSE(between / exact, 1.0, 0.01, "over many hours") << seed;
    EXPECT_LE(off / exact, 0.03) << seed << ": at one hour";
  }
}

TEST(ShellLight, ATableIsMadeInTenMilliseconds) {
  double best_ms = 1e9;
  for (int k = 0; k < 5; ++k) {
    const auto begin = std::chrono::steady_clock::now();
    const LightTable table({ShapeKind::arch, 8.0, 30.0, 0.5, 3.6, 20.0}, {1.0, 0.6, {{0.8, 1.0, 2.0, 0.0}}});
    best_ms = std::min(best_ms, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    ASSERT_GT(table.size(), 0U);
  }
  if (!testing::isSanitized()) {
    EXPECT_LT(best_ms, 30.0) << "three times what it takes: this is a busy machine";
  }
  ::testing::Test::RecordProperty("milliseconds", fmt::format("{}", best_ms));
  printf("a light table: %.1f ms\n", best_ms);
}

} // namespace
} // namespace muffle
