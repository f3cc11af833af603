// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/rig/axis_structure.h"
#include "core/parts/part.h"

#include <optional>
#include <vector>

namespace gantry {

/// Stands that shift the picture least over the travel, for the lens of the axis' worst shot (equal weight of
/// sag and slope without one); on whole millimetres. Nothing where the rail is not given.
std::optional<structure::TwoSupports> bestStands(const Project& project, const Axis& axis,
                                                 const AxisEvaluation* evaluation);

/// A counterweight that balances the level arm: the mass there is now moved along its bar where that is
/// enough, else the mass that does it at the nearest place that its bar allows to where it is. Nothing for an
/// axis that gravity does not turn, or an arm that is not given.
std::optional<Counterweight> balanceWith(const Project& project, const Axis& axis);

/// One line of the counterweight chart: which discs on the bar balance a kit, and where.
struct ChartRow {
    int kit = 0;            ///< index in Project::kits
    std::vector<int> discs; ///< of each kind in Boom::discs, how many
    double mass = 0.0;      ///< [kg] of bar and discs
    double behind = 0.0;    ///< [m]
    bool reaches = true;    ///< the bar is long enough
    double left = 0.0;      ///< [N·m] that stays at the worst angle of the range
};

/// For every kit the fewest discs with which the bar's places balance the level arm, heaviest discs first;
/// where none does, the combination that comes nearest at the end of the bar, marked. Up to 4096 combinations
/// are looked through.
std::vector<ChartRow> counterweightChart(const Project& project, const Axis& axis);

/// A section tried in place of the one there is.
struct SectionRow {
    Section section;
    AxisStructure found;
    double price = 0.0;  ///< of all of it, in the user's money; 0: not said
    double pixels = 0.0; ///< [px] of sag, slope and twist over the travel in the axis' worst shot
};

/// The section there is, and others, flat and on edge, over the same span with the same load.
std::vector<SectionRow> compareSections(const Project& project, const Axis& axis,
                                        const std::vector<Section>& sections);

/// Sections of one outline near the size of the one there is: of those that can be had the next smaller and
/// the next two larger, the same twice as high, a thicker wall, and on edge. Where the stock says no price it
/// follows the weight of a metre from the price of the one there is.
std::vector<Section> stockSections(const Section& like, const parts::Sources& stock);

/// Whether a section stands otherwise on its other side.
bool hasEdge(const Section& section);

/// What may take the place of a section: those that the project lists to be compared, flat and on edge, then
/// what can be had near it. None twice, and not the one there is.
std::vector<Section> sectionsToTry(const Project& project, const Section& now, const parts::Sources& stock);

} // namespace gantry
