// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <string>

namespace gantry {

/// How a shot is taken. Live and Creep run while the camera records; in Interval and StopMotion shots the rig
/// moves one step between two pictures; RepeatPass is a live shot taken several times over each other.
enum class ShotKind { Live, Creep, Interval, StopMotion, RepeatPass };

/// What the builder has seen to. Ticks, not judgements: what the rig needs is found from the project.
struct Equipment {
    bool endStops = false;      ///< switches at both ends of every travel that can run into something
    bool hardBlocks = false;    ///< blocks that stop it when the switch fails
    bool homing = false;        ///< a place from which each axis counts
    bool cablePath = false;     ///< cables led so that nothing snags over the whole travel
    bool slipRing = false;      ///< for axes that turn more than once
    bool tieDown = false;       ///< a way to tie the boom or the carriage when nobody holds it
    bool catchStrap = false;    ///< catches the camera when a clamp lets go
    bool emergencyStop = false; ///< a button within reach that was tried
    bool spareParts = false;    ///< belt, cord, fuse and driver in the case

    friend bool operator==(const Equipment&, const Equipment&) = default;
};

/// What a test in the workshop found, with the state of the rig it was made with.
struct TestRecord {
    std::string id;
    std::string date; ///< as written: "2026-05-14"
    std::string path; ///< of the field that it gave, or empty
    std::string note;
    double value = 0.0;      ///< in SI, of the field's kind
    std::string fingerprint; ///< what the result depends on, as it was then; see evaluate/stale.h

    friend bool operator==(const TestRecord&, const TestRecord&) = default;
};

/// Something that is to come later, so that what it changes can be seen now.
struct LaterAxis {
    std::string id;
    std::string name = "Later";
    Estimate mass = estimate(0.5, Source::Guess); ///< [kg] that it puts on the camera's end

    friend bool operator==(const LaterAxis&, const LaterAxis&) = default;
};

} // namespace gantry
