// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/brief/brief_station.h"

#include "app/instruments/caption.h"
#include "app/instruments/fold.h"
#include "app/instruments/rig_view.h"
#include "app/stations/brief/brief_lists.h"
#include "app/stations/drives/capability_line.h"
#include "app/theme/tokens.h"
#include "core/model/fields.h"
#include "core/model/kind_traits.h"

#include <QComboBox>
#include <QHeaderView>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTableView>
#include <algorithm>
#include <array>

namespace gantry::app {
namespace {

constexpr int edge = 14, gap = 10;

QList<FieldSlot> slotsUnder(const QString& prefix, const QStringList& keys) {
    QList<FieldSlot> out;
    for (const QString& key : keys) out.push_back({prefix + key, {}, 1.0});
    return out;
}

/// A movement of the same distance, given the other way, with the numbers that the evaluation found.
Movement givenAs(AxisKind kind, bool timed, const Movement* old, const ShotEvaluation* e) {
    const double distance = old != nullptr             ? distanceOf(*old)
                            : kind == AxisKind::Linear ? 0.5
                                                       : 0.5235987755982988;
    const bool known = e != nullptr && e->motion.topSpeed;
    const double speed = known ? e->motion.topSpeed.value() : std::abs(distance) / 5;
    const double acceleration = known ? e->motion.acceleration.valueOr(speed) : speed;
    const double time = known ? e->motion.time.valueOr(6.0) : 6.0;
    const double in = known ? e->profile.in.time() : 1.0, out = known ? e->profile.out.time() : 1.0;
    if (kind == AxisKind::Linear) {
        if (timed) return ByTime<AxisKind::Linear>{distance, time, in, out};
        return BySpeed<AxisKind::Linear>{distance, speed, acceleration};
    }
    if (timed) return ByTime<AxisKind::Rotary>{distance, time, in, out};
    return BySpeed<AxisKind::Rotary>{distance, speed, acceleration};
}

/// Fields that only one kind of shot has.
QList<FieldSlot> kindFields(const QString& base, ShotKind kind) {
    switch (kind) {
    case ShotKind::Live:
    case ShotKind::Creep:
        return {};
    case ShotKind::Interval:
        return slotsUnder(base, {"frames", "interval_s", "step_time_s"});
    case ShotKind::StopMotion:
        return slotsUnder(base, {"clip_time_s", "step_time_s"});
    case ShotKind::RepeatPass:
        return slotsUnder(base, {"passes"});
    }
    return {};
}

/// How an axis stands: level, on a slope, vertical, or upside down.
QString orientation(const Axis& axis) {
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        const double slope = std::abs(linear->slope.value);
        return slope < 0.005 ? BriefStation::tr("level")
               : slope > 1.4 ? BriefStation::tr("vertical")
                             : BriefStation::tr("on a slope");
    }
    return std::get<RotaryMechanism>(axis.mechanism).boom.hangs ? BriefStation::tr("upside down")
                                                                : BriefStation::tr("upright");
}

} // namespace

