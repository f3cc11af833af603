// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/moves_station.h"

#include "app/model/least_time_job.h"
#include "app/model/write_bytes.h"
#include "app/stations/moves/jog_pane.h"
#include "app/stations/moves/lens_view.h"
#include "app/stations/moves/move_desk.h"
#include "app/stations/moves/move_plan_view.h"
#include "app/stations/moves/move_timeline.h"
#include "core/model/edit_moves.h"
#include "core/tools/fit_move.h"
#include "core/tools/target_from_views.h"
#include "core/verdicts/moves/move_view.h"
#include "io/report/move_table.h"

#include <QComboBox>
#include <QFileDialog>
#include <QInputDialog>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int stationEdge = 14, stationGap = 8, headLineHeight = 30, headBottom = 64, fieldsHeight = 146,
              leastTimeline = 150;

} // namespace

void MovesStation::change(const QString& what, const std::function<void(Project&, int)>& how) {
    const int move = desk_->move();
    context_.document.change(what, [&](Project& p) { how(p, move); });
}

MovesStation::MovesStation(const Context& context, QWidget* parent)
    : Station(context, parent), desk_(new MoveDesk(context, this)), moves_(new QComboBox(this)),
      lanes_(new QComboBox(this)), store_(new QPushButton(tr("Store pose"), this)),
      target_(new QPushButton(tr("Aim at"), this)), menu_(new QPushButton(tr("Move"), this)),
      play_(new QPushButton(tr("Play"), this)), sides_(new QPushButton(tr("Side"), this)),
      plan_(new MovePlanView(context, *desk_, this)), lens_(new LensView(context, *desk_, this)),
      timeline_(new MoveTimeline(context, *desk_, this)), fieldsArea_(new QScrollArea(this)),
      fields_(new FieldGroup(context, fieldsArea_)), jog_(new JogPane(context, *desk_, this)),
      least_(new LeastTimeJob(context.document, this)) {
    moves_->setObjectName(QStringLiteral("moveChoice"));
    moves_->setAccessibleName(tr("Move in hand"));
    lanes_->setObjectName(QStringLiteral("laneChoice"));
    lanes_->setAccessibleName(tr("What the lanes show"));
    lanes_->addItems({tr("Speed"), tr("Position"), tr("Acceleration")});
    store_->setObjectName(QStringLiteral("storePose"));
    store_->setProperty("role", "primary");
    store_->setToolTip(tr("Stores where the rig stands as a pose behind the one in hand"));
    target_->setObjectName(QStringLiteral("aimAt"));
    target_->setProperty("menu", true);
    menu_->setObjectName(QStringLiteral("moveMenu"));
    menu_->setProperty("menu", true);
    play_->setObjectName(QStringLiteral("playMove"));
    play_->setCheckable(true);
    sides_->setObjectName(QStringLiteral("planSide"));
    sides_->setProperty("small", true);
    sides_->setCheckable(true);
    sides_->setToolTip(tr("Shows the move from the side in place of from above"));
    fieldsArea_->setWidget(fields_);
    fieldsArea_->setFrameShape(QFrame::NoFrame);
    fieldsArea_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    fieldsArea_->setFocusPolicy(Qt::NoFocus);
    makeMenus();
    connect(store_, &QPushButton::clicked, this, &MovesStation::storePose);
    connect(play_, &QPushButton::toggled, this, &MovesStation::play);
    connect(sides_, &QPushButton::toggled, this, [this](bool side) { plan_->setFromAbove(!side); });
    connect(moves_, &QComboBox::activated, this, [this](int i) {
        if (i >= 0 && i < static_cast<int>(context_.document.project().moves.size())) desk_->setMove(i);
    });
    connect(lanes_, &QComboBox::activated, this,
            [this](int i) { timeline_->setShows(static_cast<LaneShows>(i)); });
    connect(desk_, &MoveDesk::changed, this, &MovesStation::refresh);
    connect(desk_, &MoveDesk::headMoved, this, &MovesStation::showHeadMoved);
    connect(timeline_, &MoveTimeline::playWanted, play_, &QPushButton::toggle);
    connect(fields_, &FieldGroup::message, this, &Station::message);
    connect(jog_, &JogPane::message, this, &Station::message);
    connect(least_, &LeastTimeJob::found, this, &MovesStation::showHead);
    clock_.setInterval(15);
    connect(&clock_, &QTimer::timeout, this, &MovesStation::tick);
}

