// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <array>
#include <string>
#include <vector>

namespace gantry {

/// How pictures and movement take turns in an interval plan.
enum class IntervalMode {
    Stops,       ///< moves, settles, takes a picture
    Runs,        ///< keeps moving
    StopMotion,  ///< the next picture comes by hand or on a key
    Pulses,      ///< a timer switches a geared motor on between pictures
    Timers,      ///< camera and rig go by clocks of their own
    SeparateHead ///< stops; a head with a clock of its own turns meanwhile
};

/// Which of the three facts of a run follows from the other two.
enum class FollowingFact { Pictures, Interval, Duration };

enum class GapsGo { Even, Linear, Geometric };
enum class StepsGo { Even, Smooth, Ramps };
enum class PictureOrder { MoveFirst, PictureFirst };
/// What becomes of a picture that the camera does not confirm.
enum class IfMissed { Waits, Repeats, Skips, Stops };
enum class SettleBy { Computed, Entered };
/// What becomes of the way when whoever keeps a run going stays longer than it takes.
enum class AtWayEnd { Stays, TurnsBack };
enum class EndSign { None, Light, Tone, Middle };

/// A camera that takes the pictures; all of a plan are triggered together.
struct PlanCamera {
    std::string id;
    std::string name = "Camera";
    double focus = 0.0;      ///< [s] to wake and to focus; 0: focused by hand
    double lag = 0.08;       ///< [s] from the trigger to the open shutter
    double write = 0.8;      ///< [s] until it takes the next trigger
    double picture = 25e6;   ///< [byte]
    double card = 64e9;      ///< [byte]; 0: does not run full
    bool bulb = false;       ///< the trigger holds the shutter open
    double closeLag = 0.0;   ///< [s] from the release to the closed shutter …
    double leastPress = 0.1; ///< [s] that it notices …
    double leastGap = 0.5;   ///< [s] between two presses

    friend bool operator==(const PlanCamera&, const PlanCamera&) = default;
};

/// From a picture on the exposure is this one; between two of them its stops run evenly.
struct ExposureMark {
    std::string id;
    int picture = 100;     ///< from 1
    double exposure = 1.0; ///< [s]

    friend bool operator==(const ExposureMark&, const ExposureMark&) = default;
};

enum class DrawsWhen { Always, Moving, Standing, Awake, Exposing };
/// Something beside the motors that draws on the pack.
struct PlanConsumer {
    std::string id;
    std::string name = "Consumer";
    DrawsWhen when = DrawsWhen::Always;
    Estimate power = estimate(2.0, Source::DataSheet); ///< [W] then
    double otherwise = 0.0;                            ///< [W] the rest of the time

    friend bool operator==(const PlanConsumer&, const PlanConsumer&) = default;
};

/// One sensor of presence: its output stays on after a detection.
struct PlanSensor {
    std::string id;
    std::string name = "Sensor";
    double hold = 60.0;          ///< [s]
    double warmUp = 30.0;        ///< [s] after switching on, in which it detects nothing
    double seenEvery = 30.0;     ///< [s] between detections of somebody who keeps nearly still
    double triggersItself = 0.0; ///< [1] chance that a move of the rig is detected
    bool deafWhileMoving = false;

    friend bool operator==(const PlanSensor&, const PlanSensor&) = default;
};

/// A time in which nobody is there, or the run is stopped by hand.
struct PlanPause {
    std::string id;
    double start = 600.0;  ///< [s] of the run
    double length = 300.0; ///< [s]

    friend bool operator==(const PlanPause&, const PlanPause&) = default;
};

/// The pack's voltage read during a run.
struct PackReading {
    std::string id;
    int picture = 1;     ///< from 1
    double volts = 12.0; ///< [V]

    friend bool operator==(const PackReading&, const PackReading&) = default;
};

enum class Weekday { Monday, Tuesday, Wednesday, Thursday, Friday, Saturday, Sunday };

/// A picture that the camera does not confirm.
struct PlanFault {
    std::string id;
    int picture = 1;     ///< from 1
    int tries = 1;       ///< that are not confirmed
    double waited = 2.0; ///< [s] until it is confirmed after all, where the run waits for it

    friend bool operator==(const PlanFault&, const PlanFault&) = default;
};

/// Somebody who walks through the picture.
struct PlanPasser {
    double speed = 1.3;    ///< [m/s]
    double width = 0.5;    ///< [m] across his way
    double distance = 0.0; ///< [m] from the camera; 0: as far as the subject

