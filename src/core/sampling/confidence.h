// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <cstdint>
#include <span>
#include <stop_token>
#include <string>
#include <vector>

namespace gantry::sampling {

/// One rig that lies within the tolerances.
struct Row {
    double margin = 0.0; ///< [1] torque, the least of all shots
    double limits = 0.0; ///< [1] what motor, pulses, parts, grip and cord allow over what is asked, the least
    double rocking = 1e6;      ///< [1] jitter limit over what rocks after the stop, the least
    std::vector<float> inputs; ///< [1] of each input's tolerance, off its nominal
};

/// Names of the inputs as their fields' paths, in the order of Row::inputs.
std::vector<std::string> inputsOf(const Project& project, std::size_t axis);

/// Rows first … first + count − 1. Inputs are drawn from normal distributions whose two standard deviations
/// are the tolerance, cut at three and at what its field takes (shares at 1); ratings stay. Each row seeds
/// its own generator from `seed` and its index, so that any split over threads gives the same rows. Stopped:
/// the rows so far.
std::vector<Row> sampleAxis(const Project& project, std::size_t axis, std::uint64_t seed, int first,
                            int count, std::stop_token stop = {});

struct Influence {
    std::string path;
    Estimate input;
    double share = 0.0; ///< [1] of the variance of the margin, by squared rank correlation; shares add to 1
};
struct Confidence {
    int samples = 0;
    double stalls = 0.0;               ///< [1] of them: needs more torque than there is
    double exceeds = 0.0;              ///< [1]: asks more than motor, pulses, parts, grip or cord give
    double rocks = 0.0;                ///< [1]: shows more than the jitter limit after the stop
    std::vector<Influence> influences; ///< largest first
};

/// Rows in index order.
Confidence confidenceOf(const Project& project, std::size_t axis, std::span<const Row> rows);

} // namespace gantry::sampling