void MovesStation::askForTime() {
    bool taken = false;
    const double whole =
        QInputDialog::getDouble(this, tr("Fit to a time"), tr("Whole time of the move, waits counted [s]"),
                                std::round(100.0 * desk_->duration()) / 100.0, 0.01, 1e6, 2, &taken);
    if (taken) fitToTime(whole);
}

/// A whole time spread over the segments; refused with the least that would do.
void MovesStation::fitToTime(double whole) {
    if (desk_->current() == nullptr || !(desk_->duration() > 0.0)) {
        emit message(tr("There is no move to fit yet. Store two poses first."), true);
        return;
    }
    std::optional<double> least;
    change(tr("Fit to a time"), [&](Project& p, int move) { least = gantry::fitToTime(p, move, whole); });
    if (least && *least > 0.0)
        emit message(tr("%1 is too short: at least %2 under the limits that are set.")
                         .arg(context_.show(whole, Kind::Time), context_.show(*least, Kind::Time)),
                     true);
    else if (least)
        emit message(tr("Nothing of this move can be timed yet."), true);
    refresh();
}

void MovesStation::newMove() {
    int made = -1;
    context_.document.change(tr("New move"), [&](Project& p) { made = addMove(p); });
    if (made >= 0) desk_->setMove(made);
    refresh();
}

void MovesStation::storePose() {
    const std::vector<double> places = desk_->places();
    const bool first = desk_->current() == nullptr;
    int stored = -1;
    const RigMove* now = desk_->current();
    const int after = now == nullptr       ? -1
                      : desk_->pose() >= 0 ? desk_->pose()
                                           : static_cast<int>(now->poses.size()) - 1;
    context_.document.change(tr("Store pose"), [&](Project& p) {
        const int move = first ? addMove(p) : desk_->move();
        stored = gantry::storePose(p, move, after, places);
    });
    if (stored >= 0) desk_->setPose(stored);
    refresh();
}

void MovesStation::storeView() {
    desk_->storeView();
    const int views = static_cast<int>(desk_->views().size());
    emit message(views < 2 ? tr("View stored. Look at the same thing from another place, and store that too.")
                           : tr("%n views stored. “Aim at” makes a target of them.", nullptr, views),
                 false);
}

/// The point that all stored views have in the middle of the picture, and how well it is known.
void MovesStation::targetFromViews() {
    const TargetFromViews told = gantry::targetFromViews(
        context_.document.project(), context_.document.results().assessment().evaluation, desk_->views());
    if (!told.why.empty()) {
        emit message(QString::fromStdString(told.why), true);
        return;
    }
    const auto round = [](double v) { return std::round(v * 1e3) * 1e-3; };
    change(tr("Target from views"), [&](Project& p, int move) {
        if (p.moves.empty()) move = addMove(p);
        gantry::addTarget(p, move, round(told.at.x), round(told.at.y), round(told.at.z));
        p.moves[static_cast<std::size_t>(move)].targets.back().deviation = told.deviation;
    });
    desk_->forgetViews();
    desk_->setPose(-1);
    emit message(
        tr("The target is %1 away, known within %2.")
            .arg(context_.show(told.range, Kind::Length), context_.show(told.deviation, Kind::Length)),
        false);
}

