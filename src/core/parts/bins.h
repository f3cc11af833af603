// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"
#include "core/ratiofinder/finder.h"

namespace gantry::parts {

/// Wheels that can be bought without asking.
enum class Stock { GearsHalf, GearsOne, Pulleys2, Pulleys3, Pulleys5 };

/// A bin of stock sizes, as many of each as a train could use.
ratiofinder::Bin stockBin(Stock stock);

/// Gears and pulleys of a shelf: gears of one module and pulleys of one pitch and tooth shape fit each other.
ratiofinder::Bin shelfBin(std::span<const Part> shelf);

/// A stage of a found train as a link, with the efficiency and play of its family.
Link linkOf(const ratiofinder::Bin& bin, const ratiofinder::Stage& stage);

} // namespace gantry::parts
