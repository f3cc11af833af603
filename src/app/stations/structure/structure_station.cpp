// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/structure_station.h"

#include "app/instruments/rig_view.h"
#include "app/instruments/soft_table.h"
#include "app/instruments/structure_plot.h"
#include "app/instruments/tipping_polar.h"
#include "app/stations/structure/structure_lists.h"
#include "app/stations/structure/structure_tools.h"
#include "app/theme/tokens.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/evidence/fingerprint.h"
#include "core/model/fields.h"
#include "core/tools/structure_solve.h"

#include <QComboBox>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <algorithm>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int edge = 14, gap = 8, headBottom = 68;

QList<FieldSlot> under(const QString& prefix, std::initializer_list<const char*> keys) {
    QList<FieldSlot> out;
    for (const char* key : keys) out.push_back({prefix + QLatin1String(key), {}, 1.0});
    return out;
}

/// The same for one of several things, which begins a row of its own.
QList<FieldSlot> ofOne(const QString& prefix, std::initializer_list<const char*> keys) {
    QList<FieldSlot> out = under(prefix, keys);
    out.front().startsRow = true;
    return out;
}

/// Fields of a section that its shape uses.
QList<FieldSlot> sectionFields(const QString& prefix, const Section& s) {
    QList<FieldSlot> out = under(prefix, {"shape"});
    switch (s.shape) {
    case SectionShape::NotGiven:
        return out;
    case SectionShape::SlottedProfile:
    case SectionShape::SolidRectangle:
        out += under(prefix, {"material", "width_m", "height_m"});
        break;
    case SectionShape::HollowRectangle:
        out += under(prefix, {"material", "width_m", "height_m", "wall_m"});
        break;
    case SectionShape::RoundTube:
        out += under(prefix, {"material", "width_m", "wall_m"});
        break;
    case SectionShape::RodPair:
        out += under(prefix, {"material", "width_m", "spacing_m"});
        break;
    case SectionShape::Tee:
        out += under(prefix, {"material", "width_m", "height_m", "wall_m", "flange_m"});
        break;
    case SectionShape::Own:
        out += under(prefix, {"material", "own_inertia_m4", "own_sideways_m4", "own_torsion_m4",
                              "own_mass_kg_m", "height_m", "width_m"});
        break;
    }
    if (s.shape != SectionShape::RoundTube && s.shape != SectionShape::RodPair)
        out += under(prefix, {"on_edge"});
    return out + under(prefix, {"stiffness_factor", "price_per_m"});
}

enum class Part { Beam, Supports, Pivot, Base, Head, Bodies, Place, Compared };

} // namespace

StructureStation::StructureStation(const Context& context, QWidget* parent)
    : Station(context, parent), view_(new RigView(context, this)), polar_(new TippingPolar(context, this)),
      plot_(new StructurePlot(context, this)), soft_(new SoftTable(context, this)), content_(new QWidget),
      fields_(new FieldGroup(context, content_)), lists_(new StructureLists(context, content_)),
      scroll_(new QScrollArea(this)), part_(new QComboBox(this)), above_(new QPushButton(this)),
      best_(new QPushButton(this)), more_(new QPushButton(tr("Tools"), this)) {
    scroll_->setWidget(content_);
    scroll_->setWidgetResizable(true);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    above_->setObjectName(QStringLiteral("fromAbove"));
    above_->setText(tr("From above"));
    above_->setCheckable(true);
    best_->setObjectName(QStringLiteral("structureBest"));
    best_->setProperty("role", "primary");
    more_->setObjectName(QStringLiteral("structureTools"));
    more_->setProperty("menu", true);
    more_->setMenu(structureTools(context_, this));
    part_->setObjectName(QStringLiteral("structurePart"));
    part_->setAccessibleName(tr("Part of the structure to edit"));
    connect(above_, &QPushButton::toggled, view_, &RigView::setFromAbove);
    connect(best_, &QPushButton::clicked, this, [this] {
        if (context_.axis() == nullptr) return;
        kindOf(*context_.axis()) == AxisKind::Linear ? placeStands() : balanceIt();
    });
    connect(part_, &QComboBox::activated, this, [this] { refresh(); });
    connect(fields_, &FieldGroup::message, this, &Station::message);
    connect(lists_, &StructureLists::message, this, &Station::message);
    connect(plot_, &Plot::message, this, &Station::message);
}

