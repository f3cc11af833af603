// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/noise.h"

#include <numbers>

namespace gantry::motor {
namespace {
constexpr double twoPi = 2.0 * std::numbers::pi;
// Where small structures radiate and ears and microphones are keen.
bool inBand(double f) {
    return f > 100.0 && f < 5000.0;
}
} // namespace

Noise louder(const Noise& a, const Noise& b) {
    return b.rank > a.rank ? b : a;
}

Noise stepperNoise(double fullStepRate, int microsteps) {
    if (fullStepRate <= 0.0) return {};
    if (microsteps < 8)
        return {inBand(fullStepRate) ? NoiseRank::Loud : NoiseRank::Audible, NoiseReason::CoarseSteps,
                fullStepRate};
    return {inBand(fullStepRate) ? NoiseRank::Audible : NoiseRank::Quiet, NoiseReason::StepFrequency,
            fullStepRate};
}

Noise meshNoise(double frequency, bool soft) {
    if (!inBand(frequency)) return {NoiseRank::Silent, NoiseReason::GearWhine, frequency};
    return {soft ? NoiseRank::Quiet : NoiseRank::Audible, NoiseReason::GearWhine, frequency};
}

Noise brushNoise(double rotorSpeed) {
    const double f = 6.0 * rotorSpeed / twoPi; // three bars under two brushes
    return {rotorSpeed > 300.0 ? NoiseRank::Audible : NoiseRank::Quiet, NoiseReason::Commutation, f};
}

Noise servoNoise(double rotorSpeed) {
    return {rotorSpeed > 200.0 ? NoiseRank::Audible : NoiseRank::Quiet, NoiseReason::Switching,
            rotorSpeed / twoPi};
}

Noise hobbyServoNoise(double updateRate) {
    return {NoiseRank::Loud, NoiseReason::GearWhine, updateRate};
}

} // namespace gantry::motor
