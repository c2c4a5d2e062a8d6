// SPDX-License-Identifier: GPL-3.0-or-later
#include "book/files.h"

#include <fmt/format.h>

#include <algorithm>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <stdlib.h>
#include <sys/stat.h>
#include <unistd.h>

namespace muffle {
namespace {

constexpr std::uintmax_t kMostBytes = 2ULL << 30;
constexpr std::uintmax_t kMostOfStream = 256ULL << 20; // of a pipe or device, which may never end

Problem storageProblem(const std::string& path, Message what) {
  return {ProblemKind::storage, path, std::move(what), Message{"book.check-name-folder-permissions"}};
}

} // namespace

Result<std::string> readFile(const std::string& path) {
  const int file = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
  if (file < 0) return storageProblem(path, Message{"book.cannot-read", std::strerror(errno)});
  struct stat about = {};
  std::string bytes;
  const bool isFile = ::fstat(file, &about) == 0 && S_ISREG(about.st_mode);
  const std::uintmax_t most = isFile ? kMostBytes : kMostOfStream;
  if (isFile) bytes.reserve(std::min(static_cast<std::uintmax_t>(about.st_size), most) + 1);
  constexpr std::size_t kChunk = 1U << 20;
  for (std::size_t got = 0;;) { // until its end, and not until the size it had: a pipe has none
    bytes.resize(std::max(bytes.capacity(), got + kChunk));
    const auto n = ::read(file, bytes.data() + got, bytes.size() - got);
    const int why = errno;
    if (n < 0 && why == EINTR) continue;
    if (n > 0) got += static_cast<std::size_t>(n);
    bytes.resize(got);
    if (n > 0 && got <= most) continue;
    ::close(file);
    if (n < 0) return storageProblem(path, why == EISDIR ? Message{"book.folder"} : Message{"book.cannot-read", std::strerror(why)});
    if (got > most) return Problem{ProblemKind::badInput, path, Message{"book.more-than-bytes", most}, Message{"book.bytes-at-most"}};
    return bytes;
  }
}

namespace {

/// Closes what it opened.
class OpenFile {
public:
  explicit OpenFile(int file) : m_file(file) {}
  ~OpenFile() {
    if (m_file >= 0) ::close(m_file);
  }
  OpenFile(const OpenFile&) = delete;
  OpenFile& operator=(const OpenFile&) = delete;
  [[nodiscard]] bool isOpen() const { return m_file >= 0; }
  [[nodiscard]] int number() const { return m_file; }
  bool write(std::string_view bytes) {
    while (!bytes.empty()) {
      const auto n = ::write(m_file, bytes.data(), bytes.size());
      if (n < 0 && errno == EINTR) continue;
      if (n <= 0) return false;
      bytes.remove_prefix(static_cast<std::size_t>(n));
    }
    return true;
  }
  bool close() {
    const int file = m_file;
    m_file = -1;
    return ::close(file) == 0;
  }

private:
  int m_file;
};

Problem notWritten(const std::string& path, int why) { return storageProblem(path, Message{"book.cannot-written", std::strerror(why)}); }

/// Where a chain of links leads to, whether there is a file or not yet.
Result<std::filesystem::path> behindLinks(const std::string& path) {
  constexpr int kMostLinks = 40;
  std::filesystem::path at = path;
  for (int i = 0; i < kMostLinks; ++i) {
    std::error_code error;
    if (!std::filesystem::is_symlink(at, error)) return at;
    const auto leads = std::filesystem::read_symlink(at, error);
    if (error) return notWritten(path, error.value());
    at = leads.is_absolute() ? leads : at.parent_path() / leads;
  }
  return notWritten(path, ELOOP);
}

std::string folderOf(const std::filesystem::path& path) { return path.has_parent_path() ? path.parent_path().string() : std::string("."); }

Status writeStream(const std::string& path, std::string_view bytes) {
  OpenFile file(::open(path.c_str(), O_WRONLY | O_CLOEXEC));
  if (!file.isOpen() || !file.write(bytes)) return notWritten(path, errno);
  if (!file.close()) return notWritten(path, errno);
  return Done{};
}

} // namespace

Status writeFile(const std::string& path, std::string_view bytes) {
  const auto target = behindLinks(path);
  if (!target) return target.problems();
  struct stat now {};
  const bool exists = ::stat(target->c_str(), &now) == 0;
  if (!exists && errno != ENOENT) return notWritten(path, errno);
  if (exists && S_ISDIR(now.st_mode)) return storageProblem(path, Message{"book.folder"});
  if (exists && !S_ISREG(now.st_mode)) return writeStream(target->string(), bytes);
  if (exists && ::access(target->c_str(), W_OK) != 0) return notWritten(path, errno); // a file that is not to be written to is not to be replaced
  std::string part = folderOf(*target) + "/.muffle-XXXXXX";
  OpenFile file(::mkostemp(part.data(), O_CLOEXEC));
  if (!file.isOpen()) return notWritten(path, errno);
  const auto fail = [&] {
    const int why = errno;
    ::unlink(part.c_str());
    return notWritten(path, why);
  };
  const mode_t mask = ::umask(0);
  ::umask(mask);
  if (::fchmod(file.number(), exists ? now.st_mode & 07777U : 0666U & ~mask) != 0) return fail();
  if (exists && ::fchown(file.number(), now.st_uid, now.st_gid) != 0 && errno != EPERM) return fail();
  if (!file.write(bytes) || ::fsync(file.number()) != 0) return fail();
  if (!file.close()) return fail();
  if (::rename(part.c_str(), target->c_str()) != 0) return fail();
  if (const OpenFile folder(::open(folderOf(*target).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC)); folder.isOpen())
    ::fsync(folder.number()); // the new name too
  return Done{};
}

Status putInPlace(const std::string& made, const std::string& path) {
  if (::renameat2(AT_FDCWD, made.c_str(), AT_FDCWD, path.c_str(), RENAME_NOREPLACE) == 0 || errno == EEXIST) return Done{};
  // not every file system can tell whether the name is taken
  if (errno == EINVAL && ::access(path.c_str(), F_OK) != 0 && ::rename(made.c_str(), path.c_str()) == 0) return Done{};
  return notWritten(path, errno);
}

Result<TemporaryFolder> TemporaryFolder::in(const std::string& folder) {
  std::string path = folder + "/.muffle-XXXXXX";
  if (!::mkdtemp(path.data())) return notWritten(folder, errno);
  return TemporaryFolder(std::move(path));
}

Result<TemporaryFolder> TemporaryFolder::beside(const std::string& target) {
  auto made = in(folderOf(target));
  if (made) return made;
  Problem problem = made.problem();
  problem.where = target; // it is this that cannot be written
  return problem;
}

TemporaryFolder::~TemporaryFolder() {
  std::error_code error;
  if (!m_path.empty()) std::filesystem::remove_all(m_path, error);
}

} // namespace muffle
