// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "core/tools/chain_table.h"

namespace gantry::app {

/// What a page of the editor lists besides its fields, so that elements can be added and removed.
enum class PageList { None, Items, Marks };

/// One page of the editor for a part.
struct FieldPage {
    QString title;
    QList<FieldSlot> fields;
    PageList list = PageList::None;
};

/// The pages that the editor shows for one part of the chain of the chosen axis. Together the parts reach
/// every field of the axis' drive.
QList<FieldPage> pagesOfPart(const Context& context, const ChainColumn& column);

} // namespace gantry::app
