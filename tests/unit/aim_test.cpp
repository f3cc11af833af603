// SPDX-License-Identifier: GPL-3.0-or-later
// Where the camera of a rig is and looks, how it moves, what it sees, and how it is aimed: worked cases, and
// laws that need none.
#include "core/kinematics/aim.h"
#include "core/kinematics/views.h"
#include "support/dice.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <numbers>

using namespace gantry::kinematics;
using gantry::geometry::Frame;
using gantry::geometry::Place;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi;

Place placeOf(const json& j) {
    return {j[0], j[1], j[2]};
}

/// The order of axes in the worked cases.
enum Axis { Slide, Lift, Swing, Boom, Pan, Tilt, Roll };
enum Part {
    Ground,
    Slope,
    Carriage,
    Wedge,
    LiftLink,
    SwingLink,
    BoomLink,
    Arm,
    PanLink,
    TiltLink,
    RollLink,
    Lens
};

std::vector<Link> chainOf(const json& rig) {
    std::vector<Link> out(Lens + 1);
    for (int i = 0; i <= Lens; ++i) out[static_cast<std::size_t>(i)].on = i - 1;
    const auto set = [&](Part p, Joint joint, int axis, Place shift) {
        Link& l = out[p];
        l.joint = joint;
        l.axis = axis;
        l.shift = shift;
    };
    set(Ground, Joint::Yaw, -1, placeOf(rig["base"]));
    out[Ground].offset = rig["heading"];
    set(Slope, Joint::Pitch, -1, {});
    out[Slope].offset = rig["slope"];
    set(Carriage, Joint::Along, Slide, {});
    out[Carriage].direction = {1.0, 0.0, 0.0};
    set(Wedge, Joint::Pitch, -1, placeOf(rig["o_carriage"]));
    out[Wedge].offset = -rig["wedge"].get<double>();
    set(LiftLink, Joint::Along, Lift, {});
    out[LiftLink].direction = {0.0, 0.0, 1.0};
    set(SwingLink, Joint::Yaw, Swing, placeOf(rig["o_swing"]));
    const bool parallel = rig["boom_kind"] == "parallel";
    const Place arm{rig["boom_length"].get<double>(), 0.0, 0.0};
    set(BoomLink, parallel ? Joint::Parallel : Joint::Pitch, Boom, placeOf(rig["o_boom"]));
    out[BoomLink].direction = arm;
    set(Arm, Joint::Fixed, -1, parallel ? Place{} : arm);
    set(PanLink, Joint::Yaw, Pan, placeOf(rig["o_pan"]));
    set(TiltLink, Joint::Pitch, Tilt, placeOf(rig["o_tilt"]));
    set(RollLink, Joint::Roll, Roll, placeOf(rig["o_roll"]));
    set(Lens, Joint::Fixed, -1, placeOf(rig["o_lens"]));
    return out;
}
constexpr Head head{PanLink, TiltLink, RollLink, Lens};

void near(const char* what, Place is, const json& wanted, double tolerance = 1e-8) {
    const Place w = placeOf(wanted);
    const double off = lengthOf(minus(is, w));
    QVERIFY2(off < tolerance * (1.0 + lengthOf(w)),
             (std::string(what) + " is off by " + std::to_string(off)).c_str());
}

} // namespace

class AimTest : public QObject, private Dice {
    Q_OBJECT