BriefStation::BriefStation(const Context& context, QWidget* parent)
    : Station(context, parent), scroll_(new QScrollArea(this)), page_(new QWidget),
      view_(new RigView(context, page_)), deciding_(new FieldGroup(context, page_)),
      rig_(new FieldGroup(context, page_)), axis_(new FieldGroup(context, page_)),
      shot_(new FieldGroup(context, page_)), shotMore_(new FieldGroup(context, page_)),
      move_(new FieldGroup(context, page_)), limits_(new FieldGroup(context, page_)),
      equipment_(new FieldGroup(context, page_)),
      shotFold_(new Fold(QStringLiteral("shot"), tr("More of this shot"), page_)),
      axisFold_(new Fold(QStringLiteral("axis"), tr("More of this axis"), page_)),
      rigFold_(new Fold(QStringLiteral("rig"), tr("Camera and place"), page_)),
      payloadFold_(new Fold(QStringLiteral("payload"), tr("Payload"), page_)),
      checklistFold_(new Fold(QStringLiteral("checklist"), tr("Checklist"), page_)),
      laterFold_(new Fold(QStringLiteral("later"), tr("Planned additions"), page_)),
      payload_(new ListCard(context, QStringLiteral("payloadList"), page_)),
      later_(new ListCard(context, QStringLiteral("laterList"), page_)),
      demands_(new DemandsCard(context, page_)), completeness_(new CompletenessCard(context, page_)),
      startButton_(new QPushButton(tr("Start from my parts"), page_)),
      otherRig_(new QPushButton(tr("Start from another rig"), page_)),
      addShot_(new QPushButton(tr("Add a shot"), page_)),
      removeShot_(new QPushButton(tr("Remove shot"), page_)), chooser_(new RigChooser(page_)),
      given_(new QComboBox(page_)), table_(new QTableView(page_)), model_(context),
      capability_(new Caption(true, page_)), shotsTitle_(new Caption(false, page_)),
      startHint_(new Caption(false, page_)), laterSays_(new Caption(true, page_)) {
    scroll_->setWidget(page_);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    startButton_->setObjectName(QStringLiteral("startFromWhatIHave"));
    startButton_->setProperty("role", "primary");
    addShot_->setObjectName(QStringLiteral("addShot"));
    removeShot_->setObjectName(QStringLiteral("removeShot"));
    otherRig_->setObjectName(QStringLiteral("otherRig"));
    otherRig_->setProperty("role", "link");
    otherRig_->setCheckable(true);
    given_->setObjectName(QStringLiteral("givenBy"));
    capability_->setObjectName(QStringLiteral("startCapability"));
    given_->setAccessibleName(tr("How the movement is given"));
    given_->addItems(
        {tr("leaves the axis at rest"), tr("given by speed and acceleration"), tr("given by time and ease")});
    table_->setModel(&model_);
    table_->setObjectName(QStringLiteral("shotTable"));
    table_->setAccessibleName(tr("Shots"));
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->setShowGrid(false);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setTabKeyNavigation(false);
    table_->setFrameShape(QFrame::NoFrame);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    for (FieldGroup* g : {deciding_, rig_, axis_, shot_, shotMore_, limits_, move_, equipment_})
        connect(g, &FieldGroup::message, this, &Station::message);
    view_->setObjectName(QStringLiteral("briefView"));
    view_->setQuiet();
    for (Fold* fold : folds()) connect(fold, &QPushButton::toggled, this, &BriefStation::refresh);
    laterSays_->setObjectName(QStringLiteral("laterSays"));
    connectLists();
    connect(startButton_, &QPushButton::clicked, this, &BriefStation::startFromWhatIHave);
    connect(addShot_, &QPushButton::clicked, this, &BriefStation::addShot);
    connect(removeShot_, &QPushButton::clicked, this, &BriefStation::removeShot);
    connect(chooser_, &RigChooser::chosen, this, &BriefStation::startRig);
    connect(otherRig_, &QPushButton::toggled, this, [this](bool on) {
        choosing_ = on;
        refresh();
    });
    connect(given_, &QComboBox::activated, this, [this](int i) { setGiven(static_cast<Given>(i)); });
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex& now) {
                if (!now.isValid() || now.row() == chosenShot_) return;
                chosenShot_ = now.row();
                refresh();
            });
}

int BriefStation::shotIndex() const {
    const int n = static_cast<int>(context_.document.project().shots.size());
    return n == 0 ? -1 : std::clamp(chosenShot_, 0, n - 1);
}

void BriefStation::startFromWhatIHave() {
    if (context_.document.project().axes.empty())
        context_.document.change(tr("Start from what I have"), [&](Project& p) {
            Axis axis;
            axis.id = freeId(p, "slide");
            axis.name = "Slide";
            p.axes.push_back(axis);
            if (p.name.empty()) p.name = "What I have";
        });
    context_.session.setAxis(0);
    refresh();
    if (auto* first = deciding_->findChild<QLineEdit*>()) first->setFocus(Qt::TabFocusReason);
}