/// A target two metres before the lens, aimed at by the segment that comes to the pose in hand.
void MovesStation::addTarget() {
    if (desk_->current() == nullptr) {
        emit message(tr("There is no move yet. Store two poses first."), true);
        return;
    }
    const geometry::Frame lens = desk_->camera().frame;
    const geometry::Place at = geometry::plus(lens.at, lens.ahead, 2.0);
    const auto round = [](double v) { return std::round(v * 100.0) / 100.0; };
    change(tr("Add a target"), [&](Project& p, int move) {
        gantry::addTarget(p, move, round(at.x), round(at.y), round(at.z));
        RigMove& m = p.moves[static_cast<std::size_t>(move)];
        const auto pose = static_cast<std::size_t>(std::max(desk_->pose(), 1));
        if (pose >= m.poses.size()) return;
        m.poses[pose].arrive.kind = SegmentKind::Aimed;
        m.poses[pose].arrive.target = m.targets.back().id;
    });
}

void MovesStation::play(bool on) {
    if (on && !(desk_->duration() > 0.0)) {
        play_->setChecked(false);
        emit message(tr("Nothing to play: a move needs two poses in different places."), true);
        return;
    }
    play_->setText(on ? tr("Stop") : tr("Play"));
    if (!on) {
        clock_.stop();
        return;
    }
    startedAt_ = desk_->time() >= desk_->duration() - 1e-6 ? 0.0 : desk_->time();
    since_.start();
    clock_.start();
}

/// In real time, over and over.
void MovesStation::tick() {
    const double whole = desk_->duration();
    if (!(whole > 0.0)) {
        play_->setChecked(false);
        return;
    }
    desk_->setTime(std::fmod(startedAt_ + 1e-3 * static_cast<double>(since_.elapsed()), whole));
}

void MovesStation::saveTable(bool json) {
    const RigMove* m = desk_->current();
    if (m == nullptr) {
        emit message(tr("There is no move to save."), true);
        return;
    }
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save the move"), QString::fromStdString(m->id) + (json ? ".json" : ".csv"),
        json ? tr("JSON (*.json)") : tr("Table (*.csv)"));
    if (path.isEmpty()) return;
    const Project& project = context_.document.project();
    const std::string text =
        json ? io::moveJson(project, *m, *desk_->results(), 0.0) : io::moveCsv(project, *m, 0.0);
    const QString wrong = writeBytes(path, QByteArray::fromStdString(text));
    if (!wrong.isEmpty())
        emit message(wrong, true);
    else
        emit message(tr("Written to “%1”.").arg(path), false);
}

QString MovesStation::headLine() const {
    const RigMove* m = desk_->current();
    const MoveResults* r = desk_->results();
    if (m == nullptr || r == nullptr) return tr("no move yet");
    if (!r->time) return tr("%n poses", nullptr, static_cast<int>(m->poses.size()));
    QStringList said{context_.show(r->time, Kind::Time), tr("%1 frames").arg(r->frames.value())};
    if (const QString best = bestTime(); !best.isEmpty()) said << best;
    if (m->repeats > 1)
        said << (m->comesBack ? tr("%1 passes: %2 in all") : tr("%1 passes: %2 without the ways back"))
                    .arg(m->repeats)
                    .arg(context_.show(r->time.value() * m->repeats, Kind::Time));
    const MoveSegmentResults* worst = nullptr;
    for (const MoveSegmentResults& s : r->segments)
        if (s.room && (worst == nullptr || less(rules::limitRatio(s), rules::limitRatio(*worst)))) worst = &s;
    if (worst != nullptr)
        said << tr("tightest: %1 of %2 from %3 to %4, at least %5 as it is eased")
                    .arg(QString::fromUtf8(
                             ChoiceNames<MoveBinds>::labels[static_cast<std::size_t>(worst->binds)].data()),
                         QString::fromStdString(
                             context_.document.project().axes[static_cast<std::size_t>(worst->axis)].name),
                         QString::fromStdString(poseLetter(worst->pose - 1)),
                         QString::fromStdString(poseLetter(worst->pose)),
                         context_.show(worst->least, Kind::Time));
    const std::vector<Axis>& axes = context_.document.project().axes;
    for (std::size_t a = 0; a < r->axes.size() && a < axes.size(); ++a)
        if (r->axes[a].overshoot.valueOr(0.0) > 0.0)
            said << tr("%1 goes %2 past its poses")
                        .arg(QString::fromStdString(axes[a].name),
                             context_.show(r->axes[a].overshoot,
                                           kindOf(axes[a]) == AxisKind::Linear ? Kind::Length : Kind::Angle));
    for (const MoveSegmentResults& s : r->segments)
        if (s.drift && !s.aimed && s.drift.value() >= 1.0)
            said << tr("%1 to %2: target drifts %3")
                        .arg(QString::fromStdString(poseLetter(s.pose - 1)),
                             QString::fromStdString(poseLetter(s.pose)),
                             context_.show(s.drift, Kind::Pixels));
    return said.join(QStringLiteral(" · "));
}

