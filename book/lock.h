// SPDX-License-Identifier: GPL-3.0-or-later
//
// Who may write a book. A lock of the system's on the book file itself, so that nothing is left behind when its holder ends, however it ends.
#pragma once

#include <optional>
#include <string>
#include <utility>

namespace muffle {

class BookLock {
public:
  /// Nothing if another window holds the book. Where the file cannot be opened or the file system knows no locks, the lock holds nothing and
  /// bars nobody: better two windows than none. Take it before the book is opened and let it go after every connection to it is closed: closing
  /// any descriptor of a file ends the locks that SQLite holds on it in the same process.
  static std::optional<BookLock> take(const std::string& path);
  BookLock(BookLock&& other) noexcept : m_descriptor(std::exchange(other.m_descriptor, -1)) {}
  BookLock& operator=(BookLock&&) = delete;
  BookLock(const BookLock&) = delete;
  BookLock& operator=(const BookLock&) = delete;
  ~BookLock();

private:
  explicit BookLock(int descriptor) : m_descriptor(descriptor) {}
  int m_descriptor = -1;
};

} // namespace muffle
