// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/intervals/intervals_station.h"

#include "app/stations/intervals/facts_bar.h"
#include "app/stations/intervals/interval_lanes.h"
#include "app/stations/intervals/plan_desk.h"
#include "app/stations/intervals/run_plot.h"
#include "core/model/describe.h"
#include "core/tools/ready_plans.h"
#include "core/units/spelled_time.h"

#include <QComboBox>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int stationEdge = 14, stationGap = 8, headLineHeight = 30, headBottom = 64, fieldsHeight = 134;
/// [s] in which a run is played, however long it is.
constexpr double playTime = 24.0;

} // namespace

IntervalsStation::IntervalsStation(const Context& context, QWidget* parent)
    : Station(context, parent), desk_(new PlanDesk(context, this)), plans_(new QComboBox(this)),
      page_(new QComboBox(this)), new_(new QPushButton(tr("New plan"), this)),
      menu_(new QPushButton(tr("Plan"), this)), play_(new QPushButton(tr("Play the run"), this)),
      facts_(new FactsBar(context, *desk_, this)), lanes_(new IntervalLanes(context, *desk_, this)),
      run_(new RunPlot(context, *desk_, this)), fieldsArea_(new QScrollArea(this)),
      fields_(new FieldGroup(context, fieldsArea_)) {
    plans_->setObjectName(QStringLiteral("planChoice"));
    plans_->setAccessibleName(tr("Plan in hand"));
    page_->setObjectName(QStringLiteral("planPage"));
    page_->setAccessibleName(tr("Fields that are shown"));
    for (int p = 0; p < pages; ++p) page_->addItem(pageName(p));
    new_->setObjectName(QStringLiteral("newPlan"));
    new_->setProperty("menu", true);
    menu_->setObjectName(QStringLiteral("planMenu"));
    menu_->setProperty("menu", true);
    play_->setObjectName(QStringLiteral("playRun"));
    play_->setProperty("role", "primary");
    play_->setCheckable(true);
    fieldsArea_->setWidget(fields_);
    fieldsArea_->setFrameShape(QFrame::NoFrame);
    fieldsArea_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    fieldsArea_->setFocusPolicy(Qt::NoFocus);
    makeMenu();
    connect(play_, &QPushButton::toggled, this, &IntervalsStation::play);
    connect(plans_, &QComboBox::activated, this, [this](int i) {
        if (i >= 0 && i < static_cast<int>(context_.document.project().plans.size())) desk_->setPlan(i);
    });
    connect(page_, &QComboBox::activated, this, [this] {
        showFields();
        place();
    });
    connect(desk_, &PlanDesk::changed, this, &IntervalsStation::refresh);
    connect(desk_, &PlanDesk::headMoved, this, &IntervalsStation::showHeadMoved);
    connect(run_, &RunPlot::playWanted, play_, &QPushButton::toggle);
    connect(fields_, &FieldGroup::message, this, &Station::message);
    connect(facts_, &FactsBar::message, this, &Station::message);
    connect(lanes_, &IntervalLanes::message, this, &Station::message);
    clock_.setInterval(30);
    connect(&clock_, &QTimer::timeout, this, &IntervalsStation::tick);
}

QString IntervalsStation::pageName(int page) const {
    switch (page) {
    case Camera:
        return tr("Cameras");
    case Light:
        return tr("Light");
    case Power:
        return tr("Power");
    case Presence:
        return tr("Presence and pauses");
    case Clock:
        return tr("Clock and hours");
    case Way:
        return tr("Pulses, timers, head");
    default:
        return tr("Run and steps");
    }
}

void IntervalsStation::newPlan(int kind) {
    int made = -1;
    context_.document.change(tr("New plan"),
                             [&](Project& p) { made = addReadyPlan(p, static_cast<ReadyPlan>(kind)); });
    if (made >= 0)
        desk_->setPlan(made);
    else
        emit message(tr("No more plans are possible. Remove one first."), true);
    refresh();
}

void IntervalsStation::play(bool on) {
    if (on && desk_->course() == nullptr) {
        play_->setChecked(false);
        emit message(tr("Nothing to play: the plan cannot run yet."), true);
        return;
    }
    play_->setText(on ? tr("Stop") : tr("Play the run"));
    if (!on) {
        clock_.stop();
        return;
    }
    const double whole = desk_->course()->gaps().total();
    startedAt_ = desk_->time() >= whole - 1e-6 ? 0.0 : desk_->time();
    since_.start();
    clock_.start();
}

/// Speeded up so that every run takes as long to look at.
void IntervalsStation::tick() {
    const IntervalCourse* c = desk_->course();
    if (c == nullptr) {
        play_->setChecked(false);
        return;
    }
    const double whole = c->gaps().total();
    const double at = startedAt_ + 1e-3 * static_cast<double>(since_.elapsed()) * whole / playTime;
    desk_->setTime(std::min(at, whole));
    if (at >= whole) play_->setChecked(false);
}

