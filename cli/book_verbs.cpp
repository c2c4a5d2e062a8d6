// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verbs.h"

#include "book/book.h"
#include "book/salvage.h"
#include "words/words.h"

#include <fmt/format.h>

#include <cstdio>

namespace muffle {
namespace {

/// Of verbs with two files, whose problems name the one they are about.
int reportAsNamed(const Problems& problems) {
  for (const Problem& p : problems) std::fprintf(stderr, "%s\n", english(p).c_str());
  return kBadInput;
}

} // namespace

int runExport(const std::string& path, const std::string& folder) {
  const auto book = Book::open(path, Book::Mode::existing);
  if (!book) return reportAsNamed(book.problems());
  if (const auto ok = exportBook(*book, folder); !ok) return reportAsNamed(ok.problems());
  return kDone;
}

int runImport(const std::string& folder, const std::string& path) {
  if (const auto ok = importBook(folder, path); !ok) return reportAsNamed(ok.problems());
  return kDone;
}

int runSalvage(const std::string& path, const std::string& newBook, bool json) {
  const auto found = salvageBook(path, newBook);
  if (!found) return reportAsNamed(found.problems());
  if (json) {
    const auto list = [](const std::vector<Message>& messages) {
      Json all = Json::array();
      for (const Message& m : messages) all.push_back(english(m));
      return all;
    };
    print({{"saved", list(found->saved)}, {"doubtful", list(found->doubtful)}, {"lost", list(found->lost)}});
    return kDone;
  }
  for (const Message& what : found->saved) fmt::print("saved: {}\n", english(what));
  for (const Message& what : found->doubtful) fmt::print("doubtful: {}\n", english(what));
  for (const Message& what : found->lost) fmt::print("lost: {}\n", english(what));
  return kDone;
}

} // namespace muffle