void BriefStation::refresh() {
    const Axis* axis = context_.axis();
    const bool can = !context_.document.readOnly();
    const bool linear = axis != nullptr && kindOf(*axis) == AxisKind::Linear;
    const QString axisBase =
        axis != nullptr ? QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id)) : QString();

    const bool choose = can && (axis == nullptr || choosing_);
    chooser_->setVisible(choose);
    otherRig_->setVisible(axis != nullptr);
    otherRig_->setEnabled(can);
    startButton_->setVisible(axis == nullptr);
    startHint_->setVisible(axis == nullptr);
    startHint_->setText(
        {}, tr("Motor, pulley, supply, mass and slope are enough for an answer. Or choose a rig:"));
    refreshDeciding();
    rig_->setTitle(tr("Camera and place"), tr("whole project"));
    rig_->setFields({{QStringLiteral("name"), tr("Project")},
                     {QStringLiteral("camera/name"), {}},
                     {QStringLiteral("camera/sensor_width_m"), {}},
                     {QStringLiteral("camera/pixels_across"), {}},
                     {QStringLiteral("camera/delivered_width"), {}},
                     {QStringLiteral("supply/name"), {}},
                     {QStringLiteral("conditions/silence"), {}},
                     {QStringLiteral("conditions/wind_speed_m_s"), {}},
                     {QStringLiteral("conditions/ambient_C"), {}},
                     {QStringLiteral("conditions/microphone_distance_m"), {}},
                     {QStringLiteral("conditions/weight_budget_kg"), {}},
                     {QStringLiteral("conditions/money_budget"), {}},
                     {.path = QStringLiteral("notes"), .caption = {}, .fillsRow = true}});
    if (axis != nullptr) {
        axis_->setTitle(
            tr("More of this axis"),
            tr("%1, %2").arg(linear ? tr("carries and runs on") : tr("turns"), orientation(*axis)));
        QList<FieldSlot> fields{{axisBase + "name", tr("Name")}, {axisBase + "role", {}}};
        fields += linear ? slotsUnder(axisBase + QStringLiteral("mechanism/"),
                                      {"rail_length_m", "carriage_length_m", "bumper_length_m"})
                         : slotsUnder(axisBase + QStringLiteral("mechanism/"),
                                      {"inertia_kgm2", "range_rad", "point_mass_kg", "point_radius_m",
                                       "unbalance_Nm"});
        fields += slotsUnder(axisBase, {"on_stop", "carries_payload"});
        axis_->setFields(fields);
    }
    model_.refresh();
    const int shot = shotIndex();
    table_->setVisible(shot >= 0);
    shotsTitle_->setText(tr("Shots"),
                         shot < 0 ? tr("none yet; add one to see what it demands of each axis")
                         : axis != nullptr
                             ? tr("and what they need of %1").arg(QString::fromStdString(axis->name))
                             : QString());
    addShot_->setEnabled(can);
    removeShot_->setVisible(shot >= 0);
    removeShot_->setEnabled(can);
    refreshShot();
    refreshLists();
    refreshFolds();
    place();
}

