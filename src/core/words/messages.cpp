// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/messages.h"

#include "core/units/text.h"

namespace gantry::words {
namespace {

struct Message {
    MessageId id;
    std::string_view text;
};

using M = MessageId;
constexpr std::array table{
    Message{M::TorqueTitle, "Torque over the ramp"},
    Message{M::TorqueText, "Shot “{shot}” needs {0} at the end of the ramp; {1} is available at {2}."},
    Message{M::TorqueBreakawayText, "Breaking away from rest needs {0}; {1} is available."},
    Message{M::PulseTitle, "Pulse rate"},
    Message{M::PulseText, "Shot “{shot}” asks for {0}; the controller gives {1}."},
    Message{M::PowerOffTitle, "Power-off holding"},
    Message{M::PowerOffFallsText,
            "Falls when power goes: gravity {0}, friction about {1}. After the full travel it carries {2} at "
            "{3}. Friction and detent do not count as a brake; secure the camera and keep hands clear."},
    Message{M::PowerOffFrictionText,
            "Only friction of about {1} keeps it from running away under {0} of gravity. Friction and detent "
            "do not count as a brake; secure the camera before leaving it."},
    Message{M::PowerOffLocksText, "Only the self-locking worm or screw keeps it from running away under {0} "
                                  "of gravity, and only at rest: "
                                  "shaking can let it creep. Secure the camera before leaving it."},
    Message{M::PowerOffBrakeText, "The brake holds {1} at the motor; gravity asks {0}."},
    Message{M::StandstillTitle, "Holding at standstill"},
    Message{M::StandstillText, "Gravity asks {0} at the motor; the hold current gives {1}."},
    Message{M::ResonanceTitle, "Distance from resonance"},
    Message{M::ResonanceInsideText,
            "Shot “{shot}” cruises at {0}, inside the rotor's resonance from {1} to {2} ({3})."},
    Message{M::ResonanceText,
            "Shot “{shot}” cruises at {0}; the rotor's resonance lies from {1} to {2} ({3})."},
    Message{M::SteppingTitle, "Visible stepping"},
    Message{M::SteppingText, "Shot “{shot}” shows {0} of stepping where {1} is allowed; one microstep is "
                             "{2}, {3} come in a second."},
    Message{M::DriftTitle, "Slow drift"},
    Message{M::DriftText,
            "Shot “{shot}”: stretch of {2} between speeding up and braking drifts {0} where {1} is allowed."},
    Message{M::JitterTitle, "Jitter"},
    Message{M::JitterText, "Shot “{shot}”: {0} peak to peak where {1} is allowed, all of it stepping."},
    Message{M::JitterBacklashText,
            "Shot “{shot}”: {0} peak to peak where {1} is allowed; {2} is backlash let go."},
    Message{M::RepeatTitle, "Repeat error"},
    Message{M::RepeatText, "Shot “{shot}”: {0} between passes where {1} is allowed; {2} is the rotor's "
                           "friction band, {3} the fall to hold current."},
    Message{M::FramingTitle, "Framing error"},
    Message{M::FramingText,
            "Shot “{shot}”: {0} off the target where {1} is allowed; {2} is rotor lag, {3} rounding."},
    Message{M::BacklashTitle, "Backlash let go"},
    Message{M::BacklashText, "The load reverses in shot “{shot}” somewhere on its range and lets go {0}, "
                             "seen as {1}; {2} is allowed."},
    Message{M::BacklashMomentText,
            "The load reverses in shot “{shot}”, first {3} after its start, and lets go {0}, seen "
            "as {1}; {2} is allowed. Gravity on one side all the time would hold it."},
    Message{M::JudderTitle, "Judder"},
    Message{M::JudderText, "In shot “{shot}” detail crosses the picture in {0}; {1} or more looks smooth."},
    Message{M::RoundingTitle, "Rounding of steps per unit"},
    Message{M::RoundingText, "The controller keeps {0} steps per unit: {1} off over the travel, {2} in shot "
                             "“{shot}” where {3} is allowed."},
    Message{M::CurrentTitle, "Current against rating"},
    Message{M::CurrentText, "Set to {0} rms; the motor is rated {1} rms. Drivers and motors run hot: let "
                            "them cool before touching."},
    Message{M::RatingTitle, "Driver ratings"},
    Message{M::RatingCurrentText, "Set to {0} rms; the driver is rated {1} rms."},
    Message{M::RatingVoltageText, "The supply gives {0}; the driver is rated {1}."},
    Message{M::RatingStallText,
            "Stalled, the motor draws {0}, reversed at speed {2} for a moment; the driver is rated {1}."},
    Message{M::StoppingTitle, "Stopping distance"},
    Message{M::StoppingText, "Stopping from {0} takes {1}; shot “{shot}” leaves {2} of travel."},
    Message{M::TravelTitle, "Room on the axis"},
    Message{M::TravelText, "Shot “{shot}” covers {0}; {1} can be used between the soft limits."},
    Message{M::SettingsTitle, "Settings against shots"},
    Message{M::SettingsSpeedText, "Shot “{shot}” runs at {0}; the controller is set to {1} at most."},
    Message{M::SettingsAccelerationText,
            "Shot “{shot}” speeds up at {0}; the controller is set to {1} at most."},
    Message{M::EaseTitle, "Ease against jerk"},
    Message{M::EaseText, "The ease of shot “{shot}” needs a jerk of {0}; the setting allows {1}."},
    Message{M::OversizeTitle, "Motor size"},
    Message{M::OversizeText,
            "{0} is available where {1} is needed: a motor a third the size would do, lighter and cooler."},
    Message{M::DutyTitle, "Duty"},
    Message{M::DutyText, "Shot “{shot}” asks {0} as a root mean square; the motor stands {1} for hours."},
    Message{M::CaseTitle, "Case temperature"},
    Message{M::CaseText, "After hours the motor case reaches about {0}; its mount stands {1}. Let hot motors "
                         "and drivers cool before touching."},
    Message{M::RegulatorTitle, "Regulator heat"},
    Message{M::RegulatorText,
            "In shot “{shot}” the linear regulator turns {0} W into heat and reaches about {1}; its "
            "chip stands {2}. It burns skin long before."},
    Message{M::VibrationTitle, "Vibration after the stop"},
    Message{M::VibrationText,
            "Shot “{shot}” stops with {0} of rocking at {1}, where {2} shows; it dies down in {3}."},
    Message{M::VibrationLongText, "Shot “{shot}” stops with {0} of rocking at {1}, where {2} shows; without "
                                  "damping it does not die down."},
    Message{M::ShaftTitle, "Load on the motor shaft"},
    Message{M::ShaftRadialText, "Belt, gear or wheel pull {0} sideways on the motor shaft; it stands {1}."},
    Message{M::ShaftAxialText, "The screw thrusts {0} along the motor shaft; it stands {1}. A coupling with "
                               "bearings of its own takes that away."},
    Message{M::NoiseTitle, "Noise"},
    Message{M::NoiseStepText,
            "Shot “{shot}”: full steps sound at {0}, rank {1} of 4 where Brief allows {2}."},
    Message{M::NoiseCoarseText,
            "Shot “{shot}”: coarse steps hammer at {0}, rank {1} of 4 where Brief allows {2}."},
    Message{M::NoiseBrushText,
            "Shot “{shot}”: brushes commutate at {0}, rank {1} of 4 where Brief allows {2}."},
    Message{M::NoiseGearText,
            "Shot “{shot}”: gear teeth whine at {0}, rank {1} of 4 where Brief allows {2}."},
    Message{M::NoiseSwitchingText,
            "Shot “{shot}”: drive and rotor hum, rank {1} of 4 where Brief allows {2}."},
    Message{M::MotorSpeedTitle, "Motor speed"},
    Message{M::MotorSpeedText, "Shot “{shot}” runs at {0}; the motor has no torque left beyond {1}."},
    Message{M::MotorSettingText, "Shot “{shot}” runs at {0}, {2} of full setting; at the highest setting in "
                                 "use the drive runs free at {1}."},
    Message{M::MotorSlowText, "Shot “{shot}” runs at {0}; below {1} this motor stutters."},
    Message{M::FollowingTitle, "Following error"},
    Message{M::FollowingText, "Shot “{shot}” lags {0}; the drive reports a fault at {1}."},
    Message{M::FollowingCorrectsText, "The rotor lags {0} in shot “{shot}”; the encoder reports lost steps "
                                      "at {1} and makes them up once the load allows, late in the picture."},
    Message{M::FollowingStopsText,
            "The rotor lags {0} in shot “{shot}”; at {1} the encoder stops the axis. It adds no torque."},
    Message{M::ServoRangeTitle, "Servo range"},
    Message{M::ServoRangeText, "The axis turns {0}; the servo reaches {1}."},
    Message{M::StrengthTitle, "Strength of the parts"},
    Message{M::StrengthText, "Part {2} of the drive carries {0}; it stands {1}."},
    Message{M::GearFormTitle, "Tooth form"},
    Message{
        M::UndercutText,
        "Part {1}: its small gear wants {0} times the teeth it has, or it is undercut: weak, rough, uneven."},
    Message{M::GearFormText, "Part {1}: no undercut, and {0} times the contact that runs smoothly or the "
                             "teeth that escape undercut."},
    Message{M::ContactText, "Part {1}: {0} pairs of teeth in contact; {2} or more run smoothly."},
    Message{M::MeshTitle, "Teeth in mesh"},
    Message{M::MeshText, "Part {1} has {0} teeth of the belt in mesh; it wants six."},
    Message{M::GripTitle, "Grip"},
    Message{M::GripText, "The drive must push {0}; friction gives {1} before it slips."},
    Message{M::CordSlackTitle, "Cord stays taut"},
    Message{M::CordSlackText, "Shot “{shot}” slows at {0}; beyond {1} the cord goes slack and snatches. Keep "
                              "clear of a loaded cord."},
    Message{M::CordStrengthTitle, "Breaking load of the cord"},
    Message{M::CordStrengthText,
            "The cord pulls {0} and breaks at {1}, factor {2}; at least {3} is usual, more near people."},
    Message{M::WhirlTitle, "Whirling of the screw"},
    Message{M::WhirlText, "Shot “{shot}” runs at {0}; above {1} the screw whips."},
    Message{M::BucklingTitle, "Buckling of the screw"},
    Message{M::BucklingText, "The screw is pushed with {0} and buckles at {1}."},
    Message{M::GuideTitle, "Play of the guides"},
    Message{M::GuideText,
            "Play lets the carriage turn by {0}, {1} in the picture of shot “{shot}”; {2} is allowed."},
    Message{M::BindingTitle, "Binding of the guides"},
    Message{M::BindingText,
            "The drive pulls {0} off centre; plain bearings bind from {1} on, however strong the motor."},
    Message{M::BearingTitle, "Load on the bearings"},
    Message{M::BearingText, "The most loaded bearing carries {0}; it is rated {1}."},
    Message{M::FrictionSourcesTitle, "Friction from two sources"},
    Message{M::FrictionSourcesText,
            "Entered is {0}; the guides alone cost about {1}. The entered value is used; measure it."},
    Message{M::StopTitle, "Emergency stop"},
    Message{M::StopFallsText, "An emergency stop or reset lets it fall: gravity {0}, {1} and {2} after the "
                              "full travel. Secure the camera and keep hands clear."},
    Message{M::StopCreepsText, "After an emergency stop or reset only friction or a self-locking thread "
                               "holds {0}; shaking lets it creep. Do not rely on it."},
    Message{M::StopStaysText, "What holds after an emergency stop or reset outweighs gravity of {0}."},
    Message{M::LensRingTitle, "Lens ring"},
    Message{M::LensElectronicsText, "This ring drives electronics that follow its speed, so an angle means "
                                    "no fixed mark; use a lens whose ring is coupled by angle."},
    Message{M::LensStopsText,
            "A ring without stops has no place to count from; add stops or a lens that has them."},
    Message{M::LensThrowText, "The axis turns the ring {0}; its throw is {1}."},
    Message{M::PanBarTitle, "Pan bar"},
    Message{M::PanBarText,
            "The bar turns the camera by {0} over the travel; its arm is {1} times what it must reach."},
    Message{M::SagTitle, "Sag and bend"},
    Message{M::SagText,
            "In shot “{shot}” sag and slope shift the picture by {0} over the travel, where {1} is "
            "allowed, and by {2} at top speed, where {3} is."},
    Message{M::SettlingTitle, "Settling time"},
    Message{M::SettlingText,
            "After shot “{shot}” it swings at {0} for {1}; the shot leaves {2}. {3} of it comes "
            "from: {part}."},
    Message{M::SettlingLongText,
            "After shot “{shot}” it swings at {0}, and nothing damps it; the shot leaves {2}. "
            "{3} of it comes from: {part}."},
    Message{M::RailTippingTitle, "Rail over its stands"},
    Message{M::RailTippingText,
            "With the carriage at {0} the rail is held {1} times against tipping over its stand. "
            "Secure both stands before anything rides to the ends."},
    Message{M::RailClampTitle, "Strength of the rail's clamps"},
    Message{M::RailClampText,
            "A bolt of the rail's clamps stands {0} times its worst pull while the carriage goes from end to "
            "end."},
    Message{M::BeamStrengthTitle, "Strength of rail or arm"},
    Message{M::BeamStrengthText,
            "Bending uses 1/{0} of what the material stands for long; at least {1} near people."},
    Message{M::PivotTitle, "Strength of the pivot"},
    Message{M::PinText, "The pivot pin stands {0} times its load."},
    Message{M::PivotBearingText, "The pivot bearings stand {0} times the weight on them."},
    Message{M::TurningBearingText, "The turning bearing under the arm stands {0} times the moment on it."},
    Message{M::PivotBoltText, "The bolts under the turning bearing stand {0} times their worst pull."},
    Message{M::BalanceTitle, "Balance over the range"},
    Message{M::BalanceText,
            "Up to {0} left at {1}; a tenth of what hangs in front is {2}. {3} in place of the weight "
            "there now would balance the level arm. Never take the camera off a balanced arm first."},
    Message{M::BalanceHeightText,
            "Up to {0} left at {1} that no mass behind removes, for the weight sits {3} off the "
            "arm line; a tenth of what hangs in front is {2}. Tie the arm before unloading."},
    Message{M::HandTitle, "Pushed by hand"},
    Message{M::HandText,
            "Pushed by hand at {0} the motor drives {1} into the driver, which stands {2}. Unplug the "
            "motor before moving it by hand."},
    Message{M::TippingTitle, "Tipping"},
    Message{M::TippingText,
            "Pointing to {0}, with pushes and the planned stop, the base holds {1} times; {2} is the "
            "usual floor. A tipping rig hurts people: weigh it down, and keep clear."},
    Message{M::TippingEmergencyText,
            "Pointing to {0}, with the hardest stop the drives can make, the base holds {1} "
            "times; {2} is the usual floor. A tipping rig hurts people: weigh it down, and "
            "keep clear."},
    Message{M::AnchorTitle, "Anchors"},
    Message{M::AnchorText,
            "The anchors pull with {0} and stand {1}. Over people local rules and a qualified rigger "
            "decide."},
    Message{M::TetherTitle, "Second tether"},
    Message{M::TetherText,
            "What hangs overhead needs a second, independent tether that can catch it. Local rules and "
            "a qualified rigger decide."},
    Message{M::ClearanceTitle, "Clearance"},
    Message{M::ClearanceText,
            "Over all ranges the {part} comes within {0} of the {room}; {1} keeps fingers and lenses "
            "out of trouble."},
    Message{M::ClearanceRoomText,
            "Over all ranges the {part} comes within {0} of “{room}”; {1} keeps fingers and lenses "
            "out of trouble."},
    Message{M::WeightTitle, "Weight"},
    Message{M::WeightText, "The rig weighs {0} as far as it is entered; Brief allows {1}."},
    Message{M::MoneyTitle, "Money"},
    Message{M::MoneyText, "Drives, sections and discs cost {0}; Brief allows {1}."},
    Message{M::UnknownText, "Not known yet: {reason}."},
    Message{M::CheckNotNeeded, "not needed by this rig"},
    Message{M::CheckFollowFocus, "Follow focus"},
    Message{M::CheckFollowFocusWhy, "the subject leaves the depth of field while it is kept framed"},
    Message{M::CheckEndStops, "End switches"},
    Message{M::CheckEndStopsWhy, "axes whose travel ends run into something when a count is lost"},
    Message{M::CheckBlocks, "Blocks behind the switches"},
    Message{M::CheckBlocksWhy, "switches fail; a block stops what they do not"},
    Message{M::CheckHoming, "Homing place"},
    Message{M::CheckHomingWhy, "drives that count need a place to count from"},
    Message{M::CheckCables, "Cable path"},
    Message{M::CheckCablesWhy, "cables that snag pull the picture and the plug"},
    Message{M::CheckSlipRing, "Slip ring"},
    Message{M::CheckSlipRingWhy, "an axis turns more than once and winds its cables up"},
    Message{M::CheckCounterweight, "Counterweight"},
    Message{M::CheckCounterweightWhy, "a boom without one is held by its motor alone"},
    Message{M::CheckTieDown, "Tie-down"},
    Message{M::CheckTieDownWhy, "what can fall or swing up must be tied when nobody holds it"},
    Message{M::CheckCatchStrap, "Catch strap"},
    Message{M::CheckCatchStrapWhy, "a clamp lets go once; the strap catches the camera"},
    Message{M::CheckEmergencyStop, "Emergency stop, tried"},
    Message{M::CheckEmergencyStopWhy, "a stop within reach, tried on every axis that gravity pulls"},
    Message{M::CheckSpareParts, "Spare parts"},
    Message{M::CheckSparePartsWhy, "belt, cord, fuse and driver fail on the day"},
    Message{M::FixTeeth, "pulley with {0} teeth"},
    Message{M::FixMicrosteps, "1/{0} microsteps"},
    Message{M::FixShotAcceleration, "“{shot}” at {0}"},
    Message{M::FixShotEase, "“{shot}” with ramps of {0}"},
    Message{M::FixJerk, "jerk {0}"},
    Message{M::FixShotSpeed, "“{shot}” at {0}"},
    Message{M::FixShotTime, "“{shot}” in {0}"},
    Message{M::FixSupplyVoltage, "supply of {0}"},
    Message{M::FixRunCurrent, "run current {0} rms"},
    Message{M::FixHoldCurrent, "hold current {0} rms"},
    Message{M::FixReduction, "belt reduction {0}:{1} teeth"},
    Message{M::FixBrake, "power-off brake of {0}"},
    Message{M::FixDistance, "subject at {0}"},
    Message{M::FixController, "controller with {0} of pulses"},
    Message{M::FixDecimals, "controller that keeps {0} or more decimals"},
    Message{M::FixMaxSpeed, "top speed setting {0}"},
    Message{M::FixMaxAcceleration, "top acceleration setting {0}"},
    Message{M::FixStopKeepsHolding, "emergency stop that keeps the holding current"},
    Message{M::FixMetalMount, "metal motor mount"},
    Message{M::FixFaceWidth, "gears {0} wide"},
    Message{M::FixClosedCord, "cord that pulls both ways"},
    Message{M::FixKnob, "knob at {0}"},
    Message{M::FixStands, "stands at {0} and {1}"},
    Message{M::FixOnEdge, "the section turned on its side"},
    Message{M::FixSection, "section {0} × {1}"},
    Message{M::FixCounterweight, "counterweight {0}"},
    Message{M::FixCounterweightPlace, "counterweight {0} behind"},
    Message{M::FixBallast, "ballast {0} low in the middle"},
    Message{M::FixBallastLeg, "all ballast, {0}, on leg {1}"},
    Message{M::FixPads, "pads of {0} each"},
    Message{M::FixClampBolts, "{0} bolts in each clamp"},
    Message{M::FixBaseHeight, "column {0} high"},
    Message{M::FixLegs, "feet {0} from the middle"},
    Message{M::FixTether, "a second tether"},
    Message{M::FixSettle, "wait {0} before the picture counts"},
    Message{M::FixPin, "pivot pin {0}"},
};
static_assert(table.size() == static_cast<std::size_t>(M::messageCount_), "every message has one text");

constexpr bool inOrder() {
    for (std::size_t i = 0; i < table.size(); ++i)
        if (table[i].id != static_cast<M>(i)) return false;
    return true;
}
static_assert(inOrder(), "the table stands in the order of MessageId");

} // namespace

std::string_view textOf(MessageId id) {
    return table[static_cast<std::size_t>(id)].text;
}

std::string render(MessageId id, const Arguments& arguments, const Names& names, units::System system) {
    std::string_view rest = textOf(id);
    std::string out;
    while (!rest.empty()) {
        const auto open = rest.find('{');
        out += rest.substr(0, open);
        if (open == std::string_view::npos) break;
        const auto close = rest.find('}', open);
        const std::string_view name = rest.substr(open + 1, close - open - 1);
        rest.remove_prefix(close + 1);
        if (name == "axis")
            out += names.axis;
        else if (name == "shot")
            out += names.shot;
        else if (name == "part")
            out += names.part;
        else if (name == "room")
            out += names.room;
        else if (name == "reason")
            out += reasonText(static_cast<Reason>(static_cast<int>(arguments[0].value)));
        else {
            const Argument& a = arguments[static_cast<std::size_t>(name.front() - '0')];
            out += units::format(a.value, a.kind, system);
        }
    }
    return out;
}

std::string_view reasonText(Reason reason) {
    switch (reason) {
    case Reason::None:
        return "known";
    case Reason::NeedsHoldingTorque:
        return "needs the motor's holding torque";
    case Reason::NeedsRatedCurrent:
        return "needs the motor's rated current";
    case Reason::NeedsResistance:
        return "needs the motor's phase resistance";
    case Reason::NeedsInductance:
        return "needs the motor's inductance";
    case Reason::NeedsStopBehaviour:
        return "say what an emergency stop or a reset of the controller does to the holding current; try it "
               "with the "
               "load secured";
    case Reason::NeedsSection:
        return "say what the rail or arm is made of: its section and material";
    case Reason::NeedsBase:
        return "say what the rig stands on";
    case Reason::NeedsAnchors:
        return "enter what the anchors stand, from a qualified person or a pull test; it is never presumed";
    case Reason::SupportsOffRail:
        return "the stands or the head are not on the rail, or both on one spot; move them";
    case Reason::NoSuchLeg:
        return "the base has no leg of that number for its ballast; choose one that it has, or 0 for the "
               "middle";
    case Reason::NeedsLensRing:
        return "needs a lens ring as output to know what the picture makes of it";
    case Reason::NoShot:
        return "no shot moves this axis";
    case Reason::TimeTooShort:
        return "the shot's time is too short for its distance; give it more time or less ease";
    case Reason::TooLongToSimulate:
        return "its ramps alone take longer than the minute that is simulated, or more pulses than fit in it";
    case Reason::NoRamp:
        return "the controller starts without a ramp, which no motor follows at speed; choose one that ramps";
    case Reason::NoDistance:
        return "the shot's distance is zero; give it a distance";
    case Reason::Unbounded:
        return "nothing limits it";
    case Reason::SupplyCollapses:
        return "the supply's voltage collapses under this load; take a thicker or shorter cable or a higher "
               "voltage";
    case Reason::NotApplicable:
        return "has no meaning here";
    case Reason::OutOfRange:
        return "the inputs give a number too large or too small to mean anything";
    }
    return "";
}

} // namespace gantry::words
