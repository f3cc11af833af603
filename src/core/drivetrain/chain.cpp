// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/chain.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gantry::drivetrain {

double totalRatio(const Chain& chain) {
    double n = 1.0;
    for (const Stage& s : chain.stages) n *= s.ratio;
    return n;
}

double inertiaAtMotor(const Chain& chain) {
    double inertia = chain.load.inertia;
    for (auto s = chain.stages.rbegin(); s != chain.stages.rend(); ++s)
        inertia = inertia / (s->ratio * s->ratio) + s->inputInertia;
    return inertia + chain.motorInertia;
}

double motorTorque(const Chain& chain, double motorSpeed, double motorAcceleration, int direction) {
    const double n = totalRatio(chain);
    const double sense = direction < 0 ? -1.0 : 1.0;
    double acceleration = motorAcceleration / n;
    double torque = chain.load.inertia * acceleration + chain.load.steady +
                    sense * (chain.load.coulomb + chain.load.viscous * std::abs(motorSpeed) / n);
    for (auto s = chain.stages.rbegin(); s != chain.stages.rend(); ++s) {
        const bool toLoad = torque * sense >= 0.0;
        torque = toLoad ? torque / (s->ratio * s->efficiency) : torque * s->backEfficiency / s->ratio;
        acceleration *= s->ratio;
        torque += s->inputInertia * acceleration;
    }
    return torque + chain.motorInertia * motorAcceleration;
}

double worstTorque(const Chain& chain, double motorSpeed, double motorAcceleration) {
    const double a = std::abs(motorAcceleration);
    return std::max(
        {std::abs(motorTorque(chain, motorSpeed, a, 1)), std::abs(motorTorque(chain, motorSpeed, -a, 1)),
         std::abs(motorTorque(chain, motorSpeed, a, -1)), std::abs(motorTorque(chain, motorSpeed, -a, -1))});
}

double largestAcceleration(const Chain& chain, double motorSpeed, double allowedTorque) {
    const auto excess = [&](double a) { return worstTorque(chain, motorSpeed, a) - allowedTorque; };
    double low = 0.0, excessLow = excess(0.0);
    if (!(excessLow <= 0.0)) return 0.0;
    // The lossless quotient is a good first guess of the size.
    double high = std::max(1e-6, 2.0 * allowedTorque / inertiaAtMotor(chain));
    double excessHigh = excess(high);
    while (excessHigh <= 0.0) {
        low = high;
        excessLow = excessHigh;
        high *= 4.0;
        if (!(high < 1e15)) return std::numeric_limits<double>::infinity();
        excessHigh = excess(high);
    }
    int lastSide = 0;
    for (int i = 0; i < 100 && high - low > 1e-10 * high; ++i) {
        double middle = (low * excessHigh - high * excessLow) / (excessHigh - excessLow);
        if (!(middle > low && middle < high)) middle = 0.5 * (low + high);
        const double e = excess(middle);
        if (e > 0.0) {
            high = middle;
            excessHigh = e;
            if (lastSide == 1) excessLow *= 0.5;
            lastSide = 1;
        } else {
            low = middle;
            excessLow = e;
            if (e == 0.0) break;
            if (lastSide == -1) excessHigh *= 0.5;
            lastSide = -1;
        }
    }
    return low;
}

} // namespace gantry::drivetrain
