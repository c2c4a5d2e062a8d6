// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/files.h"

#include <fmt/format.h>

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <unistd.h>

namespace muffle {
namespace {

constexpr std::uintmax_t kMostBytes = 2ULL << 30;

Problem storageProblem(const std::string& path, const std::string& what) {
  return {ProblemKind::storage, path, what, "check the name, the folder and its permissions"};
}

} // namespace

Result<std::string> readFile(const std::string& path) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error)) return storageProblem(path, "this is a folder");
  const auto size = std::filesystem::file_size(path, error);
  if (error) return storageProblem(path, fmt::format("cannot be read: {}", error.message()));
  if (size > kMostBytes) return Problem{ProblemKind::badInput, path, fmt::format("the file has {} bytes", size), "at most 2 GiB are read"};
  const int file = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
  if (file < 0) return storageProblem(path, fmt::format("cannot be read: {}", std::strerror(errno)));
  std::string bytes(size, '\0');
  std::size_t got = 0;
  while (got < bytes.size()) {
    const auto n = ::read(file, bytes.data() + got, bytes.size() - got);
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0) break;
    got += static_cast<std::size_t>(n);
  }
  ::close(file);
  bytes.resize(got);
  return bytes;
}

Status writeFile(const std::string& path, std::string_view bytes) {
  const std::string part = path + ".part" + std::to_string(::getpid());
  const int file = ::open(part.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
  if (file < 0) return storageProblem(path, fmt::format("cannot be written: {}", std::strerror(errno)));
  std::size_t done = 0;
  bool ok = true;
  while (ok && done < bytes.size()) {
    const auto n = ::write(file, bytes.data() + done, bytes.size() - done);
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0)
      ok = false;
    else
      done += static_cast<std::size_t>(n);
  }
  ok = ok && ::fsync(file) == 0;
  ok = ::close(file) == 0 && ok;
  ok = ok && ::rename(part.c_str(), path.c_str()) == 0;
  if (!ok) {
    const std::string why = std::strerror(errno);
    ::unlink(part.c_str());
    return storageProblem(path, "cannot be written: " + why);
  }
  return Done{};
}

} // namespace muffle
