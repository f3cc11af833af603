// SPDX-License-Identifier: GPL-3.0-or-later
// Rings of lenses between their marks, depth of field, and blur: worked cases and what curves must keep.
#include "core/optics/lens_ring.h"
#include "core/optics/picture.h"
#include "support/dice.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <limits>
#include <numbers>

using namespace gantry::optics;
using nlohmann::json;

class LensRingTest : public QObject, Dice {
    Q_OBJECT

    static constexpr double infinity = std::numeric_limits<double>::infinity();

    static FocusRing ringOf(const json& distances, const json& angles) {
        std::vector<FocusMark> marks;
        for (std::size_t i = 0; i < distances.size(); ++i)
            marks.push_back({angles[i], distances[i].is_null() ? infinity : distances[i].get<double>()});
        return FocusRing::of(marks).value();
    }
    static std::vector<double> numbers(const json& j) { return j.get<std::vector<double>>(); }

public:
    LensRingTest() : Dice(23) {}

private slots:
    void workedCases() {
        int rings = 0, fields = 0, blurs = 0, zooms = 0, pulls = 0;
        for (const json& c : referenceCases("t23_lens")) {
            const json &in = c["inputs"], &out = c["expected"];
            const double near = c["tolerance_rel"];
            const std::string kind = c["kind"];
            if (kind == "ring") {
                ++rings;
                const FocusRing ring = ringOf(in["distances"], in["angles"]);
                for (std::size_t i = 0; i < in["ask"].size(); ++i) {
                    const RingMotion m = ring.at(in["ask"][i], in["speed"], in["acceleration"]);
                    VERIFY_NEAR(m.angle, out["angle"][i].get<double>(), near);
                    VERIFY_NEAR(m.rate, out["rate"][i].get<double>(), near);
                    VERIFY_NEAR(m.rises, out["angle_acceleration"][i].get<double>(), near);
                    VERIFY_NEAR(ring.distanceAt(m.angle), out["back"][i].get<double>(), 1e-9);
                }
            } else if (kind == "depth_of_field") {
                ++fields;
                const DepthOfField d =
                    depthOfField(in["focal"], in["f_number"], in["circle"], in["distance"]);
                VERIFY_NEAR(d.hyperfocal, out["hyperfocal"].get<double>(), near);
                VERIFY_NEAR(d.near, out["near"].get<double>(), near);
                VERIFY_NEAR(d.far, out["far"].is_null() ? infinity : out["far"].get<double>(), near);
            } else if (kind == "focus_blur") {
                ++blurs;
                const double focused = in["focused_at"], subject = in["subject_at"];
                VERIFY_NEAR(defocusPixels(in["focal"], in["f_number"], focused,
                                          std::abs(1.0 / subject - 1.0 / focused),
                                          1.0 / in["pixel"].get<double>()),
                            out["circle_px"].get<double>(), near);
            } else if (kind == "zoom") {
                ++zooms;
                const ZoomRing ring(numbers(in["ring_angles"]), numbers(in["focal_lengths"]));
                for (std::size_t i = 0; i < in["ask"].size(); ++i) {
                    const double f = ring.focalAt(in["ask"][i]);
                    VERIFY_NEAR(f, out["focal"][i].get<double>(), near);
                    VERIFY_NEAR(in["picture_speed"].get<double>() / (f * in["px_per_metre"].get<double>()),
                                out["pan_rate"][i].get<double>(), near);
                    VERIFY_NEAR_ABS(ring.angleAt(f), in["ask"][i].get<double>(), 1e-9);
                }
                const double first = out["focal"].front(), last = out["focal"].back();
                const double half = ring.evenly(first, last, 0.5);
                VERIFY_NEAR(half, out["constant_scale_midpoint_angle"].get<double>(), near);
                VERIFY_NEAR(ring.focalAt(half), out["constant_scale_midpoint_focal"].get<double>(), near);
            } else if (kind == "pull") {
                ++pulls; // by the plan of a move: along_move_test
            }
        }
        QVERIFY(rings > 0 && fields > 0 && blurs > 0 && zooms > 0 && pulls > 0);
    }
    void speedsAreDifferences() {
        const FocusRing ring = ringOf(json::parse("[null,10,5,3,2,1.5,1.0,0.8,0.6,0.5,0.45]"),
                                      json::parse("[0,0.24,0.48,0.81,1.23,1.66,2.53,3.2,4.36,5.33,6.0]"));
        for (const double d : {0.47, 0.7, 1.3, 4.2, 30.0}) {
            const double v = 0.4, a = -0.3, h = 1e-5;
            const auto at = [&](double t) { return ring.at(d + v * t + 0.5 * a * t * t).angle; };
            const RingMotion m = ring.at(d, v, a);
            VERIFY_NEAR(m.rate, (at(h) - at(-h)) / (2 * h), 1e-6);
            VERIFY_NEAR_ABS(m.rises, (at(h) - 2 * at(0.0) + at(-h)) / (h * h), 2e-4);
        }
    }
    /// Between its marks no ring runs back, whatever the marks are, and it goes through all of them.
    void neverRunsBack() {
        for (int k = 0; k < 200; ++k) {
            std::vector<FocusMark> marks;
            double distance = within(0.2, 0.5), angle = 0.0;
            const double sense = within(-1.0, 1.0) < 0.0 ? -1.0 : 1.0;
            const int count = 2 + static_cast<int>(random_() % 8);
            for (int i = 0; i < count; ++i) {
                marks.push_back({sense * angle, distance});
                distance *= within(1.05, 3.0);
                angle -= within(0.01, 1.5);
            }
            const FocusRing ring = FocusRing::of(marks).value();
            for (const FocusMark& m : marks) VERIFY_NEAR_ABS(ring.at(m.distance).angle, m.angle, 1e-12);
            double last = ring.at(marks.front().distance).angle;
            for (int i = 1; i <= 400; ++i) {
                const double share = i / 400.0, d = 1.0 / ((1.0 - share) / marks.front().distance +
                                                           share / marks.back().distance);
                const double now = ring.at(d).angle;
                QVERIFY(sense * (last - now) > -1e-12);
                VERIFY_NEAR(ring.distanceAt(now), d, 1e-8);
                last = now;
            }
        }
    }
    void refusesWhatIsNoScale() {
        const FocusMark same[]{{0.0, 1.0}, {1.0, 1.0}}, one[]{{0.0, 1.0}},
            back[]{{0.0, 1.0}, {1.0, 2.0}, {0.5, 3.0}}, still[]{{0.0, 1.0}, {0.0, 2.0}};
        QVERIFY(!FocusRing::of(same));
        QVERIFY(!FocusRing::of(one));
        QVERIFY(!FocusRing::of(back));
        QVERIFY(!FocusRing::of(still));
        // Two marks are a straight line over 1/distance; beyond infinity there is nothing nearer than that.
        const FocusMark two[]{{0.0, 0.5}, {3.0, 2.0}};
        const FocusRing ring = FocusRing::of(two).value();
        VERIFY_NEAR(ring.at(0.8).angle, 3.0 * (2.0 - 1.0 / 0.8) / 1.5, 1e-12);
        QVERIFY(std::isinf(ring.distanceAt(4.5)));
    }
    /// At both ends of the depth of field the blur is the circle that still looks sharp.
    void fieldEndsAtTheCircle() {
        const double f = 0.035, n = 4.0, circle = 2e-5;
        for (const double distance : {0.8, 2.0, 5.0}) {
            const DepthOfField d = depthOfField(f, n, circle, distance);
            for (const double end : {d.near, d.far})
                VERIFY_NEAR(defocusPixels(f, n, distance, std::abs(1.0 / end - 1.0 / distance), 1.0), circle,
                            1e-9);
        }
        QVERIFY(std::isinf(depthOfField(f, n, circle, 20.0).far));
    }
};

QTEST_APPLESS_MAIN(LensRingTest)
#include "lens_ring_test.moc"
