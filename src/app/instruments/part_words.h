// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/chain_table.h"

#include <QString>

namespace gantry::app {

/// Name of a part of the chosen axis' drive, and what it is in a few figures: for the chain, the table and
/// screen readers.
QString partName(const Context& context, const ChainColumn& column);
QString partDetail(const Context& context, const ChainColumn& column);

/// What the parts' own checks found, for the head of the editor: "centre distance 41.2 mm · 11 teeth in
/// mesh".
QString partFindings(const Context& context, const ChainColumn& column);

/// One line about an axis' drive: "20T belt", "5:1".
QString driveInShort(const Context& context, const Axis& axis, const AxisEvaluation& evaluation);

} // namespace gantry::app
