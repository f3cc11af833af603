// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/part_fields.h"

#include <QCoreApplication>
#include <numbers>

namespace gantry::app {
namespace {

QString tr(const char* text) {
    return QCoreApplication::translate("PartFields", text);
}

QList<FieldSlot> under(const QString& prefix, const QStringList& keys) {
    QList<FieldSlot> out;
    for (const QString& key : keys) out.push_back({prefix + key, {}, 1.0});
    return out;
}

QList<FieldSlot> linkFields(const Axis& axis, const QString& base, int index) {
    const Link& link = axis.links[static_cast<std::size_t>(index)];
    const QString prefix =
        base + QStringLiteral("links/") + QString::fromStdString(linkId(link)) + QLatin1Char('/');
    if (std::holds_alternative<Coupling>(link)) return under(prefix, {"stiffness_Nm_rad", "inertia_kgm2"});
    QStringList keys{"motor_teeth", "load_teeth"};
    if (std::holds_alternative<BeltStage>(link)) keys << "pitch_m";
    keys << "efficiency"
         << "backlash_rad"
         << "stiffness_Nm_rad"
         << "inertia_kgm2";
    return under(prefix, keys);
}

} // namespace

QList<FieldSlot> fieldsOfPart(const Context& context, const ChainColumn& column) {
    const Axis* axis = context.axis();
    if (axis == nullptr) return {};
    const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id));
    const bool linear = kindOf(*axis) == AxisKind::Linear;
    switch (column.part) {
    case ChainPart::Driver: {
        QList<FieldSlot> out = under(base + QStringLiteral("driver/"), {"microsteps", "run_current_rms_A"});
        out.push_back({base + QStringLiteral("driver/run_current_rms_A"), tr("Run current, peak"),
                       std::numbers::sqrt2});
        out += under(base + QStringLiteral("driver/"),
                     {"hold_current_rms_A", "max_current_rms_A", "max_voltage_V", "bridge_resistance_ohm"});
        out += under(QStringLiteral("supply/"), {"voltage_V", "low_voltage_V", "source_resistance_ohm"});
        return out;
    }
    case ChainPart::Motor: {
        QList<FieldSlot> out =
            under(base + QStringLiteral("motor/"),
                  {"name", "holding_torque_Nm", "rated_current_A", "resistance_ohm", "inductance_H",
                   "rotor_inertia_kgm2", "rotor_teeth", "detent_torque_Nm", "step_accuracy"});
        out += under(base, {"wanted_margin"});
        return out;
    }
    case ChainPart::Link:
        return linkFields(*axis, base, column.link);
    case ChainPart::Output:
        if (linear)
            return under(base + QStringLiteral("mechanism/output/"),
                         {"teeth", "pitch_m", "backlash_m", "pulley_inertia_kgm2"});
        return under(base + QStringLiteral("mechanism/output/"),
                     {"pinion_teeth", "ring_teeth", "efficiency", "backlash_rad", "stiffness_Nm_rad"});
    case ChainPart::Belt: {
        QList<FieldSlot> out =
            under(base + QStringLiteral("mechanism/output/"), {"efficiency", "tensile_stiffness_N"});
        out += under(base + QStringLiteral("mechanism/"), {"frame_stiffness_N_m", "rail_length_m"});
        return out;
    }
    case ChainPart::Load:
        if (linear) {
            QList<FieldSlot> out =
                under(base + QStringLiteral("mechanism/"),
                      {"moving_mass_kg", "slope_rad", "running_friction_N", "static_friction_N",
                       "rail_length_m", "carriage_length_m", "bumper_length_m"});
            out += under(base + QStringLiteral("brake/"), {"fitted", "holding_torque_Nm"});
            return out;
        } else {
            QList<FieldSlot> out = under(base + QStringLiteral("mechanism/"),
                                         {"inertia_kgm2", "point_mass_kg", "point_radius_m", "friction_Nm",
                                          "static_friction_Nm", "unbalance_Nm", "range_rad"});
            if (std::holds_alternative<DirectOutput>(std::get<RotaryMechanism>(axis->mechanism).output))
                out += under(base + QStringLiteral("mechanism/output/"), {"stiffness_Nm_rad"});
            out += under(base + QStringLiteral("brake/"), {"fitted", "holding_torque_Nm"});
            return out;
        }
    case ChainPart::Picture: {
        QList<FieldSlot> out;
        if (const ShotEvaluation* s = context.shotEvaluation()) {
            const QString shot =
                QStringLiteral("shots/%1/")
                    .arg(QString::fromStdString(
                        context.document.project().shots[static_cast<std::size_t>(s->shot)].id));
            out = under(shot, {"focal_length_m", "subject_distance_m", "frame_rate_hz", "exposure_s"});
            out += under(shot + QStringLiteral("limits/"),
                         {"jitter_px", "drift_px_per_frame", "repeat_px", "framing_share"});
        }
        out += under(QStringLiteral("camera/"), {"delivered_width"});
        return out;
    }
    }
    return {};
}

} // namespace gantry::app
