// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

/// Charge over a run of pictures.
namespace gantry::intervals {

/// What one consumer draws: a power for a time of every interval, another for the rest of it.
struct Consumer {
    double on = 0.0;        ///< [W]
    double onTime = 0.0;    ///< [s] of each interval
    double otherwise = 0.0; ///< [W]
};

struct Pack {
    double energy = 0.0;       ///< [J] full
    double usable = 1.0;       ///< [1] share of it that may be taken
    double efficiency = 1.0;   ///< [1] of what stands between it and the consumers
    double fullVoltage = 0.0;  ///< [V] at rest, full …
    double emptyVoltage = 0.0; ///< [V] … and empty; straight in between
    double resistance = 0.0;   ///< [Ω]
};

/// The same for each interval of a run. Figures at the pack.
struct Draw {
    double perInterval = 0.0; ///< [J]
    double average = 0.0;     ///< [W]
    double peak = 0.0;        ///< [W] every consumer at its larger figure
    std::size_t biggest = 0;  ///< index of the consumer that takes most of an interval
};
/// @param interval [s] > 0 @param consumers one at least
Draw drawOf(std::span<const Consumer> consumers, double interval, double efficiency);

/// Voltage [V] of a pack with a share of its energy taken while `power` [W] is drawn: open voltage less the
/// drop in its resistance at constant power, the upper root. Nothing where it cannot give that.
std::optional<double> voltageUnder(const Pack& pack, double taken, double power);

/// Share of the usable energy [1] that is taken when the voltage [V] has come down to so much under `power`
/// [W]: the other way round. Negative where even a full pack is below it; infinite where it never falls.
double takenAtVoltage(const Pack& pack, double voltage, double power);

/// Energy [J] taken up to some pictures of a run; straight in between.
struct TakenEnergy {
    std::vector<std::int64_t> pictures; ///< rising, two at least
    std::vector<double> energy;         ///< one for each, not falling

    double at(double picture) const; ///< within the run
    /// The first picture at which so much is taken; nothing where it never is.
    std::optional<std::int64_t> pictureOf(double limit) const;
};

/// Time [s] of running at an average power until a voltage [V] is reached while the peak is drawn; nothing
/// where it never falls so low before the usable energy is gone, 0 where it is there from the beginning.
std::optional<double> timeToVoltage(const Pack& pack, const Draw& draw, double voltage);

} // namespace gantry::intervals
