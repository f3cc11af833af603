// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"
#include "io/parts/library.h"

/// What the program ships as a library of parts.
inline const std::vector<gantry::parts::Part>& shippedParts() {
    return gantry::io::partsLibrary();
}

/// That library to choose fixes from, with nothing on the shelf.
inline gantry::parts::Sources stockInShops() {
    return {shippedParts(), {}};
}
