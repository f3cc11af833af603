// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <iosfwd>
#include <string>

namespace gantry::cli {

/// What the window's tools say, as tables with tabs: a head line, then a line a row. Each returns the exit
/// code; 2 where the axis is not there or not of the kind.
struct ClaimsCall {
    std::string axis; ///< empty: every axis that was told something
    std::string told; ///< one claim to hold against the parts in place of what the project has
};
/// What was told of the drives against the parts. 1: something cannot be.
int claims(const ClaimsCall& call, const Project& project, std::ostream& out, std::ostream& err);

struct WinchCall {
    std::string axis;
};
/// Speed and steps along the travel of a winch, layer by layer.
int winch(const WinchCall& call, const Project& project, std::ostream& out, std::ostream& err);

struct PanBarCall {
    std::string axis;
    double turn = 0.0; ///< [rad] that the camera shall turn over the travel
};
/// The angle of the bar for a wanted turn. 1: no bar does that with its arm.
int panBar(const PanBarCall& call, const Project& project, std::ostream& out, std::ostream& err);

struct SectionsCall {
    std::string axis;
    std::string shelf; ///< table of parts on hand; empty: none
};
/// Other sections over the same span with the same load.
int sections(const SectionsCall& call, const Project& project, std::ostream& out, std::ostream& err);

struct CompletenessCall {};
/// What the rig needs beside its drives. 1: something is missing.
int completeness(const CompletenessCall& call, const Project& project, std::ostream& out, std::ostream& err);

struct StaleCall {};
/// Tests and whether they still hold. 1: one does not.
int stale(const StaleCall& call, const Project& project, std::ostream& out, std::ostream& err);

} // namespace gantry::cli
