// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/part_words.h"

#include "core/units/text.h"

#include "core/model/kind_traits.h"
#include "core/model/kinds.h"
#include "core/model/overload.h"

#include <QCoreApplication>

namespace gantry::app {
namespace {

using units::Kind;

struct PartWords {
    Q_DECLARE_TR_FUNCTIONS(PartWords)
};
QString teeth(int a, int b) {
    return QStringLiteral("%1 : %2 T").arg(a).arg(b);
}

struct LinkWords {
    const Context& c;
    QString operator()(const Coupling&) const { return QStringLiteral("1 : 1"); }
    QString operator()(const BeltStage& s) const { return teeth(s.motorTeeth, s.loadTeeth); }
    QString operator()(const GearStage& s) const { return teeth(s.motorTeeth, s.loadTeeth); }
    QString operator()(const PlanetaryStage& s) const {
        return QStringLiteral("%1 + %2 T × %3").arg(s.sunTeeth).arg(s.ringTeeth).arg(s.stages);
    }
    QString operator()(const StrainWaveStage& s) const { return QStringLiteral("%1 : 2 T").arg(s.flexTeeth); }
    QString operator()(const WormStage& s) const {
        return QStringLiteral("%1 : %2").arg(s.wheelTeeth).arg(s.starts);
    }
    QString operator()(const ReducerStage& s) const {
        return QStringLiteral("%1 : %2").arg(s.numerator).arg(s.denominator);
    }
    QString operator()(const RollerStage& s) const {
        return QStringLiteral("%1 on %2")
            .arg(c.show(s.rollerDiameter.value, Kind::Length), c.show(s.wheelDiameter.value, Kind::Length));
    }
};

struct OutputWords {
    const Context& c;
    QString operator()(const BeltOutput& o) const {
        return QStringLiteral("%1T × %2").arg(o.teeth).arg(c.show(o.pitch.value, Kind::PartLength, 4));
    }
    QString operator()(const ScrewOutput& o) const {
        return PartWords::tr("lead %1").arg(c.show(o.lead.value, Kind::PartLength));
    }
    QString operator()(const RackOutput& o) const {
        return PartWords::tr("%1T module %2").arg(o.teeth).arg(c.show(o.module.value, Kind::PartLength));
    }
    QString operator()(const WheelOutput& o) const {
        return PartWords::tr("Ø %1").arg(c.show(o.diameter.value, Kind::Length));
    }
    QString operator()(const WinchOutput& o) const {
        return PartWords::tr("drum Ø %1").arg(c.show(o.drumDiameter.value, Kind::Length));
    }
    QString operator()(const DirectOutput&) const { return QStringLiteral("1 : 1"); }
    QString operator()(const RingOutput& o) const { return teeth(o.pinionTeeth, o.ringTeeth); }
    QString operator()(const LensRingOutput& o) const { return teeth(o.pinionTeeth, o.ringTeeth); }
};

struct MotorWords {
    const Context& c;
    QString operator()(const Stepper& m) const { return c.show(m.holdingTorque.value, Kind::Torque); }
    QString operator()(const ServoMotor& m) const { return c.show(m.ratedTorque.value, Kind::Torque); }
    QString operator()(const DcServo& m) const { return c.show(m.figures.ratedTorque.value, Kind::Torque); }
    QString operator()(const GearedDc& m) const {
        return c.show(m.figures.noLoadSpeed.value, Kind::RotationRate);
    }
    QString operator()(const HobbyServo& m) const { return c.show(m.stallTorque.value, Kind::Torque); }
};

/// Volts that the motor really runs on.
double voltsOf(const Context& c, const Axis& axis) {
    const double supply = c.document.project().supply.voltage.value;
    return std::visit(overload{[&](const Stepper&) { return supply; },
                               [&](const ServoMotor&) { return supply; },
                               [&](const DcServo&) { return supply; },
                               [&](const GearedDc& m) {
                                   return m.control == SpeedControl::Knob ? supply : m.appliedVoltage;
                               },
                               [](const HobbyServo& m) { return m.supplyVoltage; }},
                      axis.motor);
}

/// What is set at the driver of each kind of motor.
struct DriverWords {
    const Context& c;
    const Axis& axis;
    QString volts() const { return c.show(voltsOf(c, axis), Kind::Voltage); }
    QString operator()(const Stepper&) const {
        return QStringLiteral("1/%1 · %2")
            .arg(axis.driver.microsteps)
            .arg(c.show(c.document.project().controller.pulseCeiling, Kind::Frequency));
    }
    QString operator()(const ServoMotor&) const { return volts(); }
    QString operator()(const DcServo&) const { return volts(); }
    QString operator()(const GearedDc& m) const {
        return m.control == SpeedControl::Knob
                   ? PartWords::tr("speed knob at %1").arg(c.show(m.knob, Kind::Percentage))
                   : volts();
    }
    QString operator()(const HobbyServo& m) const {
        return PartWords::tr("pulses at %1").arg(c.show(m.updateRate, Kind::Frequency));
    }
};

template <class F>
QString ofOutput(const Axis& axis, F words) {
    return std::visit([&](const auto& m) { return std::visit(words, m.output); }, axis.mechanism);
}

} // namespace

QString partName(const Context& context, const ChainColumn& c) {
    const Axis* axis = context.axis();
    if (axis == nullptr) return {};
    const bool linear = kindOf(*axis) == AxisKind::Linear;
    switch (c.part) {
    case ChainPart::Driver:
        return PartWords::tr("Driver");
    case ChainPart::Motor:
        return PartWords::tr("Motor");
    case ChainPart::Link:
        if (c.link >= static_cast<int>(axis->links.size())) return {};
        return QString::fromUtf8(labelOf(axis->links[static_cast<std::size_t>(c.link)]));
    case ChainPart::Output: {
        if (outputTraits(*axis).flexible && !outputTraits(*axis).pullsOnly) return PartWords::tr("Pulley");
        return std::visit([](const auto& m) { return QString::fromUtf8(labelOf(m.output)); },
                          axis->mechanism);
    }
    case ChainPart::Belt:
        return outputTraits(*axis).pullsOnly ? PartWords::tr("Cord") : PartWords::tr("Belt");
    case ChainPart::Load:
        return linear ? PartWords::tr("Carriage") : PartWords::tr("Load");
    case ChainPart::Picture:
        return PartWords::tr("Picture");
    }
    return {};
}

QString partDetail(const Context& context, const ChainColumn& c) {
    const Axis* axis = context.axis();
    if (axis == nullptr) return {};
    const auto* linear = std::get_if<LinearMechanism>(&axis->mechanism);
    switch (c.part) {
    case ChainPart::Driver:
        return std::visit(DriverWords{context, *axis}, axis->motor);
    case ChainPart::Motor:
        return QStringLiteral("%1 · %2").arg(std::visit(MotorWords{context}, axis->motor),
                                             context.show(voltsOf(context, *axis), Kind::Voltage));
    case ChainPart::Link:
        return std::visit(LinkWords{context}, axis->links[static_cast<std::size_t>(c.link)]);
    case ChainPart::Output:
        return ofOutput(*axis, OutputWords{context});
    case ChainPart::Belt:
        if (const auto* winch = std::get_if<WinchOutput>(&linear->output))
            return PartWords::tr("Ø %1").arg(context.show(winch->cordDiameter.value, Kind::PartLength));
        return PartWords::tr("EA %1").arg(
            context.show(std::get<BeltOutput>(linear->output).tensileStiffness.value, Kind::Force));
    case ChainPart::Load:
        if (linear != nullptr)
            return PartWords::tr("%1 · %2 up")
                .arg(context.show(movingMass(context.document.project().payload, *axis, *linear), Kind::Mass),
                     context.show(linear->slope.value, Kind::Angle));
        if (const AxisEvaluation* e = context.axisEvaluation())
            return context.show(e->model.chain.load.inertia, Kind::LoadInertia);
        return {};
    case ChainPart::Picture:
        if (const ShotEvaluation* s = context.shotEvaluation()) {
            const Shot& shot = context.document.project().shots[s->shot.at()];
            // A tile is narrow: metres where there is one.
            const bool metres = context.system() == units::System::Metric && shot.subjectDistance >= 1.0;
            return PartWords::tr("%1 at %2")
                .arg(context.show(shot.focalLength, Kind::PartLength),
                     metres ? PartWords::tr("%1 m").arg(
                                  QString::fromStdString(units::plainNumber(shot.subjectDistance, 1)))
                            : context.show(shot.subjectDistance, Kind::Length));
        }
        return {};
    }
    return {};
}

QString partFindings(const Context& context, const ChainColumn& c) {
    const AxisEvaluation* e = context.axisEvaluation();
    if (e == nullptr) return {};
    QStringList said;
    const auto add = [&](const QString& words, const Figure& f, Kind kind) {
        if (f) said << words.arg(context.show(f, kind));
    };
    if (c.part == ChainPart::Motor) {
        add(PartWords::tr("case %1"), e->checks.caseTemperature, Kind::Celsius);
        if (e->checks.shaftRadial && e->checks.shaftRadial.value() > 0.0)
            add(PartWords::tr("shaft pull %1"), e->checks.shaftRadial, Kind::Force);
        if (e->checks.shaftAxial && e->checks.shaftAxial.value() > 0.0)
            add(PartWords::tr("shaft thrust %1"), e->checks.shaftAxial, Kind::Force);
        if (const ShotEvaluation* s = context.shotEvaluation()) {
            if (!e->model.stepper()) add(PartWords::tr("rms %1"), s->torque.rms, Kind::Torque);
            if (s->regulator.heat)
                said << PartWords::tr("regulator %1 W, %2")
                            .arg(context.show(s->regulator.heat, Kind::Ratio),
                                 context.show(s->regulator.temperature, Kind::Celsius));
            add(PartWords::tr("draws %1"), s->sourceCurrent, Kind::Current);
            add(PartWords::tr("needs %1 of full setting"), s->knob.setting, Kind::Percentage);
        }
        add(PartWords::tr("stalled %1"), e->checks.stallCurrent, Kind::Current);
        return said.join(QStringLiteral(" · "));
    }
    if (c.part == ChainPart::Driver) {
        const SupplyEvaluation& s = context.document.assessment().evaluation.supply;
        if (!s.voltage) return QString::fromUtf8(words::reasonText(s.voltage.reason()).data());
        said << PartWords::tr("all drives at their worst take %1 W, %2; %3 arrive")
                    .arg(context.show(s.power, Kind::Ratio), context.show(s.current, Kind::Current),
                         context.show(s.voltage, Kind::Voltage));
        add(PartWords::tr("the battery lasts %1 so"), s.runTime, Kind::Time);
        return said.join(QStringLiteral(" · "));
    }
    const int link = c.part == ChainPart::Link ? c.link : -1;
    if (c.part == ChainPart::Link || c.part == ChainPart::Output || c.part == ChainPart::Belt)
        for (const PartCheck& p : e->checks.parts)
            if (p.link == link) {
                add(PartWords::tr("centre distance %1"), p.centreDistance, Kind::Length);
                if (p.meshes)
                    said << PartWords::tr("%1 teeth in mesh")
                                .arg(context.show(p.meshes.value() * 6.0, Kind::Ratio));
                add(PartWords::tr("%1 pairs in contact"), p.contactRatio, Kind::Ratio);
                add(PartWords::tr("strength ×%1"), p.strength, Kind::Ratio);
                add(PartWords::tr("grip ×%1"), p.slip, Kind::Ratio);
            }
    if (c.part == ChainPart::Output || c.part == ChainPart::Belt) {
        add(PartWords::tr("whips from %1"), e->checks.whirlSpeed, Kind::Speed);
        add(PartWords::tr("buckles at %1"), e->checks.bucklingLoad, Kind::Force);
        add(PartWords::tr("cord factor %1"), e->checks.cordRatio, Kind::Ratio);
        if (e->checks.windingLayers && e->checks.windingLayers.value() > 1.0 && e->checks.stepsPerUnitFirst)
            said << PartWords::tr("%1 layers: %2 to %3 steps/mm")
                        .arg(context.show(e->checks.windingLayers, Kind::Count),
                             context.show(e->checks.stepsPerUnitFirst, Kind::Ratio),
                             context.show(e->checks.stepsPerUnitLast, Kind::Ratio));
        add(PartWords::tr("turns on %1"), e->checks.turningRadius, Kind::Length);
        if (e->checks.locks) said << PartWords::tr("locks at rest");
    }
    if (c.part == ChainPart::Load) {
        add(PartWords::tr("bearing %1"), e->checks.bearingLoad, Kind::Force);
        add(PartWords::tr("play turns it %1"), e->checks.guideRotation, Kind::Angle);
        add(PartWords::tr("pan bar %1"), e->checks.panBarTurn, Kind::Angle);
        if (const ShotEvaluation* s = context.shotEvaluation(); s && s->carried && s->carried.value() > 0.0)
            said << PartWords::tr("axes below add %1").arg(context.show(s->carried, Kind::Torque));
    }
    return said.join(QStringLiteral(" · "));
}

QString driveInShort(const Context& context, const Axis& axis, const AxisEvaluation& e) {
    if (const auto* m = std::get_if<LinearMechanism>(&axis.mechanism)) {
        if (const auto* belt = std::get_if<BeltOutput>(&m->output))
            return PartWords::tr("%1T belt").arg(belt->teeth);
        return ofOutput(axis, OutputWords{context});
    }
    return axis.links.empty() && outputTraits(axis).none
               ? PartWords::tr("direct")
               : PartWords::tr("%1:1").arg(context.show(e.totalRatio, Kind::Ratio));
}

} // namespace gantry::app
