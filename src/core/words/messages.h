// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/figure.h"
#include "core/units/kind.h"

#include <array>
#include <string>
#include <string_view>

namespace gantry::words {

/// Every sentence that the core can say about a rig. The text stands in messages.cpp and nowhere else.
enum class MessageId {
    TorqueTitle,
    TorqueText,
    TorqueBreakawayText,
    PulseTitle,
    PulseText,
    PowerOffTitle,
    PowerOffFallsText,
    PowerOffFrictionText,
    PowerOffLocksText,
    PowerOffBrakeText,
    StandstillTitle,
    StandstillText,
    ResonanceTitle,
    ResonanceInsideText,
    ResonanceText,
    SteppingTitle,
    SteppingText,
    DriftTitle,
    DriftText,
    JitterTitle,
    JitterText,
    JitterBacklashText,
    RepeatTitle,
    RepeatText,
    FramingTitle,
    FramingText,
    BacklashTitle,
    BacklashText,
    JudderTitle,
    JudderText,
    RoundingTitle,
    RoundingText,
    CurrentTitle,
    CurrentText,
    RatingTitle,
    RatingCurrentText,
    RatingVoltageText,
    RatingStallText,
    StoppingTitle,
    StoppingText,
    TravelTitle,
    TravelText,
    SettingsTitle,
    SettingsSpeedText,
    SettingsAccelerationText,
    EaseTitle,
    EaseText,
    OversizeTitle,
    OversizeText,
    DutyTitle,
    DutyText,
    CaseTitle,
    CaseText,
    RegulatorTitle,
    RegulatorText,
    VibrationTitle,
    VibrationText,
    VibrationLongText,
    ShaftTitle,
    ShaftRadialText,
    ShaftAxialText,
    NoiseTitle,
    NoiseStepText,
    NoiseCoarseText,
    NoiseBrushText,
    NoiseGearText,
    NoiseSwitchingText,
    MotorSpeedTitle,
    MotorSpeedText,
    MotorSettingText,
    MotorSlowText,
    FollowingTitle,
    FollowingText,
    FollowingCorrectsText,
    FollowingStopsText,
    ServoRangeTitle,
    ServoRangeText,
    StrengthTitle,
    StrengthText,
    GearFormTitle,
    UndercutText,
    GearFormText,
    ContactText,
    MeshTitle,
    MeshText,
    GripTitle,
    GripText,
    CordSlackTitle,
    CordSlackText,
    CordStrengthTitle,
    CordStrengthText,
    WhirlTitle,
    WhirlText,
    BucklingTitle,
    BucklingText,
    GuideTitle,
    GuideText,
    BindingTitle,
    BindingText,
    BearingTitle,
    BearingText,
    FrictionSourcesTitle,
    FrictionSourcesText,
    StopTitle,
    StopFallsText,
    StopCreepsText,
    StopStaysText,
    LensRingTitle,
    LensElectronicsText,
    LensStopsText,
    LensThrowText,
    PanBarTitle,
    PanBarText,
    UnknownText,
    FixTeeth,
    FixMicrosteps,
    FixShotAcceleration,
    FixShotEase,
    FixJerk,
    FixShotSpeed,
    FixShotTime,
    FixSupplyVoltage,
    FixRunCurrent,
    FixHoldCurrent,
    FixReduction,
    FixBrake,
    FixDistance,
    FixController,
    FixDecimals,
    FixMaxSpeed,
    FixMaxAcceleration,
    FixStopKeepsHolding,
    FixMetalMount,
    FixFaceWidth,
    FixClosedCord,
    FixKnob,
    messageCount_
};

/// A quantity that a sentence names.
struct Argument {
    units::Kind kind = units::Kind::Ratio;
    double value = 0.0;
};
using Arguments = std::array<Argument, 6>;

/// Names that a sentence may use.
struct Names {
    std::string_view axis;
    std::string_view shot;
};

/// Renders a message: {0} … {5} are quantities in the unit system, {axis} and {shot} names. Not finite: "–".
std::string render(MessageId id, const Arguments& arguments, const Names& names, units::System system);

/// The English text with its placeholders, the key for translation.
std::string_view textOf(MessageId id);

/// Why a figure has no number, to follow "not known: …".
std::string_view reasonText(Reason reason);

} // namespace gantry::words
