// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/working.h"

#include "core/words/part_name.h"
#include "core/working/axis_sheet.h"
#include "core/working/rig_terms.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

namespace gantry::working {
namespace {

/// How one figure is worked out, and where its model is taken from.
struct ExplainedFigure {
    std::string_view key;
    Term (*term)(AxisSheet&);
    const char* reference;
    bool ofShot = true;
};

constexpr const char
    *chain = "docs/models/drive-chain.md",
    *picture = "docs/models/picture.md", *stepper = "docs/models/stepper-torque.md",
    *masses = "docs/models/two-masses.md", *beams = "docs/models/beams.md",
    *backlash = "docs/models/backlash.md", *windUp = "docs/models/wind-up.md",
    *settling = "docs/models/settling.md",
    *motors = "docs/models/stepper-torque.md; Hughes & Drury, Electric Motors and Drives, ch. 2, 3";

Term margin(AxisSheet& s) {
    const Term start = s.torqueAvailable(0.0) / s.breakawayTorque();
    if (s.model().oneSpeed) return min(s.torqueAvailable(0.0) / s.torqueNeeded(s.acceleration()), start);
    return min(s.torqueAvailable(s.motorSpeed()) / s.torqueNeeded(s.acceleration()), start);
}

Term available(AxisSheet& s) {
    return s.torqueAvailable(s.model().oneSpeed ? Term(0.0) : s.motorSpeed());
}

constexpr std::array explained{
    ExplainedFigure{"steps_per_unit", [](AxisSheet& s) { return s.stepsPerUnit(); }, chain, false},
    ExplainedFigure{"steps_per_unit_kept", [](AxisSheet& s) { return s.stepsKept(); }, chain, false},
    ExplainedFigure{"rounding_share", [](AxisSheet& s) { return s.stepsKept() / s.stepsPerUnit() - 1.0; },
                    chain, false},
    ExplainedFigure{"total_ratio", [](AxisSheet& s) { return s.shaftRatio(); }, chain, false},
    ExplainedFigure{"travel_per_motor_rev_m", [](AxisSheet& s) { return 2.0 * pi() * s.travelPerRad(); },
                    chain, false},
    ExplainedFigure{"step_m", [](AxisSheet& s) { return s.microstep(); }, chain, false},
    ExplainedFigure{"inertia_at_motor_kgm2", [](AxisSheet& s) { return s.inertiaAtMotor(); }, chain, false},
    ExplainedFigure{"rotor_inertia_kgm2", [](AxisSheet& s) { return s.motorInertia(); }, chain, false},
    ExplainedFigure{"load_inertia_kgm2", [](AxisSheet& s) { return s.inertiaAtMotor() - s.motorInertia(); },
                    chain, false},
    ExplainedFigure{"inertia_ratio",
                    [](AxisSheet& s) { return (s.inertiaAtMotor() - s.motorInertia()) / s.motorInertia(); },
                    chain, false},
    ExplainedFigure{"natural_frequency_hz", [](AxisSheet& s) { return s.rotorFrequency(); }, masses, false},
    ExplainedFigure{"pulse_limit_speed_m_s", [](AxisSheet& s) { return s.pulseLimit(); }, chain, false},
    ExplainedFigure{"torque_limit_speed_m_s", [](AxisSheet& s) { return s.fastestByTorque(); }, motors,
                    false},
    ExplainedFigure{"hold_torque_needed_Nm",
                    [](AxisSheet& s) {
                        const Term load = s.steadyLoad();
                        return (load.value() < 0.0 ? -load : load) * s.travelPerRad();
                    },
                    chain, false},
    ExplainedFigure{"motor_speed_rpm", [](AxisSheet& s) { return s.motorSpeed(); }, chain},
    ExplainedFigure{"pulse_rate_hz", [](AxisSheet& s) { return s.pulseRate(); }, chain},
    ExplainedFigure{"kinetic_energy_J",
                    [](AxisSheet& s) { return 0.5 * s.inertiaAtMotor() * squared(s.motorSpeed()); }, chain},
    ExplainedFigure{"force_needed_N", [](AxisSheet& s) { return s.forceNeeded(s.acceleration()); }, chain},
    ExplainedFigure{"torque_needed_Nm", [](AxisSheet& s) { return s.torqueNeeded(s.acceleration()); }, chain},
    ExplainedFigure{"breakaway_torque_Nm", [](AxisSheet& s) { return s.breakawayTorque(); }, chain},
    ExplainedFigure{"torque_available_Nm", available, motors},
    ExplainedFigure{"torque_margin", margin, stepper},
    ExplainedFigure{"max_acceleration_m_s2", [](AxisSheet& s) { return s.hardestRamp(); }, chain},
    ExplainedFigure{"wind_up_m", [](AxisSheet& s) { return s.windUpTravel(); }, windUp},
    ExplainedFigure{"lag_rad",
                    [](AxisSheet& s) { return s.lag(s.torqueNeeded(s.acceleration()), s.motorSpeed()); },
                    picture},
    ExplainedFigure{"lag_m",
                    [](AxisSheet& s) {
                        return s.lag(s.torqueNeeded(s.acceleration()), s.motorSpeed()) * s.travelPerRad();
                    },
                    picture},
    ExplainedFigure{"stretch_m", [](AxisSheet& s) { return s.stretchTravel(); }, picture},
    ExplainedFigure{"lag_px", [](AxisSheet& s) { return s.lagPixels(); }, picture},
    ExplainedFigure{"step_px", [](AxisSheet& s) { return s.microstep() * s.pixelsPerUnit(); }, picture},
    ExplainedFigure{"stepping_px", [](AxisSheet& s) { return s.steppingPixels(); }, picture},
    ExplainedFigure{"step_accuracy_px", [](AxisSheet& s) { return s.stepAccuracyPixels(); }, picture},
    ExplainedFigure{"friction_band_px", [](AxisSheet& s) { return s.frictionBandPixels(); }, picture},
    ExplainedFigure{"idle_shift_px", [](AxisSheet& s) { return s.idleShiftPixels(); }, picture},
    ExplainedFigure{"rounding_px", [](AxisSheet& s) { return s.roundingPixels(); }, picture},
    ExplainedFigure{"backlash_px", [](AxisSheet& s) { return s.backlashPixels(); }, backlash},
    ExplainedFigure{"stretch_px", [](AxisSheet& s) { return s.stretchPixels(); }, picture},
    ExplainedFigure{"drift_px_per_frame", [](AxisSheet& s) { return s.driftPixels(); }, picture},
    ExplainedFigure{"jitter_px", [](AxisSheet& s) { return s.jitterPixels(); }, picture},
    ExplainedFigure{"repeat_px", [](AxisSheet& s) { return s.repeatPixels(); }, picture},
    ExplainedFigure{"framing_px", [](AxisSheet& s) { return s.framingPixels(); }, picture},
    ExplainedFigure{"rocking_px", [](AxisSheet& s) { return s.rockingPixels(); }, settling},
    ExplainedFigure{"rocking_time_s", [](AxisSheet& s) { return s.settlingTime(); }, settling},
    ExplainedFigure{"sag_px", [](AxisSheet& s) { return s.sagPixels(); }, beams},
    ExplainedFigure{"frequency_hz", [](AxisSheet& s) { return s.axisFrequency(); }, beams, false},
    ExplainedFigure{"sag_m", [](AxisSheet& s) { return s.sag(); }, beams, false},
};

/// How a cell of the drive-train table is worked out; null where its column has no such thing.
using ChainTerm = Term (*)(AxisSheet&, std::size_t stages);
struct ExplainedCell {
    std::string_view key;
    ChainPart part;
    ChainTerm term;
};
using P = ChainPart;
constexpr ChainTerm shaftSpeed = [](AxisSheet& s, std::size_t n) { return s.shaftSpeed(n); };
constexpr ChainTerm shaftCommand = [](AxisSheet& s, std::size_t n) { return s.shaftCommand(n); };
constexpr ChainTerm needed = [](AxisSheet& s, std::size_t n) { return s.neededBehind(n); };
constexpr ChainTerm left = [](AxisSheet& s, std::size_t n) { return s.availableBehind(n); };
constexpr ChainTerm topSpeed = [](AxisSheet& s, std::size_t) { return s.topSpeed(); };
constexpr ChainTerm stretch = [](AxisSheet& s, std::size_t) { return s.stretchTravel(); };
constexpr std::array cells{
    ExplainedCell{"speed", P::Driver, [](AxisSheet& s, std::size_t) { return s.pulseRate(); }},
    ExplainedCell{"speed", P::Motor, [](AxisSheet& s, std::size_t) { return s.motorSpeed(); }},
    ExplainedCell{"speed", P::Link, shaftSpeed},
    ExplainedCell{"speed", P::Output, shaftSpeed},
    ExplainedCell{"speed", P::Belt, topSpeed},
    ExplainedCell{"speed", P::Load, topSpeed},
    ExplainedCell{"speed", P::Picture, [](AxisSheet& s, std::size_t) { return s.speedPerFrame(); }},
    ExplainedCell{"needed", P::Motor,
                  [](AxisSheet& s, std::size_t) { return s.torqueNeeded(s.acceleration()); }},
    ExplainedCell{"needed", P::Link, needed},
    ExplainedCell{"needed", P::Output, needed},
    ExplainedCell{"needed", P::Belt, needed},
    ExplainedCell{"needed", P::Load,
                  [](AxisSheet& s, std::size_t) { return s.forceNeeded(s.acceleration()); }},
    ExplainedCell{"available", P::Motor, [](AxisSheet& s, std::size_t) { return available(s); }},
    ExplainedCell{"available", P::Link, left},
    ExplainedCell{"available", P::Output, left},
    ExplainedCell{"available", P::Belt, left},
    ExplainedCell{"available", P::Load, left},
    ExplainedCell{"inertia", P::Motor, [](AxisSheet& s, std::size_t) { return s.motorInertia(); }},
    ExplainedCell{"inertia", P::Link, [](AxisSheet& s, std::size_t n) { return s.partInertia(P::Link, n); }},
    ExplainedCell{"inertia", P::Output,
                  [](AxisSheet& s, std::size_t n) { return s.partInertia(P::Output, n); }},
    ExplainedCell{"inertia", P::Load,
                  [](AxisSheet& s, std::size_t) { return s.inertiaAtMotor() - s.motorInertia(); }},
    ExplainedCell{
        "inertia", P::Picture,
        [](AxisSheet& s, std::size_t) { return (s.inertiaAtMotor() - s.motorInertia()) / s.motorInertia(); }},
    ExplainedCell{"microstep", P::Motor, shaftCommand},
    ExplainedCell{"microstep", P::Link, shaftCommand},
    ExplainedCell{"microstep", P::Output, shaftCommand},
    ExplainedCell{"microstep", P::Load, [](AxisSheet& s, std::size_t) { return s.microstep(); }},
    ExplainedCell{"microstep", P::Picture,
                  [](AxisSheet& s, std::size_t) { return s.microstep() * s.pixelsPerUnit(); }},
    ExplainedCell{
        "lag", P::Motor,
        [](AxisSheet& s, std::size_t) { return s.lag(s.torqueNeeded(s.acceleration()), s.motorSpeed()); }},
    ExplainedCell{"lag", P::Load,
                  [](AxisSheet& s, std::size_t) {
                      return s.lag(s.torqueNeeded(s.acceleration()), s.motorSpeed()) * s.travelPerRad();
                  }},
    ExplainedCell{"lag", P::Picture, [](AxisSheet& s, std::size_t) { return s.lagPixels(); }},
    ExplainedCell{"stretch", P::Belt, stretch},
    ExplainedCell{"stretch", P::Load, stretch},
    ExplainedCell{"stretch", P::Picture, [](AxisSheet& s, std::size_t) { return s.stretchPixels(); }},
    ExplainedCell{"play", P::Load, [](AxisSheet& s, std::size_t) { return s.backlash(); }},
    ExplainedCell{"play", P::Picture,
                  [](AxisSheet& s, std::size_t) { return s.backlash() * s.pixelsPerUnit(); }},
};

constexpr std::string_view tippingKey = "tipping_ratio";

const ExplainedCell* cellOf(const PlacedFigure& figure) {
    const auto how = std::find_if(cells.begin(), cells.end(), [&](const ExplainedCell& c) {
        return c.key == figure.key && c.part == *figure.part;
    });
    // The setting of a knob stands where others have their pulses.
    if (figure.part == P::Driver && figure.info.kind != units::Kind::Frequency) return nullptr;
    return how == cells.end() ? nullptr : &*how;
}

const ExplainedFigure* explainedOf(const PlacedFigure& figure) {
    const auto how = std::find_if(explained.begin(), explained.end(), [&](const ExplainedFigure& e) {
        return e.key == figure.info.key && e.ofShot == (figure.shot != nullptr);
    });
    return how == explained.end() ? nullptr : &*how;
}

/// What a figure is called: of a cell of the table with its place, "needed behind the 20:80 belt".
std::string labelOf(const Project& project, const PlacedFigure& figure) {
    std::string label(figure.info.label);
    if (!figure.part) return label;
    const Axis& axis = project.axes[static_cast<std::size_t>(figure.axis)];
    switch (*figure.part) {
    case P::Driver:
        return label + " of the driver";
    case P::Motor:
        return label + " at the motor";
    case P::Link:
        return label + " behind the " + words::partName(axis, static_cast<int>(figure.stages) - 1);
    case P::Output:
        return label + (figure.linear ? " at the last shaft" : " at the output");
    case P::Belt:
        return label + " in the " + words::partName(axis, -1);
    case P::Load:
        return label + " at the load";
    case P::Picture:
        return label + " in the picture";
    }
    return label;
}

std::optional<Working> ofAxis(const Project& project, const Evaluation& evaluation,
                              const PlacedFigure& figure, const ShotEvaluation* shot,
                              const std::function<Term(AxisSheet&)>& how, const char* reference) {
    // A winch is sized with its drum full and counts its pulses with the drum bare.
    for (const auto drum : {AxisSheet::Drum::Full, AxisSheet::Drum::Bare}) {
        const auto axis = static_cast<std::size_t>(figure.axis);
        if (drum == AxisSheet::Drum::Bare && evaluation.axes[axis].model.layerSpread() == 1.0) break;
        AxisSheet sheet(project, evaluation, axis, shot, drum);
        const Term term = how(sheet);
        if (meets(term.value(), figure.figure.value()))
            return sheet.finish(labelOf(project, figure), figure.kind(), term, reference);
    }
    return std::nullopt;
}

} // namespace

bool meets(double value, double figure) {
    return value == figure || std::abs(value - figure) <= 1e-9 * std::abs(figure);
}

bool isExplained(const PlacedFigure& figure) {
    if (figure.axis < 0) return figure.key == tippingKey;
    // Of an axis that no shot moves nothing says at what speed.
    if (figure.path.find("/capability/") != std::string::npos) return figure.shot != nullptr;
    return figure.part ? cellOf(figure) != nullptr : explainedOf(figure) != nullptr;
}

std::optional<Working> workingOf(const Project& project, const Evaluation& evaluation,
                                 const PlacedFigure& figure) {
    if (!figure.figure || !isExplained(figure)) return std::nullopt;
    if (figure.axis < 0) {
        Sheet sheet(project);
        const std::optional<Term> ratio = tippingRatio(sheet, evaluation);
        if (!ratio || !meets(ratio->value(), figure.figure.value())) return std::nullopt;
        return sheet.finish(std::string(figure.info.label), figure.kind(), *ratio, "docs/models/standing.md");
    }
    if (evaluation.axes[static_cast<std::size_t>(figure.axis)].model.missing != Reason::None)
        return std::nullopt;
    if (figure.part) {
        const ExplainedCell* how = cellOf(figure);
        if (how == nullptr) return std::nullopt;
        return ofAxis(
            project, evaluation, figure, figure.shot,
            [&](AxisSheet& s) { return how->term(s, figure.stages); }, chain);
    }
    if (figure.path.find("/capability/") != std::string::npos) {
        const double known = figure.figure.value();
        return ofAxis(
            project, evaluation, figure, figure.shot,
            [&](AxisSheet& s) {
                if (figure.key == "slope_rad") return s.capableLoad(true, known);
                if (figure.key.starts_with("acceleration")) return s.capableRamp(known);
                if (figure.key.starts_with("speed")) return s.capableSpeed(known);
                return s.capableLoad(false, known);
            },
            chain);
    }
    const ExplainedFigure* how = explainedOf(figure);
    if (how == nullptr) return std::nullopt;
    return ofAxis(project, evaluation, figure, how->ofShot ? figure.shot : nullptr, how->term,
                  how->reference);
}

} // namespace gantry::working
