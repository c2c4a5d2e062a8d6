// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/heater_words.h"

#include "app/model/said.h"
#include "core/plan/names.h"

namespace muffle {

QString HeaterWords::kind(HeaterKind kind) { return said(nameOf(kind)); }

QString HeaterWords::carrier(Carrier carrier) {
  switch (carrier) {
  case Carrier::electricity: return tr("electricity");
  case Carrier::fuel: return tr("fuel");
  case Carrier::propane: return tr("propane");
  case Carrier::naturalGas: return tr("gas");
  case Carrier::paraffin: return tr("paraffin");
  case Carrier::heatingOil: return tr("oil");
  case Carrier::pellets: return tr("pellets");
  case Carrier::softwood: return tr("softwood");
  case Carrier::hardwood: return tr("hardwood");
  case Carrier::wax: return tr("wax");
  case Carrier::heat: return tr("heat");
  case Carrier::oak: return tr("oak");
  case Carrier::beech: return tr("beech");
  case Carrier::ash: return tr("ash");
  case Carrier::birch: return tr("birch");
  case Carrier::larch: return tr("larch");
  case Carrier::pine: return tr("pine");
  case Carrier::spruce: return tr("spruce");
  case Carrier::poplar: return tr("poplar");
  }
  return {};
}

QString HeaterWords::unit(const char* id) {
  static constexpr std::pair<const char*, const char*> kNames[] = {{"kWh", QT_TR_NOOP("kWh")},
                                                                   {"kg", QT_TR_NOOP("kg")},
                                                                   {"tonne", QT_TR_NOOP("tonne")},
                                                                   {"litre", QT_TR_NOOP("litre")},
                                                                   {"us-gallon", QT_TR_NOOP("US gallon")},
                                                                   {"m3", QT_TR_NOOP("m³")},
                                                                   {"can-20l", QT_TR_NOOP("can of 20 l")},
                                                                   {"bottle-5kg", QT_TR_NOOP("bottle of 5 kg")},
                                                                   {"bottle-11kg", QT_TR_NOOP("bottle of 11 kg")},
                                                                   {"bottle-33kg", QT_TR_NOOP("bottle of 33 kg")},
                                                                   {"therm", QT_TR_NOOP("therm")},
                                                                   {"bag-15kg", QT_TR_NOOP("bag of 15 kg")},
                                                                   {"bag-40lb", QT_TR_NOOP("bag of 40 lb")},
                                                                   {"bale-10kg", QT_TR_NOOP("bale of 10 kg, pressed")},
                                                                   {"stere", QT_TR_NOOP("stacked m³")},
                                                                   {"cord", QT_TR_NOOP("cord")},
                                                                   {"barrow", QT_TR_NOOP("barrow")}};
  for (const auto& [known, name] : kNames)
    if (std::string_view(id) == known) return tr(name);
  return QString::fromUtf8(id);
}

QString HeaterWords::failing(const FailingThing& thing) {
  using Kind = FailingThing::Kind;
  switch (thing.kind) {
  case Kind::mains: return tr("the mains");
  case Kind::stoker: return tr("whoever tends it");
  case Kind::heater: return said(thing.name);
  case Kind::fan:
    return thing.id == "extract"     ? tr("the fan that draws air out")
           : thing.id == "bay"       ? tr("the fan of the bay")
           : thing.id == "roof-void" ? tr("the fan of the roof void")
                                     : tr("fan or pump of %1").arg(said(thing.name));
  case Kind::blanketOpen: return tr("the blanket, stuck open");
  case Kind::blanketShut: return tr("the blanket, stuck shut");
  }
  return {};
}

} // namespace muffle
