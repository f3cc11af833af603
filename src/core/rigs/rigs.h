// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <span>
#include <string_view>

namespace gantry::rigs {

/// The kinds of rig that a project can start from. Each lays a complete project: every axis with a motor, a
/// drive, a load and a shot that moves it, so that it evaluates without a verdict of missing data. A kind is
/// added here and by one builder in rigs.cpp.
enum class RigKind {
    BeltSlider,
    ScrewSlider,
    WinchedCart,
    WheelDolly,
    LiftColumn,
    PanTiltHead,
    OrbitBoom,
    JibCrane,
    StopMotionStage,
    SubjectTurntable,
    MultiAxis,
    WhatIHave,
    Empty
};

struct RigInfo {
    RigKind kind;
    std::string_view key;      ///< "belt-slider"
    std::string_view name;     ///< "Belt slider"
    std::string_view sentence; ///< what it is for, in one line
};

std::span<const RigInfo> all();

Project make(RigKind kind);

} // namespace gantry::rigs
