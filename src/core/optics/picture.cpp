// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::optics {

double focalPixels(double focalLength, double sensorWidth, double pixelsAcross) {
    return focalLength / sensorWidth * pixelsAcross;
}

double panPixelsPerRad(double f, double u) {
    return f * (1.0 + u * u / (f * f));
}

PictureVelocity rotationVelocity(double f, double u, double v, double panRate, double tiltRate,
                                 double rollRate) {
    // Derivatives of u = f X/Z and v = f Y/Z for a scene that turns the opposite way.
    return {-panPixelsPerRad(f, u) * panRate - u * v / f * tiltRate - v * rollRate,
            -u * v / f * panRate - panPixelsPerRad(f, v) * tiltRate + u * rollRate};
}

double lateralPixelsPerMetre(double f, double distance) {
    return f / distance;
}

double pictureShift(double focal, double width, double depth, const CameraShift& s) {
    const double half = 0.5 * width;
    return std::max({focal * std::hypot(s.right / depth + s.pan, s.up / depth + s.tilt),
                     half * std::abs(s.ahead) / depth,
                     half * std::hypot(1.0, pictureShape) * std::abs(s.roll)});
}

double defocusPixels(double focalLength, double fNumber, double distance, double inverseDistance,
                     double pixelsPerMetre) {
    const double s = std::max(distance, 1.05 * focalLength);
    return focalLength * focalLength / fNumber * inverseDistance / (1.0 - focalLength / s) * pixelsPerMetre;
}

double steppingJitter(double stepPixels, double stepRate, double exposure) {
    const double steps = stepRate * exposure;
    return stepPixels * (steps < 0.5 ? 1.0 - steps : 0.25 / steps);
}

double rippleJitter(double amplitude, double frequency, double frameRate, double exposure) {
    const double perFrame = std::min(1.0, std::numbers::pi * frequency / frameRate);
    const double averaged = std::max(1.0, std::numbers::pi * frequency * exposure);
    return 2.0 * amplitude * perFrame / averaged;
}

} // namespace gantry::optics
