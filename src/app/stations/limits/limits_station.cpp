// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/limits/limits_station.h"

#include "app/instruments/confidence_card.h"
#include "app/instruments/envelope_plot.h"
#include "app/instruments/measure_dialog.h"
#include "app/instruments/simulation_plot.h"
#include "app/instruments/speed_strip.h"
#include "app/stations/limits/ladder_dialog.h"
#include "app/stations/limits/ramps_dialog.h"
#include "app/stations/limits/time_dialog.h"
#include "app/theme/tokens.h"
#include "core/tools/simulation_view.h"
#include "core/words/messages.h"

#include <QComboBox>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <algorithm>

namespace gantry::app {
namespace {

using units::Kind;
constexpr int edge = 14, gap = 8, headBottom = 112;

struct Kinds {
    Kind travel, speed, acceleration, jerk;
};
Kinds kindsOf(AxisKind kind) {
    if (kind == AxisKind::Linear) return {Kind::Length, Kind::Speed, Kind::Acceleration, Kind::Jerk};
    return {Kind::Angle, Kind::AngularSpeed, Kind::AngularAcceleration, Kind::AngularJerk};
}

template <class F>
void withMotion(Axis& axis, F f) {
    std::visit([&](auto& m) { f(m.motion); }, axis.mechanism);
}

} // namespace

LimitsStation::LimitsStation(const Context& context, QWidget* parent)
    : Station(context, parent), envelope_(new EnvelopePlot(context, this)),
      strip_(new SpeedStrip(context, this)), fields_(new FieldGroup(context, this)),
      simulation_(new SimulationPlot(context, this)), confidence_(new ConfidenceCard(context, this)),
      recommended_(new QPushButton(tr("Use recommended limits"), this)),
      alike_(new QPushButton(tr("Match all axes"), this)),
      simulate_(new QPushButton(tr("Simulate the shot"), this)), more_(new QPushButton(tr("Tools"), this)),
      fault_(new QComboBox(this)), job_(context.document) {
    more_->setObjectName(QStringLiteral("limitsTools"));
    more_->setProperty("menu", true);
    auto* menu = new QMenu(this);
    menu->addAction(tr("Stall ladder"), this, [this] { ToolWindow::open<LadderDialog>(context_, window()); });
    menu->addAction(tr("Compare ramps"), this, [this] { ToolWindow::open<RampsDialog>(context_, window()); });
    menu->addAction(tr("Time for a distance"), this,
                    [this] { ToolWindow::open<TimeDialog>(context_, window()); });
    menu->addSeparator();
    const auto working = [this, menu](const QString& text, std::function<QString()> path) {
        menu->addAction(text, this, [this, path = std::move(path)] {
            if (context_.axis() != nullptr) emit explain(path());
        });
    };
    working(tr("How the speed limit by torque comes about"),
            [this] { return figurePath("torque_limit_speed_m_s"); });
    working(tr("How the speed limit by pulses comes about"),
            [this] { return figurePath("pulse_limit_speed_m_s"); });
    working(tr("How the acceleration limit comes about"), [this] { return rampPath(); });
    working(tr("How the heaviest load comes about"), [this] {
        return figurePath(kindOf(*context_.axis()) == AxisKind::Linear ? "capability/mass_kg"
                                                                       : "capability/inertia_kgm2");
    });
    working(tr("How the steepest slope comes about"), [this] { return figurePath("capability/slope_rad"); });
    more_->setMenu(menu);
    recommended_->setObjectName(QStringLiteral("useRecommended"));
    recommended_->setProperty("role", "primary");
    alike_->setObjectName(QStringLiteral("useAlike"));
    simulate_->setObjectName(QStringLiteral("simulateShot"));
    fault_->setObjectName(QStringLiteral("faultChoice"));
    fault_->setAccessibleName(tr("Fault to simulate"));
    fault_->addItems({tr("no fault"), tr("power is cut halfway"), tr("emergency stop halfway"),
                      tr("runs into an end stop"), tr("carriage jams halfway"), tr("supply sags to a half")});
    connect(recommended_, &QPushButton::clicked, this, &LimitsStation::useRecommended);
    connect(alike_, &QPushButton::clicked, this, &LimitsStation::useAlike);
    connect(simulate_, &QPushButton::clicked, this, &LimitsStation::simulate);
    connect(envelope_, &EnvelopePlot::dragged, this, &LimitsStation::setPoint);
    for (Plot* plot : {static_cast<Plot*>(envelope_), static_cast<Plot*>(simulation_)})
        connect(plot, &Plot::message, this, &Station::message);
    connect(fields_, &FieldGroup::message, this, &Station::message);
    connect(confidence_, &ConfidenceCard::measureWanted, this, [this](const QString& path) {
        auto* dialog = new MeasureDialog(context_, path, window());
        dialog->setAttribute(Qt::WA_DeleteOnClose);
        dialog->open();
    });
    connect(&job_, &LimitsJob::simulated, this, &LimitsStation::showResult);
    connect(&job_, &LimitsJob::progressed, this, [this](double share) {
        simulate_->setText(tr("Stop, %1 done").arg(context_.show(share, Kind::Percentage, 2)));
    });
    connect(&job_, &LimitsJob::sampled, this,
            [this](const sampling::Confidence& c, int axis, quint64 revision) {
                sampled_ = c;
                sampledAxis_ = axis;
                sampledRevision_ = revision;
                if (isVisible()) refresh();
            });
    // Sampling waits until the hands are still.
    sampling_.setSingleShot(true);
    sampling_.setInterval(300);
    connect(&sampling_, &QTimer::timeout, this, [this] {
        if (context_.axis() != nullptr && isVisible()) job_.sample(context_.session.axis());
    });
}

QString LimitsStation::figurePath(const char* key) const {
    return QStringLiteral("axes/%1/%2")
        .arg(QString::fromStdString(context_.axis()->id), QString::fromUtf8(key));
}

QString LimitsStation::rampPath() const {
    const ShotEvaluation* shot = context_.shotEvaluation();
    if (shot == nullptr) return {};
    const std::string& id = context_.document.project().shots[shot->shot.at()].id;
    return figurePath(("shots/" + id + "/max_acceleration_m_s2").c_str());
}

QString LimitsStation::motionPath(const char* linear, const char* rotary) const {
    const Axis& axis = *context_.axis();
    return QStringLiteral("axes/%1/mechanism/motion/%2")
        .arg(QString::fromStdString(axis.id),
             QString::fromLatin1(kindOf(axis) == AxisKind::Linear ? linear : rotary));
}

void LimitsStation::refresh() {
    const Axis* axis = context_.axis();
    const AxisEvaluation* e = context_.axisEvaluation();
    const bool has = axis != nullptr && e != nullptr;
    for (QWidget* w :
         std::initializer_list<QWidget*>{recommended_, alike_, simulate_, fault_, more_, fields_})
        w->setEnabled(has && (w == simulate_ || w == fault_ || w == more_ || !context_.document.readOnly()));
    if (!has) {
        limits_ = {};
        fields_->setFields({});
        fields_->setTitle(tr("No axis"), tr("Add an axis at the left"));
        envelope_->clear(tr("Add an axis to see how fast and how hard it can go."));
        strip_->show(limits_, AxisKind::Linear, {});
        line_ = detail_ = QString();
        confidence_->clear(tr("Nothing to sample yet."));
        simulation_->clear(tr("Nothing to simulate yet."));
        showHead();
        return;
    }
    limits_ = context_.document.results().limits(static_cast<std::size_t>(context_.session.axis()));
    std::visit(
        [&](const auto& m) {
            set_ = {m.motion.maxSpeed, m.motion.maxAcceleration, m.motion.jerk};
        },
        axis->mechanism);
    QStringList names;
    for (const StripShot& s : limits_.shots)
        names << QString::fromStdString(context_.document.project().shots[s.shot.at()].name);
    envelope_->show(limits_, set_, kindOf(*axis), names);
    strip_->show(limits_, kindOf(*axis), names);
    const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id));
    fields_->setTitle(tr("Controller settings and vibration"),
                      limits_.mode ? (limits_.modeMeasured
                                          ? tr("natural frequency %1, measured")
                                          : tr("natural frequency about %1, from its parts; measure it"))
                                         .arg(context_.show(limits_.mode->frequency, Kind::Frequency))
                                   : tr("no natural frequency known"));
    fields_->setFields({{motionPath("max_speed_m_s", "max_speed_rad_s"), {}, 1.0},
                        {motionPath("max_acceleration_m_s2", "max_acceleration_rad_s2"), {}, 1.0},
                        {motionPath("jerk_m_s3", "jerk_rad_s3"), {}, 1.0},
                        {motionPath("instant_speed_step_m_s", "instant_speed_step_rad_s"), {}, 1.0},
                        {QStringLiteral("controller/ramps"), {}, 1.0},
                        {base + QStringLiteral("vibration/frequency_hz"), {}, 1.0},
                        {base + QStringLiteral("vibration/damping"), {}, 1.0},
                        {QStringLiteral("conditions/speed_near_people_m_s"), {}, 1.0},
                        {QStringLiteral("conditions/energy_near_people_J"), {}, 1.0},
                        {QStringLiteral("controller/pulses_shared"), {}, 1.0}});
    line_ = limitsLine();
    detail_ = detailLine();
    const bool sampledThis = sampledAxis_ == context_.session.axis();
    confidence_->show(sampledThis ? sampled_ : std::nullopt,
                      sampledRevision_ != context_.document.revision());
    if (!sampledThis || sampledRevision_ != context_.document.revision()) sampling_.start();
    if (simulated_ && simulated_->from.axis == context_.session.axis())
        simulation_->show(simulated_->result, simulated_->from.evaluation.model.kind, simulated_->from.pixels,
                          simulated_->from.input.profile.time(),
                          simulated_->revision != context_.document.revision());
    else
        simulation_->clear(
            tr("Simulate the shot to see how the drive follows it: currents, play, springs and friction "
               "in steps of 2.5 µs."));
    place();
    showHead();
}

