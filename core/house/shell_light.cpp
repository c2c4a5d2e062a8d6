// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/house/shell_light.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace muffle {
namespace {

// Gauss-Legendre on 0..1
constexpr std::array<double, 2> kPlace2{0.21132486540518712, 0.78867513459481288}, kWeight2{0.5, 0.5};
constexpr std::array<double, 4> kPlace4{0.069431844202973712, 0.33000947820757187, 0.66999052179242813, 0.93056815579702629};
constexpr std::array<double, 4> kWeight4{0.17392742256872693, 0.32607257743127307, 0.32607257743127307, 0.17392742256872693};
constexpr std::size_t kFewEdges = 12; // of flat faces: four points between corners; of arcs two, their corners are many
constexpr double kTiny = 1e-12;

struct Split {
  double from, to; ///< along the chord
  double k;        ///< of all layers, 1/m of chord
};

/// One direction of light through one section.
class Chords {
public:
  Chords(const ShellSection& section, const LightDirection& s, std::span<const LightLayer> layers, const OpticsOf& optics, LightPaths& sum)
      : m_section(section), m_s(s), m_layers(layers), m_optics(optics), m_sum(sum), m_across(std::max(std::hypot(s.y, s.z), kTiny)), m_ty(-s.y / m_across),
        m_tz(-s.z / m_across), m_stretch(1.0 / m_across), m_perEnd(section.hasEnds ? std::abs(s.x) * m_stretch / section.length_m : 0.0),
        m_near(section.ends[s.x >= 0.0 ? 0 : 1]), m_far(section.ends[s.x >= 0.0 ? 1 : 0]) {
    for (std::size_t l = 0; l < layers.size(); ++l)
      if (layers[l].extinction_per_m > 0.0) m_heights.push_back(layers[l].height_m);
    std::sort(m_heights.begin(), m_heights.end());
    m_heights.erase(std::unique(m_heights.begin(), m_heights.end()), m_heights.end());
    if (section.hasEnds) m_nearEnd = optics(m_near, std::abs(s.x)), m_farEnd = optics(m_far, std::abs(s.x));
  }

  void run() {
    std::vector<double> breaks;
    for (const auto& e : m_section.edges) {
      breaks.push_back(place(e.y0, e.z0));
      for (const double height : m_heights) // where a chord begins or ends at the top of a layer
        if ((e.z0 - height) * (e.z1 - height) < 0.0) {
          const double at = (height - e.z0) / (e.z1 - e.z0);
          breaks.push_back(place(e.y0 + at * (e.y1 - e.y0), height));
        }
    }
    std::sort(breaks.begin(), breaks.end());
    for (std::size_t i = 1; i < breaks.size(); ++i) between(breaks[i - 1], breaks[i]);
  }

private:
  using Edge = ShellSection::Edge;
  struct Chord {
    double y, z, length; ///< where it begins
    double in, out;      ///< places along the two edges, 0..1
  };

  [[nodiscard]] double place(double y, double z) const { return -y * m_tz + z * m_ty; }
  [[nodiscard]] double along(double y, double z) const { return y * m_ty + z * m_tz; }

  /// The share of an edge at which the chord at p crosses it.
  [[nodiscard]] double shareOf(const Edge& e, double p) const {
    const double a = place(e.y0, e.z0), b = place(e.y1, e.z1);
    return std::clamp((p - a) / (b - a), 0.0, 1.0);
  }

  [[nodiscard]] Chord chordAt(double p) const {
    const auto at = [](const Edge& e, double share, double& y, double& z) { y = e.y0 + share * (e.y1 - e.y0), z = e.z0 + share * (e.z1 - e.z0); };
    Chord c{};
    c.in = shareOf(*m_in, p);
    c.out = shareOf(*m_out, p);
    double y = 0.0, z = 0.0;
    at(*m_in, c.in, c.y, c.z);
    at(*m_out, c.out, y, z);
    c.length = std::max(along(y, z) - along(c.y, c.z), 0.0);
    return c;
  }

