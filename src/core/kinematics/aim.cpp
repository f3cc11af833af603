// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/aim.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::kinematics {
namespace {

using geometry::cross;
using geometry::dot;
using geometry::Frame;
using geometry::minus;
using geometry::Place;
using geometry::plus;

using std::numbers::pi;

/// Up to three equations in as many unknowns.
struct System {
    int size = 0;
    double m[3][3] = {};
    double right[3] = {};

    /// Solves by elimination with the largest pivots; false where a pivot is next to nothing.
    bool solve(double* x) {
        for (int c = 0; c < size; ++c) {
            int best = c;
            for (int r = c + 1; r < size; ++r)
                if (std::abs(m[r][c]) > std::abs(m[best][c])) best = r;
            if (!(std::abs(m[best][c]) > 1e-9)) return false;
            std::swap(m[c], m[best]);
            std::swap(right[c], right[best]);
            for (int r = c + 1; r < size; ++r) {
                const double by = m[r][c] / m[c][c];
                for (int k = c; k < size; ++k) m[r][k] -= by * m[c][k];
                right[r] -= by * right[c];
            }
        }
        for (int r = size; r-- > 0;) {
            double sum = right[r];
            for (int k = r + 1; k < size; ++k) sum -= m[r][k] * x[k];
            x[r] = sum / m[r][r];
        }
        return true;
    }
};

/// The joints of a head that are used, and the equation that each of them answers for.
enum class Wants { Across, Up, Level };
struct Used {
    int count = 0;
    int link[3] = {};
    Wants wants[3] = {};

    void add(int l, Wants w) {
        if (l < 0) return;
        link[count] = l;
        wants[count++] = w;
    }
};
Used usedOf(const Head& head, const Aim& aim) {
    Used out;
    out.add(head.pan, Wants::Across);
    out.add(head.tilt, Wants::Up);
    if (aim.levelHorizon) out.add(head.roll, Wants::Level);
    return out;
}

int axisOf(std::span<const Link> chain, int link) {
    return chain[static_cast<std::size_t>(link)].axis;
}

Place axisDirection(const Link& link, const Frame& f) {
    switch (link.joint) {
    case Joint::Yaw:
        return f.up;
    case Joint::Pitch:
        return plus({}, f.left, -1.0);
    default:
        return f.ahead;
    }
}

/// Linear in the way to the point as the camera sees it, and so without a pole where it is behind: what is to
/// be nothing for the wanted place across and up.
double across(Place seen, const Aim& aim) {
    return seen.y + seen.x * aim.place.u / aim.focal;
}
double upwards(Place seen, const Aim& aim) {
    return seen.z - seen.x * aim.place.v / aim.focal;
}
Place seenBy(const Frame& f, Place way) {
    return {dot(way, f.ahead), dot(way, f.left), dot(way, f.up)};
}

double residual(Wants wants, const Frame& lens, Place target, const Aim& aim) {
    const Place way = minus(target, lens.at), seen = seenBy(lens, way);
    switch (wants) {
    case Wants::Across:
        return across(seen, aim) / lengthOf(way);
    case Wants::Up:
        return upwards(seen, aim) / lengthOf(way);
    case Wants::Level:
        break;
    }
    return lens.left.z;
}

/// How the residual of one equation changes with one joint; the range changes little and is left alone.
double slope(Wants wants, const Link& joint, const Frame& at, const Frame& lens, Place target,
             const Aim& aim) {
    const Place about = axisDirection(joint, at);
    if (wants == Wants::Level) return cross(about, lens.left).z;
    // Turning everything behind the joint is turning the point the other way about it.
    const Place moves = plus({}, cross(about, minus(target, at.at)), -1.0), seen = seenBy(lens, moves);
    return (wants == Wants::Across ? across(seen, aim) : upwards(seen, aim)) /
           lengthOf(minus(target, lens.at));
}

/// A chain in one pose, of which only the head is moved.
class Pointing {
public:
    Pointing(std::span<const Link> chain, const Head& head, std::span<const double> places, Place target,
             const Aim& aim)
        : chain_(chain), head_(head), used_(usedOf(head, aim)), places_(places.begin(), places.end()),
          target_(target), aim_(aim), frames_(chain.size()) {
        // Joints whose axis has no place yet stand at 0.
        for (const Link& l : chain)
            if (l.axis >= 0 && static_cast<std::size_t>(l.axis) >= places_.size())
                places_.resize(static_cast<std::size_t>(l.axis) + 1, 0.0);
        lay();
    }

    const Used& used() const { return used_; }
    double angle(int link) const { return places_[static_cast<std::size_t>(axisOf(chain_, link))]; }
    void set(int link, double angle) { places_[static_cast<std::size_t>(axisOf(chain_, link))] = angle; }
    void lay() { forward(chain_, places_, frames_); }
    const Frame& frame(int link) const { return frames_[static_cast<std::size_t>(link)]; }
    const Link& link(int link) const { return chain_[static_cast<std::size_t>(link)]; }
    const Frame& lens() const { return frame(head_.lens); }