/// The rig as it is drawn, and of the chosen axis what its verdicts hang on most.
void BriefStation::refreshDeciding() {
    const Axis* axis = context_.axis();
    for (QWidget* w : std::initializer_list<QWidget*>{view_, deciding_, capability_})
        w->setVisible(axis != nullptr);
    if (axis == nullptr) return;
    view_->refresh();
    const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id));
    const bool linear = kindOf(*axis) == AxisKind::Linear;
    const auto* turning = std::get_if<RotaryMechanism>(&axis->mechanism);
    const bool arm = turning != nullptr && turning->boom.section.shape != SectionShape::NotGiven;
    QList<FieldSlot> fields;
    // A motor says what it can do in the words of its kind.
    for (const char* key : {"motor/holding_torque_Nm", "motor/rated_torque_Nm", "motor/stall_torque_Nm",
                            "motor/figures/stall_torque_Nm"})
        if (findField(const_cast<Project&>(context_.document.project()),
                      (base + QLatin1String(key)).toStdString())) {
            fields << FieldSlot{base + QLatin1String(key), {}, 1.0};
            break;
        }
    fields +=
        linear ? slotsUnder(base, {"mechanism/moving_mass_kg", "mechanism/slope_rad",
                                   "mechanism/running_friction_N"})
        : arm  ? slotsUnder(base, {"mechanism/boom/reach_m", "mechanism/boom/counterweight/mass_kg",
                                   "mechanism/friction_Nm"})
               : slotsUnder(base, {"mechanism/inertia_kgm2", "mechanism/range_rad", "mechanism/friction_Nm"});
    if (linear && outputTraits(*axis).flexible && !outputTraits(*axis).pullsOnly)
        fields << FieldSlot{base + QStringLiteral("mechanism/output/teeth"), {}, 1.0};
    if (std::holds_alternative<Stepper>(axis->motor))
        fields << FieldSlot{base + QStringLiteral("driver/run_current_rms_A"), {}, 1.0};
    fields << FieldSlot{QStringLiteral("supply/voltage_V"), tr("Supply"), 1.0};
    deciding_->setTitle(tr("What decides %1").arg(QString::fromStdString(axis->name)), orientation(*axis));
    deciding_->setFields(fields);
    capability_->setText(tr("Capability"), capabilitySentence(context_));
}

void BriefStation::refreshShot() {
    const Project& p = context_.document.project();
    const Axis* axis = context_.axis();
    const int shot = shotIndex();
    const bool hasMove = shot >= 0 && axis != nullptr;
    shot_->setVisible(shot >= 0);
    move_->setVisible(hasMove);
    given_->setVisible(hasMove);
    if (shot < 0) return;
    if (table_->currentIndex().row() != shot) table_->setCurrentIndex(model_.index(shot, 0));
    const Shot& s = p.shots[static_cast<std::size_t>(shot)];
    const QString base = QStringLiteral("shots/%1/").arg(QString::fromStdString(s.id));
    shot_->setTitle(QString::fromStdString(s.name),
                    s.keepFramed ? tr("pan and tilt without a movement of their own follow the subject")
                                 : takenAs(s));
    shot_->setFields(
        slotsUnder(base, {"name", "kind", "focal_length_m", "subject_distance_m", "frame_rate_hz"}) +
        kindFields(base, s.kind));
    shotMore_->setTitle(tr("More of this shot"), tr("exposure, settling and framing"));
    shotMore_->setFields(
        slotsUnder(base, {"exposure_s", "f_number", "settle_s", "swing_seen_px", "there_and_back",
                          "keep_framed", "towards_subject"}) +
        (s.keepFramed ? slotsUnder(base, {"subject_place", "subject_height_m"}) : QList<FieldSlot>()));
    limits_->setTitle(tr("Picture limits"), tr("picture error in this shot"));
    limits_->setFields(
        slotsUnder(base + QStringLiteral("limits/"),
                   {"drift_px_per_frame", "jitter_px", "repeat_px", "framing_share", "crossing_time_s"}));
    if (!hasMove) return;
    const Movement* m = findMovement(s, axis->id);
    const bool timed = m != nullptr && m->index() % 2 == 1;
    given_->setCurrentIndex(m == nullptr ? 0 : timed ? 2 : 1);
    given_->setEnabled(!context_.document.readOnly());
    move_->setTitle(tr("%1 in %2").arg(QString::fromStdString(axis->name), QString::fromStdString(s.name)),
                    fromMove(*axis, shot));
    const QString move = base + QStringLiteral("moves/%1/movement/").arg(QString::fromStdString(axis->id));
    const QString u = kindOf(*axis) == AxisKind::Linear ? QStringLiteral("m") : QStringLiteral("rad");
    QStringList keys;
    if (m != nullptr) {
        keys = timed ? QStringList{"distance_" + u, "time_s", "ease_in_s", "ease_out_s"}
                     : QStringList{"distance_" + u, "speed_" + u + "_s", "acceleration_" + u + "_s2"};
        keys << QStringLiteral("placed");
        if (startOf(*m)) keys << "start_" + u;
    }
    move_->setFields(slotsUnder(move, keys));
}