void LimitsStation::applyTheme() {
    envelope_->applyTheme();
    simulation_->applyTheme();
    refresh();
}

QString LimitsStation::limitsLine() const {
    if (limits_.problem != Reason::None)
        return tr("not known yet: %1").arg(QString::fromUtf8(words::reasonText(limits_.problem).data()));
    const Kinds k = kindsOf(kindOf(*context_.axis()));
    const auto first = [&](const std::vector<Limit>& all, double value, Kind kind) {
        for (const Limit& l : all)
            if (l.value == value)
                return tr("%1, %2").arg(context_.show(value, kind),
                                        QString::fromUtf8(limitName(l.reason).data()));
        return context_.show(value, kind);
    };
    QStringList said{
        tr("speed %1").arg(first(limits_.speed, limits_.largest.speed, k.speed)),
        tr("acceleration %1").arg(first(limits_.acceleration, limits_.largest.acceleration, k.acceleration))};
    if (limits_.largest.jerk > 0.0)
        said << tr("jerk %1").arg(first(limits_.jerk, limits_.largest.jerk, k.jerk));
    return said.join(QStringLiteral(" · "));
}

QString LimitsStation::detailLine() const {
    if (limits_.problem != Reason::None) return {};
    const Kinds k = kindsOf(kindOf(*context_.axis()));
    static const std::array<const char*, 5> advice{
        QT_TR_NOOP("no ramps: stay below the start-stop speed"), QT_TR_NOOP("trapezoid"),
        QT_TR_NOOP("trapezoid with ramps of whole periods"), QT_TR_NOOP("S-curve"),
        QT_TR_NOOP("S-curve with jerk phases of one period")};
    QStringList said;
    for (const StripShot& s : limits_.shots)
        if (s.tooFast || s.tooHard) {
            const QString name = QString::fromStdString(context_.document.project().shots[s.shot.at()].name);
            said << (s.tooFast ? tr("shot “%1” needs %2, beyond these limits")
                                     .arg(name, context_.show(s.speed, k.speed))
                               : tr("shot “%1” ramps at %2, beyond these limits")
                                     .arg(name, context_.show(s.acceleration, k.acceleration)));
        }
    said << QStringList{tr("Best ramps here: %1").arg(tr(advice[static_cast<std::size_t>(limits_.ramps)]))};
    const auto add = [&](const QString& words, const Figure& f, Kind kind) {
        if (f) said << words.arg(context_.show(f, kind));
    };
    add(tr("starts at %1 without a ramp"), limits_.startStop, k.speed);
    add(tr("instant speed step up to %1"), limits_.instantStep, k.speed);
    add(tr("stops in %1"), limits_.stoppingOrdinary, k.travel);
    add(tr("in %1 at the hardest"), limits_.stoppingEmergency, k.travel);
    add(tr("smallest reliable move %1"), limits_.finestMove, k.travel);
    if (limits_.usefulMicrosteps > 0) said << tr("1/%1 steps are fine enough").arg(limits_.usefulMicrosteps);
    add(tr("stick-slip jump %1"), limits_.stickSlipPixels, Kind::Pixels);
    add(tr("detent ripple %1"), limits_.ripplePixels, Kind::Pixels);
    add(tr("may jump %1 at power-up"), limits_.powerUpPixels, Kind::Pixels);
    const Conditions& place = context_.document.project().conditions;
    const Role role = context_.axis()->role;
    if ((role == Role::Swing || role == Role::BoomTilt) && place.speedNearPeople <= 0.0 &&
        place.energyNearPeople <= 0.0)
        said << tr(
            "a boom near people needs a cap on speed and energy: local rules and qualified people decide");
    return said.join(QStringLiteral(" · "));
}

