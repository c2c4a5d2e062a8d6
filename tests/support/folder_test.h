// SPDX-License-Identifier: GPL-3.0-or-later
//
// A test with a folder of its own, which goes with it.
#pragma once

#include "book/files.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <optional>
#include <string>

namespace muffle::testing {

class FolderTest : public ::testing::Test {
protected:
  void SetUp() override {
    auto made = TemporaryFolder::in(std::filesystem::temp_directory_path().string());
    ASSERT_TRUE(made) << english(made.problem());
    m_dir = made->path();
    m_folder.emplace(std::move(*made));
  }
  [[nodiscard]] std::string at(const std::string& name) const { return (m_dir / name).string(); }
  std::filesystem::path m_dir;

private:
  std::optional<TemporaryFolder> m_folder;
};

} // namespace muffle::testing
