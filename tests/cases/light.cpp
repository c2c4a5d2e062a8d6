// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/constants.h"
#include "core/house/shell_light.h"
#include "core/sun/glazing.h"
#include "tests/cases/adapters.h"

#include <cmath>

namespace muffle::cases {
namespace {

constexpr int kArcPieces = 64;

/// Faces of a shell one by one, as a case may have some of them opaque.
enum CaseSurface { kFloor, kRoofA, kRoofB, kWallA, kWallB, kEndA, kEndB, kCaseSurfaces };

struct Shell {
  std::vector<ShellSection> sections;
  double axis_deg = 90.0;
  bool opaque[kCaseSurfaces] = {};
  bool isDome = false;
};

/// The nearest of north, east, south and west.
std::string looks(double azimuth_deg) {
  static const char* const kNames[] = {"north", "east", "south", "west"};
  return kNames[static_cast<int>(std::lround(std::fmod(azimuth_deg + 720.0, 360.0) / 90.0)) % 4];
}

Shell shellOf(const Json& in) {
  const std::string kind = in.at("shape").get<std::string>();
  HouseShape s;
  s.width_m = num(in, "width_m");
  s.length_m = num(in, "length_m", 10.0);
  s.axis_deg = num(in, "axis_deg", 90.0);
  Shell shell;
  shell.axis_deg = s.axis_deg;
  if (kind == "gable" || kind == "arch") {
    s.kind = kind == "gable" ? ShapeKind::gable : ShapeKind::arch;
    s.eave_m = num(in, "eave_m");
    s.ridge_m = num(in, "ridge_m");
  } else if (kind == "single_slope" || kind == "lean_to") {
    s.kind = ShapeKind::singleSlope;
    s.eave_m = num(in, "low_m");
    s.ridge_m = num(in, "high_m");
  } else if (kind == "dome") {
    s.kind = ShapeKind::dome;
    s.eave_m = 0.0;
    s.ridge_m = num(in, "height_m");
    shell.isDome = true;
  } else {
    throw NotBuilt{};
  }
  shell.sections = sectionsOf(s, kArcPieces);
  for (ShellSection& section : shell.sections) {
    for (auto& e : section.edges) {
      const bool right = e.ny0 + e.ny1 > 0.0;
      switch (e.surface) {
      case kShellFloor: e.surface = kFloor; break;
      case kShellRoof: e.surface = right ? kRoofA : kRoofB; break;
      default: e.surface = right ? kWallA : kWallB;
      }
    }
    section.ends[0] = kEndA;
    section.ends[1] = kEndB;
  }
  const std::string right = looks(s.axis_deg + 90.0), left = looks(s.axis_deg - 90.0), along = looks(s.axis_deg), back = looks(s.axis_deg + 180.0);
  for (const Json& face : in.value("opaque_faces", Json::array())) {
    const std::string name = face.get<std::string>();
    if (name == "roof_" + right) shell.opaque[kRoofA] = true;
    if (name == "roof_" + left) shell.opaque[kRoofB] = true;
    if (name == "wall_" + right) shell.opaque[kWallA] = true;
    if (name == "wall_" + left) shell.opaque[kWallB] = true;
    if (name == "end_" + along) shell.opaque[kEndA] = true;
    if (name == "end_" + back) shell.opaque[kEndB] = true;
  }
  if (kind == "lean_to") shell.opaque[kWallB] = true;
  return shell;
}

class Account {
public:
  explicit Account(const Json& in) : m_in(in), m_shell(shellOf(in)) {
    const double index = num(in, "leaf_area_index", 0.0), height = num(in, "crop_height_m", 1.0);
    if (index > 0.0) m_layers = {{height, 0.5 * index / height}};
    const double takes = num(in, "cover_absorptance");
    m_optics = [this, takes](int surface, double cosine) -> FaceOptics {
      if (surface == kFloor || m_shell.opaque[surface]) return {};
      const double tau = transmittance(cosine);
      return {tau, std::min(takes, 1.0 - tau)};
    };
  }

