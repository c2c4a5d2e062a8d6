// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crop/crops.h"

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr double kShort_h = 0.5;                           // that blossoms are tested for, and leaves take to freeze
constexpr GrowthResponse kCool{4.0, 18.0, 30.0, 12.0};     // leaves and roots of cool weather
constexpr GrowthResponse kRootCrop{4.0, 18.0, 30.0, 14.0}; // the same, in want of more light
constexpr std::string_view kStages = "Ventskevich 1958, as in FAO Frost Protection, vol. 1 (2005), ch. 4";
constexpr std::string_view kBlossoms = "Proebsting and Mills 1978, as in FAO Frost Protection, vol. 1 (2005), ch. 4";
constexpr std::string_view kRoots = "Havis 1976, HortScience 11:385";

CropFacts harmedBy(std::string_view id, std::array<std::vector<Exposure>, kCropPartCount> harmed, std::optional<GrowthResponse> growth, std::string_view range,
                   std::string_view source) {
  return {id, std::move(harmed), growth, range, source};
}

/// Growth: cool crops as Maynard and Hochmuth 2007 (Knott's) class them, fruiting ones Heuvelink 2005 and Adams et al. 2001; light Faust and Logan 2018.
const std::vector<CropFacts>& table() {
  using Parts = std::array<std::vector<Exposure>, kCropPartCount>;
  static const std::vector<CropFacts> rows{
      harmedBy("lettuce", Parts{{{{-0.5, 1.0}}, {}, {}, {}}}, kCool, "-0.2 where tissue begins to freeze; hardened plants bear a few kelvin more",
               "Whiteman 1957, USDA Marketing Research Report 196"),
      harmedBy("spinach-soft", Parts{{{{-4.0, 1.0}}, {}, {}, {}}}, kCool, "-3 to -5, not hardened", "Fennell and Li 1985, Acta Horticulturae 168:179"),
      harmedBy("spinach-hardened", Parts{{{{-8.0, 1.0}}, {}, {}, {}}}, kCool, "-8 to -10 after some weeks near freezing",
               "Fennell and Li 1985, Acta Horticulturae 168:179"),
      harmedBy("cabbage", Parts{{{{-5.0, kShort_h}}, {{-2.0, kShort_h}}, {}, {}}}, kCool, "seedlings -5 to -7, in flower -2 to -3", kStages),
      harmedBy("pea", Parts{{{{-7.0, kShort_h}}, {{-2.0, kShort_h}}, {}, {}}}, kCool, "seedlings -7 to -8, in flower -2 to -3", kStages),
      harmedBy("broad-bean", Parts{{{{-5.0, kShort_h}}, {{-2.0, kShort_h}}, {}, {}}}, kCool, "seedlings -5 to -6, in flower -2 to -3", kStages),
      harmedBy("carrot", Parts{{{{-6.0, kShort_h}}, {}, {}, {}}}, kRootCrop, "-6 to -7", kStages),
      harmedBy("beet", Parts{{{{-6.0, kShort_h}}, {{-2.0, kShort_h}}, {}, {}}}, kRootCrop, "seedlings -6 to -7, in flower -2 to -3", kStages),
      harmedBy("potato", Parts{{{{-2.0, kShort_h}}, {{-1.0, kShort_h}}, {}, {}}}, GrowthResponse{4.0, 20.0, 30.0, 15.0},
               "young leaves -2 to -3, in flower -1 to -2", kStages),
      harmedBy("tomato", Parts{{{{-0.5, kShort_h}, {10.0, 72.0}}, {{-0.5, kShort_h}}, {}, {{35.0, 3.0}}}}, GrowthResponse{6.0, 24.0, 36.0, 20.0},
               "frozen at 0 to -1; chilled by days below 10 to 12; pollen fails above 32 to 38", "Ventskevich 1958; Lyons 1973; Heuvelink 2005"),
      harmedBy("pepper", Parts{{{{-0.5, kShort_h}, {7.0, 72.0}}, {{-0.5, kShort_h}}, {}, {}}}, GrowthResponse{8.0, 24.0, 36.0, 20.0},
               "frozen at 0 to -1; chilled by days below 7 to 10", "Ventskevich 1958; Lyons 1973"),
      harmedBy("cucumber", Parts{{{{-0.5, kShort_h}, {10.0, 48.0}}, {}, {}, {}}}, GrowthResponse{10.0, 27.0, 38.0, 20.0},
               "frozen at -0.5 to -1; chilled by days below 10 to 12", "Ventskevich 1958; Lyons 1973"),
      harmedBy("basil", Parts{{{{-0.5, kShort_h}, {5.0, 24.0}}, {}, {}, {}}}, GrowthResponse{8.0, 26.0, 36.0, 14.0},
               "leaves blacken after one to three days at 5", "Lange and Cameron 1994, HortScience 29:102"),
      harmedBy("tender-bedding", Parts{{{{-0.5, kShort_h}}, {}, {}, {}}}, GrowthResponse{5.0, 20.0, 34.0, 12.0},
               "tissue that cannot harden freezes at -0.5 to -1.5", "Levitt 1980, Responses of Plants to Environmental Stresses"),
      harmedBy("strawberry-bloom", Parts{{{}, {{-1.1, kShort_h}}, {}, {}}}, GrowthResponse{3.0, 20.0, 32.0, 12.0},
               "open blossom -0.5 to -1.5, just opening -3.3, green fruit -2.2", "Perry and Poling 1986, Advances in Strawberry Production 5:31"),
      harmedBy("stone-fruit-bloom", Parts{{{}, {{-2.2, kShort_h}}, {}, {}}}, std::nullopt,
               "apricot, peach and cherry in full bloom: one in ten lost at -2.2 to -2.8, nine at -3.9 to -5.6", kBlossoms),
      harmedBy("pome-fruit-bloom", Parts{{{}, {{-2.2, kShort_h}}, {}, {}}}, std::nullopt,
               "apple and pear in full bloom: one in ten lost at -2.2 to -2.9, nine at -3.9 to -4.9", kBlossoms),
      harmedBy("grape-shoots", Parts{{{{-2.2, kShort_h}}, {}, {}, {}}}, std::nullopt, "second to fourth leaf -2.2, buds bursting -3.9",
               "Gardea 1987, as in FAO"),
      harmedBy("orange-ripe", Parts{{{}, {{-2.2, kShort_h}}, {}, {}}}, std::nullopt, "ripe fruit -2.2 to -2.8, half ripe from -1.7",
               "Puffer and Turrell 1967, University of California AXT-108"),
      harmedBy("roots-tender", Parts{{{}, {}, {{-5.0, 1.0}}, {}}}, std::nullopt, "magnolia, dogwood, small-leaved hollies: -5 to -7", kRoots),
      harmedBy("roots-middling", Parts{{{}, {}, {{-9.0, 1.0}}, {}}}, std::nullopt, "box, ivy, pieris, broom: -9 to -12", kRoots),
      harmedBy("roots-hardy", Parts{{{}, {}, {{-15.0, 1.0}}, {}}}, std::nullopt, "creeping junipers, spruces, small-leaved rhododendrons: -15 to -23", kRoots),
  };
  return rows;
}

} // namespace

