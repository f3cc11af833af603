// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::optics {

/// Height over width of every delivered picture.
inline constexpr double pictureShape = 9.0 / 16.0;

/// Focal length in pixels: [px] over the sensor. @param focalLength [m] @param sensorWidth [m] > 0
double focalPixels(double focalLength, double sensorWidth, double pixelsAcross);

/// Pixels per radian of pan at picture place (u, v) [px from the centre]: F (1 + u²/F²).
double panPixelsPerRad(double focalPixels, double u);

/// A picture velocity [px/s], u right and v up.
struct PictureVelocity {
    double u = 0.0, v = 0.0;
};

/// How a still scene moves in the picture at (u, v) when the camera pans (right positive), tilts (up
/// positive) and rolls (clockwise positive) at these rates [rad/s]. Pinhole camera; derivation:
/// docs/models/picture.md.
PictureVelocity rotationVelocity(double focalPixels, double u, double v, double panRate, double tiltRate,
                                 double rollRate);

/// Pixels per metre of sideways motion against a subject at `distance` [m] > 0.
double lateralPixelsPerMetre(double focalPixels, double distance);

/// How a camera moves for one unit of an axis [U], as the camera itself sees it.
struct CameraShift {
    double right = 0.0, up = 0.0, ahead = 0.0; ///< [m/U] of its entrance pupil
    double pan = 0.0, tilt = 0.0, roll = 0.0;  ///< [rad/U] right, up and clockwise positive
};

/// How far a picture moves with that [px/U], of a scene at `depth` [m] > 0 before the pupil: what stands in
/// its middle, F √((right/s + pan)² + (up/s + tilt)²); what runs out at its sides as the camera comes nearer;
/// or a corner as it rolls; whichever is most. To first order in the movement.
double pictureShift(double focalPixels, double widthPixels, double depth, const CameraShift& shift);

/// Diameter [px] of the blur that a point gets per unit of focus error, where the error is counted in
/// 1/distance: (f²/N) Δ(1/s) / (1 − f/s) by the thin lens.
/// @param focalLength f [m]; @param fNumber N; @param distance s [m], focused, not nearer than 1.05 f;
/// @param inverseDistance Δ(1/s) [1/m], per unit of whatever turns the ring; @param pixelsPerMetre on the
/// sensor
double defocusPixels(double focalLength, double fNumber, double distance, double inverseDistance,
                     double pixelsPerMetre);

/// Peak-to-peak jitter [px] left of a staircase of steps of `stepPixels` when each frame averages `exposure`
/// [s] of it and the steps come at `stepRate` [1/s].
///
/// With W = rate × exposure steps per exposure, the mean of the staircase strays from the smooth line by at
/// most (1 − W) steps while W < ½ and 1/(4W) beyond (envelope of f(1 − f)/W, f the fraction of W).
/// Derivation: docs/models/picture.md.
double steppingJitter(double stepPixels, double stepRate, double exposure);

/// Largest frame-to-frame change [px] of a periodic error of ±`amplitude` px at `frequency` [1/s], with
/// frames at `frameRate` [1/s] that each average `exposure` [s].
///
/// Two samples of a sine one frame apart differ by at most 2A sin(π f/r), bounded here by 2A min(1, π f/r) so
/// that stroboscopic luck is not counted on; averaging leaves at most min(1, 1/(π f t)) of it (envelope of
/// the sinc).
double rippleJitter(double amplitude, double frequency, double frameRate, double exposure);

} // namespace gantry::optics
