// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "core/evaluate/chain_table.h"

namespace gantry::app {

/// The fields that the editor shows for one part of the chain of the chosen axis.
QList<FieldSlot> fieldsOfPart(const Context& context, const ChainColumn& column);

} // namespace gantry::app
