// SPDX-License-Identifier: GPL-3.0-or-later
//
// Skins against published figures and against each other. docs/model.md prints the same table.
#include "core/assemble/covers.h"

#include "core/simulate/simulate.h"
#include "tests/support/near.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

namespace muffle {
namespace {

double u(std::vector<Layer> layers, double skyBelow_K = 0.0, double humidity = SkinNight{}.humidity) {
  SkinNight night;
  night.skyBelow_K = skyBelow_K;
  night.humidity = humidity;
  return skinU_W_m2K(Skin{std::move(layers)}, FaceGroup::roof, night).value_or(-1.0);
}

TEST(Covers, MeetThePublishedOverallUValuesOfWholeCovers) {
  // 10 degC inside, -5 outside, 3 m/s, overcast: the conditions under which heating tables are stated
  struct Row {
    const char* what;
    std::vector<Layer> layers;
    double low, high; ///< W/(m2 K)
  };
  const Row rows[] = {
      {"single glass", {{"glass-4mm"}}, 5.7, 7.0},
      {"single polyethylene", {{"pe-film"}}, 6.0, 8.0},
      {"two polyethylene films, air between", {{"pe-film", 0.10}, {"pe-film"}}, 3.5, 4.6},
      {"twin-wall polycarbonate 4 mm", {{"twin-wall-4"}}, 3.8, 4.3},
      {"twin-wall polycarbonate 8 mm", {{"twin-wall-8"}}, 3.2, 3.8},
      {"triple-wall polycarbonate 16 mm", {{"twin-wall-16"}}, 2.2, 2.7},
      {"five-wall polycarbonate 32 mm", {{"multi-wall-32"}}, 1.2, 1.6},
      {"twin-wall acrylic 16 mm", {{"acrylic-16"}}, 2.5, 3.0},
      {"sealed double glass", {{"sealed-glass"}}, 2.8, 3.8},
      {"glass lined with polyethylene", {{"glass-4mm", 0.05}, {"pe-film"}}, 3.0, 4.2},
      {"rigid foam board 50 mm", {{"foam-board-50"}}, 0.5, 0.8},
      {"stone wall 400 mm", {{"stone-400"}}, 2.0, 3.0},
  };
  for (const Row& r : rows) {
    // the tables do not say whether the cover was dry; water on it gives its heat and shuts a film's window to radiation
    const double damp = u(r.layers), dry = u(r.layers, 0.0, 0.0);
    constexpr double kBetween = 0.03; // of the other of the two
    for (const double value : {damp, dry}) {
      EXPECT_GE(value, r.low * (1.0 - kBetween)) << r.what;
      EXPECT_LE(value, r.high * (1.0 + kBetween)) << r.what;
    }
    EXPECT_TRUE((damp >= r.low && damp <= r.high) || (dry >= r.low && dry <= r.high)) << r.what << " " << damp << " damp, " << dry << " dry";
    RecordProperty(r.what, fmt::format("{:.2f} damp, {:.2f} dry, {:.2f} clear", damp, dry, u(r.layers, 20.0)));
  }
}

TEST(Covers, FilmsThatLetRadiantHeatThroughLoseMoreUnderAClearSky) {
  const double plain = u({{"pe-film"}}, 20.0) - u({{"pe-film"}});
  const double holding = u({{"pe-film-ir"}}, 20.0) - u({{"pe-film-ir"}});
  const double glass = u({{"glass-4mm"}}, 20.0) - u({{"glass-4mm"}});
  EXPECT_GT(plain, holding);
  EXPECT_GT(holding, glass);
  EXPECT_GT(glass, 0.0);
}

TEST(Covers, WaterOnAFilmShutsItsWindowToTheSkyAndGivesItsHeat) {
  const double dry = u({{"pe-film"}}, 20.0, 0.0), mist = u({{"pe-film"}}, 20.0, 0.4);
  EXPECT_LT(mist, dry - 0.5) << "a first mist: hardly any latent heat, but less is radiated through";
  EXPECT_GT(u({{"pe-film"}}, 20.0, 0.95), mist) << "the damper the air the more heat its water brings";
  EXPECT_CLOSE(u({{"glass-4mm"}}, 20.0, 0.0), u({{"glass-4mm"}}, 20.0, 0.4), 0.1, "glass has no window; what little condenses");
}

TEST(Covers, EveryLayerAddedLowersTheLoss) {
  std::vector<Layer> layers{{"glass-4mm", 0.05}};
  double before = u(layers);
  for (const char* next : {"pe-film", "bubble-wrap", "woven-blanket", "foam-board-50"}) {
    layers.push_back({next, 0.05});
    const double now = u(layers);
    EXPECT_LT(now, before) << next;
    before = now;
  }
}

TEST(Covers, AHeavyWallLosesAsMuchAsALightOneOfItsResistanceButLater) {
  EXPECT_CLOSE(u({{"earth-500"}}), 1.0 / (1.0 / u({{"stone-400"}}) + 0.455 - 0.222), 0.05, "the films' own temperatures differ a little");
}

/// The steady temperature of a house without heat or sun.
double unheated_C(double skyClear, const char* film) {
  Plan plan;
  plan.house.shape = {ShapeKind::arch, 6, 20, 0.5, 3.0, 90};
  for (Skin* s : {&plan.house.roof, &plan.house.sides, &plan.house.ends}) s->layers = {{film}};
  plan.site.groundMean_C = 8.0; // a fresh frost: the soil a metre down still gives 13 W/m2
  double low = -20.0, high = 10.0;
  for (int k = 0; k < 40; ++k) { // the inside temperature at which nothing has to be added
    const double middle = 0.5 * (low + high);
    const auto loss = steadyLoss(plan, middle, -4.0, 0.3, skyClear);
    (loss->total_W > 0.0 ? high : low) = middle;
  }
  return 0.5 * (low + high);
}

TEST(Covers, AnUnheatedFilmHouseIsColderThanOutdoorsUnderAClearCalmSkyAndNotUnderCloud) {
  EXPECT_LT(unheated_C(1.0, "pe-film"), -6.0) << "it radiates to the sky and the calm air outside cannot make up for it";
  EXPECT_CLOSE(unheated_C(0.0, "pe-film"), -4.0, 0.5, "under cloud the sky is 2 to 3 K colder than the air, which the soil's warmth about makes up for");
}

} // namespace
} // namespace muffle
