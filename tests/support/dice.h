// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/place.h"

#include <random>

/// Numbers and places drawn at random, the same in every run.
class Dice {
protected:
    explicit Dice(std::uint32_t seed) : random_(seed) {}
    double within(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random_);
    }
    gantry::geometry::Place place(double size) {
        return {within(-size, size), within(-size, size), within(-size, size)};
    }

    std::mt19937 random_;
};
