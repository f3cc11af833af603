// SPDX-License-Identifier: GPL-3.0-or-later
// Outlines of bodies in the picture, against rays that are followed one by one.
#include "core/geometry/silhouette.h"
#include "support/dice.h"
#include "support/near.h"

#include <QTest>

using namespace gantry::geometry;

namespace {

Frame turned(Frame f, double yaw, double pitch) {
    const double c = std::cos(yaw), s = std::sin(yaw), cp = std::cos(pitch), sp = std::sin(pitch);
    f.ahead = {c * cp, s * cp, sp};
    f.left = {-s, c, 0.0};
    f.up = cross(f.ahead, f.left);
    return f;
}

/// Whether the ray from the eye through a place of the picture meets a body, beyond `near`: the distance from
/// a long thin line.
bool meets(const Solid& body, const Frame& eye, double right, double up, double near) {
    constexpr double far = 20.0;
    Solid ray;
    const Place way = plus(plus(eye.ahead, eye.left, -right), eye.up, up);
    const double stretch = lengthOf(way);
    ray.length = (far - near) * stretch;
    ray.frame.ahead = plus({}, way, 1.0 / stretch);
    ray.frame.left = cross(eye.up, ray.frame.ahead);
    ray.frame.left = plus({}, ray.frame.left, 1.0 / lengthOf(ray.frame.left));
    ray.frame.up = cross(ray.frame.ahead, ray.frame.left);
    ray.frame.at = plus(eye.at, way, 0.5 * (far + near));
    return apart(ray, body) <= 1e-6;
}

} // namespace

class SilhouetteTest : public QObject, Dice {
    Q_OBJECT
public:
    SilhouetteTest() : Dice(5) {}

private slots:
    void aBallByHand() {
        Solid ball;
        ball.frame.at = {2.0, 0.0, 0.0};
        ball.round = 0.3;
        const auto outline = silhouette(ball, Frame{});
        // Seen from d its outline is a circle of tan asin(r/d).
        const double radius = std::tan(std::asin(0.15));
        for (const InView& p : outline) VERIFY_NEAR(std::hypot(p.right, p.up), radius, 1e-12);
        const double area = std::numbers::pi * radius * radius;
        VERIFY_NEAR(coveredShare({&outline, 1}, 0.5, 0.3, 2000), area / (4.0 * 0.5 * 0.3), 0.012);
        // Behind the camera there is nothing.
        ball.frame.at = {-2.0, 0.0, 0.0};
        QVERIFY(silhouette(ball, Frame{}).empty());
    }
    void twoThatOverlapCountOnce() {
        const std::vector<InView> left{{-0.4, -0.1}, {0.1, -0.1}, {0.1, 0.1}, {-0.4, 0.1}},
            right{{-0.1, -0.1}, {0.4, -0.1}, {0.4, 0.1}, {-0.1, 0.1}};
        const std::vector<std::vector<InView>> both{left, right};
        VERIFY_NEAR(coveredShare(both, 0.5, 0.5, 1000), 0.8 * 0.2, 1e-9);
        const std::vector<std::vector<InView>> one{left};
        VERIFY_NEAR(coveredShare(one, 0.5, 0.5, 1000), 0.5 * 0.2, 1e-9);
        // What is beyond the frame covers nothing of it.
        VERIFY_NEAR(coveredShare(one, 0.2, 0.5, 1000), 0.3 * 0.2 / (0.4 * 1.0), 1e-9);
    }
    /// Bars and thick lines anywhere, also beside and behind the eye: within 1 % of a count of rays.
    void againstRays() {
        constexpr int across = 96, high = 54;
        const double halfWidth = 0.5, halfHeight = 0.5 * 9 / 16;
        int seen = 0;
        for (int k = 0; k < 60; ++k) {
            Frame eye = turned(Frame{}, within(-3.0, 3.0), within(-1.0, 1.0));
            eye.at = place(0.5);
            std::vector<Solid> bodies(1 + random_() % 3);
            std::vector<std::vector<InView>> outlines;
            const double near = 0.005;
            for (Solid& b : bodies) {
                b.frame = turned(Frame{}, within(-3.0, 3.0), within(-1.0, 1.0));
                b.frame.at = eye.to({within(-0.2, 2.0), within(-0.8, 0.8), within(-0.6, 0.6)});
                b.length = within(0.05, 1.5);
                const bool bar = random_() % 2 == 0;
                b.width = bar ? within(0.02, 0.3) : 0.0;
                b.height = bar ? within(0.02, 0.3) : 0.0;
                b.round = bar ? 0.0 : within(0.01, 0.1);
                // The eye is not within a body.
                Solid point;
                point.frame.at = eye.at;
                if (apart(point, b) < 0.02) b.frame.at = plus(b.frame.at, eye.ahead, 3.0);
                if (auto o = silhouette(b, eye, near); o.size() > 2) outlines.push_back(std::move(o));
            }
            int hits = 0;
            for (int i = 0; i < across; ++i)
                for (int j = 0; j < high; ++j) {
                    const double right = halfWidth * (2.0 * (i + 0.5) / across - 1.0),
                                 up = halfHeight * (2.0 * (j + 0.5) / high - 1.0);
                    hits += std::any_of(bodies.begin(), bodies.end(),
                                        [&](const Solid& b) { return meets(b, eye, right, up, near); });
                }
            const double counted = static_cast<double>(hits) / (across * high);
            seen += hits > 0;
            VERIFY_NEAR_ABS(coveredShare(outlines, halfWidth, halfHeight), counted, 0.01);
        }
        QVERIFY(seen > 20);
    }
};

QTEST_APPLESS_MAIN(SilhouetteTest)
#include "silhouette_test.moc"