/// What a planned move makes of a shot's movement, where one says how the shot is taken: that counts, and not
/// what is entered here.
QString BriefStation::fromMove(const Axis& axis, int shot) const {
    const Project& p = context_.document.project();
    const std::string& id = p.shots[static_cast<std::size_t>(shot)].id;
    const auto move = std::find_if(p.moves.begin(), p.moves.end(),
                                   [&](const RigMove& m) { return m.realises && m.shot == id; });
    if (move == p.moves.end()) return {};
    const QString name = QString::fromStdString(move->name);
    const AxisEvaluation* e = context_.axisEvaluation();
    if (e != nullptr)
        for (const ShotEvaluation& s : e->shots)
            if (s.shot.row() == shot && s.fromMove) {
                const bool linear = kindOf(axis) == AxisKind::Linear;
                return tr("in use is the move “%1”: %2 at up to %3; what is entered is not")
                    .arg(name, context_.show(s.distance, linear ? units::Kind::Length : units::Kind::Angle),
                         context_.show(s.motion.topSpeed,
                                       linear ? units::Kind::Speed : units::Kind::AngularSpeed));
            }
    return tr("in use is the move “%1”, in which %2 stands").arg(name, QString::fromStdString(axis.name));
}

void BriefStation::addShot() {
    const Axis* axis = context_.axis();
    context_.document.change(tr("Add a shot"), [&](Project& p) {
        Shot s;
        // A new shot starts as a copy of the lens and frames of the one in hand.
        if (const int from = shotIndex(); from >= 0) s = p.shots[static_cast<std::size_t>(from)];
        s.moves.clear();
        s.id = freeId(p, "shot");
        s.name = tr("Shot %1").arg(p.shots.size() + 1).toStdString();
        if (axis != nullptr) s.moves.push_back({axis->id, givenAs(kindOf(*axis), true, nullptr, nullptr)});
        p.shots.push_back(s);
    });
    chosenShot_ = static_cast<int>(context_.document.project().shots.size()) - 1;
    refresh();
}

void BriefStation::removeShot() {
    const int shot = shotIndex();
    if (shot < 0) return;
    context_.document.change(tr("Remove shot"), [&](Project& p) { p.shots.erase(p.shots.begin() + shot); });
}

void BriefStation::startRig(rigs::RigKind kind) {
    otherRig_->setChecked(false);
    chosenShot_ = 0;
    if (kind == rigs::RigKind::WhatIHave && context_.document.project().axes.empty())
        return startFromWhatIHave();
    context_.document.change(tr("Start from a rig"), [&](Project& p) {
        Project next = rigs::make(kind);
        // What the user has said about camera, place and controller holds for any rig.
        if (!p.camera.name.empty()) {
            next.camera = p.camera;
            next.conditions = p.conditions;
        }
        next.notes = p.notes;
        next.kept = p.kept;
        p = std::move(next);
    });
    context_.session.setAxis(0);
    refresh();
}

