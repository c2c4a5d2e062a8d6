// SPDX-License-Identifier: GPL-3.0-or-later
//
// muffle_pile_curves OUT.svg: prints the table of piles in docs/model.md and draws the curves beside it.
#include "book/files.h"
#include "core/store/pile.h"
#include "tests/support/usual_piles.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cstdio>

using namespace muffle;

namespace {

constexpr double kLeft = 46.0, kTop = 16.0, kWide = 560.0, kHigh = 240.0, kDays = 90.0, kLow_C = -10.0, kHigh_C = 80.0;

double x(double day) { return kLeft + kWide * day / kDays; }
double y(double t_C) { return kTop + kHigh * (kHigh_C - t_C) / (kHigh_C - kLow_C); }

std::string line(const PileCourse& course, const char* colour, const char* dash, const char* name, double at_day, double lift) {
  std::string points;
  double label = 0.0;
  for (std::size_t i = 0; i < course.day.size(); i += 2) {
    points += fmt::format("{:.1f},{:.1f} ", x(course.day[i]), y(course.core_C[i]));
    if (course.day[i] <= at_day) label = course.core_C[i];
  }
  return fmt::format(
      "<polyline fill='none' stroke='{}' stroke-width='2' stroke-dasharray='{}' points='{}'/>\n<text x='{:.0f}' y='{:.0f}' fill='{}'>{}</text>\n", colour, dash,
      points, x(at_day), y(label) - lift, colour, name);
}

} // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    std::fprintf(stderr, "usage: muffle_pile_curves OUT.svg\n");
    return 2;
  }
  fmt::print("| pile | built of | C:N | water | W a wet tonne, days 3 to 30 | peak | days at 40 °C and more |\n|---|---|---|---|---|---|---|\n");
  for (const testing::UsualPile& usual : testing::usualPiles()) {
    const Blend blend = blendOf(usual.pile);
    const PileCourse c = pileCourse(usual.pile);
    fmt::print("| {} | {:.1f} t | {:.0f} | {:.0f} % | {:.0f} | {:.0f} °C | {:.0f} |\n", usual.name, blend.wet_kg / 1000.0, blend.carbonNitrogen,
               100.0 * blend.moisture, c.sustained_W_per_t, c.peak_C, c.daysAbove40_d);
  }
  const CompostPile mound = testing::usualPiles().front().pile;
  PileTrial drawn;
  drawn.taken_W = 6000.0;
  drawn.takenFrom_d = 20.0;
  drawn.takenTo_d = 26.0;
  const PileTrial frost{.air_C = -5.0, .start_C = 2.0};
  std::string svg = fmt::format("<svg xmlns='http://www.w3.org/2000/svg' width='{0:.0f}' height='{1:.0f}' font-family='sans-serif' font-size='12'>\n"
                                "<rect width='{0:.0f}' height='{1:.0f}' fill='#FBF7F0'/>\n",
                                kLeft + kWide + 20.0, kTop + kHigh + 40.0);
  for (int t = 0; t <= 80; t += 20)
    svg += fmt::format("<line x1='{:.0f}' x2='{:.0f}' y1='{:.1f}' y2='{:.1f}' stroke='#D9CDBA'/><text x='8' y='{:.0f}' fill='#7A6E61'>{} °C</text>\n", kLeft,
                       kLeft + kWide, y(t), y(t), y(t) + 4.0, t);
  for (int d = 0; d <= 90; d += 15) svg += fmt::format("<text x='{:.0f}' y='{:.0f}' fill='#7A6E61'>{}</text>\n", x(d) - 6.0, kTop + kHigh + 18.0, d);
  svg += fmt::format("<text x='{:.0f}' y='{:.0f}' fill='#7A6E61'>days since it was built</text>\n", kLeft + kWide - 130.0, kTop + kHigh + 34.0);
  svg += line(pileCourse(mound), "#9A3324", "none", "six tonnes of manure and straw, left alone", 24.0, -30.0);
  svg += line(pileCourse(mound, drawn), "#2F5D7C", "7 4", "6 kW drawn from it on days 20 to 26", 36.0, -24.0);
  svg += line(pileCourse(testing::fortySmallPiles(), frost), "#5C7A2E", "2 3", "trimmings and leaves in frost, 6.4 t", 36.0, 9.0);
  svg += line(pileCourse(testing::smallPile(), frost), "#2D241E", "none", "the same, 160 kg: it never lights", 40.0, 8.0);
  svg += "</svg>\n";
  if (const Status written = writeFile(argv[1], svg); !written) {
    std::fprintf(stderr, "%s\n", english(written.problem()).c_str());
    return 3;
  }
  return 0;
}
