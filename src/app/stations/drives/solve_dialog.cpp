// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/solve_dialog.h"

#include "core/drivetrain/carriage.h"
#include "core/drivetrain/electronic_gear.h"
#include "core/units/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace gantry::app {
namespace {

PositionLoop* loopOf(Motor& motor) {
    if (auto* servo = std::get_if<ServoMotor>(&motor)) return &servo->loop;
    if (auto* servo = std::get_if<DcServo>(&motor)) return &servo->loop;
    return nullptr;
}

} // namespace

SolveDialog::SolveDialog(const Context& context, What what, QWidget* parent)
    : ToolWindow(context, QStringLiteral("solveDialog"),
                 what == Gear ? tr("Solve the electronic gear") : tr("Find the pan bar's angle"), parent),
      what_(what), wanted_(new QLineEdit), result_(new QLabel), take_(new QPushButton(tr("Take it"))) {
    resize(460, 180);
    const Axis* axis = context_.axis();
    const bool linear = axis != nullptr && kindOf(*axis) == AxisKind::Linear;
    auto* ask = new QLabel(what == PanBar ? tr("The camera shall turn over the travel by")
                           : linear       ? tr("Target steps per mm")
                                          : tr("Target steps per degree"));
    wanted_->setText(what == Gear ? QStringLiteral("100") : QStringLiteral("20°"));
    wanted_->setAccessibleName(ask->text());
    wanted_->setObjectName(QStringLiteral("solveWanted"));
    result_->setWordWrap(true);
    result_->setObjectName(QStringLiteral("solveResult"));
    take_->setProperty("role", "primary");
    take_->setAutoDefault(false);
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch();
    buttons->addWidget(take_);
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addWidget(ask);
    all->addWidget(wanted_);
    all->addWidget(result_, 1);
    all->addLayout(buttons);
    connect(wanted_, &QLineEdit::textChanged, this, &SolveDialog::solve);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(take_, &QPushButton::clicked, this, [this] {
        context_.document.change(windowTitle(), [&](Project& p) {
            change_(p.axes[static_cast<std::size_t>(context_.session.axis())]);
        });
        accept();
    });
}

void SolveDialog::solve() {
    change_ = nullptr;
    if (const Axis* axis = context_.axis()) {
        Axis copy = *axis;
        what_ == Gear ? solveGear(copy) : solvePanBar(copy);
    }
    take_->setEnabled(change_ != nullptr && !context_.document.readOnly());
}

void SolveDialog::solveGear(Axis& axis) {
    const PositionLoop* loop = loopOf(axis.motor);
    const AxisEvaluation* e = context_.axisEvaluation();
    if (loop == nullptr || e == nullptr)
        return result_->setText(
            tr("Only servos with step and direction have an electronic gear; choose one as the motor."));
    const auto parsed = units::parse(wanted_->text().toStdString(), units::Kind::Ratio, context_.system());
    const auto* steps = std::get_if<double>(&parsed);
    if (steps == nullptr || !(*steps > 0.0))
        return result_->setText(
            tr("“%1” is no number of steps; write one such as 100.").arg(wanted_->text()));
    // Motor turns for one unit, from the steps that the present gear makes.
    const auto counts = drivetrain::Ratio::of(loop->countsPerTurn, 1);
    const auto gear = drivetrain::Ratio::of(loop->gear.denominator, loop->gear.numerator);
    const auto perTurn = counts && gear ? counts->times(*gear) : std::nullopt;
    const auto now = e->model.exactStepsPerUnit
                         ? e->model.exactStepsPerUnit
                         : drivetrain::nearestFraction(e->steps.stepsPerUnit.valueOr(0.0), 1'000'000);
    const auto turns = perTurn && now ? now->dividedBy(*perTurn) : std::nullopt;
    const auto wanted = drivetrain::nearestFraction(*steps, 1'000'000'000);
    const auto solved =
        turns && wanted ? drivetrain::solveElectronicGear(loop->countsPerTurn, *turns, *wanted, 99'999'999)
                        : std::nullopt;
    if (!solved)
        return result_->setText(
            tr("No fraction of whole numbers comes near; check encoder counts and the wanted number."));
    result_->setText(tr("Electronic gear %1 / %2, %3.")
                         .arg(solved->numerator)
                         .arg(solved->denominator)
                         .arg(solved->exact && e->model.exactStepsPerUnit
                                  ? tr("exactly")
                                  : tr("as near as such fractions come")));
    change_ = [g = *solved](Axis& a) {
        if (PositionLoop* l = loopOf(a.motor))
            l->gear = {static_cast<int>(g.numerator), static_cast<int>(g.denominator)};
    };
}

void SolveDialog::solvePanBar(Axis& axis) {
    auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    if (linear == nullptr)
        return result_->setText(tr("A pan bar goes along a straight axis; choose one at the left."));
    const auto parsed = units::parse(wanted_->text().toStdString(), units::Kind::Angle, context_.system());
    const auto* pan = std::get_if<double>(&parsed);
    if (pan == nullptr || *pan == 0.0)
        return result_->setText(tr("“%1” is no angle; write one such as 20°.").arg(wanted_->text()));
    const double half = usableTravel(axis) / 2.0;
    const auto angle =
        drivetrain::barAngleForPan({linear->panBar.armLength, linear->panBar.offset, 0.0}, -half, half, *pan);
    if (!angle)
        return result_->setText(
            tr("No bar does that with an arm of %1; give it a longer arm or another offset.")
                .arg(context_.show(linear->panBar.armLength, units::Kind::Length)));
    result_->setText(tr("Set the bar at %1 to the rail.").arg(context_.show(*angle, units::Kind::Angle, 4)));
    change_ = [a = *angle](Axis& target) {
        auto& bar = std::get<LinearMechanism>(target.mechanism).panBar;
        bar.fitted = true;
        bar.angle = a;
    };
}

} // namespace gantry::app
