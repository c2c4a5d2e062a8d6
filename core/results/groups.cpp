// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/results/groups.h"

#include <set>

namespace muffle {

namespace {

int lossGroup(const Assembly& assembly, int link, LossPath part) {
  const auto l = static_cast<std::size_t>(link);
  const bool toSky = l < assembly.network.links.size() && assembly.network.links[l].to == assembly.sky;
  return static_cast<int>(part) + (toSky ? kLossPathCount : 0);
}

} // namespace

std::vector<int> lossGroups(const Assembly& assembly) {
  std::set<int> groups;
  for (const auto& [link, part] : assembly.losses) groups.insert(lossGroup(assembly, link, part));
  return {groups.begin(), groups.end()};
}

std::vector<int> countedGroups(const Assembly& assembly) {
  std::vector<int> group(assembly.network.links.size() + assembly.network.vents.size(), -1);
  for (const auto& [link, part] : assembly.losses) group[static_cast<std::size_t>(link)] = lossGroup(assembly, link, part);
  for (std::size_t s = 0; s < assembly.stores.size(); ++s)
    for (const int link : assembly.stores[s].giving) group[static_cast<std::size_t>(link)] = storeGroup(s);
  for (std::size_t s = 0; s < assembly.stores.size(); ++s)
    for (const int link : assembly.stores[s].taking) group[static_cast<std::size_t>(link)] = storeGroup(s) + 1;
  return group;
}

} // namespace muffle
