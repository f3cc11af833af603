// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <utility>
#include <vector>

/// A run that goes on only while somebody is there. Times in s.
namespace gantry::intervals {

/// One sensor: its output stays on for `hold` after each detection, and after switching on for `warmUp`, in
/// which it detects nothing.
struct Sensor {
    double hold = 0.0, warmUp = 0.0;
    std::span<const double> detections{}; ///< rising
};

struct Kept {
    std::int64_t picture = 0;  ///< from 0
    std::int64_t position = 0; ///< moves away from the first
};
struct PresenceLog {
    std::int64_t pictures = 0;
    double begins = 0.0;                           ///< of the first stretch
    std::vector<std::int64_t> deleted;             ///< taken after the last detection of their stretch
    std::vector<std::pair<double, double>> pauses; ///< between stretches and after the last, from and to
    std::vector<Kept> kept;
    std::int64_t largestJump = 0; ///< [moves] between kept pictures that follow one another
    double ran = 0.0;             ///< share of the time
};
/// The run goes on while any output is on; its clock begins anew with each stretch, and a picture that is
/// begun is finished. @param goesBack whether on stopping the rig goes back by the moves of what is deleted
PresenceLog presenceOf(std::span<const Sensor> sensors, double end, double interval, bool goesBack);

/// Somebody who is there and keeps nearly still: each sensor still detects him so often.
struct Seldom {
    double rate = 0.0; ///< [1/s] > 0
    double hold = 0.0; ///< [s]
};
struct FalseStops {
    double perSecond = 0.0;
    double share = 0.0;    ///< of the time in which it stands
    double meanStop = 0.0; ///< [s]
};
FalseStops falseStopsOf(std::span<const Seldom> sensors);
/// The hold [s], the same for all, with which it stops falsely no more often than that; 0 where it never
/// does.
double holdFor(std::span<const Seldom> sensors, double perSecond);

/// Pictures after the last true detection, if each move triggers the sensor with a chance p: r =
/// ⌊hold/interval⌋ moves fall into a hold. Nothing: it never stops. @param blind whether the sensor is not
/// heard while it moves
std::optional<double> extraPictures(double interval, double hold, double p, bool blind);

} // namespace gantry::intervals
