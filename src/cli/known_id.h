// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <ostream>
#include <string>
#include <string_view>

namespace gantry::cli {

/// Whether a list has a part with this id, or none is named; a sentence on err if not.
template <class List>
bool knownId(const List& list, const std::string& id, std::string_view what, std::ostream& err) {
    if (id.empty() || std::any_of(list.begin(), list.end(), [&](const auto& x) { return x.id == id; }))
        return true;
    err << "There is no " << what << " “" << id << "” in this project.\n";
    return false;
}

} // namespace gantry::cli
