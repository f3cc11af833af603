// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/solve/monotone_cubic.h"

#include <optional>
#include <span>

namespace gantry::optics {

/// A mark of a focus ring: where the ring stands [rad], and the distance [m] from the sensor mark that is
/// sharp then; infinity is a distance.
struct FocusMark {
    double angle = 0.0, distance = 1.0;
};

/// Where a ring stands, and how fast it turns.
struct RingMotion {
    double angle = 0.0; ///< [rad]
    double rate = 0.0;  ///< [rad/s]
    double rises = 0.0; ///< [rad/s²]
};

/// A focus ring between its marks: a monotone cubic over 1/distance, in which rings are nearly even (0.04° of
/// a real one with 11 marks, where over the distance itself it errs by 0.9°). Beyond the marks it goes on
/// straight.
class FocusRing {
public:
    /// Nothing where fewer than two marks differ in distance, or the ring does not turn one way through them.
    static std::optional<FocusRing> of(std::span<const FocusMark> marks);

    /// @param distance [m] > 0, infinity too; its speed [m/s] and acceleration [m/s²]
    RingMotion at(double distance, double speed = 0.0, double acceleration = 0.0) const;
    /// Distance [m] that is sharp; infinity where the ring stands beyond it.
    double distanceAt(double angle) const;

    friend bool operator==(const FocusRing&, const FocusRing&) = default;

private:
    explicit FocusRing(solve::MonotoneCubic curve) : curve_(std::move(curve)) {}
    solve::MonotoneCubic curve_;
};

/// Depth of field, distances from the front principal plane (Kingslake, Optics in Photography).
struct DepthOfField {
    double hyperfocal = 0.0; ///< [m]
    double near = 0.0;       ///< [m] the nearest that looks sharp
    double far = 0.0;        ///< [m] the farthest; infinity from the hyperfocal distance on
};
/// @param circle [m] diameter of the blur that still looks sharp, on the sensor @param distance [m] > focal
DepthOfField depthOfField(double focalLength, double fNumber, double circle, double distance);

/// A mark of a zoom ring: where the ring stands [rad], and the focal length [m] there.
struct ZoomMark {
    double angle = 0.0, focalLength = 0.05;

    friend bool operator==(const ZoomMark&, const ZoomMark&) = default;
};

/// A focal length that changes.
struct FocalMotion {
    double length = 0.05; ///< [m]
    double rate = 0.0;    ///< [m/s]
    double rises = 0.0;   ///< [m/s²]
};

/// A zoom ring between its marks: a monotone cubic of the logarithm of the focal length. Beyond the marks it
/// stays as it is there: a lens has no more.
class ZoomRing {
public:
    /// @param angles [rad] rising strictly @param focalLengths [m] rising or falling strictly; two or more
    ZoomRing(std::span<const double> angles, std::span<const double> focalLengths);
    /// Nothing where fewer than two marks differ in focal length, or the ring does not turn one way through
    /// them.
    static std::optional<ZoomRing> of(std::span<const ZoomMark> marks);

    double focalAt(double angle) const;
    FocalMotion at(const RingMotion& ring) const;
    /// Where the ring shows a focal length [m] > 0; where it ends of one that the lens does not have.
    double angleAt(double focalLength) const;
    /// The angle at a share [0, 1] of a zoom between two focal lengths that grows evenly in the picture.
    double evenly(double from, double to, double share) const;

    friend bool operator==(const ZoomRing&, const ZoomRing&) = default;

private:
    solve::MonotoneCubic curve_;
};

} // namespace gantry::optics
