// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

/// Which flank of its backlash a drive rests on, and whether anything takes it off there. Derivation:
/// docs/models/backlash.md (Nordin and Gutman 2002, Controlling mechanical systems with backlash).
namespace gantry::drivetrain {

/// What acts on a load for as long as it stands somewhere: gravity of an arm and springs, A cos(φ + δ) + S +
/// k φ [N·m] or [N]; positive: against motion towards larger φ.
struct LastingLoad {
    double amplitude = 0.0; ///< A ≥ 0
    double phase = 0.0;     ///< δ [rad]
    double constant = 0.0;  ///< S
    double rate = 0.0;      ///< k, for one unit of φ
    double unknown = 0.0;   ///< ≥ 0: may act either way, where it is not known on which side it lies

    double at(double place) const;

    friend bool operator==(const LastingLoad&, const LastingLoad&) = default;
};

/// A movement, and what may take the load off its flank on the way.
struct FlankQuestion {
    LastingLoad load;
    double from = 0.0, to = 0.0;  ///< places; the movement goes from one to the other
    bool bothWays = false;        ///< and back again, or begun from either side
    double friction = 0.0;        ///< running, against the motion
    double inertia = 0.0;         ///< of the load
    double acceleration = 0.0;    ///< of the ramps
    double rippleSpeed = 0.0;     ///< amplitude of speed ripple that was entered …
    double rippleFrequency = 0.0; ///< … and its frequency [rad/s]
    double disturbance = 0.0;     ///< hand, wind, cable: amplitude
    double speed = 0.0;           ///< the movement's own
    double backlash = 0.0;
};

struct Flank {
    bool kept = false;
    bool reversesLocally = false; ///< ripple turns the motor back for moments
    double side = 1.0;            ///< of the flank, as the sign of what rests on it: +1 drives upwards
    double holding = 0.0;         ///< what lasts on the flank at its weakest; negative: it turns over
    double disturbing = 0.0;      ///< what acts against it
    double play = 0.0;            ///< how far the load gets loose, at most the backlash
    std::optional<double> place;  ///< where it lets go first on the way there; none: only on the way back,
                                  ///< or in a ramp
    double missing = 0.0;         ///< lasting load to one side that would hold it with `target`

    double ratio() const { return holding / disturbing; }
};

/// The flank is kept if friction and lasting load together keep their sign over all places and directions by
/// more than ramps, ripple and disturbance need. Friction holds the driving flank of a movement one way; both
/// ways it has to be overcome. A load that only friction holds and that runs on in braking gets loose by
/// v²/2 · (J/T − 1/a), where that is less than the backlash.
/// @param target [1] what is wanted of ratio()
Flank flankOf(const FlankQuestion& q, double target);

} // namespace gantry::drivetrain