std::string_view idOf(CropPart part) {
  constexpr std::array<std::string_view, kCropPartCount> kIds{"leaf", "bud", "root", "heat"};
  return kIds[static_cast<std::size_t>(part)];
}

std::span<const CropFacts> cropTable() { return table(); }

Crops::Crops(const std::vector<OwnCrop>& own) {
  if (own.empty()) return;
  auto made = std::make_shared<Own>();
  made->kept = own;
  for (const OwnCrop& o : made->kept) {
    const auto one = [&](const std::optional<double>& at_C) { return at_C ? std::vector<Exposure>{{*at_C, o.for_h}} : std::vector<Exposure>(); };
    made->rows.push_back({o.id, {one(o.leaf_C), one(o.bud_C), one(o.root_C), one(o.heat_C)}, o.growth, {}, o.note, o.name});
  }
  m_own = std::move(made);
}

const CropFacts* Crops::find(std::string_view id) const {
  for (const CropFacts* crop : all())
    if (crop->id == id) return crop;
  return nullptr;
}

std::vector<const CropFacts*> Crops::all() const {
  std::vector<const CropFacts*> rows;
  for (const CropFacts& crop : table()) rows.push_back(&crop);
  if (m_own)
    for (const CropFacts& crop : m_own->rows) rows.push_back(&crop);
  return rows;
}

Message nameOf(const CropFacts& crop) { return crop.ownName.empty() ? Message::of("crop", crop.id) : Message::verbatim(std::string(crop.ownName)); }

double potLag_h(double litres) {
  constexpr double kHeat_J_m3K = 2.5e6, kFilm_W_m2K = 10.0; // moist compost; air and radiation
  constexpr double kSkin = 5.5;                             // of a pot as high as wide, area by its volume to the two thirds
  return kHeat_J_m3K * std::cbrt(litres / 1000.0) / (kFilm_W_m2K * kSkin) / 3600.0;
}

} // namespace muffle