void LimitsStation::setPoint(double speed, double acceleration) {
    const Axis* axis = context_.axis();
    if (axis == nullptr) return;
    context_.document.change(
        tr("Drag speed and acceleration"),
        [&](Project& p) {
            withMotion(p.axes[static_cast<std::size_t>(context_.session.axis())], [&](auto& m) {
                m.maxSpeed = speed;
                m.maxAcceleration = acceleration;
            });
        },
        QStringLiteral("limits/%1").arg(QString::fromStdString(axis->id)));
}

void LimitsStation::useRecommended() {
    if (limits_.problem != Reason::None) return;
    const Triple r = limits_.recommended;
    if (r.speed <= 0.0 || r.acceleration <= 0.0) {
        emit message(tr("Nothing is left to accelerate with; the line of limits says what binds."), true);
        return;
    }
    context_.document.change(tr("Use recommended limits"), [&](Project& p) {
        withMotion(p.axes[static_cast<std::size_t>(context_.session.axis())], [&](auto& m) {
            m.maxSpeed = r.speed;
            m.maxAcceleration = r.acceleration;
            m.jerk = r.jerk;
            if (limits_.instantStep) m.instantSpeedStep = limits_.instantStep.value();
        });
    });
}

void LimitsStation::useAlike() {
    const Project& project = context_.document.project();
    std::vector<AxisLimits> all;
    for (std::size_t i = 0; i < project.axes.size(); ++i)
        all.push_back(context_.document.results().limits(i));
    const std::vector<Triple> triples = alike(all);
    context_.document.change(tr("Make all axes feel alike"), [&](Project& p) {
        for (std::size_t i = 0; i < p.axes.size(); ++i)
            if (triples[i].speed > 0.0 && triples[i].acceleration > 0.0)
                withMotion(p.axes[i], [&](auto& m) {
                    m.maxSpeed = triples[i].speed;
                    m.maxAcceleration = triples[i].acceleration;
                    m.jerk = triples[i].jerk;
                });
    });
}

