// SPDX-License-Identifier: GPL-3.0-or-later
//
// Whether core is linked as it is built for the sanitizers, at a twentieth of its speed: tests that try many houses then try fewer.
#pragma once

extern "C" void __asan_init() __attribute__((weak));

namespace muffle::testing {

inline bool isSanitized() { return &__asan_init != nullptr; }

} // namespace muffle::testing
