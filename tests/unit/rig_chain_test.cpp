// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geometry/apart.h"
#include "core/kinematics/rig_chain.h"
#include "support/dice.h"
#include "support/near.h"

#include <Eigen/Geometry>
#include <QTest>
#include <numbers>
#include <random>

using namespace gantry;
using geometry::Frame;
using geometry::Place;
using geometry::Solid;
using kinematics::Joint;
using ChainLink = kinematics::Link;

/// Joints against products of matrices, and distances of bodies against projections to and fro.
class RigChainTest : public QObject, private Dice {
    Q_OBJECT
    static Eigen::Vector3d vector(Place p) { return {p.x, p.y, p.z}; }

    static Eigen::Isometry3d moved(const ChainLink& link, double q) {
        Eigen::Isometry3d out = Eigen::Isometry3d::Identity();
        // Angles of pitch count about right, which is minus left.
        if (link.joint == Joint::Along) out.translate(q * vector(link.direction));
        if (link.joint == Joint::Yaw) out.rotate(Eigen::AngleAxisd(q, Eigen::Vector3d::UnitZ()));
        if (link.joint == Joint::Pitch) out.rotate(Eigen::AngleAxisd(-q, Eigen::Vector3d::UnitY()));
        if (link.joint == Joint::Roll) out.rotate(Eigen::AngleAxisd(q, Eigen::Vector3d::UnitX()));
        if (link.joint == Joint::Parallel)
            out.translate(Eigen::AngleAxisd(-q, Eigen::Vector3d::UnitY()) * vector(link.direction));
        return out;
    }
    Frame frame() {
        Eigen::Quaterniond q(within(-1, 1), within(-1, 1), within(-1, 1), within(-1, 1));
        const Eigen::Matrix3d m = q.normalized().toRotationMatrix();
        const auto column = [&](int i) { return Place{m(0, i), m(1, i), m(2, i)}; };
        return {place(0.6), column(0), column(1), column(2)};
    }
    /// The place of a box, without its rounding, that is nearest to one in space.
    static Place nearestIn(const Solid& s, Place p) {
        const Place at = s.frame.seen(p);
        return s.frame.to({std::clamp(at.x, -0.5 * s.length, 0.5 * s.length),
                           std::clamp(at.y, -0.5 * s.width, 0.5 * s.width),
                           std::clamp(at.z, -0.5 * s.height, 0.5 * s.height)});
    }

public:
    RigChainTest() : Dice(20261130) {}

private slots:
    void jointsAreMatrices() {
        constexpr std::array joints{Joint::Fixed, Joint::Along, Joint::Yaw,
                                    Joint::Pitch, Joint::Roll,  Joint::Parallel};
        for (int i = 0; i < 200; ++i) {
            std::vector<ChainLink> chain(8);
            std::vector<double> places(8);
            std::vector<Eigen::Isometry3d> by(8);
            for (int k = 0; k < 8; ++k) {
                const auto at = static_cast<std::size_t>(k);
                ChainLink& link = chain[at];
                link = {std::uniform_int_distribution<int>(-1, k - 1)(random_),
                        place(1.0),
                        joints[std::uniform_int_distribution<std::size_t>(0, 5)(random_)],
                        k == 3 ? -1 : k,
                        within(-2, 2),
                        place(1.0)};
                places[at] = within(-3, 3);
                by[at] = link.on < 0 ? Eigen::Isometry3d::Identity() : by[static_cast<std::size_t>(link.on)];
                by[at].translate(vector(link.shift));
                by[at] = by[at] * moved(link, link.offset + (k == 3 ? 0.0 : places[at]));
            }
            std::vector<Frame> frames(8);
            kinematics::forward(chain, places, frames);
            for (std::size_t k = 0; k < 8; ++k) {
                const Place p = place(1.0), there = frames[k].to(p);
                QVERIFY((by[k] * vector(p) - vector(there)).norm() < 1e-12);
                const Place back = frames[k].seen(there);
                QVERIFY((vector(back) - vector(p)).norm() < 1e-12);
            }
        }
    }
    /// Columns of the Jacobian against places a step apart; an axis may move two joints, as a parallel arm
    /// does.
    void velocitiesAreDifferences() {
        constexpr std::array joints{Joint::Fixed, Joint::Along, Joint::Yaw,
                                    Joint::Pitch, Joint::Roll,  Joint::Parallel};
        int moving = 0;
        for (int i = 0; i < 200; ++i) {
            std::vector<ChainLink> chain(7);
            for (int k = 0; k < 7; ++k)
                chain[static_cast<std::size_t>(k)] = {
                    std::uniform_int_distribution<int>(-1, k - 1)(random_),
                    place(1.0),
                    joints[std::uniform_int_distribution<std::size_t>(0, 5)(random_)],
                    k / 2,
                    within(-2, 2),
                    place(1.0)};
            std::vector<double> places{within(-3, 3), within(-3, 3), within(-3, 3), within(-3, 3)};
            std::vector<Frame> frames(7), before(7), after(7);
            kinematics::forward(chain, places, frames);
            std::vector<Place> local;
            std::vector<kinematics::Fixed> fixed{{-1, place(1.0)}};
            for (int k = 0; k < 7; ++k) {
                local.push_back(place(1.0));
                fixed.push_back({k, frames[static_cast<std::size_t>(k)].to(local.back())});
            }
            for (int axis = 0; axis < 4; ++axis) {
                const std::vector<Place> found = kinematics::velocities(chain, frames, axis, fixed);
                QCOMPARE(lengthOf(found[0]), 0.0);
                constexpr double step = 1e-5;
                const auto at = static_cast<std::size_t>(axis);
                places[at] -= step;
                kinematics::forward(chain, places, before);
                places[at] += 2 * step;
                kinematics::forward(chain, places, after);
                places[at] -= step;
                for (std::size_t k = 0; k < 7; ++k) {
                    const Place moved = minus(after[k].to(local[k]), before[k].to(local[k]));
                    const Place off = minus(found[k + 1], plus({}, moved, 0.5 / step));
                    QVERIFY2(lengthOf(off) < 1e-8, qPrintable(QString::number(lengthOf(off))));
                    moving += lengthOf(found[k + 1]) > 0.0;
                }
            }
        }
        QVERIFY(moving > 1000);
    }
    void whatStandsOnWhat() {
        // Ground, then 0; on it 1 and 3; on 1 stands 2; 4 on the ground.
        std::vector<ChainLink> chain(5);
        for (const auto& [link, on] : {std::pair{0, -1}, {1, 0}, {2, 1}, {3, 0}, {4, -1}})
            chain[static_cast<std::size_t>(link)].on = on;
        QCOMPARE(kinematics::standingOn(chain, 1), (std::vector<bool>{false, true, true, false, false}));
        QCOMPARE(kinematics::standingOn(chain, 0), (std::vector<bool>{true, true, true, true, false}));
        QCOMPARE(kinematics::commonBelow(chain, 2, 3), 0);
        QCOMPARE(kinematics::commonBelow(chain, 3, 2), 0);
        QCOMPARE(kinematics::commonBelow(chain, 2, 1), 1);
        QCOMPARE(kinematics::commonBelow(chain, 2, 4), -1);
        QCOMPARE(kinematics::commonBelow(chain, -1, 4), -1);
    }
    /// Going to and fro between two boxes, each time to the nearest place, ends at the least distance.
    void bodiesApart() {
        int touching = 0;
        for (int i = 0; i < 400; ++i) {
            const auto size = [&](int zero) { return i % 5 == zero ? 0.0 : within(0.05, 0.8); };
            const Solid a{frame(), within(0.1, 1), size(1), i % 5 == 1 ? 0.0 : size(2), within(0, 0.05)};
            const Solid b{frame(), within(0.1, 1), size(3), i % 5 == 3 ? 0.0 : size(4), 0.0};
            Place p = a.frame.at;
            for (int k = 0; k < 4000; ++k) p = nearestIn(a, nearestIn(b, p));
            const double least = lengthOf(minus(p, nearestIn(b, p)));
            const double found = geometry::apart(a, b);
            VERIFY_NEAR(found, geometry::apart(b, a), 1e-9);
            if (least < 1e-6) {
                ++touching;
                QVERIFY2(found <= 1e-4, qPrintable(QString::number(found)));
            } else {
                QVERIFY2(std::abs(found - (least - a.round)) < 2e-4,
                         qPrintable(QString("%1: %2 for %3").arg(i).arg(found).arg(least - a.round)));
            }
            QVERIFY(found >= lengthOf(minus(a.frame.at, b.frame.at)) - reachOf(a) - reachOf(b) - 1e-12);
        }
        QVERIFY(touching > 40 && touching < 360);
    }
    void lowestOverAPlane() {
        for (int i = 0; i < 100; ++i) {
            const Solid s{frame(), within(0, 1), within(0, 1), within(0, 1), within(0, 0.1)};
            const Frame f = frame();
            double least = 1e9;
            for (const double x : {-0.5, 0.5})
                for (const double y : {-0.5, 0.5})
                    for (const double z : {-0.5, 0.5})
                        least = std::min(
                            least, f.seen(s.frame.to({x * s.length, y * s.width, z * s.height})).z - s.round);
            VERIFY_NEAR(geometry::apart(s, geometry::Plane{f.at, f.up}), least, 1e-9);
        }
    }
};

QTEST_APPLESS_MAIN(RigChainTest)
#include "rig_chain_test.moc"
