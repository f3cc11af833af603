// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motion/profile.h"
#include "core/simulation/mechanism.h"
#include "core/simulation/servo_drive.h"
#include "core/simulation/stepper_drive.h"

#include <functional>
#include <stop_token>
#include <variant>
#include <vector>

namespace gantry::simulation {

/// What goes wrong on purpose, and when.
enum class FaultKind {
    None,
    PowerCut,      ///< supply gone: no current in any motor
    EmergencyStop, ///< commands end at once; `value` 1 keeps the holding current, 0 cuts it
    EndStop,       ///< a stop stands in the way, `value` [U] after the start
    Stuck,         ///< the load jams
    SupplySag      ///< the supply falls to `value` [1] of itself, for half a second
};
struct Fault {
    FaultKind kind = FaultKind::None;
    double time = 0.0; ///< [s]; not used by EndStop
    double value = 0.0;
};

/// One axis over one move in the positive direction; a move the other way has its steady force turned round.
/// It begins at rest under that force, with the play of its drive on the flank that pushes.
struct AxisSimulation {
    MechanismParams mechanism;
    std::variant<StepperDriveParams, ServoDriveParams, KnobDriveParams, HobbyDriveParams> drive;
    motion::Profile profile;
    double commandStep = 0.0;  ///< [U] of one pulse; 0: commanded without pulses
    double pulseCeiling = 1e5; ///< [Hz]
    double tail = 1.0;         ///< [s] after the profile's end
    double step = 2.5e-6;      ///< [s] of the integration
    double leftOut = 0.0;      ///< [s] of steady speed that the profile is shorter than the move
    Fault fault;
};

struct Sample {
    double time = 0.0;
    double command = 0.0;  ///< [U]
    double position = 0.0; ///< [U] of the load
    double picture = 0.0;  ///< [U] of the camera: the load and its rocking
    double current = 0.0;  ///< [A] of a stepper's phases together, else the torque [N·m]
};

struct Energy {
    double supplied = 0.0; ///< [J] electrical, or by the motor's torque where its winding is not simulated
    double copper = 0.0;   ///< [J]
    double lost = 0.0;     ///< [J] in friction, gears, dampers
    double lifted = 0.0;   ///< [J]
    double stored = 0.0;   ///< [J] more at the end than at the start
    double atStop = 0.0;   ///< [J] given to an end stop
    /// What the books do not explain, over the supplied [1].
    double imbalance() const;
};

struct SimulationResult {
    std::vector<Sample> trace; ///< at most about 2000, evenly spaced, the first at time 0
    bool finished = false;     ///< false when it was stopped from outside
    long lostFullSteps = 0;    ///< of a stepper, where it stands at the end against its command
    double lostAt = -1.0;      ///< [s] when it slipped out of step first; −1 if never
    double lostSpeed = 0.0;    ///< [U/s] commanded then
    double peakLag = 0.0;      ///< [U] largest of the load behind its command, until it slips
    double peakLagAt = 0.0;    ///< [s] when that was
    double finalError = 0.0;   ///< [U] position less command at the end
    double rocking = 0.0;      ///< [U] of the picture, peak to peak, after the profile's end
    double settled = -1.0; ///< [s] after the profile's end from which the picture stays within `settleBand`
    double hitSpeed = 0.0; ///< [U/s] at the end stop, 0 without a hit
    double peakCurrent = 0.0; ///< [A]
    double farthest = 0.0;    ///< [U] the place farthest back from where it should be, signed
    Energy energy;
};

/// Runs the move. `settleBand` [U] peak to peak; the callback hears of progress in [0, 1] now and then.
SimulationResult simulate(const AxisSimulation& input, double settleBand = 0.0, std::stop_token stop = {},
                          const std::function<void(double)>& progress = {});

} // namespace gantry::simulation
