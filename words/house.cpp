// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of shapes of houses.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kHouse[] = {
    {"house.width", "width is {}"},
    {"house.length", "length is {}"},
    {"house.eave-height", "eave height is {}"},
    {"house.ridge-height", "ridge height is {}"},
    {"house.ridge-eave", "ridge at {} with the eave at {}"},
    {"house.rises-over-width", "it rises {} over a width of {}"},
    {"house.round-arch-rises-most", "a round arch rises at most half its width, {}; raise the eave or make it pointed"},
    {"house.pointed-arch-rises-tenth", "a pointed arch rises {} to {}, a tenth to one and a half times its width"},
    {"house.dome-rises-most-three", "a dome rises at most three quarters of its width, {}"},
    {"house.ridge-direction", "ridge direction is {}"},
    {"house.bays", "{} bays"},
    {"house.only-gable-arched-houses", "only gable and arched houses are joined side by side"},
    {"house.floor-lies-below-ground", "the floor lies {} below the ground"},
    {"house.allowed-range", "allowed is {} to {}"},
    {"house.allowed-up-to", "allowed is up to {}"},
    {"house.ridge-above-eave", "the ridge must be at least {} above the eave"},
};

} // namespace

std::span<const WordsOf> houseWords() { return kHouse; }

} // namespace muffle
