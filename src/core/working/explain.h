// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/working/influence.h"
#include "core/working/verdict_working.h"

#include <span>
#include <string>
#include <variant>

namespace gantry::working {

/// What somebody asked to be explained.
struct Explanation {
    PlacedFigure figure; ///< of a verdict the figure that it judges
    Working working;
};

/// Why there is none.
enum class Unexplained {
    NoSuch,    ///< no figure and no verdict of that path
    NoNumber,  ///< the figure has no number, see its reason
    NoWorking, ///< its working is not written down
};
using Explained = std::variant<Explanation, Unexplained>;

/// The working at a path: of a figure ("axes/slide/shots/pass/torque_needed_Nm", see figure_path.h) or of a
/// verdict's ratio ("verdicts/slide/jitter"; where that is more than a limit over a figure, of the figure).
Explained explain(const Project& project, const Evaluation& evaluation, std::span<const Verdict> verdicts,
                  std::string_view path);

/// The path of a verdict for explain().
std::string pathOf(const Project& project, const Verdict& verdict);

} // namespace gantry::working
