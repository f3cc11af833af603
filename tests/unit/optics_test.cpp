// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/optics/picture.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <numbers>

using namespace gantry::optics;

class OpticsTest : public QObject {
    Q_OBJECT
private slots:
    void workedPictures() {
        for (const auto& c : referenceCases("t12_picture")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const double tol = c["tolerance_rel"];
            const double f = focalPixels(in["focal"], in["sensor_width"], in["pixels"]);
            VERIFY_NEAR(f, out["px_per_rad_centre"].get<double>(), tol);
            VERIFY_NEAR(panPixelsPerRad(f, in["u"]), out["px_per_rad_at_u_pan"].get<double>(), tol);
            const PictureVelocity v =
                rotationVelocity(f, in["u"], in["v"], in["pan_rate"], in["tilt_rate"], in["roll_rate"]);
            VERIFY_NEAR(v.u, out["picture_speed_u"].get<double>(), tol);
            VERIFY_NEAR(v.v, out["picture_speed_v"].get<double>(), tol);
            VERIFY_NEAR(std::hypot(v.u, v.v) * in["exposure"].get<double>(), out["blur_px"].get<double>(),
                        tol);
            VERIFY_NEAR(lateralPixelsPerMetre(f, in["distance"]) / 1000,
                        out["px_per_mm_lateral"].get<double>(), tol);
        }
    }
    /// Turning a pinhole camera by a small angle moves a point as the closed form says.
    void rotationAgreesWithProjection() {
        const double f = 5000, u = 900, v = -400, h = 1e-6;
        const double x = u / f, y = v / f;
        const double c = std::cos(h), s = std::sin(h);
        const double panned = f * (c * x - s) / (s * x + c); // camera turns right, the point turns left
        VERIFY_NEAR((panned - u) / h, rotationVelocity(f, u, v, 1, 0, 0).u, 1e-5);
        const double tilted = f * (c * y - s) / (s * y + c);
        VERIFY_NEAR((tilted - v) / h, rotationVelocity(f, u, v, 0, 1, 0).v, 1e-5);
    }
    /// A blur circle from the lens equation: f²/N · |1/s′ − 1/s| over 1 − f/s, in pixels.
    void defocusByTheLensEquation() {
        const double f = 0.05, n = 2.8, near = 1.0, far = 1.2, pixels = 1.6e5;
        const double imageNear = f * near / (near - f), imageFar = f * far / (far - f);
        // The cone from an aperture of f/N to the image of the far point, cut where the near one is sharp.
        const double circle = f / n * std::abs(imageNear - imageFar) / imageFar;
        VERIFY_NEAR(defocusPixels(f, n, near, 1 / near - 1 / far, pixels), circle * pixels, 1e-9);
        // Nearer than the lens can focus it is taken for just beyond the focal length, which is a bound.
        VERIFY_NEAR(defocusPixels(f, n, 0.01, 0.1, pixels), f * f / n * 0.1 / (1 - 1 / 1.05) * pixels, 1e-9);
        VERIFY_NEAR(defocusPixels(f, n, 0.06, 0.1, pixels), f * f / n * 0.1 / (1 - 0.05 / 0.06) * pixels,
                    1e-9);
    }
    /// A staircase averaged over frames, sampled at every phase, stays within the envelope and comes near it.
    void steppingAgreesWithASampledStaircase() {
        for (const double steps : {0.1, 0.3, 0.49, 0.75, 1.4, 2.5, 7.5}) {
            double least = 1e9, most = -1e9;
            for (int phase = 0; phase < 4000; ++phase) {
                const double start = phase / 4000.0;
                double sum = 0;
                const int n = 4000;
                for (int i = 0; i < n; ++i) {
                    const double t = start + steps * (i + 0.5) / n;
                    sum += std::floor(t) - t;
                }
                least = std::min(least, sum / n);
                most = std::max(most, sum / n);
            }
            const double envelope = steppingJitter(1, steps, 1);
            QVERIFY2(most - least <= envelope + 2e-3, qPrintable(QString::number(steps)));
            if (steps < 0.5 || steps == 2.5 || steps == 7.5) VERIFY_NEAR(most - least, envelope, 0.02);
        }
    }
    /// A sampled and averaged sine never changes more from frame to frame than the bound.
    void rippleBoundsASampledSine() {
        for (const double f : {0.3, 2.0, 9.0, 24.0, 60.0, 333.0}) {
            double most = 0, last = 0;
            for (int frame = 0; frame < 400; ++frame) {
                double sum = 0;
                for (int i = 0; i < 200; ++i)
                    sum += std::sin(2 * std::numbers::pi * f * (frame / 25.0 + 0.02 * (i + 0.5) / 200) + 0.3);
                if (frame > 0) most = std::max(most, std::abs(sum / 200 - last));
                last = sum / 200;
            }
            QVERIFY(most <= rippleJitter(1, f, 25, 0.02) * (1 + 1e-3));
        }
        VERIFY_NEAR(rippleJitter(1, 0.3, 25, 0.02), 2 * std::numbers::pi * 0.3 / 25,
                    1e-12); // slow: 2πfA a frame
    }
};

QTEST_APPLESS_MAIN(OpticsTest)
#include "optics_test.moc"
