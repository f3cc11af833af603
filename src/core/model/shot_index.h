// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cassert>
#include <cstddef>

namespace gantry {

/// Place of a shot in Project::shots; none by default. Its place among the shots of one axis is another
/// number, of another type, so that the two cannot be mixed up.
class ShotIndex {
public:
    constexpr ShotIndex() = default;
    constexpr explicit ShotIndex(std::size_t place) : place_(static_cast<int>(place)) {}

    constexpr explicit operator bool() const { return place_ >= 0; }
    constexpr std::size_t at() const {
        assert(place_ >= 0);
        return static_cast<std::size_t>(place_);
    }
    /// For lists that show it; −1 for none.
    constexpr int row() const { return place_; }

    friend constexpr bool operator==(ShotIndex, ShotIndex) = default;

private:
    int place_ = -1;
};

} // namespace gantry
