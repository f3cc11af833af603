// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/parts/library.h"

#include "io/parts/library_text.h"
#include "io/parts/parts_csv.h"

namespace gantry::io {

const std::vector<parts::Part>& partsLibrary() {
    static const std::vector<parts::Part> library =
        readParts(libraryText, suggestedColumns(csvHeader(libraryText))).parts;
    return library;
}

} // namespace gantry::io
