// SPDX-License-Identifier: GPL-3.0-or-later
//
// Reading and writing whole files. A written file appears whole or not at all, and what is written beside it until then has a name that
// nobody else's can have and goes away on every failure.
#pragma once

#include "core/status.h"

#include <string>
#include <string_view>

namespace muffle {

/// To its end. Problem if the file is missing, a folder, or larger than 2 GiB; of a pipe or a device at most 256 MiB are read.
Result<std::string> readFile(const std::string& path);

/// Ordinary files are written beside the target, synced and renamed: through a link to what it leads to, with the mode and owner of the
/// file they replace. Anything else, such as a pipe or /dev/stdout, is written to as the stream it is.
Status writeFile(const std::string& path, std::string_view bytes);

/// Renames a whole file to a name that is not taken; where somebody has taken it meanwhile, theirs stays and it is no problem.
Status putInPlace(const std::string& made, const std::string& path);

/// A folder of its own beside `target`, on the same file system, so that what is made in it can be renamed into place. Goes with all
/// that is left in it.
class TemporaryFolder {
public:
  static Result<TemporaryFolder> beside(const std::string& target);
  /// Within a folder that is there.
  static Result<TemporaryFolder> in(const std::string& folder);
  TemporaryFolder(TemporaryFolder&& other) noexcept : m_path(std::move(other.m_path)) { other.m_path.clear(); }
  TemporaryFolder& operator=(TemporaryFolder&&) = delete;
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;
  ~TemporaryFolder();
  [[nodiscard]] const std::string& path() const { return m_path; }
  /// Renamed into place: nothing is left to remove.
  void release() { m_path.clear(); }

private:
  explicit TemporaryFolder(std::string path) : m_path(std::move(path)) {}
  std::string m_path;
};

} // namespace muffle