    /// A rig of all joints, with everything offset from everything.
    json drawnRig() {
        const auto three = [&](double by) { return json{within(-by, by), within(-by, by), within(-by, by)}; };
        return {{"base", three(1.0)},
                {"heading", within(-pi, pi)},
                {"slope", within(-0.6, 0.6)},
                {"wedge", within(-0.5, 0.5)},
                {"o_carriage", three(0.2)},
                {"o_swing", three(0.2)},
                {"o_boom", three(0.2)},
                {"boom_length", within(0.3, 3.0)},
                {"boom_kind", within(0, 1) < 0.5 ? "plain" : "parallel"},
                {"o_pan", three(0.2)},
                {"o_tilt", three(0.1)},
                {"o_roll", three(0.05)},
                {"o_lens", three(0.06)}};
    }
    std::vector<double> drawn(double by) {
        std::vector<double> out(7);
        for (double& x : out) x = within(-by, by);
        return out;
    }

public:
    AimTest() : Dice(20261201) {}

private slots:
    void workedChains() {
        for (const json& c : referenceCases("t17_chain", "chain")) {
            const json &in = c["inputs"], &e = c["expected"];
            const std::vector<Link> chain = chainOf(in["rig"]);
            const std::vector<double> q = in["q"], qd = in["qd"], qdd = in["qdd"];
            std::vector<Moving> links(chain.size());
            forwardMotion(chain, {q, qd, qdd}, links);
            const Moving& lens = links[Lens];
            near("camera", lens.frame.at, e["camera"]);
            near("forward", lens.frame.ahead, e["forward"]);
            for (std::size_t row = 0; row < 3; ++row) {
                const auto part = [&](Place p) { return row == 0 ? p.x : row == 1 ? p.y : p.z; };
                VERIFY_NEAR_ABS(part(lens.frame.left), e["R"][row][1].get<double>(), 1e-9);
                VERIFY_NEAR_ABS(part(lens.frame.up), e["R"][row][2].get<double>(), 1e-9);
            }
            near("turning", lens.turning, e["omega"]);
            near("velocity", lens.velocity, e["velocity"]);
            near("turning rises", lens.turningRises, e["alpha"]);
            near("acceleration", lens.acceleration, e["acceleration"]);
            // Column by column, each axis alone at 1 U/s.
            for (std::size_t k = 0; k < 7; ++k) {
                std::vector<double> one(7, 0.0);
                one[k] = 1.0;
                forwardMotion(chain, {q, one, {}}, links);
                const auto column = [&](std::size_t first) {
                    return json{e["jacobian"][first][k], e["jacobian"][first + 1][k],
                                e["jacobian"][first + 2][k]};
                };
                near("jacobian, turning", links[Lens].turning, column(0));
                near("jacobian, velocity", links[Lens].velocity, column(3));
            }
            forwardMotion(chain, {q, qd, qdd}, links);
            const InPicture p =
                pictureOf(links[Lens], {placeOf(in["target"]), {}, {}}, {in["focal_px"].get<double>()});
            const json& w = e["picture"];
            QVERIFY(p.inFront);
            VERIFY_NEAR_ABS(p.u, w["u"].get<double>(), 1e-5);
            VERIFY_NEAR_ABS(p.v, w["v"].get<double>(), 1e-5);
            VERIFY_NEAR_ABS(p.uSpeed, w["du"].get<double>(), 1e-5);
            VERIFY_NEAR_ABS(p.vSpeed, w["dv"].get<double>(), 1e-5);
            VERIFY_NEAR_ABS(p.uRises, w["ddu"].get<double>(), 1e-4);
            VERIFY_NEAR_ABS(p.vRises, w["ddv"].get<double>(), 1e-4);
            VERIFY_NEAR(p.depth, w["depth"].get<double>(), 1e-8);
            VERIFY_NEAR(p.range, w["range"].get<double>(), 1e-8);
        }
        for (const json& c : referenceCases("t17_chain", "horizon")) {
            const std::vector<Link> chain = chainOf(c["inputs"]["rig"]);
            const std::vector<double> q = c["inputs"]["q"];
            std::vector<Frame> frames(chain.size());
            forward(chain, q, frames);
            VERIFY_NEAR_ABS(horizonAngle(frames[Lens]), c["expected"]["horizon_angle"].get<double>(), 1e-9);
        }
    }
    /// Speeds and accelerations are what places do in time, and a moving point counts as well.
    void motionIsWhatPlacesDo() {
        constexpr double h = 1e-4, focal = 2000.0;
        for (int n = 0; n < 200; ++n) {
            const std::vector<Link> chain = chainOf(drawnRig());
            const std::vector<double> q = drawn(0.5), qd = drawn(0.6), qdd = drawn(0.9);
            std::vector<Frame> frames(chain.size());
            forward(chain, q, frames);
            const Point point{frames[Lens].to({within(1, 6), within(-1, 1), within(-1, 1)}), place(0.3),
                              place(0.3)};
            const auto at = [&](double t) {
                std::vector<double> p(7), v(7);
                for (std::size_t i = 0; i < 7; ++i) {
                    p[i] = q[i] + qd[i] * t + 0.5 * qdd[i] * t * t;
                    v[i] = qd[i] + qdd[i] * t;
                }
                std::vector<Moving> links(chain.size());
                forwardMotion(chain, {p, v, qdd}, links);
                return links[Lens];
            };
            const auto point1 = [&](double t) {
                return Point{
                    plus(plus(point.at, point.velocity, t), point.acceleration, 0.5 * t * t), {}, {}};
            };
            const Moving now = at(0.0), before = at(-h), after = at(h);
            const Place v = plus({}, minus(after.frame.at, before.frame.at), 0.5 / h);
            QVERIFY(lengthOf(minus(v, now.velocity)) < 1e-5 * (1.0 + lengthOf(v)));
            const Place a = plus({}, minus(after.velocity, before.velocity), 0.5 / h);
            QVERIFY(lengthOf(minus(a, now.acceleration)) < 1e-5 * (1.0 + lengthOf(a)));
            const Place r = plus({}, minus(after.turning, before.turning), 0.5 / h);
            QVERIFY(lengthOf(minus(r, now.turningRises)) < 1e-5 * (1.0 + lengthOf(r)));
            // Directions turn as the turning says.
            const Place d = plus({}, minus(after.frame.up, before.frame.up), 0.5 / h);
            QVERIFY(lengthOf(minus(d, cross(now.turning, now.frame.up))) < 1e-5);
            const InPicture p = pictureOf(now, point, {focal});
            QVERIFY(p.inFront);
            const InPicture b = pictureOf(before, point1(-h), {focal}),
                            f = pictureOf(after, point1(h), {focal});
            VERIFY_NEAR_ABS((f.u - b.u) / (2 * h), p.uSpeed, 1e-2 + 1e-5 * std::abs(p.uSpeed));
            VERIFY_NEAR_ABS((f.v - b.v) / (2 * h), p.vSpeed, 1e-2 + 1e-5 * std::abs(p.vSpeed));
            VERIFY_NEAR_ABS((f.u - 2 * p.u + b.u) / (h * h), p.uRises, 1.0 + 1e-4 * std::abs(p.uRises));
            VERIFY_NEAR_ABS((f.v - 2 * p.v + b.v) / (h * h), p.vRises, 1.0 + 1e-4 * std::abs(p.vRises));
        }
    }
    void parallelLinksKeepTheHeadLevel() {
        json rig = drawnRig();
        rig["boom_kind"] = "parallel";
        const std::vector<Link> chain = chainOf(rig);
        std::vector<double> q = drawn(0.4);
        std::vector<Frame> frames(chain.size());
        forward(chain, q, frames);
        const Frame was = frames[PanLink];
        q[Boom] += 0.7;
        forward(chain, q, frames);
        QVERIFY(lengthOf(minus(frames[PanLink].ahead, was.ahead)) < 1e-14);
        QVERIFY(lengthOf(minus(frames[PanLink].up, was.up)) < 1e-14);
        QVERIFY(lengthOf(minus(frames[PanLink].at, was.at)) > 0.1);
    }
    void workedAims() {
        for (const json& c : referenceCases("t18_aim", "aim")) {
            const json &in = c["inputs"], &e = c["expected"];
            const std::vector<Link> chain = chainOf(in["rig"]);
            std::vector<double> q = in["q_base"], qd = in["qd_base"], qdd = in["qdd_base"];
            for (auto* v : {&q, &qd, &qdd}) v->resize(7, 0.0);
            const Place target = placeOf(in["target"]);
            const Aim aim{{in["uv"][0], in["uv"][1]}, in["focal_px"], in["horizon_level_with_roll"]};
            const Aimed aimed = aimAt(chain, head, q, target, aim);
            QVERIFY2(aimed, c["name"].get<std::string>().c_str());
            VERIFY_NEAR_ABS(aimed.pan, e["pan"].get<double>(), 1e-9);
            VERIFY_NEAR_ABS(aimed.tilt, e["tilt"].get<double>(), 1e-9);
            VERIFY_NEAR_ABS(aimed.roll, e["roll"].get<double>(), 1e-9);
            q[Pan] = aimed.pan;
            q[Tilt] = aimed.tilt;
            q[Roll] = aimed.roll;
            const auto rates = ratesToHold(chain, head, {q, qd, qdd}, {target, {}, {}}, aim);
            QVERIFY(rates);
            VERIFY_NEAR_ABS(rates->pan, e["head_rates"][0].get<double>(), 1e-7);
            VERIFY_NEAR_ABS(rates->tilt, e["head_rates"][1].get<double>(), 1e-7);
            VERIFY_NEAR_ABS(rates->roll, e["head_rates"][2].get<double>(), 1e-7);
            VERIFY_NEAR_ABS(rates->panRises, e["head_accelerations"][0].get<double>(), 1e-7);
            VERIFY_NEAR_ABS(rates->tiltRises, e["head_accelerations"][1].get<double>(), 1e-7);
            VERIFY_NEAR_ABS(rates->rollRises, e["head_accelerations"][2].get<double>(), 1e-7);
            std::vector<Frame> frames(chain.size());
            forward(chain, q, frames);
            VERIFY_NEAR_ABS(horizonAngle(frames[Lens]), e["horizon_angle"].get<double>(), 1e-8);
        }
        for (const json& c : referenceCases("t18_aim", "centre_closed")) {
            const json& in = c["inputs"];
            std::vector<double> q = in["q_base"];
            q.resize(7, 0.0);
            const Aimed aimed = aimAt(chainOf(in["rig"]), head, q, placeOf(in["target"]), {});
            QVERIFY(aimed);
            VERIFY_NEAR_ABS(aimed.pan, c["expected"]["pan"].get<double>(), 1e-9);
            VERIFY_NEAR_ABS(aimed.tilt, c["expected"]["tilt"].get<double>(), 1e-9);
        }
    }
    /// Aimed by the chain, seen by the picture, on any rig; over the top as well. Nothing is said to aim that
    /// does not.
    void aimedIsThere() {
        constexpr double focal = 1500.0;
        int aimed = 0, over = 0;
        for (int n = 0; n < 500; ++n) {
            const std::vector<Link> chain = chainOf(drawnRig());
            std::vector<double> q = drawn(0.6);
            const Place target{within(-6, 6), within(-6, 6), within(-2, 3)};
            const Aim aim{{within(-700, 700), within(-400, 400)}, focal, within(0, 1) < 0.5};
            const Aimed up = aimAt(chain, head, q, target, aim);
            if (!up) continue;
            ++aimed;
            const auto check = [&](const Aimed& a) {
                q[Pan] = a.pan;
                q[Tilt] = a.tilt;
                q[Roll] = a.roll;
                std::vector<Moving> links(chain.size());
                forwardMotion(chain, {q, {}, {}}, links);
                const InPicture p = pictureOf(links[Lens], {target, {}, {}}, {focal});
                QVERIFY(p.inFront);
                VERIFY_NEAR_ABS(p.u, aim.place.u, 1e-6);
                VERIFY_NEAR_ABS(p.v, aim.place.v, 1e-6);
                if (aim.levelHorizon) VERIFY_NEAR_ABS(links[Lens].frame.left.z, 0.0, 1e-9);
            };
            const std::vector<double> was = q;
            check(up);
            // The other branch.
            q = was;
            Aimed start = overTheTop(up);
            q[Pan] = start.pan;
            q[Tilt] = start.tilt;
            q[Roll] = start.roll;
            if (const Aimed top = aimFrom(chain, head, q, target, aim)) {
                check(top);
                if (std::cos(top.tilt) < 0.0) ++over;
            }
        }
        QVERIFY2(aimed > 470, std::to_string(aimed).c_str());
        QVERIFY2(over > 400, std::to_string(over).c_str());
    }
    void whatCannotBeAimedIsSaid() {
        json rig = drawnRig();
        rig["o_tilt"] = {0.0, 0.2, 0.1};
        const std::vector<Link> chain = chainOf(rig);
        const std::vector<double> q(7, 0.0);
        std::vector<Frame> frames(chain.size());
        forward(chain, q, frames);
        const Frame& base = frames[PanLink];
        QCOMPARE(aimAt(chain, head, q, base.to({0.05, 0.0, 0.3}), {}).no, NoAim::Blind);
        QVERIFY(aimAt(chain, head, q, base.to({0.5, 0.0, 0.3}), {}));
        QCOMPARE(aimAt(chain, {-1, -1, RollLink, Lens}, q, base.to({1, 0, 0}), {}).no, NoAim::NoHead);
        // A pan alone brings it to the wanted column, at whatever height it then is.
        const Place target = base.to({2.0, 1.0, 0.4});
        const Aim aim{{120.0, 0.0}, 900.0, false};
        const Aimed panned = aimAt(chain, {PanLink, -1, -1, Lens}, q, target, aim);
        QVERIFY(panned);
        std::vector<double> then = q;
        then[Pan] = panned.pan;
        std::vector<Moving> links(chain.size());
        forwardMotion(chain, {then, {}, {}}, links);
        const InPicture p = pictureOf(links[Lens], {target, {}, {}}, {900.0});
        VERIFY_NEAR_ABS(p.u, 120.0, 1e-6);
        QVERIFY(std::abs(p.v) > 1.0);
    }
    /// Past a pole at a miss of m a pan reaches v/m, and its acceleration (3√3/8) v²/m².
    void closePasses() {
        json rig = drawnRig();
        for (const char* key :
             {"base", "o_carriage", "o_swing", "o_boom", "o_pan", "o_tilt", "o_roll", "o_lens"})
            rig[key] = {0.0, 0.0, 0.0};
        for (const char* key : {"heading", "slope", "wedge", "boom_length"}) rig[key] = 0.0;
        const std::vector<Link> chain = chainOf(rig);
        constexpr double speed = 0.3, miss = 0.4;
        double rate = 0.0, rise = 0.0;
        for (double x = -1.0; x <= 1.0; x += 1e-3) {
            std::vector<double> q(7, 0.0), qd(7, 0.0), qdd(7, 0.0);
            q[Slide] = x;
            qd[Slide] = speed;
            const Place target{0.0, miss, 0.0};
            const Aimed a = aimAt(chain, head, q, target, {});
            QVERIFY(a);
            q[Pan] = a.pan;
            const auto r = ratesToHold(chain, head, {q, qd, qdd}, {target, {}, {}}, {});
            QVERIFY(r);
            rate = std::max(rate, std::abs(r->pan));
            rise = std::max(rise, std::abs(r->panRises));
        }
        VERIFY_NEAR(rate, speed / miss, 1e-5);
        VERIFY_NEAR(rise, 3.0 * std::sqrt(3.0) / 8.0 * speed * speed / (miss * miss), 1e-4);
    }
    void wholeTurns() {
        for (const json& c : referenceCases("t18_aim", "wrap")) {
            const json &in = c["inputs"], &e = c["expected"];
            const std::vector<Link> chain = chainOf(in["rig"]);
            std::vector<double> pan;
            for (int i = 0; i <= 120; ++i) {
                std::vector<double> q(7, 0.0);
                const double from = in["swing_from"], to = in["swing_to"];
                q[Swing] = from + (to - from) * i / 120.0;
                q[Boom] = in["boom"];
                const Aimed a = aimAt(chain, head, q, placeOf(in["target"]), {});
                QVERIFY(a);
                pan.push_back(a.pan);
            }
            unwrap(pan);
            const Turns t = turnsInto(pan, in["pan_range"][0], in["pan_range"][1], in["pan_now"]);
            QCOMPARE(t.fits, e["possible"].get<bool>());
            const auto [least, greatest] = std::minmax_element(pan.begin(), pan.end());
            VERIFY_NEAR_ABS(*greatest - *least, e["pan_span"].get<double>(), 1e-6);
            if (!t.fits) {
                QVERIFY(t.leavesAt < pan.size());
                const double out = pan[t.leavesAt] + t.by;
                QVERIFY(out < in["pan_range"][0].get<double>() || out > in["pan_range"][1].get<double>());
                continue;
            }
            VERIFY_NEAR_ABS(pan.front() + t.by, e["pan_start"].get<double>(), 1e-6);
            VERIFY_NEAR_ABS(pan.back() + t.by, e["pan_end"].get<double>(), 1e-6);
        }
    }
    void pointsFromViews() {
        for (const json& c : referenceCases("t19_views", "views")) {
            const json &in = c["inputs"], &e = c["expected"];
            std::vector<View> views;
            for (std::size_t i = 0; i < in["cameras"].size(); ++i) {
                const Place d = placeOf(in["directions"][i]);
                views.push_back({placeOf(in["cameras"][i]), plus({}, d, 1.0 / lengthOf(d))});
            }
            const ToldPoint p = pointFrom(views, in["sigma_angle"], in["sigma_position"]);
            QCOMPARE(!p, e["refuse"].get<bool>());
            VERIFY_NEAR_ABS(p.parallax, e["parallax"].get<double>(), 1e-6);
            if (!e.contains("point")) continue;
            near("point", p.at, e["point"], 1e-6);
            near("deviation", p.deviation, e["std"], 1e-6);
            VERIFY_NEAR(p.worstDeviation, e["std_worst"].get<double>(), 1e-4);
            VERIFY_NEAR(p.worstShare, e["std_worst_over_range"].get<double>(), 1e-4);
            VERIFY_NEAR(p.misfit, e["chi2"].get<double>(), 1e-4);
            const std::string why = e["why"];
            if (why == "views too nearly parallel") QCOMPARE(p.no, NoPoint::Parallel);
            if (why == "views do not agree") QCOMPARE(p.no, NoPoint::Disagree);
        }
        const View ahead{{0, 0, 0}, {1, 0, 0}};
        QCOMPARE(pointFrom(std::vector{ahead}, 1e-3, 0.0).no, NoPoint::TooFew);
        QCOMPARE(pointFrom(std::vector{ahead, View{{0, 1, 0}, {1, 0, 0}}}, 1e-3, 0.0).no, NoPoint::Parallel);
        // The rays meet behind both.
        const double s = std::sqrt(0.5);
        QCOMPARE(
            pointFrom(std::vector{View{{0, 1, 0}, {s, s, 0}}, View{{0, -1, 0}, {s, -s, 0}}}, 1e-3, 0.0).no,
            NoPoint::Behind);
    }
    /// A camera that knows where it is only so well knows the point no better.
    void viewsScatterAsToldTheyDo() {
        constexpr double angle = 2e-3, position = 3e-3;
        const Place point{3.0, 0.2, 0.5};
        const std::vector<Place> from{{0, -0.8, 0.4}, {0, 0.8, 0.4}, {0.3, 0, 1.2}};
        std::normal_distribution<double> normal;
        std::mt19937 random(7);
        double squared = 0.0, told = 0.0;
        constexpr int times = 3000;
        for (int n = 0; n < times; ++n) {
            std::vector<View> views;
            for (const Place& c : from) {
                Place way = minus(point, c);
                way = plus({}, way, 1.0 / lengthOf(way));
                // Two directions square to it.
                Place side = cross(way, {0, 0, 1});
                side = plus({}, side, 1.0 / lengthOf(side));
                const Place up = cross(side, way);
                Place d = plus(plus(way, side, angle * normal(random)), up, angle * normal(random));
                d = plus({}, d, 1.0 / lengthOf(d));
                views.push_back({plus(c, {position * normal(random), position * normal(random),
                                          position * normal(random)}),
                                 d});
            }
            const ToldPoint p = pointFrom(views, angle, position);
            if (p.no == NoPoint::Disagree) continue; // one in a thousand
            QVERIFY(p);
            squared += (p.at.x - point.x) * (p.at.x - point.x);
            told += p.deviation.x * p.deviation.x;
        }
        VERIFY_NEAR(std::sqrt(squared / told), 1.0, 0.05);
    }
};

QTEST_APPLESS_MAIN(AimTest)
#include "aim_test.moc"
