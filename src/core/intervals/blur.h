// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

/// How sharp a picture is that is taken while the rig runs on, and one that is taken after it has stopped.
/// Pixels of the picture, seconds. Derivation: docs/models/intervals.md.
namespace gantry::intervals {

/// What still rocks when the rig has stopped.
struct Rocking {
    double amplitude = 0.0; ///< [px] at the end of the movement, ≥ 0
    double frequency = 0.0; ///< [Hz], > 0 where the amplitude is
    double damping = 0.0;   ///< [1] of critical, 0 … 1
    double settle = 0.0;    ///< [s] waited

    double left() const; ///< [px] amplitude when the shutter opens
};

/// [px] while running on at `speed` [px/s].
double blurRunning(double speed, double exposure);
/// [px] peak to peak of what rocks in the exposure, at its worst moment; without its decay meanwhile, so up
/// to 5 % high.
double blurStopped(const Rocking& rocking, double exposure);
/// Exposure [s] at which both look alike: a shorter one is sharper running on. Nothing where stopping is
/// sharper at every exposure.
std::optional<double> alikeExposure(const Rocking& rocking, double speed);
/// Longest exposure [s] running on that smears no more than `limit` [px]; infinite where nothing moves.
double longestRunning(double speed, double limit);
/// Settle time [s] after which the peak to peak of what rocks is no more than `limit` [px] in the exposure;
/// nothing where it never is, without damping.
std::optional<double> settleFor(const Rocking& rocking, double exposure, double limit);

/// What becomes of somebody who passes through a long exposure.
struct Passer {
    double speed = 0.0; ///< [px/s] > 0
    double width = 0.0; ///< [px] > 0 across his way
};
double pathOf(const Passer& passer, double exposure); ///< [px] that he passes in it
/// Share of the exposure [1] for which he covers a point on his way, at most 1: so dark he is there.
double coverOf(const Passer& passer, double exposure);
/// Shortest exposure [s] in which he covers no point for more than a share.
double exposureToVanish(const Passer& passer, double share);

/// Stops of light [1] that a filter has to take so that what is right at `metered` [s] is right at `wanted`.
double filterStops(double metered, double wanted);

} // namespace gantry::intervals