void StructureStation::refresh() {
    const Axis* axis = context_.axis();
    const bool linear = axis == nullptr || kindOf(*axis) == AxisKind::Linear;
    const QStringList own = linear ? QStringList{tr("Rail"), tr("Supports"), tr("Payload and wheels")}
                                   : QStringList{tr("Arm"), tr("Counterweight"), tr("Pivot")};
    const QStringList parts = own + QStringList{tr("Base"), tr("Head and camera"), tr("What sticks out"),
                                                tr("Place and people"), tr("Sections to compare")};
    if (part_->count() == 0 || part_->itemText(0) != parts.front()) {
        const int was = std::max(0, part_->currentIndex());
        part_->clear();
        part_->addItems(parts);
        part_->setCurrentIndex(was);
    }
    best_->setText(linear ? tr("Place the stands") : tr("Balance it"));
    const bool can = axis != nullptr && !context_.document.readOnly();
    best_->setEnabled(can);
    more_->setEnabled(axis != nullptr);
    part_->setEnabled(axis != nullptr);
    fillFields();
    view_->refresh();
    polar_->refresh();
    soft_->refresh();
    line_ = headLine();
    place();
    if (!plot_->isHidden()) plot_->refresh(); // place() decides that
    setToolTip(line_);
    updateHead(headBottom, line_);
}

