// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/json/fields.h"

template class nlohmann::basic_json<nlohmann::ordered_map>;
