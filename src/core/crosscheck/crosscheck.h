// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/crosscheck/claim.h"
#include "core/evaluate/evaluation.h"
#include "core/words/messages.h"

#include <array>
#include <string>
#include <vector>

namespace gantry::crosscheck {

/// What a claim is held against: the parts' steps per unit, what the supply can give at all, or the drive.
enum class Against { Steps, Supply, Drive };

/// One thing found about a claim.
struct Finding {
    Against against = Against::Drive;
    double ratio = 1.0;    ///< [1] there over told, or told over needed: below 1 it cannot be
    bool plausible = true; ///< within what people round
    words::Message sentence;
    words::Arguments arguments{};
    std::string fits; ///< the mix-up or the part that would make it right; empty: none that is known
};

/// Judges a claim against the evaluated axis: torque and speed together over the whole range of speeds, power
/// against the supply, torque times ratio without losses, peak for rms, per minute for per second, inch or
/// degree mix-ups, steps per unit against the parts. One finding for each thing that it says; none where the
/// drive has no such thing or the claim is not understood.
std::vector<Finding> judge(const Project& project, const Axis& axis, const AxisEvaluation& evaluation,
                           const Claim& claim);

/// Steps per mm or per ° that a claim says; nothing where it says none.
std::optional<double> stepsSaid(const AxisEvaluation& evaluation, const Claim& claim);

/// The finding as a sentence.
std::string sentenceOf(const Finding& finding, units::System system);

/// Every sentence that a finding may say, for the catalogue.
extern const std::array<words::Message, 29> findingTexts;

/// Whether microsteps at the output are finer than play and stiffness leave any use for; empty if all is
/// well.
std::string uselessFineness(const AxisEvaluation& evaluation);

} // namespace gantry::crosscheck
