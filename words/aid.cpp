// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of measuring aids.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kAid[] = {
    {"aid.number-allowed", "a number is allowed"},
    {"aid.no-number", "\"{}\" is no number"},
    {"aid.no-unit", "\"{}\" is no unit of this"},
    {"aid.too-large", "\"{}\" is too large"},
    {"aid.number-allowed-in", "a number is allowed, in {}"},
    {"aid.uncertainty-below-zero", "\"{}\": what stands behind ± is no number above zero"},
    {"aid.heat_in_it", "heating oil 10.0, paraffin 9.6, liquid propane 6.6, petrol 8.9, rapeseed oil 9.2 kWh/L (net)"},
    {"aid.flow_from_power", "what a pump must move to carry a power at a temperature rise"},
    {"aid.flow_from_power.formula", "flow = power / (4.19 MJ/m3K x rise)"},
    {"aid.power_from_flow", "what a water loop carries"},
    {"aid.power_from_flow.formula", "power = flow x 4.19 MJ/m3K x rise"},
    {"aid.tank_power", "what a tank of water gives as it cools"},
    {"aid.tank_power.formula", "power = volume x 4.19 MJ/m3K x (from - to) / time"},
    {"aid.meter_pair", "power between two readings of an energy meter"},
    {"aid.meter_pair.formula", "power = (end - start) / time"},
    {"aid.loss_from_duty", "what a house loses, by how long its heater ran on a steady night"},
    {"aid.loss_from_duty.formula", "loss = rated x on / (on + off) / (inside - outside)"},
    {"aid.heat_from_fuel", "heat from a volume of fuel"},
    {"aid.heat_from_fuel.formula", "heat = volume x heat in it x efficiency"},
    {"aid.fuel_for_heat", "fuel for an amount of heat"},
    {"aid.fuel_for_heat.formula", "volume = heat / (heat in it x efficiency)"},
    {"aid.flow_from_power.power", "power carried"},
    {"aid.flow_from_power.rise", "from return to flow"},
    {"aid.flow_from_power.flow", "water moved"},
    {"aid.power_from_flow.flow", "water moved"},
    {"aid.power_from_flow.rise", "from return to flow"},
    {"aid.power_from_flow.power", "power carried"},
    {"aid.tank_power.volume", "water in it"},
    {"aid.tank_power.from", "at the beginning"},
    {"aid.tank_power.to", "at the end"},
    {"aid.tank_power.time", "between the two"},
    {"aid.tank_power.power", "mean power given"},
    {"aid.tank_power.energy", "heat given"},
    {"aid.meter_pair.start", "first reading"},
    {"aid.meter_pair.end", "second reading"},
    {"aid.meter_pair.time", "between the two"},
    {"aid.meter_pair.energy", "used between them"},
    {"aid.meter_pair.power", "mean power"},
    {"aid.meter_pair.no-answer", "the second reading is below the first: are they changed over, or has the meter begun again?"},
    {"aid.loss_from_duty.rated", "power of the heater while it runs"},
    {"aid.loss_from_duty.on", "time it ran"},
    {"aid.loss_from_duty.off", "time it rested"},
    {"aid.loss_from_duty.inside", "air inside"},
    {"aid.loss_from_duty.outside", "air outside"},
    {"aid.loss_from_duty.loss", "heat loss"},
    {"aid.loss_from_duty.power", "mean power"},
    {"aid.loss_from_duty.no-answer", "the inside must be at least 0.5 K warmer than the outside, and on and off cannot both be nothing"},
    {"aid.heat_from_fuel.volume", "fuel burnt"},
    {"aid.heat_from_fuel.efficiency", "what reaches the house; unvented 100 % of net, with its water and fumes"},
    {"aid.heat_from_fuel.heat", "heat given"},
    {"aid.fuel_for_heat.heat", "heat wanted"},
    {"aid.fuel_for_heat.efficiency", "what reaches the house"},
    {"aid.fuel_for_heat.volume", "fuel needed"},
    {"aid.out-of-range", "{} is out of range"},
    {"aid.range-allowed", "{} to {} is allowed"},
    {"aid.there-is-no-answer", "there is no answer"},
    {"aid.is-not-asked-for", "is not asked for"},
    {"aid.takes-keys", "{} takes the keys that `muffle-cli calc --list` shows"},
    {"aid.is-missing", "is missing"},
    {"aid.as-written", "{}, as {}={}"},
};

} // namespace

std::span<const WordsOf> aidWords() { return kAid; }

} // namespace muffle