void BriefStation::setGiven(Given given) {
    const int shot = shotIndex();
    const Axis* axis = context_.axis();
    const AxisEvaluation* e = context_.axisEvaluation();
    if (shot < 0 || axis == nullptr || e == nullptr) return;
    const auto it = std::find_if(e->shots.begin(), e->shots.end(),
                                 [&](const ShotEvaluation& s) { return s.shot.row() == shot; });
    const ShotEvaluation* now = it == e->shots.end() ? nullptr : &*it;
    context_.document.change(tr("Give movement"), [&](Project& p) {
        Shot& s = p.shots[static_cast<std::size_t>(shot)];
        const Movement* old = findMovement(s, axis->id);
        if (given == Given::AtRest) {
            std::erase_if(s.moves, [&](const ShotMove& m) { return m.axis == axis->id; });
            return;
        }
        const bool timed = given == Given::TimeAndEase;
        if (old != nullptr && (old->index() % 2 == 1) == timed) return;
        const Movement next = givenAs(kindOf(*axis), timed, old, now);
        for (ShotMove& m : s.moves)
            if (m.axis == axis->id) {
                m.movement = next;
                return;
            }
        s.moves.push_back({axis->id, next});
    });
}

void BriefStation::place() {
    scroll_->setGeometry(rect());
    const int w = std::max(300, width() - 2 * edge);
    int y = 8;
    const auto put = [&](QWidget* widget, int height) {
        if (!widget->isVisibleTo(page_)) return;
        widget->setGeometry(edge, y, w, height);
        y += height + gap;
    };
    /// A fold's line, or its cards with the link that hides them.
    const auto putFold = [&](Fold* fold) {
        if (!fold->isVisibleTo(page_)) return;
        if (!fold->isOpen()) return put(fold, Fold::lineHeight);
        fold->setGeometry(edge + w - Fold::linkWidth - 6, y + 3, Fold::linkWidth, Fold::linkHeight);
        fold->raise();
    };
    if (startButton_->isVisibleTo(page_)) {
        startButton_->setGeometry(edge, y, 180, 32);
        startHint_->setGeometry(edge + 192, y, w - 192, 32);
        y += 42;
    }
    put(chooser_, chooser_->heightFor(w));
    if (deciding_->isVisibleTo(page_)) {
        // The drawing as high as the fields beside it, which take two or three in a row.
        const int side = std::clamp(w * 62 / 100, 320, 620),
                  height = std::max(190, deciding_->heightFor(side));
        view_->setGeometry(edge, y, w - side - gap, height);
        deciding_->setGeometry(edge + w - side, y, side, height);
        otherRig_->setGeometry(edge + w - 176, y + 3, 170, 22);
        otherRig_->raise();
        y += height + gap;
    }
    put(capability_, 32);
    shotsTitle_->setGeometry(edge, y, w - 220, 28);
    removeShot_->setGeometry(edge + w - 104, y, 104, 27);
    addShot_->setGeometry(edge + w - 104 - 104, y, 98, 27);
    y += 34;
    put(table_, 34 + 24 * std::min(model_.rowCount(), 8));
    const int columns = model_.columnCount();
    for (int i = 0; i < columns; ++i) table_->setColumnWidth(i, i == 0 ? w - (columns - 1) * 98 : 98);
    put(shot_, shot_->heightFor(w));
    if (given_->isVisibleTo(page_)) {
        given_->setGeometry(edge, y, 250, 27);
        y += 34;
    }
    put(move_, move_->heightFor(w));
    putFold(shotFold_);
    put(shotMore_, shotMore_->heightFor(w));
    put(limits_, limits_->heightFor(w));
    put(demands_, demands_->wantedHeight());
    putFold(axisFold_);
    put(axis_, axis_->heightFor(w));
    putFold(payloadFold_);
    put(payload_, payload_->heightFor(w));
    putFold(rigFold_);
    put(rig_, rig_->heightFor(w));
    putFold(checklistFold_);
    put(completeness_, completeness_->wantedHeight());
    put(equipment_, equipment_->heightFor(w));
    putFold(laterFold_);
    put(later_, later_->heightFor(w));
    put(laterSays_, 32);
    page_->resize(width(), y + 4);
}

void BriefStation::resizeEvent(QResizeEvent*) {
    place();
}

} // namespace gantry::app
