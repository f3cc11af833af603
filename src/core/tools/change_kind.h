// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/link_parts.h"

#include <cstddef>

namespace gantry {

/// A link of the kind at `kind` of kindsOf<Link>() that keeps what the old one was for: its id, its ratio
/// wherever whole teeth or turns of the new kind give exactly that (else the new kind's own), and pitch,
/// teeth and rated torque where both kinds have them. Losses, play and springs are those usual for the new
/// kind, for the old one's say nothing about it.
Link changedKind(const Link& old, std::size_t kind);

} // namespace gantry