/// How fast the whole could go over its path, as far as it was looked for.
QString MovesStation::bestTime() const {
    const LeastMoveTime* least = least_->of(QString::fromStdString(desk_->current()->id));
    if (least == nullptr) return {};
    const QString time = context_.show(least->time, Kind::Time);
    return least_->stale() ? tr("at best %1 before the change").arg(time) : tr("at best %1").arg(time);
}

QList<FieldSlot> MovesStation::poseFields() const {
    const RigMove* m = desk_->current();
    QList<FieldSlot> out;
    if (m == nullptr) return out;
    const auto add = [&](const QString& path, const QString& caption = {}, bool startsRow = false) {
        out << FieldSlot{path, caption, 1.0, startsRow};
    };
    const QString base = QStringLiteral("moves/%1/").arg(QString::fromStdString(m->id));
    if (desk_->pose() < 0) {
        for (const char* key : {"name", "shot", "realises", "pre_roll_s", "post_roll_s", "repeats",
                                "comes_back", "takes_up_backlash", "overshoots"})
            add(base + QLatin1String(key));
        for (const AimTarget& t : m->targets) {
            const QString of = base + QStringLiteral("targets/%1/").arg(QString::fromStdString(t.id));
            for (const char* key : {"name", "x_m", "y_m", "z_m", "deviation_m"})
                add(of + QLatin1String(key), {}, QLatin1String(key) == QLatin1String("name"));
            if (!t.rides.empty())
                for (const char* key : {"rides_on", "about_x_m", "about_y_m"}) add(of + QLatin1String(key));
        }
        const Project& rig = context_.document.project();
        for (const AxisBlock& b : m->blocks) {
            const Axis* axis = findAxis(rig, b.axis);
            if (axis == nullptr) continue;
            const QString of = base + QStringLiteral("blocks/%1/").arg(QString::fromStdString(b.id));
            const bool turns = kindOf(*axis) == AxisKind::Rotary;
            add(of + QStringLiteral("start_s"), tr("Block of %1 at").arg(QString::fromStdString(axis->name)),
                true);
            for (const char* key : {"length_s", turns ? "by_rad" : "by_m", "ease", "ease_in", "ease_out"})
                add(of + QLatin1String(key));
        }
        return out;
    }
    const Project& project = context_.document.project();
    const KeyPose& pose = m->poses[static_cast<std::size_t>(desk_->pose())];
    const QString of = base + QStringLiteral("poses/%1/").arg(QString::fromStdString(pose.id));
    const QString arrive = of + QStringLiteral("arrive/");
    const MoveSegment& s = pose.arrive;
    const bool comes = desk_->pose() > 0; // to the first pose no way leads
    add(of + QStringLiteral("name"));
    // What is changed most stands first: when, and where.
    if (comes) {
        add(arrive + QStringLiteral("pace"));
        if (s.pace == SegmentPace::Time) add(arrive + QStringLiteral("time_s"));
        if (s.pace == SegmentPace::Speed) {
            const int leads = leadingAxis(desk_->planned()->scene, desk_->planned()->plan,
                                          static_cast<std::size_t>(desk_->pose()), s);
            if (leads >= 0) {
                const Axis& axis = project.axes[static_cast<std::size_t>(leads)];
                add(arrive + (kindOf(axis) == AxisKind::Rotary ? QStringLiteral("speed_rad_s")
                                                               : QStringLiteral("speed_m_s")),
                    tr("Top speed, %1").arg(QString::fromStdString(axis.name)));
            }
        }
    }
    for (const PosePlace& place : pose.places)
        if (const Axis* axis = findAxis(project, place.axis))
            add(of + QStringLiteral("places/%1/place/%2")
                         .arg(QString::fromStdString(place.axis),
                              QString::fromLatin1(place.place.index() == 0 ? "at_m" : "at_rad")),
                QString::fromStdString(axis->name));
    const bool focuses = desk_->scene().focus.has_value();
    if (focuses) add(of + QStringLiteral("focus_m"));
    if (desk_->scene().zoom) add(of + QStringLiteral("focal_m"));
    if (comes) {
        add(arrive + QStringLiteral("kind"));
        if (s.kind == SegmentKind::Aimed)
            for (const char* key : {"target", "place_right_px", "place_up_px"})
                add(arrive + QLatin1String(key));
        if (s.kind == SegmentKind::Aimed && focuses) add(arrive + QStringLiteral("pulls_focus"));
        // Ease is that of segments which stop at both ends; through poses the spline has its own.
        const auto index = static_cast<std::size_t>(desk_->pose());
        const bool through = goesThrough(*m, index) || goesThrough(*m, index - 1);
        if (!through && s.pace != SegmentPace::Fastest)
            for (const char* key : {"ease", "ease_in", "ease_out"}) add(arrive + QLatin1String(key));
        if (!through) add(arrive + QStringLiteral("even_speed"));
        if (s.pace == SegmentPace::Speed) add(arrive + QStringLiteral("speed_of"));
        if (desk_->pose() + 1 < static_cast<int>(m->poses.size())) add(of + QStringLiteral("passes"));
    }
    add(of + QStringLiteral("wait_s"));
    for (const PosePlace& place : pose.places)
        if (const Axis* axis = findAxis(project, place.axis))
            add(of + QStringLiteral("places/%1/place/from").arg(QString::fromStdString(place.axis)),
                tr("%1 counted").arg(QString::fromStdString(axis->name)));
    add(of + QStringLiteral("note"));
    return out;
}

