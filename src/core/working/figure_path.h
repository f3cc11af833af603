// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/tools/chain_table.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace gantry::working {

/// A figure of an evaluation and where it stands.
struct PlacedFigure {
    std::string path; ///< "axes/slide/shots/pass/torque_needed_Nm": keys as in evaluate --json, ids for lists
    std::string key;  ///< the last of it
    FigureInfo info;
    Figure figure;
    int axis = -1;                        ///< index in Project::axes; −1: of the whole rig
    const ShotEvaluation* shot = nullptr; ///< within the evaluation; null: not of a shot
    bool linear = true;
    std::optional<ChainPart> part; ///< of a cell of the drive-train table …
    std::size_t stages = 0;        ///< … and how many stages of the chain lie before it

    units::Kind kind() const { return info.kindFor(linear); }
};

/// How a column of the drive-train table is called in a path: "motor", a link by its id.
std::string_view chainPartKey(const Axis& axis, const ChainColumn& column);

/// Every figure, in the order in which evaluate prints them; behind each shot its drive-train table, as
/// "axes/slide/shots/pass/chain/motor/needed" with links by their ids.
std::vector<PlacedFigure> allFigures(const Project& project, const Evaluation& evaluation);

/// The figure at a path; nothing if there is none. Either of a figure's two keys serves.
std::optional<PlacedFigure> figureAt(const Project& project, const Evaluation& evaluation,
                                     std::string_view path);

/// The figure of one axis alone, as it is computed again with other inputs.
std::optional<PlacedFigure> figureAt(const Project& project, std::size_t axis,
                                     const AxisEvaluation& evaluation, std::string_view path);

} // namespace gantry::working
