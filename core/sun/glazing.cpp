// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sun/glazing.h"

#include "core/constants.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace muffle {
namespace {

struct Refracted {
  double cosInside;
  double perpendicular;
  double parallel;
};

Refracted refract(double n, double incidence_deg) {
  const double theta = radians(std::clamp(incidence_deg, 0.0, 89.999));
  const double c1 = std::cos(theta);
  const double c2 = std::sqrt(1.0 - std::pow(std::sin(theta) / n, 2));
  const double perpendicular = std::pow((c1 - n * c2) / (c1 + n * c2), 2);
  const double parallel = std::pow((n * c1 - c2) / (n * c1 + c2), 2);
  return {c2, perpendicular, parallel};
}

GlazingOptics stack(double r, double absorbing, int sheets) {
  const double t1 = absorbing * (1.0 - r) * (1.0 - r) / (1.0 - r * r * absorbing * absorbing);
  const double r1 = r * (1.0 + absorbing * t1);
  GlazingOptics all{t1, r1};
  for (int i = 1; i < sheets; ++i) {
    const double between = 1.0 - r1 * all.reflectance;
    all = {t1 * all.transmittance / between, r1 + all.reflectance * t1 * t1 / between};
  }
  return all;
}

} // namespace

double fresnelReflectance(double n, double incidence_deg) {
  const Refracted f = refract(n, incidence_deg);
  return 0.5 * (f.perpendicular + f.parallel);
}

GlazingOptics glazingOptics(double n, double extinctionPath, double incidence_deg, int sheets) {
  const Refracted f = refract(n, incidence_deg);
  const double absorbing = std::exp(-extinctionPath / f.cosInside);
  const GlazingOptics a = stack(f.perpendicular, absorbing, sheets);
  const GlazingOptics b = stack(f.parallel, absorbing, sheets);
  return {0.5 * (a.transmittance + b.transmittance), 0.5 * (a.reflectance + b.reflectance)};
}

double glazingDiffuseTransmittance(double n, double extinctionPath, int sheets) {
  constexpr int kPoints = 400; // midpoint rule; the integrand is smooth and zero at both ends: error below 1e-5
  double sum = 0.0;
  for (int i = 0; i < kPoints; ++i) {
    const double theta = (i + 0.5) * 90.0 / kPoints;
    sum += glazingOptics(n, extinctionPath, theta, sheets).transmittance * std::sin(2.0 * radians(theta));
  }
  return sum * (kPi / 2.0) / kPoints;
}

} // namespace muffle