void StructureStation::fillFields() {
    const Axis* axis = context_.axis();
    if (axis == nullptr) {
        lists_->refresh(0);
        fields_->setVisible(true);
        fields_->setTitle(tr("No axis"), tr("add one at the left"));
        return fields_->setFields({});
    }
    const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id));
    const QString rail = base + QStringLiteral("mechanism/rail/"),
                  boom = base + QStringLiteral("mechanism/boom/"),
                  weight = boom + QStringLiteral("counterweight/"), pivot = boom + QStringLiteral("pivot/"),
                  guide = base + QStringLiteral("mechanism/guide/");
    const auto part = static_cast<Part>(std::max(0, part_->currentIndex()));
    QList<FieldSlot> list;
    QString note;
    int lists = 0;
    if (part == Part::Base) {
        const BaseKind kind = context_.document.project().base.kind;
        list = under(QStringLiteral("base/"), {"kind"});
        if (kind == BaseKind::Legs)
            list += under(QStringLiteral("base/"), {"legs", "leg_radius_m", "first_leg_rad"});
        if (kind == BaseKind::Rectangle &&
            !standsOnItsRail(context_.document.project().axes, context_.document.project().base))
            list += under(QStringLiteral("base/"), {"length_m"});
        if (kind == BaseKind::Rectangle) list += under(QStringLiteral("base/"), {"width_m"});
        if (kind != BaseKind::NotGiven) list += under(QStringLiteral("base/"), {"height_m", "mass_kg"});
        if (kind == BaseKind::Legs || kind == BaseKind::Rectangle) {
            list += under(QStringLiteral("base/"),
                          {"mass_height_m", "column_ahead_m", "ballast_kg", "ballast_leg"});
            if (context_.document.project().base.ballastLeg == 0)
                list += under(QStringLiteral("base/"), {"ballast_out_m"});
            list += under(QStringLiteral("base/"), {"pad_stiffness_N_m", "pad_damping", "ground_slope_rad",
                                                    "downhill_rad", "side_push_N", "push_height_m"});
        }
        if (kind == BaseKind::WallBracket || kind == BaseKind::Overhead) {
            list += under(QStringLiteral("base/"),
                          {"mount_m", "column_ahead_m", "anchor_strength_N", "anchor_spread_m", "tethered"});
            note =
                tr("over people local rules and a qualified rigger decide; keep everyone out from under it");
        }
    } else if (part == Part::Head) {
        list = headFields();
        note = tr("measure what comes near something; heights count from what carries the head");
    } else if (part == Part::Bodies) {
        lists = StructureLists::AxisBodies | StructureLists::ColumnBodies | StructureLists::Loads;
    } else if (part == Part::Place) {
        list = under(QStringLiteral("conditions/"),
                     {"wind_speed_m_s", "hand_speed_m_s", "weight_budget_kg", "money_budget"});
        list += under(base + QStringLiteral("mechanism/"), {"wind_area_m2"});
        list += under(base + QStringLiteral("vibration/"), {"frequency_hz", "damping"});
        lists = StructureLists::Rooms;
    } else if (part == Part::Compared) {
        for (const Profile& p : context_.document.project().profiles) {
            const QString prefix = QStringLiteral("profiles/%1/").arg(QString::fromStdString(p.id));
            list += ofOne(prefix, {"name"}) + sectionFields(prefix + QStringLiteral("section/"), p.section);
        }
        note = list.isEmpty() ? tr("none listed yet: Tools, Compare sections, List the chosen one")
                              : tr("compared under Tools, Compare sections");
    } else if (kindOf(*axis) == AxisKind::Linear) {
        const auto& linear = std::get<LinearMechanism>(axis->mechanism);
        if (part == Part::Beam) list = sectionFields(rail + QStringLiteral("section/"), linear.rail.section);
        if (part == Part::Supports) {
            list = under(rail, {"support"});
            if (linear.rail.support == RailSupport::TwoStands)
                list += under(rail, {"first_stand_m", "second_stand_m", "stand_sway_N_m", "stand_mass_kg"});
            if (linear.rail.support == RailSupport::OneHead)
                list += under(rail, {"head_at_m", "head_turning_Nm_rad", "stand_sway_N_m", "stand_mass_kg"});
            if (linear.rail.support != RailSupport::Bedded) {
                list += under(rail, {"clamp_bolts"});
                if (linear.rail.clampBolts > 0) list += under(rail, {"clamp_bolt_limit_N"});
                if (linear.rail.clampBolts > 0 && linear.rail.support == RailSupport::OneHead)
                    list += under(rail, {"clamp_spacing_m"});
            }
            list += under(rail, {"shown_at_m"});
        }
        if (part == Part::Pivot)
            list =
                under(base + QStringLiteral("mechanism/"), {"moving_mass_kg", "rail_length_m", "slope_rad"}) +
                under(base, {"carries_payload"}) + under(guide, {"mass_height_m", "wheelbase_m"}) +
                under(rail, {"camera_side_m"});
    } else {
        const auto& r = std::get<RotaryMechanism>(axis->mechanism);
        if (part == Part::Beam)
            list = sectionFields(boom + QStringLiteral("section/"), r.boom.section) +
                   under(boom, {"reach_m", "rear_m", "arm", "tip_offset_m", "tip_above_m", "tip_side_m",
                                "shown_at_rad"}) +
                   under(base, {"carries_payload"});
        if (part == Part::Supports) {
            list = under(weight,
                         {"mass_kg", "behind_m", "above_m", "nearest_m", "farthest_m", "bare_kg", "size_m"});
            lists = StructureLists::Discs;
            note = tr(
                "load: camera first, weights last; unload: tie the arm, weights off first, then the camera");
        }
        if (part == Part::Pivot)
            list = under(boom, {"mast_turning_Nm_rad", "hangs"}) +
                   under(pivot, {"pin_diameter_m", "cheek_gap_m", "pin_limit_Pa", "bearing_rating_N",
                                 "bearing_moment_Nm", "bolts", "bolt_circle_m", "bolt_limit_N"});
    }
    fields_->setVisible(!list.isEmpty() || lists == 0);
    fields_->setTitle(part_->currentText(), note);
    fields_->setFields(list);
    lists_->refresh(lists);
}

