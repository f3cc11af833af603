// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig_setup.h"
#include "core/optics/lens_ring.h"

#include <optional>
#include <vector>

namespace gantry {

/// The axis that turns a focus ring whose scale can be relied on.
struct FocusAxis {
    std::size_t axis = 0; ///< index in Project::axes
    optics::FocusRing ring;

    friend bool operator==(const FocusAxis&, const FocusAxis&) = default;
};
/// Nothing where a rig has none, or its marks tell no scale.
std::optional<FocusAxis> focusAxisOf(std::span<const Axis> axes);

/// The axis that turns a zoom ring whose scale can be relied on.
struct ZoomAxis {
    std::size_t axis = 0; ///< index in Project::axes
    std::vector<optics::ZoomMark> marks;
    optics::ZoomRing ring;

    friend bool operator==(const ZoomAxis&, const ZoomAxis&) = default;
};
/// Nothing where a rig has none, or its marks tell no scale.
std::optional<ZoomAxis> zoomAxisOf(std::span<const Axis> axes);

/// Distance [m] from the lens' entrance pupil back to the sensor, from where lenses count: the sensor is
/// taken to lie 20 mm behind the front of the camera's body, as it does in most.
double pupilToSensor(const Head& head);

} // namespace gantry
