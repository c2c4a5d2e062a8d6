// SPDX-License-Identifier: GPL-3.0-or-later
//
// The towns and villages of the world by name and by nearness (data/README.md says where the table comes from and its form).
//
//   Result<Gazetteer> towns = Gazetteer::read(placesText, otherNamesText);
//   for (const Town& town : towns->find("st. etienne, france", 8)) ...
#pragma once

#include "core/site/coordinates.h"
#include "core/status.h"

#include <cstdint>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

/// Its words are the gazetteer's own: they live as long as it does.
struct Town {
  std::string_view name;
  std::string_view region;      ///< may be empty
  std::string_view regionCode;  ///< ISO 3166-2 without the land, where it has letters
  std::string_view country;     ///< its English name
  std::string_view countryCode; ///< ISO 3166, two letters
  Coordinates at;
  int people_hundreds = 0; ///< 0: not known
};

class Gazetteer {
public:
  /// `places` and `otherNames` in the forms of data/README.md; a problem names the line.
  static Result<Gazetteer> read(std::string places, std::string_view otherNames);

  /// Places whose name is what is typed, then those that begin with it, then those one of whose later words does; the bigger first.
  /// After a comma stands the beginning of a country (or its code) or of words of a region. At most `limit` of them.
  [[nodiscard]] std::vector<Town> find(std::string_view typed, std::size_t limit) const;
  /// The nearest place on the globe; nothing in an empty table.
  [[nodiscard]] const Town* nearest(Coordinates at) const;
  [[nodiscard]] const std::vector<Town>& towns() const { return m_towns; }

private:
  struct Entry { // a name of a town; a town may have several
    std::string folded;
    std::uint32_t town = 0;
  };
  std::shared_ptr<const std::string> m_text; ///< what the towns' words are cut from
  std::vector<Town> m_towns;
  std::vector<Entry> m_names; ///< by folded name, for the beginning of a name
};

/// Along the great circle on a sphere of 6371 km.
double distance_km(Coordinates from, Coordinates to);

} // namespace muffle
