// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/spread.h"

#include "core/evaluate/moved_inputs.h"

#include <cmath>

namespace gantry {
namespace {

using Each = void (*)(Figure& sum, const Figure& nominal, const Figure& moved);

void addSquare(Figure& sum, const Figure& nominal, const Figure& moved) {
    const double change = moved.value() - nominal.value();
    if (sum) sum = Figure::of(sum.value() + change * change, moved.reason());
}
void start(Figure& sum, const Figure& nominal, const Figure&) {
    sum = nominal ? Figure::of(0.0) : nominal;
}
void root(Figure& sum, const Figure&, const Figure&) {
    if (sum) sum = Figure::of(std::sqrt(sum.value()));
}

constexpr Figure ShotEvaluation::*shotFigures[] = {&ShotEvaluation::topSpeed,
                                                   &ShotEvaluation::acceleration,
                                                   &ShotEvaluation::jerkNeeded,
                                                   &ShotEvaluation::time,
                                                   &ShotEvaluation::distance,
                                                   &ShotEvaluation::stoppingDistance,
                                                   &ShotEvaluation::motorSpeed,
                                                   &ShotEvaluation::pulseRate,
                                                   &ShotEvaluation::forceNeeded,
                                                   &ShotEvaluation::outputTorque,
                                                   &ShotEvaluation::torqueNeeded,
                                                   &ShotEvaluation::breakawayTorque,
                                                   &ShotEvaluation::torqueAvailable,
                                                   &ShotEvaluation::torqueAvailableLow,
                                                   &ShotEvaluation::torqueMargin,
                                                   &ShotEvaluation::leastCurrent,
                                                   &ShotEvaluation::torqueRms,
                                                   &ShotEvaluation::torqueContinuous,
                                                   &ShotEvaluation::carried,
                                                   &ShotEvaluation::sourceCurrent,
                                                   &ShotEvaluation::speedSetting,
                                                   &ShotEvaluation::slowestSetting,
                                                   &ShotEvaluation::slipForce,
                                                   &ShotEvaluation::electricalPower,
                                                   &ShotEvaluation::regulatorHeat,
                                                   &ShotEvaluation::regulatorTemperature,
                                                   &ShotEvaluation::slackDeceleration,
                                                   &ShotEvaluation::maxAcceleration,
                                                   &ShotEvaluation::lag,
                                                   &ShotEvaluation::lagTravel,
                                                   &ShotEvaluation::lagPixels,
                                                   &ShotEvaluation::stepPixels,
                                                   &ShotEvaluation::steppingPixels,
                                                   &ShotEvaluation::accuracyPixels,
                                                   &ShotEvaluation::backlashPixels,
                                                   &ShotEvaluation::guidePixels,
                                                   &ShotEvaluation::stretchTravel,
                                                   &ShotEvaluation::stretchPixels,
                                                   &ShotEvaluation::frictionBandPixels,
                                                   &ShotEvaluation::idleShiftPixels,
                                                   &ShotEvaluation::roundingPixels,
                                                   &ShotEvaluation::rockingPixels,
                                                   &ShotEvaluation::rockingTime,
                                                   &ShotEvaluation::driftPixels,
                                                   &ShotEvaluation::jitterPixels,
                                                   &ShotEvaluation::repeatPixels,
                                                   &ShotEvaluation::framingPixels,
                                                   &ShotEvaluation::pictureSpeed,
                                                   &ShotEvaluation::pixelsPerFrame,
                                                   &ShotEvaluation::blurPixels,
                                                   &ShotEvaluation::crossingTime,
                                                   &ShotEvaluation::sagPixels,
                                                   &ShotEvaluation::sagDrift,
                                                   &ShotEvaluation::letsGoAt};
constexpr Figure PowerOff::*powerOffFigures[] = {&PowerOff::gravity, &PowerOff::friction, &PowerOff::energy,
                                                 &PowerOff::speed, &PowerOff::brakeRatio};
constexpr Figure PartCheck::*partFigures[] = {
    &PartCheck::strength, &PartCheck::meshes,         &PartCheck::undercut, &PartCheck::contactRatio,
    &PartCheck::slip,     &PartCheck::centreDistance, &PartCheck::load,     &PartCheck::allowed};
constexpr Figure AxisStructure::*structureFigures[] = {
    &AxisStructure::ownMass,       &AxisStructure::sag,
    &AxisStructure::slope,         &AxisStructure::twist,
    &AxisStructure::sagShift,      &AxisStructure::slopeShift,
    &AxisStructure::slopeRate,     &AxisStructure::sagRate,
    &AxisStructure::twistShift,    &AxisStructure::bounce,
    &AxisStructure::stressRatio,   &AxisStructure::tippingRatio,
    &AxisStructure::tippingAt,     &AxisStructure::frontMoment,
    &AxisStructure::gravityWorst,  &AxisStructure::gravityWorstAt,
    &AxisStructure::offLine,       &AxisStructure::unbalanceable,
    &AxisStructure::balancingMass, &AxisStructure::balancingPlace,
    &AxisStructure::weightInertia, &AxisStructure::dropEnergy,
    &AxisStructure::pinRatio,      &AxisStructure::bearingRatio,
    &AxisStructure::momentRatio,   &AxisStructure::boltRatio,
    &AxisStructure::frequency,     &AxisStructure::damping};
constexpr Figure AxisEvaluation::*axisFigures[] = {
    &AxisEvaluation::handVoltage,       &AxisEvaluation::totalRatio,
    &AxisEvaluation::stepsPerUnit,      &AxisEvaluation::stepsPerUnitKept,
    &AxisEvaluation::roundingShare,     &AxisEvaluation::roundingOverTravel,
    &AxisEvaluation::travelPerMotorRev, &AxisEvaluation::step,
    &AxisEvaluation::usableTravel,      &AxisEvaluation::inertiaAtMotor,
    &AxisEvaluation::rotorInertia,      &AxisEvaluation::loadInertia,
    &AxisEvaluation::inertiaRatio,      &AxisEvaluation::naturalFrequency,
    &AxisEvaluation::resonanceLow,      &AxisEvaluation::resonanceHigh,
    &AxisEvaluation::resonanceSpeed,    &AxisEvaluation::cornerSpeed,
    &AxisEvaluation::pulseLimitSpeed,   &AxisEvaluation::torqueLimitSpeed,
    &AxisEvaluation::maxSpeed,          &AxisEvaluation::stoppingDistance,
    &AxisEvaluation::holdNeeded,        &AxisEvaluation::holdAvailable,
    &AxisEvaluation::stopRatio,         &AxisEvaluation::motorTopSpeed,
    &AxisEvaluation::caseTemperature,   &AxisEvaluation::caseLimit,
    &AxisEvaluation::shaftRadial,       &AxisEvaluation::shaftAxial,
    &AxisEvaluation::whirlSpeed,        &AxisEvaluation::bucklingLoad,
    &AxisEvaluation::cordRatio,         &AxisEvaluation::guideRotation,
    &AxisEvaluation::bindingRatio,      &AxisEvaluation::bearingLoad,
    &AxisEvaluation::guideFriction,     &AxisEvaluation::stepsPerUnitFirst,
    &AxisEvaluation::stepsPerUnitLast,  &AxisEvaluation::windingLayers,
    &AxisEvaluation::turningRadius,     &AxisEvaluation::stallCurrent,
    &AxisEvaluation::reversalCurrent,   &AxisEvaluation::panBarTurn,
    &AxisEvaluation::panBarReach};

template <class T, std::size_t N>
void each(Figure T::*const (&figures)[N], T& sum, const T& nominal, const T& moved, Each f) {
    for (Figure T::*figure : figures) f(sum.*figure, nominal.*figure, moved.*figure);
}

void each(AxisEvaluation& sum, const AxisEvaluation& nominal, const AxisEvaluation& moved, Each f) {
    each(axisFigures, sum, nominal, moved, f);
    each(powerOffFigures, sum.powerOff, nominal.powerOff, moved.powerOff, f);
    each(structureFigures, sum.structure, nominal.structure, moved.structure, f);
    for (std::size_t i = 0; i < sum.parts.size() && i < moved.parts.size(); ++i)
        each(partFigures, sum.parts[i], nominal.parts[i], moved.parts[i], f);
    for (std::size_t i = 0; i < sum.shots.size() && i < moved.shots.size(); ++i)
        each(shotFigures, sum.shots[i], nominal.shots[i], moved.shots[i], f);
}

constexpr Cell ChainColumn::*cells[] = {
    &ChainColumn::speed,     &ChainColumn::needed, &ChainColumn::available, &ChainColumn::inertia,
    &ChainColumn::microstep, &ChainColumn::lag,    &ChainColumn::stretch,   &ChainColumn::play};

void each(std::vector<ChainColumn>& sum, const std::vector<ChainColumn>& nominal,
          const std::vector<ChainColumn>& moved, Each f) {
    for (std::size_t i = 0; i < sum.size() && i < moved.size(); ++i)
        for (Cell ChainColumn::*cell : cells)
            f((sum[i].*cell).figure, (nominal[i].*cell).figure, (moved[i].*cell).figure);
}

} // namespace

AxisEvaluation axisSpread(const Project& project, std::size_t axis, const AxisEvaluation& nominal,
                          Searches searches) {
    AxisEvaluation sum = nominal;
    each(sum, nominal, nominal, start);
    Project moved = project;
    forEachMovedInput(
        moved, axis, [&] { each(sum, nominal, evaluateAxis(moved, moved.axes[axis], searches), addSquare); });
    each(sum, nominal, nominal, root);
    return sum;
}

std::vector<ChainColumn> columnSpread(const Project& project, std::size_t axis, const AxisEvaluation& nominal,
                                      std::size_t shot) {
    const auto columns = [&](const Axis& a, const AxisEvaluation& e) {
        return chainColumns(a, e, e.shots[shot]);
    };
    const std::vector<ChainColumn> centre = columns(project.axes[axis], nominal);
    std::vector<ChainColumn> sum = centre;
    each(sum, centre, centre, start);
    Project moved = project;
    forEachMovedInput(moved, axis, [&] {
        const AxisEvaluation e = evaluateAxis(moved, moved.axes[axis], Searches::No);
        if (shot < e.shots.size()) each(sum, centre, columns(moved.axes[axis], e), addSquare);
    });
    each(sum, centre, centre, root);
    return sum;
}

} // namespace gantry