    double miss() const {
        double sum = 0.0;
        for (int i = 0; i < used_.count; ++i) {
            const double r = residual(used_.wants[i], lens(), target_, aim_);
            sum += r * r;
        }
        return std::sqrt(sum);
    }

    /// Damped Newton steps; what it ends with is for the caller to judge.
    void refine() {
        constexpr int mostSteps = 40;
        for (int step = 0; step < mostSteps; ++step) {
            const double before = miss();
            if (before < 1e-15) return;
            System s;
            s.size = used_.count;
            for (int i = 0; i < used_.count; ++i) {
                s.right[i] = -residual(used_.wants[i], lens(), target_, aim_);
                for (int k = 0; k < used_.count; ++k)
                    s.m[i][k] = slope(used_.wants[i], link(used_.link[k]), frame(used_.link[k]), lens(),
                                      target_, aim_);
            }
            double by[3] = {};
            if (!s.solve(by)) return;
            double start[3] = {};
            for (int k = 0; k < used_.count; ++k) {
                start[k] = angle(used_.link[k]);
                by[k] = std::clamp(by[k], -1.0, 1.0);
            }
            bool better = false;
            for (double share = 1.0; share > 1e-3 && !better; share *= 0.5) {
                for (int k = 0; k < used_.count; ++k) set(used_.link[k], start[k] + share * by[k]);
                lay();
                better = miss() < before;
            }
            if (!better) {
                for (int k = 0; k < used_.count; ++k) set(used_.link[k], start[k]);
                lay();
                return;
            }
        }
    }

    /// What the head can put right, it has; and the point is before the camera.
    bool there() const { return miss() < 1e-11 && dot(minus(target_, lens().at), lens().ahead) > 0.0; }

    Aimed result() const {
        Aimed out;
        const auto of = [&](int link) { return link >= 0 ? angle(link) : 0.0; };
        out.pan = of(head_.pan);
        out.tilt = of(head_.tilt);
        out.roll = of(head_.roll);
        if (!there()) out.no = NoAim::NotReached;
        return out;
    }

private:
    std::span<const Link> chain_;
    Head head_;
    Used used_;
    std::vector<double> places_;
    Place target_;
    Aim aim_;
    std::vector<Frame> frames_;
};

double wrapped(double angle) {
    return std::remainder(angle, 2.0 * pi);
}

/// Pan and tilt that bring the point to the picture's centre with the roll at rest: closed form for a lens
/// that stands beside the axes. @return false: it is nearer to an axis than the lens is beside it
bool centre(Pointing& p, const Head& head, Place target) {
    const auto turn = [&](int link, double angle) { p.set(link, angle - p.link(link).offset); };
    if (head.pan >= 0) turn(head.pan, 0.0);
    if (head.tilt >= 0) turn(head.tilt, 0.0);
    const double rollWas = head.roll >= 0 ? p.angle(head.roll) : 0.0;
    if (head.roll >= 0) turn(head.roll, 0.0);
    p.lay();
    double panned = 0.0;
    Place way; // to the point, in the head's base
    if (head.pan >= 0) {
        const Frame& base = p.frame(head.pan);
        way = base.seen(target);
        const double beside = base.seen(p.lens().at).y, away = std::hypot(way.x, way.y);
        if (!(away > std::abs(beside))) return false;
        panned = std::atan2(way.y, way.x) - std::asin(beside / away);
        turn(head.pan, wrapped(panned));
        p.lay();
    }
    if (head.tilt >= 0) {
        const Frame& base = p.frame(head.tilt);
        way = base.seen(target);
        const double above = base.seen(p.lens().at).z, away = std::hypot(way.x, way.z);
        if (!(away > std::abs(above))) return false;
        turn(head.tilt, wrapped(std::atan2(way.z, way.x) - std::asin(above / away)));
    }
    if (head.roll >= 0) p.set(head.roll, rollWas);
    p.lay();
    return true;
}

} // namespace

Aimed aimAt(std::span<const Link> chain, const Head& head, std::span<const double> places, Place target,
            const Aim& aim) {
    Aimed none;
    if (head.lens < 0 || (head.pan < 0 && head.tilt < 0)) {
        none.no = NoAim::NoHead;
        return none;
    }
    Pointing p(chain, head, places, target, aim);
    if (!centre(p, head, target)) {
        none.no = NoAim::Blind;
        return none;
    }
    // Away from the centre: turned so far already, the rest is small.
    if (head.pan >= 0) p.set(head.pan, p.angle(head.pan) + std::atan2(aim.place.u, aim.focal));
    if (head.tilt >= 0) p.set(head.tilt, p.angle(head.tilt) - std::atan2(aim.place.v, aim.focal));
    p.lay();
    p.refine();
    Aimed out = p.result();
    if (head.pan >= 0) {
        const double offset = p.link(head.pan).offset;
        out.pan = wrapped(out.pan + offset) - offset;
    }
    return out;
}

Aimed overTheTop(const Aimed& upright) {
    Aimed out = upright;
    out.pan += upright.pan > 0.0 ? -pi : pi;
    out.tilt = pi - upright.tilt;
    out.roll += pi;
    return out;
}

