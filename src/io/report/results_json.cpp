// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/results_json.h"

namespace gantry::io {

void putNone(Json& j, const std::string& key, std::string_view why) {
    j[key] = nullptr;
    j[key + "_why"] = why;
}

void put(Json& j, const std::string& key, const Figure& f, double unit) {
    if (f)
        j[key] = f.value() / unit;
    else
        putNone(j, key, words::reasonText(f.reason()));
}

} // namespace gantry::io
