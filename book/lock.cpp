// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/lock.h"

#include <cerrno>
#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

namespace muffle {

std::optional<BookLock> BookLock::take(const std::string& path) {
  const int descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
  if (descriptor < 0) return BookLock(-1);
  if (::flock(descriptor, LOCK_EX | LOCK_NB) == 0) return BookLock(descriptor);
  const bool held = errno == EWOULDBLOCK;
  ::close(descriptor);
  if (held) return std::nullopt;
  return BookLock(-1);
}

BookLock::~BookLock() {
  if (m_descriptor >= 0) ::close(m_descriptor);
}

} // namespace muffle
