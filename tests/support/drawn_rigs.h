// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/acceptable.h"
#include "core/model/fields.h"
#include "core/rigs/rigs.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace drawn_rigs {

using namespace gantry;

/// A rig to start from with some of its inputs made up to two and a half times as large or as small.
inline Project variation(std::mt19937& random) {
    const auto below = [&](std::size_t n) {
        return std::uniform_int_distribution<std::size_t>(0, n - 1)(random);
    };
    const auto& kinds = rigs::all();
    for (;;) {
        Project p = rigs::make(kinds[below(kinds.size())].kind);
        if (p.axes.empty()) continue;
        for (int changed = 0; changed < 6;) {
            std::vector<FieldRef> fields = allFields(p);
            FieldRef& f = fields[below(fields.size())];
            const double factor = std::exp(std::uniform_real_distribution<double>(-0.9, 0.9)(random));
            const auto scaled = [&](double v) {
                return std::clamp(v * factor, std::min(f.info.min, v), std::max(f.info.max, v));
            };
            if (auto* number = std::get_if<double*>(&f.target); number != nullptr && **number != 0.0) {
                **number = scaled(**number);
                ++changed;
            } else if (auto* e = std::get_if<Estimate*>(&f.target); e != nullptr && (*e)->value != 0.0) {
                (*e)->value = scaled((*e)->value);
                ++changed;
            }
        }
        if (inconsistencies(p).empty() && objectionTo(p).empty()) return p;
    }
}

} // namespace drawn_rigs