    friend bool operator==(const PlanPasser&, const PlanPasser&) = default;
};

/// Hours and days on which a long work goes on; every week alike.
struct PlanHours {
    bool kept = false;                                                  ///< else it goes on day and night
    double open = 28800.0;                                              ///< [s] from midnight
    double close = 61200.0;                                             ///< [s]
    std::array<bool, 7> days{true, true, true, true, true, true, true}; ///< from Monday on

    friend bool operator==(const PlanHours&, const PlanHours&) = default;
};

/// Clocks of free timers.
struct PlanClocks {
    double cameraSlow = 20e-6;  ///< [1] by which the camera's interval is longer than set
    double rigInterval = 6.0;   ///< [s] set on the rig's timer …
    double rigSlow = -80e-6;    ///< [1] … and by how much it is longer
    double offset = 1.0;        ///< [s] of the rig's first move after the first picture
    bool countsFromEnd = false; ///< the camera counts its interval from the end of the exposure

    friend bool operator==(const PlanClocks&, const PlanClocks&) = default;
};

/// A geared motor on timed pulses.
struct PlanPulses {
    double pulse = 0.5;                                    ///< [s]
    Estimate speed = estimate(0.02, Source::Measured);     ///< [m/s] that it comes to
    Estimate deadTime = estimate(0.06, Source::Assumed);   ///< [s]
    Estimate runUp = estimate(0.08, Source::Assumed);      ///< [s] time constant
    Estimate coastTime = estimate(0.0, Source::Assumed);   ///< [s] time constant; 0: friction alone
    Estimate coastBrake = estimate(0.15, Source::Assumed); ///< [m/s²]
    double pulseScatter = 0.01;                            ///< [s] standard deviation
    double speedScatter = 0.03;                            ///< [1]
    double speedDrift = 0.1;                               ///< [1] by which all of it may be high

    friend bool operator==(const PlanPulses&, const PlanPulses&) = default;
};

/// A head that is bought with a clock of its own.
struct PlanHead {
    double turn = 0.5;      ///< [rad]
    double longest = 10800; ///< [s] that it can be set to
    double delay = 0.0;     ///< [s] after the slide

    friend bool operator==(const PlanHead&, const PlanHead&) = default;
};

/// When the rig moves and when it takes pictures.
struct IntervalPlan {
    std::string id;
    std::string name = "Plan";
    std::string move; ///< id of the move whose way it goes; empty: the distances of the shot
    std::string shot; ///< id of the shot whose lens and limits it is taken with; empty: the first
    IntervalMode mode = IntervalMode::Stops;
    FollowingFact follows = FollowingFact::Duration;
    int pictures = 300;
    double interval = 6.0;    ///< [s] the first, where it changes
    double duration = 1800.0; ///< [s]
    GapsGo gaps = GapsGo::Even;
    double lastInterval = 6.0; ///< [s]
    double clipRate = 25.0;    ///< [Hz] frames delivered in a second
    int heldFor = 1;           ///< frames that show one picture
    PictureOrder order = PictureOrder::MoveFirst;
    bool writesWhileMoving = true;
    double spare = 0.2; ///< [s] wanted in each interval
    SettleBy settleBy = SettleBy::Computed;
    double settle = 1.0;   ///< [s] where it is entered
    double exposure = 0.5; ///< [s] of the first picture
    std::vector<ExposureMark> exposures;
    double metered = 0.0; ///< [s] that the light asks without a filter; 0: not said
    PlanPasser passer;
    StepsGo steps = StepsGo::Ramps;
    double ramp = 0.2;       ///< [1] share of the run at either end
    bool wholeSteps = false; ///< current is cut between pictures, so that rotors stand at full steps
    std::vector<PlanCamera> cameras{PlanCamera{"camera"}};
    IfMissed ifMissed = IfMissed::Repeats;
    std::vector<PlanFault> faults;
    double startClock = 64800.0; ///< [s] from midnight
    Weekday startDay = Weekday::Monday;
    PlanHours hours;
    std::vector<PlanSensor> sensors;
    std::vector<PlanPause> pauses;
    bool goesBack = true; ///< when nobody is there, by the moves of the pictures that are deleted
    /// [s] in which somebody is expected to be there, all in all; its way is laid out for so long. 0: for
    /// the whole run.
    double activeTime = 0.0;
    AtWayEnd atEnd = AtWayEnd::Stays;
    std::vector<PlanConsumer> consumers;
    double warnVoltage = 0.0, parkVoltage = 0.0; ///< [V]; 0: none
    std::vector<PackReading> readings;
    PlanClocks clocks;
    PlanPulses pulses;
    PlanHead head;
    EndSign sign = EndSign::None;

    friend bool operator==(const IntervalPlan&, const IntervalPlan&) = default;
};

} // namespace gantry
