// SPDX-License-Identifier: GPL-3.0-or-later
//
// A disk that fails, put under a program by LD_PRELOAD: of the calls that change files under a folder, the Nth fails, once or from then on.
//   FAILING_UNDER=/folder  FAILING_AT=N (0: none)  FAILING_ON=1 (from then on)  FAILING_COUNT=/elsewhere/file (how many there were, at the end)
// Every second failing write is cut short before it fails, as on a disk that fills up.
#ifndef _GNU_SOURCE
#define _GNU_SOURCE
#endif
#include <cerrno>
#include <cstdarg>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <dlfcn.h>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace {

constexpr int kMostFiles = 4096;
bool underFolder[kMostFiles];
long calls = 0;

template <class F> F real(const char* name) { return reinterpret_cast<F>(dlsym(RTLD_NEXT, name)); }

bool isUnder(const char* path) {
  const char* folder = std::getenv("FAILING_UNDER");
  return folder && path && std::strncmp(path, folder, std::strlen(folder)) == 0;
}
bool isUnder(int file) { return file >= 0 && file < kMostFiles && underFolder[file]; }

/// Counts a call; true if this one fails.
bool fails() {
  const char* at = std::getenv("FAILING_AT");
  const long n = at ? std::atol(at) : 0;
  ++calls;
  if (n <= 0) return false;
  const bool fail = std::getenv("FAILING_ON") ? calls >= n : calls == n;
  if (fail) errno = n % 2 == 0 ? ENOSPC : EIO;
  return fail;
}

struct AtEnd {
  ~AtEnd() {
    const char* path = std::getenv("FAILING_COUNT");
    if (!path) return;
    if (std::FILE* f = std::fopen(path, "w")) {
      std::fprintf(f, "%ld\n", calls);
      std::fclose(f);
    }
  }
} atEnd;

int opened(int file, const char* path) {
  if (file >= 0 && file < kMostFiles) underFolder[file] = isUnder(path);
  return file;
}

} // namespace

extern "C" {

int open(const char* path, int flags, ...) {
  va_list more;
  va_start(more, flags);
  const auto mode = static_cast<mode_t>((flags & (O_CREAT | O_TMPFILE)) ? va_arg(more, int) : 0);
  va_end(more);
  if (isUnder(path) && (flags & O_ACCMODE) != O_RDONLY && fails()) return -1;
  return opened(real<int (*)(const char*, int, ...)>("open")(path, flags, mode), path);
}
int open64(const char* path, int flags, ...) {
  va_list more;
  va_start(more, flags);
  const auto mode = static_cast<mode_t>((flags & (O_CREAT | O_TMPFILE)) ? va_arg(more, int) : 0);
  va_end(more);
  return open(path, flags, mode);
}
int close(int file) {
  if (file >= 0 && file < kMostFiles) underFolder[file] = false;
  return real<int (*)(int)>("close")(file);
}
ssize_t write(int file, const void* bytes, size_t size) {
  const auto really = real<ssize_t (*)(int, const void*, size_t)>("write");
  if (isUnder(file) && fails()) return calls % 2 == 0 && size > 1 ? really(file, bytes, size / 2) : -1;
  return really(file, bytes, size);
}
ssize_t pwrite64(int file, const void* bytes, size_t size, off64_t at) {
  const auto really = real<ssize_t (*)(int, const void*, size_t, off64_t)>("pwrite64");
  if (isUnder(file) && fails()) return calls % 2 == 0 && size > 1 ? really(file, bytes, size / 2, at) : -1;
  return really(file, bytes, size, at);
}
ssize_t pwrite(int file, const void* bytes, size_t size, off_t at) { return pwrite64(file, bytes, size, at); }
int fsync(int file) { return isUnder(file) && fails() ? -1 : real<int (*)(int)>("fsync")(file); }
int fdatasync(int file) { return isUnder(file) && fails() ? -1 : real<int (*)(int)>("fdatasync")(file); }
int ftruncate64(int file, off64_t size) { return isUnder(file) && fails() ? -1 : real<int (*)(int, off64_t)>("ftruncate64")(file, size); }
int ftruncate(int file, off_t size) { return ftruncate64(file, size); }
int rename(const char* from, const char* to) {
  return (isUnder(from) || isUnder(to)) && fails() ? -1 : real<int (*)(const char*, const char*)>("rename")(from, to);
}
int renameat2(int fromFolder, const char* from, int toFolder, const char* to, unsigned flags) {
  return (isUnder(from) || isUnder(to)) && fails()
             ? -1
             : real<int (*)(int, const char*, int, const char*, unsigned)>("renameat2")(fromFolder, from, toFolder, to, flags);
}
int mkdir(const char* path, mode_t mode) { return isUnder(path) && fails() ? -1 : real<int (*)(const char*, mode_t)>("mkdir")(path, mode); }
char* mkdtemp(char* pattern) { return isUnder(pattern) && fails() ? nullptr : real<char* (*)(char*)>("mkdtemp")(pattern); }
int mkstemp(char* pattern) {
  if (isUnder(pattern) && fails()) return -1;
  return opened(real<int (*)(char*)>("mkstemp")(pattern), pattern);
}
int mkostemp(char* pattern, int flags) {
  if (isUnder(pattern) && fails()) return -1;
  return opened(real<int (*)(char*, int)>("mkostemp")(pattern, flags), pattern);
}

} // extern "C"
