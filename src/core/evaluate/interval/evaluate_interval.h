// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/interval/interval_course.h"
#include "core/intervals/energy.h"
#include "core/intervals/presence.h"

namespace gantry {

/// What an interval plan asks of the rig, its cameras and its battery, and what fails first.
/// docs/models/intervals.md. Nothing of the project is changed; every Figure is finite or says why not.
/// @param axes evaluated, one for each of the rig
IntervalResults evaluateInterval(const RigSetup& rig, const IntervalPlan& plan,
                                 const std::vector<AxisEvaluation>& axes);

/// Charge over the run, interval_energy.cpp.
void fillEnergy(IntervalResults& out, const RigSetup& rig, const IntervalCourse& course,
                const std::vector<AxisEvaluation>& axes, std::span<const IntervalCourse::Step> steps);

/// Energy taken from the pack up to the picture of each step, and up to the last; as its readings say, where
/// they say that it is more than was computed.
/// @param evaluated axes of the rig @param steps one at least
intervals::TakenEnergy energyTaken(const IntervalCourse& course, const RigSetup& rig,
                                   const std::vector<AxisEvaluation>& evaluated,
                                   std::span<const IntervalCourse::Step> steps);

/// Two clocks, pulses, a head by itself, presence; interval_others.cpp.
void fillOthers(IntervalResults& out, const RigSetup& rig, const IntervalCourse& course,
                std::span<const IntervalCourse::Step> steps);

/// Who is there when, by the sensors and pauses of a plan.
/// @return up to presenceEnd()
intervals::PresenceLog presenceLog(const IntervalCourse& course);

/// [s] of the run that is looked at for presence.
double presenceEnd(const IntervalCourse& course);

} // namespace gantry
