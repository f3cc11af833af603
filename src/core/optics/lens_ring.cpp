// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/optics/lens_ring.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace gantry::optics {

constexpr double infinitelyFar = std::numeric_limits<double>::infinity();

std::optional<FocusRing> FocusRing::of(std::span<const FocusMark> marks) {
    std::vector<FocusMark> sorted(marks.begin(), marks.end());
    std::sort(sorted.begin(), sorted.end(),
              [](const FocusMark& a, const FocusMark& b) { return a.distance > b.distance; });
    std::vector<double> inverse, angles;
    for (const FocusMark& m : sorted) {
        const double x = 1.0 / m.distance;
        if (!std::isfinite(x) || (!inverse.empty() && !(x > inverse.back()))) return std::nullopt;
        inverse.push_back(x);
        angles.push_back(m.angle);
    }
    if (inverse.size() < 2 || angles[0] == angles[1]) return std::nullopt;
    for (std::size_t i = 1; i < angles.size(); ++i)
        if ((angles[i] > angles[i - 1]) != (angles[1] > angles[0]) || angles[i] == angles[i - 1])
            return std::nullopt;
    return FocusRing(solve::MonotoneCubic(std::move(inverse), std::move(angles)));
}

RingMotion FocusRing::at(double distance, double speed, double acceleration) const {
    const double x = 1.0 / distance, slope = curve_.slopeAt(x);
    const double rate = -speed * x * x;
    const double rises = 2.0 * speed * speed * x * x * x - acceleration * x * x;
    return {curve_.at(x), slope * rate, curve_.curvatureAt(x) * rate * rate + slope * rises};
}

double FocusRing::distanceAt(double angle) const {
    const double x = curve_.inverse(angle);
    return x > 0.0 ? 1.0 / x : infinitelyFar;
}

DepthOfField depthOfField(double f, double fNumber, double circle, double distance) {
    DepthOfField out;
    out.hyperfocal = f * f / (fNumber * circle) + f;
    const double beyond = out.hyperfocal - f;
    out.near = distance * beyond / (out.hyperfocal + distance - 2.0 * f);
    out.far = distance < out.hyperfocal ? distance * beyond / (out.hyperfocal - distance) : infinitelyFar;
    return out;
}

namespace {

std::vector<double> logsOf(std::span<const double> values) {
    std::vector<double> out;
    for (const double v : values) out.push_back(std::log(v));
    return out;
}

} // namespace

ZoomRing::ZoomRing(std::span<const double> angles, std::span<const double> focalLengths)
    : curve_({angles.begin(), angles.end()}, logsOf(focalLengths)) {}

std::optional<ZoomRing> ZoomRing::of(std::span<const ZoomMark> marks) {
    std::vector<ZoomMark> sorted(marks.begin(), marks.end());
    std::sort(sorted.begin(), sorted.end(),
              [](const ZoomMark& a, const ZoomMark& b) { return a.angle < b.angle; });
    std::vector<double> angles, lengths;
    for (const ZoomMark& m : sorted) {
        if (!(m.focalLength > 0.0) || (!angles.empty() && !(m.angle > angles.back()))) return std::nullopt;
        angles.push_back(m.angle);
        lengths.push_back(m.focalLength);
    }
    if (lengths.size() < 2) return std::nullopt;
    for (std::size_t i = 1; i < lengths.size(); ++i)
        if ((lengths[i] > lengths[i - 1]) != (lengths[1] > lengths[0]) || lengths[i] == lengths[i - 1])
            return std::nullopt;
    return ZoomRing(angles, lengths);
}

double ZoomRing::focalAt(double angle) const {
    return std::exp(curve_.at(std::clamp(angle, curve_.first(), curve_.last())));
}

FocalMotion ZoomRing::at(const RingMotion& ring) const {
    const double length = focalAt(ring.angle);
    if (ring.angle < curve_.first() || ring.angle > curve_.last()) return {length, 0.0, 0.0};
    const double slope = curve_.slopeAt(ring.angle), relative = slope * ring.rate;
    return {length, length * relative,
            length * (relative * relative + curve_.curvatureAt(ring.angle) * ring.rate * ring.rate +
                      slope * ring.rises)};
}

double ZoomRing::angleAt(double focalLength) const {
    return std::clamp(curve_.inverse(std::log(focalLength)), curve_.first(), curve_.last());
}

double ZoomRing::evenly(double from, double to, double share) const {
    return curve_.inverse(std::log(from) + share * (std::log(to) - std::log(from)));
}

} // namespace gantry::optics
