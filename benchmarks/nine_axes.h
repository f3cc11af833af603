// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/edit_axes.h"
#include "core/model/edit_moves.h"
#include "support.h"

/// The jib with more axes on top, until there are nine, and a move through twenty poses, most of them passed.
inline gantry::Project nineAxes() {
    using namespace gantry;
    Project p = demo(GANTRY_DATA "/demo/kettle-jib.gantry");
    p.moves.clear();
    while (p.axes.size() < 9) copyAxis(p, static_cast<int>(p.axes.size()) - 1);
    addMove(p);
    for (int i = 0; i < 20; ++i) {
        std::vector<double> places;
        for (std::size_t a = 0; a < p.axes.size(); ++a)
            places.push_back((0.3 + 0.02 * ((i * 7 + static_cast<int>(a) * 5) % 20)) *
                             usableTravel(p.axes[a]));
        storePose(p, 0, i - 1, places);
        p.moves[0].poses.back().arrive.time = 20.0;
        p.moves[0].poses.back().passes = i % 4 != 0;
    }
    return p;
}
