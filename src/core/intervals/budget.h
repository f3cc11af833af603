// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <span>
#include <vector>

/// What has to fit between two pictures. Times in s, ≥ 0.
namespace gantry::intervals {

/// What a camera takes for one picture, in this order.
struct CameraTimes {
    double focus = 0.0; ///< to wake and to focus
    double lag = 0.0;   ///< from the trigger to the open shutter
    double exposure = 0.0;
    double write = 0.0; ///< until it takes the next trigger

    double toClosed() const { return focus + lag + exposure; }
    double toReady() const { return toClosed() + write; }
};

enum class Order { MoveFirst, PictureFirst };

struct Budget {
    Order order = Order::MoveFirst;
    double move = 0.0;             ///< until every axis has come to its place
    double settle = 0.0;           ///< … and is still enough; nothing where nothing moves
    double spare = 0.0;            ///< that is wanted besides
    bool writesWhileMoving = true; ///< the rig may move as soon as the last shutter has closed
};

/// From and to, in one interval.
struct Window {
    double from = 0.0, to = 0.0;
    double length() const { return to - from; }
};

enum class Binds { Rig, Camera };

struct BudgetResults {
    double rig = 0.0;    ///< that moving, settling and what waits for it take
    double camera = 0.0; ///< that the slowest camera takes by itself
    double least = 0.0;  ///< interval, with what is wanted to spare
    Binds binds = Binds::Rig;
    std::size_t slowest = 0;               ///< index of the camera that decides
    Window move, settle;                   ///< both empty where nothing moves
    std::vector<Window> exposures, writes; ///< one for each camera; all are triggered together
};

/// What one interval needs, whichever comes first in it: the order only shifts the picture within the
/// interval. Every camera has closed before the rig moves, and the rig is still before the first is woken.
/// @param cameras one at least
BudgetResults budgetOf(const Budget& budget, std::span<const CameraTimes> cameras);

/// A shutter held open by hand or by a timer: it opens `openLag` after the press and closes `closeLag` after
/// the release.
struct Bulb {
    double openLag = 0.0, closeLag = 0.0;
    double leastPress = 0.0; ///< that the camera notices
    double leastGap = 0.0;   ///< between two presses
};

double pressFor(const Bulb& bulb, double exposure); ///< may be shorter than leastPress, or negative
double exposureFor(const Bulb& bulb, double press); ///< the other way round
double shortestExposure(const Bulb& bulb);          ///< by the least press; not below 0
double longestExposure(const Bulb& bulb, double interval);

} // namespace gantry::intervals
