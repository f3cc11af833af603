// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <QtGlobal>
#include <vector>

namespace gantry::app {

/// One reading of an identification step.
struct StepField {
    const char* key;
    const char* label;
    units::Kind kind;
    const char* start; ///< offered at first, often empty
    const char* hint;
};

/// One page: what to do, what could hurt, what to type in.
struct IdentifyStep {
    const char* title;
    const char* what;
    const char* care; ///< empty if nothing could hurt
    std::vector<StepField> fields;
    bool stepper, dc;  ///< which ways it lies on
    bool warm = false; ///< the rising-current test, whose advice follows what is typed
};

/// All steps in their order; texts are marked for translation in the context "IdentifyDialog".
const std::vector<IdentifyStep>& identifySteps();

/// Readings of the rising-current test that have fields.
inline constexpr int warmReadings = 6;

} // namespace gantry::app