Aimed aimFrom(std::span<const Link> chain, const Head& head, std::span<const double> places, Place target,
              const Aim& aim) {
    Aimed none;
    if (head.lens < 0 || (head.pan < 0 && head.tilt < 0)) {
        none.no = NoAim::NoHead;
        return none;
    }
    Pointing p(chain, head, places, target, aim);
    p.refine();
    return p.result();
}

std::optional<HeadRates> ratesToHold(std::span<const Link> chain, const Head& head, const AxisMotion& motion,
                                     const Point& target, const Aim& aim) {
    const Used used = usedOf(head, aim);
    if (head.lens < 0 || used.count == 0) return std::nullopt;
    std::vector<Moving> links(chain.size());
    std::vector<double> speeds(motion.speeds.begin(), motion.speeds.end()),
        rises(motion.accelerations.begin(), motion.accelerations.end());
    std::size_t most = 0;
    for (const Link& l : chain) most = std::max(most, static_cast<std::size_t>(l.axis + 1));
    speeds.resize(std::max(most, speeds.size()), 0.0);
    rises.resize(std::max(most, rises.size()), 0.0);
    const auto axis = [&](int k) { return static_cast<std::size_t>(axisOf(chain, used.link[k])); };
    for (int k = 0; k < used.count; ++k) speeds[axis(k)] = rises[axis(k)] = 0.0;

    /// First, or second derivative of what is to stay nothing, with the head's own as they are in `speeds`.
    const auto drift = [&](Wants wants, bool second) {
        const Moving& lens = links[static_cast<std::size_t>(head.lens)];
        const Frame& f = lens.frame;
        const Place w = lens.turning;
        if (wants == Wants::Level)
            return second ? plus(cross(lens.turningRises, f.left), cross(w, cross(w, f.left))).z
                          : cross(w, f.left).z;
        const Place way = minus(target.at, f.at),
                    rate = minus(minus(target.velocity, lens.velocity), cross(w, way));
        Place moves = rate;
        if (second) {
            const Place bends = minus(target.acceleration, lens.acceleration);
            moves = minus(minus(minus(bends, cross(lens.turningRises, way)), plus({}, cross(w, rate), 2.0)),
                          cross(w, cross(w, way)));
        }
        const Place seen = seenBy(f, moves);
        return (wants == Wants::Across ? across(seen, aim) : upwards(seen, aim)) / lengthOf(way);
    };
    const auto solve = [&](bool second, double* out) {
        forwardMotion(chain, {motion.places, speeds, rises}, links);
        const Frame& lens = links[static_cast<std::size_t>(head.lens)].frame;
        System s;
        s.size = used.count;
        for (int i = 0; i < used.count; ++i) {
            s.right[i] = -drift(used.wants[i], second);
            for (int k = 0; k < used.count; ++k)
                s.m[i][k] = slope(used.wants[i], chain[static_cast<std::size_t>(used.link[k])],
                                  links[static_cast<std::size_t>(used.link[k])].frame, lens, target.at, aim);
        }
        return s.solve(out);
    };
    double rate[3] = {}, rise[3] = {};
    if (!solve(false, rate)) return std::nullopt;
    for (int k = 0; k < used.count; ++k) speeds[axis(k)] = rate[k];
    if (!solve(true, rise)) return std::nullopt;
    HeadRates out;
    for (int k = 0; k < used.count; ++k) {
        const bool pan = used.link[k] == head.pan, tilt = used.link[k] == head.tilt;
        (pan ? out.pan : tilt ? out.tilt : out.roll) = rate[k];
        (pan ? out.panRises : tilt ? out.tiltRises : out.rollRises) = rise[k];
    }
    return out;
}

void unwrap(std::span<double> angles) {
    for (std::size_t i = 1; i < angles.size(); ++i)
        angles[i] = angles[i - 1] + wrapped(angles[i] - angles[i - 1]);
}

Turns turnsInto(std::span<const double> course, double low, double high, double now) {
    Turns out;
    if (course.empty()) return out;
    const auto [least, greatest] = std::minmax_element(course.begin(), course.end());
    constexpr double turn = 2.0 * pi;
    // A hair is granted, so that a range that is just as wide as the course holds it.
    const double slack = 1e-12 * (1.0 + std::abs(low) + std::abs(high));
    const double first = std::ceil((low - *least - slack) / turn),
                 last = std::floor((high - *greatest + slack) / turn);
    if (first <= last) {
        out.fits = true;
        out.by = turn * std::clamp(std::round((now - course.front()) / turn), first, last);
        return out;
    }
    // Nothing holds it all: from the turn in which it begins nearest, where it leaves.
    const double begins = turn * std::round((std::clamp(now, low, high) - course.front()) / turn);
    out.by = begins;
    const auto leaves = std::find_if(course.begin(), course.end(), [&](double a) {
        return a + begins < low - slack || a + begins > high + slack;
    });
    out.leavesAt = static_cast<std::size_t>(leaves - course.begin());
    return out;
}

} // namespace gantry::kinematics
