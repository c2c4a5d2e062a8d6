// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of stores of a plan.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kStore[] = {
    {"store.gives-below-charged-above", "it gives below {} and is charged above {}"},
    {"store.pipes-wide-every", "pipes {} wide every {}"},
    {"store.soil-lie-between-them", "soil must lie between them: at least {} from axis to axis"},
    {"store.pipe-wide", "a pipe {} wide at {}"},
    {"store.top-covered-least-deep", "its top must be covered: at least {} deep"},
    {"store.pipes-let-their-air", "the pipes let their air into a warm bay and there is none"},
    {"store.let-them-serve-house", "let them serve the house, or partition a bay off"},
    {"store.pipes-serve-bed-cover", "the pipes serve bed cover {} of {}"},
    {"store.cover-bed-first-let", "cover that bed first, or let them serve the house"},
    {"store.pipe-bed-takes", "the pipe bed takes {}"},
    {"store.pipes-floor-at-most", "at most nine tenths of the floor, {}; lay fewer, shorter or closer pipes, or lay them beside the house"},
    {"store.not-day-year", "\"{}\" is not a day of the year"},
    {"store.date-as", "month and day are needed, such as 11-01"},
    {"store.not-known-ingredient", "\"{}\" is not a known ingredient"},
    {"store.see-materials", "see `muffle-cli materials`"},
    {"store.nothing-pile", "there is nothing in the pile"},
    {"store.ingredient-needed", "at least one ingredient with a mass above 0"},
    {"store.pile-water", "the pile is {} water"},
    {"store.water-at-most", "at most 85 %: what is wetter runs off; use something drier with it"},
    {"store.house-given-heat-until", "the house is to be given heat until it has {}"},
    {"store.coil-goes-tank", "the coil goes to tank {} of {}"},
    {"store.add-water-loop-first", "add that water loop first, or let the coil warm the house"},
    {"store.pile-stands-high", "{} on a foot of {} x {} stand {} high"},
    {"store.pile-lies-thick", "{} on a foot of {} x {} lie {} thick"},
    {"store.hot-beds", "hot beds of {}"},
    {"store.pile-soil-stand-high", "pile and soil stand {} high"},
    {"store.below-the-ridge", "they must stay below the ridge, {} above the floor"},
    {"store.walls-paths-raised-beds", "walls, paths and raised beds on {}"},
    {"store.width", "a width of {}"},
    {"store.width-at-most", "at most {}: it lies within the house"},
    {"store.wall", "a wall of {}"},
    {"store.wall-at-most", "at most {} stand in the house"},
    {"store.tank-at-most", "at most a quarter of the house, {}"},
    {"store.cable-lies-under-bed", "the cable lies under bed cover {} of {}"},
    {"store.cover-bed-first", "cover that bed first"},
    {"store.cable-off-at", "it goes off at {} and on at {}"},
    {"store.cable-off-above", "it goes off at least {} above where it goes on"},
    {"store.cable-on-bed", "{} on each m2 of bed"},
    {"store.cable-at-most", "at most {}: roots beside it are cooked; {} of it is the most here"},
    {"store.passes-apart", "passes {} apart"},
    {"store.passes-at-least", "at least {}: passes must never touch"},
    {"store.tank-of", "a tank of {}"},
    {"store.drums-of", "drums or a bench of {}"},
    {"store.floor-at-most", "at most nine tenths of the floor, {}"},
    {"store.floor-beside-covers-at-most", "at most {} beside the covered beds: together nine tenths of the floor"},
    {"store.between-at-least", "at least {} must lie between, or it would charge and give at once"},
    {"store.gives-at-most", "at most {}: the coil would be hotter than the pile"},
    {"store.height-at-most", "at most {} can be built safely; give it a wider foot or less material"},
    {"store.thickness-at-least", "at least {}; give it a smaller foot or more material"},
};

} // namespace

std::span<const WordsOf> storeWords() { return kStore; }

} // namespace muffle
