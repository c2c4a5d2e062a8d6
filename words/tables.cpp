// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/tables.h"

namespace muffle {

std::vector<std::span<const WordsOf>> wordTables() {
  return {aidWords(),      bookWords(), cautionWords(), commandWords(), cropWords(), failureWords(), fitWords(),    houseWords(),  jsonWords(), logWords(),
          materialWords(), nameWords(), networkWords(), placeWords(),   planWords(), problemWords(), seasonWords(), sizingWords(), storeWords()};
}

} // namespace muffle
