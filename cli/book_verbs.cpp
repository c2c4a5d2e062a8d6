// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verbs.h"

#include "book/book.h"
#include "book/salvage.h"

#include <fmt/format.h>

#include <cstdio>

namespace muffle {
namespace {

/// Of verbs with two files, whose problems name the one they are about.
int reportAsNamed(const Problems& problems) {
  for (const Problem& p : problems) std::fprintf(stderr, "%s\n", p.text().c_str());
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
    print({{"saved", found->saved}, {"doubtful", found->doubtful}, {"lost", found->lost}});
    return kDone;
  }
  for (const std::string& what : found->saved) fmt::print("saved: {}\n", what);
  for (const std::string& what : found->doubtful) fmt::print("doubtful: {}\n", what);
  for (const std::string& what : found->lost) fmt::print("lost: {}\n", what);
  return kDone;
}

} // namespace muffle