simulation::Fault LimitsStation::chosenFault(const motion::Profile& profile) const {
    using simulation::FaultKind;
    const double half = 0.5 * profile.time();
    switch (fault_->currentIndex()) {
    case 1:
        return {FaultKind::PowerCut, half, 0.0};
    case 2:
        return {FaultKind::EmergencyStop, half, // What was not tried is taken at its worst.
                holdsAfter(context_.axis()->onStop) ? 1.0 : 0.0};
    case 3:
        return {FaultKind::EndStop, 0.0, 0.7 * profile.distance};
    case 4:
        return {FaultKind::Stuck, half, 0.0};
    case 5:
        return {FaultKind::SupplySag, half, 0.5};
    default:
        return {};
    }
}

void LimitsStation::simulate() {
    if (job_.running()) {
        job_.stop();
        return;
    }
    const ShotEvaluation* shot = context_.shotEvaluation();
    const AxisEvaluation* e = context_.axisEvaluation();
    auto input = shot != nullptr && e != nullptr ? simulationOf(*context_.axis(), *e, *shot) : std::nullopt;
    if (!input) {
        emit message(shot != nullptr && e != nullptr
                         ? tr("This shot cannot be simulated: %1.")
                               .arg(QString::fromStdString(
                                   std::string(words::reasonText(simulationProblem(*e, *shot)))))
                         : tr("Nothing to simulate: this axis has no shot that can be driven yet."),
                     true);
        return;
    }
    input->fault = chosenFault(input->profile);
    const Project& project = context_.document.project();
    const Shot& entered = project.shots[shot->shot.at()];
    started_ = {*input, *e, context_.session.axis(), shot->pixelsPerUnit,
                framingAllowed(project.camera, entered)};
    const double limit = entered.limits.jitter;
    job_.simulate(*input, shot->pixelsPerUnit > 0.0 ? limit / shot->pixelsPerUnit : 0.0);
    simulate_->setText(tr("Stop, 0 % done"));
}

