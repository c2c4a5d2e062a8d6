// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/log/merge.h"

#include <algorithm>

namespace muffle {
namespace {

constexpr float kSame = 1e-4F; // in the channel's unit: a rounding of the same reading

} // namespace

Merged mergeLogs(const Log& base, const Log& more) {
  Merged merged;
  Log& log = merged.log;
  log.name = base.name;
  log.decisions = base.decisions;
  log.notes = base.notes;
  log.notes.insert(log.notes.end(), more.notes.begin(), more.notes.end());
  std::set_union(base.time.begin(), base.time.end(), more.time.begin(), more.time.end(), std::back_inserter(log.time));
  const auto rowsOf = [&](const std::vector<UtcSeconds>& time) {
    std::vector<std::uint32_t> rows(time.size());
    for (std::size_t i = 0, row = 0; i < time.size(); ++i, ++row) {
      while (log.time[row] != time[i]) ++row;
      rows[i] = static_cast<std::uint32_t>(row);
    }
    return rows;
  };
  const auto baseRows = rowsOf(base.time), moreRows = rowsOf(more.time);
  const auto blank = [&](Channel channel) {
    channel.raw.assign(log.time.size(), std::numeric_limits<float>::quiet_NaN());
    channel.flag.assign(log.time.size(), 0);
    return channel;
  };
  for (const Channel& c : base.channels) {
    Channel& into = log.channels.emplace_back(blank(c));
    for (std::size_t i = 0; i < baseRows.size(); ++i) into.raw[baseRows[i]] = c.raw[i];
  }
  std::vector<bool> taken(base.channels.size(), false); // two remarks may share a name
  for (const Channel& c : more.channels) {
    auto into = std::find_if(log.channels.begin(), log.channels.begin() + static_cast<long>(base.channels.size()), [&](const Channel& known) {
      return !taken[static_cast<std::size_t>(&known - log.channels.data())] && known.role == c.role && known.id == c.id && known.statistic == c.statistic &&
             (c.role != Role::note || known.name == c.name);
    });
    if (into == log.channels.begin() + static_cast<long>(base.channels.size())) {
      log.channels.push_back(blank(c));
      into = log.channels.end() - 1;
      ++merged.newChannels;
    } else {
      taken[static_cast<std::size_t>(into - log.channels.begin())] = true;
    }
    for (std::size_t i = 0; i < moreRows.size(); ++i) {
      if (std::isnan(c.raw[i])) continue;
      float& there = into->raw[moreRows[i]];
      if (std::isnan(there))
        there = c.raw[i], ++merged.added;
      else
        (std::abs(there - c.raw[i]) <= kSame ? merged.same : merged.different) += 1;
    }
  }
  return merged;
}

} // namespace muffle
