// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"
#include "io/parts/parts_csv.h"
#include "support/files.h"

/// What the program ships as a library of parts.
inline const std::vector<gantry::parts::Part>& shippedParts() {
    static const std::vector<gantry::parts::Part> parts = [] {
        const std::string text = textOfFile(dataPath("parts/library.csv"));
        return gantry::io::readParts(text, gantry::io::suggestedColumns(gantry::io::csvHeader(text))).parts;
    }();
    return parts;
}

/// That library to choose fixes from, with nothing on the shelf.
inline gantry::parts::Sources stockInShops() {
    return {shippedParts(), {}};
}