void LimitsStation::showResult(const simulation::SimulationResult& result, quint64 revision) {
    simulate_->setText(tr("Simulate the shot"));
    if (!result.finished) {
        emit message(tr("Simulation stopped."), false);
        return;
    }
    simulated_ = Simulated{started_, result, revision};
    const Kinds k = kindsOf(started_.evaluation.model.kind);
    QStringList said;
    // Whichever way the shot runs: the harder one is what counts.
    if (started_.input.mechanism.steady > 0.0) said << tr("against gravity");
    const Lag lag = lagOf(started_.input, result);
    const QString behind = tr("%1 behind at most").arg(context_.show(lag.place, k.travel));
    if (result.lostFullSteps != 0)
        said << tr("loses %1 full steps from %2 on, at %3 commanded")
                        .arg(std::abs(result.lostFullSteps))
                        .arg(context_.show(result.lostAt, Kind::Time),
                             context_.show(result.lostSpeed, k.speed)) +
                    because(*simulated_);
    else
        said << (lag.inSteps ? tr("keeps in step; %1").arg(behind)
                 : lag.time  ? tr("%1, which is %2 late").arg(behind, context_.show(*lag.time, Kind::Time))
                             : behind);
    if (const double px = started_.pixels; px > 0.0)
        said << tr("vibrates %1 after the stop").arg(context_.show(result.rocking * px, Kind::Pixels));
    if (result.settled >= 0.0) said << tr("settles in %1").arg(context_.show(result.settled, Kind::Time));
    said << tr("ends %1 off").arg(context_.show(std::abs(result.finalError), k.travel));
    if (const double px = started_.pixels; px > 0.0)
        said.back() = tr("ends %1 off (%2 allowed)")
                          .arg(context_.show(std::abs(result.finalError) * px, Kind::Pixels),
                               context_.show(started_.framing, Kind::Pixels));
    if (result.hitSpeed > 0.0) said << tr("hits the stop at %1").arg(context_.show(result.hitSpeed, k.speed));
    if (result.peakCurrent > 0.0)
        said << tr("windings %1 at most, %2")
                    .arg(context_.show(result.peakCurrent, Kind::Current),
                         context_.show(result.energy.copper, Kind::Energy));
    // What it was worked out for comes last, where it may be cut off.
    if (started_.input.leftOut > 0.0)
        said << tr("without %1 of its steady middle").arg(context_.show(started_.input.leftOut, Kind::Time));
    emit message(tr("Simulated: %1.").arg(said.join(QStringLiteral(", "))), false);
    refresh();
}

