// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::units {

/// Standard acceleration of gravity [m/s²], exact by definition (ISO 80000-3).
inline constexpr double standardGravity = 9.80665;

/// One degree [rad].
inline constexpr double degree = 0.017453292519943295;

} // namespace gantry::units