QString IntervalsStation::standing() const {
    const IntervalResults* r = desk_->results();
    if (r == nullptr) return {};
    if (!r->troubles.empty()) return tr("First to fail: the plan cannot run yet · ");
    if (r->first == FirstFailure::None)
        return tr("First to fail: nothing before the last picture, %1 · ")
            .arg(context_.show(r->endsAfter, Kind::TimeOfDay));
    return tr("First to fail: %1, at picture %2, %3 · ")
        .arg(QString::fromUtf8(ChoiceNames<FirstFailure>::labels[static_cast<std::size_t>(r->first)].data()),
             context_.show(r->firstAt, Kind::Count, 8), context_.show(r->firstClock, Kind::TimeOfDay));
}

QString IntervalsStation::headLine() const {
    const IntervalPlan* plan = desk_->current();
    const IntervalResults* r = desk_->results();
    if (plan == nullptr || r == nullptr) return tr("no plan yet");
    QStringList said;
    if (r->first != FirstFailure::None)
        said << tr("first to fail: %1, picture %2")
                    .arg(QString::fromUtf8(
                             ChoiceNames<FirstFailure>::labels[static_cast<std::size_t>(r->first)].data()),
                         context_.show(r->firstAt, Kind::Count, 8));
    said << tr("ends %1").arg(context_.show(r->endsAfter, Kind::TimeOfDay));
    const auto& axes = context_.document.project().axes;
    for (std::size_t a = 0; a < r->axes.size() && a < axes.size(); ++a) {
        const PlanAxisResults& axis = r->axes[a];
        if (!axis.moves || !axis.to || !axis.from) continue;
        const Kind kind = kindOf(axes[a]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
        QString text =
            tr("%1 %2").arg(QString::fromStdString(axes[a].name), context_.show(axis.to - axis.from, kind));
        if (axis.microsteps)
            text +=
                tr(", %1 microsteps a picture at most").arg(context_.show(axis.microsteps, Kind::Count, 7));
        said << text;
    }
    if (r->sharp.alikeExposure)
        said << tr("%1 up to %2 of exposure")
                    .arg(tr("moving on is sharper"), context_.show(r->sharp.alikeExposure, Kind::Time));
    return said.join(QStringLiteral(" · "));
}

QList<FieldSlot> IntervalsStation::fieldsOf(int page) const {
    const IntervalPlan* plan = desk_->current();
    QList<FieldSlot> out;
    if (plan == nullptr) return out;
    const QString base = QStringLiteral("plans/%1/").arg(QString::fromStdString(plan->id));
    const auto add = [&](const QString& of, std::initializer_list<const char*> keys, bool startsRow = false) {
        bool first = startsRow;
        for (const char* key : keys) {
            out << FieldSlot{base + of + QLatin1String(key), {}, 1.0, first};
            first = false;
        }
    };
    const auto each = [&](const char* list, const auto& parts, std::initializer_list<const char*> keys) {
        for (const auto& part : parts)
            add(QStringLiteral("%1/%2/").arg(QLatin1String(list), QString::fromStdString(part.id)), keys,
                true);
    };
    switch (page) {
    case Run:
        add({}, {"name", "mode", "move", "shot", "order", "steps"});
        if (plan->steps == StepsGo::Ramps) add({}, {"ramp"});
        add({}, {"gaps"});
        if (plan->gaps != GapsGo::Even) add({}, {"last_interval_s"});
        add({}, {"spare_s", "settle_by"});
        if (plan->settleBy == SettleBy::Entered) add({}, {"settle_s"});
        add({}, {"writes_while_moving", "whole_steps", "clip_rate_hz", "held_frames"});
        break;
    case Camera:
        for (const PlanCamera& c : plan->cameras) {
            const QString of = QStringLiteral("cameras/%1/").arg(QString::fromStdString(c.id));
            add(of, {"name", "focus_s", "lag_s", "write_s", "picture_bytes", "card_bytes", "bulb"}, true);
            if (c.bulb) add(of, {"close_lag_s", "least_press_s", "least_gap_s"});
        }
        add({}, {"if_missed"}, true);
        each("faults", plan->faults, {"picture", "tries", "waited_s"});
        break;
    case Light:
        add({}, {"exposure_s", "metered_s"});
        add(QStringLiteral("passer/"), {"speed_m_s", "width_m", "distance_m"});
        each("exposures", plan->exposures, {"picture", "exposure_s"});
        break;
    case Power:
        add({}, {"warn_V", "park_V"});
        each("consumers", plan->consumers, {"name", "when", "power_W", "otherwise_W"});
        each("readings", plan->readings, {"picture", "volts_V"});
        break;
    case Presence:
        add({}, {"active_time_s", "at_end", "goes_back"});
        each("sensors", plan->sensors,
             {"name", "hold_s", "warm_up_s", "seen_every_s", "triggers_itself", "deaf_while_moving"});
        each("pauses", plan->pauses, {"start_s", "length_s"});
        break;
    case Clock:
        add({}, {"start_clock_s", "start_day", "sign"});
        add(QStringLiteral("hours/"), {"kept", "open_s", "close_s"});
        add(QStringLiteral("hours/"),
            {"monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"}, true);
        break;
    case Way:
        add(QStringLiteral("pulses/"),
            {"pulse_s", "speed_m_s", "dead_time_s", "run_up_s", "coast_time_s", "coast_brake_m_s2",
             "pulse_scatter_s", "speed_scatter", "speed_drift"});
        add(QStringLiteral("clocks/"),
            {"camera_slow", "rig_interval_s", "rig_slow", "offset_s", "counts_from_end"}, true);
        add(QStringLiteral("head/"), {"turn_rad", "longest_s", "delay_s"}, true);
        break;
    default:
        break;
    }
    return out;
}

/// Stopping or moving on, and why.
QString IntervalsStation::whichIsSharper() const {
    const IntervalResults* r = desk_->results();
    if (r == nullptr || !r->sharp.smear) return {};
    const bool runs = desk_->current()->mode == IntervalMode::Runs;
    if (!r->sharp.otherWay)
        return tr("moving on smears by %1").arg(context_.show(r->sharp.smear, Kind::Pixels));
    const QString stopped = context_.show(runs ? r->sharp.otherWay : r->sharp.smear, Kind::Pixels),
                  running = context_.show(runs ? r->sharp.smear : r->sharp.otherWay, Kind::Pixels);
    QString out = tr("stopped it smears by %1, moving on by %2").arg(stopped, running);
    if (r->sharp.alikeExposure)
        out += tr(" · below %1 of exposure moving on is sharper")
                   .arg(context_.show(r->sharp.alikeExposure, Kind::Time));
    return out;
}

/// What becomes of a run that presence keeps going.
QString IntervalsStation::whoIsThere() const {
    const IntervalPlan* plan = desk_->current();
    const IntervalResults* r = desk_->results();
    if (plan->sensors.empty()) return tr("without a sensor the run goes on by itself; pauses put it off");
    const double way = r->others.wayTime.valueOr(r->duration.valueOr(0.0));
    const QString stayed =
        plan->atEnd == AtWayEnd::Stays ? tr("waits at its end") : tr("turns back at its end");
    QStringList said{tr("the way takes %1 of presence; left early it stops where it is, stayed longer it %2")
                         .arg(QString::fromStdString(units::spelledTime(way)), stayed)};
    if (r->others.wayShown && r->others.wayShown.value() < 1.0)
        said << tr("%1 of the way is shown").arg(context_.show(r->others.wayShown, Kind::Percentage));
    if (r->others.falseStops && r->others.falseStops.value() > 0.0)
        said << tr("stops falsely once in %1")
                    .arg(QString::fromStdString(units::spelledTime(1.0 / r->others.falseStops.value())));
    if (r->others.deleted)
        said << tr("%1 pictures to delete").arg(context_.show(r->others.deleted, Kind::Count, 7));
    return said.join(QStringLiteral(" · "));
}

void IntervalsStation::showFields() {
    const int page = page_->currentIndex();
    const IntervalPlan* plan = desk_->current();
    QString subtitle;
    if (plan == nullptr)
        subtitle = tr("make a plan to begin");
    else if (page == Run)
        subtitle = whichIsSharper();
    else if (page == Presence)
        subtitle = whoIsThere();
    else if (page == Way)
        subtitle = tr("count in plans that work that way; this one: %1")
                       .arg(QString::fromUtf8(
                           ChoiceNames<IntervalMode>::labels[static_cast<std::size_t>(plan->mode)].data()));
    else if (page == Light && desk_->results() != nullptr && desk_->results()->sharp.passerPath) {
        const PlanSharpness& s = desk_->results()->sharp;
        const double cover = s.passerCover.valueOr(0.0);
        subtitle = tr("a passer-by walks %1 in an exposure and covers a point for %2: he %3")
                       .arg(context_.show(s.passerPath, Kind::Pixels),
                            context_.show(s.passerCover, Kind::Percentage),
                            s.passerPath.value() < 2.0 ? tr("freezes")
                            : cover < 0.1              ? tr("vanishes")
                                                       : tr("streaks"));
        if (s.filterStops)
            subtitle += tr(" · filter: %1 stops").arg(context_.show(s.filterStops, Kind::Ratio));
    } else if (page == Power && desk_->results() != nullptr) {
        const PlanEnergy& e = desk_->results()->energy;
        if (e.average)
            subtitle =
                tr("%1 on average, motors take %2")
                    .arg(context_.show(e.average, Kind::Power), context_.show(e.motors, Kind::Percentage));
        if (e.endVoltage) subtitle += tr(" · %1 at the end").arg(context_.show(e.endVoltage, Kind::Voltage));
        if (e.warnAt) subtitle += tr(" · warns at picture %1").arg(context_.show(e.warnAt, Kind::Count, 7));
        if (e.parkAt) subtitle += tr(" · parks at picture %1").arg(context_.show(e.parkAt, Kind::Count, 7));
        const auto& errors = desk_->results()->readingErrors;
        for (std::size_t i = 0; i < errors.size() && i < plan->readings.size(); ++i)
            if (errors[i])
                subtitle += tr(" · picture %1: %2 %3 than predicted")
                                .arg(plan->readings[i].picture)
                                .arg(context_.show(std::abs(errors[i].value()), Kind::Voltage),
                                     errors[i].value() < 0.0 ? tr("less") : tr("more"));
    }
    fields_->setTitle(pageName(page), subtitle);
    fields_->setColumns(page == Run ? 4 : 0); // names of moves and shots need room
    fields_->setFields(fieldsOf(page));
}

void IntervalsStation::refresh() {
    desk_->fit();
    const Project& project = context_.document.project();
    QStringList names;
    for (const IntervalPlan& p : project.plans) names << QString::fromStdString(p.name);
    showChoices(*plans_, names.isEmpty() ? QStringList{tr("No plan yet")} : names, desk_->plan());
    const bool can = !context_.document.readOnly();
    new_->setEnabled(can && !project.axes.empty());
    play_->setEnabled(desk_->course() != nullptr);
    page_->setEnabled(desk_->current() != nullptr);
    facts_->refresh();
    lanes_->refresh();
    run_->refresh();
    showFields();
    place();
    line_ = headLine();
    updateHead(headBottom, line_);
}

void IntervalsStation::showPlan(int plan) {
    if (plan >= 0 && plan < static_cast<int>(context_.document.project().plans.size())) desk_->setPlan(plan);
}

void IntervalsStation::showHeadMoved() {
    lanes_->refresh();
    run_->update();
}

void IntervalsStation::applyTheme() {
    refresh();
}

void IntervalsStation::place() {
    const int w = width() - 2 * stationEdge;
    int x = stationEdge + 92;
    const auto put = [&](QWidget* widget, int wide) {
        widget->setGeometry(x, headTop, wide, headRow - 1);
        x += wide + 6;
    };
    put(plans_, std::clamp(w - 92 - 92 - 80 - 170 - 120 - 30, 110, 340));
    put(new_, 86);
    put(menu_, 76);
    put(page_, 172);
    play_->setGeometry(w + stationEdge - std::min(w + stationEdge - x, 112), headTop,
                       std::min(w + stationEdge - x, 112), headRow - 1);
    int y = headBottom + stationGap;
    facts_->setGeometry(stationEdge, y, w, FactsBar::height_);
    y += FactsBar::height_ + stationGap;
    const int below = height() - stationGap;
    // Whole rows, as many as there is room for.
    int rows = 2;
    while (FieldGroup::rowTop(rows + 1) - FieldEditor::captionHeight <= height() * 27 / 100) ++rows;
    const int fieldsRoom = std::min(std::max(fields_->heightFor(w), fieldsHeight),
                                    FieldGroup::rowTop(rows) - FieldEditor::captionHeight);
    const int fieldsAt = below - fieldsRoom, room = fieldsAt - stationGap - y;
    const int lanes = std::clamp(room * 42 / 100, 110, 260);
    lanes_->setGeometry(stationEdge, y, w, lanes);
    run_->setGeometry(stationEdge, y + lanes + stationGap, w, room - lanes - stationGap);
    fieldsArea_->setGeometry(stationEdge, fieldsAt, w, fieldsRoom);
    const int tall = fields_->heightFor(w) > fieldsRoom ? fields_->heightFor(w - 12) : fieldsRoom;
    fields_->resize(tall > fieldsRoom ? w - 12 : w, tall);
}

void IntervalsStation::resizeEvent(QResizeEvent*) {
    place();
}

void IntervalsStation::hideEvent(QHideEvent* event) {
    play_->setChecked(false);
    Station::hideEvent(event);
}

void IntervalsStation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const IntervalPlan* plan = desk_->current();
    paintHead(p, QRect(stationEdge, headTop + headRow + 4, width() - 2 * stationEdge - 1, headLineHeight),
              headLineHeight, plan != nullptr ? QString::fromStdString(plan->name) : tr("No plan"), line_,
              name());
}

} // namespace gantry::app
