// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/facts.h"

#include "core/intervals/wholes.h"

#include <algorithm>
#include <cmath>

namespace gantry::intervals {

double durationOf(std::int64_t pictures, double interval, double exposure) {
    return static_cast<double>(pictures - 1) * interval + exposure;
}

std::optional<double> intervalFor(std::int64_t pictures, double duration, double exposure) {
    if (pictures < 2 || !(duration > exposure)) return std::nullopt;
    return (duration - exposure) / static_cast<double>(pictures - 1);
}

std::optional<std::int64_t> picturesFor(double interval, double duration, double exposure) {
    if (!(interval > 0.0) || !(duration >= exposure)) return std::nullopt;
    const double gaps = (duration - exposure) / interval;
    if (!(gaps < static_cast<double>(mostPictures))) return std::nullopt;
    return wholes(gaps) + 1;
}

double clipOf(std::int64_t pictures, double rate, int held) {
    return static_cast<double>(pictures) * held / rate;
}
std::int64_t picturesOfClip(double clip, double rate, int held) {
    return std::clamp<std::int64_t>(std::llround(std::min(clip * rate / held, 1e15)), 1, mostPictures);
}
double speedUpOf(double interval, double rate, int held) {
    return interval * rate / held;
}
double intervalOfSpeedUp(double speedUp, double rate, int held) {
    return speedUp * held / rate;
}

} // namespace gantry::intervals
