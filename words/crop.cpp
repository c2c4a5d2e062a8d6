// SPDX-License-Identifier: GPL-3.0-or-later
//
// What crops are called.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kCrop[] = {
    {"crop.lettuce", "lettuce"},
    {"crop.spinach-soft", "spinach, soft"},
    {"crop.spinach-hardened", "spinach, hardened"},
    {"crop.cabbage", "cabbages, young"},
    {"crop.pea", "peas"},
    {"crop.broad-bean", "broad beans"},
    {"crop.carrot", "carrots"},
    {"crop.beet", "beets"},
    {"crop.potato", "early potatoes"},
    {"crop.tomato", "tomatoes"},
    {"crop.pepper", "peppers"},
    {"crop.cucumber", "cucumbers"},
    {"crop.basil", "basil"},
    {"crop.tender-bedding", "tender bedding plants"},
    {"crop.strawberry-bloom", "strawberries in bloom"},
    {"crop.stone-fruit-bloom", "stone fruit in bloom"},
    {"crop.pome-fruit-bloom", "apples and pears in bloom"},
    {"crop.grape-shoots", "grapes, young shoots"},
    {"crop.orange-ripe", "oranges, ripe"},
    {"crop.roots-tender", "shrubs with tender roots"},
    {"crop.roots-middling", "shrubs with middling roots"},
    {"crop.roots-hardy", "shrubs with hardy roots"},
};

} // namespace

std::span<const WordsOf> cropWords() { return kCrop; }

} // namespace muffle
