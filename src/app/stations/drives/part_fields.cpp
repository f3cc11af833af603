// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/part_fields.h"
#include "core/model/kind_traits.h"
#include "core/model/overload.h"

#include <QCoreApplication>
#include <numbers>

namespace gantry::app {
namespace {

struct PartFields {
    Q_DECLARE_TR_FUNCTIONS(PartFields)
};

QList<FieldSlot> under(const QString& prefix, const QStringList& keys) {
    QList<FieldSlot> out;
    for (const QString& key : keys) out.push_back({prefix + key, {}, 1.0});
    return out;
}

/// Every field of the project below a prefix, in file order, without ids.
class Described {
public:
    explicit Described(const Project& project) : copy_(project), all_(allFields(copy_)) {}

    /// `deep`: also those of parts within.
    QList<FieldSlot> below(const QString& prefix, bool deep = true, const QStringList& without = {}) const {
        QList<FieldSlot> out;
        const std::string start = prefix.toStdString();
        for (const FieldRef& f : all_) {
            if (!f.path.starts_with(start)) continue;
            const QString rest = QString::fromStdString(f.path.substr(start.size()));
            if ((!deep && rest.contains(QLatin1Char('/'))) || rest == QLatin1String("id") ||
                rest.endsWith(QLatin1String("/id")) || without.contains(rest))
                continue;
            out.push_back({prefix + rest, {}, 1.0});
        }
        return out;
    }

private:
    Project copy_;
    std::vector<FieldRef> all_;
};

const QStringList bodyKeys{"mass_kg",         "length_m",       "thermal_resistance_K_W",
                           "radial_rating_N", "axial_rating_N", "mount"};

QList<FieldSlot> stepperDriverFields(const Stepper& motor, const QString& driver) {
    if (motor.winding == Winding::Unipolar)
        return under(driver, {"name", "microsteps", "max_voltage_V", "bridge_resistance_ohm"});
    QList<FieldSlot> out = under(driver, {"name", "microsteps", "run_current_rms_A"});
    out.push_back({driver + QStringLiteral("run_current_rms_A"), PartFields::tr("Run current, peak"),
                   std::numbers::sqrt2});
    return out + under(driver,
                       {"hold_current_rms_A", "max_current_rms_A", "max_voltage_V", "bridge_resistance_ohm"});
}

QList<FieldSlot> dcServoDriverFields(const QString& driver) {
    QList<FieldSlot> out = under(driver, {"name"});
    out.push_back({driver + QStringLiteral("run_current_rms_A"), PartFields::tr("Current limit"), 1.0});
    return out + under(driver, {"max_current_rms_A", "max_voltage_V", "bridge_resistance_ohm"});
}

QList<FieldSlot> driverFields(const Motor& motor, const QString& driver) {
    return std::visit(overload{[&](const Stepper& m) { return stepperDriverFields(m, driver); },
                               [&](const ServoMotor&) {
                                   return under(driver, {"name", "max_voltage_V"});
                               },
                               [&](const DcServo&) { return dcServoDriverFields(driver); },
                               [&](const GearedDc&) {
                                   return under(driver, {"name", "max_current_rms_A"});
                               },
                               [](const HobbyServo&) { return QList<FieldSlot>(); }},
                      motor);
}

/// Fields of a geared motor that its way of setting the speed does not use.
QStringList skippedBy(SpeedControl control) {
    const QStringList regulator{"regulator_dropout_V", "regulator_resistance_K_W"};
    if (control == SpeedControl::Knob) return regulator + QStringList{"applied_voltage_V"};
    return (control == SpeedControl::LinearRegulator ? QStringList{} : regulator) + QStringList{"knob"};
}

QList<FieldPage> motorPages(const Described& all, const Motor& motor, const QString& base) {
    const QString prefix = base + QStringLiteral("motor/");
    QStringList skip = bodyKeys;
    if (const auto* geared = std::get_if<GearedDc>(&motor)) skip << skippedBy(geared->control);
    QList<FieldPage> pages{{PartFields::tr("Data"), all.below(prefix, false, skip)}};
    const QList<FieldSlot> loop = all.below(prefix + QStringLiteral("loop/")),
                           encoder = all.below(prefix + QStringLiteral("encoder/"));
    if (!loop.isEmpty()) pages.push_back({PartFields::tr("Position loop"), loop});
    if (!encoder.isEmpty()) pages.push_back({PartFields::tr("Encoder"), encoder});
    pages.push_back({PartFields::tr("Body and mount"), under(prefix, bodyKeys)});
    pages.push_back({PartFields::tr("Cost"), under(base, {"candidate_note", "price"})});
    return pages;
}

FieldPage stopPage(const Described& all, const QString& base) {
    return {PartFields::tr("Brake and stop"),
            all.below(base + QStringLiteral("brake/")) + under(base, {"on_stop", "wanted_margin"})};
}

QList<FieldPage> loadPages(const Described& all, const Axis& axis, const QString& base) {
    const QString prefix = base + QStringLiteral("mechanism/");
    const QStringList lean{"lean_known", "lean_rad", "downhill_rad"};
    QList<FieldPage> pages{
        {PartFields::tr("Load"), all.below(prefix, false, lean + QStringList{"frame_stiffness_N_m"})}};
    if (kindOf(axis) == AxisKind::Linear)
        pages.push_back({PartFields::tr("Guides"), all.below(prefix + QStringLiteral("guide/"))});
    pages.push_back({PartFields::tr("Items"), all.below(prefix + QStringLiteral("items/")), PageList::Items});
    if (kindOf(axis) == AxisKind::Linear)
        pages.push_back({PartFields::tr("Pan bar"), all.below(prefix + QStringLiteral("pan_bar/"))});
    else {
        pages.push_back({PartFields::tr("Spring"), all.below(prefix + QStringLiteral("spring/"))});
        // Of an axis that ought to stand upright; what turns about a level one is weighed by its angle.
        if (!gravityTurns(axis.role)) {
            QList<FieldSlot> fields = under(prefix, lean.first(1));
            if (std::get<RotaryMechanism>(axis.mechanism).leanKnown)
                fields += {{prefix + lean[1], {}, 1.0},
                           {prefix + lean[2], PartFields::tr("Downhill from low end"), 1.0}};
            pages.push_back({PartFields::tr("Lean"), fields});
        }
        if (outputTraits(axis).none) pages.front().fields += all.below(prefix + QStringLiteral("output/"));
    }
    pages.push_back(stopPage(all, base));
    return pages;
}

QList<FieldPage> picturePages(const Context& context) {
    QList<FieldPage> pages;
    if (const ShotEvaluation* s = context.shotEvaluation()) {
        const Shot& now = context.document.project().shots[s->shot.at()];
        const QString shot = QStringLiteral("shots/%1/").arg(QString::fromStdString(now.id));
        QStringList keys{"focal_length_m", "subject_distance_m", "frame_rate_hz", "exposure_s"};
        if (const Axis* axis = context.axis(); axis != nullptr && axis->role == Role::Focus)
            keys << "f_number";
        pages.push_back({PartFields::tr("Shot"), under(shot, keys)});
        pages.push_back({PartFields::tr("Picture limits"),
                         under(shot + QStringLiteral("limits/"),
                               {"jitter_px", "drift_px_per_frame", "repeat_px", "framing_share"})});
    }
    pages.push_back({PartFields::tr("Camera"), under(QStringLiteral("camera/"), {"delivered_width"})});
    return pages;
}

} // namespace

namespace {

QList<FieldPage> wholePages(const Context& context, const ChainColumn& column) {
    const Axis* axis = context.axis();
    if (axis == nullptr) return {};
    const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id));
    const QString output = base + QStringLiteral("mechanism/output/");
    const Described all(context.document.project());
    switch (column.part) {
    case ChainPart::Driver: {
        QList<FieldPage> pages;
        if (const auto fields = driverFields(axis->motor, base + QStringLiteral("driver/"));
            !fields.isEmpty())
            pages.push_back({PartFields::tr("Driver"), fields});
        pages.push_back(
            {PartFields::tr("Supply"),
             under(QStringLiteral("supply/"), {"voltage_V", "low_voltage_V", "rated_current_A",
                                               "source_resistance_ohm", "cable_length_m", "cable_section_m2",
                                               "capacity_As", "rated_time_s", "peukert", "usable"})});
        return pages;
    }
    case ChainPart::Motor:
        return motorPages(all, axis->motor, base);
    case ChainPart::Link: {
        const Link& link = axis->links[static_cast<std::size_t>(column.link)];
        return {{PartFields::tr("Data"), all.below(base + QStringLiteral("links/") +
                                                   QString::fromStdString(linkId(link)) + QLatin1Char('/'))}};
    }
    case ChainPart::Output: {
        QList<FieldPage> pages{{PartFields::tr("Data"), all.below(output, false)}};
        if (outputTraits(*axis).lensRing)
            pages.push_back(
                {PartFields::tr("Marks"), all.below(output + QStringLiteral("marks/")), PageList::Marks});
        return pages;
    }
    case ChainPart::Belt:
        return {{PartFields::tr("Data"),
                 under(output, {"efficiency", "tensile_stiffness_N"}) +
                     under(base + QStringLiteral("mechanism/"), {"frame_stiffness_N_m", "rail_length_m"})}};
    case ChainPart::Load: {
        QList<FieldPage> pages = loadPages(all, *axis, base);
        // Without a belt or cord the mount's spring has no tile of its own.
        if (kindOf(*axis) == AxisKind::Linear && !outputTraits(*axis).flexible)
            pages.front().fields += under(base + QStringLiteral("mechanism/"), {"frame_stiffness_N_m"});
        return pages;
    }
    case ChainPart::Picture:
        return picturePages(context);
    }
    return {};
}

} // namespace

QList<FieldPage> pagesOfPart(const Context& context, const ChainColumn& column) {
    // Two rows of fields a page leave the plots below their room.
    constexpr qsizetype most = 10;
    QList<FieldPage> out;
    for (FieldPage& page : wholePages(context, column)) {
        if (page.list == PageList::None && page.fields.size() > most) {
            FieldPage rest{PartFields::tr("%1, more").arg(page.title), page.fields.mid(most)};
            page.fields = page.fields.first(most);
            out << page << rest;
        } else
            out << page;
    }
    return out;
}

} // namespace gantry::app
