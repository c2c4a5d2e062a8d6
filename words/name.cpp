// SPDX-License-Identifier: GPL-3.0-or-later
//
// What the things of a plan are called where nobody has named them.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kName[] = {
    {"name.bed-cover", "bed cover"},
    {"name.warm-bay", "warm bay"},
    {"name.lobby", "lobby"},
    {"name.roof-void", "roof void"},
    {"name.barrels", "barrels"},
    {"name.ground-pipes", "ground pipes"},
    {"name.ground-tube", "ground tube"},
    {"name.hot-bed", "hot bed"},
    {"name.compost-chamber", "compost chamber"},
    {"name.compost-mound", "compost mound"},
    {"name.plan", "Plan"},
    {"name.water-loop", "water loop"},
    {"name.soil-cable", "soil cable"},
    {"name.wall", "wall"},
    {"name.path", "path"},
    {"name.raised-bed", "raised bed"},
    {"name.bench", "heavy bench"},
    {"name.of-room", "{} of the {}"},
    {"name.numbered", "{} {}"},
    {"name.the-house", "the house"},
    {"name.covers", "covers"},
    {"name.floor", "floor"},
    {"name.vents", "vents"},
    {"name.rooms", "rooms"},
    {"heater.electric", "electric fan heater"},
    {"heater.boiler", "boiler"},
    {"heater.tube", "electric tubes"},
    {"heater.radiant", "electric panel that glows"},
    {"heater.lamps", "lamps or string lights, by cold"},
    {"heater.grow-light", "grow light, by the clock"},
    {"heater.propane", "propane heater with a flue"},
    {"heater.propane-unvented", "propane heater without a flue"},
    {"heater.gas", "gas heater with a flue"},
    {"heater.gas-unvented", "gas heater without a flue"},
    {"heater.paraffin-unvented", "paraffin heater"},
    {"heater.oil", "oil heater with a flue"},
    {"heater.pellet-stove", "pellet stove"},
    {"heater.wood-stove", "wood stove, fed by hand"},
    {"heater.candles", "candles and small flames"},
    {"heater.heat-pump", "heat pump, from outside air"},
    {"heater.district", "heat that is delivered"},
    {"heater.mass-stove", "mass stove, fed by hand"},
    {"heater.propane-radiant", "propane panel that glows, without a flue"},
    {"measure.second_skin", "second skin"},
    {"measure.night_blanket", "night blanket"},
    {"measure.sealing", "sealing"},
    {"measure.ceiling", "ceiling"},
    {"measure.lobby", "lobby"},
    {"measure.barrels", "barrels"},
    {"measure.skirt", "skirt"},
    {"measure.heater", "heater"},
    {"measure.hardier", "hardier crop"},
    {"measure.mulch", "straw on the soil"},
    {"measure.second-film", "second film, heat-holding"},
    {"measure.bubble-wrap-lining", "bubble wrap lining"},
    {"measure.woven-night-blanket", "woven night blanket"},
    {"measure.aluminised-night-screen", "aluminised night screen"},
    {"measure.ceiling-at-the-eaves", "ceiling at the eaves"},
    {"measure.down-to", "{} to {} an hour"},
    {"measure.of-length", "{} {} long"},
    {"measure.so-many", "{} {}"},
    {"measure.of-depth", "{} {} deep"},
    {"measure.of-power", "{} {}"},
    {"measure.lower-by", "{}, {} lower"},
};

} // namespace

std::span<const WordsOf> nameWords() { return kName; }

} // namespace muffle