  /// A beam from that side, W/m2 across it.
  void add(double altitude_deg, double azimuth_deg, double W_m2) {
    // a dome's slices lie along the light, wherever that comes from
    const LightDirection s = m_shell.isDome ? LightDirection{0.0, std::cos(radians(altitude_deg)), std::sin(radians(altitude_deg))}
                                            : lightDirection(altitude_deg, azimuth_deg, m_shell.axis_deg);
    m_sum.add(lightPaths(m_shell.sections, s, m_layers, m_optics, kCaseSurfaces), W_m2);
    if (altitude_deg > 0.0) m_bare.add(lightPaths(m_shell.sections, s, {}, m_optics, kCaseSurfaces), W_m2);
  }

  [[nodiscard]] Json answer() const {
    double entering = 0.0, floor = 0.0, level = 0.0, crop = 0.0, opaque = 0.0, out = 0.0, cover = 0.0;
    for (int by = 0; by < kCaseSurfaces; ++by) {
      entering += m_sum.entering(by);
      floor += m_sum.arriving(by, kFloor);
      level += m_bare.arriving(by, kFloor);
      if (!m_layers.empty()) crop += m_sum.met(by, 0);
      for (int at = 1; at < kCaseSurfaces; ++at) {
        if (m_shell.opaque[at]) opaque += m_sum.arriving(by, at);
        out += m_sum.transmitted(by, at);
        cover += m_sum.absorbed(by, at);
      }
    }
    floor *= num(m_in, "floor_absorptance");
    crop *= num(m_in, "crop_absorptance");
    opaque *= num(m_in, "opaque_absorptance");
    return {{"entering_W", entering}, {"level_floor_share_W", level},
            {"floor_W", floor},       {"crop_W", crop},
            {"opaque_W", opaque},     {"out_W", out},
            {"cover_W", cover},       {"reflected_W", entering - floor - crop - opaque - out - cover}};
  }

private:
  [[nodiscard]] double transmittance(double cosine) const {
    if (m_in.contains("tau")) return num(m_in, "tau");
    return cosine <= 0.0 ? 0.0 : glazingOptics(num(m_in, "n"), num(m_in, "KL"), degrees(std::acos(std::min(cosine, 1.0))), 1).transmittance;
  }

  const Json& m_in;
  Shell m_shell;
  std::vector<LightLayer> m_layers;
  OpticsOf m_optics;
  LightPaths m_sum{kCaseSurfaces, 1}, m_bare{kCaseSurfaces, 0};
};

Json beam(const Json& in) {
  Account account(in);
  account.add(num(in, "sun_altitude_deg"), num(in, "sun_azimuth_deg"), num(in, "beam_W_m2"));
  return account.answer();
}

/// Isotropic sky and ground over some hundred directions: equal steps of azimuth, Gauss in the sine of the altitude.
Json diffuse(const Json& in) {
  Account account(in);
  const double radiance = num(in, "diffuse_W_m2") / kPi;
  constexpr int kRings = 14, kRound = 24;
  constexpr double kPlace[2] = {0.21132486540518712, 0.78867513459481288};
  const double axis = num(in, "axis_deg", 90.0);
  for (int r = 0; r < kRings; ++r)
    for (const double place : kPlace) {
      // crowded towards the horizon, where the far side opens: sin = u^2
      const double u = (r + place) / kRings, sine = u * u, solid = 2.0 * u * 0.5 / kRings;
      for (int a = 0; a < kRound; ++a) {
        const double azimuth = axis + 360.0 * (a + 0.5) / kRound, W = radiance * solid * 2.0 * kPi / kRound;
        account.add(degrees(std::asin(sine)), azimuth, W);
        account.add(-degrees(std::asin(sine)), azimuth, W * num(in, "albedo"));
      }
    }
  return account.answer();
}

} // namespace

void addLight(Adapters& a) {
  a["light_through_shell"] = beam;
  a["light_diffuse_through_shell"] = diffuse;
}

} // namespace muffle::cases
