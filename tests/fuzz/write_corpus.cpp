// SPDX-License-Identifier: GPL-3.0-or-later
//
// write_corpus DIR: the first lines of each logger's file, for the fuzzer to begin from. The corpus is made, not kept.
#include "tests/support/logger_files.h"

#include <filesystem>
#include <fstream>

int main(int argc, char** argv) {
  if (argc != 2) return 2;
  std::filesystem::create_directories(argv[1]);
  constexpr std::size_t kHead = 700;
  for (const auto& file : muffle::loggerFiles()) std::ofstream(std::string(argv[1]) + "/" + file.name) << file.text.substr(0, kHead);
  std::ofstream(std::string(argv[1]) + "/ByHand") << "17.1.2031\n7:10 -4 / 2.5\n18/1 min -6 / 1.2 wet\n2031-01-19 6:00 pm 3,5/8\n";
  return 0;
}