  /// Between two corners every chord begins on one edge and ends on one other.
  void between(double low, double high) {
    if (high - low < kTiny) return;
    const double middle = 0.5 * (low + high);
    m_in = m_out = nullptr;
    double first = 1e300, last = -1e300;
    for (const Edge& e : m_section.edges) {
      const double a = place(e.y0, e.z0), b = place(e.y1, e.z1);
      if ((a - middle) * (b - middle) >= 0.0) continue;
      const double share = shareOf(e, middle);
      const double t = along(e.y0 + share * (e.y1 - e.y0), e.z0 + share * (e.z1 - e.z0));
      if (t < first) first = t, m_in = &e;
      if (t > last) last = t, m_out = &e;
    }
    if (!m_in || !m_out || m_in == m_out) return;
    // where light that enters a side just reaches the far end, its paths have a corner too
    if (m_perEnd > 0.0) {
      const double reach = 1.0 / m_perEnd, a = chordAt(low).length - reach, b = chordAt(high).length - reach;
      if (a * b < 0.0) {
        const double at = low + (high - low) * a / (a - b);
        gauss(low, at);
        gauss(at, high);
        return;
      }
    }
    gauss(low, high);
  }

  void gauss(double low, double high) {
    const auto over = [&](const auto& places, const auto& weights) {
      for (std::size_t i = 0; i < places.size(); ++i) follow(chordAt(low + places[i] * (high - low)), weights[i] * (high - low));
    };
    if (m_section.edges.size() <= kFewEdges)
      over(kPlace4, kWeight4);
    else
      over(kPlace2, kWeight2);
  }

  /// What a surface does to light that crosses this edge there.
  [[nodiscard]] FaceOptics opticsAt(const Edge& e, double share) const {
    if (e.pleated) return pleats(e.surface);
    double ny = e.ny0 + share * (e.ny1 - e.ny0), nz = e.nz0 + share * (e.nz1 - e.nz0);
    if (e.ny0 != e.ny1 || e.nz0 != e.nz1) {
      const double as = std::hypot(e.ny0, e.nz0) / std::max(std::hypot(ny, nz), kTiny);
      ny *= as, nz *= as;
    }
    return m_optics(e.surface, std::min(std::abs(ny * m_s.y + nz * m_s.z), 1.0));
  }

  /// Slopes share the light as they face it.
  [[nodiscard]] FaceOptics pleats(int surface) const {
    const double up = m_s.z >= 0.0 ? 1.0 : -1.0;
    FaceOptics mean;
    double weight = 0.0;
    for (const auto& slope : m_section.pleats) {
      const double cosine = up * (slope.ny * m_s.y + slope.nz * m_s.z);
      if (cosine <= 0.0) continue;
      const FaceOptics own = m_optics(surface, std::min(cosine, 1.0));
      weight += slope.length_m * cosine;
      mean.transmitted += slope.length_m * cosine * own.transmitted;
      mean.absorbed += slope.length_m * cosine * own.absorbed;
    }
    if (weight <= 0.0) return {};
    return {mean.transmitted / weight, mean.absorbed / weight};
  }

  /// Cuts a chord at the layers' tops.
  void split(const Chord& c) {
    m_splits.clear();
    const auto cut = [&](double from, double to) {
      if (to - from < kTiny) return;
      const double z = c.z + 0.5 * (from + to) * m_tz;
      double k = 0.0;
      for (const LightLayer& layer : m_layers)
        if (z < layer.height_m) k += layer.extinction_per_m;
      m_splits.push_back({from, to, k * m_stretch});
    };
    double from = 0.0;
    const auto at = [&](double height) {
      const double t = std::abs(m_tz) > kTiny ? (height - c.z) / m_tz : -1.0;
      if (t <= from || t >= c.length) return;
      cut(from, t);
      from = t;
    };
    if (m_tz < 0.0)
      for (auto height = m_heights.rbegin(); height != m_heights.rend(); ++height) at(*height);
    else
      for (const double height : m_heights) at(height);
    cut(from, c.length);
  }

  /// What all layers of a piece have met, shared by their extinctions.
  void share(int by, const Chord& c, const Split& piece, double W) {
    if (W <= 0.0 || piece.k <= 0.0) return;
    const double z = c.z + 0.5 * (piece.from + piece.to) * m_tz;
    for (std::size_t l = 0; l < m_layers.size(); ++l)
      if (z < m_layers[l].height_m) m_sum.meet(by, l, W * m_layers[l].extinction_per_m * m_stretch / piece.k);
  }

  void follow(const Chord& c, double width) {
    if (c.length <= 0.0) return;
    split(c);
    const FaceOptics out = opticsAt(*m_out, c.out);
    if (m_in->surface != kShellFloor) throughSide(c, width, out);
    if (m_section.hasEnds && m_nearEnd.transmitted > 0.0 && std::abs(m_s.x) > kTiny) throughEnd(c, width, out);
  }

