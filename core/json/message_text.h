// SPDX-License-Identifier: GPL-3.0-or-later
//
// A message as text that a book or an export can keep: JSON, ["code", argument, ...]. A whole number stands as it is, an amount as
// {"value", "unit", "digits"}, a name in quotes, messages as {"messages": [...]}. Text of another shape, such as what older books hold,
// is read as words somebody else said.
#pragma once

#include "core/message.h"

#include <string>
#include <string_view>

namespace muffle {

std::string storedText(const Message& message);
Message messageFromStored(std::string_view text);

} // namespace muffle