void MovesStation::showFields() {
    const RigMove* m = desk_->current();
    const int pose = desk_->pose();
    if (m == nullptr)
        fields_->setTitle(tr("No move"), tr("store a pose, or take a ready-made move"));
    else if (pose < 0)
        fields_->setTitle(tr("The whole move"), tr("press a flag for its pose"));
    else if (pose == 0)
        fields_->setTitle(tr("Pose A"), tr("where the move begins; press its flag again for the whole move"));
    else
        fields_->setTitle(
            tr("Pose %1").arg(QString::fromStdString(poseLetter(static_cast<std::size_t>(pose)))),
            tr("and the way to it from %1; press its flag again for the whole move")
                .arg(QString::fromStdString(poseLetter(static_cast<std::size_t>(pose - 1)))));
    fields_->setColumns(desk_->pose() < 0 ? 5 : 0);
    fields_->setFields(poseFields());
}

void MovesStation::refresh() {
    desk_->fit();
    const Project& project = context_.document.project();
    QStringList names;
    for (const RigMove& m : project.moves) names << QString::fromStdString(m.name);
    showChoices(*moves_, names.isEmpty() ? QStringList{tr("No move yet")} : names, desk_->move());
    const bool can = !context_.document.readOnly();
    store_->setEnabled(can && !project.axes.empty());
    target_->setEnabled(can && desk_->current() != nullptr);
    play_->setEnabled(desk_->duration() > 0.0);
    plan_->refresh();
    timeline_->refresh();
    showFields();
    showHeadMoved();
    place();
    showHead();
    wantLeast();
}

