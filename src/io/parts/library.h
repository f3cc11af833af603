// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"

#include <vector>

namespace gantry::io {

/// The library of parts that the program ships (data/parts/library.csv), read once.
const std::vector<parts::Part>& partsLibrary();

} // namespace gantry::io