  void throughSide(const Chord& c, double width, const FaceOptics& out) {
    const int by = m_in->surface;
    const double W = m_section.length_m * m_across * width * opticsAt(*m_in, c.in).transmitted;
    if (W <= 0.0) return;
    m_sum.enter(by, W);
    const double reach = m_perEnd > 0.0 ? 1.0 / m_perEnd : 1e300;
    double left = 1.0, toEnd = 0.0; // of the light at the place in hand; on the way to the far end
    for (const Split& piece : m_splits) {
      const double to = std::min(piece.to, reach);
      if (to <= piece.from) break;
      const double length = to - piece.from, then = piece.k > 0.0 ? left * std::exp(-piece.k * length) : left;
      const double mean = piece.k > 0.0 ? (left - then) / piece.k : left * length;
      const auto goes = [&](double t) { return std::max(1.0 - m_perEnd * t, 0.0); };
      share(by, c, piece, W * (left * goes(piece.from) - then * goes(to) - m_perEnd * mean));
      toEnd += m_perEnd * mean;
      left = then;
    }
    if (toEnd > 0.0) m_sum.arrive(by, m_far, W * toEnd, m_farEnd);
    if (c.length < reach) m_sum.arrive(by, m_out->surface, W * left * (1.0 - m_perEnd * c.length), out);
  }

  void throughEnd(const Chord& c, double width, const FaceOptics& out) {
    const int by = m_near;
    const double W = std::abs(m_s.x) * width * m_nearEnd.transmitted; // by metre of chord
    m_sum.enter(by, W * c.length);
    const double reach = 1.0 / m_perEnd;
    m_starts.assign({0.0, c.length});
    for (const Split& piece : m_splits)
      for (const double at : {piece.to, piece.to - reach})
        if (at > 0.0 && at < c.length) m_starts.push_back(at);
    if (c.length > reach) m_starts.push_back(c.length - reach);
    std::sort(m_starts.begin(), m_starts.end());
    for (std::size_t i = 1; i < m_starts.size(); ++i) {
      const double span = m_starts[i] - m_starts[i - 1];
      if (span < kTiny) continue;
      for (std::size_t g = 0; g < kPlace2.size(); ++g) fromEnd(c, m_starts[i - 1] + kPlace2[g] * span, W * span * kWeight2[g], by, reach, out);
    }
  }

  void fromEnd(const Chord& c, double start, double W, int by, double reach, const FaceOptics& out) {
    const double stop = std::min(c.length, start + reach);
    double left = W;
    for (const Split& piece : m_splits) {
      const double from = std::max(piece.from, start), to = std::min(piece.to, stop);
      if (to <= from || piece.k <= 0.0) continue;
      const double then = left * std::exp(-piece.k * (to - from));
      share(by, c, piece, left - then);
      left = then;
    }
    if (start + reach < c.length)
      m_sum.arrive(by, m_far, left, m_farEnd);
    else
      m_sum.arrive(by, m_out->surface, left, out);
  }

  const ShellSection& m_section;
  const LightDirection m_s;
  std::span<const LightLayer> m_layers;
  const OpticsOf& m_optics;
  LightPaths& m_sum;
  double m_across, m_ty, m_tz; ///< the way the light goes in the section
  double m_stretch;            ///< metres of path by metre of chord
  double m_perEnd;             ///< of the house's length, by metre of chord
  int m_near, m_far;           ///< the ends that light comes in by and goes to
  FaceOptics m_nearEnd, m_farEnd;
  std::vector<double> m_heights, m_starts;
  std::vector<Split> m_splits;
  const Edge* m_in = nullptr;
  const Edge* m_out = nullptr;
};

} // namespace

void LightPaths::add(const LightPaths& other, double weight) {
  const auto sum = [weight](std::vector<double>& to, const std::vector<double>& of) {
    for (std::size_t i = 0; i < std::min(to.size(), of.size()); ++i) to[i] += weight * of[i];
  };
  sum(m_entering, other.m_entering);
  sum(m_arriving, other.m_arriving);
  sum(m_out, other.m_out);
  sum(m_absorbed, other.m_absorbed);
  sum(m_met, other.m_met);
}

LightPaths lightPaths(std::span<const ShellSection> sections, const LightDirection& towardsLight, std::span<const LightLayer> layers, const OpticsOf& optics,
                      int surfaces) {
  LightPaths sum(surfaces, layers.size());
  for (const ShellSection& section : sections) Chords(section, towardsLight, layers, optics, sum).run();
  return sum;
}

} // namespace muffle