/// How fast it could go is looked for only while somebody looks at it.
void MovesStation::wantLeast() {
    if (isVisible() && desk_->current() != nullptr)
        least_->want(QString::fromStdString(desk_->current()->id));
}

void MovesStation::showEvent(QShowEvent* event) {
    wantLeast();
    Station::showEvent(event);
}

void MovesStation::showMoment(int move, double time) {
    if (move < 0 || move >= static_cast<int>(context_.document.project().moves.size())) return;
    if (move != desk_->move()) desk_->setMove(move);
    desk_->setTime(time);
}

void MovesStation::showHeadMoved() {
    lens_->refresh();
    plan_->update();
    timeline_->update();
    jog_->refresh();
}

void MovesStation::showHead() {
    line_ = headLine();
    updateHead(headBottom, line_);
}

void MovesStation::applyTheme() {
    refresh();
}

void MovesStation::place() {
    const int w = width() - 2 * stationEdge;
    int x = stationEdge + 92;
    const auto put = [&](QWidget* widget, int wide) {
        widget->setGeometry(x, headTop, wide, headRow - 1);
        x += wide + 6;
    };
    put(moves_, std::clamp(w - 92 - 92 - 92 - 84 - 110 - 72 - 36, 120, 420));
    put(menu_, 80);
    put(target_, 84);
    put(lanes_, 116);
    put(play_, 70);
    store_->setGeometry(w + stationEdge - std::min(w + stationEdge - x, 130), headTop,
                        std::min(w + stationEdge - x, 130), headRow - 1);
    const int top = headBottom + stationGap, below = height() - stationGap;
    // A large window shows more of the fields before they have to be scrolled.
    const int fieldsRoom =
        std::clamp(fields_->heightFor(w), fieldsHeight, std::max(fieldsHeight, height() * 22 / 100));
    const int fieldsAt = below - fieldsRoom;
    const int room = fieldsAt - stationGap - top;
    const int timeline = std::max(leastTimeline, room * 52 / 100), upper = room - timeline - stationGap;
    const int jog = std::clamp(w * 32 / 100, 226, 340), views = w - jog - 2 * stationGap, half = views / 2;
    plan_->setGeometry(stationEdge, top, half, upper);
    sides_->setGeometry(stationEdge + half - 62, top + 4, 54, 20);
    sides_->raise();
    lens_->setGeometry(stationEdge + half + stationGap, top, views - half, upper);
    jog_->setGeometry(stationEdge + w - jog, top, jog, upper);
    timeline_->setGeometry(stationEdge, top + upper + stationGap, w, timeline);
    fieldsArea_->setGeometry(stationEdge, fieldsAt, w, fieldsRoom);
    const int tall = fields_->heightFor(w) > fieldsRoom ? fields_->heightFor(w - 12) : fieldsRoom;
    fields_->resize(tall > fieldsRoom ? w - 12 : w, tall);
}

void MovesStation::resizeEvent(QResizeEvent*) {
    place();
}

void MovesStation::hideEvent(QHideEvent* event) {
    play_->setChecked(false);
    least_->stop();
    Station::hideEvent(event);
}

void MovesStation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const RigMove* m = desk_->current();
    paintHead(p, QRect(stationEdge, headTop + headRow + 4, width() - 2 * stationEdge - 1, headLineHeight),
              headLineHeight, m != nullptr ? QString::fromStdString(m->name) : tr("No move"), line_, name());
}

} // namespace gantry::app