QString LimitsStation::because(const Simulated& run) {
    switch (stallCause(run.from.evaluation, run.from.input, run.result)) {
    case StallCause::Torque:
        return tr(", for there it needs more than the motor has");
    case StallCause::Resonance:
        return tr(", in the rotor's resonance");
    case StallCause::Fault:
        return tr(", from the fault on");
    case StallCause::None:
        break;
    }
    return {};
}

void LimitsStation::place() {
    const int w = width() - 2 * edge;
    int right = edge + w;
    for (auto [widget, width] : {std::pair<QWidget*, int>{simulate_, 132},
                                 {fault_, 176},
                                 {alike_, 112},
                                 {recommended_, 172},
                                 {more_, 84}}) {
        right -= width;
        widget->setGeometry(right, headTop, width - 4, headRow);
    }
    int y = headBottom + gap;
    const int fieldsHeight = fields_->heightFor(w);
    const int bottom = std::clamp((height() - y) * 30 / 100, 170, 320);
    const int plotHeight = std::max(170, height() - y - fieldsHeight - bottom - 50 - 4 * gap);
    envelope_->setGeometry(edge, y, w, plotHeight);
    y += plotHeight + gap;
    strip_->setGeometry(edge, y, w, 50);
    y += 50 + gap;
    fields_->setGeometry(edge, y, w, fieldsHeight);
    y += fieldsHeight + gap;
    const int half = (w - gap) * 55 / 100;
    simulation_->setGeometry(edge, y, half, height() - y - gap);
    confidence_->setGeometry(edge + half + gap, y, w - half - gap, height() - y - gap);
}

void LimitsStation::showHead() {
    setToolTip(detail_);
    updateHead(headBottom, line_ + detail_);
}

void LimitsStation::resizeEvent(QResizeEvent*) {
    place();
}

QRect LimitsStation::headCard() const {
    return {edge, 36, width() - 2 * edge, headBottom - 36};
}

void LimitsStation::mouseReleaseEvent(QMouseEvent* event) {
    const qsizetype letter = letterAt(event->position().toPoint(), headCard(), 24, tr("Limits"), line_);
    if (context_.axis() == nullptr || letter < 0 || limits_.problem != Reason::None) return;
    // Speed, then acceleration, set off by a dot: each by what sets it.
    const qsizetype part = line_.left(letter).count(QStringLiteral(" · "));
    if (part > 1) return;
    const std::vector<Limit>& all = part == 0 ? limits_.speed : limits_.acceleration;
    const double largest = part == 0 ? limits_.largest.speed : limits_.largest.acceleration;
    const auto sets =
        std::find_if(all.begin(), all.end(), [&](const Limit& l) { return l.value == largest; });
    if (sets == all.end()) return;
    if (part == 0 && sets->reason == LimitReason::PulseRate)
        return emit explain(figurePath("pulse_limit_speed_m_s"));
    if (sets->reason != LimitReason::Torque) {
        emit message(tr("This limit comes from: %1.").arg(QString::fromUtf8(limitName(sets->reason).data())),
                     false);
        return;
    }
    emit explain(part == 0 ? figurePath("torque_limit_speed_m_s") : rampPath());
}

void LimitsStation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    const QRect card = headCard();
    paintHead(p, card, 24, tr("Limits"), context_.axis() != nullptr ? line_ : tr("add an axis at the left"));
    p.setFont(textFont(11));
    p.setPen(t.second);
    p.drawText(card.adjusted(12, 24, -8, -4), Qt::AlignTop | Qt::TextWordWrap, detail_);
}

} // namespace gantry::app