/// Those of the head that the axes of the rig use.
QList<FieldSlot> StructureStation::headFields() const {
    const auto& axes = context_.document.project().axes;
    const auto has = [&](auto... role) {
        return std::any_of(axes.begin(), axes.end(),
                           [&](const Axis& a) { return ((a.role == role) || ...); });
    };
    const QString head = QStringLiteral("head/");
    QList<FieldSlot> list;
    if (std::any_of(axes.begin(), axes.end(), [](const Axis& a) { return kindOf(a) == AxisKind::Linear; }))
        list += under(head, {"stand_m"});
    if (has(Role::Pan)) list += under(head, {"pan_height_m"});
    if (has(Role::Tilt, Role::Roll)) list += under(head, {"tilt_height_m", "tilt_ahead_m"});
    if (has(Role::Tilt) && has(Role::Roll)) list += under(head, {"roll_height_m"});
    if (has(Role::Tilt, Role::Roll)) list += under(head, {"plate_below_m"});
    return list +
           under(head, {"lens_height_m", "lens_left_m", "lens_front_m", "pupil_back_m", "lens_diameter_m",
                        "camera_back_m", "camera_depth_m", "camera_width_m", "camera_height_m"});
}

void StructureStation::applyTheme() {
    plot_->applyTheme();
    refresh();
}

QString StructureStation::headLine() const {
    const AxisEvaluation* e = context_.axisEvaluation();
    if (e == nullptr) return tr("add an axis at the left");
    const RigStructure& rig = context_.document.assessment().evaluation.rig;
    QStringList said;
    const AxisStructure& s = e->structure;
    const Project& project = context_.document.project();
    const auto at = static_cast<std::size_t>(context_.session.axis());
    if (const int boom = boomOn(project.axes, at); s.problem == Reason::NeedsSection && boom >= 0)
        return tr("moves the arm that is entered with %1")
            .arg(QString::fromStdString(project.axes[static_cast<std::size_t>(boom)].name));
    const Role role = project.axes[at].role;
    if (turnsOnHead(role) || role == Role::Turntable || role == Role::Focus || role == Role::Zoom)
        return tr("has no arm that could bend");
    if (s.problem == Reason::NotApplicable)
        return role == Role::Lift ? tr("upright, so nothing sags")
                                  : tr("lies on the ground, so nothing sags");
    if (s.problem != Reason::None) {
        said << tr("not known yet: %1").arg(QString::fromUtf8(words::reasonText(s.problem).data()));
        return said.join(QStringLiteral(" · "));
    }
    const auto add = [&](const QString& words, const Figure& f, Kind kind) {
        if (f) said << words.arg(context_.show(f, kind));
    };
    const bool linear = e->model.kind == AxisKind::Linear;
    add(linear ? tr("sags %1") : tr("deflects %1"), s.sag, Kind::Length);
    add(tr("slope %1"), s.slope, Kind::Angle);
    if (s.twist && s.twist.value() > 1e-6) add(tr("twists %1"), s.twist, Kind::Angle);
    add(tr("vertical %1"), s.bounce, Kind::Frequency);
    if (s.all.frequency > 0.0)
        said << tr("natural frequency %1").arg(context_.show(s.all.frequency, Kind::Frequency));
    add(tr("counterweight: %1 of the inertia"), s.weightInertia, Kind::Percentage);
    add(tr("can drop with %1"), s.dropEnergy, Kind::Energy);
    int stale = 0;
    for (const TestRecord& test : context_.document.project().tests)
        stale += evidence::changedSince(context_.document.project(), test).empty() ? 0 : 1;
    if (stale > 0) said << tr("%n tests stale", nullptr, stale);
    if (rig.ballastNeeded && rig.ballastNeeded.value() > 0.0)
        add(tr("needs %1 of ballast"), rig.ballastNeeded, Kind::Mass);
    return said.join(QStringLiteral(" · "));
}

