// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of cautions: where the work can hurt someone.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kCaution[] = {
    {"caution.structure", "Snow and wind load are not calculated here: a licensed structural engineer decides what may stand."},
    {"caution.lined-roof", "A house lined or covered inside sheds snow more slowly: ask a licensed structural engineer about its load."},
    {"caution.open-in-wind", "A roof or side that stands open in a gale is lost: it must shut by itself or by someone who is there."},
    {"caution.trench", "Before digging, have buried lines marked; a trench deeper than your hips can collapse and must be shored."},
    {"caution.pit-gas", "In pits, sunk floors and compost sheds heavy gas gathers and oxygen can lack: air them wide before you go in, never alone."},
    {"caution.carbon-monoxide",
     "Whatever burns needs air from outside and a flue: unvented it gives carbon monoxide, which kills unnoticed, and moisture. Hang a carbon monoxide alarm."},
    {"caution.unvented-flame",
     "A flame without a flue gives the house all its water and gases: leave a way in for fresh air, never stay or sleep beside it, and expect wet leaves."},
    {"caution.tight-house", "A tight house keeps in damp and the gases of whatever burns in it: no open flame in a sealed house."},
    {"caution.flue",
     "Stove and flue: clearances as their makers and local codes say, through film only in a proper sleeve, swept every year by who is licensed."},
    {"caution.fuel-store", "Keep fuel dry and away from the fire, gas bottles upright and out of doors, no more than local rules allow."},
    {"caution.bare-heat",
     "Lamps, glowing panels and candles set cloth, film and straw alight from an arm's length: hang them fast, behind a guard, over nothing that burns."},
    {"caution.water-pressure", "Tank, boiler, coil and collector need a relief valve and an open vent: never a sealed boiler."},
    {"caution.freezing-water", "Water that stands in frost bursts what holds it: drain collectors, coils and loops, or fill them with what is meant for it."},
    {"caution.electric-heat", "Electric heat in the wet: residual-current protection, heater clear of film and fleece, cables never run coiled. Wiring is work "
                              "for a licensed electrician."},
    {"caution.electric-motors", "Fans, pumps and motors near wet hands: residual-current protection and a licensed electrician."},
    {"caution.soil-cable",
     "Lay the passes apart and never coiled, cover them with mesh against spades, and feed them through residual-current protection: a licensed electrician."},
    {"caution.sleeping", "A heater can fail while you sleep: hang a second thermometer with an alarm."},
    {"caution.fabric-fire", "Keep films, wraps and cloths away from heaters, flues and lamps; a hot pipe through film needs a proper sleeve."},
    {"caution.under-cover", "Never put a lamp, heater or coiled cable under a bed cover: cloth and film burn."},
    {"caution.straw-fire", "Loose straw burns: keep it clear of heaters and flues."},
    {"caution.damp", "Damp leaves rot: let the air out on a mild morning, water early, leave room between plants."},
    {"caution.heavy", "Full barrels and bins are too heavy to shift: set them on firm ground, off paths and electrics; water in them freezes and bursts them."},
    {"caution.standing-water", "Water that stands in ground pipes grows mould, and soil air brings radon: lay them to a drain."},
    {"caution.manure",
     "Raw manure and what is eaten raw: keep a harvest interval, often 90 days, and 120 where the crop touches the soil; your local rules come first."},
    {"caution.roots",
     "A young hot bed burns roots and gives ammonia: plant when the soil at the roots has fallen to what they bear, and air the house before you work in it."},
    {"caution.spores", "Dust and spores: wear a mask when you build, turn or take away a pile."},
    {"caution.heap", "Large heaps can slump and smoulder: build them clear of walls and of anything that burns."},
    {"caution.heavy-bench", "A heavy bench needs ground that carries it. A flue within it must be gas-tight and swept, with draught enough to start cold: "
                            "carbon monoxide alarm, local codes, a licensed builder."},
    {"caution.free-wall", "A free wall of stone or earth can fall: its foundation and height are for a licensed builder."},
    {"caution.lifting", "Lift slabs in twos or with a barrow."},
    {"caution.wet-soil", "Wet soil weighs near two tonnes a cubic metre and pushes its boards outwards: stake and tie a bed higher than a spade."},
    {"caution.thermostat",
     "A thermostat may be a kelvin or two off and hangs where the plants do not: leave a margin above the line, and hang a second thermometer, "
     "with an alarm, among them."},
    {"caution.hardier", "A hardier crop still dies of one night too cold: look up its own limit, not its kind's."},
};

} // namespace

std::span<const WordsOf> cautionWords() { return kCaution; }

} // namespace muffle
