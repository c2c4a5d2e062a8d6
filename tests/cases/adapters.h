// SPDX-License-Identifier: GPL-3.0-or-later
//
// From a question in a case file to core. Each adapter reads the inputs a case gives and answers by name; inputs that a
// case leaves out take the default written in the adapter.
#pragma once

#include "core/json/fields.h"

#include <functional>
#include <map>
#include <string>

namespace muffle::cases {

using Adapter = std::function<Json(const Json&)>;
using Adapters = std::map<std::string, Adapter>;

void addAir(Adapters& a);
void addSun(Adapters& a);
void addEnvelope(Adapters& a);
void addTransients(Adapters& a);
void addGround(Adapters& a);
void addHeaters(Adapters& a);
void addStatistics(Adapters& a);
void addGreenhouse(Adapters& a);
void addStores(Adapters& a);
void addLight(Adapters& a);
void addBodies(Adapters& a);
void addControl(Adapters& a);
void addMoney(Adapters& a);
void addPlates(Adapters& a);

inline double num(const Json& in, const char* key) { return in.at(key).get<double>(); }
inline double num(const Json& in, const char* key, double fallback) { return in.contains(key) ? in.at(key).get<double>() : fallback; }

/// Applies f to a number or to each entry of a list.
template <class F> Json mapped(const Json& value, F f) {
  if (!value.is_array()) return f(value.get<double>());
  Json out = Json::array();
  for (const Json& v : value) out.push_back(f(v.get<double>()));
  return out;
}

/// Thrown by an adapter for a variant that core does not have yet.
struct NotBuilt {};

} // namespace muffle::cases