void StructureStation::placeStands() {
    const Axis& axis = *context_.axis();
    const auto best = bestStands(context_.document.project(), axis, context_.axisEvaluation());
    if (!best) {
        emit message(tr("Say what the rail is made of first; its section decides where the stands belong."),
                     true);
        return;
    }
    context_.document.change(tr("Place the stands"), [&](Project& p) {
        Rail& rail =
            std::get<LinearMechanism>(p.axes[static_cast<std::size_t>(context_.session.axis())].mechanism)
                .rail;
        rail.support = RailSupport::TwoStands;
        rail.firstStand = best->first;
        rail.secondStand = best->second;
    });
    emit message(
        tr("Stands at %1 and %2: the picture shifts least over the travel there.")
            .arg(context_.show(best->first, Kind::Length), context_.show(best->second, Kind::Length)),
        false);
}

void StructureStation::balanceIt() {
    const auto best = balanceWith(context_.document.project(), *context_.axis());
    if (!best) {
        emit message(
            tr("Give the arm its section and list what hangs on it first; a swing has nothing to balance."),
            true);
        return;
    }
    context_.document.change(tr("Balance the arm"), [&](Project& p) {
        auto& r =
            std::get<RotaryMechanism>(p.axes[static_cast<std::size_t>(context_.session.axis())].mechanism);
        r.boom.counterweight = *best;
    });
    QString said =
        tr("Counterweight %1, %2 behind the pivot. Tie the arm while you change weights.")
            .arg(context_.show(best->mass.value, Kind::Mass), context_.show(best->behind, Kind::Length));
    const std::vector<ShotEvaluation>& shots = context_.axisEvaluation()->shots;
    if (std::any_of(shots.begin(), shots.end(), [](const ShotEvaluation& s) { return s.loadReverses; }))
        said += tr(
            " The load now reverses and crosses the backlash; a little weight left at the camera's end keeps "
            "it on one side.");
    emit message(said, false);
}

void StructureStation::place() {
    const int w = width() - 2 * edge;
    int right = edge + w;
    for (auto [widget, width] :
         {std::pair<QWidget*, int>{best_, 132}, {more_, 84}, {above_, 108}, {part_, 172}}) {
        right -= width;
        widget->setGeometry(right, headTop, width - 4, headRow);
    }
    int y = headBottom + gap;
    // Beside what is more than there is room for stands a scroll bar.
    constexpr int most = 240, bar = 14;
    const auto heights = [&](int width) {
        const int own = fields_->isHidden() ? 0 : fields_->heightFor(width);
        return std::pair{own, own + (own > 0 && lists_->heightFor(width) > 0 ? gap : 0) +
                                  lists_->heightFor(width)};
    };
    const int inner = heights(w).second > most ? w - bar : w;
    const auto [own, wanted] = heights(inner);
    const int fieldsHeight = std::min(wanted, most);
    const int softHeight = 26 + 21 * 3 + 8;
    const int drawing = std::max(240, height() - y - fieldsHeight - softHeight - 3 * gap);
    const int side = std::clamp(w / 3, 240, 420);
    view_->setGeometry(edge, y, w - side - gap, drawing);
    // On the page of the base nothing but standing matters.
    const bool base = part_->currentIndex() == static_cast<int>(Part::Base);
    const int half = base ? drawing : (drawing - gap) / 2;
    polar_->setGeometry(edge + w - side, y, side, half);
    plot_->setVisible(!base);
    plot_->setGeometry(edge + w - side, y + half + gap, side, drawing - half - gap);
    y += drawing + gap;
    scroll_->setGeometry(edge, y, w, fieldsHeight);
    content_->setMinimumHeight(wanted);
    fields_->setGeometry(0, 0, inner, own);
    lists_->setGeometry(0, wanted - lists_->heightFor(inner), inner, lists_->heightFor(inner));
    y += fieldsHeight + gap;
    soft_->setGeometry(edge, y, w, std::max(softHeight, height() - y - gap));
}

void StructureStation::resizeEvent(QResizeEvent*) {
    place();
}

void StructureStation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintHead(p, QRect(edge, 36, width() - 2 * edge, headBottom - 36), 32, tr("Structure"), line_);
}

} // namespace gantry::app
